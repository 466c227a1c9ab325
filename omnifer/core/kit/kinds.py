"""Every kind of thing that riders bring as one row of `things.csv`, open to additions: what it mostly is, and what it is called
in six languages. What helps to read their names stands in `grammar.csv`.

Figures are common practice, no source: mass of the lightest, usual and heaviest of a kind, litres as it packs, what it does for
the supplies and what it serves. A list's own figure goes before them.
"""

import csv
import re
import unicodedata
from functools import cache
from importlib import resources
from typing import Any, Literal

from pydantic import Field, TypeAdapter

from omnifer.core.model.kit import Nature
from omnifer.core.model.quantities import LengthMm, Noun, Reach, VolumeL
from omnifer.core.model.roles import Role
from omnifer.core.model.serves import Serves
from omnifer.core.model.words import fields_of

Language = Literal["en", "de", "fr", "es", "it", "nl"]
LANGUAGES: tuple[Language, ...] = ("en", "de", "fr", "es", "it", "nl")
Domain = Literal[
    "sleep", "cook", "water", "food", "rain", "layers", "warm", "clothes", "wash", "health", "sun", "safety", "papers",
    "electronics", "light", "camera", "tools", "packing", "comfort",
]  # fmt: skip
Phrase = tuple[str, ...]
AND = "&"
_NO_WORD = re.compile(r"[^a-z0-9&]+")
_AS_IT_IS = frozenset(("lens", "plus", "fles", "telos", "handy", "potty", "pulley", "gorro", "gorra"))


class ThingKind(Noun):
    """One row of the table."""

    id: str
    name: str
    domain: Domain
    kg_low: float = Field(gt=0)
    kg: float = Field(gt=0, description="Of a usual one [kg]")
    kg_high: float = Field(gt=0)
    l: VolumeL = Field(description="Of a usual one, packed [l]")  # noqa: E741
    longest_mm: LengthMm = 0
    reach: Reach
    dry: Literal["any", "must", "own_bag"]
    natures: tuple[Nature, ...] = ()
    not_with: tuple[Nature, ...] = ()
    each: bool = Field(description="Each rider has one of their own")
    worn: bool = Field(False, description="On the body while riding, in no bag")
    role: Role | None = None
    holds_l: VolumeL = Field(0, description="Water in a usual one; above 0 it is a vessel [l]")
    soft: bool = Field(False, description="An empty one folds away")
    serves: tuple[Serves, ...] = ()

    @property
    def l_per_kg(self) -> float:
        """Litres a kilogram."""
        return self.l / self.kg


class Called(Noun):
    """What one kind is called: phrases in each language, and roots beside which it is something else."""

    kind: str
    phrases: dict[Language, tuple[Phrase, ...]]
    but: tuple[str, ...]

    @property
    def all_phrases(self) -> list[str]:
        """In all languages, each once, as they are written without accents."""
        return list(dict.fromkeys(" ".join(phrase) for phrases in self.phrases.values() for phrase in phrases))


@cache
def grammar() -> dict[str, tuple[str, ...]]:
    """Words that help to read a name, by what they do; headings of lists by what they are about."""
    return {row["what"]: tuple(row["words"].split()) for row in _rows("grammar.csv")}


def _rows(name: str) -> list[dict[str, str]]:
    text = resources.files("omnifer.core.kit").joinpath(name).read_text(encoding="utf-8")
    return list(csv.DictReader(text.splitlines(), delimiter=";"))


@cache
def _table() -> tuple[dict[str, ThingKind], list[Called]]:
    rows = _rows("things.csv")
    kinds = {row["id"]: kind_of(row) for row in rows}
    if len(kinds) < len(rows):
        twice = next(row["id"] for n, row in enumerate(rows) if any(row["id"] == other["id"] for other in rows[:n]))
        raise ValueError(f"{twice!r} stands twice")
    return kinds, [called_of(row) for row in rows]


