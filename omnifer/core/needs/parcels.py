"""What to post home, and what to have sent ahead: the parcels that save the party more than they cost.

Each thing goes home from the first chosen stop behind its last need, or waits at the last chosen stop before its first. Stops
lie on a line, so that the best choice follows from the best choice up to each stop: it is proven, not sought.
"""

from collections.abc import Sequence
from dataclasses import replace
from typing import Literal, NamedTuple

from omnifer.core.model.road import Stop
from omnifer.core.model.tour import TourSheet
from omnifer.core.road.arrivals import shop_shut
from omnifer.core.voyage import Voyage

INFINITE = float("inf")
ERRAND_MIN = 30.0
"""Finding the post, packing and queueing [min]; practice."""
POST_OPENS_H, POST_CLOSES_H, SUNDAY = 9.0, 17.0, 6
"""Practice, where nothing is known of a post office."""


class Sendable(NamedTuple):
    """A thing that is needed on a part of the tour only.

    Attributes
    ----------
    from_km, to_km : float
        Before it, and behind it, nobody needs the thing [km].
    minutes_a_day : float
        What it costs the party [min/d].
    """

    thing_id: str
    from_km: float
    to_km: float
    minutes_a_day: float


class PostStop(NamedTuple):
    """A stop with a post office that is open when the party is there, its day, and what a parcel costs there.

    One that goes or waits there anyway makes the next thing in it free.
    """

    stop: Stop
    day: int
    home_min: float
    ahead_min: float


class Sent(NamedTuple):
    """One parcel."""

    way: Literal["home", "ahead"]
    at: PostStop
    thing_ids: list[str]
    saves_min: float


def post_stops(tour: TourSheet, voyage: Voyage | None) -> list[Stop]:
    """Stops with post where it is open on the visit, in road order; the days of a stop that sells are those of its post, and
    no post is open on Sundays."""
    if voyage is None:
        return []
    found = []
    for stop in sorted(tour.road.stops, key=lambda s: s.at_km):
        visit = voyage.visits.get(stop.id)
        if "post" not in stop.services or visit is None:
            continue
        weekdays = tuple(sorted({*stop.closed_weekdays, SUNDAY}))
        hours = {"opens_h": POST_OPENS_H, "closes_h": POST_CLOSES_H, "opens_again_h": None, "closes_again_h": None}
        office = stop.model_copy(update=hours | {"closed_weekdays": weekdays})
        if shop_shut(replace(visit, stop=office), tour.road.start_h(stop.at_km)) is None:
            found.append(stop)
    return found


def parcels(things: Sequence[Sendable], stops: Sequence[PostStop], days: int) -> list[Sent]:
    """The parcels that save most, those sent ahead first.

    Parameters
    ----------
    days : int
        Of the tour.
    """
    behind = [(s.stop.at_km, s, days - s.day, s.home_min) for s in stops]
    home = _best([(t.to_km, t) for t in things if t.to_km < INFINITE], behind)
    # Seen from the end of the road, what is sent ahead is what goes home.
    before = [(-s.stop.at_km, s, s.day - 1, s.ahead_min) for s in reversed(stops)]
    ahead = _best([(-t.from_km, t) for t in things if t.from_km > 0], before)
    return [*(Sent("ahead", *one) for one in reversed(ahead)), *(Sent("home", *one) for one in home)]


def _best(
    things: list[tuple[float, Sendable]], stops: list[tuple[float, PostStop, int, float]]
) -> list[tuple[PostStop, list[str], float]]:
    """Along a line: each thing goes at the first chosen stop at or behind its place, and saves its minutes for the days that
    then are left."""
    best: list[tuple[float, int]] = []
    for j, (here, _, left, cost_min) in enumerate(stops):
        options = [(0.0, -1, -INFINITE), *((best[i][0], i, stops[i][0]) for i in range(j))]
        best.append(max((so_far + _freed(things, after, here) * left - cost_min, i) for so_far, i, after in options))
    found: list[tuple[PostStop, list[str], float]] = []
    j = max(range(len(best)), key=lambda k: best[k][0], default=-1)
    if j < 0 or best[j][0] <= 0:
        return []
    while j >= 0:
        here, at, left, _ = stops[j]
        before = best[j][1]
        after = stops[before][0] if before >= 0 else -INFINITE
        sent = [t for place, t in things if after < place <= here]
        if sent:
            found.append((at, [t.thing_id for t in sent], sum(t.minutes_a_day for t in sent) * left))
        j = before
    return found[::-1]


def _freed(things: list[tuple[float, Sendable]], after: float, to: float) -> float:
    return sum(t.minutes_a_day for place, t in things if after < place <= to)
