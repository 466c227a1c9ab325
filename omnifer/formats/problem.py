"""Input that cannot be taken, in words: what, where, and what to do."""

from typing import Any

from pydantic import ValidationError


class InputProblem(Exception):
    """Bad input. `where` names a line, row or field; `mend` says what to do."""

    def __init__(self, what: str, where: str = "", mend: str = "") -> None:
        super().__init__(what)
        self.what = what
        self.where = where
        self.mend = mend

    def __str__(self) -> str:
        where = f" ({self.where})" if self.where else ""
        mend = f" {self.mend}" if self.mend else ""
        return f"{self.what}{where}.{mend}"


MOST_NAMED = 5
"""Fields named when a document has more that cannot be taken."""


def in_words(error: ValidationError, most: int = MOST_NAMED) -> str:
    """What of a document cannot be taken, field by field."""
    problems = error.errors()
    words = [f"{where_of(problem)}: {what_of(problem)}".removeprefix(": ") for problem in problems[:most]]
    if len(problems) > most:
        words.append(f"and {len(problems) - most} more")
    return "; ".join(words)


def where_of(problem: Any) -> str:
    """The field of one of pydantic's problems."""
    return ".".join(str(part) for part in problem["loc"])


def what_of(problem: Any) -> str:
    """One of pydantic's problems without the insides of the program."""
    context = problem.get("ctx", {})
    match problem["type"]:
        case "too_long":
            return f"there are {context['actual_length'] or 'more'}, at most {context['max_length']} can be kept"
        case "too_short":
            return f"at least {context['min_length']} must be there"
        case _:
            return str(problem["msg"]).removeprefix("Value error, ")
