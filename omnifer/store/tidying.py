"""What nobody can fetch back any more is forgotten, once a day and by no rider's request."""

import contextlib

import psycopg

from omnifer.store.database import QUERIES
from omnifer.store.tours import FETCHED_BACK_DAYS

EVERY_S = 86_400.0
"""How often [s]."""


def tidy(address: str) -> None:
    """Forget tours and things that were put away long ago, each owner's by itself. Raises psycopg.Error."""
    with psycopg.connect(address, autocommit=True) as connection:
        QUERIES.forget_good_once(connection)
        QUERIES.forget_old_attempts(connection)
        for (owner_id,) in list(QUERIES.owners(connection)):
            with connection.transaction():
                QUERIES.act_as(connection, owner_id=owner_id)
                QUERIES.forget_removed_tours(connection, owner_id=owner_id, days=FETCHED_BACK_DAYS)
                QUERIES.forget_removed_things(connection, owner_id=owner_id, days=FETCHED_BACK_DAYS)


def try_to_tidy(address: str) -> None:
    """The same where the database may be away: the next time is soon enough."""
    with contextlib.suppress(psycopg.Error):
        tidy(address)
