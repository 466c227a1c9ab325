"""What becomes of stops, nights, surfaces, transfers, weather and clocks when the track is turned round or cut."""

from collections.abc import Callable
from typing import Any, TypeVar

from omnifer.core.model.quantities import Noun
from omnifer.core.model.road import Road

Marked = TypeVar("Marked", bound=Noun)


def reversed_road(road: Road, length_km: float) -> Road:
    """The road ridden the other way; what holds from a kilometre on then holds from the other end of its stretch."""
    turned = _moved(road, lambda km: max(length_km - km, 0.0), lambda km: km <= length_km)

    def from_other_end(marks: tuple[Marked, ...]) -> tuple[Marked, ...]:
        ends = [*(_from(mark) for mark in marks[1:]), length_km]
        moved = [mark.model_copy(update={"from_km": max(length_km - end, 0.0)}) for mark, end in zip(marks, ends, strict=False)]
        return tuple(moved[::-1])

    return turned.model_copy(update={"weather": from_other_end(road.weather), "zones": from_other_end(road.zones)})


def trimmed_road(road: Road, from_km: float, to_km: float) -> Road:
    """The road between two kilometres; what lies outside goes."""
    kept = _moved(road, lambda km: max(km - from_km, 0.0), lambda km: from_km <= km <= to_km)

    def inside(marks: tuple[Marked, ...]) -> tuple[Marked, ...]:
        moved = [mark.model_copy(update={"from_km": max(_from(mark) - from_km, 0.0)}) for mark in marks if _from(mark) <= to_km]
        before = [mark for mark in moved if _from(mark) == 0]
        return (*before[-1:], *(mark for mark in moved if _from(mark) > 0))

    return kept.model_copy(update={"weather": inside(road.weather), "zones": inside(road.zones)})


def _moved(road: Road, to: Callable[[float], float], inside: Callable[[float], bool]) -> Road:
    """All places of a road at their new kilometres, in road order; stretches are clipped to what is inside."""

    def points(marks: tuple[Marked, ...]) -> tuple[Marked, ...]:
        moved = [m.model_copy(update={"at_km": to(_km(m))}) for m in marks if inside(_km(m))]
        return tuple(sorted(moved, key=_km))

    def stretches(marks: tuple[Marked, ...]) -> tuple[Marked, ...]:
        result = []
        for mark in marks:
            figures: dict[str, Any] = mark.model_dump()
            if not (inside(figures["from_km"]) or inside(figures["to_km"])):
                continue
            low, high = sorted((to(figures["from_km"]), to(figures["to_km"])))
            if high > low:
                result.append(mark.model_copy(update={"from_km": low, "to_km": high}))
        return tuple(sorted(result, key=lambda m: float(m.model_dump()["from_km"])))

    return road.model_copy(
        update={
            "stops": points(road.stops),
            "nights": points(road.nights),
            "surfaces": stretches(road.surfaces),
            "transfers": stretches(road.transfers),
        }
    )


def _km(mark: Noun) -> float:
    return float(getattr(mark, "at_km"))  # noqa: B009 - every mark of a place has it


def _from(mark: Noun) -> float:
    return float(getattr(mark, "from_km"))  # noqa: B009 - every mark of a stretch has it
