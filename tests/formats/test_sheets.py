"""Kit sheets as riders keep them, amounts as people write them, and bundles."""

import json
from pathlib import Path
from typing import get_args

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st

from omnifer.core.kit.told import told_of
from omnifer.core.model.kit import Fit, Thing, Whereabouts
from omnifer.core.model.quantities import blank_of
from omnifer.core.model.roles import Device
from omnifer.core.model.tour import VERSION
from omnifer.formats.bundle import bundle_schema, read_bundle, write_bundle
from omnifer.formats.kit_columns import COLUMNS, NOT_IN_SHEETS, ColumnChoice, FieldName
from omnifer.formats.kit_csv import KitPreview, read_kit_csv, write_kit_csv
from omnifer.formats.measures import GRAMS_PER, LITRES_PER, measure
from omnifer.formats.problem import InputProblem
from omnifer.formats.sheet import decoded


@pytest.mark.parametrize(
    ("text", "grams"),
    [
        ("48 oz", 1360.777),
        ("2 lb 3 oz", 992.233),
        ("1,4 kg", 1400),
        ("950g", 950),
        ("0.5", 500),
        ("~1.2 kg", 1200),
        ("1 200 g", 1200),
    ],
)
def test_masses_as_people_write_them(text, grams):
    assert measure(text, GRAMS_PER, "kg") == pytest.approx(grams, abs=0.01)


@pytest.mark.parametrize("text", ["", "abc", "2 elephants", "1 2 kg", "12 kg 3", "--4"])
def test_what_is_no_amount(text):
    with pytest.raises(ValueError, match="is not"):
        measure(text, GRAMS_PER, "kg")


def test_a_fluid_ounce_is_not_an_ounce():
    assert measure("48 oz", LITRES_PER, "l") == pytest.approx(1.4195, abs=1e-4)


SHEETS = {
    "semicolon, comma, grams": "Gewicht g;name;Anzahl;volume l\n2100;Tent;1;8,5\n210;Stove;1;0,7\n",
    "tab, point, kg": "name\tweight (kg)\tvolume\n Tent \t2.1\t8.5\n\nStove\t0.21\t0.7",
    "comma, pounds, quotes": 'what,"mass lb",volume l\n"Tent",4.6297,8.5\nStove,"0.46297",0.7\n,,\n',
    "ounces with units in cells": "NAME,Weight,Volume\nTent,74.075 oz,8500 ml\nStove,7.4075oz,0.7 l\n",
    "byte order mark, carriage returns": "\ufeffname;mass g;volume l\r\nTent;2100;8.5\r\nStove;210;0.7\r\n",
}


@pytest.mark.parametrize("case", SHEETS)
def test_sheets_in_any_shape_give_the_same_things(case):
    preview = read_kit_csv(SHEETS[case], {})
    assert preview.problems == []
    assert [(t.name, round(t.mass_kg, 3), t.volume_l) for t in preview.things] == [("Tent", 2.1, 8.5), ("Stove", 0.21, 0.7)]


def test_rows_that_cannot_be_read_are_named_and_the_rest_stays():
    text = "name;mass g;count;reach;who\nTent;2100;1;camp;Ada\nGhost;-5;1;;\nNoise;abc;1;;\n;300;;;\nNaN;nan;1;;\nHalf;10;1.5;;\nLate;10;1;never;\nHers;10;1;;Bob\nPot;300;1;;\n"
    preview = read_kit_csv(text, {"ada": "ada"})
    assert [t.name for t in preview.things] == ["Tent", "Half", "Late", "Hers", "Pot"]
    assert [p.row for p in preview.problems] == [3, 4, 5, 6]
    assert [d.row for d in preview.doubts] == [7, 8, 9]
    assert preview.things[0].rider_id == "ada"
    assert [t.guessed for t in preview.things[::4]] == [("volume", "natures", "serves"), ("volume", "reach", "serves")]
    assert preview.remarks


def test_tables_without_a_name_column_are_refused():
    for text, words in (("", "empty"), ("1;2\n3;4", "No column holds the names")):
        with pytest.raises(InputProblem, match=words):
            read_kit_csv(text, {})


words = st.text(st.characters(blacklist_categories=("Cs", "Cc")), min_size=1, max_size=20).filter(lambda s: s.strip() == s and s)
# A cell with no more than a dash, a dot or a question mark is an empty one.
words = words.filter(lambda s: any(character.isalnum() for character in s) and s.lower() not in ("na", "n/a", "k.a."))
things = st.builds(
    Thing, id=st.just("x"), name=words, group=st.one_of(st.just(""), words), count=st.integers(1, 9),
    mass_kg=st.integers(0, 9000).map(lambda g: g / 1000), volume_l=st.integers(0, 900).map(lambda v: v / 10),
    reach=st.sampled_from(["riding", "stop", "camp", "night", "breaks"]), wet=st.booleans(), guessed=st.sampled_from([(), ("mass",), ("mass", "volume", "reach")]),
    natures=st.lists(st.sampled_from(["food", "fuel"]), unique=True).map(tuple), dry=st.sampled_from(["any", "must", "own_bag"]),
    because=st.one_of(st.just(""), words),
)  # fmt: skip


