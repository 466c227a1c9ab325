"""What could be otherwise on a bike, and what each costs or saves on this road: tyres, posture, saddle, pedals.

Every school is told with what speaks for it and what against it; all masses and effects are common practice, no source, and wide.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from typing import Literal

from pydantic import Field

from omnifer.core.assess import situation_of
from omnifer.core.model.quantities import Noun, Text
from omnifer.core.model.rig import Bike
from omnifer.core.model.tour import TourSheet
from omnifer.core.rig import riding
from omnifer.core.rig.fit import LEAST_BESIDE_TYRE_MM, beside_tyre_mm
from omnifer.core.road.profile import Profile
from omnifer.core.sentence import say

WIDER_MM = 10.0
"""A tyre that is wider by so much [mm]."""
WIDEST_MM = 70.0
"""Wider ones are no tyres of touring bikes [mm]; practice."""
About = Literal["tyres", "posture", "contact"]


def _takes_wider(bike: Bike) -> bool:
    """Whether a wider tyre finds room, where somebody measured it."""
    air = beside_tyre_mm(bike, bike.tyre_width_mm + WIDER_MM)
    return bike.tyre_width_mm < WIDEST_MM and (air is None or air >= LEAST_BESIDE_TYRE_MM)


@dataclass(frozen=True)
class Option:
    """One thing that could be otherwise."""

    id: str
    about: About
    words: str
    speaks_for: str
    against: str
    kg: float = 0.0
    drag: float = 1.0
    """Drag area over what it is now, [-]."""
    changed: Callable[[Bike], dict[str, object]] | None = None
    """What it changes of what is said of the bike; None: nothing that is said of it."""
    applies: Callable[[Bike], bool] = lambda bike: True


OPTIONS: tuple[Option, ...] = (
    Option("wider", "tyres", "Tyres 10 mm wider", "softer, sinks in less, fewer pinched tubes",
           "look first whether frame, fork and mudguards leave a thumb's width of room, and mud its own", 0.25,
           changed=lambda b: {"tyre_width_mm": b.tyre_width_mm + WIDER_MM, "wheel_radius_mm": None},
           applies=_takes_wider),
    Option("slick", "tyres", "Slick tyres", "roll best on asphalt", "slip on wet grass and mud, and cut sooner on sharp stones",
           -0.1, changed=lambda b: {"tread": "slick"}, applies=lambda b: b.tread != "slick"),
    Option("mixed", "tyres", "Tyres with a mixed tread", "for everywhere", "best nowhere",
           changed=lambda b: {"tread": "mixed"}, applies=lambda b: b.tread != "mixed"),
    Option("knobbly", "tyres", "Knobbly tyres", "bite in mud, sand and on loose climbs", "hum and squirm on asphalt", 0.2,
           changed=lambda b: {"tread": "knobbly"}, applies=lambda b: b.tread != "knobbly"),
    Option("armoured", "tyres", "Armoured tyres", "some four in ten of the punctures", "heavy to turn, hard to take off", 0.4,
           changed=lambda b: {"tyre_kind": "armoured"}, applies=lambda b: b.tyre_kind != "armoured"),
    Option("light", "tyres", "Light tyres", "quick and supple", "twice the punctures", -0.3,
           changed=lambda b: {"tyre_kind": "light"}, applies=lambda b: b.tyre_kind != "light"),
    Option("lie", "posture", "Bars to lie on", "half of the day out of the wind, and another place for the hands",
           "far from the brakes; the neck must be used to it; clamps want room on the bar", 0.4, 0.9),
    Option("upright", "posture", "Sitting upright", "sees the land, spares hands and neck", "slow in headwinds", 0.0, 1.12,
           changed=lambda b: {"posture": "upright"}, applies=lambda b: b.posture != "upright"),
    Option("tight", "posture", "Clothing that fits tightly", "flaps less", "nothing to sit in at an inn", 0.0, 0.96),
    Option("sprung_post", "contact", "A sprung seat post", "takes the sting out of gravel, for seat and back",
           "bobs, wants grease, and saddle bags hang on it badly", 0.35, changed=lambda b: {"post": "suspension"},
           applies=lambda b: b.post == "fixed"),
    Option("sprung_stem", "contact", "A sprung stem", "spares wrists and neck on washboard", "bar bags swing with it", 0.3),
    Option("grips", "contact", "Grips with several places", "hands that change fall asleep less",
           "wide ones are in the way of rolls", 0.15),
    Option("leather", "contact", "A leather saddle", "takes its rider's shape",
           "hard for its first weeks, and must not get wet: a cover", 0.25),
    Option("foam", "contact", "A foam saddle", "fits from the first day or never, rain does not matter",
           "wears flat in a few years"),
    Option("padded", "contact", "Padded shorts", "less chafing on long days",
           "must be clean and dry each day: two or three of them", 0.35),
    Option("clipped", "contact", "Pedals that clip in", "feet stay where they pull, on washboard too",
           "second shoes, spare bolts, knees that must like it", 0.55, changed=lambda b: {"pedals": "clip_in"},
           applies=lambda b: b.pedals == "flat"),
    Option("flat", "contact", "Flat pedals", "one pair of shoes for all, feet move freely", "feet leave them on rough ground",
           -0.55, changed=lambda b: {"pedals": "flat"}, applies=lambda b: b.pedals == "clip_in"),
)  # fmt: skip


class OtherBike(Noun):
    """Something that could be otherwise on a bike, and its price on this road."""

    id: str
    about: About
    words: Text
    speaks_for: str
    against: str
    kg: float = Field(description="More mass, less where negative [kg]")
    minutes_a_day: float | None = Field(description="More riding of the party, less where negative; None: no road [min/d]")
    bike: Bike | None = Field(description="The bike with it; None: nothing that is said of it changes")


def choices_of(tour: TourSheet, road: Profile | None, bike_id: str) -> list[OtherBike]:
    """What could be otherwise on a bike, each ridden over the same road on the same days.

    Raises KeyError where there is no such bike.
    """
    bike = {bike.id: bike for bike in tour.rig.bikes}[bike_id]
    return list(_choices(tour, road, bike))


def _choices(tour: TourSheet, road: Profile | None, bike: Bike) -> Iterator[OtherBike]:
    voyage = situation_of(tour, road).voyage
    rider = next(k for k, r in enumerate(tour.riders) if r.id == bike.rider_id)
    for option in OPTIONS:
        if not option.applies(bike):
            continue
        made = None
        if option.changed is not None:
            made = Bike.model_validate(bike.model_dump() | option.changed(bike))
        minutes = None
        if voyage is not None:
            now, then = voyage.riding[rider], made or bike
            ridden = replace(
                now, dry_kg=now.dry_kg + option.kg, drag_area_m2=now.drag_area_m2 + bike.drag_area_m2 * (option.drag - 1),
                rolling_resistance=now.rolling_resistance + riding.rolling_resistance(then) - riding.rolling_resistance(bike),
                ground_times=riding.ground_times(then),
            )  # fmt: skip
            pace = voyage.ridden
            longer = pace.otherwise(rider, ridden).hours[-1] - pace.hours[-1]
            minutes = round(float(longer) * 60 / (voyage.days.km.size - 1), 2)
        yield OtherBike(
            id=option.id, about=option.about, words=say(option.words), speaks_for=option.speaks_for, against=option.against,
            kg=option.kg, minutes_a_day=minutes, bike=made,
        )  # fmt: skip
