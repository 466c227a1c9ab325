"""Short makers of figures, so that findings read like sentences."""

from omnifer.core.model.quantities import Figure, Text


def kg(value: float) -> Figure:
    """A mass."""
    return Figure(value=round(value, 3), quantity="mass")


def litres(value: float) -> Figure:
    """A volume."""
    return Figure(value=round(value, 3), quantity="volume")


def km(value: float) -> Figure:
    """A place or distance along the road."""
    return Figure(value=round(value, 2), quantity="distance")


def mm(value: float) -> Figure:
    """A length on the bike."""
    return Figure(value=round(value), quantity="length")


def celsius(value: float) -> Figure:
    """A temperature."""
    return Figure(value=round(value, 1), quantity="temperature")


def share(value: float) -> Figure:
    """A part of one."""
    return Figure(value=round(value, 4), quantity="share")


def hours(value: float) -> Figure:
    """A time."""
    return Figure(value=round(value, 2), quantity="hours")


def bar(value: float) -> Figure:
    """A pressure."""
    return Figure(value=round(value, 2), quantity="pressure")


def clock(value: float) -> str:
    """A time of the local clock, as HH:MM; the same in all units."""
    minutes = round(value * 60) % (24 * 60)
    return f"{minutes // 60:02d}:{minutes % 60:02d}"


def number(value: float) -> Figure:
    """A plain count."""
    return Figure(value=value, quantity="count")


def say(words: str, **parts: Figure | str) -> Text:
    """A sentence from its words, figures and names."""
    return Text(
        words=words,
        figures={k: v for k, v in parts.items() if not isinstance(v, str)},
        names={k: v for k, v in parts.items() if isinstance(v, str)},
    )
