"""Omnifer goes along: packed, weighed on the simulated scale, then two phones without a network and a server that is killed."""

import re
from collections.abc import Iterator

import pytest
import requests
from playwright.sync_api import Browser, BrowserContext, Page

from tests.browser.conftest import listened
from tests.browser.seen import expect
from tests.core.test_diary import KIT, STOWED, straight_tour
from tests.faults.house import House
from tests.patience import until

OFFLINE = re.compile(
    "ERR_INTERNET_DISCONNECTED|ERR_CONNECTION|ERR_EMPTY_RESPONSE|Failed to load resource|ERR_FAILED|bad HTTP response code"
)
"""What the browser itself notes of answers that did not come."""
EACH = 10
pytestmark = pytest.mark.xdist_group("house")


@pytest.fixture(scope="module")
def house() -> Iterator[House]:
    """The whole of it, scale and all, as bin/start runs it."""
    running = House()
    running.start()
    yield running
    running.remove()


@pytest.fixture(scope="module")
def tour(house: House) -> str:
    """A straight road of ten days, given as a bundle."""
    session = requests.Session()
    token = session.get(f"{house.address}/api/session").json()["csrf_token"]
    document = straight_tour(*KIT, load=STOWED).model_dump_json()
    bundle = f'{{"format":"omnifer-tour","version":3,"tour":{document}}}'
    answer = session.post(
        f"{house.address}/api/tours/bundle", files={"file": ("tour.json", bundle)}, headers={"X-CSRFToken": token}
    )
    assert answer.status_code == 201, answer.text
    return str(answer.json()["tour"]["id"])


def opened(browser: Browser, house: House, tour: str, view: str, complaints: list[str], **options) -> tuple[BrowserContext, Page]:
    """A page of a device of its own, which its worker keeps."""
    context = browser.new_context(locale="en-GB", **options)
    page = listened(context.new_page(), complaints)
    page.goto(f"{house.address}/tours/{tour}/{view}", wait_until="commit")
    page.locator("main > :not([role=status])").first.wait_for()
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.wait_for_function("navigator.serviceWorker.controller !== null")
    # What was asked before the worker came is asked once more, and kept.
    page.reload()
    page.locator("main > :not([role=status])").first.wait_for()
    page.wait_for_load_state("networkidle")
    return context, page


def ask_scale(page: Page, tour: str, what: dict[str, float]) -> None:
    """What no rider asks of the simulated scale."""
    page.evaluate(
        """async ([tour, what]) => {
            const token = (await (await fetch('/api/session')).json()).csrf_token
            const headers = { 'X-CSRFToken': token, 'Content-Type': 'application/json' }
            await fetch(`/api/tours/${tour}/scale`, { method: 'POST', headers, body: JSON.stringify(what) })
        }""",
        [tour, what],
    )


def test_pack_weigh_and_check(browser: Browser, house: House, tour: str):
    """Cards ticked; a wheel weighed three times while the zero drifts and the link is lost; checks noted by whoever looked."""
    complaints: list[str] = []
    context, page = opened(
        browser, house, tour, "pack", complaints, viewport={"width": 1280, "height": 800}, service_workers="allow"
    )
    page.locator("label").filter(has=page.get_by_role("checkbox", name="chair is in")).click()
    expect(page.get_by_text("1 of 2 in")).to_be_visible()
    expect(page.get_by_text("Ten things fewer save")).to_be_visible()
    page.get_by_role("tab", name="Weigh-in").click()
    reading = page.locator("[data-reading]")
    expect(page.get_by_text("Simulated scale, to 60 kg")).to_be_visible()
    page.get_by_role("button", name="Front wheel").click()
    ask_scale(page, tour, {"drift_kg_per_min": 0.1})
    for n in (1, 2, 3):
        page.get_by_role("button", name="Put it on").click()
        expect(page.get_by_text("settling")).to_be_visible()
        page.get_by_role("button", name=f"Take reading {n} of 3").click()
        if n == 2:
            ask_scale(page, tour, {"drop_s": 3})
            expect(page.get_by_text("link lost, tried again")).to_be_visible()
            expect(reading).to_have_text("–")
        following = f"Take reading {n + 1} of 3" if n < 3 else "the middle of"
        expect(page.get_by_role("button", name=re.compile(following))).to_be_visible()
    page.get_by_role("button", name=re.compile("^Keep .* kg, the middle of")).click()
    row = page.get_by_role("row", name=re.compile("Front wheel"))
    expect(row).to_contain_text("on the scale")
    told = requests.get(f"{house.address}/api/tours/{tour}/weigh").json()["lines"]
    line = next(one for one in told if one["weighed"] == "front_wheel")
    assert len(line["readings_kg"]) == 3
    assert line["scale_kg"] == sorted(line["readings_kg"])[1]
    assert abs(line["difference_kg"]) < 2
    page.get_by_role("tab", name="Checks").click()
    page.locator("label").filter(has=page.get_by_role("checkbox", name="Money in three places")).click()
    expect(page.get_by_role("checkbox", name="Money in three places")).to_be_checked()
    page.get_by_role("button", name="Does a heel strike a bag? Yes").click()
    expect(page.get_by_text("The pannier further back")).to_be_visible()
    # A file that is saved and the guide do not take the page's place on the device.
    with page.expect_download():
        page.get_by_role("button", name="More", exact=True).last.click()
        page.get_by_role("menuitem", name="Save the kit").click()
    page.goto(f"{house.address}/guide/guide/index.html")
    context.set_offline(True)
    page.goto(f"{house.address}/tours/{tour}/load", wait_until="commit")
    expect(page.get_by_role("img", name=re.compile("from the right")).first).to_be_visible()
    context.close()
    assert [c for c in complaints if not OFFLINE.search(c)] == []


