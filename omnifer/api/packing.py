"""How an answer is packed that is kept packed: as its reader takes it."""

import gzip

import brotli
from flask import Request, Response

from omnifer.office.desk import Packing

BROTLI_LEVEL, GZIP_LEVEL = 5, 6
"""What is packed once and sent often may take some milliseconds."""
PACKINGS = (
    Packing("br", lambda plain: brotli.compress(plain, quality=BROTLI_LEVEL)),
    Packing("gzip", lambda plain: gzip.compress(plain, GZIP_LEVEL, mtime=0)),
)
QUICK = tuple(
    Packing(name, pack) for name, pack in (
        ("br", lambda plain: brotli.compress(plain, quality=2)), ("gzip", lambda plain: gzip.compress(plain, 1, mtime=0)),
    )
)  # fmt: skip
"""What is sent once is packed in a millisecond or two."""
WORTH_PACKING = 4_000
"""Shorter answers are sent as they are [bytes]."""
PLAIN = Packing("", lambda plain: plain)


def packing_for(request: Request, among: tuple[Packing, ...] = PACKINGS) -> Packing:
    """The best packing that a request accepts."""
    return next((packing for packing in among if request.accept_encodings[packing.name] > 0), PLAIN)


def json_of(content: bytes, packing: Packing, status: int = 200) -> Response:
    """JSON that was packed so, as an answer."""
    response = Response(content, status=status, mimetype="application/json")
    response.headers["Vary"] = "Accept-Encoding"
    if packing.name:
        response.headers["Content-Encoding"] = packing.name
    return response
