"""Starting aims: one to every camber and toe, each with a reason, none that a plan would refuse."""

from dataclasses import replace

import pytest

from ready_corner.core.advise.provable import limits, unprovable
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.plan import Ways
from ready_corner.core.plan.purposes import PURPOSES, provable, starting_aims
from ready_corner.core.quantities.tools import default_tools
from tests.core.linkage.cars import plan
from tests.words import said


@pytest.mark.parametrize("purpose", PURPOSES)
def test_every_purpose_gives_a_plan_its_camber_and_toe_with_a_reason(purpose):
    aims = starting_aims(purpose)
    assert sorted(a.mark for a in aims) == sorted(f"{c}.{k}" for c in CORNERS for k in ("camber", "toe"))
    assert all(a.source and a.tolerance > 0 and abs(a.aim) < 5 for a in aims)
    assert replace(plan("heather"), aims=aims).aim("RR.toe") in aims
    assert {a.aim for a in aims if a.mark.startswith("LF")} == {a.aim for a in aims if a.mark.startswith("RF")}


def test_starting_aims_fit_a_live_axle_and_what_the_tools_can_prove():
    aims = {a.mark: a for a in starting_aims("circuit", ["rear"], {"camber": 0.05, "toe": 0.12})}
    assert (aims["LR.camber"].aim, aims["RR.toe"].aim) == (0.0, 0.0)
    assert "live axle" in aims["LR.camber"].source
    assert aims["LF.camber"].aim == -2.5
    assert aims["LF.toe"].tolerance == 0.16
    coarse = provable(381.0, default_tools(True))
    assert coarse["toe"] > 0.05
    for aim in starting_aims("circuit", [], coarse):
        assert coarse[aim.mark[3:]] <= aim.tolerance


def test_what_tools_cannot_prove_and_threads_cannot_set_is_said_of_the_plan():
    of = plan("heather")
    assert not [x for x in limits(of) if x.mark.endswith("height")]
    tight = replace(of, aims=tuple(replace(a, tolerance=0.01) if a.mark.endswith("toe") else a for a in of.aims))
    toe = [x for x in limits(tight) if x.mark.endswith("toe")]
    assert {x.mark for x in toe} == {f"{c}.toe" for c in CORNERS}
    assert all(x.least > 0.01 and "nothing can hold ± 0.01°" in said(x.why) for x in toe)
    sharp = tuple(replace(t, step=t.step / 1000, repeatability=0.0, zero=0.0) for t in of.toolbox)
    known = Ways(hub_middle=0.0, span=0.0, run_out=0.0)
    fine = replace(
        of, tools=sharp, ways=known, aims=tuple(replace(a, tolerance=0.03) if a.mark.endswith("camber") else a for a in of.aims)
    )
    camber = [x for x in limits(fine) if x.mark.endswith("camber")]
    assert camber
    assert all("one shim of" in said(x.why) for x in camber)
    for row in unprovable(tight):
        assert "least tolerance that can be proved and set" in said(row.step)
