"""Takes the pictures of the README from a running Omnifer that holds only the sample tour.

bin/start --reset-demo            (in another terminal)
.venv/bin/python docs/screenshots/take.py [http://127.0.0.1:8470]
"""

import sys
from pathlib import Path

from playwright.sync_api import sync_playwright

HERE = Path(__file__).parent
DESK, PHONE = (1280, 800), (390, 844)
PICTURES = (
    ("road", "road", DESK, "light"),
    ("road-days", "road", DESK, "light"),
    ("rig", "rig", DESK, "light"),
    ("kit", "kit", DESK, "light"),
    ("load", "load", DESK, "light"),
    ("load-dark", "load", DESK, "dark"),
    ("pack", "pack", DESK, "light"),
    ("load-phone", "load", PHONE, "light"),
)
FLAGS = ("--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
         "--disable-component-update", "--disable-sync")  # fmt: skip


def main() -> None:
    """Take all pictures."""
    address = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8470"
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=list(FLAGS))
        for name, view, (width, height), theme in PICTURES:
            context = browser.new_context(viewport={"width": width, "height": height}, color_scheme=theme)
            page = context.new_page()
            tour = context.request.get(f"{address}/api/tours").json()["tours"][0]["id"]
            page.goto(f"{address}/tours/{tour}/{view}")
            page.get_by_role("link", name="Load").first.wait_for()
            page.wait_for_timeout(1500)
            if name == "road-days":
                page.get_by_role("tab", name="Days").click()
                page.get_by_label("Over the land, show").first.click()
                page.get_by_role("option", name="Cold nights").click()
                page.wait_for_timeout(500)
            page.screenshot(path=HERE / f"{name}.png")
            context.close()
        browser.close()


if __name__ == "__main__":
    main()
