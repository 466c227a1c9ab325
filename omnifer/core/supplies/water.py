"""Water: what riding and dry camps take, which sources are sure when the rider is there, and what treating it takes."""

from dataclasses import dataclass
from math import ceil

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.kit import Thing
from omnifer.core.model.people import Rider
from omnifer.core.model.practice import USUAL, Practice
from omnifer.core.model.road import Stop
from omnifer.core.model.roles import Treatment
from omnifer.core.model.stores import Stores
from omnifer.core.physics import body
from omnifer.core.road import arrivals
from omnifer.core.road.arrivals import Visit
from omnifer.core.road.climate import Climate
from omnifer.core.supplies.ride import Ride
from omnifer.core.supplies.supply import Demand, Kind, Supply, nights_between, places_of, planned

Array = NDArray[np.float64]
KIND = Kind.carried("water")


def counts(stop: Stop | None, visits: dict[str, Visit], melts: bool = False) -> bool:
    """Whether a stop's water is sure when the rider is there; snow is, where it can be melted."""
    if stop is None or stop.water == "none" or stop.id not in visits:
        return False
    return arrivals.water_fails(stop, visits[stop.id].date, melts) is None


def along(
    hours: Array, climate: Climate, riding_c: Array, riders: tuple[Rider, ...], usual: Practice = USUAL
) -> tuple[Array, Array]:
    """Water that the whole party needs from the start to each node of the road [l, l].

    First what is expected to be drunk, then what should be carried for it, cautiously. The second is a size for vessels,
    never a drinking target: drinking more than is lost is dangerous too.

    Parameters
    ----------
    hours, riding_c : numpy.ndarray, shape (nodes,)
        Riding hours from the start [h], and air in the hour in which each node is passed [°C].
    """
    drunk, bottled = np.zeros(hours.size), np.zeros(hours.size)
    damp = climate.humidity_at(riding_c)
    for rider in riders:
        loss = body.sweat_loss(riding_c, damp, rider.all_day_power_w)
        drunk += usual.water_times * np.maximum(usual.drunk_floor_l_per_h, loss)
        bottled += usual.water_times * np.maximum(usual.bottle_floor_l_per_h, usual.carry_factor * loss)
    spent = np.diff(hours)
    drunk, bottled = (np.concatenate([[0.0], np.cumsum(rate[:-1] * spent)]) for rate in (drunk, bottled))
    return drunk, bottled


def dry_camp(riders: int, usual: Practice, stores: Stores = Stores()) -> float:  # noqa: B008
    """Water for one night away from a source, less where little is cooked or nothing washed [l]."""
    spared = {"none": 1.0, "boil": 0.5}.get(stores.cooking or "cook", 0.0) * usual.camp_cooking_l
    spared += 0.0 if stores.washes else usual.camp_washing_l
    return max(usual.dry_camp_l - spared, 0.0) * riders


def plan(ride: Ride) -> Supply:
    """Water at the sources that count when the rider is there; a dry camp takes its own at once, a dry rest day its own too."""
    tour, usual, stores = ride.tour, ride.tour.practice, ride.tour.stores
    sources = [stop for stop in ride.stops() if counts(stop, ride.visits, ride.melts(stop.at_km))]
    refills = places_of(ride, KIND.name, sources)
    nights_km, rests, riders = ride.rests_km(), ride.days.rests, len(tour.riders)
    melts = np.array([ride.melts(km) for km in nights_km.tolist()], dtype=bool)
    sure = [counts(stop, ride.visits, melt) for stop, melt in zip(ride.night_stops, melts.tolist(), strict=True)]
    dry = ~np.array(sure, dtype=bool) & ~(ride.in_snow & melts)
    camps = (1 + rests) * dry
    drunk, bottled = along(ride.pace.hours, ride.climate, ride.riding_c, tour.riders, usual)
    taken: Array = camps * dry_camp(riders, usual, stores) + rests * dry * usual.dry_day_l * riders
    reserve = np.maximum(np.diff(np.interp(refills.km, ride.nodes.km, bottled - drunk)), 0)
    seasonal = np.array([stop is not None and stop.water == "seasonal" for stop in refills.stops[1:]], dtype=bool)
    reserve += usual.seasonal_reserve * seasonal * np.diff(np.interp(refills.km, ride.nodes.km, drunk))
    handling = np.array(
        [
            treatment_of(ride, km).minutes_per_l if stop is not None and stop.treat_water else 0.0
            for stop, km in zip(refills.stops, refills.km.tolist(), strict=True)
        ]
    )
    plain, salted = ([(t, n) for t, n in ride.vessels if t.holds_water_l > 0 and t.salts == salts] for salts in (False, True))
    # What has salts in it is drunk while riding; beyond that it is no use to camp and kitchen.
    drinks = np.minimum(ride.capacity(salted, refills.km), np.diff(np.interp(refills.km, ride.nodes.km, bottled)))
    capacity = ride.capacity(plain, refills.km) + drinks
    return planned(
        KIND, ride, refills, Demand(drunk, nights_km[dry], taken[dry]), nights_between(refills, nights_km, camps),
        reserve, capacity, handling=handling,
    )  # fmt: skip


