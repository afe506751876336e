"""Every way of reading an angle, from an exact car and back: the geometry is written anew here, with points, planes and rotations about a line."""

import re
from dataclasses import replace
from itertools import combinations_with_replacement
from pathlib import Path

import numpy as np
import pytest

from ready_corner.core.advise.corner import seen_of, set_corner
from ready_corner.core.advise.next import next_step, round_of
from ready_corner.core.advise.provable import limits
from ready_corner.core.engines.alignment import camber as camber_of
from ready_corner.core.engines.alignment import steering_axis, string
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.judge.progress import share_held
from ready_corner.core.model.wanting import wanting
from ready_corner.core.plan.corners import CORNERS, SIDE
from ready_corner.core.plan.marks import MARKS, is_length
from ready_corner.core.plan.plan import Adjuster, Stack, ThreadedEnd, Ways
from ready_corner.core.quantities.errors import CalledError, MeasuredError, PlannedError
from ready_corner.core.quantities.notation import Units
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.happenings import Happened, Turned
from ready_corner.core.record.logbook import fold
from ready_corner.core.record.readings import QUANTITIES, Reading
from ready_corner.core.say.judged import say_ask
from ready_corner.core.say.template import in_mm
from ready_corner.core.simulation.cars import practice_plan
from tests.core.cars import FINE, SHIMS, Log, plan
from tests.core.drawn import AIMS, FRONT, SHOP, Steered, gravity_over
from tests.core.linkage.cars import plan as linked
from tests.core.practice import PracticeCar
from tests.words import said

PLATE = Tool("plate", "Plate", "steer", 1e-6, 0.0)


def of(ways=None, tools=(*FINE, PLATE)):
    bare = plan(tools=tools, ways=ways or Ways(hub_middle=0, span=0, run_out=0, floor=0))
    return replace(bare, aims=(*bare.aims, *AIMS))


def drawn(seed):
    rng = np.random.default_rng(seed)
    row = lambda low, high: dict(zip(CORNERS, rng.uniform(low, high, 4), strict=True))  # noqa: E731
    slope = rng.normal(0, 0.004, 2)
    car = Steered(
        row(-0.8, 0.8), row(-3, 1), left_string=(880.0, rng.normal(0, 0.4)), right_string=(-900.0, rng.normal(0, 0.4)),
        caster=row(-2, 9), inclination=row(2, 16), up=gravity_over(slope),
    )  # fmt: skip
    return car, slope, rng


def begun(car, slope, plan_):
    """A log with pads and strings read."""
    log = Log(plan_)
    lie = {c: float(np.array(plan_.wheel_place(c)) @ slope) for c in CORNERS}
    for c in CORNERS:
        log.read(c, "pad", lie[c] - lie["LF"])
        log.string(c, car)
    return log


def swept(log, car, corner, inwards=21.0, outwards=16.5, tool="digital"):
    for way, plate in (("in", inwards), ("out", outwards)):
        log.read(corner, f"plate_{way}", plate, "plate")
        log.read(corner, f"sweep_{way}", car.shown(car.turned(corner, plate if way == "in" else -plate)), tool)


@pytest.mark.parametrize("seed", range(8))
def test_every_way_gives_back_what_an_exact_car_is(seed):
    car, slope, _ = drawn(seed)
    held = {kind: getattr(car, kind) for kind in ("toe", "camber", "caster", "inclination")}

    def comes_back(log, *kinds, corners=FRONT):
        found = evaluate(fold(None, log.entries))
        for c in corners:
            for kind in kinds:
                assert found.mark(f"{c}.{kind}").value == pytest.approx(held[kind][c], abs=1e-9), (c, kind)  # deg

    gauge = begun(car, slope, of())
    for c in CORNERS:
        gauge.read(c, "camber", car.shown(car.axis(c)))
    comes_back(gauge, "camber", "toe", corners=CORNERS)
    for c in FRONT:  # and with a sweep beside it, both angles of the axis from three unequal positions
        swept(gauge, car, c)
    comes_back(gauge, "camber", "caster", "inclination")

    plumb = begun(car, slope, of())
    for c in CORNERS:
        off = 190.5 * np.sin(np.radians(car.shown(car.axis(c))))
        plumb.read(c, "lean_top", 60 - off)
        plumb.read(c, "lean_bottom", 60 + off)
    comes_back(plumb, "camber", corners=CORNERS)

    bar, rule = begun(car, slope, of()), begun(car, slope, of())
    for c in FRONT:
        behind, inside, high = car.offsets(c)
        bar.read(c, "caster", np.degrees(np.arctan2(behind, high)), "digital")
        bar.read(c, "inclination", np.degrees(np.arctan2(inside, high)), "digital")
        rule.read(c, "caster_offset", behind)
        rule.read(c, "inclination_offset", inside)
        rule.read(c, "joint_height", high, "tape")
    for log in (bar, rule):
        comes_back(log, "caster", "inclination")
    for c in FRONT:  # a sweep of two positions takes the inclination from the joints
        swept(rule, car, c, 12.0, 19.0)
    comes_back(rule, "caster")


