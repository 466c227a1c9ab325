"""What the page does while nobody answers: it keeps what the rider did, says so, and sends it again; and while others search."""

import json
import re

from playwright.sync_api import Browser, Page

from tests.browser.conftest import open_page, visit
from tests.browser.seen import expect

AWAY = {"title": "Back in a moment", "status": 503, "again": True, "detail": "The database does not answer just now."}


def test_a_change_that_nobody_takes_waits_on_the_page_and_is_sent_again(page: Page, site: str, complaints: list[str]):
    visit(page, site, "kit")
    gone = {"away": True, "tries": 0}

    def answer(route):
        gone["tries"] += 1
        if gone["away"] and gone["tries"] % 2:
            route.abort()
        elif gone["away"]:
            route.fulfill(status=503, content_type="application/problem+json", body=json.dumps(AWAY))
        else:
            route.continue_()

    page.route(
        re.compile(r"/api/tours/[^/]+$"), lambda route: answer(route) if route.request.method == "PATCH" else route.continue_()
    )
    page.locator('[data-thing="tarp"]').click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Name", exact=True).fill("Small tarp")
    dialog.get_by_role("button", name="Keep").click()
    notice = page.get_by_role("alert").filter(has_text="Not kept yet")
    expect(notice).to_contain_text("It waits on this page and is sent again by itself")
    expect(notice).to_contain_text("arp")
    expect(page.get_by_role("button", name=re.compile("^Undo"))).to_be_disabled()
    while gone["tries"] < 3:
        page.wait_for_timeout(100)
    gone["away"] = False
    expect(notice).to_be_hidden()
    expect(page.get_by_role("button", name=re.compile("^Undo: .*arp"))).to_be_enabled()
    assert gone["tries"] > 3
    gone.update(away=True, tries=0)
    page.get_by_role("button", name=re.compile("^Undo: ")).click()
    page.locator('[data-thing="small-tarp"], [data-thing="tarp"]').first.click()
    dialog.get_by_label("Name", exact=True).fill("Large tarp")
    dialog.get_by_role("button", name="Keep").click()
    notice.get_by_role("button", name="Give it up").click()
    expect(notice).to_be_hidden()
    gone["away"] = False
    page.wait_for_timeout(2000)
    expect(page.get_by_role("button", name="Undo: Start the tour")).to_be_disabled()  # given up is given up
    complaints.clear()  # the browser itself notes answers that failed


def test_whoever_waits_for_a_search_is_told_the_place(browser: Browser, page: Page, site: str, complaints: list[str]):
    visit(page, site, "load")
    page.get_by_role("button", name="Propose a load").click()
    expect(page.get_by_text("All bags, racks and wheels hold")).to_be_visible()
    other = open_page(browser, complaints)
    visit(other, site, "load")
    other.get_by_role("button", name="Propose a load").click()
    expect(other.get_by_text("Next in the queue. It begins by itself.")).to_be_visible()
    page.get_by_role("button", name="Cancel").click()
    expect(other.get_by_text("All bags, racks and wheels hold")).to_be_visible()
    other.get_by_role("button", name="Cancel").click()
    expect(other.get_by_role("progressbar")).to_be_hidden()
    other.context.close()
