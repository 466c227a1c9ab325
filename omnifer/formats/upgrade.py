"""Documents of earlier versions brought up to today's: one pure step a version, shared by the store and the bundle's reader.

A document is a tour as JSON has it. A step takes that of one version and gives that of the next; it never looks at the
models, which move on. A new version adds a step here and a frozen document to `tests/fixtures`.
"""

from collections.abc import Callable
from copy import deepcopy
from typing import Any

from omnifer.core.model.tour import VERSION

Document = dict[str, Any]


class TooNew(ValueError):
    """The document was written by a later Omnifer."""


def upgrade(document: Document, version: int) -> Document:
    """A document of a version as one of today's; an older one stays as it is. Raises TooNew, or ValueError for no version."""
    if version > VERSION:
        raise TooNew(f"it has version {version}; this Omnifer reads up to {VERSION}")
    if version < 1:
        raise ValueError(f"{version} is no version")
    document = document if version == VERSION else deepcopy(document)
    for step in STEPS[version - 1 :]:
        step(document)
    return document


def _to_2(tour: Document) -> None:
    """A thing's kit is its group, a frame's reach has a name of its own, and what rides in a thing rides where that does."""
    for thing in tour.get("kit", []):
        if "kit" in thing:
            thing["group"] = thing.pop("kit")
    for rig in (tour.get("rig", {}), *(variant.get("rig", {}) for variant in tour.get("variants", []))):
        for bike in rig.get("bikes", []):
            for figures in (bike, bike.get("sources", {})):
                if "reach_mm" in figures:
                    figures["frame_reach_mm"] = figures.pop("reach_mm")
    inner = {thing["id"]: thing for thing in tour.get("kit", []) if thing.get("inside")}
    loads = [tour.get("load", {}), *(owner.get("load", {}) for owner in (*tour.get("variants", []), *tour.get("kept_loads", [])))]
    for load in loads:
        placed = [p for p in load.get("placements", []) if p["thing_id"] not in inner]
        for thing in inner.values():
            outer = next((p for p in placed if p["thing_id"] == thing["inside"]), None)
            if outer is not None:
                placed.append(outer | {"thing_id": thing["id"], "count": thing.get("count", 1)})
        if "placements" in load:
            load["placements"] = placed


def _to_3(tour: Document) -> None:
    """Mass and volume are guessed apart."""
    for thing in tour.get("kit", []):
        if thing.pop("guess", False):
            thing["guessed"] = ["mass", "volume"]


STEPS: tuple[Callable[[Document], None], ...] = (_to_2, _to_3)
"""From version 1 to 2, and so on."""
