"""What a point and a link are worth: against central differences of full solves, and the two things held against each other."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.engines.linkage.mechanism import Shape
from ready_corner.core.engines.linkage.sweep import sweep, travel_for_length
from ready_corner.core.engines.linkage.worth import Parameter, parameters, sensitivities, spread
from ready_corner.core.quantities.errors import PlannedError

from .cars import CORNERS_ONLY, EACH, body

TRAVEL, H = np.array([-35.0, 0.0, 25.0]), 1e-3


def changed(one, parameter, by, lengths):
    if parameter.axis is None:
        links = one.shape.links.copy()
        links[[link.name for link in one.shape.mechanism.links].index(parameter.name)] += by
        return replace(one, shape=Shape(one.shape.mechanism, one.shape.x, links))
    place = one.shape.point(parameter.name).copy()
    place[parameter.axis] += by
    return one.built({parameter.name: place}, lengths)


def by_differences(one, parameter, lengths, travel=None):
    above, below = (changed(one, parameter, d, lengths) for d in (H, -H))
    a, b = (sweep(c, TRAVEL if travel is None else travel(c)).answers for c in (above, below))
    return {k: (a[k] - b[k]) / (2 * H) for k in a if np.isfinite(a[k]).all()}


@pytest.mark.parametrize("lengths", ["kept", "anew"])
@pytest.mark.parametrize(("name", "end"), EACH)
def test_every_answer_by_every_parameter_is_its_central_difference(name, end, lengths):
    one = body(name, end)
    some = [p for i, p in enumerate(parameters(one)) if i % 7 == 1 or p.axis is None]
    found = sensitivities(sweep(one, TRAVEL), some, "travel", lengths)
    for i, parameter in enumerate(some):
        if lengths == "anew" and parameter.axis is None:
            continue
        plain = by_differences(one, parameter, lengths)
        for k, value in found.items():
            if k.endswith((".inner_deg", ".outer_deg", "_arm")):  # no slope at the design position, or endless
                continue
            if k not in plain or (len(one.shape.mechanism.links) > 4 and one.is_axle and k.endswith("rate")):
                continue  # endless; or a bend of links that bind, where least squares leaves a second order out
            size = max(1.0, float(np.abs(plain[k]).max()))
            np.testing.assert_allclose(value[i], plain[k], atol=1e-6 * size, err_msg=f"{parameter.said}: {k}")


@pytest.mark.parametrize(("name", "end"), [e for e in CORNERS_ONLY if e[0] != "five-link"])
def test_held_at_its_spring_length_is_the_chain_rule_and_the_full_solve(name, end):
    one = body(name, end)
    spring = one.springs[0]
    swept = sweep(one, TRAVEL)
    length = swept.answers[f"{spring.name}.length"]
    some = [p for i, p in enumerate(parameters(one)) if i % 9 == 2]
    at_travel, at_spring = (sensitivities(swept, some, hold) for hold in ("travel", "spring"))
    down = at_travel[f"{spring.name}.length"] / swept.answers[f"{spring.name}.ratio"]
    np.testing.assert_allclose(at_spring["centre_z"], down, atol=1e-10)
    np.testing.assert_allclose(at_spring["toe_deg"], at_travel["toe_deg"] + swept.answers["toe_deg_per_mm"] * down, atol=1e-10)
    np.testing.assert_allclose(at_spring[f"{spring.name}.length"], 0.0, atol=1e-12)
    for i, parameter in enumerate(some[:4]):
        plain = by_differences(one, parameter, "kept", lambda c: travel_for_length(c, spring, length))
        np.testing.assert_allclose(at_spring["camber_deg"][i], plain["camber_deg"], atol=1e-6)


def test_a_longer_tie_rod_ahead_of_the_axis_turns_the_wheel_in_by_its_lever():
    one = body("heather", "front")
    found = sensitivities(sweep(one, np.zeros(1)), [Parameter("tie rod", None)])
    ball, top, outer = (one.shape.point(n) for n in ("lower.ball", "upper.ball", "tie.outer"))
    axis = (top - ball) / np.linalg.norm(top - ball)
    rod = outer - one.shape.point("tie.inner")
    lever = np.cross(axis, outer - ball) @ rod / np.linalg.norm(rod)
    assert found["toe_deg"][0, 0] == pytest.approx(np.degrees(-1 / lever) * axis[2], rel=0.02)


def test_the_spread_of_a_build_is_the_same_by_slopes_and_by_drawn_cars():
    one = body("heather", "front")
    held = [Parameter(link.name, None) for link in one.shape.mechanism.links]
    wanted = [p for p in parameters(one) if p.name in ("upper.front", "lower.rear", "tie.inner")] + held
    draw = np.random.default_rng(7)
    root = draw.normal(0, 0.2, (len(wanted), len(wanted)))
    answers = ["camber_deg", "toe_deg", "caster_deg", "toe_deg_per_mm"]
    found = spread(one, wanted, root @ root.T, answers, samples=4000)
    assert found.lost == 0
    for a in answers:
        assert found.drawn[a] == pytest.approx(found.linear[a], rel=0.06)  # 1/√8000 is 0.011; the rest is curvature
    nothing = spread(one, wanted, np.zeros((len(wanted), len(wanted))), answers, samples=10)
    assert max(nothing.linear.values()) == 0.0
    assert max(nothing.drawn.values()) < 1e-9


def test_as_built_with_some_points_measured():
    one = body("heather", "front")
    there = one.shape.point("upper.front") + np.array([0.0, 0.0, 2.0])
    kept, anew = (sweep(one.built({"upper.front": there}, how), np.zeros(1)).answers for how in ("kept", "anew"))
    assert abs(anew["camber_deg"][0] + 1.8) < 1e-9
    assert abs(kept["camber_deg"][0] + 1.8) > 1e-3
    with pytest.raises(PlannedError, match=r"has no point “upper\.left”"):
        one.built({"upper.left": there})


def test_a_spring_that_is_not_there_cannot_be_held():
    swept = sweep(replace(body("five-link", "rear"), springs=()), TRAVEL)
    with pytest.raises(PlannedError, match="no spring to be held"):
        sensitivities(swept, parameters(swept.body)[:1], "spring")
