"""What a rig bears: every limit of its bags, racks, wheels, bikes and hitches, stated once.

Search, findings, places, repair and the lists of bags all ask here. Every limit is linear in what the carriers hold:
`own + lever @ contents`, to be kept between two bounds. The search keeps the bounds themselves; judging allows for
rounding, which takes up that of the search's whole numbers.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from omnifer.core.load.nesting import as_one, held_in, vessels_in
from omnifer.core.load.trace import BikeLoad
from omnifer.core.model.filled import filled_l
from omnifer.core.model.kit import Thing
from omnifer.core.model.quantities import ROUNDING, Text
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.tour import TourSheet
from omnifer.core.model.trace import LimitKind, LimitTrace
from omnifer.core.rig.fixtures import Fixture, bounds, fixtures_of
from omnifer.core.rig.parts import brim_l, parts_of, whole_of
from omnifer.core.rig.statics import Levers
from omnifer.core.sentence import kg, litres, say
from omnifer.core.supplies.stock import Stock

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Limit:
    """One limit of a rig.

    Attributes
    ----------
    owner_id : str
        Of the carrier, support or bike whose limit it is.
    lever : shape (carriers,)
        Part of what each carrier holds that counts [-].
    own : float
        What counts besides: bags, bike, rider [kg].
    least, most : float or None
        Bounds [kg, or l of things pressed as far as they go].
    """

    kind: LimitKind
    bike_id: str
    owner_id: str
    name: str
    lever: Array
    own: float
    least: float | None
    most: float | None

    @property
    def key(self) -> str:
        """What no other limit of the rig is called."""
        return f"{self.kind}:{self.owner_id}"

    @property
    def of_litres(self) -> bool:
        """Whether it counts litres; all others count kilograms."""
        return self.kind == "bag_volume"

    def values(self, contents: "Contents") -> Array:
        """What counts at each moment, shape (moments,)."""
        return np.asarray(self.own + self.lever @ (contents.pressed_l if self.of_litres else contents.kg))

    def beyond(self, values: Array) -> Array:
        """How far outside the bounds values lie; 0 within them, the tolerance included."""
        above = values - self.most if self.most is not None else np.full(values.shape, -np.inf)
        below = self.least - values if self.least is not None else np.full(values.shape, -np.inf)
        off = np.maximum(above, below)
        return np.where(off > ROUNDING, off, 0.0)

    def over_by(self, amount: float) -> Text:
        """That it is exceeded by an amount, in words."""
        match self.kind:
            case "bag_volume":
                return say("{over} too big for the room left", over=litres(amount))
            case "bag_mass":
                return say("over its limit by {over}", over=kg(amount))
            case "pushed":
                return say("{limit}: {over} too light then", limit=self.name, over=kg(amount))
            case _:
                return say("{limit} over by {over} then", limit=self.name, over=kg(amount))


@dataclass(frozen=True)
class Contents:
    """What every carrier holds at each moment, shape (carriers, moments): mass, and litres pressed as far as they go."""

    kg: Array
    pressed_l: Array

    @classmethod
    def of(cls, bikes: Sequence[BikeLoad]) -> "Contents":
        """What loaded bikes hold, carrier by carrier in the order of the rig."""
        inside = [contents for bike in bikes for contents in bike.contents]
        moments = bikes[0].front.size if bikes else 1
        rows = (len(inside), moments)
        kg_of, pressed = (np.array([getattr(c, name) for c in inside]).reshape(rows) for name in ("kg", "pressed_l"))
        return cls(kg_of, pressed)


@dataclass(frozen=True)
class Loaded:
    """A tour as it is loaded: its bikes at every moment, what their carriers hold, and the limits to hold that against."""

    tour: TourSheet
    stock: Stock
    bikes: list[BikeLoad]
    limits: list[Limit]
    """Every limit of the rig."""

    @classmethod
    def of(cls, tour: TourSheet, stock: Stock) -> "Loaded":
        """The tour with its load, at the moments of the stock."""
        return cls(tour, stock, [BikeLoad(tour, bike, stock) for bike in tour.rig.bikes], limits_of(tour))

    @cached_property
    def contents(self) -> Contents:
        """What every carrier holds."""
        return Contents.of(self.bikes)

    @cached_property
    def broken(self) -> list[tuple[Limit, Array]]:
        """The limits that the load exceeds, each with how far at each moment."""
        beyond = ((limit, limit.beyond(limit.values(self.contents))) for limit in self.limits)
        return [(limit, off) for limit, off in beyond if off.any()]


@dataclass(frozen=True)
class InHand:
    """So many of a thing, and the carrier they leave; None: the shelf."""

    thing: Thing
    count: int
    leaves: str | None = None


def limits_of(tour: TourSheet) -> list[Limit]:
    """Every limit of a rig: of each bag first, then of what carries the bags.

    What is fixed or worn counts with the most that it comes to anywhere, where a least is to be kept with the least.
    """
    pairs = [(bike, carrier) for bike in tour.rig.bikes for carrier in bike.carriers]
    levers = {bike.id: Levers(bike, tour.practice) for bike in tour.rig.bikes}
    fixed = {bike.id: fixtures_of(tour, bike, levers[bike.id]) for bike in tour.rig.bikes}
    found = [limit for j, (bike, carrier) in enumerate(pairs) for limit in _of_bag(bike, carrier, j, pairs, fixed[bike.id])]
    for bike in tour.rig.bikes:
        found += _of_bike(tour, bike, pairs, levers[bike.id], fixed[bike.id])
    return found


def _of_bag(bike: Bike, carrier: Carrier, j: int, pairs: list[tuple[Bike, Carrier]], fixed: list[Fixture]) -> list[Limit]:
    """Kilograms, compartments, pockets and what hangs outside with theirs, and litres stuffed to the brim."""
    parts = parts_of(bike, carrier)
    ids = {carrier.id, *(part.id for part in parts)}
    borne = np.array([c.id in ids for _, c in pairs], dtype=float)
    alone = np.eye(len(pairs))[j]
    own = sum(part.mass_kg for part in parts) + bounds(fixed, lambda f: f.carrier is not None and f.carrier.id in ids)[1]
    return [
        Limit("bag_mass", bike.id, carrier.id, carrier.name, borne, own, None, carrier.limit_kg),
        Limit("bag_volume", bike.id, carrier.id, carrier.name, alone, 0.0, None, brim_l(bike, carrier)),
    ]


def _of_bike(tour: TourSheet, bike: Bike, pairs: list[tuple[Bike, Carrier]], levers: Levers, fixed: list[Fixture]) -> list[Limit]:
    """Racks, cages, trailers, hitch, wheels, and the bike as a whole."""
    bare = levers.bare()
    rider = next(r for r in tour.riders if r.id == bike.rider_id)
    seat = levers.shares(levers.frame.rider_centre(rider, tour.practice).x, on_trailer=False)
    mine = [b.id == bike.id for b, _ in pairs]
    shares = [levers.carrier_shares(c) if here else None for here, (_, c) in zip(mine, pairs, strict=True)]

    def share(name: str) -> Array:
        return np.array([getattr(s, name) if s else 0.0 for s in shares])

    def hung_on(fixture: Fixture, support_id: str) -> bool:
        if fixture.carrier is not None:
            return whole_of(bike, fixture.carrier).hangs_on == support_id
        rack = next((s.id for s in bike.supports if s.kind == "rear_rack"), None)
        return fixture.place.spot == "rack_tail" and support_id == rack

    def of_share(name: str) -> Callable[[Fixture], float]:
        def lever(fixture: Fixture) -> float:
            if fixture.on_body:
                return float(getattr(seat, name))
            on_trailer = fixture.carrier is not None and levers.on_trailer(fixture.carrier)
            return float(getattr(levers.shares(fixture.at.x, on_trailer), name))

        return lever

    found = []
    for support in bike.supports:
        hung = [here and whole_of(bike, c).hangs_on == support.id for here, (_, c) in zip(mine, pairs, strict=True)]
        bags = sum(c.mass_kg for on_it, (_, c) in zip(hung, pairs, strict=True) if on_it)
        bags += bounds(fixed, lambda f, on=support.id: hung_on(f, on))[1]  # type: ignore[misc]
        lever = np.array(hung, dtype=float)
        found.append(Limit("support", bike.id, support.id, support.name, lever, bags, None, support.limit_kg))
        if support.trailer is not None:
            most, name = support.trailer.hitch_most_kg, f"hitch of {bike.name}"
            found.append(Limit("hitch", bike.id, support.id, name, share("hitch"), bare.hitch, 0.0, most))
    pushed = np.array([levers.front_when_pushed(c) if here else 0.0 for here, (_, c) in zip(mine, pairs, strict=True)])
    body, whole = rider.body_mass_kg, bare.front + bare.rear + rider.body_mass_kg
    on_wheels = np.array(mine, dtype=float) - share("trailer")
    front, rear = f"front wheel of {bike.name}", f"rear wheel of {bike.name}"
    on_front, on_rear, in_all = (
        bounds(fixed, lever)[1] for lever in (of_share("front"), of_share("rear"), lambda f: 1 - of_share("trailer")(f))
    )
    helps = bounds(fixed, lambda f: 0.0 if f.on_body else levers.front_when_pushed_at(f.at.x, f.at.y))[0]
    found += [
        Limit("pushed", bike.id, bike.id, f"{front}, pushed uphill", pushed, levers.bare_front_when_pushed() + helps, 0.0, None),
        Limit("front_wheel", bike.id, bike.id, front, share("front"), bare.front + body * seat.front + on_front, None,
              bike.front_wheel_limit_kg),
        Limit("rear_wheel", bike.id, bike.id, rear, share("rear"), bare.rear + body * seat.rear + on_rear, None,
              bike.rear_wheel_limit_kg),
        Limit("system", bike.id, bike.id, f"{bike.name} as a whole", on_wheels, whole + in_all, None, bike.maximum_system_kg),
    ]  # fmt: skip
    return found


def traced(limit: Limit, contents: Contents) -> LimitTrace:
    """A limit at its hardest moment, as screens read it."""
    values = limit.values(contents)
    worst = values.min() if limit.most is None else values.max()
    if limit.least is not None and limit.beyond(values.min(keepdims=True)).any():
        worst = values.min()
    return LimitTrace.of_its_kinds(
        key=limit.key, kind=limit.kind, owner_id=limit.owner_id, name=limit.name, worst=round(float(worst), 3),
        least=limit.least, most=limit.most, over=bool(limit.beyond(values).any()),
    )  # fmt: skip


def fits(loaded: Loaded, in_hand: Sequence[InHand], to: str) -> list[tuple[Limit, float]]:
    """The limits that a move breaks or makes worse, each by how much at the worst moment; none: it fits.

    Vessels are weighed full where they go, and as they are on the way; what rides in a thing goes with it.
    """
    found = []
    after = [_moved(loaded, in_hand, to, full) for full in (True, False)]
    touched = [c.id == to or any(c.id == held.leaves for held in in_hand) for c in loaded.tour.carriers]
    for limit in loaded.limits:
        if not limit.lever[touched].any():
            continue
        now = limit.beyond(limit.values(loaded.contents)).max()
        then = max(float(limit.beyond(limit.values(contents)).max()) for contents in after)
        if then > now + 1e-9:
            found.append((limit, then))
    return found


def _moved(loaded: Loaded, in_hand: Sequence[InHand], to: str, full: bool) -> Contents:
    """What carriers hold once things, with what rides in them, have gone to one of them."""
    at = {carrier.id: j for j, carrier in enumerate(loaded.tour.carriers)}
    mass, pressed = loaded.contents.kg.copy(), loaded.contents.pressed_l.copy()
    water, nothing = loaded.stock.in_vessels(), np.zeros(mass.shape[1])
    whole = {thing.id: thing for thing in as_one(loaded.tour).kit}
    for held in in_hand:
        thing = whole[held.thing.id]
        arriving = {vessel.thing_id: nothing + vessel.holds_kg for vessel in vessels_in(thing)} if full else water
        if full and thing.holds_water_l:
            arriving[thing.id] = nothing + filled_l(thing, loaded.tour.carriers[at[to]])
        for carrier_id, times, inside in ((held.leaves, -held.count, water), (to, held.count, arriving)):
            if carrier_id is not None:
                there = loaded.stock.packed(thing)
                mass[at[carrier_id]] += times * there * (thing.mass_kg + held_in(thing, inside))
                pressed[at[carrier_id]] += times * there * (thing.least_l + held_in(thing, inside, soft_only=True))
    return Contents(mass, pressed)
