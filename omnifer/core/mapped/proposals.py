"""A map beside a tour: which places are new, changed or gone, and what the ground is like.

What the rider said stays; what was only guessed, or came from a map before, follows the map.
"""

import datetime as dt
from collections.abc import Callable, Sequence
from typing import Any

import numpy as np

from omnifer.core.mapped import ground, tags
from omnifer.core.mapped.groups import LONE_KM, Found, Settlement, grouped
from omnifer.core.mapped.had import had_at, parts_of
from omnifer.core.mapped.reading import IN_GAPS_KM, Reading
from omnifer.core.model.assessment import Gap
from omnifer.core.model.mapped import MappedRoad, MappedStop
from omnifer.core.model.road import STOP_FIELDS, Mapped, Road, Stop, StopPart, SurfaceStretch
from omnifer.core.physics import geodesy
from omnifer.core.physics.geodesy import EARTH_KM
from omnifer.core.road.beside import OWN_STOP_KM, places_beside, unused
from omnifer.core.road.profile import Profile
from omnifer.core.road.symbols import NEAREST_DETOUR_KM
from omnifer.core.world import expected

SEEN_KM = 2.0
"""A map that has anything so near covers the place [km]; practice."""
MOST_NEW = 1500
"""Of new stops; beyond it those that have least are left out."""
STOPS_FOR: frozenset[StopPart] = frozenset({"water", "shop", "fuels", "bike_shop", "shelter"})
"""What one stops for by itself, outside of settlements."""
UNSAID = {name: Stop.model_fields[name].default for names in STOP_FIELDS.values() for name in names}
"""Fields of a stop of which nothing is said."""
MOST_IDS = 200
"""Places of a map that one stop is made of; a city has more, and needs no more."""


def proposals(
    reading: Reading, profile: Profile, road: Road, gaps: Sequence[Gap], passed_on: Callable[[float], dt.date], today: dt.date
) -> MappedRoad:
    """What a map has along a road, beside what the tour has.

    Parameters
    ----------
    gaps : sequence of Gap
        Where what lies farther off is worth its detour.
    passed_on : callable
        The date on which a kilometre is ridden: what is open then.
    today : date
        The age of a map that does not tell its own.
    """
    on = reading.on or today
    towns, lone = grouped(reading, profile, gaps)
    beside = _Beside(reading, profile, road, passed_on, on, [town for town, _ in towns])
    met: dict[str, list[Found]] = {}
    fresh: list[tuple[Settlement | None, list[Found]]] = []
    for town, found in [*towns, *((None, group) for group in lone)]:
        own = _own_stop(road.stops, town, found)
        if own is None:
            fresh.append((town, found))
        else:
            met.setdefault(own.id, []).extend(found)
    stops = [one for stop in road.stops if (one := beside.changed(stop, met[stop.id]) if stop.id in met else beside.gone(stop))]
    new = [one for town, found in fresh if (one := beside.new(town, found))]
    remarks = []
    if len(new) > MOST_NEW:
        remarks.append(f"{len(new) - MOST_NEW} places that have least were left out.")
        new = sorted(new, key=lambda one: -len(one.parts))[:MOST_NEW]
    surfaces, known = _ground(reading, profile, road, on)
    held = [(hazard.from_km, hazard.to_km) for hazard in road.hazards if hazard.kind == "tunnels"]
    sailed = [(transfer.from_km, transfer.to_km) for transfer in road.transfers]
    return MappedRoad(
        stops=sorted([*stops, *new], key=lambda one: one.at_km), surfaces=surfaces, ground_known=known,
        tunnels=tuple(t for t in ground.tunnels_under(profile, reading.ways) if not _meets(t.from_km, t.to_km, held)),
        ferries=tuple(f for f in ground.ferries_under(profile, reading.ways) if not _meets(f.from_km, f.to_km, sailed)),
        looked_at=len(reading.features), on=on, credit=reading.credit, remarks=remarks,
    )  # fmt: skip


