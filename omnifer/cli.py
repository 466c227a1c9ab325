"""The same job without a browser: `omnifer road`, `assess`, `propose`, `serve`."""

import argparse
import json
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from omnifer.core.assess import assess, profile_of
from omnifer.core.load.settle import propose_load
from omnifer.core.model.road import ASCENT_THRESHOLD_M
from omnifer.core.physics.geodesy import ascent
from omnifer.core.road.profile import from_track
from omnifer.formats.bundle import MOST_BYTES, read_bundle
from omnifer.formats.gpx import read_gpx
from omnifer.formats.problem import InputProblem

BAD_INPUT = 2


def road(path: str) -> dict[str, Any]:
    """Distance, climb, points and waypoints of a GPX file."""
    found = read_gpx(_read(path))
    try:
        profile = from_track(found.track)
    except ValueError as error:
        raise InputProblem(str(error)) from None
    up, down = ascent(profile.elevation_m, ASCENT_THRESHOLD_M)
    places = []
    for waypoint in found.waypoints:
        at = profile.nearest(waypoint.lat_deg, waypoint.lon_deg)
        places.append(
            {"name": waypoint.name, "at_km": round(at[0], 3) if at else None, "off_km": round(at[1], 3) if at else None}
        )
    return {
        "name": found.track.name,
        "points": len(found.track.lat_deg),
        "distance_km": round(profile.length_km, 3),
        "has_heights": profile.has_heights,
        "ascent_m": round(up, 1),
        "descent_m": round(down, 1),
        "ascent_method": f"25 m cells, 100 m moving mean, hysteresis {ASCENT_THRESHOLD_M:g} m",
        "highest_m": round(float(profile.elevation_m.max()), 1),
        "lowest_m": round(float(profile.elevation_m.min()), 1),
        "waypoints": places,
        "remarks": found.remarks,
    }


def assess_bundle(path: str) -> dict[str, Any]:
    """The assessment of a bundle."""
    tour = read_bundle(_read(path))
    return assess(tour, profile_of(tour)).model_dump(mode="json")


def propose_bundle(path: str) -> dict[str, Any]:
    """A proposed load for a bundle: the same bundle gives the same bytes."""
    tour = read_bundle(_read(path))
    return propose_load(tour, profile_of(tour)).model_dump(mode="json")


def _read(path: str) -> bytes:
    try:
        file = Path(path)
        if file.stat().st_size > MOST_BYTES:
            raise InputProblem(f"{path} is larger than {MOST_BYTES // 2**20} MB")
        return file.read_bytes()
    except OSError as error:
        raise InputProblem(f"{path} cannot be read: {error.strerror}") from None


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
    return 0


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command; bad input is said in words on standard error, with exit status 2."""
    parser = argparse.ArgumentParser(prog="omnifer", description="Carrying everything on a bicycle for weeks.")
    commands = parser.add_subparsers(dest="command", required=True)
    for name, function, argument in (
        ("road", road, "FILE.gpx"),
        ("assess", assess_bundle, "BUNDLE"),
        ("propose", propose_bundle, "BUNDLE"),
    ):
        command = commands.add_parser(name, help=function.__doc__)
        command.add_argument("path", metavar=argument)
        command.set_defaults(function=function)
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
    try:
        answer = options.function(options.path)
    except (InputProblem, ValueError) as problem:
        print(f"omnifer {options.command}: {problem}", file=sys.stderr)
        return BAD_INPUT
    json.dump(answer, sys.stdout, ensure_ascii=False, indent=1, sort_keys=True, allow_nan=False)
    print()
    return 0


if __name__ == "__main__":
    sys.exit(main())
