"""How a default is written: its value, usual range and unit, what it is, and where it is from."""

from typing import Any

from pydantic import Field

FAR = 3.0
"""A value of the rider's own may lie beyond the usual range by so many times [-]."""
FAR_K = 30.0
"""The same of temperatures [K]."""


def usual(
    value: float, low: float, high: float, unit: str, words: str, source: str = "practice", *,
    least: float | None = None, most: float | None = None,
) -> Any:  # fmt: skip
    """A field of a default; `least` and `most` bound what a rider may set where the rule of `FAR` does not serve."""
    far = (low - FAR_K, high + FAR_K) if unit == "temperature" else (low / FAR, high * FAR)
    least, most = (given if given is not None else other for given, other in zip((least, most), far, strict=True))
    told: dict[str, Any] = {"low": low, "high": high, "unit": unit, "source": source, "least": least, "most": most}
    return Field(value, ge=least, le=most, description=words, json_schema_extra=told)
