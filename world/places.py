"""Packs the gazetteer that ships: places of 500 people and more, with their position and size.

    python places.py CITIES500.json OUT_FOLDER

Writes `places.npy` (a row for each place, ordered by the degree in which it lies), `place_names.bin` (their names, one after the
other, UTF-8) and `countries.txt` (the codes that rows point to).
"""

import json
import sys
from pathlib import Path

import numpy as np

from omnifer.core.world.places import ROW, degree_of, pack_people


def main(source: Path, out: Path) -> None:
    """Read all places once and write the three files."""
    found = list(json.loads(source.read_text()).values())
    lat, lon = (np.array([place[key] for place in found]) for key in ("latitude", "longitude"))
    order = np.lexsort((lon, lat, degree_of(lat, lon)))
    found, lat, lon = [found[i] for i in order], lat[order], lon[order]
    countries = sorted({place["countrycode"] for place in found})
    names = [place["name"].encode() for place in found]
    rows = np.zeros(len(found), dtype=ROW)
    degree = degree_of(lat, lon)
    rows["lat"] = np.rint((lat + 90 - degree // 360) * 65535)
    rows["lon"] = np.rint(((lon + 180) % 360 - degree % 360) * 65535)
    rows["people"] = pack_people(np.array([place["population"] for place in found]))
    rows["country"] = [countries.index(place["countrycode"]) for place in found]
    rows["bytes"] = [len(name) for name in names]
    np.save(out / "places.npy", rows)
    np.save(out / "place_degrees.npy", np.searchsorted(degree, np.arange(180 * 360 + 1)).astype(np.int32))
    (out / "place_names.bin").write_bytes(b"".join(names))
    (out / "countries.txt").write_text("\n".join(countries) + "\n")
    print(f"{len(found):,} places in {len(countries)} countries")


if __name__ == "__main__":
    main(*(Path(argument) for argument in sys.argv[1:3]))
