"""The stores over the web: mends tried and not kept, the best schedule, the shopping list as sheet and in the calendar."""

import csv
import io

import icalendar
import pytest

from omnifer.core.model.road import DayCut, Road, Stop, TypedDay
from omnifer.core.model.stores import Stores
from tests.conftest import small_tour, thing

DAY = TypedDay(distance_km=60, ascent_m=0, highest_m=100, lowest_m=100)


@pytest.fixture
def path(tours) -> str:
    """Six days with two towns, a stove, a bottle that is too small, and what is used up."""
    towns = tuple(
        Stop(id=f"t{km}", name=f"Town {km}", at_km=km, water="reliable", shop="full", fuels=("petrol",), services=("plugs",))
        for km in (60, 300)
    )
    things = (
        thing("stove", 0.2, role={"does": "stove", "burns": "petrol"}),
        thing("bottle", 0.1, role={"does": "fuel_vessel", "burns": "petrol", "holds_kg": 0.1, "fill_price": 1.0}),
        thing("=cream", 0.1, id="cream", role={"does": "used_up", "holds": 100, "content_kg": 0.1, "rate": 30}),
        thing("sack", 0.1, holds_water_l=30),
    )
    road = Road(typed_days=(DAY,) * 6, stops=towns, cut=DayCut(by="distance", distance_km=60, to_stops=False))
    tour = small_tour(*things, road=road, stores=Stores(cooking="cook", meal_price=12), money="crowns")
    return f"/api/tours/{tours.create(tour).id}"


def test_a_mend_is_tried_without_being_kept_and_kept_when_asked(client, path):
    finding = next(f for f in client.get(path).get_json()["assessment"]["findings"] if f["kind"] == "fuel_gap")
    offered = client.get(f"{path}/mends", query_string={"finding": finding["id"]}).get_json()["mends"]
    assert client.get(f"{path}/mends", query_string={"finding": "none"}).status_code == 404
    mend = next(m for m in offered if m["things"])
    tried = client.post(f"{path}/trial", json={"mend": mend}).get_json()
    assert "fuel_gap" not in {f["kind"] for f in tried["assessment"]["findings"]}
    assert any("of fuel" in gone["words"] for gone in tried["gone"])
    assert client.get(path).get_json()["tour"]["revision"] == 1
    eating = next(m for m in offered if m["stores"])["stores"]
    assert client.post(f"{path}/trial", json={"stores": eating}).get_json()["assessment"]["stores"]["plan"] is not None
    kept = client.patch(path, json={"revision": 1, "what": "Mend", "mend": mend}).get_json()
    assert "fuel_gap" not in {f["kind"] for f in kept["assessment"]["findings"]}
    kit = kept["tour"]["sheet"]["kit"]
    wrong = client.post(f"{path}/trial", json={"kit": [kit[0], kit[0]]})
    assert wrong.status_code == 422
    assert "two things" in wrong.get_json()["detail"]


def test_steps_are_fixed_and_the_best_schedule_keeps_to_them(client, path):
    found = client.get(f"{path}/stores/schedule").get_json()
    assert found["proven"]
    assert found["best"]["kg_km"] <= found["stands"]["kg_km"] <= found["everywhere"]["kg_km"] + 1e-6
    stores = client.get(path).get_json()["tour"]["sheet"]["stores"]
    steps = [{"supply": "food", "stop_id": "t60", "amount": 0}]
    changed = client.patch(path, json={"revision": 1, "what": "Skip", "stores": stores | {"steps": steps}}).get_json()
    deeds = {(s["stop_id"], d["lane"]): d for s in changed["assessment"]["stores"]["stops"] for d in s["deeds"]}
    assert (deeds["t60", "food"]["amount"], deeds["t60", "food"]["fixed"]) == (0, True)
    again = client.get(f"{path}/stores/schedule").get_json()
    assert all(step["amount"] == 0 for step in again["steps"] if (step["supply"], step["stop_id"]) == ("food", "t60"))
    refused = client.patch(path, json={"revision": 2, "what": "Skip", "stores": {"steps": [{"supply": "food", "amount": -1}]}})
    assert refused.status_code == 422


def test_the_shopping_list_is_a_sheet_and_stands_in_the_calendar(client, path):
    response = client.get(f"{path}/shopping.csv")
    assert response.mimetype == "text/csv"
    rows = list(csv.DictReader(io.StringIO(response.text)))
    assert {row["do"] for row in rows} >= {"fill", "buy", "refuel", "restock"}
    foods = [row for row in rows if row["do"] == "buy"]
    assert all(float(row["amount"]) > 0 and row["packs"] for row in foods)
    assert {row["stop"] for row in rows} >= {"the start", "Town 60"}
    calendar = icalendar.Calendar.from_ical(client.get(f"{path}/days.ics").text)
    days = [str(event["description"]) for event in calendar.walk("VEVENT")]
    assert any("refuel at Town" in day for day in days)
    assert any("buy at Town" in day and "×" in day for day in days)


def test_without_a_road_there_is_nothing_to_plan(client, tours):
    bare = f"/api/tours/{tours.create(small_tour(road=Road())).id}"
    for end in ("stores/schedule", "shopping.csv"):
        answer = client.get(f"{bare}/{end}")
        assert answer.status_code == 422
        assert "road" in answer.get_json()["detail"]
    assert client.get(bare).get_json()["assessment"]["stores"] is None
