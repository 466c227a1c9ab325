"""The guide under /guide: its pages, pictures and search, with nothing that the page's own policy forbids."""

import re
from http.client import HTTPConnection

import requests
from playwright.sync_api import Page

from omnifer.api.app import BUILT
from tests.browser.conftest import visit
from tests.browser.seen import expect


def test_the_guide_is_opened_read_and_searched(page: Page, site: str):
    visit(page, site, "load")
    page.get_by_role("button", name="More", exact=True).last.click()
    page.get_by_role("menuitem", name="Guide").click()
    expect(page.get_by_role("heading", name="Guide", level=1)).to_be_visible()
    page.get_by_role("link", name="The first hour").first.click()
    picture = page.get_by_role("img", name="Kit: things by the moment they are wanted")
    picture.scroll_into_view_if_needed()
    page.wait_for_function("() => [...document.querySelectorAll('article img')].some((i) => i.naturalWidth > 300)")
    page.get_by_role("textbox", name="Search").fill("rehearsed")
    expect(page.get_by_role("link", name=re.compile("The views")).first).to_be_visible()
    # Read again, its scripts still run.
    page.reload()
    expect(page.get_by_role("heading", name="The first hour", level=1)).to_be_visible()


def test_only_the_scripts_of_the_guide_itself_run(site: str):
    """Every script of a page carries the mark that its own headers name, and no page asks anybody else for anything."""
    assert requests.get(f"{site}/guide/").url.endswith("/guide/guide/index.html")
    for name in ("guide/figures.html", "decisions/index.html", "words.html"):
        answer = requests.get(f"{site}/guide/{name}")
        nonce = re.search(r"script-src 'self' 'nonce-([^']+)'", answer.headers["Content-Security-Policy"])
        assert nonce is not None
        assert set(re.findall(r"<script nonce=\"([^\"]+)\"", answer.text)) == {nonce[1]}
        assert "<script>" not in answer.text
        since = {"If-Modified-Since": answer.headers.get("Last-Modified", ""), "If-None-Match": answer.headers.get("ETag", '"x"')}
        assert requests.get(f"{site}/guide/{name}", headers=since).status_code == 200
        assert re.findall(r"(?:src|href)=\"https?://(?!127)[^\"]+\.(?:js|css|woff2?)", answer.text) == []
    # As it stands: libraries for people would take the dots out before they ask.
    raw = HTTPConnection(site.removeprefix("http://"))
    raw.request("GET", "/guide/%2e%2e/dist/index.html")
    assert (BUILT / "index.html").is_file()
    assert raw.getresponse().status == 404
    raw.close()
    assert "nonce-" not in requests.get(f"{site}/api/tours").headers["Content-Security-Policy"].partition("style-src")[0]