@pytest.mark.parametrize(
    ("names", "grams"),
    [("Tent,Pot,Mug,Lamp", (100, 100, 100, 300)), ("A,B,C,D", (0, 0, 0, 0)), ("Pot,Total eclipse glasses", (300, 20))],
)
def test_a_thing_is_no_total_of_its_own_sheet(names, grams):
    """A thing may weigh what those before it do, weigh nothing, or be called as a sum is; in a sheet of our own it is a thing."""
    kit = tuple(
        Thing(id=f"t{n}", name=name, mass_kg=g / 1000, volume_l=1)
        for n, (name, g) in enumerate(zip(names.split(","), grams, strict=True))
    )
    assert [(t.name, t.mass_kg) for t in read_kit_csv(write_kit_csv(kit, {}), {}).things] == [(t.name, t.mass_kg) for t in kit]


@given(st.lists(things, min_size=1, max_size=5))
def test_what_is_written_reads_back_the_same(kit):
    preview = read_kit_csv(write_kit_csv(tuple(kit), {}), {})
    assert preview.problems == []
    assert [t.model_dump(exclude={"id"}) for t in preview.things] == [t.model_dump(exclude={"id"}) for t in kit]


def test_bundles_out_and_in_and_by_their_schema(sample):
    text = write_bundle(sample)
    jsonschema.Draft202012Validator(bundle_schema()).validate(json.loads(text))
    again = read_bundle(text)
    assert again == sample
    assert write_bundle(again) == text


def _broken(sample, edit) -> str:
    document = json.loads(write_bundle(sample.model_copy(update={"track": None})))
    edit(document)
    return json.dumps(document)


REFUSED = {
    "future version": (lambda d: d.update(version=99), f"reads up to {VERSION}"),
    "other format": (lambda d: d.update(format="else"), "no Omnifer tour"),
    "negative mass": (lambda d: d["tour"]["kit"][0].update(mass_kg=-1), "kit.0.mass_kg"),
    "not a number": (lambda d: d["tour"]["kit"][0].update(mass_kg=float("nan")), "not a number"),
    "misspelt field": (lambda d: d["tour"]["kit"][0].update(mas_kg=1), "mas_kg"),
    "two alike": (lambda d: d["tour"]["kit"].append(d["tour"]["kit"][0]), "two things"),
    "lost carrier": (lambda d: d["tour"]["load"]["placements"][0].update(carrier_id="gone"), "gone"),
    "more than there are": (lambda d: d["tour"]["load"]["placements"][0].update(count=99), "the kit only"),
}


@pytest.mark.parametrize("case", REFUSED)
def test_bad_bundles_are_refused_by_field(case, sample):
    edit, words = REFUSED[case]
    with pytest.raises(InputProblem) as refusal:
        read_bundle(_broken(sample, edit))
    assert words in str(refusal.value)


def test_things_that_are_no_bundle():
    for content in (b"", b"[]", b"{", b"\xff\xfe", "[" * 100_000):
        with pytest.raises(InputProblem):
            read_bundle(content)


def test_every_field_of_a_thing_goes_out_and_comes_back():
    first = Thing(
        id="first", name="First", group="cook", count=2, mass_kg=0.4, volume_l=3, pressed_l=2, longest_mm=250, thick_mm=40,
        reach="stop", dry="must", wet=True, natures=("soap", "dirty"), not_with=("food",), rider_id="ada", holds_water_l=1.5,
        soft_vessel=True, salts=True, fuel=True, food=True, guessed=("mass", "reach"), may_stay=True, bag=True, price=32.5,
        because="For tea", role=Device(wh_a_day=12), serves=("pot",), fit=Fit(speeds=11, keys=("hex 5",)), condition="worn",
        held="borrowed", spare=True, must=True, unused_tours=3, year=2019, last_time="Too large", closed=True,
        where=(Whereabouts(how="worn"), Whereabouts(from_km=20, how="home")),
    )  # fmt: skip
    kit = (first, Thing(id="second", name="Second", mass_kg=0.2, volume_l=0.7, inside="first"))
    said = {name for thing in kit for name, usual in blank_of(Thing) if getattr(thing, name) != usual}
    assert set(Thing.model_fields) - said == NOT_IN_SHEETS - {"id"}
    assert tuple(read_kit_csv(write_kit_csv(kit, {"ada": "Ada"}), {"ada": "ada"}).things) == kit


