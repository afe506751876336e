from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.advise.accept import accept, preview
from ready_corner.core.advise.corner import NotReadyToSetError, perch_turn, require_turns, set_corner
from ready_corner.core.advise.next import next_step, round_of
from ready_corner.core.engines.alignment.string import StringError
from ready_corner.core.engines.turns import AlikeError
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.judge.progress import share_held, steer_ahead
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.plan import Ways
from ready_corner.core.quantities.tools import Tool, default_tools
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.happenings import Happened, Turned
from ready_corner.core.record.jig_acts import GaugeZeroed
from ready_corner.core.record.logbook import Entry, PlanRevised, fold
from ready_corner.core.record.readings import Reading
from ready_corner.core.say.judged import say_toes
from tests.amounts import drawn
from tests.words import said

from .cars import FINE, ROD, TUBE, Log, plan
from .practice import PracticeCar

WORTH = {"LR.toe": (0.04, 0.52), "LR.upper": (0.35, -0.2)}  # camber and toe in degrees a turn, the truth


def judged(log):
    return evaluate(fold(None, log.entries))


def states(log):
    return {m.mark: m.state for m in judged(log).marks if m.state}


def trial_car(turned, camber=-0.9, toe=0.5):
    """The practice car after so many turns of each adjuster at the left rear."""
    c, t = (base + sum(WORTH[a][k] * n for a, n in turned.items()) for k, base in ((0, camber), (1, toe)))
    return PracticeCar(
        {**dict.fromkeys(CORNERS, 0.1), "LR": t},
        {**dict.fromkeys(CORNERS, -1.5), "LR": c},
        left_string=(1000, 0.3),
        right_string=(-1000, -0.4),
    )


def trials(of=None, turns=(("LR.toe", 1.0), ("LR.upper", 1.5))):
    log, turned = Log(of), {}
    log.round(trial_car(turned))
    for adjuster, amount in turns:
        log.turn(adjuster, amount)
        turned[adjuster] = turned.get(adjuster, 0.0) + amount
        car = trial_car(turned)
        log.read("LR", "height", 110.0)
        log.read("LR", "camber", car.gauge("LR"))
        log.string("LR", car)  # a link may have taken the hub along
        log.read("LF", "gap_hub", car.gaps("LF")[2])
    return log, turned


@pytest.mark.parametrize("ways", ["each", "box"])
def test_a_practice_car_is_read_back_through_the_whole_log(ways):
    toes, cambers = (
        dict(zip(CORNERS, (0.3, -0.2, 0.15, 0.05), strict=True)),
        dict(zip(CORNERS, (-1.2, -2.0, -0.4, 0.3), strict=True)),
    )
    skew = (0.7, 0.7) if ways == "box" else (0.7, -1.1)
    car = PracticeCar(toes, cambers, left_string=(1000, skew[0]), right_string=(-1000, skew[1]))
    log = Log(plan(ways=Ways(ways)))
    log.round(car)
    found = judged(log)
    for corner in CORNERS:
        assert found.mark(f"{corner}.toe").value == pytest.approx(toes[corner], abs=1e-9)
        assert found.mark(f"{corner}.camber").value == pytest.approx(cambers[corner], abs=1e-9)
    assert found.mark("car.thrust").value == pytest.approx(-0.05, abs=1e-9)
    assert found.mark("front.total_toe").value == pytest.approx(0.1, abs=1e-9)
    assert said(steer_ahead(found)) == "front wheels point 0.20° right of the thrust line"


def test_a_mirrored_car_has_the_same_toe_and_the_opposite_thrust():
    toes = dict(zip(CORNERS, (0.3, -0.2, 0.15, 0.05), strict=True))
    mirrored = {c: toes[{"L": "R", "R": "L"}[c[0]] + c[1]] for c in CORNERS}
    logs = []
    for values, left, right in ((toes, 0.5, -0.3), (mirrored, 0.3, -0.5)):
        log = Log()
        log.round(PracticeCar(values, dict.fromkeys(CORNERS, -1.0), left_string=(1000, left), right_string=(-1000, right)))
        logs.append(judged(log))
    assert [logs[0].mark(f"{c}.toe").value for c in CORNERS] == pytest.approx(
        [logs[1].mark(f"{c[0].translate(str.maketrans('LR', 'RL'))}{c[1]}.toe").value for c in CORNERS]
    )
    assert logs[0].mark("car.thrust").value == pytest.approx(-logs[1].mark("car.thrust").value)


