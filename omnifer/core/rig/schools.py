"""Ways of hanging luggage on a bike that riders swear by, as whole rigs of the catalogue to compare with."""

from math import floor

from omnifer.core.model.carrier_kind import KINDS, CarrierKind
from omnifer.core.model.quantities import Noun, Side
from omnifer.core.model.rig import Bike, Carrier, Rig, Support, SupportKind
from omnifer.core.rig.catalogue import CARRIERS, SUPPORTS, carrier, support
from omnifer.core.rig.fit import triangle_room_l
from omnifer.core.rig.geometry import Frame

PAIR: tuple[Side, ...] = ("left", "right")
MIDDLE: tuple[Side, ...] = ("middle",)
Hung = tuple[CarrierKind, str, tuple[Side, ...]]
"""A carrier, the kind of support or the mount it hangs on, and its sides."""

_BOTTLES: tuple[Hung, ...] = (("bottle_cage", "down_tube_bolts", MIDDLE), ("bottle_cage", "seat_tube_bolts", MIDDLE))


class RigSchool(Noun):
    """A way of hanging luggage."""

    id: str
    name: str
    words: str
    supports: tuple[SupportKind, ...]
    carriers: tuple[Hung, ...]


SCHOOLS = (
    RigSchool(
        id="rear", name="Rear panniers only", words="Light and simple; the front feels light.",
        supports=("rear_rack",),
        carriers=(("rear_pannier", "rear_rack", PAIR), ("rack_top_bag", "rear_rack", MIDDLE),
                  ("handlebar_box", "handlebar", MIDDLE), *_BOTTLES),
    ),
    RigSchool(
        id="four", name="Four panniers", words="Most room for the price; heavy, wide, steady when the front is loaded low.",
        supports=("rear_rack", "front_rack"),
        carriers=(("rear_pannier", "rear_rack", PAIR), ("front_pannier", "front_rack", PAIR),
                  ("rack_top_bag", "rear_rack", MIDDLE), ("handlebar_box", "handlebar", MIDDLE), *_BOTTLES),
    ),
    RigSchool(
        id="bags", name="Bags without racks", words="Narrow and steady on rough ground; half the room, packing must be exact.",
        supports=("fork_cage", "fork_cage", "under_tube_cage"),
        carriers=(("handlebar_roll", "handlebar", MIDDLE), ("stem_bag", "stem", PAIR), ("top_tube_bag", "top_tube", MIDDLE),
                  ("full_frame_bag", "frame_triangle", MIDDLE), ("saddle_pack", "saddle", MIDDLE),
                  ("fork_bag", "fork_cage", PAIR), ("under_tube_bag", "under_tube_cage", MIDDLE)),
    ),
    RigSchool(
        id="hybrid", name="Panniers and bags", words="Rear panniers for the bulk, bags in the frame and at the fork.",
        supports=("rear_rack", "fork_cage", "fork_cage"),
        carriers=(("rear_pannier", "rear_rack", PAIR), ("handlebar_roll", "handlebar", MIDDLE),
                  ("top_tube_bag", "top_tube", MIDDLE), ("half_frame_bag", "frame_triangle", MIDDLE),
                  ("fork_bag", "fork_cage", PAIR), ("bottle_cage", "under_down_tube_bolts", MIDDLE)),
    ),
    RigSchool(
        id="trailer", name="Trailer", words="Leaves the bike agile, unhitches in town; a second tyre size.",
        supports=("trailer_one_wheel",),
        carriers=(("trailer_bag", "trailer_one_wheel", MIDDLE), ("handlebar_box", "handlebar", MIDDLE),
                  ("top_tube_bag", "top_tube", MIDDLE), *_BOTTLES),
    ),
)  # fmt: skip
"""Practice; what each costs on a tour is worked out there."""


class SchoolRig(Noun):
    """The bikes of a tour, hung as a school does."""

    id: str
    name: str
    words: str
    rig: Rig
    wants: list[str] = []
    """What the bikes have no mounts for and go without."""


def rigs_of_schools(rig: Rig) -> list[SchoolRig]:
    """The bikes of a rig, each hung anew by every school."""
    found = []
    for school in SCHOOLS:
        hung = [_hung(bike, school, f"{school.id}-{n}") for n, bike in enumerate(rig.bikes, 1)]
        wants = sorted({name for _, missing in hung for name in missing})
        found.append(
            SchoolRig(id=school.id, name=school.name, words=school.words, rig=Rig(bikes=tuple(b for b, _ in hung)), wants=wants)
        )
    return found


def _hung(bike: Bike, school: RigSchool, stem: str) -> tuple[Bike, list[str]]:
    """A bare bike with what a school hangs on it, and the names of what it has no mounts for."""
    supports: list[Support] = []
    missing = []
    for kind in school.supports:
        template = SUPPORTS[kind]
        if template.prototype.mount not in bike.mounts:
            missing.append(f"{template.prototype.name} on {bike.name}")
            continue
        side = template.sides[sum(s.kind == kind for s in supports)]
        supports.append(support(kind, f"{stem}-{kind}-{side}", side, name=_named(template.prototype.name, side)))
    carriers: list[Carrier] = []
    for carrier_kind, place, sides in school.carriers:
        for side in sides:
            rack = next((s for s in supports if s.kind == place and s.side in (side, "middle")), None)
            name, on = _named(CARRIERS[carrier_kind].prototype.name, side), rack.id if rack else place
            if rack is None and place not in bike.mounts:
                if place not in school.supports:
                    missing.append(f"{name} on {bike.name}")
                continue
            where = "" if on in (s.id for s in supports) or carrier_kind != "bottle_cage" else f"-{place[:4]}"
            added = carrier(carrier_kind, f"{stem}-{carrier_kind}-{side}{where}", on, side, name=name)
            if place == "frame_triangle":
                most_l = floor(10 * triangle_room_l(Frame.of(bike), KINDS[carrier_kind].anchor)) / 10
                added = added.model_copy(update={"volume_l": min(added.volume_l, most_l)})
            carriers.append(added)
    return bike.model_copy(update={"supports": tuple(supports), "carriers": tuple(carriers)}), missing


def _named(name: str, side: Side) -> str:
    return name if side == "middle" else f"{name} {side}"
