"""What was made lately and takes long to make again."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

Key = TypeVar("Key", bound=Hashable)
Made = TypeVar("Made")


class Lately(Generic[Key, Made]):
    """Things lately made, shared by all requests; the one not used for longest is forgotten."""

    def __init__(self, most: int) -> None:
        self._most = most
        self._kept: OrderedDict[Key, Made] = OrderedDict()
        self._lock = Lock()

    def of(self, key: Key, make: Callable[[], Made]) -> Made:
        """What is kept under a key, made where there is nothing."""
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key]
        made = make()
        self.keep(key, made)
        return made

    def keep(self, key: Key, made: Made) -> None:
        """Keep something under a key."""
        with self._lock:
            self._kept[key] = made
            self._kept.move_to_end(key)
            while len(self._kept) > self._most:
                self._kept.popitem(last=False)
