"""What was worked out lately, for whoever asks again with the same: nothing but time depends on it."""

from collections import deque
from collections.abc import Callable
from threading import Lock
from typing import Generic, TypeVar

from omnifer.core.model.tour import TourSheet

Made = TypeVar("Made")
NOT_PLAYED = frozenset({"name", "load", "aims", "variants", "kept_loads", "answers", "set_aside"})
"""Parts of a tour that its play does not read by themselves: of the load only what each bike weighs and the vessels on it."""


def played_parts(tour: TourSheet) -> tuple[object, ...]:
    """All other parts of a tour."""
    return tuple(getattr(tour, name) for name in TourSheet.model_fields if name not in NOT_PLAYED)


class Lately(Generic[Made]):
    """The last few things made of one kind.

    Parameters
    ----------
    most : int
        How many are kept; the oldest goes first.
    """

    def __init__(self, most: int) -> None:
        self._kept: deque[tuple[object, tuple[object, ...], Made]] = deque(maxlen=most)
        self._lock = Lock()

    def of(self, ground: object, parts: tuple[object, ...], make: Callable[[], Made]) -> Made:
        """What was made on the same ground (the very one, not one like it) from equal parts; made now where nothing was."""
        with self._lock:
            kept = list(self._kept)
        for on, of, made in reversed(kept):
            if on is ground and of == parts:
                return made
        made = make()
        with self._lock:
            self._kept.append((ground, parts, made))
        return made
