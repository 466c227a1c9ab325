"""What was made lately and takes long to make again."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from concurrent.futures import Future
from threading import Lock
from typing import Generic, TypeVar

Key = TypeVar("Key", bound=Hashable)
Made = TypeVar("Made")


class Lately(Generic[Key, Made]):
    """Things lately made, shared by all requests of a process and made once however many want them at the same time.

    Parameters
    ----------
    most : int
        What they may weigh together; those not used for longest are forgotten.
    weight : callable, optional
        What one of them weighs; left out, they are counted.
    """

    def __init__(self, most: int, weight: Callable[[Made], int] = lambda _: 1) -> None:
        self._most, self._weight = most, weight
        self._kept: OrderedDict[Key, Made] = OrderedDict()
        self._weighs = 0
        self._under_way: dict[Key, Future[Made]] = {}
        self._lock = Lock()

    def of(self, key: Key, make: Callable[[], Made]) -> Made:
        """What is kept under a key, made where there is nothing; whoever comes while it is made waits for it."""
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key]
            waiting = self._under_way.get(key)
            if waiting is None:
                promise = self._under_way[key] = Future[Made]()
        if waiting is not None:
            return waiting.result()
        try:
            made = make()
        except BaseException as error:
            promise.set_exception(error)
            raise
        else:
            self.keep(key, made)
            promise.set_result(made)
            return made
        finally:
            with self._lock:
                del self._under_way[key]

    def peek(self, key: Key) -> Made | None:
        """What is kept under a key; None where nothing is."""
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
            return self._kept.get(key)

    def keep(self, key: Key, made: Made) -> None:
        """Keep something under a key."""
        with self._lock:
            if key in self._kept:
                self._weighs -= self._weight(self._kept.pop(key))
            self._kept[key] = made
            self._weighs += self._weight(made)
            while self._weighs > self._most and self._kept:
                self._weighs -= self._weight(self._kept.popitem(last=False)[1])
