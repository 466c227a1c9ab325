"""The library as screens use it: one thing on several tours, the choice, the ladder, pictures, and a tour begun from another."""

import io

import pytest
from PIL import Image

from omnifer.formats.templates import SCHOOLS, kit_of_school
from tests.conftest import RIDER, small_tour, thing


def named(thing_id, name, **more):
    return thing(thing_id, **more).model_copy(update={"name": name})


@pytest.fixture
def path(client, tours):
    return f"/api/tours/{tours.create(small_tour(thing('pot', 0.5), thing('axe', 1.2))).id}"


def test_what_is_corrected_in_one_list_is_known_in_the_next(client, path):
    """A bag answered as good to -12 °C, an unknown name answered as nothing else would tell it; the next list asks of neither."""
    text = "name;g\nSleeping bag;1000\nCulottes;100\nBottle;90"
    asked = client.post(f"{path}/kit/preview", json={"text": text}).json
    assert [q["asks"] for q in asked["questions"]] == ["comfort_c", "holds_l", "kind"]
    answers = [
        {"thing_id": "sleeping-bag", "asks": "comfort_c", "value": -12},
        {"thing_id": "culottes", "asks": "kind", "value": "underwear"},
    ]
    assert client.post(f"{path}/kit/preview", json={"text": text, "answers": [answers[0] | {"value": 99}]}).status_code == 422
    assert client.post(f"{path}/kit/import", json={"revision": 1, "text": text, "answers": answers}).status_code == 200
    other = f"/api/tours/{client.post('/api/tours/sample').json['tour']['id']}"
    again = client.post(f"{other}/kit/preview", json={"text": "name;g\nSleeping Bag;1040\nCulottes;80\nBottle;90"}).json
    bag, culottes, _ = again["things"]
    assert (bag["role"]["comfort_c"], bag["mass_kg"], culottes["role"]["piece"]) == (-12, 1.04, "underwear")
    assert [q["name"] for q in again["questions"]] == ["Bottle"]
    # Answered once more, the library's bag keeps what no list says of it.
    (bag,) = (row for row in client.get("/api/library").json["things"] if row["thing"]["name"] == "Sleeping bag")
    priced = {"version": bag["version"], "thing": bag["thing"] | {"price": 300, "condition": "worn"}}
    assert client.put(f"/api/library/{bag['id']}", json=priced).status_code == 200
    warmer = {"revision": 2, "text": text, "again": True, "answers": [answers[0] | {"thing_id": "sleeping-bag-2", "value": -20}]}
    assert client.post(f"{path}/kit/import", json=warmer).status_code == 200
    (bag,) = (row["thing"] for row in client.get("/api/library").json["things"] if row["thing"]["name"] == "Sleeping bag")
    assert (bag["role"]["comfort_c"], bag["price"], bag["condition"]) == (-20, 300, "worn")


def test_things_that_say_nothing_are_made_known_at_once_and_undone(client, tours):
    """A kit of names: the bag, the stove and the bottles come to serve; what has said already what it is stays, and so do masses."""
    kit = (named("a", "Sleeping bag", mass_kg=1), named("b", "Gas stove", mass_kg=0.11), named("c", "Culottes", mass_kg=0.1, count=2),
           named("d", "Box", mass_kg=0.3), named("e", "Stove", mass_kg=0.2, serves=("pot",)))  # fmt: skip
    path = f"/api/tours/{tours.create(small_tour(*kit)).id}"
    found = client.get(f"{path}/kit/unknown").json
    assert (found["things"], [q["asks"] for q in found["questions"]]) == (["a", "b", "c"], ["comfort_c", "kind"])
    answers = [{"thing_id": "a", "asks": "comfort_c", "value": -3}, {"thing_id": "c", "asks": "kind", "value": "shorts"}]
    told = client.post(f"{path}/kit/known", json={"revision": 1, "answers": answers}).json["tour"]["sheet"]["kit"]
    assert [(t["role"] or {}).get("does") for t in told] == ["sleeping_bag", "stove", "garment", None, None]
    assert (told[0]["role"]["comfort_c"], told[2]["rider_id"], told[2]["count"]) == (-3, "ada", 2)
    assert [t["mass_kg"] for t in told] == [1, 0.11, 0.1, 0.3, 0.2]
    assert client.get(f"{path}/kit/unknown").json["things"] == []
    undone = client.post(f"{path}/step", json={"revision": 2, "step": "undo"}).json["tour"]["sheet"]["kit"]
    assert [t["role"] for t in undone] == [None] * 5


