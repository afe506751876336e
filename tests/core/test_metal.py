"""The practice cars' own physics, against the engines that judge them, closed forms, and its own energy."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.judge.reach import reach
from ready_corner.core.model.bodies import bodies_by_name
from ready_corner.core.model.setting import setting
from ready_corner.core.model.springs_of_plan import springing
from ready_corner.core.plan.corners import CORNERS, END_OF, SIDE
from ready_corner.core.quantities.errors import CalledError
from ready_corner.core.simulation.car import LEVEL, Faults, HiddenCar
from ready_corner.core.simulation.cars import LAYOUTS, practice_plan
from ready_corner.core.simulation.metal import GRAVITY, Rest, _slopes, _turns, at_rest
from ready_corner.core.simulation.standing import Standing
from tests.core.linkage.cars import plan

QUIET = Faults(built=0, springs=0, pads=0, run_out=0, span=0, settled=0, sticks=0)


def drawn_car(name):
    of = practice_plan(plan(name), name)
    return of, Standing(of, np.random.default_rng(1), 0.0, 0.0)


def wheels(standing, turns):
    rest = standing.at(turns, LEVEL, LEVEL)
    found = [standing.wheel(rest, c) for c in CORNERS]
    camber = [-np.degrees(np.arcsin(n[2])) for _, n in found]
    toe = [np.degrees(np.arctan2(n[0], SIDE[c] * n[1])) for c, (_, n) in zip(CORNERS, found, strict=True)]
    out = [SIDE[c] * m[1] for c, (m, _) in zip(CORNERS, found, strict=True)]
    return np.array(camber), np.array(toe), np.array(out)


@pytest.mark.parametrize("name", LAYOUTS)
def test_two_codes_that_share_nothing_agree_on_what_a_link_does_to_its_wheel(name):
    of, standing = drawn_car(name)
    bodies, springs = bodies_by_name(of), springing(of)
    still, first = wheels(standing, {}), setting(of, bodies, springs, {})
    hubs = reach(of, springs, False).hubs
    for a in (a for a in of.adjusters if a.corner.startswith("L") and not a.raises):
        camber, toe, out = (now - was for now, was in zip(wheels(standing, {a.id: 2.0}), still, strict=True))
        then = setting(of, bodies, springs, {a.id: 2.0})
        i = CORNERS.index(a.corner)
        if bodies.get(END_OF[a.corner]) and bodies[END_OF[a.corner]].held_too_much:  # which link gives is told by neither
            worth = reach(of, springs, False).marks[f"{a.corner}.toe"]
            assert worth.u(a.id) > 0.5 * abs(worth.of(a.id))
            assert abs(toe[i] - 2 * worth.of(a.id)) <= 2 * 2 * worth.u(a.id)
            continue
        assert toe[i] == pytest.approx(
            then.angles["toe"][i] - first.angles["toe"][i], abs=5e-4
        )  # the body leans a little otherwise
        assert camber[i] == pytest.approx(then.angles["camber"][i] - first.angles["camber"][i], abs=0.01)
        line = [
            c for c in CORNERS if c[0] == "L"
        ]  # hubs of a side against each other: the body's own shift is none of the string's
        told = [2 * hubs[c].of(a.id) for c in line]
        assert out[0] - out[2] == pytest.approx(told[0] - told[1], abs=0.05)


@pytest.mark.parametrize("name", ["heather", "tern"])  # each on its own arms, and an axle on its rod across the car
def test_an_end_that_is_let_down_takes_its_hubs_along_as_the_metal_says(name):
    of, standing = drawn_car(name)
    still, hubs = wheels(standing, {})[2], reach(of, springing(of), False).hubs
    out = wheels(standing, {"LR.perch": -8.0, "RR.perch": -8.0})[2] - still
    for front, rear in (("LF", "LR"), ("RF", "RR")):
        told = -8 * sum(hubs[front].of(p) - hubs[rear].of(p) for p in ("LR.perch", "RR.perch"))
        assert out[CORNERS.index(front)] - out[CORNERS.index(rear)] == pytest.approx(told, rel=0.4)
        assert abs(told) > 0.2


@pytest.mark.parametrize("name", LAYOUTS)
def test_what_a_perch_raises_lies_within_what_is_said_of_it(name):
    """A rocker's ratio changes with travel: pitch / ratio is a sixth too much there, and said to be so sure."""
    of, standing = drawn_car(name)
    springs = springing(of)
    still, worth = standing.at({}, LEVEL, LEVEL), reach(of, springs, False).marks
    for c in CORNERS:
        then = standing.at({f"{c}.perch": 2.0}, LEVEL, LEVEL)
        own = worth[f"{c}.height"]
        assert (standing.height(then, c) - standing.height(still, c)) / 2 == pytest.approx(
            own.of(f"{c}.perch"), abs=1.6 * own.u(f"{c}.perch")
        )
    assert (springs.bends.max() > 0.1) == (name in ("heather", "five-link", "three-link-axle"))  # which have rockers


