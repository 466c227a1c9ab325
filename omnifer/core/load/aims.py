"""What a good load aims at, in points: one table, so that every weight can be seen and argued with.

All weights are practice: they put the rules of thumb of touring riders on one scale. One point is about the
annoyance of one kilogram carried 5 cm too high.
"""

from omnifer.core.model.aims import AimName, Aims
from omnifer.core.model.carrier_kind import KINDS
from omnifer.core.model.quantities import Noun
from omnifer.core.model.rig import Bike
from omnifer.core.model.tour import TourSheet

OUT_THING, OUT_KG, OUT_L = 1_500, 1_500, 750
"""A thing left out, and besides for each kilogram of it, full of water if it is a vessel, and each litre [points, points/kg,
points/l]: more than aims can bring, so that nothing stays out for looks, and by size, so that not the largest stay out."""
MUST_TIMES = 4
"""What must come costs so much more to leave out than what may stay [-]."""
VITAL_TIMES, SPARE_TIMES = 2.0, 0.5
"""Roof, first aid, vessels and what one sleeps in count so much more, what is wanted only if something breaks less [-]."""
DEEP_STEP = {1: 14, 2: 40, 3: 70, 4: 70}
"""A thing found later than it is wanted, by moments too late [points]."""
HARD_IN_ROLL = 6
"""A hard thing in a roll at the bar, where it slides to the middle and rattles against cables [points]."""
LEFT_BEHIND = 14
"""A valuable in a bag that neither lifts off nor locks [points]."""
HIGH = 20
"""Mass above the ground [points/(kg m)]."""
FAR = 6
"""Mass away from the middle of the wheelbase [points/(kg m)]."""
KIT_SPLIT = 12
"""Each bag that a kit is spread over [points]."""
AWAY = 6
"""Each thing that rides apart from most of its kit [points]."""
WET_INSIDE, WET_L, EXPOSED = 4, 8, 30
"""A wet thing in a closed bag, and besides for each litre of it; a thing that water ruins in an open carrier [points, points/l,
points]."""
ON_BODY, BAR = 8, 20
"""Kilograms on the rider, and those at the bar beyond what steers well [points/kg]."""
BAG_OPENED = 9
"""A bag that must be opened in camp [points each]."""
RARE_ON_TOP = 6
"""A thing that is rarely needed in a bag reached while riding: it takes the place of what is [points each]."""
FOOD_DEEP = 6
"""A tenth of the food a moment deeper than a stop [points]."""
SIDES = 30
"""Left against right beyond the tolerance, at each axle [points/kg]."""
SIDES_TOLERANCE_KG = 0.5
FRONT = 20
"""Front wheel's load outside its steady range [points/kg]."""
SWAY = 12
"""Mass in a saddle pack beyond the sway limit [points/kg]."""
RIDERS = 8
"""A bike's luggage away from its rider's part by power, beyond the tolerance [points/kg]."""
RIDERS_TOLERANCE_KG = 2.0
ROOM = 15
"""Litres missing of the room kept for shopping [points/l]."""
ROOM_L = 6.0
"""Room kept besides the planned food, 4 to 8 l: what a small shop's bag takes up until the evening [l]; practice."""
EASE = 8
"""Litres beyond what a bag takes with ease, pressed in at its fullest moment [points/l]."""
CHANGED = 6
"""A thing away from where it rides today [points each]."""
WORST_TIMES = 2
"""The worst moment counts this often more, besides the sum over the moments that govern."""


class Aim(Noun):
    """An aim in words: what it asks, why, and what one breach costs by its usual weight."""

    name: AimName
    words: str
    why: str
    price: str