class _Beside:
    """One map beside one tour: what each place of it means for the stops."""

    def __init__(
        self, reading: Reading, profile: Profile, road: Road, passed_on: Callable[[float], dt.date], on: dt.date,
        towns: Sequence[Settlement],
    ) -> None:  # fmt: skip
        self._reading, self._profile, self._passed_on, self._on = reading, profile, passed_on, on
        self._rooms = road.rooms_only
        self._used = {stop.id for stop in road.stops}
        self._named = [(stop.at_km, stop.name) for stop in road.stops] + [(town.at_km, town.name) for town in towns]
        self._named += [(at_km, place.name) for place, at_km, _ in places_beside(profile.nodes)]

    def new(self, town: Settlement | None, found: list[Found]) -> MappedStop | None:
        """A stop that the tour does not have; None where nobody would stop for it."""
        first = min(found, key=lambda one: one.off_km)
        at_km = town.at_km if town and town.off_km <= IN_GAPS_KM else first.at_km
        had, words = had_at(found, self._passed_on(at_km), self._rooms)
        parts = parts_of(had)
        if not parts or (town is None and not STOPS_FOR.intersection(parts)):
            return None
        off = min(max(town.off_km - town.reach_km, 0.0) if town else first.off_km, first.off_km)
        identifier = unused(f"map-{round(at_km)}", self._used)
        self._used.add(identifier)
        called = town.name if town else next((one.name for one in found if one.name), "")
        stop = Stop.model_validate({
            "id": identifier, "name": called or _lone_name(words.pop(0), self._named, at_km), "at_km": round(at_km, 2),
            "detour_km": _off(off), **_by_size(town, parts), **had, "mapped": self._mapped(found, parts),
        })  # fmt: skip
        return MappedStop(
            state="new",
            name=stop.name,
            at_km=stop.at_km,
            off_km=round(off, 1),
            was=None,
            stop=stop,
            words=tuple(words),
            parts=parts,
        )

    def changed(self, stop: Stop, found: list[Found]) -> MappedStop | None:
        """What the map has otherwise than a stop of the tour; None where the rider's word or the map's own stands already."""
        had, words = had_at(found, self._passed_on(stop.at_km), self._rooms)
        before = stop.mapped.parts if stop.mapped else ()
        instead: dict[str, Any] = {}
        otherwise: list[StopPart] = []
        told: list[StopPart] = []
        for part, fields in STOP_FIELDS.items():
            now, empty = (
                {name: getattr(stop, name) for name in fields},
                {name: Stop.model_fields[name].default for name in fields},
            )
            of_map = empty | {name: had[name] for name in fields if name in had}
            main, mine = fields[0], part not in stop.guessed and part not in before
            if main not in had:
                if part not in before or part in stop.guessed:
                    continue
            elif mine and main in tags.MANY and now[main]:
                # More of it besides what the rider said, who has the last word on all of it from then on.
                of_map = {main: tuple(dict.fromkeys((*now[main], *had[main])))}
            elif mine and any(now[name] not in (empty[name], of_map[name]) for name in fields):
                continue
            else:
                told.append(part)
            if of_map != now:
                instead |= of_map
                otherwise.append(part)
        if not otherwise:
            return None
        guessed = tuple(part for part in stop.guessed if part not in told)
        stop_now = stop.model_copy(update={**instead, "mapped": self._mapped(found, tuple(told)), "guessed": guessed})
        return MappedStop(
            state="changed", name=stop.name, at_km=stop.at_km, off_km=round(min(one.off_km for one in found), 1), was=stop.id,
            stop=stop_now, words=tuple(words), parts=tuple(otherwise),
        )  # fmt: skip

    def gone(self, stop: Stop) -> MappedStop | None:
        """A stop that came from a map which has nothing there any more."""
        if stop.mapped is None or not stop.mapped.parts or not _covered(self._reading, self._profile, stop.at_km):
            return None
        fields = [name for part in stop.mapped.parts for name in STOP_FIELDS[part]]
        left = stop.model_copy(update={name: UNSAID[name] for name in fields} | {"mapped": None})
        own = any(getattr(left, names[0]) != UNSAID[names[0]] for part, names in STOP_FIELDS.items() if part not in left.guessed)
        return MappedStop(
            state="gone", name=stop.name, at_km=stop.at_km, off_km=stop.detour_km, was=stop.id, stop=left if own else None,
            words=(), parts=stop.mapped.parts,
        )  # fmt: skip

    def _mapped(self, found: list[Found], parts: tuple[StopPart, ...]) -> Mapped:
        ids = tuple(dict.fromkeys(one.feature.id for one in found))[:MOST_IDS]
        return Mapped(ids=ids, on=self._on, credit=self._reading.credit, parts=parts)


def _by_size(town: Settlement | None, parts: tuple[StopPart, ...]) -> dict[str, Any]:
    """What the map does not say of a settlement: what is mostly had where so many live."""
    if town is None or town.people is None:
        return {}
    size, guessed = expected.parts_of(town.people), tuple(part for part in expected.GUESSED if part not in parts)
    return {"people": town.people, "guessed": guessed} | {part: size[part] for part in guessed if part in size}


