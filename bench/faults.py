"""Kill everything that can be killed, while a rider works: nothing acknowledged is lost, nothing is half-written, and no fault
needs anything but the next start.

    python -m bench.faults [ROUNDS]

Each fault so many times (10). Exits with 1 where anything was lost, left behind or did not come back by itself.
"""

import random
import signal
import sys
import time
from collections.abc import Callable, Iterable

from tests.faults.house import House, Rider
from tests.patience import until

MOST_STOP_S = 3.0
MOST_HANG_UP_S = 0.5


class Tally:
    """What one kind of fault did."""

    def __init__(self) -> None:
        self.rounds = self.lost = self.left = self.by_hand = 0
        self.took: list[float] = []
        self.said: list[str] = []

    def wrong(self, words: str) -> None:
        self.by_hand += 1
        self.said.append(words)


def back_by_itself(*words: str) -> Callable[[House, Rider, Tally], None]:
    """Kill one process of a running house: all is back without a start."""

    def fault(house: House, rider: Rider, tally: Tally) -> None:
        before = house.running(*words)
        house.kill(*words)
        began = time.monotonic()
        until(lambda: set(house.running(*words)) - set(before), f"{words} is not begun again")
        was = rider.acknowledged
        until(lambda: rider.acknowledged > was + 2, "no change is acknowledged any more")
        tally.took.append(time.monotonic() - began)

    return fault


def started_again(ending: signal.Signals) -> Callable[[House, Rider, Tally], None]:
    """End the whole of it, in the middle of a search, and start it again."""

    def fault(house: House, rider: Rider, tally: Tally) -> None:
        search = rider.search()
        search.until("proposal")
        status, took = house.end(ending)
        killed = ending == signal.SIGKILL
        if not killed and status != 0:
            tally.wrong(f"exit status {status}")
        if killed:
            began = time.monotonic()
            until(lambda: not house.running(), "something stayed behind")
            took = time.monotonic() - began
        elif house.running():
            tally.left += 1
        tally.took.append(took)
        if took > MOST_STOP_S:
            tally.wrong(f"took {took:.1f} s to end")
        search.close()
        house.start()
        tally.lost += search.kept()

    return fault


def killed_search(house: House, rider: Rider, tally: Tally) -> None:
    """Kill the worker: its search is taken up by the next and comes to its end."""
    search = rider.search(rounds=3)
    search.until("proposal")
    began = time.monotonic()
    house.kill("omnifer.jobs.worker")
    if not search.until("answer"):
        tally.wrong(f"the search did not come to its end: {search.heard[:300]}")
    tally.took.append(time.monotonic() - began)


def hung_up(house: House, rider: Rider, tally: Tally) -> None:
    """Hang up on a search: nothing runs on, nothing is kept."""
    search = rider.search()
    search.until("proposal")
    search.close()
    tally.took.append(until(lambda: not search.doers(), "the search runs on"))
    if tally.took[-1] > MOST_HANG_UP_S:
        tally.wrong(f"ran on for {tally.took[-1]:.2f} s")
    tally.lost += search.kept()


FAULTS = {
    "terminal closed (SIGHUP)": started_again(signal.SIGHUP),
    "Ctrl-C in a search (SIGINT)": started_again(signal.SIGINT),
    "told to end (SIGTERM)": started_again(signal.SIGTERM),
    "start killed while serving": started_again(signal.SIGKILL),
    "database killed": back_by_itself("postgres", "-D"),
    "web server killed": back_by_itself("gunicorn", "omnifer.wsgi:app"),
    "worker killed in a search": killed_search,
    "hung up on a search": hung_up,
}


def start_killed_early(rounds: int) -> Tally:
    """Kill a start of an empty folder at any moment of making the cluster and the tables; the next start just starts."""
    chance, tally = random.Random(7), Tally()
    for _ in range(rounds):
        house = House()
        house.start(wait=False)
        time.sleep(chance.uniform(0.5, 4.0))
        house.end(signal.SIGKILL)
        began = time.monotonic()
        try:
            house.start()
        except AssertionError as error:
            tally.wrong(str(error)[-200:])
        tally.took.append(time.monotonic() - began)
        tally.rounds += 1
        house.remove()
    return tally


def run(rounds: int, faults: Iterable[str] = FAULTS, pause_s: float = 0.0) -> dict[str, Tally]:
    """Faults, so many times each, while a rider makes one change after the other with so long a pause between."""
    tallies = {"start killed in initdb or migration": start_killed_early(rounds)}
    house = House()
    house.start()
    rider = Rider(house, pause_s)
    rider.begin()
    for name in faults:
        fault, tally = FAULTS[name], Tally()
        tallies[name] = tally
        for _ in range(rounds):
            try:
                fault(house, rider, tally)
            except AssertionError as error:
                tally.wrong(str(error)[:200])
            tally.lost += rider.lost()
            tally.rounds += 1
        print(f"{name}: {tally.rounds} times, {max(tally.took, default=0):.2f} s at most", flush=True)
    rider.rest()
    print(f"{rider.acknowledged} changes acknowledged, {rider.retries} tries repeated, {rider.stumbles} times 500")
    house.remove()
    return tallies


def main() -> int:
    tallies = run(int(sys.argv[1]) if len(sys.argv) > 1 else 10)
    print(f"{'fault':40} {'times':>5} {'lost':>5} {'left':>5} {'by hand':>8} {'median':>8} {'most':>8}")
    for name, t in tallies.items():
        took = sorted(t.took) or [0.0]
        print(f"{name:40} {t.rounds:5} {t.lost:5} {t.left:5} {t.by_hand:8} {took[len(took) // 2]:7.2f}s {took[-1]:7.2f}s")
        for words in dict.fromkeys(t.said):
            print(f"    {words}")
    return int(any(t.lost or t.left or t.by_hand for t in tallies.values()))


if __name__ == "__main__":
    sys.exit(main())
