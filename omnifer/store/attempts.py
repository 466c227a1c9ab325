"""Attempts counted in the database, so that all processes count together: a storage for the package `limits`."""

import time

from limits.storage import MovingWindowSupport, Storage

from omnifer.store.database import AWAY, QUERIES, Pool

ENTERING = 7005
"""Class of advisory locks: of who counts attempts of one."""


class CountedAttempts(Storage, MovingWindowSupport):
    """A moving window of attempts by whose they are, each a row."""

    STORAGE_SCHEME = ["omnifer"]

    def __init__(self, pool: Pool) -> None:
        super().__init__()
        self.pool = pool

    @property
    def base_exceptions(self) -> tuple[type[Exception], ...]:
        """What says that nothing can be counted."""
        return AWAY

    def acquire_entry(self, key: str, limit: int, expiry: int, amount: int = 1) -> bool:
        """Count so many more where they are not too many; of several at once one after the other."""
        with self.pool.connection() as connection:
            connection.execute("SELECT pg_advisory_xact_lock(%s, hashtext(%s))", (ENTERING, key))
            made = QUERIES.count_attempts(connection, whose=key, seconds=expiry)["made"]
            if made + amount > limit:
                return False
            QUERIES.add_attempts(connection, whose=key, amount=amount)
        return True

    def get_moving_window(self, key: str, limit: int, expiry: int) -> tuple[float, int]:
        """When the first in the window was, and how many there are."""
        with self.pool.connection() as connection:
            row = QUERIES.count_attempts(connection, whose=key, seconds=expiry)
        return (row["first"] or time.time(), row["made"])

    def clear(self, key: str) -> None:
        """Forget those of one."""
        with self.pool.connection() as connection:
            QUERIES.forget_attempts(connection, whose=key)

    def check(self) -> bool:
        """Whether the database answers."""
        with self.pool.connection() as connection:
            return connection.execute("SELECT 1").fetchone() is not None

    def incr(self, key: str, expiry: int, amount: int = 1) -> int:
        """Windows move here, and none is fixed."""
        raise NotImplementedError

    def get(self, key: str) -> int:
        """Windows move here, and none is fixed."""
        raise NotImplementedError

    def get_expiry(self, key: str) -> float:
        """Windows move here, and none is fixed."""
        raise NotImplementedError

    def reset(self) -> int | None:
        """Nobody forgets those of all."""
        raise NotImplementedError
