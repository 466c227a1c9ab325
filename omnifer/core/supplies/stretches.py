"""The tour as hours on end of riding and of staying, with what hub and sun give in them."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from omnifer.core.model.road import Stop
from omnifer.core.model.roles import Hub, Panel
from omnifer.core.physics import dynamo, sun
from omnifer.core.supplies.carried import Array
from omnifer.core.supplies.ride import Ride

NOON = 12.0


@dataclass(frozen=True)
class Stretch:
    """Hours on end of the same kind: riding between two places, or staying at one.

    Attributes
    ----------
    riding : float
        Part of its day's riding.
    camping : float
        Part of a day's hours in camp.
    """

    from_km: float
    to_km: float
    day: int
    start_h: float
    hours: float
    riding: float
    camping: float
    dark_h: float
    hub_wh: float
    panel_wh: float
    frost: bool
    plug: Stop | None = None
    plug_h: float = 0.0


def stretches(ride: Ride) -> Iterator[Stretch]:
    """The whole tour as riding and staying, in order; every stop with a plug ends a stretch."""
    sky = _Sky(ride)
    plugs = sorted((s for s in ride.stops() if "plugs" in s.services), key=lambda s: s.at_km)
    days, usual = ride.days, ride.tour.practice
    hub = _hub_along(ride)
    dark = [max(0.0, arrive - (light.sunset_h or 24.0)) if light.sunset_h else 0.0
            for arrive, light in zip(sky.arrive.tolist(), ride.suns, strict=True)]  # fmt: skip
    lows = ride.at_nights(ride.climate.mean_min_c)
    lamps_on = any(isinstance(t.role, Hub) and t.role.lamps_first for t in ride.things(Hub))
    for i in range(days.km.size - 1):
        start, end, number = float(days.km[i]), float(days.km[i + 1]), int(days.offset[i]) + 1
        night = ride.night_stops[i] if i < len(ride.night_stops) else None
        passed = [s for s in plugs if start < s.at_km < end and (night is None or s.id != night.id)]
        marks = np.array([start, *(s.at_km for s in passed), end])
        hours = np.interp(marks, ride.nodes.km, ride.pace.hours)
        whole = max(float(hours[-1] - hours[0]), 1e-9)
        gained = np.diff(np.interp(marks, ride.nodes.km, hub)).tolist() if hub is not None else [0.0] * (marks.size - 1)
        parts = (np.diff(hours) / whole).tolist()
        on_road = float(sky.arrive[i] - ride.tour.road.start_h(start))
        if lamps_on:
            gained[-1] *= 1 - min(dark[i] / on_road, 1.0) if on_road > 0 else 1.0
        clock = ride.tour.road.start_h(start)
        for k, part in enumerate(parts):
            last = k == len(parts) - 1
            yield Stretch(
                marks[k], marks[k + 1], number, clock, on_road * part, part, 0.0, dark[i] if last else 0.0, gained[k],
                sky.riding_wh[i] * part, False,
            )  # fmt: skip
            clock += on_road * part
            if not last:
                stop = passed[k]
                here = usual.plug_stop_h if stop.plug_hours is None else stop.plug_hours
                yield Stretch(stop.at_km, stop.at_km, number, clock, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, False, stop, here)
        if i < len(ride.night_stops):
            stay, plugged = 24 - on_road, night is not None and "plugs" in night.services
            for day in range(int(days.rests[i]) + 1):
                here = stay if day == 0 else 24.0
                at_plug = here if night is None or night.plug_hours is None else min(night.plug_hours, here)
                yield Stretch(
                    end, end, number + day, clock if day == 0 else ride.tour.road.start_hour, here, 0.0, 1.0, 0.0, 0.0,
                    sky.resting_wh[i] if day else 0.0, bool(lows[i] < 0), night if plugged else None, at_plug if plugged else 0.0,
                )  # fmt: skip


def _hub_along(ride: Ride) -> Array | None:
    """What hub dynamos give from the start to each node [Wh]; None without any."""
    things, usual = ride.things(Hub), ride.tour.practice
    if not things:
        return None
    hours, km = np.diff(ride.pace.hours), np.diff(ride.nodes.km)
    speed = np.where(hours > 0, km / np.maximum(hours, 1e-9), 0.0)
    watts = np.where(speed >= usual.hub_slowest_kmh, dynamo.lamp_power(speed / 3.6), 0.0)
    one: Array = np.concatenate([[0.0], np.cumsum(watts * usual.hub_converter * hours)])
    # A bike has one hub, however many converters hang on it.
    owners = {thing.rider_id for thing in things if thing.rider_id}
    shared = sum(thing.count for thing in things if not thing.rider_id)
    return one * min(len(owners) + shared, max(len(ride.tour.rig.bikes), 1))


class _Sky:
    """The sun of every riding day on a panel."""

    def __init__(self, ride: Ride) -> None:
        days = ride.days.km.size - 1
        self.arrive = ride.watch.at(ride.days.km[1:], np.arange(days))
        peak_w = sum(t.role.peak_w * t.count for t in ride.things(Panel) if isinstance(t.role, Panel))
        self.riding_wh, self.resting_wh = np.zeros(days), np.zeros(days)
        if not peak_w or ride.nodes.lat_deg is None:
            return
        usual, start = ride.tour.practice, ride.tour.start_date
        middles = (ride.days.km[:-1] + ride.days.km[1:]) / 2
        lat = np.interp(middles, ride.nodes.km, ride.nodes.lat_deg)[:, None]
        lean = np.array([sun.declination(ride.days.date(start, i)) for i in range(days)])[:, None]
        courses = [light.for_course() for light in ride.suns]
        noon = np.array([(rise + fall) / 2 for rise, fall in courses])[:, None]
        clock = np.arange(24)[None, :] + 0.5
        level = sun.clear_sky(sun.height_sine(lat, lean, clock - noon + NOON)) / 1000
        begun = np.array([ride.tour.road.start_h(km) for km in ride.days.km[:-1].tolist()])[:, None]
        on_road = np.clip(np.minimum(clock + 0.5, self.arrive[:, None]) - np.maximum(clock - 0.5, begun), 0, 1)
        cloudy = np.minimum(usual.cloudy_per_rain * np.interp(middles, ride.nodes.km, ride.climate.rain_chance), 1.0)
        sky = peak_w * (1 - cloudy * (1 - usual.panel_cloudy))
        self.riding_wh = sky * usual.panel_riding * (level * on_road).sum(axis=1)
        self.resting_wh = sky * usual.panel_resting * level.sum(axis=1)
