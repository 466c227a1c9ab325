"""The questions before leaving and their answers, the kit by its price, and the library beside it."""

import re

import pytest
from playwright.sync_api import Page

from tests.browser.conftest import visit
from tests.browser.seen import expect
from tests.browser.test_first_hour import clean
from tests.browser.test_paper import pages


def undo(page: Page, what: str):
    return page.get_by_role("button", name=re.compile(f"^Undo: {what}"))


def opened(page: Page, question: str):
    """A question's answer, opened in its place."""
    row = page.get_by_role("region", name=question, exact=True)
    row.get_by_role("button", name=question).click()
    return row


def choose(page: Page, label: str, option: str) -> None:
    page.get_by_label(label).first.click()
    page.get_by_role("option", name=option).first.click()


def test_questions_are_answered_over_the_days_and_mended_in_place(page: Page, site: str):
    visit(page, site, "ready")
    expect(page.get_by_text(re.compile(r"^\d+ answered, \d+ short$"))).to_be_visible()
    for question in page.get_by_role("main").get_by_role("region").all()[:10]:
        box = question.bounding_box()
        assert box is not None
        assert box["y"] + 20 < 800 - 150  # all of them on one screen, above the ribbon
    warm = opened(page, "Warm enough at night?")
    warm.get_by_role("button", name="Edvin").click()
    expect(warm.get_by_text("what Edvin has on bears")).to_be_visible()
    expect(warm.get_by_text("a tent", exact=False).first).to_be_visible()
    expect(page.get_by_role("img", name="2 of 8 kinds of clothes run out between washes")).to_be_visible()
    rides = opened(page, "Does it ride well?")
    rides.get_by_role("button", name="E-reader gets damp").click()
    rides.get_by_role("listitem").filter(has_text="Give it its own dry bag").get_by_role("button", name="Try").click()
    rides.get_by_role("button", name="Keep", exact=True).click()
    expect(undo(page, "Mend: Give it its own dry bag")).to_be_visible()
    expect(rides.get_by_role("button", name="E-reader gets damp")).to_have_count(0)


def test_spares_that_do_not_fit_are_seen_in_the_matrix_and_mended(page: Page, site: str):
    visit(page, site, "ready")
    row = opened(page, "Can you mend it?")
    edvin = row.get_by_role("region", name="Repairs: Edvin's bike and trailer")
    expect(edvin.get_by_title("Puncture, fits: missing")).to_be_visible()
    expect(edvin).to_contain_text(re.compile(r"Pump: some \d+ strokes and \d+\smin a tyre"))
    row.get_by_role("button", name=re.compile("^Puncture on Edvin")).click()
    tube = row.get_by_role("listitem").filter(has_text="Bring a spare tube; Bring brake pads")
    tube.get_by_role("button", name="Try").click()
    expect(row.get_by_text("This ends it.")).to_be_visible()
    expect(edvin.get_by_title("Puncture, fits: at hand")).to_be_visible()
    row.get_by_role("button", name="Keep", exact=True).click()
    expect(undo(page, "Mend: Bring a spare tube; Bring brake pads")).to_be_visible()
    expect(row.get_by_role("button", name=re.compile("^Puncture on Edvin"))).to_have_count(0)
    forgot = opened(page, "What did you forget?")
    expect(forgot.get_by_role("button", name=re.compile("^Still to be got: .*Spare tube"))).to_be_visible()


def test_a_need_is_answered_without_a_thing(page: Page, site: str):
    visit(page, site, "ready")
    row = opened(page, "Will you be seen?")
    flag = row.get_by_role("listitem").filter(has_text="a flag on the trailer")
    flag.get_by_role("button", name="Not needed because").click()
    choose(page, "Not needed", "not for me")
    flag.get_by_label("Because").fill("Quiet roads")
    flag.get_by_role("button", name="Keep").click()
    expect(flag.get_by_text("not for me: Quiet roads")).to_be_visible()
    expect(row.get_by_role("button", name="Nobody has a flag on the trailer")).to_have_count(0)
    flag.get_by_role("button", name="Ask again").click()
    expect(row.get_by_role("button", name=re.compile("flag on the trailer"))).to_be_visible()


@pytest.mark.whole
def test_what_is_not_needed_any_more_goes_home(page: Page, site: str):
    visit(page, site, "ready")
    row = opened(page, "What may stay?")
    parcel = row.get_by_role("article").filter(has_text="Post home from Kelvray")
    expect(parcel.get_by_text("Sleeping bag, cold")).to_be_visible()
    parcel.get_by_role("button", name="Take it on").click()
    expect(undo(page, "Post home from Kelvray")).to_be_visible()
    expect(row.get_by_role("article").filter(has_text="Sleeping bag, cold")).to_have_count(0)


def test_a_hazard_is_painted_and_asks(page: Page, site: str):
    visit(page, site, "road")
    page.get_by_role("tab", name="Hazards").click()
    page.get_by_role("button", name="A hazard from the playhead on").click()
    expect(undo(page, "Add a hazard")).to_be_visible()
    page.get_by_label("What", exact=True).last.click()
    page.get_by_role("option", name="a border").click()
    expect(undo(page, "Change a hazard")).to_be_visible()
    page.get_by_role("link", name="Ready").first.click()
    row = opened(page, "Healthy and safe?")
    expect(row.get_by_role("listitem").filter(has_text="Runa: a passport")).to_be_visible()