AIMS = (
    Aim(name="reach", words="In reach when it is wanted", why="a thing buried is not used, or costs a full unpack",
        price=f"{DEEP_STEP[1]} to {DEEP_STEP[3]} points a thing found too late, {LEFT_BEHIND} a valuable left on the bike; "
              f"{HARD_IN_ROLL} a hard thing in a roll at the bar; "
              f"{RARE_ON_TOP} a rare thing on top"),
    Aim(name="low", words="Low", why="a high load topples the bike and swings", price=f"{HIGH} points a kilogram and metre"),
    Aim(name="middle", words="Near the middle", why="ends that are heavy turn and stop badly",
        price=f"{FAR} points a kilogram and metre"),
    Aim(name="sides", words="Left as right", why="a leaning bike pulls; half a kilogram a pair is not felt",
        price=f"{SIDES} points a kilogram beyond {SIDES_TOLERANCE_KG} at each axle"),
    Aim(name="front", words="Front wheel steady", why="too light it wanders uphill, too heavy it steers slowly",
        price=f"{FRONT} points a kilogram outside the range"),
    Aim(name="sway", words="What swings light", why="saddle pack, fork bags and what is lashed on swing with every pedal stroke",
        price=f"{SWAY} points a kilogram beyond {KINDS['saddle_pack'].sway_limit_kg:g} in a saddle pack, "
              f"{KINDS['fork_bag'].sway_limit_kg:g} in a fork bag"),
    Aim(name="together", words="Kits together", why="camp then opens few bags, and each has one place",
        price=f"{KIT_SPLIT} points a bag that a kit is spread over, {AWAY} a thing away from most of it"),
    Aim(name="weather", words="Wet outside, dry inside", why="a wet fly soaks what lies beside it, and rain what is lashed on",
        price=f"{WET_INSIDE} points a wet thing inside and {WET_L} a litre of it, {EXPOSED} a thing outside that rain ruins"),
    Aim(name="carry", words="Bar and back light", why="a heavy bar steers late, and what is on the back sits on the saddle",
        price=f"{BAR} points a kilogram too many at the bar, {ON_BODY} a kilogram on the rider"),
    Aim(name="bags", words="Few bags opened in camp", why="what stays shut stays dry and need not be packed again",
        price=f"{BAG_OPENED} points a bag with things for the camp or the night"),
    Aim(name="room", words="Room left for shopping", why="what is bought at noon wants a place until the evening",
        price=f"{ROOM} points a litre missing of {ROOM_L:g} for each rider"),
    Aim(name="ease", words="Nothing pressed", why="stuffing costs time every morning and wears seams, zips and down",
        price=f"{EASE} points a litre pressed in"),
    Aim(name="riders", words="Riders by their power", why="the party rides at the pace of the slowest",
        price=f"{RIDERS} points a kilogram beyond {RIDERS_TOLERANCE_KG:g}"),
    Aim(name="changes", words="Everything where it was", why="hands find things by habit",
        price=f"{CHANGED} points a thing that moves"),
)  # fmt: skip


class School(Noun):
    """A way of loading that riders swear by, as a preset of the aims."""

    id: str
    name: str
    words: str
    aims: Aims


SCHOOLS = (
    School(id="neutral", name="Even", words="Both wheels gain alike; nothing counts more than usual.", aims=Aims()),
    School(id="low_front", name="Heavy and low in front", words="Two fifths or more in front for steady steering downhill.",
           aims=Aims(low=1.5, front_share_low=0.40, front_share_high=0.54)),
    School(id="light_front", name="Light in front", words="A front wheel that lifts over stones; the rear carries.",
           aims=Aims(front_share_low=0.26, front_share_high=0.38)),
    School(id="rough", name="Rough ground", words="Narrow, in the middle, nothing that swings; room comes last.",
           aims=Aims(middle=2, sway=3, sides=1.5, room=0.5)),
    School(id="camp", name="Quick camp", words="Kits whole and everything in reach; the balance may suffer a little.",
           aims=Aims(together=2, bags=2, reach=1.5, low=0.7, middle=0.7)),
    School(id="habit", name="As it is", words="Better only where it pays to move things.", aims=Aims(changes=2)),
)  # fmt: skip
"""Practice; what each costs on a tour is worked out there."""


def front_range(tour: TourSheet, bike: Bike) -> tuple[float, float]:
    """The steady range of a front wheel's share: what the aims say, or the bike's own."""
    aims = tour.aims
    wanted = (
        bike.front_share_low if aims.front_share_low is None else aims.front_share_low,
        bike.front_share_high if aims.front_share_high is None else aims.front_share_high,
    )
    return min(wanted), max(wanted)
