"""Editing in the real browser: every part of a tour can be changed, taken back and printed."""

import re

import pytest
from playwright.sync_api import Page, Route

from tests.browser.conftest import open_page, visit
from tests.browser.seen import expect
from tests.browser.test_first_hour import clean


def undo(page: Page, what: str) -> None:
    page.get_by_role("button", name=f"Undo: {what}").click()


def test_a_thing_is_added_changed_and_removed(page: Page, site: str):
    visit(page, site, "kit")
    page.get_by_role("button", name="Add a thing").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("button", name="Keep").click()
    expect(dialog.get_by_role("alert")).to_have_text("Give the thing a name.")
    dialog.get_by_label("Name", exact=True).fill("Keepsake")
    expect(dialog.get_by_role("alert")).to_have_count(0)  # what else is wrong is said when it was tried again
    dialog.get_by_role("button", name="Keep").click()
    expect(dialog.get_by_role("alert")).to_contain_text("packed volume")
    asked: list[Route] = []
    page.route("**/api/things/told", lambda route: asked.append(route))
    dialog.get_by_label("Mass of one").fill("4 oz")
    volume = dialog.get_by_label("Packed volume of one")
    volume.select_text()  # and leaves the mass, whereupon is asked what it takes
    expect(dialog.get_by_label("Mass of one")).to_have_value("0.113")
    with page.expect_response("**/api/things/told"):
        asked.pop().continue_()
    page.unroute("**/api/things/told")
    expect(dialog.get_by_role("button", name="~ 0.34 l packed", exact=True)).to_be_visible()
    page.keyboard.type("0,25")  # what is told meanwhile takes nothing from under the hands
    expect(volume).to_have_value("0,25")
    volume.blur()
    expect(dialog.get_by_role("button", name="0.25 l packed", exact=True)).to_be_visible()
    dialog.get_by_role("button", name="must, may stay").click()
    dialog.get_by_text("gets wet").click()
    dialog.get_by_role("button", name="Keep").click()
    expect(page.get_by_text("135 kinds,")).to_be_visible()

    page.get_by_placeholder("Find a thing").fill("keepsake")
    tag = page.locator('[data-thing="keepsake"]')
    expect(tag).to_contain_text("on the shelf")
    tag.click()
    page.get_by_role("dialog").get_by_role("button", name="Remove from the kit").click()
    expect(page.get_by_text("134 kinds,")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Undo: ")).click()
    expect(page.get_by_text("135 kinds,")).to_be_visible()


@pytest.mark.parametrize("size", [(1280, 800), (390, 844)], ids=["desk", "phone"])
def test_what_a_thing_is_says_the_rest_in_words_that_open_their_control(size: tuple[int, int], site: str, browser, complaints):
    page = open_page(browser, complaints, has_touch=size[0] < 700)
    page.set_viewport_size({"width": size[0], "height": size[1]})
    visit(page, site, "kit")
    page.get_by_role("button", name="Add a thing").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Name", exact=True).fill("Old faithful")
    kind = dialog.get_by_role("combobox", name="What it is")
    kind.fill("schlafsac")
    page.get_by_role("option", name="sleeping bag sleep").click()
    expect(dialog.get_by_role("button", name="~ is slept in, comfort")).to_be_visible()
    expect(dialog.get_by_role("button", name="~ overnight")).to_be_visible()
    mass = dialog.get_by_label("Mass of one, a guess")
    expect(mass).not_to_have_value("0")
    assert page.evaluate(
        "(([d]) => d.scrollHeight <= d.clientHeight)([document.querySelector('[role=dialog]').parentElement.parentElement])"
    )
    dialog.get_by_role("button", name="~ is slept in").click()
    clean(page, "a thing")
    comfort = dialog.get_by_label("Comfort on its label")
    comfort.fill("-7")
    comfort.blur()
    expect(dialog.get_by_role("button", name=re.compile("^is slept in, comfort −7"))).to_be_visible()
    dialog.get_by_role("button", name="Keep").click()
    expect(dialog).to_be_hidden()
    page.locator('[data-thing="old-faithful"]').click()
    expect(dialog.get_by_role("combobox", name="What it is")).to_have_value("sleeping bag")
    expect(dialog.get_by_role("button", name=re.compile("^is slept in, comfort −7"))).to_be_visible()
    expect(dialog.get_by_role("button", name="~ overnight")).to_be_visible()
    page.context.close()
    assert complaints == []


def test_things_are_added_by_their_names_one_after_the_other_and_made_known(page: Page, site: str):
    """Two pairs by Enter, a name that tells no mass is kept in its field with what to do, then what names tell is taken at once."""
    visit(page, site, "kit")
    field = page.get_by_label("Add a thing by its name")
    field.fill("2 wool socks")
    field.press("Enter")
    expect(page.get_by_text("135 kinds,")).to_be_visible()
    expect(page.locator('[data-thing="2-wool-socks"]')).to_contain_text("2 × Wool socks")
    expect(field).to_have_value("")
    field.fill("Thingummy")
    field.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("has no mass; write it")
    expect(field).to_have_value("Thingummy")
    field.fill("Thingummy 120 g")
    field.press("Enter")
    expect(page.get_by_text("136 kinds,")).to_be_visible()

    page.get_by_role("button", name="1 thing is not known yet").click()
    dialog = page.get_by_role("dialog", name="What they are")
    expect(dialog).to_contain_text("Paper and trowel")
    doubt = dialog.get_by_role("radiogroup", name="Paper and trowel: what it is")
    doubt.get_by_role("radio").first.press("1")
    dialog.get_by_role("button", name="Take what the names say").click()
    expect(dialog).to_be_hidden()
    expect(page.get_by_role("button", name="not known yet")).to_have_count(0)
    undo(page, "Say what 1 thing")


def test_several_things_are_set_at_once_dragged_and_sorted(page: Page, site: str):
    visit(page, site, "kit")
    for name in ("Choose Tarp", "Choose Travel chess"):
        page.get_by_role("checkbox", name=name).check(force=True)
    strip = page.get_by_role("region", name="Chosen things")
    expect(strip.get_by_role("status")).to_contain_text("2 things chosen: 0.5 kg, 1.8 l")
    strip.get_by_role("button", name="Moment").click()
    page.get_by_role("menuitem", name="Overnight").click()
    night = page.get_by_role("grid", name="Overnight")
    expect(night.get_by_role("row", name="Tarp")).to_be_visible()
    undo(page, "Set the moment of 2 things")
    expect(page.get_by_role("grid", name="At a stop").get_by_role("row", name="Tarp")).to_be_visible()
    strip.get_by_role("button", name="Choose none").click()

    page.get_by_role("row", name="Wind vest").drag_to(page.get_by_role("row", name="Tent inner"))
    expect(page.get_by_role("grid", name="On arrival in camp").get_by_role("row", name="Wind vest")).to_be_visible()

    page.get_by_role("radio", name="As a table").click()
    table = page.get_by_role("table", name="All things")
    table.get_by_role("button", name="One, kg").click()
    table.get_by_role("button", name="One, kg").click()
    expect(table.get_by_role("row").nth(1)).to_contain_text("Sleeping bag, cold")
    page.get_by_placeholder("Find a thing").fill("slepping")
    expect(table.get_by_role("row", name="Sleeping bag, cold")).to_be_visible()
    expect(table.get_by_role("row", name="Tarp")).to_have_count(0)


def test_a_bag_is_overwritten_and_the_load_follows(page: Page, site: str):
    visit(page, site, "rig")
    bag = page.locator("details").filter(has_text="Rear left")
    bag.locator("summary").click()
    limit = bag.get_by_label("Limit")
    limit.fill("2")
    limit.blur()
    expect(bag.locator("summary")).to_contain_text("over")
    visit(page, site, "load")
    expect(page.get_by_text(re.compile("Rear left holds .* of 2.0")).first).to_be_visible()
    undo(page, "Change Rear left")
    expect(page.get_by_text(re.compile("Rear left holds .* of 2.0"))).to_have_count(0)


def test_taking_off_a_rack_puts_its_things_on_the_shelf(page: Page, site: str):
    visit(page, site, "rig")
    rack = page.locator("details").filter(has_text="on the fork eyelets")
    rack.locator("summary").click()
    rack.get_by_role("button", name="Take off, with its bags").click()
    expect(page.get_by_text("Low front rack")).to_have_count(0)
    visit(page, site, "load")
    stow = page.get_by_role("tab", name=re.compile(r"To stow \d+"))
    assert int(re.search(r"\d+", stow.text_content()).group()) > 5
    undo(page, "Take off Low front rack")
    expect(page.get_by_role("tab", name="To stow 6")).to_be_visible()


def test_days_are_cut_anew(page: Page, site: str):
    visit(page, site, "road")
    hours = page.get_by_label("Riding a day, h")
    days = page.locator("header").first
    expect(days).to_contain_text(re.compile(r"\d+ days"))
    before = re.search(r"\d+ days", days.text_content()).group()
    hours.fill("7")
    hours.blur()
    expect(days).not_to_contain_text(before)
    undo(page, "Cut the days anew")
    expect(days).to_contain_text(before)


def test_ticks_belong_to_the_tour_and_whoever_packs_sees_them(page: Page, site: str, browser, complaints: list[str]):
    visit(page, site, "pack")
    page.get_by_role("checkbox").first.press("Space")
    expect(page.get_by_text(re.compile(r"^1 of \d+ in$"))).to_be_visible()
    other = open_page(browser, complaints)
    visit(other, site, "pack")
    expect(other.get_by_text(re.compile(r"^1 of \d+ in$"))).to_be_visible()
    other.get_by_role("checkbox").nth(1).press("Space")
    expect(page.get_by_text(re.compile(r"^2 of \d+ in$"))).to_be_visible()
    page.get_by_role("button", name="Pack anew").click()
    expect(page.get_by_text(re.compile(r"^[1-9]\d* of \d+ in$"))).to_have_count(0)
    other.context.close()


def test_cards_print_without_the_screen_around_them(page: Page, site: str):
    visit(page, site, "pack")
    page.emulate_media(media="print")
    expect(page.get_by_role("heading", name="Rear left")).to_be_visible()
    expect(page.get_by_role("navigation").first).to_be_hidden()
    pdf = page.pdf(format="A4")
    assert pdf.startswith(b"%PDF")
    sheets = len(re.findall(rb"/Type\s*/Page[^s]", pdf))
    cards = page.request.get(f"{page.url.replace('/tours/', '/api/tours/').removesuffix('/pack')}").json()["assessment"]["cards"]
    assert len(cards) / 8 <= sheets <= len(cards) / 2, "two to four cards on a sheet, small ones more"


def test_night_colours_are_remembered(page: Page, site: str):
    visit(page, site, "load")
    background = "getComputedStyle(document.body).backgroundColor"
    day = page.evaluate(background)
    page.get_by_role("button", name="Night colours").click()
    night = page.evaluate(background)
    assert night != day
    visit(page, site, "kit")
    assert page.evaluate(background) == night
    page.get_by_role("button", name="Day colours").click()
    assert page.evaluate(background) == day


@pytest.mark.far
def test_tours_are_drawn_renamed_copied_removed_and_fetched_back(page: Page, site: str):
    page.goto(site)
    name = "Tamsen Quay to Lantern Point"
    expect(page.get_by_role("img", name=re.compile("above the land of 15 days"))).to_be_visible()
    expect(page.get_by_text("196 of 202 things stowed")).to_be_visible()

    def more(tour: str, what: str) -> None:
        page.get_by_role("button", name=f"More of {tour}", exact=True).click()
        page.get_by_role("menuitem", name=what).click()

    more(name, "Copy")
    expect(page.get_by_role("link", name=f"{name}, a copy")).to_be_visible()
    more(f"{name}, a copy", "Rename")
    page.get_by_label("Name of the tour").fill("Back again")
    page.get_by_role("dialog").get_by_role("button", name="Keep").click()
    expect(page.get_by_role("link", name="Back again")).to_be_visible()
    more("Back again", "Remove")
    expect(page.get_by_role("link", name="Back again")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("link", name="Back again")).to_be_visible()
    more("Back again", "Remove")
    page.get_by_text("Removed lately: 1").click()
    page.get_by_role("button", name="Fetch back").click()
    page.get_by_role("link", name="Back again").click()
    page.wait_for_url("**/load")