def test_every_heading_stands_for_one_column():
    assert set(COLUMNS) == set(get_args(FieldName))
    words = [word for column in COLUMNS.values() for word in column.words]
    assert len(words) == len(set(words))


@pytest.mark.parametrize(
    "more",
    [
        {"role": {"does": "stove", "burns": "gas", "efficiency": 0.6, "exchanger": True}},
        {"role": {"does": "device", "wh_a_day": 12.5, "saver_wh_a_day": 4, "battery_wh": 15, "navigates": True}},
        {"role": {"does": "charger", "outputs": 4, "plugs": ["round", "flat"]}},
        {"role": {"does": "used_up", "unit": "pieces", "holds": 40, "content_kg": 0.15, "rate": 3.5, "waste": 1}},
        {"where": [{"how": "worn"}]},
        {"where": [{"how": "fixed", "spot": "bar_left", "width_mm": 40}, {"from_km": 12.5, "how": "posted", "stop_id": "row-4"}]},
        {"bag": True, "closed": True, "where": [{"how": "waiting"}, {"from_km": 100, "how": "packed"}]},
    ],
)
def test_what_a_thing_does_and_where_it_is_reads_back(more):
    kept = Thing.model_validate({"id": "one", "name": "one", "mass_kg": 1, "volume_l": 1} | more)
    preview = read_kit_csv(write_kit_csv((kept,), {}), {})
    assert preview.problems == []
    assert preview.things == [kept]


@pytest.mark.parametrize(
    ("column", "cell", "word"),
    [("does", "oven burns=gas", "oven"), ("does", "bank holds_wh=lots", "holds_wh"), ("does", "bank 74", "key=value"),
     ("where", "fixed", "place on the bike"), ("where", "packed; home from_km=ten", "from_km")],
)  # fmt: skip
def test_a_role_that_is_none_is_refused_in_words(column, cell, word):
    preview = read_kit_csv(f"name,mass g,volume l,{column}\nbox,100,1,{cell}\n", {})
    assert [(t.name, t.role, t.where) for t in preview.things] == [("box", None, ())]
    assert word in preview.doubts[0].what
    assert preview.doubts[0].what.endswith("left out")


@pytest.mark.parametrize(
    ("cell", "dry", "doubted"), [("must stay dry", "must", False), ("", "must", False), ("waterproof", "must", True), ("own bag", "own_bag", False),
                                 ("no", "any", False), ("may get damp", "any", False), ("wasserfest", "must", True)],
)  # fmt: skip
def test_what_a_sheet_says_of_dryness_is_understood_or_asked_and_never_turned_round(cell, dry, doubted):
    """A down jacket must stay dry by its name: an empty cell, and one that says what the thing is, leave it so."""
    preview = read_kit_csv(f"name;mass g;dry\nDown jacket;300;{cell}\n", {})
    assert (preview.things[0].dry, bool(preview.doubts)) == (dry, doubted)


def test_titles_amounts_and_owners_of_brought_lists():
    text = "Gruppe;Name;Gewicht;Besitzer;Liter\n;SCHLAFEN;;;\n;Zelt;1.250,0 g;beide;8\n;Schlafsack;0,9 kg;Ada;viel\n"
    columns = (ColumnChoice(column=3, field="rider"),)
    preview = read_kit_csv(text, {"ada": "ada"}, (), columns)
    assert [(t.name, t.mass_kg, t.rider_id, t.group) for t in preview.things] == [
        ("Zelt", 1.25, None, "SCHLAFEN"),
        ("Schlafsack", 0.9, "ada", "SCHLAFEN"),
    ]
    assert [d.heading for d in preview.doubts] == ["Liter"]
    assert preview.problems == []


LISTS = Path(__file__).parent / "lists"


def brought(name: str, **more) -> KitPreview:
    return read_kit_csv(decoded((LISTS / f"{name}.csv").read_bytes()), {}, **more)


def test_files_of_any_encoding():
    assert [t.name for t in brought("windows-1252").things] == ["Großer Topf", "Mütze"]
    assert [t.name for t in brought("utf-16").things] == ["Réchaud", "Gourde"]
    assert decoded("Zelt;2100 g".encode("utf-16-le")) == "Zelt;2100 g"


def test_titles_kits_and_totals_are_no_things():
    found = brought("title-and-totals")
    assert [(t.name, t.group) for t in found.things] == [
        ("Tent", "SLEEP"), ("Sleeping bag", "SLEEP"), ("Stove", "COOK"), ("Pot", "COOK"), ("Spoon", "COOK")
    ]  # fmt: skip
    assert sum(t.mass_kg * t.count for t in found.things) == pytest.approx(3.936)
    assert [row.row for row in found.aside] == [1, 2, 8, 14, 15]
    assert found.problems == []


