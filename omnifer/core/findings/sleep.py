"""Nights colder than a rider sleeps warm, and bags far warmer than the nights."""

from collections.abc import Iterator

from omnifer.core.findings.mending import a_new, new_id, otherwise, with_role
from omnifer.core.findings.situation import Draft, Situation, Spec, later, looks_at
from omnifer.core.model.finding import Grade, Mend
from omnifer.core.model.kit import Thing
from omnifer.core.model.needs import Sleeper, SleptNight
from omnifer.core.model.people import Rider
from omnifer.core.model.roles import BedLayer, Mat, SleepingBag
from omnifer.core.sentence import celsius, fine_kg, kelvin, km, number, say, share

STOPS_FROM_K = 5.0
"""A night that is so much colder than a rider sleeps warm ends the tour's sleep, not only spoils it [K]; practice."""
SLOWS_FROM_K, LEAST_SHORT_K = 3.0, 0.5
"""What the coldest of all nights asks for beyond what is borne: from where it spoils more than a night's sleep, and from where it
is worth a word [K]; practice."""
LIKELY, DARED = 0.5, 0.25
"""Chances that some night is too cold: with the first one reckons, the second nobody dares in deep frost [-]; practice."""
DEEP_FROST_C = -15.0
"""A night in which a bag that is too thin does harm [°C]; practice."""
ENOUGH_TO_SPARE_K = 8.0
"""On the coldest night of all so much must be to spare before a bag is called too warm [K]; practice."""
LEFT_TO_SPARE_K = 3.0
"""No bag is advised with less to spare on the coldest night of the tour: people differ by 5 [K]; practice."""
FEW_NIGHTS = 0.1
"""A bag that is asked for on a smaller part of the nights is worth a word [-]; practice."""
LIGHTER_A_K, HALF = 0.035, 0.5
"""A bag for a degree more is lighter by such a part, and none is less than half as heavy [1/K, -]; practice."""
FOAM_R, FOAM_KG, FOAM_L = 2.0, 0.38, 8.0
"""A foam mat to lie under another [ft²·°F·h/Btu, kg, l]; practice."""
SILK_K, SILK_KG, SILK_L = 2.0, 0.13, 0.4
"""A silk liner [K, kg, l]; practice."""


@Spec("cold_sleep", "warm", "hurts", seasonal=True)
@looks_at("days", "sleepers", "riders", "road", "from_km")
def cold(s: Situation) -> Iterator[Draft]:
    """Riders who lie awake: the coldest night against what they have."""
    for sleeper in s.sleepers:
        rider = next(r for r in s.tour.riders if r.id == sleeper.rider_id)
        ahead = [night for night in sleeper.nights if s.days[night.day - 1].to_km >= s.from_km]
        bare = [night for night in ahead if not night.indoors and night.bears_c is None]
        if bare:
            yield _nothing(s, rider, bare)
        short = [night for night in ahead if night.short_k >= LEAST_SHORT_K]
        if short:
            yield _short(s, rider, sleeper, short)
        elif sleeper.spare_k is not None and sleeper.spare_k <= -LEAST_SHORT_K:
            yield _some_night(s, rider, sleeper, -sleeper.spare_k)


def _nothing(s: Situation, rider: Rider, nights: list[SleptNight]) -> Draft:
    day = s.days[nights[0].day - 1]
    return Draft(
        kind="cold_sleep", grade="stops_you",
        sentence=say("{rider} has nothing to sleep in from day {day} on.", rider=rider.name, day=number(day.number)),
        reason=say("{n:night|nights} out of doors without a bag, or with it posted away.", n=number(len(nights))),
        place=say("day {day}, {km}", day=number(day.number), km=km(day.to_km)), size=100.0 + len(nights), at_km=day.to_km,
        day=day.number, about=f"{rider.id}-nothing",
    )  # fmt: skip


def _short(s: Situation, rider: Rider, sleeper: Sleeper, short: list[SleptNight]) -> Draft:
    worst = max(short, key=lambda night: night.short_k)
    day = s.days[worst.day - 1]
    outdoors = [night for night in sleeper.nights if not night.indoors]
    return Draft(
        kind="cold_sleep", grade="stops_you" if worst.short_k > STOPS_FROM_K else "slows_you",
        sentence=say("{rider} sleeps warm to {bears}; night {day} asks for {low}.", rider=rider.name,
                     bears=celsius(worst.bears_c or 0.0), day=number(day.number), low=celsius(worst.low_c)),
        reason=say("{n} of {nights} nights out of doors {n::is|are} colder than bag, mat and what is worn in bed bear, the"
                   " worst by {short}. Some night is too cold with a chance of {chance}; hollows on clear nights may be 5 to 10"
                   " degrees colder, and people differ by as much as 5.", chance=share(sleeper.some_colder),
                   n=number(len(short)), nights=number(len(outdoors)), short=kelvin(worst.short_k)),
        place=say("day {day}, {km}", day=number(day.number), km=km(day.to_km)),
        size=max(worst.short_k, -(sleeper.spare_k or 0.0)), at_km=day.to_km,
        day=day.number, things=tuple(sleeper.thing_ids), about=rider.id,
        mends=later(_warmer, s, rider),
    )  # fmt: skip


