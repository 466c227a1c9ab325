"""A worker: does errands of the queue, each in a process of its own that can be ended at any moment.

    python -m omnifer.jobs.worker

takes the database from DATABASE_URL (or OMNIFER_DATABASE), and as many errands at a time as the machine has cores. Any
number of machines can join by the same address.
"""

import asyncio
import logging
import multiprocessing
import os
import signal
import sys
from pathlib import Path
from typing import Any

import procrastinate
import psycopg
from procrastinate.exceptions import JobAborted
from procrastinate.job_context import AbortReason, JobContext
from procrastinate.jobs import DeleteJobCondition
from procrastinate.manager import JobManager
from procrastinate.worker import Worker

from omnifer.jobs import SEARCHES, SHORT, TASK
from omnifer.processes import dying_with_parent
from omnifer.store.database import QUERIES, WORKING, AddressError, plain_address
from omnifer.store.tidying import EVERY_S, try_to_tidy

TRIES = 2
"""How often an errand is begun whose process ends by itself before it is done."""
NICE = 10
"""Workers give way to the web server on the same machine."""
LOOK_S = 60.0
"""How often a worker looks for errands that it was not told of [s]."""
HEARTBEAT_S, GONE_S = 600.0, 3600.0
"""procrastinate's own signs of life; a lock that dies with the worker tells it sooner."""
GRACE_S, PATIENCE_S = 0.8, 3.0
"""How long stopping may take, and how long a worker waits for a connection before it ends, to be begun again [s]."""
log = logging.getLogger("omnifer.jobs")


class Again(procrastinate.BaseRetryStrategy):
    """An errand whose worker was stopped, or whose process ended by itself once, is taken up again."""

    def get_retry_decision(self, *, exception: BaseException, job: procrastinate.jobs.Job) -> procrastinate.RetryDecision | None:
        """Whether, and at once."""
        stopped = isinstance(exception, asyncio.CancelledError)
        once = isinstance(exception, ProcessEnded) and job.attempts + 1 < TRIES
        return procrastinate.RetryDecision(retry_in={"seconds": 0}) if stopped or once else None


class Living(JobManager):
    """Gives a worker its number together with the lock that says it lives, before it takes up anything: no moment is left in
    which it does an errand and others take it for dead."""

    def __init__(self, connector: Any, connection: psycopg.Connection[Any]) -> None:
        super().__init__(connector)
        self._connection = connection

    async def register_worker(self) -> int:
        """The worker's number."""
        worker_id = await super().register_worker()
        self._connection.execute("SELECT pg_advisory_lock(%s, %s)", (WORKING, worker_id))
        return worker_id


class ProcessEnded(Exception):
    """An errand's process ended without a last word."""


def errand_process(address: str, roads: str | None, owner_id: int, errand_id: int, worker_id: int) -> None:
    """What runs in the process of an errand; see `omnifer.jobs.doing`."""
    dying_with_parent(signal.SIGKILL)()
    from omnifer.jobs.doing import do

    do(address, Path(roads) if roads else None, owner_id, errand_id, worker_id)


async def ended(process: Any) -> None:
    """Wait for a process without holding up anything else."""
    loop, over = asyncio.get_running_loop(), asyncio.Event()
    loop.add_reader(process.sentinel, over.set)
    try:
        await over.wait()
    finally:
        loop.remove_reader(process.sentinel)


def application(address: str, roads: str | None, processes: Any) -> procrastinate.App:
    """The queue with its one task."""
    connector = procrastinate.PsycopgConnector(conninfo=address, min_size=1, max_size=4, timeout=PATIENCE_S)
    jobs = procrastinate.App(connector=connector)

    @jobs.task(name=TASK, pass_context=True, retry=Again())
    async def errand(context: JobContext, owner_id: int, errand_id: int) -> None:
        of = (owner_id, errand_id, context.job.worker_id)
        process = processes.Process(target=errand_process, args=(address, roads, *of), daemon=True)
        try:
            process.start()
        except (EOFError, OSError) as error:
            raise ProcessEnded("the server of processes is gone; the next begins another") from error
        try:
            await ended(process)
        except asyncio.CancelledError:
            process.kill()
            if context.abort_reason() == AbortReason.USER_REQUEST:
                raise JobAborted from None
            raise
        finally:
            process.join(0.5)
        if process.exitcode:
            raise ProcessEnded(f"exit code {process.exitcode}")

    return jobs


