"""Weather records: a sheet of months, a daily station record, a typical-year file; each becomes a station's normals."""

import csv
import datetime as dt
import io
import re
import unicodedata
from collections.abc import Iterable

import numpy as np
from numpy.typing import NDArray
from pydantic import ValidationError

from omnifer.core.model.road import MonthNormals, Station
from omnifer.formats.measures import number
from omnifer.formats.problem import InputProblem
from omnifer.formats.sheet import decoded, read_sheet

FEWEST_DAYS = 200
"""A month's normals from fewer days than this in all years together are no normals [d]; practice: seven years."""
UNKNOWN_RAIN_DAYS: float = MonthNormals.model_fields["rain_days"].default
"""Of a month where the record has no rain [d]; practice."""
DAYS_A_MONTH = 30.4
HOURS = 8760
"""Of a typical year."""
RAIN_MM = 1.0
"""A day with this much is a rain day [mm]; WMO's wet day."""

Array = NDArray[np.float64]
COLUMNS = {
    "mean_max_c": (
        "max", "tmax", "high", "mean max", "mean maximum", "average high", "maximum", "maxi", "maxima", "hoch", "mittlere max",
        "temperatura maxima", "massima",
    ),
    "mean_min_c": (
        "min", "tmin", "low", "mean min", "mean minimum", "average low", "minimum", "mini", "minima", "tief", "mittlere min",
        "temperatura minima",
    ),
    "spread_max_c": ("sd max", "spread max"),
    "spread_min_c": ("sd min", "spread min"),
    "rain_days": ("rain days", "rain", "wet days", "precipitation days", "regentage", "jours de pluie", "dias de lluvia",
                  "giorni di pioggia"),
    "humidity_pct": ("humidity", "rh", "relative humidity", "luftfeuchte", "feuchte", "humidite", "humedad", "umidita"),
    "wind_ms": ("wind", "wind m/s", "wind speed", "vent", "viento", "vento"),
}  # fmt: skip
MONTH_HEADINGS = ("", "month", "monat", "mois", "mes", "mese", "maand")


def _plain(heading: str) -> str:
    """A heading without accents, units and signs."""
    bare = unicodedata.normalize("NFKD", heading.lower()).encode("ascii", "ignore").decode()
    return re.sub(r"\s+", " ", re.sub(r"[^a-z/ ]", " ", re.sub(r"[(\[].*?[)\]]", "", bare))).strip()


def _field_of(heading: str) -> str | None:
    return next((field for field, names in COLUMNS.items() if _plain(heading) in names), None)


def read_station(
    content: bytes, identifier: str, name: str, at_km: float | None, elevation_m: float | None = None
) -> tuple[Station, list[str]]:
    """A station of any of the three kinds, told apart by the first line, and what is to be said of it. Raises InputProblem."""
    try:
        station, remarks = _read(decoded(content), identifier, name, at_km)
    except csv.Error:
        raise InputProblem("A cell is too long to be one", "", "Is a quotation mark left open in the file?") from None
    if elevation_m is not None:
        station = station.model_copy(update={"elevation_m": elevation_m})
    elif station.elevation_m is None:
        remarks.append("Its height is not said: it is taken to lie as high as the road there.")
    return station, remarks


def _read(text: str, identifier: str, name: str, at_km: float | None) -> tuple[Station, list[str]]:
    if not text.strip():
        raise InputProblem("The file is empty", "", "Choose a station record.")
    first = text.lstrip().splitlines()[0]
    if first.startswith("LOCATION,"):
        return _from_typical_year(text, False, identifier, name, at_km), []
    if "\nDate (MM/DD/YYYY)," in text[:2000]:
        return _from_typical_year(text, True, identifier, name, at_km), []
    if "DATE" in [cell.strip(' "') for cell in first.upper().split(",")]:
        return _from_daily(text, identifier, name, at_km), []
    return _from_months(text, identifier, name, at_km)


def normals_of_days(month: NDArray[np.int_], high: Array, low: Array, rain_mm: Array) -> list[dict[str, float]]:
    """Means, spreads and rain days of each month from daily values; missing values are not-a-number."""
    result = []
    for number_ in range(1, 13):
        here = month == number_
        highs, lows, rain = (v[here][np.isfinite(v[here])] for v in (high, low, rain_mm))
        if min(highs.size, lows.size) < 2:
            raise InputProblem(f"Month {number_} has no daily maxima and minima", "", "Bring a record of several whole years.")
        wet = float((rain >= RAIN_MM).mean()) if rain.size else UNKNOWN_RAIN_DAYS / DAYS_A_MONTH
        result.append({
            "mean_max_c": float(highs.mean()), "mean_min_c": float(lows.mean()),
            "spread_max_c": float(highs.std(ddof=1)), "spread_min_c": float(lows.std(ddof=1)), "rain_days": wet * DAYS_A_MONTH,
        })  # fmt: skip
    return result


def _station(identifier: str, name: str, at_km: float | None, months: Iterable[dict[str, float]], **more: object) -> Station:
    rounded = [MonthNormals.model_validate({k: round(v, 2) for k, v in month.items()}) for month in months]
    return Station.model_validate({"id": identifier, "name": name, "at_km": at_km, "months": rounded} | more)