def _some_night(s: Situation, rider: Rider, sleeper: Sleeper, short_k: float) -> Draft:
    """Each night is borne with the chosen odds by itself, and some night of the tour is not."""
    nights = [night for night in sleeper.nights if not night.indoors and night.bears_c is not None]
    tightest = min(nights, key=lambda night: night.low_c - (night.bears_c or 0.0))
    day = s.days[tightest.day - 1]
    grade: Grade = "slows_you" if short_k > SLOWS_FROM_K or sleeper.some_colder >= LIKELY else "worth_knowing"
    if tightest.low_c < DEEP_FROST_C and sleeper.some_colder >= DARED:
        grade = "stops_you"
    return Draft(
        kind="cold_sleep", grade=grade,
        sentence=say("{rider} sleeps warm to {bears}; some night will be colder with a chance of {chance}.", rider=rider.name,
                     bears=celsius(tightest.bears_c or 0.0), chance=share(sleeper.some_colder)),
        reason=say("Each of {nights} nights out of doors is borne by itself, at odds of {odds}; the coldest of them all asks for"
                   " {short} more.", nights=number(len(nights)), odds=share(s.tour.road.odds), short=kelvin(short_k)),
        place=say("day {day}, {km}", day=number(day.number), km=km(day.to_km)), size=short_k, at_km=day.to_km,
        day=day.number, things=tuple(sleeper.thing_ids), about=rider.id,
        mends=later(_warmer, s, rider),
    )  # fmt: skip


def _warmer(s: Situation, rider: Rider) -> Iterator[Mend]:
    foam = Thing(
        id=new_id(s, "foam-mat"), name=f"Foam mat, {rider.name}", mass_kg=FOAM_KG, volume_l=FOAM_L, longest_mm=500, reach="night",
        rider_id=rider.id, role=Mat(r_value=FOAM_R), guessed=("mass", "volume"), because="Cold ground",
    )  # fmt: skip
    yield a_new(
        s, foam, say("A foam mat under the other"), say("{mass} more, and R {r}", mass=fine_kg(FOAM_KG), r=number(FOAM_R))
    )
    silk = Thing(
        id=new_id(s, "silk-liner"), name=f"Silk liner, {rider.name}", mass_kg=SILK_KG, volume_l=SILK_L, reach="night",
        dry="own_bag", rider_id=rider.id, role=BedLayer(warms_k=SILK_K), guessed=("mass", "volume"), because="Cold nights",
    )  # fmt: skip
    yield a_new(s, silk, say("A silk liner"), say("{mass} more, {k} warmer", mass=fine_kg(SILK_KG), k=kelvin(SILK_K)))


@Spec("warm_surplus", "warm", "costs", small=True, no_lack=True, needless=True)
@looks_at("sleepers", "kit", "riders")
def surplus(s: Situation) -> Iterator[Draft]:
    """Bags that few nights ask for."""
    for sleeper in s.sleepers:
        rider = next(r for r in s.tour.riders if r.id == sleeper.rider_id)
        nights = [night for night in sleeper.nights if not night.indoors and night.bears_c is not None]
        asked = [night for night in nights if not night.far_too_warm]
        if not nights or len(asked) >= FEW_NIGHTS * len(nights) or (sleeper.spare_k or 0.0) < ENOUGH_TO_SPARE_K:
            continue
        bags = [t for t in s.tour.kit if t.id in sleeper.thing_ids and isinstance(t.role, SleepingBag)]
        if not bags:
            continue
        least = sleeper.spare_k or 0.0
        words = "{bag} is far warmer than all but {n} of {nights} nights."
        if not asked:
            words = "{bag} is far warmer than any night asks."
        yield Draft(
            kind="warm_surplus", grade="worth_knowing",
            sentence=say(words, bag=bags[0].name, n=number(len(asked)), nights=number(len(nights))),
            reason=say("On the coldest {spare} are to spare with mat and layers. A lighter bag with all clothes worn is enough"
                       " for most sleepers.", spare=kelvin(least)),
            place=say("in the kit"), size=bags[0].mass_kg, things=(bags[0].id,), about=rider.id,
            mends=[
                *_lighter(bags[0], least - LEFT_TO_SPARE_K),
                Mend(name=say("Post it home after the last cold night"), consequence=say("see what may stay, by post")),
            ],
        )  # fmt: skip


def _lighter(bag: Thing, spare_k: float) -> Iterator[Mend]:
    """A bag with less to spare on the coldest of all nights, as much lighter as such bags mostly are."""
    role = bag.role
    if not isinstance(role, SleepingBag) or spare_k < 1:
        return
    comfort, kilograms = role.comfort_c + spare_k, bag.mass_kg * max(1 - LIGHTER_A_K * spare_k, HALF)
    lighter = otherwise(
        with_role(bag, comfort_c=round(min(comfort, 30.0), 1)), mass_kg=round(kilograms, 3), held="wished",
        guessed=tuple(dict.fromkeys((*bag.guessed, "mass"))),
    )  # fmt: skip
    yield Mend(
        name=say("A bag for {comfort} instead", comfort=celsius(comfort)),
        consequence=say(
            "some {less} lighter, {spare} to spare on the coldest night of the tour",
            less=fine_kg(bag.mass_kg - kilograms),
            spare=kelvin(LEFT_TO_SPARE_K),
        ),
        things=[lighter],
    )
