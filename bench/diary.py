"""The diary under way: 1,000 queued entries of two phones replayed while the server is killed, the rest of a tour re-planned
after an entry, the installed page opened without a network.

    python -m bench.diary

Exits with 1 where an entry is lost or doubled, or a bar is missed.
"""

import random
import sys
import threading
import time

import requests
from playwright.sync_api import sync_playwright

from bench.browser import launch
from omnifer.core.assess import assess, profile_of
from omnifer.core.diary.journal import Journal
from omnifer.core.diary.now import replan
from omnifer.core.model.diary import Entry, Received
from omnifer.demo.ridden import ridden_diary, ridden_tour
from tests.core.test_diary import KIT, STOWED, straight_tour, told
from tests.faults.house import House
from tests.patience import until

EACH, KILLS = 500, 6
MOST_OPENING, MOST_REPLANNING = 2.0, 1.05  # one, and what a clock is off


class Phone(threading.Thread):
    """Sends what it has noted in batches of any size and in any order, again and again until all of it is acknowledged."""

    def __init__(self, house: House, tour: str, entries: list[Entry], seed: int) -> None:
        super().__init__(daemon=True)
        self.house, self.tour, self.waiting, self.chance = house, tour, list(entries), random.Random(seed)
        self.sent = self.tries = 0

    def run(self) -> None:
        session = requests.Session()
        while self.waiting:
            self.chance.shuffle(self.waiting)
            batch = self.waiting[: self.chance.randint(1, 25)]
            self.tries += 1
            try:
                token = session.get(f"{self.house.address}/api/session", timeout=5).json()["csrf_token"]
                body = f'{{"entries":[{",".join(entry.model_dump_json() for entry in batch)}]}}'
                answer = session.post(
                    f"{self.house.address}/api/tours/{self.tour}/diary", data=body, timeout=10,
                    headers={"X-CSRFToken": token, "Content-Type": "application/json"},
                )  # fmt: skip
                if answer.status_code != 200:
                    continue
                taken = set(answer.json()["taken"])
            except (requests.RequestException, ValueError, KeyError):
                time.sleep(0.05)
                continue
            self.sent += len(batch)
            # Now and then the answer is lost on its way: the same is sent once more.
            if self.chance.random() < 0.8:
                self.waiting = [entry for entry in self.waiting if str(entry.id) not in taken]


def replayed() -> bool:
    """Two phones, and a server that is killed meanwhile."""
    house = House()
    house.start()
    try:
        tour = bring(house)
        entries = [
            told("here", phone=phone, day=1 + n // 50, hour=n % 50 / 3, km=float(n)).entry for phone in "ab" for n in range(EACH)
        ]
        phones = [Phone(house, tour, [e for e in entries if e.phone == phone], seed) for seed, phone in enumerate("ab")]
        began = time.monotonic()
        for phone in phones:
            phone.start()
        kills = 0
        while any(phone.is_alive() for phone in phones):
            time.sleep(0.35)
            if kills < KILLS and house.running("gunicorn", "omnifer.wsgi:app"):
                house.kill("gunicorn", "omnifer.wsgi:app")
                kills += 1
        took = time.monotonic() - began
        until(house.answers, "the server is not begun again")
        kept = [
            one["entry"]["id"] for one in requests.get(f"{house.address}/api/tours/{tour}/diary", timeout=30).json()["entries"]
        ]
        lost, doubled = len({str(e.id) for e in entries} - set(kept)), len(kept) - len(set(kept))
        tries, sent = (sum(getattr(phone, what) for phone in phones) for what in ("tries", "sent"))
        print(f"{len(entries)} entries of two phones: {lost} lost, {doubled} doubled; sent {sent} times over in {tries} batches,")
        print(f"  the web server killed {kills} times; {took:.1f} s")
        return lost == doubled == 0
    finally:
        house.remove()


def bring(house: House) -> str:
    """A small tour for the diary; its identifier."""
    session = requests.Session()
    token = session.get(f"{house.address}/api/session").json()["csrf_token"]
    bundle = f'{{"format":"omnifer-tour","version":3,"tour":{straight_tour(*KIT, load=STOWED).model_dump_json()}}}'
    answer = session.post(f"{house.address}/api/tours/bundle", files={"file": ("t.json", bundle)}, headers={"X-CSRFToken": token})
    return str(answer.json()["tour"]["id"])


def replanned() -> bool:
    """An entry more in the middle of six weeks, beside one assessment of the same tour."""
    tour = ridden_tour()
    road = profile_of(tour)
    plan = assess(tour, road)
    entries = [Received(entry=e, received_at=e.at) for e in ridden_diary(tour) if e.km is not None and e.km < 1200]

    def took(work):
        began = time.perf_counter()
        work()
        return time.perf_counter() - began

    # In turns, so that what the machine does meanwhile falls on both.
    turns = [(took(lambda: assess(tour, road)), took(lambda: replan(tour, plan, road, Journal.of(entries)))) for _ in range(9)]
    one, rest = (min(times) for times in zip(*turns, strict=True))
    told = f"{rest * 1000:.0f} ms, {rest / one:.2f} x one assessment ({one * 1000:.0f} ms)"
    print(f"re-planned after an entry, {len(entries)} before it: {told}")
    return rest <= MOST_REPLANNING * one


def opened() -> bool:
    """The diary of the installed page without a network, beside the same page with no tour on it, served."""
    house = House()
    house.start()
    try:
        tour = bring(house)
        with sync_playwright() as playwright:
            browser = launch(playwright)
            context = browser.new_context(viewport={"width": 390, "height": 844}, locale="en-GB")
            page = context.new_page()
            diary = f"{house.address}/tours/{tour}/diary"
            for _ in range(3):
                page.goto(diary)
                page.get_by_role("button", name="More", exact=True).first.wait_for()
                page.evaluate("navigator.serviceWorker.ready.then(() => true)")
                page.wait_for_load_state("networkidle")

            def times(address, name):
                found = []
                for _ in range(7):
                    page.goto("about:blank")
                    began = time.perf_counter()
                    page.goto(address, wait_until="commit")
                    page.get_by_role("button", name=name).first.wait_for()
                    found.append(time.perf_counter() - began)
                return sorted(found)[3]

            empty_house = House()
            empty_house.start()
            empty = times(empty_house.address, "Start a tour")
            empty_house.remove()
            context.set_offline(True)
            offline = times(diary, "Used")
            browser.close()
        told = f"{offline * 1000:.0f} ms, {offline / empty:.2f} x the page without a tour ({empty * 1000:.0f} ms)"
        print(f"opened without a network: {told}")
        return offline <= MOST_OPENING * empty
    finally:
        house.remove()


def main() -> int:
    """Run all three."""
    return 0 if all([replanned(), replayed(), opened()]) else 1


if __name__ == "__main__":
    sys.exit(main())
