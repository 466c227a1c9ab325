"""What who may do with a tour where it is hosted: owner, who rides along, who reads along."""

from typing import get_args

from omnifer.store.members import Right

OWNS = frozenset(
    {
        "tours.delete_tour",
        "tours.restore_tour",
        "tours.copy_tour",
        "members.invite",
        "members.revoke_invitation",
        "members.remove_companion",
    }
)
"""What only the owner does."""
LOOKS = frozenset(
    {"loads.try_change", "kit.preview_kit", "roads.preview_stops", "rehearsal.one_play", "members.leave_tour", "members.here"}
)
"""What is asked with a body, or only of oneself, and keeps nothing in the tour."""


def right_for(endpoint: str, method: str) -> Right:
    """The least right that an operation on a tour wants: reading to be told, riding to change, unless it is named here."""
    if endpoint in OWNS:
        return "owns"
    return "reads" if method in ("GET", "HEAD") or endpoint in LOOKS else "rides"


def suffices(has: Right, wanted: Right) -> bool:
    """Whether a right holds another."""
    order = get_args(Right)
    return order.index(has) >= order.index(wanted)
