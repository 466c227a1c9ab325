"""Writes the documents that are generated: OpenAPI, the bundle's JSON Schema, the bounds of fields for the screens, the ledger
of what is cited from memory, the words of the model, and the stages of an assessment. `--check` only compares."""

import json
import sys
from pathlib import Path
from typing import Any

from omnifer.api.app import create_app
from omnifer.api.openapi import document
from omnifer.core.findings import SPECS
from omnifer.core.model.diary import ACHES, CHANGED
from omnifer.core.model.fuels import FUELS
from omnifer.core.model.kit import Fit, Thing
from omnifer.core.model.library import BAGS
from omnifer.core.model.quantities import Noun, blank_of
from omnifer.core.model.road import SAME_START_KM, STOP_FIELDS, Stop
from omnifer.core.physics.weather import NINE_IN_TEN
from omnifer.core.road import days
from omnifer.core.world import places
from omnifer.drawn import stages_drawn
from omnifer.formats.bundle import bundle_schema
from omnifer.formats.osm import SUFFIXES as MAP_SUFFIXES
from omnifer.formats.relief import SUFFIXES as HEIGHT_SUFFIXES
from omnifer.formats.tracks import SUFFIXES
from omnifer.from_memory import ledger
from omnifer.glossary import glossary

ROOT = Path(__file__).parents[1]
NAMES = (
    "docs/openapi.json",
    "docs/bundle.schema.json",
    "web/src/api/bounds.ts",
    "docs/from-memory.md",
    "docs/words.md",
    "docs/stages.md",
    "omnifer/core/model/kinds_of_finding.py",
)
DOCUMENTS = tuple(ROOT / name for name in NAMES)
NEAR = {
    "snap_to_stop_km": days.SNAP_TO_STOP_KM, "same_place_km": days.SAME_PLACE_KM, "shortest_day_km": days.SHORTEST_DAY_KM,
    "same_start_km": SAME_START_KM,
}  # fmt: skip
"""Distances that gestures of the screens ask for."""


BLANKS: tuple[type[Noun], ...] = (Thing, Fit, Stop)
"""Nouns that a screen makes new ones of."""


def bounds(schema: dict[str, Any]) -> str:
    """Least and most of every numeric field of every noun of a tour, as TypeScript."""
    lines = ["/** Made by bin/documents from the nouns of the core: what a field can be. */",
             "import type { components } from './schema'", "", "export const BOUNDS = {"]  # fmt: skip
    for noun, described in sorted(schema["$defs"].items()):
        fields = {name: pair for name, field in described.get("properties", {}).items() if (pair := _bounds(field))}
        if fields:
            lines += [f"  {noun}: {{", *(f"    {name}: [{low}, {high}]," for name, (low, high) in fields.items()), "  },"]
    near = [f"  {name}: {value:g}," for name, value in NEAR.items()]
    hurting = [line for name, words in (("ACHES", ACHES), ("CHANGED", CHANGED))
               for line in (f"export const {name} = [{', '.join(repr(word) for word in words)}] as const", "")]  # fmt: skip
    fuels = [f"  {kind}: '{fuel.words}'," for kind, fuel in FUELS.items()]
    return "\n".join([*lines, "} as const", "", "/** Distances along the road that gestures ask for [km]. */",
                      "export const NEAR = {", *near, "} as const", "",
                      "/** Where it hurts, and what is changed against it. */", *hurting,
                      "/** What bags of the rig are kept with in the library. */", f"export const BAGS_KIT = {BAGS!r}", "",
                      "/** What a stove burns. */", "export const FUEL_WORDS = {", *fuels, "} as const", "",
                      "/** What files of a road are called. */",
                      f"export const TRACK_FILES = [{', '.join(repr(suffix) for suffix in SUFFIXES)}]", "",
                      "/** What of a stop each part of it says. */",
                      "export const STOP_FIELDS = {", *(f"  {part}: {list(fields)}," for part, fields in STOP_FIELDS.items()),
                      "} as const", "",
                      "/** Whose the places are that ship. */", f"export const PLACES_OF = '{places.SOURCE}'", "",
                      "/** What files of a map are called. */",
                      f"export const MAP_FILES = [{', '.join(repr(suffix) for suffix in MAP_SUFFIXES)}]", "",
                      "/** What files of heights are called. */",
                      f"export const HEIGHT_FILES = [{', '.join(repr(suffix) for suffix in HEIGHT_SUFFIXES)}]", "",
                      "/** Standard deviations to each side that hold nine of ten. */",
                      f"export const NINE_IN_TEN = {NINE_IN_TEN:g}", "",
                      "/** What of them is new and says nothing yet. */", *_blanks()])  # fmt: skip


def _blanks() -> list[str]:
    """A blank of each noun that a screen makes new ones of, as TypeScript."""
    lines = ["export const BLANK: {"]
    lines += [f"  {noun.__name__}: components['schemas']['{noun.__name__}-Output']" for noun in BLANKS]
    lines += ["} = {"]
    for noun in BLANKS:
        said = blank_of(noun).model_dump(mode="json")
        lines += [f"  {noun.__name__}: {{", *(f"    {name}: {_literal(value)}," for name, value in said.items()), "  },"]
    return [*lines, "}", ""]


def _literal(value: object) -> str:
    return f"{value:g}" if isinstance(value, float) else repr(value) if isinstance(value, str) else json.dumps(value)


def kinds_of_finding() -> str:
    """Every kind of trouble that a check says it finds, as a type."""
    told = '"""Every kind of trouble; made by bin/documents from what the checks say they find."""'
    return "\n".join(
        [told, "", "from typing import Literal", "", "FindingKind = Literal[", *(f'    "{kind}",' for kind in SPECS), "]", ""]
    )


def _bounds(field: dict[str, Any]) -> tuple[str, str] | None:
    """The bounds of a numeric field, or of the number in one that may be left open."""
    for option in field.get("anyOf", [field]):
        if option.get("type") in ("number", "integer") and {"minimum", "exclusiveMinimum", "maximum"} & option.keys():
            low, high = option.get("minimum", option.get("exclusiveMinimum")), option.get("maximum")
            return ("-Infinity" if low is None else f"{low:g}"), ("Infinity" if high is None else f"{high:g}")
    return None


def main(check: bool) -> int:
    """Write or compare; returns 1 where a document is out of date."""
    schema = bundle_schema()
    made = [json.dumps(content, indent=1, sort_keys=True) + "\n" for content in (document(create_app(None)), schema)]
    stale = 0
    for path, text in zip(
        DOCUMENTS, [*made, bounds(schema), ledger(), glossary(), stages_drawn(), kinds_of_finding()], strict=True
    ):
        if check and (not path.exists() or path.read_text() != text):
            print(f"{path.relative_to(ROOT)} is out of date: run bin/documents", file=sys.stderr)
            stale = 1
        elif not check:
            path.write_text(text)
    return stale


if __name__ == "__main__":
    sys.exit(main(check="--check" in sys.argv))
