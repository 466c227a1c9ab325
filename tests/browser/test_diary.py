"""The diary on a phone: what comes next by one touch, another amount, undo, what is out of the road's reach, and pictures that are none."""

import re
from collections.abc import Iterator

import pytest
from flask import Flask
from playwright.sync_api import Page

from omnifer.core.model.road import Road
from omnifer.store.database import LOCAL_RIDER, owner_named
from omnifer.store.diary import Diary
from tests.browser.conftest import look_away
from tests.browser.seen import expect
from tests.conftest import small_tour, tours_of
from tests.core.test_diary import KIT, STOWED, straight_tour, told

PHONE = {"width": 390, "height": 844}


@pytest.fixture
def under_way(served: tuple[str, Flask], page: Page) -> Iterator[tuple[str, Diary, str]]:
    """A tour on its third day at km 130: the address of its diary, its entries, and its identifier."""
    address, application = served
    tours, pool = tours_of(application), application.extensions["omnifer"].pool
    diary = Diary(pool, owner_named(pool, LOCAL_RIDER))
    kept = tours.create(straight_tour(*KIT, load=STOWED))
    entries = [
        told("set_out", hour=7, km=0),
        told("slept", hour=20, km=60, word="right"),
        told("slept", day=2, hour=20, km=120, word="right"),
    ]
    diary.add(kept.id, [one.entry for one in [*entries, told("here", day=3, hour=11, km=130)]])
    yield f"{address}/tours/{kept.id}/diary", diary, kept.id
    look_away(page)
    tours.delete(kept.id)


def fills(diary: Diary, tour: str) -> list[tuple[float | None, float | None]]:
    return [(one.entry.km, one.entry.amount) for one in diary.read(tour)[0] if one.entry.verb == "filled"]


def test_what_comes_next_is_kept_as_planned_with_one_touch(under_way: tuple[str, Diary, str], page: Page):
    address, diary, tour = under_way
    page.set_viewport_size(PHONE)
    page.goto(address, wait_until="commit")
    following = page.get_by_role("list", name="What comes next")
    fill = following.get_by_role("listitem").filter(has_text="Fill")
    expect(fill).to_contain_text("Place 3, in 50 km")
    litres = float(re.search(r"([\d.]+)\s*l", fill.inner_text()).group(1))
    fill.get_by_role("button", name="Fill as planned: done").click()
    expect(page.get_by_role("heading", name=re.compile(r"^Day \d+, Place 3$"))).to_be_visible()
    expect(page.get_by_text(re.compile("^Last: Filled"))).to_be_visible()
    ((km, amount),) = fills(diary, tour)
    assert km == 180
    assert amount == pytest.approx(litres, abs=0.06)
    page.get_by_role("button", name="Undo it").click()
    expect(fill).to_contain_text("Place 3, in 50 km")
    # The words open the amounts, to say another.
    fill.get_by_role("button", name=re.compile("^Fill, another amount")).click()
    panel = page.get_by_role("region", name="Filled")
    panel.get_by_role("button", name="More Water").click()
    panel.get_by_role("button", name=re.compile("Keep")).click()
    expect(panel).to_be_hidden()
    expect(page.get_by_text(re.compile("^Last: Filled"))).to_be_visible()


def test_a_file_that_is_no_picture_is_not_lost(under_way: tuple[str, Diary, str], page: Page, complaints: list[str]):
    address, _, _ = under_way
    page.set_viewport_size(PHONE)
    page.goto(address, wait_until="commit")
    page.get_by_role("main").get_by_role("button", name="More", exact=True).click()
    page.get_by_role("button", name="Note", exact=True).click()
    panel = page.get_by_role("region", name="Note")
    panel.get_by_label("Note", exact=True).fill("The pass in the fog")
    with page.expect_file_chooser() as chooser:
        panel.get_by_role("button", name="Add a picture").click()
    chooser.value.set_files({"name": "fog.jpg", "mimeType": "image/jpeg", "buffer": b"no light at all"})
    panel.get_by_role("button", name="Keep it").click()
    trouble = page.get_by_role("alert").filter(has_text="Picture not taken: This is no picture that can be read")
    expect(trouble).to_be_visible()
    with page.expect_download() as saved:
        trouble.get_by_role("button", name="Save it on this device").click()
    assert saved.value.path().read_bytes() == b"no light at all"
    trouble.get_by_role("button", name="Forget it").click()
    expect(trouble).to_be_hidden()
    expect(page.get_by_text("The pass in the fog")).to_be_visible()
    assert len(complaints) == 1
    assert "422" in complaints.pop()


def test_a_tour_without_a_road_says_what_to_do_first(page: Page, served: tuple[str, Flask]):
    address, application = served
    tours = tours_of(application)
    kept = tours.create(small_tour(road=Road()))
    page.goto(f"{address}/tours/{kept.id}/diary", wait_until="commit")
    expect(page.get_by_text("This tour has no road yet")).to_be_visible()
    expect(page.get_by_text("at the start,")).to_have_count(0)
    expect(page.get_by_role("link", name="Say where you ride")).to_have_attribute("href", f"/tours/{kept.id}/road")
    look_away(page)
    tours.delete(kept.id)
