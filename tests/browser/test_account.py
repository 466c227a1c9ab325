"""A hosted Omnifer in the browser: in by a link, by a password, by a passkey; out again, and nothing stays on the device."""

import re
import threading
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page
from werkzeug.serving import make_server

from omnifer.api.app import create_app
from omnifer.devices.mailbox import SimulatedMailbox
from omnifer.hosting import Hosting
from omnifer.office.passwords import kept
from omnifer.outside.mail import Mail
from omnifer.store.accounts import Accounts
from omnifer.store.cluster import Cluster
from omnifer.store.database import Pool
from tests.browser.conftest import open_page
from tests.browser.seen import expect
from tests.browser.test_first_hour import clean
from tests.conftest import cloned
from tests.faults.house import free_port

ADDRESS, GOOD, OTHER = "ada@example.org", "four mild lentils", "three warm socks"


@pytest.fixture
def hosted(cluster: Cluster, tmp_path: Path) -> Iterator[tuple[str, SimulatedMailbox, Pool]]:
    port = free_port()
    site = f"http://localhost:{port}"
    with SimulatedMailbox(tmp_path) as mailbox:
        for database in cloned(cluster):
            app = create_app(database, "test", hosting=Hosting(site, 0, Mail(mailbox.address, "omnifer@localhost")))
            server = make_server("127.0.0.1", port, app, threaded=True)
            thread = threading.Thread(target=server.serve_forever, daemon=True)
            thread.start()
            yield site, mailbox, app.extensions["omnifer"].pool
            server.shutdown()
            thread.join()
            app.extensions["omnifer"].pool.close()


def with_authenticator(page: Page) -> None:
    """A device that makes passkeys and uses them without asking (WebAuthn's virtual authenticator)."""
    session = page.context.new_cdp_session(page)
    session.send("WebAuthn.enable")
    options = {"protocol": "ctap2", "transport": "internal", "hasResidentKey": True, "hasUserVerification": True,
               "isUserVerified": True, "automaticPresenceSimulation": True}  # fmt: skip
    session.send("WebAuthn.addVirtualAuthenticator", {"options": options})


def test_a_rider_comes_in_by_every_way_and_leaves(hosted, browser: Browser):
    site, mailbox, _ = hosted
    complaints: list[str] = []
    page = open_page(browser, complaints, reduced_motion="reduce")
    with_authenticator(page)
    page.goto(site)
    expect(page.get_by_role("heading", name="Sign in", exact=True)).to_be_visible()
    complaints.clear()  # the browser notes that nobody was signed in
    clean(page, "sign in")
    page.get_by_label("Mail address").fill(ADDRESS)
    page.get_by_role("button", name="Send me a link").click()
    expect(page.get_by_text(f"A link is on its way to {ADDRESS}")).to_be_visible()
    page.goto("about:blank")
    page.goto(re.search(r"http\S+#link=\S+", mailbox.mails()[-1].get_payload(decode=True).decode())[0])
    page.get_by_label("New password").fill("password123")
    page.get_by_role("button", name="Keep it and sign in").click()
    expect(page.get_by_text("tried first")).to_be_visible()
    complaints.clear()  # and that it was refused
    page.get_by_label("New password").fill(GOOD)
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Your tours")).to_be_visible()
    page.get_by_role("link", name="Your account").click()
    expect(page.get_by_text(ADDRESS, exact=True)).to_be_visible()
    clean(page, "account")
    page.get_by_role("button", name="Add a passkey of this device").click()
    expect(page.get_by_text("Passkey 1, made")).to_be_visible()
    page.get_by_label("Password of now").fill(GOOD)
    page.get_by_label("New password").fill(OTHER)
    page.get_by_role("button", name="Change it").click()
    expect(page.get_by_text("The password is changed")).to_be_visible()
    page.get_by_role("button", name="Sign out on this device").click()
    expect(page.get_by_role("heading", name="Sign in", exact=True)).to_be_visible()
    page.get_by_role("button", name="With a passkey").click()
    expect(page.get_by_role("heading", name="Your tours")).to_be_visible()
    page.goto(f"{site}/account")
    page.get_by_label("To be sure").fill(ADDRESS)
    page.get_by_label("Your password").fill(OTHER)
    page.get_by_role("button", name="Let my account go").click()
    expect(page.get_by_role("heading", name="Sign in", exact=True)).to_be_visible()
    page.get_by_label("Mail address").fill(ADDRESS)
    page.get_by_label("Password").fill(OTHER)
    page.get_by_role("button", name="With the password").click()
    expect(page.get_by_text("do not belong together")).to_be_visible()
    page.set_viewport_size({"width": 390, "height": 844})
    clean(page, "sign in on a phone")
    page.context.close()


