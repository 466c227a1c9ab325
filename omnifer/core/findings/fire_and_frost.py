"""Trouble at the stove and at the filter: water that nothing treats, frost, fire and fuel that do not go together."""

from collections.abc import Iterator

import numpy as np

from omnifer.core.findings.mending import a_new, new_id, otherwise, with_role
from omnifer.core.findings.situation import Draft, Situation, Spec, later, looks_at
from omnifer.core.model.finding import Mend
from omnifer.core.model.kit import Thing
from omnifer.core.model.roles import FireLighter, FuelVessel, Stove, Treatment, UsedUp
from omnifer.core.sentence import celsius, fine_kg, hours, kg, km, litres, number, say
from omnifer.core.supplies import fuel, water

MELTING_NIGHTS, SECOND_BURNER_KG, SECOND_BURNER_L = 3, 0.3, 0.8
"""From so many nights on which all water is melted a second burner is worth what it weighs [-, kg, l]; practice."""
FIRES = 2
"""Independent ways to make fire that one relies on; practice."""


@Spec("untreated", "supplied", "hurts")
@looks_at("voyage", "kit")
def untreated_water(s: Situation) -> Iterator[Draft]:
    """Water that is to be treated, and nothing on board that does."""
    if s.voyage is None:
        return
    supply = s.voyage.supplies["water"]
    with_what = [water.treatment_of(s.voyage.ride, km).thing for km in supply.refills.km.tolist()]
    wanted = water.treated(supply) * np.array([thing is None for thing in with_what])
    if not wanted.any():
        return
    first = int(np.flatnonzero(wanted)[0])
    at = float(supply.refills.km[first])
    tablets = Thing(
        id=new_id(s, "water-tablets"),
        name="Water tablets",
        mass_kg=0.01,
        volume_l=0.05,
        reach="stop",
        guessed=("mass", "volume"),
        role=UsedUp(unit="pieces", holds=50, content_kg=0.02, rate=1.33, per="litre_treated", sold_at="full"),
    )
    yield Draft(
        kind="untreated",
        grade="stops_you",
        sentence=say("The water of {place} must be treated, and nothing on board does.", place=supply.refills.names[first]),
        reason=say(
            "{n} sources on this road want a filter, tablets or boiling: {litres} in all. None of these removes metals or"
            " chemicals.",
            n=number(int((wanted > 0).sum())),
            litres=litres(float(wanted.sum())),
        ),
        place=say("day {day}, {km}", day=number(s.voyage.day_of(at, leaving=False)), km=km(at)),
        size=float(wanted.sum()),
        at_km=at,
        day=s.voyage.day_of(at, leaving=False),
        mends=later(
            a_new, s, tablets, say("Tablets for {litres}", litres=litres(37.5)), say("half an hour to wait, longer in the cold")
        ),
    )


@Spec("filter_frost", "supplied", "strands")
@Spec("gas_frost", "supplied", "strands")
@Spec(
    "bottles_freeze",
    "supplied",
    "delays",
    advice=("Take them in for the night", "the pot filled in the evening, bottles upside down"),
)
@looks_at("voyage", "days", "kit", "own_values")
def frost(s: Situation) -> Iterator[Draft]:
    """Nights that destroy a wet filter, or on which gas from an upright canister fails."""
    if s.voyage is None or not s.voyage.climate.known:
        return
    usual = s.tour.practice
    cold = [(day, day.night_low_c) for day in s.days[:-1]]
    frozen = [day for day, low in cold if low < usual.filter_frost_c]
    for thing in s.tour.kit:
        role = thing.role
        if isinstance(role, Treatment) and role.freezes and thing.reach != "night" and frozen:
            yield Draft(
                kind="filter_frost",
                grade="slows_you",
                sentence=say("{thing} freezes on {n:night|nights}.", thing=thing.name, n=number(len(frozen))),
                reason=say(
                    "A wet filter that froze counts as none, and nobody sees it: from day {day} it sleeps with its rider, as"
                    " cells and batteries do.",
                    day=number(frozen[0].number),
                ),
                place=say("day {day}, {km}", day=number(frozen[0].number), km=km(frozen[0].to_km)),
                size=len(frozen),
                at_km=frozen[0].to_km,
                day=frozen[0].number,
                mends=[
                    Mend(
                        name=say("Keep {thing} with the sleep kit", thing=thing.name),
                        consequence=say("dried, in a bag, and found at night"),
                        things=[otherwise(thing, reach="night")],
                    )
                ],
            )
    shut = [day for day, low in cold if low < usual.bottle_frost_c]
    rigid = next((t for t in s.tour.kit if t.holds_water_l > 0 and not t.soft_vessel), None)
    if shut and rigid is not None:
        yield Draft(
            kind="bottles_freeze",
            grade="worth_knowing",
            sentence=say("On {n:night|nights} bottles freeze shut.", n=number(len(shut))),
            reason=say(
                "Below {limit} water in the open is ice by morning: fill the pot in the evening, stand bottles on their heads,"
                " take one into the sleeping bag; bars ride inside the jacket. The first such night is day {day}.",
                limit=celsius(usual.bottle_frost_c),
                day=number(shut[0].number),
            ),
            place=say("day {day}, {km}", day=number(shut[0].number), km=km(shut[0].to_km)),
            size=len(shut),
            at_km=shut[0].to_km,
            day=shut[0].number,
        )
    stove = next((t for t in s.tour.kit if isinstance(t.role, Stove)), None)
    icy = [day for day, low in cold if low < usual.gas_frost_c]
    if stove is not None and isinstance(stove.role, Stove) and stove.role.burns == "gas" and not stove.role.bears_frost and icy:
        yield Draft(
            kind="gas_frost",
            grade="slows_you",
            sentence=say("On {n:night|nights} gas from an upright canister fails.", n=number(len(icy))),
            reason=say(
                "Below {limit} it no longer boils off; the first such night is {low}, day {day}.",
                limit=celsius(usual.gas_frost_c),
                low=celsius(icy[0].night_low_c),
                day=number(icy[0].number),
            ),
            place=say("day {day}, {km}", day=number(icy[0].number), km=km(icy[0].to_km)),
            size=len(icy),
            at_km=icy[0].to_km,
            day=icy[0].number,
            mends=[
                Mend(
                    name=say("A stove that takes its gas liquid"),
                    consequence=say("with a tube through the flame, canister upside down"),
                    things=[with_role(stove, bears_frost=True)],
                )
            ],
        )


