"""What the name of a thing tells of it: what Omnifer fills in and marks as a guess, and what of that is asked."""

import math
from collections.abc import Collection, Sequence
from typing import Any, Literal, NamedTuple, TypeVar

from pydantic import Field, ValidationError

from omnifer.core.kit.figures import Figures
from omnifer.core.kit.kinds import ThingKind, kinds
from omnifer.core.kit.understand import Understood, understood
from omnifer.core.model.fuels import FUELS
from omnifer.core.model.kit import Guessable, Thing, Whereabouts
from omnifer.core.model.quantities import Noun, Quantity
from omnifer.core.model.roles import Bank, Cells, Charger, FuelVessel, Mat, Panel, SleepingBag, Stove, UsedUp

USUAL_L_PER_KG = 3.0
"""Of a thing whose name says nothing; practice."""
SIZES = (0.4, 2.5)
"""A thing of another mass than usual takes as many times the usual litres, between these [-]."""
MOST_ASKED = 12
"""So many questions are asked of a list, the most consequential ones."""
CANISTER_G = (90.0, 500.0)
"""What a name can say that a canister holds [g]."""
EMPTY_PART = 0.1
"""Of the mass of what is used up its empty container is so much [-]; practice."""
SAID_BY_NAME = (
    "reach", "dry", "natures", "not_with", "longest_mm", "serves", "role", "holds_water_l", "soft_vessel", "where",
)  # fmt: skip
"""What a name can tell of a thing that is in the kit already."""
SHARED = "-"
"""Whose a thing is that all have together."""
Asks = Literal["rider", "kind", "comfort_c", "burns", "holds_l", "holds_kg", "holds_wh", "r_value"]
CONSEQUENCE: dict[Asks, float] = {
    "comfort_c": 9, "rider": 8.5, "burns": 8, "holds_l": 7, "holds_kg": 6, "holds_wh": 5, "r_value": 4, "kind": 3,
}  # fmt: skip
"""What is asked first: who sleeps cold, what burns, who thirsts; what a thing is by its mass beside these. Practice."""
UNITS: dict[Asks, Quantity] = {
    "r_value": "count",
    "comfort_c": "temperature",
    "holds_l": "volume",
    "holds_kg": "mass",
    "holds_wh": "energy",
}


Part = TypeVar("Part", bound=Noun)


class Choice(Noun):
    """One of several answers."""

    id: str
    words: str


class KitQuestion(Noun):
    """Something of a thing that its name leaves open and much hangs on; the usual answer stands there already."""

    thing_id: str
    name: str
    asks: Asks
    value: float | str = Field(description="The usual answer; of a kind its identifier, empty: not known")
    unit: Quantity | None = Field(description="Of a figure; None: it is a word")
    choices: list[Choice] = Field([], description="Of a word: what can be answered, the likeliest first")


class KitAnswer(Noun):
    """What a rider says to a question."""

    thing_id: str
    asks: Asks
    value: float | str


class Told(NamedTuple):
    """Fields of a thing, which of them are guesses, and what is open."""

    fields: dict[str, Any]
    guessed: tuple[Guessable, ...]
    asks: tuple[tuple[Asks, float | str], ...]
    understood: Understood
    kind: str | None


def told_of(name: str, mass_kg: float, heading: str = "", kind_id: str | None = None) -> Told:
    """What a name tells of a thing of that mass.

    Parameters
    ----------
    mass_kg : float
        As the list has it: of one, or of all that the name says there are [kg].
    heading : str
        Of its section of the list.
    kind_id : str, optional
        What it is, where somebody said so.
    """
    found = understood(name, mass_kg or None, heading)
    figures = found.figures
    known = kind_id if kind_id in kinds() else found.kind
    kind = kinds().get(known or "")
    fields: dict[str, Any] = {"count": figures.pieces, "name": _named(name, figures), "mass_kg": mass_kg}
    if kind is None:
        fields["volume_l"] = round(USUAL_L_PER_KG * mass_kg, 3)
        return Told(fields, ("volume",), (("kind", found.likeliest[0] if found.likeliest else ""),), found, None)
    each = mass_kg / figures.pieces
    if figures.pieces > 1 and _nearer(each, mass_kg, kind):
        fields["mass_kg"] = round(each, 6)
    size = min(max(fields["mass_kg"] / kind.kg, SIZES[0]), SIZES[1])
    also = [kinds()[other] for other in found.also]
    serves = dict.fromkeys([*kind.serves, *(service for other in also for service in other.serves)])
    fields |= {
        "volume_l": round(kind.l * size, 3), "reach": kind.reach, "dry": kind.dry, "natures": kind.natures,
        "not_with": kind.not_with, "longest_mm": kind.longest_mm, "serves": tuple(serves),
    }  # fmt: skip
    if kind.worn:
        fields["where"] = (Whereabouts(how="worn"),)
    if kind.holds_l:
        fields |= {"holds_water_l": figures.litres or kind.holds_l, "soft_vessel": kind.soft}
    role = kind.role or next((other.role for other in also if other.role is not None), None)
    if role is not None:
        fields |= _played(role, figures, fields["mass_kg"])
    guessed: list[Guessable] = ["volume", "reach"]
    guessed += [name for name in ("dry", "natures", "serves", "role") if fields.get(name) not in (None, "any", ())]
    return Told(fields, tuple(guessed), tuple(_open(kind, figures, fields)), found, kind.id)


