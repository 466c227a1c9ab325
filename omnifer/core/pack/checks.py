"""What is looked at and tried before leaving, each tied to the rule that it feeds."""

from collections.abc import Iterator
from dataclasses import dataclass

from omnifer.core.diary.journal import Journal, Told
from omnifer.core.model.assessment import Assessment
from omnifer.core.model.carrier_kind import CarrierKind
from omnifer.core.model.finding import FindingKind
from omnifer.core.model.needs import Fault
from omnifer.core.model.pack import Check, CheckList, CheckState
from omnifer.core.model.quantities import Text
from omnifer.core.model.rig import Bike
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs.repair import STATE
from omnifer.core.pack import first_aid
from omnifer.core.sentence import fine_number, km, say

DONE, TROUBLE = "done", "trouble"


@dataclass(frozen=True)
class Row:
    """A check: what it is called, what it is tied to. All of it is common practice, no source."""

    key: str
    words: str
    fault: str = ""
    """Kind of fault that it keeps away."""
    kinds: tuple[FindingKind, ...] = ()
    """Findings that speak of the same."""
    view: str = ""
    teaches: str = ""
    """What trouble with it means."""


SERVICE = (
    Row("chain", "Chain not worn: a gauge drops in at 0.75 %", "chain", view="rig"),
    Row("pads", "Brake pads 1.5 mm or more", "pads", view="ready"),
    Row("rims", "Rims or rotors thicker than their least", view="rig"),
    Row("cables", "Cables and hoses without frays and leaks", "cable", view="ready"),
    Row("tyres", "Tyres without cuts that show the casing", "cut_tyre", view="ready"),
    Row("sealant", "Sealant fresh, or tubes without old patches", "puncture", view="ready"),
    Row("spokes", "Spokes evenly tight, wheels true", "spoke", view="ready"),
    Row("bearings", "No play in hubs, headset, crank and pedals", "loose", view="ready"),
    Row("bolts", "Bolts of racks and cages to their torque, marked with paint", "bolt", view="ready"),
    Row("hanger", "Hanger straight", "hanger", view="ready"),
    Row("cleats", "Cleats tight, if there are any"),
    Row("lamps", "Lamps lit, not hidden by bags", kinds=("not_seen",), view="ready"),
    Row("saddle", "Saddle and its post where they belong, marked"),
    Row("pressure", "Tyres at pressure, give or take a fifth", kinds=("tyre_pressure",), view="rig"),
)
TRIAL = (
    Row(
        "sway",
        "Does it sway on a downhill at 40 km/h?",
        kinds=("front_share", "sides", "over_mass"),
        view="load",
        teaches="Weight lower and further forward; a bag that sways carries less.",
    ),
    Row(
        "wander",
        "Does the front wander with one hand?",
        kinds=("front_share",),
        view="load",
        teaches="The front wheel's share is at fault, or its sides differ.",
    ),
    Row(
        "heel",
        "Does a heel strike a bag?",
        kinds=("no_fit",),
        view="rig",
        teaches="The pannier further back, or a smaller one: say how long the shoes are.",
    ),
    Row(
        "knee",
        "Does a knee touch a bag?",
        kinds=("no_fit", "too_wide"),
        view="rig",
        teaches="The bag on frame or top tube is too wide.",
    ),
    Row(
        "pinch",
        "Does a bag pinch a cable when the bar turns?",
        kinds=("no_fit",),
        view="rig",
        teaches="The roll stands too close: hold it further off the bar.",
    ),
    Row(
        "rub",
        "Does a tyre rub when it bounces?",
        kinds=("no_fit", "over_support"),
        view="rig",
        teaches="The saddle pack hangs too low, or a rack bends.",
    ),
    Row(
        "rattle",
        "Does anything rattle?",
        kinds=("improvised",),
        view="pack",
        teaches="Soft things around hard ones; heads of bolts again.",
    ),
    Row(
        "jump",
        "Did anything jump off?",
        kinds=("falls_out", "improvised"),
        view="load",
        teaches="A strap more, or another place.",
    ),
    Row(
        "hidden",
        "Is a lamp hidden, seen from 20 m?",
        kinds=("not_seen",),
        view="ready",
        teaches="The lamp goes on the outermost bag or the rack's tail.",
    ),
    Row(
        "kerb",
        "Does a pedal or bag strike a kerb?",
        kinds=("too_wide", "no_fit"),
        view="rig",
        teaches="Front panniers higher, or slower round corners.",
    ),
    Row(
        "numb",
        "Are hands or seat numb after two hours?",
        view="rig",
        teaches="Change bar or saddle before leaving, not on day 4.",
    ),
)
HOW = "Loaded as for day 1, 20 to 40 km, on the worst surface: a hard brake, a steep push, five corners, a downhill, rain."
AGAIN = (
    Row("bolts-5", "Bolts and straps again at km 5", "bolt"),
    Row("bolts-20", "Bolts and straps again at km 20", "bolt"),
    Row("bolts-100", "Bolts and straps again at km 100, then weekly", "bolt"),
    Row("night-out", "A night in the garden with all that is new", kinds=("untried",), view="ready"),
    Row("boil", "One boil timed, and the fuel weighed", kinds=("fuel_gap",), view="stores"),
    Row("filter", "The filter run once", kinds=("untreated",), view="stores"),
)
LAST = (
    Row("charge", "Everything charged, bank and lamps too", kinds=("device_dies",), view="stores"),
    Row("charge-again", "Looked at again after twelve hours switched off", kinds=("device_dies",), view="stores"),
    Row("maps", "Route and maps loaded, and opened without a network", kinds=("single_point",), view="stores"),
    Row("water", "Water filled as the first card says", kinds=("water_gap",), view="stores"),
    Row("money", "Money in three places"),
    Row("papers", "Papers and their copies, a card with contacts", kinds=("incomplete",), view="ready"),
    Row("valuables", "Valuables in one bag that comes along: into shops, and into the tent", kinds=("left_behind",), view="load"),
    Row("prescriptions", "Own medicine with its prescription, where hands reach it"),
    Row("keys", "Keys of the locks, the second ones apart", kinds=("incomplete",), view="ready"),
    Row("parcels", "Parcels posted", kinds=("may_go_home",), view="ready"),
    Row("outlook", "The last outlook read: rain kit, warm bag", kinds=("cold_sleep", "thin_layers"), view="road"),
    Row("told", "Somebody knows the plan and when to expect word"),
    Row("home", "Home: heating, post, door"),
    Row("cards", "Packed twice by the cards, once with gloves and by the clock", view="pack"),
)
ROUGH = frozenset({"rough_asphalt", "gravel", "soft"})
MUCH_ROUGH = 0.05
"""Of the road, from where hooks jump and bottles hop out [-]; practice."""
HOLDS = (
    Row("hooks", "Hooks of the panniers closed after the first rough road", kinds=("falls_out",), view="load",
        teaches="A strap around bag and rack; set the hooks to the rail's thickness."),
    Row("bottles", "Bottles in their cages after the first washboard", view="load",
        teaches="A strap around bottle and cage: above a litre always."),
    Row("seal", "Bags that let water in: sealed, and tried under a shower", kinds=("not_dry",), view="load",
        teaches="A liner in it, or nothing in it that must stay dry."),
    Row("chafe", "What lies on the rack does not chafe, and nor does the rack", view="pack",
        teaches="An old tube or a mat between; a sheath where cords run."),
    Row("sinks", "Saddle pack and roll hang no lower than at the start", kinds=("no_fit", "improvised"), view="rig",
        teaches="Straps again while the bag is full; a stabiliser, or less in it."),
)  # fmt: skip
"""What holds bags and what hops out of them, looked at after the first kilometres."""
CARRIERS_OF: dict[str, frozenset[CarrierKind]] = {
    "hooks": frozenset({"rear_pannier", "front_pannier"}), "bottles": frozenset({"bottle_cage", "rack_side_cage"}),
    "chafe": frozenset({"rack_top_bag", "lashed"}), "sinks": frozenset({"saddle_pack", "handlebar_roll"}),
}  # fmt: skip
ON_ROUGH = frozenset({"hooks", "bottles"})
OF_A_BIKE: tuple[tuple[CheckList, tuple[Row, ...]], ...] = (("service", SERVICE), ("trial", TRIAL), ("again", HOLDS))
OF_THE_PARTY: tuple[tuple[CheckList, tuple[Row, ...]], ...] = (("again", AGAIN), ("last", LAST))


