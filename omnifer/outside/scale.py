"""The client of a weighing scale that speaks plain lines over TCP; it survives whatever the scale and its link do."""

import socket
import time
from collections import deque
from collections.abc import Iterator
from typing import Literal

import numpy as np
from pydantic import Field

from omnifer.core.model.quantities import Noun
from omnifer.core.physics.weighing import BAND_KG, STILL_S, still_since

CONNECT_S, SILENT_S, AGAIN_S = 0.5, 1.5, 0.3
"""Longest wait for a connection, for the next line, and before it is tried again [s]."""
TO_KG = {"kg": 1.0, "g": 0.001, "lb": 0.45359237}
"""Units that scales speak, in kilograms; the pound by its definition."""
LATELY = 200
"""So many readings tell whether it is still."""
LONGEST_LINE, MOST_KG = 128, 2000.0


class Reading(Noun):
    """One line of a scale, or what stands in its way."""

    state: Literal["stable", "moving", "too_much", "lost", "none"]
    kg: float | None = None
    number: int = 0
    still: bool = Field(False, description="It has been stable within the band for long enough to be taken")


class Scale(Noun):
    """What a scale says of itself."""

    name: str
    most_kg: float
    step_kg: float
    band_kg: float = Field(BAND_KG, description="Within which readings are still [kg]")

    @property
    def simulated(self) -> bool:
        """Whether it is the stand-in that comes along."""
        return self.name == "simulated"


class ScaleTrouble(Exception):
    """The scale does not do what it is asked; the message says why."""


def understood(line: str) -> Reading | Scale | None:
    """What a line tells; None where it tells nothing that is known."""
    words = line.split()
    try:
        match words:
            case ["HELLO", name, most, step, unit]:
                return Scale(name=name[:40], most_kg=float(most) * TO_KG[unit], step_kg=float(step) * TO_KG[unit])
            case ["W", number, value, unit, ("stable" | "moving") as state]:
                kg = float(value) * TO_KG[unit]
                return Reading(state=state, kg=round(kg, 4), number=int(number)) if abs(kg) <= MOST_KG else None
            case ["O", number]:
                return Reading(state="too_much", number=int(number))
    except (ValueError, KeyError, OverflowError):
        pass
    return None


def _judged(found: Reading | Scale, lately: deque[tuple[float, float]]) -> Reading | Scale:
    """A reading with whether it is still, by the stable ones just before it; anything else breaks their row."""
    if not isinstance(found, Reading) or found.state != "stable" or found.kg is None:
        lately.clear()
        return found
    lately.append((time.monotonic(), found.kg))
    times, values = np.array(lately).T
    return found.model_copy(update={"still": still_since(times, values, BAND_KG) >= STILL_S})


class ScaleService:
    """A scale at a port of this machine; None: there is none."""

    def __init__(self, port: int | None) -> None:
        self.port = port

    def readings(self) -> Iterator[Reading | Scale]:
        """What it is and its readings as they come, without end; where the link is lost it is said, and tried again."""
        while self.port is not None:
            try:
                with self._connected() as link, link.makefile("rb") as lines:
                    lately: deque[tuple[float, float]] = deque(maxlen=LATELY)
                    while line := lines.readline(LONGEST_LINE):
                        found = understood(line.decode("ascii", "replace"))
                        if found is not None:
                            yield _judged(found, lately)
            except OSError:
                pass
            yield Reading(state="lost")
            time.sleep(AGAIN_S)
        yield Reading(state="none")

    def ask(self, line: str) -> None:
        """Ask something of the scale. Raises ScaleTrouble."""
        if self.port is None:
            raise ScaleTrouble("There is no scale")
        try:
            with self._connected() as link, link.makefile("rb") as lines:
                link.sendall(f"{line}\n".encode("ascii"))
                for _ in range(50):
                    told = lines.readline(LONGEST_LINE).decode("ascii", "replace").strip()
                    if told.startswith("OK"):
                        return
                    if told.startswith("ERR") or not told:
                        raise ScaleTrouble("The scale does not understand")
        except OSError:
            pass
        raise ScaleTrouble("The scale does not answer")

    def _connected(self) -> socket.socket:
        link = socket.create_connection(("127.0.0.1", self.port or 0), timeout=CONNECT_S)
        link.settimeout(SILENT_S)
        return link
