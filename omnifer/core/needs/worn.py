"""Warm and dry on the bike and in the evening: layers by what is felt, rain by its chance and cold."""

from collections.abc import Iterator

import numpy as np

from omnifer.core.model.needs import Grade, Layers, LayersDay
from omnifer.core.needs import is_mine
from omnifer.core.needs.asking import Asking, Days, Wanted
from omnifer.core.needs.clothes import nights_to_dry
from omnifer.core.physics.cold import LONGEST_H, bearable_hours, required_clo
from omnifer.core.sentence import celsius, number, say, share

DRY_FEET = ("shoe_covers", "proof_socks")
"""Covers keep shoes dry, socks only the feet in wet ones: both schools; practice."""
RIDING: tuple[tuple[float, tuple[str, ...], Grade], ...] = (
    (20, ("arm_covers", "wind_shell", "fleece", "light_shell", "rain_jacket"), "worth_knowing"),
    (12, ("wind_shell", "light_shell", "rain_jacket", "rain_cape"), "slows_you"),
    (12, ("gloves", "warm_gloves", "proof_gloves"), "slows_you"),
    (5, ("warm_gloves",), "slows_you"),
    (5, ("cap", "neck_tube"), "slows_you"),
    (5, DRY_FEET, "slows_you"),
)
"""Felt colder than this [°C], one of these is worn; practice: stiff fingers are slow at the levers."""
HANDS_AND_FEET = frozenset({"gloves", "warm_gloves", "proof_gloves", *DRY_FEET})
WARM_HANDS = ("warm_gloves", "proof_gloves")
DEEP_C = -15.0
"""Felt colder than this, damp gloves freeze and a second pair is worn in turn [°C]; practice."""
EVENING_C = 12.0
"""Evenings colder than this want an insulated jacket, in summer too [°C]; practice."""
FROSTY_C = 5.0
"""Evenings colder than this want a layer under it [°C]; practice."""
SPRAY_C = 15.0
"""Below this air spray from the wheels chills feet [°C]; practice."""
SHOWERS, WET, WET_COLD_C, WARM_C = 0.1, 0.3, 10.0, 20.0
"""Chance of rain from which one carries a light shell, from which a whole suit, below which air a whole suit at any chance of
rain, and above which air rain is only wet [-, -, °C, °C]; practice."""
SOAKED_C, SOME_DAY = 3.0, 0.5
"""Felt colder than this on a descent, whoever is wet to the skin cannot hold the brakes for long; and the chance of it from which
legs and hands are kept dry whatever it weighs [°C, -]; practice."""
CLO = {
    "arm_covers": 0.05, "leg_covers": 0.1, "wind_shell": 0.15, "fleece": 0.3, "warm_jacket": 0.6, "rain_jacket": 0.2,
    "light_shell": 0.15, "rain_trousers": 0.15, "off_bike": 0.3, "nightwear": 0.2, "cap": 0.08, "gloves": 0.05,
    "warm_gloves": 0.08, "neck_tube": 0.03, "shoe_covers": 0.04,
}  # fmt: skip
"""Insulation that a piece adds [clo]; practice, within the ranges of ISO 9920 for such garments, from memory."""
RIDING_CLO = 0.4
"""Of what is worn riding in summer [clo]; practice."""
BLOWN_THROUGH, SHELLS = frozenset({"fleece", "arm_covers"}), ("wind_shell", "light_shell", "rain_jacket", "rain_cape")
"""Layers that wind goes through, and what is worn over them against it on the bike."""
OVER_WOOL = (*SHELLS, "warm_jacket")
"""The same in the evening: an insulated jacket keeps wind out too."""
IN_WIND, DAMP_DOWN = 0.5, 0.6
"""Of their insulation, what such layers keep with no shell over them, and what down keeps that became damp on a wet day [-];
practice: wet down loses nearly all, moist down a third to a half."""
GLOVES_DRY_H = 14.0
"""Warm or proof gloves dry so long in still air at 20 °C, half saturated [h]; practice."""
DAMP_DAYS = 2
"""Wet cold days in a row from which gloves that are still wet want a second pair [d]; practice."""
EVENING_MET, EVENING_AIR_MS = 1.4, 0.4
"""Cooking and pitching, in the lee [met, m/s]."""


