"""Everything that can be killed is killed once, while a rider works; and only what is ours is ended."""

import signal
import subprocess
from pathlib import Path

import pytest

from bench.faults import run
from omnifer.processes import end_leftovers
from omnifer.serve import PROCESSES

TRIED = ("terminal closed (SIGHUP)", "start killed while serving", "database killed", "worker killed in a search")
"""Of those of the bench, which takes all of them many times."""


@pytest.mark.timeout(400)
def test_nothing_is_lost_left_or_stuck_whatever_is_killed():
    for name, tally in run(1, TRIED).items():
        assert (name, tally.rounds, tally.lost, tally.left) == (name, 1, 0, 0)
        assert [words for words in tally.said if "took" not in words and "ran on" not in words] == []


def test_only_its_own_old_processes_are_ended(tmp_path):
    """A process of that number which began at another time is somebody else's."""
    ours, theirs = (subprocess.Popen(["sleep", "60"]) for _ in range(2))
    began = Path(f"/proc/{ours.pid}/stat").read_text().rpartition(")")[2].split()[19]
    (tmp_path / PROCESSES).write_text(f'{{"{ours.pid}": "{began}", "{theirs.pid}": "1", "999999": "5"}}')
    end_leftovers(tmp_path / PROCESSES)
    assert ours.wait(timeout=5) == -signal.SIGTERM
    assert theirs.poll() is None
    assert not (tmp_path / PROCESSES).exists()
    theirs.kill()
    theirs.wait()
    (tmp_path / PROCESSES).write_text("cut off in the midd")
    end_leftovers(tmp_path / PROCESSES)
    assert not (tmp_path / PROCESSES).exists()
