"""The peer of `bench.load`: an empty Flask answer with one SQL read, under the same kind of server."""

import os
from functools import cache
from threading import Lock

from flask import Flask

from omnifer.store.database import Pool, open_pool

app = Flask(__name__)


making = Lock()


@cache
def _made() -> Pool:
    return open_pool(os.environ["OMNIFER_DATABASE"])


def pool() -> Pool:
    """The connections of this process: the server loads this before it divides."""
    with making:
        return _made()


@app.get("/")
def empty() -> str:
    with pool().connection() as connection:
        connection.execute("SELECT 1").fetchone()
    return ""
