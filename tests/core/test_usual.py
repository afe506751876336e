"""What links are usually worth by their names alone, against the linkage of cars whose points are known."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.judge.marks import evaluate
from ready_corner.core.judge.reach import reach
from ready_corner.core.model.springs_of_plan import springing
from ready_corner.core.model.usual import usual_of, usual_sets
from ready_corner.core.record.logbook import fold
from ready_corner.core.simulation.cars import LAYOUTS, practice_plan, without_points
from tests.core.cars import Log
from tests.core.linkage.cars import plan
from tests.core.test_hubs import EXACT


@pytest.mark.parametrize("name", LAYOUTS)
def test_what_links_usually_are_worth_is_what_they_are_on_cars_with_points(name):
    """Signs and sizes by their names alone against the linkage: no link beyond 2.5 u, and the way of what it sets always right."""
    of = practice_plan(plan(name), name, squared=False)
    bare = without_points(of)
    true, usual = (reach(p, springing(p), False).marks for p in (of, bare))
    for a in bare.adjusters:
        if a.raises:
            continue
        sets = usual_sets(a)
        assert np.sign(usual[f"{a.corner}.{sets}"].of(a.id)) == np.sign(true[f"{a.corner}.{sets}"].of(a.id))
        for kind in ("camber", "toe", "caster"):
            mark = f"{a.corner}.{kind}"
            if mark in true and a.id in true[mark].adjusters and (kind != "camber" or sets != "toe"):
                assert abs(usual[mark].of(a.id) - true[mark].of(a.id)) <= 2.5 * usual[mark].u(a.id)


@pytest.mark.parametrize(
    ("said", "sets", "way"),
    [
        ("top arm rod end", "camber", 1),
        ("Lower-arm rod end", "camber", -1),
        ("camber plate", "camber", 1),
        ("upper front leg", "caster", 1),
        ("rear leg of the lower arm", "caster", 1),
        ("lower front leg rod end", "caster", -1),
        ("strut top, fore and aft", "caster", 0),
        ("strut top, forward", "caster", -1),
        ("tie rod, behind the axle", "toe", 1),
        ("toe link ahead of the axle", "toe", -1),
        ("left front tie rod", "toe", 0),
        ("rear tie rod", "toe", 0),
        ("compression rod", "caster", 0),
    ],
)
def test_a_name_tells_what_a_link_sets_and_which_way(said, sets, way):
    of = without_points(practice_plan(plan("heather"), "heather"))
    link = replace(next(a for a in of.adjusters if a.id == "LF.tie"), name=said)
    assert usual_sets(link) == sets
    value, u = usual_of(of, link)[sets]
    assert np.sign(value) == way
    assert (abs(value) > 1.5 * u) == bool(way)


def test_an_arm_steers_the_way_its_tie_rod_sits():
    of = without_points(practice_plan(plan("heather"), "heather"))
    arm = next(a for a in of.adjusters if a.id == "LF.camber")
    rods = {
        side: replace(next(a for a in of.adjusters if a.id == "LF.tie"), name=f"tie rod{side}")
        for side in (", ahead of the axle", ", behind the axle", "")
    }
    ahead, behind, unsaid = (usual_of(replace(of, adjusters=(arm, rod)), arm)["toe"] for rod in rods.values())
    assert ahead[0] == pytest.approx(-behind[0])
    assert ahead[0] > 0
    assert unsaid[0] == 0
    assert unsaid[1] == pytest.approx(np.hypot(*ahead))


def test_a_twin_teaches_no_more_than_twins_are_alike():
    """The left link turned five turns and read without error before and after: the right one does as much, to 15 %."""
    of = without_points(practice_plan(plan("heather"), "heather"))
    log = Log(replace(of, tools=EXACT, ways=replace(of.ways, run_out=0, floor=0)))
    log.read("LF", "camber", -1.8, "digital")
    log.turn("LF.camber", 5.0)
    log.read("LF", "camber", -0.3, "digital")
    found = evaluate(fold(None, log.entries))
    left, right = (found.worth_now(f"{c}.camber") for c in ("LF", "RF"))
    assert left.of("LF.camber") == pytest.approx(0.3, abs=1e-3)
    assert left.u("LF.camber") < 1e-3
    assert right.of("RF.camber") == pytest.approx(0.3, abs=1e-3)
    assert right.u("RF.camber") == pytest.approx(0.15 * 0.3, rel=0.01)
