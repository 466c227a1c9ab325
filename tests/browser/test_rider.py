"""What a rider does, in the real browser: by mouse, by keyboard, on a phone, in two windows."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Locator, Page

from omnifer.demo.country import demo_track
from omnifer.formats.gpx import write_gpx
from tests.browser.conftest import open_page, visit
from tests.browser.seen import expect

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"


def tab_to(page: Page, name: str, role: str = "button", most: int = 80, exact: bool = False) -> None:
    """Walk with Tab until the wanted control has the focus."""
    wanted = page.get_by_role(role, name=name, exact=exact).last
    wanted.wait_for()
    for _ in range(most):
        if wanted.evaluate("e => e === document.activeElement"):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"{name} cannot be reached with Tab")


def slider(page: Page):
    return page.get_by_role("slider", name="Moment of the tour")


def test_from_nothing_to_a_packing_card_by_keyboard(page: Page, site: str, tmp_path: Path):
    page.goto(site)
    tab_to(page, "Start a tour")
    page.keyboard.press("Enter")
    tab_to(page, "Name of the tour", role="textbox")
    page.keyboard.type("Two weeks east")
    tab_to(page, "Name", role="textbox", exact=True)
    page.keyboard.type("Ada")
    page.keyboard.press("Tab")
    page.keyboard.press("Control+A")
    page.keyboard.type("150 lb")
    page.keyboard.press("Tab")
    expect(page.get_by_label("Body mass")).to_have_value("68.0")
    tab_to(page, "Start", exact=True)
    page.keyboard.press("Enter")
    page.wait_for_url("**/road")
    expect(page.get_by_text("Say where you ride and how long").first).to_be_visible()

    track = tmp_path / "way.gpx"
    track.write_text(
        write_gpx("Way", demo_track().model_copy(update=_first(4000)), [], []).replace("</gpx>", _segment() + "</gpx>")
    )
    with page.expect_file_chooser() as chooser:
        tab_to(page, "Bring a track")
        page.keyboard.press("Enter")
    chooser.value.set_files(track)
    expect(page.get_by_text("points,").first).to_be_visible()
    expect(page.get_by_role("button", name="Show fewer days")).to_be_visible()  # land and plan are drawn without a reload
    expect(page.get_by_role("img", name="The road from above")).to_be_visible()

    page.keyboard.press("Alt+2")
    page.wait_for_url("**/rig")
    tab_to(page, "Hang something on rear eyelets")
    page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    for side in ("right", "left"):
        tab_to(page, f"Hang something on Rear rack, {side}")
        page.keyboard.press("Enter")
        page.keyboard.press("Enter")
        expect(page.get_by_text(f"Rear pannier {side}").first).to_be_visible()
        if side == "right":
            tab_to(page, "Left side")
            page.keyboard.press("Enter")

    page.keyboard.press("Alt+3")
    page.wait_for_url("**/kit")
    tab_to(page, "Bring a list")
    page.keyboard.press("Enter")
    page.get_by_label("The list").focus()
    page.keyboard.insert_text(
        "name;mass g;volume l;reach;dry\nTent;2100;8;camp;\nStove;210;0,7;camp;\nBroken;heavy;1;;\nSleeping bag;900;6;night;must\n"
    )
    tab_to(page, "Look at it")
    page.keyboard.press("Enter")
    expect(page.get_by_text("'heavy' is not an amount")).to_be_visible()
    tab_to(page, "Take 3 things")
    page.keyboard.press("Enter")
    expect(page.get_by_text("3 kinds,")).to_be_visible()

    page.keyboard.press("Alt+4")
    page.wait_for_url("**/load")
    tab_to(page, "Propose a load")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Everything has a place.")).to_be_visible()
    expect(page.get_by_role("button", name="Close")).to_be_visible()
    page.keyboard.press("Alt+7")
    expect(page.get_by_role("heading", name="Rear pannier").first).to_be_visible()


def _first(points: int) -> dict:
    track = demo_track()
    return {name: getattr(track, name)[:points] for name in ("lat_deg", "lon_deg", "elevation_m")}


def _segment() -> str:
    part = demo_track().model_copy(update=_first(4000))
    points = zip(part.lat_deg, part.lon_deg, part.elevation_m, strict=True)
    inner = "".join(f'<trkpt lat="{a}" lon="{b}"><ele>{h}</ele></trkpt>' for a, b, h in points)
    return f"<trk><name>Way</name><trkseg>{inner}</trkseg></trk>"


def test_the_playhead_moves_everything_without_a_request(page: Page, site: str):
    visit(page, site, "load")
    rear = page.locator("svg.rig text").filter(has_text="kg").nth(0)
    weight = slider(page).get_attribute("aria-valuetext")
    assert rear.text_content()
    asked: list[str] = []
    page.on("request", lambda r: asked.append(r.url))
    slider(page).focus()
    seen = set()
    for key in ("Home", "End", "PageUp", "Shift+ArrowLeft", "ArrowRight"):
        page.keyboard.press(key)
        seen.add(page.locator("svg.rig").text_content())
    assert len(seen) >= 4
    assert slider(page).get_attribute("aria-valuetext") != weight
    box = slider(page).bounding_box()
    page.mouse.move(box["x"] + 300, box["y"] + 150)
    page.mouse.down()
    page.mouse.move(box["x"] + 700, box["y"] + 150, steps=8)
    page.mouse.up()
    assert page.locator("svg.rig").text_content() not in seen
    assert asked == []


def test_a_thing_is_stowed_by_drag_by_keyboard_and_by_menu(page: Page, site: str):
    visit(page, site, "load")
    shelf = page.locator("#shelf")
    page.locator('[data-thing="folding-chair"]').drag_to(page.locator('[data-carrier="runa-rear-right"]'))
    expect(shelf.get_by_role("tab", name="To stow 5")).to_be_visible()

    page.keyboard.press("s")
    focused = page.evaluate("document.activeElement.dataset.thing")
    page.keyboard.press("Enter")
    bag = page.locator('[data-carrier="runa-rear-left"]')
    page.wait_for_selector('[data-carrier][aria-label*="fits"]')
    bag.focus()
    page.keyboard.press("Enter")
    expect(shelf.get_by_role("tab", name="To stow 4")).to_be_visible()
    assert focused

    page.get_by_role("button", name="Move Travel chess").click()
    page.get_by_role("menuitem", name="Trailer bag").click()
    expect(shelf.get_by_role("tab", name="To stow 3")).to_be_visible()
    for left in (4, 5, 6):
        page.keyboard.press("Control+z")
        expect(shelf.get_by_role("tab", name=f"To stow {left}")).to_be_visible()
    page.keyboard.press("Control+Shift+Z")
    expect(shelf.get_by_role("tab", name="To stow 5")).to_be_visible()
    page.reload()
    expect(shelf.get_by_role("tab", name="To stow 5")).to_be_visible()
    expect(page.get_by_role("button", name="Redo")).to_be_enabled()


def test_escape_puts_what_is_in_hand_back(page: Page, site: str):
    visit(page, site, "load")
    page.locator('[data-thing="tarp"]').click()
    expect(page.locator('[data-thing="tarp"]')).to_have_attribute("aria-pressed", "true")
    page.keyboard.press("Escape")
    expect(page.locator('[data-thing="tarp"]')).to_have_attribute("aria-pressed", "false")


@pytest.mark.far
def test_supplies_are_set_in_one_gesture_on_the_ribbon(page: Page, site: str):
    visit(page, site, "road")
    row = page.get_by_label("Water at Dry Ford", exact=True)
    expect(row).to_have_value("seasonal")
    page.locator("g[data-mark]", has=page.locator("title", has_text="Dry Ford: water")).click()
    expect(row).to_have_value("reliable")
    page.get_by_role("button", name="712 km").click()
    slider(page).focus()
    page.keyboard.press("w")
    expect(row).to_have_value("none")


def test_two_windows_on_one_tour(page: Page, site: str, browser, complaints: list[str]):
    visit(page, site, "load")
    other = open_page(browser, complaints)
    visit(other, site, "kit")
    page.get_by_role("button", name="Move Tarp").click()
    page.get_by_role("menuitem", name="Trailer bag").click()
    expect(page.get_by_role("tab", name="To stow 5")).to_be_visible()
    other.get_by_role("row", name="Camera").click()
    other.get_by_role("button", name="Remove from the kit").click()
    expect(other.get_by_text("133 kinds,")).to_be_visible()
    page.get_by_role("button", name="Move Travel chess").click()
    page.get_by_role("menuitem", name="Trailer bag").click()
    # What both did stands, for they did not touch the same part.
    expect(page.get_by_role("tab", name="To stow 4")).to_be_visible()

    other.get_by_role("row", name="Travel chess").click()
    other.get_by_role("button", name="Remove from the kit").click()
    expect(other.get_by_text("132 kinds,")).to_be_visible()
    page.get_by_role("button", name="Tamsen Quay to Lantern Point: tour and riders").click()
    page.get_by_label("Name of the tour").fill("Mine")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("button", name="Mine: tour and riders")).to_be_visible()
    # Shown at once; that it is kept is said when it is.
    expect(page.get_by_role("button", name="Undo: Change the tour and its riders")).to_be_visible()
    other.get_by_role("button", name="Tamsen Quay to Lantern Point: tour and riders").click()
    other.get_by_label("Name of the tour").fill("Theirs")
    other.get_by_role("button", name="Keep", exact=True).click()
    expect(other.get_by_text("Another window has changed the same part of this tour")).to_be_visible()
    complaints.clear()
    other.get_by_role("button", name="Not now").click()
    other.get_by_role("button", name="Show the newer state").click()
    expect(other.get_by_role("alert")).to_have_count(0)
    expect(other.get_by_role("button", name="Mine: tour and riders")).to_be_visible()

    # Who comes back to a window sees what was done in the other.
    page.get_by_role("button", name=re.compile("^Undo: ")).click()
    expect(page.get_by_role("button", name="Tamsen Quay to Lantern Point: tour and riders")).to_be_visible()
    other.evaluate("document.dispatchEvent(new Event('visibilitychange', { bubbles: true }))")
    expect(other.get_by_role("button", name="Tamsen Quay to Lantern Point: tour and riders")).to_be_visible()
    other.context.close()


def test_what_waits_behind_another_change_overwrites_nobody(page: Page, site: str, browser, complaints: list[str]):
    """A change is answered late; meanwhile another window names the tour, and this one names it too, without having seen that."""
    old = "Tamsen Quay to Lantern Point: tour and riders"
    other = open_page(browser, complaints)
    visit(page, site, "load")
    visit(other, site, "kit")
    held = []
    other.route(
        "**/api/tours/*", lambda route: route.continue_() if held or route.request.method != "PATCH" else held.append(route)
    )
    other.get_by_role("row", name="Travel chess").click()
    other.get_by_role("button", name="Remove from the kit").click()
    for window, name in ((page, "Mine"), (other, "Theirs")):
        window.get_by_role("button", name=old).click()
        window.get_by_label("Name of the tour").fill(name)
        window.get_by_role("button", name="Keep", exact=True).click()
        if window is page:
            expect(page.get_by_role("button", name="Undo: Change the tour and its riders")).to_be_visible()
    held[0].continue_()
    expect(other.get_by_text("Another window has changed the same part of this tour")).to_be_visible()
    expect(other.get_by_role("button", name="Mine: tour and riders")).to_be_visible()
    complaints.clear()
    other.context.close()


@pytest.mark.far
def test_both_unit_systems(page: Page, site: str):
    visit(page, site, "load")
    expect(page.locator("svg.rig")).to_contain_text("kg")
    page.get_by_role("button", name="More", exact=True).click()
    page.get_by_role("menuitem", name="Show pounds").click()
    expect(page.locator("svg.rig")).to_contain_text("lb")
    expect(page.locator("svg.rig")).not_to_contain_text("kg")
    expect(page.locator("#findings")).to_contain_text("qt of water")
    page.reload()
    expect(page.locator("svg.rig")).to_contain_text("lb")


@pytest.mark.far
def test_a_mend_is_tried_and_kept(page: Page, site: str):
    visit(page, site, "load")
    page.locator('[data-thing="folding-chair"]').click()
    page.get_by_role("button", name="Edvin", exact=True).click()
    page.locator('[data-carrier="edvin-top-tube"]').click()
    page.get_by_role("button", name=re.compile(r"^\d+ more$")).click()
    page.get_by_role("button", name="Top-tube bag holds").first.click()
    page.get_by_role("button", name="Try").first.click()
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.locator(".kept")).to_contain_text("Kept")
    expect(page.get_by_role("button", name="Undo: Mend")).to_be_enabled()


@pytest.mark.far
def test_bad_files_are_answered_in_words(page: Page, site: str, tmp_path: Path, complaints: list[str]):
    bad = tmp_path / "cut.gpx"
    bad.write_text("<gpx><trk><trkseg><trkpt lat='1' lon='2'/>")
    visit(page, site, "road")
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Another track").click()
    chooser.value.set_files(bad)
    expect(page.get_by_role("alert")).to_contain_text("breaks off or is damaged")
    assert all("422" in c for c in complaints)
    complaints.clear()
    page.get_by_role("button", name="Close").click()
    expect(page.get_by_role("definition").filter(has_text="900\u00a0km")).to_be_visible()


def drag_with_a_finger(page: Page, thing: Locator, target: Locator) -> None:
    """Held for a moment, moved, let go: Playwright has no such gesture, the browser's own protocol has."""
    touch = page.context.new_cdp_session(page)
    thing.scroll_into_view_if_needed()

    def send(kind: str, box: dict[str, float] | None = None) -> None:
        points = [{"x": box["x"] + 60, "y": box["y"] + 20}] if box else []
        touch.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

    send("touchStart", thing.bounding_box())
    target.wait_for()
    send("touchMove", target.bounding_box())
    send("touchEnd")


