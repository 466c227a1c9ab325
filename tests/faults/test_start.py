"""Everything that can be killed is killed once, while a rider works; and only what is ours is ended."""

import contextlib
import json
import signal
import subprocess
from pathlib import Path

from bench.faults import run
from omnifer.processes import Watch, end_leftovers
from omnifer.serve import PROCESSES
from tests.patience import PATIENCE_S, until

TRIED = ("start killed while serving", "database killed", "worker killed in a search")
"""Of those of the bench, which takes all of them many times."""


def test_nothing_is_lost_left_or_stuck_whatever_is_killed():
    tried = run(1, TRIED, pause_s=0.2)
    for name, tally in tried.items():
        assert (name, tally.rounds, tally.lost, tally.left) == (name, 1, 0, 0)
        assert [words for words in tally.said if "took" not in words and "ran on" not in words] == []


def test_what_a_service_leaves_behind_ends_with_it(tmp_path):
    watch = Watch(tmp_path / PROCESSES)
    with_child = ["sh", "-c", "sleep 61 & exec sleep 62"]
    watch.begin("service", lambda: subprocess.Popen(with_child, start_new_session=True))
    leader = int(next(iter(json.loads((tmp_path / PROCESSES).read_text()))))
    until(lambda: len(living(leader)) == 2, "the service does not begin its child")
    watch.end(last="none")
    assert living(leader) == []


def living(group: int) -> list[int]:
    """Processes of a group that are neither dead nor dying."""
    found = []
    for process in Path("/proc").glob("[0-9]*"):
        with contextlib.suppress(OSError):
            state, _, its_group = (process / "stat").read_text().rpartition(")")[2].split()[:3]
            found += [int(process.name)] if int(its_group) == group and state not in "ZX" else []
    return found


def test_only_its_own_old_processes_are_ended(tmp_path):
    """A process of that number which began at another time is somebody else's."""
    ours, theirs = (subprocess.Popen(["sleep", "60"]) for _ in range(2))
    began = Path(f"/proc/{ours.pid}/stat").read_text().rpartition(")")[2].split()[19]
    (tmp_path / PROCESSES).write_text(f'{{"{ours.pid}": "{began}", "{theirs.pid}": "1", "999999": "5"}}')
    end_leftovers(tmp_path / PROCESSES)
    assert ours.wait(timeout=PATIENCE_S) == -signal.SIGTERM
    assert theirs.poll() is None
    assert not (tmp_path / PROCESSES).exists()
    theirs.kill()
    theirs.wait()
    (tmp_path / PROCESSES).write_text("cut off in the midd")
    end_leftovers(tmp_path / PROCESSES)
    assert not (tmp_path / PROCESSES).exists()
