"""One list a lift: the solve for all turns together against every combination, the setting against what a turn is worth, and whole jobs at practice cars."""

from dataclasses import replace
from itertools import product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ready_corner.core.advise.lift import AXLES, MOST_USUAL, lift
from ready_corner.core.advise.next import next_step
from ready_corner.core.engines.linkage.sweep import sweep
from ready_corner.core.engines.together import cost_of, gains, search_together, solve_together
from ready_corner.core.engines.turns import Lever, Wanted
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.judge.reach import reach
from ready_corner.core.model.bodies import bodies_by_name
from ready_corner.core.model.setting import past_limits, setting
from ready_corner.core.model.springs_of_plan import springing
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.marks import ANGLES, MARK_KINDS
from ready_corner.core.plan.names import turn_words
from ready_corner.core.plan.plan import Adjuster, Cam, Moves, Slide
from ready_corner.core.quantities.errors import MeasuredError, PlannedError
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.happenings import Happened, Stuck, Turned
from ready_corner.core.record.logbook import PlanRevised, check_turn, fold
from ready_corner.core.record.notes import Correction, Note
from ready_corner.core.simulation.builder import Work
from ready_corner.core.simulation.car import Faults, HiddenCar
from ready_corner.core.simulation.cars import LAYOUTS, practice_plan, without_points
from tests.amounts import drawn
from tests.core.linkage.cars import plan
from tests.words import said


def asked(rng, marks, levers, doubt=0.05):
    worth = rng.normal(0, 1, (marks, levers))
    wanted = [Wanted(str(i), float(rng.uniform(-1, 1)), 0.3, 0.02) for i in range(marks)]
    room = [Lever(str(j), -1.0, 1.0, 3) for j in range(levers)]
    return wanted, room, worth, [np.diag((doubt * row) ** 2) for row in worth]


def cost(turns, wanted, worth, covariance):
    """Expected sum of squared misses in tolerances, from the definition."""
    miss = [(w.to_go - row @ turns) ** 2 + turns @ c @ turns for w, row, c in zip(wanted, worth, covariance, strict=True)]
    return sum(m / w.tolerance**2 for m, w in zip(miss, wanted, strict=True))


@pytest.mark.parametrize("seed", range(30))
def test_no_combination_of_whole_steps_does_better(seed):
    wanted, levers, worth, covariance = asked(np.random.default_rng(seed), 3, 3)
    found = np.array(solve_together(wanted, levers, worth, covariance).turns)
    steps = np.arange(-2, 3) / 2
    every = [np.array(t) for t in product(steps, repeat=3)]
    within = lambda t: all(  # noqa: E731
        abs(w.to_go - row @ t) + 2 * np.sqrt(w.u**2 + t @ c @ t) <= w.tolerance
        for w, row, c in zip(wanted, worth, covariance, strict=True)
    )
    holding = [t for t in every if within(t)]
    if holding:
        assert within(found)
        assert np.sum(found != 0) == min(np.sum(t != 0) for t in holding)
    else:
        after = lambda t: [2 * np.sqrt(w.u**2 + t @ c @ t) for w, c in zip(wanted, covariance, strict=True)]  # noqa: E731
        # What is within its tolerance now goes hardly nearer its edge than it reads, or would hold at.
        keeps = lambda t: all(  # noqa: E731
            abs(w.to_go) > w.tolerance
            or abs(w.to_go - row @ t)
            <= min(max(abs(w.to_go) + 0.1 * w.tolerance, w.tolerance - doubt, 0.3 * w.tolerance), w.tolerance) + 1e-9
            for w, row, doubt in zip(wanted, worth, after(t), strict=True)
        )
        assert keeps(found)
        best = min(filter(keeps, every), key=lambda t: cost(t, wanted, worth, covariance))
        marks = lambda t: sum(abs(w.to_go - row @ t) <= w.tolerance for w, row in zip(wanted, worth, strict=True))  # noqa: E731
        assert (
            marks(found) >= marks(best)
            or cost(found, wanted, worth, covariance) <= cost(best, wanted, worth, covariance) + 0.05
        )


def one_out_of_reach(far):
    """Two marks that a lever each moves, the second of which can move a third, ``far`` tolerances off, only at the cost of its own."""
    wanted = [Wanted("a", 1.0, 0.3, 0.02), Wanted("b", 0.5, 0.3, 0.02), Wanted("far", far * 0.3, 0.3, 0.02)]
    worth = np.array([[1.0, 0.0], [0.0, 1.0], [0.0, 0.5]])
    return wanted, [Lever("x", -3.0, 3.0, 1), Lever("y", -3.0, 3.0, 1)], worth, [np.diag([1e-6, 1e-6])] * 3


