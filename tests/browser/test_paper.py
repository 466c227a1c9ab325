"""What comes out of the printer: the text of the pages, read back."""

import re
import subprocess
from pathlib import Path

from playwright.sync_api import Page

from tests.browser.conftest import visit
from tests.browser.seen import expect


def pages(page: Page, folder: Path) -> list[str]:
    """The text of each page as it would be printed."""
    file = folder / "printed.pdf"
    page.evaluate("window.dispatchEvent(new Event('beforeprint'))")
    page.pdf(path=file, format="A4")
    page.evaluate("window.dispatchEvent(new Event('afterprint'))")
    told = subprocess.run(["pdftotext", "-layout", file, "-"], capture_output=True, text=True, check=True).stdout
    return told.split("\f")[:-1]


def plain(text: str) -> str:
    return re.sub(r"\W+", "", text).lower()


def test_every_thing_stands_on_a_printed_card(page: Page, site: str, short_sample, tmp_path):
    """Bags with more steps than fit half a sheet go on; what is in no bag is named."""
    visit(page, site, "pack")
    expect(page.get_by_role("button", name="Print all cards")).to_be_visible()
    printed = plain(" ".join(pages(page, tmp_path)))
    placed = {p.thing_id for p in short_sample.load.placements}
    missing = [t.name for t in short_sample.kit if t.id in placed and plain(t.name)[:14] not in printed]
    assert missing == []
    assert plain("Not in a bag") in printed


def test_the_shopping_list_is_printed_whole_and_without_the_drawing(page: Page, site: str, tmp_path):
    visit(page, site, "stores")
    page.get_by_role("button", name="Lists and tables").click()
    table = page.get_by_role("tabpanel", name="Shopping list")
    stops = [plain(text) for text in table.get_by_role("row").get_by_role("button").all_inner_texts()]
    ribbon = page.get_by_role("slider").first.bounding_box()
    assert stops
    assert ribbon
    printed = plain(" ".join(pages(page, tmp_path)))
    assert [stop for stop in stops if stop not in printed] == []
    page.emulate_media(media="print")
    expect(page.get_by_role("slider").first).to_be_hidden()
