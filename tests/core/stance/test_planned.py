"""Springs of the demo cars at work."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.errors import PlannedError
from ready_corner.core.linkage.planned import body_named
from ready_corner.core.linkage.sweep import sweep
from ready_corner.core.stance.planned import at_work, dummy_struts
from tests.core.linkage.cars import plan

TRAVEL = np.array([-30.0, 0.0, 30.0])


@pytest.mark.parametrize(("name", "corner"), [("heather", "LF"), ("heather", "RR"), ("tern", "RF"), ("tern", "LR")])
def test_a_dummy_strut_holds_the_corner_where_it_says(name, corner):
    body = body_named(plan(name), corner)
    strut = dummy_struts(plan(name), corner)[0]
    spring = next(s for s in body.springs if s.name == strut.name)
    assert strut.at_ride == pytest.approx(sweep(body, np.zeros(1)).shared[f"{strut.name}.length"][0])
    if spring.closed:
        assert strut.at_bump == pytest.approx(spring.closed)
        assert strut.at_droop == pytest.approx(spring.open)
        assert strut.droop < 0 < strut.bump
    else:
        assert np.isnan(strut.at_bump)
    lower = next(k.name for k in body.shape.mechanism.links if k.name.startswith("lower"))
    many = np.linspace(-120, 120, 2401)
    found = sweep(body, many)
    level = many[np.nanargmin(np.abs(found.shared[f"{lower}.level_deg"]))]
    assert strut.at_level == pytest.approx(
        sweep(body, np.array([level])).shared[f"{strut.name}.length"][0], abs=0.1
    )  # a step of the search


def test_wheel_rate_is_that_of_virtual_work_and_the_rough_one_is_shown_off():
    one = at_work(plan("heather"), "LF", TRAVEL)[0]
    body = body_named(plan("heather"), "LF")
    spring = body.springs[0]
    h = 0.05
    for i, t in enumerate(TRAVEL):
        size = sweep(body, t + h * np.array([-1.0, 0.0, 1.0])).shared["damper.length"]
        stored = 0.5 * spring.rate * (spring.free - size) ** 2
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
