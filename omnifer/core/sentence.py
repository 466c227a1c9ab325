"""Short makers of figures, so that findings read like sentences."""

import math
import re
from collections.abc import Iterable

from omnifer.core.model.quantities import Figure, Quantity, Text

HARDLY_ONE = 0.005
"""A count this near to one is written as one."""


def _figure(value: float, quantity: Quantity, decimals: int | None = None) -> Figure:
    """A figure without the checks of what comes from outside, which would take most of the time of a sentence."""
    if not math.isfinite(value):
        raise ValueError(f"{value} is no {quantity}")
    return Figure.of_its_kinds(value=float(value), quantity=quantity, decimals=decimals)


def kg(value: float) -> Figure:
    """A mass."""
    return _figure(round(value, 3), "mass")


def fine_kg(value: float) -> Figure:
    """A small mass, to 10 g."""
    return _figure(round(value, 3), "mass", 2)


def litres(value: float) -> Figure:
    """A volume."""
    return _figure(round(value, 3), "volume")


def km(value: float) -> Figure:
    """A place or distance along the road."""
    return _figure(round(value, 2), "distance")


def mm(value: float) -> Figure:
    """A length on the bike."""
    return _figure(round(value), "length")


def metres(value: float) -> Figure:
    """A height of the land."""
    return _figure(round(value), "elevation")


def celsius(value: float) -> Figure:
    """A temperature."""
    return _figure(round(value, 1), "temperature")


def kelvin(value: float) -> Figure:
    """A difference of temperatures."""
    return _figure(round(value, 1), "temperature_difference")


def share(value: float) -> Figure:
    """A part of one."""
    return _figure(round(value, 4), "share")


def hours(value: float) -> Figure:
    """A time."""
    return _figure(round(value, 2), "hours")


def whole_hours(value: float) -> Figure:
    """A time that is known to the hour."""
    return _figure(round(value), "hours", 0)


def bar(value: float) -> Figure:
    """A pressure."""
    return _figure(round(value, 2), "pressure")


def wh(value: float) -> Figure:
    """An electric energy."""
    return _figure(round(value, 1), "energy")


def minutes(value: float) -> Figure:
    """A short time."""
    return _figure(round(value), "minutes")


def money(value: float) -> Figure:
    """An amount in the tour's money."""
    return _figure(round(value, 2), "money")


def clock(value: float) -> str:
    """A time of the local clock, as HH:MM; the same in all units."""
    minutes = round(value * 60) % (24 * 60)
    return f"{minutes // 60:02d}:{minutes % 60:02d}"


def number(value: float) -> Figure:
    """A plain count."""
    return _figure(value, "count")


def tenths(value: float) -> Figure:
    """A number that is no count, to tenths."""
    return _figure(round(value, 1), "count", 1)


def fine_number(value: float) -> Figure:
    """A small number, to hundredths."""
    return _figure(round(value, 2), "count", 2)


_COUNTED = re.compile(r"\{(\w+)(::?)([^|{}]*)\|([^|{}]*)\}")


def say(words: str, **parts: Figure | str) -> Text:
    """A sentence from its words, figures and names; all of them are of their kinds already, so nothing is checked again.

    `{n:night|nights}` is the figure n with the word that goes with one of it, or with several; `{n::is|are}` is the word alone.
    """

    def counted(found: re.Match[str]) -> str:
        name, colon, one, several = found.groups()
        figure = parts[name]
        single = figure == "1" if isinstance(figure, str) else abs(figure.value - 1) < HARDLY_ONE
        word = one if single else several
        return word if colon == "::" else f"{{{name}}} {word}"

    return Text.of_its_kinds(
        words=_COUNTED.sub(counted, words) if "|" in words else words,
        figures={k: v for k, v in parts.items() if not isinstance(v, str)},
        names={k: v for k, v in parts.items() if isinstance(v, str)},
    )


def joined(texts: Iterable[Text], between: str = "; ") -> Text:
    """Several texts as one, each with its own figures and names."""
    words, figures, names = [], dict[str, Figure](), dict[str, str]()
    for n, text in enumerate(texts):
        told = text.words
        for key in (*text.figures, *text.names):
            told = told.replace(f"{{{key}}}", f"{{_{n}_{key}}}")
        words.append(told)
        figures |= {f"_{n}_{key}": figure for key, figure in text.figures.items()}
        names |= {f"_{n}_{key}": name for key, name in text.names.items()}
    return Text.of_its_kinds(words=between.join(words), figures=figures, names=names)
