"""How to go: shorter days make a longer tour, and a rest lies where there is water."""

from omnifer.core.assess import profile_of
from omnifer.core.manner import AROUND, manner_of
from omnifer.core.model.road import DayCut, Night
from omnifer.core.voyage import play
from tests.conftest import small_tour
from tests.core.test_road import stop, straight


def tour(nights=(), **cut):
    """800 km with a wild spring, and each 70 km a village."""
    places = (stop(50, water="unsure"), *(stop(km, water="reliable", shop="basic", shelter="room") for km in range(70, 800, 70)))
    made = straight(800, places)
    return made.model_copy(update={"road": made.road.model_copy(update={"cut": DayCut(**cut), "nights": nights})})


def ways(made):
    return {(one.hours, one.rest_every): one for one in manner_of(made, profile_of(made)).ridden}


def test_longer_days_make_a_shorter_tour_and_rests_a_longer_one():
    found = ways(tour(hours=5))
    days = [found[hours, None].days for hours in (4, 5, 6, 7, 8)]
    assert days == sorted(days, reverse=True)
    assert days[0] > days[-1]
    assert [one for one in found if found[one].as_now] == [(5, None)]
    for (hours, every), one in found.items():
        riding = one.days - one.rest_days
        if every is not None:
            # One after about so many days of riding, none on the last evening.
            assert abs(one.rest_days - (riding - 1) / every) <= 1 + AROUND / every * one.rest_days
            assert one.days > found[hours, None].days


def test_a_rest_lies_at_a_village_and_what_it_says_is_so():
    made = tour(hours=4)
    one = ways(made)[4, 5]
    assert one.nights
    assert all(min(abs(night.at_km - km) for km in range(70, 800, 70)) < 0.5 for night in one.nights)
    # Taken, the tour has just so many days and ends on that date.
    taken = made.model_copy(update={"road": made.road.model_copy(update={"cut": one.cut, "nights": tuple(one.nights)})})
    voyage = play(taken, profile_of(taken))
    assert voyage.days.count == one.days


def test_own_rests_stay_and_typed_days_are_as_long_as_typed():
    own = Night(at_km=210, rest_days=2)
    assert own in ways(tour(nights=(own,), hours=5))[6, 7].nights
    typed = small_tour()
    told = manner_of(typed, profile_of(typed))
    assert (told.ridden, told.why_none) == ([], "The days were typed: they are as long as you said.")