def test_a_car_on_its_aims_is_ready_and_says_so():
    log = Log()
    log.round()
    assert set(states(log).values()) == {"holds"}
    assert next_step(judged(log)).kind == "done"
    assert share_held(judged(log)) == {"Stance": 1.0, "Set": 1.0}


def test_an_untried_link_spoils_its_corner_and_a_perch_what_the_springs_of_the_plan_say():
    log = Log()
    log.round()
    log.turn("LR.toe", 1 / 6)
    assert {m for m, s in states(log).items() if s == "moved since"} == {
        "LR.toe"
    }  # a toe link hardly moves more, wherever it sits
    log = Log()
    log.round()
    log.turn("RR.perch", 1 / 6)
    assert set(states(log).values()) == {"holds"}  # a flat raises it by less than a quarter of the tolerance
    log.turn("RR.perch", 5)
    assert {s for m, s in states(log).items() if not m.endswith("toe")} == {"moved since"}
    log.turn("RR.perch", -5 - 1 / 6)
    assert set(states(log).values()) == {"holds"}


def test_a_tried_adjuster_spoils_only_what_it_moves_by_a_quarter_of_the_tolerance():
    log, _ = trials()
    log.turn("LR.toe", 1 / 6)  # worth 0.007 of camber (tolerance 0.2) and 0.087 of toe (tolerance 0.1)
    moved = {m: s for m, s in states(log).items() if s == "moved since"}
    assert moved == {"LR.toe": "moved since"}
    assert "worth about 0.09°" in said(judged(log).mark("LR.toe").reason)
    log.turn("LR.toe", -1 / 6)
    assert "moved since" not in states(log).values()  # turned back: nothing is left of it


def test_a_whole_mark_is_told_from_whichever_of_its_corners_has_moved():
    toes = [replace(TUBE, id=f"{c}.toe", corner=c) for c in ("LF", "RF")]
    log, car = Log(plan(adjusters=tuple(toes))), None
    log.entries[0] = Entry("id-1", 1, PlanRevised(replace(log.entries[0].what.plan, aims=(Aim("front.total_toe", 0.2, 0.1),))))
    car = log.round()
    for turned in (0.25, 0.5):  # a trial of each, and a second turn of each: by now what they are worth is known
        for corner in ("LF", "RF"):
            log.turn(f"{corner}.toe", 0.25)
            if turned == 0.25:
                log.string(corner, replace(car, toe={**car.toe, corner: 0.1 + 0.6 * turned}), hub=False)
    log.string("LF", replace(car, toe={**car.toe, "LF": 0.4}), hub=False)  # read again; the right is not
    found = judged(log).mark("front.total_toe")
    assert found.state == "moved since"
    assert said(found.reason).startswith("right front toe link")


def test_what_is_hardly_known_of_a_turn_counts_as_having_moved_the_mark():
    """A worth learned as nearly nothing, from a tool too coarse to tell, does not let three turns pass unread; turned back, nothing is left of it."""
    tape = Tool("tape", "Tape", "length", 1.0, 0.7)
    log = Log(plan(tools=(FINE[0], tape, FINE[2])))
    log.round()
    log.turn("RR.perch", 1.0)
    for corner in CORNERS:
        log.read(corner, "height", 110.0)
        log.read(corner, "camber", -1.5)
    worth = judged(log).worth("RR.height")
    assert worth.of("RR.perch") == 0.0
    assert 2 * worth.u("RR.perch") > 0.25 * 2.0  # U of a turn is beyond a quarter of the tolerance, mm
    log.turn("RR.perch", 3.0)
    log.add(Happened("settled"))
    mark = judged(log).mark("RR.height")
    assert mark.state == "moved since"
    assert "worth about 3.7 mm" in said(mark.reason)  # the plan says 5.6, the one turn that was read nothing
    log.turn("RR.perch", -3.0)
    assert judged(log).mark("RR.height").state != "moved since"


