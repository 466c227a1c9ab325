"""Masses, volumes and lengths as people write them: `48 oz`, `1,4 l`, `2 lb 3 oz`."""

import re
from collections.abc import Mapping

GRAMS_PER = {"kg": 1000.0, "g": 1.0, "lb": 453.59237, "lbs": 453.59237, "oz": 28.349523125, "st": 6350.29318}
"""International pound 1959."""
LITRES_PER = {
    "l": 1.0, "litre": 1.0, "litres": 1.0, "liter": 1.0, "liters": 1.0, "dl": 0.1, "cl": 0.01, "ml": 0.001,
    "fl oz": 0.0295735295625, "floz": 0.0295735295625, "oz": 0.0295735295625,
    "gal": 3.785411784, "qt": 0.946352946, "pt": 0.473176473, "cm3": 0.001, "in3": 0.016387064,
}  # fmt: skip
"""US customary; by context an ounce of volume is a fluid ounce."""
MILLIMETRES_PER = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4, "inch": 25.4, '"': 25.4, "ft": 304.8}
LONGEST = 60
"""Characters of an amount at most: nobody writes more, and patterns stay quick."""
_PART = re.compile(r"(-?\d++(?:\.\d++)?)\s*+([a-z\"]++3?(?:\s++oz)?)?\s*+")


def number(text: str, decimal_comma: bool) -> float:
    """A plain number, thousands separators dropped. Raises ValueError."""
    _short(text)
    cleaned = text.strip().replace("\u00a0", "").replace("\u202f", "").replace(" ", "").replace("\u2212", "-")
    if decimal_comma:
        cleaned = cleaned.replace(".", "").replace(",", ".") if "," in cleaned else cleaned
    elif "," in cleaned:
        cleaned = cleaned.replace(",", "") if "." in cleaned or re.search(r",\d{3}$", cleaned) else cleaned.replace(",", ".")
    if not re.fullmatch(r"-?(\d+\.?\d*|\.\d+)", cleaned):
        raise ValueError(f"{text.strip()!r} is not a number")
    return float(cleaned)


def _short(text: str) -> None:
    if len(text) > LONGEST:
        raise ValueError(f"{text[:20]!r} and {len(text) - 20} characters more are too long for an amount")


def measure(text: str, units: Mapping[str, float], default_unit: str, decimal_comma: bool = False) -> float:
    """An amount in the unit that `units` counts in; parts with their own units add up. Raises ValueError."""
    _short(text)
    wanted = text.strip().lower().replace("~", "").replace(".)", ")").replace("\u00a0", " ")
    if not re.search(r"[a-z\"]", wanted):
        return number(wanted, decimal_comma) * units[default_unit]
    if decimal_comma and re.search(r"\d\.\d{3},\d", wanted):
        wanted = wanted.replace(".", "")
    wanted = re.sub(r"(?<=\d) (?=\d{3}(?!\d))", "", re.sub(r"(?<=\d),(?=\d)", ".", wanted))
    total, at = 0.0, 0
    while at < len(wanted):
        part = _PART.match(wanted, at)
        if part is None or part[2] is None:
            raise ValueError(f"{text.strip()!r} is not an amount")
        unit = re.sub(r"\s+", " ", part[2])
        if unit not in units:
            raise ValueError(f"{part[2]!r} is not a unit known here (try {', '.join(list(units)[:4])})")
        total += float(part[1]) * units[unit]
        at = part.end()
    return total