@pytest.mark.parametrize("far", [5.0, 8.0, -6.0])
def test_what_is_out_of_reach_takes_nothing_else_along(far):
    wanted, levers, worth, covariance = one_out_of_reach(far)
    found = solve_together(wanted, levers, worth, covariance)
    assert all(abs(left) <= 0.3 for left in found.left[:2])
    assert found.turns == pytest.approx((1.0, 0.5), abs=0.35)


def test_a_mark_in_reach_says_which_of_those_that_hold_it_would_cost():
    wanted, levers, worth, covariance = one_out_of_reach(4.0)
    wanted[1] = replace(wanted[1], to_go=0.0)
    held = np.array([False, True, False])
    assert cost_of(wanted, levers, worth, covariance, held, 2) == (1,)
    assert cost_of(wanted, levers, worth, covariance, held, 0) == ()
    assert (
        cost_of([*wanted[:2], replace(wanted[2], to_go=9.0)], levers, worth, covariance, held, 2) == ()
    )  # no turn brings it in
    assert solve_together(wanted, levers, worth, covariance, held=held).turns[1] == pytest.approx(0.0, abs=0.2)


def test_what_holds_is_not_counted_as_its_cost_where_what_is_out_already_bears_it():
    wanted = [Wanted("far", 1.2, 0.3, 0.02), Wanted("holds", 0.0, 0.3, 0.02), Wanted("out", -0.9, 0.3, 0.02)]
    worth = np.array([[0.5, 0.5], [1.0, 0.0], [0.0, 1.0]])
    levers = [Lever("y", -3.0, 3.0, 1), Lever("w", -3.0, 3.0, 1)]
    doubt = [np.diag([1e-6, 1e-6])] * 3
    assert cost_of(wanted, levers, worth, doubt, np.array([False, True, False]), 0) == ()


def test_what_is_hardly_within_does_not_slip_out_for_another():
    wanted = [Wanted("edge", 0.285, 0.3, 0.02), Wanted("out", 0.9, 0.3, 0.02)]
    worth, levers = np.array([[-0.01], [0.3]]), [Lever("x", -5.0, 5.0, 1)]
    for solve in (solve_together, lambda *a: search_together(*a, np.array([False, False]))[0]):
        found = solve(wanted, levers, worth, [np.array([[1e-6]])] * 2)
        assert 0.0 < found.turns[0] <= 1.5
        assert abs(found.left[0]) <= 0.3


@pytest.mark.parametrize("far", [6.0, 8.0])
def test_what_is_brought_in_stays_in_where_something_else_must_be_kept_from_being_lost(far):
    wanted, levers, worth, covariance = one_out_of_reach(far)
    wanted, worth = [*wanted, Wanted("holds", 0.0, 0.3, 0.02)], np.vstack([worth, [0.6, 0.0]])
    found = solve_together(wanted, levers, worth, [*covariance, covariance[0]], held=np.array([False, False, False, True]))
    assert abs(found.left[3]) <= 0.3  # a would cost it, brought in whole
    assert abs(found.left[1]) <= 0.3


def test_one_that_could_as_well_be_read_again_is_not_turned_from_side_to_side():
    wanted = [Wanted("a", 0.05, 0.2, 0.08)]  # 0.05 of 0.2, sure to 0.16
    worth, doubt, held = np.array([[0.1]]), [np.array([[1e-6]])], np.array([False])
    across, onto = (sum(gains(wanted, worth, doubt, held, np.array([n]))) for n in (1.0, 0.5))
    assert across == pytest.approx(0.0, abs=1e-3)  # as far off on the other side
    assert 0.0 < onto < 0.25
    far = [replace(wanted[0], to_go=0.6)]
    assert sum(gains(far, worth, doubt, held, np.array([6.0]))) > 0.4


def test_what_holds_at_its_edge_is_no_reason_to_turn_nothing_at_all():
    wanted, levers, worth, covariance = one_out_of_reach(5.0)
    wanted[1] = replace(wanted[1], to_go=0.29)  # said to hold by a figure other than the one turned for
    found, gain = search_together(wanted, levers, worth, covariance, np.array([False, True, False]))
    assert found.turns[0] == pytest.approx(1.0, abs=0.2)
    assert gain > 0.5


