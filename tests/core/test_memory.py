"""What is kept of a car stands for whoever looks: several threads on one car, entries coming in between."""

import random
import sys
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import pytest

from ready_corner.core.advise.car import judge_car
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.plan import Plan
from ready_corner.core.record import logbook
from ready_corner.core.record.happenings import Happened, Turned
from ready_corner.core.record.logbook import Entry, PlanRevised, fold, fold_on
from ready_corner.core.record.notes import Correction, Note
from ready_corner.core.record.readings import Reading
from tests.amounts import drawn
from tests.core.linkage.cars import plan

HEATHER = plan("heather")


def shown(evaluation):
    return [(m.mark, m.state, m.value, m.expanded) for m in evaluation.marks]


def told(evaluation):
    return shown(evaluation), judge_car(evaluation).next.sentence


def test_threads_that_look_at_a_car_while_entries_come_see_what_they_would_see_alone():
    rows = [Happened("settled"), *(Reading("height", c, 80.0 + i, "tape") for i, c in enumerate(("LF", "RF", "LR", "RR")))]
    rows += [Reading("camber", c, -1.5, "digital") for c in ("LF", "RF", "LR", "RR")]
    rows += (
        [Turned("LF.perch", 1 / 6), Turned("LF.perch", -1 / 6)] * 2
        if any(a.id == "LF.perch" for a in HEATHER.adjusters)
        else []
    )
    switched = sys.getswitchinterval()
    sys.setswitchinterval(1e-4)
    try:
        for _ in range(drawn(12, 1)):
            state = fold(None, [Entry("1", 1, PlanRevised(HEATHER))])
            evaluation = evaluate(state)
            with ThreadPoolExecutor(4) as many:
                for n, what in enumerate(rows, start=2):
                    looks = [many.submit(told, evaluation) for _ in range(3)]
                    state = fold_on(evaluation.given, [Entry(str(n), n, what)])
                    later = evaluate(state, evaluation)  # follows on while the others still look
                    alone = told(evaluate(state))
                    assert {str(f.result()) for f in looks} == {str(told(evaluate(evaluation.given)))}
                    assert told(later) == alone
                    evaluation = later
    finally:
        sys.setswitchinterval(switched)


@pytest.mark.parametrize("stride", [1, 256, 3][: drawn(3, 2)])
def test_what_is_struck_out_and_brought_back_leaves_what_folding_and_judging_all_of_it_would(stride, monkeypatch):
    """Corrections of readings, turns, plans' changes and of corrections, at random: the state and all that is told, whatever was kept before."""
    monkeypatch.setattr(logbook, "STRIDE", stride)
    rng = random.Random(f"struck {stride}")
    finer = replace(HEATHER, aims=tuple(replace(a, tolerance=a.tolerance * 0.9) for a in HEATHER.aims))
    others = [
        Happened("settled"),
        Turned("LF.perch", 1.0),
        Turned("LF.perch", -1.0),
        Happened("tyre", "LF", by=1.0),
        Note("x"),
        finer,
    ]

    def act():
        if rng.random() < 0.35:
            return rng.choice(others)
        kind, tool, about, by = rng.choice(
            (("height", "tape", 80.0, 3.0), ("camber", "digital", -1.5, 0.4), ("pad", "rule", 0.0, 1.0))
        )
        return Reading(kind, rng.choice(CORNERS), round(about + rng.uniform(-by, by), 2), tool)

    entries = [Entry("1", 1, PlanRevised(HEATHER))]
    state = fold(None, entries)
    evaluation = evaluate(state)
    for n in range(2, 2 + drawn(160, 30)):
        struck = rng.choice(entries[1:]) if len(entries) > 1 and rng.random() < 0.4 else None
        if struck and not isinstance(struck.what, PlanRevised) and struck.id not in state.struck:
            what = Correction(struck.id)
        else:
            what = act()
            what = PlanRevised(what, state.plan_number) if isinstance(what, Plan) else what
        entries.append(Entry(str(n), n, what))
        state = fold_on(evaluation.given, entries[-1:])
        assert state == fold(None, entries)
        evaluation = evaluate(state, evaluation)
        assert shown(evaluation) == shown(evaluate(fold(None, entries)))
    assert told(evaluation) == told(evaluate(fold(None, entries)))


def test_a_reading_struck_out_leaves_all_that_does_not_rest_on_it():
    rows = [
        Happened("settled"),
        *(Reading(q, c, v, t) for q, v, t in (("height", 80.0, "tape"), ("camber", -1.5, "digital")) for c in CORNERS),
    ]
    entries = [Entry("1", 1, PlanRevised(HEATHER)), *(Entry(str(n), n, what) for n, what in enumerate(rows, start=2))]
    before = evaluate(fold(None, entries))
    was = told(before)
    after = fold_on(before.given, [Entry("99", 99, Correction("3"))])
    assert after.moves is before.given.moves
    assert after.taken["LF", "camber"] is before.given.taken["LF", "camber"]
    now = evaluate(after, before)
    assert now.figures.figure("camber", "RR") is before.figures.figure("camber", "RR")
    assert told(now) != was


def test_what_is_laid_down_is_a_copy():
    """A thread that goes on working something out changes nothing that is being laid down."""
    evaluation = evaluate(fold(None, [Entry("1", 1, PlanRevised(HEATHER))]))
    memory = evaluation.memory
    with ThreadPoolExecutor(2) as both:
        work = both.submit(lambda: [memory.recall(("x", i), object) for i in range(6000)])
        for _ in range(60):
            memory._laid_down()
        work.result()
