"""The road in the real browser: stops, nights, weather, surfaces, the track, by mouse and by key."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page

from omnifer.core.road.profile import from_track
from omnifer.demo.country import demo_track
from tests.browser.conftest import visit
from tests.browser.seen import expect
from tests.browser.test_first_hour import clean
from tests.formats.test_gpx import gpx


@pytest.fixture
def road(page: Page, site: str) -> Page:
    visit(page, site, "road")
    return page


def tab(page: Page, name: str) -> None:
    page.get_by_role("tab", name=name).click()


def test_a_stop_is_told_in_full(road: Page):
    road.get_by_role("button", name="Change Brask").click()
    dialog = road.get_by_role("dialog")
    dialog.get_by_label("Opens", exact=True).fill("late")
    dialog.get_by_role("button", name="Keep").click()
    expect(dialog.get_by_role("alert")).to_contain_text("opening hours")
    dialog.get_by_label("Opens", exact=True).fill("6:00")
    dialog.get_by_label("Closes", exact=True).fill("7:00")
    dialog.get_by_text("laundry").click()
    dialog.get_by_role("button", name="Keep").click()
    row = road.get_by_role("row").filter(has_text="Brask")
    expect(row).to_contain_text("closes at 07:00")
    road.get_by_role("button", name="Undo: Change Brask").click()
    expect(row).not_to_contain_text("closes at 07:00")


def test_without_a_bike_no_kilogram_costs_anything(road: Page, site: str):
    expect(road.get_by_text("Each extra kilogram costs")).to_be_visible()
    visit(road, site, "rig")
    for left in (1, 0):
        road.get_by_role("button", name="Remove this bike").click()
        expect(road.get_by_role("button", name="Remove this bike")).to_have_count(min(left, 1))
    expect(road.get_by_role("status").filter(has_text="Kept")).to_be_visible()
    visit(road, site, "road")
    expect(road.get_by_text("Coldest night")).to_be_visible()
    expect(road.get_by_text("Each extra kilogram costs")).to_have_count(0)
    expect(road.get_by_text("Infinity")).to_have_count(0)


@pytest.mark.whole
def test_what_does_not_count_is_named(road: Page):
    expect(road.get_by_role("row").filter(has_text="Ravel").first).to_contain_text("closed on Wednesdays")
    expect(road.get_by_role("row").filter(has_text="Dry Ford")).to_contain_text("dry in April")
    tab(road, "Gaps")
    expect(road.get_by_role("row").filter(has_text="Kestin Wells").first).to_contain_text("Salt House: not sure")


@pytest.mark.whole
def test_a_night_is_moved_by_key_and_by_drag_and_followed_by_rest(road: Page):
    tab(road, "Days")
    rests = road.get_by_role("cell", name="rest", exact=True)
    expect(rests).to_have_count(1)
    road.get_by_role("button", name="Rest a day after it").click()
    expect(rests).to_have_count(2)
    expect(road.get_by_text("set by you")).to_be_visible()
    road.get_by_role("button", name="5 km earlier").press("Enter")
    expect(road.get_by_role("button", name=re.compile("^Undo: End day"))).to_be_visible()
    handle = road.locator("g[data-mark]").filter(has=road.locator("title", has_text="End of day 2.")).last
    box = handle.bounding_box()
    road.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    road.mouse.down()
    road.mouse.move(box["x"] - 8, box["y"] + 10, steps=4)
    road.mouse.up()
    expect(road.get_by_role("button", name=re.compile("^Undo: End day 2 "))).to_be_visible()


@pytest.mark.whole
def test_another_start_finds_the_shop_open(road: Page, site: str):
    road.get_by_label("Leave on").fill("2027-04-13")
    expect(road.get_by_role("row").filter(has_text="Ravel").first).not_to_contain_text("closed on")


@pytest.mark.whole
def test_surfaces_and_ferries_are_painted_from_the_playhead(road: Page):
    riding = road.locator("dl").get_by_text(re.compile(r"^\d+\sh$"))
    before = riding.text_content()
    tab(road, "Surfaces")
    road.get_by_role("button", name="Ferry from the playhead on").click()
    expect(road.get_by_role("button", name="Remove this transfer")).to_have_count(2)
    expect(riding).not_to_have_text(before)
    road.get_by_role("button", name="Gravel from the playhead on").click()
    expect(road.get_by_role("button", name="Remove this surface")).to_have_count(3)
    road.get_by_label("Narrowest gate").fill("50 cm")
    road.get_by_label("Narrowest gate").press("Enter")
    expect(undo := road.get_by_role("button", name="Undo: Narrowest passage")).to_be_visible()
    road.keyboard.press("Alt+4")
    expect(road.get_by_text(re.compile("the narrowest passage 500"))).to_be_visible()
    undo.click()
    expect(road.get_by_text(re.compile("the narrowest passage 500"))).to_be_hidden()


def test_stations_come_from_a_file(road: Page, tmp_path: Path):
    tab(road, "Weather")
    sheet = tmp_path / "months.csv"
    sheet.write_text("max;min\n" + "35;21\n" * 12)
    road.get_by_label("Name of the station").fill("Old Fort")
    road.get_by_label("At km of the road").fill("300")
    with road.expect_file_chooser() as chooser:
        road.get_by_role("button", name="Bring a station record").click()
    chooser.value.set_files(sheet)
    expect(road.get_by_text("Old Fort", exact=True)).to_be_visible()
    road.get_by_label("Over the land, show").first.click()
    road.get_by_role("option", name="Cold nights, hot days").click()
    expect(road.get_by_text("line: cold night to hot day")).to_be_visible()


def test_a_table_of_stops_is_looked_at_and_taken(road: Page):
    road.get_by_role("button", name="Paste a table").click()
    dialog = road.get_by_role("dialog")
    dialog.get_by_label("The table").fill("km;name;water\n77;Lone Tap;sure\nnear;Bad;\n")
    dialog.get_by_role("button", name="Look at it").click()
    expect(dialog.get_by_text("1 stops can be taken.")).to_be_visible()
    expect(dialog.get_by_text("Row 3, km")).to_be_visible()
    dialog.get_by_role("button", name="Take 1 stops").click()
    expect(road.get_by_role("button", name="Change Lone Tap")).to_be_visible()


@pytest.mark.whole
def test_the_track_is_turned_round_and_back(road: Page):
    first = road.get_by_role("row").nth(1)
    expect(first).to_contain_text("Tamsen Quay")
    road.get_by_role("button", name="Track and pace").click()
    road.get_by_role("button", name="Ride it the other way").click()
    expect(first).to_contain_text("Lantern Point")
    road.get_by_role("button", name="Undo: Ride the road the other way").click()
    expect(first).to_contain_text("Tamsen Quay")


@pytest.mark.whole
def test_the_ribbon_zooms_by_key_and_button_and_follows_the_playhead(road: Page):
    slider = road.get_by_role("slider", name="Moment of the tour")
    slider.focus()
    road.keyboard.press("Home")
    ribbon = road.get_by_role("img", name=re.compile("above the land"))
    expect(ribbon).to_contain_text("Lantern Point")
    road.keyboard.press("+")
    road.keyboard.press("+")
    expect(ribbon).not_to_contain_text("Lantern Point")
    road.keyboard.press("End")
    expect(ribbon).to_contain_text("Lantern Point")
    road.get_by_role("button", name="Show more days").click()
    road.get_by_role("button", name="Show more days").click()
    expect(road.get_by_role("button", name="Show more days")).to_be_disabled()


def test_the_plan_moves_the_playhead(road: Page):
    plan = road.get_by_role("img", name=re.compile("The road from above"))
    value = road.get_by_role("slider").get_attribute("aria-valuenow")
    box = plan.bounding_box()
    plan.click(position={"x": box["width"] * 0.8, "y": box["height"] * 0.3})
    assert road.get_by_role("slider").get_attribute("aria-valuenow") != value


@pytest.mark.whole
def test_a_brush_paints_the_ribbon(road: Page):
    tab(road, "Surfaces")
    road.get_by_role("button", name="sand or mud").click()
    box = road.get_by_role("img", name=re.compile("above the land")).bounding_box()
    y = box["y"] + box["height"] / 2
    road.mouse.move(500, y)
    road.mouse.down()
    road.mouse.move(560, y, steps=4)
    road.mouse.up()
    expect(road.get_by_role("button", name="Remove this surface")).to_have_count(3)
    expect(road.get_by_role("button", name=re.compile("^Undo: Paint sand or mud"))).to_be_visible()
    expect(road.get_by_role("tab", name=re.compile("^Days"))).not_to_have_text("Days 40")


def test_an_outlook_says_why_it_is_silent(road: Page):
    tab(road, "Weather")
    road.get_by_role("button", name=re.compile("^Ask for day")).click()
    expect(road.get_by_role("alert")).to_contain_text("No weather service is set up")


@pytest.mark.whole
def test_a_long_track_is_called_off(road: Page, tmp_path: Path):
    long = tmp_path / "long.gpx"
    long.write_bytes(gpx(*((45 + n / 100_000, 7.0, 200.0) for n in range(250_000))))
    with road.expect_file_chooser() as chooser:
        road.get_by_role("button", name="Another track").click()
    chooser.value.set_files(long)
    expect(road.get_by_role("progressbar")).to_be_visible()
    road.get_by_role("button", name="Cancel").click()
    expect(road.get_by_role("progressbar")).to_be_hidden()
    expect(road.locator("dl").get_by_text("2\u202f600\u00a0km")).to_be_visible()
    expect(road.get_by_role("button", name=re.compile("^Undo"))).to_be_disabled()


def test_a_default_is_overwritten_seen_to_move_the_tour_and_taken_back(road: Page):
    tab(road, "Assumed")
    name = "Water of a rider for an evening, night and morning away from a source"
    road.get_by_role("button", name=f"What it moves: {name}").click()
    moved = road.get_by_role("table", name=f"What {name} moves")
    expect(moved.get_by_role("row").filter(has_text="Most water")).to_be_visible()
    field = road.get_by_role("textbox", name=re.compile(name))
    field.fill("a lot")
    field.press("Enter")
    expect(road.get_by_text("is no amount")).to_be_visible()
    field.fill("4 l")
    field.press("Enter")
    expect(road.get_by_role("tab", name="Assumed, 1 yours")).to_be_visible()
    expect(road.get_by_text("yours; usual is 3.0")).to_be_visible()
    road.get_by_role("button", name=f"Usual value again: {name}").press("Enter")
    expect(road.get_by_role("tab", name="Assumed", exact=True)).to_be_visible()


def test_a_zone_is_set_and_taken_from_the_map_again(road: Page):
    tab(road, "Weather")
    clocks = road.get_by_role("region", name="Clocks")
    expect(clocks).to_contain_text("in which the track lies")
    clocks.get_by_role("button", name="Another zone further on").click()
    expect(clocks).to_contain_text("The zones you have set")
    clocks.get_by_role("button", name="From the map again").click()
    expect(clocks).to_contain_text("in which the track lies")


def test_a_bare_track_is_asked_nothing_that_its_place_tells(road: Page, tmp_path: Path):
    """Over real land: stations stand in dashed, places are offered, and what the rider says of them is a guess no more."""
    bare = tmp_path / "bare.gpx"
    bare.write_bytes(gpx((48.21, 16.37, 170.0), (48.06, 16.13, 320.0), (47.81, 15.60, 700.0)))
    with road.expect_file_chooser() as chooser:
        road.get_by_role("button", name="Another track").click()
    chooser.value.set_files(bare)
    road.get_by_role("button", name=re.compile("places along the road$")).click()
    dialog = road.get_by_role("dialog")
    box = dialog.get_by_role("checkbox", name="Take Furth an der Triesting")
    expect(box).to_be_checked()
    dialog.get_by_role("button", name="None of them").click()
    expect(dialog.get_by_role("button", name="Take 0 as stops")).to_be_disabled()
    box.press("Space")
    clean(road, "places along the road")
    dialog.get_by_role("button", name="Take 1 as stops").click()
    row = road.get_by_role("row").filter(has_text="Furth an der")
    expect(row).to_contain_text("by its size")
    row.get_by_label("Food shop at Furth an der Triesting").select_option("basic")
    expect(road.get_by_role("button", name=re.compile("^Undo: .*Furth"))).to_be_visible()
    road.get_by_role("button", name=re.compile("places along the road$")).click()
    dialog.get_by_label("A place by its name").fill("mariaz")
    dialog.get_by_role("button", name=re.compile("^Mariazell, Austria")).click()
    expect(road.get_by_role("row").filter(has_text="Mariazell")).to_have_count(1)
    tab(road, "Days")
    expect(road.get_by_text(re.compile("nine nights in ten lie between"))).to_be_visible()
    tab(road, "Weather")
    road.get_by_label("Or the published climate of a place").fill("mariaz")
    road.get_by_role("button", name=re.compile("^Mariazell, Austria")).click()
    expect(road.get_by_role("listitem").filter(has_text="Mariazell, 47")).to_contain_text("±")
    expect(road.get_by_role("button", name="Undo: Take the climate of Mariazell")).to_be_visible()


def test_a_map_is_taken_as_far_as_it_is_wanted(road: Page, tmp_path: Path):
    """Of a file: what is on the way may be called off, what is left out stays out, what is taken says whose it is."""
    profile = from_track(demo_track())
    places = [(44, "amenity", "drinking_water", "Stone trough"), (76, "shop", "supermarket", "Far Stores")]
    nodes = "".join(
        f'<node id="{km}" lat="{lat}" lon="{lon}"><tag k="{key}" v="{value}"/><tag k="name" v="{name}"/></node>'
        for km, key, value, name in places
        for lat, lon in [profile.position_at(km) or (0, 0)]
    )
    region = tmp_path / "region.osm"
    region.write_text(f'<osm version="0.6">{nodes}</osm>')
    road.get_by_role("button", name="From a map").click()
    dialog = road.get_by_role("dialog")
    dialog.get_by_role("button", name="Ask the map service").click()
    expect(dialog.get_by_role("alert")).to_contain_text("No map service is set up")
    with road.expect_file_chooser() as chooser:
        dialog.get_by_role("button", name="An OpenStreetMap extract").click()
    chooser.value.set_files(region)
    box = dialog.get_by_role("checkbox", name="Take Far Stores")
    expect(box).to_be_checked()
    box.press("Space")
    clean(road, "a map beside the road")
    dialog.get_by_role("button", name="Take 1").click()
    expect(road.get_by_role("button", name="Undo: Take 1 thing of the map")).to_be_visible()
    expect(road.get_by_role("row").filter(has_text="Far Stores")).to_have_count(0)
    road.get_by_role("button", name="Change Stone trough").click()
    expect(dialog).to_contain_text("By a map as of")
    expect(dialog).to_contain_text("© OpenStreetMap contributors, ODbL")


@pytest.mark.whole
def test_a_map_is_moved_and_brought_closer(road: Page):
    tab(road, "Map")
    shown = road.get_by_role("application", name=re.compile("^Map of the road"))
    expect(shown).to_contain_text("Ravel")
    expect(shown).not_to_contain_text("Low Ravel")
    scale = shown.locator("text").last.text_content
    far = scale()
    shown.focus()
    for _ in range(4):
        shown.press("+")
    # Closer, every stop has its name.
    expect(shown).to_contain_text("Low Ravel")
    assert scale() != far
    shown.press("0")
    expect(shown).not_to_contain_text("Low Ravel")
    shown.hover()
    road.mouse.wheel(0, -600)
    expect(shown.locator("text").last).not_to_have_text(far)
    road.get_by_role("button", name="Whole road").click()
    shown.locator("g.mark").first.click()
    clean(road, "the map")
    for _ in range(3):
        shown.press("ArrowRight")
    expect(shown.locator("text").last).to_have_text(far)


def test_how_to_go_is_tried(road: Page):
    tab(road, "When to go")
    longer = road.get_by_role("row", name=re.compile(r"^5\.0"))
    longer.wait_for()
    rests = road.get_by_role("columnheader").all_inner_texts()
    longer.get_by_role("button").nth(rests.index("Rest after 7 days") - rests.index("A day") - 1).click()
    expect(road.get_by_text("5.0 h a day, rest after 7 days").first).to_be_visible()
    road.get_by_role("button", name="Put back").click()
    expect(road.get_by_role("button", name=re.compile("as it stands"))).to_be_disabled()


def test_another_season_is_looked_at_and_taken(road: Page):
    tab(road, "When to go")
    leave = road.get_by_role("slider", name="Leave on")
    leave.press("ArrowRight")
    expect(road.get_by_text("April 26, 2027").or_(road.get_by_text("26 April 2027"))).to_be_visible()
    expect(road.get_by_role("img", name=re.compile("^Coldest night from .* over the year"))).to_be_visible()
    clean(road, "when to go")
    road.get_by_role("button", name="Leave then").click()
    expect(road.get_by_role("button", name="Undo: Leave on another day")).to_be_visible()
    expect(road.get_by_label("Leave on", exact=True).first).to_have_value("2027-04-26")
