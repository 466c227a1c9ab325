"""The queue of errands, as the web server sees it: ask, follow, grant, stop. The queue itself is procrastinate's."""

import contextlib
import logging
import random
import threading
import time
from collections.abc import Generator, Iterator, Sequence
from dataclasses import dataclass
from typing import Any, Protocol

import procrastinate
import psycopg
from procrastinate.exceptions import ProcrastinateException
from pydantic import BaseModel

from omnifer.jobs import CHANNEL, SEARCHES, SHORT, TASK
from omnifer.jobs.errands import KINDS, Errand, News, Ready, event_name, last_news, news_of
from omnifer.office.desk import Desk
from omnifer.office.problems import BrokenOff, TooMany
from omnifer.office.shapes import Progress
from omnifer.outside.services import Services
from omnifer.store.database import ASKING, AWAY, COUNTING, QUERIES, WORKING, Pool, acting, one_of

log = logging.getLogger(__name__)
MOST_AT_A_TIME = {True: (6, "searches of yours"), False: (24, "questions of yours")}
"""Errands of one rider, under way or waiting: searches, and short questions."""
LOOK_S = 0.1
"""How often whoever follows an errand is asked whether anybody still listens [s]."""
PLACE_S = 1.0
"""How often the place in the queue is looked up, and whether the worker lives [s]."""


Following = Generator[News | None, None, None]


class Errands(Protocol):
    """Where errands are done."""

    def follow(self, desk: Desk, kind: str, tour_id: str, asked: BaseModel, files: Sequence[bytes] = ()) -> Following:
        """Have an errand done: what is told of it, and None now and then; closing it calls the errand off."""


class Inline:
    """Errands done on the spot, by whoever asks: for tests, and where no worker is to be had."""

    def __init__(self, services: Services) -> None:
        self._services = services

    def follow(self, desk: Desk, kind: str, tour_id: str, asked: BaseModel, files: Sequence[bytes] = ()) -> Following:
        """Do it, then tell of it."""
        told: list[BaseModel] = []
        last = last_news(kind, Errand(desk, tour_id, asked, files, told.append, self._services))
        yield from (news_of(news) for news in told if not isinstance(news, Ready))
        yield last


@dataclass(frozen=True)
class Asked:
    """An errand in the queue."""

    owner_id: int
    id: int
    job_id: int