def _melting(s: Situation, stove: Thing) -> Iterator[Draft]:
    """Nights on which all water comes out of one stove."""
    if s.voyage is None or "water" not in s.voyage.supplies:
        return
    ride = s.voyage.ride
    nights = [day for day, snow in zip((d for d in s.days[:-1] if not d.rest), ride.in_snow.tolist(), strict=False) if snow]
    if len(nights) < MELTING_NIGHTS or sum(t.count for t in ride.things(Stove)) > 1:
        return
    litres_a_day = fuel.melted_l(ride, s.voyage.supplies["water"]) / len(nights)
    spare = any("stove_parts" in thing.serves for thing in s.tour.kit)
    words = "Strip it once with gloves on" if spare else "Carry its parts, strip it once with gloves on"
    second = Thing(
        id=new_id(s, "second-burner"), name="Second burner", mass_kg=SECOND_BURNER_KG, volume_l=SECOND_BURNER_L, reach="camp",
        guessed=("mass", "volume"), role=stove.role, spare=True,
    )  # fmt: skip
    yield Draft(
        kind="one_fire", grade="slows_you",
        sentence=say("{stove} alone makes the water of {n:night|nights}.", stove=stove.name, n=number(len(nights))),
        reason=say("Snow is the only water there, some {litres} a day, {minutes} at the pot. Nothing stands in for a stove that"
                   f" fails. {words}, keep the pump's leather greased, and never burn it in a shut tent.",
                   litres=litres(litres_a_day), minutes=hours(litres_a_day * s.tour.practice.melt_min_per_l / 60)),
        place=say("day {a} to {b}", a=number(nights[0].number), b=number(nights[-1].number)), size=len(nights),
        at_km=nights[0].to_km, to_km=nights[-1].to_km, day=nights[0].number, things=(stove.id,), about="melting",
        mends=later(a_new, s, second, say("A second burner"), say("{mass} more", mass=fine_kg(SECOND_BURNER_KG))),
    )  # fmt: skip


@Spec("one_fire", "supplied", "strands")
@Spec("wrong_fuel", "supplied", "strands")
@looks_at("voyage", "days", "kit", "own_values")
def fires(s: Situation) -> Iterator[Draft]:
    """One way to make fire, and fuel that the stove does not burn."""
    stove = next((t for t in s.tour.kit if isinstance(t.role, Stove)), None)
    if stove is None or not isinstance(stove.role, Stove):
        return
    lit = sum(t.count for t in s.tour.kit if isinstance(t.role, FireLighter))
    if lit < FIRES:
        new = Thing(
            id=new_id(s, "matches"),
            name="Matches",
            mass_kg=0.03,
            volume_l=0.03,
            reach="camp",
            dry="own_bag",
            guessed=("mass", "volume"),
            role=FireLighter(),
        )
        yield Draft(
            kind="one_fire",
            grade="worth_knowing",
            sentence=say("One way to make fire." if lit else "Nothing on board makes fire."),
            reason=say("Two that do not depend on each other are usual; the igniter of a stove is none."),
            place=say("in the kit"),
            size=FIRES - lit,
            mends=later(
                a_new, s, otherwise(new, count=FIRES - lit), say("Matches in a dry bag"), say("{mass} more", mass=kg(0.03))
            ),
        )
    yield from _melting(s, stove)
    wrong = [t for t in s.tour.kit if isinstance(t.role, FuelVessel) and t.role.burns != stove.role.burns]
    for thing in wrong:
        yield Draft(
            kind="wrong_fuel",
            grade="slows_you",
            sentence=say("{stove} does not burn what is in {thing}.", stove=stove.name, thing=thing.name),
            reason=say("It burns {kind}; what is in the other vessel is not counted.", kind=stove.role.burns),
            place=say("in the kit"),
            size=thing.count,
            mends=[
                Mend(
                    name=say("Leave {thing} at home", thing=thing.name),
                    consequence=say("{mass} less", mass=kg(thing.mass_kg * thing.count)),
                    gone=[thing.id],
                )
            ],
        )
    if stove.role.exchanger and stove.role.burns == "alcohol":
        yield Draft(
            kind="wrong_fuel",
            grade="worth_knowing",
            sentence=say("A pot with a heat exchanger does not suit an open flame."),
            reason=say("Its fins want the burner that it was made with: they soot up, melt or choke the flame."),
            place=say("in the kit"),
            size=1,
            mends=[
                Mend(name=say("A plain pot"), consequence=say("a little more fuel"), things=[with_role(stove, exchanger=False)])
            ],
        )
