"""What becomes of stops, nights, surfaces, weather, clocks, and of where things are, when the track is turned or cut."""

from collections.abc import Callable
from typing import Any, TypeVar

from omnifer.core.model.kit import Thing, Whereabouts
from omnifer.core.model.quantities import Noun
from omnifer.core.model.road import Road
from omnifer.core.model.tour import TourSheet

Marked = TypeVar("Marked", bound=Noun)


def reversed_road(road: Road, length_km: float) -> Road:
    """The road ridden the other way; what holds from a kilometre on then holds from the other end of its stretch."""
    turned = _moved(road, lambda km: max(length_km - km, 0.0), lambda km: km <= length_km, length_km)
    ends = {name: _from_other_end(getattr(road, name), length_km) for name in ("weather", "zones")}
    return turned.model_copy(update=ends)


def trimmed_road(road: Road, from_km: float, to_km: float) -> Road:
    """The road between two kilometres; what lies outside goes."""
    kept = _moved(road, lambda km: max(km - from_km, 0.0), lambda km: from_km <= km <= to_km, to_km - from_km)
    return kept.model_copy(update={name: _inside(getattr(road, name), from_km, to_km) for name in ("weather", "zones")})


def reversed_sheet(sheet: TourSheet, length_km: float) -> TourSheet:
    """The tour ridden the other way: its road, and where its things are along it."""
    road = reversed_road(sheet.road, length_km)
    return sheet.model_copy(
        update={"road": road, "kit": _moved_kit(sheet.kit, lambda where: _from_other_end(_before(where, length_km), length_km))}
    )


def trimmed_sheet(sheet: TourSheet, from_km: float, to_km: float) -> TourSheet:
    """The tour between two kilometres of its road; what is where outside of them goes."""
    road = trimmed_road(sheet.road, from_km, to_km)
    return sheet.model_copy(update={"road": road, "kit": _moved_kit(sheet.kit, lambda where: _inside(where, from_km, to_km))})


Where = tuple[Whereabouts, ...]


def _moved_kit(kit: tuple[Thing, ...], to: Callable[[Where], Where]) -> tuple[Thing, ...]:
    """Things with their whereabouts moved; what is packed all the way stays as it is."""
    return tuple(
        thing.model_copy(update={"where": to(tuple(place for _, _, place in thing.stretches()))}) if thing.where else thing
        for thing in kit
    )


def _before(where: Where, km: float) -> Where:
    return tuple(place for place in where if place.from_km < km)


def _from_other_end(marks: tuple[Marked, ...], length_km: float) -> tuple[Marked, ...]:
    """Stretches that each begin where the one before ends, met from the end of the road."""
    ends = [*(_from(mark) for mark in marks[1:]), length_km]
    moved = [mark.model_copy(update={"from_km": max(length_km - end, 0.0)}) for mark, end in zip(marks, ends, strict=False)]
    return tuple(moved[::-1])


def _inside(marks: tuple[Marked, ...], from_km: float, to_km: float) -> tuple[Marked, ...]:
    """What of such stretches lies between two kilometres."""
    moved = [mark.model_copy(update={"from_km": max(_from(mark) - from_km, 0.0)}) for mark in marks if _from(mark) <= to_km]
    before = [mark for mark in moved if _from(mark) == 0]
    return (*before[-1:], *(mark for mark in moved if _from(mark) > 0))


def _moved(road: Road, to: Callable[[float], float], inside: Callable[[float], bool], length_km: float) -> Road:
    """All places of a road at their new kilometres, in road order; stretches are clipped to what is inside.

    A station tells of the weather beyond the road's ends too: it stays, at the end that is nearest to it.
    """

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
            "journeys": points(road.journeys),
            "surfaces": stretches(road.surfaces),
            "transfers": stretches(road.transfers),
            "stations": tuple(
                s if s.at_km is None else s.model_copy(update={"at_km": min(to(s.at_km), length_km)}) for s in road.stations
            ),
        }
    )


def _km(mark: Noun) -> float:
    return float(getattr(mark, "at_km"))  # noqa: B009 - every mark of a place has it


def _from(mark: Noun) -> float:
    return float(getattr(mark, "from_km"))  # noqa: B009 - every mark of a stretch has it
