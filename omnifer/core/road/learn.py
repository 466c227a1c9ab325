"""The rider's own pace, learned from a recorded ride."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from omnifer.core.model.quantities import Noun
from omnifer.core.model.road import Track
from omnifer.core.physics import geodesy
from omnifer.core.road.pace import RidingMass, hours_alone, part_on_foot
from omnifer.core.road.profile import from_track

BLOCK_KM = 1.0
"""The ride is compared block by block [km]; shorter ones are mostly noise."""
FEWEST_BLOCKS = 8
PUSHED, USUAL_W = 0.5, 110.0
"""A block of which the pace has so large a part on foot, at a usual power, tells nothing of riding [-, W]; practice."""
STANDING_MS = 0.6
"""Slower than this is a pause [m/s]; practice."""
LEAST_W, MOST_W, AT_THE_EDGE = 20.0, 400.0, 1.02
"""Powers between which the fit looks, and what is so near to them is no fit [W, W, -]."""

Array = NDArray[np.float64]


class LearnedPace(Noun):
    """A fitted power and pause factor with their uncertainty: one standard error each way."""

    power_w: float
    power_error_w: float
    pause_factor: float
    pause_error: float
    distance_km: float
    moving_hours: float
    blocks: int


@dataclass(frozen=True)
class _Blocks:
    """Blocks of the ride: cells' gradients and heights, and the moving and whole time of each block."""

    cell_block: NDArray[np.intp]
    gradient: Array
    elevation_m: Array
    cell_m: Array
    moving_s: Array
    whole_s: Array


def learn(track: Track, seconds: Array, rider: RidingMass) -> LearnedPace:
    """Fit the power at which the pace model needs the time that a recorded ride took.

    Parameters
    ----------
    track : Track
        The recorded points.
    seconds : numpy.ndarray
        Time of each point [s], not-a-number where there is none.
    rider : RidingMass
        Mass, drag and rolling resistance of the recorded ride; its power is not looked at.

    The fit is least squares on the logarithms of the blocks' moving times; errors come from the
    jackknife over blocks. Raises ValueError where the ride is too short or has no times.
    """
    blocks = _blocks(track, seconds)
    if blocks.moving_s.size < FEWEST_BLOCKS:
        raise ValueError(f"the ride has {blocks.moving_s.size} usable kilometres with times; {FEWEST_BLOCKS} are needed")
    powers = np.geomspace(LEAST_W, MOST_W, 60)
    off = np.array([np.log(_times(blocks, rider, float(p)) / blocks.moving_s) for p in powers])
    on_foot = part_on_foot(replace(rider, power_w=USUAL_W), blocks.gradient, blocks.elevation_m)
    walked = np.bincount(blocks.cell_block, blocks.cell_m * on_foot) / np.bincount(blocks.cell_block, blocks.cell_m)
    every = np.flatnonzero(walked <= PUSHED)
    if every.size < FEWEST_BLOCKS:
        raise ValueError("the ride is too steep to learn from: where a bike is pushed, time does not tell how hard one rides")
    power = _best(powers, off, every)
    if not powers[0] * AT_THE_EDGE < power < powers[-1] / AT_THE_EDGE:
        raise ValueError(
            f"no power between {LEAST_W:.0f} and {MOST_W:.0f} W rides these hours: the mass, the road or the times are others"
        )
    without = np.array([_best(powers, off, np.delete(every, k)) for k in range(every.size)])
    factor = float(blocks.whole_s.sum() / blocks.moving_s.sum())
    factors = (blocks.whole_s.sum() - blocks.whole_s) / (blocks.moving_s.sum() - blocks.moving_s)
    return LearnedPace(
        power_w=round(power, 1),
        power_error_w=round(_jackknife(without), 1),
        pause_factor=round(factor, 3),
        pause_error=round(_jackknife(factors), 3),
        distance_km=round(float(blocks.cell_m.sum()) / 1000, 1),
        moving_hours=round(float(blocks.moving_s.sum()) / 3600, 2),
        blocks=int(every.size),
    )


def _best(powers: Array, off: Array, kept: NDArray[np.intp]) -> float:
    """The power with the least squares of the kept blocks, from a parabola through the three best powers."""
    loss = (off[:, kept] ** 2).sum(axis=1)
    at = int(np.clip(np.argmin(loss), 1, powers.size - 2))
    x, y = np.log(powers[at - 1 : at + 2]), loss[at - 1 : at + 2]
    a, b, _ = np.polyfit(x, y, 2)
    return float(np.exp(np.clip(-b / (2 * a), x[0], x[2]))) if a > 0 else float(powers[at])


def _jackknife(without: Array) -> float:
    """Standard error of a figure from its values with each block left out (Efron 1982)."""
    return float(np.sqrt((without.size - 1) / without.size * np.sum((without - without.mean()) ** 2)))


def _times(blocks: _Blocks, rider: RidingMass, power_w: float) -> Array:
    """Time that the pace model gives each block at a power [s]."""
    hours = hours_alone(replace(rider, power_w=power_w), blocks.gradient, blocks.elevation_m)
    return np.bincount(blocks.cell_block, blocks.cell_m * hours * 3.6, minlength=blocks.moving_s.size).astype(np.float64)


def _blocks(track: Track, seconds: Array) -> _Blocks:
    profile = from_track(track)
    raw_m = np.concatenate([[0.0], np.cumsum(geodesy.segment_lengths(track.lat_deg, track.lon_deg))])
    known = np.isfinite(seconds)
    if known.sum() < 2:
        raise ValueError("the ride has no times")
    at_m, at_s = raw_m[known], seconds[known]
    step_m, step_s = np.diff(at_m), np.diff(at_s)
    going = (step_s > 0) & (step_m >= STANDING_MS * step_s)
    whole = np.concatenate([[0.0], np.cumsum(np.maximum(step_s, 0))])
    moving = np.concatenate([[0.0], np.cumsum(np.where(going, step_s, 0))])
    edges = np.arange(0.0, profile.length_km + 1e-9, BLOCK_KM)
    moving_s, whole_s = (np.diff(np.interp(edges * 1000, at_m, s)) for s in (moving, whole))
    usable = moving_s > BLOCK_KM * 1000 / 25
    cell_m = np.diff(profile.km) * 1000
    block = np.minimum((profile.km[:-1] / BLOCK_KM).astype(int), edges.size - 1)
    number = np.full(edges.size, -1)
    number[:-1][usable] = np.arange(usable.sum())
    kept = number[block] >= 0
    return _Blocks(
        number[block][kept],
        profile.gradient[:-1][kept],
        profile.elevation_m[:-1][kept],
        cell_m[kept],
        moving_s[usable],
        whole_s[usable],
    )
