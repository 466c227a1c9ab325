"""Tours in PostgreSQL: every change is one transaction that adds a state and moves the tour on to it."""

import datetime as dt
import io
import json
import uuid
from collections.abc import Collection, Sequence
from contextlib import AbstractContextManager
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np
from psycopg.types.json import Jsonb
from pydantic import ValidationError

from omnifer.core.model.outlook import Outlook
from omnifer.core.model.road import Track
from omnifer.core.model.tour import VERSION, Tour, TourSheet
from omnifer.core.stages import Kept
from omnifer.formats.problem import in_words
from omnifer.formats.upgrade import upgrade
from omnifer.store.database import QUERIES, NotThereError, Pool, StaleError, acting, one_of, uuid_of

MOST_READ = 24
"""States of tours whose sheets are at hand."""
PART_OF = {"road": "road", "rig": "rig", "kit": "kit", "load": "load", "variants": "kept", "kept_loads": "kept"}
"""The part in which a field of the sheet is kept; all others make the head, which the list of tours reads."""
FETCHED_BACK_DAYS = 30
"""So long a removed tour, or a thing removed from the library, can be fetched back."""
Step = Literal["undo", "redo"]


class UnreadableError(Exception):
    """A state is kept that cannot be read; `document` is what is there."""

    def __init__(self, why: str, row: dict[str, Any], document: dict[str, Any]) -> None:
        super().__init__(why)
        self.revision, self.what, self.version, self.document = row["revision"], row["what"], row["version"], document


@dataclass(frozen=True)
class StoredTour:
    """A tour as it stood at a revision, without the points of its track."""

    id: str
    revision: int
    changed_at: dt.datetime
    what: str
    sheet: TourSheet
    track_id: int | None
    track_digest: str | None
    digest: str
    """What the state holds, in one word."""
    can_undo: bool
    can_redo: bool


@dataclass(frozen=True)
class TourLine:
    """A tour in a list."""

    id: str
    revision: int
    changed_at: dt.datetime
    name: str
    start_date: dt.date


