"""The linkage drawn as it moves: what is rigid stays so, and what is drawn is what is answered."""

import numpy as np
import pytest

from ready_corner.core.engines.linkage.sweep import sweep
from ready_corner.core.model.bodies import body_named, sweep_end
from ready_corner.core.model.moving import moving
from ready_corner.core.model.study import study
from tests.core.linkage.cars import NAMES, plan

DRIVES = (("travel", -60, 60), ("roll", -3, 3))


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("end", ["front", "rear"])
def test_links_keep_their_lengths_and_a_wheel_leans_as_the_curves_say(name, end):
    for over, low, high in DRIVES:
        found = study(plan(name), end, over, low, high, 13)
        for swept in found.swept:
            drawn = moving(swept)
            rigid = [
                p
                for p in drawn.parts
                if p.kind in ("link", "upright") and p.name not in {s.name for s in swept.body.layout.slides}
            ]
            assert rigid
            bind = 2 * float(
                np.max(swept.poses.residual)
            )  # mm; where links hold an axle more than they can, none keeps its length
            for part in rigid:
                long = np.linalg.norm(part.ends[:, 1] - part.ends[:, 0], axis=1)
                np.testing.assert_allclose(long, long[0], atol=1e-6 + bind, err_msg=part.name)  # mm
            for spring in swept.body.springs:
                part = next(p for p in drawn.parts if p.kind == "spring" and p.name == spring.name)
                long = np.linalg.norm(part.ends[:, 1] - part.ends[:, 0], axis=1)
                np.testing.assert_allclose(long, swept.shared[f"{spring.name}.length"], atol=1e-9)  # mm
            for wheel, answers in zip(drawn.wheels, swept.wheels, strict=True):
                # Minus when the top leans in: the spin axis, outboard, then rises.
                np.testing.assert_allclose(np.degrees(np.arcsin(-wheel.axis[:, 2])), answers["camber_deg"], atol=1e-9)


def test_what_comes_near_its_limit_is_told_row_by_row():
    found = study(plan("heather"), "front", "travel", -60, 60, 25)
    for limit in found.limits:
        assert np.nanmin(limit.shares) == pytest.approx(limit.share)
        assert found.drive[int(np.nanargmin(limit.shares))] == limit.at
        parts = {p.name for s in found.swept if s.body.name == limit.body for p in moving(s).parts}
        assert limit.part in parts


def test_steering_is_no_angle_of_a_joint_whose_stud_lies_along_the_steering_axis():
    body = body_named(plan("heather"), "LF")
    still, locked = (member(sweep(body, np.zeros(1), np.array([rack])).answers) for rack in (0.0, 40.0))
    assert max(still.values()) == pytest.approx(0.0, abs=1e-6)
    assert max(v for k, v in locked.items() if not k.startswith("tie")) < 1.0  # the wheel is steered by some 20 degrees
    bumped = member(sweep(body, np.array([40.0])).answers)
    assert max(bumped.values()) > 3.0


def member(answers):
    return {k: float(v[0]) for k, v in answers.items() if k.endswith(".outer_deg") and not k.startswith("shaft")}


def test_straight_ahead_has_no_ackermann():
    ends = sweep_end(plan("heather"), "front", np.zeros(3), np.array([0.0, 0.01, 20.0])).pair["ackermann_percent"]
    assert np.isnan(ends[:2]).all()
    assert abs(ends[2]) < 300
