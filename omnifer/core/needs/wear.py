"""What wears with the road rather than breaks by chance: tyres, chains, pads, cables and bearings, by mass, slope, rain, ground.

References
----------
Conditional Weibull for parts that wear; lives of loaded touring are common practice and wide (pads 1000 to 5000 km, in wet
mountains a third of it; chains 3000 to 6000 km, in wet grit half of it; rear tyres 3000 to 9000 km).
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from math import gamma

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.needs import WornPart
from omnifer.core.model.part import PartKind
from omnifer.core.model.practice import Practice
from omnifer.core.model.rig import Bike
from omnifer.core.model.road import Stop, Surface
from omnifer.core.needs.asking import Asking
from omnifer.core.needs.fitting import misfit_of
from omnifer.core.physics.spares import wearing_out

USUAL_DESCENT_M, USUAL_KG, LEVEL_PART = 10.0, 110.0, 0.3
"""Of a usual kilometre: height ridden down, mass of rider and bike, and the part of the wear that comes on the level too [m, kg,
-]; practice."""
BEHIND = {"serviced": 0.0, "usual": 1 / 3, "worn": 2 / 3}
"""How much of its life a part has behind it at the start, by the state of the bike [-]; practice."""
SHAPE = 3.0
"""Of the Weibull distribution of what wears [-]."""
MEAN = gamma(1 + 1 / SHAPE)
"""A mean life over the characteristic one [-]."""
MUCH_WEAR = 0.5
"""A tour that takes such a part of a pair's life is begun with new pads [-]; practice."""
Days = NDArray[np.float64]


@dataclass(frozen=True)
class Wears:
    """A kind of part: how long it lasts, and what on the road shortens that. All factors are practice, no source."""

    kind: PartKind
    words: str
    life_km: Callable[[Practice], float]
    """On usual road [km]."""
    rain: float = 0.0
    """So much more on a wet day [-]."""
    loose: float = 0.0
    """So much more on gravel [-]."""
    soft: float = 0.0
    """So much more in sand and mud [-]."""
    laden: bool = False
    """More under more mass."""
    braked: bool = False
    """By what is ridden down rather than by what is ridden."""
    serviced: bool = False
    """A service before the tour renews it."""
    serves: str = ""
    """What a spare of it serves; empty: nobody carries one."""
    stops: bool = False
    """Without it the ride ends."""
    applies: Callable[[Bike], bool] = lambda bike: True


WORN: tuple[Wears, ...] = (
    Wears("rear_tyre", "rear tyre", lambda u: u.rear_tyre_km, loose=0.3, soft=0.2, laden=True, serves="tyre", stops=True),
    Wears("front_tyre", "front tyre", lambda u: u.front_tyre_km, loose=0.3, soft=0.2, laden=True, serves="tyre", stops=True),
    Wears("chain", "chain", lambda u: u.chain_km, rain=1.0, loose=0.25, soft=1.0, serviced=True),
    Wears("sprockets", "sprockets", lambda u: u.sprockets_km, rain=1.0, loose=0.25, soft=1.0,
          applies=lambda b: b.low_hub_ratio == 1),
    Wears("pads", "brake pads", lambda u: pads_life_km(u.pads_per_1000_km * u.pad_times), rain=1.0, laden=True, braked=True,
          serviced=True, serves="pads", stops=True, applies=lambda b: b.brakes != "hub"),
    Wears("cables", "cables", lambda u: u.cables_km, rain=0.5, soft=0.5, serviced=True, serves="cable",
          applies=lambda b: not b.hoses or b.speeds > 1),
    Wears("bearings", "hubs and bottom bracket", lambda u: u.bearings_km, rain=0.5, soft=0.5, serviced=True),
    Wears("bar_tape", "bar tape or grips", lambda u: u.bar_tape_km, rain=0.2),
)  # fmt: skip
BY_KIND = {row.kind: row for row in WORN}


def pads_life_km(per_1000_km: float) -> float:
    """A pair's mean life, in usual kilometres, of how many are worn down on a thousand [km]."""
    return 1000 / max(per_1000_km, 0.001)


def worn_by(a: Asking, bike: Bike, row: Wears) -> Days:
    """What each day wears a part by, in kilometres of usual road, shape (days,) [km]."""
    ridden = np.array([day.distance_km for day in a.days])
    if row.braked:
        down = np.array([day.descent_m for day in a.days]) / USUAL_DESCENT_M
        ridden = LEVEL_PART * ridden + (1 - LEVEL_PART) * down
    ground = 1 + row.loose * part_on(a, "gravel") + row.soft * part_on(a, "soft")
    return np.asarray(ridden * (_laden(a, bike) if row.laden else 1.0) * (1 + row.rain * a.rain) * ground)