def test_ways_that_agree_count_by_their_weight_and_those_that_do_not_are_said():
    tools = (*FINE, Tool("coarse", "Coarse rule", "length", 1.0, 0.3), Tool("bubble", "Bubble", "angle", 0.2, 0.1))
    log = Log(of(tools=tools))
    log.read("LF", "camber", -1.4, "bubble")
    alone = evaluate(fold(None, log.entries)).mark("LF.camber")
    for q, gap in (
        ("lean_top", 60.0 + 381 / 2 * np.sin(np.radians(1.5))),
        ("lean_bottom", 60.0 - 381 / 2 * np.sin(np.radians(1.5))),
    ):
        log.read("LF", q, gap, "coarse")
    both = evaluate(fold(None, log.entries)).mark("LF.camber")
    assert -1.5 < both.value < -1.4
    assert both.expanded < alone.expanded
    log.turn("LF.shims", 1)
    for q, gap in (("lean_top", 80.0), ("lean_bottom", 60.0)):
        log.read("LF", q, gap, "coarse")
    log.read("LF", "camber", -1.5, "bubble")
    apart = evaluate(fold(None, log.entries)).mark("LF.camber")
    assert (apart.state, apart.way) == ("too close to call", "read")
    assert in_mm(apart.reason) == "gauge on the rim and plumb line and rule are 1.51° apart, more than either can be off"
    assert apart.expanded > 1.4


def test_a_sweep_that_tells_nothing_is_refused_with_what_to_do():
    for steer, known, why in (
        ([1.0, 1.0], steering_axis.Known(10.0, 1.0), "only 0.0° apart. Steer further"),
        ([20.0, -20.0], None, "read the camber straight ahead too"),
        ([20.0, -70.0], steering_axis.Known(10.0, 1.0), "read the plate again"),
    ):
        with pytest.raises(MeasuredError) as refusal:
            steering_axis.axis_from_sweep(steer, [0.0, 0.0], known)
        assert why in in_mm(refusal.value.finding)
    with pytest.raises(MeasuredError) as refusal:
        steering_axis.angle_of_offset_deg(10.0, 0.0)
    assert "height between them" in in_mm(refusal.value.finding)
    with pytest.raises(PlannedError):
        Ways(read_by={"camber": "eye"})


def test_only_what_is_aimed_at_is_asked_for_and_only_in_the_way_of_the_plan():
    def asked(p):
        return {a.quantity for a in round_of(evaluate(fold(None, Log(p).entries))) if a.corner == "LF"}

    steered = {"plate_in", "sweep_in", "plate_out", "sweep_out"}
    assert not asked(plan()) & {*steered, "caster", "inclination", "lean_top"}
    assert asked(of()) >= {*steered, "inclination", "camber"}
    by_rule = Ways(read_by={"caster": "plumb", "inclination": "plumb", "camber": "plumb"})
    assert asked(of(by_rule)) >= {"caster_offset", "joint_height", "inclination_offset", "lean_top", "lean_bottom"}
    assert not asked(of(by_rule)) & {*steered, "caster", "inclination", "camber"}


