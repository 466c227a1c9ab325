"""How the cells of a kit sheet are read and written: a pair of functions for each kind of column."""

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, get_args

from omnifer.core.model.kit import Fit, Guessable, Nature, Whereabouts
from omnifer.core.model.quantities import Noun, Reach
from omnifer.formats.cell import read_fit, read_role, read_where, write_fit, write_role, write_where
from omnifer.formats.measures import number

Shown = str | float | None
TRUE = frozenset({"1", "yes", "y", "x", "true", "ja", "oui", "sí", "si", "tak", "✓"})
REACH_WORDS: dict[str, Reach] = {
    "riding": "riding", "while riding": "riding", "stop": "stop", "at a stop": "stop", "day": "stop", "camp": "camp",
    "on arrival in camp": "camp", "evening": "camp", "night": "night", "overnight": "night", "sleep": "night",
    "breaks": "breaks", "only if something breaks": "breaks", "repair": "breaks", "emergency": "breaks",
}  # fmt: skip
DRY_WORDS = {
    "any": "any", "may get damp": "any", "no": "any", "nein": "any", "non": "any", "must": "must", "must stay dry": "must",
    "keep dry": "must", "waterproof bag": "must", "own_bag": "own_bag", "own bag": "own_bag", "own dry bag": "own_bag",
    "in its own dry bag": "own_bag", "dry bag": "own_bag", **dict.fromkeys(sorted(TRUE), "must"),
}  # fmt: skip
"""How dry a thing must stay, as riders and Omnifer's own screens say it."""
SHARED = {"shared", "all", "both", "everybody", "alle", "beide", "gemeinsam", "tous", "compartido", "todos", "comune", "tutti"}
"""Said where a sheet names who carries a thing and everybody does."""
_COUNT = re.compile(
    r"(?:x\s*)?(\d+)\s*(x|pcs?|pieces?|stk|stück|stueck|st|paar|pairs?|pr|paires?|pares|paia|paar|pezzi|pièces|piezas|stuks|szt)?\.?",
    re.I,
)


@dataclass
class Cell:
    """A cell that is being read, how its sheet writes numbers and names riders, and what is to be asked of it."""

    text: str
    decimal_comma: bool = False
    riders: Mapping[str, str] = field(default_factory=dict)
    doubts: list[str] = field(default_factory=list)

    @property
    def number(self) -> float:
        """A plain number. Raises ValueError."""
        return number(self.text, self.decimal_comma)


@dataclass(frozen=True)
class Names:
    """What riders and things are called, by their identifiers."""

    riders: Mapping[str, str]
    things: Mapping[str, str]


def as_text(cell: Cell) -> str:
    """The cell as it is."""
    return cell.text


def as_count(cell: Cell) -> int:
    """A number of things; a word of pieces beside it is asked about."""
    found = _COUNT.fullmatch(cell.text.strip())
    if found is None and cell.number % 1:
        raise ValueError("a number of things is a whole number")
    if found and found[2]:
        cell.doubts.append(f"read as {found[1]}")
    return int(found[1]) if found else int(cell.number)


def as_whole(cell: Cell) -> int:
    """A year, or a number of tours."""
    return int(cell.number)


def as_price(cell: Cell) -> float:
    """An amount of money."""
    return not_negative(cell.number)


def as_yes(cell: Cell) -> bool:
    """Whether the cell says yes."""
    return cell.text.lower() in TRUE


def as_reach(cell: Cell) -> Reach:
    """When a thing is wanted."""
    if cell.text.lower() not in REACH_WORDS:
        raise ValueError(f"reach is one of {', '.join(get_args(Reach))}")
    return REACH_WORDS[cell.text.lower()]


def as_dry(cell: Cell) -> str:
    """How dry a thing must stay."""
    if cell.text.lower() not in DRY_WORDS:
        raise ValueError(f"dry is one of {', '.join(DRY_WORDS)}: what the thing needs, not what it is")
    return DRY_WORDS[cell.text.lower()]


def as_natures(cell: Cell) -> tuple[str, ...]:
    """What a thing is like."""
    words = as_words(cell)
    unknown = [word for word in words if word not in get_args(Nature)]
    if unknown:
        raise ValueError(f"{unknown[0]!r} is none of {', '.join(get_args(Nature))}")
    return words


def as_words(cell: Cell) -> tuple[str, ...]:
    """Words of the vocabulary, one after the other."""
    return tuple(word for word in re.split(r"[\s,;+]+", cell.text.lower()) if word)


def as_word(cell: Cell) -> str:
    """One word of the vocabulary."""
    return re.sub(r"[ -]", "_", cell.text.lower())


def as_rider(cell: Cell) -> str | None:
    """Who carries a thing; None where it says that all do."""
    if cell.text.lower() in SHARED:
        return None
    if cell.text.lower() not in cell.riders:
        raise ValueError(f"no rider is called {cell.text!r}")
    return cell.riders[cell.text.lower()]


def as_marks(cell: Cell) -> tuple[str, ...]:
    """What of a thing is a guess; a plain yes: its mass and its volume."""
    return ("mass", "volume") if as_yes(cell) else tuple(word for word in cell.text.split() if word in get_args(Guessable))


def as_name(cell: Cell) -> str:
    """Another thing, by its name."""
    return stem_of(cell.text)


def as_role(cell: Cell) -> object:
    """What a thing does for the supplies."""
    return read_role(cell.text)


def as_where(cell: Cell) -> tuple[Whereabouts, ...]:
    """Where a thing is along the road."""
    return read_where(cell.text)


def as_fit(cell: Cell) -> Fit:
    """What a thing fits."""
    return read_fit(cell.text)


def role_shown(role: Noun | None, _: Names) -> Shown:
    """What a thing does for the supplies."""
    return write_role(role)


def where_shown(places: tuple[Whereabouts, ...], _: Names) -> Shown:
    """Where a thing is along the road."""
    return write_where(places)


def fit_shown(fit: Fit | None, _: Names) -> Shown:
    """What a thing fits."""
    return write_fit(fit)


def plain(value: Any, _: Names) -> Shown:
    """A field as a cell: yes or nothing, words one after the other, else as it is."""
    if isinstance(value, bool):
        return "yes" if value else ""
    return " ".join(value) if isinstance(value, tuple) else value


def or_nothing(value: float, _: Names) -> Shown:
    """A number that says nothing where it is none."""
    return value or None


def called(of: str) -> Callable[[str | None, Names], Shown]:
    """Writes the name for an identifier of a rider or a thing."""
    return lambda identifier, names: getattr(names, of).get(identifier or "", "")


def not_negative(value: float) -> float:
    """An amount, to what a sheet says. Raises ValueError where it is less than nothing."""
    if value < 0:
        raise ValueError("less than nothing")
    return round(value, 6)


def stem_of(name: str) -> str:
    """A name as an identifier: things of a sheet are named in one another by their names."""
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:34] or "thing"
