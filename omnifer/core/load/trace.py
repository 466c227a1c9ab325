"""What every carrier and wheel bears at every moment of the tour."""

from collections.abc import Collection, Iterable

import numpy as np
from numpy.typing import NDArray

from omnifer.core.load.aims import front_range
from omnifer.core.load.nesting import litres_of
from omnifer.core.model.carrier_kind import KINDS, ON_RIDER
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Placement
from omnifer.core.model.quantities import ROUNDING
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.stance import Clash, Stance
from omnifer.core.model.tour import TourSheet
from omnifer.core.model.trace import AtAxles, BikeTrace, CarrierState, CarrierTrace, LimitTrace
from omnifer.core.rig.fit import clashes
from omnifer.core.rig.fixtures import clashes_of, fixtures_of
from omnifer.core.rig.outlines import shape_of
from omnifer.core.rig.parts import brim_l, room_l
from omnifer.core.rig.places import free_places
from omnifer.core.rig.statics import Axle, Levers
from omnifer.core.supplies import food
from omnifer.core.supplies.stock import Stock

Array = NDArray[np.float64]
FULL = 0.95
"""Part of its room from which a carrier is called full [-]."""


class CarrierContents:
    """One carrier's contents at every moment."""

    def __init__(
        self, bike: Bike, carrier: Carrier, inside: list[tuple[Thing, Placement]], food_share: float, stock: Stock,
        food_l_per_kg: float,
    ) -> None:  # fmt: skip
        held = stock.in_vessels()
        self.carrier = carrier
        self.room_l, self.brim_l = room_l(bike, carrier), brim_l(bike, carrier)
        self.parts: list[CarrierContents] = []
        self.inside = inside
        self.there = [stock.packed(t) for t, _ in inside]
        self.thing_l = litres_of(inside)
        self.gear_kg = self._summed(t.mass_kg * p.count for t, p in inside)
        self.gear_l = self._summed(self.thing_l)
        self.least_gear_l = self._summed(litres_of(inside, pressed=True))
        self.fuel_l = self._summed(volume * t.is_fuel for volume, (t, _) in zip(self.thing_l, inside, strict=True))
        self.food_kg = food_share * stock.amounts["food"]
        self.food_l = self.food_kg * food_l_per_kg
        self.water_kg, self.other_kg, self.soft_l = np.zeros(stock.moments), np.zeros(stock.moments), np.zeros(stock.moments)
        for (thing, placement), there in zip(inside, self.there, strict=True):
            if thing.id in held:
                content = held[thing.id] * placement.count * there
                if thing.holds_water_l > 0:
                    self.water_kg = self.water_kg + content
                    self.soft_l = self.soft_l + content * thing.soft_vessel
                else:
                    self.other_kg = self.other_kg + content

    def _summed(self, of_each: Iterable[float]) -> Array:
        """What the things in it come to at each moment; one value where none comes or goes."""
        return np.atleast_1d(
            np.asarray(sum(amount * there for amount, there in zip(of_each, self.there, strict=True)), dtype=float)
        )

    @property
    def kg(self) -> Array:
        """Contents at each moment [kg]."""
        return np.asarray(self.gear_kg + self.water_kg + self.other_kg + self.food_kg)

    @property
    def litres(self) -> Array:
        """Contents at each moment [l]."""
        return np.asarray(self.gear_l + self.soft_l + self.food_l)

    @property
    def pressed_l(self) -> Array:
        """Contents at each moment, pressed as far as they go [l]."""
        return np.asarray(self.litres - self.gear_l + self.least_gear_l)

    @property
    def borne_kg(self) -> Array:
        """What the carrier itself bears at each moment: contents, and its compartments, pockets and nets with theirs [kg]."""
        return self.kg + sum((part.kg + part.carrier.mass_kg for part in self.parts), np.zeros(self.kg.size))

    def states(self, broken: Collection[str] = ()) -> list[CarrierState]:
        """What is to be said of the carrier at its fullest moment, the worst first; `broken` are keys of limits."""
        fullest_l, carrier = float(self.litres.max(initial=0)), self.carrier
        known: dict[CarrierState, bool] = {
            "over": f"bag_mass:{carrier.id}" in broken,
            "too_full": f"bag_volume:{carrier.id}" in broken,
            "pressed": self.pressed_by > 0,
            "full": self.pressed_by == 0 and fullest_l >= FULL * self.room_l > 0,
            "leaks": bool(carrier.leaks),
            "improvised": carrier.improvised,
            "pinned": bool(self.inside) and all(placement.pinned for _, placement in self.inside),
        }
        if known["too_full"]:
            known["pressed"] = False
        return [state for state, holds in known.items() if holds]

    @property
    def pressed_by(self) -> float:
        """Litres beyond what goes in with ease, at the fullest moment; 0 where rounding may be all [l]."""
        over = float(self.litres.max(initial=0)) - self.room_l
        return over if over > ROUNDING else 0.0

    def trace(self, broken: Collection[str]) -> CarrierTrace:
        """As the screens read it."""
        return CarrierTrace(
            carrier_id=self.carrier.id,
            gear_l=_column(self.gear_l, 3),
            fuel_l=_column(self.fuel_l, 3),
            rigid_water=KINDS[self.carrier.kind].takes == "bottles",
            on_rider=KINDS[self.carrier.kind].anchor in ON_RIDER,
            kg=_column(self.kg),
            litres=_column(self.litres),
            supply_l={"water": _column(self.water_kg), "food": _column(self.food_l)},
            room_l=_short(self.room_l),
            admits_mm=round(self.carrier.admits_mm, 1),
            states=self.states(broken),
            fullest_kg=_short(self.borne_kg.max(initial=0)),
            fullest_l=_short(self.litres.max(initial=0)),
        )


