"""Diaries in PostgreSQL: entries are added, each once, and never changed."""

import datetime as dt
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID, uuid5

import psycopg

from omnifer.core.model.diary import Entry, Received
from omnifer.formats.problem import InputProblem
from omnifer.store.database import QUERIES, NotThereError, Pool, acting, one_of, uuid_of

ENTRY = "entry"


@dataclass(frozen=True)
class Added:
    """What became of entries that arrived."""

    taken: list[UUID]
    """Those that are kept now, whether they are new or were there already."""
    otherwise: list[UUID]
    """Those of them whose name was taken by another one; they are kept under a name of their own."""


class Diary:
    """The diaries of one owner, for the length of a request; `rider_id` is who asks, where it is not the owner."""

    def __init__(self, pool: Pool, owner_id: int, rider_id: int | None = None) -> None:
        self.pool = pool
        self.owner_id = owner_id
        self._rider_id = rider_id or owner_id

    def add(self, tour_id: str, entries: Iterable[Entry], received_at: dt.datetime | None = None) -> Added:
        """Keep entries, all of them or none; one that is there already is kept once. Raises NotThereError."""
        key = {"owner_id": self.owner_id, "tour_id": uuid_of(tour_id)}
        taken, otherwise = [], []
        with acting(self.pool, self._rider_id) as connection:
            if QUERIES.lock_diary(connection, **key) is None:
                raise NotThereError(tour_id)
            for entry in entries:
                body = entry.model_dump_json()
                row = {"author": entry.author, "body": body, "received_at": received_at}
                new = QUERIES.add_entry(connection, **key, **row, id=entry.id, says_otherwise=None)
                if new is None and not one_of(QUERIES.same_entry(connection, **key, id=entry.id, body=body)):
                    QUERIES.add_entry(connection, **key, **row, id=uuid5(entry.id, body), says_otherwise=entry.id)
                    otherwise.append(entry.id)
                taken.append(entry.id)
        return Added(taken, otherwise)

    def read(self, tour_id: str, after: int = 0) -> tuple[Sequence[Received], int]:
        """Entries that came after one of a number, in the order in which they came, and the number of the last."""
        with acting(self.pool, self._rider_id) as connection:
            rows = list(QUERIES.read_diary(connection, owner_id=self.owner_id, tour_id=uuid_of(tour_id), after=after))
        return [_received(row) for row in rows], rows[-1]["seq"] if rows else after

    def last(self, tour_id: str) -> int:
        """Number of the last entry of a tour; 0 where there is none."""
        with acting(self.pool, self._rider_id) as connection:
            return int(one_of(QUERIES.last_entry(connection, owner_id=self.owner_id, tour_id=uuid_of(tour_id))))

    def keep_picture(self, tour_id: str, entry_id: str, image: bytes) -> None:
        """Keep the picture of an entry, once. Raises NotThereError, or InputProblem where it has another one."""
        try:
            with acting(self.pool, self._rider_id) as connection:
                QUERIES.keep_diary_picture(
                    connection, owner_id=self.owner_id, tour_id=uuid_of(tour_id), entry_id=uuid_of(entry_id, ENTRY), image=image
                )
        except psycopg.errors.ForeignKeyViolation:
            raise NotThereError(entry_id, ENTRY) from None
        if self.picture(tour_id, entry_id) != image:
            words, mend = "This entry has a picture already, and keeps it", "Make another note with the second one."
            raise InputProblem(words, "field file", mend)

    def picture(self, tour_id: str, entry_id: str) -> bytes:
        """The picture of an entry. Raises NotThereError."""
        with acting(self.pool, self._rider_id) as connection:
            row = QUERIES.read_diary_picture(
                connection, owner_id=self.owner_id, tour_id=uuid_of(tour_id), entry_id=uuid_of(entry_id, ENTRY)
            )
        if row is None:
            raise NotThereError(entry_id, ENTRY)
        return bytes(one_of(row))


def _received(row: dict[str, Any]) -> Received:
    # Entries are validated when they come; one that arrived under another's name has one of its own here.
    entry = Entry.model_validate(row["body"]).model_copy(update={"id": row["id"]})
    return Received.model_construct(
        entry=entry, received_at=row["received_at"], has_picture=row["has_picture"], says_otherwise=row["says_otherwise"]
    )
