"""What is kept by its content changes no answer: whatever a rider changes, the tour means what it means worked out from scratch."""

import gc
import logging
import weakref
from collections import deque
from contextlib import contextmanager

import pytest
from hypothesis import Phase, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, rule, run_state_machine_as_test
from pydantic import ValidationError

from omnifer.core import stages, voyage
from omnifer.core.assess import assess, profile_of
from omnifer.core.findings import TOLD
from omnifer.core.load.keep import standing, still_standing
from omnifer.core.model.load import Load
from omnifer.core.model.tour import TourSheet
from omnifer.core.stages import NOT_RIDDEN, RIDDEN, Reading, stage
from omnifer.office.since import otherwise
from tests.conftest import first_km, small_tour, thing
from tests.core.test_slack import riding

SOME_KM = 60.0
CHANGES, WALKS = 26, 9
"""Changes of a tour one after the other, and how often from its beginning."""


@contextmanager
def nothing_kept():
    """As in a process that has just begun; what was kept is there again afterwards."""
    before = [kept._kept for kept in stages.EVERY]
    for kept in stages.EVERY:
        kept._kept = deque(maxlen=kept._kept.maxlen)
    yield
    for kept, was in zip(stages.EVERY, before, strict=True):
        kept._kept = was


def leaves(value, at=()):
    """Where figures, words and answers stand in a document."""
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from leaves(inner, (*at, key))
    elif isinstance(value, list | tuple):
        for k, inner in enumerate(value):
            yield from leaves(inner, (*at, k))
    else:
        yield at


def changed(document, at, chance):
    """The same with one of its leaves otherwise, of the same kind."""
    here, *rest = at
    now = dict(document) if isinstance(document, dict) else list(document)
    if rest:
        now[here] = changed(now[here], rest, chance)
        return now
    value = now[here]
    if isinstance(value, bool):
        now[here] = not value
    elif isinstance(value, int | float):
        now[here] = type(value)(value * chance.choice((0.5, 0.97, 1.02, 1.6)) + chance.choice((0, 0, 1)))
    elif isinstance(value, str):
        now[here] = value + chance.choice(("", "x"))
    return now


class Editing(RuleBasedStateMachine):
    """Any field of a tour is changed, things are moved, left and taken, and some of it is taken back."""

    sheet: TourSheet
    road: object
    kept = 0

    @initialize()
    def begins(self) -> None:
        self.now, self.before = type(self).sheet, []

    def becomes(self, sheet: TourSheet) -> None:
        self.before.append(self.now)
        self.now = TourSheet.model_validate(standing(sheet).model_dump(include=set(TourSheet.model_fields)))

    @rule(chance=st.randoms(use_true_random=False))
    def a_field(self, chance) -> None:
        document = self.now.model_dump(include=set(TourSheet.model_fields))
        # As often in a part that is short as in the kit, which has most fields.
        part = chance.choice([name for name, value in document.items() if list(leaves(value))])
        for _ in range(9):
            try:
                other = TourSheet.model_validate(changed(document, (part, *chance.choice(list(leaves(document[part])))), chance))
            except (ValidationError, ValueError, OverflowError):
                continue
            self.becomes(other)
            break

    @rule(chance=st.randoms(use_true_random=False))
    def a_thing_moves(self, chance) -> None:
        placements = list(self.now.load.placements)
        k = chance.randrange(len(placements))
        taken = {(p.thing_id, p.carrier_id) for p in placements}
        free = [c.id for c in self.now.carriers if (placements[k].thing_id, c.id) not in taken]
        placements[k] = placements[k].model_copy(update={"carrier_id": chance.choice(free)})
        try:
            self.becomes(self.now.model_copy(update={"load": Load(placements=tuple(placements), food=self.now.load.food)}))
        except ValidationError:
            self.before.pop()

    @rule(chance=st.randoms(use_true_random=False))
    def a_bag_is_emptied(self, chance) -> None:
        bag = chance.choice(self.now.load.placements).carrier_id
        left = tuple(p for p in self.now.load.placements if p.carrier_id != bag)
        if left:
            self.becomes(self.now.model_copy(update={"load": Load(placements=left, food=self.now.load.food)}))

    @rule(chance=st.randoms(use_true_random=False))
    def a_stop_goes(self, chance) -> None:
        stops = list(self.now.road.stops)
        if len(stops) > 3:
            stops.pop(chance.randrange(len(stops)))
            self.becomes(self.now.model_copy(update={"road": self.now.road.model_copy(update={"stops": tuple(stops)})}))

    @rule()
    def it_is_taken_back(self) -> None:
        if self.before:
            self.now = self.before.pop()

    @invariant()
    def it_means_what_it_means_from_scratch(self) -> None:
        if not hasattr(self, "now"):
            return
        told = assess(self.now, type(self).road)
        with nothing_kept():
            fresh = assess(self.now, type(self).road)
        assert [(c.at, c.to) for c in otherwise(told, fresh)] == []
        assert told.model_dump_json() == fresh.model_dump_json()
        type(self).kept += 1


