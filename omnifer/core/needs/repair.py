"""Can you mend it: each fault, its tool, its part, whether both fit this bike, and whether somebody can do it."""

from collections.abc import Callable
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from omnifer.core.model.kit import Thing
from omnifer.core.model.needs import CellState, Fault
from omnifer.core.model.practice import Practice
from omnifer.core.model.quantities import Text
from omnifer.core.model.rig import Bike
from omnifer.core.model.roles import Mat, Stove
from omnifer.core.model.serves import SERVICES
from omnifer.core.needs import fitting
from omnifer.core.needs.asking import Asking
from omnifer.core.needs.wear import BY_KIND, behind_of, life_of, renewals, worn_by
from omnifer.core.physics.spares import CLUSTERED, spares_wanted
from omnifer.core.physics.tyres import strokes
from omnifer.core.sentence import bar as bar_of
from omnifer.core.sentence import minutes, number, say

RISKS = {"stops": 0.05, "slows": 0.1}
"""Accepted chance of running out of a part before the next bike shop [-]; practice."""
STATE = {"serviced": 0.5, "usual": 1.0, "worn": 2.0}
"""How a service before the tour, or worn parts, change what breaks [-]; practice."""
TYRE = {"light": 2.0, "usual": 1.0, "armoured": 0.4}
"""The same of punctures by the tyre [-]; practice."""
SKILLS = ("little", "roadside", "workshop")
OF_A_TYRE = ("puncture", "tubeless", "trailer_tube")
TUBES_PER_PATCHES = 8
"""So many punctures a set of patches mends, or a filling of sealant; practice."""
PUMP_ML_PER_KG, PUMP_ML = 250.0, (20.0, 150.0)
"""What a stroke of a hand pump moves by the mass of the pump, and what it moves at least and at most [ml/kg, ml]; practice."""
STROKES_A_MIN = 60.0
"""Practice; the last ones are slower."""
THORNS = 3.0
"""Times the punctures, where a stretch has thorns [-]; practice."""

Applies = Callable[[Bike], bool]
NOBODY = "nobody who can do it"
"""What is lacking where no hand knows how."""


def _any_bike(bike: Bike) -> bool:
    return True


def _has_trailer(bike: Bike) -> bool:
    return fitting.trailer_of(bike) is not None


@dataclass(frozen=True)
class Kind:
    """One kind of fault; lists of services are any of which; an empty one asks for nothing. How often it comes is a default."""

    id: str
    words: str
    tool: tuple[str, ...]
    part: tuple[str, ...]
    skill: str
    stops: bool
    makeshift: tuple[str, ...] = ()
    """What gets one on where the part is missing."""
    misfit: fitting.Misfit = fitting.fits_all
    applies: Applies = _any_bike
    clustered: bool = False
    reusable: bool = False
    """One of it mends many."""

    def per_1000_km(self, usual: Practice) -> float:
        """How often it comes on 1,000 km [-]."""
        return float(getattr(usual, f"{self.id}_per_1000_km"))


OF_A_BIKE: tuple[Kind, ...] = (
    Kind("puncture", "Puncture", ("levers",), ("tube", "patches"), "little", True, misfit=fitting.tube,
         applies=lambda b: not b.tubeless),
    Kind("tubeless", "Tubeless leak", ("plugs",), ("tube", "sealant"), "little", True, misfit=fitting.tube,
         applies=lambda b: b.tubeless),
    Kind("valve", "Valve and pump", ("pump",), (), "little", True, misfit=fitting.valve),
    Kind("cut_tyre", "Cut tyre", ("levers",), ("tyre", "boot"), "little", True, ("binding", "bank_card"), fitting.wheel),
    Kind("spoke", "Spoke", ("spoke_key",), ("spoke",), "workshop", False, ("binding",), fitting.spokes, clustered=True),
    Kind("sprocket_spoke", "Spoke at sprockets", ("sprocket_tool",), ("spoke",), "workshop", False, (), fitting.spokes,
         clustered=True),
    Kind("chain", "Chain", ("chain_tool",), ("chain_link",), "roadside", True, misfit=fitting.speeds),
    Kind("hanger", "Hanger", ("keys", "spanner"), ("hanger",), "roadside", True, misfit=fitting.hanger),
    Kind("cable", "Gear or brake cable", ("keys", "cutter"), ("cable",), "roadside", False,
         applies=lambda b: b.brakes != "disc" or b.speeds > 1),
    Kind("pads", "Brake pads", ("keys", "spanner"), ("pads",), "roadside", True, misfit=fitting.pads,
         applies=lambda b: b.brakes != "hub"),
    Kind("bolt", "Bolt of rack or cage", ("keys", "spanner"), ("bolts",), "little", False, ("binding",)),
    Kind("loose", "Headset, crank, pedal", ("keys", "spanner"), (), "roadside", False),
    Kind("valve_core", "Valve core", (), ("valve_core",), "little", False, ("tube",), applies=lambda b: b.tubeless,
         reusable=True),
    Kind("hose", "Brake hose", (), ("hose_kit",), "workshop", False, applies=lambda b: b.hoses, reusable=True),
    Kind("cleat", "Bolt of a cleat", ("keys", "spanner"), ("cleat_bolts",), "little", False, ("bolts",),
         applies=lambda b: b.pedals == "clip_in", reusable=True),
    Kind("trailer_tube", "Trailer's tyre", ("levers",), ("tube", "patches"), "little", True, misfit=fitting.trailer_wheel,
         applies=_has_trailer),
    Kind("trailer_pin", "Trailer's pin", (), ("bolts",), "little", True, ("binding", "strap"), applies=_has_trailer,
         reusable=True),
    Kind("rack", "Bent or broken rack", (), ("binding",), "roadside", False, ("strap",), reusable=True),
)  # fmt: skip
OF_THE_CAMP: tuple[Kind, ...] = (
    Kind("bag", "Zip or strap of a bag", ("needle",), ("strap",), "little", False, ("binding",), reusable=True),
    Kind("mat", "Mat", (), ("mat_patches",), "little", False, ("patches", "binding"), reusable=True),
    Kind("pole", "Tent pole", (), ("pole_sleeve",), "little", False, ("binding", "pegs"), reusable=True),
    Kind("stove", "Stove", (), ("stove_parts",), "roadside", False, (), reusable=True),
)


