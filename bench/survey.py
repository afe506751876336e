#!/usr/bin/env python3
"""The survey: adjusting with covariance and tests, the residual of what is being typed, what to measure. bench/survey.py

Figures are times of one run on this machine, beside a plain least squares (scipy, the same residuals) as a ratio.
"""

import argparse
import time
from collections.abc import Callable
from functools import partial

import numpy as np
from scipy.optimize import least_squares

from ready_corner.core.engines.survey.network import adjust
from ready_corner.core.engines.survey.propose import Means, possible, propose
from ready_corner.core.engines.survey.readings import Reading, model
from ready_corner.core.engines.survey.wrong import find_wrong
from ready_corner.core.judge.frame import Frame, expected
from ready_corner.core.plan.plan import Axle, Plan
from ready_corner.core.quantities.notation import Units
from ready_corner.core.record.jig_acts import JigLog, Noted, SurveyRead


def spent_ms(act: Callable[[], object], times: int = 9, most: int = 1000) -> tuple[float, float]:
    """The median and the greatest time of some runs in ms."""
    found = []
    for _ in range(min(times, most)):
        start = time.perf_counter()
        act()
        found.append((time.perf_counter() - start) * 1e3)
    return float(np.median(found)), max(found)


def main() -> None:
    parser = argparse.ArgumentParser(description=(__doc__ or "").split("\n", maxsplit=1)[0])
    parser.add_argument("--times", type=int, default=1000, help="no more than so often")
    spent = partial(spent_ms, most=parser.parse_args().times)
    rng = np.random.default_rng(3)
    truth = {f"frame.P{i}": tuple(float(v) for v in rng.uniform([-2300, -600, 120], [150, 600, 520])) for i in range(40)}
    every = possible(truth, Means(0.6, 0.4))
    heights = [r for r in every if r.kind == "height" and not r.id.startswith("again")]
    distances = [r for r in every if r.kind == "distance"]
    picked = [*heights, *(distances[i] for i in rng.choice(len(distances), 210, replace=False))]
    readings = [Reading(r.id, r.kind, r.points, r.value + rng.normal(0, r.u), r.u) for r in picked]
    start = {n: np.asarray(p) + rng.uniform(-25, 25, 3) for n, p in truth.items()}
    whole = spent(lambda: adjust(readings, start))
    names = list(truth)

    def residuals(x: np.ndarray) -> list[float]:
        places = dict(zip(names, x.reshape(-1, 3), strict=True))
        return [(model(r, places)[0] - r.value) / r.u for r in readings]

    begin = np.array([start[n] for n in names]).ravel()
    plain = spent(lambda: least_squares(residuals, begin), 1)
    network = adjust(readings, start)
    bad = [Reading(r.id, r.kind, r.points, r.value + 25.4 * (i == 120), r.u) for i, r in enumerate(readings)]
    unsound = adjust(bad, start)
    wrong = spent(lambda: find_wrong(unsound, start), 3)
    few = {f"P{i}": truth[f"frame.P{i}"] for i in range(14)}
    pool = [r for r in possible(few, Means(0.6, 0.4)) if not r.id.startswith("again")]
    some = [pool[i] for i in rng.choice(len(pool), 50, replace=False)]
    some = [*some, *(r for r in pool if r.kind == "height" and r not in some)][:64]
    several = [
        Reading(r.id, r.kind, r.points, r.value + rng.normal(0, r.u) + 25.4 * (i % 12 == 5), r.u) for i, r in enumerate(some)
    ]
    disagree = adjust(several, few)
    five = spent(lambda: find_wrong(disagree, few), 5)
    once = spent(lambda: adjust(several, few), 5)
    plan = Plan("Bench", Units(), 2300.0, Axle(1300.0, 350.0, 560.0), Axle(1300.0, 350.0, 560.0), points=truth)
    log = JigLog(
        tuple(Noted(i, SurveyRead(r.kind, r.points, r.value, "tape"), "on the jig") for i, r in enumerate(readings, start=2))
    )
    frame = Frame(plan, log)
    assert frame.network is not None
    asked = SurveyRead("distance", (names[0], names[7]), 900.0, "tape")
    typed = spent(lambda: expected(frame, asked))
    twenty = dict(list(truth.items())[:20])
    what = spent(lambda: propose(twenty, Means(0.6, 0.4), 1.5), 3)
    found = propose(twenty, Means(0.6, 0.4), 1.5)
    print(
        f"40 points, {len(readings)} readings, {network.dof} to spare: adjusted with covariance and tests in {whole[0]:.0f} ms (at most {whole[1]:.0f}), {plain[0] / whole[0]:.0f} times less than plain least squares"
    )
    print(f"one wrong reading found in {wrong[0]:.0f} ms; residual of what is typed {typed[0]:.2f} ms")
    print(
        f"14 points, {len(several)} readings, {sum(i % 12 == 5 for i in range(len(several)))} wrong: found in {five[0]:.0f} ms (at most {five[1]:.0f}), {five[0] / once[0]:.0f} times one adjustment"
    )
    print(f"what to measure for 20 points: {what[0]:.0f} ms, {len(found.list)} readings, ± {found.expanded:.2f} mm")


if __name__ == "__main__":
    main()
