"""The stores in the real browser: what to do at a stop, set by hand, by drag and by key; mends, lists, and the phone."""

import re

import pytest
from playwright.sync_api import Page

from tests.browser.conftest import open_page, visit
from tests.browser.seen import expect


@pytest.fixture
def stores(page: Page, site: str) -> Page:
    visit(page, site, "stores")
    return page


def go_to(page: Page, place: str) -> None:
    slider = page.get_by_role("slider", name="Moment of the tour")
    slider.focus()
    slider.press("Home")
    for _ in range(40):
        if page.get_by_role("heading", name=f"At {place}").count():
            return
        page.keyboard.press("]")


@pytest.mark.far
def test_a_shop_is_skipped_and_the_rest_follows_and_is_undone(stores: Page):
    go_to(stores, "Castrel")
    buy = stores.get_by_role("button", name=re.compile("^Buy"))
    expect(buy).to_contain_text("days:")
    buy.click()
    dialog = stores.get_by_role("dialog")
    expect(dialog.get_by_role("table", name="Shopping list")).to_contain_text("Tinned fish")
    dialog.get_by_role("button", name="Skip it here").click()
    expect(dialog.get_by_text("as you fixed it")).to_be_visible()
    stores.keyboard.press("Escape")
    expect(buy).to_contain_text("nothing (fixed)")
    expect(stores.get_by_role("button", name="Let 1 fixed go")).to_be_visible()
    stores.get_by_role("button", name=re.compile("^Undo: Take 0 of food at Castrel")).click()
    expect(buy).to_contain_text("days:")


def test_an_amount_is_typed_and_planned_again(stores: Page):
    go_to(stores, "Quarve")
    stores.get_by_role("button", name=re.compile("^Fill")).click()
    dialog = stores.get_by_role("dialog")
    field = dialog.get_by_label("Take, l")
    field.fill("9 l")
    field.press("Enter")
    expect(dialog.get_by_text("as you fixed it")).to_be_visible()
    field.fill("much")
    field.press("Enter")
    expect(dialog.get_by_text("is no amount")).to_be_visible()
    field.fill("9 l")
    field.press("Enter")
    dialog.get_by_role("button", name="As planned").click()
    expect(dialog.get_by_text("as planned")).to_be_visible()


def test_a_refill_is_dragged_on_its_lane(stores: Page):
    expect(stores.get_by_text("(proven)")).to_be_visible()  # the last that comes by itself and may move a line
    go_to(stores, "Quarve")
    handle = stores.locator("circle[data-mark]").first
    handle.hover()
    box = handle.bounding_box()
    stores.mouse.down()
    stores.mouse.move(box["x"] + box["width"] / 2, box["y"] - 30, steps=5)
    expect(stores.get_by_text(re.compile(r"^take \d"))).to_be_visible()
    stores.mouse.up()
    expect(stores.get_by_role("button", name=re.compile("^Fill"))).to_contain_text("(fixed)")


def test_the_best_plan_is_proven_and_taken(stores: Page):
    take = stores.get_by_role("button", name="Take the best")
    expect(take).to_be_visible()
    expect(stores.get_by_text("(proven)")).to_be_visible()
    take.click()
    expect(stores.get_by_text("No plan carries less (proven)")).to_be_visible()


@pytest.mark.far
def test_lists_name_every_stop_and_every_lane(stores: Page):
    stores.get_by_role("button", name="Lists and tables").click()
    expect(stores.get_by_role("row").filter(has_text="Castrel")).to_contain_text("Charge")
    stores.get_by_role("tab", name="Sun cream").click()
    expect(stores.get_by_role("row").filter(has_text="Hessick")).to_be_visible()


@pytest.mark.far
def test_a_mend_of_the_stores_is_tried_and_kept(page: Page, site: str):
    visit(page, site, "load")
    page.get_by_role("button", name=re.compile("^Leaving Kestin Wells")).click()
    mend = page.get_by_role("listitem").filter(has_text=re.compile("^Carry .* more in"))
    mend.get_by_role("button", name="Try").click()
    expect(mend).to_contain_text("This ends it.")
    mend.get_by_role("button", name="Keep").click()
    expect(page.get_by_role("button", name=re.compile("^Undo: Mend: Carry"))).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Leaving Kestin Wells"))).to_have_count(0)
    page.keyboard.press("Control+z")
    expect(page.get_by_role("button", name=re.compile("^Leaving Kestin Wells"))).to_be_visible()


def test_how_one_eats_changes_the_plan(stores: Page):
    stores.get_by_role("button", name="How you eat").click()
    dialog = stores.get_by_role("dialog")
    dialog.get_by_label("Way of cooking").click()
    stores.get_by_role("option", name=re.compile("^No stove")).click()
    dialog.get_by_role("button", name="Keep").click()
    expect(stores.get_by_role("button", name="Undo: Change how you eat")).to_be_visible()
    go_to(stores, "Castrel")
    expect(stores.get_by_role("button", name=re.compile("^Refuel"))).to_contain_text("nothing")


def test_a_thing_is_told_what_it_does_and_where_it_is(page: Page, site: str):
    visit(page, site, "kit")
    page.get_by_role("row", name="Whistle and mirror").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("button", name="worn, fixed, posted").click()
    dialog.get_by_role("button", name="packed in a bag Where it is").click()
    page.get_by_role("option", name="in a pocket").click()
    dialog.get_by_role("button", name="what it does").click()
    dialog.get_by_role("button", name="choose What it does").click()
    page.get_by_role("option", name="makes fire").click()
    dialog.get_by_role("button", name="Keep").click()
    expect(page.get_by_role("row", name="Whistle and mirror")).to_contain_text("in a pocket")
    expect(page.get_by_role("status").filter(has_text="Kept")).to_be_visible()
    visit(page, site, "pack")
    expect(page.get_by_label("Not in a bag")).to_contain_text("Whistle and mirror, in a pocket")


def test_on_a_phone_the_strip_comes_first(site: str, browser, complaints: list[str]):
    page = open_page(browser, complaints, has_touch=True)
    page.set_viewport_size({"width": 390, "height": 844})
    visit(page, site, "stores")
    strip, lanes = page.get_by_role("region", name=re.compile("^At ")), page.get_by_role("slider", name="Moment of the tour")
    assert strip.bounding_box()["y"] < lanes.bounding_box()["y"]
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.get_by_role("button", name=re.compile("^Fill")).tap()
    expect(page.get_by_role("dialog").get_by_role("table", name="Vessels")).to_be_visible()
    assert complaints == []
    page.context.close()