def kind_of(row: dict[str, str]) -> ThingKind:
    """A row as a kind. Raises ValueError in words, by the row's identifier."""
    low, usual, high = (float(mass) for mass in row["kg"].split("/"))
    if not low <= usual <= high:
        raise ValueError(f"{row['id']!r}: the usual mass lies between the least and the most")
    told: dict[str, Any] = {name: row[name] for name in ("id", "name", "domain", "reach", "dry")}
    told |= {name: tuple(row[name].split()) for name in ("natures", "not_with", "serves")}
    told |= {"kg_low": low, "kg": usual, "kg_high": high, "l": float(row["l"]), "longest_mm": float(row["longest"] or 0)}
    litres, *soft = row["holds"].split() or ["0"]
    told |= {"holds_l": float(litres), "soft": bool(soft)}
    told |= {"each": "each" in row["own"], "worn": "worn" in row["own"]}
    told["role"] = _ROLE.validate_python(fields_of(row["role"], "does")) if row["role"] else None
    return ThingKind.model_validate(told)


def called_of(row: dict[str, str]) -> Called:
    """What the kind of a row is called; its name is English."""
    said = {language: row[language].split() for language in LANGUAGES}
    said["en"].insert(0, row["name"].replace(" ", "-"))
    phrases = {
        language: tuple(dict.fromkeys(map(_phrase, deaccented(" ".join(words)).split()))) for language, words in said.items()
    }
    return Called.model_construct(kind=row["id"], phrases=phrases, but=tuple(root(word) for word in row["but"].split()))


def kinds() -> dict[str, ThingKind]:
    """The kinds by their identifiers."""
    return _table()[0]


def usual_roles() -> list[Role]:
    """Each thing that a thing can do, as the first kind of the table that does it."""
    return list({kind.role.does: kind.role for kind in reversed(kinds().values()) if kind.role is not None}.values())


def names_of_kinds() -> list[Called]:
    """What each kind is called."""
    return _table()[1]


def deaccented(text: str) -> str:
    """Small letters without accents."""
    whole = text.lower().replace("ß", "ss").replace("œ", "oe")
    return whole if whole.isascii() else unicodedata.normalize("NFKD", whole).encode("ascii", "ignore").decode()


def plain(text: str) -> str:
    """Small letters without accents; what is no letter or figure parts words."""
    return _NO_WORD.sub(" ", deaccented(text).replace("+", " & ")).strip()


def _phrase(text: str) -> Phrase:
    joins, fillers = _silent()
    words = text.split("-") if text.replace("-", "").isalnum() else _NO_WORD.split(text)
    return tuple([AND if word in joins else word for word in words if word and word not in fillers])


@cache
def _silent() -> tuple[frozenset[str], frozenset[str]]:
    return frozenset(grammar()["joins"]), frozenset(grammar()["fillers"])


def words_of(text: str) -> list[str]:
    """A text's words without those that say nothing; what joins two things is one sign."""
    joins, fillers = _silent()
    return [AND if word in joins else word for word in plain(text).split() if word not in fillers]


def roots_of(text: str) -> list[str]:
    """The roots of a text's words."""
    return [root(word) for word in words_of(text)]


@cache
def root(word: str) -> str:
    """What one and many of a thing have in common, in six languages: socks, Socken, chaussettes, calcetines, calzini, sokken."""
    if len(word) <= 3 or word.isdigit() or word in _AS_IT_IS:
        return word
    if word[-1] in "sx" and not word.endswith("ss"):
        word = word[:-1]
        if word in _AS_IT_IS:
            return word
    if word.endswith("je") and len(word) > 5:
        word = word[:-2]
    if word.endswith("en") and len(word) > 4:
        word = word[:-2] if len(word) > 5 else word[:-1]
    for _ in range(2):
        if word[-1] in "aeioy" and len(word) > 4:
            word = word[:-1]
    return word[:-1] if len(word) > 3 and word[-1] == word[-2] else word


_ROLE: TypeAdapter[Any] = TypeAdapter(Role)