def test_what_is_fixed_stays_and_of_two_alike_the_surer_is_turned():
    wanted = [Wanted("a", 1.0, 0.1, 0.01)]
    levers = [Lever("sure", -9, 9), Lever("doubtful", -9, 9)]
    covariance = [np.diag([0.001**2, 0.2**2])]
    found = solve_together(wanted, levers, np.array([[0.5, 0.5]]), covariance)
    assert found.turns == pytest.approx((2.0, 0.0))
    stuck = solve_together(wanted, levers, np.array([[0.5, 0.5]]), covariance, np.array([1.0, np.nan]))
    assert stuck.turns == pytest.approx((1.0, 1.0), abs=0.34)
    assert stuck.turns[0] == 1.0
    short = solve_together(wanted, [Lever("sure", -1, 1), levers[1]], np.array([[0.5, 0.0]]), covariance)
    assert (short.at_limit, short.compromise) == (("sure",), True)
    assert short.left[0] == pytest.approx(0.5)


@pytest.mark.parametrize("name", ["heather", "tern", "five-link", "three-link-axle"])
def test_a_setting_goes_by_what_each_turn_is_worth(name):
    """Central differences of the full linkage on its springs against the exact derivatives: two ways to the same figure."""
    of = practice_plan(plan(name), name)
    of = replace(of, aims=(*of.aims, Aim("RF.inclination", 5.0, 0.5)))
    springs, bodies = springing(of), bodies_by_name(of)
    by, h = reach(of, springs, False).marks, 1e-3
    for adjuster in of.adjusters:
        up, down = (setting(of, bodies, springs, {adjuster.id: s}) for s in (h, -h))
        for kind, c in ((k, c) for k in ("height", *ANGLES) for c in MARK_KINDS[k].corners):
            if kind == "camber" and bodies.get("rear") and c.endswith("R"):
                continue  # an axle leans on its tyres as well, which a figure a turn leaves out: under 0.005° a turn
            change = (up.of(kind)[CORNERS.index(c)] - down.of(kind)[CORNERS.index(c)]) / (2 * h)
            assert change == pytest.approx(by[f"{c}.{kind}"].of(adjuster.id) or 0.0, abs=1e-8)


def begun(seed=0, name="heather"):
    """A practice car read once round, at its first lift."""
    return to_the_lift(Work(HiddenCar(practice_plan(plan(name), name), seed)))


def to_the_lift(work):
    """Do what is said until something is to be turned."""
    for _ in range(120):
        step = next_step(work.now)
        assert step.kind not in ("done", "plan"), step
        if step.kind == "lift":
            return work
        work.do(step)
    raise AssertionError("no lift was told")


def test_a_list_stands_while_it_is_worked_off_and_is_reckoned_anew_round_what_was_turned_otherwise():
    work = begun()
    told = {t.of.id: t.amount for t in lift(work.now).turns}
    first = lift(work.now).next
    work.tell(Note("jam nut is tight"))
    work.turn(first.of.id, first.left)
    second = lift(work.now).next
    assert {t.of.id: t.amount for t in lift(work.now).turns} == told
    assert second.of.id != first.of.id
    work.tell(Turned(second.of.id, -second.left))  # the wrong way
    other = {t.of.id: t.amount for t in lift(work.now).turns}
    assert other[second.of.id] == pytest.approx(-told[second.of.id])
    assert other[first.of.id] == told[first.of.id] or other != told
    wrong = work.state.entries[-1].id
    work.tell(Correction(wrong))
    assert {t.of.id: t.amount for t in lift(work.now).turns} == told
    work.tell(Stuck(second.of.id))
    without = {t.of.id: t.left for t in lift(work.now).turns}
    assert not without.get(second.of.id)
    assert said(next_step(work.now).sentence)
    cold = evaluate(fold(None, work.state.entries))  # a server that has just been started tells the same
    assert [t.left for t in lift(cold).turns] == [t.left for t in lift(work.now).turns]


def test_after_a_lift_only_what_it_moved_is_read_and_settling_waits_for_the_last_turn():
    work = begun()
    again = set(lift(work.now).again)
    while step := lift(work.now).next:
        assert next_step(work.now).kind == "lift"
        work.turn(step.of.id, step.left)
    assert next_step(work.now).kind == "settle"
    work.car.roll()
    work.tell(Happened("settled"))
    moved = {m.mark for m in work.now.marks if m.state == "moved since"}
    assert moved == again


