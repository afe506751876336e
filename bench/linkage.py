#!/usr/bin/env python3
"""Sweeps against the plain way an engineer would script them: scipy's fsolve on the six pose unknowns, row by row, warm-started.

The same equations, travel and machine, in one run; figures are ratios of time per position. bench/linkage.py [--rows N]
"""

import argparse
import time
import warnings
from collections.abc import Callable
from importlib.resources import files

import numpy as np
from scipy.optimize import fsolve

from ready_corner.core.engines.linkage.mechanism import Shape
from ready_corner.core.engines.linkage.solve import solve_near
from ready_corner.core.engines.linkage.space import rotation_by
from ready_corner.core.engines.linkage.sweep import answers_at, sweep
from ready_corner.core.model.bodies import bodies_of
from ready_corner.exchange.files import read_plan


def best_s(act: Callable[[], object], times: int) -> tuple[float, float]:
    """The least and the median time of some runs in seconds."""
    found = []
    for _ in range(times):
        start = time.perf_counter()
        act()
        found.append(time.perf_counter() - start)
    return min(found), float(np.median(found))


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.split("\n", maxsplit=1)[0])
    parser.add_argument("--rows", type=int, default=2000)
    rows = parser.parse_args().rows
    plan = read_plan((files("ready_corner.demo") / "heather.plan.json").read_bytes()).to_core()
    body = bodies_of(plan, "front")[0]
    travel = np.linspace(-80.0, 80.0, rows)

    shape, links = body.shape, body.shape.mechanism.links
    inner = np.array([shape.point(link.body) for link in links])
    outer = np.array([shape.point(link.upright) for link in links]) - shape.centre
    lengths, centre = shape.links, shape.centre

    def equations(x: np.ndarray, z: float) -> np.ndarray:
        away = centre + x[3:] + outer @ rotation(x[:3]).T - inner
        return np.append(np.sqrt((away**2).sum(axis=1)) - lengths, x[5] - z)

    def rotation(w: np.ndarray) -> np.ndarray:
        angle = np.sqrt(w @ w)
        if angle < 1e-12:
            return np.eye(3)
        x, y, z = w / angle
        k = np.array([[0, -z, y], [z, 0, -x], [-y, x, 0]])
        return np.eye(3) + np.sin(angle) * k + (1 - np.cos(angle)) * (k @ k)

    poses = np.zeros((rows, 6))

    def plainly() -> None:
        x = np.zeros(6)
        for i, z in enumerate(travel):
            poses[i] = x = fsolve(equations, x, args=(z,), xtol=1e-12)

    with warnings.catch_warnings():
        warnings.simplefilter("ignore")  # fsolve says that it cannot better 1e-12
        plain, _ = best_s(plainly, 2)
    ours = sweep(body, travel).poses.pose
    off = np.abs(ours.rotation - rotation_by(poses[:, :3])).max(), np.abs(ours.place - centre - poses[:, 3:]).max()
    stack = np.random.default_rng(1).normal(size=(rows, 6, 6)) + 6 * np.eye(6)
    right = np.ones((rows, 6, 1))
    floor = best_s(lambda: [np.linalg.solve(stack, right) for _ in range(4)], 9)
    pose, whole = best_s(lambda: sweep(body, travel, only_pose=True), 9), best_s(lambda: sweep(body, travel), 9)
    draws = np.random.default_rng(2).normal(0, 0.3, (10_000, *shape.x.shape))

    def drawn() -> None:
        several = Shape(shape.mechanism, shape.x + draws, np.broadcast_to(shape.links, (10_000, len(links))))
        found = solve_near(several)
        assert found.converged.all()
        answers_at(body, several, found.pose, only_pose=True)

    samples = best_s(drawn, 3)
    print(
        f"{rows} positions of one double wishbone corner; fsolve {plain / rows * 1e6:.0f} µs a position; the two differ by {max(off):.0e} at most"
    )
    for name, (least, median) in {"camber, toe, positions": pose, "every answer": whole}.items():
        print(f"  {name:24} {plain / median:6.0f} times less ({plain / least:.0f} at best)")
    print(
        f"  {'four stacks of 6×6':24} {plain / floor[1]:6.0f} times less: the sweep takes {pose[1] / floor[1]:.1f} of that floor, every answer {whole[1] / floor[1]:.1f}"
    )
    print(f"10,000 drawn samples solved fully: {samples[1]:.2f} s ({samples[0]:.2f} at best)")


if __name__ == "__main__":
    main()
