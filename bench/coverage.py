#!/usr/bin/env python3
"""How many drawn cars lie inside U: every kind of mark, read in every way.

bench/coverage.py [--cars N] [--way WORDS]   prints the least and the greatest share over the corners of a kind, and says which lie outside 93 to 98 in 100.
"""

import argparse
import sys
import time
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parents[1]))

from tests.core.drawn import HOW_READ, inside_u

LEAST, MOST = 0.93, 0.98


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.split("\n", maxsplit=1)[0])
    parser.add_argument("--cars", type=int, default=2000)
    parser.add_argument("--way", default="")
    asked = parser.parse_args()
    ways, start, outside = [w for w in HOW_READ if asked.way in w], time.perf_counter(), []
    with ProcessPoolExecutor() as pool:
        for way, share in zip(ways, pool.map(inside_u, ways, [asked.cars] * len(ways)), strict=True):
            for kind, own in share.items():
                low, high = min(own.values()), max(own.values())
                print(f"{way:40s} {kind:12s} {100 * low:5.1f}" + (f" to {100 * high:.1f}" if high > low else ""), flush=True)
            outside += [
                f"{way}, {m}: {100 * v:.1f}" for own in share.values() for m, v in own.items() if not LEAST <= v <= MOST
            ]
    print(
        f"{asked.cars} cars a way, {len(ways)} ways, {time.perf_counter() - start:.0f} s; outside {LEAST:.0%} to {MOST:.0%}: {outside or 'none'}"
    )


if __name__ == "__main__":
    main()
