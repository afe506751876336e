"""Springs under their corner, their seats, what ends the travel, springs of axles at the wheels, and the sums beside the car."""

import math
from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.advise import sums
from ready_corner.core.advise.standing import sprung_load, stance
from ready_corner.core.engines.linkage.sweep import sweep
from ready_corner.core.engines.statics.attitude import Attitude
from ready_corner.core.engines.statics.bars import RollBar
from ready_corner.core.engines.statics.springs import GRAVITY
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.model.bodies import body_named
from ready_corner.core.model.four_springs import stand
from ready_corner.core.model.limits import strip
from ready_corner.core.model.movement import Movement, movement
from ready_corner.core.model.ride_heights import wanted_attitude
from ready_corner.core.model.springs_of_plan import car_of, places, raises, response, springing, sprung_loads, tilted_loads
from ready_corner.core.model.springwork import rates_over, seats, stack_of_plan, working
from ready_corner.core.plan.corners import CORNERS, END_OF
from ready_corner.core.plan.footing import EndFooting, Footing
from ready_corner.core.quantities.errors import MeasuredError, PlannedError
from ready_corner.core.record.logbook import Entry, PlanRevised, fold
from ready_corner.core.say.template import say_line
from tests.core.linkage.cars import plan
from tests.words import said

HEATHER, TERN = plan("heather"), plan("tern")
LF = Movement(HEATHER, "LF")


def test_a_coil_sits_where_its_load_and_the_linkage_put_it():
    spring = LF.spring
    work = working(LF, spring, 1100.0, 4.0, -52.0)
    force = 1100.0 / LF.at("damper.ratio", 4.0)
    assert work.settled.length == pytest.approx(spring.free - force / spring.rate)
    hung = work.settled.length + LF.at("damper.length", -52.0) - LF.at("damper.length", 4.0)
    assert work.preload == pytest.approx(spring.free - hung)
    assert work.sag == 56.0
    solid = work.settled.length + LF.at("damper.length", work.solid_travel) - LF.at("damper.length", 4.0)
    assert solid == pytest.approx(spring.solid, abs=1e-6)
    assert work.hz == pytest.approx(math.sqrt(work.rate * 1000 / (1100 / GRAVITY)) / 2 / math.pi)
    # The rate is the slope of what the wheel carries, as the coil is pressed along the travel.
    rates = rates_over(LF, spring, work, np.array([-20.0, 4.0, 25.0]), 4.0)
    for t, rate in zip((-20.0, 4.0, 25.0), rates, strict=True):
        carried = [
            spring.rate * (spring.free - work.settled.length - LF.at("damper.length", x) + LF.at("damper.length", 4.0)) * LF.at("damper.ratio", x)
            for x in (t - 0.05, t + 0.05)
        ]  # fmt: skip
        assert rate == pytest.approx((carried[1] - carried[0]) / 0.1, rel=1e-5)
    assert work.rate == pytest.approx(rates[1])


def test_more_preload_raises_the_corner_and_leaves_the_rate_and_a_helper_binds_on_the_way():
    helped = replace(LF.spring, free=160.0, helper=(12.0, 60.0, 20.0))
    assert stack_of_plan(helped).free == 220.0
    work = working(LF, helped, 1100.0, 0.0, -52.0)
    assert work.change is not None
    assert work.change < 0  # bound at ride height, let go in droop
    rates = rates_over(LF, helped, work, np.array([work.change - 3.0, work.change + 3.0]))
    assert rates[0] < 0.4 * rates[1]
    for wrong in (replace(LF.spring, free=80.0), replace(LF.spring, rate=0.0), replace(LF.spring, rate=6.0)):
        with pytest.raises(MeasuredError):
            working(LF, wrong, 1100.0)
    with pytest.raises(PlannedError, match="free length"):
        working(LF, replace(LF.spring, free=None), 1100.0)


