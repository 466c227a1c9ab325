"""Names of things: how long 2,000 rows take to be understood, beside `csv` reading them, and the catalogue to be loaded.

.venv/bin/python -m bench.things

Exits with 1 where the rows take more than half a second of this core, or loading more than a twentieth.
"""

import csv
import io
import sys
import time
from pathlib import Path

ROWS = 2000
BARS_S = {"rows understood": 0.5, "catalogue loaded": 0.05}
NAMES = Path(__file__).parents[1] / "tests" / "core" / "names.csv"


def main() -> int:
    names = list(csv.DictReader(NAMES.read_text(encoding="utf-8").splitlines(), delimiter=";"))
    # Names of real lists hardly come twice; each is made another by a word that nobody knows.
    rows = [
        (f"{row['name']} {'qwxyz'[n % 5]}{n}", row["g"], row["heading"]) for n in range(ROWS) for row in [names[n % len(names)]]
    ]
    text = "\n".join(";".join(row) for row in rows)
    took = {}
    begun = time.perf_counter()
    read = list(csv.reader(io.StringIO(text), delimiter=";"))
    took["rows read by csv"] = time.perf_counter() - begun
    from omnifer.core.kit.kinds import kinds
    from omnifer.core.kit.understand import understood

    begun = time.perf_counter()
    kinds()
    took["catalogue loaded"] = time.perf_counter() - begun
    understood("tent", 2.0, "")
    begun = time.perf_counter()
    known = sum(understood(name, float(grams) / 1000, heading).kind is not None for name, grams, heading in read)
    took["rows understood"] = time.perf_counter() - begun
    for what, seconds in took.items():
        print(f"{what:<20} {1000 * seconds:7.1f} ms")
    print(f"{known} of {ROWS} taken; {took['rows understood'] / took['rows read by csv']:.0f} times what csv takes")
    return int(any(took[what] > bar for what, bar in BARS_S.items()))


if __name__ == "__main__":
    sys.exit(main())