def key_of(row: Row, bike: Bike | None) -> str:
    """What entries name a check by."""
    return f"{row.key}:{bike.id}" if bike is not None else row.key


def checks_of(tour: TourSheet, found: Assessment, journal: Journal) -> list[Check]:
    """Every check with its state and what follows from it."""
    said = {told.entry.about: told for told in journal.of_verbs("checked")}
    every: list[Check] = []
    for bike in tour.rig.bikes:
        every += [
            _check(of, row, bike, found, said) for of, rows in OF_A_BIKE for row in rows if _applies(row, bike, tour, found)
        ]
    every += [_check(of, row, None, found, said) for of, rows in OF_THE_PARTY for row in rows]
    return every + [_in_first_aid(item, said) for item in first_aid.contents(tour, found)]


def _in_first_aid(item: first_aid.Item, said: dict[str, Told]) -> Check:
    """A line of the first-aid kit, ticked when it is in."""
    key = f"aid-{item.key}"
    told = said.get(key)
    done = told is not None and told.entry.word == DONE
    return Check(
        key=key, of="first_aid", bike_id=None, words=item.words, state="done" if done else "open",
        by=told.entry.author if told is not None and done else "", costs=None if done else item.because, view="",
    )  # fmt: skip


def serviced(checks: list[Check], bike_id: str) -> bool:
    """Whether all of a bike's service is done."""
    mine = [check for check in checks if check.of == "service" and check.bike_id == bike_id]
    return bool(mine) and all(check.state == "done" for check in mine)


