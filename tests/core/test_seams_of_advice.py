"""Advice that spoils nothing: one list, told in both places, that loses no mark that holds; nothing turned for what is not read well enough."""

import math
from dataclasses import replace

import pytest

from ready_corner.core.advise.lift import lift
from ready_corner.core.advise.next import next_step, round_of
from ready_corner.core.advise.provable import proving_tools
from ready_corner.core.advise.standing import turns_now
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.judge.read import default_tool
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.plan import Perch
from ready_corner.core.quantities.tools import EYE
from ready_corner.core.record.happenings import Happened, Turned
from ready_corner.core.record.logbook import Entry, PlanRevised, fold, fold_on
from ready_corner.core.record.readings import Reading
from ready_corner.core.simulation.builder import Work
from ready_corner.core.simulation.car import Faults, HiddenCar
from ready_corner.core.simulation.cars import LAYOUTS, hampered, practice_plan, without_points
from ready_corner.exchange.files import read_logbook
from tests.amounts import drawn
from tests.core.linkage.cars import plan
from tests.core.survey.test_hard import CASES
from tests.words import said

HEATHER = plan("heather")


def read_so(of, heights=None, cambers=None, toes=None, settled=True, eye=False):
    """A car read round twice so that it comes to these heights, cambers and toes by corner; pads 0."""
    rows = [PlanRevised(of), Happened("bar_off"), *([Happened("settled")] if settled else [])]
    tools, widest = proving_tools(of), max(of.front.half_width, of.rear.half_width)
    for i, c in enumerate(CORNERS):
        d = of.axle_of(c).rim_flange_diameter * math.sin(math.radians(toes[i])) if toes else 0.0
        figures = {"pad": 0.0}
        figures |= {"height": heights[i]} if heights else {}
        figures |= {"camber": cambers[i]} if cambers else {}
        figures |= (
            {"gap_hub": 100 + widest - of.axle_of(c).half_width, "gap_front": 100 + d / 2, "gap_back": 100 - d / 2}
            if toes
            else {}
        )
        for quantity, value in figures.items():
            tool = EYE.id if eye and quantity == "camber" else (tools.get(quantity) or default_tool(of, quantity)).id
            rows += [Reading(quantity, c, value, tool)] * (1 if quantity == "pad" else 2)
    return evaluate(fold(None, [Entry(str(n), n, what) for n, what in enumerate(rows, start=1)]))


def aims(of, kind):
    return [of.aim(f"{c}.{kind}").aim for c in CORNERS]


def held(evaluation):
    return {m.mark for m in evaluation.marks if m.state == "holds"}


def nothing_is_lost(evaluation, told):
    for e in told.expected:
        mark = evaluation.mark(e.mark)
        if mark.state == "holds":
            assert abs(e.value - mark.aim.aim) <= mark.aim.tolerance, e.mark


def test_heights_that_hold_stay_where_one_camber_is_out_of_reach():
    of = replace(HEATHER, adjusters=tuple(a for a in HEATHER.adjusters if "push" not in a.id))
    evaluation = read_so(of, (78, 78, 86, 86), (-1.8, -1.8, 1.2, -1.2), aims(of, "toe"))
    for _ in range(4):
        before, told = held(evaluation), lift(evaluation)
        if told is None or not told.betters:
            break
        nothing_is_lost(evaluation, told)
        assert {f"{c}.height" for c in CORNERS} <= before
        assert "LR.camber" in told.missed
        state, n = evaluation.given, evaluation.given.number
        turned = [Entry(f"t{n + i}", n + i, Turned(t.of.id, t.left)) for i, t in enumerate(told.turns, start=1) if t.left]
        assert turned
        expected = {e.mark: e.value for e in told.expected}
        again = read_so(of, *([expected.get(f"{c}.{k}", 0.0) for c in CORNERS] for k in ("height", "camber", "toe")))
        rows = [e.what for e in again.given.entries if not isinstance(e.what, PlanRevised)]
        more = [Entry(f"r{i}", n + len(turned) + i, what) for i, what in enumerate(rows, start=1)]
        evaluation = evaluate(fold_on(state, [*turned, *more]))
    step = next_step(evaluation)
    assert step.kind in ("reconnect", "plan") or step.reason.kind == "because.once-more"  # nothing is turned any more
    assert evaluation.mark("LR.camber").value < 0.4  # as far in as the shims go, and not further at the cost of the heights


