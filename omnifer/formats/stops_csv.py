"""Stops as a sheet: read by the names of its columns, written so that it reads back the same."""

import datetime as dt
import re
from typing import Any, get_args

from pydantic import Field, ValidationError

from omnifer.core.model.fuels import FUELS
from omnifer.core.model.quantities import Noun
from omnifer.core.model.road import Service, Stop
from omnifer.formats.kit_rows import MOST_TOLD, RowProblem
from omnifer.formats.measures import number
from omnifer.formats.problem import InputProblem, what_of
from omnifer.formats.sheet import SheetWriter, read_sheet

MOST_ROWS = 3000
YES = ("yes", "x", "1", "true")
WEEKDAYS = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
COLUMNS = (
    "km", "name", "detour_km", "take_detour", "water", "dry_months", "treat_water", "confirmed", "shop", "closed", "opens",
    "closes", "opens_again", "closes_again", "closed_dates", "services", "plug_outlets", "plug_hours", "plug_shape", "fuels",
    "bike_shop", "shelter", "note",
)  # fmt: skip
WORDS = {
    "water": {"sure": "reliable", "yes": "reliable", "x": "reliable", "maybe": "unsure", "?": "unsure", "no": "none", "": "none"},
    "shop": {"yes": "full", "x": "full", "supermarket": "full", "small": "basic", "kiosk": "snacks", "no": "none", "": "none"},
    "shelter": {"camp": "site", "campsite": "site", "hotel": "room", "hostel": "room", "": "none", "no": "none"},
    "bike_shop": {"": "none", "no": "none", "yes": "basic"},
}
"""Words that riders write, beside Omnifer's own."""


class StopsPreview(Noun):
    """What a sheet of stops would bring, before anything is taken."""

    stops: list[Stop]
    problems: list[RowProblem]
    left_aside: list[str] = Field(description="Columns that were not understood")


def read_stops_csv(text: str, taken_ids: set[str], length_km: float | None = None) -> StopsPreview:
    """Understand a sheet of stops; those beyond the end of a road of such a length are refused.

    Raises InputProblem where there is no table at all.
    """
    sheet = read_sheet(text, lambda heading: _head(heading) in COLUMNS)
    heads = [_head(cell) for cell in sheet.headings]
    if "km" not in heads or "name" not in heads:
        raise InputProblem("No columns 'km' and 'name' were found", f"line {sheet.first + 1}", "Head them so.")
    stops: list[Stop] = []
    problems: list[RowProblem] = []
    used = set(taken_ids)
    for line, row in sheet.lines:
        if len(stops) >= MOST_ROWS:
            problems.append(RowProblem(row=line, heading="", text="", what=f"more than {MOST_ROWS} stops"))
            break
        cells = dict.fromkeys(heads, "") | dict(zip(heads, row, strict=False))
        try:
            stop = _stop(cells, sheet.delimiter != ",", _free_id(line, used))
            if length_km is not None and stop.at_km > length_km:
                raise ValueError(f"km: the road ends at km {length_km:.1f}")
        except (ValueError, ValidationError) as error:
            problems.append(_problem(line, error))
            if len(problems) >= MOST_TOLD:
                more = f"more than {MOST_TOLD} rows cannot be read; the rest is left aside"
                problems.append(RowProblem(row=line, heading="", text="", what=more))
                break
            continue
        used.add(stop.id)
        stops.append(stop)
    return StopsPreview(stops=stops, problems=problems, left_aside=[h for h in heads if h and h not in COLUMNS])


def _head(heading: str) -> str:
    """The column that a heading names."""
    word = re.sub(r"[^a-z]+", "_", heading.lower()).strip("_")
    return "km" if word in ("at", "at_km", "distance") else "name" if word in ("place", "stop") else word


def _free_id(line: int, used: set[str]) -> str:
    identifier = f"row-{line}"
    while identifier in used:
        identifier += "-"
    return identifier


