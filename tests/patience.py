"""How long tests wait for a state. Nothing takes so long but a fault: a machine may give a fifth of what it gives on other days."""

import time
from collections.abc import Callable

PATIENCE_S = 180


def until(true: Callable[[], object], what: str) -> float:
    """Wait; how long it took [s]."""
    began = time.monotonic()
    while not true():
        assert time.monotonic() - began < PATIENCE_S, what
        time.sleep(0.03)
    return time.monotonic() - began
