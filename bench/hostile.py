"""What outsiders may send: cases that schemathesis makes of the interface's own document, bad input, foreign tracks.

    python -m bench.hostile [CASES]

At least so many cases (5,000); exits with 1 where an answer is a 5xx, or is none that the document describes.
"""

import shutil
import sys
import tempfile
import time
from pathlib import Path

from omnifer.api.app import create_app
from omnifer.api.openapi import document
from omnifer.store.cluster import Cluster
from omnifer.store.database import migrate
from tests.api.test_api import attacked
from tests.hostile.inputs import inputs
from tests.hostile.test_exports import FOREIGN


def main() -> int:
    wanted = int(sys.argv[1]) if len(sys.argv) > 1 else 5000
    folder = Path(tempfile.mkdtemp(dir="/dev/shm" if Path("/dev/shm").is_dir() else None))
    cluster = Cluster(folder, fast_and_forgetful=True)
    address = cluster.start()
    try:
        migrate(address)
        app = create_app(address, "bench")
        app.config["WTF_CSRF_ENABLED"] = False
        operations = sum(len(methods) for methods in document(app)["paths"].values())
        began, each, sent = time.monotonic(), -(-wanted // operations), 0
        while sent < wanted:
            sent += attacked(app, each)
            each *= 2
        took = time.monotonic() - began
        print(f"schemathesis: {operations} operations, {sent:,} cases in {took:.0f} s, no 5xx, none undocumented")
        print(f"by hand (tests/hostile): {sum(1 for _ in inputs())} bad inputs, {len(FOREIGN)} foreign tracks")
    finally:
        cluster.stop()
        shutil.rmtree(folder, ignore_errors=True)
    return 0


if __name__ == "__main__":
    sys.exit(main())
