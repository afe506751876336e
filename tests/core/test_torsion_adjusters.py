"""The screw and the splines of a torsion bar raise a corner as a perch of the same effect does."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ready_corner.core.engines.linkage.body import Torsion
from ready_corner.core.judge.reach import reach
from ready_corner.core.model.bodies import bodies_by_name, body_named
from ready_corner.core.model.setting import setting
from ready_corner.core.model.springs_of_plan import springing
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.names import turn_words
from ready_corner.core.plan.plan import Adjuster, Perch, Screw, Splines
from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.simulation.builder import Work
from ready_corner.core.simulation.car import HiddenCar
from ready_corner.core.simulation.cars import practice_plan

from .linkage.cars import plan as drawn

PITCH, LEVER, TURNING = 1.5, 90.0, 0.2


def raised(plan, by):
    """The plan with every corner raised in another way."""
    kept = tuple(a for a in plan.adjusters if not a.raises)
    return replace(plan, adjusters=(*kept, *(Adjuster(f"{c}.up", "bar screw", c, by) for c in CORNERS)))


def bare(plan):
    return replace(plan, front_linkage=None, rear_linkage=None)


@given(st.floats(0.5, 3.0), st.floats(40.0, 200.0), st.floats(0.05, 0.6))
def test_a_screw_moves_every_mark_as_a_perch_of_its_ratio(pitch, lever, turning):
    plan = bare(drawn("heather"))
    ratio = lever * math.radians(turning)  # mm of the screw for one of the wheel
    screw, perch = (
        reach(p, springing(p), False).marks
        for p in (raised(plan, Screw(pitch, lever, 20, 20, turning)), raised(plan, Perch(pitch, 20, 20, ratio)))
    )
    for mark, worth in perch.items():
        np.testing.assert_allclose(screw[mark].per_turn, worth.per_turn, rtol=1e-9, atol=1e-12)


def test_splines_go_whole_and_are_told_so():
    one = Adjuster("LF.splines", "bar", "LF", Splines(36, 2, 3, TURNING))
    assert one.room(1.0) == (-4.0, 1.0)
    assert one.lift_per_step == pytest.approx(10 / TURNING)
    assert (one.flats_per_step, turn_words(one, -2.0), turn_words(one, 1.0)) == (6, "2 splines down", "1 spline up")


def test_a_car_on_torsion_bars_stands_where_its_screws_put_it():
    plan = raised(bare(drawn("heather")), Screw(PITCH, LEVER, 20, 20, TURNING))
    springs, turns = springing(plan), {f"{c}.up": 1.0 for c in CORNERS}
    found = setting(plan, bodies_by_name(plan), springs, turns)
    np.testing.assert_allclose(found.heights, math.degrees(PITCH / LEVER) / TURNING, atol=1e-9)  # all alike: heave alone
    np.testing.assert_allclose(found.loads, 0, atol=1e-9)


def test_the_bar_of_the_linkage_goes_before_the_ratio_of_the_plan():
    plan = torsion_car()
    bar = body_named(plan, "LF")
    assert bar.torsions
    told, own = (springing(raised(plan, Screw(PITCH, LEVER, 20, 20, by))).ratios[0, 0] for by in (TURNING, 3 * TURNING))
    assert told == own > 0
    coils = springing(raised(drawn("heather"), Screw(PITCH, LEVER, 20, 20, TURNING)))
    assert coils.ratios[0, 0] == TURNING  # its linkage tells of coils, not of the bar


def torsion_car():
    plan = drawn("heather")
    arm = next(iter(body_named(plan, "LF").layout.arms))
    front = replace(plan.front_linkage, springs=(), torsions=(Torsion("bar", arm, 40.0),), rocker=None)
    return replace(plan, front_linkage=front)


def test_a_practice_car_on_torsion_bars_is_brought_to_ready():
    sprung = practice_plan(drawn("heather"), "heather")
    bars = [replace(a, by=Screw(PITCH, LEVER, 25, 25, TURNING)) if a.raises else a for a in sprung.adjusters]
    work = Work(HiddenCar(replace(sprung, adjusters=tuple(bars)), 1004))
    work.run()
    assert work.step.kind == "done"
    assert not work.truly_out()
    assert work.lifts <= 2


@pytest.mark.parametrize(
    "by",
    [Screw(0, 90, 1, 1, 0.2), Screw(1, 0, 1, 1, 0.2), Screw(1, 90, 1, 1, 0), Splines(0, 1, 1, 0.2), Splines(36, -1, 1, 0.2)],
)
def test_what_cannot_be_is_refused_with_its_place(by):
    with pytest.raises(PlannedError) as refusal:
        Adjuster("LF.bar", "bar", "LF", by)
    assert refusal.value.path.startswith("adjusters.LF.bar.")
