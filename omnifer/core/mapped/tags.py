"""What the tags of a map say that is had at a place; keys and values are OpenStreetMap's (wiki.openstreetmap.org, Map features).

What each lets a rider expect is practice where nothing else is said.
"""

from collections.abc import Iterable
from typing import Any, NamedTuple, get_args

from omnifer.core.mapped.reading import Tags
from omnifer.core.model.road import Shelter, Shop, Water


class Rule(NamedTuple):
    """A key, the values of it that count (none given: any), the fields of a stop that follow, and what it is called."""

    key: str
    values: tuple[str, ...]
    gives: dict[str, Any]
    words: str


TAP = {"water": "reliable"}
RAW = {"water": "unsure", "treat_water": True}
RULES = (
    Rule("amenity", ("drinking_water", "water_point"), TAP, "drinking water"),
    Rule("man_made", ("water_tap",), TAP, "a tap"),
    Rule("drinking_water", ("yes",), TAP, "drinking water"),
    Rule("natural", ("spring",), RAW, "a spring"),
    Rule("man_made", ("water_well",), RAW, "a well"),
    Rule("shop", ("supermarket", "department_store", "mall"), {"shop": "full", **TAP}, "a supermarket"),
    Rule("shop", ("convenience", "general", "grocery", "greengrocer", "farm", "bakery", "dairy", "deli", "butcher"),
         {"shop": "basic", **TAP}, "a small shop"),
    Rule("amenity", ("marketplace",), {"shop": "basic"}, "a market"),
    Rule("shop", ("kiosk", "pastry", "confectionery"), {"shop": "snacks"}, "a kiosk"),
    Rule("amenity", ("restaurant", "cafe", "fast_food", "pub", "biergarten", "food_court"), {"services": ("meals",)}, "meals"),
    Rule("amenity", ("fuel",), {"fuels": ("petrol",)}, "petrol"),
    Rule("shop", ("outdoor", "camping"), {"fuels": ("gas",)}, "an outdoor shop"),
    Rule("shop", ("hardware", "doityourself", "paint"), {"fuels": ("alcohol",)}, "a hardware shop"),
    Rule("shop", ("bicycle",), {"bike_shop": "basic"}, "a bicycle shop"),
    Rule("amenity", ("bicycle_repair_station",), {}, "a stand with tools"),
    Rule("tourism", ("camp_site",), {"shelter": "site", **TAP}, "a camp site"),
    Rule("tourism", ("alpine_hut",), {"shelter": "hut", "services": ("meals",), **TAP}, "a hut with a keeper"),
    Rule("tourism", ("wilderness_hut",), {"shelter": "hut"}, "an open hut"),
    Rule("shelter_type", ("basic_hut", "lean_to", "weather_shelter"), {"shelter": "hut"}, "a shelter"),
    Rule("tourism", ("hotel", "guest_house", "hostel", "motel"), {"shelter": "room", "services": ("plugs",), **TAP}, "a room"),
    Rule("shop", ("laundry",), {"services": ("laundry",)}, "a laundry"),
    Rule("amenity", ("post_office",), {"services": ("post",)}, "a post office"),
    Rule("amenity", ("hospital", "clinic", "doctors"), {"services": ("doctor",)}, "a doctor"),
    Rule("amenity", ("pharmacy",), {}, "a chemist"),
    Rule("amenity", ("toilets",), {}, "toilets"),
    Rule("amenity", ("device_charging_station",), {"services": ("plugs",)}, "a plug"),
    Rule("railway", ("station", "halt"), {"services": ("transport",)}, "a railway station"),
    Rule("amenity", ("bus_station",), {"services": ("transport",)}, "a bus station"),
    Rule("amenity", ("ferry_terminal",), {"services": ("transport",)}, "a ferry"),
)  # fmt: skip
CHARGES_BICYCLES = Rule("amenity", ("charging_station",), {"services": ("plugs",)}, "a plug for bicycles")
"""Most stations charge cars only; those that say bicycle=yes have a socket."""
SETTLEMENTS = {"city": 5.0, "town": 2.0, "village": 0.8, "hamlet": 0.4}
"""Kinds of settlement, and how far their houses reach where nobody says how many live there [km]; practice."""
SHUT_TO_US = frozenset({"private", "no", "employees", "members", "permit"})
"""Values of access with which a place is none for a traveller."""
RANKS: dict[str, tuple[str, ...]] = {
    "water": ("none", "snow", "unsure", "seasonal", "reliable"), "shop": get_args(Shop)[::-1],
    "bike_shop": ("none", "basic", "full"),
    "shelter": ("none", "wild", "hut", "room", "site"),
}  # fmt: skip
"""Of several, the last counts: what carries the tour farther; a site goes before a room, for whoever carries a tent."""
assert set(RANKS["water"]) == set(get_args(Water))
assert set(RANKS["shelter"]) == set(get_args(Shelter))
MANY = frozenset({"services", "fuels"})