def signed_in(browser: Browser, hosted, address: str, complaints: list[str]) -> Page:
    """A device on which a rider is signed in."""
    site, _, pool = hosted
    Accounts(pool).made(address, kept(GOOD))
    page = open_page(browser, complaints, reduced_motion="reduce")
    page.goto(f"{site}/sign-in")
    page.get_by_label("Mail address").fill(address)
    page.get_by_label("Password").fill(GOOD)
    page.get_by_role("button", name="With the password").click()
    expect(page.get_by_role("heading", name="Your tours")).to_be_visible()
    return page


def together(page: Page) -> None:
    page.get_by_role("button", name="More", exact=True).last.click()
    page.get_by_role("menuitem", name=re.compile("^Riding together")).click()


def test_two_ride_together_on_a_desk_and_a_phone(hosted, browser: Browser):
    site, _, _ = hosted
    complaints: list[str] = []
    desk = signed_in(browser, hosted, ADDRESS, complaints)
    phone = signed_in(browser, hosted, "bob@example.org", complaints)
    phone.set_viewport_size({"width": 390, "height": 844})
    desk.get_by_role("button", name=re.compile("sample")).click()
    expect(desk.get_by_text("Kept", exact=False).first).to_be_visible()
    together(desk)
    clean(desk, "riding together")
    desk.get_by_role("button", name="Make a link to hand on").click()
    link = desk.get_by_text(f"{site}/join#").text_content()
    phone.goto(link)
    expect(phone.get_by_text("You are bob@example.org")).to_be_visible()
    clean(phone, "an invitation")
    phone.get_by_role("button", name="Take the invitation").click()
    expect(phone.get_by_role("navigation", name="Views")).to_be_visible()
    tour = re.search(r"/tours/([^/]+)", phone.url)[1]
    # Each says who it is; who else is here is told, and at which view.
    together(phone)
    phone.get_by_role("button", name="On this tour I am").click()
    (me, *_) = phone.get_by_role("option").all_text_contents()[2:]
    phone.get_by_role("option", name=me).click()
    phone.get_by_role("button", name="Close").click()
    desk.reload()
    phone.goto(f"{site}/tours/{tour}/pack")
    expect(desk.get_by_text(f"{me} is here, at Pack")).to_be_visible()
    expect(phone.get_by_text(f"{ADDRESS} is here")).to_be_visible()
    # What one changes the other sees by itself.
    phone.evaluate(
        """async (tour) => {
            const { csrf_token } = await (await fetch('/api/session')).json()
            const { tour: { revision } } = await (await fetch(`/api/tours/${tour}`)).json()
            const headers = { 'Content-Type': 'application/json', 'X-CSRFToken': csrf_token }
            const body = JSON.stringify({ revision, what: 'Rename', name: 'Our way' })
            await fetch(`/api/tours/${tour}`, { method: 'PATCH', headers, body })
        }""",
        tour,
    )
    expect(desk.get_by_role("button", name="Our way: tour and riders")).to_be_visible()
    # The owner ends it: on the phone the tour is not there any more.
    together(desk)
    desk.get_by_role("button", name="End it for bob@example.org").click()
    expect(desk.get_by_text("Nobody yet.")).to_be_visible()
    expect(phone.get_by_text("You are no companion of this tour any more")).to_be_visible()
    phone.goto(site)
    expect(phone.get_by_role("heading", name="Your tours")).to_be_visible()
    expect(phone.get_by_text("Our way")).to_have_count(0)
    for page in (desk, phone):
        page.context.close()