def test_a_sweep_is_asked_for_to_its_end_and_again_once_something_was_turned():
    car, _, _ = drawn(1)
    log = Log(of())
    now = lambda: evaluate(fold(None, log.entries))  # noqa: E731
    for c in CORNERS:
        log.read(c, "height", 110.0)
        log.read(c, "camber", car.shown(car.axis(c)))
        log.string(c, car)
    for c in FRONT:
        log.read(c, "inclination", 10.0, "digital")
    seen = []
    while (step := next_step(now())).kind == "read" and len(seen) < 12:
        seen.append((step.corner, step.quantity))
        value = 20.0 if step.quantity.startswith("plate") else {"sweep_in": -2.9, "sweep_out": 0.5}[step.quantity]
        log.read(*seen[-1], value, "plate" if step.quantity.startswith("plate") else "digital")
    assert seen == [(c, q) for c in ("LF", "RF") for q in ("plate_in", "sweep_in", "plate_out", "sweep_out")]
    assert now().mark("LF.caster").state in ("holds", "out", "too close to call")
    log.turn("LF.shims", 1)
    assert now().mark("LF.caster").state == "moved since"
    assert now().mark("RF.caster").state != "moved since"


def test_whatever_may_be_aimed_at_is_judged_and_belongs_to_a_stage():
    aims = tuple(Aim(m, 100.0 if is_length(m) else 50.0 if m.endswith("weight") else 1.0, 1.0) for m in MARKS)
    log = Log(replace(plan(tools=(*FINE, PLATE)), aims=aims))
    assert set(share_held(evaluate(fold(None, log.entries)))) == {"Set", "Stance"}
    for corner in CORNERS:
        for quantity, facts in QUANTITIES.items():
            if corner in facts.corners and facts.measures in ("length", "angle", "steer"):
                tool = {"angle": "digital", "steer": "plate"}.get(facts.measures, "tape")
                log.read(corner, quantity, 20.0 if facts.measures == "steer" else 1.0 if facts.kind == "angle" else 200.0, tool)
        found = evaluate(fold(None, log.entries))
        assert next_step(found).sentence
        assert share_held(found)


def test_what_the_usual_approximations_miss_by_is_what_the_table_says():
    table = (Path(__file__).parents[2] / "docs/readings.md").read_text("utf-8").split("misses by |")[1]
    told = [float(m) for m in re.findall(r"\| (\d\.\d\d)° \|", table)]
    pads = [(0, 700), (0, -700), (-2400, 700), (-2400, -700)]
    cambers = lambda caster, steer, toe=0.0: steering_axis.camber_when_steered_deg(caster, 10, toe, -1, np.array(steer) + toe)  # noqa: E731
    rule = lambda caster, steer: steering_axis.shop_caster_deg(*cambers(caster, steer)[::-1]) - caster  # noqa: E731
    exact = lambda steer, camber, known=10: steering_axis.axis_from_sweep(steer, camber, steering_axis.Known(known, 1))[0] - 5  # noqa: E731
    across, along = (camber_of.floor_from_pads(pads, lie).up for lie in ([5, 0, 5, 0], [5, 5, 0, 0]))
    asin = lambda length, span: np.degrees(np.arcsin(length / span))  # noqa: E731
    found = [
        *(rule(c, [20.0, -20.0]) for c in (2, 5, 8)), rule(5, [18.0, -22.0]),
        *(exact([20.0, -20.0], cambers(5, [20.0, -20.0], toe)) for toe in (0.5, 1.0)), exact([15.0, -20.0], cambers(5, [15.0, -20.0]), 5),
        camber_of.camber_from_gravity_deg(-1.5, 1, across) + 1.5, steering_axis.from_gravity_deg(5, 10, 1, along)[0] - 5,
        np.degrees(np.arctan(5 / 2400)), asin(3, 330) - asin(3, 352), asin(10, 330) - asin(10, 352), np.degrees(0.5 / 352),
        np.degrees(10 / 380) - asin(10, 380),
    ]  # fmt: skip
    assert told == [round(abs(float(v)), 2) for v in found]


