"""The pads in words, what comes next with scales, and what is said of loads and cross weight."""

from dataclasses import replace

import pytest

from ready_corner.core.advise.next import next_step
from ready_corner.core.judge.pads import pads_of
from ready_corner.core.model.wanting import wanting
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.footing import Footing
from ready_corner.core.plan.marks import say_do, say_need, say_uncertainty, say_value
from ready_corner.core.plan.plan import Jig
from ready_corner.core.quantities.notation import Units
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.happenings import Happened
from ready_corner.core.record.readings import Reading
from ready_corner.core.record.stance_acts import TyreFitted
from ready_corner.core.say.judged import say_mark_value
from tests.core.stance.practice import practice_plan
from tests.core.stance.test_standing import HEATHER, heights, judged, loads
from tests.words import said

KG, LB = Units(), Units("inch_fraction")
PLAN = practice_plan()
AIMS = {c: PLAN.aim(f"{c}.height").aim for c in CORNERS}
EVEN = dict.fromkeys(CORNERS, 140.0)


def pads(values, of=PLAN, *more):
    found = judged(*more, *[Reading("pad", c, v, "rule") for c, v in values.items()], of=of)
    return pads_of(found.figures)


def test_pads_are_unproved_until_all_four_are_read():
    assert pads({}).way == "unproved"
    assert "Read the pad of the left rear, right rear too" in said(pads({"LF": 0.0, "RF": 1.0}).says)[0]


def test_pads_within_what_the_rule_tells_are_level_and_nothing_is_taken_out():
    found = pads({"LF": 0.0, "RF": 0.05, "LR": -0.02, "RR": 0.0})
    assert found.way == "level"
    assert "Nothing is taken out" in said(found.says)[0]


def test_pads_on_one_slope_are_said_and_leave_the_heights():
    slope = {
        c: 0.01 * x - 0.004 * y for c, (x, y) in zip(CORNERS, ((0, 650), (0, -650), (-2300, 640), (-2300, -640)), strict=True)
    }
    found = pads(slope)
    assert said(found.says)[0] == "The pads lie 0.57° up forward and 0.23° up to the right."
    assert "They are flat" in said(found.says)[1]
    assert all(abs(v) < 1e-9 for p in found.pads for v in p.adds)


def test_a_warp_is_taken_out_by_arithmetic_or_packed_up_to_the_highest():
    warp = {"LF": 0.0, "RF": 4.0, "LR": 4.0, "RR": 0.0}
    found = pads(warp, PLAN, Happened("settled"), *loads(EVEN))
    assert found.way == "arithmetic"
    assert [p.up for p in found.pads] == pytest.approx([4.0, 0.0, 0.0, 4.0])
    assert [round(p.adds[0], 1) for p in found.pads] == [-2.0, 2.0, 2.0, -2.0]  # even springs share it evenly
    assert all(abs(p.adds[1]) > 0.05 for p in found.pads)
    shimmed = pads({**warp, "RF": 4.25}, replace(PLAN, jig=Jig({}, shims=(0.25, 2.0))))
    assert shimmed.pads[0].pack == (2.0, 2.0, 0.25)


def test_pads_that_were_levelled_are_to_be_read_again():
    again = judged(*[Reading("pad", c, 3.0, "rule") for c in CORNERS], Happened("level"), of=PLAN)
    assert again.state.spells["LF", "pad"] == 1


def test_with_every_height_right_the_scales_come_next_and_then_the_perches():
    angles = [
        Reading(q, c, v, t)
        for c in CORNERS
        for q, v, t in (
            ("camber", 0.0, "digital"),
            ("gap_front", 90.0, "rule"),
            ("gap_back", 90.0, "rule"),
            ("gap_hub", 90.0, "rule"),
        )
    ]
    done = [Happened("settled"), *heights(AIMS), *angles]
    step = next_step(judged(*done, of=PLAN))
    assert (said(step.sentence), step.corner, step.quantity) == ("Put it on the scales", "LF", "load")
    assert "50.0 % ± 0.5 %" in said(step.reason)
    off = next_step(judged(*done, *loads({**EVEN, "LF": 150.0}), of=PLAN))
    assert off.kind == "lift"
    assert "perch" in said(off.reason)
    assert "cross weight" not in said(off.reason)  # the list brings it within tolerance
    assert next_step(judged(*done, *loads(EVEN), of=PLAN)).kind == "done"


def test_loads_and_cross_weight_are_said_in_their_units():
    assert [say_value("LF.load", 140.0, u) for u in (KG, LB)] == ["140.0 kg", "308.6 lb"]
    assert say_value("car.cross_weight", 50.84, KG) == "50.8 %"
    assert say_uncertainty("car.cross_weight", 0.12, KG) == "± 0.1 %"
    assert say_need("car.cross_weight", -0.8, KG) == "needs 0.8 % more on right front and left rear"
    assert say_do("car.cross_weight", 0.8, KG) == "left front and right rear 0.8 % more"


def test_what_the_stance_will_want_is_found_out_beforehand():
    bare = {said(w.what) for w in wanting(replace(HEATHER, footing=Footing())) if w.stage == "Stance"}
    assert {"the weight of the car and its shares", "travel to the front and rear stops"} <= bare
    assert not {w.path for w in wanting(HEATHER)} & {"footing", "footing.mass"}


def test_a_cross_weight_without_an_aim_is_shown_and_not_judged():
    free = replace(PLAN, aims=tuple(a for a in PLAN.aims if a.mark != "car.cross_weight"))
    found = judged(Happened("settled"), *heights(AIMS), *loads({**EVEN, "LF": 150.0}), of=free).mark("car.cross_weight")
    assert (found.state, say_mark_value(found, HEATHER.units)) == (None, "49.1 %")
    assert found.fresh
    assert isinstance(PLAN.aim("car.cross_weight"), Aim)


def test_the_floor_takes_the_tool_of_the_latest_reading_as_heights_do():
    coarse = [Reading("pad", c, 5.0 if c == "LF" else 0.0, "tape") for c in CORNERS]
    fine = [Reading("pad", c, 0.0, "rule") for c in CORNERS]
    found = judged(*coarse, *fine, of=PLAN).figures.ground
    assert found.floor.slope_deg == pytest.approx((0.0, 0.0), abs=1e-12)


def test_the_radius_of_a_stand_in_goes_with_it():
    own, other = Reading("radius", "LF", 292.0, "tape"), Reading("radius", "LF", 284.0, "tape")
    on, off = TyreFitted(stand_in=True, corner="LF"), TyreFitted(stand_in=False, corner="LF")
    found = judged(own, on, other, off, of=PLAN).figures.ground
    assert found.radii["LF"].value == 292.0
    assert "LF" not in found.stand_ins
    again = judged(own, on, other, off, Reading("radius", "LF", 293.0, "tape"), of=PLAN).figures.ground
    assert again.radii["LF"].value == 293.0
