"""A rider's own things in PostgreSQL: each has a version, and is found by words."""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from omnifer.core.model.kit import Thing
from omnifer.core.model.library import KitOfThings
from omnifer.core.model.serves import SERVICES
from omnifer.core.model.tour import VERSION
from omnifer.formats.upgrade import upgrade
from omnifer.store.database import QUERIES, NotThereError, Pool, StaleError, acting, one_of, uuid_of

THING = "thing of the library"


@dataclass(frozen=True)
class OwnedRow:
    """A thing as it is kept."""

    id: str
    version: int
    thing: Thing
    has_picture: bool


@dataclass(frozen=True)
class ChosenBy:
    """A tour that chose a thing."""

    tour_id: str
    name: str
    over: bool
    owned_id: str


class Library:
    """The things of one owner, for the length of a request."""

    def __init__(self, pool: Pool, owner_id: int) -> None:
        self.pool = pool
        self.owner_id = owner_id

    def page(
        self, find: str = "", kit: str = "", first: int = 0, most: int = 50, last: Sequence[str] = ()
    ) -> tuple[list[OwnedRow], int]:
        """Some of the things, by name, those of `last` behind all others; and how many there are in all."""
        asked = {"owner_id": self.owner_id, "find": _escaped(find.lower()), "kit": kit}
        with acting(self.pool, self.owner_id) as connection:
            rows = list(QUERIES.library_page(connection, **asked, first=first, most=most, last=list(last)))
            size = int(one_of(QUERIES.library_size(connection, **asked)))
        return [_row(row) for row in rows], size

    def page_json(self, find: str, kit: str, first: int, most: int, last: Sequence[str]) -> tuple[str, int] | None:
        """A page as `Owned` things in JSON, as they are kept, and how many there are in all; None where an older Omnifer wrote
        some of them, which must be brought up to date first."""
        with acting(self.pool, self.owner_id) as connection:
            tours: dict[str, list[str]] = {}
            for row in QUERIES.open_choices(connection, owner_id=self.owner_id):
                tours.setdefault(row["owned_id"], []).append(row["name"])
            row = QUERIES.library_json(
                connection, owner_id=self.owner_id, find=_escaped(find.lower()), kit=kit, first=first, most=most,
                last=list(last), tours=json.dumps(tours), document=VERSION,
            )  # fmt: skip
        return (row["things"], row["total"]) if row["of_today"] else None

    def kits(self) -> list[KitOfThings]:
        """What things are packed with."""
        with acting(self.pool, self.owner_id) as connection:
            return [KitOfThings(**row) for row in QUERIES.library_kits(connection, owner_id=self.owner_id)]

    def read(self, owned_id: str) -> OwnedRow:
        """One thing. Raises NotThereError."""
        with acting(self.pool, self.owner_id) as connection:
            row = QUERIES.library_thing(connection, owner_id=self.owner_id, owned_id=uuid_of(owned_id, THING))
        if row is None:
            raise NotThereError(owned_id, THING)
        return _row(row)

    def named(self, names: Sequence[str]) -> dict[str, OwnedRow]:
        """Things by their names in small letters, the first of each."""
        with acting(self.pool, self.owner_id) as connection:
            rows = list(QUERIES.library_named(connection, owner_id=self.owner_id, names=[n.lower() for n in names]))
        found: dict[str, OwnedRow] = {}
        for row in rows:
            one = _row(row)
            found.setdefault(one.thing.name.lower(), one)
        return found

    def known(self, ids: Sequence[str]) -> set[str]:
        """Of some identifiers those that are there."""
        with acting(self.pool, self.owner_id) as connection:
            rows = QUERIES.known_owned(connection, owner_id=self.owner_id, ids=list(ids))
            return {str(row["id"]) for row in rows}

    def add(self, things: Sequence[Thing]) -> list[str]:
        """Keep things. Gives their identifiers."""
        with acting(self.pool, self.owner_id) as connection:
            return [str(one_of(QUERIES.add_owned(connection, owner_id=self.owner_id, **_columns(t)))) for t in things]

    def change(self, owned_id: str, thing: Thing, version: int | None = None) -> int:
        """Keep a thing as it is now; with a version only if it is still the one that was seen.

        Gives its new version. Raises NotThereError, StaleError.
        """
        with acting(self.pool, self.owner_id) as connection:
            key = {"owner_id": self.owner_id, "owned_id": uuid_of(owned_id, THING)}
            found = QUERIES.change_owned(connection, **key, version=version, **_columns(thing))
            if found is None:
                row = QUERIES.library_thing(connection, **key)
                raise NotThereError(owned_id, THING) if row is None else StaleError(row["version"])
            return int(one_of(found))

    def remove(self, owned_id: str, version: int) -> None:
        """Put a thing away; tours keep their copies. Raises NotThereError, StaleError."""
        with acting(self.pool, self.owner_id) as connection:
            key = {"owner_id": self.owner_id, "owned_id": uuid_of(owned_id, THING)}
            if QUERIES.remove_owned(connection, **key, version=version) is None:
                row = QUERIES.library_thing(connection, **key)
                raise NotThereError(owned_id, THING) if row is None else StaleError(row["version"])

    def restore(self, owned_id: str) -> None:
        """Fetch back a thing that was put away. Raises NotThereError."""
        with acting(self.pool, self.owner_id) as connection:
            if QUERIES.restore_owned(connection, owner_id=self.owner_id, owned_id=uuid_of(owned_id, THING)) is None:
                raise NotThereError(owned_id, THING)

    def chosen_by(self, owned_ids: Sequence[str]) -> list[ChosenBy]:
        """The tours that chose any of these things."""
        with acting(self.pool, self.owner_id) as connection:
            rows = list(QUERIES.tours_with(connection, owner_id=self.owner_id, owned_ids=list(owned_ids)))
        return [ChosenBy(str(row["id"]), row["name"], row["over"], row["owned_id"]) for row in rows]

    def keep_picture(self, owned_id: str, image: bytes) -> None:
        """Keep a picture in place of the one before. Raises NotThereError."""
        self.read(owned_id)
        with acting(self.pool, self.owner_id) as connection:
            QUERIES.keep_picture(connection, owner_id=self.owner_id, owned_id=uuid_of(owned_id, THING), image=image)

    def picture(self, owned_id: str) -> bytes:
        """A thing's picture. Raises NotThereError."""
        with acting(self.pool, self.owner_id) as connection:
            row = QUERIES.read_picture(connection, owner_id=self.owner_id, owned_id=uuid_of(owned_id, THING))
        if row is None:
            raise NotThereError(owned_id, THING)
        return bytes(one_of(row))

    def remove_picture(self, owned_id: str, version: int) -> None:
        """Take the picture of a thing away as it was seen. Raises NotThereError, StaleError."""
        with acting(self.pool, self.owner_id) as connection:
            key = {"owner_id": self.owner_id, "owned_id": uuid_of(owned_id, THING)}
            row = QUERIES.library_thing(connection, **key)
            if row is None or row["version"] != version:
                raise NotThereError(owned_id, THING) if row is None else StaleError(row["version"])
            QUERIES.remove_picture(connection, **key)


def _columns(thing: Thing) -> dict[str, Any]:
    words = [thing.name, thing.group, *(SERVICES[service].words for service in thing.serves)]
    return {
        "name": thing.name, "kit": thing.group, "sought": " ".join(words).lower(),
        "body": json.dumps(thing.model_dump(mode="json"), allow_nan=False), "document": VERSION,
    }  # fmt: skip


def _row(row: dict[str, Any]) -> OwnedRow:
    body = upgrade({"kit": [row["body"]]}, row["document"])["kit"][0]
    return OwnedRow(str(row["id"]), row["version"], Thing.model_validate(body), row["has_picture"])


def _escaped(text: str) -> str:
    """Text that a pattern takes as it stands."""
    return text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_")
