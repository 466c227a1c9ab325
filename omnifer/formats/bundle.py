"""The whole tour as one documented JSON file."""

import json
from typing import Any

from pydantic import ValidationError

from omnifer.core.model.tour import BUNDLE_VERSION, Bundle, Tour
from omnifer.formats.problem import InputProblem

MOST_BYTES = 64 * 1024 * 1024
_MOST_PROBLEMS = 5


def read_bundle(content: bytes | str) -> Tour:
    """The tour of a bundle. Raises InputProblem, naming the first fields that cannot be taken."""
    if len(content) > MOST_BYTES:
        raise InputProblem(f"The bundle is larger than {MOST_BYTES // 2**20} MB")
    try:
        document = json.loads(content, parse_constant=_refuse_constant)
    except (ValueError, RecursionError) as error:
        raise InputProblem(f"This is not JSON: {error}", "", "Choose a file that Omnifer wrote.") from None
    if not isinstance(document, dict) or document.get("format") != "omnifer-tour":
        raise InputProblem("This JSON file is no Omnifer tour", "field format", 'It must say "format": "omnifer-tour".')
    version = document.get("version")
    if isinstance(version, int) and version > BUNDLE_VERSION:
        raise InputProblem(
            f"The bundle has version {version}; this Omnifer reads up to {BUNDLE_VERSION}", "field version", "Update Omnifer."
        )
    try:
        return Bundle.model_validate(document).tour
    except ValidationError as error:
        raise InputProblem("; ".join(_in_words(error)), "", "Mend these fields; nothing was taken.") from None


def _refuse_constant(name: str) -> None:
    raise ValueError(f"{name} is not a number that a tour can hold")


def _in_words(error: ValidationError) -> list[str]:
    problems = error.errors()
    words = [f"{'.'.join(str(p) for p in problem['loc'])}: {problem['msg']}" for problem in problems[:_MOST_PROBLEMS]]
    if len(problems) > _MOST_PROBLEMS:
        words.append(f"and {len(problems) - _MOST_PROBLEMS} more")
    return words


def write_bundle(tour: Tour) -> str:
    """The bundle of a tour, byte for byte the same for the same tour."""
    return Bundle(tour=tour).model_dump_json(indent=1) + "\n"


def bundle_schema() -> dict[str, Any]:
    """JSON Schema of a bundle."""
    schema = Bundle.model_json_schema(mode="validation")
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}
