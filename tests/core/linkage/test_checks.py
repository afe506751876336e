"""What no car can be is said of the plan, with its place in it, before anything is reckoned from it."""

import copy
import json
from importlib.resources import files

import numpy as np
import pytest

from ready_corner.border.plan import PlanModel, PlanProblemsError
from ready_corner.core.engines.linkage.sweep import sweep
from ready_corner.core.quantities.bounds import LARGEST, beyond

from .cars import body, plan

DEMO = files("ready_corner.demo")


def drawn(car, change):
    told = json.loads(DEMO.joinpath(f"{car}.plan.json").read_text())
    change(told)
    return PlanModel.model_validate(told)


def told_of(car, change):
    try:
        drawn(car, change).to_core()
    except PlanProblemsError as wrong:
        return {p.path: p.sentence for p in wrong.problems}
    return {}


def on(end, part, value):
    return lambda p: p[f"{end}_linkage"].__setitem__(part, value)


def point(name, place):
    return lambda p: p["points"].__setitem__(name, place)


def both_ends(stands_on):
    def change(p):
        for end in p["front_linkage"]["springs"][0]["ends"]:
            end["on"] = stands_on

    return change


def same(name, other):
    return lambda p: p["points"].__setitem__(name, copy.deepcopy(p["points"][other]))


BAR = {"name": "bar", "rate": 5.0}
WRONG = [
    ("heather", both_ends("car"), "front_linkage.springs.damper.ends", "nothing shortens it"),
    ("heather", point("LF.wheel", [1.7e308, 0.0, 0.0]), "points.LF.wheel.0", "1.7e+308 cannot be here"),
    ("heather", on("front", "lengths", {"LF.tierod": 300.0}), "front_linkage.lengths", "Is “LF.tie rod”"),
    ("heather", on("front", "lengths", {"tie rod": 300.0}), "front_linkage.lengths", "no member"),
    ("heather", on("front", "lengths", {"LF.tie rod": 3000.0}), "front_linkage.lengths", "cannot be put together"),
    ("heather", on("front", "torsions", [{**BAR, "arm": "lowr"}]), "front_linkage.torsions.0.arm", "Is “lower” meant?"),
    ("tern", on("rear", "torsions", [{**BAR, "arm": "lower"}]), "rear_linkage.torsions.0.arm", "no arm “lower”"),
    (
        "heather",
        on("front", "joints", [{"member": "tie rodd", "at": "inner", "limit_deg": 20.0}]),
        "front_linkage.joints.0.member",
        "Is “tie rod” meant?",
    ),
    ("heather", on("front", "camber_deg", 90.0), "front_linkage.camber_deg", "on no wheel"),
    ("tern", on("front", "toe_deg", -200.0), "front_linkage.toe_deg", "on no wheel"),
    ("hinged-arm", same("LR.hinge.inner", "LR.hinge.outer"), "points.LR.hinge.outer", "same place"),
    ("tern", same("LF.strut.top", "LF.strut.foot"), "points.LF.strut.foot", "same place"),
    ("heather", lambda p: p.__setitem__("wheelbase", 1e-308), "wheelbase", "cannot be"),
    (
        "heather",
        lambda p: p["front_linkage"]["springs"][0].__setitem__("seat", -1e12),
        "front_linkage.springs.0.seat",
        "cannot be here",
    ),
]


@pytest.mark.parametrize(("car", "change", "path", "words"), WRONG, ids=[f"{c} {p} {w}" for c, _, p, w in WRONG])
def test_what_cannot_be_is_said_at_its_place(car, change, path, words):
    assert words in told_of(car, change)[path]
    kept = drawn(car, change)
    if path != "wheelbase":  # a plan that an earlier version kept still opens
        assert kept.to_core(checked=False).name == kept.name


def test_two_wrong_ends_are_told_in_one_go():
    def change(p):
        on("front", "camber_deg", 120.0)(p)
        on("rear", "lengths", {"LR.nothing": 1.0})(p)

    assert set(told_of("heather", change)) == {"front_linkage.camber_deg", "rear_linkage.lengths"}


def test_a_torsion_bar_on_a_hinged_arm_turns_with_it():
    arm = drawn("hinged-arm", on("rear", "torsions", [{**BAR, "arm": "hinge"}])).to_core()
    assert not told_of("hinged-arm", on("rear", "torsions", [{**BAR, "arm": "hinge"}]))
    found = sweep(body("hinged-arm", "rear"), np.array([-30.0, 0.0, 30.0]))
    from ready_corner.core.model.bodies import bodies_of

    swept = sweep(bodies_of(arm, "rear")[0], np.array([-30.0, 0.0, 30.0])).answers
    # By the rotation of the whole arm: its trace gives the angle, whatever the axis.
    turned = np.degrees(np.arccos((np.trace(found.poses.pose.rotation, axis1=1, axis2=2) - 1) / 2))
    np.testing.assert_allclose(np.abs(swept["bar.angle_deg"]), turned, atol=1e-6)  # deg; arccos near 1 keeps half the digits
    assert np.isfinite(swept["bar.wheel_rate"]).all()


def test_every_figure_beyond_bounds_is_found_wherever_it_stands():
    assert list(beyond(plan("heather"))) == []
    assert list(beyond({"a": (1.0, {"b": float("nan")}), "c": LARGEST * 2, "d": 1e-40, "e": True, "f": 0.0})) != []
    assert [path for path, _ in beyond({"a": (1.0, {"b": float("inf")}), "c": LARGEST * 2, "d": 1e-40})] == ["a.1.b", "c", "d"]
