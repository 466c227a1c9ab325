"""What of an answer is other than its reader has it: the places that changed, and what stands there now."""

from collections.abc import Iterator, Sequence
from typing import Any

from pydantic import BaseModel
from pydantic_core import to_jsonable_python

from omnifer.office.shapes import Otherwise, Place


def otherwise(before: Any, after: Any, at: Place = ()) -> Iterator[Otherwise]:
    """Where two models of a kind differ. What is the very same object in both is not looked into.

    Parameters
    ----------
    at : tuple
        Where the models stand in the answer.
    """
    if before is after:
        return
    if isinstance(after, BaseModel) and type(before) is type(after):
        for name, value in after.__dict__.items():
            yield from otherwise(before.__dict__[name], value, (*at, name))
    elif isinstance(after, dict) and isinstance(before, dict):
        yield from (_change((*at, key), gone=True) for key in before if key not in after)
        for key, value in after.items():
            yield from otherwise(before[key], value, (*at, key)) if key in before else (_change((*at, key), to=value),)
    elif _of_parts(before) and _of_parts(after):
        if len(before) != len(after):
            yield _change(at, items=list(_rebuilt(before, after)))
            return
        for k, (was, value) in enumerate(zip(before, after, strict=True)):
            if was is not value and was != value:
                yield from otherwise(was, value, (*at, k))
    elif type(before) is not type(after) or before != after:
        yield _change(at, to=after)


def _change(at: Place, to: Any = None, items: list[int | dict[str, Any]] | None = None, gone: bool = False) -> Otherwise:
    return Otherwise.of_its_kinds(at=at, to=to_jsonable_python(to), items=items, gone=gone)


def _of_parts(values: Any) -> bool:
    """Whether it is a list of what has parts of its own; figures and words are sent all at once."""
    return isinstance(values, list | tuple) and bool(values) and all(isinstance(value, BaseModel | dict) for value in values)


def _rebuilt(old: Sequence[Any], new: Sequence[Any]) -> Iterator[int | dict[str, Any]]:
    """A list, by where each entry stood before or by what it is."""
    stood = list(enumerate(old))
    for value in new:
        found = next((n for n, (_, was) in enumerate(stood) if was is value or was == value), None)
        yield to_jsonable_python(value) if found is None else stood.pop(found)[0]
