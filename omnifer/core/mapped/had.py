"""What is had at several places of a map together, when one passes."""

import datetime as dt
from collections.abc import Iterable
from typing import Any

from omnifer.core.mapped import tags
from omnifer.core.mapped.groups import Found
from omnifer.core.mapped.hours import hours_of
from omnifer.core.model.road import STOP_FIELDS, StopPart


def had_at(found: Iterable[Found], on: dt.date, rooms: bool) -> tuple[dict[str, Any], list[str]]:
    """What is had at places together when one passes, and what they are, in words."""
    had: dict[str, Any] = {}
    words: list[str] = []
    shops: list[tuple[int, bool, float, dict[str, Any]]] = []
    for one in found:
        feature, gives = one.feature, dict(one.gives)
        written = feature.tags.get("opening_hours")
        open_at = hours_of(written, on, feature.lat_deg, feature.lon_deg) if written else None
        if open_at is not None and len(open_at["closed_weekdays"]) == 7:
            words.append(f"{' and '.join(tags.words_of(feature.tags))}, shut in {on:%B}")
            continue
        words += tags.words_of(feature.tags)
        if "shop" in gives:
            rank = tags.RANKS["shop"].index(gives["shop"])
            shops.append((rank, open_at is not None, _open_h(open_at), open_at or {}))
        if rooms and gives.get("shelter") == "site" and had.get("shelter") == "room":
            gives.pop("shelter")
        if rooms and gives.get("shelter") == "room":
            had.pop("shelter", None)
        had = tags.joined(had, gives)
    if shops:
        had |= max(shops, key=lambda shop: shop[:3])[3]
    return had, list(dict.fromkeys(words))


def _open_h(open_at: dict[str, Any] | None) -> float:
    """Hours a week that a shop is open; none where nobody says it."""
    if open_at is None:
        return 0.0
    spans = [(open_at.get("opens_h", 0.0), open_at.get("closes_h", 24.0))]
    if "opens_again_h" in open_at:
        spans.append((open_at["opens_again_h"], open_at["closes_again_h"]))
    return (7 - len(open_at["closed_weekdays"])) * float(sum(b - a for a, b in spans))


def parts_of(had: dict[str, Any]) -> tuple[StopPart, ...]:
    """Which parts of a stop that says."""
    return tuple(part for part, fields in STOP_FIELDS.items() if fields[0] in had)
