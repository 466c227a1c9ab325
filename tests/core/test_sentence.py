"""Words that go with a number."""

import pytest

from omnifer.core.sentence import fine_number, number, say


@pytest.mark.parametrize(
    ("n", "words"),
    [(number(1), "{n} thing is out"), (number(2), "{n} things are out"), (number(0), "{n} things are out"),
     (fine_number(1.001), "{n} thing is out"), (fine_number(1.5), "{n} things are out"), ("1", "{n} thing is out")],
)  # fmt: skip
def test_one_is_told_as_one_and_all_else_as_several(n, words):
    assert say("{n:thing is|things are} out", n=n).words == words
    assert say("of {n} {n::is|are}", n=n).words == ("of {n} is" if "is" in words else "of {n} are")
