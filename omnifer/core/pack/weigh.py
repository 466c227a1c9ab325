"""The weigh-in: the sum of parts against the scale, thing by thing, bag by bag and wheel by wheel."""

from collections.abc import Iterator
from typing import Literal

from omnifer.core.diary.journal import Journal, Told
from omnifer.core.model.assessment import Assessment
from omnifer.core.model.diary import WHEELS, Weighed
from omnifer.core.model.kit import Thing
from omnifer.core.model.rig import Bike, Carrier
from omnifer.core.model.tour import TourSheet
from omnifer.core.model.trace import BikeTrace
from omnifer.core.model.weigh import Earlier, Missing, Seat, WeighIn, WeighLine, Zone
from omnifer.core.pack.missing import COVERS, GUESS, SCALE_UNSURE_KG, missing_of, off_by_kg, things_in
from omnifer.core.physics import weighing
from omnifer.core.rig.statics import Levers

BOARD_MM = 60.0
FRONT_MOUNTS = frozenset({"fork_eyelets", "fork_bolts", "handlebar", "stem"})
FRAME_MOUNTS = frozenset({"top_tube", "frame_triangle", "down_tube_bolts", "seat_tube_bolts", "under_down_tube_bolts"})


def weigh_in(tour: TourSheet, found: Assessment, journal: Journal) -> WeighIn:
    """Everything that was weighed, the newest of each, beside what its parts come to as the tour leaves."""
    newest = _newest(journal)
    things = {thing.id: thing for thing in tour.kit}
    lines = [_thing_line(things[about], newest[weighed, about]) for weighed, about in newest
             if weighed == "thing" and about in things]  # fmt: skip
    missing, seats, zones, board = list[Missing](), list[Seat](), list[Zone](), dict[str, float]()
    for bike, trace in zip(tour.rig.bikes, found.bikes, strict=True):
        levers = Levers(bike, tour.practice)
        of_bike = list(_bike_lines(tour, found, bike, trace, newest))
        lines += of_bike
        missing += missing_of(tour, bike, trace, levers, of_bike)
        seats += _seat(bike, trace, newest)
        zones += _zones(found, bike, trace)
        centre, radius = trace.centre_y_mm[0] / 1000, bike.radius_mm / 1000
        mass = trace.front_kg[0] + trace.rear_kg[0]
        board[bike.id] = round(
            weighing.raised_wheel_lack(mass, centre, radius, bike.wheelbase_mm / 1000, BOARD_MM / 1000), 2
        )  # fmt: skip
    lines = [_with_earlier(line, journal) for line in lines]
    return WeighIn(lines=lines, missing=missing, zones=zones, seats=seats, board_matters_kg=board)


def _with_earlier(line: WeighLine, journal: Journal) -> WeighLine:
    """A line with what was weighed before; of a thing the mass that its first weighing noted as the old one."""
    told = [t for t in journal.of_verbs("weighed") if (t.entry.word, t.entry.about) == (line.weighed, line.about)]
    earlier = [Earlier(kg=t.weighs_kg, at=t.at) for t in told[-2::-1]]
    if told and told[0].entry.kg is not None:
        earlier.append(Earlier(kg=told[0].entry.kg, at=None))
    return line.model_copy(update={"earlier": earlier})


def _newest(journal: Journal) -> dict[tuple[str, str], Told]:
    return {(told.entry.word, told.entry.about): told for told in journal.of_verbs("weighed")}


def _line(
    weighed: Weighed, about: str, name: str, parts: tuple[float, float], guess_kg: float, told: Told | None,
    corrected_kg: float = 0.0,
) -> WeighLine:  # fmt: skip
    """`parts` as it leaves, and without water and food."""
    dry = told is not None and told.entry.name == "dry"
    unsure = SCALE_UNSURE_KG[weighed]
    scale = None if told is None else told.weighs_kg + corrected_kg
    difference = None if scale is None else scale - parts[dry]
    state = "not_weighed" if difference is None else _told_by(difference, unsure, guess_kg)
    return WeighLine(
        key=f"{weighed}/{about}",
        weighed=weighed,
        about=about,
        name=name,
        parts_kg=round(parts[dry], 3),
        guess_kg=round(guess_kg, 3),
        scale_kg=None if scale is None else round(scale, 3),
        corrected_kg=round(corrected_kg, 3),
        readings_kg=list(told.entry.readings_kg) if told else [],
        dry=dry,
        at=told.at if told else None,
        unsure_kg=round(unsure, 3),
        difference_kg=None if difference is None else round(difference, 3),
        told=state,
    )


