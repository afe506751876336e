import random
from dataclasses import replace

import pytest

from ready_corner.core.plan.plan import Adjuster, Axle, Perch, Plan, Stack
from ready_corner.core.quantities.errors import CalledError, MeasuredError, PlannedError, UnusualError
from ready_corner.core.quantities.notation import Units
from ready_corner.core.record.happenings import Happened, OutOfThreadError, Turned
from ready_corner.core.record.logbook import PlanRevised, check, fold, fold_on
from ready_corner.core.record.notes import Correction, Note
from ready_corner.core.record.readings import QUANTITIES, Reading

from .cars import PERCH, ROD, SHIMS, TUBE, Log, end, plan


def told():
    log = Log()
    log.round()
    wrong = log.read("LF", "height", 99.0)
    log.turn("LR.toe", 0.5)
    log.strike(wrong)
    log.read("LR", "camber", -1.4)
    log.add(Happened("string"))
    log.add(Note("words"))
    log.add(PlanRevised(plan(), 1))
    log.turn("RR.perch", 1.0)
    return log


def test_folding_one_by_one_is_folding_at_once():
    entries = told().entries
    at_once, state = fold(None, entries), fold(None, entries[:1])
    rng, i = random.Random(3), 1
    while i < len(entries):
        n = rng.randint(1, 5)
        state, i = fold_on(state, entries[i : i + n]), i + n
    assert state == at_once


def test_a_struck_reading_stays_in_the_log_and_out_of_the_figures():
    log = told()
    state = fold(None, log.entries)
    assert [t.reading.value for t in state.taken["LF", "height"]] == [110.0]
    assert len(state.entries) == len(log.entries)
    log.strike(next(e.id for e in log.entries if isinstance(e.what, Correction)))
    again = fold(None, log.entries)
    assert [t.reading.value for t in again.taken["LF", "height"]] == [110.0, 99.0]  # striking the correction brings it back


def test_turns_add_up_until_the_thread_is_measured_anew():
    log = Log()
    log.turn("LR.toe", 1.0)
    log.turn("LR.toe", -0.5)
    log.add(PlanRevised(replace(plan(), about="other words"), 1))
    assert fold(None, log.entries).moved["LR.toe"] == 0.5
    longer = Adjuster("LR.toe", "toe link", "LR", (end(engaged=25), end("left")))
    log.add(PlanRevised(replace(plan(), adjusters=(longer, ROD, SHIMS, PERCH)), 5))
    assert fold(None, log.entries).moved["LR.toe"] == 0.0


def test_a_change_ends_the_spell_of_what_it_can_move_and_of_nothing_else():
    log = Log()
    log.round()
    before = fold(None, log.entries)
    log.turn("LR.toe", 1 / 6)
    at_corner = fold(None, log.entries)
    assert {p for p in at_corner.spells if at_corner.spells[p] != before.spells.get(p, 0)} == {
        ("LR", q)
        for q, facts in QUANTITIES.items()
        if facts.floor and facts.mark in ("height", "caster", "inclination", "camber", "toe", "total_toe")
    }
    log.turn("RR.perch", 1 / 6)
    everywhere = fold(None, log.entries)
    assert {c for c, q in everywhere.spells if q == "camber"} == {"LF", "RF", "LR", "RR"}
    assert at_corner.condition.settled
    assert not everywhere.condition.settled


def test_a_logbook_without_a_plan_is_no_car():
    with pytest.raises(CalledError):
        fold(None, [])


def reading(quantity, value, **more):
    return Reading(quantity, "LF", value, {"height": "tape", "camber": "digital"}.get(quantity, "rule"), **more)


REFUSED = [
    (reading("height", -1.0), MeasuredError, "reading_refused"), (reading("gap_front", -0.1), MeasuredError, "reading_refused"),
    (reading("gap_hub", 4000.0), UnusualError, "unusual_value"), (reading("camber", 40.0), UnusualError, "unusual_value"),
    (reading("camber", 50.0, upright_deg=90.0), UnusualError, "unusual_value"), (replace(reading("height", 100.0), tool="digital"), CalledError, "not_understood"),
    (replace(reading("height", 100.0), tool="theodolite"), CalledError, "not_understood"), (Turned("LR.toe", 0.0), MeasuredError, "reading_refused"),
    (Turned("LR.toe", 7.0), OutOfThreadError, "out_of_thread"), (Turned("LF.shims", -3.0), OutOfThreadError, "out_of_thread"),
    (Turned("LF.shims", 0.5), MeasuredError, "reading_refused"), (Turned("nothing", 1.0), CalledError, "not_understood"),
    (Correction("nobody"), CalledError, "not_understood"), (Correction("id-1"), CalledError, "not_understood"),
]  # fmt: skip


@pytest.mark.parametrize(("what", "error", "code"), REFUSED)
def test_what_cannot_go_into_the_log_is_refused_with_its_code(what, error, code):
    state = fold(None, Log().entries)
    with pytest.raises(error) as refused:
        check(state, what)
    assert (refused.value.code, refused.value.sentence[-1]) == (code, ".")


