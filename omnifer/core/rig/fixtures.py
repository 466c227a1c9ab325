"""What is worn, in a pocket, or fixed to a bike or to the outside of a bag: where it is, what it weighs, and its clashes."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np

from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.kit import ON_BODY, Spot, Thing, Whereabouts
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.roles import Device
from omnifer.core.model.stance import Clash
from omnifer.core.model.tour import TourSheet
from omnifer.core.model.trace import Box, FixtureTrace, Point
from omnifer.core.rig.geometry import Frame, Vector
from omnifer.core.rig.statics import Levers
from omnifer.core.sentence import mm, say

SPOT_ROOM_MM: dict[Spot, float] = {
    "bar_left": 110, "bar_middle": 60, "bar_right": 110, "stem": 60, "fork_crown": 60, "seat_post": 120, "saddle_rails": 60,
    "rack_tail": 80, "frame": 200,
}  # fmt: skip
"""Length of bar, tube or plate on which something can be clamped [mm]; practice. The outside of a bag has what its bag gives."""
CLAMP_MM = 30.0
"""Width of a clamp that nobody measured [mm]; practice."""
LAMP_ABOVE_BAR_MM = 35.0
"""Where the beam of a lamp on the bar begins [mm]; practice."""
BEAM_FALLS = 0.1
"""A lamp a metre high lights the road ten metres ahead [-]; practice."""
HIDES_MM = 5.0
"""So much of a bag before a lamp hides it [mm]; practice."""
OF_BAR: frozenset[Spot] = frozenset({"bar_left", "bar_middle", "bar_right", "stem"})
BEHIND: frozenset[Spot] = frozenset({"seat_post", "saddle_rails", "rack_tail"})
SPOT_WORDS: dict[Spot, str] = {
    "bar_left": "on the left of the bar", "bar_middle": "in the middle of the bar", "bar_right": "on the right of the bar",
    "stem": "on the stem", "fork_crown": "at the fork crown", "seat_post": "on the seat post", "saddle_rails": "under the saddle",
    "rack_tail": "at the end of the rack", "frame": "on the frame", "outside": "outside a bag",
}  # fmt: skip


@dataclass(frozen=True)
class Fixture:
    """A thing on a bike that is not in a bag, for a part of the road.

    Attributes
    ----------
    at : Vector
        Its centre in the bike's middle plane [mm].
    carrier : Carrier or None
        The bag that it hangs on.
    """

    thing: Thing
    place: Whereabouts
    from_km: float
    to_km: float
    at: Vector
    on_body: bool
    carrier: Carrier | None

    def trace(self) -> FixtureTrace:
        """As the screens read it."""
        words = self.place.how if self.place.spot is None else SPOT_WORDS[self.place.spot]
        if self.carrier is not None:
            words = f"outside {self.carrier.name}"
        return FixtureTrace(
            thing_id=self.thing.id, name=self.thing.name, where={"pocket": "in a pocket"}.get(words, words),
            at=Point(x=round(self.at.x, 1), y=round(self.at.y, 1)), on_body=self.on_body, kg=round(self.empty_kg, 3),
            from_km=self.from_km, to_km=self.to_km if np.isfinite(self.to_km) else None,
        )  # fmt: skip

    @property
    def empty_kg(self) -> float:
        """All of them, without what they may hold [kg]."""
        return self.thing.mass_kg * self.thing.count

    @property
    def full_kg(self) -> float:
        """All of them, full [kg]."""
        return (self.thing.mass_kg + self.thing.holds_kg) * self.thing.count


def fixtures_of(tour: TourSheet, bike: Bike, levers: Levers) -> list[Fixture]:
    """Everything on a bike that is not in its bags; what belongs to nobody rides on the first bike."""
    first = tour.rig.bikes[0].id
    bags = {carrier.id: carrier for carrier in bike.carriers}
    others = {carrier.id for carrier in tour.carriers} - set(bags)
    rider = next(r for r in tour.riders if r.id == bike.rider_id)
    found = []
    for thing in tour.located:
        if not thing.where:
            continue
        mine = bike.rider_id == thing.rider_id if thing.rider_id is not None else bike.id == first
        for start, end, place in thing.stretches():
            on_body = place.how in ON_BODY
            bag = bags.get(place.bag_id or "")
            here = mine if bag is None and place.bag_id not in others else bag is not None
            if here and (on_body or place.how == "fixed"):
                at = levers.frame.rider_centre(rider, tour.practice) if on_body else _at(levers, place.spot, bag)
                found.append(Fixture(thing, place, start, end, at, on_body, bag))
    return found


def _at(levers: Levers, spot: Spot | None, bag: Carrier | None) -> Vector:
    frame, radius = levers.frame, levers.bike.radius_mm
    if bag is not None:
        x, y, _ = levers.centres[bag.id]
        return Vector(x, y)
    places: dict[Spot, Vector] = {
        "bar_left": frame.bar, "bar_middle": frame.bar.plus(Vector(20, 30)), "bar_right": frame.bar,
        "stem": frame.bar.plus(Vector(-40, 40)), "fork_crown": frame.head_bottom.plus(Vector(30, -20)),
        "seat_post": frame.between(frame.seat_cluster, frame.saddle, 0.6).plus(Vector(-30, 0)),
        "saddle_rails": frame.saddle.plus(Vector(-80, -50)), "rack_tail": Vector(-230, 2 * radius + 20),
        "frame": frame.between(frame.seat_cluster, frame.head_bottom, 0.5),
    }  # fmt: skip
    return places[spot] if spot in places else frame.between(frame.seat_cluster, frame.head_bottom, 0.5)


def bounds(fixtures: list[Fixture], lever: Callable[[Fixture], float]) -> tuple[float, float]:
    """Least and most that fixtures count for anywhere along the road: vessels empty for the one and full for the other [kg]."""
    if not fixtures:
        return 0.0, 0.0
    marks = sorted({f.from_km for f in fixtures} | {f.to_km for f in fixtures if np.isfinite(f.to_km)})
    between = [(a + b) / 2 for a, b in zip(marks, [*marks[1:], marks[-1] + 2], strict=True)]
    least = most = None
    for km in [*marks, *between]:
        there = [f for f in fixtures if f.from_km <= km <= f.to_km]
        empty, full = (sum(kg * lever(f) for f, kg in zip(there, kgs, strict=True)) for kgs in (
            [f.empty_kg for f in there], [f.full_kg for f in there]))  # fmt: skip
        least = min(empty, full) if least is None else min(least, empty, full)
        most = max(empty, full) if most is None else max(most, empty, full)
    return least or 0.0, most or 0.0


def clashes_of(bike: Bike, frame: Frame, boxes: dict[str, Box], fixtures: list[Fixture]) -> Iterator[Clash]:
    """Clamps that find no room, and what bags hide or press."""
    fixed = [f for f in fixtures if not f.on_body and f.place.spot is not None]
    yield from _crowded(fixed)
    for fixture in fixed:
        yield from _hidden(bike, frame, boxes, fixture)


def _crowded(fixed: list[Fixture]) -> Iterator[Clash]:
    for spot, room in SPOT_ROOM_MM.items():
        there = [f for f in fixed if f.place.spot == spot]
        for km in sorted({f.from_km for f in there}):
            now = [f for f in there if f.from_km <= km < f.to_km]
            wide = sum((f.place.width_mm or CLAMP_MM) * f.thing.count for f in now)
            if wide > room:
                yield Clash(
                    rule="crowded", carrier_id=None, beyond_mm=wide - room,
                    sentence=say("{things} find no room {spot}.", things=" and ".join(f.thing.name for f in now),
                                 spot=SPOT_WORDS[spot]),
                    reason=say("Together they are {wide} wide, there is {room}.", wide=mm(wide), room=mm(room)),
                )  # fmt: skip
                break


def _hidden(bike: Bike, frame: Frame, boxes: dict[str, Box], fixture: Fixture) -> Iterator[Clash]:
    """A lamp behind a bag, and what stands on the bar lower than the bag before it."""
    spot, role = fixture.place.spot, fixture.thing.role
    lamp = isinstance(role, Device) and role.light
    for carrier in bike.carriers:
        box, kind = boxes[carrier.id], KINDS[carrier.kind]
        if kind.anchor == "bar" and spot in OF_BAR:
            above = fixture.place.height_mm or LAMP_ABOVE_BAR_MM
            falls = BEAM_FALLS * (box.x1 - frame.bar.x) if lamp else 0.0
            over = box.y1 + falls - (frame.bar.y + above)
            words = "{bag} hides {thing}." if lamp else "{bag} stands in the way of {thing}."
        elif kind.anchor == "bar" and spot == "fork_crown" and lamp:
            over, words = fixture.at.y - box.y0, "{bag} hides {thing}."
        elif (
            lamp
            and spot in BEHIND
            and carrier.side == "middle"
            and box.x0 < fixture.at.x - HIDES_MM
            and box.x1 < frame.saddle.x + 200
        ):
            over, words = min(box.y1 - fixture.at.y, fixture.at.y - box.y0), "{bag} hides {thing}."
        else:
            continue
        if over > HIDES_MM:
            yield Clash(
                rule="hidden", carrier_id=carrier.id, thing_id=fixture.thing.id, beyond_mm=over,
                sentence=say(words, bag=carrier.name, thing=fixture.thing.name),
                reason=say("By {over}, as it is drawn: put it {where}, or take a lower bag.", over=mm(over),
                           where="on the bag or lower down" if spot in BEHIND else "higher, or on a longer arm"),
            )  # fmt: skip
