#!/usr/bin/env python3
"""A car on its springs: where it stands, what its perches do, and the turns for what is wanted. bench/stance.py"""

import argparse
import time
from collections.abc import Callable
from functools import partial
from importlib.resources import files

import numpy as np

from ready_corner.core.advise.standing import stance
from ready_corner.core.judge.marks import Evaluation, evaluate
from ready_corner.core.model.four_springs import Asked, Car, CornerSpring, effects, perch_turns, stand
from ready_corner.core.record.logbook import Entry, fold_on
from ready_corner.core.record.readings import Reading
from ready_corner.exchange.files import read_logbook
from ready_corner.web.stance import stance_view


def spent_ms(act: Callable[[], object], times: int = 15, most: int = 1000) -> float:
    """The median time of some runs in ms."""
    found = []
    for _ in range(min(times, most)):
        start = time.perf_counter()
        act()
        found.append((time.perf_counter() - start) * 1e3)
    return float(np.median(found))


def main() -> None:
    parser = argparse.ArgumentParser(description=(__doc__ or "").split("\n", maxsplit=1)[0])
    parser.add_argument("--times", type=int, default=1000, help="no more than so often")
    spent = partial(spent_ms, most=parser.parse_args().times)
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
        f"equilibrium {spent(lambda: stand(car)):.2f} ms; what each perch does {spent(lambda: effects(car)):.1f} ms; perch turns for four heights and cross weight {spent(lambda: perch_turns(car, asked), 5):.0f} ms"
    )
    for name, reading in (("tern", Reading("height", "LF", 133.35, "tape")), ("heather", Reading("hub", "RR", 557.0, "tape"))):
        _, state = read_logbook((files("ready_corner.demo") / f"{name}.logbook.json").read_bytes())
        first = time.perf_counter()
        before = evaluate(state)
        stance_view(before, stance(before))
        first = (time.perf_counter() - first) * 1e3

        def judged(state=state, before=before, reading=reading) -> Evaluation:
            after = evaluate(fold_on(state, [Entry("bench", state.number + 1, reading)]), before)
            assert after.marks
            return after

        def answer(judged=judged) -> Evaluation:
            after = judged()
            stance_view(after, stance(after))
            return after

        plain = spent(judged)
        whole = spent(answer)
        print(
            f"{name}: the whole stage after a reading {whole:.0f} ms ({whole / plain:.1f} of judging every mark), {first:.0f} ms the first time"
        )


if __name__ == "__main__":
    main()
