"""What the supplies are asked about: the tour as it is ridden."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.kit import ABOARD, Thing
from omnifer.core.model.road import Stop
from omnifer.core.model.roles import FuelVessel, Stove, UsedUp
from omnifer.core.model.tour import TourSheet
from omnifer.core.road import arrivals
from omnifer.core.road.arrivals import Visit
from omnifer.core.road.climate import Climate
from omnifer.core.road.days import Days
from omnifer.core.road.light import Light
from omnifer.core.road.pace import Pace
from omnifer.core.road.profile import Profile
from omnifer.core.supplies.carried import Array

SNOW_REACHES_KM = 40.0
"""As far around a stop whose water is snow there is snow to camp on [km]; practice."""


@dataclass(frozen=True)
class Ride:
    """The tour as it is ridden, for what supplies ask; arrays are over the nodes of the road."""

    tour: TourSheet
    nodes: Profile
    climate: Climate
    riding_c: Array
    """Air on a hot day in the hour in which one rides there [°C]."""
    pace: Pace
    days: Days
    night_stops: list[Stop | None]
    """The stop of each night, None for a camp away from stops."""
    visits: dict[str, Visit]
    watch: arrivals.Watch
    suns: list[Light]
    """Of each riding day."""
    vessels: list[tuple[Thing, int]]
    """Things on board that hold a supply, and how many of each."""

    def stops(self) -> list[Stop]:
        """The stops that are visited, in the order of the road."""
        return self._stops

    @cached_property
    def _stops(self) -> list[Stop]:
        return sorted((visit.stop for visit in self.visits.values()), key=lambda stop: stop.at_km)

    def rests_km(self) -> Array:
        """Where each night is spent: at the kilometre of its stop, or of the camp."""
        nights = zip(self.days.km[1:-1].tolist(), self.night_stops, strict=True)
        return np.array([km if stop is None else stop.at_km for km, stop in nights])

    def melts(self, km: float) -> bool:
        """Whether a stove that is on board there melts snow, with a vessel of its fuel where any fuel is told of."""
        vessels = self.things(FuelVessel)
        burns = {role.burns for role in (t.role for t in vessels if self.aboard(t, km)) if isinstance(role, FuelVessel)}
        stoves = [t.role for t in self.things(Stove) if self.aboard(t, km)]
        return any(isinstance(role, Stove) and (not vessels or role.burns in burns) for role in stoves)

    @staticmethod
    def aboard(thing: Thing, km: float) -> bool:
        """Whether a thing is on board at a place, also where it comes or goes."""
        return not thing.where or any(a <= km <= b and place.how in ABOARD for a, b, place in thing.stretches())

    @cached_property
    def in_snow(self) -> NDArray[np.bool_]:
        """Whether each night is spent where snow is the water: at such a stop, or in a camp not far from one."""
        km = np.array([stop.at_km for stop in self._stops])
        snow = np.array([stop.water == "snow" for stop in self._stops], dtype=bool)

        def white(night_km: float, stop: Stop | None) -> bool:
            if stop is not None and stop.water != "none":
                return stop.water == "snow"
            return bool((np.abs(km[snow] - night_km) <= SNOW_REACHES_KM).any())

        nights = zip(self.days.km[1:-1].tolist(), self.night_stops, strict=True)
        return np.array([white(at, stop) for at, stop in nights], dtype=bool)

    def at_nights(self, along: Array) -> Array:
        """What is so where each night is spent, of something along the road."""
        return np.interp(self.days.km[1:-1], self.nodes.km, along)

    def things(self, role: type) -> list[Thing]:
        """The things of the kit with a role, that are on board anywhere."""
        if role not in self._by_role:
            self._by_role[role] = [thing for thing in self._with_roles if isinstance(thing.role, role)]
        return self._by_role[role]

    @cached_property
    def _by_role(self) -> dict[type, list[Thing]]:
        return {}

    @cached_property
    def _with_roles(self) -> list[Thing]:
        found = [thing for thing in self.tour.located if thing.role is not None]
        return [t for t in found if not t.where or any(place.how in ABOARD for _, _, place in t.stretches())]

    def treated_by_pieces(self) -> Thing | None:
        """What is used up by the litre that it treats: tablets, drops."""
        return next((t for t in self.things(UsedUp) if isinstance(t.role, UsedUp) and t.role.per == "litre_treated"), None)

    def open_shops(self, kinds: tuple[str, ...]) -> list[Stop]:
        """Stops whose shop is of one of these kinds and open when the rider is there."""
        return [stop for stop in self._open if stop.shop in kinds]

    @cached_property
    def _open(self) -> list[Stop]:
        road, usual, shops = self.tour.road, self.tour.practice, (s for s in self._stops if s.shop != "none")
        return [stop for stop in shops if arrivals.shop_shut(self.visits[stop.id], road.start_h(stop.at_km), usual) is None]

    def capacity(self, chosen: Iterable[tuple[Thing, int]], km: Array) -> Array:
        """What some vessels hold on each stretch between places, those that are on board all along it [kg]."""
        held = np.zeros(km.size - 1)
        for thing, count in chosen:
            there = np.ones(held.size, dtype=bool)
            if thing.comes_and_goes:
                stretches = [(a, b) for a, b, place in thing.stretches() if place.how in ABOARD]
                there = np.array([any(a <= x and y <= b for a, b in stretches) for x, y in pairwise(km.tolist())])
            held += thing.holds_kg * count * there
        return held