def test_a_workbook_is_read_and_written(client, path):
    book = client.get(f"{path}/kit.xlsx")
    assert book.mimetype.endswith("spreadsheetml.sheet")
    told = client.post("/api/sheets/text", data={"file": (io.BytesIO(book.data), "kit.xlsx")}).json
    assert [row.split("\t")[0] for row in told["text"].splitlines()] == ["name", "pot", "axe"]
    bomb = client.post("/api/sheets/text", data={"file": (io.BytesIO(b"PK\x03\x04" + bytes(300)), "kit.xlsx")})
    assert (bomb.status_code, "damaged" in bomb.json["detail"]) == (422, True)


def kept(client, path):
    """All things of a tour in the library, by name."""
    answer = client.post(f"{path}/library", json={"revision": 1, "ids": ["pot", "axe"]})
    assert answer.status_code == 200
    return {t["thing"]["name"]: t for t in client.get("/api/library").json["things"]}


def mass(client, path, thing_id="pot"):
    sheet = client.get(path).json["tour"]["sheet"]
    return next(t["mass_kg"] for t in sheet["kit"] if t["id"] == thing_id)


def weigh(client, owned, kg):
    return client.put(
        f"/api/library/{owned['id']}", json={"version": owned["version"], "thing": owned["thing"] | {"mass_kg": kg}}
    )


def test_a_mass_changed_once_is_changed_on_every_open_tour(client, tours, path):
    """Both tours that chose it show the new figure; one that is over keeps the old one, and undo takes it back everywhere."""
    owned = kept(client, path)
    others = [
        f"/api/tours/{tours.create(small_tour(thing('own', 0.5, library_id=owned['pot']['id']), over=over)).id}"
        for over in (False, True)
    ]
    answer = weigh(client, owned["pot"], 0.4)
    assert answer.status_code == 200
    assert len(answer.json["remarks"]) == 2
    assert [mass(client, path), *(mass(client, other, "own") for other in others)] == [0.4, 0.4, 0.5]
    # Changed on one tour, it is changed in the library and on the other.
    now = client.get(path).json["tour"]
    kit = [t | ({"mass_kg": 0.45} if t["id"] == "pot" else {}) for t in now["sheet"]["kit"]]
    changed = client.patch(path, json={"revision": now["revision"], "what": "weigh", "kit": kit})
    assert changed.json["remarks"] == ["Small now says the same of pot."]
    assert [mass(client, other, "own") for other in others] == [0.45, 0.5]
    assert client.get("/api/library?find=pot").json["things"][0]["thing"]["mass_kg"] == 0.45
    undone = client.post(f"{path}/step", json={"revision": changed.json["tour"]["revision"], "step": "undo"})
    assert undone.status_code == 200
    assert (mass(client, path), mass(client, others[0], "own")) == (0.4, 0.4)


def test_what_one_tour_says_stays_with_it(client, tours, path):
    owned = kept(client, path)
    other = f"/api/tours/{tours.create(small_tour(thing('own', 0.5, count=3, because='Cups', library_id=owned['pot']['id']))).id}"
    weigh(client, owned["pot"], 0.6)
    pot = client.get(other).json["tour"]["sheet"]["kit"][0]
    assert (pot["count"], pot["because"], pot["mass_kg"]) == (3, "Cups", 0.6)


