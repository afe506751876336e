"""What an eye says of a camber is a note: no aim is met by it, and it yields to whatever was read."""

from dataclasses import replace

import pytest

from ready_corner.core.judge.marks import evaluate
from ready_corner.core.quantities.errors import CalledError
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.logbook import fold
from ready_corner.core.record.readings import Reading
from ready_corner.core.say.template import in_mm
from tests.core.cars import Log, plan


def camber(log):
    return evaluate(fold(None, log.entries)).mark("LF.camber")


@pytest.mark.parametrize("tolerance", [0.2, 30.0])
def test_no_aim_is_met_by_eye_however_wide(tolerance):
    one = plan()
    aims = tuple(Aim(a.mark, a.aim, tolerance) if a.mark == "LF.camber" else a for a in one.aims)
    log = Log(replace(one, aims=aims))
    log.read("LF", "camber", -1.5, "eye")
    seen = camber(log)
    assert (seen.state, seen.value) == ("too close to call", pytest.approx(-1.5, abs=0.05))  # the floor may lean it
    assert seen.expanded > 1.5
    assert "eye" in in_mm(seen.reason) or tolerance < 1
    log.read("LF", "camber", -1.52, "digital")
    assert camber(log).value == pytest.approx(-1.52, abs=0.05)
    log.read("LF", "camber", -4.0, "eye")  # after a gauge it changes nothing
    assert camber(log).value == pytest.approx(-1.52, abs=0.05)
    if tolerance > 1:
        assert camber(log).state == "holds"


def test_nothing_else_is_noted_by_eye():
    with pytest.raises(CalledError, match="by eye only a camber"):
        Reading("caster", "LF", 5.0, "eye").check(plan())
    with pytest.raises(CalledError):
        Reading("height", "LF", 110.0, "eye").check(plan())