def test_the_column_of_masses_that_is_filled_counts():
    found = brought("three-mass-columns")
    assert [round(t.mass_kg, 3) for t in found.things] == [2.1, 0.329, 0.939, 0.34]
    assert [(p.row, p.heading) for p in found.problems] == [(6, "oz")]


def test_amounts_in_words_are_taken_and_asked():
    found = brought("amounts-in-words")
    assert [(t.count, t.mass_kg) for t in found.things] == [(3, 0.055), (8, 0.11), (1, 0.5), (1, 0.29), (1, 0.02)]
    assert [question.name for question in found.questions] == ["Seife"]  # a pound of it is asked about
    assert ["mass" in t.guessed for t in found.things] == [False, True, False, False, True]
    assert [d.row for d in found.doubts] == [2, 3]
    assert "in g" in found.columns[1].ask
    assert found.problems == []


def test_nothing_weighs_hundreds_of_kilograms_unasked():
    grams = brought("no-units")
    assert [t.mass_kg for t in grams.things] == [0.88, 0.115, 0.21]
    assert "grams" in grams.columns[1].ask
    refused = brought("kilograms-that-cannot-be")
    assert ([t.name for t in refused.things], [p.row for p in refused.problems]) == (["Stove"], [2])
    said = brought("kilograms-that-cannot-be", choices=(ColumnChoice(column=1, field="mass", unit="g"),))
    assert [t.mass_kg for t in said.things] == [0.88, 0.00021]


def test_a_thing_whose_mass_nobody_wrote_is_no_kit():
    found = brought("a-thing-without-mass")
    assert [(t.name, t.group) for t in found.things] == [("Tent", "Sleep"), ("Toothbrush", "Sleep"), ("Stove", "Sleep")]
    assert ["mass" in t.guessed for t in found.things] == [False, True, False]  # as such things usually weigh
    assert found.problems == []


def test_columns_of_unknown_headings_are_asked_and_set():
    found = brought("odd-headings")
    assert [(c.field, bool(c.ask)) for c in found.columns] == [("name", True), ("mass", True), (None, True)]
    said = brought("odd-headings", choices=(ColumnChoice(column=2, field="because"),))
    assert [t.because for t in said.things] == ["gut", "laut"]
    assert said.columns[2].ask == ""
    bare = read_kit_csv("Tent\t2,1 kg\nStove\t210 g\n", {})
    assert [(t.name, t.mass_kg) for t in bare.things] == [("Tent", 2.1), ("Stove", 0.21)]


def test_a_list_brought_again_is_known():
    once = read_kit_csv(SHEETS["semicolon, comma, grams"], {})
    again = read_kit_csv(SHEETS["semicolon, comma, grams"] + "Pot;340;1;2\n", {}, tuple(once.things))
    assert len(again.here) == 2
    assert {t.id for t in again.things}.isdisjoint(t.id for t in once.things)


def test_decimal_commas_are_no_delimiters_where_the_headings_say_otherwise():
    rows = ["name;mass;volume", "Tent;1,4 kg;7,5", "Mat;0,4 kg;1,25, 1,3"]
    found = read_kit_csv("\n".join(rows), {})
    assert (found.delimiter, found.decimal_comma) == (";", True)
    assert next((t.name, t.mass_kg, t.volume_l) for t in found.things) == ("Tent", 1.4, 7.5)


@given(
    st.lists(
        st.sampled_from(["Tent", "Mütze", "SLEEP", "Total", "880", "1,4 kg", "3 Paar", "ca. 5 oz", "-", "", "2100 g"]),
        max_size=24,
    )
)
def test_whatever_stands_in_a_sheet_every_row_is_accounted_for(cells):
    """No row vanishes: each is a thing, a kit, or stands among what was left aside with its line."""
    rows = [cells[i : i + 3] for i in range(0, len(cells), 3)]
    text = "name;weight;count\n" + "\n".join(";".join(row) for row in rows)
    found = read_kit_csv(text, {})
    full = sum(any(row) for row in rows)
    told = {p.row for p in (*found.problems, *found.aside)}
    kits = next((r.split(": ")[1].count(",") + 1 for r in found.remarks if r.startswith("Rows")), 0)
    assert len(found.things) + kits + len(told) >= full
    assert all(t.mass_kg <= 15 for t in found.things)


def test_most_names_say_when_a_thing_is_wanted(sample):
    """The words against a kit that somebody sorted by hand: nine of ten of those that are known, and nobody's fuel among food."""
    known = [(thing, told.fields) for thing in sample.kit if (told := told_of(thing.name, thing.mass_kg)).kind is not None]
    assert len(known) >= 0.8 * len(sample.kit)
    assert sum(fields["reach"] == thing.reach for thing, fields in known) >= 0.85 * len(known)
    assert all(set(fields["natures"]) & {"fuel", "food"} == set(thing.natures) & {"fuel", "food"} for thing, fields in known)