def test_a_wheel_read_half_a_turn_round_too_has_no_run_out_left():
    rough = Ways(hub_middle=0, span=0, run_out=1.0, floor=0)
    log, half = Log(of(rough)), 0.4
    log.read("LF", "camber", -1.5 + half, "digital")
    once = evaluate(fold(None, log.entries)).mark("LF.camber")
    log.read("LF", "camber", -1.5 - half, "digital", half_turn=True)
    both = evaluate(fold(None, log.entries)).mark("LF.camber")
    assert once.expanded > 0.2
    assert (both.value, both.odd) == (pytest.approx(-1.5), None)
    assert both.expanded < 0.01
    for c in ("LF", "LR"):
        log.read(c, "gap_hub", 60.0)
    for by, round_ in ((0.3, False), (-0.3, True)):
        log.read("LF", "gap_front", 61.0 + by, half_turn=round_)
        log.read("LF", "gap_back", 60.0 - by, half_turn=round_)
    toe = evaluate(fold(None, log.entries)).mark("LF.toe")
    opening = np.degrees(np.arctan2(20.0, 2400.0))  # the rear hubs stand 20 mm further in
    assert toe.value == pytest.approx(np.degrees(np.arcsin(1 / 381)) - opening, abs=1e-6)
    assert "LF run-out toe" not in {
        n for n, part in evaluate(fold(None, log.entries)).figures.figure("toe", "LF").measured.parts.items() if part
    }


def rim(runs_out, at, turns, more=()):
    """The camber of a wheel whose rim runs out by so much in all, worst at a turn, read at turns of it."""
    log = Log(of(Ways(hub_middle=0, span=0, run_out=2 * np.radians(abs(runs_out)) * 381, floor=0)))
    for turn in turns:
        value = -1.5 + runs_out / 2 * np.cos(np.radians(turn - at))
        round_ = {"half_turn": True} if turn == 180 else {"wheel_deg": float(turn)}
        log.read("LF", "camber", value, "digital", **round_)
    found = evaluate(fold(None, log.entries))
    return found, found.mark("LF.camber"), next(a for a in round_of(found) if (a.corner, a.quantity) == ("LF", "camber"))


@pytest.mark.parametrize("at", [0.0, 33.0, 120.0, 250.0])
@pytest.mark.parametrize(
    "turns", [(0, 180), (90, 270), (0, 90, 180), (0, 90, 270), (0, 120, 240), (10, 50, 130), (0, 90, 180, 270, 300)]
)
def test_run_out_falls_out_of_readings_at_any_turns_that_tell_it(turns, at):
    _, mark, ask = rim(0.6, at, turns)
    assert mark.value == pytest.approx(-1.5, abs=1e-6)
    assert mark.expanded < 1e-4
    if len(turns) > 2:  # two opposite tell as much of it as lies their way
        assert ask.runs_out == pytest.approx(0.6, abs=1e-6)
        assert "The rim runs out by 0.60° in all" in say_ask(ask, Units())[1]


@pytest.mark.parametrize(
    ("turns", "left"), [((0,), 1.0), ((180,), 1.0), ((0, 90), np.sqrt(0.5)), ((0, 120), 0.5), ((30, 90), np.cos(np.pi / 6))]
)
def test_what_the_turns_do_not_tell_of_a_rim_stays_in_its_doubt(turns, left):
    once, part = rim(0.6, 0.0, (0,))[1], rim(0.6, 0.0, turns)
    assert part[1].expanded == pytest.approx(left * once.expanded, rel=1e-3)
    assert part[2].runs_out is None


@pytest.mark.parametrize(("runs_out", "first", "kind"), [(0.05, 0.15, "because.close"), (0.5, 0.0, "because.first")])
def test_before_a_turn_or_a_plan_the_wheel_is_read_half_a_turn_round(runs_out, first, kind):
    of_one = replace(
        of(Ways(hub_middle=0, span=0, run_out=2 * np.radians(runs_out) * 381, floor=0)), aims=(Aim("LF.camber", -1.5, 0.2),)
    )
    log = Log(of_one)
    log.read("LF", "camber", -1.5 - first, "digital")
    found = evaluate(fold(None, log.entries))
    step = next_step(found)
    assert (step.kind, step.half, step.corner, step.quantity, step.reason.kind) == ("read", True, "LF", "camber", kind)
    assert "half a turn" in said(step.sentence)
    log.read("LF", "camber", -1.5, "digital", half_turn=True)
    assert next_step(evaluate(fold(None, log.entries))).kind == "done"


