"""Sheltered, seen, safe, and nothing forgotten: what nights, light, hazards, papers and other things ask for."""

from collections.abc import Iterator

import numpy as np

from omnifer.core.model.needs import Grade
from omnifer.core.model.quantities import Reach
from omnifer.core.model.road import HazardKind, Shelter
from omnifer.core.model.roles import Stove
from omnifer.core.needs.asking import Asking, Wanted
from omnifer.core.needs.worn import SHELLS
from omnifer.core.sentence import number, say

HAZARDS: tuple[tuple[HazardKind, tuple[str, ...], str, Grade, Reach | None], ...] = (
    ("bears", ("bear_spray",), "bears, or other large animals; what is carried follows local rules", "stops_you", "riding"),
    ("bears", ("food_rope",), "food is hung or shut away from where one sleeps", "slows_you", None),
    ("insects", ("insect_spray",), "insects", "worth_knowing", "stop"),
    ("insects", ("head_net",), "insects", "worth_knowing", "stop"),
    ("ticks", ("tweezers",), "ticks: look for them every evening", "slows_you", None),
    ("thorns", ("sealant", "plugs", "patches"), "thorns on the road", "slows_you", "stop"),
    ("dust", ("closed_glasses",), "dust", "worth_knowing", "riding"),
    ("theft", ("strong_lock", "lock"), "theft", "slows_you", "stop"),
    ("sun", ("sun_cream", "sun_sleeves"), "sun without shade", "slows_you", "riding"),
    ("no_signal", ("messenger",), "nobody can be called from there", "slows_you", "riding"),
)
"""What a stretch asks for, any of several, why, what its lack is, and in which reach; practice. In tunnels and traffic one
wants to be seen, at a border to have papers: see below."""
COMFORT: frozenset[str] = frozenset({"chair", "pillow", "game", "reader", "flask", "second_shoes", "lens", "laptop", "camera"})
"""Services that need no reason but that somebody likes them."""
CASH_PLACES = 3
"""Money lies in so many places, one of them on the body; practice."""
THIN_SHELL_KG = 0.2
"""A shell this light is thin [kg]; practice."""
AMONG_PEOPLE: frozenset[Shelter] = frozenset({"site", "hut", "room"})
"""Where others sleep too."""
COMPANIONS: tuple[tuple[str, str, str], ...] = (
    ("tent", "pegs", "a tent without pegs stands nowhere"),
    ("tent", "poles", "a tent without its poles is a cloth"),
    ("lock", "lock_key", "a lock without a second key is the next thing to be sawn through"),
    ("camera", "memory_card", "a camera without an empty card takes no picture"),
    ("camera", "data_copy", "pictures in one place are lost in one place"),
    ("tube", "pump", "a tube without a pump stays flat"),
    ("tube", "levers", "few tyres come off without levers"),
    ("spoke", "spoke_key", "a spoke without its key cannot be tightened"),
    ("chain_link", "chain_tool", "a broken chain wants its tool too"),
    ("rain_trousers", "shoe_covers", "rain runs down the trousers into the shoes"),
    ("pan", "pot", "a pan boils no water"),
)
"""What asks for what else, and why; practice."""
MINOR: frozenset[str] = frozenset({"lock_key", "data_copy", "memory_card", "shoe_covers"})
"""Of them those without which the tour goes on as it was."""


def sheltered(a: Asking) -> Iterator[Wanted]:
    """Something over one's head on every night out of doors."""
    nights = say("{n:night|nights} out of doors", n=number(a.outdoors.sum()))
    yield Wanted("warm", ("tent", "bivy", "tarp", "hammock"), a.outdoors, nights, "stops_you", night=True)  # fmt: skip
    wet = a.outdoors & (a.rain > 0)
    wet_ones = say("{n:wet night|wet nights} out of doors", n=number(wet.sum()))
    yield Wanted("warm", ("fly", "bivy", "tarp"), wet, wet_ones, "slows_you", night=True)  # fmt: skip


def seen(a: Asking) -> Iterator[Wanted]:
    """Lamps, reflectors and mirrors where it is dark or busy."""
    dark, tunnels, traffic = a.dark & a.riding, a.hazard("tunnels"), a.hazard("traffic")
    lit = dark | tunnels
    words = ["{dark:day begins or ends|days begin or end} in the dark"] * bool(dark.any())
    words += ["{tunnels:day has|days have} tunnels"] * bool(tunnels.any())
    why = say(", ".join(words), dark=number(dark.sum()), tunnels=number(tunnels.sum()))
    for bike in a.tour.rig.bikes:
        yield Wanted("seen", ("head_light",), lit, why, "stops_you", bike_id=bike.id, reach="riding")
        yield Wanted("seen", ("tail_light",), lit, why, "stops_you", bike_id=bike.id, reach="riding")
        yield Wanted("seen", ("mirror",), traffic, say("{n:day|days} on busy roads", n=number(traffic.sum())), "worth_knowing",
                     bike_id=bike.id)  # fmt: skip
    for rider in a.tour.riders:
        yield Wanted("seen", ("reflective",), lit | traffic, why, "slows_you", rider_id=rider.id, reach="stop")
        yield Wanted("seen", ("helmet",), a.riding, say("heads; the law differs by country"), "worth_knowing", rider_id=rider.id)
    if not (lit | traffic).any():
        for rider in a.tour.riders:
            yield Wanted("seen", ("reflective",), a.riding, say("something bright, seen from afar by day too"), "worth_knowing",
                         rider_id=rider.id)  # fmt: skip
    if not lit.any():
        for bike in a.tour.rig.bikes:
            yield Wanted("seen", ("tail_light",), a.riding, say("lit by day, on open roads and in rain"), "worth_knowing",
                         bike_id=bike.id)  # fmt: skip
    trailer = a.riding if any(s.trailer for b in a.tour.rig.bikes for s in b.supports) else a.riding & False
    yield Wanted("seen", ("flag",), trailer, say("a trailer is lower than drivers look"), "worth_knowing")
    yield Wanted("seen", ("torch",), a.outdoors, say("{n:evening|evenings} in camp", n=number(a.outdoors.sum())), "slows_you")