async def work(address: str, roads: str | None, cores: int) -> None:
    """Do errands until stopped. Errands of workers that are gone are given back first."""
    processes = multiprocessing.get_context("forkserver")
    processes.set_forkserver_preload(["omnifer.jobs.doing"])
    jobs = application(address, roads, processes)
    with psycopg.connect(address, autocommit=True) as alive:
        jobs.job_manager = Living(jobs.connector, alive)
        async with jobs.open_async():
            # Begins the server of processes, which takes its time to load what an errand needs.
            warm = processes.Process(target=os.getpid, daemon=True)
            await asyncio.to_thread(warm.start)
            workers = [
                Worker(
                    jobs, queues=[queue], concurrency=at_a_time, delete_jobs=DeleteJobCondition.ALWAYS,
                    shutdown_graceful_timeout=0, fetch_job_polling_interval=LOOK_S, abort_job_polling_interval=LOOK_S,
                    update_heartbeat_interval=HEARTBEAT_S, stalled_worker_timeout=GONE_S, install_signal_handlers=False,
                )
                # What helps against a finding takes three seconds; a price is not to wait behind it.
                for queue, at_a_time in ((SEARCHES, cores), (SHORT, cores + 1))
            ]  # fmt: skip
            running = [asyncio.create_task(worker.run()) for worker in workers]
            loop = asyncio.get_running_loop()
            for ending in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
                loop.add_signal_handler(ending, stop, workers)
            QUERIES.give_back_left_behind(alive, lock=WORKING, job_id=None)
            # Where the connection with the locks is gone, others take this worker for dead: it ends, and is begun again.
            gone = asyncio.Event()
            loop.add_reader(alive.fileno(), gone.set)
            tidying = asyncio.create_task(tidy_daily(address))
            await asyncio.wait([*running, asyncio.create_task(gone.wait())], return_when=asyncio.FIRST_COMPLETED)
            tidying.cancel()
            stop(workers)
            await asyncio.gather(*running)


def stop(workers: list[Worker]) -> None:
    """Stop; where that hangs, as on a database that is gone, just go."""
    for worker in workers:
        worker.stop()
    asyncio.get_running_loop().call_later(GRACE_S, os._exit, 0)


async def tidy_daily(address: str) -> None:
    """Forget what was put away long ago, now and every day that a worker runs."""
    while True:
        await asyncio.to_thread(try_to_tidy, address)
        await asyncio.sleep(EVERY_S)


def main() -> int:
    """Work until stopped; the exit status."""
    logging.basicConfig(level=logging.WARNING, format="%(levelname)s %(name)s %(message)s")
    # It warns of an application in a main module, which is found by name here; and of each refused connection.
    logging.getLogger("procrastinate.blueprints").setLevel(logging.ERROR)
    os.nice(int(os.environ.get("OMNIFER_NICE", NICE)))
    try:
        address = plain_address(os.environ.get("OMNIFER_DATABASE") or os.environ["DATABASE_URL"])
        cores = int(os.environ.get("OMNIFER_CORES") or os.cpu_count() or 1)
        asyncio.run(work(address, os.environ.get("OMNIFER_ROADS"), cores))
    except KeyError:
        print("DATABASE_URL is not set: a worker must know whose errands to do.", file=sys.stderr)
        return 1
    except (AddressError, psycopg.Error, procrastinate.exceptions.ProcrastinateException) as error:
        print(f"The worker ends: {' '.join(str(error).split())}", file=sys.stderr)
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
