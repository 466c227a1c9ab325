"""The questions a rider asks before leaving, and the kinds of trouble that answer each."""

from collections.abc import Callable
from typing import NamedTuple

from omnifer.core.findings import SPECS
from omnifer.core.findings.situation import Situation
from omnifer.core.model.finding import Question, QuestionId

OF_THE_KIT = (
    "Nothing in the kit says what it is for. Under Kit, say of things what they serve as; whatever this road asks for is then"
    " held against them."
)


class Asked(NamedTuple):
    """A question in words, whether enough was said to answer it, and what to say where it was not."""

    words: str
    said: Callable[[Situation], object]
    unsaid: str = OF_THE_KIT


QUESTIONS: dict[QuestionId, Asked] = {
    "warm": Asked(
        "Warm enough at night?", lambda s: s.sleepers,
        "Nobody said what you sleep in. Under Kit, say of a thing that it is slept in, lies under a sleeper or warms in bed; each"
        " night is then held against it.",
    ),
    "dressed": Asked("Dressed for the day?", lambda s: s.needed.layers),
    "clean": Asked(
        "Clean and dry?", lambda s: s.wardrobes,
        "Nobody said what you wear. Under Kit, say of shirts, shorts, underwear and socks that they are worn riding; under"
        " Stores, how often you wash.",
    ),
    "mended": Asked("Can you mend it?", lambda s: s.needed.faults),
    "seen": Asked("Will you be seen?", lambda s: s.needed.asking is not None),
    "safe": Asked("Healthy and safe?", lambda s: s.needed.asking is not None),
    "complete": Asked("What did you forget?", lambda s: s.needed.asking is not None),
    "spared": Asked("What may stay?", lambda s: s.tour.kit, "There are no things yet. Under Kit they are added."),
    "supplied": Asked("Enough on board?", lambda s: s.voyage is not None, "There is no road yet: see Road."),
    "packed": Asked("Does it ride well?", lambda s: s.tour.load.placements, "Nothing is loaded yet: see Load."),
}  # fmt: skip
"""In the order in which they are asked."""


def questions_of(situation: Situation) -> list[Question]:
    """The questions; open are those to which nobody said anything."""
    kinds = {asked: [spec.kind for spec in SPECS.values() if spec.question == asked] for asked in QUESTIONS}
    return [
        Question(id=key, words=asked.words, kinds=kinds[key], open=not asked.said(situation), unsaid=asked.unsaid)
        for key, asked in QUESTIONS.items()
    ]
