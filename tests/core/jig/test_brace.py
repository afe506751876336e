"""Braces: set, they are told with the body; taken out, what they held may have moved."""

import pytest

from ready_corner.core.quantities.errors import CalledError, MeasuredError
from ready_corner.core.quantities.notation import Units
from ready_corner.core.record.jig_acts import JigLog, SurveyRead
from ready_corner.core.record.logbook import Entry, fold
from ready_corner.core.record.weld_acts import Brace
from ready_corner.core.say.entries import say_act
from ready_corner.core.say.weld import say_body
from tests.core.linkage.cars import plan

HEATHER = plan("heather")
SET = Brace("sill cross", "LF.lower.front", "RF.lower.front")
OUT = Brace("sill cross", "LF.lower.front", "RF.lower.front", out=True)


def test_a_brace_is_told_while_it_is_in_and_taken_out_it_disturbs_its_points():
    log = JigLog().after(1, SET)
    assert "Braces in: sill cross." in say_body(log, Units())[0]
    assert not log.disturbed
    log = log.after(2, OUT)
    assert not log.works.braces
    assert log.disturbed[-1].moves("LF.lower.front")
    assert not log.disturbed[-1].moves("LR.lower.front")
    assert say_act(OUT, HEATHER) == "Brace sill cross taken out, LF lower front to RF lower front"


def test_readings_between_its_points_do_not_count_after_it_is_out():
    read = SurveyRead("distance", ("LF.lower.front", "RF.lower.front"), 500.0, "tape")
    log = fold(HEATHER, [Entry(str(n), n, what) for n, what in enumerate((SET, read, OUT), 1)]).jig
    assert log.disturbed[-1].number == 3 > log.noted[0].number


def test_what_is_no_brace_is_refused():
    with pytest.raises(MeasuredError, match="from one point to another"):
        Brace("x", "LF.lower.front", "LF.lower.front").check(HEATHER)
    with pytest.raises(CalledError, match="no point"):
        Brace("x", "LF.lower.front", "LF.nowhere").check(HEATHER)
