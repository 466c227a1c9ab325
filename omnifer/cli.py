"""The same job without a browser: `omnifer road`, `climate`, `assess`, `season`, `rehearse`, `propose`, `list`; serving."""

import argparse
import json
import sys
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any

from omnifer import __version__
from omnifer.formats.problem import InputProblem

BAD_INPUT = 2


def copy(command: str, file: Path) -> int:
    """Copy all that is kept, or bring a copy back; the exit status."""
    from omnifer.backup import BackupProblem, back_up, restore
    from omnifer.serve import data_folder
    from omnifer.store.cluster import ClusterProblem
    from omnifer.store.database import AddressError

    try:
        if command == "backup":
            back_up(data_folder(), file.absolute())
            print(f"All that is kept is now in {file} as well.")
        else:
            before = restore(data_folder(), file.absolute())
            print(f"{file} is back in place. What was there before is kept as the database {before} until the next restore.")
    except (BackupProblem, ClusterProblem, AddressError) as problem:
        print(f"omnifer {command}: {problem}. Nothing was changed.", file=sys.stderr)
        return 1
    except OSError as problem:
        print(f"omnifer {command}: {file} cannot be used: {problem.strerror or problem}. Nothing was changed.", file=sys.stderr)
        return 1
    return 0


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command; bad input is said in words on standard error, with exit status 2."""
    parser = argparse.ArgumentParser(prog="omnifer", description="Carrying everything on a bicycle for weeks.")
    parser.add_argument("--version", action="version", version=f"Omnifer {__version__}")
    commands = parser.add_subparsers(dest="command", required=True)
    for name, words, *wanted in (
        ("road", "Distance, climb, points, waypoints, places and climate along a track file.", "FILE"),
        ("climate", "The climate of a place month by month, from the shipped grid.", "LAT", "LON", "HEIGHT"),
        ("assess", "The assessment of a bundle.", "BUNDLE"),
        ("season", "The same tour begun every second week of a year, in both directions.", "BUNDLE"),
        ("rehearse", "The tour played many times, with weather, use, places and faults drawn at random.", "BUNDLE"),
        ("propose", "A proposed load for a bundle: the same bundle gives the same bytes.", "BUNDLE"),
        ("list", "What is understood of a list of things, a JSON object a row.", "FILE"),
    ):
        commands.add_parser(name, help=words).add_argument("given", nargs=len(wanted), metavar=tuple(wanted))
    commands.choices["road"].add_argument("--map", metavar="EXTRACT", help="an OpenStreetMap extract: what it has along the road")
    rehearsing = commands.choices["rehearse"]
    rehearsing.add_argument("--plays", type=int, metavar="N", help="how often it is played")
    rehearsing.add_argument("--seed", type=int, metavar="S", help="of the fate that is drawn")
    serve = commands.add_parser("serve", help="Serve the application; bin/start calls this.")
    serve.add_argument("--empty", action="store_true", help="do not load the sample tour")
    serve.add_argument("--reset-demo", action="store_true", help="load the sample tour anew")
    for name, words in (("backup", "Copy all that is kept into a file"), ("restore", "Bring such a copy back")):
        copying = commands.add_parser(name, help=f"{words}; Omnifer may run meanwhile. bin/{name} calls this.")
        copying.add_argument("path", metavar="FILE")
    options = parser.parse_args(arguments)
    if options.command == "serve":
        from omnifer.serve import serve as run

        return run(empty=options.empty, reset_demo=options.reset_demo)
    if options.command in ("backup", "restore"):
        return copy(options.command, Path(options.path))
    # What a command needs is loaded with it: serving begins at once.
    from omnifer.commands import assess_bundle, climate, list_things, propose_bundle, rehearse, road, season

    if options.command == "list":
        try:
            for row in list_things(*options.given):
                print(json.dumps(row, ensure_ascii=False, allow_nan=False))
        except (InputProblem, ValueError) as problem:
            print(f"omnifer list: {problem}", file=sys.stderr)
            return BAD_INPUT
        return 0
    functions: dict[str, Callable[..., dict[str, Any]]]
    functions = {
        "road": road, "climate": climate, "assess": assess_bundle, "season": season, "rehearse": rehearse,
        "propose": propose_bundle,
    }  # fmt: skip
    try:
        more = {"extract": options.map} if options.command == "road" else {}
        if options.command == "rehearse":
            given = {"plays": options.plays, "seed": options.seed}
            more = {name: value for name, value in given.items() if value is not None}
        answer = functions[options.command](*options.given, **more)
    except (InputProblem, ValueError) as problem:
        print(f"omnifer {options.command}: {problem}", file=sys.stderr)
        return BAD_INPUT
    json.dump(answer, sys.stdout, ensure_ascii=False, indent=1, sort_keys=True, allow_nan=False)
    print()
    return 0


if __name__ == "__main__":
    sys.exit(main())
