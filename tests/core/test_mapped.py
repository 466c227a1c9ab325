"""What tags, hours and ways of a map mean, and what of it is proposed to a tour."""

import datetime as dt
from functools import partial

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pyproj import Geod

from omnifer.core.mapped.ground import ferries_under, surface_of, surfaces_under, tunnels_under
from omnifer.core.mapped.hours import hours_of
from omnifer.core.mapped.proposals import proposals
from omnifer.core.mapped.reading import Feature, Reading, Way
from omnifer.core.mapped.tags import supplies_of
from omnifer.core.model.assessment import Gap
from omnifer.core.model.road import Road, Stop, SurfaceStretch, Track
from omnifer.core.road.profile import from_track

TODAY = dt.date(2027, 5, 12)
AT_LAT = -20.0
"""In the open ocean: no place of the gazetteer is near."""
EARTH = Geod(ellps="WGS84")
KM_A_DEGREE = EARTH.inv(-30, AT_LAT, -29, AT_LAT)[2] / 1000
PROFILE = from_track(
    Track(lat_deg=(AT_LAT,) * 2001, lon_deg=tuple(np.linspace(-30, -29, 2001).tolist()), elevation_m=(10.0,) * 2001)
)


def there(number, km, off_km=0.0, **tags):
    """A place of the map so far along the road and south of it."""
    _, lat, _ = EARTH.fwd(-30, AT_LAT, 180, off_km * 1000)
    return Feature(f"n{number}", lat, -30 + km / KM_A_DEGREE, tags)


def way(number, from_km, to_km, off_m=0.0, **tags):
    """A way along the road, so far south of it, with a point each kilometre."""
    km = np.append(np.arange(from_km, to_km, 1.0), to_km)
    _, lat, _ = EARTH.fwd(-30, AT_LAT, 180, off_m)
    return Way(f"w{number}", np.full(km.size, lat), -30 + km / KM_A_DEGREE, tags)


def beside(features=(), ways=(), road=None, gaps=(), on=None, seen=None, passed=TODAY):
    reading = Reading(list(features), list(ways), on, seen=seen)
    return proposals(reading, PROFILE, road or Road(), gaps, lambda _: passed, TODAY)


@pytest.mark.parametrize(
    ("tags", "gives"),
    [
        # Each by what the wiki of OpenStreetMap says of the tag (Tag:amenity=drinking_water and so on); from memory.
        ({"amenity": "drinking_water"}, {"water": "reliable"}),
        ({"natural": "spring"}, {"water": "unsure", "treat_water": True}),
        ({"natural": "spring", "drinking_water": "no"}, {}),
        ({"man_made": "water_tap", "access": "private"}, {}),
        ({"amenity": "drinking_water", "intermittent": "yes"}, {"water": "seasonal"}),
        ({"shop": "supermarket"}, {"shop": "full", "water": "reliable"}),
        ({"amenity": "fuel", "shop": "kiosk"}, {"fuels": ("petrol",), "shop": "snacks"}),
        ({"tourism": "camp_site", "tents": "no"}, {"water": "reliable"}),
        ({"tourism": "camp_site", "backcountry": "yes"}, {"shelter": "wild"}),
        ({"amenity": "shelter", "shelter_type": "public_transport"}, {}),
        ({"amenity": "charging_station"}, {}),
        ({"amenity": "charging_station", "bicycle": "yes"}, {"services": ("plugs",)}),
        ({"amenity": "bench"}, {}),
    ],
)
def test_tags_give_what_they_say(tags, gives):
    assert supplies_of(tags) == gives


def test_hours_are_those_of_the_week_in_which_one_passes():
    split = hours_of("Mo-Fr 08:00-12:00,14:00-19:00; Sa 08:00-12:00; PH off", TODAY, 47.8, 13.04)
    # Holidays of Salzburg in May 2027: Ascension on the 6th, Whit Monday on the 17th (calendar of the church year).
    assert split == {
        "closed_weekdays": (6,), "closed_dates": (dt.date(2027, 5, 6), dt.date(2027, 5, 17)),
        "opens_h": 8.0, "closes_h": 12.0, "opens_again_h": 14.0, "closes_again_h": 19.0,
    }  # fmt: skip
    assert hours_of("24/7", TODAY) == {"closed_weekdays": (), "closed_dates": ()}
    summer = partial(hours_of, "Jun-Sep: 08:00-20:00")
    assert summer(dt.date(2027, 7, 1))["closes_h"] == 20
    assert summer(TODAY)["closed_weekdays"] == tuple(range(7))
    assert hours_of("open when asked", TODAY) is None


