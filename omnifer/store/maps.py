"""What a map service told, kept for a while: services are lent, and a search that broke off goes on where it was."""

import hashlib
import zlib

from omnifer.store.database import QUERIES, Pool, acting, one_of

KEPT_DAYS = 14
"""How long what was told counts as new [d]."""


class ToldMaps:
    """The answers that one owner was told."""

    def __init__(self, pool: Pool, owner_id: int) -> None:
        self.pool = pool
        self.owner_id = owner_id

    def read(self, question: str) -> bytes | None:
        """The answer to a question; None where it was not asked lately."""
        with acting(self.pool, self.owner_id) as connection:
            row = QUERIES.read_told_map(connection, owner_id=self.owner_id, digest=_digest(question), days=KEPT_DAYS)
        return None if row is None else zlib.decompress(bytes(one_of(row)))

    def keep(self, question: str, answer: bytes) -> None:
        """Keep an answer, and forget what is old."""
        with acting(self.pool, self.owner_id) as connection:
            packed = zlib.compress(answer)
            QUERIES.keep_told_map(connection, owner_id=self.owner_id, digest=_digest(question), packed=packed)
            QUERIES.forget_told_maps(connection, owner_id=self.owner_id, days=KEPT_DAYS)


def _digest(question: str) -> str:
    return hashlib.blake2b(question.encode(), digest_size=16).hexdigest()