def faults_of(a: Asking) -> list[Fault]:
    """Every fault that can come up, bike by bike, then those of the camp; empty where no thing says that it mends anything."""
    of_all = (*OF_A_BIKE, *OF_THE_CAMP)
    if not a.serving(*{service for kind in of_all for service in (*kind.tool, *kind.part)}):
        return []
    from_km, to_km = longest_gap(a)
    best = max((SKILLS.index(rider.mends) for rider in a.tour.riders), default=0)
    found = [_fault(a, kind, bike, from_km, to_km, best) for bike in a.tour.rig.bikes for kind in OF_A_BIKE if kind.applies(bike)]
    camp = {"mat": any(isinstance(t.role, Mat) for t in a.tour.kit), "pole": bool(a.serving("poles", "tent")),
            "stove": any(isinstance(t.role, Stove) for t in a.tour.kit), "bag": bool(a.tour.carriers)}  # fmt: skip
    return [*found, *(_fault(a, kind, None, from_km, to_km, best) for kind in OF_THE_CAMP if camp[kind.id])]


@dataclass(frozen=True)
class Risk:
    """A kind of fault of all bikes that it can befall, along the road.

    Attributes
    ----------
    expected : shape (places,)
        How many are expected from the start to each place [-].
    mends : int
        How many the parts on board mend that fit one of the bikes, a makeshift as one; enough of them where none is asked for.
    able : bool
        Whether a tool and a hand for it are there.
    """

    kind: Kind
    expected: np.ndarray[tuple[int], np.dtype[np.float64]]
    mends: int
    able: bool


ENOUGH = 1000
"""Of what mends any number."""


def risks_of(a: Asking, km: list[float]) -> list[Risk]:
    """What can break of the bikes, kind by kind; empty where no thing says that it mends anything."""
    if not a.serving(*{service for kind in OF_A_BIKE for service in (*kind.tool, *kind.part)}):
        return []
    best = max((SKILLS.index(rider.mends) for rider in a.tour.riders), default=0)
    found = []
    for kind in OF_A_BIKE:
        bikes = [bike for bike in a.tour.rig.bikes if kind.applies(bike)]
        parts = [t for t in a.serving(*kind.part) if any(_fits(kind, t, bike) for bike in bikes)]
        mends = sum(_mends(kind, t) for t in parts) + bool(a.serving(*kind.makeshift))
        able = not _tools(a, kind, 0)[1] and best >= SKILLS.index(kind.skill)
        endless = not kind.part or (kind.reusable and mends > 0)
        expected = np.array([sum(_expected(a, kind, bike, 0.0, at) for bike in bikes) for at in km])
        if bikes:
            found.append(Risk(kind, expected, ENOUGH if endless else mends, able))
    return found


def longest_gap(a: Asking) -> tuple[float, float]:
    """From where to where the road has no bike shop the longest [km, km]."""
    end = a.voyage.profile.length_km
    shops = sorted({s.at_km for s in a.voyage.ride.stops() if s.bike_shop != "none" and s.at_km <= end})
    edges = sorted({0.0, *shops, end})
    gaps = [(after - before, -before) for before, after in pairwise(edges)]
    if not gaps:
        return 0.0, end
    length, start = max(gaps)
    return -start, length - start


