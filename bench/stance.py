#!/usr/bin/env python3
"""A car on its springs: where it stands, what its perches do, and the turns for what is wanted. bench/stance.py"""

import time
from collections.abc import Callable

import numpy as np

from ready_corner.core.stance.car import Asked, Car, CornerSpring, effects, perch_turns, stand


def spent_ms(act: Callable[[], object], times: int = 15) -> float:
    """The median time of some runs in ms."""
    found = []
    for _ in range(times):
        start = time.perf_counter()
        act()
        found.append((time.perf_counter() - start) * 1e3)
    return float(np.median(found))


def main() -> None:
    at = ((0.0, 650.0), (0.0, -650.0), (-2300.0, 650.0), (-2300.0, -650.0))
    corners = [
        CornerSpring(x, y, 22.0 + i, 0.8, 150.0 + 3 * i, 285.0, 210.0, 28.0, floor=(0, 2, -1, 4)[i])
        for i, (x, y) in enumerate(at)
    ]
    car = Car((corners[0], corners[1], corners[2], corners[3]), 540.0, (-1180.0, 20.0), 6.0, 2.0)
    there = stand(car, (1.0, -0.5, 2.0, 0.0))
    asked = Asked(
        (float(there.heights[0]), float(there.heights[1]), float(there.heights[2]), float(there.heights[3])),
        0.5,
        there.cross,
        0.001,
    )
    print(
        f"equilibrium {spent_ms(lambda: stand(car)):.2f} ms; what each perch does {spent_ms(lambda: effects(car)):.1f} ms; perch turns for four heights and cross weight {spent_ms(lambda: perch_turns(car, asked), 5):.0f} ms"
    )


if __name__ == "__main__":
    main()