def _problem(line: int, error: ValueError) -> RowProblem:
    if isinstance(error, ValidationError):
        one = error.errors()[0]
        return RowProblem(
            row=line, heading=str(one["loc"][0]) if one["loc"] else "", text=str(one["input"])[:80], what=what_of(one)
        )
    heading, _, what = str(error).partition(": ")
    return RowProblem(row=line, heading=heading if what else "", text="", what=what or heading)


def _stop(cells: dict[str, str], decimal_comma: bool, identifier: str) -> Stop:
    figures: dict[str, Any] = {"id": identifier, "name": cells["name"][:120], "at_km": _number("km", cells["km"], decimal_comma)}
    for field, words in WORDS.items():
        cell = cells.get(field, "").lower()
        figures[field] = words.get(cell, cell)
    if cells.get("detour_km"):
        figures["detour_km"] = _number("detour_km", cells["detour_km"], decimal_comma)
    if cells.get("take_detour"):
        figures["take_detour"] = cells["take_detour"].strip().lower() in YES
    figures["dry_months"] = [int(m) for m in re.findall(r"\d+", cells.get("dry_months", ""))]
    figures["treat_water"] = cells.get("treat_water", "").lower() in YES
    figures["closed_weekdays"] = [i for i, day in enumerate(WEEKDAYS) if day in cells.get("closed", "").lower()]
    for heading in ("opens", "closes", "opens_again", "closes_again"):
        if cells.get(heading):
            figures[f"{heading}_h"] = _clock(heading, cells[heading])
    figures["closed_dates"] = re.findall(r"\d{4}-\d{2}-\d{2}", cells.get("closed_dates", ""))
    if cells.get("confirmed"):
        figures["confirmed"] = dt.date.fromisoformat(cells["confirmed"])
    figures["services"] = [s for s in get_args(Service) if s in cells.get("services", "").lower()]
    for field in ("plug_outlets", "plug_hours"):
        if cells.get(field):
            figures[field] = _number(field, cells[field], decimal_comma)
    figures["plug_shape"] = cells.get("plug_shape", "")[:20]
    figures["fuels"] = [f for f in FUELS if f in cells.get("fuels", "").lower()]
    figures["note"] = cells.get("note", "")[:2000]
    return Stop.model_validate(figures)


def _number(heading: str, cell: str, decimal_comma: bool) -> float:
    try:
        return number(cell, decimal_comma)
    except ValueError as error:
        raise ValueError(f"{heading}: {error}") from None


def _clock(heading: str, cell: str) -> float:
    found = re.fullmatch(r"(\d{1,2})(?:[:.h](\d{2}))?\s*h?", cell)
    if not found or int(found[1]) > 24 or int(found[2] or 0) > 59:
        raise ValueError(f"{heading}: {cell!r} is not a time of day, such as 9:30")
    return int(found[1]) + int(found[2] or 0) / 60


def write_stops_csv(stops: tuple[Stop, ...]) -> str:
    """The stops in road order, one a row."""
    sheet = SheetWriter(delimiter=";", end="\n")
    sheet.row(COLUMNS)

    def clock(hour: float | None) -> str:
        return "" if hour is None else f"{int(hour)}:{round(hour % 1 * 60):02d}"

    for stop in sorted(stops, key=lambda s: s.at_km):
        sheet.row([
            f"{stop.at_km:g}", stop.name, f"{stop.detour_km:g}" if stop.detour_km else "",
            "" if stop.take_detour is None else "yes" if stop.take_detour else "no", stop.water,
            " ".join(map(str, stop.dry_months)), "yes" if stop.treat_water else "", stop.confirmed or "", stop.shop,
            " ".join(WEEKDAYS[d] for d in stop.closed_weekdays), clock(stop.opens_h), clock(stop.closes_h),
            clock(stop.opens_again_h), clock(stop.closes_again_h),
            " ".join(d.isoformat() for d in stop.closed_dates), " ".join(stop.services),
            stop.plug_outlets if stop.plug_outlets > 1 else "", "" if stop.plug_hours is None else f"{stop.plug_hours:g}",
            stop.plug_shape, " ".join(stop.fuels),
            stop.bike_shop, stop.shelter, stop.note,
        ])  # fmt: skip
    return sheet.text()
