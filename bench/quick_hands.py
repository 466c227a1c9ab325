"""Edits faster than any answer, in the browser, on the sample: what a reload shows is what was entered.

bin/start --reset-demo            (in another terminal)
.venv/bin/python -m bench.quick_hands [http://127.0.0.1:8470] [edits] [seed]

Exits with 1 where anything entered was not kept.
"""

import random
import sys

from playwright.sync_api import Locator, Page, sync_playwright
from playwright.sync_api import TimeoutError as NeverCame

from bench.browser import launch

Place = tuple[str, ...]
"""Where an entered value stands: a word for its list, then what names it there."""
PAUSES_MS = (0, 0, 0, 20, 150, 600)
"""Between two edits: mostly none at all."""
STRETCH = 40
"""Edits on one view before the next."""
AGAIN_MS = 5_000
"""After which somebody who pressed and sees nothing presses again [ms]."""
PATIENCE_MS = 600_000
"""How long the last changes may take to be answered [ms]: each is worked out before the next is sent."""


class Hands:
    """Somebody who edits a tour on its pages; `entered` is what should stand there."""

    def __init__(self, page: Page, address: str, tour: str, seed: int, stretch: int = STRETCH) -> None:
        self.page, self.address, self.tour, self.stretch = page, address, tour, stretch
        self.chance = random.Random(seed)
        self.first = self.sheet()
        self.entered: dict[Place, object] = {}
        self.again = 0
        """How often something had to be pressed or typed once more, since nothing was seen of it."""

    def sheet(self) -> dict:
        """The tour as it is kept."""
        return self.page.request.get(f"{self.address}/api/tours/{self.tour}").json()["tour"]["sheet"]

    def lost(self) -> dict[Place, tuple[object, object]]:
        """After a reload, what was entered beside what stands there, where they differ."""
        self.page.get_by_role("status").filter(has_text="Kept").wait_for(timeout=PATIENCE_MS)
        self.page.wait_for_load_state("networkidle")
        refused = self.page.get_by_role("alert").all_text_contents()
        self.page.reload()
        self._to("Road", "Assumed")
        rows = self.page.get_by_role("table", name="Defaults").locator("[data-default]")
        rows.first.wait_for()
        shown = dict(rows.evaluate_all("(rows) => rows.map((row) => [row.dataset.default, row.querySelector('input').value])"))
        sheet = self.sheet()
        found = {("own", key): float(value) for key, value in shown.items()}
        found |= {("thing", thing["id"]): round(thing["mass_kg"], 6) for thing in sheet["kit"]}
        found |= {("stop", stop["id"]): (stop["opens_h"], stop["closes_h"]) for stop in sheet["road"]["stops"]}
        lost = {place: (value, found.get(place)) for place, value in self.entered.items() if found.get(place) != value}
        return lost | ({("said",): (refused, None)} if refused else {})

    def edit(self, times: int) -> None:
        """So many edits, a stretch on each view, at any speed, the view changed while changes are on their way."""
        views = (("Road", "Stops", self._stop), ("Road", "Assumed", self._assumed), ("Kit", "", self._mass))
        done = 0
        while done < times:
            view, sheet, one = views[done // self.stretch % len(views)]
            self._to(view, sheet)
            for _ in range(min(self.stretch, times - done)):
                one()
                done += 1
                self.page.wait_for_timeout(self.chance.choice(PAUSES_MS))

    def _to(self, view: str, sheet: str = "") -> None:
        self.page.get_by_role("navigation", name="Views").get_by_role("link", name=view, exact=True).click()
        if sheet:
            self.page.get_by_role("tab", name=sheet).click()

    def _stop(self) -> None:
        stops = [s for s in self.first["road"]["stops"] if s["shop"] != "none"]
        stop, hour = self.chance.choice(stops), self.chance.randint(5, 11)
        dialog = self._opened(self.page.get_by_role("button", name=f"Change {stop['name']}", exact=True), stop["name"])
        self._typed(dialog.get_by_label("Opens", exact=True), f"{hour}:30")
        self._typed(dialog.get_by_label("Closes", exact=True), "19:45")
        dialog.get_by_role("button", name="Keep").click()
        self.entered[("stop", stop["id"])] = (hour + 0.5, 19.75)

    def _assumed(self) -> None:
        """A few figures of the table of defaults, one after the other with the tabulator."""
        rows = self.page.get_by_role("table", name="Defaults").locator("[data-default]")
        row = rows.nth(self.chance.randrange(rows.count()))
        field = row.get_by_role("textbox")
        usual = field.input_value()
        # Another figure of as many places, no further off than a tenth: within the bounds of any default but those at an end.
        wanted = f"{float(usual) * self.chance.choice((0.95, 0.97, 1.03, 1.05)):.{len(usual.partition('.')[2])}f}"
        field.fill(wanted)
        field.press("Tab")
        key = row.get_attribute("data-default") or ""
        if wanted != usual and not row.get_by_text("between").count():
            self.entered[("own", key)] = float(wanted)

    def _mass(self) -> None:
        things = [t for t in self.first["kit"] if t["inside"] is None]
        thing, grams = self.chance.choice(things), self.chance.randint(20, 900)
        dialog = self._opened(self.page.locator(f"[data-thing={thing['id']}] .words").first, thing["name"])
        self._typed(dialog.get_by_label("Mass of one"), f"{grams} g")
        dialog.get_by_role("button", name="Keep", exact=True).click()
        self.entered[("thing", thing["id"])] = grams / 1000

    def _opened(self, door: Locator, name: str) -> Locator:
        door.click()
        dialog = self.page.get_by_role("dialog", name=name)
        try:
            dialog.wait_for(timeout=AGAIN_MS)
        except NeverCame:
            self.again += 1
            door.click()
        return dialog

    def _typed(self, field: Locator, text: str) -> None:
        """Type, and once more where the field does not show it: a dialog that has just opened may take the focus back."""
        field.fill(text)
        if field.input_value() != text:
            self.again += 1
            field.fill(text)


def main() -> int:
    """Edit the sample, load it anew, and compare."""
    address, times, seed = ([*sys.argv[1:], *("http://127.0.0.1:8470", "500", "1")[len(sys.argv) - 1 :]])[:3]
    with sync_playwright() as playwright:
        browser = launch(playwright)
        page = browser.new_context(viewport={"width": 1280, "height": 800}, locale="en-GB", service_workers="block").new_page()
        tour = next(t["id"] for t in page.request.get(f"{address}/api/tours").json()["tours"] if t["name"].startswith("Tamsen"))
        page.goto(f"{address}/tours/{tour}/road")
        hands = Hands(page, address, tour, int(seed))
        hands.edit(int(times))
        lost = hands.lost()
        browser.close()
    print(f"{times} edits of {len(hands.entered)} figures, {hands.again} done twice, {len(lost)} not kept {lost or ''}")
    return int(bool(lost))


if __name__ == "__main__":
    sys.exit(main())