def test_seats_are_square_where_they_were_centred_and_bow_elsewhere():
    strut = Movement(TERN, "LF")
    still, bumped = seats(strut.body, strut.spring, 0.0, np.array([0.0, 40.0]))
    assert (still.bow_deg, *still.shift) == pytest.approx((0.0, 0.0, 0.0), abs=1e-9)
    # Strut top and foot: the spring turns about its top, the upright with it as far as the strut goes.
    top, foot = (np.array(TERN.points[f"LF.{n}"]) for n in ("strut.top", "strut.foot"))
    upright = sweep(strut.body, np.array([40.0])).poses.pose
    now = upright.at(strut.body.shape, "strut.foot")[0]
    a, b = (foot - top) / np.linalg.norm(foot - top), (now - top) / np.linalg.norm(now - top)
    assert bumped.fixed_deg == pytest.approx(np.degrees(np.arccos(np.clip(a @ b, -1, 1))), abs=1e-6)
    off = (now - top) - a * ((now - top) @ a)
    assert bumped.shift == pytest.approx((off[0], off[1]))
    rocked = seats(LF.body, LF.spring, 0.0, np.array([30.0]))[0]
    assert rocked.moving_deg > rocked.fixed_deg > 0  # the rocker turns much further than its damper swings


def test_what_ends_the_travel_comes_in_order_and_is_judged():
    found = strip(HEATHER, LF, wanted_attitude(HEATHER), 4.0, 6.0)
    assert [k.name for k in found.bump][:2] == ["bump stop", "tyre to body"]
    assert (found.bump_left, found.droop_left) == pytest.approx((42.0, 58.0))
    assert found.fine
    low = wanted_attitude(HEATHER).height_of((340.0, 0.0, 88.0))
    assert next(k.travel for k in found.bump if k.name == "ground") == pytest.approx(4.0 + low)
    high_body = replace(HEATHER, footing=replace(HEATHER.footing, front_end=replace(HEATHER.footing.front_end, to_body=44.0)))
    touched = strip(high_body, LF, wanted_attitude(HEATHER), 4.0, None)
    assert not touched.fine
    assert said(touched.lines[0][0]) == "Bump: the tyre to body comes 4.0 mm before the bump stop."
    near = replace(high_body, footing=replace(high_body.footing, front_end=replace(high_body.footing.front_end, to_body=51.0)))
    assert "leaves only 3.0 mm" in said(strip(near, LF, wanted_attitude(HEATHER), 4.0, None).lines[0][0])
    bare = strip(replace(HEATHER, footing=Footing()), LF, Attitude(0, 0, 0), 0.0, None)
    assert "names no bump stop" in said(bare.lines[0][0])
    joint = next(k for k in bare.bump if "joint" in k.name)
    member, at = joint.name.split(" joint, ")
    limit = next(j.limit_deg for j in LF.body.joints if (j.member, j.at) == (member, at))
    assert abs(sweep(LF.body, np.array([joint.travel])).shared[f"{member}.{at}_deg"][0]) == pytest.approx(limit, abs=1e-5)


def test_an_axles_springs_stand_inboard_of_its_wheels_and_a_perch_lowers_the_other_side():
    springs = springing(TERN)
    assert springs.known
    body = body_named(TERN, "LR")
    h = 2.0
    wide = body.shape.point("left.wheel")[1] - body.shape.point("right.wheel")[1]
    roll = float(np.degrees(np.arctan2(h, wide)))
    low, high = (
        sweep(body, np.array([h / 2 * s]), roll_deg=np.array([roll * s])).shared for s in (-1, 1)
    )  # the left wheel alone, both ways
    by_left = [(low[f"{n} coil.length"][0] - high[f"{n} coil.length"][0]) / (2 * h) for n in ("left", "right")]
    assert springs.ratios[2:, 2] == pytest.approx(by_left, abs=2e-4)
    per = raises(TERN, springs)
    assert per[3, 2] < 0 < per[2, 2]
    pitch = TERN.adjuster("LR.perch").by.pitch_mm_per_turn
    assert (springs.ratios @ per)[2:, 2] == pytest.approx([pitch, 0.0], abs=1e-9)
    assert per[0, 0] == pytest.approx(TERN.adjuster("LF.perch").by.pitch_mm_per_turn / springs.ratios[0, 0])
    assert not springing(replace(TERN, rear_linkage=None)).known


def test_a_bar_of_the_plan_stiffens_roll_and_leaves_heave():
    springs = springing(HEATHER)
    both, one = np.array([1.0, 1, 0, 0]), np.array([1.0, -1, 0, 0])
    assert springs.bars @ both == pytest.approx(np.zeros(4))
    assert one @ springs.bars @ one > 0
    assert one @ springs.supports(bars_on=True) @ one > one @ springs.supports() @ one


