"""What a waypoint's symbol, type and name say of its supplies; the words that devices and planners write (practice)."""

from typing import Any

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
