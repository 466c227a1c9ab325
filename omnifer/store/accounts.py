"""Accounts of a hosted Omnifer: riders by their addresses, where they are signed in, and what is good once.

Secrets are given to riders and never kept: the tables hold digests of them.
"""

import datetime as dt
import hashlib
import secrets
import uuid
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any, Literal

from psycopg.errors import UniqueViolation

from omnifer.store.database import QUERIES, NotThereError, Pool, acting, one_of

SESSION_DAYS = 60
"""A device on which nothing was done for so long is signed out."""
LINK_MIN, CHALLENGE_MIN = 60, 10
"""How long a link sent by mail is good, and a passkey's challenge."""
OfWhat = Literal["link", "challenge"]


@dataclass(frozen=True)
class Account:
    """A rider of a hosted Omnifer. Without a password there are passkeys."""

    owner_id: int
    address: str
    password: str | None
    made_at: dt.datetime


@dataclass(frozen=True)
class SignedIn:
    """That a request comes from a device on which a rider signed in, and when that was."""

    session_id: uuid.UUID
    owner_id: int
    made_at: dt.datetime

    @property
    def age_s(self) -> float:
        """How long ago the rider signed in [s]."""
        return (dt.datetime.now(dt.UTC) - self.made_at).total_seconds()


@dataclass(frozen=True)
class Passkey:
    """A passkey as signatures are held against it."""

    id: str
    owner_id: int
    public_key: bytes
    sign_count: int


def digest_of(secret: str) -> str:
    """What is kept of a secret: it is long and random, so a plain hash is enough."""
    return hashlib.sha256(secret.encode()).hexdigest()


