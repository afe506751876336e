"""What a turn is worth by the plan, before anything was tried."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.advise.corner import set_corner
from ready_corner.core.engines.linkage.sweep import sweep, travel_for_length
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.model.bodies import bodies_of
from ready_corner.core.model.checks import check_linkages
from ready_corner.core.model.predicted import predicted
from ready_corner.core.plan.plan import Moves
from ready_corner.core.record.happenings import Happened, Turned
from ready_corner.core.record.logbook import Entry, PlanRevised, fold
from ready_corner.core.record.readings import Reading
from tests.core.linkage.cars import plan
from tests.words import said

HEATHER = plan("heather")


@pytest.mark.parametrize("corner", ["LF", "RF", "RR"])
def test_a_turn_is_worth_what_the_linkage_does_with_its_spring_held(corner):
    end = "front" if corner.endswith("F") else "rear"
    body = next(b for b in bodies_of(HEATHER, end) if b.name == corner)
    turned = replace(
        body,
        shape=body.shape.with_lengths(
            {"tie rod": body.shape.links[[k.name for k in body.shape.mechanism.links].index("tie rod")] + 0.03}
        ),
    )
    spring = body.springs[0]
    before = sweep(body, np.zeros(1)).answers
    travel = travel_for_length(turned, spring, before[f"{spring.name}.length"])
    after = sweep(turned, travel).answers
    found = predicted(HEATHER, corner)
    for kind in ("camber", "toe"):
        per_turn = (after[f"{kind}_deg"] - before[f"{kind}_deg"])[0] / 0.03 * 3.0  # 3 mm a turn: 1.5 mm of thread at either end
        assert found[kind].of(f"{corner}.tie-rod") == pytest.approx(per_turn, abs=2e-3)


def test_turns_are_told_at_once_by_the_plan_and_by_the_car_once_it_was_tried():
    rows = [PlanRevised(HEATHER), Happened("settled"), Reading("camber", "LF", -1.4, "digital")]
    rows += [Reading(q, "LF", v, "rule") for q, v in (("gap_front", 90.0), ("gap_back", 87.0), ("gap_hub", 90.0))]
    rows += [Reading("gap_hub", "LR", 80.0, "rule")]

    def state(whats):
        return evaluate(fold(None, [Entry(str(n), n, what) for n, what in enumerate(whats, start=1)]))

    answer = set_corner(state(rows), "LF")
    assert not answer.why_not
    assert "by the plan" in said(answer.reason)
    assert all(w.by_plan for s in answer.adjusters for w in s.worth)
    turns = {t.adjuster: t.amount for t in answer.turns}
    by = predicted(HEATHER, "LF")
    toe = next(m for m in state(rows).marks if m.mark == "LF.toe")
    after = toe.value + sum(by["toe"].of(a) * t for a, t in turns.items() if t)
    assert after == pytest.approx(-0.1, abs=0.17)  # half a flat of the tie rod
    tried = [
        *rows,
        Turned("LF.tie-rod", 0.5),
        Reading("camber", "LF", -1.35, "digital"),
        Reading("gap_front", "LF", 84.0, "rule"),
        Reading("gap_back", "LF", 93.0, "rule"),
    ]
    learned = {
        w.mark: w.by_plan for s in set_corner(state(tried), "LF").adjusters if s.adjuster.id == "LF.tie-rod" for w in s.worth
    }
    assert learned == {"LF.camber": False, "LF.toe": False, "LF.height": True}  # no height was read since


@pytest.mark.parametrize(
    ("moves", "words"),
    [
        (Moves("LF.elbow"), "no member"),
        (Moves("LF.tie rod", (0, 1, 0)), "no point"),
        (Moves("LF.upper.ball", (0, 0, 0)), "direction of nothing"),
    ],
)
def test_what_an_adjuster_cannot_move_is_refused(moves, words):
    wrong = replace(HEATHER, adjusters=(replace(HEATHER.adjusters[0], moves=moves),))
    assert any(words in w.sentence and w.path.endswith(".moves") for w in check_linkages(wrong))
