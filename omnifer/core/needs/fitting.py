"""Whether a spare or a tool fits a bike: wheels, valves, spokes, sprockets, hangers and pads."""

from collections.abc import Callable

from omnifer.core.model.kit import Fit, Thing
from omnifer.core.model.rig import Bike, TrailerFrame

BEYOND_RIM_MM = 20.0
"""A valve comes at least so far out of its rim [mm]; practice."""
SPOKE_OFF_MM = 1.5
"""A spoke that differs by more does not fit [mm]; practice."""
OTHER_WHEEL = "for another wheel"
Misfit = Callable[[Fit, Bike], str]
"""Why a thing does not fit a bike, in words; empty where it does, or where nobody said."""


def fits_all(fit: Fit, bike: Bike) -> str:
    """Everything of its kind fits every bike."""
    return ""


def wheel(fit: Fit, bike: Bike) -> str:
    """A tyre is for one bead seat."""
    return "" if fit.bead_seat_mm in (None, bike.bead_seat_mm) else OTHER_WHEEL


def tube(fit: Fit, bike: Bike) -> str:
    """A tube is for one wheel, one kind of valve, and a valve that comes out of the rim."""
    asked = bike.rim_depth_mm + BEYOND_RIM_MM
    if fit.valve_mm is not None and fit.valve_mm < asked:
        return wheel(fit, bike) or valve(fit, bike) or f"valves of {fit.valve_mm:g} mm, the rim asks for {asked:g}"
    return wheel(fit, bike) or valve(fit, bike)


def valve(fit: Fit, bike: Bike) -> str:
    """A valve or a pump's head."""
    return "" if fit.valve in (None, bike.valve) else f"{fit.valve.capitalize()}, the rims take {bike.valve.capitalize()}"


def trailer_of(bike: Bike) -> TrailerFrame | None:
    """The trailer of a bike."""
    return next((support.trailer for support in bike.supports if support.trailer is not None), None)


def trailer_wheel(fit: Fit, bike: Bike) -> str:
    """A tyre or tube of a trailer."""
    trailer = trailer_of(bike)
    return "" if trailer is None or fit.bead_seat_mm in (None, trailer.bead_seat_mm) else OTHER_WHEEL


def spokes(fit: Fit, bike: Bike) -> str:
    """Spokes of every length that the bike has."""
    lacking = [mm for mm in bike.spokes_mm if all(abs(s - mm) > SPOKE_OFF_MM for s in fit.lengths_mm)]
    return f"none of {', '.join(f'{mm:g}' for mm in lacking)} mm" if fit.lengths_mm and lacking else ""


def speeds(fit: Fit, bike: Bike) -> str:
    """Links and sprockets are for so many speeds."""
    return "" if fit.speeds in (None, bike.speeds) else f"for {fit.speeds} sprockets, there are {bike.speeds}"


def _pattern(fit: Fit, wanted: str) -> str:
    named = fit.pattern and wanted
    return f"{fit.pattern}, the bike takes {wanted}" if named and wanted.lower() not in fit.pattern.lower() else ""


def hanger(fit: Fit, bike: Bike) -> str:
    """A hanger of the bike's shape."""
    return _pattern(fit, bike.hanger)


def pads(fit: Fit, bike: Bike) -> str:
    """Pads of the bike's shape."""
    return _pattern(fit, bike.pads)


OF_PARTS: dict[str, Misfit] = {"tyre": wheel, "pads": pads}
"""What of the parts that wear must fit, by what they serve."""


def misfit_of(service: str, thing: Thing, bike: Bike) -> str:
    """Why a thing does not stand in for a part of a bike that wears; empty where it does, or where nobody said."""
    return OF_PARTS.get(service, fits_all)(thing.fit, bike) if thing.fit is not None else ""


def fit_for(service: str, bike: Bike, of_trailer: bool = False) -> Fit | None:
    """What a part or a tool must fit to serve a bike or its trailer; None where everything of its kind does."""
    trailer = trailer_of(bike) if of_trailer else None
    match service:
        case "tube" if trailer is not None:
            return Fit(bead_seat_mm=trailer.bead_seat_mm)
        case "pump" if trailer is not None:
            return None
        case "tube":
            return Fit(bead_seat_mm=bike.bead_seat_mm, valve=bike.valve, valve_mm=bike.rim_depth_mm + BEYOND_RIM_MM)
        case "tyre":
            return Fit(bead_seat_mm=bike.bead_seat_mm)
        case "pump":
            return Fit(valve=bike.valve)
        case "spoke" if bike.spokes_mm:
            return Fit(lengths_mm=bike.spokes_mm)
        case "chain_link":
            return Fit(speeds=bike.speeds)
        case "hanger" if bike.hanger:
            return Fit(pattern=bike.hanger)
        case "pads" if bike.pads:
            return Fit(pattern=bike.pads)
        case "keys" if bike.heads:
            return Fit(keys=bike.heads)
        case _:
            return None
