"""What gunicorn is told beyond its command line: processes that die with it, and no patience with who sends by the drop."""

import gc
import signal
import socket
import struct
from typing import Any

from gunicorn.workers.gthread import ThreadWorker

from omnifer.processes import dying_with_parent

SLOW_S = 10
"""A connection on which nothing comes for so long, in the middle of a request, is closed [s]."""


# What is loaded stays: looking for garbage among it takes a sixth of the start.
gc.disable()


def when_ready(server: Any) -> None:
    """All is loaded: it is never looked at again for garbage, which also keeps it shared with the processes made from here."""
    gc.freeze()
    gc.enable()


def post_fork(server: Any, worker: Any) -> None:
    """A process of the web server ends at the moment when the one that made it is killed."""
    dying_with_parent(signal.SIGKILL)()


class Worker(ThreadWorker):  # type: ignore[misc]
    """A thread waits for the rest of a request so long and no longer."""

    def handle(self, conn: Any) -> Any:
        """Answer a request on a connection whose sending and reading do not last for ever."""
        # Of the system, not of Python: the thread makes the socket blocking again.
        conn.sock.setsockopt(socket.SOL_SOCKET, socket.SO_RCVTIMEO, struct.pack("ll", SLOW_S, 0))
        return super().handle(conn)