def test_whatever_is_changed_means_what_it_means_from_scratch(sample):
    """Every field of a tour, moves, bags emptied, stops gone, undo: byte for byte the assessment of a process that just began."""
    tour = first_km(sample, SOME_KM)
    few = tour.kit[::6]
    kit = tuple(t for t in few if t.inside is None or t.inside in {outer.id for outer in few})
    load = still_standing(tour.load, kit, tour.rig)
    fields = {name: getattr(tour, name) for name in TourSheet.model_fields} | {"variants": (), "kit": kit, "load": load}
    walk = type("Walk", (Editing,), {"sheet": TourSheet.model_validate(fields), "road": profile_of(tour)})
    often = settings(max_examples=WALKS, stateful_step_count=CHANGES, phases=(Phase.generate,), deadline=None, database=None)
    run_state_machine_as_test(walk, settings=often)
    assert walk.kept >= 200


def test_what_moves_on_a_bike_is_not_played_again(short_sample, short_road):
    """The same bags with the same masses and vessels: the very same voyage, not one like it."""
    things = {t.id: t for t in short_sample.kit if t.role is None}
    bags = [c.id for c in short_sample.rig.bikes[0].carriers]
    placements = list(short_sample.load.placements)
    k = next(k for k, p in enumerate(placements) if p.thing_id in things and p.carrier_id == bags[0])
    placements[k] = placements[k].model_copy(update={"carrier_id": bags[1]})
    other = short_sample.model_copy(update={"load": Load(placements=tuple(placements), food=short_sample.load.food)})
    assert voyage.play(short_sample, short_road) is voyage.play(other, short_road)


def test_a_note_is_read_by_no_check_and_a_volume_by_no_ride(short_sample, short_road):
    def with_first(**fields: object) -> Reading:
        first, *rest = short_sample.kit
        kit = (first.model_copy(update=fields), *rest)
        return Reading(TourSheet.model_validate(short_sample.model_dump(exclude={"track"}) | {"kit": kit}), short_road)

    now, noted, larger = with_first(), with_first(because="For the pass"), with_first(volume_l=short_sample.kit[0].volume_l + 0.1)
    assert all(now[told] is noted[told] for told in TOLD.values())
    assert now[voyage.voyage_of] is larger[voyage.voyage_of]
    assert now.part(RIDDEN) is larger.part(RIDDEN)
    assert now.part("kit") is not larger.part("kit")


def test_fields_that_no_ride_reads_have_their_usual_values():
    """A thing of which only mass and volume are said reads the same, so a figure left blank never looks like one told."""
    plain = thing("plain", 1.0, 0.0).model_copy(update={"name": ""})
    assert {name: getattr(plain, name) for name in NOT_RIDDEN} == dict(NOT_RIDDEN)


def test_what_reads_more_than_it_declares_is_told_and_not_kept(monkeypatch, caplog):
    @stage("riders")
    def sly(at: Reading) -> int:
        return len(at.tour.kit)

    try:
        with pytest.raises(AssertionError, match="reads kit"):
            Reading(small_tour(), None)[sly]
        monkeypatch.setattr(stages, "on_undeclared", stages._undeclared)
        with caplog.at_level(logging.ERROR):
            assert [Reading(small_tour(*(thing(f"t{k}") for k in range(n))), None)[sly] for n in (1, 2)] == [1, 2]
        assert "read kit, which it does not declare" in caplog.text
    finally:
        stages.ALL.remove(sly)


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
