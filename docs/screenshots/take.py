"""Takes the pictures of the README from a running Omnifer that holds only the sample tour.

bin/start --reset-demo            (in another terminal)
.venv/bin/python -m docs.screenshots.take [http://127.0.0.1:8470]
"""

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
    ("road-days", "road", DESK, "light"),
    ("road-assumed", "road", DESK, "light"),
    ("rig", "rig", DESK, "light"),
    ("rigs", "rig", DESK, "light"),
    ("kit", "kit", DESK, "light"),
    ("load", "load", DESK, "light"),
    ("mend", "load", DESK, "light"),
    ("load-dark", "load", DESK, "dark"),
    ("stores", "stores", DESK, "light"),
    ("ready", "ready", DESK, "light"),
    ("ready-mend", "ready", DESK, "light"),
    ("kit-price", "kit", DESK, "light"),
    ("pack", "pack", DESK, "light"),
    ("load-phone", "load", PHONE, "light"),
    ("pack-phone", "pack", PHONE, "light"),
    ("stores-phone", "stores", PHONE, "light"),
)


def days(page: Page) -> None:
    """Days, and their weather over the land."""
    page.get_by_role("tab", name="Days").click()
    page.get_by_label("Over the land, show").first.click()
    page.get_by_role("option", name="Cold nights").click()


def assumed(page: Page) -> None:
    """What stands in for what nobody measured, and what one of it moves."""
    page.get_by_role("tab", name="Assumed").click()
    page.get_by_role("button", name="What it moves: Slowest turn").click()
    page.get_by_role("cell", name="On foot").wait_for()


def rigs(page: Page) -> None:
    """Rigs side by side."""
    page.get_by_role("button", name="Compare rigs").click()
    page.get_by_role("columnheader", name="Runa without racks").wait_for()


def mend(page: Page) -> None:
    """A mend tried, neither kept nor put back."""
    findings = page.get_by_role("region", name="Findings")
    findings.get_by_role("button", name="E-reader gets damp").click()
    findings.get_by_role("listitem").filter(has_text="Trailer bag").get_by_role("button", name="Try").click()
    findings.get_by_role("button", name="Put back").scroll_into_view_if_needed()


def card(page: Page) -> None:
    """A card opened in its place."""
    page.get_by_role("button", name="Rear left").first.click()


def ready_mend(page: Page) -> None:
    """What can be mended."""
    page.get_by_role("button", name="Can you mend it?").click()
    page.get_by_text("there / wanted").first.wait_for()


def kit_price(page: Page) -> None:
    """The kit by its price, and the library."""
    page.get_by_role("radio", name="By price").click()
    page.get_by_role("button", name="Library").click()
    page.get_by_text("Probably not").wait_for()
    page.get_by_text("A kilogram less").wait_for()


BEFORE: dict[str, Callable[[Page], None]] = {
    "road-days": days, "road-assumed": assumed, "rigs": rigs, "mend": mend,
    "pack-phone": card, "ready-mend": ready_mend, "kit-price": kit_price,
}  # fmt: skip


def main() -> None:
    """Take all pictures."""
    address = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8470"
    with sync_playwright() as playwright:
        browser = launch(playwright)
        for name, view, (width, height), theme in PICTURES:
            context = browser.new_context(viewport={"width": width, "height": height}, color_scheme=theme, locale="en-GB")
            page = context.new_page()
            tour = context.request.get(f"{address}/api/tours").json()["tours"][0]["id"]
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