def test_two_who_change_a_thing_do_not_overwrite_each_other(client, path):
    owned = kept(client, path)["axe"]
    assert weigh(client, owned, 1.1).status_code == 200
    assert weigh(client, owned, 1.0).status_code == 409
    assert mass(client, path, "axe") == 1.1
    assert client.delete(f"/api/library/{owned['id']}/1").status_code == 409
    assert client.delete(f"/api/library/{owned['id']}/2").status_code == 204
    assert mass(client, path, "axe") == 1.1
    assert client.post(f"/api/library/{owned['id']}/restore").status_code == 204


def test_things_of_one_name_are_not_doubled(client, tours, path):
    kept(client, path)
    other = f"/api/tours/{tours.create(small_tour(named('a', 'POT'))).id}"
    answer = client.post(f"{other}/library", json={"revision": 1, "ids": ["a"]})
    assert "POT" in answer.json["remarks"][0]
    assert client.get("/api/library").json["total"] == 2
    again = client.post("/api/library", json={"things": [named("x", "Axe").model_dump(mode="json")]})
    assert (again.status_code, client.get("/api/library").json["total"]) == (201, 2)


def test_things_are_chosen_for_a_tour_once(client, tours, path):
    owned = kept(client, path)
    other = f"/api/tours/{tours.create(small_tour(thing('pot'))).id}"
    ids = [owned[name]["id"] for name in ("pot", "axe")]
    taken = client.post(f"{other}/choose", json={"revision": 1, "ids": ids})
    kit = taken.json["tour"]["sheet"]["kit"]
    assert [t["name"] for t in kit] == ["pot", "pot", "axe"]
    assert len({t["id"] for t in kit}) == 3
    again = client.post(f"{other}/choose", json={"revision": 2, "ids": ids})
    assert len(again.json["tour"]["sheet"]["kit"]) == 3
    assert client.post(f"{other}/choose", json={"revision": 3, "ids": ["0" * 32]}).status_code == 404


def test_a_bundle_of_somebody_else_brings_things_of_nobodys_library(client, path):
    kept(client, path)
    bundle = client.get(f"{path}/bundle.json").data
    strange = bundle.replace(
        client.get("/api/library?find=axe").json["things"][0]["id"].encode(), b"0f" * 4 + b"-0000-4000-8000-" + b"0f" * 6
    )
    brought = client.post("/api/tours/bundle", data={"file": (io.BytesIO(strange), "t.json")})
    ids = {t["name"]: t["library_id"] for t in brought.json["tour"]["sheet"]["kit"]}
    assert ids["axe"] is None
    assert ids["pot"] is not None


def test_the_ladder_knows_what_lies_at_home(client, path):
    owned = kept(client, path)
    light = named("light", "Light pot", mass_kg=0.2, price=30, held="wished", instead_of=owned["pot"]["id"])
    client.post("/api/library", json={"things": [light.model_dump(mode="json")]})
    steps = client.get(f"{path}/ladder").json["steps"]
    assert [(s["name"], s["money_a_kg"]) for s in steps] == [("Light pot", 100)]
    assert {s["thing_id"] for s in client.get(f"{path}/ranking").json["things"]} == {"pot", "axe"}


def picture(size=(1600, 900), kind="JPEG", **more) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, "teal").save(out, kind, **more)
    return out.getvalue()


def test_a_picture_is_made_small_and_forgets_where_it_was_taken(client, path):
    owned = kept(client, path)["pot"]["id"]
    place = Image.Exif()
    place[0x8825] = {1: "N", 2: (47.0, 1.0, 2.0)}
    place[0x0112] = 6
    sent = {"file": (io.BytesIO(picture(exif=place)), "pot.jpg")}
    assert client.post(f"/api/library/{owned}/picture", data=sent).status_code == 204
    kept_picture = client.get(f"/api/library/{owned}/picture")
    assert kept_picture.mimetype == "image/jpeg"
    image = Image.open(io.BytesIO(kept_picture.data))
    assert image.size == (270, 480)  # turned upright
    assert not dict(image.getexif())
    assert client.get("/api/library").json["things"][1]["has_picture"]
    assert client.delete(f"/api/library/{owned}/picture/9").status_code == 409
    assert client.delete(f"/api/library/{owned}/picture/1").status_code == 204
    assert client.get(f"/api/library/{owned}/picture").status_code == 404


