"""Edits faster than any answer: what a reload shows is what was entered."""

import random

from playwright.sync_api import Page

from tests.browser.conftest import visit
from tests.jobs.conftest import until

AT_ONCE = 8


def tour_of(page: Page, site: str) -> dict:
    tours = page.request.get(f"{site}/api/tours").json()["tours"]
    return page.request.get(f"{site}/api/tours/{tours[0]['id']}").json()["tour"]


def test_stops_changed_one_after_the_other_are_all_changed(page: Page, light_site: str):
    """Each dialog is opened, filled and kept before the change before it is answered."""
    visit(page, light_site, "road")
    chance = random.Random(7)
    stops = [s for s in tour_of(page, light_site)["sheet"]["road"]["stops"] if s["shop"] != "none"]
    wanted = {}
    for stop in chance.sample(stops, AT_ONCE):
        opens = f"{chance.randint(5, 11)}:{chance.choice(('00', '15', '30'))}"
        page.get_by_role("button", name=f"Change {stop['name']}", exact=True).click()
        dialog = page.get_by_role("dialog", name=stop["name"])
        dialog.get_by_label("Opens", exact=True).fill(opens)
        dialog.get_by_label("Closes", exact=True).fill("19:45")
        dialog.get_by_role("button", name="Keep").click()
        hours, _, minutes = opens.partition(":")
        wanted[stop["id"]] = int(hours) + int(minutes) / 60
    until(lambda: tour_of(page, light_site)["revision"] > AT_ONCE, "the last change is not answered")
    page.reload()
    kept = {s["id"]: (s["opens_h"], s["closes_h"]) for s in tour_of(page, light_site)["sheet"]["road"]["stops"]}
    assert {stop: kept[stop] for stop in wanted} == {stop: (opens, 19.75) for stop, opens in wanted.items()}
