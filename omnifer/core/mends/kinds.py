"""Which trouble is mended how, and what is said where nothing that can be tried helps."""

from omnifer.core.model.finding import FindingKind

OF_A_BAG: frozenset[FindingKind] = frozenset({"over_mass", "over_volume", "pressed"})
OF_A_BIKE: frozenset[FindingKind] = frozenset(
    {
        "over_support",
        "over_wheel",
        "over_system",
        "hitch_load",
        "front_lifts",
        "sides",
        "front_share",
        "tyre_pressure",
        "childs_load",
    }
)
OF_THINGS: frozenset[FindingKind] = frozenset({"not_dry", "falls_out", "left_behind", "too_deep", "too_long", "not_together"})
OF_WHAT_IS_OUT: frozenset[FindingKind] = frozenset({"on_shelf", "no_room_for_food"})
OF_THE_LOAD = OF_A_BAG | OF_A_BIKE | OF_THINGS | OF_WHAT_IS_OUT
OF_THE_SEASON: frozenset[FindingKind] = frozenset({"cold_night", "cold_sleep", "frostbite", "hot_day"})
TOO_MUCH: frozenset[FindingKind] = frozenset(
    {"over_mass", "over_volume", "over_support", "over_wheel", "over_system", "on_shelf"}
)
"""What leaving a thing can end."""
LESS = 0.7
"""What leaves no more of a trouble than this helps, though it does not end it [-]."""

ADVICE: dict[FindingKind, tuple[str, str]] = {
    "walking": ("A lower gear", "turns walking into slow riding, not into speed"),
    "bottles_freeze": (
        "Take them in for the night",
        "the pot filled in the evening, bottles upside down",
    ),
    "sides": ("Carry something across", "half of the difference, in either pair of bags; no single thing that may move does it"),
    "front_share": ("Shift something dense", "no single thing that may move does it: hang a bag elsewhere or free a pin"),
    "pressed": ("Leave something bulky", "nothing that may move eases it"),
    "not_together": ("Part them by a tight bag", "no bag is free for either"),
    "left_behind": ("Take it along into every shop", "no bag that comes along or locks has room for it"),
    "too_deep": ("Change what it is wanted for", "no bag in reach has room for it"),
    "too_long": ("Lash it outside", "no bag is long enough"),
    "falls_out": ("Tie it in", "no bag that closes has room for it"),
    "no_fit": ("Another place, or another bag", "a smaller one of its kind does not fit either"),
    "hitch_load": (
        "Move the load along the trailer",
        "nearer its wheel it presses less, further forward it lifts less",
    ),
    "front_lifts": ("Push with a hand on the bar", "and take a bag off where it is steep"),
    "tyre_pressure": ("Wider tyres", "the same load then wants less pressure"),
    "childs_load": ("Give some of it to others", "none of their bags has room for enough of it as they are packed"),
    "over_mass": ("Leave something dense", "nothing that may move ends it; no load may be held by hope"),
    "over_volume": ("Leave something bulky", "nothing that may move ends it"),
    "over_support": ("A stronger rack, or less", "nothing that may move ends it"),
    "over_wheel": ("Less on the bike", "nothing that may move ends it"),
    "over_system": ("Less on the bike", "a trailer's wheel bears part of it elsewhere"),
    "on_shelf": ("Leave some of it, or hang one bag more", "not all of it goes in"),
    "no_room_for_food": ("Free a bag for it", "none has room for all of it"),
}
"""Said where nothing that can be tried helps; practice."""
