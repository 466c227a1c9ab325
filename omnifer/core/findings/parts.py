"""Parts of the bikes that are worn out on the way, and where new ones are had before that or sent to."""

from collections.abc import Iterator

from omnifer.core.findings.asked import bring
from omnifer.core.findings.mending import otherwise
from omnifer.core.findings.situation import Draft, Situation, Spec, later, looks_at
from omnifer.core.model.finding import Mend, PartTold
from omnifer.core.model.kit import Thing, Whereabouts
from omnifer.core.model.needs import WornPart
from omnifer.core.model.quantities import Text
from omnifer.core.model.rig import Bike
from omnifer.core.model.road import Stop
from omnifer.core.needs.fitting import fit_for
from omnifer.core.needs.parcels import post_stops
from omnifer.core.needs.wear import BY_KIND, MUCH_WEAR
from omnifer.core.sentence import km, metres, number, say, share

HARDLY_BEHIND_KM = 100.0
"""A part with less behind it is new [km]; practice."""


@Spec("part_ends", "mended", "delays", no_lack=True)
@looks_at("days", "needed", "kit", "rig", "road", "from_km")
def worn_on_the_way(s: Situation) -> Iterator[Draft]:
    """Tyres, chains and other parts that hardly last to the end, and pads that are begun with new."""
    for part in s.needed.parts:
        bike = next(b for b in s.tour.rig.bikes if b.id == part.bike_id)
        if part.state == "ends" and part.ends_km is not None and part.ends_km > s.from_km:
            yield _ends(s, bike, part, part.ends_km)
        elif part.kind == "pads" and part.takes_km >= MUCH_WEAR * part.life_km and part.behind_km > HARDLY_BEHIND_KM:
            yield _begun_with_new(s, bike, part)


def _ends(s: Situation, bike: Bike, part: WornPart, at: float) -> Draft:
    shop = next((stop for stop in s.tour.road.stops if stop.id == part.sold_at), None)
    day = part.ends_day or 1
    guess = "" if part.said else " What is behind it is a guess by the state of the bike: say it under Rig."
    sold = " {shop} sells such parts, {shop_km}." if shop else " Nothing on the way there sells one."
    return Draft(
        kind="part_ends", grade="slows_you" if part.stops and shop is None else "worth_knowing",
        sentence=say("The {part} of {bike} will be worn out about {at}, day {day}.", part=part.words, bike=bike.name, at=km(at),
                     day=number(day)),
        reason=say("Some {life} of usual road are its life: {behind} lie behind it, the tour takes {takes}." + sold + guess,
                   life=km(part.life_km), behind=km(part.behind_km), takes=km(part.takes_km),
                   shop=shop.name if shop else "", shop_km=km(shop.at_km if shop else 0.0)),
        place=say("day {day}, {at}", day=number(day), at=km(at)), size=part.chance, at_km=at, day=day, bike_id=bike.id,
        about=part.kind, cause="parts", case=_case(bike, part, at), mends=later(_renewed, s, bike, part, shop),
    )  # fmt: skip


def _case(bike: Bike, part: WornPart, at: float) -> Text:
    return say("{part} of {bike} about {at}", part=part.words, bike=bike.name, at=km(at))


def _begun_with_new(s: Situation, bike: Bike, part: WornPart) -> Draft:
    descent = sum(day.descent_m for day in s.days)
    return Draft(
        kind="part_ends", grade="worth_knowing",
        sentence=say("{descent} ridden down take {part} of what a pair of pads lasts on {bike}.", descent=metres(descent),
                     part=share(part.takes_km / part.life_km), bike=bike.name),
        reason=say("By mass, descent and rain; a pair lasts some {life} of usual road. Start with new ones, look at them every"
                   " few days, and change them while a millimetre and a half is left.", life=km(part.life_km)),
        place=say("on {bike}", bike=bike.name), size=part.chance, bike_id=bike.id, about="pads", cause="pads",
        case=say("{bike}", bike=bike.name), mends=later(_renewed, s, bike, part, None),
    )  # fmt: skip


def _renewed(s: Situation, bike: Bike, part: WornPart, shop: Stop | None) -> Iterator[Mend]:
    """A new one before leaving, at the last shop before it ends, or carried."""
    told = bike.part(part.kind)
    if part.behind_km > HARDLY_BEHIND_KM and s.from_km <= 0:
        first = say("and bed them in on the way to the start") if part.kind == "pads" else say("nothing of it is behind it then")
        yield Mend(
            name=say("New {part} before leaving", part=part.words), consequence=first,
            parts=[PartTold(bike_id=bike.id, part=told.model_copy(update={"behind_km": 0.0}))],
        )  # fmt: skip
    if shop is not None and shop.at_km > s.from_km:
        yield Mend(
            name=say("New {part} at {shop}", part=part.words, shop=shop.name),
            consequence=say("{at}; ask before that they have it", at=km(shop.at_km)),
            parts=[PartTold(bike_id=bike.id, part=told.model_copy(update={"renewed_km": shop.at_km}))],
        )  # fmt: skip
    serves = BY_KIND[part.kind].serves
    if serves:
        offices = [stop for stop in post_stops(s.tour, s.voyage) if s.from_km < stop.at_km <= (part.ends_km or 0.0)]
        if offices and (shop is None or shop.at_km < offices[-1].at_km):
            yield _posted(bring(s, serves, None, 1, fit_for(serves, bike)).things[0], bike, part, offices[-1])
        yield bring(s, serves, None, 1, fit_for(serves, bike))


def _posted(spare: Thing, bike: Bike, part: WornPart, to: Stop) -> Mend:
    """A new one that waits at a stop with a post office; there it takes the old one's place, and weighs what that did."""
    return Mend(
        name=say("Post a new {part} to {stop}, {at}", part=part.words, stop=to.name, at=km(to.at_km)),
        consequence=say("nobody carries it there; send it a month before, and ask how long they keep parcels"),
        things=[otherwise(spare, where=[Whereabouts(how="waiting", stop_id=to.id).model_dump()])],
        parts=[PartTold(bike_id=bike.id, part=bike.part(part.kind).model_copy(update={"renewed_km": to.at_km}))],
    )  # fmt: skip