class Tours:
    """The tours of one owner, for the length of a request.

    Parameters
    ----------
    rider_id : int, optional
        Who asks, where it is not the owner: what this rider is no member of is not there.
    """

    def __init__(self, pool: Pool, owner_id: int, rider_id: int | None = None) -> None:
        self.pool = pool
        self.owner_id = owner_id
        self._rider_id = rider_id or owner_id

    def _connection(self) -> AbstractContextManager[Any]:
        return acting(self.pool, self._rider_id)

    def list(self, removed: bool = False) -> list[TourLine]:
        """All tours, or those that were removed and can be fetched back; the last changed first."""
        with self._connection() as connection:
            rows = list(QUERIES.list_tours(connection, owner_id=self.owner_id, removed=removed))
        return [
            TourLine(**(row | {"id": str(row["id"]), "start_date": dt.date.fromisoformat(row["start_date"])})) for row in rows
        ]

    def count(self) -> int:
        """How many tours there are."""
        with self._connection() as connection:
            return int(one_of(QUERIES.count_tours(connection, owner_id=self.owner_id)))

    def revision(self, tour_id: str) -> int:
        """The number of the newest state. Raises NotThereError."""
        with self._connection() as connection:
            row = QUERIES.revision(connection, tour_id=uuid_of(tour_id), owner_id=self.owner_id)
        if row is None:
            raise NotThereError(tour_id)
        return int(one_of(row))

    def mark(self, tour_id: str) -> tuple[int, dt.datetime]:
        """Revision of the newest state, and when the tour came to it. Raises NotThereError."""
        with self._connection() as connection:
            row = QUERIES.mark(connection, tour_id=uuid_of(tour_id), owner_id=self.owner_id)
        if row is None:
            raise NotThereError(tour_id)
        return row["revision"], row["changed_at"]

    def read(self, tour_id: str, revision: int | None = None) -> StoredTour:
        """One tour as it stands, or as a revision showed it.

        Raises NotThereError, StaleError where that revision is gone, UnreadableError where its document cannot be read.
        """
        with self._connection() as connection:
            row = QUERIES.read_tour(connection, tour_id=uuid_of(tour_id), owner_id=self.owner_id, revision=revision)
        if row is None:
            raise StaleError(self.revision(tour_id))
        return StoredTour(
            id=str(row["id"]),
            revision=row["revision"],
            changed_at=row["changed_at"],
            what=row["what"],
            sheet=_sheet(row),
            track_id=row["track_id"],
            track_digest=row["track_digest"],
            digest=row["digest"],
            can_undo=row["can_undo"],
            can_redo=row["can_redo"],
        )

    def read_track(self, track_id: int | None) -> Track | None:
        """The raw points of a track. Raises NotThereError where its tour has gone meanwhile."""
        if track_id is None:
            return None
        with self._connection() as connection:
            row = QUERIES.read_track(connection, track_id=track_id, owner_id=self.owner_id)
        if row is None or one_of(row) is None:
            raise NotThereError(str(track_id), "track")
        return unpack_track(bytes(one_of(row)))

    def create(self, tour: Tour, what: str = "Start the tour") -> StoredTour:
        """Keep a new tour."""
        with self._connection() as connection:
            tour_id = one_of(QUERIES.add_tour(connection, owner_id=self.owner_id))
            track_id = self._add_track(connection, tour_id, tour.track)
            state_id = self._add_state(connection, tour_id, None, track_id, what, tour)
            moved = QUERIES.set_first_state(connection, tour_id=tour_id, state_id=state_id)
        sheet = TourSheet.model_construct(**{name: getattr(tour, name) for name in TourSheet.model_fields})
        return StoredTour(
            id=str(tour_id), what=what, sheet=sheet, track_id=track_id, can_undo=False, can_redo=False, **moved
        )  # fmt: skip

    def change(
        self, tour_id: str, revision: int, what: str, sheet: TourSheet, track: Track | None = None,
        known: TourSheet | None = None,
    ) -> StoredTour:  # fmt: skip
        """Move a tour on to a new state; a given track replaces the old one. What was undone before is forgotten.

        `known` is the sheet of that revision, where it is at hand: parts that are its very own are not written again.
        Raises NotThereError, or StaleError where another writer was faster.
        """
        key = uuid_of(tour_id)
        with self._connection() as connection:
            state_id = self._lock(connection, tour_id, revision)
            track_id = one_of(QUERIES.track_of(connection, state_id=state_id))
            if QUERIES.forget_branches(connection, state_id=state_id):
                QUERIES.forget_unused_parts(connection, tour_id=key)
                QUERIES.forget_unused_tracks(connection, tour_id=key)
            if track is not None:
                track_id = self._add_track(connection, key, track)
            new_state = self._add_state(connection, key, state_id, track_id, what, sheet, known)
            moved = QUERIES.move_to_state(connection, tour_id=key, state_id=new_state)
        _SHEETS.keep((), (str(key), moved["digest"], VERSION), sheet)
        return StoredTour(id=tour_id, what=what, sheet=sheet, track_id=track_id, can_undo=True, can_redo=False, **moved)

    def step(self, tour_id: str, revision: int, step: Step) -> None:
        """Undo or redo one change; nothing happens where there is none. Raises as `change`."""
        with self._connection() as connection:
            state_id = self._lock(connection, tour_id, revision)
            query = QUERIES.undo_target if step == "undo" else QUERIES.redo_target
            target = one_of(query(connection, state_id=state_id))
            if target is not None:
                QUERIES.move_to_state(connection, tour_id=uuid_of(tour_id), state_id=target)

    def delete(self, tour_id: str) -> None:
        """Forget a tour with its history and its tracks, readable or not. Raises NotThereError."""
        with self._connection() as connection:
            if QUERIES.delete_tour(connection, tour_id=uuid_of(tour_id), owner_id=self.owner_id) is None:
                raise NotThereError(tour_id)

    def remove(self, tour_id: str, revision: int) -> None:
        """Put a tour away as a revision showed it, readable or not; see `omnifer.store.tidying` for how long.

        Raises NotThereError, or StaleError where it has moved on.
        """
        with self._connection() as connection:
            self._lock(connection, tour_id, revision)
            if QUERIES.remove_tour(connection, tour_id=uuid_of(tour_id), owner_id=self.owner_id) is None:
                raise NotThereError(tour_id)

    def restore(self, tour_id: str) -> None:
        """Fetch back a tour that was put away. Raises NotThereError."""
        with self._connection() as connection:
            if QUERIES.restore_tour(connection, tour_id=uuid_of(tour_id), owner_id=self.owner_id) is None:
                raise NotThereError(tour_id)

    def keep_outlook(self, tour_id: str, day: dt.date, outlook: Outlook) -> None:
        """Keep what a weather service told for a day, in place of what it told before."""
        with self._connection() as connection:
            told = Jsonb(outlook.model_dump(mode="json"))
            QUERIES.keep_outlook(connection, tour_id=uuid_of(tour_id), owner_id=self.owner_id, day=day, told=told)

    def read_outlook(self, tour_id: str, day: dt.date) -> tuple[Outlook, dt.datetime] | None:
        """What was last told for a day, and when."""
        with self._connection() as connection:
            row = QUERIES.read_outlook(connection, tour_id=uuid_of(tour_id), owner_id=self.owner_id, day=day)
        return None if row is None else (Outlook.model_validate(row["told"]), row["told_at"])

    def packed(self, tour_id: str) -> Sequence[tuple[str, str]]:
        """What is packed already, as carriers and things. Raises NotThereError."""
        self.revision(tour_id)
        with self._connection() as connection:
            rows = QUERIES.read_packed(connection, tour_id=uuid_of(tour_id), owner_id=self.owner_id)
            return [(row["carrier_id"], row["thing_id"]) for row in rows]

    def tick(self, tour_id: str, carrier_id: str, thing_id: str, packed: bool) -> None:
        """Say that a thing is in its carrier, or is not. Raises NotThereError."""
        self.revision(tour_id)
        query = QUERIES.tick_packed if packed else QUERIES.untick_packed
        with self._connection() as connection:
            query(connection, tour_id=uuid_of(tour_id), owner_id=self.owner_id, carrier_id=carrier_id, thing_id=thing_id)

    def pack_anew(self, tour_id: str) -> None:
        """Nothing is packed yet. Raises NotThereError."""
        self.revision(tour_id)
        with self._connection() as connection:
            QUERIES.pack_anew(connection, tour_id=uuid_of(tour_id), owner_id=self.owner_id)

    def _lock(self, connection: Any, tour_id: str, revision: int) -> int:
        row = QUERIES.lock_tour(connection, tour_id=uuid_of(tour_id), owner_id=self.owner_id)
        if row is None:
            raise NotThereError(tour_id)
        if row["revision"] != revision:
            raise StaleError(row["revision"])
        return int(row["state_id"])

    def _add_track(self, connection: Any, tour_id: uuid.UUID, track: Track | None) -> int | None:
        if track is None:
            return None
        points = pack_track(track)
        return int(one_of(QUERIES.add_track(connection, owner_id=self.owner_id, tour_id=tour_id, points=points)))

    def _add_state(
        self, connection: Any, tour_id: uuid.UUID, parent_id: int | None, track_id: int | None, what: str, sheet: TourSheet,
        known: TourSheet | None = None,
    ) -> int:  # fmt: skip
        common = {"owner_id": self.owner_id, "tour_id": tour_id}
        state_id = one_of(
            QUERIES.add_state(connection, **common, parent_id=parent_id, track_id=track_id, what=what, version=VERSION)
        )
        own = [] if known is None else same_parts(known, sheet)
        shared = QUERIES.share_parts(
            connection, **common, state_id=state_id, parent_id=parent_id, names=own, version=VERSION
        ) if own else ()  # fmt: skip
        for name, body in parts_of(sheet, besides={row["name"] for row in shared}).items():
            QUERIES.add_part(connection, **common, state_id=state_id, name=name, body=json.dumps(body, allow_nan=False))
        return int(state_id)