def _told_by(difference: float, unsure: float, guess_kg: float) -> Literal["same", "within_guesses", "to_explain"]:
    """Whether a difference is more than the scale and the guesses among the parts can make."""
    off = abs(difference) - COVERS * unsure
    return "same" if off <= 0 else "within_guesses" if off <= guess_kg else "to_explain"


def _thing_line(thing: Thing, told: Told) -> WeighLine:
    guess = thing.mass_kg * GUESS if "mass" in thing.guessed else 0.0
    return _line("thing", thing.id, thing.name, (thing.mass_kg, thing.mass_kg), guess, told)


def _bike_lines(
    tour: TourSheet, found: Assessment, bike: Bike, trace: BikeTrace, newest: dict[tuple[str, str], Told]
) -> Iterator[WeighLine]:
    cards = {card.carrier_id: card for card in found.cards}
    for carrier in bike.carriers:
        card = cards[carrier.id]
        full = carrier.mass_kg + card.mass_kg
        guess = sum(off_by_kg(t) * n for t, n in things_in(tour, {carrier.id}))
        told = newest.get(("bag", carrier.id))
        if card.layers or card.mass_kg > 0 or told is not None:
            yield _line("bag", carrier.id, carrier.name, (full, full - card.water_l - card.food_kg), guess, told)
    inside = list(things_in(tour, {c.id for c in bike.carriers}))
    guess = sum(off_by_kg(t) * n for t, n in inside) + sum(c.mass_kg * GUESS for c in bike.carriers if c.source == "default")
    store_front, store_rear, store_trailer = _stores(tour, found, bike)
    columns = {"front_wheel": (trace.front_kg[0], store_front), "rear_wheel": (trace.rear_kg[0], store_rear),
               "trailer_wheel": (trace.trailer_kg[0], store_trailer)}  # fmt: skip
    names = {"front_wheel": "Front wheel", "rear_wheel": "Rear wheel", "trailer_wheel": "Trailer's wheel"}
    weighed: list[WeighLine] = []
    for wheel in WHEELS:
        kg, stores = columns[wheel]
        if wheel == "trailer_wheel" and kg == 0:
            continue
        told = newest.get((wheel, bike.id))
        lack = _lack(bike, trace, told)
        line = _line(wheel, bike.id, names[wheel], (kg, kg - stores), guess / 2, told, lack)
        weighed.append(line)
        yield line
    if trace.hitch_kg[0] > 0:
        yield _line(
            "hitch", bike.id, "On the hitch", (trace.hitch_kg[0], trace.hitch_kg[0]), guess / 4, newest.get(("hitch", bike.id))
        )
    yield from _ridden_lines(tour, bike, trace, newest)
    stores = store_front + store_rear + store_trailer
    whole = _line(
        "whole", bike.id, "Whole bike", (trace.total_kg[0], trace.total_kg[0] - stores), guess, newest.get(("whole", bike.id))
    )
    if whole.scale_kg is None and all(line.scale_kg is not None for line in weighed):
        whole = _summed(whole, weighed, stores)
    if whole.scale_kg is None:
        whole = _less_rider(whole, bike, newest)
    yield whole


def _ridden_lines(tour: TourSheet, bike: Bike, trace: BikeTrace, newest: dict[tuple[str, str], Told]) -> Iterator[WeighLine]:
    """The rider alone, the rider with the bike in hand, and the wheels with the rider in the saddle."""
    body = next((r.body_mass_kg for r in tour.riders if r.id == bike.rider_id), 0.0)
    with_bike = body + trace.total_kg[0]
    ridden = {"front_ridden": trace.front_kg[0] + trace.rider_front_kg, "rear_ridden": trace.rear_kg[0] + trace.rider_rear_kg}
    rows: tuple[tuple[Weighed, str, float], ...] = (
        ("rider_without", "Rider alone", body), ("rider_with", "Rider with the laden bike", with_bike),
        ("front_ridden", "Front wheel, rider on", ridden["front_ridden"]),
        ("rear_ridden", "Rear wheel, rider on", ridden["rear_ridden"]),
    )  # fmt: skip
    for weighed, name, kg in rows:
        yield _line(weighed, bike.id, name, (kg, kg), 1.0, newest.get((weighed, bike.id)))


