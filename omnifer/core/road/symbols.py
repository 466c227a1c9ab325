"""Waypoints as stops: what their symbol, type and name say of supplies; the words that devices and planners write (practice)."""

import re
from collections.abc import Sequence
from typing import Any

import numpy as np

from omnifer.core.model.road import Stop, Waypoint
from omnifer.core.road.profile import Profile

FARTHEST_WAYPOINT_KM = 20.0
"""Waypoints farther from the track are no stops of this road [km]; practice."""
NEAREST_DETOUR_KM = 0.5
"""Nearer than this a place is on the road [km]; practice."""

RULES: tuple[tuple[tuple[str, ...], dict[str, Any]], ...] = (
    (("drinking water", "water source", "drinking fountain", "fountain", "tap", "potable", "trinkwasser", "brunnen",
      "wasserstelle", "eau potable", "fontaine", "agua potable", "fuente", "acqua potabile", "fontana"), {"water": "reliable"}),
    (("spring", "well", "stream", "creek", "cistern", "quelle", "bach", "source", "puits", "ruisseau", "manantial", "pozo",
      "sorgente", "pozzo", "bron"), {"water": "unsure", "treat_water": True}),
    (("supermarket", "grocery", "groceries", "shopping center", "shopping", "store", "market", "supermarkt", "lebensmittel",
      "laden", "supermarché", "épicerie", "supermercado", "tienda", "supermercato", "alimentari"),
     {"shop": "full", "water": "reliable"}),
    (("convenience store", "convenience", "kiosk", "bakery", "petrol shop", "bäckerei", "boulangerie", "panadería", "panificio"),
     {"shop": "basic", "water": "reliable"}),
    (("restaurant", "food", "cafe", "café", "bar", "gasthof", "gasthaus", "restaurante", "ristorante"),
     {"services": ("meals",), "water": "reliable"}),
    (("campground", "campsite", "camping", "zeltplatz", "campingplatz", "campeggio"), {"shelter": "site", "water": "reliable"}),
    (("lodging", "hotel", "hostel", "guest house", "guesthouse", "inn", "pension", "herberge", "auberge", "albergue", "albergo",
      "ostello", "motel", "gîte", "pensione"),
     {"shelter": "room", "water": "reliable"}),
    (("hut", "refuge", "hütte", "schutzhütte", "cabane", "refugio", "rifugio"), {"shelter": "hut", "water": "unsure"}),
    (("shelter", "bothy", "abri"), {"shelter": "hut"}),
    (("bike shop", "bicycle shop", "cycle shop", "bicycle", "fahrradladen", "vélociste"), {"bike_shop": "basic"}),
    (("gas station", "petrol station", "fuel", "petrol", "tankstelle", "station-service", "gasolinera"), {"fuels": ("petrol",)}),
    (("post office", "postamt", "bureau de poste", "correos"), {"services": ("post",)}),
)  # fmt: skip
"""Whole words of several languages; the first word of a rule is the one written."""
NOT_WHAT_IT_SOUNDS: tuple[tuple[tuple[str, ...], dict[str, Any]], ...] = (
    (("wild camping", "wild camp", "wildcamp", "free camping", "bivouac", "biwak", "dispersed camping"), {"shelter": "wild"}),
    (("outdoor shop", "outdoor store", "sports shop", "sporting goods", "camping store", "outfitter"), {"fuels": ("gas",)}),
)  # fmt: skip
"""Words in which others of the rules are heard that do not count there: no site, and no food."""
SETTLEMENTS = (("city", "large city", "medium city", "town", "small city"), {"shop": "full", "water": "reliable"})
"""As a symbol or type; in a name such a word is anything."""
MANY = ("services", "fuels")
WATER = frozenset({"water", "treat_water"})


def supplies_of(symbol: str, name: str = "") -> dict[str, Any]:
    """Fields of a stop that a waypoint's symbol and type speak of, then its name; the first rule for each field counts.

    Of water a bare name says no more than that it may be there: a tap, a bar or a well gives its name to hills as well.

    Examples
    --------
    >>> supplies_of("Campground")
    {'shelter': 'site', 'water': 'reliable'}
    >>> supplies_of("", "Fontana Alta")
    {'water': 'unsure', 'treat_water': True}
    >>> supplies_of("", "Barren Pass")
    {}
    """
    found = _spoken_of(symbol)
    if symbol.casefold().strip() in SETTLEMENTS[0]:
        found = SETTLEMENTS[1] | found
    for field, value in _spoken_of(name).items():
        if field in MANY:
            found[field] = tuple(dict.fromkeys((*found.get(field, ()), *value)))
        elif field not in WATER:
            found.setdefault(field, value)
        elif field == "water" and field not in found:
            found |= {"water": "unsure", "treat_water": True}
    return found


def _spoken_of(text: str) -> dict[str, Any]:
    words = text.casefold()
    found: dict[str, Any] = {}
    for heard, (_, supplies) in zip(_OTHERWISE, NOT_WHAT_IT_SOUNDS, strict=True):
        if heard.search(words):
            words, found = heard.sub(" ", words), found | supplies
    for said, (_, supplies) in zip(_PATTERNS, RULES, strict=True):
        if said.search(words):
            for field, value in supplies.items():
                if field in MANY:
                    found[field] = (*found.get(field, ()), *value)
                else:
                    found.setdefault(field, value)
    return found


def _any_of(keys: tuple[str, ...]) -> re.Pattern[str]:
    return re.compile(r"\b(?:" + "|".join(map(re.escape, keys)) + r")\b")


_PATTERNS = tuple(_any_of(keys) for keys, _ in RULES)
_OTHERWISE = tuple(_any_of(keys) for keys, _ in NOT_WHAT_IT_SOUNDS)


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
    found = profile.nearest_of_all(*(np.array([getattr(w, axis) for w in waypoints]) for axis in ("lat_deg", "lon_deg")))
    if found is None or not waypoints:
        return [], len(waypoints)
    for number, (waypoint, *nearest) in enumerate(zip(waypoints, *(values.tolist() for values in found), strict=True), 1):
        if nearest[1] > FARTHEST_WAYPOINT_KM:
            far += 1
            continue
        if (waypoint.name, round(nearest[0])) in known:
            continue
        identifier = f"wpt-{number}"
        while identifier in used:
            identifier += "-"
        used.add(identifier)
        off = round(nearest[1], 1) if nearest[1] >= NEAREST_DETOUR_KM else 0
        supplies = supplies_of(waypoint.symbol, waypoint.name)
        figures = {
            "id": identifier,
            "name": waypoint.name,
            "at_km": round(nearest[0], 3),
            "detour_km": off,
            "note": waypoint.note,
        }
        stops.append(Stop.model_validate(figures | supplies))
    return stops, far