def test_on_a_phone_a_thing_is_tapped_and_then_a_bag(site: str, browser, complaints: list[str]):
    page = open_page(browser, complaints, has_touch=True)
    page.set_viewport_size({"width": 390, "height": 844})
    visit(page, site, "load")
    page.locator('[data-thing="tarp"]').tap()
    tray = page.get_by_role("region", name="In hand")
    tray.get_by_role("button", name="Rear right").tap()
    expect(page.get_by_role("tab", name="To stow 5")).to_be_visible()
    expect(tray).to_be_hidden()
    drag_with_a_finger(page, page.locator('[data-thing="folding-chair"]'), tray.get_by_role("button", name="Rear right"))
    expect(page.get_by_role("tab", name="To stow 4")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.get_by_role("button", name="Next event").tap()
    page.context.close()
    assert complaints == []


@pytest.mark.parametrize("view", ["road", "rig", "kit", "load", "stores", "ready", "pack", "diary", "debrief"])
def test_every_view_is_accessible_and_needs_no_page_scroll(view: str, site: str, page: Page):
    """axe-core 4.14.1, every rule of any impact; in the dark only colours differ."""
    page.emulate_media(color_scheme="light", reduced_motion="reduce")
    visit(page, site, view)
    page.evaluate(AXE.read_text())
    ground = []
    for theme, only in (("light", {}), ("dark", {"runOnly": ["color-contrast"]})):
        if theme == "dark":
            page.get_by_role("button", name="Night colours").click()
        found = page.evaluate("only => axe.run(document, {...only, resultTypes: ['violations']})", only)
        assert [(theme, v["id"], [n["html"][:160] for n in v["nodes"][:3]]) for v in found["violations"]] == []
        ground.append(page.evaluate("getComputedStyle(document.body).backgroundColor"))
    assert ground[0] != ground[1]
    assert page.evaluate("document.documentElement.scrollHeight") <= 800
