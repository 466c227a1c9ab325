"""Which part of every carrier's mass each wheel bears."""

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.practice import USUAL, Practice
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.trace import Box
from omnifer.core.rig.geometry import Frame, contents_centre
from omnifer.core.rig.parts import whole_of

Array = NDArray[np.float64]
Axle = Literal["front", "rear"]


@dataclass(frozen=True)
class Shares:
    """Parts of a mass that press on front wheel, rear wheel, trailer wheels and hitch [-].

    The hitch load is part of the rear wheel's.
    """

    front: float
    rear: float
    trailer: float
    hitch: float


@dataclass(frozen=True)
class BareBike:
    """Loads of a bike without contents and without rider [kg], and its moments for the centre of gravity [kg mm]."""

    front: float
    rear: float
    trailer: float
    hitch: float
    mass: float
    moment_x: float
    moment_y: float


class Levers:
    """The levers of one bike: fixed once its measures are."""

    def __init__(self, bike: Bike, usual: Practice = USUAL) -> None:
        self.bike, self.usual = bike, usual
        self.frame = Frame.of(bike)
        trailer = self.frame.trailer()
        self._trailer_id = trailer.id if trailer else None
        self._trailer_frame = trailer.trailer if trailer else None
        self.boxes: dict[str, Box] = {c.id: self.frame.carrier_box(c) for c in bike.carriers}
        self.centres = {c.id: contents_centre(self.boxes[c.id], usual.fill_height) for c in bike.carriers}

    def on_trailer(self, carrier: Carrier) -> bool:
        """Whether a carrier rides on the trailer."""
        return whole_of(self.bike, carrier).hangs_on == self._trailer_id

    def shares(self, x_mm: float, on_trailer: bool) -> Shares:
        """How a mass at x presses on the wheels; trailers hitch at the rear axle."""
        if on_trailer and self._trailer_frame is not None:
            length = self._trailer_frame.hitch_to_axle_mm
            hitch = (x_mm + length) / length
            return Shares(0.0, hitch, 1 - hitch, hitch)
        front = x_mm / self.bike.wheelbase_mm
        return Shares(front, 1 - front, 0.0, 0.0)

    def carrier_shares(self, carrier: Carrier) -> Shares:
        """How what lies in a carrier presses on the wheels."""
        return self.shares(self.centres[carrier.id][0], self.on_trailer(carrier))

    def axle(self, carrier: Carrier) -> Axle:
        """The axle on whose left or right a carrier counts: the nearer one."""
        return "front" if self.centres[carrier.id][0] > self.bike.wheelbase_mm / 2 else "rear"

    @property
    def hitch_height_mm(self) -> float:
        """Where a trailer pulls: at the rear axle."""
        return self.frame.rear_axle.y

    def front_when_pushed(self, carrier: Carrier) -> float:
        """Part of what lies in a carrier that presses on the front wheel, the bike pushed at its bar up `pushed_up` [-]."""
        if self.on_trailer(carrier):
            return self._pushed(0.0, 0.0, 0.0, 1.0)
        x, y, _ = self.centres[carrier.id]
        return self.front_when_pushed_at(x, y)

    def front_when_pushed_at(self, x_mm: float, y_mm: float) -> float:
        """The same of a kilogram anywhere on the bike [-]."""
        return self._pushed(1.0, x_mm, y_mm, 0.0)

    def bare_front_when_pushed(self) -> float:
        """The same of the bike with its supports, empty carriers and trailer [kg]."""
        bare = self.bare()
        return self._pushed(bare.mass, bare.moment_x, bare.moment_y, bare.trailer + bare.hitch)

    def _pushed(self, mass: float, moment_x: float, moment_y: float, trailer: float) -> float:
        slope = self.usual.pushed_up
        up, steep = 1 / math.hypot(1, slope), slope / math.hypot(1, slope)
        pull = trailer * self.hitch_height_mm - (mass + trailer) * self.frame.bar.y
        return (moment_x * up - (moment_y + pull) * steep) / self.bike.wheelbase_mm

    def bare(self) -> BareBike:
        """The bike with its supports and empty carriers."""
        bike = self.bike
        parts = [(bike.mass_kg, bike.own_x_mm, bike.mass_y_mm, False)]
        for support in bike.supports:
            centre = self.frame.support_centre(support)
            parts.append((support.mass_kg, centre.x, centre.y, support.id == self._trailer_id))
        for carrier in bike.carriers:
            x, y, _ = self.centres[carrier.id]
            parts.append((carrier.mass_kg, x, y, self.on_trailer(carrier)))
        loads = np.zeros(4)
        mass = moment_x = moment_y = 0.0
        for kg, x, y, on_trailer in parts:
            s = self.shares(x, on_trailer)
            loads += kg * np.array([s.front, s.rear, s.trailer, s.hitch])
            if not on_trailer:
                mass, moment_x, moment_y = mass + kg, moment_x + kg * x, moment_y + kg * y
        front, rear, trailer, hitch = (float(v) for v in loads)
        return BareBike(front, rear, trailer, hitch, mass, moment_x, moment_y)