def test_the_kit_is_ranked_compared_and_kept_in_the_library(page: Page, site: str, complaints: list[str]):
    visit(page, site, "kit")
    page.get_by_role("radio", name="By price").click()
    unlikely = page.get_by_role("region", name="Probably not")
    expect(unlikely.get_by_text("Small charger")).to_be_visible()
    page.get_by_role("radio", name="By what it serves").click()
    expect(page.get_by_role("region", name="Can you mend it?").get_by_text("Multi-tool")).to_be_visible()
    for name in ("Air mat, thick", "Air mat, thin"):
        page.get_by_role("checkbox", name=f"Choose {name}").first.check(force=True)
    page.get_by_role("button", name="Compare").click()
    beside = page.get_by_role("dialog", name="Beside each other")
    expect(beside.get_by_role("row", name=re.compile("Does R 4.4 R 4.2"))).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Choose none").click()
    page.get_by_role("button", name="Library").click()
    library = page.get_by_role("complementary", name="Library")
    library.get_by_role("button", name=re.compile("^Keep the .* things of this tour here")).click()
    expect(library.get_by_text(re.compile(r"^\d+ things of your own"))).to_be_visible()
    library.get_by_label("Find in the library").fill("silk")
    library.get_by_role("button", name="Silk liner", exact=True).click()
    dialog = page.get_by_role("dialog", name="Silk liner")
    dialog.get_by_label("Mass of one").fill("250 g")
    dialog.get_by_label("Mass of one").press("Tab")
    dialog.get_by_role("button", name="Keep", exact=True).click()
    expect(
        library.get_by_text("Small now says", exact=False).or_(library.get_by_text("now says the same of Silk liner"))
    ).to_be_visible()
    page.get_by_role("radio", name="By moment").click()
    expect(page.get_by_role("row", name=re.compile("^Silk liner")).get_by_text("0.3", exact=True)).to_be_visible()
    assert complaints == []


def test_a_tour_begins_like_another_or_with_a_schools_kit(page: Page, site: str):
    page.goto(site)
    page.wait_for_load_state("networkidle")  # the button stands below tours that are still being drawn
    page.get_by_role("button", name="Start a tour").click()
    page.get_by_label("Name of the tour").fill("Once more")
    choose(page, "It begins like", "Tamsen Quay to Lantern Point")
    expect(page.get_by_text("the road is new")).to_be_visible()
    page.get_by_role("button", name="Start", exact=True).click()
    page.get_by_role("button", name="Open it").click()
    page.get_by_role("link", name="Kit").first.click()
    expect(page.get_by_text(re.compile(r"^13\d kinds"))).to_be_visible()
    page.goto(site)
    page.get_by_role("button", name="More of Tamsen Quay to Lantern Point").click()
    page.get_by_role("menuitem", name="It is over").click()
    expect(page.get_by_text("over: its things stay as they were")).to_be_visible()
    page.wait_for_load_state("networkidle")
    page.get_by_role("button", name="Start a tour").click()
    page.get_by_label("Name of the tour").fill("A light one")
    page.get_by_label("Name", exact=True).fill("Ida")
    choose(page, "Its kit begins with", "light: 10 to 14 kg")
    page.get_by_role("button", name="Start", exact=True).click()
    page.get_by_role("link", name="Kit").first.click()
    expect(page.get_by_text(re.compile(r"^41 kinds"))).to_be_visible()


def test_the_tour_is_rehearsed_scrubbed_and_carried_for_a_chosen_risk(page: Page, site: str, tmp_path):
    visit(page, site, "ready")
    page.get_by_role("link", name="Rehearsed").click()
    food = page.get_by_role("region", name="Out of food", exact=True)
    expect(food.get_by_text(re.compile(r"\d+ of 200"))).to_be_visible()
    page.get_by_role("link", name="Asked", exact=True).click()
    mended = opened(page, "Can you mend it?")
    expect(mended.get_by_text(re.compile(r"Rehearsed: stopped in \d+ of 200 anywhere"))).to_be_visible()
    page.get_by_role("link", name="Rehearsed").click()
    page.get_by_role("button", name=re.compile("^The worst")).click()
    stands = page.get_by_role("status").filter(has_text=" on board")
    expect(stands).to_be_visible()
    expect(page.get_by_text("dashed is play", exact=False)).to_be_visible()
    before = stands.inner_text()
    page.get_by_role("slider").first.press("End")
    expect(stands).not_to_have_text(before)
    page.get_by_role("button", name="The same tour").click()
    page.get_by_role("option", name="begun 14 days later").click()
    expect(page.get_by_role("columnheader", name="Only then")).to_be_visible()
    food = opened(page, "Out of food")
    food.get_by_role("button", name="20 tours").click()
    expect(food.get_by_text("with this plan", exact=False)).to_be_visible()
    stopped = opened(page, "Stopped")
    expect(stopped.get_by_role("rowheader", name="Puncture")).to_be_visible()
    clean(page, "rehearsed")
    printed = " ".join(pages(page, tmp_path))
    for words in ("Out of water", "What the year may do", "Coldest night", "to turn back"):
        assert words in printed, words
    food = opened(page, "Out of food")
    food.get_by_role("button", name="20 tours").click()
    food.get_by_role("button", name="Take this plan").click()
    expect(undo(page, "Carry food for once in 20")).to_be_visible()