def test_a_lift_wants_everything_read_and_is_none_where_all_holds():
    car = HiddenCar(practice_plan(plan("heather"), "heather"), 3)
    work = Work(car)
    assert lift(work.now) is None
    right = Work(HiddenCar(practice_plan(plan("heather"), "heather"), 3, Faults(camber=0.0, caster=0.0, toe=0.0, height=0.0)))
    assert right.run().kind == "done"
    assert right.lifts <= 1
    assert lift(right.now) is None


@pytest.mark.parametrize("name", LAYOUTS)
def test_practice_cars_are_brought_home_in_two_lifts_seldom_in_three(name):
    works = [Work(HiddenCar(practice_plan(plan(name), name), seed)) for seed in range(drawn(4, 2))]
    assert {w.run().kind for w in works} == {"done"}
    out = [(w.car.truth(m) - aim.aim) / aim.tolerance for w in works for m in w.truly_out() if (aim := w.car.plan.aim(m))]
    assert len(out) <= 1  # U is 95 in 100
    assert max(map(abs, out), default=0.0) < 1.2
    judged = [within for w in works for _, within, _, _ in w.judged]
    assert np.mean(judged) > 0.9
    assert sorted(w.lifts for w in works)[-2] <= 2
    assert max(w.lifts for w in works) <= 3
    assert max(w.readings for w in works) <= 90  # a sweep takes four of them, and is wanted twice


def said_no_way(of):
    """A plan without points, of whose links the names tell what they set, and not which way."""
    names = {"camber": "ball rod end", "tie": "tie rod end", "caster": "caster rod end", "perch": "perch"}
    bare = without_points(of)
    return replace(bare, adjusters=tuple(replace(a, name=names[a.id.split(".")[1]]) for a in bare.adjusters))


def test_a_car_of_which_the_plan_tells_no_linkage_is_tried_and_then_set():
    """Heather's plan without her points: a trial at every corner that is out, in one lift; then what that showed, and no more trials."""
    of = practice_plan(plan("heather"), "heather")
    bare = said_no_way(replace(of, adjusters=tuple(a for a in of.adjusters if not a.perch)))
    work = to_the_lift(Work(HiddenCar(bare, 2)))
    told = lift(work.now)
    assert told.trials
    assert {abs(t.amount) for t in told.turns} <= {2.0, 3.0}
    assert len({(t.of.corner, t.of.name) for t in told.turns}) == len(told.turns)
    assert "Not known yet what a turn of these does" in said(told.reason)
    work.run()  # comes to an end
    assert work.lifts < 12


def test_adjusters_that_stick_are_worked_around_or_said():
    ends = []
    for seed in range(4)[-drawn(4, 2) :]:
        work = Work(HiddenCar(practice_plan(plan("five-link"), "five-link"), seed, Faults(stuck=0.15, camber=0.8, toe=0.5)))
        ends.append(work.run().kind)
        assert ends[-1] != "done" or work.truly_out() == ()
    assert "done" in ends


def test_what_no_turn_brings_nearer_says_what_would_have_to_change():
    of = practice_plan(plan("heather"), "heather")
    thread = lambda a: replace(a, by=(replace(a.by[0], pitch_mm_per_turn=9.0),)) if a.id.endswith(".tie") else a  # noqa: E731
    narrow = tuple(replace(a, tolerance=0.05) if a.mark.endswith("toe") else a for a in of.aims)
    work = Work(HiddenCar(replace(of, adjusters=tuple(map(thread, of.adjusters)), aims=narrow), 6))
    step = work.run()
    assert step.kind == "plan"
    assert "tolerance" in said(step.reason)


def test_a_branch_begins_where_links_of_other_lengths_hold_it():
    """A link 11 mm longer than drawn: the wheel goes on through its travel from where it then stands."""
    from ready_corner.core.engines.linkage.sweep import sweep
    from ready_corner.core.model.study import Change, changed

    body = bodies_by_name(plan("five-link"))["LR"]
    longer = changed(body, "rear", [Change("LR.link1", None, 11.0)], "kept")
    camber = sweep(longer, np.linspace(-20, 20, 5)).wheels[0]["camber_deg"]
    assert np.isfinite(camber).all()
    assert np.all(np.diff(camber) < 0)


