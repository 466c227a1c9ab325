"""What a body needs to go on: skin, seat, eyes, hands, salts and teeth, each asked by what the road and its weather do to it."""

from collections.abc import Iterator

import numpy as np

from omnifer.core.model.needs import Grade
from omnifer.core.needs.asking import Asking, Wanted
from omnifer.core.needs.wear import Days
from omnifer.core.physics import sun
from omnifer.core.sentence import celsius, hours, litres, number, say

HABITS = frozenset({"hand_clean", "tooth_care", "salts", "glasses", "lip_block", "saddle_cream"})
"""Small things of everyday care: what of them lacks is one trouble."""
BURNS = 8.0
"""A UV index from which bare skin burns within minutes; WHO 2002, from memory."""
SEAT_DAYS, NIGHTS = 4, 2
"""After so many long days the seat suffers; on a tour of so many nights teeth are brushed [d]; practice."""
WET, WET_TIMES = 0.3, 0.8
"""A chance of rain from which a shorter day chafes as a long one does, and how much shorter [-]; practice."""
COOL_C = 25.0
"""Warmer than this medicine that is kept cool suffers [°C]; practice, and its leaflet counts."""
LIPS_C = 8.0
"""Felt colder than this wind cracks lips [°C]; practice."""


def uv_of(a: Asking) -> Days:
    """Each day's UV index at noon under a clear sky, at its highest place, shape (days,); 0 where no place is known [-]."""
    usual, found = a.tour.practice, np.zeros(len(a.days))
    for n, day in enumerate(a.days):
        place = a.voyage.profile.position_at((day.from_km + day.to_km) / 2)
        if place is not None:
            sine = sun.height_sine(place[0], sun.declination(day.date), 12.0)
            found[n] = float(sun.uv_index(sine, usual.ozone_du, day.highest_m, usual.uv_per_km))
    return found


def wanted(a: Asking) -> Iterator[Wanted]:
    """What a body asks for, with the days on which it is."""
    yield from _skin(a)
    yield from _seat(a)
    yield from _eyes(a)
    drunk = a.voyage.between(a.voyage.supplies["water"].demand.along, np.append(a.start_km[:1], a.end_km)) / len(a.tour.riders)
    sweating = a.riding & (drunk >= a.tour.practice.sweat_l)
    words = "up to {water} drunk riding on {n:day|days}: plain water alone is a danger then"
    yield Wanted("safe", ("salts",), sweating, say(words, water=litres(float(drunk.max(initial=0.0))), n=number(sweating.sum())),
                 "worth_knowing")  # fmt: skip
    yield Wanted("safe", ("hand_clean", "soap"), a.every_day if len(a.days) > 1 else a.riding & False,
                 say("before food, against bad stomachs"), "worth_knowing")  # fmt: skip
    evenings = a.every_day if len(a.days) > NIGHTS else a.riding & False
    yield Wanted("safe", ("tooth_care", "soap"), evenings, say("teeth, every evening"), "worth_knowing")
    cool = any("cool" in thing.natures for thing in a.tour.kit)
    hot = np.array([day.mean_max_c > COOL_C for day in a.days]) if cool else a.riding & False
    warmest = max(day.mean_max_c for day in a.days)
    yield Wanted("safe", ("cool_pouch",), hot, say("own medicine is kept cool, and days reach {hot}; its leaflet counts",
                                                   hot=celsius(warmest)), "slows_you")  # fmt: skip


def _skin(a: Asking) -> Iterator[Wanted]:
    uv = uv_of(a)
    burning = a.riding & (uv >= a.tour.practice.uv_protects)
    grade: Grade = "slows_you" if uv.max(initial=0.0) >= BURNS else "worth_knowing"
    words = say("UV index up to {uv} at noon under a clear sky, on {n:day|days}", uv=number(round(float(uv.max(initial=0.0)))),
                n=number(burning.sum()))  # fmt: skip
    yield Wanted("safe", ("sun_cream", "sun_sleeves"), burning, words, grade, reach="stop")
    lips = burning | (a.riding & (a.felt_c < LIPS_C))
    for rider in a.tour.riders:
        yield Wanted("safe", ("lip_block",), lips, say("sun, cold and wind"), "worth_knowing", rider.id)


def _seat(a: Asking) -> Iterator[Wanted]:
    usual = a.tour.practice.seat_hours
    ridden = np.array([day.riding_hours for day in a.days])
    long = a.riding & ((ridden >= usual) | ((ridden >= WET_TIMES * usual) & (a.rain >= WET)))
    enough = long if long.sum() >= SEAT_DAYS else long & False
    words = "{n:day|days} of some {long} and more in the saddle: clean skin, clean and dry shorts, cream before it hurts"
    yield Wanted("safe", ("saddle_cream",), enough, say(words, n=number(long.sum()), long=hours(usual)), "worth_knowing")


def _eyes(a: Asking) -> Iterator[Wanted]:
    fast = a.riding & (np.array([day.wind_chill_c is not None for day in a.days]) | a.hazard("dust", "insects"))
    for rider in a.tour.riders:
        yield Wanted("safe", ("glasses", "closed_glasses"), fast, say("long descents, dust and flies"), "worth_knowing", rider.id)
        if rider.weak_eyes:
            yield Wanted("safe", ("lenses",), a.every_day, say("sees little without them"), "slows_you", rider.id)
