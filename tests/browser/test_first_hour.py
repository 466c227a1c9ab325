"""The first hour on an empty database: an own road, an own bike, an own list, at the desk and on a phone, nothing in the way."""

import math
import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from flask import Flask
from playwright.sync_api import Page

from omnifer.store.database import acting
from tests.browser.conftest import open_page
from tests.browser.seen import expect
from tests.conftest import tours_of

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"
LIST = Path(__file__).parents[1] / "formats" / "lists" / "names-and-grams.csv"
POINTS, STEP_DEG = 1500, 0.0025
"""Of a track of some 400 km, one point to every 280 m."""


@pytest.fixture
def empty_site(served: tuple[str, Flask]) -> Iterator[str]:
    """With no tour on it, and with a library that knows nothing of what another test was asked."""
    address, application = served
    tours = tours_of(application)
    with acting(tours.pool, tours.owner_id) as connection:
        connection.execute("DELETE FROM owned")
    yield address
    for line in (*tours.list(), *tours.list(removed=True)):
        tours.delete(line.id)


def own_track(folder: Path) -> Path:
    """Northwards over rolling hills and one pass."""
    points = []
    for k in range(POINTS):
        height = 200 + 60 * math.sin(k / 25) + 900 * math.exp(-(((k - 900) / 120) ** 2))
        points.append(
            f'<trkpt lat="{44 + k * STEP_DEG:.5f}" lon="{8 + 0.2 * math.sin(k / 90):.5f}"><ele>{height:.1f}</ele></trkpt>'
        )
    path = folder / "northwards.gpx"
    path.write_text(f'<gpx version="1.1"><trk><name>Northwards</name><trkseg>{"".join(points)}</trkseg></trk></gpx>')
    return path


def clean(page: Page, where: str) -> None:
    """Nothing that axe knows is wrong, and nothing reaches beyond the screen's side."""
    page.evaluate(AXE.read_text())
    found = page.evaluate("axe.run(document, {resultTypes: ['violations']})")
    assert [(where, v["id"], v["nodes"][0]["html"][:160]) for v in found["violations"]] == []
    assert page.evaluate("document.documentElement.scrollWidth <= window.innerWidth"), where


