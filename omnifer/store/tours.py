"""Tours in PostgreSQL: every change is one transaction that adds a state and moves the tour on to it."""

import datetime as dt
import io
import json
import uuid
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Literal

import aiosql
import numpy as np
import psycopg
from psycopg.rows import dict_row
from psycopg.types.json import Jsonb
from psycopg_pool import ConnectionPool
from yoyo import get_backend, read_migrations

from omnifer.core.model.outlook import Outlook
from omnifer.core.model.road import Track
from omnifer.core.model.tour import Tour, TourSheet

HERE = Path(__file__).parent
QUERIES: Any = aiosql.from_path(HERE / "queries", "psycopg", mandatory_parameters=False)
Step = Literal["undo", "redo"]
Pool = ConnectionPool[psycopg.Connection[dict[str, Any]]]


class NotThereError(Exception):
    """There is no such tour for this owner."""


class StaleError(Exception):
    """The tour has moved on since the writer read it."""

    def __init__(self, current: int) -> None:
        super().__init__(f"the tour is at revision {current}")
        self.current = current


@dataclass(frozen=True)
class StoredTour:
    """A tour as it stands, without the points of its track."""

    id: str
    revision: int
    changed_at: dt.datetime
    what: str
    sheet: TourSheet
    track_id: int | None
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


def migrate(address: str) -> None:
    """Bring the tables up to date."""
    backend = get_backend(address.replace("postgresql://", "postgresql+psycopg://", 1))
    with backend.lock():
        backend.apply_migrations(backend.to_apply(read_migrations(str(HERE / "migrations"))))
    backend.connection.close()


def open_pool(address: str) -> Pool:
    """Connections to the database."""
    return ConnectionPool(
        address, min_size=1, max_size=8, open=True, kwargs={"row_factory": dict_row}, connection_class=psycopg.Connection
    )


