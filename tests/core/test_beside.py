"""Places along a road: what a size lets one expect, what is proposed, what counts, and what a spot is called."""

import numpy as np
import pytest

from omnifer.core.model.road import Stop, Track
from omnifer.core.road import beside
from omnifer.core.road.profile import from_track
from omnifer.core.world import expected, places
from omnifer.core.world.places import Place


def straight(lat, lon, points=3000):
    """A road without heights between two places."""
    along = np.linspace(0, 1, points)
    lats, lons = (tuple((a + (b - a) * along).tolist()) for a, b in (lat, lon))
    lons = tuple((of + 180) % 360 - 180 for of in lons)
    return from_track(Track(lat_deg=lats, lon_deg=lons, elevation_m=(None,) * points))


@pytest.mark.parametrize(
    ("people", "water", "shop", "bike_shop", "doctor"),
    [
        (120, "unsure", "none", "none", False),
        (1_000, "reliable", "basic", "none", False),
        (5_000, "reliable", "full", "none", False),
        (20_000, "reliable", "full", "basic", True),
    ],
)
def test_what_riders_count_on_by_size(people, water, shop, bike_shop, doctor):
    """Below 300 people nothing is sure; from 1,000 a basic shop, from 5,000 a full one, from 20,000 a workshop and a chemist;
    common practice, no source."""
    found = expected.parts_of(people)
    assert (found["water"], found.get("shop", "none"), found.get("bike_shop", "none")) == (water, shop, bike_shop)
    assert ("doctor" in found.get("services", ())) == doctor
    assert set(found["guessed"]) >= {"water", "shop", "services", "bike_shop"}


def test_chances_grow_with_size_and_are_what_each_row_says():
    for row in expected.EXPECTED:
        assert row.chance(row.half_of) == pytest.approx(0.5, abs=1e-6)
        assert row.chance(row.most_of) == pytest.approx(0.9, abs=1e-6)
        assert (np.diff([row.chance(n) for n in (1, 30, 300, 3_000, 30_000, 300_000)]) > 0).all()


def test_what_a_place_perhaps_has_is_what_it_is_not_counted_on_for():
    village = Stop.model_validate({"id": "v", "name": "Village", "at_km": 1, **expected.parts_of(600)})
    assert expected.counted(village) == ["water"]
    assert {row.words for row, _ in expected.perhaps(village)} == {"a small shop", "meals", "a plug", "a room"}
    corrected = village.model_copy(update={"shop": "basic", "guessed": ()})
    assert expected.perhaps(corrected) == []


def test_places_beside_a_line_are_those_of_a_search_over_all():
    """Every place of the gazetteer, by the haversine formula; across the date line as well."""
    rows = np.arange(len(places._rows()))
    lat, lon = places._positions(rows)
    for line, within in ((straight((48.2, 47.3), (16.4, 11.4)), 3.0), (straight((-16.5, -17.9), (178.9, 180.6)), 40.0)):
        line_lat, line_lon = (np.radians(of[::40]) for of in (line.lat_deg, line.lon_deg))
        near = np.flatnonzero(np.abs(lat - line.lat_deg.mean()) < 2)
        a, b = np.radians(lat[near])[:, None], np.radians(lon[near])[:, None]
        half = np.sin((line_lat - a) / 2) ** 2 + np.cos(a) * np.cos(line_lat) * np.sin((line_lon - b) / 2) ** 2
        away = (2 * places.EARTH_KM * np.arcsin(np.sqrt(half))).min(axis=1)
        found = places.beside(line.lat_deg[::40], line.lon_deg[::40], within)
        assert {(p.lat_deg, p.lon_deg) for p, _, _ in found} == {
            (round(float(lat[near[i]]), 5), round(float(lon[near[i]]), 5)) for i in np.flatnonzero(away <= within)
        }
        assert len(found) > 0
        assert sorted(off for _, _, off in found) == pytest.approx(np.sort(away[away <= within]), abs=0.01)


def test_names_are_found_without_their_marks_and_whole_ones_first():
    """Düsseldorf and Zürich, as GeoNames has them."""
    assert places.search("dusseldorf")[0].name == "Düsseldorf"
    whole = places.search("ZÜRICH")
    assert (whole[0].name, whole[0].country) == ("Zürich", "CH")
    assert whole[0].people > 300_000
    assert places.search("  ") == places.search("zzzqx") == []
    assert places.search("\n") == []


def test_a_quarter_is_no_place_of_its_own_and_a_neighbouring_town_is():
    city = Place("Large", "XX", 10.0, 20.0, 1_000_000)
    assert places.part_of_larger(Place("Quarter", "XX", 10.05, 20.0, 60_000), [city])
    assert not places.part_of_larger(Place("Town", "XX", 10.2, 20.0, 60_000), [city])
    assert not places.part_of_larger(Place("Twin", "XX", 10.05, 20.0, 400_000), [city])


def test_own_stops_win_over_what_lies_there():
    road = straight((48.2, 47.3), (16.4, 11.4))
    offered = beside.offered_stops(road, ())
    first = offered[3].stop
    mine = Stop(id="mine", name="Mine", at_km=first.at_km + 0.5)
    after = beside.offered_stops(road, (mine,))
    assert first.at_km not in [one.stop.at_km for one in after]
    assert len(after) < len(offered)
    taken = [one.stop for one in offered]
    assert beside.offered_stops(road, taken) == []
    assert len({stop.id for stop in taken}) == len(taken)
    assert [stop.at_km for stop in taken] == sorted(stop.at_km for stop in taken)


def test_a_spot_is_called_by_what_was_passed_last():
    at_sea = straight((40, 40), (-41, -39))
    assert beside.spot(at_sea, (), 100) is None
    stops = tuple(Stop(id=name, name=name, at_km=km) for name, km in (("First", 10), ("Second", 60), ("Third", 120)))
    assert beside.spot(at_sea, stops, 100) == ("Second", 40)


def test_a_place_is_found_by_its_name_also_off_the_road():
    """Of the many places of a name those a day's detour from the road, the nearest first; positions are published facts."""
    road = straight((48.21, 47.81), (16.37, 15.60))
    (mariazell,) = beside.offered_by_name(road, (), "mariazell")
    # Mariazell lies at 47.77 N 15.32 E: 21 km west of where this road ends (haversine, by hand).
    assert mariazell.stop.at_km == pytest.approx(road.length_km, abs=1.5)
    assert mariazell.off_km == pytest.approx(21, abs=2.5)
    assert beside.offered_by_name(road, (mariazell.stop,), "mariazell") == []
    # There is a Vienna in Virginia too.
    assert [one.country for one in beside.offered_by_name(road, (), "Vienna")] == ["AT"]
    assert beside.offered_by_name(road, (), "Reykjavik") == []