@pytest.mark.parametrize("size", [(1280, 800), (390, 844)], ids=["desk", "phone"])
def test_the_first_hour(size: tuple[int, int], empty_site: str, browser, complaints: list[str], tmp_path: Path):
    small = size[0] < 700
    page = open_page(browser, complaints, has_touch=small, reduced_motion="reduce")
    page.set_viewport_size({"width": size[0], "height": size[1]})
    page.goto(empty_site)
    expect(page.get_by_text("Say where you ride and how long")).to_be_visible()
    clean(page, "start")

    page.wait_for_load_state("networkidle")  # the button stands below tours that are still being drawn
    page.get_by_role("button", name="Start a tour").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("button", name="Start", exact=True).click()
    expect(dialog.get_by_role("alert")).to_be_visible()
    clean(page, "a new tour")
    dialog.get_by_label("Name of the tour").fill("Northwards")
    dialog.get_by_label("Name", exact=True).fill("Ada")
    dialog.get_by_role("button", name="Start", exact=True).click()
    page.wait_for_url("**/road")

    def clean_on_phone(where: str) -> None:
        # At the desk each view is looked at by itself: test_rider.py.
        if small:
            clean(page, where)

    def go(view: str) -> None:
        views = page.get_by_role("navigation", name="Views")
        # On a phone what is not wanted beside the road is one touch further.
        if size[0] < 700 and view not in ("Load", "Stores", "Pack", "Diary"):
            views.get_by_role("button", name="More").click()
            page.get_by_role("menuitem", name=view).click()
        else:
            views.get_by_role("link", name=view).click()
        page.wait_for_url(f"**/{view.lower()}")

    go("Load")
    first = page.get_by_role("list", name="What to do first")
    expect(first.get_by_role("link", name="Say where you ride")).to_be_visible()
    clean(page, "an empty load")
    first.get_by_role("link", name="Say where you ride").click()

    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Bring a track").click()
    chooser.value.set_files(own_track(tmp_path))
    expect(page.get_by_text("points,").first).to_be_visible()
    page.get_by_role("button", name=re.compile("Cut the road by")).click()
    page.get_by_role("option", name="Days in all").click()
    days = page.get_by_label("Days, rests with them")
    days.fill("6")
    days.blur()
    expect(page.get_by_role("tab", name="Days 6")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Add a stop at")).click()
    dialog.get_by_label("Name", exact=True).fill("Harrow Ford")
    at = dialog.get_by_label("At, km")
    at.fill("9000")
    dialog.get_by_role("button", name="Keep").click()
    expect(dialog.get_by_role("alert")).to_contain_text("road")
    at.fill("120")
    dialog.get_by_role("button", name="Keep").click()
    expect(page.get_by_role("button", name="Change Harrow Ford", exact=True)).to_be_visible()
    clean_on_phone("the road")

    go("Rig")
    page.get_by_role("button", name=re.compile("^Hang something on rear eyelets")).first.click()
    page.get_by_role("menuitem").first.click()
    for side in ("right", "left"):
        if side == "left":
            page.get_by_role("button", name="Left side").click()
        page.get_by_role("button", name=f"Hang something on Rear rack, {side}").first.click()
        page.get_by_role("menuitem", name="Rear pannier").first.click()
        expect(page.get_by_text(f"Rear pannier {side}").first).to_be_visible()
    clean_on_phone("the rig")

    go("Kit")
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Bring a list").click()
        page.get_by_role("dialog").get_by_role("button", name=re.compile("file")).click()
    chooser.value.set_files(LIST)
    doubts = dialog.get_by_role("group", name="In doubt").locator("input:not([type=radio]), input:checked")
    expect(doubts).to_have_count(7)
    clean(page, "a list")
    doubts.first.focus()
    for n in range(7):
        expect(doubts.nth(n)).to_be_focused()
        page.keyboard.press("Enter")
    expect(page.get_by_text(re.compile(r"\d+ kinds,"))).to_be_visible()
    expect(dialog).to_be_hidden()
    clean_on_phone("the kit")

    go("Ready")
    page.get_by_role("heading", name="Ready", exact=True).wait_for()
    answered, short = (int(n) for n in re.search(r"(\d+) answered, (\d+) short", page.get_by_role("main").inner_text()).groups())
    assert answered + short >= 6
    go("Stores")
    for lane in ("Water", "Food", "Fuel", "Power"):
        expect(page.get_by_role("main").get_by_text(re.compile(f"^{lane}")).first).to_be_attached()

    go("Load")
    if not small:
        # Nobody said what the weather is: nights are guesses, and marked so.
        expect(page.get_by_text("~ Night, °C")).to_be_visible()
    page.get_by_role("button", name="Propose a load").click()
    expect(page.get_by_text("All bags, racks and wheels hold")).to_be_visible()
    if small:
        page.get_by_role("button", name="Stop and keep this one").click()
        expect(page.get_by_role("progressbar")).to_be_hidden()
    else:
        expect(page.get_by_role("button", name="Close")).to_be_visible()
    clean_on_phone("a load")
    findings = page.get_by_role("region", name="Findings")
    findings.get_by_role("button", name="What helps").click()
    findings.get_by_role("button", name="Try").first.click()
    expect(findings.get_by_text(re.compile("^This (ends|does not end) it"))).to_be_visible()
    clean(page, "a mend tried")
    findings.get_by_role("button", name="Put back").click()

    go("Pack")
    # On a phone bags are shut; which of them hold something is the search's.
    holding = page.get_by_role("button", name=re.compile(r"\b[1-9]\d* things?\b")).first
    holding.wait_for()
    if small and holding.get_attribute("aria-expanded") == "false":
        holding.click()
    box = page.get_by_role("checkbox").first
    assert min(box.locator("xpath=ancestor::label").bounding_box()[side] for side in ("width", "height")) >= 44
    page.wait_for_load_state("networkidle")
    box.click(force=True)  # its state comes with the answer; on a busy machine a moment later
    expect(page.get_by_text(re.compile(r"^1 of \d+ in$"))).to_be_visible()
    clean_on_phone("packing")
    go("Stores")
    page.get_by_role("button", name="How you eat").wait_for()
    clean_on_phone("the stores")
    page.context.close()
    assert complaints == []