@pytest.mark.parametrize(
    ("quantity", "value", "meant", "unit"),
    [  # aims 110 ± 2 and −1.5 ± 0.2
        ("height", 11.8, 118.0, False), ("height", 900.0, 90.0, False), ("height", 5.0, 127.0, True), ("camber", -15.0, -1.5, False),
        ("height", 13.0, 130.0, False), ("height", 13.1, None, None), ("height", 90.0, None, None), ("height", 70.0, None, None),
        ("camber", 15.0, None, None), ("camber", -5.0, None, None), ("camber", -0.15, None, None), ("camber", 0.0, None, None),
    ],
)  # fmt: skip
def test_a_figure_nowhere_near_its_aim_that_a_slip_explains_is_asked_about_with_what_was_meant(quantity, value, meant, unit):
    state, what = fold(None, Log().entries), reading(quantity, value)
    asked = what.hardly_meant(state.plan)
    if meant is None:
        assert asked is None
        return
    assert asked.finding.kind == "reading.slip"
    assert asked.finding.figure("unit") == unit
    assert asked.numbers["meant"] == pytest.approx(meant)
    with pytest.raises(UnusualError, match="would be near its aim"):
        check(state, what)
    check(state, replace(what, confirmed=True))
    assert what.hardly_meant(replace(plan(), aims=())) is None


def test_an_unusual_value_confirmed_is_taken_and_twice_struck_is_not():
    log = Log()
    check(fold(None, log.entries), reading("camber", 40.0, confirmed=True))
    struck = log.read("LF", "height", 100)
    log.strike(struck)
    with pytest.raises(CalledError, match="struck out already"):
        check(fold(None, log.entries), Correction(struck))


@pytest.mark.parametrize(
    ("adjuster", "moved", "room"),
    [
        (TUBE, 0.0, (-20 / 1.75, 12 / 1.75)),  # 30 engaged, 18 must stay: 12 left longer; 20 exposed: shorter
        (TUBE, 2.0, (-20 / 1.75 - 2, 12 / 1.75 - 2)),
        (
            Adjuster("a", "a", "LF", (end(engaged=20.0), end("left", engaged=40.0, exposed=3.5))),
            0.0,
            (-2.0, 2 / 1.75),
        ),  # each way the scarcer end
        (Adjuster("a", "a", "LF", (end(engaged=10.0),)), 0.0, (-20 / 1.75, 0.0)),  # under its engagement already
        (
            Adjuster("a", "a", "LF", (end(pitch=1.75), end(pitch=1.25))),
            0.0,
            (-12 / 1.25, 12 / 1.75),
        ),  # one end out, the other in
        (SHIMS, 0.0, (-2.0, 3.0)),
        (PERCH, 1.0, (-8.5, 9.0)),
    ],
)
def test_room_on_the_thread_worked_by_hand(adjuster, moved, room):
    assert adjuster.room(moved) == pytest.approx(room)


def test_length_of_a_turn_depends_on_the_ends():
    assert TUBE.length_per_step == 3.5  # two pitches between opposite hands
    assert ROD.length_per_step == 1.75
    assert Adjuster("d", "d", "LF", (end(pitch=1.75), end(pitch=1.25))).length_per_step == 0.5  # same hand: the difference
    with pytest.raises(PlannedError, match="turning the tube changes nothing"):
        Adjuster("d", "d", "LF", (end(), end()))


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"wheelbase": 0.0}, "wheelbase"), ({"name": " "}, "name"), ({"front": Axle(1400.0, 0.0, 600.0)}, "front.rim_flange_diameter"),
        ({"rear": Axle(1400.0, 600.0, 600.0)}, "rear.rim_flange_diameter"), ({"adjusters": (TUBE, TUBE)}, "adjusters"), ({"tool_for": {"height": "x"}}, "tool_for"),
    ],
)  # fmt: skip
def test_a_plan_that_cannot_be_is_refused_at_its_path(change, path):
    with pytest.raises(PlannedError) as refused:
        replace(plan(), **change)
    assert refused.value.path == path


@pytest.mark.parametrize(
    "by",
    [
        Stack(0.0, 1, 2),
        Stack(1.0, 3, 2),
        Stack(1.0, 1, 2, (2.5,)),
        Stack(1.0, 1, 2, (0.0,)),
        Perch(0.0, 1, 1, 1),
        Perch(1.0, 1, 1, 0.0),
        (),
        (end(pitch=0.0),),
    ],
)
def test_an_adjuster_that_cannot_be_is_refused(by):
    with pytest.raises(PlannedError):
        Adjuster("a", "a", "LF", by)


def test_units_and_tools_of_a_plan_are_checked():
    with pytest.raises(PlannedError):
        Units("mm", 12)
    with pytest.raises(CalledError):
        plan().adjuster("none")
    assert isinstance(plan(), Plan)
