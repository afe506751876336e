#!/usr/bin/env python3
"""Practice cars brought to ready by doing what is said: lifts, readings, ends that are not true, turns that made it worse.

bench/lifts.py [--cars N] [--layouts A,B] [--first SEED] [--alone] [--bare] [--hampered]   prints a line a layout; beside it, on the same cars, rough rules (a fixed worth of
every turn, one mark at a time) and a builder who knows every step's true effect. Seeded, a car on
each core; nothing is timed but the whole.
"""

import argparse
import statistics
import sys
import time
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from functools import cache, partial
from importlib.resources import files
from multiprocessing import get_context

import numpy as np

from ready_corner.core.engines.together import solve_together
from ready_corner.core.engines.turns import Lever, Wanted
from ready_corner.core.judge.reach import reach
from ready_corner.core.model.springs_of_plan import springing
from ready_corner.core.plan.plan import Perch, Plan
from ready_corner.core.simulation.builder import Work
from ready_corner.core.simulation.car import HiddenCar
from ready_corner.core.simulation.cars import LAYOUTS, hampered, practice_plan, without_points
from ready_corner.exchange.files import read_plan

MOST_LIFTS = 12


@cache
def plan_of(layout: str, squared: bool = True) -> Plan:
    return practice_plan(
        read_plan((files("ready_corner.demo") / f"{layout}.plan.json").read_bytes()).to_core(), layout, squared
    )


@dataclass(frozen=True)
class Done:
    """What became of one car."""

    end: str
    lifts: int
    readings: int
    worse: int
    fewer: int
    spoilt: int
    foretold: int
    groups: int
    true: int | None
    judged: tuple[tuple[str, bool, bool, bool], ...]


def by_the_program(layout: str, bare: bool, hamper: bool, seed: int) -> Done:
    of = plan_of(layout, squared=not bare)
    told = hampered(of, seed) if hamper else of
    work = Work(HiddenCar(of, seed), without_points(told) if bare else told)
    try:
        work.run()
    except RuntimeError:
        end = "no end"
    else:
        done = work.step is not None and work.step.kind == "done"
        end = "said what would have to change" if not done else "called ready, is not" if work.truly_out() else "ready"
    return Done(
        end,
        work.lifts,
        work.readings,
        work.worse,
        work.fewer,
        work.spoilt,
        work.foretold,
        work.groups,
        work.true,
        tuple(work.judged),
    )


def knowing(plan: Plan, seed: int) -> tuple[int, bool]:
    """Lifts of one who knows the true effect of every step and reads without error: solves, turns, looks again."""
    work = Work(HiddenCar(plan, seed))
    car, aims = work.car, list(plan.aims)
    for lifts in range(MOST_LIFTS):
        if not work.truly_out():
            return lifts, True
        now = np.array([car.truth(a.mark) for a in aims])
        worth = np.zeros((len(aims), len(plan.adjusters)))
        for j, adjuster in enumerate(plan.adjusters):
            back = car.turned[adjuster.id]
            step = 1.0 if back + 1.0 <= adjuster.room(0.0)[1] else -1.0
            car.turned[adjuster.id] = back + step
            worth[:, j] = (np.array([car.truth(a.mark) for a in aims]) - now) / step
            car.turned[adjuster.id] = back
        levers = [Lever(a.id, *a.room(car.turned[a.id]), a.flats_per_step, a.name) for a in plan.adjusters]
        wanted = [Wanted(a.mark, a.aim - v, a.tolerance, 1e-6) for a, v in zip(aims, now, strict=True)]
        found = solve_together(wanted, levers, worth, [np.zeros((len(levers), len(levers)))] * len(aims))
        for adjuster, amount in zip(plan.adjusters, found.turns, strict=True):
            car.turned[adjuster.id] += amount
    return MOST_LIFTS, not work.truly_out()