@pytest.mark.parametrize(
    "content",
    [b"", b"GIF89a", b"<svg xmlns='http://www.w3.org/2000/svg'/>", picture()[:300], picture((20_000, 4000), "PNG")],
    ids=["nothing", "another kind", "a drawing", "cut off", "too large"],
)
def test_what_is_no_picture_is_refused_in_words(client, path, content):
    owned = kept(client, path)["pot"]["id"]
    answer = client.post(f"/api/library/{owned}/picture", data={"file": (io.BytesIO(content), "x.jpg")})
    assert answer.status_code == 422
    assert "picture" in answer.json["detail"]
    assert client.get(f"/api/library/{owned}/picture").status_code == 404


@pytest.mark.parametrize("query", ["first=-1", "first=x", "first=9999999", "find=%00", "tour=nope"])
def test_odd_questions_are_answered_in_words(client, query):
    assert client.get(f"/api/library?{query}").status_code in (404, 422)


RIDERS = [RIDER.model_dump(mode="json")]


def test_a_tour_begins_like_an_earlier_one_and_says_what_changed(client, tours, path):
    owned = kept(client, path)
    client.patch(path, json={"revision": 2, "what": "over", "over": True})
    assert client.get(f"{path}/glance").json["over"]
    weigh(client, owned["pot"], 0.3)
    assert mass(client, path) == 0.5
    asked = {"name": "Again", "start_date": "2028-05-01", "riders": RIDERS, "from_tour": path.rsplit("/", 1)[1]}
    begun = client.post("/api/tours", json=asked)
    sheet = begun.json["tour"]["sheet"]
    assert {t["name"]: t["mass_kg"] for t in sheet["kit"]} == {"pot": 0.3, "axe": 1.2}
    assert sheet["rig"]["bikes"]
    assert not sheet["road"]["typed_days"]
    assert not sheet["over"]
    assert begun.json["remarks"] == ["Since then: pot, as the library has them now."]
    assert client.post("/api/tours", json=asked | {"from_tour": "0" * 32}).status_code == 404


BASE_KG = {"ultralight": (4, 8), "light": (10, 14), "usual": (15, 20), "comfort": (20, 30), "long": (25, 35)}
BAGS_KG = {"ultralight": 2.0, "light": 3.0, "usual": 5.0, "comfort": 6.0, "long": 6.5}


@pytest.mark.parametrize("school", SCHOOLS)
def test_a_kit_of_a_school_weighs_what_such_kits_do(client, school):
    """Common practice: all but food, water, fuel and what is worn, with racks and bags of that school."""
    kit = kit_of_school(school, (RIDER,))
    low, high = BASE_KG[school]
    assert low <= sum(t.mass_kg * t.count for t in kit) + BAGS_KG[school] <= high
    two = (RIDER, RIDER.model_copy(update={"id": "ben", "name": "Ben"}))
    shared = kit_of_school(school, two)
    assert sum("tent" in t.serves or "tarp" in t.serves for t in shared if t.group == "sleep") in (1, 2)
    asked = {
        "name": "New",
        "start_date": "2028-05-01",
        "riders": RIDERS,
        "kit_of": school,
        "typed_days": [{"distance_km": 50}] * 3,
    }
    begun = client.post("/api/tours", json=asked)
    assert len(begun.json["tour"]["sheet"]["kit"]) == len(kit)
    assert {q["id"] for q in begun.json["assessment"]["questions"] if q["open"]} <= {"warm", "clean", "packed"}
