"""Places by name: where they lie, and how many people live there."""

import math
import unicodedata
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import ArrayLike, NDArray

from omnifer.core.physics import geodesy
from omnifer.core.physics.geodesy import EARTH_KM, KM_PER_DEGREE
from omnifer.core.world.cells import DATA

SOURCE = "GeoNames"
"""Places of 500 people and more, and seats of administration; geonames.org, CC BY 4.0."""
ROW = np.dtype([("lat", "<u2"), ("lon", "<u2"), ("people", "u1"), ("country", "u1"), ("bytes", "u1")])
STEP = 65535
"""Steps of a degree in which a place lies: some 2 m."""
MOST_PEOPLE = 5e7
"""No place has more; sizes are packed up to it."""
MOST_FOUND = 20
"""Of places by name."""
NAMED_KM = 25.0
"""A spot is called by a place at most so far away [km]; practice."""
LARGER, PEOPLE_PER_KM2 = 4.0, 3000.0
"""A quarter has at most a quarter of the people, and a town so many on a square kilometre [-, 1/km²]; practice."""

Array = NDArray[np.float64]
Indices = NDArray[np.intp]


def degree_of(lat_deg: ArrayLike, lon_deg: ArrayLike) -> Indices:
    """The square degree in which each place lies, counted from the south pole and the date line."""
    row = np.clip(np.floor(np.asarray(lat_deg) + 90), 0, 179).astype(np.intp)
    return np.asarray(row * 360 + np.floor((np.asarray(lon_deg) + 180) % 360), dtype=np.intp)


def pack_people(people: ArrayLike) -> NDArray[np.uint8]:
    """A population as a step that grows with it: 7 % [-]."""
    return np.asarray(np.rint(np.log1p(np.asarray(people, dtype=float)) / np.log1p(MOST_PEOPLE) * 255), dtype=np.uint8)


def unpack_people(steps: NDArray[np.uint8]) -> Array:
    """The reverse of `pack_people`."""
    return np.asarray(np.expm1(steps / 255 * np.log1p(MOST_PEOPLE)))


@dataclass(frozen=True)
class Place:
    """A place of the gazetteer.

    Attributes
    ----------
    country : str
        ISO 3166 code.
    people : int
        Rounded to two figures; 0 where nobody says it.
    """

    name: str
    country: str
    lat_deg: float
    lon_deg: float
    people: int


@cache
def _rows() -> NDArray[np.void]:
    return np.asarray(np.load(DATA / "places.npy", mmap_mode="r"))


@cache
def _first_of_degree() -> NDArray[np.int32]:
    """Where the places of each square degree begin; one more at the end."""
    return np.asarray(np.load(DATA / "place_degrees.npy"))


@cache
def _names() -> tuple[bytes, NDArray[np.int64]]:
    """All names one after the other, and where each begins."""
    return (DATA / "place_names.bin").read_bytes(), np.concatenate([[0], np.cumsum(_rows()["bytes"], dtype=np.int64)])


@cache
def _countries() -> list[str]:
    return (DATA / "countries.txt").read_text().split()


def _positions(rows: Indices) -> tuple[Array, Array]:
    """Latitude and longitude of places by their rows [°, °]."""
    degree = np.searchsorted(_first_of_degree(), rows, side="right") - 1
    table = _rows()[rows]
    return degree // 360 - 90 + table["lat"] / STEP, degree % 360 - 180 + table["lon"] / STEP


def _place(row: int) -> Place:
    table, (names, begins) = _rows()[row], _names()
    lat, lon = _positions(np.array([row]))
    return Place(
        name=names[begins[row] : begins[row + 1]].decode(),
        country=_countries()[table["country"]],
        lat_deg=round(float(lat[0]), 5),
        lon_deg=round(float(lon[0]), 5),
        people=int(float(f"{float(unpack_people(table['people'])):.2g}")),
    )


def beside(lat_deg: Array, lon_deg: Array, within_km: float) -> list[tuple[Place, int, float]]:
    """The places near a line of points: each with the index of the point nearest to it, and how far away it lies [km].

    Parameters
    ----------
    lat_deg, lon_deg : array, shape (points,)
        The line, its points closer together than `within_km` [°].
    within_km : float
        From the nearest point [km]; at most some 100.
    """
    return [
        (_place(row), at, away) for row, at, away in zip(*(of.tolist() for of in _near(lat_deg, lon_deg, within_km)), strict=True)
    ]