def part_on(a: Asking, surface: Surface) -> Days:
    """Part of each day's road on a kind of ground, shape (days,) [-]."""
    on = np.zeros(len(a.days))
    for ground in a.tour.road.surfaces:
        if ground.surface == surface:
            on += np.clip(np.minimum(ground.to_km, a.end_km) - np.maximum(ground.from_km, a.start_km), 0, None)
    return np.asarray(on / np.maximum(a.end_km - a.start_km, 1e-6)).clip(0, 1)


def _laden(a: Asking, bike: Bike) -> float:
    """Mass of rider and bike over the usual one [-]."""
    rider = next(k for k, r in enumerate(a.tour.riders) if r.id == bike.rider_id)
    riding = a.voyage.riding[rider]
    mass = riding.dry_kg + riding.stores_part * float(np.mean(a.voyage.stores_kg))
    return float(np.mean(mass)) / USUAL_KG


def life_of(bike: Bike, row: Wears, usual: Practice) -> float:
    """How long a part lasts on usual road, as its rider says or as usual [km]."""
    return bike.part(row.kind).lasts_km or row.life_km(usual)


def behind_of(bike: Bike, row: Wears, usual: Practice) -> float:
    """What a part has behind it at the start: as its rider says, or by the state of the bike [km]."""
    said = bike.part(row.kind).behind_km
    if said is not None:
        return said
    state = "usual" if bike.state == "serviced" and not row.serviced else bike.state
    return BEHIND[state] * life_of(bike, row, usual)


def renewals(used: float, ahead: float, life: float) -> float:
    """How often a part is expected to be renewed: its wearing out once, and each whole life after that [-].

    Parameters
    ----------
    used, ahead, life : float
        Behind it, before it, and its mean life, all in the same measure.
    """
    return wearing_out(used, min(ahead, life), life / MEAN, SHAPE) + max(ahead - life, 0.0) / life


def worn_parts(a: Asking) -> list[WornPart]:
    """Every part of every bike that wears, and where on the road it will be worn out; empty without a road."""
    return [_worn(a, bike, row) for bike in a.tour.rig.bikes for row in WORN if row.applies(bike)]


def _worn(a: Asking, bike: Bike, row: Wears) -> WornPart:
    usual, part = a.tour.practice, bike.part(row.kind)
    life, behind = life_of(bike, row, usual), behind_of(bike, row, usual)
    km = np.append(a.start_km[:1], a.end_km)
    worn = np.append(0.0, np.cumsum(worn_by(a, bike, row)))
    length, takes = float(km[-1]), float(worn[-1])
    at = part.renewed_km if part.renewed_km is not None and part.renewed_km < length else None
    before = float(np.interp(at, km, worn)) if at is not None else takes
    ends = _where(km, worn, life - behind) if life - behind < before else None
    if ends is None and at is not None and before + life < takes:
        ends = _where(km, worn, before + life)
    day = None if ends is None else min(int(np.searchsorted(a.end_km, ends)), len(a.days) - 1)
    spare = [] if day is None or not row.serves else [
        t.id for t in a.serving(row.serves) if a.there(t)[day] and not misfit_of(row.serves, t, bike)
    ]  # fmt: skip
    shops = [] if ends is None else list(selling(a, ends))
    return WornPart(
        bike_id=bike.id, kind=row.kind, words=row.words, behind_km=round(behind, 1), said=part.behind_km is not None,
        life_km=round(life, 1), takes_km=round(takes, 1),
        chance=round(wearing_out(behind, min(before, life), life / MEAN, SHAPE), 4),
        ends_km=None if ends is None else round(ends, 2), ends_day=None if day is None else a.days[day].number,
        sold_at=shops[-1].id if shops else None, renewed_km=at, spare=spare, stops=row.stops,
        state="lasts" if ends is None and at is None else "renewed" if ends is None else "spare" if spare else "ends",
    )  # fmt: skip


def _where(km: Days, worn: Days, at: float) -> float:
    """Where on the road so much is worn off [km]."""
    return float(np.interp(max(at, 0.0), worn, km))


def selling(a: Asking, before_km: float) -> Iterator[Stop]:
    """Bike shops that sell such parts on the way there, in road order."""
    shops = (stop for stop in a.voyage.ride.stops() if stop.bike_shop == "full" and stop.at_km <= before_km)
    yield from sorted(shops, key=lambda stop: stop.at_km)
