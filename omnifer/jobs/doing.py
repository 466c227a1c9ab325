"""What runs in the process of an errand. Imported once, before any errand, so that each begins with everything at hand."""

import contextlib
import time
from pathlib import Path
from typing import Any

from pydantic import BaseModel

from omnifer.core.load import solver  # noqa: F401  loaded once for all errands that search
from omnifer.core.load.settle import propose_load
from omnifer.core.model.road import Road
from omnifer.demo.sample import demo_tour
from omnifer.jobs import CHANNEL
from omnifer.jobs.errands import KINDS, Errand, HungUp, News, Ready, last_news, news_of
from omnifer.jobs.pieces import Kept
from omnifer.office.desk import Office
from omnifer.outside.services import services_of
from omnifer.store.database import ASKING, QUERIES, WORKING, acting, open_pool
from omnifer.store.members import Members

GRANT_S, LOOK_S = 10.0, 0.02
"""How long an errand waits to be told that its asker is still there, and how often it looks [s]."""


def do(address: str, roads: Path | None, owner_id: int, errand_id: int, worker_id: int) -> None:
    """Do an errand, unless nobody waits for it any more, and tell of it in the database.

    Its worker can be killed, and another take the errand up, some moments before this process is ended: from then on it tells
    nothing and keeps nothing.
    """
    pool = open_pool(address, most=2)
    key = {"owner_id": owner_id, "errand_id": errand_id}
    with acting(pool, owner_id) as connection:
        row = QUERIES.read_errand(connection, **key, lock=ASKING)
        QUERIES.forget_news(connection, **key)
    if row is None or not row["wanted"]:
        with acting(pool, owner_id) as connection:
            QUERIES.end_errand(connection, **key)
        return

    files = Kept(pool, owner_id, errand_id)

    def tell(news: News) -> None:
        with acting(pool, owner_id) as connection:
            if not _state(connection, key, worker_id)["wanted"]:
                raise HungUp
            QUERIES.tell_errand(connection, **key, event=news.event, body=news.body)
            QUERIES.wake(connection, channel=CHANNEL, errand_id=errand_id)

    def tell_of(told: BaseModel) -> None:
        tell(news_of(told))
        if isinstance(told, Ready):
            until = time.monotonic() + GRANT_S
            while not _granted():
                if time.monotonic() > until:
                    raise HungUp
                time.sleep(LOOK_S)

    def _granted() -> bool:
        with acting(pool, owner_id) as connection:
            return bool(_state(connection, key, worker_id)["granted"])

    desk = Office(pool, roads).desk_for(owner_id, Members(pool, owner_id).access(row["tour_id"]).owner_id)
    asked = KINDS[row["kind"]].asked.model_validate(row["asked"])
    try:
        tell(last_news(row["kind"], Errand(desk, row["tour_id"], asked, files, tell_of, services_of())))
    except HungUp:
        with acting(pool, owner_id) as connection:
            QUERIES.end_errand(connection, **key)
    finally:
        pool.close(timeout=0.1)


def _state(connection: Any, key: dict[str, int], worker_id: int) -> dict[str, Any]:
    """Whether an errand is wanted and granted. Raises HungUp where it is gone; where its worker is, this process ends."""
    row: dict[str, Any] | None = QUERIES.errand_wanted(connection, **key, lock=ASKING, working=WORKING, worker_id=worker_id)
    if row is None:
        raise HungUp
    if not row["had"]:
        raise SystemExit(1)
    return row


def warm_up() -> None:
    """Load the compiled part of the search, which each process would otherwise load for itself."""
    propose_load(demo_tour(load=False).model_copy(update={"track": None, "road": Road()}), None, rounds=1, effort=0, advise=False)


# Whatever goes wrong with it, errands are done without.
with contextlib.suppress(Exception):
    warm_up()