def wanted(a: Asking) -> Iterator[Wanted]:
    """What is worn against cold and rain, each rider's by themselves."""
    for rider in a.tour.riders:
        for below_c, serves, grade in RIDING:
            sooner = a.tour.practice.cold_hands_k if rider.cold_hands and HANDS_AND_FEET & set(serves) else 0.0
            cold = a.riding & (a.felt_c < below_c + sooner)
            yield Wanted(
                "dressed", serves, cold,
                say("felt {felt} in the coldest hour or on the longest descent", felt=celsius(_least(a.felt_c, cold))),
                grade, rider.id,
            )  # fmt: skip
        deep = a.riding & (a.felt_c < DEEP_C)
        if deep.any() and _has_gloves(a, rider.id):
            yield Wanted("dressed", WARM_HANDS, deep, say("felt {felt}: a second pair that is dry", felt=celsius(
                _least(a.felt_c, deep))), "slows_you", rider.id, count=2, second=True)  # fmt: skip
        evening = a.outdoors & (a.evening_c < EVENING_C)
        yield Wanted(
            "dressed", ("warm_jacket",), evening,
            say("{n:evening|evenings} out of doors, down to {air}", n=number(evening.sum()),
                air=celsius(_least(a.evening_c, evening))),
            "slows_you", rider.id, night=True,
        )  # fmt: skip
        frosty = a.outdoors & (a.evening_c < FROSTY_C)
        yield Wanted(
            "dressed", ("fleece",), frosty,
            say("{n:evening|evenings} down to {air}: a layer under the jacket", n=number(frosty.sum()),
                air=celsius(_least(a.evening_c, frosty))),
            "worth_knowing", rider.id, night=True,
        )  # fmt: skip
        yield from _rain(a, rider.id)
        yield Wanted(
            "dressed", ("off_bike",), a.every_day, say("off the bike, and while all else is washed"), "worth_knowing", rider.id
        )  # fmt: skip
        clips = a.riding if any(b.rider_id == rider.id and b.pedals == "clip_in" for b in a.tour.rig.bikes) else a.riding & False
        yield Wanted("dressed", ("second_shoes",), clips, say("shoes that clip in are for riding"), "worth_knowing", rider.id)


def _rain(a: Asking, rider_id: str) -> Iterator[Wanted]:
    chilling = (a.rain >= SHOWERS) & (a.usual_c < WET_COLD_C)
    suit = a.riding & (chilling | ((a.rain > WET) & (a.usual_c < WARM_C)))
    any_rain = a.riding & (a.rain >= SHOWERS)
    because = say("rain on up to {p} of the days", p=share(float(a.rain.max(initial=0.0))))
    yield Wanted("dressed", ("rain_jacket", "rain_cape"), suit, because, "slows_you", rider_id)
    yield Wanted("dressed", ("light_shell", "rain_jacket", "rain_cape"), any_rain & ~suit, because, "worth_knowing", rider_id)
    chilled = a.riding & (a.rain >= SHOWERS) & (a.soaked_c < SOAKED_C)
    some_day = 1 - float(np.prod(1 - a.rain[chilled]))
    soaked = say("{n:day|days} with a long descent that feels like {felt} wet through, {p} that it rains on one of them",
                 n=number(chilled.sum()), felt=celsius(_least(a.soaked_c, chilled)), p=share(some_day))  # fmt: skip
    likely = some_day >= SOME_DAY
    yield Wanted("dressed", ("rain_trousers", "rain_cape"), suit | chilled if likely else suit, soaked if likely else because,
                 "stops_you" if likely else "worth_knowing", rider_id)  # fmt: skip
    bare = any(b.rider_id == rider_id and not b.mudguards for b in a.tour.rig.bikes)
    spray = any_rain & (a.usual_c < SPRAY_C) & bare
    yield Wanted("dressed", DRY_FEET, spray, say("no mudguards: spray from the wheels"), "worth_knowing", rider_id)
    cold = a.riding & chilling
    words = say("rain at {air}: soaked gloves and shoes cool far faster than dry ones", air=celsius(_least(a.usual_c, cold)))
    yield Wanted("dressed", DRY_FEET, cold, words, "slows_you", rider_id)
    yield Wanted("dressed", ("proof_gloves",), cold | chilled if likely else cold, soaked if likely else words,
                 "stops_you" if likely else "slows_you", rider_id)  # fmt: skip
    yield from _dry_gloves(a, rider_id, a.riding & (a.rain > WET) & (a.usual_c < WET_COLD_C))


