"""A small noun told in one cell of a table, as `kind key=value key=value`."""

import json
import re


def fields_of(text: str, first: str) -> dict[str, object]:
    """The fields of such a cell; its first word is the value of one of them. Raises ValueError in words."""
    word, *rest = text.split()
    fields: dict[str, object] = {first: word.lower()}
    for part in rest:
        key, sign, value = part.partition("=")
        if not sign:
            raise ValueError(f"{part!r} is no key=value")
        fields[key.lower()] = _plain(key.lower(), value)
    return fields


def _plain(key: str, value: str) -> object:
    if key == "plugs":
        return value.split("+")
    if value in ("yes", "no"):
        return value == "yes"
    try:
        return json.loads(value) if re.fullmatch(r"-?\d+(\.\d+)?(e-?\d+)?", value) and not key.endswith("_id") else value
    except ValueError:
        return value