def test_what_was_read_half_a_turn_round_alone_is_read_as_it_stands():
    of_one = replace(
        of(Ways(hub_middle=0, span=0, run_out=np.radians(1.0) * 381, floor=0)), aims=(Aim("LF.camber", -1.5, 0.2),)
    )
    log = Log(of_one)
    log.read("LF", "camber", -1.5, "digital", half_turn=True)
    step = next_step(evaluate(fold(None, log.entries)))
    assert (step.kind, step.half, step.reason.kind) == ("read", False, "because.first")
    assert "half a turn" not in said(step.sentence)


def test_what_has_moved_a_little_since_is_read_as_it_stands_before_half_a_turn_round():
    practised = practice_plan(linked("heather"), "heather")
    ways = replace(practised.ways, run_out=np.radians(1.0) * 381, floor=0)
    log = Log(replace(practised, aims=(Aim("LF.camber", -1.8, 0.2),), ways=ways))
    log.read("LF", "camber", -1.8, "digital")
    assert next_step(evaluate(fold(None, log.entries))).half
    log.turn("LF.tie", 1 / 6)
    found = evaluate(fold(None, log.entries))
    assert found.mark("LF.camber").fresh
    step = next_step(found)
    assert (step.kind, step.half, step.quantity) == ("read", False, "camber")


@pytest.mark.parametrize(("beyond", "times"), [(1.3, 3), (1.7, 1)])
def test_what_is_hardly_out_is_read_three_times_before_a_plan_is_blamed(beyond, times):
    log = Log(replace(of(Ways(run_out=0, floor=0)), aims=(Aim("LF.camber", -1.5, 0.5),), adjusters=()))
    log.read("LF", "camber", -1.5, "digital")
    once = evaluate(fold(None, log.entries)).mark("LF.camber").expanded
    log = Log(log.entries[0].what.plan)
    steps = []
    for _ in range(4):
        log.read("LF", "camber", -1.5 - 0.5 - beyond * once, "digital")
        steps.append(next_step(evaluate(fold(None, log.entries))))
    assert [s.kind for s in steps].index("plan") + 1 == times
    assert {s.reason.kind for s in steps if s.kind == "read"} <= {"because.once-more"}


@pytest.mark.parametrize("wheel", [{"wheel_deg": 360.0}, {"wheel_deg": -1.0}, {"half_turn": True, "wheel_deg": 90.0}])
def test_a_turn_that_no_wheel_has_is_refused(wheel):
    with pytest.raises(CalledError, match="half a turn is said as that"):
        Reading("camber", "LF", -1.5, "digital", **wheel).check(of())


@pytest.mark.parametrize(
    ("ways", "tools", "quantity", "said_"),
    [
        (Ways(run_out=2.0, floor=0), FINE, "camber", "half a turn round"),
        (Ways(run_out=0, floor=9.0), FINE, "camber", "read the four pads"),
        (
            Ways(run_out=0, floor=0),
            (*FINE[:2], Tool("digital", "Gauge", "angle", 0.5, 0.2)),
            "camber",
            "the gauge at the place itself",
        ),
        (
            Ways(run_out=0, floor=0),
            (*FINE[:2], Tool("digital", "Gauge", "angle", 1e-3, 0.0, 0.3)),
            "camber",
            "the zero of the gauge",
        ),
        (Ways(run_out=0, floor=0, hub_middle=9.0, span=0), FINE, "toe", "own direction"),
        (Ways(run_out=0, floor=0, hub_middle=0, span=90.0), FINE, "toe", "the span over the rim"),
    ],
)
def test_what_a_doubt_is_mostly_made_of_is_named_with_what_would_lessen_it(ways, tools, quantity, said_):
    car = PracticeCar(dict.fromkeys(CORNERS, 1.5), dict.fromkeys(CORNERS, -1.5), left_string=(880.0, 0.2))
    log = Log(of(ways, (*tools, PLATE)))
    log.read("LF", "camber", -1.5, "digital")
    for c in ("LF", "LR"):
        log.string(c, car)
    found = evaluate(fold(None, log.entries)).mark(f"LF.{quantity}")
    assert said_ in in_mm(found.mostly)


