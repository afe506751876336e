"""Points as measured: kept, refused, struck out, and as built beside the plan."""

import numpy as np
import pytest

from ready_corner.core.engines.linkage.sweep import sweep
from ready_corner.core.model.bodies import bodies_of
from ready_corner.core.model.study import study
from ready_corner.core.plan.plan import places_of
from ready_corner.core.quantities.errors import CalledError, MeasuredError, UnusualError
from ready_corner.core.record.logbook import Entry, PlanRevised, check, fold
from ready_corner.core.record.notes import Correction, Surveyed
from tests.core.linkage.cars import plan

HEATHER = plan("heather")


def state(*whats):
    return fold(None, [Entry(str(n), n, what) for n, what in enumerate((PlanRevised(HEATHER), *whats), start=1)])


def test_the_latest_survey_of_each_point_counts_and_one_struck_out_does_not():
    near = {n: tuple(np.add(p, (1, 2, 3))) for n, p in HEATHER.points.items() if n.startswith("LF.lower")}
    again = {"LF.lower.front": HEATHER.points["LF.lower.front"]}
    now = state(Surveyed(near, 0.5), Surveyed(again, 0.2), Correction("3"))
    assert now.surveyed == {n: (p, 0.5) for n, p in near.items()}


@pytest.mark.parametrize(
    ("survey", "error", "words"),
    [
        (Surveyed({}, 0.5), MeasuredError, "at least one"),
        (Surveyed({"LF.lower.front": (0, 0, 0)}, 0.0), MeasuredError, "without doubt"),
        (Surveyed({"LF.elbow": (0, 0, 0)}, 0.5), CalledError, "no point “LF.elbow”"),
        (Surveyed({"LF.lower.front": (0, 0, 0)}, 0.5), UnusualError, "same datum"),
    ],
)
def test_what_cannot_have_been_measured_is_said(survey, error, words):
    with pytest.raises(error, match=words):
        check(state(), survey)
    check(state(), Surveyed({"LF.lower.front": (0, 0, 0)}, 0.5, confirmed=True))


def test_the_right_side_of_a_mirrored_plan_has_places_too():
    x, y, z = HEATHER.points["LF.lower.front"]
    assert places_of(HEATHER).get("RF.lower.front") == (x, -y, z)
    x, y, z = plan("tern").points["rear.upper.left.body"]
    assert places_of(plan("tern")).get("rear.upper.right.body") == (x, -y, z)
    assert places_of(plan("tern")).get("rear.elbow") is None


def test_as_built_takes_measured_points_and_leaves_the_others_as_planned():
    place = tuple(np.add(HEATHER.points["LF.upper.rear"], (0, 0, 6)))
    found = study(HEATHER, "front", "travel", -40, 40, 3, built={"LF.upper.rear": place, "LR.upper.rear": (0, 0, 0)})
    camber = next(c for c in found.curves if c.answer == "caster_deg")
    left, right = bodies_of(HEATHER, "front")
    drive = np.array([-40.0, 0.0, 40.0])
    np.testing.assert_array_equal(camber.left, sweep(left.built({"upper.rear": place}), drive).answers["caster_deg"])
    np.testing.assert_array_equal(camber.right, sweep(right, drive).answers["caster_deg"])
    assert abs(camber.left[1] - camber.right[1]) > 0.1