def test_changes_that_cannot_be_computed_spoil_what_they_can_move():
    for what, corner, spoiled in (
        ("knock", None, 12),
        ("weld", "RF", 3),
        ("tyre", "LF", 12),
        ("string", None, 0),
        ("bar_off", None, 0),
    ):
        log = Log()
        log.round()
        log.add(Happened(what, corner))
        assert sum(s == "moved since" for s in states(log).values()) == spoiled, what
    assert not fold(None, log.entries).condition.bar_connected
    assert next_step(judged(log)).kind == "reconnect"


def test_after_the_strings_are_moved_old_toe_stands_and_new_gaps_want_new_hub_gaps():
    log = Log()
    car = log.round()
    log.add(Happened("string"))
    assert judged(log).mark("LF.toe").value == pytest.approx(0.1, abs=1e-9)
    moved = replace(car, left_string=(1040, -0.6))
    log.string("LF", moved, hub=False)
    assert judged(log).mark("LF.toe").state == "unread"
    assert "hub gaps" in said(judged(log).mark("LF.toe").reason)
    for corner in ("LF", "LR"):
        log.read(corner, "gap_hub", moved.gaps(corner)[2])
    assert judged(log).mark("LF.toe").value == pytest.approx(0.1, abs=1e-9)


def test_trials_teach_what_a_turn_is_worth_and_two_bring_the_corner_home():
    log, turned = trials()
    found = set_corner(judged(log), "LR")
    worth = {(s.adjuster.id, w.mark.split(".")[1]): w.per_turn for s in found.adjusters for w in s.worth}
    assert worth == pytest.approx(
        {(a, k): v for a, both in WORTH.items() for k, v in (*zip(("camber", "toe"), both, strict=True), ("height", 0.0))},
        abs=1e-6,
    )
    for turn in found.turns:
        turned[turn.adjuster] += turn.amount
    car = trial_car(turned)  # turn what was told, and look at the truth
    assert {e.mark: e.value for e in found.expected} == pytest.approx(
        {"LR.camber": car.camber["LR"], "LR.toe": car.toe["LR"]}, abs=1e-6
    )
    # Where the hub goes with the arm nobody has told: the toe is known so far once its gap is read again.
    assert [e.verdict for e in found.expected] == ["holds", "too close to call"]
    assert found.turns[1].amount * 2 == round(found.turns[1].amount * 2)  # this rod end goes by half turns


def test_one_tried_adjuster_is_said_to_be_a_compromise():
    log, _ = trials(turns=(("LR.toe", 1.0),))
    found = set_corner(judged(log), "LR")
    assert "compromise" in said(found.sentence)
    assert "cannot meet 2 aims" in said(found.reason)
    assert [said(t.said) for t in found.turns if t.adjuster == "LR.upper"] == ["not tried yet"]


def test_adjusters_alike_are_refused_by_name(monkeypatch):
    monkeypatch.setitem(WORTH, "LR.upper", (0.02, 0.26))
    log, _ = trials()
    found = set_corner(judged(log), "LR")
    assert "toe link and upper arm rod end move this corner the same way" in said(found.why_not)
    with pytest.raises(AlikeError):
        require_turns(found)


def test_what_is_wanting_before_turns_can_be_told_is_said():
    log = Log()
    assert "first: not read yet" in said(set_corner(judged(log), "LR").why_not)
    log.round()
    assert "No adjuster is named" in said(set_corner(judged(log), "RF").why_not)
    assert "Nothing at this corner was tried yet" in said(set_corner(judged(log), "LR").why_not)
    log.turn("LR.toe", 1.0)
    assert "moved since" in said(set_corner(judged(log), "LR").why_not)
    with pytest.raises(NotReadyToSetError):
        require_turns(set_corner(judged(log), "LR"))


def test_a_height_out_comes_first_and_its_perch_is_told_by_ratio():
    log = Log()
    log.round()
    log.read("RR", "height", 119.9)
    assert judged(log).mark("RR.height").odd is not None  # it does not agree with the 110 before
    log.strike(log.entries[-1].id)
    for row in [e for e in log.entries if isinstance(e.what, Reading) and e.what.place == ("RR", "height")][:1]:
        log.strike(row.id)
    log.read("RR", "height", 119.9)
    turn = perch_turn(judged(log), "RR")
    assert turn.amount == pytest.approx(-16 / 3)  # 9.9 mm down; 2.5 mm a turn at its spring, three quarters of it on four
    # One perch alone: it brings the right rear down as far as the others go on holding, likely enough to be read so.
    assert said(next_step(judged(log)).reason).startswith("First right rear, perch: 1 turn 2 flats down.")


