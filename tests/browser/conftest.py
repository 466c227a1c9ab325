"""A real browser on the real application: one browser a worker, one page a test, no console errors ever."""

from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, sync_playwright

from bench.browser import launch
from tests.browser.seen import PATIENCE_MS

NO_WORKER = "Service Worker registration blocked by Playwright"
"""What works without a network is tested by itself (test_companion.py): elsewhere nothing stands between page and server."""


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        chromium = launch(playwright, frugal=True)
        yield chromium
        chromium.close()


FORGET = """async () => {
    localStorage.clear()
    for (const { name } of await indexedDB.databases()) indexedDB.deleteDatabase(name)
}"""
"""What one page wrote down is not sent by the next: its tour is gone by then."""


def listened(page: Page, complaints: list[str]) -> Page:
    """A page whose console's errors and warnings are noted."""
    page.set_default_timeout(PATIENCE_MS)
    page.on("console", lambda m: complaints.append(m.text) if m.type in ("error", "warning") and m.text != NO_WORKER else None)
    page.on("pageerror", lambda e: complaints.append(str(e)))
    return page


def open_page(browser: Browser, complaints: list[str], **options: object) -> Page:
    """A page of another window, machine or theme."""
    return listened(
        browser.new_context(
            viewport={"width": 1280, "height": 800}, locale="en-GB", service_workers="block", **options
        ).new_page(),
        complaints,
    )


def look_away(page: Page) -> None:
    """Leave a page before its tour is deleted: who looks at one that is gone, or has just asked for it, is told so."""
    page.wait_for_load_state("networkidle")
    page.evaluate(FORGET)
    page.goto("about:blank")


@pytest.fixture
def complaints() -> list[str]:
    """What the browser's console said; a test that provokes a refusal empties it."""
    return []


@pytest.fixture(scope="session")
def desk(browser: Browser) -> BrowserContext:
    """The context of all desk pages: it has what they load once."""
    return browser.new_context(viewport={"width": 1280, "height": 800}, locale="en-GB", service_workers="block")


@pytest.fixture
def page(desk: BrowserContext, site: str, complaints: list[str]) -> Iterator[Page]:
    """A page of the desk, on nothing yet; it forgets what it was told to remember."""
    opened = listened(desk.new_page(), complaints)
    yield opened
    if opened.url.startswith(site):
        opened.evaluate(FORGET)
    opened.close()
    assert complaints == []


def visit(page: Page, site: str, view: str) -> None:
    """Open a view of the tour changed last, and wait until it stands."""
    tour = page.request.get(f"{site}/api/tours").json()["tours"][0]["id"]
    page.goto(f"{site}/tours/{tour}/{view}", wait_until="commit")
    page.locator("main > :not([role=status])").first.wait_for()
