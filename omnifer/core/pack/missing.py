"""The missing kilo: what riders forget, compared by how likely each makes what the scale shows under both wheels."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import combinations
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import Text
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.tour import TourSheet
from omnifer.core.model.trace import BikeTrace
from omnifer.core.model.weigh import Cause, Missing, WeighLine
from omnifer.core.rig.statics import Levers
from omnifer.core.sentence import fine_kg, say

Array = NDArray[np.float64]
GUESS = 0.2
"""A guessed mass may be off by so much of itself [-]; practice."""
WET_CLOTH = 0.5
"""Wet cloth weighs so much more than dry, 0.3 to 1 [-]; practice."""
MUD_KG = 0.3
"""On a bike that was ridden in the wet [kg]; practice."""
SCALE_UNSURE_KG = {"thing": 0.005, "bag": 0.05, "front_wheel": 0.05, "rear_wheel": 0.05, "trailer_wheel": 0.05, "hitch": 0.05,
                   "whole": 0.05, "rider_with": 0.1, "rider_without": 0.1, "front_ridden": 0.1, "rear_ridden": 0.1}  # fmt: skip
"""How far one reading of the scale that is used for it may be off either way [kg]; practice."""
COVERS = 2.1
"""So many of its standard deviations the scale may be off: one weighing in thirty that is right is called wrong [-]."""
MOST_CAUSES, MOST_LIKELY = 2, 8
"""So many causes together are looked at, of the likeliest by themselves."""
FORGOTTEN: dict[str, float] = {
    "fill": 0.25, "stow": 0.3, "weigh_carrier": 0.1, "weigh_thing": 0.3, "dry": 0.08, "leave": 0.05,
}  # fmt: skip
"""How often it is that, before anything is weighed; several of a kind share it [-]; practice."""


@dataclass(frozen=True)
class Candidate:
    """Something that may be there and was not counted.

    Attributes
    ----------
    low_kg, high_kg : float
        What it may come to, either of them or anything between; `whole` where it is all or nothing.
    front, apart : float
        Part of it that presses on the front wheel, and the standard deviation of that where nobody knows in which bag it is [-].
    """

    words: Text
    low_kg: float
    high_kg: float
    deed: Literal["fill", "weigh_thing", "weigh_carrier", "stow", "dry", "leave"]
    about: str = ""
    whole: bool = False
    front: float = 0.5
    apart: float = 0.0

    @property
    def mean_kg(self) -> float:
        """What it comes to if it is the cause [kg]."""
        return self.high_kg if self.whole else (self.low_kg + self.high_kg) / 2

    @property
    def sd_kg(self) -> float:
        """How far that may be off, anything between alike [kg]."""
        return 0.0 if self.whole else (self.high_kg - self.low_kg) / 12**0.5


def likeliest(
    seen: Array, noise: Array, candidates: list[Candidate]
) -> tuple[list[tuple[Candidate, float]], list[Candidate]]:  # fmt: skip
    """The causes that are likeliest by what was seen, each with what it explains [kg]; and all others, likeliest first.

    Parameters
    ----------
    seen : numpy.ndarray, shape (1,) or (2,)
        The scale less the parts: of the whole bike, or of its front and its rear wheel [kg].
    noise : numpy.ndarray, shape of `seen`
        Standard deviation of each reading [kg].

    References
    ----------
    Bayes' rule over sets of causes; what each comes to, readings and the bag that nobody knows are normal, so that a set's
    likelihood is that of a normal vector (Gelman et al., Bayesian Data Analysis, 3rd ed., 14.8).
    """
    alike = {deed: sum(c.deed == deed for c in candidates) for deed in FORGOTTEN}
    chance = {id(c): FORGOTTEN[c.deed] / alike[c.deed] for c in candidates}

    def believed(chosen: tuple[Candidate, ...]) -> float:
        mean, spread = _seen_with(chosen, noise)
        off = seen - mean
        log = -0.5 * (off @ np.linalg.solve(spread, off) + np.linalg.slogdet(spread)[1])
        return float(log + sum(np.log(chance[id(c)]) for c in chosen))

    alone = sorted(candidates, key=lambda c: -believed((c,)))
    tried: list[tuple[Candidate, ...]] = [(c,) for c in alone]
    tried += [pair for n in range(2, MOST_CAUSES + 1) for pair in combinations(alone[:MOST_LIKELY], n)]
    if not tried:
        return [], []
    best = max(tried, key=believed)
    mean, spread = _seen_with(best, noise)
    left = np.linalg.solve(spread, seen - mean)
    found = [(c, c.mean_kg + c.sd_kg**2 * float(_pressing(c, seen.size) @ left)) for c in best]
    return sorted(found, key=lambda one: not one[0].whole), [c for c in alone if c not in best]


def _pressing(cause: Candidate, readings: int) -> Array:
    """How a kilogram of a cause is shared out over the readings [-]."""
    return np.array([cause.front, 1 - cause.front]) if readings == 2 else np.ones(1)


def _seen_with(chosen: tuple[Candidate, ...], noise: Array) -> tuple[Array, Array]:
    """Mean and covariance of what is seen if these are the causes [kg, kg²]."""
    mean, spread = np.zeros(noise.size), np.diag(noise**2)
    for cause in chosen:
        share = _pressing(cause, noise.size)
        mean = mean + cause.mean_kg * share
        spread = spread + cause.sd_kg**2 * np.outer(share, share)
        if noise.size == 2:
            tilt = np.array([1.0, -1.0]) * cause.apart * cause.mean_kg
            spread = spread + np.outer(tilt, tilt)
    return mean, spread


def things_in(tour: TourSheet, carriers: set[str]) -> Iterator[tuple[Thing, int]]:
    """What is stowed in some carriers, and how many of each."""
    things = {thing.id: thing for thing in tour.kit}
    yield from ((things[p.thing_id], p.count) for p in tour.load.placements if p.carrier_id in carriers)


def off_by_kg(thing: Thing) -> float:
    """How far the mass of one may be off either way; 0 where it is no guess [kg]."""
    return thing.mass_kg * GUESS if "mass" in thing.guessed else 0.0


def missing_of(tour: TourSheet, bike: Bike, trace: BikeTrace, levers: Levers, lines: list[WeighLine]) -> Iterator[Missing]:
    """What is to be explained of a bike that was weighed; nothing where the scale says what the parts come to."""
    whole = next(line for line in lines if line.weighed == "whole")
    if whole.scale_kg is None or whole.difference_kg is None or whole.told == "same":
        return
    candidates = list(_candidates(tour, bike, trace, levers, whole))
    wheels = [line for line in lines if line.weighed in ("front_wheel", "rear_wheel") and line.difference_kg is not None]
    told = wheels if len(wheels) == 2 and trace.trailer_kg[0] == 0 else [whole]
    seen = np.array([line.difference_kg for line in told], dtype=float)
    chosen, others = likeliest(seen, np.array([line.unsure_kg for line in told]), candidates)
    left = whole.difference_kg - sum(takes for _, takes in chosen)
    yield Missing(
        bike_id=bike.id, parts_kg=whole.parts_kg, scale_kg=whole.scale_kg, to_explain_kg=whole.difference_kg,
        causes=[_told(one, takes) for one, takes in chosen], left_kg=round(left, 3), unsure_kg=round(COVERS * whole.unsure_kg, 3),
        others=[_told(one, 0.0) for one in others[:6]],
    )  # fmt: skip


def _told(one: Candidate, takes: float) -> Cause:
    return Cause(
        words=one.words, low_kg=round(one.low_kg, 3), high_kg=round(one.high_kg, 3), takes_kg=round(takes, 3), deed=one.deed,
        about=one.about,
    )  # fmt: skip


def _candidates(tour: TourSheet, bike: Bike, trace: BikeTrace, levers: Levers, whole: WeighLine) -> Iterator[Candidate]:
    """What riders forget: a full bottle, a thing not stowed in the plan, a bag without a mass, guesses, wet cloth, mud."""
    carriers: dict[str, Carrier] = {c.id: c for c in bike.carriers}
    here = [(p.carrier_id, t) for p in tour.load.placements if p.carrier_id in carriers for t in tour.kit if t.id == p.thing_id]
    water = {c.carrier_id: c.supply_l["water"][0] for c in trace.carriers}
    room: dict[str, float] = {}
    for carrier_id, thing in here:
        if thing.holds_water_l > 0 and not thing.soft_vessel:
            room[carrier_id] = room.get(carrier_id, 0.0) + thing.holds_water_l
    for carrier_id, litres in room.items():
        spare = litres - (0.0 if whole.dry else water.get(carrier_id, 0.0))
        if spare > SCALE_UNSURE_KG["bag"]:
            words = say("{bag} is full: {kg} more water than planned", bag=carriers[carrier_id].name, kg=fine_kg(spare))
            yield Candidate(words, 0.0, spare, "fill", carrier_id, True, levers.carrier_shares(carriers[carrier_id]).front)
    shares = np.array([levers.carrier_shares(c).front for c in bike.carriers if c.volume_l > 0] or [0.5])
    anywhere, apart = float(shares.mean()), float(shares.std())
    placed: dict[str, int] = {}
    for placement in tour.load.placements:
        placed[placement.thing_id] = placed.get(placement.thing_id, 0) + placement.count
    for thing in tour.kit:
        out = thing.count - placed.get(thing.id, 0)
        if out > 0 and not thing.where and thing.rider_id in (None, bike.rider_id):
            words = say("{thing} is in a bag and not in the plan: {kg}", thing=thing.name, kg=fine_kg(thing.mass_kg * out))
            yield Candidate(words, 0.0, thing.mass_kg * out, "stow", thing.id, True, anywhere, apart)
    for carrier in bike.carriers:
        if carrier.mass_kg == 0:
            words = say("{bag} has no mass of its own yet", bag=carrier.name)
            yield Candidate(words, 0.0, 1.5, "weigh_carrier", carrier.id, front=levers.carrier_shares(carrier).front)
    guessed = [t for _, t in here if "mass" in t.guessed]
    off = sum(off_by_kg(t) * t.count for t in guessed)
    if off > 0:
        names = ", ".join(t.name for t in sorted(guessed, key=lambda t: -t.mass_kg)[:3])
        spread = [(levers.carrier_shares(carriers[c]).front, off_by_kg(t) * t.count) for c, t in here if "mass" in t.guessed]
        front = sum(share * mass for share, mass in spread) / off
        yield Candidate(say("{things}: guesses", things=names), -off, off, "weigh_thing", guessed[0].id, front=front)
    taken = [c for c in bike.carriers if c.source == "default" and c.mass_kg > 0]
    bags = sum(c.mass_kg * GUESS for c in taken)
    if bags > 0:
        front = sum(c.mass_kg * GUESS * levers.carrier_shares(c).front for c in taken) / bags
        words = say("Bags and racks as the catalogue has them")
        yield Candidate(words, -bags, bags, "weigh_carrier", bike.carriers[0].id, front=front)
    wet = [(levers.carrier_shares(carriers[c]).front, t.mass_kg * t.count) for c, t in here if t.wet]
    cloth = sum(mass for _, mass in wet)
    if cloth > 0:
        front = sum(share * mass for share, mass in wet) / cloth
        yield Candidate(say("What gets wet is wet"), 0.0, cloth * WET_CLOTH, "dry", front=front)
    yield Candidate(say("Mud on the bike"), 0.0, MUD_KG, "leave")