def keys() -> dict[str, tuple[str, ...]]:
    """All keys that are looked for, each with the values that count: what is asked of a file or a service."""
    found: dict[str, tuple[str, ...]] = {"place": tuple(SETTLEMENTS)}
    for rule in (*RULES, CHARGES_BICYCLES):
        found[rule.key] = (*found.get(rule.key, ()), *rule.values)
    return found


def _heard(tags: Tags) -> Iterable[Rule]:
    if tags.get("access") in SHUT_TO_US or "disused" in tags or "abandoned" in tags:
        return
    for rule in RULES:
        if tags.get(rule.key) in rule.values:
            yield rule
    if tags.get("bicycle") == "yes" and tags.get(CHARGES_BICYCLES.key) in CHARGES_BICYCLES.values:
        yield CHARGES_BICYCLES


def supplies_of(tags: Tags) -> dict[str, Any]:
    """Fields of a stop that the tags of one place speak of.

    Examples
    --------
    >>> supplies_of({"natural": "spring", "drinking_water": "yes"})
    {'water': 'reliable'}
    >>> supplies_of({"amenity": "drinking_water", "seasonal": "yes"})
    {'water': 'seasonal'}
    """
    found: dict[str, Any] = {}
    for rule in _heard(tags):
        found = joined(found, rule.gives)
    if tags.get("drinking_water") == "no" or (tags.get("tourism") == "camp_site" and tags.get("tents") == "no"):
        # Said to be none for drinking; a site for vans only is none for a tent.
        found.pop("water" if tags.get("drinking_water") == "no" else "shelter", None)
    if tags.get("backcountry") == "yes" and found.get("shelter") == "site":
        found = {"shelter": "wild"}
    if found.get("water") in ("reliable", "unsure") and _now_and_then(tags):
        found["water"] = "seasonal"
    if found.get("water") != "unsure":
        found.pop("treat_water", None)
    return found


def _now_and_then(tags: Tags) -> bool:
    return any(tags.get(key) not in (None, "no") for key in ("seasonal", "intermittent"))


def joined(one: dict[str, Any], other: dict[str, Any]) -> dict[str, Any]:
    """What two places have together: of each part the better."""
    both = dict(one)
    for name, value in other.items():
        if name in MANY:
            both[name] = tuple(dict.fromkeys((*both.get(name, ()), *value)))
        elif name in RANKS and RANKS[name].index(value) > RANKS[name].index(both.get(name, "none")):
            both[name] = value
    # Whether it is to be treated goes with the water that is taken.
    if any(each.get("treat_water") and each.get("water") == both.get("water") for each in (one, other)):
        return both | {"treat_water": True}
    return {name: value for name, value in both.items() if name != "treat_water"}


def words_of(tags: Tags) -> list[str]:
    """What is there, in words."""
    return [rule.words for rule in _heard(tags)]
