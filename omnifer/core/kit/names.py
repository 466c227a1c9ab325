"""A first guess of what a thing needs, by the words of its name.

The table is `names.csv`, open to additions: words in some languages, a hyphen where several belong together. Common practice,
no source: litres a kilogram as such things pack, and the moment at which most riders want them. Whoever takes
such a guess marks it as one. A row that stands further up wins, so that a tent peg is no tent.
"""

import csv
import re
import unicodedata
from functools import lru_cache
from importlib import resources

from pydantic import TypeAdapter
from pydantic.dataclasses import dataclass

from omnifer.core.model.kit import Nature
from omnifer.core.model.quantities import Reach
from omnifer.core.model.serves import SERVICES

COMPOUND, BEGINS, ANYWHERE = 4, 5, 6
"""Letters that a stem needs to end a compound, to begin one, and to stand anywhere in one."""
PLURALS = ("", "s", "es", "e", "n", "en", "x")
MOST_SERVED = 3
"""A name tells at most so many services."""
RIGID = ("bottle", "flask", "canteen", "flasche", "bouteille", "gourde", "botella", "bidon", "borraccia", "fles")
SOFT = ("sack", "bladder", "wassersack", "outre", "odre", "sacca", "waterzak")
LARGEST_L = 12.0
"""A vessel that is told of by its litres [l]."""
_LITRES = re.compile(r"(\d+(?:[.,]\d+)?)\s*(?:l|litres?|liters?)\b")
USUAL_L_PER_KG = 3.0
"""Of a thing whose name says nothing; practice."""


@dataclass(frozen=True)
class NameGuess:
    """What things of such a name mostly are."""

    reach: Reach
    l_per_kg: float
    dry: str = "any"
    natures: tuple[Nature, ...] = ()


@lru_cache(maxsize=4096)
def guess_of(name: str) -> NameGuess | None:
    """What things of such a name mostly are; None where no word of it is known."""
    spoken = _plain(name)
    words = spoken.split()
    for known, guess in _TABLE:
        for stem in known:
            if (" " in stem and stem in spoken) or any(_is(word, stem) for word in words):
                return guess
    return None


@lru_cache(maxsize=4096)
def serves_of(name: str) -> tuple[str, ...]:
    """What things of such a name mostly serve, by the words in the table of services; empty where none is known.

    A word that belongs to a longer one says nothing by itself: tent pegs are no tent.
    """
    spoken = _plain(name)
    words = spoken.split()
    found: dict[str, set[str]] = {}
    for service, stems in _SERVED:
        for stem in stems:
            said = set(stem.split()) if " " in stem and stem in spoken else {word for word in words if _is(word, stem)}
            if said and len(said) >= len(found.get(service, ())):
                found[service] = said
    return tuple(service for service, said in found.items() if not any(said < other for other in found.values()))[:MOST_SERVED]


@dataclass(frozen=True)
class Vessel:
    """What a vessel for water holds by its name."""

    litres: float
    soft: bool


@lru_cache(maxsize=4096)
def vessel_of(name: str) -> Vessel | None:
    """The vessel for water that a name tells of, with its litres; None where it tells of none, or not how large."""
    said = _LITRES.search(name.lower())
    words = _plain(name).split()
    rigid, soft = (any(_is(word, stem) for word in words for stem in stems) for stems in (RIGID, SOFT))
    if said is None or not (rigid or soft):
        return None
    litres = float(said[1].replace(",", "."))
    return Vessel(litres, soft) if 0 < litres <= LARGEST_L else None


def _is(word: str, stem: str) -> bool:
    """Whether a word is a stem or its plural; longer stems also stand in a compound."""
    if (len(stem) >= ANYWHERE and stem in word) or (len(stem) >= BEGINS and word.startswith(stem)):
        return True
    return any(word.endswith(stem + end) if len(stem) >= COMPOUND else word == stem + end for end in PLURALS)


def _plain(text: str) -> str:
    bare = unicodedata.normalize("NFKD", text.lower().replace("ß", "ss")).encode("ascii", "ignore").decode()
    return re.sub(r"[^a-z0-9']+", " ", bare).strip()


def _read() -> tuple[tuple[tuple[str, ...], NameGuess], ...]:
    text = resources.files("omnifer.core.kit").joinpath("names.csv").read_text(encoding="utf-8")
    return tuple(
        (
            tuple(_plain(word) for word in row["words"].split()),
            _GUESS.validate_python(row | {"natures": tuple(row["natures"].split())}),
        )
        for row in csv.DictReader(text.splitlines())
    )


_GUESS = TypeAdapter(NameGuess)
_TABLE = _read()
_SERVED = [(row.id, [_plain(word) for word in row.names.split()]) for row in SERVICES.values() if row.names]
