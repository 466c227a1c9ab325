"""A disk that is full, for real: what was kept is read, what cannot be kept is said in words, and freed space is all it takes."""

import contextlib
import os
import signal
import subprocess
import uuid
from collections.abc import Iterator
from pathlib import Path

import pytest
import requests

from tests.faults.house import House, Rider
from tests.patience import PATIENCE_S, until

SIZE = "150m"
"""A cluster of PostgreSQL with its log takes about 60 MB of it."""
MOST_CHANGES = 400
"""What is laid out already takes some more changes after the disk is full."""


@pytest.fixture
def small_disk() -> Iterator[Path]:
    """A file system of its own; where none may be mounted there is nothing to try it on."""
    folder = Path("/tmp") / f"omnifer-disk-{uuid.uuid4().hex[:8]}"
    folder.mkdir(mode=0o755)
    if subprocess.run(["mount", "-t", "tmpfs", "-o", f"size={SIZE}", "tmpfs", folder], capture_output=True).returncode:
        folder.rmdir()
        pytest.skip("no file system can be mounted here")
    yield folder
    subprocess.run(["umount", "-l", folder], check=True)
    folder.rmdir()


def fill(folder: Path) -> Path:
    """Take all space that is left."""
    filler = folder / "filler"
    with filler.open("wb", buffering=0) as file, contextlib.suppress(OSError):
        while True:
            file.write(bytes(65536))
    assert os.statvfs(folder).f_bavail < 64
    return filler


def change(rider: Rider, n: int) -> requests.Response:
    body = {"revision": rider.revision, "what": "Name", "name": f"Name {n} {'x' * 90}"}
    return rider._send("PATCH", rider.tour, json=body)


def test_a_full_disk_is_said_read_from_and_got_over(small_disk, tmp_path):
    house = House(small_disk)
    house.said = tmp_path / "said"
    try:
        house.start()
        rider = Rider(house)
        filler = fill(small_disk)
        kept, refused = rider.revision, None
        for n in range(MOST_CHANGES):
            answer = change(rider, n)
            if answer.status_code != 200:
                refused = answer
                break
            kept = rider.revision = answer.json()["tour"]["revision"]
        assert refused is not None
        assert (refused.status_code, refused.json()["title"]) == (507, "The disk is full")
        assert requests.get(f"{house.address}/healthz", timeout=PATIENCE_S).status_code in (200, 503)
        for _ in range(3):
            assert house.read(rider.tour)["tour"]["revision"] == kept
        filler.unlink()
        until(lambda: change(rider, MOST_CHANGES).status_code == 200, "nothing is kept though there is space again")
        house.end(signal.SIGTERM)

        filler, said = fill(small_disk), house.said.stat().st_size
        house.start(wait=False)
        assert house.served is not None
        until(lambda: house.served.poll() is not None or house.answers(), "it neither starts nor says why not")
        assert "Traceback" not in house.said.read_text()[said:]
        if house.served.poll() is None:
            house.end(signal.SIGTERM)
        filler.unlink()
        house.start()
        assert house.read(rider.tour)["tour"]["revision"] == kept + 1
    finally:
        house.remove()