class BikeLoad:
    """One bike with all its contents at every moment."""

    def __init__(self, tour: TourSheet, bike: Bike, stock: Stock) -> None:
        self.bike = bike
        self.levers = Levers(bike, tour.practice)
        by_thing = {thing.id: thing for thing in tour.located}
        shares = {part.carrier_id: part.tenths / 10 for part in tour.load.food}
        inside: dict[str, list[tuple[Thing, Placement]]] = {c.id: [] for c in bike.carriers}
        for placement in tour.load.placements:
            if placement.carrier_id in inside:
                inside[placement.carrier_id].append((by_thing[placement.thing_id], placement))
        food_l = food.l_per_kg(tour)
        self.contents = [CarrierContents(bike, c, inside[c.id], shares.get(c.id, 0.0), stock, food_l) for c in bike.carriers]
        for whole in self.contents:
            whole.parts = [part for part in self.contents if part.carrier.hangs_on == whole.carrier.id]
        bare = self.levers.bare()
        size = stock.moments
        self.front, self.rear, self.trailer, self.hitch = (
            np.full(size, value) for value in (bare.front, bare.rear, bare.trailer, bare.hitch)
        )
        mass, moment_x, moment_y = (np.full(size, v) for v in (bare.mass, bare.moment_x, bare.moment_y))
        self.right_over_left: dict[Axle, Array] = {"front": np.zeros(size), "rear": np.zeros(size)}
        self.left, self.right = np.zeros(size), np.zeros(size)
        for bag in self.contents:
            share = self.levers.carrier_shares(bag.carrier)
            kg = bag.kg
            self.front = self.front + kg * share.front
            self.rear = self.rear + kg * share.rear
            self.trailer = self.trailer + kg * share.trailer
            self.hitch = self.hitch + kg * share.hitch
            beside, axle = kg + bag.carrier.mass_kg, self.levers.axle(bag.carrier)
            if bag.carrier.side == "left":
                self.left = self.left + beside
                self.right_over_left[axle] = self.right_over_left[axle] - beside
            elif bag.carrier.side == "right":
                self.right = self.right + beside
                self.right_over_left[axle] = self.right_over_left[axle] + beside
            if not self.levers.on_trailer(bag.carrier):
                x, y, _ = self.levers.centres[bag.carrier.id]
                mass, moment_x, moment_y = mass + kg, moment_x + kg * x, moment_y + kg * y
        self.on_rider_kg: Array = np.zeros(size)
        self.fixtures = fixtures_of(tour, bike, self.levers)
        held = stock.in_vessels() if self.fixtures else {}
        for fixed in self.fixtures:
            here = (stock.at_km >= fixed.from_km) & (stock.at_km <= fixed.to_km)
            its_kg: Array = (fixed.thing.mass_kg + held.get(fixed.thing.id, np.zeros(size))) * fixed.thing.count * here
            if fixed.on_body:
                self.on_rider_kg = self.on_rider_kg + its_kg
                continue
            on_trailer = fixed.carrier is not None and self.levers.on_trailer(fixed.carrier)
            share = self.levers.shares(fixed.at.x, on_trailer)
            self.front, self.rear = self.front + its_kg * share.front, self.rear + its_kg * share.rear
            self.trailer, self.hitch = self.trailer + its_kg * share.trailer, self.hitch + its_kg * share.hitch
            if not on_trailer:
                at = fixed.at
                mass, moment_x, moment_y = mass + its_kg, moment_x + its_kg * at.x, moment_y + its_kg * at.y
        self.mass, self.centre_x, self.centre_y = mass, moment_x / mass, moment_y / mass
        rider = next(r for r in tour.riders if r.id == bike.rider_id)
        self.rider_centre = self.levers.frame.rider_centre(rider, tour.practice)
        seated = self.levers.shares(self.rider_centre.x, on_trailer=False)
        self.steady = front_range(tour, bike)
        self.rider_kg = rider.body_mass_kg + float(self.on_rider_kg.max(initial=0))
        self.rider_front = self.rider_kg * seated.front
        self.rider_rear = self.rider_kg * seated.rear

    @property
    def total(self) -> Array:
        """Bike, trailer and all on them, without the rider [kg]."""
        return np.asarray(self.front + self.rear + self.trailer)

    @property
    def front_share(self) -> Array:
        """Front wheel's part of what the bike's two wheels bear, without the rider [-]."""
        return np.asarray(self.front / (self.front + self.rear))

    def clashes(self) -> list[Clash]:
        """What on the bike does not fit."""
        of_bags = clashes(self.bike, self.levers.frame, self.levers.boxes)
        return of_bags + list(clashes_of(self.bike, self.levers.frame, self.levers.boxes, self.fixtures))

    def trace(self, minutes_per_kg: float, stance: Stance, limits: list[LimitTrace]) -> BikeTrace:
        """As the screens read it."""
        broken = {limit.key for limit in limits if limit.over}
        return BikeTrace(
            bike_id=self.bike.id,
            total_kg=_column(self.total),
            front_kg=_column(self.front),
            rear_kg=_column(self.rear),
            trailer_kg=_column(self.trailer),
            hitch_kg=_column(self.hitch),
            left_kg=_column(self.left),
            right_kg=_column(self.right),
            right_over_left_kg=AtAxles(front=_column(self.right_over_left["front"]), rear=_column(self.right_over_left["rear"])),
            centre_x_mm=_column(self.centre_x, 0),
            centre_y_mm=_column(self.centre_y, 0),
            front_share=_column(self.front_share, 3),
            steady_low=self.steady[0],
            steady_high=self.steady[1],
            rider_front_kg=_short(self.rider_front),
            rider_rear_kg=_short(self.rider_rear),
            minutes_per_kg=round(minutes_per_kg, 3),
            frame=self.levers.frame.points(),
            radius_mm=self.bike.radius_mm,
            own_front_kg=_short(self.bike.mass_kg * self.bike.own_x_mm / self.bike.wheelbase_mm),
            triangle=self.levers.frame.triangle(),
            boxes=self.levers.boxes,
            shapes={c.id: shape_of(self.levers.frame, c, self.levers.boxes[c.id]) for c in self.bike.carriers},
            carriers=[inside.trace(broken) for inside in self.contents],
            limits=limits,
            stance=stance,
            clashes=self.clashes(),
            places=free_places(self.bike, self.levers.frame),
            fixtures=[fixture.trace() for fixture in self.fixtures],
        )


def _short(value: float) -> float:
    return round(float(value), 3)


def _column(values: Array, decimals: int = 2) -> list[float]:
    """Rounded values; one value where they never change."""
    rounded: list[float] = np.round(values, decimals).tolist()
    return rounded[:1] if len(set(rounded)) == 1 else rounded
