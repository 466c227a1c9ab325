"""Days on which nothing clean and dry is left to put on."""

from collections.abc import Iterator
from itertools import pairwise

from omnifer.core.findings.mending import eating, one_more, otherwise
from omnifer.core.findings.situation import Draft, Situation, Spec, later, looks_at
from omnifer.core.model.finding import Mend
from omnifer.core.model.kit import Thing
from omnifer.core.model.load import Placement
from omnifer.core.model.needs import Wardrobe
from omnifer.core.model.roles import Piece
from omnifer.core.sentence import fine_kg, km, number, say

WORDS: dict[Piece, str] = {"shirt": "shirt", "shorts": "pair of shorts", "underwear": "underwear", "socks": "pair of socks"}
SLOWS_FROM = 4
"""So many days in a row without clean shorts or underwear wear the skin sore [d]; practice."""
ON_THE_SKIN: frozenset[Piece] = frozenset({"shorts", "underwear"})


@Spec("no_clean", "clean", "costs", small=True)
@looks_at("days", "wardrobes", "riders")
def without_clean(s: Situation) -> Iterator[Draft]:
    """Kinds of clothes that run out between washes, each rider's by themselves."""
    for wardrobe in s.wardrobes:
        # Where it never thaws nothing dries, and nobody changes.
        lacking = [day.day for day in wardrobe.days if day.clean == 0 and s.days[day.day - 1].mean_max_c > 0]
        if lacking:
            yield _lacking(s, wardrobe, lacking)


def _lacking(s: Situation, wardrobe: Wardrobe, lacking: list[int]) -> Draft:
    rider = next(r for r in s.tour.riders if r.id == wardrobe.rider_id)
    day, sore = s.days[lacking[0] - 1], wardrobe.piece in ON_THE_SKIN and _longest(lacking) >= SLOWS_FROM
    washed = [0, *(d.day for d in wardrobe.days if d.washed), len(wardrobe.days)]
    return Draft(
        kind="no_clean", grade="slows_you" if sore else "worth_knowing",
        sentence=say("{rider} has no clean {piece} on {n:day|days}, from day {day} on.", rider=rider.name,
                     piece=WORDS[wardrobe.piece], n=number(len(lacking)), day=number(day.number)),
        reason=say("{owned} in all, what is worn counted; up to {gap:day lies|days lie} between washes, and what was washed"
                   " hangs until the day after.", owned=number(wardrobe.owned),
                   gap=number(max(b - a for a, b in pairwise(washed)))),
        place=say("day {day}, {km}", day=number(day.number), km=km(day.from_km)), size=len(lacking), at_km=day.from_km,
        day=day.number, things=tuple(wardrobe.thing_ids), cause="clothes",
        case=say("{rider}, {piece}: {n:day|days}", rider=rider.name, piece=WORDS[wardrobe.piece], n=number(len(lacking))),
        mends=later(_cleaner, s, wardrobe),
    )  # fmt: skip


def _longest(days: list[int]) -> int:
    longest = run = 1
    for before, after in pairwise(days):
        run = run + 1 if after == before + 1 else 1
        longest = max(longest, run)
    return longest


SCHOOLS: tuple[tuple[str, int, int], ...] = (
    ("Two sets of all, washed every evening", 2, 1), ("Three of each piece, washed on every second evening", 3, 2),
)  # fmt: skip
"""How riders of each school go about it: sets, the one that is worn counted, and days between washes; practice."""


def _schools(s: Situation, wardrobe: Wardrobe) -> Iterator[Mend]:
    """All clothes of a rider as a school has them."""
    own = [w for w in s.wardrobes if w.rider_id == wardrobe.rider_id]
    first = [next(t for t in s.tour.kit if t.id == w.thing_ids[0]) for w in own]
    for words, sets, days in SCHOOLS:
        wanted = [(t, max(sets - w.owned + t.count, 1)) for t, w in zip(first, own, strict=True)]
        more = sum(t.mass_kg * (count - t.count) for t, count in wanted)
        told = say("{mass} more", mass=fine_kg(more)) if more >= 0 else say("{mass} less", mass=fine_kg(-more))
        moves = [p for t, count in wanted if count < t.count for p in _fewer(s, t, count)]
        yield Mend(
            name=say(words), consequence=told, things=[otherwise(t, count=count) for t, count in wanted if count != t.count],
            moves=moves, stores=eating(s.tour.stores, wash_every_days=days),
        )  # fmt: skip


def _fewer(s: Situation, thing: Thing, count: int) -> Iterator[Placement]:
    """Where so many of a thing stay."""
    for placement in (p for p in s.tour.load.placements if p.thing_id == thing.id):
        stays = min(placement.count, count)
        count -= stays
        if stays:
            yield Placement(thing_id=thing.id, carrier_id=placement.carrier_id, count=stays, pinned=placement.pinned)


def _cleaner(s: Situation, wardrobe: Wardrobe) -> Iterator[Mend]:
    every = s.tour.stores.wash_every_days
    for days in (3, 2, 1):
        if every is None or days < every:
            words = "Wash by hand every evening" if days == 1 else "Wash by hand every {n:day|days}"
            yield Mend(
                name=say(words, n=number(days)), consequence=say("some water and half an hour, and a line to hang it on"),
                stores=eating(s.tour.stores, wash_every_days=days),
            )  # fmt: skip
    thing = next(t for t in s.tour.kit if t.id == wardrobe.thing_ids[0])
    yield one_more(
        s, thing, say("One more {piece}", piece=WORDS[wardrobe.piece]), say("{mass} more", mass=fine_kg(thing.mass_kg))
    )
    yield from _schools(s, wardrobe)
