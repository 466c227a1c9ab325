"""Things known by name: the catalogue holds together, names of six languages are understood, and a plain list is enough."""

import csv
from collections import defaultdict
from pathlib import Path

import pytest

from omnifer.core.assess import assess, profile_of
from omnifer.core.kit import kinds as table
from omnifer.core.kit.figures import figures_of
from omnifer.core.kit.kinds import called_of, kind_of, kinds, names_of_kinds
from omnifer.core.kit.told import MOST_ASKED, USUAL_L_PER_KG, KitAnswer, told_of
from omnifer.core.kit.understand import understood
from omnifer.formats.kit_csv import read_kit_csv
from omnifer.formats.problem import InputProblem
from tests.core.test_slack import place, riding

_ROWS = (Path(__file__).parent / "names.csv").read_text(encoding="utf-8").splitlines()
NAMES = list(csv.DictReader(_ROWS, delimiter=";"))
PLAIN = (Path(__file__).parents[1] / "formats" / "lists" / "names-and-grams.csv").read_text(encoding="utf-8")


def meant(row: dict[str, str]):
    return understood(row["name"], float(row["g"]) / 1000, row["heading"])


def test_names_of_six_languages_are_understood():
    """Names as riders write them, none taken from the table: 95 % right, under 2 % wrong, how many in 98 %; in doubt nothing is taken."""
    found = [(row, meant(row)) for row in NAMES]
    wrong = [(row["name"], told.kind) for row, told in found if told.kind is not None and told.kind != row["kind"]]
    right = [row for row, told in found if (told.kind or "") == row["kind"]]
    assert len(NAMES) >= 300
    assert len(right) >= 0.95 * len(NAMES)
    assert len(wrong) < 0.02 * len(NAMES), wrong
    assert sum(told.figures.pieces == int(row["count"]) for row, told in found) >= 0.98 * len(NAMES)


@pytest.mark.parametrize(
    ("name", "g", "heading", "kind"),
    [
        ("Tent stakes", 120, "", "pegs"), ("Spoke key", 25, "", "spoke_key"), ("Chain lock", 6, "", "chain_link"),
        ("Chain lock", 1400, "", "strong_lock"), ("USB cables", 60, "ELECTRONICS", "cable"), ("Flaschenöffner", 30, "", "can_opener"),
        ("Bottle holder", 60, "", "bottle_cage"), ("Porte-bidon", 60, "", "bottle_cage"), ("Jacket, rain", 310, "", "rain_jacket"),
        ("Regen-Jacke", 310, "", "rain_jacket"), ("Sleping bag liner", 140, "", "bag_liner"), ("Stoove", 110, "", None),
        ("Pump for the mat", 150, "", "pump"), ("Multitool with chain breaker", 180, "", "multi_tool"), ("Bottle", 640, "", None),
    ],
)  # fmt: skip
def test_heads_exclusions_masses_and_slips(name, g, heading, kind):
    """What a phrase ends in, in Romance languages begins with, decides; what is twice the usual mass is asked; nobody's stove by a slip."""
    assert understood(name, g / 1000, heading).kind == kind


@pytest.mark.parametrize(
    ("name", "told"),
    [
        ("Wool socks (2)", {"pieces": 2}), ("3 Paar Socken", {"pieces": 3}), ("Tubes x 2", {"pieces": 2}), ("2-person tent", {"pieces": 1}),
        ("Set of 4 straps", {"pieces": 4}), ("10er Packung Kabelbinder", {"pieces": 10}), ("Gourde 0,75 L", {"litres": 0.75}),
        ("Water bottle 750 ml", {"litres": 0.75}), ("Powerbank 20.000mAh", {"wh": 74}), ("Bank 27 Wh", {"wh": 27}),
        ("Schlafsack -5 °C", {"celsius": -5}), ("Quilt 20F", {"celsius": -6.7}), ("Isomatte R-Wert 4,2", {"r_value": 4.2}),
        ("Gas canister 230", {"grams": 230}), ("Charger 20 W", {"watts": 20}),
    ],
)  # fmt: skip
def test_figures_of_names(name, told):
    """20,000 mAh at 3.7 V are 74 Wh; 20 °F are -6.7 °C."""
    found = figures_of(name)._asdict()
    assert {what: found[what] for what in told} == told


def test_the_catalogue_holds_together():
    """Each kind tells something, and what it is called means it and nothing else, with its mass and under its heading."""
    assert len(kinds()) >= 300
    for kind in kinds().values():
        tells = (kind.role, kind.serves, kind.natures, kind.holds_l, kind.worn, kind.each, kind.longest_mm, kind.dry != "any")
        assert any(tells) or kind.reach != "camp" or kind.l_per_kg != USUAL_L_PER_KG, kind.id
    called = defaultdict(set)
    for names in names_of_kinds():
        for language, phrases in names.phrases.items():
            for phrase in phrases:
                assert phrase, (names.kind, language)
                called[language, phrase].add(names.kind)
    for (language, phrase), meaning in called.items():
        masses = [(kinds()[kind].kg_low, kinds()[kind].kg_high) for kind in meaning]
        assert max(low for low, _ in masses) >= min(high for _, high in masses) or len(meaning) == 1, (language, phrase, meaning)
    said = [
        (names.kind, understood(" ".join(phrase), kinds()[names.kind].kg, kinds()[names.kind].domain).kind)
        for names in names_of_kinds()
        for phrases in names.phrases.values()
        for phrase in phrases
    ]
    assert sum(kind == found for kind, found in said) >= 0.99 * len(said)
    assert sum(found not in (kind, None) for kind, found in said) <= 0.003 * len(said)


