"""The core as a library: what is exported, the table of answers, the example of the docs, grids, and names that were misspelt."""

import re
from pathlib import Path

import numpy as np
import pytest

from ready_corner import core
from ready_corner.core import CalledError, PlannedError, sweep
from ready_corner.core.engines.linkage.sweep import travel_for_angle
from ready_corner.core.engines.linkage.worth import Parameter, sensitivities
from ready_corner.core.model.bodies import sweep_end
from ready_corner.core.model.study import Change, levers, study
from tests.words import said

from .cars import body, plan

DOCS = Path(__file__).parents[3] / "docs/answers.md"
EACH = (("heather", "front"), ("heather", "rear"), ("tern", "front"), ("tern", "rear"), ("five-link", "rear"), ("hinged-arm", "rear"), ("trailing-arm", "rear"), ("three-link-axle", "rear"))  # fmt: skip


def test_everything_exported_is_there_and_nothing_else_is():
    for name in core.__all__:
        assert getattr(core, name) is not None
    with pytest.raises(AttributeError, match="exports no"):
        core.no_such_thing  # noqa: B018


def test_every_answer_of_every_layout_stands_in_the_table_with_unit_sign_and_frame():
    rows = re.findall(r"^\| `([^`]+)` \| ([^|]+) \| ([^|]+) \|", DOCS.read_text(), re.MULTILINE)
    table = {key for key, _, _ in rows}
    assert all(unit.strip() and plus.strip() for _, unit, plus in rows)
    seen = set()
    for car, end in EACH:
        found = sweep_end(plan(car), end, np.zeros(1))
        for key in (*found.left, *found.pair, *found.bodies[0].shared):
            what, _, ending = key.rpartition(".")
            fixed = key if key in table else None
            generic = next((f"{w}.{ending}" for w in ("SPRING", "MEMBER", "TORSION") if f"{w}.{ending}" in table), None)
            assert fixed or (what and generic), key
            seen.add(fixed or generic)
    assert {k for k in table if not k.startswith(("TORSION", "drive_"))} <= seen | {"rocker.angle_deg"}


def test_the_ten_lines_of_the_docs_run_as_they_stand(capsys):
    exec(re.search(r"```python\n(.*?)```", DOCS.read_text(), re.DOTALL)[1], {})
    assert "bump steer hangs most on" in capsys.readouterr().out


def test_a_grid_of_travel_and_rack_is_taken_as_it_is():
    corner, travel, rack = body("heather", "front"), np.linspace(-40, 40, 5), np.array([[-15.0], [0.0], [15.0]])
    grid = sweep(corner, travel, rack)
    for i, steer in enumerate(rack[:, 0]):
        row = sweep(corner, travel, steer)
        for key, value in row.answers.items():
            assert grid.answers[key].shape == (3, 5)
            np.testing.assert_allclose(
                grid.answers[key][i], value, atol=1e-7, err_msg=key
            )  # mm, degrees; two ways to the same pose


@pytest.mark.parametrize(
    ("travel", "steer", "roll"), [(np.nan, 0, 0), (np.inf, 0, 0), (1e9, 0, 0), (0, np.nan, 0), ([0, -np.inf], 0, 0)]
)
def test_a_range_without_end_gets_a_sentence(travel, steer, roll):
    with pytest.raises(CalledError, match="out of any range"):
        sweep(body("heather", "front"), travel, steer, roll)


def test_a_misspelt_name_is_answered_with_the_nearest():
    heather, corner = plan("heather"), body("heather", "front")
    for wrong in (
        lambda: study(heather, "front", "travel", -10, 10, 3, [Change("LF.upper.bal", 0, 1.0)]),
        lambda: corner.built({"upper.bal": (0, 0, 0)}),
        lambda: sensitivities(sweep(corner, np.zeros(1)), [Parameter("upper.bal", 0)]),
    ):
        with pytest.raises(PlannedError, match=r"upper\.ball” "):
            wrong()
    with pytest.raises(CalledError, match=r"Is “camber_deg” .*meant"):
        levers(heather, "front", "camber_degs")
    with pytest.raises(PlannedError, match="Is “tie rod” meant"):
        travel_for_angle(corner, "tie_rod", np.zeros(1))


# mm a degree; a difference over 2e-4 of a degree. Four links and a Panhard rod hold Tern's axle once too often: there a second order is left out.
@pytest.mark.parametrize(("car", "within"), [("tern", 1e-3), ("three-link-axle", 1e-5)])
def test_springs_of_a_live_axle_are_told_over_roll(car, within):
    axle, step = body(car, "rear"), 1e-4
    at = np.array([-2.0, 0.0, 2.0])
    for spring in axle.springs:
        ends = [sweep(axle, np.zeros(3), roll_deg=at + d).answers[f"{spring.name}.length"] for d in (-step, step)]
        slope = (ends[0] - ends[1]) / (2 * step)
        told = sweep(axle, np.zeros(3), roll_deg=at).answers[f"{spring.name}.mm_per_roll_deg"]
        np.testing.assert_allclose(told, slope, atol=within)


def test_the_end_of_an_axles_roll_is_told_as_roll():
    found = sweep(body("tern", "rear"), np.zeros(41), roll_deg=np.linspace(-60, 60, 41))
    assert found.ends
    assert all(end.roll_deg for end in found.ends)
    assert all(re.search(r"at [\d.]+° of roll, (left|right) wheel up", w) for w in said(found.warnings) if "full stretch" in w)
