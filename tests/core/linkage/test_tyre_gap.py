"""The gap between a spring and its tyre over travel, by points along the spring looked at one by one."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.engines.linkage.mechanism import design_pose
from ready_corner.core.engines.linkage.parts import stand
from ready_corner.core.engines.linkage.sweep import sweep
from ready_corner.core.model.checks import check_linkages
from ready_corner.core.model.study import limits_of

from .cars import body, plan, planar_strut

TRAVEL = np.linspace(-60, 60, 7)


def with_gap(one, gap=12.0):
    return replace(one, springs=(replace(one.springs[0], to_tyre=gap), *one.springs[1:]))


def looked_at(one, pose, row):
    """The least distance inboard of the wheel's plane of 40,001 points of the spring, of those that are within the tyre."""
    wheel = one.wheels[0]
    n, centre = pose.rotation[row] @ wheel.axis, pose.at(one.shape, wheel.centre)[row]
    still = np.zeros((len(pose.place), 6))
    a, b = (
        np.broadcast_to(stand(one, one.shape, pose, still, e).place, (len(pose.place), 3))[row] for e in one.springs[0].ends
    )
    points = a + np.linspace(0, 1, 40_001)[:, None] * (b - a) - centre
    deep = -points @ n
    return deep[np.linalg.norm(points + deep[:, None] * n, axis=1) <= wheel.loaded_radius].min()


@pytest.mark.parametrize("one", [planar_strut(), body("heather", "front")], ids=["strut", "wishbones"])
def test_the_gap_changes_as_points_looked_at_one_by_one_say(one):
    one = with_gap(replace(one, wheels=tuple(replace(w, loaded_radius=420.0) for w in one.wheels)))
    found = sweep(one, TRAVEL)
    gaps = found.shared[f"{one.springs[0].name}.to_tyre"]
    drawn = looked_at(one, design_pose(one.shape, 1), 0)
    seen = [12.0 + looked_at(one, found.poses.pose, i) - drawn for i in range(len(TRAVEL))]
    np.testing.assert_allclose(gaps, seen, atol=0.02)  # mm: points of a spring some 600 mm long lie 0.015 mm apart
    assert gaps[3] == pytest.approx(12.0, abs=1e-9)


def test_a_gap_that_closes_is_a_limit_and_one_beside_no_tyre_is_refused():
    strut = with_gap(planar_strut(), 0.5)
    lost = next(k for k in limits_of([sweep(strut, TRAVEL)], TRAVEL) if k.what.endswith("to the tyre"))
    assert lost.left < 0.5
    assert (lost.unit, lost.part) == ("mm", "strut")
    car = plan("heather")
    spring = car.front_linkage.springs[0]
    for radius, refused in ((car.front_linkage.loaded_radius, False), (30.0, True)):
        held = replace(car.front_linkage, loaded_radius=radius, springs=(replace(spring, to_tyre=10.0),))
        told = [str(w) for w in check_linkages(replace(car, front_linkage=held))]
        assert any("nowhere beside its tyre" in w for w in told) == refused
