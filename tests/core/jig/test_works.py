"""Around the weld and the body on the jig: worked by hand, and what cannot be written down."""

import pytest

from ready_corner.core.advise.pickups import pickups
from ready_corner.core.quantities.errors import CalledError, MeasuredError
from ready_corner.core.quantities.notation import Units
from ready_corner.core.record.happenings import Happened
from ready_corner.core.record.jig_acts import GaugeZeroed, JigLog, StatusGiven, Supported, SurveyRead
from ready_corner.core.record.logbook import Entry, PlanRevised, check, fold
from ready_corner.core.record.weld_acts import (
    HOLDS,
    REFIT,
    Accepted,
    Bracing,
    CarryOver,
    Cleared,
    CutLine,
    Dropped,
    HoldMet,
    OpeningRead,
    SillRead,
    SupportPoint,
    WeldOrder,
    Works,
    body_move,
    open_holds,
)  # fmt: skip
from ready_corner.core.say.jig import say_locked
from ready_corner.core.say.weld import say_body, say_gaps, say_order
from tests.words import said

from .test_jig import DATUM, HEATHER, frame, surveyed, truth_with

MM = Units()


def log_of(*acts):
    log = JigLog()
    for n, act in enumerate(acts, start=2):
        log = log.after(n, act)
    return log


def works(*acts):
    return log_of(*acts).works


def test_conditions_are_open_until_said_and_again_after_a_disturbance():
    assert open_holds(Works(), 0) == HOLDS
    said = works(*(HoldMet(c) for c in HOLDS), HoldMet("rack centred", met=False))
    assert open_holds(said, 0) == ("rack centred",)
    assert set(open_holds(said, 3)) == {HOLDS[0], HOLDS[1], "rack centred"}  # those of entries 2 and 3
    assert any("not yet said: suspension cycled" in s for s in say_locked(frame(DATUM, StatusGiven("RR", "welded"))))


def test_work_out_of_the_jig_asks_for_a_refit_and_angles_know_their_zero():
    rows = [Supported("on stands"), Supported("on the jig"), *(HoldMet(c) for c in HOLDS)]
    log = JigLog()
    for n, act in enumerate(rows, start=2):
        log = log.after(n, act)
    assert open_holds(log.works, 0, log.left_jig) == (REFIT,)
    assert open_holds(log.after(20, HoldMet(REFIT)).works, 0, log.left_jig) == ()
    slope = SurveyRead("slope", ("LF.lower.rear", "LF.lower.front"), 0.4, "digital")
    assert len(frame(slope).readings) == 1
    assert frame(GaugeZeroed("frame"), slope).readings == ()
    assert len(frame(GaugeZeroed("frame"), GaugeZeroed("gravity"), slope).readings) == 1


def test_an_accepted_deviation_can_be_left_until_its_point_may_have_moved():
    off = surveyed(truth_with(LR_upper_front=[0.0, -3.4, 0.0]))
    decided = frame(*off, DATUM, Accepted("LR.upper.front", "clears the tank, toe link takes it up"))
    row = next(p for p in pickups(decided, {}, {}).rows if p.point == "LR.upper.front")
    assert (row.verdict, row.options[0].do) == ("out", "leave it")
    assert "clears the tank" in said(row.options[0].how)
    again = frame(*off, DATUM, Accepted("LR.upper.front", "so be it"), Happened("knock"), *off)
    assert "accepted" not in said(next(p for p in pickups(again, {}, {}).rows if p.point == "LR.upper.front").options[0].how)


def test_the_order_of_welding_says_what_is_next_and_what_draws_the_frame():
    order = works(WeldOrder(("LF upper", "LR upper", "LF lower", "RF upper")))
    assert say_order(order, [])[0] == "Weld next: LF upper."
    assert "all on the left" in say_order(order, [])[1]
    assert say_order(order, ["LF upper"])[:2] == (
        "Weld next: LR upper.",
        "Read the points of the last joint again before the next.",
    )
    assert say_order(order, ["LF upper", "LR upper", "LF lower", "RF upper"]) == ("Every joint of the list is welded.",)
    assert say_order(Works(), []) == ()


def test_the_body_goes_where_its_openings_ask():
    left = OpeningRead("LF", 310.0, 323.0)
    assert body_move(left) == 6.5  # more behind than ahead: the opening lags, so the body goes forward
    lines = say_body(
        log_of(
            left,
            OpeningRead("RF", 316.0, 317.0),
            SillRead("front", "left", 402.0),
            SillRead("front", "right", 398.5),
            SupportPoint("front jig pin", "locates", 11.5, 12.0),
        ),
        MM,
    )
    assert lines[0] == "The left front axle centre wants the body 6.5 mm forward."
    assert "the body is turned" in lines[2]
    assert lines[3] == "Sills at the front: the right is 3.5 mm lower: pack it by so much, or note it as sag."
    assert lines[4] == "front jig pin locates with 0.5 mm of play."