def _fault(a: Asking, kind: Kind, bike: Bike | None, from_km: float, to_km: float, best: int) -> Fault:
    there = _day_at(a, from_km)
    tools, missing = _tools(a, kind, there)
    parts = [t for t in a.serving(*kind.part) if a.there(t)[there]]
    fitting = [t for t in parts if _fits(kind, t, bike)]
    bikes = [b for b in a.tour.rig.bikes if kind.applies(b)] if bike else []
    sharing: list[Bike | None] = [b for b in bikes if any(_fits(kind, t, b) for t in fitting)]
    expected = sum(_expected(a, kind, b, from_km, to_km) for b in sharing or [bike])
    if kind.id == "valve" and missing and bike is not None:
        # Without a pump every flat ends the ride.
        flats = (k for k in OF_A_BIKE if k.id in ("puncture", "tubeless") and k.applies(bike))
        expected += sum(_expected(a, flat, bike, from_km, to_km) for flat in flats)
    wanted = _wanted(kind, expected, _thorny_km(a, from_km, to_km) > 0)
    owned = sum(_mends(kind, t) for t in fitting)
    judged = tools if kind.id == "valve" else [t for t in parts if kind.part[0] in t.serves] or parts
    unpumped = _unpumped(a, kind, fitting)
    misfits = _misfits(kind, judged, bike) or unpumped
    unturned = _unturned(a, bike) if kind.id == "bolt" and bike is not None else []
    part = _part(a, kind, wanted, owned)
    wants = ["pump"] if unpumped else kind.part[:1] if part in ("missing", "makeshift") or misfits else ()
    more = [*missing, *(["keys"] if unturned else []), *wants]
    able = best >= SKILLS.index(kind.skill)
    lacks = [f"no {named(service)}" for service in missing]
    lacks += [f"no key for {', '.join(unturned)}"] if unturned else []
    if misfits:
        lacks.append(misfits)
    elif part in ("missing", "makeshift"):
        lacks.append(f"{owned} of {wanted} {named(kind.part[0])}" if owned else f"no {named(kind.part[0])}")
    if not able:
        lacks.append(NOBODY)
    return Fault(
        id=f"{kind.id}:{bike.id}" if bike else kind.id, words=kind.words, bike_id=bike.id if bike else None,
        tool="not_asked" if not kind.tool else "missing" if missing else "at_hand", part=part,
        fits="missing" if misfits or unturned else "at_hand" if fitting or (tools and not kind.part) else "not_asked",
        skill="at_hand" if able else "missing", wanted=wanted, owned=owned, expected=round(expected, 3),
        gap_km=round(to_km - from_km, 1), stops_you=kind.stops, lacks=lacks,
        serves=more, note=_pumping(tools, bike) if kind.id == "valve" and bike is not None else None,
        thing_ids=list({t.id: t for t in (*tools, *fitting)}),
    )  # fmt: skip


def _fits(kind: Kind, thing: Thing, bike: Bike | None) -> bool:
    return bike is None or thing.fit is None or not kind.misfit(thing.fit, bike)


def _misfits(kind: Kind, things: list[Thing], bike: Bike | None) -> str:
    """Why none of these things fits, of that which comes nearest; empty where one does, or where there is none."""
    if bike is None or any(_fits(kind, t, bike) for t in things):
        return ""
    told = [(t.name, kind.misfit(t.fit, bike)) for t in things if t.fit is not None]
    told.sort(key=lambda one: one[1] == fitting.OTHER_WHEEL)
    return f"{told[0][1]} ({told[0][0]})" if told else ""


def _unpumped(a: Asking, kind: Kind, tubes: list[Thing]) -> str:
    """Why no pump fills the tubes of a trailer, whose valves may be others than those of the bikes; empty where one may."""
    valves = {t.fit.valve for t in tubes if t.fit is not None and t.fit.valve is not None}
    pumps = [t.fit.valve if t.fit is not None else None for t in a.serving("pump")]
    if kind.id != "trailer_tube" or not valves or not pumps or None in pumps or valves & set(pumps):
        return ""
    wanted, fills = (" or ".join(sorted(v.capitalize() for v in those if v)) for those in (valves, set(pumps)))
    return f"its tube takes {wanted}, the pump {fills}"


