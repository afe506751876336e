"""How a car stands against its plan, on the floor and on stands; what is provisional; and what is said of it."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.advise.accept import preview
from ready_corner.core.advise.lift import lift
from ready_corner.core.advise.next import floor_round, next_step, stand_round
from ready_corner.core.advise.standing import stance
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.model.movement import Movement
from ready_corner.core.model.ride_heights import arm_angles, feature_heights, heights_by_features, travel_at, wanted_attitude
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.quantities.errors import MeasuredError, UnusualError
from ready_corner.core.record.happenings import Happened
from ready_corner.core.record.jig_acts import Supported
from ready_corner.core.record.logbook import Entry, PlanRevised, check, fold
from ready_corner.core.record.readings import Reading
from ready_corner.core.record.stance_acts import StateSaid, TyreFitted
from ready_corner.core.say.judged import say_mark_value
from tests.core.linkage.cars import plan
from tests.words import said

TERN, HEATHER = plan("tern"), plan("heather")
AIMS = {c: TERN.aim(f"{c}.height").aim for c in CORNERS}
LOADS = {"LF": 189.0, "RF": 190.0, "LR": 155.0, "RR": 156.0}


def judged(*acts, of=TERN):
    return evaluate(fold(None, [Entry(str(n), n, what) for n, what in enumerate([PlanRevised(of), *acts], start=1)]))


def heights(values):
    return [Reading("height", c, h, "caliper") for c, h in values.items()]


def loads(values):
    return [Reading("load", c, v, "scales") for c, v in values.items()]


def standing(values, of=TERN, *acts):
    return stance(judged(Happened("settled"), *heights(values), *acts, of=of))


def by_height(of=TERN):
    return replace(of, footing=replace(of.footing, school="height"))


def test_a_car_at_its_heights_is_left_alone():
    found = standing(AIMS, by_height())
    assert found.floor.pitch_deg == pytest.approx(0, abs=1e-9)
    assert (said(found.says), found.perches) == (("It stands as planned.",), ())
    assert "leave the perches" in said(found.why_not)
    assert "put it on the scales" in said(standing(AIMS).why_not)  # cross weight is wanted too


def test_a_car_high_at_the_rear_is_wound_down_there_alone():
    found = standing({c: h + (14.0 if c.endswith("R") else 0.0) for c, h in AIMS.items()})
    assert found.floor.pitch_deg > 0
    assert "more nose down than planned" in said(found.says)[0]
    assert {p.corner for p in found.perches} == {"LR", "RR"}
    assert all(p.amount < 0 and said(p.said).startswith("Wind the") and " down " in said(p.said) for p in found.perches)
    assert all(abs(e - AIMS[c]) <= TERN.aim(f"{c}.height").tolerance for e, c in zip(found.expected, CORNERS, strict=True))


def test_heights_that_one_flat_chassis_cannot_have_are_said():
    assert "off one flat chassis" in said(standing({**AIMS, "RR": AIMS["RR"] + 12.0}).says)[1]


def test_what_is_wanting_is_said():
    assert "Read the ride height of the right rear first." in said(
        standing({c: h for c, h in AIMS.items() if c != "RR"}).why_not
    )
    high = {c: h + 20.0 for c, h in AIMS.items()}
    assert "Name a spring perch at every corner" in said(standing(high, replace(TERN, adjusters=())).why_not)
    assert "wanted ride height" in said(standing(AIMS, replace(TERN, aims=())).why_not)


def test_a_turned_perch_makes_loads_and_cross_weight_moved_since():
    from ready_corner.core.record.happenings import Turned

    all_read = [Happened("settled"), *heights(AIMS), *loads(LOADS)]
    assert say_mark_value(judged(*all_read).mark("car.cross_weight"), TERN.units) == "50.0 %"
    after = judged(*all_read, Turned("LR.perch", 1.0))
    assert after.mark("car.cross_weight").state == "moved since"
    assert stance(after).loads is None
    assert not after.mark("LF.load").fresh
    link = judged(*all_read, Turned("LF.tie-rod", 1.0))  # what a link does to the loads is nothing
    assert link.mark("car.cross_weight").state == "holds"


def test_scales_that_do_not_add_up_are_said():
    found = standing(AIMS, TERN, *loads({c: v - 12.0 for c, v in LOADS.items()}))
    assert "The scales add up to 1415.4 lb, but the car weighs 1521.2 lb" in said(found.load_says, TERN.units)[0]
    assert standing(AIMS, TERN, *loads(LOADS)).load_says == ()


@pytest.mark.parametrize(
    ("acts", "words"),
    [
        ([], "before the car had settled"),
        ([Happened("settled"), StateSaid("nobody")], "with neither driver nor ballast"),
        ([StateSaid("driver", missing=("engine", "bonnet")), Happened("settled")], "without engine and bonnet"),
        ([StateSaid("driver", at_pressure=False), Happened("settled")], "with tyres not at pressure"),
    ],
)
def test_an_unsettled_or_unfinished_car_is_provisional_and_says_why(acts, words):
    found = judged(*acts, *heights(AIMS))
    mark = found.mark("LF.height")
    assert (mark.state, mark.provisional) == ("too close to call", True)
    assert words in said(mark.reason)
    assert any(words in line for line in said(stance(found).provisional))


def test_a_bar_that_is_on_makes_heights_provisional_and_asks_to_be_taken_off_and_put_back():
    aims = {c: HEATHER.aim(f"{c}.height").aim for c in CORNERS}
    on = judged(Happened("settled"), *heights(aims), of=HEATHER)
    assert "with the anti-roll bar links on" in said(on.mark("LF.height").reason)
    assert any("Take the anti-roll bar links off" in n for n in said(stance(on).notes))
    off = judged(Happened("bar_off"), Happened("settled"), *heights(aims), of=HEATHER)
    assert off.mark("LF.height").state == "holds"
    assert any("back on without preload" in n for n in said(stance(off).notes))


def test_another_state_or_tyre_moves_what_was_read_and_the_first_word_of_it_nothing():
    read = [Happened("settled"), *heights(AIMS)]
    assert judged(*read, StateSaid("driver", "full")).mark("LF.height").state == "holds"
    for acts in (
        [StateSaid("driver", "full"), StateSaid("driver", "half")],
        [StateSaid("driver"), StateSaid("driver", at_pressure=False)],
        [TyreFitted(stand_in=True, corner="LF")],
    ):
        assert judged(*read, *acts).mark("LF.height").state == "moved since"
    # A tyre of unknown size at one corner lifts the others through the springs.
    assert judged(*read, TyreFitted(stand_in=True, corner="LF")).mark("RR.height").state == "moved since"


def test_a_stand_in_tyre_is_taken_out_of_the_heights():
    small, r = 12.0, TERN.front_linkage.loaded_radius
    fitted = [TyreFitted(stand_in=True), Happened("settled")]
    smaller = [
        Reading("radius", c, (r if c.endswith("F") else TERN.rear_linkage.loaded_radius) - small, "tape") for c in CORNERS
    ]
    sunk = heights({c: h - small for c, h in AIMS.items()})
    found = judged(*fitted, *smaller, *sunk)
    assert [found.mark(f"{c}.height").value for c in CORNERS] == pytest.approx(list(AIMS.values()), abs=1e-6)
    assert any("stand-in tyre whose loaded radius is not read" in w for w in said(stance(judged(*fitted, *sunk)).provisional))
    asked = floor_round(judged(*fitted, smaller[0]))
    assert [a.corner for a in asked if a.quantity == "radius" and a.wanted] == ["RF", "RR", "LR"]  # the left front was read
    # At the stop it has so much more room to the body.
    planned, standing_in = (stance(f).corners[0].strip for f in (judged(Happened("settled"), *heights(AIMS)), found))
    at = [next(k.travel for k in s.bump if k.name == "tyre to body") for s in (planned, standing_in)]
    assert at[1] - at[0] == pytest.approx(small)


def test_hubs_on_stands_that_lean_come_to_the_pitched_car():
    wanted = wanted_attitude(HEATHER)
    assert wanted.rake_deg((0, 0, 82.0), (-2280.0, 0, 82.0)) == pytest.approx(np.degrees(np.arcsin(8 / 2280)))
    stands = [Reading("stand", c, h, "tape") for c, h in zip(CORNERS, (352.0, 353.0, 361.0, 361.0), strict=True)]
    found = stance(judged(*stands, of=HEATHER))
    for hub in found.hubs:
        move = Movement(HEATHER, hub.corner)
        radius = HEATHER.linkage("front" if hub.corner.endswith("F") else "rear").loaded_radius
        assert found.stands.height_of(move.centre(hub.travel)) == pytest.approx(hub.wanted, abs=1e-6)
        assert wanted.height_of(move.centre(hub.travel)) == pytest.approx(radius, abs=1e-6)  # on its wheels it is there
    assert any("higher than the wheels can droop" in s for s in said(found.stand_says))
    low = stance(judged(*stands, Reading("hub", "LR", found.hubs[2].wanted - 6.0, "tape"), of=HEATHER)).hubs[2]
    assert low.ride == pytest.approx(6.0)
    again = stance(judged(*stands, Reading("hub", "LR", 500.0, "tape"), Reading("hub", "LR", low.wanted, "tape"), of=HEATHER))
    assert again.hubs[2].ride == pytest.approx(0.0, abs=1e-9)  # where it was left, not the mean on the way
    deep = stance(judged(*stands, Reading("hub", "LR", low.wanted - 70.0, "tape"), of=HEATHER))
    assert any("droops" in s and "short of so low a hub" in s for s in said(deep.stand_says))
    moved = judged(*stands, Supported("on blocks"), of=HEATHER)
    assert stance(moved).stands is None
    assert [a.quantity for a in stand_round(moved)] == ["stand"] * 4 + ["hub"] * 4
    assert stance(judged(of=replace(HEATHER, front_linkage=None, rear_linkage=None))).hubs == ()


def test_a_missing_loaded_radius_is_asked_for():
    stands = [Reading("stand", c, 350.0, "tape") for c in CORNERS]
    bare = replace(HEATHER, front_linkage=None, rear_linkage=None, adjusters=())
    assert "loaded radius of the tyre is missing" in said(stance(judged(*stands, of=bare)).stand_says)[-1]
    read = [Reading("radius", c, 270.0, "tape") for c in CORNERS]
    assert len(stance(judged(*stands, *read, of=bare)).hubs) == 4


def test_every_feature_follows_from_those_that_are_read_and_back():
    wanted = wanted_attitude(TERN)
    found = feature_heights(TERN, wanted, None)
    assert [f.master for f in found][:4] == [True] * 4
    said = {f.name: f.wanted for f in found if not f.master}
    back = heights_by_features(TERN, {n: h + 5.0 for n, h in said.items() if n.startswith("sill")})
    assert back == pytest.approx({c: h + 5.0 for c, h in AIMS.items()})
    two = {"sill, left front": said["sill, left front"], "sill, left rear": said["sill, left rear"]}
    assert heights_by_features(TERN, two) == pytest.approx(AIMS)  # on one side: without roll
    with pytest.raises(MeasuredError, match="two features"):
        heights_by_features(TERN, {"sill, left front": 240.0})


def test_an_arm_that_is_to_stand_level_says_the_ride_height():
    move = Movement(HEATHER, "LF")
    radius = HEATHER.front_linkage.loaded_radius
    level = heights_by_features(HEATHER, {"skid under the tail": 92.0}, {"LF": (move, radius, 0.0)})
    # The arm is level when the wheel has gone up by so much against the chassis: so much lower it stands, and the tail as it was.
    assert level["LF"] == pytest.approx(82.0 - move.level, abs=0.02 * abs(move.level))
    with pytest.raises(MeasuredError, match="never stands at"):
        heights_by_features(HEATHER, {}, {"LF": (move, radius, 80.0)})


def test_arms_and_travel_at_a_stance():
    move = Movement(HEATHER, "LF")
    t = travel_at(move, HEATHER.front_linkage.loaded_radius + 7.0, wanted_attitude(HEATHER))
    assert t - travel_at(move, HEATHER.front_linkage.loaded_radius, wanted_attitude(HEATHER)) == pytest.approx(
        7.0, abs=0.005
    )  # the wheel also moves sideways and aft
    assert arm_angles(move, move.level)["lower front leg"] == pytest.approx(0.0, abs=1e-9)


def test_previews_of_what_is_read_here_say_what_it_would_mean():
    read = judged(Happened("settled"), *heights(AIMS), *loads({c: v for c, v in LOADS.items() if c != "RR"}))
    load = preview(read, Reading("load", "RR", 156.0, "scales"))
    assert "cross weight would be 50.0 %" in said(load.means)
    assert load.state == "holds"
    stands = judged(*[Reading("stand", c, 350.0, "tape") for c in CORNERS], of=HEATHER)
    hub = preview(stands, Reading("hub", "LF", 530.0, "tape"))
    assert said(hub.large).endswith("up to go")
    assert "higher here than wanted" in said(hub.means)
    assert "level" in said(preview(stands, Reading("stand", "LF", 350.0, "tape")).means)
    assert "loaded radius" in said(preview(read, Reading("radius", "LF", 290.0, "tape")).means)


def test_what_is_to_go_counts_the_floor_as_the_height_does_and_of_the_figure_in_hand_alone():
    pads = [Reading("pad", c, h, "rule") for c, h in zip(CORNERS, (0.0, -3.0, 1.0, 2.0), strict=True)]
    before = judged(Happened("settled"), *pads, Reading("height", "RF", 70.0, "rule"), of=HEATHER)
    for figure in (60.0, 81.5):
        found = preview(before, Reading("height", "RF", figure, "rule"))
        alone = preview(judged(Happened("settled"), *pads, of=HEATHER), Reading("height", "RF", figure, "rule"))
        would = next(f for name, f in alone.means.figures if name == "would")
        value = dict(would.figures)["value"].value
        assert abs(value - figure) > 0.5  # the floor is no plane under the springs
        aim = HEATHER.aim("RF.height").aim
        assert said(found.large) == said(alone.large) == f"{abs(aim - value):.1f} mm {'up' if aim > value else 'down'} to go"


def test_what_scales_and_tapes_cannot_read_is_refused():
    state = judged().state
    with pytest.raises(MeasuredError, match="Nothing pulls the car down"):
        check(state, Reading("load", "LF", -3.0, "scales"))
    with pytest.raises(UnusualError, match="on no car"):
        check(state, Reading("load", "LF", 2000.0, "scales"))
    with pytest.raises(UnusualError, match="loaded tyre radius"):
        check(state, Reading("radius", "LF", 40.0, "tape"))


def test_perches_reckoned_for_all_four_come_in_the_lift_once_all_is_read():
    high = heights({c: h + (14.0 if c.endswith("R") else 0.0) for c, h in AIMS.items()})
    assert next_step(judged(Happened("settled"), *high)).quantity == "pad"  # of the floor nothing is known yet
    pads = [Reading("pad", c, 0.0, "rule") for c in CORNERS]
    assert next_step(judged(Happened("settled"), *high, *pads)).quantity == "camber"
    angles = [Reading("camber", c, HEATHER.aim(f"{c}.camber").aim, "digital") for c in CORNERS]
    gaps = [Reading(q, c, 90.0, "rule") for c in CORNERS for q in ("gap_front", "gap_back", "gap_hub")]
    found = judged(Happened("settled"), *high, *angles, *gaps)
    told = lift(found)
    wound = {t.of.id: t.amount for t in told.turns if t.of.kind == "perch"}
    assert next_step(found).quantity == "load"  # the scales come before the first perch, for cross weight is wanted too
    assert wound["LR.perch"] < 0
    assert wound["RR.perch"] < 0
    for mark in told.expected:
        if mark.mark.endswith("height"):
            assert abs(mark.value - AIMS[mark.mark[:2]]) < 2.0
    assert [a.quantity for a in floor_round(judged())] == ["pad"] * 4 + ["height"] * 4 + ["load"] * 4 + ["radius"] * 4
