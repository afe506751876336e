"""Live axles that steer, arms driven by their angle, and axes that are screws: against plain solves and by their own definitions."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.optimize import fsolve

from ready_corner.core.engines.linkage.answers import motion_of
from ready_corner.core.engines.linkage.body import body_of
from ready_corner.core.engines.linkage.space import rotation_by
from ready_corner.core.engines.linkage.sweep import sweep, travel_for_angle
from ready_corner.core.engines.linkage.worth import Parameter, sensitivities
from ready_corner.core.model.bodies import bodies_of, sweep_end
from ready_corner.core.model.checks import check_linkages
from ready_corner.core.quantities.errors import PlannedError
from tests.words import said

from .cars import body, plan
from .test_branches import boxed
from .test_worth import by_differences

STEERING = {
    "left.kingpin.lower": (8.0, 560.0, 200.0), "left.kingpin.upper": (-6.0, 530.0, 380.0), "left.arm": (-130.0, 520.0, 230.0),
    "tie.inner": (420.0, 380.0, 300.0), "drag.outer": (-20.0, 470.0, 300.0),
}  # fmt: skip


def steered_axle(**points):
    """Tern's live axle put in front, on kingpins, with a drag link from ahead of it to the left knuckle and a track rod behind."""
    tern = plan("tern")
    moved = {
        n.replace("rear", "front", 1): (x + tern.wheelbase, y, z)
        for n, (x, y, z) in tern.points.items()
        if n.startswith("rear.")
    }
    own = {n: p for n, p in tern.points.items() if n[:2] not in ("LF", "RF")}
    steering = {f"front.{n}": p for n, p in {**STEERING, **points}.items()}
    return replace(
        tern,
        front=replace(tern.front, track=tern.rear.track),
        points={**own, **moved, **steering},
        front_linkage=replace(tern.rear_linkage, steering="rack"),
    )


def test_each_knuckle_stands_where_its_rods_keep_their_lengths():
    car = steered_axle()
    assert check_linkages(car) == []
    found = sweep_end(car, "front", np.array([0.0, 30.0, -20.0]), np.array([15.0, 0.0, -10.0]), np.array([0.0, 2.0, -1.0]))
    pose, shape = found.bodies[0].poses.pose, found.bodies[0].body.shape
    wheels = found.bodies[0].body.wheels
    at = {n: shape.point(n) for n in shape.mechanism.points}

    def placed(row, side, angle, point):
        low, high = at[f"{side}.kingpin.lower"], at[f"{side}.kingpin.upper"]
        on_axle = low + rotation_by((high - low) / np.linalg.norm(high - low) * angle) @ (point - low)
        return pose.place[row] + pose.rotation[row] @ (on_axle - shape.centre)

    for row in range(3):
        inner = at["tie.inner"] + [0.0, pose.steer[row], 0.0]

        def open_by(x, row=row, inner=inner):
            drag = placed(row, "left", x[0], at["drag.outer"]) - inner
            track = placed(row, "left", x[0], at["left.arm"]) - placed(row, "right", x[1], at["right.arm"])
            wanted = at["drag.outer"] - at["tie.inner"], at["left.arm"] - at["right.arm"]
            return [np.linalg.norm(a) - np.linalg.norm(b) for a, b in zip((drag, track), wanted, strict=True)]

        angles = fsolve(open_by, [0.0, 0.0], xtol=1e-13)
        for side, angle, answers, wheel in zip(("left", "right"), angles, (found.left, found.right), wheels, strict=True):
            centre = placed(row, side, angle, at[f"{side}.wheel"])
            np.testing.assert_allclose([answers[f"centre_{k}"][row] for k in "xyz"], centre, atol=1e-8)
            outboard = placed(row, side, angle, at[f"{side}.wheel"] + wheel.axis) - centre
            assert answers["camber_deg"][row] == pytest.approx(np.degrees(-np.arcsin(outboard[2])), abs=1e-8)
    assert found.left["toe_deg"][0] * found.right["toe_deg"][0] < 0  # both wheels go one way
    assert found.pair["ackermann_percent"][0] > 0  # the track rod is behind and its arms lean in


