"""Hubs that are not where the plan has them: what a string's opening is worth then, and what of it is counted."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.advise.corner import wanted_of
from ready_corner.core.advise.next import ask_of, next_step
from ready_corner.core.advise.read_first import read_first
from ready_corner.core.judge.hubs import FURTHEST_MM
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.judge.reach import reach
from ready_corner.core.judge.strings import HUBS_OFF
from ready_corner.core.model.springs_of_plan import springing
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.plan import Ways
from ready_corner.core.quantities.measured import COVERAGE, KNOWN_AS_U
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.quantities.verdict import can_hold
from ready_corner.core.record.happenings import Happened, Turned
from ready_corner.core.record.logbook import fold
from ready_corner.core.simulation.builder import Work
from ready_corner.core.simulation.car import Faults, HiddenCar
from ready_corner.core.simulation.cars import practice_plan, without_points
from tests.core.cars import Log
from tests.core.linkage.cars import plan
from tests.words import said

EXACT = (
    Tool("rule", "Rule", "length", 1e-4, 0.0),
    Tool("tape", "Tape", "length", 1e-4, 0.0),
    Tool("digital", "Gauge", "angle", 1e-4, 0.0),
    Tool("plate", "Plate", "steer", 1e-4, 0.0),
)
STILL = Faults(built=0, springs=0, pads=0, run_out=0, span=0, settled=0, sticks=0)


def exactly_read(name="heather", seed=3, strings="each", **ways):
    """A car built as drawn but mis-set, read once round without any error, at its first lift."""
    known = Ways(strings, strings_on="car", hub_middle=0, span=0, run_out=0, settled=0, floor=0, box_parallel=0, **ways)
    of = replace(practice_plan(plan(name), name), tools=EXACT, ways=known)
    of = replace(of, front=replace(of.front, hub_width=None), rear=replace(of.rear, hub_width=None))
    work = Work(HiddenCar(of, seed, replace(STILL, strings=(15.0, 0.0 if strings == "box" else 0.15))))
    while (step := next_step(work.now)).kind != "lift":
        work.do(step)
    return work


@pytest.mark.parametrize(("name", "seed"), [("heather", 5), ("three-link-axle", 9)])
def test_by_how_much_a_mis_set_car_reads_its_toes_out_is_known_and_turned_for(name, seed):
    work = exactly_read(name, seed)
    wheels = [m for m in work.now.marks if m.mark.endswith("toe") and m.mark[:2] in CORNERS and m.aim]
    shown = [m.value - work.car.truth(m.mark) for m in wheels]
    assert max(map(abs, shown)) > 0.02  # as the half widths have it, it is out by as much
    left = [off + m.aside for off, m in zip(shown, wheels, strict=True)]
    assert np.abs(left).max() < 0.45 * np.abs(shown).max()
    assert all(abs(off) <= m.expanded for off, m in zip(shown, wheels, strict=True))
    assert all(m.surely < m.expanded for m in wheels if abs(m.aside) > 0.01)
    assert [wanted_of(m, m.off).u for m in wheels] == pytest.approx([m.surely / COVERAGE for m in wheels])  # it is turned for
    work._turn_all(next_step(work.now))
    true = [work.car.truth(m.mark) - m.aim.aim for m in wheels]
    assert np.abs(true).max() < 0.16  # a flat of a tie rod is worth a tenth of a degree


def test_gaps_to_hubs_that_were_taken_along_are_read_again_and_no_others():
    work = exactly_read(seed=5)
    work._turn_all(next_step(work.now))
    work.do(next_step(work.now))  # settled
    moved = {c: work.now.figures.hubs._turned(c, 0, None)[0] for c in CORNERS}
    for c in CORNERS:
        line = [o for o in CORNERS if o[0] == c[0]]
        far = max(abs(moved[o]) for o in line) > 2280 * np.radians(0.05)  # a quarter of the tolerance
        assert ask_of(work.now, (c, "gap_hub")).wanted == far
    while (step := next_step(work.now)).kind == "read":
        work.do(step)
    assert all(abs(work.now.mark(f"{c}.toe").aside) < 0.06 for c in CORNERS)


@pytest.mark.parametrize("rests", ["stands", "car"])
def test_a_car_that_was_rolled_stands_otherwise_beside_strings_on_stands(rests):
    """Gaps to the hubs are read again beside the toes that are, and those alone; a toe that stays holds with the line as it lay."""
    of = practice_plan(plan("heather"), "heather")
    log = Log(replace(of, tools=EXACT, ways=replace(of.ways, strings_on=rests)))
    log.round()
    wanted = lambda: {c for c in CORNERS if ask_of(evaluate(fold(None, log.entries)), (c, "gap_hub")).wanted}  # noqa: E731
    log.add(Happened("settled"))
    before = evaluate(fold(None, log.entries)).mark("RF.toe")
    assert wanted() == set()
    log.turn("LF.tie", 2.0)
    log.add(Happened("settled"))
    assert wanted() == ({"LF", "LR"} if rests == "stands" else set())
    for quantity, gap in (("gap_front", 301.0), ("gap_back", 300.0)):
        log.read("LF", quantity, gap)
    assert wanted() == ({"LF", "LR"} if rests == "stands" else set())
    assert (evaluate(fold(None, log.entries)).mark("LF.toe").value is None) == (rests == "stands")
    log.read("LF", "gap_hub", 118.0)
    log.read("LR", "gap_hub", 140.0)
    found = evaluate(fold(None, log.entries))
    assert found.mark("LF.toe").fresh
    assert found.mark("RF.toe").value == before.value


def test_a_toe_whose_hub_went_says_which_and_how_far_until_its_gap_is_read():
    of = replace(practice_plan(plan("heather"), "heather"), tools=EXACT)
    log, per = Log(of), reach(of, springing(of), False).hubs["LF"].of("LF.camber")
    log.round()
    log.turn("LF.camber", -2.5 / per)  # two and a half millimetres
    for quantity, gap in (("gap_front", 301.0), ("gap_back", 300.0)):
        log.read("LF", quantity, gap)

    mark = evaluate(fold(None, log.entries)).mark("LF.toe")
    assert mark.state == "moved since"
    assert (
        said(mark.reason)
        == "the left front hub was taken 2.5 mm inwards since the gap to it was read: read the gaps to the hubs again"
    )
    for corner in ("LF", "LR"):
        log.read(corner, "gap_hub", 120.0)
    assert evaluate(fold(None, log.entries)).mark("LF.toe").state != "moved since"


def test_a_hub_that_went_hardly_at_all_or_nobody_knows_how_far():
    of = replace(practice_plan(plan("heather"), "heather"), tools=EXACT)
    narrow = replace(of, aims=tuple(replace(a, tolerance=0.01) for a in of.aims))
    line, per = ("LF", "LR"), reach(of, springing(of), False).hubs["LF"].of("LF.camber")
    for mm, asked in ((0.8, False), (1.2, True)):  # however narrow the tolerance, a millimetre is what a rule tells of it
        log = Log(narrow)
        log.turn("LF.camber", mm / per)
        assert (evaluate(fold(None, log.entries)).figures.hubs.left(line, 0) is not None) == asked
    log = Log(without_points(of))
    log.turn("LR.camber", 4.0)
    corner, far, sure = evaluate(fold(None, log.entries)).figures.hubs.left(line, 0)
    assert (corner, far) == ("LR", 0.0)
    assert sure == pytest.approx(2 * 0.5 * 4.0 * 1.25)  # either way, half of what the link gained


def test_what_nobody_has_read_makes_a_hub_the_less_sure():
    of = replace(practice_plan(plan("heather"), "heather"), tools=EXACT)
    u = {}
    for unread in ("", "camber", "caster", "height"):
        log = Log(of)
        for kind, tool in (("height", "tape"), ("camber", "digital"), ("caster", "digital")):
            if kind != unread:
                log.read("LF", kind, of.aim(f"LF.{kind}").aim, tool)
        u[unread] = evaluate(fold(None, log.entries)).figures.hubs.beside("LF", 0).u
    assert u[""] < 1e-9  # all there is to be turned for is known, and stands on its aim
    assert u["camber"] > 2.0  # a degree of it takes the hub millimetres along
    assert u["height"] > 0.15
    assert u["caster"] > 0.01


def test_what_is_wide_for_want_of_turning_alone_is_turned_for_and_not_read_again():
    """Gaps by tape on a car whose camber nobody has read: they could hold once the hubs stand where they will, so a finer rule is not asked for first."""
    of = practice_plan(plan("heather"), "heather")
    for tolerance, first in ((0.3, False), (0.25, True)):
        aims = tuple(replace(a, tolerance=tolerance) if a.mark.endswith("toe") else a for a in of.aims)
        log = Log(replace(of, aims=aims))
        for c in CORNERS:
            for quantity, gap in (("gap_hub", 700 - of.axle_of(c).half_width), ("gap_front", 101.5), ("gap_back", 100.0)):
                log.read(c, quantity, gap, "tape")
        found = evaluate(fold(None, log.entries))
        mark = found.mark("LF.toe")
        assert not can_hold(mark.expanded, mark.aim)
        assert can_hold(mark.once_set, mark.aim) != first
        if not first:
            assert found.finer("LF.toe") is not None
            assert read_first(found, "LF.toe") is None


def test_a_taped_width_takes_what_both_hubs_are_off_alike():
    work = exactly_read("five-link")
    taped = replace(work.car.plan, front=replace(work.car.plan.front, hub_width=2 * work.car.plan.front.half_width))
    hubs = [work.now.figures.hubs.beside(c, 0) for c in CORNERS[:2]]
    other = Work(work.car, taped)
    for e in work.state.entries[1:]:
        other.tell(e.what)
    own = [other.now.figures.hubs.beside(c, 0) for c in CORNERS[:2]]
    assert own[0].value == pytest.approx((hubs[0].value - hubs[1].value) / 2, abs=1e-9)
    assert own[1].value == pytest.approx(-own[0].value, abs=1e-9)
    assert own[0].parts["front hub set"] == pytest.approx(-own[1].parts["front hub set"])
    per = {c: reach(taped, springing(taped), False).hubs[c].of(f"{c}.camber") for c in CORNERS[:2]}
    for c in CORNERS[:2]:  # both three millimetres outwards, and back where they were in what is to be turned yet
        other.tell(Turned(f"{c}.camber", 3.0 / per[c]))
    then = [other.now.figures.hubs.beside(c, other.state.number) for c in CORNERS[:2]]
    assert [t.value for t in then] == pytest.approx([o.value + 3.0 for o in own], abs=0.02)


def test_a_box_feels_only_by_how_much_its_ends_are_off_side_to_side():
    work = exactly_read("heather", strings="box")
    off = {c: work.now.figures.hubs.beside(c, 10**6).value for c in CORNERS}
    part = work.now.figures.strings.opening("LF", 10**6).parts[HUBS_OFF]
    of = work.car.plan
    expected = np.degrees(((off["RF"] - off["LF"]) - (off["RR"] - off["LR"])) / (2 * of.wheelbase))
    assert abs(part) == pytest.approx(KNOWN_AS_U * abs(expected), rel=0.02)


def test_a_hub_is_never_said_to_be_further_off_than_any_wheel_goes():
    of = practice_plan(plan("heather"), "heather")
    narrow = replace(of, aims=tuple(replace(a, tolerance=0.01) for a in of.aims))
    log = Log(narrow)
    log.read("LF", "height", 500.0)
    log.read("LF", "camber", 40.0)

    for c in CORNERS:
        found = evaluate(fold(None, log.entries)).figures.hubs.beside(c, 0)
        assert abs(found.value) <= FURTHEST_MM
        assert found.u <= FURTHEST_MM


def test_what_was_turned_a_little_since_a_reading_makes_it_less_sure():
    log = Log()
    log.round()

    before = evaluate(fold(None, log.entries)).mark("RR.height")
    log.turn("RR.perch", 1 / 6)
    after = evaluate(fold(None, log.entries)).mark("RR.height")
    assert after.state == "holds"
    assert after.value == before.value  # what was read stays what was read
    assert after.expanded**2 == pytest.approx(before.expanded**2 + (2 * KNOWN_AS_U * after.effect) ** 2, rel=0.3)
    assert after.expanded > before.expanded
