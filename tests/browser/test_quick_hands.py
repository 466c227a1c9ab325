"""Edits faster than any answer: what a reload shows is what was entered. `bench.quick_hands` does the same with 500."""

from playwright.sync_api import Page

from bench.quick_hands import Hands
from tests.browser.conftest import visit

EDITS, STRETCH = 16, 8


def test_edits_in_any_field_at_any_speed_are_all_there_after_a_reload(page: Page, light_site: str):
    visit(page, light_site, "road")
    tour = page.request.get(f"{light_site}/api/tours").json()["tours"][0]["id"]
    hands = Hands(page, light_site, tour, seed=7, stretch=STRETCH)
    hands.edit(EDITS)
    assert len(hands.entered) >= EDITS / 3  # some fall on the same place, some on a default that goes no further
    assert hands.lost() == {}