class Accounts:
    """All accounts of a database."""

    def __init__(self, pool: Pool) -> None:
        self.pool = pool

    @contextmanager
    def _knowing(self, known: str) -> Iterator[Any]:
        """A transaction that sees the rows that are found by this."""
        with self.pool.connection() as connection:
            QUERIES.know(connection, known=known)
            yield connection

    def known_as(self, address: str) -> Account | None:
        """The account of an address, however it is written."""
        with self._knowing(address.lower()) as connection:
            row = QUERIES.account_known_as(connection, address=address)
        return None if row is None else Account(**row)

    def of(self, owner_id: int) -> Account:
        """The account of an owner. Raises NotThereError."""
        with acting(self.pool, owner_id) as connection:
            row = QUERIES.account_of(connection, owner_id=owner_id)
        if row is None:
            raise NotThereError(str(owner_id), "account")
        return Account(**row)

    def made(self, address: str, password: str | None) -> int:
        """Make an account, or set the password of the one that is there: the owner's number."""
        there = self.known_as(address)
        if there is None:
            try:
                with self._knowing(address.lower()) as connection:
                    owner_id = int(one_of(QUERIES.add_owner(connection)))
                    QUERIES.act_as(connection, owner_id=owner_id)
                    QUERIES.add_account(connection, owner_id=owner_id, address=address, password=password)
                return owner_id
            except UniqueViolation:  # made by another process a moment ago
                return self.made(address, password)
        if password is not None:
            self.set_password(there.owner_id, password)
        return there.owner_id

    def set_password(self, owner_id: int, password: str) -> None:
        """Another password, as it is kept."""
        with acting(self.pool, owner_id) as connection:
            QUERIES.set_password(connection, owner_id=owner_id, password=password)

    def begin(self, owner_id: int, device: str) -> str:
        """Sign a device in: the secret that its cookie holds."""
        secret = secrets.token_urlsafe(32)
        with acting(self.pool, owner_id) as connection:
            QUERIES.forget_sessions(connection, owner_id=owner_id, days=SESSION_DAYS)
            QUERIES.begin_session(connection, digest=digest_of(secret), owner_id=owner_id, device=device[:200])
        return secret

    def signed_in(self, secret: str) -> SignedIn | None:
        """Who is signed in with a secret; None where nobody is."""
        digest = digest_of(secret)
        with self._knowing(digest) as connection:
            row = QUERIES.session_of(connection, digest=digest, days=SESSION_DAYS)
            if row is None:
                return None
            if row["stale"]:
                QUERIES.see_session(connection, digest=digest)
        return SignedIn(row["id"], row["owner_id"], row["made_at"])

    def sessions(self, owner_id: int) -> Sequence[dict[str, Any]]:
        """Where a rider is signed in, the last seen first."""
        with acting(self.pool, owner_id) as connection:
            return list(QUERIES.sessions(connection, owner_id=owner_id))

    def end(self, owner_id: int, session_id: str) -> None:
        """Sign one device out. Raises NotThereError."""
        with acting(self.pool, owner_id) as connection:
            if QUERIES.end_session(connection, owner_id=owner_id, session_id=_uuid(session_id)) == 0:
                raise NotThereError(session_id, "device")

    def end_others(self, owner_id: int, but: uuid.UUID | None = None) -> None:
        """Sign all devices out, but for one."""
        with acting(self.pool, owner_id) as connection:
            QUERIES.end_other_sessions(connection, owner_id=owner_id, but=[but] if but else [])

    def passkeys(self, owner_id: int) -> Sequence[dict[str, Any]]:
        """A rider's passkeys, the oldest first."""
        with acting(self.pool, owner_id) as connection:
            return list(QUERIES.passkeys(connection, owner_id=owner_id))

    def passkey(self, passkey_id: str) -> Passkey | None:
        """A passkey by its identifier, whosever it is."""
        with self._knowing(passkey_id) as connection:
            row = QUERIES.passkey_of(connection, id=passkey_id)
        return None if row is None else Passkey(row["id"], row["owner_id"], bytes(row["public_key"]), row["sign_count"])

    def add_passkey(self, key: Passkey, name: str) -> None:
        """Keep one."""
        with acting(self.pool, key.owner_id) as connection:
            QUERIES.add_passkey(
                connection, id=key.id, owner_id=key.owner_id, public_key=key.public_key, sign_count=key.sign_count, name=name
            )  # fmt: skip

    def used_passkey(self, key: Passkey, sign_count: int) -> None:
        """Note that one was used, and how often it says it was."""
        with acting(self.pool, key.owner_id) as connection:
            QUERIES.use_passkey(connection, id=key.id, sign_count=sign_count)

    def remove_passkey(self, owner_id: int, passkey_id: str) -> None:
        """Forget one. Raises NotThereError."""
        with acting(self.pool, owner_id) as connection:
            if QUERIES.remove_passkey(connection, owner_id=owner_id, id=passkey_id) == 0:
                raise NotThereError(passkey_id, "passkey")

    def good_once(self, of_what: OfWhat, address: str = "") -> str:
        """A secret that is good once, for a while."""
        secret = secrets.token_urlsafe(32)
        minutes = LINK_MIN if of_what == "link" else CHALLENGE_MIN
        with self._knowing(digest_of(secret)) as connection:
            QUERIES.forget_good_once(connection)
            QUERIES.keep_good_once(connection, digest=digest_of(secret), of_what=of_what, address=address, minutes=minutes)
        return secret

    def looked_at(self, of_what: OfWhat, secret: str) -> str | None:
        """Whose a secret is that is still good; it stays so. None where it is not."""
        with self._knowing(digest_of(secret)) as connection:
            row = QUERIES.look_good_once(connection, digest=digest_of(secret), of_what=of_what)
        return None if row is None else str(one_of(row))

    def used_up(self, of_what: OfWhat, secret: str) -> str | None:
        """The same, and it is good no more."""
        with self._knowing(digest_of(secret)) as connection:
            row = QUERIES.use_good_once(connection, digest=digest_of(secret), of_what=of_what)
        return None if row is None else str(one_of(row))

    def forget(self, owner_id: int) -> None:
        """Let an account go with all that its rider has."""
        with acting(self.pool, owner_id) as connection:
            QUERIES.forget_owner(connection, owner_id=owner_id)


def _uuid(identifier: str) -> uuid.UUID:
    try:
        return uuid.UUID(identifier)
    except ValueError:
        raise NotThereError(identifier, "device") from None
