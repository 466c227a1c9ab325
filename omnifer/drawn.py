"""Draws the stages of an assessment, as they declare what they read."""

from omnifer.core.findings import TOLD
from omnifer.core.stages import ALL, Stage


def stages_drawn() -> str:
    """The stages as a document: a drawing of those that others read or screens show, and a table of the checks."""
    checks = set(TOLD.values())
    stages = [one for one in ALL if one not in checks]
    lines = [
        "# What is worked out of what", "",
        "Made by `bin/documents` from what the stages declare (`omnifer/core/stages.py`); one that reads more fails its tests.",
        "A stage is worked out again only where something that it reads has changed.", "",
        "```mermaid", "flowchart LR",
    ]  # fmt: skip
    for one in stages:
        lines.append(f'  {_id(one)}["{one.name.rpartition(".")[2]}"]')
        lines += [f"  {_id(before)} --> {_id(one)}" for before in one.reads if isinstance(before, Stage)]
    lines += ["```", "", "| stage | what | reads of the tour | and of other stages |", "|---|---|---|---|"]
    lines += [_row(one) for one in stages]
    lines += ["", "## Checks", "", "| check | what | reads of the tour | and of stages |", "|---|---|---|---|"]
    lines += [_row(one) for one in ALL if one in checks]
    return "\n".join(lines) + "\n"


def _id(one: Stage[object]) -> str:
    return one.name.replace(".", "_")


def _row(one: Stage[object]) -> str:
    parts = ", ".join(read for read in one.reads if isinstance(read, str))
    others = ", ".join(read.name.rpartition(".")[2] for read in one.reads if isinstance(read, Stage))
    return f"| `{one.name}` | {one.summary} | {parts} | {others} |"