def test_a_dropped_line_that_leans_misses_at_the_mark_and_a_cut_has_a_line_not_to_be_passed():
    lines = say_body(
        log_of(
            Dropped("LF.upper.front", 200.0, 0.0, 700.0, 2.0, 950.0),
            CutLine("floor, left", "LF.lower.front", 30.0, "layered sill"),
        ),
        MM,
    )
    assert (
        lines[0]
        == "Left front upper front dropped: the line leans 0.23°; the mark would be 3.0 mm too far outboard or forward: set it back by so much."
    )
    assert (
        lines[1]
        == "No cut at floor, left nearer than 30.0 mm to left front lower front: layered sill. Metal left can still go."
    )
    with pytest.raises(MeasuredError, match="two depths"):
        Dropped("LF.upper.front", 200.0, 0.0, 220.0, 2.0, 950.0).check(HEATHER)
    back = log_of(CutLine("floor", "LF.lower.front", 30.0, "sill"), CutLine("floor", "LF.lower.front", 30.0, "sill", out=True))
    assert say_body(back, MM) == ()


def test_clearances_come_least_first():
    lines = say_gaps(
        log_of(Cleared("RR.upper.front", "fuel pipe", "neighbour", 12.0), Cleared("RR.upper.rear", "bush B3", "bush", 0.4)), MM
    )
    assert lines == ("RR upper rear to bush B3: 0.4 mm (bush)", "RR upper front to fuel pipe: 12.0 mm")


@pytest.mark.parametrize(
    ("act", "error"),
    [
        (Accepted("LR.upper.front", " "), MeasuredError),
        (Accepted("LR.elbow", "why"), CalledError),
        (WeldOrder(("a", "a")), MeasuredError),
        (Cleared("LR.upper.front", "pipe", "neighbour", -1.0), MeasuredError),
        (OpeningRead("LF", 0.0, 300.0), MeasuredError),
        (SupportPoint("x", "locates", 12.0, 11.0), MeasuredError),
    ],
)
def test_what_cannot_be_written_down_is_said(act, error):
    with pytest.raises(error):
        check(fold(None, [Entry("1", 1, PlanRevised(HEATHER))]), act)
    check(fold(None, [Entry("1", 1, PlanRevised(HEATHER))]), Bracing(False))


OPENINGS = [OpeningRead(c, 400.0, 410.0) for c in ("LF", "RF", "LR", "RR")]
READ_BESIDE = [
    *OPENINGS,
    *(SillRead(p, s, 250.0) for p in ("front", "rear") for s in ("left", "right")),
    Cleared("LF.lower.front", "LF.tie.inner", "neighbour", 6.0),
    Dropped("RR.lower.rear", 200.0, 1.0, 400.0, 2.0, 0.0),
    CarryOver("story stick", "LF.lower.front", "RR.lower.rear"),
]


@pytest.mark.parametrize("what", ["cut", "knock", "weld"])
@pytest.mark.parametrize(("points", "stale"), [(("LF",), 4), (("RR.lower",), 4), (("rear",), 0), ((), 9)])
def test_what_was_read_beside_a_cut_a_knock_or_a_weld_is_read_again(what, points, stale):
    """Of LF: its opening, the front sills, a clearance, what carries over; of RR: its opening, the rear sills, what was dropped, what carries over."""
    found = frame(*READ_BESIDE, Happened(what, points=points))
    rows = [*say_body(found.log, MM), *say_gaps(found.log, MM)]
    assert sum("since then" in row for row in rows) == stale
    again = frame(*READ_BESIDE, Happened(what, points=points), *READ_BESIDE)
    assert not any("since then" in row for row in [*say_body(again.log, MM), *say_gaps(again.log, MM)])


def test_a_point_that_was_welded_is_no_more_provisional_and_warns_of_what_is_open():
    loose = frame(*(HoldMet(c) for c in HOLDS), Happened("weld", points=("RR.upper.front",)))
    assert loose.log.status("RR.upper.front") == "welded"
    assert loose.log.status("RR.upper.rear") == "provisional"
    told = say_locked(loose)
    assert any("no datum is chosen" in row for row in told)
    assert any("not yet said: suspension cycled" in row for row in told)  # the weld has reopened what was met before it
    painted = frame(StatusGiven("RR.upper.front", "painted"), Happened("weld", points=("RR.upper.front",)))
    assert painted.log.status("RR.upper.front") == "painted"
