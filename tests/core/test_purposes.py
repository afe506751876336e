"""Starting aims: one to every camber and toe, each with a reason, none that a plan would refuse."""

from dataclasses import replace

import pytest

from ready_corner.core.plan import CORNERS
from ready_corner.core.purposes import PURPOSES, starting_aims
from tests.core.linkage.cars import plan


@pytest.mark.parametrize("purpose", PURPOSES)
def test_every_purpose_gives_a_plan_its_camber_and_toe_with_a_reason(purpose):
    aims = starting_aims(purpose)
    assert sorted(a.mark for a in aims) == sorted(f"{c}.{k}" for c in CORNERS for k in ("camber", "toe"))
    assert all(a.source and a.tolerance > 0 and abs(a.aim) < 5 for a in aims)
    assert replace(plan("heather"), aims=aims).aim("RR.toe") in aims
    assert {a.aim for a in aims if a.mark.startswith("LF")} == {a.aim for a in aims if a.mark.startswith("RF")}
