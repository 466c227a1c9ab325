"""The words of the model: each noun once, in the sentence that it stands under in the code, with the one name it has."""

import importlib
import inspect
import pkgutil
import re
from collections.abc import Iterator

from omnifer.core import model
from omnifer.core.model.quantities import Noun

HEAD = """# Words

Made by `bin/documents` from the nouns of `omnifer/core/model`: each once, with the one name it has. Fields, units and bounds
of those that a tour is written in are in [`bundle.schema.json`](bundle.schema.json).
"""


def glossary() -> str:
    """The words as a document, by the module in which they stand."""
    parts = [HEAD]
    for module in sorted(pkgutil.iter_modules(model.__path__), key=lambda found: found.name):
        loaded = importlib.import_module(f"{model.__name__}.{module.name}")
        rows = [f"| **{spoken(noun.__name__)}** | {_first(noun)} |" for noun in _nouns_of(loaded)]
        if rows:
            parts.append(
                "\n".join([f"## {module.name}", "", _first(loaded), "", "| word | what it is |", "|---|---|", *rows, ""])
            )
    return "\n".join(parts)


def spoken(name: str) -> str:
    """A class as it is spoken of: `BikeTrace` is a bike trace."""
    return re.sub(r"(?<=[a-z0-9])(?=[A-Z])", " ", name).lower()


def _nouns_of(module: object) -> Iterator[type[Noun]]:
    for _, found in inspect.getmembers(module, inspect.isclass):
        if issubclass(found, Noun) and found is not Noun and found.__module__ == getattr(module, "__name__", ""):
            yield found


def _first(told: object) -> str:
    """The first paragraph of what stands under a name, on one line."""
    return " ".join((inspect.getdoc(told) or "").split("\n\n")[0].split()).replace("|", "\\|")
