"""The whole judgement against practice cars whose truth it never sees: from pads to heights and cross weight, and what is learned on the way."""

import numpy as np
import pytest

from ready_corner.core.advise.standing import stance, turns_now
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.notes import Correction
from ready_corner.core.record.stance_acts import Unlearned
from tests.core.stance.practice import Practice, on_flat, practice_plan
from tests.words import said

WARPED = np.array([0.0, 3.5, 4.0, 0.5])


def car(seed=1, **plan):
    random = np.random.default_rng(seed)
    made = Practice(
        practice_plan(**plan),
        rates=random.uniform(19, 28, 4),
        ratios=random.uniform(0.64, 0.74, 4),
        free=182 + random.uniform(-8, 8, 4),
    )
    made.pads = WARPED.copy()
    return made


def settle_and_turn(practice, rounds):
    """Read and turn as told until nothing is told any more; return how many rounds of turns it took."""
    for n in range(rounds):
        practice.read()
        steps = stance(practice.judged).perches
        if not steps:
            return n
        for step in steps:
            practice.turn(step.corner, step.amount)
    return rounds


@pytest.mark.parametrize("seed", [1, 2, 3, 4])
def test_a_warped_floor_is_taken_out_of_heights_and_loads(seed):
    warped = car(seed)
    warped.read_pads()
    warped.read()
    heights, loads = on_flat(warped).stands()
    raw_heights, raw_loads = warped.stands()
    found = warped.judged
    seen_heights = np.array([found.mark(f"{c}.height").value for c in CORNERS])
    seen_loads = np.array([found.mark(f"{c}.load").value for c in CORNERS])
    # The plan tells no springs here, so even ones are taken: most of it is taken out, not all.
    assert np.abs(seen_heights - heights).max() < 0.35 * np.abs(raw_heights - heights).max()
    assert np.abs(seen_loads - loads).max() < 0.45 * np.abs(raw_loads - loads).max()
    assert stance(found).pads.way == "arithmetic"


@pytest.mark.parametrize("seed", [1, 2, 3, 4, 5, 6])
def test_from_pads_to_four_heights_and_cross_weight_within_tolerance(seed):
    practice = car(seed)
    practice.read_pads()
    assert settle_and_turn(practice, 6) <= 4
    heights, loads = on_flat(practice).stands()
    assert np.abs(heights - [120, 120, 135, 135]).max() < 2.0 + 0.5  # mm; what even springs leave of the warp
    assert abs(100 * (loads[1] + loads[2]) / loads.sum() - 50.0) < 0.5 + 0.3
    assert all(practice.judged.mark(f"{c}.height").state == "holds" for c in CORNERS)
    assert practice.judged.mark("car.cross_weight").state == "holds"


def test_by_height_alone_cross_weight_is_left_and_by_weight_the_heights_are():
    by_height = car(7, school="height")
    settle_and_turn(by_height, 6)
    assert all(by_height.judged.mark(f"{c}.height").state == "holds" for c in CORNERS)
    by_weight = car(7, school="weight")
    by_weight.read()
    before = np.array([by_weight.judged.mark(f"{c}.height").value for c in CORNERS])
    settle_and_turn(by_weight, 6)
    after = np.array([by_weight.judged.mark(f"{c}.height").value for c in CORNERS])
    assert by_weight.judged.mark("car.cross_weight").state == "holds"
    assert np.abs(after - before).max() <= 2.0


def test_a_wanted_difference_from_side_to_side_is_an_aim_and_no_error():
    staggered = car(8, aims=(120.0, 126.0, 135.0, 141.4), cross=51.0)
    assert settle_and_turn(staggered, 7) <= 5
    assert all(staggered.judged.mark(f"{c}.height").state == "holds" for c in CORNERS)


def test_what_a_perch_really_does_is_learned_shown_and_can_be_forgotten_or_struck_out():
    practice = car(9)
    practice.read()
    plan_says = turns_now(practice.judged)[1]
    assert plan_says.factors.says == ()
    practice.turn("LR", 4.0)
    practice.read()
    told = turns_now(practice.judged)[1]
    truth = 0.8 / practice.ratios[2]  # the plan has 0.8 for it
    assert told.factors.factors[2] == pytest.approx(truth, abs=0.08)
    assert [a for a, _ in told.factors.says] == ["LR.perch"]
    assert "times what the plan says" in said(told.factors.says[0][1])
    assert np.all(told.heights[:, 2] == plan_says.heights[:, 2] * told.factors.factors[2])
    practice.tell(Unlearned("LR.perch"))
    assert turns_now(practice.judged)[1].factors.factors[2] == pytest.approx(1.0)
    practice.tell(Correction(str(len(practice.entries))))
    assert turns_now(practice.judged)[1].factors.factors[2] == pytest.approx(told.factors.factors[2])
    practice.tell(Unlearned("LR.perch"))
    practice.turn("LR", -4.0)  # and it is learned anew from what comes after
    practice.read()
    assert turns_now(practice.judged)[1].factors.factors[2] == pytest.approx(truth, abs=0.15)


def test_what_turns_do_to_the_cross_weight_is_learned_from_the_scales():
    practice = car(10)
    practice.read()
    before = turns_now(practice.judged)[1]
    practice.turn("RF", 5.0)
    practice.read()
    after = turns_now(practice.judged)[1]
    _, loads = practice.stands()
    practice.turns[1] -= 5.0
    _, was = practice.stands()
    really = 100 * ((loads[1] + loads[2]) / loads.sum() - (was[1] + was[2]) / was.sum()) / 5
    assert abs(after.cross[1] - really) < 0.5 * abs(before.cross[1] - really)


def test_what_no_thread_reaches_says_how_near_it_comes():
    short = car(11, room=1.0)
    short.read()
    found = stance(short.judged)
    assert "thread of the" in " ".join(said(found.turns.short))
    assert "left" in " ".join(said(found.turns.short)) or f"cross weight comes to {found.turns.cross:.1f} %" in " ".join(
        said(found.turns.short)
    )
    assert all(abs(s.amount) <= 0.5 + 1e-9 for s in found.perches)
    bent = car(1, aims=(120.0, 120.0, 135.0, 160.0), school="height")
    bent.read()
    assert "A rigid chassis cannot stand so" in " ".join(said(stance(bent.judged).turns.short))


def test_the_order_of_readings_and_repeats_change_nothing():
    practice = car(12)
    practice.read()
    once = stance(practice.judged)
    again = car(12)
    again.read(("load",))
    again.read(("height",))
    other = stance(again.judged)
    assert [s.said for s in other.perches] == [s.said for s in once.perches]
    assert other.loads == once.loads
    assert practice.plan.aim("LF.height") == Aim("LF.height", 120.0, 2.0)
