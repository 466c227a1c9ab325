"""What of an answer is other than its reader has it: the places that changed, and what stands there now."""

from collections.abc import Iterator
from typing import Any

from pydantic import BaseModel

from omnifer.office.shapes import Otherwise, Place


def otherwise(before: BaseModel, after: BaseModel, at: Place = ()) -> Iterator[Otherwise]:
    """Where two models of a kind differ. What is the very same object in both is not looked at.

    Parameters
    ----------
    at : tuple
        Where the models stand in the answer.
    """
    differ = {name for name in type(after).model_fields if getattr(before, name) is not getattr(after, name)}
    old, new = (model.model_dump(mode="json", include=differ) for model in (before, after))
    for name in new:
        yield from _between(old[name], new[name], (*at, name))


def _between(old: Any, new: Any, at: Place) -> Iterator[Otherwise]:
    if old == new:
        return
    if isinstance(old, dict) and isinstance(new, dict):
        yield from (Otherwise(at=(*at, key), gone=True) for key in old if key not in new)
        for key, value in new.items():
            yield from _between(old[key], value, (*at, key)) if key in old else (Otherwise(at=(*at, key), to=value),)
    elif isinstance(old, list) and isinstance(new, list) and _of_parts(old) and _of_parts(new):
        if len(old) == len(new):
            for k, (was, value) in enumerate(zip(old, new, strict=True)):
                yield from _between(was, value, (*at, k))
        else:
            yield Otherwise(at=at, items=list(_rebuilt(old, new)))
    else:
        yield Otherwise(at=at, to=new)


def _of_parts(values: list[Any]) -> bool:
    """Whether a list holds what has parts of its own; figures and words are sent all at once."""
    return bool(values) and all(isinstance(value, dict) for value in values)


def _rebuilt(old: list[Any], new: list[Any]) -> Iterator[int | dict[str, Any]]:
    """A list, by where each entry stood before or by what it is."""
    stood = list(enumerate(old))
    for value in new:
        found = next((n for n, (_, was) in enumerate(stood) if was == value), None)
        yield value if found is None else stood.pop(found)[0]
