"""How outside services are asked: with bounds of time and size, and once more where they are busy."""

from typing import Any

import requests
from requests.adapters import HTTPAdapter
from urllib3.util.retry import Retry

CONNECT_S = 3.0
"""Longest wait for a connection [s]."""
PIECE_BYTES = 2**16


class Trouble(Exception):
    """Nothing was told; the message says why."""


def session(tries: int, pause_s: float) -> requests.Session:
    """Connections to one service.

    Refused or busy, it is asked again `tries` times after ever longer pauses, or when the service says. Silence is not asked
    again: somebody waits.
    """
    made = requests.Session()
    made.trust_env = False
    again = Retry(
        total=tries, read=False, backoff_factor=pause_s, backoff_max=30, status_forcelist=(429, 502, 503, 504),
        allowed_methods=None, raise_on_status=False,
    )  # fmt: skip
    for scheme in ("http://", "https://"):
        made.mount(scheme, HTTPAdapter(max_retries=again))
    return made


def ask(through: requests.Session, what: str, address: str, read_s: float, most_bytes: int, **asked: Any) -> bytes:
    """What a service answers, in words where it does not. Raises Trouble.

    Parameters
    ----------
    what : str
        What the service is called, at the begin of a sentence.
    read_s : float
        Longest silence [s].
    most_bytes : int
        Longer answers are broken off.
    """
    try:
        with through.request(url=address, timeout=(CONNECT_S, read_s), stream=True, **asked) as answer:
            if not answer.ok:
                raise Trouble(f"{what} answers with {answer.status_code}")
            told = bytearray()
            for piece in answer.iter_content(PIECE_BYTES):
                told += piece
                if len(told) > most_bytes:
                    raise Trouble(f"{what} tells more than {most_bytes // 2**20} MB")
            return bytes(told)
    except requests.Timeout:
        raise Trouble(f"{what} does not answer in time") from None
    except requests.RequestException:
        raise Trouble(f"{what} cannot be reached") from None