def test_stance_and_set_tell_one_list():
    evaluation = read_so(HEATHER, (70, 78, 86, 86), aims(HEATHER, "camber"), aims(HEATHER, "toe"))
    told = lift(evaluation)
    perches = {t.of.id: t.left for t in told.turns if isinstance(t.of.by, Perch) and t.left}
    assert perches
    assert {s.adjuster: s.amount for s in turns_now(evaluation)[0].steps} == perches
    nothing_is_lost(evaluation, told)


@pytest.mark.parametrize("how", [{"settled": False}, {"eye": True}])
def test_nothing_is_turned_for_what_should_not_count(how):
    evaluation = read_so(HEATHER, (90, 66, 86, 86), (0.5, -1.8, -1.2, -1.2), aims(HEATHER, "toe"), **how)
    if not how.get("settled", True):
        evaluation = evaluate(fold_on(evaluation.given, [Entry("s", evaluation.given.number + 1, Happened("settled"))]))
    assert lift(evaluation) is None
    step = next_step(evaluation)
    assert step.kind == "read"
    assert "Before anything is turned" in said(step.reason) or "moved since" in said(step.reason)


def test_only_what_an_aim_wants_is_asked_for_and_counted():
    heights = replace(HEATHER, aims=tuple(a for a in HEATHER.aims if a.mark.endswith("height")), build_aims=())
    evaluation = read_so(heights, (84, 78, 86, 92))
    assert {m.mark for m in evaluation.marks if m.state} == {f"{c}.height" for c in CORNERS}
    assert not any(a.wanted for a in round_of(evaluation))
    assert next_step(evaluation).kind == "lift"
    angles = replace(HEATHER, aims=tuple(a for a in HEATHER.aims if not a.mark.endswith("height")), build_aims=())
    begun = evaluate(fold(None, [Entry("1", 1, PlanRevised(angles)), Entry("2", 2, Happened("settled"))]))
    assert not any(a.quantity == "height" and a.wanted for a in round_of(begun))
    assert sum(m.state is not None for m in begun.marks) == len(angles.aims)


def test_without_points_the_heights_are_brought_in_and_what_is_too_low_never_goes_down():
    _, state = read_logbook((CASES / "heights-left-out.logbook.json").read_bytes())
    evaluation = evaluate(state)
    told = lift(evaluation)
    wound = {t.of.corner: t.left for t in told.turns if t.of.raises}
    for corner, amount in wound.items():
        off = evaluation.mark(f"{corner}.height").deviation
        assert amount * off < 0, corner  # too high goes down, too low goes up
    assert wound["LF"] < 0
    nothing_is_lost(evaluation, told)


@pytest.mark.parametrize("layout", LAYOUTS)
@pytest.mark.parametrize("bare", [False, True])
def test_no_lift_of_a_drawn_car_loses_what_holds_by_its_own_forecast(layout, bare):
    of = practice_plan(plan(layout), layout)
    for seed in range(drawn(50, 1)):
        work = Work(HiddenCar(of, 300 + seed, Faults(camber=0.8, toe=0.5)), without_points(of) if bare else None)
        for _ in range(150):
            step = next_step(work.now)
            if step.kind in ("done", "plan", "state"):
                assert step.reason is not None
                break
            if step.kind == "lift":
                nothing_is_lost(work.now, lift(work.now))
                if work.lifts >= 3:
                    break
            work.do(step)


@pytest.mark.parametrize("layout", LAYOUTS)
@pytest.mark.parametrize("bare", [False, True])
def test_what_is_out_of_reach_spoils_nothing_and_every_job_comes_to_an_end(layout, bare):
    """Threads that end and marks that are to be further off than these go: all others are brought in, and it is said what tried and what it would cost."""
    of = practice_plan(plan(layout), layout, squared=not bare)
    for seed in range(7000, 7000 + drawn(25, 1)):
        told = hampered(of, seed)
        work = Work(HiddenCar(of, seed), without_points(told) if bare else told)
        step = work.run()
        assert step.kind == "done" or step.reason is not None
        assert work.foretold == 0, seed
        assert bare or work.spoilt == 0, seed  # of links that nobody knows some turn out otherwise
        assert work.lifts <= (12 if bare else 6), seed


def test_a_height_that_would_cost_what_holds_says_what_it_would_cost():
    of = practice_plan(HEATHER, "heather")
    work = Work(HiddenCar(of, 7000), hampered(of, 7000))
    step = work.run()
    assert {"RF.height", "LF.camber"} <= set(
        work.truly_out()
    )  # the camber cannot be met, and the height hangs on what is short
    assert "at the cost of what holds: left front" in said(step.reason)
