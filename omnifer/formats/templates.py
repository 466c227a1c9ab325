"""Kits to begin with: what riders of each school mostly carry, with usual masses (common practice, no source).

The table is `templates.csv`, open to additions: a thing a row, its kind in the catalogue, what it serves beyond that, and how
many of it each school takes.
"""

import csv
from functools import cache
from importlib import resources
from typing import Literal, get_args

from omnifer.core.kit.kinds import kinds
from omnifer.core.kit.told import told_of
from omnifer.core.model.kit import Thing
from omnifer.core.model.people import Rider

KitSchool = Literal["ultralight", "light", "usual", "comfort", "long"]
SCHOOLS: tuple[KitSchool, ...] = get_args(KitSchool)
SHARED_KITS = ("cook", "tools", "water", "packing")
"""Of these one is enough for the party; of all else each rider has an own one."""


def kit_of_school(school: KitSchool, riders: tuple[Rider, ...]) -> tuple[Thing, ...]:
    """What riders of a school mostly carry: each rider's own, shared things once, all marked as guesses."""
    found = []
    for n, row in enumerate(_rows()):
        count = int(row[school] or 0)
        if not count:
            continue
        shared = len(riders) > 1 and (row["kit"] in SHARED_KITS or row["kind"] == "tent")
        for rider in (None,) if shared or len(riders) == 1 else riders:
            thing = _thing(row, n, count, rider)
            alone = len(riders) == 1 and row["kind"] and kinds()[row["kind"]].each
            found.append(thing.model_copy(update={"rider_id": riders[0].id}) if alone else thing)
    return tuple(found)


def _thing(row: dict[str, str], n: int, count: int, rider: Rider | None) -> Thing:
    name = row["name"] if rider is None else f"{row['name']}, {rider.name}"[:120]
    told = told_of(row["name"], int(row["mass_g"]) / 1000, kind_id=row["kind"] or None)
    serves = dict.fromkeys([*told.fields.get("serves", ()), *row["serves"].split()])
    own = {
        "id": f"{school_id(row['name'])}-{n}" + (f"-{rider.id}"[:12] if rider else ""), "name": name, "group": row["kit"],
        "count": count, "serves": tuple(serves), "rider_id": rider.id if rider else None,
        "guessed": tuple(dict.fromkeys(("mass", *told.guessed))), "may_stay": row["kit"] == "comfort",
    }  # fmt: skip
    return Thing.model_validate(told.fields | own)


def school_id(name: str) -> str:
    """A name as the stem of an identifier."""
    return "".join(c if c.isalnum() else "-" for c in name.lower())[:20].strip("-")


@cache
def _rows() -> list[dict[str, str]]:
    text = resources.files("omnifer.formats").joinpath("templates.csv").read_text(encoding="utf-8")
    return list(csv.DictReader(text.splitlines()))
