"""Reading a file that may be anything, in a process of its own with bounds of memory and time: whatever it does, nobody waits."""

import contextlib
import multiprocessing
import resource
import threading
import time
from collections.abc import Callable, Iterator
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any, ParamSpec, TypeVar, cast

from omnifer.formats.problem import InputProblem
from omnifer.office.problems import TooMany

SMALL_BYTES = 2**20
"""What is no larger is read at once, where it is; a picture or a workbook never, for it may hold
a thousand times its own size."""
PICTURE = BOOK = SMALL_BYTES + 1
MOST_MEMORY_BYTES = 3 * 2**29
"""Address space of a process that reads, the libraries it shares with others counted [bytes]."""
MOST_S = 20
"""Of a processor, and twice as much by the clock [s]."""
DYING_S = (0.02, 0.1, 0.5)
"""How long it may take until a killed server of processes is seen to be gone [s]."""
AT_A_TIME = 2
"""Files that a web process has read at a time; others wait so long as one may take."""
Given = ParamSpec("Given")
Found = TypeVar("Found")
_turns = threading.BoundedSemaphore(AT_A_TIME)
_processes = multiprocessing.get_context("forkserver")
_processes.set_forkserver_preload(["omnifer.jobs.readers"])


def apart(size: int, read: Callable[Given, Found], *args: Given.args, **more: Given.kwargs) -> Found:
    """What a reader makes of a file of so many bytes.

    Raises what the reader raises; InputProblem where it takes more memory or time than a file of that kind can ask for, and
    TooMany where as many are being read already.
    """
    if size <= SMALL_BYTES:
        return read(*args, **more)
    if not _turns.acquire(timeout=MOST_S):
        raise TooMany(AT_A_TIME, "large files")
    try:
        return cast(Found, _in_a_process(read, args, more))
    finally:
        _turns.release()


@contextlib.contextmanager
def within_memory(most_bytes: int) -> Iterator[None]:
    """Take at most so much more memory than now. Raises InputProblem where that is not enough."""
    soft, hard = resource.getrlimit(resource.RLIMIT_AS)
    pages = int(Path("/proc/self/statm").read_text().split()[0])
    resource.setrlimit(resource.RLIMIT_AS, (pages * resource.getpagesize() + most_bytes, hard))
    try:
        yield
    except MemoryError:
        raise InputProblem(
            f"Reading this file takes more than {most_bytes // 2**20} MB of memory", "field file",
            "Bring a smaller one; nothing was taken.",
        ) from None  # fmt: skip
    finally:
        resource.setrlimit(resource.RLIMIT_AS, (soft, hard))


def _in_a_process(read: Callable[..., object], args: tuple[object, ...], more: dict[str, object]) -> object:
    ours, theirs = _processes.Pipe(duplex=False)
    process = _started((theirs, read, args, more))
    theirs.close()
    try:
        answered = ours.poll(2 * MOST_S)
        found = ours.recv() if answered else None
    except EOFError:
        found = None
    finally:
        process.kill()
        process.join()
        ours.close()
    if found is None:
        raise InputProblem(
            f"Reading this file takes more than {MOST_S} seconds or {MOST_MEMORY_BYTES // 2**20} MB", "field file",
            "Thin it or split it; nothing was taken.",
        )  # fmt: skip
    good, what = found
    if not good:
        raise what
    return what


def _started(asked: tuple[object, ...]) -> Any:
    """A process that reads. Where the server of processes was ended, as by whoever needs memory, the next one begins it."""
    for pause in (*DYING_S, None):
        process = _processes.Process(target=_read, args=asked, daemon=True)
        try:
            process.start()
            break
        except (EOFError, OSError):
            if pause is None:
                raise
            time.sleep(pause)
    return process


def _read(answers: Connection, read: Callable[..., object], args: tuple[object, ...], more: dict[str, object]) -> None:
    resource.setrlimit(resource.RLIMIT_AS, (MOST_MEMORY_BYTES, MOST_MEMORY_BYTES))
    resource.setrlimit(resource.RLIMIT_CPU, (MOST_S, MOST_S + 1))
    try:
        found = True, read(*args, **more)
    except MemoryError:
        return
    except Exception as trouble:
        found = False, trouble
    answers.send(found)