def test_one_axle_alone_is_set_with_its_own_adjusters_and_its_total_toe_among_its_aims():
    work = begun(4)
    whole, front = lift(work.now), lift(work.now, AXLES["front"])
    assert {t.of.corner for t in whole.turns} == set(CORNERS)
    assert {t.of.corner for t in front.turns} <= {"LF", "RF"}
    assert {e.mark for e in front.expected} == {e.mark for e in whole.expected if e.mark[:2] in ("LF", "RF")}
    of = work.car.plan
    total = Aim("front.total_toe", sum(of.aim(f"{c}.toe").aim for c in ("LF", "RF")), 0.1)
    work.tell(PlanRevised(replace(of, aims=(*of.aims, total)), revises=work.state.plan_number))
    assert "front.total_toe" in {e.mark for e in lift(work.now, AXLES["front"]).expected}
    assert "front.total_toe" not in {e.mark for e in lift(work.now, AXLES["rear"]).expected}
    before = work.misses()
    for turn in lift(work.now, AXLES["front"]).turns:
        work.turn(turn.of.id, turn.left)
    assert work.misses() < before
    assert lift(work.now, AXLES["front"]).next is None


SLIDE, CAM = Slide(1.0, 15.0, 30.0), Cam(14.0, 6.0, 75.0, 5.0)


def on_scales(name, by):
    """A practice car whose cambers and casters go by slides and eccentrics in place of threads, where they move a point."""
    of = practice_plan(plan(name), name)
    own = {a.id: by for a in of.adjusters if a.moves and a.moves.direction}
    assert own
    return replace(of, adjusters=tuple(replace(a, by=own[a.id]) if a.id in own else a for a in of.adjusters))


@pytest.mark.parametrize("by", [SLIDE, CAM])
def test_slides_and_eccentrics_bring_a_car_home_in_whole_marks(by):
    works = [Work(HiddenCar(on_scales("tern", by), seed, Faults(camber=1.0, caster=0.8))) for seed in range(3)]
    assert {w.run().kind for w in works} == {"done"}
    assert all(w.truly_out() == () for w in works)
    assert max(w.lifts for w in works) <= 3
    made = [
        e.what
        for w in works
        for e in w.state.entries
        if isinstance(e.what, Turned) and w.state.plan.adjuster(e.what.adjuster).notched
    ]
    assert made
    assert all(t.amount == round(t.amount) for t in made)