def test_surfaces_by_tag():
    assert surface_of({"highway": "track", "tracktype": "grade4"}) == "soft"
    assert surface_of({"highway": "secondary", "surface": "asphalt", "smoothness": "very_bad"}) == "gravel"
    assert surface_of({"highway": "steps", "surface": "concrete"}) == "push"
    assert surface_of({"highway": "residential"}) is None


def test_ground_is_that_of_the_way_ridden_and_no_other():
    ways = [
        way(1, 0, 20, highway="tertiary", surface="asphalt"),
        way(2, 20, 45.5, highway="track", surface="gravel"),
        way(3, 45.5, 46.2, highway="tertiary", tunnel="yes", name="Long Bore", surface="asphalt"),
        way(4, 46.2, 46.25, highway="tertiary", tunnel="yes"),
        way(5, 60, 63, off_m=120, route="ferry", duration="0:45"),
        # A sandy path beside the asphalt, and one that crosses it.
        way(6, 5, 15, off_m=60, highway="path", surface="sand"),
        Way("w7", np.linspace(AT_LAT - 0.05, AT_LAT + 0.05, 50), np.full(50, -30 + 10 / KM_A_DEGREE), {"highway": "track", "surface": "mud"}),
    ]  # fmt: skip
    (gravel,) = surfaces_under(PROFILE, ways, TODAY)
    assert (gravel.surface, gravel.mapped) == ("gravel", TODAY)
    assert (gravel.from_km, gravel.to_km) == pytest.approx((20, 45.5), abs=0.06)
    (tunnel,) = tunnels_under(PROFILE, ways)
    assert (tunnel.from_km, tunnel.to_km) == pytest.approx((45.5, 46.2), abs=0.06)
    (ferry,) = ferries_under(PROFILE, ways)
    # Where it lands is known to no more than the width within which it is looked for.
    assert (ferry.hours, ferry.from_km, ferry.to_km) == pytest.approx((0.75, 60, 63), abs=0.3)


def test_a_settlement_is_one_stop_and_a_tap_outside_another():
    found = beside([
        there(1, 30, 0.5, place="village", name="Brask", population="900"), there(2, 30.2, 0.2, shop="bakery", name="The oven"),
        there(3, 29.8, 0.4, tourism="camp_site"), there(4, 30.4, 0.1, amenity="restaurant"),
        there(5, 50, 0.1, amenity="drinking_water"), there(6, 70, 0.1, amenity="restaurant"), there(7, 80, 1.5, shop="supermarket"),
    ])  # fmt: skip
    town, tap = found.stops
    assert (town.name, town.stop.shop, town.stop.shelter, town.stop.services) == ("Brask", "basic", "site", ("meals",))
    # What the map does not have there is guessed by its size, and said to be.
    assert "bike_shop" in town.stop.guessed
    assert not {"shop", "water", "shelter"}.intersection(town.stop.guessed)
    assert (tap.name, tap.stop.water) == ("Drinking water 20 km past Brask", "reliable")
    # A lone inn is no stop, and a shop off the road ends nothing; in a gap it does.
    gap = Gap.model_construct(supply="food", from_km=60, to_km=100)
    far = beside([there(7, 80, 1.5, shop="supermarket", name="Stores")], gaps=[gap]).stops
    assert [(one.name, one.off_km) for one in far] == [("Stores", 1.5)]