def _from_daily(text: str, identifier: str, name: str, at_km: float | None) -> Station:
    """GHCN-Daily as CSV, one row a day: tenths of a degree and of a millimetre where values are whole, else as they stand."""
    rows = list(csv.DictReader(io.StringIO(text)))
    if not rows:
        raise InputProblem("The record has a heading and no days", "line 2", "Bring the whole file.")
    head = {key.strip().upper(): key for key in rows[0] if key}
    missing = [c for c in ("DATE", "TMAX", "TMIN") if c not in head]
    if missing:
        raise InputProblem(f"The record has no column {', '.join(missing)}", "line 1", "Bring daily maxima and minima.")

    def column(label: str) -> Array:
        cells = [(row.get(head[label]) or "").strip() if label in head else "" for row in rows]
        values = np.array([float(c) if re.fullmatch(r"-?\d+(\.\d+)?", c) else np.nan for c in cells])
        return np.where(np.abs(values) >= 9999, np.nan, values)

    dates = [_date((row.get(head["DATE"]) or "")[:10], line) for line, row in enumerate(rows, 2)]
    high, low, rain = column("TMAX"), column("TMIN"), column("PRCP")
    whole = all(float(v).is_integer() for v in high[np.isfinite(high)][:400])
    if whole and np.nanmax(np.abs(high), initial=0) > 60:
        high, low, rain = high / 10, low / 10, rain / 10
    if len(rows) < FEWEST_DAYS * 5:
        raise InputProblem(f"The record has {len(rows)} days; normals want several whole years", "", "Bring a longer record.")
    months = normals_of_days(np.array([d.month for d in dates]), high, low, rain)
    more: dict[str, object] = {"source": f"daily record, {min(dates).year} to {max(dates).year}"}
    for label, field in (("LATITUDE", "lat_deg"), ("LONGITUDE", "lon_deg"), ("ELEVATION", "elevation_m")):
        cell = (rows[0].get(head[label]) or "") if label in head else ""
        if re.fullmatch(r"\s*-?\d+(\.\d+)?\s*", cell):
            more[field] = float(cell)
    station_name = (rows[0].get(head["NAME"]) or "").strip() if "NAME" in head else ""
    return _station(identifier, name or station_name[:120] or "Station", at_km, months, **more)


def _date(text: str, line: int) -> dt.date:
    try:
        return dt.date.fromisoformat(text)
    except ValueError:
        raise InputProblem(f"{text!r} is no date", f"line {line}", "Dates are written 2021-07-31.") from None


def _from_typical_year(text: str, tmy3: bool, identifier: str, name: str, at_km: float | None) -> Station:
    """An EnergyPlus or TMY3 typical-year file, read by pvlib."""
    from pvlib.iotools import read_epw, read_tmy3

    try:
        table, place = read_tmy3(io.StringIO(text)) if tmy3 else read_epw(io.StringIO(text))
    except (ValueError, KeyError, IndexError, TypeError, ArithmeticError, LookupError):
        raise InputProblem("The typical-year file cannot be read", "", "Download it again.") from None
    hours = table["temp_air"].to_numpy(dtype=float)
    if hours.size != HOURS:
        raise InputProblem(f"The typical year has {hours.size} hours, not {HOURS}", "", "Download it again.")
    month = table.index.month.to_numpy(dtype=int).reshape(-1, 24)[:, 0]
    by_day = hours.reshape(-1, 24)
    rows = normals_of_days(month, by_day.max(axis=1), by_day.min(axis=1), np.full(month.size, np.nan))
    for number_, row in enumerate(rows, 1):
        for field, column in (("humidity_pct", "relative_humidity"), ("wind_ms", "wind_speed")):
            row[field] = float(table[column].to_numpy(dtype=float).reshape(-1, 24)[month == number_].mean())
    city = str(place.get("city") or place.get("Name") or "Station").strip(' "')[:120]
    return _station(
        identifier, name or city, at_km, rows, source="typical year", lat_deg=float(place["latitude"]),
        lon_deg=float(place["longitude"]), elevation_m=float(place["altitude"]),
    )  # fmt: skip


def _from_months(text: str, identifier: str, name: str, at_km: float | None) -> tuple[Station, list[str]]:
    """Twelve rows, one a month, under a heading that names the columns; a row of the year's means after them is left aside."""
    sheet = read_sheet(text, lambda heading: _field_of(heading) is not None)
    found = dict[str, int]()
    for column, heading in enumerate(sheet.headings):
        field = _field_of(heading)
        if field is not None:
            found.setdefault(field, column)
    missing = [field for field in ("mean_max_c", "mean_min_c") if field not in found]
    if missing:
        raise InputProblem(
            "No columns 'max' and 'min' were found", f"line {sheet.first + 1}",
            "Head the columns: month; max; min; rain days; humidity; wind.",
        )  # fmt: skip
    rows = sheet.lines
    if len(rows) == 13:
        rows = rows[:12]
    if len(rows) != 12:
        raise InputProblem(f"A station wants 12 rows, one a month; there are {len(rows)}", "", "Begin with January.")
    months = []
    for line, row in rows:
        month = {}
        for field, column in found.items():
            cell = row[column] if column < len(row) else ""
            if not cell and field not in ("mean_max_c", "mean_min_c"):
                continue
            try:
                month[field] = number(cell.removesuffix("°C").removesuffix("%"), decimal_comma=sheet.delimiter != ",")
            except ValueError as error:
                where = f"line {line}, column {sheet.headings[column]}"
                raise InputProblem(str(error), where, "Write the figure alone.") from None
        months.append(month)
    aside = [h for n, h in enumerate(sheet.headings) if n not in found.values() and _plain(h) not in MONTH_HEADINGS]
    remarks = [f"Left aside, not understood: {', '.join(aside)}."] if aside else []
    if "rain_days" not in found:
        remarks.append(f"No rain days: {UNKNOWN_RAIN_DAYS:g} a month are assumed.")
    try:
        return _station(identifier, name or "Station", at_km, months, source="typed"), remarks
    except ValueError as error:
        reason = str(error).split("\n")[-2 if isinstance(error, ValidationError) else 0].strip()
        mend = "Say at which kilometre the station lies, and check the figures."
        raise InputProblem(f"The months do not make sense: {reason}", "", mend) from None