def _near(lat_deg: Array, lon_deg: Array, within_km: float) -> tuple[Indices, Indices, Array]:
    """The same as rows of the table."""
    reach = np.arange(-1, 2)
    here = np.unique(degree_of(lat_deg, lon_deg))
    row, column = here // 360, here % 360
    # Near the poles a degree of longitude is short: more of them are looked at.
    narrow = np.cos(np.radians(np.minimum(np.abs(row - 89.5) + 1.5, 89)))
    wide = np.ceil(within_km / 111.0 / narrow).astype(int)
    about = {
        int(r * 360 + (c + east) % 360)
        for r0, c, w in zip(row.tolist(), column.tolist(), wide.tolist(), strict=True)
        for r in np.clip(r0 + reach, 0, 179).tolist()
        for east in range(-w, w + 1)
    }
    first = _first_of_degree()
    rows = np.concatenate([np.arange(first[d], first[d + 1]) for d in sorted(about)] or [np.zeros(0, dtype=int)])
    if not rows.size:
        return rows, rows, rows.astype(float)
    from scipy.spatial import cKDTree  # half a second that only tracks with places cost

    places = geodesy.on_sphere(*_positions(rows))
    distance, at = cKDTree(geodesy.on_sphere(lat_deg, lon_deg)).query(places, distance_upper_bound=within_km / EARTH_KM)
    near = np.flatnonzero(np.isfinite(distance))
    return rows[near], at[near], distance[near] * EARTH_KM


def name_near(lat_deg: float, lon_deg: float, within_km: float = NAMED_KM) -> str | None:
    """What people would call where one is: the place that draws most, by people over distance squared; None far from all."""
    rows, _, away = _near(np.array([lat_deg]), np.array([lon_deg]), within_km)
    if not rows.size:
        return None
    return _place(int(rows[np.argmax((unpack_people(_rows()["people"][rows]) + 1) / (1 + away) ** 2)])).name


def houses_km(people: int) -> float:
    """How far the houses of a place reach from its middle, were it round [km]."""
    return math.sqrt(people / (math.pi * PEOPLE_PER_KM2))


def part_of_larger(place: Place, others: Iterable[Place]) -> bool:
    """Whether a place lies within the houses of one that is several times as large: a quarter of it, by what is common."""
    return any(
        other.people >= LARGER * max(place.people, 1)
        and abs(other.lat_deg - place.lat_deg) * KM_PER_DEGREE < (reach := houses_km(other.people))
        and _apart_km(place, other) < reach
        for other in others
    )


def _apart_km(one: Place, other: Place) -> float:
    """Good for tens of kilometres [km]."""
    east = (one.lon_deg - other.lon_deg + 180) % 360 - 180
    narrow = math.cos(math.radians((one.lat_deg + other.lat_deg) / 2))
    return math.hypot(one.lat_deg - other.lat_deg, east * narrow) * KM_PER_DEGREE


def folded(text: str) -> str:
    """A name as it is looked for: small letters without marks."""
    apart = unicodedata.normalize("NFKD", text.casefold())
    return "".join(letter for letter in apart if not unicodedata.combining(letter)).strip()


@cache
def _folded_names() -> str:
    """All names as they are looked for, a line each."""
    names, begins = _names()
    return (
        "\n"
        + "\n".join(folded(names[a:b].decode()) for a, b in zip(begins[:-1].tolist(), begins[1:].tolist(), strict=True))
        + "\n"
    )


def search(text: str, most: int = MOST_FOUND) -> list[Place]:
    """The places that are called so, or begin so: the whole name first, larger ones before smaller ones."""
    wanted, names = folded(text), _folded_names()
    if not wanted:
        return []
    found: list[tuple[bool, int, int]] = []
    at, line, counted = names.find("\n" + wanted), 0, 0
    while at >= 0:
        line += names.count("\n", counted, at + 1)
        counted = at + 1
        found.append((names[at + 1 + len(wanted)] != "\n", -int(_rows()[line - 1]["people"]), line - 1))
        at = names.find("\n" + wanted, at + 1)
    return [_place(row) for _, _, row in sorted(found)[:most]]
