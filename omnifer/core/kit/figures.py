"""What a name tells in figures: how many, how much it holds, how warm, how strong."""

import re
from collections.abc import Callable
from typing import NamedTuple

_N = r"(\d+(?:[.,]\d+)?)"
_PIECES = r"(?:x|×|pcs?|pieces?|pairs?|pr|stk|stuck|stück|paar|paire?s?|pièces?|pieces|pares|par|paia|paio|pezzi|stuks|st)"
_COUNTS = tuple(
    re.compile(pattern, re.I)
    for pattern in (
        rf"^\s*(\d{{1,2}})\s*{_PIECES}\.?\s+(?=\D)",
        rf"[\s(,]+(\d{{1,2}})\s*{_PIECES}\.?\)?\s*$",
        r"[\s(,]+(?:x|×)\s*(\d{1,2})\)?\s*$",
        r"\(\s*(\d{1,2})\s*\)",
        r"\b(?:set|pack|lot|jeu|juego|paquete|confezione|satz|pak)\s+(?:of|de|da|di|von|van)\s+(\d{1,2})\b",
        r"\b(\d{1,2})er(?:[- ]?(?:set|pack|packung))?\b(?![- ]?(?:zelt|tent))",
        r"^\s*(\d{1,2})\s+(?=[^\W\d])(?!(?:person|pers|personen|personnes|personas|persone|personne|man|mann|places?|plazas|posti|season|seasons"
        r"|jahreszeiten|saisons|in|l|lt|liter|litre|litres|ml|mm|cm|m|g|kg|oz|lb|w|wh|mah|ah|p|way|inch|zoll)\b)",
    )
)
"""How many of it there are, however that is said; a tent for two is one tent."""
_BARE = re.compile(r"(.*[^\W\d])\s+([2-9]|1[0-2])")
_OF = re.compile(r"^(?:of|de|di|von|van)\s+", re.I)
_LITRES = re.compile(rf"{_N}\s*(ml|cl|l|lt|ltr|liters?|litres?|litri|litros|litro)\b", re.I)
_PER_L = {"m": 0.001, "c": 0.01, "l": 1.0}
_WH = re.compile(rf"{_N}\s*wh\b", re.I)
_MAH = re.compile(r"(\d{1,3}(?:[.,' ]?\d{3})+|\d{3,6})\s*m\s*ah\b", re.I)
_AH = re.compile(rf"{_N}\s*ah\b", re.I)
CELL_V = 3.7
"""Of a lithium cell, by which amp hours are told [V]."""
_CELSIUS = re.compile(
    r"(?<![\d.,])([-−–+]|minus\s+)?\s*(\d{1,2})\s*(?:[°º]\s*c?|grad(?:\s*c)?|degr[eé]s?|deg(?:rees)?(?:\s*c)?|c)(?![a-z°])", re.I
)
_FAHRENHEIT = re.compile(r"([-−–])?\s*(\d{1,2})\s*°?\s*f\b", re.I)
_R = re.compile(rf"\br(?:[- ]?(?:value|wert|valeur|waarde))?\s*[-=:]?\s*{_N}\b", re.I)
_WATTS = re.compile(rf"{_N}\s*(?:w|watt|watts)\b", re.I)
_GRAMS = re.compile(r"(?<![\d.,])(\d{2,3})\s*(?:g|gr|gram|gramm|grams)?\b", re.I)


class Figures(NamedTuple):
    """What was read; None where a name tells none."""

    pieces: int
    litres: float | None
    wh: float | None
    celsius: float | None
    r_value: float | None
    watts: float | None
    grams: float | None
    name: str
    """The name without how many."""
    rest: str
    """The name without any of them."""


def figures_of(name: str) -> Figures:
    """Read the figures of a name."""
    if not any(map(str.isdigit, name)):
        return Figures(1, None, None, None, None, None, None, re.sub(r"\s+", " ", name).strip(" ,;-") or name, name)
    count, rest = 1, name
    for pattern in _COUNTS:
        if (found := pattern.search(rest)) is not None and 1 <= int(found[1]) <= 60:
            count = int(found[1])
            rest = _OF.sub("", (rest[: found.start()] + " " + rest[found.end() :]).strip())
            break
    named = re.sub(r"\s+", " ", rest).strip(" ,;-") or name
    litres, rest = _first(_LITRES, rest, lambda m: _number(m[1]) * _PER_L[m[2][0].lower()])
    wh, rest = _first(_WH, rest, lambda m: _number(m[1]))
    mah, rest = _first(_MAH, rest, lambda m: float(re.sub(r"\D", "", m[1])))
    amp_hours, rest = _first(_AH, rest, lambda m: _number(m[1])) if mah is None else (None, rest)
    if wh is None and (mah or amp_hours):
        wh = round(CELL_V * (mah / 1000 if mah else amp_hours or 0.0), 1)
    celsius, rest = _first(_CELSIUS, rest, _degrees)
    if celsius is None:
        celsius, rest = _first(_FAHRENHEIT, rest, lambda m: round((_degrees(m) - 32) / 1.8, 1))
    r_value, rest = _first(_R, rest, lambda m: _number(m[1]))
    watts, rest = _first(_WATTS, rest, lambda m: _number(m[1]))
    grams = next((float(m[1]) for m in _GRAMS.finditer(rest)), None)
    return Figures(count, litres, wh, celsius, r_value, watts, grams, named, rest)


def with_bare_count(figures: Figures) -> Figures:
    """The same where a bare number at the end says how many there are, as of shirts: of tents it says for how many."""
    found = _BARE.fullmatch(figures.name)
    if figures.pieces > 1 or found is None:
        return figures
    return figures._replace(pieces=int(found[2]), name=found[1])


def _degrees(found: re.Match[str]) -> float:
    return (-1 if (found[1] or "").strip().lower() in ("-", "−", "–", "minus") else 1) * float(found[2])


def _first(pattern: re.Pattern[str], text: str, read: Callable[[re.Match[str]], float]) -> tuple[float | None, str]:
    found = pattern.search(text)
    if found is None:
        return None, text
    return round(read(found), 3), f"{text[: found.start()]} {text[found.end() :]}"


def _number(text: str) -> float:
    return float(text.replace(",", "."))