@pytest.mark.parametrize("seed", range(4))
def test_toe_plates_give_the_total_of_an_axle_back_and_follow_what_is_turned(seed):
    """Two notches on each plate, level in the plane of its wheel; the tape from notch to notch, in three dimensions."""
    car, _, _ = drawn(seed)
    car.toe["RF"] = car.toe["LF"] + 0.2  # as the aims have them apart
    aims = tuple(Aim(m, v, 0.1) for m, v in (("LF.toe", 0.0), ("RF.toe", 0.2), ("front.total_toe", 0.3)))
    plates = replace(plan(tools=FINE, ways=Ways(run_out=0, span=0, plates=610.0, read_by={"total_toe": "plates"})), aims=aims)
    wide = replace(car, span=610.0)
    front, back = (np.linalg.norm(left - right) for left, right in zip(wide.edges("LF"), wide.edges("RF"), strict=True))
    log = Log(plates)
    asked = {a.quantity for a in round_of(evaluate(fold(None, log.entries))) if a.corner == "LF"}
    assert {"plates_front", "plates_back"} <= asked
    log.read("LF", "plates_front", front, "tape")
    assert evaluate(fold(None, log.entries)).mark("front.total_toe").value is None
    log.read("LF", "plates_back", back, "tape")
    found = evaluate(fold(None, log.entries))
    assert found.mark("front.total_toe").value == pytest.approx(car.toe["LF"] + car.toe["RF"], abs=1e-9)
    assert found.mark("LF.toe").value is None
    log.add(Turned("LF.shims", 1.0))
    assert evaluate(fold(None, log.entries)).mark("front.total_toe").state == "moved since"
    for c in ("LF", "RF", "LR", "RR"):  # read by strings as well: the two ways are joined, or said not to agree
        log.string(c, car)
    log.read("LF", "plates_front", front, "tape")
    log.read("LF", "plates_back", back + 40, "tape")
    apart = evaluate(fold(None, log.entries)).mark("front.total_toe")
    assert "are 3.7" in in_mm(apart.reason)
    assert "more than either can be off" in in_mm(apart.reason)


def test_plates_without_a_span_or_with_a_tape_that_cannot_be_are_refused():
    for at, said_ in (
        ((1500.0, 1400.0, 0.0), "Say in the plan"),
        ((5.0, 1500.0, 610.0, 0.0, 20.0), "Read both again"),
        ((500.0, 3000.0, 610.0), "Read both again"),
    ):
        with pytest.raises(MeasuredError) as refusal:
            string.total_toe_from_plates_deg(*at)
        assert said_ in in_mm(refusal.value.finding)
    assert string.total_toe_from_plates_deg(1490.0, 1500.0, 600.0, 0.0, 30.0) == pytest.approx(
        2 * np.degrees(np.arcsin(10.002 / 1200)), abs=1e-4
    )


@pytest.mark.parametrize("way", ["sweep", "bar", "plumb"])
def test_a_caster_that_no_reading_could_prove_is_said_before_anything_is_measured(way):
    fine = of(Ways(read_by={"caster": way}), SHOP)
    assert not [x for x in limits(fine) if x.mark.endswith("caster")]
    narrow = replace(fine, aims=tuple(replace(a, tolerance=0.02) if a.mark.endswith("caster") else a for a in fine.aims))
    told = {x.mark: x for x in limits(narrow)}
    assert {"LF.caster", "RF.caster"} <= set(told)
    assert 0.02 < told["LF.caster"].least < 0.5