def _summed(whole: WeighLine, wheels: list[WeighLine], stores_kg: float) -> WeighLine:
    """The whole as the sum of its wheels."""
    dry = all(line.dry for line in wheels)
    scale = sum(line.scale_kg or 0.0 for line in wheels)
    unsure = weighing.unsure_of(SCALE_UNSURE_KG["rear_wheel"], len(wheels))
    return _scaled(whole, scale, unsure, dry, stores_kg, max(line.at for line in wheels if line.at is not None))


def _less_rider(whole: WeighLine, bike: Bike, newest: dict[tuple[str, str], Told]) -> WeighLine:
    """The rider with the laden bike in hand, less the rider: two readings of one scale."""
    both, alone = newest.get(("rider_with", bike.id)), newest.get(("rider_without", bike.id))
    if both is None or alone is None:
        return whole
    scale = both.weighs_kg - alone.weighs_kg
    return _scaled(whole, scale, weighing.unsure_of(SCALE_UNSURE_KG["rider_with"], 2), False, 0.0, both.at)


def _scaled(whole: WeighLine, scale: float, unsure: float, dry: bool, stores_kg: float, at: object) -> WeighLine:
    parts = whole.parts_kg - stores_kg * dry
    difference = scale - parts
    told = _told_by(difference, unsure, whole.guess_kg)
    return WeighLine.model_validate(
        whole.model_dump()
        | {"parts_kg": round(parts, 3), "scale_kg": round(scale, 3), "unsure_kg": round(unsure, 3), "dry": dry, "at": at,
           "difference_kg": round(difference, 3), "told": told}
    )  # fmt: skip


def _lack(bike: Bike, trace: BikeTrace, told: Told | None) -> float:
    """What a wheel's reading lacks because it stood higher than the other [kg]."""
    if told is None or told.entry.raised_mm == 0:
        return 0.0
    mass = trace.front_kg[0] + trace.rear_kg[0]
    return weighing.raised_wheel_lack(
        mass, trace.centre_y_mm[0] / 1000, bike.radius_mm / 1000, bike.wheelbase_mm / 1000, told.entry.raised_mm / 1000
    )


def _stores(tour: TourSheet, found: Assessment, bike: Bike) -> tuple[float, float, float]:
    """Water and food on front wheel, rear wheel and trailer as the tour leaves [kg]."""
    levers, cards = Levers(bike, tour.practice), {card.carrier_id: card for card in found.cards}
    front = rear = trailer = 0.0
    for carrier in bike.carriers:
        kg, share = cards[carrier.id].water_l + cards[carrier.id].food_kg, levers.carrier_shares(carrier)
        front, rear, trailer = front + kg * share.front, rear + kg * share.rear, trailer + kg * share.trailer
    return front, rear, trailer


def _seat(bike: Bike, trace: BikeTrace, newest: dict[tuple[str, str], Told]) -> Iterator[Seat]:
    wanted: tuple[Weighed, ...] = ("front_ridden", "rear_ridden", "front_wheel", "rear_wheel")
    told = [newest.get((wheel, bike.id)) for wheel in wanted]
    front, rear, bare_front, bare_rear = (t.weighs_kg if t else None for t in told)
    if front is None or rear is None or bare_front is None or bare_rear is None:
        return
    try:
        kg, ahead = weighing.rider_centre(front, rear, bare_front, bare_rear, bike.wheelbase_mm / 1000)
    except ValueError:
        return
    reckoned = trace.rider_front_kg / (trace.rider_front_kg + trace.rider_rear_kg) * bike.wheelbase_mm
    share = ahead * 1000 / bike.wheelbase_mm
    own = bike.own_x_mm / bike.wheelbase_mm
    yield Seat(
        bike_id=bike.id,
        rider_kg=round(kg, 2),
        ahead_mm=round(ahead * 1000),
        reckoned_mm=round(reckoned),
        bare_front_kg=round(bike.mass_kg * own + kg * share, 2),
        bare_rear_kg=round(bike.mass_kg * (1 - own) + kg * (1 - share), 2),
    )