@pytest.mark.parametrize("name", LAYOUTS)
def test_a_car_as_drawn_rests_as_drawn_and_carries_its_weight(name):
    of, standing = drawn_car(name)
    rest = standing.at({}, LEVEL, LEVEL)
    assert [standing.height(rest, c) for c in CORNERS] == pytest.approx(
        [0.0] * 4, abs=0.15
    )  # bushes of a link too many give a little
    assert rest.pressed.sum() == pytest.approx(GRAVITY * (of.footing.mass or 650.0), rel=1e-9)


def test_its_slopes_are_those_of_its_energy():
    _, standing = drawn_car("heather")
    metal = standing._turned({"LF.camber": 3.0}, LEVEL)
    rng = np.random.default_rng(4)
    n = metal.parts
    at = Rest(standing._drawn.middle + rng.normal(0, 0.3, (n, 3)), _turns(rng.normal(0, 2e-3, (n, 3))) @ standing._drawn.turned)
    force, stiff, _ = _slopes(metal, at, LEVEL)
    for k in rng.integers(0, 6 * n, 25):
        ends = []
        for way in (1, -1):
            by = np.zeros((n, 6))
            by.flat[k] = way * 1e-6
            ends.append(_slopes(metal, Rest(at.middle + by[:, :3], _turns(by[:, 3:]) @ at.turned), LEVEL)[0])
        numeric = (ends[0] - ends[1]) / 2e-6
        both = (stiff[k] + stiff[:, k]) / 2
        assert np.abs(numeric - both).max() < 1e-3 * np.abs(stiff).max()
    assert np.isfinite(force).all()


def test_four_springs_over_four_wheels_give_as_springs_in_a_row_do():
    of, _ = drawn_car("heather")
    bare = replace(of, front_linkage=None, rear_linkage=None, points={}, adjusters=())
    standing = Standing(bare, np.random.default_rng(0), 0.0, 0.0)
    lifted = standing.at({}, np.full(4, 7.0), LEVEL)
    assert [standing.height(lifted, c) for c in CORNERS] == pytest.approx([7.0] * 4, abs=1e-6)  # the whole car on higher ground
    m = standing._metal
    held = standing.at(
        {}, LEVEL, np.array([4.0, 4.0, 4.0, 4.0])
    )  # every spring longer by so much: the body stands as much higher
    assert [standing.height(held, c) for c in CORNERS] == pytest.approx([4.0] * 4, abs=1e-6)
    heavier = replace(m, newtons=m.newtons * np.array([1.1, 1, 1, 1, 1]))
    sinks = -np.mean([standing.height(at_rest(heavier, standing._drawn, LEVEL), c) for c in CORNERS])
    row = 1 / (1 / m.rods.stiff + 1 / m.tyres.stiff)
    assert row.min() < 0.1 * m.newtons[0] / sinks / 4 < row.max()  # spring and tyre one after the other


def test_what_does_not_come_to_rest_is_refused():
    _, standing = drawn_car("heather")
    with pytest.raises(CalledError):  # it falls for ever
        at_rest(replace(standing._metal, newtons=-standing._metal.newtons), standing._drawn, LEVEL)


def test_a_hidden_car_set_rightly_has_all_its_marks_and_its_hubs_off_by_what_was_welded():
    of = practice_plan(plan("five-link"), "five-link")
    offs = []
    for seed in range(3):
        car = HiddenCar(of, seed)
        car.turned = {a: -off for a, off in car.handed_over.items()}
        assert all(abs(car.truth(a.mark) - a.aim) <= a.tolerance for a in of.aims)
        offs += [car.beside(c) for c in CORNERS]
    assert 0.4 < np.std(offs) < 3.0  # mm: pickups 1.5 mm off
    exact = HiddenCar(of, 1, replace(QUIET, camber=0, toe=0, caster=0, height=0))
    assert [exact.beside(c) for c in CORNERS[:2]] == pytest.approx([0.0] * 2, abs=0.2)
