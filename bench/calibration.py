"""Whether what is told with chances comes out so often: learned rates, the weigh-in and the weather's odds over simulated truths.

    python -m bench.calibration [--diaries 200] [--weighings 300]

Exits with 1 where an interval told at nine in ten covers less than 82 of a hundred truths, a cause that can be told
from the others is not among the first two in seven of ten weigh-ins, or more than one weigh-in in twenty is called wrong that is
right.
"""

import argparse
import sys

import numpy as np

from omnifer.core.assess import assess, profile_of
from omnifer.core.diary.journal import Journal
from omnifer.core.diary.now import replan
from omnifer.core.diary.rates import rates_of
from omnifer.core.model.load import Load, Placement
from omnifer.core.model.road import DayCut
from omnifer.core.model.roles import UsedUp
from omnifer.core.pack.weigh import weigh_in
from omnifer.core.physics.weather import coldest_of, exceeded
from tests.conftest import small_tour, thing
from tests.core.test_diary import straight_tour, told

RATES, FACTORS, DAYS, DAY_KM, CAN = (0.2, 1.0), (0.6, 1.0, 1.6), 40, 15.0, 4
LEAST = 82  # 85 less what 200 diaries leave to chance
NOISE_KG, TELLING_KG, FIRST_TWO, FALSE_ALARMS = 0.05, 0.4, 70, 5


def learned(diaries: int, chance: np.random.Generator) -> list[tuple[float, float, str, float]]:
    """Share of diaries whose interval holds the true rate, by rate, factor and way of noting [%]."""
    rows = []
    for rate in RATES:
        wipes = thing("wipes", 0.05, 0.3, role=UsedUp(unit="pieces", holds=400, content_kg=0.2, rate=rate, sold_at="full"))
        tour = straight_tour(wipes)
        tour = tour.model_copy(update={"road": tour.road.model_copy(update={"cut": DayCut(by="distance", distance_km=DAY_KM)})})
        road = profile_of(tour)
        plan = assess(tour, road)
        ends = [told("set_out", hour=6, km=0), told("arrived", day=DAYS, hour=18)]
        made = replan(tour, plan, road, Journal.of(ends))
        for factor in FACTORS:
            for way in ("every use", "containers of 4 as they empty"):
                held = noted = 0
                for _ in range(diaries):
                    used = np.cumsum(chance.poisson(rate * factor, DAYS))
                    lumps = used if way == "every use" else used // CAN * CAN
                    amounts = np.diff(lumps, prepend=0)
                    notes = [
                        told("used", day=d + 1, about="wipes", amount=float(a), km=DAY_KM * d) for d, a in enumerate(amounts) if a
                    ]
                    found = {r.key: r for r in rates_of(tour, plan, made, Journal.of([*ends, *notes]))}.get("wipes")
                    if found is not None:
                        noted += 1
                        held += found.low <= rate * factor <= found.high
                rows.append((rate, factor, way, 100 * held / max(noted, 1)))
    return rows


def weighed(rounds: int, chance: np.random.Generator) -> tuple[float, float]:
    """How often the true cause is among the first two, where it weighs enough to be told, and how often all is well and is not
    said to be [%]."""
    extras = {"book": 0.45, "camera": 0.9, "lock": 1.4, "chair": 2.1}
    kit = (thing("tent", 1.8, 7), thing("mat", 0.5, 3), thing("bottle", 0.1, 1, holds_water_l=0.75), thing("clothes", 1.2, 4),
           *(thing(name, kg, 1) for name, kg in extras.items()))  # fmt: skip
    where = {"tent": "left", "mat": "right", "bottle": "box", "clothes": "right"}
    tour = small_tour(*kit, load=Load(placements=tuple(Placement(thing_id=t, carrier_id=c) for t, c in where.items())))
    found = assess(tour, None)
    trace = found.bikes[0]
    front, rear = trace.front_kg[0], trace.rear_kg[0]
    centres = {"left": 0.1, "right": 0.1, "box": 0.95}
    first = asked = alarms = 0
    for _ in range(rounds):
        cause = chance.choice(["none", *extras])
        share = centres[str(chance.choice(list(centres)))]
        more = extras.get(str(cause), 0.0)
        seen = front + more * share + chance.normal(0, NOISE_KG), rear + more * (1 - share) + chance.normal(0, NOISE_KG)
        notes = [told("weighed", about="touring", word=word, amount=float(kg))
                 for word, kg in zip(("front_wheel", "rear_wheel"), seen, strict=True)]  # fmt: skip
        missing = weigh_in(tour, found, Journal.of(notes)).missing
        whole = next(line for line in weigh_in(tour, found, Journal.of(notes)).lines if line.weighed == "whole")
        if cause == "none":
            alarms += whole.told != "same"
        elif more >= TELLING_KG:
            asked += 1
            told_first = [c.about for m in missing for c in (*m.causes, *m.others)][:2]
            first += str(cause) in told_first
    calm = rounds - asked
    return 100 * first / max(asked, 1), 100 * alarms / max(calm, 1)


def odds(chance: np.random.Generator) -> tuple[float, float]:
    """How often a night is colder than its own odds of one in ten say, and the coldest of 30 than theirs [%]."""
    nights = chance.normal(8, 4, (20_000, 30))
    single = nights < float(exceeded(np.array(8.0), np.array(-4.0), 0.1))
    whole = nights.min(axis=1) < coldest_of(np.full(30, 8.0), np.full(30, 4.0), 0.1)
    return 100 * float(single.mean()), 100 * float(whole.mean())


def main() -> int:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--diaries", type=int, default=200)
    arguments.add_argument("--weighings", type=int, default=300)
    given = arguments.parse_args()
    chance = np.random.default_rng(11)
    good = True
    for rate, factor, way, held in learned(given.diaries, chance):
        good &= LEAST <= held <= 100
        print(f"rate {rate:g} a day, used {factor:g} times that, noting {way}: nine in ten holds the truth in {held:.0f} %")
    first, alarms = weighed(given.weighings, chance)
    good &= first >= FIRST_TWO and alarms <= FALSE_ALARMS
    print(f"weigh-in: the true cause is among the first two in {first:.0f} % (bar {FIRST_TWO})")
    print(f"weigh-in: {alarms:.1f} % false alarms (bar {FALSE_ALARMS})")
    single, coldest = odds(chance)
    good &= 9 <= single <= 11 and 9 <= coldest <= 11
    print(f"weather: a night is colder than its odds of 10 % in {single:.1f} %, the coldest of 30 in {coldest:.1f} %")
    return 0 if good else 1


if __name__ == "__main__":
    sys.exit(main())
