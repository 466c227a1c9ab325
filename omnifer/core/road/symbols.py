"""Waypoints as stops: what their symbol, type and name say of supplies; the words that devices and planners write (practice)."""

from collections.abc import Sequence
from typing import Any

from omnifer.core.model.road import Stop, Waypoint
from omnifer.core.road.profile import Profile

FARTHEST_WAYPOINT_KM = 20.0
"""Waypoints farther from the track are no stops of this road [km]; practice."""
NEAREST_DETOUR_KM = 0.5
"""Nearer than this a place is on the road [km]; practice."""

RULES: tuple[tuple[tuple[str, ...], dict[str, Any]], ...] = (
    (("drinking water", "water source", "fountain", "tap", "potable"), {"water": "reliable"}),
    (("spring", "well", "stream", "creek", "cistern"), {"water": "unsure", "treat_water": True}),
    (("supermarket", "grocer", "shopping", "store", "market"), {"shop": "full", "water": "reliable"}),
    (("convenience", "kiosk", "bakery", "petrol shop"), {"shop": "basic", "water": "reliable"}),
    (("restaurant", "food", "cafe", "bar"), {"services": ("meals",), "water": "reliable"}),
    (("campground", "campsite", "camping"), {"shelter": "site", "water": "reliable"}),
    (("lodging", "hotel", "hostel", "guest house", "inn"), {"shelter": "room", "water": "reliable"}),
    (("hut", "shelter", "refuge"), {"shelter": "hut"}),
    (("bike shop", "bicycle", "cycle shop"), {"bike_shop": "basic"}),
    (("gas station", "fuel", "petrol"), {"fuels": ("petrol",)}),
    (("post office",), {"services": ("post",)}),
)
MANY = ("services", "fuels")


def supplies_of(text: str) -> dict[str, Any]:
    """Fields of a stop that a waypoint's words speak of; the first rule for each field counts.

    Examples
    --------
    >>> supplies_of("Campground")
    {'shelter': 'site', 'water': 'reliable'}
    """
    words = text.lower()
    found: dict[str, Any] = {}
    for keys, supplies in RULES:
        if any(key in words for key in keys):
            for field, value in supplies.items():
                if field in MANY:
                    found[field] = (*found.get(field, ()), *value)
                else:
                    found.setdefault(field, value)
    return found


def words_of(stop: Stop) -> list[str]:
    """Words that say what a stop supplies, such that `supplies_of` reads no more into them than the stop has."""

    def has(field: str, value: Any) -> bool:
        own = getattr(stop, field)
        return set(value) <= set(own) if field in MANY else own == value

    return [keys[0] for keys, supplies in RULES if all(has(field, value) for field, value in supplies.items())]


def stops_of(waypoints: Sequence[Waypoint], profile: Profile, kept: Sequence[Stop]) -> tuple[list[Stop], int]:
    """Waypoints near the track as stops, those already there left out; and how many lie too far away."""
    known = {(stop.name, round(stop.at_km)) for stop in kept}
    used = {stop.id for stop in kept}
    stops, far = [], 0
    for number, waypoint in enumerate(waypoints, 1):
        nearest = profile.nearest(waypoint.lat_deg, waypoint.lon_deg)
        if nearest is None or nearest[1] > FARTHEST_WAYPOINT_KM:
            far += 1
            continue
        if (waypoint.name, round(nearest[0])) in known:
            continue
        identifier = f"wpt-{number}"
        while identifier in used:
            identifier += "-"
        used.add(identifier)
        off = round(nearest[1], 1) if nearest[1] >= NEAREST_DETOUR_KM else 0
        supplies = supplies_of(f"{waypoint.symbol} {waypoint.name}")
        figures = {
            "id": identifier,
            "name": waypoint.name,
            "at_km": round(nearest[0], 3),
            "detour_km": off,
            "note": waypoint.note,
        }
        stops.append(Stop.model_validate(figures | supplies))
    return stops, far
