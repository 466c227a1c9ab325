"""After the tour and before the next: verdicts by one touch, rates taken over, the list handed on; and a journey with the bikes."""

import re
from collections.abc import Iterator

import pytest
from flask import Flask
from playwright.sync_api import Page

from omnifer.core.assess import profile_of
from omnifer.store.database import LOCAL_RIDER, owner_named
from omnifer.store.diary import Diary
from omnifer.store.library import Library
from tests.browser.conftest import look_away, visit
from tests.browser.seen import expect
from tests.conftest import tours_of
from tests.core.test_diary import KIT, STOWED, straight_tour, told


@pytest.fixture
def ridden(served: tuple[str, Flask], page: Page) -> Iterator[tuple[str, str, str]]:
    """A tour that was ridden and the next one, with a chair of the library on both: the address, and the two of them."""
    address, application = served
    tours, pool = tours_of(application), application.extensions["omnifer"].pool
    owner = owner_named(pool, LOCAL_RIDER)
    library = Library(pool, owner)
    chair = library.add([KIT[0]])[0]
    kit = (KIT[0].model_copy(update={"library_id": chair}), *KIT[1:])
    old = straight_tour(*kit, load=STOWED, name="Last summer")
    assert profile_of(old) is not None
    kept = [tours.create(old), tours.create(straight_tour(*kit, load=STOWED, name="Next summer"))]
    entries = [told("set_out", hour=7, km=0), told("arrived", day=10, hour=18, km=600)]
    entries += [told("slept", day=d, hour=20, km=60.0 * d, word="right") for d in range(1, 10)]
    entries += [told("used", day=d, about="wipes", amount=4, km=60.0 * d) for d in range(1, 10)]
    entries.append(told("sent_home", day=4, hour=9, about="lens", km=190))
    Diary(pool, owner).add(kept[0].id, [one.entry for one in entries])
    yield address, kept[0].id, kept[1].id
    look_away(page)
    for line in tours.list():
        tours.delete(line.id)
    library.remove(chair, library.read(chair).version)


def test_a_tour_is_unpacked_and_handed_on(page: Page, ridden: tuple[str, str, str]):
    site, old, new = ridden
    page.goto(f"{site}/tours/{old}/debrief", wait_until="commit")
    playhead = page.get_by_role("slider", name="Moment of the tour")
    expect(playhead).to_have_attribute("aria-valuetext", re.compile("^Day 10, "))
    expect(page.get_by_role("list", name="What changed the load")).to_contain_text("day 4lens sent home: 0.80 kg")
    playhead.focus()
    playhead.press("Home")
    expect(playhead).to_have_attribute("aria-valuetext", re.compile(r"^Day 1, 0\skm"))
    page.set_viewport_size({"width": 390, "height": 844})
    expect(page.get_by_role("img", name=re.compile("Load history: .* on day 10"))).to_be_visible()
    page.set_viewport_size({"width": 1280, "height": 800})
    lens = page.get_by_role("listitem", name="lens")
    expect(lens).to_contain_text("sent off on day 4; was it used before?")
    lens.get_by_role("button", name="Never").click()
    expect(lens).to_contain_text("0 of 4")
    chair = page.get_by_role("listitem", name="chair")
    chair.get_by_role("button", name="Never").click()
    expect(chair).to_contain_text("never used, 0.90 kg")
    expect(page.get_by_role("region", name="For next time")).to_contain_text("chair, lens")
    chair.get_by_role("button", name="More verdicts on chair").click()
    page.get_by_role("menuitem", name="The wrong one").click()
    expect(chair).to_contain_text("another kind next time")
    chair.get_by_role("button", name="Never").click()
    expect(chair).to_contain_text("leave it")
    rates = page.get_by_role("region", name="What your days say")
    wipes = rates.get_by_role("listitem", name="wipes")
    expect(wipes).to_contain_text("3.3 pieces")
    wipes.get_by_role("button", name="Take wipes").click()
    expect(wipes).to_contain_text("taken")
    page.get_by_role("button", name="Hand it to the library and Next summer").click()
    expect(page.get_by_role("status").filter(has_text="know now what this tour taught")).to_be_visible()
    page.goto(f"{site}/tours/{new}/kit", wait_until="commit")
    expect(page.locator('[data-thing="chair"]')).to_contain_text("last time: Never used")
    expect(page.get_by_role("button", name="Undo: From the library: chair")).to_be_visible()


def test_a_journey_tells_when_to_leave_and_what_may_not_come(page: Page, site: str):
    visit(page, site, "pack?sheet=travel")
    page.get_by_role("button", name="Add a journey").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("button", name=re.compile("By")).click()
    page.get_by_role("option", name="Flight").click()
    dialog.get_by_label("Gets in at").fill("40")
    dialog.get_by_label("Departs at").fill("17:30")
    dialog.get_by_label("A bike may weigh").fill("23")
    dialog.get_by_role("button", name="Keep").click()
    flight = page.get_by_role("region", name=re.compile("Flight at km 40"))
    expect(flight).to_contain_text(re.compile(r"Leave by \d\d:\d\d: 40"))
    expect(flight).to_contain_text("in its box")
    expect(flight).to_contain_text(re.compile("Power bank, .*cabin"))
    expect(flight).to_contain_text("not allowed")
    page.get_by_role("button", name=re.compile("^Undo: Travel by flight")).click()
    expect(flight).to_be_hidden()