class Queue:
    """Errands done by workers, wherever they run, through the database."""

    def __init__(self, pool: Pool, address: str) -> None:
        self.pool = pool
        self._jobs = procrastinate.App(connector=procrastinate.SyncPsycopgConnector())
        self._jobs.open(pool)
        self._ear = Ear(address)

    def follow(self, desk: Desk, kind: str, tour_id: str, asked: BaseModel, files: Sequence[bytes] = ()) -> Following:
        """Ask for an errand and tell what its worker tells. Raises TooMany, BrokenOff."""
        errand = self._ask(desk.rider_id, kind, tour_id, asked, files)
        last = False
        try:
            for news in self._told(errand):
                last = news is not None and news.event in ("answer", "problem")
                yield news
        finally:
            self._end(errand, called_off=not last)

    def _ask(self, owner_id: int, kind: str, tour_id: str, asked: BaseModel, files: Sequence[bytes]) -> Asked:
        asker = self._ear.asker()
        with acting(self.pool, owner_id) as connection:
            # Two askers at once must not both be the last that is allowed.
            connection.execute("SELECT pg_advisory_xact_lock(%s, %s)", (COUNTING, owner_id))
            QUERIES.forget_unwanted(connection, owner_id=owner_id, lock=ASKING)
            # A price does not wait behind searches, and counts with none of them.
            alike = [name for name, one in KINDS.items() if one.search == KINDS[kind].search]
            most, what = MOST_AT_A_TIME[KINDS[kind].search]
            if int(one_of(QUERIES.count_errands(connection, owner_id=owner_id, kinds=alike))) >= most:
                raise TooMany(most, what)
            row = QUERIES.add_errand(
                connection, owner_id=owner_id, asker=asker, kind=kind, tour_id=tour_id, asked=asked.model_dump_json()
            )
            errand_id = int(one_of(row))
            for number, content in enumerate(files):
                QUERIES.add_errand_file(connection, owner_id=owner_id, errand_id=errand_id, number=number, content=content)
        job = self._jobs.configure_task(TASK, queue=SEARCHES if KINDS[kind].search else SHORT, allow_unknown=True).defer(
            owner_id=owner_id, errand_id=errand_id
        )
        return Asked(owner_id, errand_id, job)

    def _told(self, errand: Asked) -> Following:
        seen, looked, missed, place = 0, 0.0, 0, None
        with self._ear.listening(errand.id) as woken:
            while True:
                if woken.wait(LOOK_S) or time.monotonic() - looked > PLACE_S:
                    woken.clear()
                    for number, news in self._news(errand, seen):
                        seen = number
                        if news.event == event_name(Ready):
                            yield None
                            self._grant(errand)
                        else:
                            yield news
                        if news.event in ("answer", "problem"):
                            return
                if time.monotonic() - looked > PLACE_S:
                    looked = time.monotonic()
                    row = self._place(errand)
                    missed = 0 if row is not None and row["alive"] else missed + 1
                    if missed > 1:
                        self._take_up_again(errand, row)
                        seen, missed = 0, 0
                    if row is not None and row["status"] == "todo" and (row["before"], row["workers"]) != place:
                        place = row["before"], row["workers"]
                        yield news_of(waiting(*place))
                yield None

    def _news(self, errand: Asked, seen: int) -> list[tuple[int, News]]:
        with acting(self.pool, errand.owner_id) as connection:
            rows = QUERIES.errand_news(connection, owner_id=errand.owner_id, errand_id=errand.id, seen=seen)
            return [(row["number"], News(row["event"], row["body"])) for row in rows]

    def _grant(self, errand: Asked) -> None:
        with acting(self.pool, errand.owner_id) as connection:
            QUERIES.grant_errand(connection, owner_id=errand.owner_id, errand_id=errand.id)

    def _place(self, errand: Asked) -> dict[str, Any] | None:
        with self.pool.connection() as connection:
            row: dict[str, Any] | None = QUERIES.place_in_queue(connection, job_id=errand.job_id, lock=WORKING)
            return row

    def _take_up_again(self, errand: Asked, row: dict[str, Any] | None) -> None:
        """Give an errand back to the queue whose worker is gone. Raises BrokenOff where there is nothing to give back."""
        if row is None:
            raise BrokenOff
        log.warning("an errand's worker is gone; another takes it up")
        with self.pool.connection() as connection:
            QUERIES.give_back_left_behind(connection, job_id=errand.job_id, lock=WORKING)

    def _end(self, errand: Asked, called_off: bool) -> None:
        """Forget an errand; where it is still under way its worker ends it at once."""
        with contextlib.suppress(*AWAY, ProcrastinateException):
            if called_off:
                self._jobs.job_manager.cancel_job_by_id(errand.job_id, abort=True, delete_job=True)
            with acting(self.pool, errand.owner_id) as connection:
                QUERIES.end_errand(connection, owner_id=errand.owner_id, errand_id=errand.id)

    def close(self) -> None:
        """Hear no more."""
        self._ear.close()


def waiting(before: int, workers: int) -> Progress:
    """What a rider is told who waits."""
    if not workers:
        return Progress(what="No worker is there just now", share=None)
    words = {0: "Next in the queue", 1: "One search is before yours"}.get(before, f"{before} searches are before yours")
    return Progress(what=words, share=None)


class Ear:
    """Hears through one connection, for all errands of a process, when there is news; its lock says that they are waited for."""

    def __init__(self, address: str) -> None:
        self._address = address
        self._lock = threading.Lock()
        self._woken: dict[int, threading.Event] = {}
        self._connection: psycopg.Connection[Any] | None = None
        self._asker = 0

    def asker(self) -> int:
        """The number under which this process asks; it begins to listen with the first question. Raises OperationalError."""
        with self._lock:
            if self._connection is None or self._connection.closed:
                connection = psycopg.connect(self._address, autocommit=True, connect_timeout=2)
                self._asker = random.getrandbits(31)
                connection.execute("SELECT pg_advisory_lock(%s, %s)", (ASKING, self._asker))
                connection.execute(f"LISTEN {CHANNEL}")
                self._connection = connection
                threading.Thread(target=self._hear, args=(connection,), name="ear", daemon=True).start()
            return self._asker

    def _hear(self, connection: psycopg.Connection[Any]) -> None:
        with contextlib.suppress(psycopg.Error):
            for notice in connection.notifies():
                woken = self._woken.get(int(notice.payload))
                if woken is not None:
                    woken.set()
        connection.close()

    @contextlib.contextmanager
    def listening(self, errand_id: int) -> Iterator[threading.Event]:
        """An event that is set when there is news of an errand; it is set at first."""
        woken = self._woken[errand_id] = threading.Event()
        woken.set()
        try:
            yield woken
        finally:
            del self._woken[errand_id]

    def close(self) -> None:
        """Hear no more."""
        if self._connection is not None:
            self._connection.close()
