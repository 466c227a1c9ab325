"""Travelling with the bike: what comes off, what it weighs against what is allowed, what may not come, and when to leave."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from omnifer.core.model.assessment import Assessment, Day
from omnifer.core.model.kit import ABOARD, Thing
from omnifer.core.model.pack import Travel, TravelLine
from omnifer.core.model.rig import Bike
from omnifer.core.model.road import Journey
from omnifer.core.model.roles import Bank, Cells, FireLighter, FuelVessel, Stove
from omnifer.core.model.tour import TourSheet
from omnifer.core.sentence import clock, fine_kg, kg, km, minutes, mm, number, say, wh

RULES = (
    "Air rules: published general guidance for passengers (IATA, 2025 edition), from memory. Carriers and law decide; ask yours."
)
CABIN_WH, APPROVED_WH = 100.0, 160.0
"""A battery up to the first flies in the cabin, up to the second with the carrier's approval, larger ones do not; IATA guidance
for passengers on lithium batteries, 2025, from memory [Wh]."""
LARGE_A_PERSON = 2
"""Spare batteries of more than 100 Wh a person; the same guidance, from memory."""
SPARE_H = 0.5
"""Before the departure one is there [h]; practice."""
BOX_MM = 1500.0
"""A box for a bicycle is about so long, 1.4 to 1.6 m [mm]; practice."""
BOX_KG = 5.0
"""[kg]; practice."""
HARD_KG, TWO_KG = 25.0, 40.0
"""Heavier is hard to lift, and asks for two [kg]; practice."""
USUAL_PACE_KMH = 16.0
"""Where no day tells a pace [km/h]; practice."""


@dataclass(frozen=True)
class Mode:
    """What is usual on a kind of carriage; practice."""

    words: str
    goes: Literal["ridden_on", "rolled", "wheel_out", "boxed", "carried"]
    bike_most_kg: float | None
    prepares_min: float


MODES: dict[str, Mode] = {
    "ferry": Mode("Ferry", "rolled", None, 20),
    "train": Mode("Train", "rolled", None, 10),
    "bus": Mode("Bus", "wheel_out", 25, 30),
    "flight": Mode("Flight", "boxed", 23, 180),
    "lift": Mode("Stairs or a lift", "carried", None, 10),
}


def leave_by(departs_h: float, ride_km: float, pace_kmh: float) -> float:
    """When to leave so as to be there in time, wall clock [h]: half an hour before it departs."""
    return departs_h - ride_km / pace_kmh - SPARE_H


def flies(battery_wh: float) -> Literal["cabin", "ask", "not_allowed"]:
    """What becomes of a battery on a flight; see `RULES`."""
    return "cabin" if battery_wh <= CABIN_WH else "ask" if battery_wh <= APPROVED_WH else "not_allowed"


def travel_of(tour: TourSheet, found: Assessment) -> list[Travel]:
    """Every journey that is not ridden: those told, and transfers of which nothing more is told."""
    told = {journey.at_km: journey for journey in tour.road.journeys}
    for transfer in tour.road.transfers:
        told.setdefault(transfer.from_km, Journey(at_km=transfer.from_km, by=transfer.by))
    return [_travel(tour, found, told[at]) for at in sorted(told)]


def _travel(tour: TourSheet, found: Assessment, journey: Journey) -> Travel:
    mode = MODES[journey.by]
    day = next((d for d in found.days if not d.rest and d.from_km <= journey.at_km <= d.to_km), None)
    ride_km = journey.at_km - day.from_km if day else 0.0
    pace = _pace(day)
    goes = journey.goes or mode.goes
    lines = [
        *_loads(tour, found, journey, goes),
        *_off(tour, goes),
        *_forbidden(tour, found, journey),
        *_lifts(found, journey, goes),
    ]
    leave = None if journey.departs_h is None else leave_by(journey.departs_h, ride_km, pace)
    if leave is not None:
        words = "Leave by {leave}: {km} to ride at {pace} km/h, half an hour before it departs at {departs}."
        lines.insert(0, TravelLine(answer="told", words=say(
            words, leave=clock(leave), km=km(ride_km), pace=f"{pace:.0f}", departs=clock(journey.departs_h or 0)
        )))  # fmt: skip
        if day is not None and leave < 0:
            lines.insert(1, TravelLine(answer="over", words=say("That is the evening before: sleep nearer.")))
    return Travel(
        at_km=journey.at_km, by=journey.by, goes=goes, name=mode.words, departs_h=journey.departs_h,
        leave_by_h=None if leave is None else round(leave, 3), ride_km=round(ride_km, 1), pace_kmh=round(pace, 1),
        boxing_minutes=mode.prepares_min, lines=lines,
    )  # fmt: skip


def _pace(day: Day | None) -> float:
    """Kilometres an hour over a day, pauses counted [km/h]."""
    on_the_road = day.riding_hours + day.pause_hours if day is not None else 0.0
    return day.distance_km / on_the_road if day is not None and on_the_road > 0 else USUAL_PACE_KMH


def _bare_kg(bike: Bike) -> float:
    """The bike with its racks, bags and trailer off [kg]."""
    return bike.mass_kg + sum(s.mass_kg for s in bike.supports if s.trailer is None)


def _loads(tour: TourSheet, found: Assessment, journey: Journey, goes: str) -> Iterator[TravelLine]:
    boxed = goes == "boxed"
    allowed = journey.bike_most_kg if journey.bike_most_kg is not None else MODES[journey.by].bike_most_kg
    for bike in tour.rig.bikes:
        mass = _bare_kg(bike) + (BOX_KG if boxed else 0.0)
        if allowed is not None:
            left = allowed - mass
            words = "{bike} {boxed} weighs {mass}, allowed are {allowed}: {left} {which}."
            yield TravelLine(answer="fits" if left >= 0 else "over", words=say(
                words, bike=bike.name, boxed="in its box" if boxed else "with its bags off", mass=kg(mass), allowed=kg(allowed),
                left=kg(abs(left)), which="left" if left >= 0 else "too much",
            ))  # fmt: skip
        if boxed:
            fits = journey.longest_mm is None or journey.longest_mm >= BOX_MM
            words = "A box of about {box}" + ("." if journey.longest_mm is None else "; allowed are {most}.")
            figures = {} if journey.longest_mm is None else {"most": mm(journey.longest_mm)}
            yield TravelLine(answer="fits" if fits else "over", words=say(words, box=mm(BOX_MM), **figures))
        if any(s.trailer is not None for s in bike.supports):
            yield TravelLine(answer="ask", words=say("The trailer of {bike} is a piece of its own.", bike=bike.name))
        yield from _pieces(found, bike, journey)


def _pieces(found: Assessment, bike: Bike, journey: Journey) -> Iterator[TravelLine]:
    bags = {c.id: c for c in bike.carriers if c.lifts_off or c.straps > 0}
    pieces = [(bags[card.carrier_id].name, card.mass_kg - card.water_l + bags[card.carrier_id].mass_kg)
              for card in found.cards if card.carrier_id in bags and card.layers]  # fmt: skip
    if not pieces:
        return
    heaviest = max(pieces, key=lambda piece: piece[1])
    yield TravelLine(answer="told", words=say(
        "{count:bag|bags} of {bike} {count::comes|come} off, {mass} without water; the heaviest is {bag} with {most}.",
        count=str(len(pieces)),
        bike=bike.name, mass=kg(sum(mass for _, mass in pieces)), bag=heaviest[0], most=kg(heaviest[1]),
    ))  # fmt: skip
    if journey.pieces is not None and len(pieces) > journey.pieces:
        yield TravelLine(answer="over", words=say(
            "Of {bike} {count:bag comes|bags come} off and {most} are allowed: tie some together or into one sack.",
            bike=bike.name, count=str(len(pieces)), most=str(journey.pieces),
        ))  # fmt: skip
    if journey.piece_most_kg is not None:
        for name, mass in pieces:
            if mass > journey.piece_most_kg:
                words = "{bag} weighs {mass}; a bag may weigh {most}."
                yield TravelLine(answer="over", words=say(words, bag=name, mass=kg(mass), most=kg(journey.piece_most_kg)))


TAKEN_OFF = {
    "boxed": ("Pedals off, bar turned along the frame, saddle down, front wheel out; spacers into fork and pads.",
              "Tyres a third softer. Rotors padded; the derailleur turned in or off.",
              "Tools kept with the bike: hex 4 to 6, pedal spanner, tape, ties, a spacer for the pads."),
    "wheel_out": ("Front wheel out and beside the frame; a spacer into the fork and the pads.",),
    "rolled": ("Panniers off where it is lifted in; one small bag with papers, money, food and a layer comes to the seat.",
               "A strap and the lock to hold it."),
    "ridden_on": ("Ridden on with everything: lamps on, off the saddle where it is wet.",),
    "carried": ("Bags off first, then the bike: two ways are lighter than one.",),
}  # fmt: skip


def _off(tour: TourSheet, goes: str) -> Iterator[TravelLine]:
    yield from (TravelLine(answer="to_do", words=say(words)) for words in TAKEN_OFF[goes])
    if goes == "boxed":
        yield TravelLine(
            answer="told", words=say("Boxing takes two to four hours, and as long again after landing: no 40 km that day.")
        )


def _forbidden(tour: TourSheet, found: Assessment, journey: Journey) -> Iterator[TravelLine]:
    """What may not come aboard an aircraft, or only in the hold or the cabin."""
    if journey.by != "flight":
        return
    there = [t for t in tour.located if _aboard(t, journey.at_km)]
    for thing in there:
        match thing.role:
            case Bank(holds_wh=energy):
                yield _battery(thing, energy)
            case Cells(set_wh=energy):
                yield _battery(thing, energy)
            case FuelVessel(burns="gas"):
                yield TravelLine(
                    answer="not_allowed", words=say("{thing}: no gas flies, not even a little. Buy it there.", thing=thing.name)
                )
            case FuelVessel():
                words = "{thing}: empty, dry and aired, or it stays; some carriers take none that held fuel."
                yield TravelLine(answer="ask", words=say(words, thing=thing.name))
            case Stove():
                yield TravelLine(answer="ask", words=say("{thing}: cleaned and without a smell of fuel.", thing=thing.name))
        if "co2" in thing.name.lower():
            yield TravelLine(answer="ask", words=say("{thing}: some carriers take a few, most none; ask.", thing=thing.name))
        if "bear_spray" in thing.serves:
            yield TravelLine(answer="not_allowed", words=say("{thing}: in no cabin and no hold; buy it there.", thing=thing.name))
        elif "spray" in thing.name.lower() and thing.role is None:
            words = "{thing}: under pressure only as a toiletry of half a litre at most, in the hold; pumped by hand it may come."
            yield TravelLine(answer="ask", words=say(words, thing=thing.name))
        if isinstance(thing.role, FireLighter):
            words = "{thing}: one small lighter or one box of safety matches a person, on the body, in no bag; the rest stays."
            yield TravelLine(answer="ask", words=say(words, thing=thing.name))
        if "sharp" in thing.natures:
            yield TravelLine(answer="to_do", words=say("{thing} goes in the hold.", thing=thing.name))
    asking = sum(t.count for t in there if isinstance(t.role, Bank) and flies(t.role.holds_wh) == "ask")
    if asking > LARGE_A_PERSON * len(tour.riders):
        words = "{n} banks of more than 100 Wh: at most {most} a person come aboard, and the carrier approves each."
        yield TravelLine(answer="not_allowed", words=say(words, n=number(asking), most=number(LARGE_A_PERSON)))
    fuel = _fuel_kg(found, journey.at_km)
    if fuel > 0:
        words = "{fuel} of fuel is on board on arriving there: burn it or give it away before."
        yield TravelLine(answer="not_allowed", words=say(words, fuel=fine_kg(fuel)))


def _aboard(thing: Thing, at_km: float) -> bool:
    return any(start <= at_km <= end and place.how in ABOARD for start, end, place in thing.stretches())


def _battery(thing: Thing, energy: float) -> TravelLine:
    match flies(energy):
        case "cabin":
            words = "{thing}, {energy}: in the cabin, contacts covered."
            return TravelLine(answer="fits", words=say(words, thing=thing.name, energy=wh(energy)))
        case "ask":
            words = "{thing}, {energy}: more than 100 Wh asks for the carrier's approval; in the cabin."
            return TravelLine(answer="ask", words=say(words, thing=thing.name, energy=wh(energy)))
        case _:
            words = "{thing}, {energy}: more than 160 Wh does not fly."
            return TravelLine(answer="not_allowed", words=say(words, thing=thing.name, energy=wh(energy)))


def _fuel_kg(found: Assessment, at_km: float) -> float:
    """Fuel on arriving at a place [kg]; the last moment that is not on the leaving side of it."""
    moments = found.moments
    if moments is None or found.stores is None:
        return 0.0
    lane = next((lane for lane in found.stores.lanes if lane.key == "fuel"), None)
    before = [
        k for k, (place, leaving) in enumerate(zip(moments.km, moments.leaving, strict=True)) if place <= at_km and not leaving
    ]
    if lane is None or not before:
        return 0.0
    return lane.stock[before[-1]] if len(lane.stock) > 1 else lane.stock[0]


def _lifts(found: Assessment, journey: Journey, goes: str) -> Iterator[TravelLine]:
    """Whether the laden bike can be lifted, where it is."""
    if goes not in ("rolled", "carried", "wheel_out"):
        return
    for trace in found.bikes:
        mass = trace.total_kg[0]
        if mass > TWO_KG:
            yield TravelLine(answer="to_do", words=say("{mass} laden asks for two to lift it: bags off first.", mass=kg(mass)))
        elif mass > HARD_KG:
            yield TravelLine(answer="to_do", words=say("{mass} laden is hard to lift alone: panniers off.", mass=kg(mass)))
    prepares = MODES[journey.by].prepares_min
    yield TravelLine(answer="told", words=say("Loading takes about {time}.", time=minutes(prepares)))
