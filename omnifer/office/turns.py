"""One at a time: who would lose a collision waits instead of working out for nothing what a change means."""

import threading
from collections.abc import Iterator
from contextlib import contextmanager


class Turns:
    """Locks by name, each there while somebody holds it or waits for it. Of this process: others still collide, and try again."""

    def __init__(self) -> None:
        self._guard = threading.Lock()
        self._waiting: dict[str, tuple[threading.RLock, int]] = {}

    @contextmanager
    def of(self, name: str) -> Iterator[None]:
        """Hold a name's turn; who holds it already goes on."""
        with self._guard:
            lock, waiting = self._waiting.get(name, (threading.RLock(), 0))
            self._waiting[name] = lock, waiting + 1
        try:
            with lock:
                yield
        finally:
            with self._guard:
                _, waiting = self._waiting.pop(name)
                if waiting > 1:
                    self._waiting[name] = lock, waiting - 1
