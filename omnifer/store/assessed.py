"""What states of tours mean, as it was worked out: packed, by what a state holds and by whose rules."""

from omnifer.store.database import QUERIES, Pool, acting, one_of

MOST_KEPT = 60
"""Of one owner [-]; those worked out first are forgotten."""


class Assessed:
    """The assessments of one owner's tours."""

    def __init__(self, pool: Pool, owner_id: int) -> None:
        self.pool = pool
        self.owner_id = owner_id

    def read(self, digest: str) -> bytes | None:
        """What was kept under a digest; None where nothing is."""
        with acting(self.pool, self.owner_id) as connection:
            row = QUERIES.read_assessed(connection, owner_id=self.owner_id, digest=digest)
        return None if row is None else bytes(one_of(row))

    def keep(self, digest: str, packed: bytes) -> None:
        """Keep one, and forget what is too many."""
        with acting(self.pool, self.owner_id) as connection:
            QUERIES.keep_assessed(connection, owner_id=self.owner_id, digest=digest, packed=packed)
            QUERIES.forget_assessed(connection, owner_id=self.owner_id, most=MOST_KEPT)