def _pumping(pumps: list[Thing], bike: Bike) -> Text | None:
    """How long the best pump on board takes for a tyre of a bike, to the middle of what its maker allows; None without one."""
    bar = (bike.tyre_least_bar + bike.tyre_most_bar) / 2
    fitting_ = [pump for pump in pumps if pump.fit is None or not fitting.valve(pump.fit, bike)]
    best = max(((stroke_of(pump), pump.name) for pump in fitting_), default=None)
    if best is None:
        return None
    n = strokes(bike.tyre_width_mm, bike.bead_seat_mm, bar, best[0])
    return say("{pump}: some {n:stroke|strokes} and {time} a tyre to {bar}.", pump=best[1], n=number(round(n, -1)),
               time=minutes(n / STROKES_A_MIN), bar=bar_of(bar))  # fmt: skip


def stroke_of(pump: Thing) -> float:
    """What a stroke of a pump moves, as its rider says or as such a heavy one usually does [ml]."""
    said = pump.fit.stroke_ml if pump.fit is not None else None
    return said or min(max(PUMP_ML_PER_KG * pump.mass_kg, PUMP_ML[0]), PUMP_ML[1])


def _part(a: Asking, kind: Kind, wanted: int, owned: int) -> CellState:
    """Whether enough of what fits is there; of what stops a rider at least one, whatever its odds."""
    if not kind.part or (wanted == 0 and owned == 0 and not kind.stops):
        return "not_asked"
    if owned >= max(wanted, int(kind.stops)):
        return "at_hand"
    return "makeshift" if owned or a.serving(*kind.makeshift) else "missing"


def named(service: str) -> str:
    """What a service is called, without its article."""
    return SERVICES[service].words.removeprefix("a ").removeprefix("an ").removeprefix("the ")


def _expected(a: Asking, kind: Kind, bike: Bike | None, from_km: float, to_km: float) -> float:
    """How often it comes up on the gap [-]."""
    if kind.id == "pads" and bike is not None:
        return _pads_worn(a, bike, from_km, to_km)
    rate, km = kind.per_1000_km(a.tour.practice) / 1000 * (STATE[bike.state] if bike else 1.0), to_km - from_km
    if kind.id in OF_A_TYRE and bike is not None:
        rate *= TYRE[bike.tyre_kind]
        km += (THORNS - 1) * _thorny_km(a, from_km, to_km)
    return rate * km * (a.tour.practice.puncture_times if kind.id in OF_A_TYRE else 1.0)


def _pads_worn(a: Asking, bike: Bike, from_km: float, to_km: float) -> float:
    """How many pairs of pads are renewed on the gap [-]: worn by mass, descent and rain rather than broken by chance."""
    row, usual = BY_KIND["pads"], a.tour.practice
    life, behind = life_of(bike, row, usual), behind_of(bike, row, usual)
    worn = np.append(0.0, np.cumsum(worn_by(a, bike, row)))
    at, to = np.interp([from_km, to_km], np.append(0.0, a.end_km), worn)
    return renewals(behind + float(at), float(to - at), life)


def _thorny_km(a: Asking, from_km: float, to_km: float) -> float:
    thorny = (h for h in a.tour.road.hazards if h.kind == "thorns")
    return sum(max(min(h.to_km, to_km) - max(h.from_km, from_km), 0.0) for h in thorny)


def _wanted(kind: Kind, expected: float, thorny: bool) -> int:
    if not kind.part:
        return 0
    clustered = kind.clustered or (thorny and kind.id in OF_A_TYRE)
    wanted = spares_wanted(expected, RISKS["stops" if kind.stops else "slows"], CLUSTERED if clustered else 1.0)
    return min(wanted, 1) if kind.reusable else wanted


def _mends(kind: Kind, thing: Thing) -> int:
    """How many of such a fault the things of one kind mend."""
    return thing.count * (TUBES_PER_PATCHES if kind.id in OF_A_TYRE and "tube" not in thing.serves else 1)


def _tools(a: Asking, kind: Kind, day: int) -> tuple[list[Thing], list[str]]:
    """Tools that are there, and services that none of them gives; keys or spanners turn bolts, either."""
    wanted = [("keys", "spanner")] if set(kind.tool) == {"keys", "spanner"} else [(service,) for service in kind.tool]
    found, missing = list[Thing](), list[str]()
    for services in wanted:
        there = [t for t in a.serving(*services) if a.there(t)[day]]
        found += there
        missing += [] if there else [services[0]]
    return found, missing


def _day_at(a: Asking, km: float) -> int:
    return min(int(np.searchsorted(a.end_km, km, side="right")), len(a.days) - 1)


def _unturned(a: Asking, bike: Bike) -> list[str]:
    """Heads of a bike's bolts that nothing turns; nothing is said where no tool says what it turns."""
    tools = [t for t in a.serving("keys", "spanner") if t.fit is not None and t.fit.keys]
    turned = {key.lower().replace(" ", "") for t in tools for key in (t.fit.keys if t.fit else ())}
    return [head for head in bike.heads if head.lower().replace(" ", "") not in turned] if tools else []
