"""The craft in the real browser: a bike's own parts, an own bag, the first-aid kit, and what a diary says of bikes and bodies."""

import re
from collections.abc import Iterator

import pytest
from flask import Flask
from playwright.sync_api import Page

from omnifer.store.database import LOCAL_RIDER, owner_named
from omnifer.store.diary import Diary
from tests.browser.conftest import look_away, visit
from tests.browser.seen import expect
from tests.browser.test_first_hour import clean
from tests.conftest import tours_of
from tests.core.test_diary import KIT, STOWED, straight_tour, told
from tests.patience import until


def test_parts_are_said_renewed_and_chosen_otherwise(page: Page, site: str):
    """A tyre with much behind it ends on the way, is renewed at a shop, and another kind of it is ridden."""
    visit(page, site, "rig")
    page.get_by_role("button", name="Parts, care and choices").click()
    dialog = page.get_by_role("dialog")
    row = dialog.get_by_role("row").filter(has=page.get_by_role("rowheader", name="front tyre"))
    expect(row).to_contain_text("a guess")
    behind = row.get_by_label("Behind the front tyre")
    behind.fill("7600")
    behind.press("Tab")
    expect(row).to_contain_text(re.compile(r"Worn out about [\d\s,.]+km, day \d+"))
    expect(row).not_to_contain_text("a guess")
    row.get_by_role("button", name="A new front tyre goes on at").click()
    page.get_by_role("option", name=re.compile("^Castrel")).click()
    expect(row).to_contain_text("Lasts, renewed on the way")
    dialog.get_by_role("button", name="Chain oil").click()
    page.get_by_role("option", name="Dry oil").click()
    expect(dialog.get_by_text("rain washes dry oil off")).to_be_visible()
    expect(dialog.get_by_role("region", name="Air in the tyres")).to_contain_text(re.compile(r"Days 1.\d+"))
    dialog.get_by_role("button", name=re.compile("^Ride this road")).click()
    knobbly = dialog.get_by_role("row").filter(has_text="Knobbly tyres")
    expect(knobbly).to_contain_text(re.compile(r"\+\d+\.\d"))
    clean(page, "parts and care")
    knobbly.get_by_role("button", name="Take it").click()
    expect(dialog.get_by_role("row").filter(has_text="Tyres with a mixed tread")).to_be_visible()
    dialog.get_by_role("button", name="Close", exact=True).click()
    page.reload()
    page.get_by_role("button", name="Parts, care and choices").click()
    expect(page.get_by_role("dialog").get_by_label("Behind the front tyre")).to_have_value("7600")
    page.keyboard.press("Escape")
    page.get_by_role("button", name=re.compile("^Undo: Knobbly tyres")).click()


def test_an_own_bag_is_hung_with_what_is_known_of_it(page: Page, site: str):
    """Kept in the library as it is, told of a leak, taken off and hung again: it is as its owner knows it."""
    visit(page, site, "rig")
    page.get_by_role("button", name="Edvin's bike and trailer", exact=True).click()
    roll = page.locator("summary").filter(has_text="Handlebar roll")
    roll.click()
    item = page.locator("details[open]").filter(has=roll)
    leaks = item.get_by_label("Where it leaks")
    leaks.fill("along the seam")
    leaks.press("Tab")
    expect(page.get_by_role("button", name="Undo: Change Handlebar roll")).to_be_visible()
    item.get_by_role("button", name="Keep it in the library").click()
    expect(item.get_by_role("button", name="Tell the library of it")).to_be_visible()
    clean(page, "an own bag")
    item.get_by_role("button", name="Take it off").click()
    expect(roll).to_have_count(0)
    page.get_by_role("button", name="Hang something on handlebar").click()
    page.get_by_role("menuitem", name=re.compile("^Your Handlebar roll")).click()
    roll.click()
    expect(page.locator("details[open]").filter(has=roll).get_by_label("Where it leaks")).to_have_value("along the seam")


def test_the_first_aid_kit_is_ticked(page: Page, site: str):
    visit(page, site, "pack?sheet=checks")
    kit = page.get_by_role("region", name="In the first-aid kit")
    expect(kit).to_contain_text("it is no course")
    box = kit.get_by_role("checkbox", name=re.compile("plasters"))
    box.press("Space")
    expect(box).to_be_checked()
    expect(kit).to_contain_text("1 of ")


@pytest.fixture
def third_day(served: tuple[str, Flask], page: Page) -> Iterator[tuple[str, Diary, str]]:
    """On the evening of the third day, 180 km after the start, with oil that lasts 230 dry kilometres, of which wet ones count for more."""
    address, application = served
    tours, pool = tours_of(application), application.extensions["omnifer"].pool
    diary = Diary(pool, owner_named(pool, LOCAL_RIDER))
    kept = tours.create(straight_tour(*KIT, load=STOWED).model_copy(update={"own_values": {"oil_wet_km": 230.0}}))
    entries = [told("set_out", hour=7, km=0), *(told("slept", day=d, hour=20, km=60.0 * d, word="right") for d in (1, 2))]
    diary.add(kept.id, [one.entry for one in [*entries, told("here", day=3, hour=17, km=175)]])
    yield f"{address}/tours/{kept.id}/diary", diary, kept.id
    look_away(page)
    tours.delete(kept.id)


def test_bikes_and_bodies_of_a_day(third_day: tuple[str, Diary, str], page: Page):
    """What is due for the bikes goes with one touch, and an ache with two."""
    address, diary, tour = third_day
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(address, wait_until="commit")
    bikes = page.get_by_role("list", name="For the bikes")
    before = len(diary.read(tour)[0])
    bikes.get_by_role("button", name="Oil the chain: done").click()
    expect(bikes).to_have_count(0)
    page.get_by_role("region", name="Today").get_by_role("button", name="More", exact=True).click()
    page.get_by_role("button", name="Hurt", exact=True).click()
    page.get_by_role("button", name="hands", exact=True).click()
    clean(page, "an ache")
    page.get_by_role("button", name="3 h", exact=True).click()
    expect(page.get_by_text(re.compile("^Last: Hurt"))).to_be_visible()
    until(lambda: len(diary.read(tour)[0]) == before + 2, "what is noted does not arrive")
    noted = [one.entry for one in diary.read(tour)[0]]
    assert ("oiled", "") in {(entry.verb, entry.about) for entry in noted}
    assert [(e.about, e.amount) for e in noted if e.verb == "hurt"] == [("hands", 3)]