def _own_stop(stops: Sequence[Stop], town: Settlement | None, found: list[Found]) -> Stop | None:
    """The stop of the tour that this is: by what it came from before, else by where it lies."""
    ids = {one.feature.id for one in found}
    for stop in stops:
        if stop.mapped is not None and ids.intersection(stop.mapped.ids):
            return stop
    at = town.at_km if town else found[0].at_km
    reach = OWN_STOP_KM if town else LONE_KM
    near = [
        stop for stop in stops
        if abs(stop.at_km - at) <= reach
        and (town is not None or abs(stop.detour_km - _off(found[0].off_km)) <= NEAREST_DETOUR_KM)
    ]  # fmt: skip
    return min(near, key=lambda stop: abs(stop.at_km - at), default=None)


def _off(off_km: float) -> float:
    return round(off_km, 1) if off_km >= NEAREST_DETOUR_KM else 0.0


def _lone_name(words: str, named: Sequence[tuple[float, str]], at_km: float) -> str:
    """What a place without a name is called: by the nearest that has one."""
    what = words.removeprefix("a ").removeprefix("an ")
    near = min(named, key=lambda place: abs(place[0] - at_km), default=None)
    if near is None:
        return what[0].upper() + what[1:]
    away = at_km - near[0]
    where = f"{abs(away):.0f} km {'past' if away > 0 else 'before'}" if abs(away) >= 1 else "at"
    return f"{what[0].upper()}{what[1:]} {where} {near[1]}"


def _covered(reading: Reading, profile: Profile, km: float) -> bool:
    """Whether the map would have what lies there."""
    position = profile.position_at(km)
    if position is None:
        return False
    if reading.seen is None:
        return True
    there = geodesy.on_sphere(*(np.array([axis]) for axis in position))
    seen = geodesy.on_sphere(*reading.seen)
    return bool(seen.size) and float(np.min(np.linalg.norm(seen - there, axis=1))) * EARTH_KM <= SEEN_KM


def _ground(
    reading: Reading, profile: Profile, road: Road, on: dt.date
) -> tuple[tuple[SurfaceStretch, ...] | None, float]:  # fmt: skip
    """All surfaces as they would be with the map's, None where nothing would be otherwise; and how much of the road it knows."""
    known = ground.known_km(profile, reading.ways) / profile.length_km if profile.length_km else 0.0
    if not known:
        return None, 0.0
    own = [stretch for stretch in road.surfaces if stretch.mapped is None]
    told = ground.surfaces_under(profile, reading.ways, on)
    kept = [s for s in road.surfaces if s.mapped is not None and not _covered(reading, profile, (s.from_km + s.to_km) / 2)]
    # What the rider said stays, and what the map has beside it is cut there.
    rest = [piece for stretch in told for piece in _outside(stretch, [(s.from_km, s.to_km) for s in (*own, *kept)])]
    # Later ones lie over earlier ones: the rider's own over the map's.
    whole = (*sorted([*kept, *rest], key=lambda stretch: stretch.from_km), *own)
    same = _same_ground(whole, road.surfaces)
    return None if same else whole, round(min(known, 1.0), 3)


def _same_ground(one: Sequence[SurfaceStretch], other: Sequence[SurfaceStretch]) -> bool:
    """Whether two grounds differ by nothing worth a line."""
    pairs = zip(*(sorted(stretches, key=lambda stretch: stretch.from_km) for stretches in (one, other)), strict=False)
    return len(one) == len(other) and all(
        a.surface == b.surface and max(abs(a.from_km - b.from_km), abs(a.to_km - b.to_km)) < ground.SHORTEST_KM for a, b in pairs
    )


def _outside(stretch: SurfaceStretch, held: Sequence[tuple[float, float]]) -> list[SurfaceStretch]:
    """What of a stretch lies outside of others."""
    pieces = [(stretch.from_km, stretch.to_km)]
    for start, end in held:
        pieces = [
            (a, b) for low, high in pieces for a, b in ((low, min(high, start)), (max(low, end), high)) if b > a
        ] if any(low < end and start < high for low, high in pieces) else pieces  # fmt: skip
    long = [(a, b) for a, b in pieces if b - a >= min(ground.SHORTEST_KM, stretch.to_km - stretch.from_km)]
    return [stretch.model_copy(update={"from_km": a, "to_km": b}) for a, b in long]


def _meets(from_km: float, to_km: float, others: Sequence[tuple[float, float]]) -> bool:
    return any(from_km < end and start < to_km for start, end in others)