class Tours:
    """The tours of one owner."""

    def __init__(self, pool: Pool, owner_id: int) -> None:
        self.pool = pool
        self.owner_id = owner_id

    @classmethod
    def of_local_rider(cls, pool: Pool) -> "Tours":
        """The tours of the rider at this machine."""
        with pool.connection() as connection:
            return cls(pool, _one(QUERIES.local_owner(connection)))

    def list(self) -> list[TourLine]:
        """All tours, the last changed first."""
        with self.pool.connection() as connection:
            rows = list(QUERIES.list_tours(connection, owner_id=self.owner_id))
        return [
            TourLine(**(row | {"id": str(row["id"]), "start_date": dt.date.fromisoformat(row["start_date"])})) for row in rows
        ]

    def count(self) -> int:
        """How many tours there are."""
        with self.pool.connection() as connection:
            return int(_one(QUERIES.count_tours(connection, owner_id=self.owner_id)))

    def read(self, tour_id: str) -> StoredTour:
        """One tour. Raises NotThereError."""
        with self.pool.connection() as connection:
            row = QUERIES.read_tour(connection, tour_id=_uuid(tour_id), owner_id=self.owner_id)
        if row is None:
            raise NotThereError(tour_id)
        return StoredTour(
            id=str(row["id"]),
            revision=row["revision"],
            changed_at=row["changed_at"],
            what=row["what"],
            sheet=TourSheet.model_validate(row["sheet"]),
            track_id=row["track_id"],
            can_undo=row["can_undo"],
            can_redo=row["can_redo"],
        )

    def read_track(self, track_id: int | None) -> Track | None:
        """The raw points of a track."""
        if track_id is None:
            return None
        with self.pool.connection() as connection:
            points = _one(QUERIES.read_track(connection, track_id=track_id, owner_id=self.owner_id))
        return unpack_track(bytes(points))

    def create(self, tour: Tour, what: str = "Start the tour") -> str:
        """Keep a new tour; returns its identifier."""
        with self.pool.connection() as connection:
            tour_id = _one(QUERIES.add_tour(connection, owner_id=self.owner_id))
            track_id = self._add_track(connection, tour.track)
            state_id = self._add_state(connection, tour_id, None, track_id, what, tour)
            QUERIES.set_first_state(connection, tour_id=tour_id, state_id=state_id)
        return str(tour_id)

    def change(self, tour_id: str, revision: int, what: str, sheet: TourSheet, track: Track | None = None) -> None:
        """Move a tour on to a new state; a given track replaces the old one.

        Raises NotThereError, or StaleError where another writer was faster.
        """
        with self.pool.connection() as connection:
            state_id = self._lock(connection, tour_id, revision)
            row = QUERIES.read_tour(connection, tour_id=_uuid(tour_id), owner_id=self.owner_id)
            track_id = self._add_track(connection, track) if track is not None else row["track_id"]
            new_state = self._add_state(connection, _uuid(tour_id), state_id, track_id, what, sheet)
            QUERIES.move_to_state(connection, tour_id=_uuid(tour_id), state_id=new_state)

    def step(self, tour_id: str, revision: int, step: Step) -> None:
        """Undo or redo one change; nothing happens where there is none. Raises as `change`."""
        with self.pool.connection() as connection:
            state_id = self._lock(connection, tour_id, revision)
            query = QUERIES.undo_target if step == "undo" else QUERIES.redo_target
            target = _one(query(connection, state_id=state_id))
            if target is not None:
                QUERIES.move_to_state(connection, tour_id=_uuid(tour_id), state_id=target)

    def delete(self, tour_id: str) -> None:
        """Forget a tour with all its history."""
        with self.pool.connection() as connection:
            QUERIES.forget_state(connection, tour_id=_uuid(tour_id), owner_id=self.owner_id)
            QUERIES.delete_tour(connection, tour_id=_uuid(tour_id), owner_id=self.owner_id)

    def keep_outlook(self, tour_id: str, day: dt.date, outlook: Outlook) -> None:
        """Keep what a weather service told for a day, in place of what it told before."""
        with self.pool.connection() as connection:
            told = Jsonb(outlook.model_dump(mode="json"))
            QUERIES.keep_outlook(connection, tour_id=_uuid(tour_id), owner_id=self.owner_id, day=day, told=told)

    def read_outlook(self, tour_id: str, day: dt.date) -> tuple[Outlook, dt.datetime] | None:
        """What was last told for a day, and when."""
        with self.pool.connection() as connection:
            row = QUERIES.read_outlook(connection, tour_id=_uuid(tour_id), owner_id=self.owner_id, day=day)
        return None if row is None else (Outlook.model_validate(row["told"]), row["told_at"])

    def _lock(self, connection: Any, tour_id: str, revision: int) -> int:
        row = QUERIES.lock_tour(connection, tour_id=_uuid(tour_id), owner_id=self.owner_id)
        if row is None:
            raise NotThereError(tour_id)
        if row["revision"] != revision:
            raise StaleError(row["revision"])
        return int(row["state_id"])

    def _add_track(self, connection: Any, track: Track | None) -> int | None:
        if track is None:
            return None
        return int(_one(QUERIES.add_track(connection, owner_id=self.owner_id, points=pack_track(track))))

    def _add_state(
        self, connection: Any, tour_id: uuid.UUID, parent_id: int | None, track_id: int | None, what: str, sheet: TourSheet
    ) -> int:
        document = Jsonb(sheet.model_dump(mode="json", exclude={"track"}))
        return int(
            _one(
                QUERIES.add_state(
                    connection, owner_id=self.owner_id, tour_id=tour_id, parent_id=parent_id, track_id=track_id,
                    what=what, sheet=document,
                )
            )
        )  # fmt: skip


def _one(row: Any) -> Any:
    """The single value of a query, whichever shape the driver's rows have."""
    return next(iter(row.values())) if isinstance(row, dict) else row


def _uuid(tour_id: str) -> uuid.UUID:
    try:
        return uuid.UUID(tour_id)
    except ValueError:
        raise NotThereError(tour_id) from None


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