def test_an_unsettled_car_gives_provisional_marks():
    log = Log()
    log.entries.pop()
    log.round()
    mark = judged(log).mark("LF.camber")
    assert (mark.state, mark.provisional) == ("too close to call", True)
    assert next_step(judged(log)).kind == "settle"


def test_the_round_asks_for_what_is_unread_or_moved_and_nothing_else():
    log = Log()
    assert all(a.wanted for a in round_of(judged(log)))
    car = log.round()
    assert not any(a.wanted for a in round_of(judged(log)))
    log.turn("LR.toe", 1.0)
    assert {(a.corner, a.quantity) for a in round_of(judged(log)) if a.wanted} == {
        ("LR", q) for q in ("camber", "gap_front", "gap_back")
    }
    log.string("LR", car, hub=False)
    assert {a.quantity for a in round_of(judged(log)) if a.wanted} == {"camber"}


def test_repeats_with_a_finer_tool_take_over_and_the_floor_is_taken_out():
    log = Log(plan(tools=(*FINE, Tool("fine", "Fine gauge", "angle", 1e-8, 0.0))))
    log.round()
    log.read("LF", "camber", -1.7, "fine")
    assert judged(log).mark("LF.camber").value == pytest.approx(-1.7)
    for corner, height in zip(CORNERS, (0.0, -10.0, 0.0, -10.0), strict=True):
        log.read(corner, "pad", height)
    # left side up: a gauge on the left shows too little lean in, on the right too much
    across = np.degrees(np.arctan(10 / 1400))
    assert judged(log).mark("LR.camber").value == pytest.approx(-1.5 + np.degrees(np.arctan(10 / 1400)), abs=0.02)
    assert judged(log).mark("RR.camber").value == pytest.approx(-1.5 - across, abs=0.02)


def test_an_impossible_pair_of_gaps_is_refused_and_the_first_one_kept():
    log = Log()
    log.read("LF", "gap_front", 20.0)
    state = fold(None, log.entries)
    with pytest.raises(StringError):
        accept(state, Entry("x", 99, Reading("gap_back", "LF", 420.0, "rule")))
    with pytest.raises(StringError, match="cross the tyre"):
        accept(state, Entry("x", 99, Reading("gap_back", "LF", 1.0, "rule")))
    assert accept(state, Entry("x", 99, Reading("gap_back", "LF", 19.0, "rule"))).number == 99
    assert state.taken["LF", "gap_front"][0].reading.value == 20.0


def test_a_preview_says_what_a_reading_would_mean_and_keeps_nothing():
    log = Log()
    car = log.round()
    state = fold(None, log.entries)
    log.strike(next(e.id for e in log.entries if isinstance(e.what, Reading) and e.what.place == ("LF", "gap_front")))
    state = fold(None, log.entries)
    would = preview(evaluate(state), Reading("gap_front", "LF", car.gaps("LF")[0] + 2.0, "rule"))
    assert said(would.means).startswith("toe would be 0.40° in")
    assert would.state == "out"
    assert said(preview(evaluate(state), Reading("height", "LF", 113.5, "tape", denominator=0)).large) == "3.5 mm down to go"
    assert "90° upright" in said(preview(evaluate(state), Reading("camber", "LF", 88.5, "digital", upright_deg=90.0)).means)
    assert "not known yet" in said(preview(evaluate(state), Turned("LR.toe", 0.5)).means)
    assert state == fold(None, log.entries)


def test_toe_is_said_every_way_with_its_span():
    log = Log()
    log.round()
    found = judged(log)
    plan_ = found.state.plan
    deg, rim, tyre = say_toes(found.mark("LR.toe"), plan_.axle_of("LR"), plan_.units)
    assert (deg, rim, tyre) == ("0.10° in", "0.7 mm in over the rim's 381 mm", '0.043" in over the tyre\'s 24.41"')