def _zones(found: Assessment, bike: Bike, trace: BikeTrace) -> Iterator[Zone]:
    """Bags with what is in them by where they ride; racks count with the bags that hang there."""
    supports = {s.id: s for s in bike.supports}
    whole, cards = {c.id: c for c in bike.carriers}, {card.carrier_id: card for card in found.cards}

    def zone_of(carrier: Carrier) -> str:
        place = whole[carrier.hangs_on].hangs_on if carrier.hangs_on in whole else carrier.hangs_on
        if place in supports:
            support = supports[place]
            return "Trailer" if support.trailer is not None else "Front" if support.mount in FRONT_MOUNTS else "Rear"
        return "Front" if place in FRONT_MOUNTS else "Frame" if place in FRAME_MOUNTS else "Rear"

    kg: dict[str, tuple[float, float]] = {}
    for held in trace.carriers:
        carrier = whole[held.carrier_id]
        full = carrier.mass_kg + held.kg[0]
        stores = cards[carrier.id].water_l + cards[carrier.id].food_kg
        name = carrier.zone or zone_of(carrier)
        had, dry = kg.get(name, (0.0, 0.0))
        kg[name] = had + full, dry + full - stores
    places = ("Front", "Frame", "Rear", "Trailer")
    order = sorted(kg, key=lambda name: (places.index(name) if name in places else len(places), name))
    yield from (Zone(bike_id=bike.id, name=name, kg=round(kg[name][0], 2), dry_kg=round(kg[name][1], 2)) for name in order)


def measured(thing: Thing, kg: float) -> Thing:
    """A thing whose mass is measured."""
    told = thing.model_dump() | {"mass_kg": round(kg, 4), "guessed": tuple(g for g in thing.guessed if g != "mass")}
    return Thing.model_validate(told)


def taking_measured(tour: TourSheet, found: WeighIn, key: str) -> tuple[str, TourSheet] | None:
    """A tour that says what the scale said of a thing, an empty bag or a rider; and what that is called. None: nothing does."""
    if key.startswith("seat/"):
        seat = next((s for s in found.seats if key == f"seat/{s.bike_id}"), None)
        if seat is None:
            return None
        figures = {"ridden_front_kg": seat.bare_front_kg, "ridden_rear_kg": seat.bare_rear_kg}
        bikes = tuple(Bike.model_validate(b.model_dump() | figures) if b.id == seat.bike_id else b for b in tour.rig.bikes)
        return "Weighed: where the rider sits", tour.model_copy(update={"rig": tour.rig.model_copy(update={"bikes": bikes})})
    line = next((line for line in found.lines if line.key == key), None)
    if line is None or line.scale_kg is None:
        return None
    if line.weighed == "thing":
        kit = tuple(measured(t, line.scale_kg) if t.id == line.about else t for t in tour.kit)
        return f"Weighed: {line.name}", tour.model_copy(update={"kit": kit})
    if line.weighed == "bag" and line.difference_kg is not None:
        # What a bag weighs beyond its parts is its own: things in it are weighed one by one.
        bikes = tuple(
            b.model_copy(update={"carriers": tuple(_weighed_bag(c, line) for c in b.carriers)}) for b in tour.rig.bikes
        )  # fmt: skip
        return f"Weighed: {line.name}", tour.model_copy(update={"rig": tour.rig.model_copy(update={"bikes": bikes})})
    return None


def _weighed_bag(carrier: Carrier, line: WeighLine) -> Carrier:
    if carrier.id != line.about or line.difference_kg is None:
        return carrier
    mass = max(round(carrier.mass_kg + line.difference_kg, 3), 0.0)
    return Carrier.model_validate(carrier.model_dump() | {"mass_kg": mass, "source": "measured"})