@dataclass(frozen=True)
class Method:
    """How water is made fit to drink; `thing` is None where nothing on board does."""

    thing: Thing | None
    minutes_per_l: float
    wait_min: float
    boils: bool

    def minutes(self, litres: float) -> float:
        """By hand for so many litres; a press is filled a whole number of times [min]."""
        role = self.thing.role if self.thing is not None else None
        if isinstance(role, Treatment) and role.by == "press":
            litres = ceil(litres / role.litres_a_piece - 1e-9) * role.litres_a_piece
        return litres * self.minutes_per_l


def treatment_of(ride: Ride, km: float) -> Method:
    """How this party treats its water at a place, with what is on board there: the filter that takes the least time, else
    boiling, else tablets."""
    usual = ride.tour.practice
    by_hand = {
        "press": (usual.press_min_per_l, 0.0), "pump": (usual.pump_min_per_l, 0.0),
        "gravity": (usual.gravity_min_per_l, usual.gravity_wait_min), "boiling": (usual.boiling_min_per_l, 0.0),
    }  # fmt: skip
    found = []
    for thing in ride.things(Treatment):
        if not ride.aboard(thing, km):
            continue
        role = thing.role
        assert isinstance(role, Treatment)
        minutes, wait = by_hand[role.by]
        found.append(
            Method(
                thing, minutes if role.minutes_per_l is None else role.minutes_per_l,
                wait if role.wait_min is None else role.wait_min, role.by == "boiling",
            )
        )  # fmt: skip
    if found:
        return min(found, key=lambda method: (method.boils, method.minutes_per_l))
    tablets = ride.treated_by_pieces()
    if tablets is not None and ride.aboard(tablets, km):
        return Method(tablets, usual.tablet_min_per_l, usual.tablet_wait_min, boils=False)
    return Method(None, 0.0, 0.0, boils=False)


def treated(supply: Supply) -> Array:
    """Litres that are treated at each place, shape (refills,)."""
    wanted = np.array([stop is not None and stop.treat_water for stop in supply.refills.stops])
    return np.asarray(supply.taken * wanted)


def minutes_by_hand(ride: Ride, supply: Supply) -> Array:
    """What treating takes at each place, shape (refills,) [min]."""
    places = zip(supply.refills.km.tolist(), treated(supply).tolist(), strict=True)
    return np.array([treatment_of(ride, km).minutes(litres) if litres > 0 else 0.0 for km, litres in places])


def hours_at_sources(ride: Ride, supply: Supply) -> tuple[Array, Array] | None:
    """Where water is treated by hand in the course of a day, in road order, and how long in all up to there [km, h].

    Where the night is spent hands have time enough.
    """
    slept = {stop.id for stop in ride.night_stops if stop is not None}
    found = [
        (stop.at_km, minutes / 60)
        for stop, minutes in zip(supply.refills.stops, minutes_by_hand(ride, supply).tolist(), strict=True)
        if minutes > 0 and stop is not None and stop.id not in slept
    ]
    if not found:
        return None
    km, hours = zip(*found, strict=True)
    return np.array(km), np.concatenate([[0.0], np.cumsum(hours)])
