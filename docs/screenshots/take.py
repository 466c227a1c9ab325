"""Takes the pictures of the README from a running Omnifer that holds only the sample tours.

bin/start --reset-demo            (in another terminal)
.venv/bin/python -m docs.screenshots.take [http://127.0.0.1:8470]
"""

import datetime as dt
import re
import sys
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from bench.browser import launch

HERE = Path(__file__).parent
DESK, PHONE = (1280, 800), (390, 844)
PICTURES = (
    ("start", "", DESK, "light"),
    ("road", "road", DESK, "light"),
    ("map", "road", DESK, "light"),
    ("rig", "rig", DESK, "light"),
    ("parts", "rig?parts", DESK, "light"),
    ("kit", "kit", DESK, "light"),
    ("load", "load", DESK, "light"),
    ("mend", "load", DESK, "light"),
    ("load-dark", "load", DESK, "dark"),
    ("stores", "stores", DESK, "light"),
    ("ready", "ready", DESK, "light"),
    ("rehearsed", "ready?rehearsed", DESK, "light"),
    ("pack", "pack", DESK, "light"),
    ("weigh", "pack?sheet=weigh", DESK, "light"),
    ("debrief", "debrief", DESK, "light"),
    ("load-phone", "load", PHONE, "light"),
    ("pack-phone", "pack", PHONE, "light"),
    ("diary-phone", "diary", PHONE, "light"),
)


def road_map(page: Page) -> None:
    """The road as a map, a little closer."""
    page.get_by_role("tab", name="Map").click()
    page.get_by_role("button", name="Closer").click()
    page.wait_for_timeout(1500)


def mend(page: Page) -> None:
    """A mend tried, neither kept nor put back."""
    findings = page.get_by_role("region", name="Findings")
    findings.get_by_role("button", name="What helps").click()
    findings.get_by_role("button", name="Try").first.click()
    findings.get_by_role("button", name="Put back").scroll_into_view_if_needed()


def parts(page: Page) -> None:
    """What of the bike wears out on the way."""
    page.get_by_role("button", name="Parts, care and choices").click()
    page.get_by_text("What could be otherwise").wait_for()


def card(page: Page) -> None:
    """A card opened in its place."""
    page.get_by_role("button", name="Rear left").first.click()


def lands(page: Page) -> None:
    """Every tour's land drawn."""
    page.get_by_text("kg leaving").nth(2).wait_for()


def debrief(page: Page) -> None:
    """Things against their days."""
    page.get_by_role("region", name="For next time").wait_for()


def weigh(page: Page) -> None:
    """The rear wheel on the scale, its first reading taken."""
    page.get_by_role("button", name="Put it on").click()
    page.get_by_text("settling").wait_for()
    page.get_by_role("button", name="Take reading 1 of 3").click()
    page.get_by_role("button", name="Take reading 2 of 3").wait_for()


def set_out(page: Page) -> None:
    """The first hour on the road; the last picture, for it is noted."""
    page.clock.set_fixed_time(dt.datetime.combine(dt.date.today(), dt.time(9, 10)))
    page.get_by_role("button", name="Set out now").click()
    page.get_by_role("button", name=re.compile("^Set out today")).click()
    page.get_by_role("heading", name="Day 1").wait_for()


def stores(page: Page) -> None:
    """The best plan proven."""
    page.get_by_role("button", name="Take the best").wait_for()


def rehearsed(page: Page) -> None:
    """All plays played."""
    page.get_by_text("later at the end than planned").wait_for()


BEFORE: dict[str, Callable[[Page], None]] = {
    "map": road_map, "parts": parts,
    "start": lands, "debrief": debrief, "mend": mend, "pack-phone": card, "rehearsed": rehearsed, "stores": stores,
    "weigh": weigh, "diary-phone": set_out,
}  # fmt: skip


def main() -> None:
    """Take all pictures."""
    address = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8470"
    with sync_playwright() as playwright:
        browser = launch(playwright)
        for name, view, (width, height), theme in PICTURES:
            context = browser.new_context(
                viewport={"width": width, "height": height}, color_scheme=theme, locale="en-GB", service_workers="block"
            )
            page = context.new_page()
            tours = context.request.get(f"{address}/api/tours").json()["tours"]
            tour = next(t["id"] for t in tours if t["name"].startswith("Ebban" if view == "debrief" else "Tamsen"))
            page.goto(f"{address}/tours/{tour}/{view}" if view else address)
            page.get_by_role("link", name="Load" if view else "Tamsen Quay").first.wait_for()
            page.wait_for_timeout(1500)
            if name in BEFORE:
                BEFORE[name](page)
                page.wait_for_timeout(500)
            page.screenshot(path=HERE / f"{name}.png")
            context.close()
        browser.close()


if __name__ == "__main__":
    main()