def _named(name: str, figures: Figures) -> str:
    """The name without how many, as a name begins."""
    return name if figures.name == name else figures.name[:1].upper() + figures.name[1:]


def _nearer(each: float, whole: float, kind: ThingKind) -> bool:
    return abs(math.log(max(each, 1e-6) / kind.kg)) < abs(math.log(max(whole, 1e-6) / kind.kg))


def _played(role: Any, figures: Figures, mass_kg: float) -> dict[str, Any]:
    """What a thing does, with the figures of its name; of what holds something its mass is that of the empty one."""
    match role:
        case SleepingBag() if figures.celsius is not None:
            return {"role": _with(role, comfort_c=figures.celsius)}
        case Mat() if figures.r_value is not None:
            return {"role": _with(role, r_value=figures.r_value)}
        case Bank() if figures.wh:
            return {"role": _with(role, holds_wh=figures.wh)}
        case Cells() if figures.wh:
            return {"role": _with(role, set_wh=figures.wh)}
        case Panel() if figures.watts:
            return {"role": _with(role, peak_w=figures.watts)}
        case Charger() if figures.watts:
            return {"role": _with(role, output_w=figures.watts)}
        case FuelVessel():
            vessel = _with(role, holds_kg=_fuel_kg(role, figures))
            full = mass_kg > vessel.holds_kg and mass_kg > role.holds_kg
            return {"role": vessel} | ({"mass_kg": round(mass_kg - vessel.holds_kg, 6)} if full else {})
        case UsedUp() if mass_kg > 0:
            content = (1 - EMPTY_PART) * mass_kg
            holds = round(max(role.holds * content / role.content_kg, 0.001), 3)
            pack = _with(role, content_kg=round(content, 6), holds=holds)
            return {"role": pack} | ({} if pack is role else {"mass_kg": round(mass_kg - pack.content_kg, 6)})
        case _:
            return {"role": role}


def _with(role: Part, **figures: float) -> Part:
    """What a thing does with other figures; as it usually is where such cannot be."""
    try:
        return type(role).model_validate(role.model_dump() | figures)
    except ValidationError:
        return role


def _fuel_kg(role: FuelVessel, figures: Figures) -> float:
    if role.burns == "gas" and figures.grams is not None and CANISTER_G[0] <= figures.grams <= CANISTER_G[1]:
        return figures.grams / 1000
    if figures.litres:
        return round(figures.litres * FUELS[role.burns].kg_per_l, 3)
    return role.holds_kg


def _open(kind: ThingKind, figures: Figures, fields: dict[str, Any]) -> list[tuple[Asks, float | str]]:
    """What much hangs on and the name does not tell, with what is usual."""
    found: list[tuple[Asks, float | str]] = []
    if kind.holds_l and figures.litres is None:
        found.append(("holds_l", kind.holds_l))
    match fields.get("role"):
        case SleepingBag(comfort_c=usual) if figures.celsius is None:
            found.append(("comfort_c", usual))
        case Mat(r_value=usual) if figures.r_value is None:
            found.append(("r_value", usual))
        case Bank(holds_wh=usual) if figures.wh is None:
            found.append(("holds_wh", usual))
        case FuelVessel(burns=burns, holds_kg=usual) if figures.litres is None and not (burns == "gas" and figures.grams):
            found.append(("holds_kg", usual))
        case Stove(burns=burns) if kind.id == "stove_gas" and "gas" not in figures.name.lower():
            found.append(("burns", burns))
        case _:
            pass
    return found


