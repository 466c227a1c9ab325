"""How an answer is packed that is kept packed: as its reader takes it."""

import gzip

import brotli
from flask import Request

from omnifer.office.desk import Packing

BROTLI_LEVEL, GZIP_LEVEL = 5, 6
"""What is packed once and sent often may take some milliseconds."""
PACKINGS = (
    Packing("br", lambda plain: brotli.compress(plain, quality=BROTLI_LEVEL)),
    Packing("gzip", lambda plain: gzip.compress(plain, GZIP_LEVEL, mtime=0)),
)
PLAIN = Packing("", lambda plain: plain)


def packing_for(request: Request) -> Packing:
    """The best packing that a request accepts."""
    return next((packing for packing in PACKINGS if request.accept_encodings[packing.name] > 0), PLAIN)
