"""A small noun in one cell of a sheet, as `kind key=value key=value`; written so that it reads back the same."""

import re
from typing import Any

from pydantic import TypeAdapter, ValidationError

from omnifer.core.model.kit import Fit, Whereabouts
from omnifer.core.model.quantities import Noun
from omnifer.core.model.roles import Role
from omnifer.core.model.words import fields_of
from omnifer.formats.problem import what_of

_ROLE: TypeAdapter[Any] = TypeAdapter(Role)
_WHERE = TypeAdapter(Whereabouts)


def write_role(role: Noun | None) -> str:
    """What a thing does, in a cell."""
    return "" if role is None else _write(role, "does")


def read_role(text: str) -> Any:
    """What a thing does. Raises ValueError in words."""
    return _read(_ROLE, text, "does")


def write_where(places: tuple[Whereabouts, ...]) -> str:
    """Where a thing is along the road, in a cell."""
    return "; ".join(_write(place, "how") for place in places)


def read_where(text: str) -> tuple[Whereabouts, ...]:
    """Where a thing is along the road. Raises ValueError in words."""
    return tuple(_read(_WHERE, part, "how") for part in re.split(r"[;|]", text) if part.strip())


def write_fit(fit: Fit | None) -> str:
    """What a thing fits, in a cell."""
    told = {} if fit is None else fit.model_dump(mode="json", exclude_defaults=True)
    return " ".join(f"{key}={_value(value).replace(' ', '_')}" for key, value in told.items())


def read_fit(text: str) -> Fit:
    """What a thing fits. Raises ValueError in words."""
    fields = dict[str, object]()
    for part in text.split():
        key, sign, value = part.partition("=")
        if not sign:
            raise ValueError(f"{part!r} is no key=value")
        value = value.replace("_", " ")
        fields[key] = value.split("+") if key in ("keys", "lengths_mm") else value
    try:
        return Fit.model_validate(fields)
    except ValidationError as error:
        one = error.errors()[0]
        raise ValueError(f"{one['loc'][0]}: {what_of(one)}") from None


def _write(noun: Noun, first: str) -> str:
    told = noun.model_dump(mode="json", exclude_defaults=True) | {first: getattr(noun, first)}
    rest = [f"{key}={_value(value)}" for key, value in told.items() if key != first]
    return " ".join([str(told[first]), *rest])


def _value(value: object) -> str:
    if isinstance(value, list):
        return "+".join(f"{part:g}" if isinstance(part, float) else str(part) for part in value)
    return ("yes" if value else "no") if isinstance(value, bool) else str(value) if isinstance(value, str) else f"{value:g}"


def _read(kind: TypeAdapter[Any], text: str, first: str) -> Any:
    fields = fields_of(text, first)
    word = str(fields[first])
    try:
        return kind.validate_python(fields)
    except ValidationError as error:
        one = error.errors()[0]
        where = ".".join(str(part) for part in one["loc"] if part != word) or first
        raise ValueError(f"{where}: {what_of(one)}") from None
