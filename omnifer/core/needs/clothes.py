"""Clean and dry: pieces worn and washed, day by day, against how many there are."""

import math

import numpy as np

from omnifer.core.model.assessment import Day
from omnifer.core.model.kit import ABOARD, Thing
from omnifer.core.model.needs import ClothesDay, Wardrobe
from omnifer.core.model.people import Rider
from omnifer.core.model.road import Stop
from omnifer.core.model.roles import Garment, Piece
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs import night_stops
from omnifer.core.physics.drying import drying_hours

PIECES: tuple[Piece, ...] = ("shirt", "shorts", "underwear", "socks")


def wardrobes(tour: TourSheet, days: list[Day]) -> list[Wardrobe]:
    """Every rider's pieces of each kind along the tour; empty where nothing is said to be a garment.

    One of each kind is on the rider at the start and counted with the body, unless a thing of that kind is said to be worn.
    """
    washing = [_washes(tour, day, stops) for day, stops in zip(days, night_stops(tour, days), strict=True)]
    found = []
    for rider in tour.riders:
        for piece in PIECES:
            mine = [t for t in tour.located if isinstance(t.role, Garment) and t.role.piece == piece and t.rider_id == rider.id]
            if mine and days:
                found.append(_wardrobe(rider, piece, mine, days, washing))
    return found


def _washes(tour: TourSheet, day: Day, stops: list[Stop]) -> bool:
    """Whether clothes are washed in the evening: by hand as the rider says, or at a laundry where the night is spent."""
    every = tour.stores.wash_every_days
    if every is not None and day.number % every == 0:
        return True
    return any("laundry" in stop.services for stop in stops)


def _wardrobe(rider: Rider, piece: Piece, mine: list[Thing], days: list[Day], washing: list[bool]) -> Wardrobe:
    worn = any(place.how == "worn" for thing in mine for _, _, place in thing.stretches())
    at_start = np.array([days[0].from_km])
    owned = sum(thing.count for thing in mine if thing.is_how(ABOARD, at_start)[0]) + (0 if worn else 1)
    takes_h = max(thing.role.dries_h for thing in mine if isinstance(thing.role, Garment))
    clean, dirty, drying, told = owned, 0, list[tuple[int, int]](), list[ClothesDay]()
    for day, washes in zip(days, washing, strict=True):
        clean += sum(n for ready, n in drying if ready <= day.number)
        drying = [(ready, n) for ready, n in drying if ready > day.number]
        told.append(ClothesDay(day=day.number, clean=clean, washed=washes))
        if clean:
            clean, dirty = clean - 1, dirty + 1
        if washes and dirty:
            drying.append((day.number + nights_to_dry(takes_h, day) + 1, dirty))
            dirty = 0
    return Wardrobe(rider_id=rider.id, piece=piece, owned=owned, thing_ids=[thing.id for thing in mine], days=told)


def nights_to_dry(takes_h: float, day: Day) -> int:
    """Days and nights until what was washed in the evening is dry, in the mean air of the day: hung up, and on the moving rack,
    where an hour counts double."""
    hours = float(drying_hours(takes_h, (day.mean_min_c + day.mean_max_c) / 2, day.humidity_pct, 0.0))
    return max(1, math.ceil(hours / (24 + day.riding_hours)))