def by_rough_rules(plan: Plan, seed: int) -> tuple[int, bool]:
    """Lifts by rules of thumb: a millimetre of thread is 0.2° of camber, 0.25° of caster and 0.7° of toe, a turn of a perch its pitch; each mark by its own adjuster; read once."""
    work = Work(HiddenCar(plan, seed))
    car = work.car
    rule, noise = next(t for t in plan.toolbox if t.id == "rule"), np.random.default_rng(seed)
    by = reach(plan, springing(plan), False).marks
    for lifts in range(MOST_LIFTS):
        scatter = {a.mark: noise.normal(0, rule.repeatability * (1 if a.mark.endswith("height") else 0.15)) for a in plan.aims}
        read = {mark: car.truth(mark) + float(off) for mark, off in scatter.items()}
        if all(abs(read[a.mark] - a.aim) <= a.tolerance for a in plan.aims):
            return lifts, not work.truly_out()
        for adjuster in plan.adjusters:
            kind = (
                "height"
                if isinstance(adjuster.by, Perch)
                else next((k for k in ("camber", "caster") if adjuster.id.endswith(k)), "toe")
            )
            aim = plan.aim(f"{adjuster.corner}.{kind}")
            if aim is None or abs(read[aim.mark] - aim.aim) <= aim.tolerance:
                continue
            way = np.sign(by[aim.mark].of(adjuster.id) or 1.0)  # which way it goes one sees at the car
            per = adjuster.length_per_step * {"height": 1.0, "caster": 0.25, "camber": 0.2, "toe": 0.7}[kind] * way
            low, high = adjuster.room(car.turned[adjuster.id])
            amount = float(np.clip(round((aim.aim - read[aim.mark]) / per * 6) / 6, low, high))
            car.turn(adjuster.id, amount)
        car.roll()
    return MOST_LIFTS, not work.truly_out()


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__.split("\n", maxsplit=1)[0])
    parser.add_argument("--cars", type=int, default=200)
    parser.add_argument("--first", type=int, default=1000)
    parser.add_argument("--layouts", default=",".join(LAYOUTS))
    parser.add_argument("--alone", action="store_true", help="without rough rules and the one who knows")
    parser.add_argument("--bare", action="store_true", help="the program told no point of any linkage")
    parser.add_argument("--hampered", action="store_true", help="a thread short, a mark out of reach, or both")
    asked = parser.parse_args()
    began = time.perf_counter()
    with ProcessPoolExecutor(mp_context=get_context("spawn")) as pool:
        run(pool, asked)
    print(f"{time.perf_counter() - began:.0f} s in all")
    return 0


def run(pool: ProcessPoolExecutor, asked: argparse.Namespace) -> None:
    seeds = range(asked.first, asked.first + asked.cars)
    for layout in asked.layouts.split(","):
        start = time.perf_counter()
        rows = list(pool.map(partial(by_the_program, layout, asked.bare, asked.hampered), seeds))
        took = time.perf_counter() - start
        ends = Counter(row.end for row in rows)
        lifts, readings = [row.lifts for row in rows], [row.readings for row in rows]
        worse, groups = sum(row.worse for row in rows), sum(row.groups for row in rows)
        fewer, spoilt, foretold = (sum(getattr(row, name) for row in rows) for name in ("fewer", "spoilt", "foretold"))
        seen = [seed for seed, row in zip(seeds, rows, strict=True) if row.fewer or row.foretold]
        others = (
            {}
            if asked.alone
            else {
                "rough rules": list(pool.map(partial(by_rough_rules, plan_of(layout)), seeds)),
                "one who knows": list(pool.map(partial(knowing, plan_of(layout)), seeds)),
            }
        )
        within, within_3 = (sum(n <= most for n in lifts) / len(lifts) for most in (2, 3))
        true = [row.lifts if row.true is None else row.true for row in rows]
        print(f"{layout}: {dict(ends)}", flush=True)
        print(
            f"  lifts median {statistics.median(lifts):g}, mean {statistics.mean(lifts):.2f}, {100 * within:.1f} % within 2, {100 * within_3:.1f} % within 3, at most {max(lifts)}; truly within after {statistics.mean(true):.2f} (mean); readings median {statistics.median(readings):g}, at most {max(readings)}; groups that made it worse {worse} of {groups}, that left fewer marks truly within {fewer}, that foretold the loss of one {foretold} (cars {seen}); marks that held and were lost {spoilt}; {took:.0f} s"
        )
        print_judged(rows)
        for name, found in others.items():
            done = [n for n, true in found if true and n < MOST_LIFTS]
            print(
                f"  {name}: ready and true {len(done)} of {len(found)}, lifts median {statistics.median(done) if done else float('nan'):g}, at most {max(done, default=0)}"
            )


def print_judged(rows: list[Done]) -> None:
    """Print, of every kind of mark, how many figures before each lift and at the end had the truth inside U, and how many that were said to hold do not."""
    inside: dict[str, list[bool]] = {}
    for mark, within, _, _ in (j for row in rows for j in row.judged):
        end = "front" if mark[1] == "F" else "rear"
        inside.setdefault(f"{end} {mark.split('.')[1]}", []).append(within)
    print("  inside U:", ", ".join(f"{kind} {100 * sum(own) / len(own):.1f} % of {len(own)}" for kind, own in inside.items()))
    said = [true for row in rows for _, _, holds, true in row.judged if holds]
    print(f"  said to hold {len(said)}, of which do not {said.count(False)}", flush=True)


if __name__ == "__main__":
    sys.exit(main())
