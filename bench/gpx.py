"""A GPX file of 300,000 points: our reader beside gpxpy and GDAL (pyogrio), time and memory, each in a process of its own.

python -m bench.gpx [--points 300000]
"""

import argparse
import resource
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from bench.roads import long_track
from omnifer.formats.gpx import read_gpx


def _ours(content: bytes) -> int:
    return len(read_gpx(content).track.lat_deg)


def _gpxpy(content: bytes) -> int:
    import gpxpy

    return gpxpy.parse(content.decode()).get_points_no()


def _gdal(content: bytes) -> int:
    """GDAL's reader, which keeps its points as packed geometries."""
    import pyogrio.raw

    return len(pyogrio.raw.read(content, layer="track_points", columns=["ele", "time"])[2])


READERS: dict[str, Callable[[bytes], int]] = {"omnifer": _ours, "gpxpy": _gpxpy, "gdal": _gdal}


def write(path: Path, points: int) -> None:
    """A GPX file as devices write them: a height and a time with each point."""
    track = long_track(points, 8400)
    with path.open("w") as out:
        out.write(
            '<?xml version="1.0"?>\n<gpx version="1.1" creator="bench" xmlns="http://www.topografix.com/GPX/1/1"><trk><trkseg>\n'
        )
        for n, (lat, lon, height) in enumerate(zip(track.lat_deg, track.lon_deg, track.elevation_m, strict=True)):
            stamp = f"2027-05-{1 + n // 86400 % 28:02d}T{n // 3600 % 24:02d}:{n // 60 % 60:02d}:{n % 60:02d}Z"
            out.write(f'<trkpt lat="{lat}" lon="{lon}"><ele>{height}</ele><time>{stamp}</time></trkpt>\n')
        out.write("</trkseg></trk></gpx>\n")


def _read(name: str, path: Path) -> None:
    content = path.read_bytes()
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    started = time.perf_counter()
    count = READERS[name](content)
    taken = time.perf_counter() - started
    print(count, taken, resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024 - before)


def main() -> None:
    arguments = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    arguments.add_argument("--points", type=int, default=300_000)
    arguments.add_argument("--read", nargs=2, help=argparse.SUPPRESS)
    wanted = arguments.parse_args()
    if wanted.read:
        _read(wanted.read[0], Path(wanted.read[1]))
        return
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "long.gpx"
        write(path, wanted.points)
        print(f"{wanted.points} points, {path.stat().st_size / 1e6:.0f} MB")
        figures = {}
        for name in READERS:
            command = [sys.executable, "-m", "bench.gpx", "--read", name, str(path)]
            count, taken, memory = subprocess.run(command, check=True, capture_output=True, text=True).stdout.split()
            assert int(count) == wanted.points, (name, count)
            figures[name] = float(taken), float(memory)
        for name, (taken, memory) in figures.items():
            slower, larger = (f / o for f, o in zip((taken, memory), figures["omnifer"], strict=True))
            print(f"{name:>8}: {taken:5.1f} s ({slower:4.1f} x)  {memory:6.0f} MB more ({larger:4.1f} x)")


if __name__ == "__main__":
    main()
