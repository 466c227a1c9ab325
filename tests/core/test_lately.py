"""What is kept by its content changes no answer: whatever a rider changes, the tour means what it means worked out from scratch."""

import gc
import random
import weakref

import pytest

from omnifer.core import stages, voyage
from omnifer.core.assess import assess, profile_of
from omnifer.core.model.load import Load
from omnifer.core.model.tour import TourSheet
from tests.core.test_slack import riding


def from_scratch(tour: TourSheet, road):
    stages.forget()
    return assess(tour, road)


def moved(tour: TourSheet, chance: random.Random) -> TourSheet:
    """A kind goes into another bag, of this bike or of another."""
    placements = list(tour.load.placements)
    k = chance.randrange(len(placements))
    taken = {(p.thing_id, p.carrier_id) for p in placements}
    to = chance.choice([c.id for c in tour.carriers if (placements[k].thing_id, c.id) not in taken])
    placements[k] = placements[k].model_copy(update={"carrier_id": to})
    return tour.model_copy(update={"load": Load(placements=tuple(placements), food=tour.load.food)})


def weighed(tour: TourSheet, chance: random.Random) -> TourSheet:
    kit = list(tour.kit)
    k = chance.randrange(len(kit))
    kit[k] = kit[k].model_copy(update={"mass_kg": kit[k].mass_kg + chance.choice((0.001, 0.7))})
    return tour.model_copy(update={"kit": tuple(kit)})


def taken_down(tour: TourSheet, chance: random.Random) -> TourSheet:
    """Vessels and everything else of a bag go on the shelf."""
    bag = chance.choice(tour.load.placements).carrier_id
    left = tuple(p for p in tour.load.placements if p.carrier_id != bag)
    return tour.model_copy(update={"load": Load(placements=left, food=tour.load.food)})


def dated(tour: TourSheet, chance: random.Random) -> TourSheet:
    return tour.model_copy(update={"start_date": tour.start_date.replace(day=chance.randint(1, 28))})


def valued(tour: TourSheet, chance: random.Random) -> TourSheet:
    return tour.model_copy(update={"own_values": {"usual_stores_kg": chance.uniform(2, 6)}})


def renamed(tour: TourSheet, chance: random.Random) -> TourSheet:
    return tour.model_copy(update={"name": f"Another {chance.random()}", "answers": (), "set_aside": (), "variants": ()})


@pytest.mark.parametrize("change", [moved, weighed, taken_down, dated, valued, renamed])
def test_a_change_means_what_it_means_from_scratch(change, short_sample, short_road):
    chance = random.Random(change.__name__)
    tour = short_sample
    assess(tour, short_road)
    for _ in range(3):
        tour = change(tour, chance)
        assert assess(tour, short_road) == from_scratch(tour, short_road)


def test_what_moves_on_a_bike_is_not_played_again(short_sample, short_road):
    """The same bags with the same masses and vessels: the very same voyage, not one like it."""
    things = {t.id: t for t in short_sample.kit if t.role is None}
    bags = [c.id for c in short_sample.rig.bikes[0].carriers]
    placements = list(short_sample.load.placements)
    k = next(k for k, p in enumerate(placements) if p.thing_id in things and p.carrier_id == bags[0])
    placements[k] = placements[k].model_copy(update={"carrier_id": bags[1]})
    other = short_sample.model_copy(update={"load": Load(placements=tuple(placements), food=short_sample.load.food)})
    assert voyage.play(short_sample, short_road) is voyage.play(other, short_road)


def test_roads_of_tours_that_went_are_let_go():
    """Of sixty roads one after the other those of the last few tours are kept, however many were asked for."""
    roads = []
    for n in range(60):
        tour = riding(length_km=30 + n / 10)
        road = profile_of(tour)
        assess(tour, road)
        roads.append(weakref.ref(road))
    del road
    gc.collect()
    assert sum(kept() is not None for kept in roads) <= 20