def test_pads_on_one_plane_move_no_load_and_a_warp_is_shared_by_the_springs():
    springs = springing(HEATHER)
    does = response(places(HEATHER), springs.supports())
    plane = 3.0 + places(HEATHER) @ [0.002, -0.003]
    np.testing.assert_allclose(does.heights @ plane, plane, atol=1e-9)
    np.testing.assert_allclose(does.loads @ plane, 0.0, atol=1e-9)
    warp = does.loads @ np.array([1.0, -1, -1, 1])
    assert warp.sum() == pytest.approx(0.0, abs=1e-9)
    assert (places(HEATHER).T @ warp) == pytest.approx(np.zeros(2), abs=1e-6)
    lean = tilted_loads(places(HEATHER), springs.supports(), plane, 6000.0, 360.0)
    assert lean.sum() == pytest.approx(0.0, abs=1e-9)
    assert places(HEATHER).T @ lean == pytest.approx([-6000 * 360 * 0.002, 6000 * 360 * 0.003])  # towards the low side


def test_sprung_loads_are_shares_less_what_is_not_sprung():
    carried = sprung_loads(HEATHER)
    assert carried.sum() == pytest.approx((612.0 - 2 * 24 - 2 * 27) * GRAVITY)
    assert sprung_loads(replace(HEATHER, footing=Footing())) is None
    for wrong in (
        lambda: Footing(mass=0.0),
        lambda: Footing(front=1.0),
        lambda: EndFooting(tyre_rate=0.0),
        lambda: EndFooting(bump=-1.0),
        lambda: EndFooting(unsprung=-2.0),
        lambda: Footing(low=HEATHER.footing.low * 2),
    ):
        with pytest.raises(PlannedError):
            wrong()


@pytest.mark.parametrize("of", [HEATHER, TERN])
def test_the_car_of_a_plan_stands_as_drawn_and_moves_as_reckoned(of):
    still = stand(car_of(of))
    np.testing.assert_allclose(still.heights, 0.0, atol=1e-6)  # mm
    assert still.loads.sum() == pytest.approx(of.footing.mass * GRAVITY)
    assert (still.cross, still.rear) == pytest.approx((0.5, 1 - of.footing.front))
    pads, springs = np.array([1.0, -2.0, 0.5, 3.0]), springing(of)
    does = response(places(of), springs.supports())
    uneven = stand(car_of(of, pads))
    np.testing.assert_allclose(uneven.heights, does.heights @ pads, atol=1e-6)
    np.testing.assert_allclose(uneven.loads - still.loads, does.loads @ pads, atol=1e-5)
    turns = np.array([0.0, 0.0, 1.0, -0.5])
    turned = stand(car_of(of), turns)
    np.testing.assert_allclose(turned.heights, does.heights @ np.nan_to_num(raises(of, springs)) @ turns, atol=1e-6)
    with pytest.raises(MeasuredError, match="no weight"):
        car_of(replace(of, footing=Footing()))


def answered(asked, of=HEATHER):
    from tests.core.stance.test_standing import judged, stance

    return dict(say_line(line, of.units) for line in sums.answer_of(asked, of, lambda: stance(judged(of=of))))


def test_a_spring_by_frequency_comes_back_by_sag():
    by_hz = answered(sums.SpringAsked("LF", hz=2.0))
    assert by_hz["The corner swings at"].startswith("2.00 Hz")
    sag = float(by_hz["Sag from full droop, without preload"].split()[0])
    assert answered(sums.SpringAsked("LF", sag=sag))["Spring"] == by_hz["Spring"]
    softer = answered(sums.SpringAsked("LF", sag=sag, preload=10.0))
    assert float(softer["Spring"].split()[0]) < float(by_hz["Spring"].split()[0])