def questions_of(open_to: list[tuple[Thing, Told]], riders: dict[str, str]) -> list[KitQuestion]:
    """What is asked of a list, the most consequential first; of things of one name once. `riders` gives identifiers by name."""
    found: list[tuple[float, KitQuestion]] = []
    asked = set[tuple[str, Asks]]()
    for thing, told in open_to:
        whose = isinstance(thing.role, SleepingBag) and thing.rider_id is None and thing.count < len(riders)
        open_here: list[tuple[Asks, float | str]] = list(told.asks)
        if whose:
            open_here.append(("rider", SHARED))
        for asks, value in open_here:
            if (thing.name, asks) in asked or (asks == "kind" and not told.understood.likeliest):
                continue
            asked.add((thing.name, asks))
            weight = CONSEQUENCE[asks] + min(thing.mass_kg * thing.count, 2.0)
            about = {"thing_id": thing.id, "name": thing.name, "asks": asks, "value": value, "unit": UNITS.get(asks)}
            found.append((weight, KitQuestion.model_validate(about | {"choices": _choices(asks, told, riders)})))
    found.sort(key=lambda entry: -entry[0])
    return [question for _, question in found[:MOST_ASKED]]


def _choices(asks: Asks, told: Told, riders: dict[str, str]) -> list[Choice]:
    if asks == "rider":
        return [*(Choice(id=rider, words=name.title()) for name, rider in riders.items()), Choice(id=SHARED, words="shared")]
    if asks == "burns":
        return [Choice(id=kind, words=fuel.words) for kind, fuel in FUELS.items()]
    if asks == "kind":
        return [Choice(id=kind, words=kinds()[kind].name) for kind in told.understood.likeliest]
    return []


def answered(thing: Thing, answer: KitAnswer, riders: Collection[str]) -> Thing:
    """A thing once a question of a figure was answered; that is no guess any more. Raises ValueError where it cannot be so."""
    if answer.asks == "rider":
        if answer.value not in (*riders, SHARED):
            raise ValueError(f"nobody who rides is {answer.value!r}")
        return thing.model_copy(update={"rider_id": None if answer.value == SHARED else str(answer.value)})
    if answer.asks == "holds_l":
        told: dict[str, Any] = {"holds_water_l": answer.value}
    else:
        role = thing.role
        if role is None or answer.asks not in type(role).model_fields:
            return thing
        told = {"role": role.model_dump() | {answer.asks: answer.value}}
    return Thing.model_validate(thing.model_dump() | told | {"guessed": tuple(g for g in thing.guessed if g != "role")})


def unknown_in(kit: tuple[Thing, ...]) -> list[tuple[Thing, Told]]:
    """Things that say nothing of what they are though their names do, or might."""
    silent = [thing for thing in kit if not (thing.role or thing.serves or thing.natures or thing.holds_water_l or thing.fit)]
    told = [(thing, told_of(thing.name, thing.mass_kg, thing.group)) for thing in silent]
    return [(thing, known) for thing, known in told if _tells(known)]


def _tells(told: Told) -> bool:
    """Whether a name tells what more than room and moment hangs on, or might."""
    if told.kind is None:
        return any(kinds()[kind].role is not None or kinds()[kind].serves for kind in told.understood.likeliest)
    return any(told.fields.get(name) for name in ("role", "serves", "natures", "holds_water_l"))


def made_known(thing: Thing, told: Told, riders: Sequence[str]) -> Thing:
    """A thing of a kit with what its name tells; its own mass, room, count and name stay."""
    new = {name: value for name, value in told.fields.items() if name in SAID_BY_NAME}
    own = {"volume", "mass"} & set(thing.guessed)
    marks = (*own, *(mark for mark in told.guessed if mark not in ("volume", "mass")))
    if told.kind and kinds()[told.kind].each and len(riders) == 1 and thing.rider_id is None:
        new["rider_id"] = riders[0]
    if isinstance(new.get("role"), FuelVessel | UsedUp):
        new["mass_kg"] = told.fields["mass_kg"]
    if thing.where or thing.inside:
        new.pop("where", None)
    return Thing.model_validate(thing.model_dump() | new | {"guessed": tuple(dict.fromkeys(marks))})
