"""The whole tour as one documented JSON file."""

import json
from typing import Any

from pydantic import ValidationError

from omnifer.core.model.tour import VERSION, Bundle, Tour
from omnifer.formats.problem import InputProblem, in_words
from omnifer.formats.upgrade import TooNew, upgrade

MOST_BYTES = 64 * 1024 * 1024


def read_bundle(content: bytes | str) -> Tour:
    """The tour of a bundle. Raises InputProblem, naming the first fields that cannot be taken."""
    if len(content) > MOST_BYTES:
        raise InputProblem(f"The bundle is larger than {MOST_BYTES // 2**20} MB")
    try:
        document = json.loads(content, parse_constant=_refuse_constant)
    except RecursionError:
        raise InputProblem("This JSON is nested too deep", "", "Choose a file that Omnifer wrote.") from None
    except ValueError as error:
        raise InputProblem(f"This is not JSON: {error}", "", "Choose a file that Omnifer wrote.") from None
    if not isinstance(document, dict) or document.get("format") != "omnifer-tour":
        raise InputProblem("This JSON file is no Omnifer tour", "field format", 'It must say "format": "omnifer-tour".')
    version = document.get("version")
    if not isinstance(version, int) or not isinstance(document.get("tour"), dict):
        raise InputProblem("The bundle has no version or no tour", "fields version and tour", "Choose a file that Omnifer wrote.")
    try:
        tour = upgrade(document["tour"], version)
    except TooNew as error:
        raise InputProblem(f"The bundle cannot be read: {error}", "field version", "Update Omnifer.") from None
    except (ValueError, TypeError, KeyError, AttributeError):
        words = f"The bundle does not read as one of version {version}"
        raise InputProblem(words, "", "Choose a file that Omnifer wrote.") from None
    try:
        return Bundle.model_validate(document | {"version": VERSION, "tour": tour}).tour
    except ValidationError as error:
        raise InputProblem(in_words(error), "", "Mend these fields; nothing was taken.") from None


def _refuse_constant(name: str) -> None:
    raise ValueError(f"{name} is not a number that a tour can hold")


def write_bundle(tour: Tour) -> str:
    """The bundle of a tour, byte for byte the same for the same tour."""
    return Bundle(tour=tour).model_dump_json(indent=1) + "\n"


def bundle_schema() -> dict[str, Any]:
    """JSON Schema of a bundle."""
    schema = Bundle.model_json_schema(mode="validation")
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}
