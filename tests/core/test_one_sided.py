"""A limit of one side: a bumper that may be higher but not lower, a weight that may be less but not more."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ready_corner.core.advise.lift import lift
from ready_corner.core.advise.next import next_step
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.plan.aims import say_aim
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.quantities.measured import Measured
from ready_corner.core.quantities.notation import Units
from ready_corner.core.quantities.verdict import Aim, can_hold, chance_anew, chance_to_hold, judge
from ready_corner.core.record.logbook import fold
from ready_corner.core.say.judged import say_mark_aim
from ready_corner.core.simulation.builder import Work
from ready_corner.core.simulation.car import HiddenCar
from ready_corner.core.simulation.cars import practice_plan
from tests.core.cars import Log, plan
from tests.core.linkage.cars import plan as drawn

SIDES = [("over", 1.0), ("under", -1.0)]
figures = st.floats(-20, 20)


def u(expanded):
    return Measured(0.0, {"u": expanded / 2})


@given(figures, st.floats(0.1, 5), st.floats(0.0, 6))
def test_a_limit_of_one_side_is_the_half_of_both_that_counts(off, tolerance, expanded):
    figure = Measured(10 + off, {"u": expanded / 2})
    for beyond, way in SIDES:
        found = judge(figure, Aim("LF.height", 10, tolerance, beyond=beyond)).verdict
        inside = way * off + tolerance  # above the one limit there is
        if abs(abs(inside) - expanded) > 1e-6:
            assert found == ("holds" if inside > expanded else "out" if inside < -expanded else "too close to call")
    both = judge(figure, Aim("LF.height", 10, tolerance)).verdict
    each = [judge(figure, Aim("LF.height", 10, tolerance, beyond=b)).verdict for b, _ in SIDES]
    assert (both == "out") == ("out" in each)
    assert (both == "holds") == (each == ["holds", "holds"])


@pytest.mark.parametrize(("beyond", "way"), SIDES)
def test_far_on_the_open_side_everything_does_and_nothing_is_to_go(beyond, way):
    aim = Aim("LF.height", 100.0, 2.0, beyond=beyond)
    assert judge(Measured(100.0 + way * 50, {"u": 5.0}), aim).verdict == "holds"
    assert (aim.to_go(way * 50), aim.to_go(-way * 3)) == (0.0, way * 3)
    assert (aim.margin(way * 50), aim.margin(-way * 3)) == (52.0, -1.0)
    assert can_hold(9.0, aim)
    assert not can_hold(9.0, Aim("LF.height", 100.0, 2.0))


@pytest.mark.parametrize(("beyond", "way"), SIDES)
@pytest.mark.parametrize("off", [-3.0, -1.9, -1.0, 0.0, 2.5])
def test_chances_are_those_of_drawn_figures(beyond, way, off):
    aim, rng = Aim("LF.height", 100.0, 2.0, beyond=beyond), np.random.default_rng(3)
    drawn_ = 100 + way * off + rng.normal(0, 0.8, 20_000)
    verdicts = [judge(Measured(v, {"u": 0.5}), aim).verdict for v in drawn_[:6000]]
    assert chance_anew(100 + way * off, 0.8, 0.5, aim) == pytest.approx(
        np.mean([v != "too close to call" for v in verdicts]), abs=0.02
    )
    read = 100 + rng.normal(0, 0.5, 20_000)
    holds = np.mean([judge(Measured(v, {"u": 0.5}), aim).verdict == "holds" for v in read[:6000]])
    assert chance_to_hold(1.0, aim) == pytest.approx(holds, abs=0.02)


@pytest.mark.parametrize(
    ("beyond", "said_"),
    [("over", "aim 110.0 mm − 2.0 mm, or more"), ("under", "aim 110.0 mm + 2.0 mm, or less"), ("", "aim 110.0 mm ± 2.0 mm")],
)
def test_it_is_said_by_its_side(beyond, said_):
    of = plan()
    of = replace(of, aims=tuple(replace(a, beyond=beyond) for a in of.aims))
    log = Log(of)
    assert say_mark_aim(evaluate(fold(None, log.entries)).mark("LF.height"), Units()) == said_
    assert f"aim {say_aim(of, 'LF.height')}" == said_


def test_a_car_that_is_high_where_it_may_be_is_left_so_and_one_that_is_low_is_raised():
    of = practice_plan(drawn("heather"), "heather")
    high = replace(
        of, aims=tuple(replace(a, aim=a.aim - 25, beyond="over") if a.mark.endswith("height") else a for a in of.aims)
    )
    work = Work(HiddenCar(of, 5), high)
    while (step := next_step(work.now)).kind in ("settle", "disconnect", "read"):
        work.do(step)
    assert [work.now.mark(f"{c}.height").state for c in CORNERS] == ["holds"] * 4
    told = lift(work.now)
    assert told is None or not any(t.of.raises for t in told.turns)
    low = replace(of, aims=tuple(replace(a, beyond="over") if a.mark.endswith("height") else a for a in of.aims))
    work = Work(HiddenCar(of, 5), low)
    assert work.run().kind == "done"
    assert all(work.car.truth(f"{c}.height") >= of.aim(f"{c}.height").aim - of.aim(f"{c}.height").tolerance for c in CORNERS)