def safe(a: Asking) -> Iterator[Wanted]:
    """First aid, papers, money, and what hazards ask for until they end."""
    every = a.every_day
    yield Wanted("safe", ("first_aid",), every, say("on top, and everybody knows where"), "stops_you", reach="stop")
    for kind, serves, why, grade, reach in HAZARDS:
        yield Wanted("safe", serves, a.hazard(kind), say(why), grade, reach=reach)
    border = a.hazard("border")
    for rider in a.tour.riders:
        yield Wanted("safe", ("passport",), border, say("a border"), "stops_you", rider_id=rider.id)
        yield Wanted("safe", ("emergency_card",), every, say("whom to call, blood, allergies"), "worth_knowing",
                     rider_id=rider.id)  # fmt: skip
        yield Wanted("safe", ("blanket",), a.outdoors, say("a night that was not planned"), "worth_knowing", rider_id=rider.id)
    yield Wanted("safe", ("copies",), every, say("apart from the papers"), "worth_knowing")
    yield Wanted(
        "safe", ("cash",), every, say("in {n:place|places}, one of them on the body", n=number(CASH_PLACES)), "worth_knowing",
        count=CASH_PLACES,
    )  # fmt: skip
    yield _locked(a)


def _locked(a: Asking) -> Wanted:
    """A lock where nobody watches the bikes: one rider alone in every shop, all of them asleep among others."""
    shops = a.shops_passed
    beside = np.array([any(stop.shelter in AMONG_PEOPLE for stop in stops) for stops in a.night_stops])
    alone = len(a.tour.riders) == 1
    words = ["{shops:visit to a shop|visits to shops} with nobody at the bike"] * bool(alone and shops.any())
    words += ["{nights:night|nights} asleep beside others"] * bool(beside.any())
    taking_turns = say("in shops one of you can stay with the bikes")
    why = say(", ".join(words), shops=number(shops.sum()), nights=number(beside.sum())) if words else taking_turns
    grade: Grade = "slows_you" if words else "worth_knowing"
    return Wanted("safe", ("lock", "strong_lock"), (shops > 0) | beside, why, grade, reach="stop")


def companions(a: Asking) -> Iterator[Wanted]:
    """What belongs to something that comes along, and what washing and cooking by hand ask for."""
    for has, lacks, why in COMPANIONS:
        if a.serving(has):
            yield Wanted("complete", (lacks,), a.every_day, say(why), "worth_knowing" if lacks in MINOR else "slows_you")
    if any(isinstance(t.role, Stove) for t in a.tour.kit):
        yield Wanted("complete", ("pot",), a.every_day, say("a stove heats a pot"), "slows_you")
        yield Wanted("complete", ("knife",), a.every_day, say("bread, cheese and cord"), "worth_knowing")
        for rider in a.tour.riders:
            yield Wanted("complete", ("spoon",), a.every_day, say("one eats with it"), "worth_knowing", rider_id=rider.id)
            yield Wanted("complete", ("mug",), a.every_day, say("one drinks and measures with it"), "worth_knowing",
                         rider_id=rider.id)  # fmt: skip
    thin = any(t.mass_kg <= THIN_SHELL_KG for t in a.serving(*SHELLS))
    torn = a.hazard("thorns") if thin else a.riding & False
    yield Wanted("complete", ("mat_patches", "binding"), torn, say("a thin shell tears on thorns: a patch or tape holds it"),
                 "worth_knowing")  # fmt: skip
    if a.tour.stores.wash_every_days is not None and a.outdoors.any():
        yield Wanted("complete", ("washing_line",), a.every_day, say("clothes are washed by hand"), "worth_knowing")
    for rider in a.tour.riders if a.outdoors.any() else ():
        yield Wanted("complete", ("towel",), a.every_day, say("washed"), "worth_knowing", rider_id=rider.id)
    yield Wanted("complete", ("strap",), a.every_day, say("one lost strap stops a bag"), "worth_knowing")
    yield Wanted("complete", ("binding",), a.every_day, say("tape, ties and wire hold what breaks"), "worth_knowing")
