"""The outside services that an operator has set up."""

import os
from collections.abc import Mapping
from dataclasses import dataclass, field

from omnifer.outside.heights import HeightService
from omnifer.outside.maps import MapService
from omnifer.outside.weather import WeatherService


@dataclass(frozen=True)
class Services:
    """Each at its address, or nowhere."""

    weather: WeatherService = field(default_factory=lambda: WeatherService(None))
    maps: MapService = field(default_factory=lambda: MapService(None))
    heights: HeightService = field(default_factory=lambda: HeightService(None))


def services_of(settings: Mapping[str, str] = os.environ) -> Services:
    """As the settings OMNIFER_WEATHER, OMNIFER_MAPS and OMNIFER_HEIGHTS say."""
    return Services(
        WeatherService(settings.get("OMNIFER_WEATHER")), MapService(settings.get("OMNIFER_MAPS")),
        HeightService(settings.get("OMNIFER_HEIGHTS")),
    )  # fmt: skip
