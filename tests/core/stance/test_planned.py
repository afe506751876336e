"""Springs of the demo cars at work, and a corner over its travel from one sweep."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.engines.linkage.sweep import sweep, travel_for_angle, travel_for_length
from ready_corner.core.judge.corners import movement_of
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.model.bodies import body_named
from ready_corner.core.model.movement import Movement
from ready_corner.core.model.struts import at_work, dummy_struts
from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.record.logbook import fold
from tests.core.linkage.cars import plan

TRAVEL = np.array([-30.0, 0.0, 30.0])
CORNERS = [("heather", "LF"), ("heather", "RR"), ("tern", "RF"), ("tern", "LR"), ("tern", "RR")]


@pytest.mark.parametrize(("name", "corner"), CORNERS)
def test_between_the_rows_of_the_sweep_everything_is_as_if_solved(name, corner):
    move, odd = Movement(plan(name), corner), np.array([-51.3, -20.1, 3.7, 33.3, 57.9])
    exact = sweep(move.body, odd)
    wheel = exact.wheels[0 if len(exact.wheels) == 1 or corner.startswith("L") else 1]
    for key in ("centre_x", "centre_y", "centre_z"):
        np.testing.assert_allclose(move.spline(key)(odd), wheel[key], atol=1e-6)  # mm
    for part in ("length", "ratio", "ratio_per_mm"):
        key = f"{move.spring.name}.{part}"
        np.testing.assert_allclose(move.spline(key)(odd), exact.shared[key], atol=1e-6)
    for t, size in zip(odd, exact.shared[f"{move.spring.name}.length"], strict=True):
        assert move.travel_for(f"{move.spring.name}.length", float(size)) == pytest.approx(t, abs=1e-6)
    lower = next(k.name for k in move.body.shape.mechanism.links if k.name.startswith("lower"))
    assert move.level == pytest.approx(float(travel_for_angle(move.body, lower, np.zeros(1))[0]), abs=1e-6)
    assert np.isnan(move.travel_for(f"{move.spring.name}.length", 1.0))
    assert np.isnan(move.at("centre_z", 500.0))


def test_both_wheels_of_an_axle_share_their_sweep():
    judged = evaluate(fold(plan("tern"), []))
    left, right = (movement_of(judged, c) for c in ("LR", "RR"))
    assert left.swept is right.swept
    assert [s.name for m in (left, right) for s in m.springs] == ["left coil", "right coil"]
    assert movement_of(judged, "LR") is left
    assert left.centre(0.0)[1] > 0 > right.centre(0.0)[1]


@pytest.mark.parametrize(("name", "corner"), CORNERS)
def test_a_dummy_strut_holds_the_corner_where_it_says(name, corner):
    of = plan(name)
    body, end = body_named(of, corner), of.footing.end("front" if corner.endswith("F") else "rear")
    strut = dummy_struts(of, corner, 11.0)[0]
    at = np.array([0.0, 11.0, end.bump, -end.droop])
    exact = sweep(body, at).shared[f"{strut.name}.length"]
    assert (strut.at_ride, strut.at_wanted, strut.at_bump, strut.at_droop) == pytest.approx(tuple(exact), abs=1e-6)
    assert (strut.bump, strut.droop) == (end.bump, -end.droop)
    assert strut.at_level == pytest.approx(sweep(body, np.array([strut.level])).shared[f"{strut.name}.length"][0], abs=1e-6)


def test_without_stops_the_ends_of_the_damper_are_taken():
    bare = replace(plan("heather"), footing=type(plan("heather").footing)())
    strut, body = dummy_struts(bare, "LF")[0], body_named(bare, "LF")
    assert (strut.at_bump, strut.at_droop) == pytest.approx((body.springs[0].closed, body.springs[0].open))
    assert strut.bump == pytest.approx(float(travel_for_length(body, body.springs[0], np.array([strut.at_bump]))[0]), abs=1e-6)
    none = dummy_struts(replace(plan("tern"), footing=bare.footing), "LF")[0]
    assert np.isnan(none.at_bump)


def test_wheel_rate_is_that_of_virtual_work_and_the_rough_one_is_shown_off():
    one = at_work(plan("heather"), "LF", TRAVEL)[0]
    body = body_named(plan("heather"), "LF")
    spring = body.springs[0]
    h = 0.05
    for i, t in enumerate(TRAVEL):
        size = sweep(body, t + h * np.array([-1.0, 0.0, 1.0])).shared["damper.length"]
        stored = 0.5 * spring.rate * (spring.free + spring.seat - size) ** 2
        assert one.rate[i] == pytest.approx((stored[0] - 2 * stored[1] + stored[2]) / h**2, rel=1e-4)
    assert np.isnan(one.rough)  # through a rocker there is no rough figure
    strut = at_work(plan("tern"), "LF", TRAVEL)[0]
    spring = body_named(plan("tern"), "LF").springs[0]
    top, foot = (np.array(plan("tern").points[f"LF.{e.point}"]) for e in spring.ends)
    lean = np.arctan2(np.hypot(*(top - foot)[:2]), (top - foot)[2])
    assert strut.rough == pytest.approx(spring.rate * np.cos(lean) ** 2)
    assert strut.off == pytest.approx(strut.rough / strut.rate[1] - 1)


def test_a_corner_without_a_spring_says_so():
    bare = replace(plan("heather"), front_linkage=replace(plan("heather").front_linkage, springs=(), joints=()))
    with pytest.raises(PlannedError, match="no spring or damper at LF"):
        dummy_struts(bare, "LF")
    assert at_work(bare, "LF", TRAVEL) == ()