def test_steered_axle_rates_are_slopes_and_its_kingpins_the_axes():
    one = bodies_of(steered_axle(), "front")[0]
    h = 1e-3
    around = sweep(one, np.array([20.0 - h, 20.0, 20.0 + h]), 12.0).answers
    for k in ("left.toe_deg", "right.toe_deg", "left.camber_deg"):
        assert around[f"{k}_per_mm"][1] == pytest.approx((around[k][2] - around[k][0]) / (2 * h), abs=1e-8)
    assert abs(around["left.toe_deg_per_mm"][1]) > 1e-4  # the drag link steers the axle as it rises
    assert sweep(one, np.zeros(1)).answers["left.inclination_deg"][0] == pytest.approx(np.degrees(np.arctan2(30.0, 180.0)))
    some = [
        Parameter("drag.outer", 1),
        Parameter("tie.inner", 2),
        Parameter("left.arm", 0),
        Parameter("right.kingpin.upper", 1),
    ]
    travel = np.array([-35.0, 0.0, 25.0])
    worth = sensitivities(sweep(one, travel), some, rates=False)
    for i, parameter in enumerate(some):
        plain = by_differences(one, parameter, "kept")
        for k in ("left.toe_deg", "right.toe_deg", "left.scrub", "right.caster_deg", "right.toe_deg_per_mm"):
            np.testing.assert_allclose(worth[k][i], plain[k], atol=1e-6, err_msg=f"{parameter.said}: {k}")


def test_a_steered_axle_without_its_kingpins_or_with_its_arms_exchanged_says_so():
    bare = steered_axle()
    short = replace(bare, points={n: p for n, p in bare.points.items() if "kingpin" not in n})
    assert any("left.kingpin.lower" in w.sentence for w in check_linkages(short))
    crossed = steered_axle(**{"left.arm": (-130.0, -520.0, 230.0)})
    assert any("exchanged" in w.sentence and w.path == "points.front.left.arm" for w in check_linkages(crossed))


def test_points_of_a_steering_box_are_worth_what_differences_say():
    left = bodies_of(boxed(), "front")[0]
    travel, turn = np.array([-35.0, 0.0, 25.0]), 10.0
    for name, axis in (("box.arm", 0), ("idler.first", 1), ("box.second", 0)):
        worth = sensitivities(sweep(left, travel, turn), [Parameter(name, axis)], rates=False)["toe_deg"][0]
        ends = []
        for d in (1e-3, -1e-3):
            place = left.shape.point(name).copy()
            place[axis] += d
            ends.append(sweep(left.built({name: place}), travel, turn).answers["toe_deg"])
        np.testing.assert_allclose(worth, (ends[0] - ends[1]) / 2e-3, atol=1e-6, err_msg=name)
        assert name == "box.second" or np.abs(worth).max() > 1e-4


@pytest.mark.parametrize(
    ("name", "end", "arm"), [("heather", "front", "lower"), ("tern", "front", "tie rod"), ("tern", "rear", "lower left")]
)
def test_an_arm_driven_by_its_angle_comes_back_to_the_travel(name, end, arm):
    one, travel = body(name, end), np.array([-40.0, 0.0, 33.0])
    pose = sweep(one, travel).poses.pose
    if arm in one.layout.arms:
        a = one.layout.arms[arm]
        first, second, joint = (one.shape.point(n) for n in (a.first, a.second, a.joint))
        axis = (second - first) / np.linalg.norm(second - first)
        before, now = (
            v - np.outer(v @ axis, axis) for v in (np.atleast_2d(joint - first), pose.at(one.shape, a.joint) - first)
        )
        turned = np.degrees(np.arctan2(np.cross(before, now) @ axis, (before * now).sum(axis=1)))
        angle = np.abs(turned) * np.sign(travel)
    else:
        angle = sweep(one, travel).answers[f"{arm}.level_deg"]
    np.testing.assert_allclose(travel_for_angle(one, arm, angle), travel, atol=1e-8)
    assert np.isnan(travel_for_angle(one, arm, np.array([179.0]))).all()
    with pytest.raises(PlannedError, match="no arm or member"):
        travel_for_angle(one, "elbow", angle)


def test_where_no_pure_rotation_is_left_the_screw_of_least_pitch_is_named():
    five = body("five-link", "rear")
    plain = sweep(five, np.array([-20.0, 0.0]))
    assert not plain.answers["axis_pitch"].any()
    points = {n: five.shape.point(n).copy() for n in five.shape.mechanism.points}
    rng = np.random.default_rng(4)
    for _ in range(200):
        skewed = {n: p + rng.normal(0, 90, 3) * n.startswith("link") for n, p in points.items()}
        one = body_of("LR", "five link", skewed, five.wheels)
        found = sweep(one, np.zeros(1))
        if found.answers["axis_pitch"][0]:
            break
    assert "screw of least pitch" in " ".join(said(found.warnings))
    motion = motion_of(one, one.shape, found.poses.pose)
    assert motion.by_tie is not None
    mixes = np.linspace(-30, 30, 200_001)[:, None] * motion.twist + motion.by_tie
    pitches = (mixes[:, :3] * mixes[:, 3:]).sum(axis=1) / (mixes[:, :3] ** 2).sum(axis=1)
    assert abs(found.answers["axis_pitch"][0]) <= np.abs(pitches).min() + 1e-9
    assert abs(found.answers["axis_pitch"][0]) == pytest.approx(np.abs(pitches).min(), rel=1e-4)