def test_what_the_rider_said_stays_and_what_was_guessed_follows_the_map():
    said = Stop(id="a", name="Brask", at_km=30, shop="snacks", water="none")
    guessed = Stop(id="b", name="Tolm", at_km=60, shop="basic", water="reliable", people=900, guessed=("shop", "water"))
    places = [
        there(1, 30, place="village", name="Brask"), there(2, 30, shop="supermarket", opening_hours="Mo-Sa 09:00-18:00"),
        there(3, 60, place="village", name="Tolm"), there(4, 60, shop="supermarket", opening_hours="Mo-Sa 09:00-18:00"),
    ]  # fmt: skip
    one, other = beside(places, road=Road(stops=(said, guessed))).stops
    assert (one.stop.shop, one.stop.water, one.parts) == ("snacks", "reliable", ("water",))
    assert (other.stop.shop, other.stop.opens_h, other.stop.guessed) == ("full", 9, ())
    # A year later the shop is a smaller one, then nothing is left: what came of the map goes with it, what was said stays.
    later = Road(stops=(one.stop, other.stop))
    smaller = beside([*places[:2], places[2], there(4, 60, shop="kiosk")], road=later).stops
    assert [(s.state, s.stop.shop, s.stop.opens_h) for s in smaller] == [("changed", "snacks", None)]
    gone = beside([], road=later).stops
    assert [(s.state, s.stop and s.stop.shop, s.stop and s.stop.water) for s in gone] == [
        ("gone", "snacks", "none"), ("gone", None, None),
    ]  # fmt: skip
    # A map that does not reach there says nothing of it.
    assert not beside([], road=later, seen=(np.array([AT_LAT]), np.array([-29.0]))).stops


def test_what_the_rider_left_open_is_filled_in():
    said = Stop(id="a", name="Brask", at_km=30, shop="full", closed_weekdays=(6,), services=("meals",))
    places = [
        there(1, 30, place="village", name="Brask"), there(2, 30, shop="supermarket", opening_hours="Mo-Sa 09:00-18:00"),
        there(3, 30, amenity="post_office"),
    ]  # fmt: skip
    (one,) = beside(places, road=Road(stops=(said,))).stops
    assert (one.stop.opens_h, one.stop.closed_weekdays, one.stop.services) == (9, (6,), ("meals", "post"))
    # What stands beside the rider's own services is his: it does not go with the map.
    assert one.stop.mapped.parts == ("water", "shop")
    # Other hours than his are no better than his.
    own = said.model_copy(update={"opens_h": 7.0})
    assert [part for one in beside(places, road=Road(stops=(own,))).stops for part in one.parts] == ["water", "services"]


KINDS = (
    {"amenity": "drinking_water"}, {"shop": "supermarket", "opening_hours": "Mo-Sa 08:00-12:00"}, {"tourism": "hotel"},
    {"tourism": "camp_site", "opening_hours": "Jun-Aug"}, {"place": "hamlet", "name": "Crow Gate"}, {"shop": "bicycle"},
    {"place": "town", "name": "Tolm", "population": "6000"}, {"natural": "spring", "name": "\u202e"}, {"amenity": "fuel"},
)  # fmt: skip
GROUND = ("asphalt", "gravel", "sand", "sett")
SPOTS = st.tuples(st.sampled_from(KINDS), st.floats(0, 100), st.floats(0, 2))


@settings(max_examples=60, deadline=None)
@given(
    st.lists(SPOTS, max_size=25),
    st.lists(st.tuples(st.sampled_from(GROUND), st.floats(1, 60), st.floats(1, 30)), max_size=4),
    st.lists(st.tuples(st.floats(0, 100), st.sampled_from(["none", "basic"]), st.booleans()), max_size=4),
)
def test_taken_once_a_map_has_nothing_more_to_say(spots, grounds, stops):
    features = [there(n, km, off, **tags) for n, (tags, km, off) in enumerate(spots, 1)]
    ways = [way(n, a, a + long, highway="track", surface=ground) for n, (ground, a, long) in enumerate(grounds, 1)]
    own = tuple(
        Stop(id=f"own-{n}", name=f"Own {n}", at_km=km, shop=shop, guessed=("shop",) if guess else ())
        for n, (km, shop, guess) in enumerate(stops)
    )
    road = Road(stops=own, surfaces=(SurfaceStretch(from_km=10, to_km=12, surface="soft"),))
    found = beside(features, ways, road)
    ids = [one.stop.id for one in found.stops]
    assert len(set(ids)) == len(ids)
    changed = {one.was: one.stop for one in found.stops if one.was}
    new = [one.stop for one in found.stops if not one.was]
    taken = road.model_copy(update={
        "stops": (*(changed.get(stop.id, stop) for stop in road.stops), *new), "surfaces": found.surfaces or road.surfaces,
    })  # fmt: skip
    again = beside(features, ways, taken)
    assert again.stops == []
    assert again.surfaces is None
    # What the rider said of the ground lies above what the map says.
    assert taken.surfaces[-1] == road.surfaces[0]