def _dry_gloves(a: Asking, rider_id: str, wet: Days) -> Iterator[Wanted]:
    """A second pair where the first hangs wet overnight and is put on wet again."""
    if not _has_gloves(a, rider_id):
        return
    slow = np.array([nights_to_dry(GLOVES_DRY_H, day) > 1 for day in a.days])
    row, again = 0, np.zeros(len(a.days), dtype=bool)
    for day, still_wet in enumerate((wet & slow).tolist()):
        row = row + 1 if still_wet else 0
        again[day] = row >= DAMP_DAYS
    yield Wanted(
        "dressed", WARM_HANDS, again,
        say("{n:day|days} after a wet one, in air in which gloves do not dry overnight: a second pair", n=number(again.sum())),
        "worth_knowing", rider_id, count=2, second=True,
    )  # fmt: skip


def _has_gloves(a: Asking, rider_id: str) -> bool:
    """Whether there is a first pair; without one that is asked for, and no second."""
    return any(is_mine(a.tour, t, rider_id) for t in a.serving(*WARM_HANDS))


def _least(figures: np.ndarray, days: np.ndarray) -> float:
    return float(figures[days].min()) if days.any() else 0.0


def evening_clo(air_c: float, humidity_pct: float) -> float:
    """Clothing in which an evening of pitching and cooking is borne without end [clo]."""
    return float(required_clo(air_c, EVENING_MET, EVENING_AIR_MS, humidity_pct))


def _there(a: Asking, rider_id: str, *services: str) -> Days:
    """Evenings on which a rider has one of these."""
    mine = [t for t in a.serving(*services) if is_mine(a.tour, t, rider_id)]
    return np.asarray(np.any([a.there(t, night=True) for t in mine], axis=0)) if mine else a.every_day & False


def layers_of(a: Asking) -> list[Layers]:
    """Every rider's days against the cold; empty where nobody says of anything that it is worn against it."""
    if not a.serving(*CLO):
        return []
    humid = np.array([day.humidity_pct for day in a.days])
    found = []
    for rider in a.tour.riders:
        clo = np.full(len(a.days), RIDING_CLO)
        sheltered = _there(a, rider.id, *OVER_WOOL)
        for service, adds in CLO.items():
            keeps = np.where(sheltered, 1.0, IN_WIND) if service in BLOWN_THROUGH else 1.0
            if service == "warm_jacket" and all("down" in t.natures for t in a.serving(service)):
                keeps = np.where(a.rain > WET, DAMP_DOWN, 1.0)
            clo += adds * keeps * _there(a, rider.id, service)
        hours = bearable_hours(a.evening_c, clo, EVENING_MET, EVENING_AIR_MS, humid)
        days = [
            LayersDay(day=d.number, felt_c=round(felt, 1), evening_c=round(air, 1), worn_clo=round(worn, 2), bears_h=round(h, 2))
            for d, felt, air, worn, h in zip(
                a.days, a.felt_c.tolist(), a.evening_c.tolist(), clo.tolist(), hours.tolist(), strict=True
            )
        ]
        found.append(Layers(rider_id=rider.id, levels_c=sorted({c for c, *_ in RIDING}), longest_h=LONGEST_H, days=days))
    return found
