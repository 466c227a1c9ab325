"""A real browser on the real application: one browser a worker, one page a test, no console errors ever."""

from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

expect.set_options(timeout=15_000)
ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=ARGUMENTS)
        yield chromium
        chromium.close()


def open_page(browser: Browser, complaints: list[str], **options: object) -> Page:
    page = browser.new_context(viewport={"width": 1280, "height": 800}, **options).new_page()
    page.set_default_timeout(15_000)
    page.on("console", lambda m: complaints.append(m.text) if m.type in ("error", "warning") else None)
    page.on("pageerror", lambda e: complaints.append(str(e)))
    return page


@pytest.fixture
def complaints() -> list[str]:
    """What the browser's console said; a test that provokes a refusal empties it."""
    return []


@pytest.fixture
def page(browser: Browser, site: str, complaints: list[str]) -> Iterator[Page]:
    """A page on the sample tour's load."""
    opened = open_page(browser, complaints)
    visit(opened, site, "load")
    yield opened
    opened.context.close()
    assert complaints == []


def visit(page: Page, site: str, view: str) -> None:
    tour = page.request.get(f"{site}/api/tours").json()["tours"][0]["id"]
    page.goto(f"{site}/tours/{tour}/{view}")
    page.wait_for_load_state("networkidle")
