"""Copies of everything that is kept, made and brought back while Omnifer runs; PostgreSQL's own dump, compressed."""

import datetime as dt
import os
import secrets
import subprocess
from pathlib import Path

import psycopg
from psycopg import sql

from omnifer.store.cluster import DATABASE, MASTER, ROLE, Cluster, binaries
from omnifer.store.database import AddressError, migrate, plain_address, told_safely

DAILY, WEEKLY = 7, 4
"""Copies kept: the newest of so many days, and of so many weeks before."""
DUE = dt.timedelta(days=1)
RULE = f"A copy is made each day; those of {DAILY} days and of {WEEKLY} weeks before are kept."
ENDING = ".dump"
PASSING = ("assessed", "errand*", "procrastinate_*")
"""Tables whose rows are worked out again, or belong to what is under way."""


class BackupProblem(Exception):
    """A copy cannot be made or brought back; the message says why and what to do."""


def make(address: str, file: Path) -> None:
    """Write a copy of a database beside its place, and move it there when it is whole. Raises BackupProblem."""
    file.parent.mkdir(parents=True, exist_ok=True)
    beside = file.with_name(f"{file.name}.{secrets.token_hex(4)}.new")
    tables = [f"--exclude-table-data={table}" for table in PASSING]
    try:
        _run(address, "pg_dump", "--format=custom", f"--file={beside}", *tables)
        beside.rename(file)
    finally:
        beside.unlink(missing_ok=True)


def nightly(cluster: Cluster, folder: Path) -> str:
    """Make today's copy where it is due, and let old ones go; what was done, in words."""
    now = dt.datetime.now()
    copies = sorted(folder.glob(f"omnifer-*{ENDING}"))
    if copies and now - _made(copies[-1]) < DUE:
        return ""
    try:
        if not cluster.running():
            return ""
        make(cluster.address(role=MASTER), folder / f"omnifer-{now:%Y-%m-%d-%H%M}{ENDING}")
    except BackupProblem as problem:
        return f"No copy could be made: {problem}."
    for old in forgotten(sorted(folder.glob(f"omnifer-*{ENDING}"))):
        old.unlink()
    return f"A copy was kept in {folder}."


def _made(copy: Path) -> dt.datetime:
    return dt.datetime.strptime(copy.stem.removeprefix("omnifer-"), "%Y-%m-%d-%H%M")


def forgotten(copies: list[Path]) -> list[Path]:
    """Of copies in the order of their dates those that the rule does not keep."""
    by_day = {_made(copy).date(): copy for copy in copies}
    days = sorted(by_day)
    kept = {by_day[day] for day in days[-DAILY:]}
    by_week = {day.isocalendar()[:2]: by_day[day] for day in days[:-DAILY]}
    kept |= {by_week[week] for week in sorted(by_week)[-WEEKLY:]}
    return [copy for copy in copies if copy not in kept]


def back_up(folder: Path, file: Path) -> None:
    """A copy of what the data folder holds, whether its server runs or not. Raises BackupProblem, ClusterProblem."""
    if address := os.environ.get("DATABASE_URL"):
        return make(plain_address(address), file)
    cluster = Cluster(folder)
    if cluster.running():
        return make(cluster.address(role=MASTER), file)
    cluster.start()
    try:
        return make(cluster.address(role=MASTER), file)
    finally:
        cluster.stop()


def restore(folder: Path, file: Path) -> str:
    """Bring a copy back in place of what is there, whether its server runs or not; the name of the database that holds what was
    there before. Raises BackupProblem, ClusterProblem."""
    if not file.is_file():
        raise BackupProblem(f"There is no file {file}")
    if "DATABASE_URL" in os.environ:
        raise BackupProblem("Bring a copy back with pg_restore on the server of DATABASE_URL, into an empty database")
    cluster = Cluster(folder)
    ours = not cluster.running()
    if ours:
        cluster.start()
    try:
        return _restore(cluster, file)
    finally:
        if ours:
            cluster.stop()


def _restore(cluster: Cluster, file: Path) -> str:
    """Into a new database first; it takes its place in one moment, and what was there stays beside it."""
    new, before = f"{DATABASE}_new_{secrets.token_hex(4)}", f"{DATABASE}_before_{dt.datetime.now():%Y%m%d_%H%M%S}"
    with psycopg.connect(cluster.address("postgres", MASTER), autocommit=True) as master:

        def do(words: str, *names: str) -> None:
            master.execute(sql.SQL(words).format(*map(sql.Identifier, names)))

        do("CREATE DATABASE {} OWNER {}", new, ROLE)
        try:
            _run(cluster.address(new, MASTER), "pg_restore", "--exit-on-error", str(file.resolve()))
            migrate(cluster.address(new))
        except (BackupProblem, AddressError):
            do("DROP DATABASE {} WITH (FORCE)", new)
            raise
        # Whoever works on it meanwhile is sent away, and told that it is back in a moment.
        do("ALTER DATABASE {} ALLOW_CONNECTIONS false", DATABASE)
        try:
            master.execute(
                "SELECT pg_terminate_backend(pid, 5000) FROM pg_stat_activity WHERE datname IN (%s, %s)", (DATABASE, new)
            )
            with master.transaction():
                do("ALTER DATABASE {} RENAME TO {}", DATABASE, before)
                do("ALTER DATABASE {} RENAME TO {}", new, DATABASE)
        except psycopg.Error:
            do("ALTER DATABASE {} ALLOW_CONNECTIONS true", DATABASE)
            raise
        older = "SELECT datname FROM pg_database WHERE datname LIKE %s AND datname <> %s"
        for (name,) in master.execute(older, (f"{DATABASE}\\_before\\_%", before)).fetchall():
            do("DROP DATABASE {} WITH (FORCE)", name)
    return before


def _run(address: str, program: str, *arguments: str) -> None:
    """Run one of PostgreSQL's programs on a database; its password goes through the environment. Raises BackupProblem."""
    told = psycopg.conninfo.conninfo_to_dict(address)
    environment = os.environ | {"PGPASSWORD": str(told.pop("password", "") or os.environ.get("PGPASSWORD", ""))}
    plain = psycopg.conninfo.make_conninfo(**told)  # type: ignore[arg-type]
    command = [str(binaries() / program), f"--dbname={plain}", *arguments]
    done = subprocess.run(command, env=environment, capture_output=True, text=True, check=False)
    if done.returncode != 0:
        last = (done.stderr.strip().splitlines() or ["nothing of why it ended"])[-1]
        raise BackupProblem(f"{program} says: {told_safely(RuntimeError(last), address)}")