def _applies(row: Row, bike: Bike, tour: TourSheet, found: Assessment) -> bool:
    """What a bike does not have is not looked at, nor what a smooth road does not shake loose."""
    if row.key == "seal":
        return any(carrier.leaks for carrier in bike.carriers)
    if row.key in CARRIERS_OF:
        there = any(carrier.kind in CARRIERS_OF[row.key] for carrier in bike.carriers)
        return there and (row.key not in ON_ROUGH or _rough(tour, found))
    return not (row.key == "cleats" and bike.pedals == "flat") and not (row.key == "pads" and bike.brakes == "hub")


def _rough(tour: TourSheet, found: Assessment) -> bool:
    """Whether much of the road is rough."""
    told = tour.road.surfaces
    whole = found.road.length_km if found.road is not None else 0.0
    return sum(g.to_km - g.from_km for g in told if g.surface in ROUGH) > MUCH_ROUGH * whole


def _check(of: CheckList, row: Row, bike: Bike | None, found: Assessment, said: dict[str, Told]) -> Check:
    told = said.get(key_of(row, bike))
    word = told.entry.word if told is not None else ""
    state: CheckState = "done" if word == DONE else "trouble" if word == TROUBLE else "open"
    return Check(
        key=key_of(row, bike),
        of=of,
        bike_id=bike.id if bike else None,
        words=say(row.words),
        state=state,
        by=told.entry.author if told is not None and word else "",
        costs=next(_costs(row, bike, found, state), None),
        view=row.view,
    )


def _costs(row: Row, bike: Bike | None, found: Assessment, state: CheckState) -> Iterator[Text]:
    """What a check that is not done costs, by the faults and findings it is tied to."""
    if state == "done":
        return
    faults = [
        f for f in found.faults if row.fault and f.id.partition(":")[0] == row.fault and f.bike_id in (None, bike and bike.id)
    ]
    for fault in faults[:1]:
        if bike is not None and bike.state != "serviced":
            yield _spared(fault, bike)
        if fault.lacks:
            yield say(
                "{fault} on {km} without a bike shop: {lacks}.",
                fault=fault.words,
                km=km(fault.gap_km),
                lacks=", ".join(fault.lacks),
            )
    speaking = [f for f in found.findings if f.kind in row.kinds and f.bike_id in (None, bike and bike.id) and f.aside is None]
    if state == "trouble" and row.teaches:
        yield say(row.teaches)
    if speaking:
        yield speaking[0].sentence


def _spared(fault: Fault, bike: Bike) -> Text:
    """What the same fault is expected to be after a service."""
    after = fault.expected * STATE["serviced"] / STATE[bike.state]
    return say(
        "{fault}: expected {now} times on {km} without a bike shop, {then} after a service.", fault=fault.words,
        now=fine_number(fault.expected), then=fine_number(after), km=km(fault.gap_km),
    )  # fmt: skip
