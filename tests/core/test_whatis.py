"""What a thing is, and what its name or that says of it."""

import pytest

from omnifer.core.kit.kinds import kinds
from omnifer.core.kit.whatis import as_told, kind_of_thing
from omnifer.core.model.library import GUESSED
from omnifer.core.model.roles import FuelVessel, SleepingBag
from tests.conftest import thing

ALL = tuple(GUESSED)


def named(name: str, mass_kg: float = 0):
    return thing("a", mass_kg, 0).model_copy(update={"name": name})


def test_a_name_tells_the_rest_and_what_was_said_stays():
    told = as_told(named("2 sleeping bags -5 °C"), None, ALL)
    assert (told.name, told.count, told.role.comfort_c) == ("Sleeping bags -5 °C", 2, -5)
    assert {"mass", "volume", "reach", "dry", "role"} <= set(told.guessed)
    weighed = as_told(told.model_copy(update={"mass_kg": 2 * told.mass_kg, "dry": "any"}), None, set(ALL) - {"mass", "dry"})
    assert weighed.volume_l == pytest.approx(2 * told.volume_l)
    assert (weighed.mass_kg, weighed.dry) == (2 * told.mass_kg, "any")


def test_what_somebody_says_that_it_is_goes_before_its_name():
    bag = as_told(named("Old faithful"), "sleeping_bag", ALL)
    assert isinstance(bag.role, SleepingBag)
    assert kind_of_thing(bag) == "sleeping_bag"
    jacket = as_told(bag, "rain_jacket", ALL)
    assert (jacket.role, jacket.serves) == (None, kinds()["rain_jacket"].serves)


def test_a_stove_is_what_it_burns_whatever_its_name_lets_think():
    stove = as_told(named("Stove"), "stove_petrol", ALL)
    assert kind_of_thing(stove) == "stove_petrol"
    assert kind_of_thing(as_told(named("Stove"), None, ALL)) == "stove_gas"


def test_a_said_mass_is_that_of_the_empty_vessel_however_often_it_is_asked():
    once = as_told(named("Gas canister 230 g", mass_kg=0.15), None, set(ALL) - {"mass"})
    again = as_told(once, None, set(ALL) - {"mass"})
    assert once == again
    assert isinstance(once.role, FuelVessel)
    assert (once.mass_kg, once.role.holds_kg) == (0.15, 0.23)


def test_a_name_that_says_nothing_leaves_what_is_there():
    told = as_told(named("Blorp", mass_kg=0.1), None, set(ALL) - {"mass"})
    assert (told.mass_kg, told.role, told.serves, told.guessed) == (0.1, None, (), ("volume",))
    assert kind_of_thing(told) is None


def test_every_kind_that_does_something_is_known_again_or_one_that_does_the_same():
    for kind in kinds().values():
        if kind.role or kind.serves or kind.holds_l:
            again = kinds()[kind_of_thing(as_told(named("Old faithful"), kind.id, ALL))]
            assert (again.role and again.role.does, set(again.serves)) == (kind.role and kind.role.does, set(kind.serves))
