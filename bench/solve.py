#!/usr/bin/env python3
"""How long the solve of the whole car takes: 16 adjusters, whole steps together, checked by the full linkage with the adjusters moved.

bench/solve.py [--times N]   prints medians in ms, and each as a multiple of the setting of the car solved once by the linkage in the same run.
"""

import argparse
import statistics
import time
from collections.abc import Callable
from dataclasses import replace

from lifts import plan_of

from ready_corner.core.advise.lift import lift
from ready_corner.core.advise.next import next_step
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.model.bodies import bodies_by_name
from ready_corner.core.model.setting import setting
from ready_corner.core.model.springs_of_plan import springing
from ready_corner.core.plan.plan import Moves
from ready_corner.core.record.readings import Reading
from ready_corner.core.simulation.builder import Work
from ready_corner.core.simulation.car import HiddenCar


def timed_ms(act: Callable[[int], object], times: int) -> float:
    found = []
    for i in range(times):
        start = time.perf_counter()
        act(i)
        found.append((time.perf_counter() - start) * 1e3)
    return statistics.median(found)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.split("\n", maxsplit=1)[0])
    parser.add_argument("--times", type=int, default=20)
    asked = parser.parse_args()
    plan = plan_of("heather")
    front = next(a for a in plan.adjusters if a.id == "LF.caster")
    more = tuple(replace(front, id=f"{c}.rear-leg", corner=c, moves=Moves(f"{c}.upper rear leg")) for c in ("LR", "RR"))
    plan = replace(plan, adjusters=(*plan.adjusters, *more))
    work = Work(HiddenCar(plan, 1000))
    while (step := next_step(work.now)).kind != "lift":
        work.do(step)
    springs, bodies = springing(plan), bodies_by_name(plan)
    once = timed_ms(lambda i: setting(plan, bodies, springs, {"LF.camber": 0.1 + i / 100}), asked.times)

    def again(i: int) -> object:
        work.tell(Reading("height", "LF", 70.0 + i / 10, "tape"))
        start = time.perf_counter()
        lift(work.now)
        return spent.append((time.perf_counter() - start) * 1e3)

    spent: list[float] = []
    for i in range(asked.times):
        again(i)
    cold = timed_ms(lambda _: lift(evaluate(work.state)), 5)
    told = lift(work.now)
    assert told
    solve = statistics.median(spent)
    print(f"{len(plan.adjusters)} adjusters, {len(plan.aims)} aims, {len(told.turns)} turns; medians of {asked.times}")
    print(f"  the car by its linkage, once   {once:6.1f} ms")
    print(f"  the solve after a reading      {solve:6.1f} ms, {solve / once:.1f} times that; at most {max(spent):.1f} ms")
    print(f"  with all figures anew          {cold:6.1f} ms, {cold / once:.1f} times that")


if __name__ == "__main__":
    main()