def test_with_shop_tools_every_figure_has_its_uncertainty_and_close_ones_what_settles_them():
    known = Ways(hub_middle=0.0, span=0.0, run_out=0.0)
    taped = {end: replace(getattr(plan(), end), hub_width=getattr(plan(), end).track) for end in ("front", "rear")}
    shop = replace(plan(tools=default_tools(False), ways=known), **taped)
    log = Log(shop)
    log.round()
    assert all(m.expanded > 0 for m in judged(log).marks if m.value is not None)
    for tolerance, settles in (
        (0.1, "Read it with a depth caliper: as likely as not to settle it."),
        (0.06, "A turn could not be told from noise yet: read it with a depth caliper, 2 times, which can tell ± 0.06°."),
    ):
        tight = replace(shop, aims=(Aim("LF.toe", 0.1, tolerance),))
        log.entries[0] = replace(log.entries[0], what=replace(log.entries[0].what, plan=tight))
        toe = judged(log).mark("LF.toe")
        assert (toe.state, said(toe.settle)) == ("too close to call", settles)
    hopeless = replace(plan(tools=default_tools(False)[:2] + default_tools(False)[3:]), aims=(Aim("LF.toe", 0.1, 0.01),))
    log.entries[0] = replace(log.entries[0], what=replace(log.entries[0].what, plan=hopeless))
    assert "No reading with these tools" in said(judged(log).mark("LF.toe").settle)


def test_a_plan_without_aims_is_asked_for_them():
    log = Log(replace(plan(), aims=(), adjusters=(TUBE, ROD)))
    log.round()
    assert next_step(judged(log)).kind == "plan"
    assert judged(log).mark("LF.camber").state is None


@pytest.mark.parametrize("ways", ["each", "box"])
def test_what_is_kept_from_an_earlier_evaluation_changes_no_answer(ways):
    draw = np.random.default_rng(20261125)
    log, car = Log(plan(ways=Ways(ways))), trial_car({})
    log.round(car)
    before = None
    for _ in range(drawn(120, 50)):
        corner, act = CORNERS[draw.integers(4)], draw.integers(10)
        noise = float(draw.normal(0, 0.3))
        if act < 3:
            log.read(corner, "gap_hub" if act == 2 else "gap_front", abs(car.gaps(corner)[2 if act == 2 else 0] + noise))
        elif act < 6:
            log.read(corner, ("height", "camber", "pad")[act - 3], (110.0, -1.5, 2.0)[act - 3] + noise)
        elif act < 8:
            log.turn(("LR.toe", "LR.upper", "RR.perch")[draw.integers(3)], float(draw.choice([-0.5, 0.5])))
        elif act == 8:
            log.add(Happened(("settled", "string", "tyre")[draw.integers(3)]))
        else:
            log.strike(log.entries[-1].id)
        state = fold(None, log.entries)
        kept, fresh = evaluate(state, before), evaluate(state)
        assert kept.marks == fresh.marks
        assert [set_corner(kept, c) for c in CORNERS] == [set_corner(fresh, c) for c in CORNERS]
        before = kept


def test_a_gauge_zeroed_on_the_frame_has_the_lean_of_the_frame_taken_out_by_the_heights():
    log = Log()
    log.add(GaugeZeroed("frame"))
    car = PracticeCar(dict.fromkeys(CORNERS, 0.0), {"LF": -1.2, "RF": -1.9, "LR": -1.4, "RR": -1.6})
    lean = np.radians(0.5)  # the left side stands higher
    for c in CORNERS:
        y = plan().height_place(c).offset
        log.read(c, "camber", car.gauge(c, (0.0, -np.sin(lean), np.cos(lean))))
        if c == "LR":
            assert "zeroed on the frame: read all four ride heights" in said(judged(log).mark("LF.camber").reason)
        log.read(c, "height", float(110.0 * np.cos(lean) + y * np.sin(lean)))
    for c in CORNERS:
        assert judged(log).mark(f"{c}.camber").value == pytest.approx(car.camber[c], abs=1e-9)
    assert judged(log).mark("LF.camber").expanded > judged(log).mark("LF.height").expanded / 1e6


def test_what_was_read_before_the_car_had_settled_is_not_averaged_with_what_was_read_after():
    log = Log()
    log.add(Happened("load"))
    log.read("LF", "height", 70.0)
    log.add(Happened("settled"))
    log.read("LF", "height", 80.0)
    mark = judged(log).mark("LF.height")
    assert (mark.value, mark.provisional) == (80.0, False)
