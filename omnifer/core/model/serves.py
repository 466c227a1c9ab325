"""What a thing serves, beyond the supplies: one word each, from the table `serves.csv`, open to additions.

A row has what riders call it, what one usually weighs and takes (common practice, no source), the moment at which it is
wanted, how many are enough and for whom, and what hangs on it where there is only one.
"""

import csv
from importlib import resources
from typing import Annotated, Literal

from pydantic import AfterValidator, Field, TypeAdapter

from omnifer.core.model.quantities import MassKg as Mass
from omnifer.core.model.quantities import Noun, Reach, VolumeL

Per = Literal["rider", "bike", "party"]


class Service(Noun):
    """One row of the table."""

    id: str
    words: str
    kg: Mass
    l: VolumeL  # noqa: E741
    reach: Reach
    enough: Annotated[int, Field(ge=1, description="More than so many do the same twice")]
    per: Per
    single: str = Field("", description="What hangs on it where there is only one; empty: nothing")


def _read() -> dict[str, Service]:
    text = resources.files("omnifer.core.model").joinpath("serves.csv").read_text(encoding="utf-8")
    rows = TypeAdapter(list[Service]).validate_python(list(csv.DictReader(text.splitlines())))
    return {row.id: row for row in rows}


SERVICES = _read()
"""By their identifiers."""


def _known(word: str) -> str:
    if word not in SERVICES:
        raise ValueError(f"{word!r} is nothing that a thing is known to serve")
    return word


Serves = Annotated[str, AfterValidator(_known)]
"""The identifier of a row."""
