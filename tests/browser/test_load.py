"""Searching for a load, its aims and reasons, rigs and loads side by side, and what hangs on the drawing."""

import re

from playwright.sync_api import Page

from tests.browser.conftest import visit
from tests.browser.seen import expect


def undo(page: Page, what: str):
    return page.get_by_role("button", name=re.compile(f"^Undo: {what}"))


def menu(page: Page, button: str, entry: str) -> None:
    page.get_by_role("button", name=button, exact=True).first.click()
    page.get_by_role("menuitem", name=entry).first.click()


def test_a_search_is_watched_stopped_and_kept(page: Page, site: str):
    visit(page, site, "load")
    page.get_by_role("button", name="Propose a load").click()
    expect(page.get_by_role("progressbar", name="Searching for a better load")).to_be_visible()
    expect(page.get_by_text("All bags, racks and wheels hold")).to_be_visible()
    page.get_by_role("button", name="Stop and keep this one").click()
    expect(undo(page, "Propose a load, stopped early")).to_be_visible()
    expect(page.get_by_role("progressbar")).to_be_hidden()
    expect(page.get_by_text("Everything is stowed.")).to_be_visible()


def test_a_search_called_off_changes_nothing(page: Page, site: str):
    visit(page, site, "load")
    page.get_by_role("button", name="Propose a load").click()
    expect(page.get_by_text("All bags, racks and wheels hold")).to_be_visible()
    page.get_by_role("button", name="Cancel").click()
    expect(page.get_by_role("progressbar")).to_be_hidden()
    page.wait_for_timeout(1500)
    expect(page.get_by_role("button", name=re.compile("^Undo"))).to_be_disabled()


def test_aims_are_seen_chosen_and_weighed(page: Page, site: str):
    visit(page, site, "load")
    page.get_by_role("button", name="Aims").click()
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_text("a leaning bike pulls")).to_be_visible()
    dialog.get_by_label("School").click()
    page.get_by_role("option", name="Heavy and low in front").click()
    expect(undo(page, "Load by the school: Heavy and low in front")).to_be_attached()
    expect(dialog.get_by_label("Front wheel bears from")).to_have_value("40")
    dialog.get_by_role("slider", name="Left as right").press("ArrowRight")
    expect(dialog.get_by_label("School")).to_contain_text("Your own")


def test_a_thing_says_why_it_rides_where_it_does(page: Page, site: str):
    visit(page, site, "load")
    page.get_by_role("tab", name="On the bikes").click()
    menu(page, "Move Groundsheet", "Why here?")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_text(re.compile("next best place|would be better"))).to_be_visible()
    first = dialog.get_by_role("row").nth(1)
    place = first.get_by_role("cell").first.text_content()
    first.get_by_role("button", name="Move it").click()
    expect(undo(page, f"Move Groundsheet to {re.escape(place)}")).to_be_visible()


def test_room_is_made_around_a_move(page: Page, site: str):
    visit(page, site, "load")
    page.get_by_role("button", name=re.compile("Make room around")).click()
    page.get_by_role("button", name="Folding chair").first.click()
    page.get_by_role("button", name=re.compile("^Rack-top roll")).first.click()
    expect(undo(page, "Move Folding chair to Rack-top roll")).to_be_visible()
    expect(page.get_by_text(re.compile("moved as well"))).to_be_visible()
    page.get_by_role("button", name=re.compile("Make room around")).click()


def test_whole_bags_and_kits_move_at_once(page: Page, site: str):
    visit(page, site, "load")
    page.get_by_role("tab", name="On the bikes").click()
    menu(page, "All in Rear left", "Swap with Rear right")
    expect(undo(page, "Swap Rear left and Rear right")).to_be_visible()
    menu(page, "All in Rear left", "Pin all in it")
    expect(undo(page, "Pin all in Rear left")).to_be_visible()


def test_a_load_is_kept_and_taken_again(page: Page, site: str):
    visit(page, site, "load")
    page.get_by_role("button", name="Loads", exact=True).click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Keep the load").fill("As left")
    dialog.get_by_role("button", name="Keep it").click()
    expect(dialog.get_by_role("columnheader", name="As left")).to_be_visible()
    dialog.get_by_role("button", name="Take it").click()
    expect(undo(page, "Go back to the load As left")).to_be_attached()


def test_a_variant_is_kept_changed_against_and_ridden(page: Page, light_site: str):
    visit(page, light_site, "rig")
    page.get_by_role("button", name="Compare rigs").click()
    page.get_by_label("Keep the rig").fill("All of it")
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_role("columnheader", name="All of it")).to_be_visible()
    page.get_by_role("button", name="Close").click()
    page.get_by_text("Rack-top roll", exact=True).click()
    page.get_by_role("button", name="Take it off").first.click()
    expect(undo(page, "Take off Rack-top roll")).to_be_visible()
    page.get_by_role("button", name="Compare rigs").click()
    room = page.get_by_role("row", name=re.compile("^Room"))
    expect(room).to_contain_text("171.0")
    expect(room).to_contain_text("201.0")
    page.get_by_role("button", name="Ride this one").last.click()
    expect(page.get_by_role("columnheader", name="As ridden before")).to_be_visible()
    expect(undo(page, "Ride All of it")).to_be_attached()