@pytest.mark.parametrize("seed", range(4))
def test_strings_held_against_marks_of_the_frame_that_are_unlike_left_and_right_give_the_toes_back(seed):
    car, _, rng = drawn(seed)
    marks = {
        c: (float(rng.uniform(-500, -300) - (1500 if c[1] == "R" else 0)), SIDE[c] * float(rng.uniform(250, 420)))
        for c in CORNERS
    }
    by_marks = Ways("marks", hub_middle=0, span=0, run_out=0, mark_places=0, marks=marks)
    log = Log(of(by_marks))
    asked = {a.quantity for a in round_of(evaluate(fold(None, log.entries)))}
    assert "gap_mark" in asked
    assert "gap_hub" not in asked
    for c in CORNERS:
        log.string(c, car, hub=False)
        assert evaluate(fold(None, log.entries)).mark(f"{c}.toe").value is None
    for c in CORNERS:
        log.read(c, "gap_mark", car.gap(np.array([*marks[c], 300.0]), c[0] == "L"))
    found = evaluate(fold(None, log.entries))
    for c in CORNERS:
        assert found.mark(f"{c}.toe").value == pytest.approx(car.toe[c], abs=1e-9)
    unplaced = Log(of(replace(by_marks, marks={})))
    for c in CORNERS:
        unplaced.string(c, car, hub=False)
        unplaced.read(c, "gap_mark", 100.0)
    reason = evaluate(fold(None, unplaced.entries)).mark("LF.toe").reason
    assert in_mm(reason).endswith("say in the plan where the marks of the frame are")


def test_aims_that_contradict_each_other_are_said_with_what_they_come_to():
    toes = tuple(Aim(f"{c}.toe", 0.1, 0.05) for c in FRONT)
    fits = replace(plan(), aims=(*toes, Aim("front.total_toe", 0.35, 0.1)))
    assert not [w for w in wanting(fits) if "agrees with" in in_mm(w.what)]
    apart = replace(plan(), aims=(*toes, Aim("front.total_toe", 0.5, 0.1)))
    told = [in_mm(w.what) for w in wanting(apart)]
    assert "a front total toe that agrees with the aims it is made of: 0.50° in is wanted, and they come to 0.20° in" in told


def test_the_usual_constant_stands_beside_a_swept_caster_with_what_it_is_off_by():
    car, _, _ = drawn(3)
    log = Log(of())
    assert set_corner(evaluate(fold(None, log.entries)), "LF").rough is None
    swept(log, car, "LF", 18.0, 22.0)
    found = evaluate(fold(None, log.entries))
    rough = set_corner(found, "LF").rough
    off = rough.figure("caster").value - found.mark("LF.caster").value
    assert abs(off) == pytest.approx(rough.figure("off").value)
    assert in_mm(rough).startswith("1.5 times the change of camber, as is usual, would be ")
    assert set_corner(found, "LR").rough is None


def inside_line(car, log, way, rails, read=None):
    """Read all toes from inside: straight edges along rails (offset at the front axle line, heading to the left in degrees, by side), or hub bars from a line."""
    put = read or log.read
    for c in CORNERS:
        offset, degrees = rails[SIDE[c]]
        along = np.array([np.cos(np.radians(degrees)), np.sin(np.radians(degrees))])
        far = lambda p, offset=offset, along=along: abs((offset - p[1]) * along[0] + p[0] * along[1])  # noqa: E731
        if way == "rail":
            put(c, "rail", abs(offset + np.tan(np.radians(degrees)) * car.hub(c)[0]), "tape")
        reach = car.edges(c)[0] - car.hub(c)
        wide = 1.0 if way == "rail" else 900.0 / np.linalg.norm(2 * reach)
        for quantity, sign in (
            (("edge" if way == "rail" else "bar") + "_front", 1),
            (("edge" if way == "rail" else "bar") + "_back", -1),
        ):
            put(c, quantity, far(car.hub(c) + sign * wide * reach), "tape")


RAILS = {"rail": {1: (330.0, 1.1), -1: (-350.0, 0.7)}, "bars": {1: (3.0, 0.3), -1: (3.0, 0.3)}}
EXACT = Ways(hub_middle=0, span=0, run_out=0, floor=0, bar=900.0)