@given(st.floats(1.0, 20.0), st.floats(1.0, 15.0), st.floats(-80.0, 80.0), st.integers(-20, 20))
def test_an_eccentric_goes_by_its_sine_there_and_back_and_never_past_its_end(throw, mark, at, moved):
    cam = Adjuster("a", "a", "LF", Cam(throw, mark, 85.0, at))
    low, high = cam.room(0.0)
    marks = max(-(-low // 1), min(high // 1, moved)) if high - low >= 1 else 0
    if not low <= marks <= high:
        return
    sine = lambda n: throw * np.sin(np.radians(at + n * mark))  # noqa: E731
    assert cam.length_per_step * cam.even(marks) == pytest.approx(sine(marks) - sine(0), abs=1e-9)
    assert cam.uneven(cam.even(marks)) == pytest.approx(marks, abs=1e-6)
    down, up, step = cam.reach(marks)
    assert step > 0
    for even in (down - 1, up + 1, 0.3 * up, 0.0):
        on = cam.settable(marks, even) + cam.even(marks)
        n = cam.uneven(on)
        assert n == pytest.approx(round(n), abs=1e-5)
        assert low - 1e-6 <= n <= high + 1e-6
    assert down <= 1e-12
    assert up >= -1e-12


def test_a_slide_says_which_way_it_goes_and_where_its_scale_ends():
    of = on_scales("tern", SLIDE)
    work = Work(HiddenCar(of, 0))
    slide = next(a for a in of.adjusters if a.corner == "RF" and a.kind == "slide")
    fore = Moves(slide.moves.name, (-1.0, 0.2, 0.0))
    assert turn_words(replace(slide, moves=fore), 2.0) == "2 marks back"
    assert turn_words(replace(slide, moves=Moves("RF.lower.ball", (0.0, -1.0, 0.0))), 1.0) == "1 mark out"
    assert turn_words(replace(slide, moves=None), -1.0) == "1 mark down its scale"
    for amount, words in ((0.5, "whole marks"), (16.0, "end of its scale")):
        with pytest.raises(MeasuredError) as refused:
            check_turn(work.state, slide.id, amount)
        assert words in said(refused.value.finding)
    for wrong in (Slide(0.0, 0, 1), Slide(1.0, 4.0, 3.0), Cam(0.0, 5.0), Cam(2.0, 5.0, 100.0), Cam(2.0, 5.0, 30.0, 40.0)):
        with pytest.raises(PlannedError):
            replace(slide, by=wrong)


def test_what_a_lift_would_send_past_its_limit_is_said_before_anything_is_loosened():
    of = practice_plan(plan("heather"), "heather")
    stops = of.footing.end("rear")
    drive = np.array([-(stops.droop or 0.0), 0.0, stops.bump or 0.0])
    goes = np.abs(sweep(bodies_by_name(of)["LR"], drive).shared["shaft.plunge"]).max() + 0.05  # as drawn, and a hair more
    tight = replace(of.rear_linkage, shaft=replace(of.rear_linkage.shaft, pushed=goes, pulled=goes))
    work = to_the_lift(Work(HiddenCar(replace(of, rear_linkage=tight), 1)))
    told = [said(c) for c in lift(work.now).cautions]
    assert any("halfshaft" in words and "past its limit" in words for words in told), told
    assert lift(begun(1).now).cautions == ()  # nobody told how far it may go
    turns = {t.of.id: t.amount for t in lift(work.now).turns}
    bodies, loose = bodies_by_name(work.state.plan), replace(tight.shaft, pushed=50.0, pulled=50.0)
    roomy = {n: replace(b, shaft=loose) if b.shaft else b for n, b in bodies.items()}
    assert past_limits(work.state.plan, roomy, turns) == ()
    assert past_limits(work.state.plan, bodies, {}) == ()


def test_twins_left_and_right_are_tried_each_the_other_and_teach_what_the_other_does():
    work = to_the_lift(Work(HiddenCar(of := practice_plan(plan("heather"), "heather"), 4000), said_no_way(of)))
    tried = {t.of.id for t in lift(work.now).turns if not t.of.raises}
    assert tried
    assert not {a for a in tried if {"L": "R", "R": "L"}[a[0]] + a[1:] in tried}
    assert all(len({a.split(".")[1] for a in tried if a[1] == end}) > 1 for end in "FR")  # all kinds of them all the same
    assert all({a[0] for a in tried if a[1] == end} == {"L", "R"} for end in "FR")  # each by one of the two
    before = work.now.worth_now("RF.camber").u("RF.camber")
    work.do(next_step(work.now))
    to_the_lift(work)
    left, right = (work.now.worth_now(f"{c}.camber") for c in ("LF", "RF"))
    assert right.u("RF.camber") < 0.7 * before
    assert right.of("RF.camber") == pytest.approx(left.of("LF.camber"), rel=0.35)


def test_a_mark_that_would_be_left_out_for_fear_of_what_else_its_link_does_has_it_turned_by_itself():
    """A camber by the lower ball of a strut, which steers its wheel too: of unknown worth, with a toe that holds."""
    of = practice_plan(plan("tern"), "tern", squared=False)
    work = to_the_lift(Work(HiddenCar(of, 4009), without_points(of)))
    while not (told := lift(work.now)).trials and work.lifts < 4:
        work.do(next_step(work.now))
        to_the_lift(work)
    tried = [t for t in told.turns if t.of.id == "LF.camber"]
    assert [abs(t.amount) for t in tried] == [3.0]
    assert [t.of.id for t in told.turns if t.of.corner == "LF" and not t.of.raises] == ["LF.camber"]
    worth = work.now.worth_now("LF.camber").of("LF.camber")
    assert tried[0].amount * worth * (work.now.mark("LF.camber").aim.aim - work.now.mark("LF.camber").value) > 0
    # It is turned as told whatever goes before or after it, and the list does not move meanwhile.
    before = {t.of.id: t.amount for t in told.turns}
    for t in told.turns:
        work.turn(t.of.id, t.left)
        assert {t.of.id: t.amount for t in lift(work.now).turns} == pytest.approx(before)
    assert not any(t.left for t in lift(work.now).turns)
    assert work.run().kind == "done"
    assert work.truly_out() == ()


def test_no_more_than_a_few_turns_at_once_are_told_of_what_is_only_usual():
    of = practice_plan(plan("heather"), "heather")
    work = to_the_lift(Work(HiddenCar(of, 4001, Faults(camber=3.0)), without_points(of)))
    told = lift(work.now)
    links = [abs(t.amount) for t in told.turns if not t.of.raises]
    assert max(links) == MOST_USUAL
    assert told.ended == ()