def parts_of(sheet: TourSheet, besides: Collection[str] = ()) -> dict[str, dict[str, Any]]:
    """A sheet as the parts in which it is kept, some left out."""
    parts: dict[str, dict[str, Any]] = {}
    wanted = {field for field in TourSheet.model_fields if _part(field) not in besides}
    for field, value in sheet.model_dump(mode="json", include=wanted).items():
        parts.setdefault(_part(field), {})[field] = value
    return parts


def same_parts(known: TourSheet, sheet: TourSheet) -> list[str]:
    """The parts whose fields are the very same in two sheets."""
    others = {_part(field) for field in TourSheet.model_fields if getattr(known, field) is not getattr(sheet, field)}
    return sorted({_part(field) for field in TourSheet.model_fields} - others)


def _part(field: str) -> str:
    return PART_OF.get(field, "head")


def _sheet(row: dict[str, Any]) -> TourSheet:
    """The sheet of a state, of whichever version it was written; of one known lately the very same. Raises UnreadableError."""
    try:
        known = str(row["id"]), row["digest"], row["version"]
        return _SHEETS.of((), known, lambda: TourSheet.model_validate(upgrade(_document(row["parts"]), row["version"])))
    except ValidationError as error:
        why = in_words(error, 1)
    except (ValueError, TypeError, KeyError, AttributeError) as error:
        why = str(error)
    raise UnreadableError(why, row, _document(row["parts"]))


_SHEETS: Kept[TourSheet] = Kept(MOST_READ)


def _document(parts: str) -> dict[str, Any]:
    return {field: value for body in json.loads(parts).values() for field, value in body.items()}


def pack_track(track: Track) -> bytes:
    """A track as compressed columns; missing heights are not-a-number."""
    heights = np.array([np.nan if h is None else h for h in track.elevation_m], dtype=np.float64)
    out = io.BytesIO()
    rest = track.model_dump_json(include={"parts", "extensions"})
    np.savez_compressed(
        out,
        name=np.array(track.name),
        rest=np.array(rest),
        lat=np.array(track.lat_deg),
        lon=np.array(track.lon_deg),
        height=heights,
    )
    return out.getvalue()


def unpack_track(points: bytes) -> Track:
    """The track of its compressed columns."""
    with np.load(io.BytesIO(points), allow_pickle=False) as columns:
        heights = tuple(None if np.isnan(h) else float(h) for h in columns["height"])
        return Track(
            name=str(columns["name"]),
            lat_deg=tuple(columns["lat"].tolist()),
            lon_deg=tuple(columns["lon"].tolist()),
            elevation_m=heights,
            **(json.loads(str(columns["rest"])) if "rest" in columns else {}),
        )
