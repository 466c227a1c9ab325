"""The climate and the places along 8,000 km of 300,000 points: the first look, later ones, and what ships.

The peer is one bare pass over the same track: its length by the same package as the application's.
"""

import subprocess
import sys
import time

import numpy as np

from omnifer.core.model.road import Road
from omnifer.core.physics.geodesy import segment_lengths
from omnifer.core.road.beside import places_beside
from omnifer.core.road.profile import Profile
from omnifer.core.road.stations import offered
from omnifer.core.world import cells

POINTS, KM = 300_000, 8_000.0
BOUND_S, MOST_MB = 0.3, 12.0


def road() -> Profile:
    """From the Atlantic to Mongolia, in bends of a hundred kilometres over hills."""
    along = np.linspace(0, 1, POINTS)
    lat, lon = 38.7 + 9.2 * along + 0.5 * np.sin(along * 500), -9.0 + 116 * along
    heights = 600 + 500 * np.sin(along * 900)
    return Profile(along * KM, heights, np.zeros(POINTS), lat, lon, has_heights=True)


def looked(profile: Profile) -> tuple[float, int, int]:
    """Seconds, stations and places of one look."""
    began = time.process_time()
    nodes = profile.nodes
    stations, places = offered(nodes, Road().stations), places_beside(nodes)
    return time.process_time() - began, len(stations), len(places)


def main() -> int:
    if "first" in sys.argv:
        print(looked(road())[0])
        return 0
    bare = []
    for _ in range(5):
        profile = road()
        began = time.process_time()
        segment_lengths(profile.lat_deg, profile.lon_deg)
        bare.append(time.process_time() - began)
    looks = [looked(road()) for _ in range(5)]
    alone = subprocess.run([sys.executable, "-m", "bench.world", "first"], capture_output=True, text=True, check=True)
    size = sum(file.stat().st_size for file in cells.DATA.iterdir()) / 1e6
    later, pass_s = sorted(look[0] for look in looks[1:])[2], sorted(bare)[2]
    print(f"{looks[0][1]} stations, {looks[0][2]} places; {size:.2f} MB ship (bound {MOST_MB:g})")
    print(f"later looks {later:.3f} s (bound {BOUND_S}), {later / pass_s:.1f} of a bare pass ({pass_s:.3f} s)")
    print(f"the first of a process {float(alone.stdout):.2f} s")
    return int(later > BOUND_S or size > MOST_MB)


if __name__ == "__main__":
    sys.exit(main())
