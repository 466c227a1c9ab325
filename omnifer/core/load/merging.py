"""Changes of the same tour from two windows, put together where they touch different parts."""

from omnifer.core.load.keep import standing
from omnifer.core.model.tour import TourSheet


class Collision(Exception):
    """Both changed the same part. `parts` names the fields."""

    def __init__(self, parts: list[str]) -> None:
        super().__init__(", ".join(parts))
        self.parts = parts


def changed_parts(before: TourSheet, after: TourSheet) -> set[str]:
    """The fields of a sheet that a change touched; a load that only let go of what is gone was not."""
    parts = {name for name in TourSheet.model_fields if getattr(before, name) != getattr(after, name)}
    if "load" in parts and standing(after.model_copy(update={"load": before.load})).load == after.load:
        parts.remove("load")
    return parts


def merged(seen: TourSheet, mine: TourSheet, theirs: TourSheet) -> TourSheet:
    """The sheet with both changes of what both writers had seen, not validated yet. Raises Collision."""
    my_parts = changed_parts(seen, mine)
    both = {name for name in my_parts & changed_parts(seen, theirs) if getattr(mine, name) != getattr(theirs, name)}
    if both:
        raise Collision(sorted(both))
    return standing(theirs.model_copy(update={name: getattr(mine, name) for name in my_parts}))
