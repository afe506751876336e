"""Wheelbase at either side, and what the two come to: setback."""

from dataclasses import replace

import pytest

from ready_corner.core.advise.next import next_step, round_of
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.marks import say_mark
from ready_corner.core.quantities.errors import UnusualError
from ready_corner.core.quantities.notation import Units
from ready_corner.core.quantities.tools import default_tools
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.happenings import Happened
from ready_corner.core.record.logbook import Entry, check, fold
from ready_corner.core.record.readings import Reading
from ready_corner.core.say.judged import say_ask, say_mark_do, say_mark_value
from tests.core.cars import plan
from tests.words import said


def judged(*whats, tolerance=3.0):
    of = replace(plan(default_tools(False)), aims=(Aim("car.setback", 0.0, tolerance),))
    return evaluate(fold(of, [Entry(str(n), n, what) for n, what in enumerate((Happened("settled"), *whats), 1)]))


def read(left, right, tool="trammel"):
    return Reading("wheelbase", "LF", left, tool), Reading("wheelbase", "RF", right, tool)


def test_setback_is_plus_where_the_right_front_wheel_is_further_back():
    mark = judged(*read(2405.0, 2399.0)).mark("car.setback")
    assert (mark.value, mark.state) == (pytest.approx(6.0), "out")  # mm
    assert say_mark_value(mark, Units()) == "6.0 mm right front further back"
    assert say_mark_do(mark, Units()) == "right front forward 6.0 mm"
    assert judged(*read(2400.0, 2399.0)).mark("car.setback").state == "holds"
    assert say_mark("LF.wheelbase") == "left front wheelbase"


def test_a_tape_is_less_sure_than_a_trammel_and_a_knock_moves_it():
    by_tape, by_bar = (judged(*read(2405.0, 2399.0, tool)).mark("car.setback") for tool in ("tape", "trammel"))
    assert by_tape.expanded > 2 * by_bar.expanded
    assert judged(*read(2405.0, 2399.0), Happened("knock")).mark("car.setback").state == "moved since"
    assert judged(*read(2405.0, 2399.0), Happened("tyre")).mark("car.setback").state == "out"


def test_it_is_asked_for_where_it_has_an_aim_and_no_turn_is_told_for_it():
    asked = [say_ask(a, Units())[0] for a in round_of(judged()) if a.quantity == "wheelbase"]
    assert asked == ["Wheelbase on the left", "Wheelbase on the right"]
    assert not [a for a in round_of(evaluate(fold(plan(), []))) if a.quantity == "wheelbase"]
    typed = {"height": 110.0, "camber": -1.0, "gap_front": 50.0, "gap_back": 50.0, "gap_hub": 50.0}
    tools = {"height": "tape", "camber": "digital"}
    rest = [Reading(q, c, v, tools.get(q, "rule")) for q, v in typed.items() for c in CORNERS]
    assert next_step(judged(*rest)).quantity == "wheelbase"
    assert "No adjuster of the plan sets it" in said(next_step(judged(*rest, *read(2410.0, 2399.0))).reason)
    with pytest.raises(UnusualError, match="is on no car"):
        check(judged().given, Reading("wheelbase", "LF", 120.0, "tape"))