def noted(page: Page) -> None:
    """One thing noted by three touches."""
    page.get_by_role("button", name="More", exact=True).last.click()
    page.get_by_role("button", name="Washed", exact=True).click()
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_role("region", name="Washed")).to_be_hidden()


def test_two_phones_without_a_network_and_a_server_that_is_killed(browser: Browser, house: House, tour: str):
    """Ten entries each while nobody answers; the pages are closed and opened again meanwhile; afterwards each entry is there once."""
    complaints: list[str] = []
    phone = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "service_workers": "allow"}
    phones = [opened(browser, house, tour, view, complaints, **phone) for view in ("kit", "diary")]
    first, second = (page for _, page in phones)
    first.locator('[data-thing="chair"] .words').click()
    first.get_by_label("Mass of one").fill("1234 g")
    first.get_by_role("button", name="Keep", exact=True).click()
    kept = "async (path) => (await (await caches.match(path)).json()).tour.sheet.kit.some((t) => t.mass_kg === 1.234)"
    until(lambda: first.evaluate(kept, f"/api/tours/{tour}"), "the change is not kept on the phone")
    first.get_by_role("link", name="Diary").click()
    first.get_by_role("button", name="Set out now").click()
    # Its dates are others than today's: that is asked first.
    first.get_by_role("button", name=re.compile("^Set out today")).click()
    expect(first.get_by_role("heading", name="Day 1")).to_be_visible()

    def arrived() -> list[dict]:
        return [one["entry"] for one in house.read(f"/api/tours/{tour}/diary")["entries"]]

    until(lambda: any(entry["verb"] == "set_out" for entry in arrived()), "setting out does not arrive")
    second.reload()
    expect(second.get_by_role("heading", name="Day 1")).to_be_visible()
    second.wait_for_load_state("networkidle")
    for context, _ in phones:
        context.set_offline(True)
    for n in range(EACH):
        for page in (first, second):
            noted(page)
        if n == 3:
            # Closed and opened again without a network: the page, the plan and what waits are there.
            context, before = phones[0]
            before.close()
            first = listened(context.new_page(), complaints)
            first.goto(f"{house.address}/tours/{tour}/load", wait_until="commit")
            expect(first.get_by_role("img", name=re.compile("from the right")).first).to_be_visible()
            # As it was changed, not as it was when it was opened.
            kit = first.evaluate("async (path) => (await (await fetch(path)).json()).tour.sheet.kit", f"/api/tours/{tour}")
            assert next(thing["mass_kg"] for thing in kit if thing["id"] == "chair") == 1.234
            first.get_by_role("link", name="Diary").click()
            expect(first.get_by_text(f"Kept on this device, {n + 1} to send")).to_be_visible()
    for page in (first, second):
        expect(page.get_by_text(f"Kept on this device, {EACH} to send")).to_be_visible()
    house.kill("gunicorn", "omnifer.wsgi:app")
    # Its processes end with it; what takes their place is killed once more.
    for context, _ in phones:
        context.set_offline(False)
    until(lambda: house.running("gunicorn", "omnifer.wsgi:app"), "the server is not begun again")
    house.kill("gunicorn", "omnifer.wsgi:app")
    until(house.answers, "the server is not begun again")
    for page in (first, second):
        expect(page.get_by_text("Kept on this device")).to_be_hidden()
    entries = arrived()
    washed = [entry for entry in entries if entry["verb"] == "washed"]
    assert len(washed) == 2 * EACH
    assert len({entry["id"] for entry in entries}) == len(entries)
    by_phone: dict[str, list[int]] = {}
    for entry in washed:
        by_phone.setdefault(entry["phone"], []).append(entry["number"])
    assert [len(numbers) for numbers in by_phone.values()] == [EACH, EACH]
    # Undone on one phone, it is undone on the other.
    first.get_by_role("button", name="Undo it").click()
    expect(second.get_by_text(f"{2 * EACH} entries")).to_be_visible()
    for context, _ in phones:
        context.close()
    assert [c for c in complaints if not OFFLINE.search(c)] == []


def test_the_page_can_be_installed(browser: Browser, house: House):
    """A manifest with icons that are there, and a worker at the root: what browsers ask of a page that is installed."""
    manifest = requests.get(f"{house.address}/manifest.webmanifest")
    assert manifest.headers["Content-Type"].startswith("application/manifest+json")
    told = manifest.json()
    assert (told["start_url"], told["scope"], told["display"]) == ("/", "/", "standalone")
    for icon in told["icons"]:
        answer = requests.get(house.address + icon["src"])
        assert (answer.status_code, answer.headers["Content-Type"].partition(";")[0]) == (200, icon["type"])
    worker = requests.get(f"{house.address}/sw.js")
    assert (worker.status_code, worker.headers["Cache-Control"]) == (200, "no-cache")