def test_something_is_hung_on_the_drawing(page: Page, site: str):
    visit(page, site, "rig")
    menu(page, "Hang something on saddle", "Saddle pack")
    expect(undo(page, "Hang Saddle pack on")).to_be_visible()
    expect(page.get_by_role("button", name="Hang something on saddle", exact=True)).to_be_hidden()
    expect(page.get_by_text("Swings with the pedals")).to_be_visible()


def test_a_pocket_is_added_to_a_bag_and_gone_with_it(page: Page, site: str):
    visit(page, site, "rig")
    bag = page.locator("details").filter(has_text="Rear left").first
    bag.locator("summary").click()
    bag.get_by_role("button", name="Divide it, add a pocket").click()
    page.get_by_role("menuitem", name="Compartment").click()
    part = page.get_by_text("Compartment, Rear left", exact=True)
    expect(part).to_be_visible()
    expect(bag.locator("summary")).to_contain_text("of 17.0")
    bag.get_by_role("button", name="Take it off").click()
    expect(part).to_be_hidden()


def test_frame_sides_are_measured_and_say_so(page: Page, site: str):
    visit(page, site, "rig")
    page.locator("summary", has_text="Frame").click()
    tube = page.get_by_label("Down tube, mm")
    tube.fill("1000")
    tube.blur()
    expect(page.get_by_role("button", name="Down tube: measured.")).to_be_visible()
    expect(page.get_by_text("The four sides measured on Runa's tourer do not meet.")).to_be_visible()
    page.get_by_role("button", name="Back to stack and reach").click()
    expect(page.get_by_role("button", name="Back to stack and reach")).to_be_hidden()


def test_the_rig_is_compared_with_another_school(page: Page, light_site: str):
    visit(page, light_site, "rig")
    page.get_by_role("button", name="Compare rigs").click()
    page.get_by_role("button", name="Trailer", exact=True).click()
    expect(page.get_by_role("columnheader", name="Trailer")).to_be_visible()
    expect(undo(page, "Put Trailer beside")).to_be_attached()


def test_several_things_go_at_once(page: Page, site: str):
    visit(page, site, "load")
    page.locator('[data-thing="folding-chair"]').click()
    page.locator('[data-thing="travel-chess"]').click(modifiers=["Control"])
    page.locator('[data-carrier="runa-rear-right"]').click()
    expect(undo(page, "Move 2 things to Rear right")).to_be_visible()
    expect(page.get_by_role("tab", name="To stow 4")).to_be_visible()
    page.get_by_role("button", name="Take several").click()
    for thing in ("tarp", "second-lens"):
        page.locator(f'[data-thing="{thing}"]').focus()
        page.keyboard.press("Enter")
    page.locator('[data-thing="second-lens"]').drag_to(page.locator('[data-carrier="runa-rear-right"]'))
    expect(page.get_by_role("tab", name="To stow 2")).to_be_visible()


def test_a_thing_tells_its_price_on_this_tour(page: Page, site: str):
    visit(page, site, "kit")
    page.get_by_role("row", name="Folding chair").click()
    expect(page.get_by_role("region", name="Price on this tour")).to_contain_text(re.compile(r"kJ.a day"))


def test_a_mend_is_tried_on_the_drawing_put_back_kept_and_a_finding_set_aside(page: Page, site: str):
    visit(page, site, "load")
    findings = page.get_by_role("region", name="Findings")
    findings.get_by_role("button", name="E-reader gets damp").click()
    slow = findings.get_by_text(re.compile("slows? you$")).first
    before = slow.text_content()
    findings.get_by_role("listitem").filter(has_text="Give it its own dry bag").get_by_role("button", name="Try").click()
    tried = findings.get_by_role("status").filter(has_text="This ends it.")
    expect(tried).to_contain_text("findings slow you")
    tried.get_by_role("button", name="Put back").click()
    expect(page.get_by_role("button", name=re.compile("^Undo"))).to_be_disabled()
    findings.get_by_role("listitem").filter(has_text="Give it its own dry bag").get_by_role("button", name="Try").click()
    tried.get_by_role("button", name="Keep").click()
    expect(undo(page, "Mend: Give it its own dry bag")).to_be_visible()
    expect(findings.get_by_role("button", name="E-reader gets damp")).to_have_count(0)
    assert slow.text_content() != before
    findings.get_by_role("button", name=re.compile("still on the shelf")).click()
    findings.get_by_role("button", name="Set aside").click()
    findings.get_by_label("Why it may stay so").fill("they are for the visitors")
    page.keyboard.press("Enter")
    expect(findings.get_by_text("Set aside: 1")).to_be_visible()
