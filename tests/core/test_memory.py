"""What is kept of a car stands for whoever looks: several threads on one car, entries coming in between."""

import sys
from concurrent.futures import ThreadPoolExecutor

from ready_corner.core.advise.car import judge_car
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.record.happenings import Happened, Turned
from ready_corner.core.record.logbook import Entry, PlanRevised, fold, fold_on
from ready_corner.core.record.readings import Reading
from tests.amounts import drawn
from tests.core.linkage.cars import plan

HEATHER = plan("heather")


def told(evaluation):
    return [(m.mark, m.state, m.value, m.expanded) for m in evaluation.marks], judge_car(evaluation).next.sentence


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


def test_what_is_laid_down_is_a_copy():
    """A thread that goes on working something out changes nothing that is being laid down."""
    evaluation = evaluate(fold(None, [Entry("1", 1, PlanRevised(HEATHER))]))
    memory = evaluation.memory
    with ThreadPoolExecutor(2) as both:
        work = both.submit(lambda: [memory.recall(("x", i), object) for i in range(6000)])
        for _ in range(60):
            memory._laid_down()
        work.result()