@pytest.mark.parametrize("way", ["rail", "bars"])
@pytest.mark.parametrize("seed", range(3))
def test_toes_read_from_inside_come_back_and_join_with_those_of_the_strings(way, seed):
    car, _, _ = drawn(seed)
    log = Log(of(replace(EXACT, read_by={"toe": way})))
    asked = {a.quantity for a in round_of(evaluate(fold(None, log.entries)))}
    assert ("rail" in asked) == (way == "rail")
    assert not asked & {"gap_hub", "gap_front"}
    inside_line(car, log, way, RAILS[way])
    found = evaluate(fold(None, log.entries))
    for c in CORNERS:
        assert found.mark(f"{c}.toe").value == pytest.approx(car.toe[c], abs=1e-9)  # deg
    for c in CORNERS:
        log.string(c, car)
    both = evaluate(fold(None, log.entries)).mark("LR.toe")
    assert both.value == pytest.approx(car.toe["LR"], abs=1e-9)
    assert both.expanded <= found.mark("LR.toe").expanded + 1e-12


def test_a_rail_that_was_never_proved_and_a_bar_without_its_span_may_not_serve():
    reason = lambda log: in_mm(evaluate(fold(None, log.entries)).mark("LF.toe").reason)  # noqa: E731
    log = Log(of(replace(EXACT, read_by={"toe": "rail"})))
    log.read("LF", "edge_front", 300.0)
    assert "still to read" in reason(log)
    log.read("LF", "edge_back", 303.0)
    assert "may not serve" in reason(log)
    log.read("LF", "rail", 330.0, "tape")
    assert "left rear" in reason(log)
    log.read("LR", "rail", 330.0, "tape")
    assert evaluate(fold(None, log.entries)).mark("LF.toe").value == pytest.approx(
        np.degrees(np.arcsin(3 / 381)), abs=1e-9
    )  # deg
    log.add(Happened("weld"))  # the rail is to be proved anew
    for quantity, gap in (("edge_front", 300.0), ("edge_back", 303.0)):
        log.read("LF", quantity, gap)
    assert "may not serve" in reason(log)
    for bar, words in ((None, "far the two marks"), (900.0, "right front, left rear, right rear")):
        log = Log(of(replace(EXACT, bar=bar, read_by={"toe": "bars"})))
        for quantity in ("bar_front", "bar_back"):
            log.read("LF", quantity, 600.0, "tape")
        assert words in reason(log)


@pytest.mark.parametrize("shelf", [(2.0,), (1.0, 2.5), (1.5, 2.0, 5.0), (0.5,)])
def test_a_stack_is_made_up_of_the_fewest_shims_that_lie_on_the_shelf(shelf):
    stack = Stack(0.5, 6, 30, shelf)
    sizes = [0.5, *shelf]
    for count in range(1, 25):
        made = stack.made_of(count)
        assert sum(made) == pytest.approx(count / 2, abs=1e-12)  # mm
        assert set(made) <= set(sizes)
        fewer = (sum(row) for n in range(1, len(made)) for row in combinations_with_replacement(sizes, n))
        assert not any(abs(total - count / 2) < 1e-9 for total in fewer)  # mm
    shims = replace(SHIMS, by=stack)
    told = lambda amount: in_mm(seen_of(shims, amount))  # noqa: E731
    assert told(-3) == "in all 1.5 mm, out of the stack"
    assert told(1) == "in all 0.5 mm: 0.5 mm"
    assert seen_of(replace(SHIMS, by=Stack(0.5, 6, 30)), 3) is None


@pytest.mark.parametrize(
    ("hands", "amount", "clockwise"),
    [
        (("right", "left"), 1.0, True),  # as a nut leaves a right-handed screw whose eye one looks from
        (("left", "right"), -1.0, False),
        (("right",), -1.0, True),  # as a screw goes in
        (("left",), -1.0, False),
        (("right", "right"), 1.0, None),
        (("right", "left"), 0.0, None),
    ],
)
def test_which_way_round_a_thread_is_turned(hands, amount, clockwise):
    ends = tuple(ThreadedEnd(12.0, pitch, 20.0, 20.0, hand) for hand, pitch in zip(hands, (1.75, 1.25), strict=False))
    assert Adjuster("a", "a", "LF", ends).clockwise(amount) is clockwise
