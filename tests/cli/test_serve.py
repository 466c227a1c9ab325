"""Starting: what stands in the way is said in words, and nothing is left behind."""

import socket
import subprocess
import sys

import pytest

from omnifer import serve
from omnifer.store.cluster import ClusterProblem, only_one


def start(monkeypatch, capsys, **environment: str) -> tuple[int, str]:
    for name in ("DATABASE_URL", "OMNIFER_DATA", "OMNIFER_PORT"):
        monkeypatch.delenv(name, raising=False)
    for name, value in environment.items():
        monkeypatch.setenv(name, value)
    status = serve.serve(empty=True, reset_demo=False)
    return status, capsys.readouterr().err


@pytest.mark.parametrize("port", ["abc", "0", "70000", "-1", ""])
def test_a_port_that_is_none(port, monkeypatch, capsys, tmp_path):
    status, said = start(monkeypatch, capsys, OMNIFER_PORT=port, OMNIFER_DATA=str(tmp_path))
    assert status == 1
    assert "number from 1 to 65535" in said


def test_a_port_that_is_taken(monkeypatch, capsys, tmp_path):
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        status, said = start(monkeypatch, capsys, OMNIFER_PORT=str(port), OMNIFER_DATA=str(tmp_path))
    assert status == 1
    assert f"Port {port} is taken" in said
    assert not (tmp_path / "postgres").exists()


def test_a_server_that_does_not_answer(monkeypatch, capsys, tmp_path):
    address = "postgresql://nobody@127.0.0.1:1/nothing"
    status, said = start(monkeypatch, capsys, DATABASE_URL=address, OMNIFER_DATA=str(tmp_path), OMNIFER_PORT="8999")
    assert status == 1
    assert "DATABASE_URL does not answer" in said


def test_two_starts_on_one_folder(tmp_path):
    with only_one(tmp_path) as lock:
        lock.write("http://127.0.0.1:1234/")
        lock.flush()
        with pytest.raises(ClusterProblem, match="already runs on this data folder"), only_one(tmp_path):
            raise AssertionError("the lock was given twice")
    with only_one(tmp_path):
        pass


def test_the_chosen_folder_is_used(monkeypatch, tmp_path):
    monkeypatch.setenv("OMNIFER_DATA", str(tmp_path / "here"))
    assert serve.data_folder() == tmp_path / "here"


def test_help_and_an_unknown_command():
    shown = subprocess.run([sys.executable, "-m", "omnifer.cli", "--help"], capture_output=True, text=True, check=True)
    for command in ("road", "assess", "propose", "serve"):
        assert command in shown.stdout
    wrong = subprocess.run([sys.executable, "-m", "omnifer.cli", "fly"], capture_output=True, text=True, check=False)
    assert wrong.returncode == 2
    assert "fly" in wrong.stderr
