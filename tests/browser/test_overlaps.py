"""No text lies over another or is cut, on a small tablet and on a phone; `bench.overlaps` walks all views, tours and sizes."""

from playwright.sync_api import Page

from bench.overlaps import overlaps, walked
from tests.browser.conftest import look_away, open_page

VIEWS, SIZES = ("road", "load", "stores", "ready"), ((1024, 768), (390, 844))


def test_no_text_lies_over_another(browser, site: str, complaints: list[str]):
    page: Page = open_page(browser, complaints)
    tour = page.request.get(f"{site}/api/tours").json()["tours"][0]["id"]
    assert list(walked(page, site, tour, VIEWS, SIZES)) == []
    look_away(page)
    page.context.close()


def test_texts_that_do_are_seen(page: Page):
    page.set_content(
        "<p style='position:absolute;top:9px;left:9px'>18.0 l</p><p style='position:absolute;top:10px;left:20px'>short</p>"
        "<div style='position:absolute;top:90px;left:9px;width:20px;overflow:hidden;white-space:nowrap'>fuel 1.2 kg</div>"
    )
    assert [line.partition(":")[0] for line in overlaps(page)] == ["cut", "over"]