def test_splines_make_up_a_height_found_wrong_as_far_as_they_step():
    found = answered(sums.TorsionAsked(40, 44, 380.0, 38.0, 326.0, 4.0, 12.0, 0.5))
    assert found["Hangs free"] == f"{4 + 326 * GRAVITY * 0.38 * math.cos(math.radians(4)) / 38:.2f}° under level"
    turned = float(found["To come 12.0 mm up"].split()[-1].rstrip("°"))
    there = math.degrees(math.asin(math.sin(math.radians(4)) + 12 / 380))
    bar = 326 * GRAVITY * 0.38 / 38
    assert turned == pytest.approx(there - 4 + bar * (math.cos(math.radians(there)) - math.cos(math.radians(4))), abs=0.01)
    assert "it covers that" in found["Left for the fine adjuster"]
    with pytest.raises(MeasuredError, match="No arm so short"):
        answered(sums.TorsionAsked(40, 44, 38.0, 38.0, 326.0, 4.0, 120.0))


def test_dampers_bars_tubes_and_heights_are_worked_by_hand():
    damper = answered(sums.DamperAsked("LF", 190.0, 260.0))
    at_bump = LF.at("damper.length", 48.0)
    assert damper["Room left closing"] == f"{190 - at_bump:.1f} mm short"
    bar = answered(sums.BarAsked("front", RollBar(16.0, 410.0, 121.8), 30.0, -30.0))
    assert bar["Twist, both arms counted"] == f"{2 * math.degrees(math.asin(30 / 121.8)):.2f}°"
    ratio = abs(sweep(LF.body, np.zeros(1)).answers["bar.deg_per_mm"][0]) * math.pi / 180 * 120  # the arm as drawn
    assert bar["Bar end over wheel"] == f"{ratio:.3f}"
    assert answered(sums.TubeAsked(214.3, 60.0, 20.0))["Cut the tube"] == "134.3 mm"
    sill = {f.name: 170.0 for f in HEATHER.footing.features if f.name.startswith("sill")}
    assert all(v == "94.0 mm" for v in answered(sums.HeightsAsked(sill)).values())  # 12 over the drawing's 82
    for wrong in (
        sums.TubeAsked(100.0, 60.0, 20.0),
        sums.TubeAsked(214.3, 60.0, 0.0),
        sums.SpringAsked("LF"),
        sums.SpringAsked("LF", hz=0.0),
        sums.TorsionAsked(40, 44, 0.0, 38.0, 326.0, 4.0),
    ):
        with pytest.raises(MeasuredError):
            answered(wrong)
    with pytest.raises(MeasuredError, match="no anti-roll bar at the rear"):
        sums.bar_asked("rear", None, 1.0, 1.0)
    assert {END_OF[c] for c in CORNERS} == {"front", "rear"}


@pytest.mark.parametrize("corner", ["LF", "LR"])
@pytest.mark.parametrize("hz", [1.9, 2.3])
def test_a_spring_for_a_wanted_swing_swings_so_by_the_model_itself(corner, hz):
    heather = plan("heather")
    now = stance(evaluate(fold(None, [Entry("1", 1, PlanRevised(heather))])))
    lines = {f.kind: dict(f.figures) for f in sums.answer_of(sums.SpringAsked(corner, hz=hz), heather, lambda: now)}
    move, load = movement(heather, corner), sprung_load(heather, corner, None)
    rate, free = lines["sum.spring"]["rate"], lines["sum.free-length"]["length"]
    spring = replace(move.spring, rate=rate, free=free, helper=None, solid=None)
    travel = now.corners[CORNERS.index(corner)].strip.wanted
    assert working(move, spring, load, travel).hz == pytest.approx(hz, rel=1e-6)
    sagged = {
        f.kind: dict(f.figures)
        for f in sums.answer_of(sums.SpringAsked(corner, sag=lines["sum.sag"]["sag"]), heather, lambda: now)
    }
    assert sagged["sum.spring"]["rate"] == pytest.approx(rate, rel=1e-6)  # there and back


def test_a_bar_with_half_the_arm_is_four_times_as_stiff_at_the_wheel():
    heather = plan("heather")
    bars = [RollBar(20.0, 700.0, arm, 14.0) for arm in (60.9, 121.8)]
    at_wheel = [
        next(
            dict(f.figures)["rate"]
            for f in sums.answer_of(sums.BarAsked("front", bar, 5.0, -5.0), heather, lambda: None)
            if f.kind == "sum.bar-at-wheel"
        )
        for bar in bars
    ]
    assert at_wheel[0] == pytest.approx(4 * at_wheel[1])  # the link's travel stays that of the drawing
