"""The level of the jig in the demo car's log: read, shaken, read again."""

import pytest

from ready_corner.core.judge.level import level
from ready_corner.core.quantities.errors import CalledError, MeasuredError
from ready_corner.core.record.jig_acts import FootRead, JigLog, SlopeRead, Supported
from ready_corner.core.record.logbook import Entry, PlanRevised, check, fold
from tests.words import said

from .test_jig import HEATHER

FEET = {"LF": 0.0, "RF": 1.5, "LR": -3.5, "RR": 0.5}


def told(*acts):
    log = JigLog()
    for n, act in enumerate(acts, start=2):
        log = log.after(n, act)
    return level(HEATHER, log)


def read(heights):
    return [FootRead(f, h, "rule") for f, h in heights.items()]


def test_feet_are_brought_up_to_the_highest_and_the_twist_is_said_with_its_foot():
    found = told(*read(FEET))
    todo = {f.name: said(f.do) for f in found.feet}
    assert todo == {
        "LF": "up 5 flats",
        "RF": "leave it",
        "LR": "up 2 turns 5 flats",
        "RR": "up ½ turn",
    }  # 1.75 mm a turn: 1.5, 5.0 and 1.0 mm
    assert said(found.notes)[0] == "LR stands 2.5 mm low on the plane of the other three."
    assert said(found.sentence).startswith("The jig rises")
    flat = told(*read(dict.fromkeys(FEET, 2.0)))
    assert said(flat.sentence) == "The jig stands level, as far as these readings tell."
    assert flat.notes == ()


def test_when_it_is_lifted_or_held_otherwise_the_feet_are_to_be_read_again():
    assert said(told(*read(FEET), Supported("on a lift")).sentence) == "Read the feet again: the frame is on a lift now."
    assert "every foot from one line" in said(told().sentence)
    again = told(*read(FEET), Supported("on a lift"), *read(dict.fromkeys(FEET, 0.0)))
    assert all(f.counts and said(f.do) == "leave it" for f in again.feet)


def test_a_level_read_both_ways_tells_its_own_error():
    line = said(told(*read(FEET), SlopeRead("across", 0.45, -0.15, "digital")).notes)[-1]
    assert line.startswith("By reversal it rises 0.30° to the left")
    assert line.endswith("the digital gauge itself is 0.15° off.")


@pytest.mark.parametrize(
    ("act", "error"),
    [
        (FootRead("XX", 1.0, "rule"), CalledError),
        (FootRead("LF", 1.0, "digital"), CalledError),
        (SlopeRead("along", 45.0, 0.1, "digital"), MeasuredError),
    ],
)
def test_what_cannot_be_read_is_said(act, error):
    with pytest.raises(error):
        check(fold(None, [Entry("1", 1, PlanRevised(HEATHER))]), act)