@pytest.mark.parametrize(
    ("change", "what"),
    [({"kg": "2/1/3"}, "mug"), ({"kg": "heavy"}, "heavy"), ({"role": "stove burns=coal"}, "burns"), ({"reach": "soon"}, "reach"),
     ({"serves": "magic"}, "magic"), ({"dry": "maybe"}, "dry")],
)  # fmt: skip
def test_a_row_that_cannot_be_or_stands_twice_is_refused_by_name(change, what, monkeypatch):
    row = {"id": "mug", "name": "mug", "domain": "cook", "kg": "0.1/0.2/0.3", "l": "0.4", "longest": "", "reach": "camp", "dry": "any",
           "natures": "", "not_with": "", "own": "", "role": "", "holds": "", "serves": "mug", "but": "",
           "en": "mug", "de": "", "fr": "", "es": "", "it": "", "nl": ""}  # fmt: skip
    assert kind_of(row).kg == 0.2
    assert called_of(row).phrases["en"] == (("mug",),)
    with pytest.raises(ValueError, match=what):
        kind_of(row | change)
    monkeypatch.setattr(table, "_rows", lambda name: [row, row | {"name": "cup"}])
    with pytest.raises(ValueError, match="'mug' stands twice"):
        table._table.__wrapped__()


def test_a_plain_list_answers_ready_and_stores():
    """68 names with grams: at most a dozen questions, none answered; then six of the ten questions of Ready are answered and water, food,
    fuel and electricity have lanes."""
    found = read_kit_csv(PLAIN, {"ada": "ada"})
    assert (found.problems, len(found.questions) <= MOST_ASKED) == ([], True)
    assert len(found.kinds) >= 0.97 * len(found.things)
    tour = riding(place(0, "site", "full"), place(110, "site", "full"), place(200, "site", "full"), things=tuple(found.things))
    told = assess(tour, profile_of(tour))
    answered = [question.id for question in told.questions if not question.open]
    assert len(answered) >= 6, answered
    assert {"water", "food", "fuel", "power"} <= {lane.group for lane in told.stores.lanes}


def test_what_is_answered_stands_and_what_cannot_be_is_refused_in_words():
    """The coldest question first; a name in doubt offers its likeliest; things of one name are answered once."""
    text = "name;g\nSleeping bag;1000\nCulottes;100\nBottle;90\nBottle;90"
    riders = {"ada": "ada", "bo": "bo"}
    asked = {question.asks: question for question in read_kit_csv(text, riders).questions}
    assert list(asked) == ["comfort_c", "rider", "holds_l", "kind"]
    assert {choice.id for choice in asked["kind"].choices} == {"shorts", "underwear"}
    said = (
        KitAnswer(thing_id="sleeping-bag", asks="comfort_c", value=-7), KitAnswer(thing_id="sleeping-bag", asks="rider", value="bo"),
        KitAnswer(thing_id="bottle", asks="holds_l", value=1), KitAnswer(thing_id="culottes", asks="kind", value="underwear"),
    )  # fmt: skip
    bag, culottes, *bottles = read_kit_csv(text, riders, answers=said).things
    assert (bag.role.comfort_c, bag.rider_id, "role" in bag.guessed) == (-7, "bo", False)
    assert culottes.role.piece == "underwear"
    assert [bottle.holds_water_l for bottle in bottles] == [1, 1]
    with pytest.raises(InputProblem, match="Sleeping bag"):
        read_kit_csv(text, riders, answers=(KitAnswer(thing_id="sleeping-bag", asks="comfort_c", value="cosy"),))


def test_masses_are_of_one_and_of_the_empty_vessel():
    """Three pairs of 150 g are 50 g each; a full canister of 380 g with 230 g of gas is 150 g; toothpaste is nearly all content."""
    assert told_of("3 pairs of socks", 0.15).fields["mass_kg"] == pytest.approx(0.05)
    assert told_of("3 pairs of socks", 0.05).fields["mass_kg"] == pytest.approx(0.05)
    canister = told_of("Gas canister 230 g", 0.38).fields
    assert (canister["mass_kg"], canister["role"].holds_kg) == pytest.approx((0.15, 0.23))
    paste = told_of("Toothpaste", 0.06).fields
    assert paste["mass_kg"] + paste["role"].content_kg == pytest.approx(0.06)
    assert told_of("Thingummy", 0.2).fields["volume_l"] == pytest.approx(0.6)


def test_figures_that_cannot_be_are_left_as_usual():
    """A bag for -90 °C, a mat of R 50, a bank of 9,000,000 mAh: the list comes in whole, with what is usual there."""
    found = read_kit_csv(
        "name;g;inside\nSleeping bag -90 °C;900;\nMat R 50;400;\nPower bank 9000000 mAh;300;\nHelmet;300;Bag\nBag;90;", {}
    )
    assert (found.problems, len(found.things)) == ([], 5)
    assert [t.role and t.role.model_dump() for t in found.things[:3]] == [
        kinds()[kind].role.model_dump() for kind in ("sleeping_bag", "air_mat", "power_bank")
    ]
    assert (found.things[3].inside, found.things[3].where) == ("bag", ())
    for asks, value in (("rider", "nobody"), ("comfort_c", -90)):
        with pytest.raises(InputProblem, match="Sleeping bag"):
            read_kit_csv("name;g\nSleeping bag;900", {}, answers=(KitAnswer(thing_id="sleeping-bag", asks=asks, value=value),))
