"""Which part of every carrier's mass each wheel bears."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from omnifer.core import practice
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.trace import Box
from omnifer.core.physics.statics import front_wheel_load
from omnifer.core.rig.geometry import Frame, contents_centre
from omnifer.core.rig.parts import whole_of

Array = NDArray[np.float64]


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

    def __init__(self, bike: Bike) -> None:
        self.bike = bike
        self.frame = Frame.of(bike)
        trailer = self.frame.trailer()
        self._trailer_id = trailer.id if trailer else None
        self._trailer_frame = trailer.trailer if trailer else None
        self.boxes: dict[str, Box] = {c.id: self.frame.carrier_box(c) for c in bike.carriers}
        self.centres = {c.id: contents_centre(self.boxes[c.id]) for c in bike.carriers}

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

    def front_when_pushed(self, carrier: Carrier) -> float:
        """Part of what lies in a carrier that presses on the front wheel, the bike pushed up the slope PUSHED_UP [-]."""
        if self.on_trailer(carrier):
            return 0.0
        x, y, _ = self.centres[carrier.id]
        return front_wheel_load(1.0, x, y, self.bike.wheelbase_mm, practice.PUSHED_UP)

    def bare_front_when_pushed(self) -> float:
        """The same of the bike with its supports and empty carriers [kg]; the trailer's hitch is left out."""
        bare = self.bare()
        x, y = bare.moment_x / bare.mass, bare.moment_y / bare.mass
        return front_wheel_load(bare.mass, x, y, self.bike.wheelbase_mm, practice.PUSHED_UP)

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
