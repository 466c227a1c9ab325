"""The sample ships its load: it is what the search finds, so that the first start need not search."""

from omnifer.core.model.load import Load
from omnifer.demo.sample import LOAD, _text, searched_load


def test_the_load_that_ships_is_what_the_search_gives():
    assert searched_load() == Load.model_validate_json(_text(LOAD))
