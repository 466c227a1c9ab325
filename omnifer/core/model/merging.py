"""Changes of the same tour from two windows, put together where they touch different parts."""

from omnifer.core.model.tour import TourSheet


class Collision(Exception):
    """Both changed the same part. `parts` names the fields."""

    def __init__(self, parts: list[str]) -> None:
        super().__init__(", ".join(parts))
        self.parts = parts


def changed_parts(before: TourSheet, after: TourSheet) -> set[str]:
    """The fields of a sheet in which two of its states differ."""
    return {name for name in TourSheet.model_fields if getattr(before, name) != getattr(after, name)}


def merged(seen: TourSheet, mine: TourSheet, theirs: TourSheet) -> dict[str, object]:
    """The fields of the sheet with both changes of what both writers had seen. Raises Collision.

    What they removed and mine still names (a bag, a thing) is for the caller to let go: see `load.keep`.
    """
    my_parts = changed_parts(seen, mine)
    both = {name for name in my_parts & changed_parts(seen, theirs) if getattr(mine, name) != getattr(theirs, name)}
    if both:
        raise Collision(sorted(both))
    return dict(theirs) | {name: getattr(mine, name) for name in my_parts}
