"""A car on four springs: energy, symmetry, round trips, cross weight, and what no perch can reach."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.optimize import minimize

from ready_corner.core.engines.statics.springs import GRAVITY
from ready_corner.core.model.four_springs import Asked, Car, CornerSpring, effects, energy, kept_heights, perch_turns, stand
from ready_corner.core.quantities.errors import MeasuredError
from tests.words import said

EVEN = tuple(
    CornerSpring(x, y, 22.0, 0.8, 150.0, 285.0, 210.0, 28.0)
    for x, y in ((0.0, 650.0), (0.0, -650.0), (-2300.0, 650.0), (-2300.0, -650.0))
)
CAR = Car(EVEN, 520.0, (-1150.0, 0.0))
ODD = Car(
    tuple(
        replace(c, rate=c.rate + 2 * i, free=c.free + (3, -2, 5, 1)[i], floor=(0, 2.5, -1, 4)[i], ratio=0.75 + 0.03 * i)
        for i, c in enumerate(EVEN)
    ),
    560.0,
    (-1240.0, 35.0),
    6.0,
    2.5,
)


def test_a_symmetric_car_stands_symmetric_and_by_hand():
    found = stand(CAR)
    corner = 520 * GRAVITY / 4
    np.testing.assert_allclose(found.loads, corner + 28 * GRAVITY)
    hub = 285 - (corner + 28 * GRAVITY) / 210
    np.testing.assert_allclose(found.heights, hub + 150 - corner / 22)
    assert (found.cross, found.left, found.rear) == pytest.approx((0.5, 0.5, 0.5))


def test_weight_and_moments_balance_and_the_energy_is_least():
    found = stand(ODD, (1.0, -0.5, 0.0, 2.0))
    sprung = found.loads - 28 * GRAVITY
    assert sprung.sum() == pytest.approx(560 * GRAVITY)
    assert sprung @ [c.x for c in ODD.corners] == pytest.approx(560 * GRAVITY * -1240)
    assert sprung @ [c.y for c in ODD.corners] == pytest.approx(560 * GRAVITY * 35)

    def of(v):  # mm and mm at a lever of a metre
        return energy(ODD, (v[0], v[1] / 1000, v[2] / 1000), v[3:], (1.0, -0.5, 0.0, 2.0))

    least = minimize(of, [400.0, 0, 0, 280, 280, 280, 280], method="BFGS", options={"gtol": 1e-7, "maxiter": 4000}).x
    z = (
        least[0]
        + np.array([c.x for c in ODD.corners]) * least[1] / 1000
        + np.array([c.y for c in ODD.corners]) * least[2] / 1000
    )
    np.testing.assert_allclose(found.heights, z, atol=1e-3)


def test_all_four_perches_by_the_same_rise_leave_the_cross_weight():
    turns = [1.5 * c.ratio / c.pitch for c in ODD.corners]
    before, after = stand(ODD), stand(ODD, turns)
    np.testing.assert_allclose(after.loads, before.loads, atol=1e-6)
    np.testing.assert_allclose(after.heights - before.heights, 1.5, atol=1e-9)


def test_a_perch_turned_raises_its_corner_and_loads_its_diagonal():
    by = effects(CAR)
    assert by[0, 0] > 0
    assert by[0, 4] < 0  # LF up takes from RF and LR
    assert by[1, 4] == pytest.approx(-by[0, 4])
    stiff = replace(CAR, corners=tuple(replace(c, tyre=1e7) for c in CAR.corners))
    # One of four equal springs: a quarter of heave, a quarter each of pitch and roll.
    assert effects(stiff)[0, :4] == pytest.approx([2.5 * 3 / 4, 2.5 / 4, 2.5 / 4, -2.5 / 4], abs=1e-3)


def test_from_known_perches_to_heights_and_loads_and_back():
    turned = np.array([1.0, -4 / 6, 2.0, 3 / 6])
    there = stand(ODD, turned)
    found = perch_turns(ODD, Asked(tuple(there.heights), 0.05, there.cross, 1e-4))
    assert found.met
    np.testing.assert_allclose(found.turns, turned, atol=1e-9)


def test_the_fewest_corners_are_touched_and_whole_flats_are_turned():
    one = stand(ODD, (0.0, 0.0, 1.5, 0.0))
    found = perch_turns(ODD, Asked(tuple(one.heights), 0.4))
    assert np.count_nonzero(found.turns) == 1
    assert found.met
    assert all(abs(t * 6 - round(t * 6)) < 1e-9 for t in found.turns)
    assert perch_turns(ODD, Asked(tuple(stand(ODD).heights), 0.4)).turns == (0, 0, 0, 0)


def test_cross_weight_at_kept_heights():
    found = perch_turns(ODD, Asked(tuple(stand(ODD).heights), 1.0, stand(ODD).cross + 0.01, 0.002))
    assert found.met
    assert abs(found.standing.cross - stand(ODD).cross - 0.01) <= 0.002
    assert np.abs(found.standing.heights - stand(ODD).heights).max() <= 1.0


def test_what_no_perch_can_reach_says_how_near_it_comes():
    short = replace(CAR, corners=tuple(replace(c, low=-0.5, high=0.5) for c in CAR.corners))
    found = perch_turns(short, Asked(tuple(stand(short).heights), 2.0, 0.56, 0.005))
    assert not found.met
    assert "thread of the" in said(found.short)
    assert f"cross weight comes to {found.standing.cross * 100:.1f} %" in said(found.short)
    assert 0.5 < found.standing.cross < 0.56
    bent = stand(CAR).heights + np.array([10.0, 0, 0, 0])
    assert "a rigid chassis cannot stand so" in said(perch_turns(CAR, Asked(tuple(bent), 1.0)).short).lower()


def test_a_slack_spring_lets_go_and_the_rest_carry():
    found = stand(replace(CAR, cg=(-1000.0, 60.0)), (0.0, 0.0, 0.0, -120.0))  # else it would balance on one diagonal
    assert found.lifted == (False, False, False, True)
    assert found.loads[3] == pytest.approx(28 * GRAVITY)
    assert found.loads.sum() == pytest.approx((520 + 4 * 28) * GRAVITY)


@pytest.mark.parametrize(("change", "words"), [({"rate": 0.0}, "has no rate"), ({"radius": 0.0}, "no radius")])
def test_a_corner_that_cannot_be_is_said(change, words):
    with pytest.raises(MeasuredError, match=words):
        replace(CAR, corners=(replace(EVEN[0], **change), *EVEN[1:]))
    with pytest.raises(MeasuredError, match="stands on nothing"):
        replace(CAR, mass=0.0)


def test_by_weight_all_four_perches_keep_the_heights_and_no_flats_do_it_better():
    begun = stand(ODD)
    found = perch_turns(ODD, Asked(None, cross=begun.cross + 0.012, cross_tolerance=0.002))
    assert found.met
    assert all(found.turns)
    moved = np.abs(found.standing.heights - begun.heights)
    assert moved.max() < 0.3
    by = effects(ODD)
    flats = np.array(list(np.ndindex(*[5] * 4))) - 2
    others = (np.round(np.array(found.turns) * 6) + flats) / 6
    reached = np.abs(begun.cross + others @ by[:, 4] - (begun.cross + 0.012)) <= 0.002
    least = ((others[reached] @ by[:, :4]) ** 2).sum(axis=1).min()
    assert ((np.array(found.turns) @ by[:, :4]) ** 2).sum() <= least + 1e-6


def test_a_bar_acts_on_the_travel_of_the_wheels_and_lessens_what_a_perch_does():
    from ready_corner.core.model.springs_of_plan import car_of, places, response, springing
    from tests.core.linkage.cars import plan

    of = plan("heather")
    for bars, heights, cross in ((False, (3.55, 1.25, 1.16, -1.16), 49.22), (True, (2.85, 1.95, 0.46, -0.46), 49.69)):
        car = car_of(of, bars_on=bars)
        before, after = stand(car), stand(car, (2.0, 0.0, 0.0, 0.0))
        # Worked by an independent solution of the four springs, to the digits it was given in.
        assert after.heights - before.heights == pytest.approx(heights, abs=0.01)
        assert 100 * after.cross == pytest.approx(cross, abs=0.01)
        springs = springing(of)
        does = response(places(of), springs.supports(bars), springs.lifts(bars))
        turned = does.heights[:, 0] * 2 * car.by_turn[0, 0]
        assert after.heights - before.heights == pytest.approx(turned, abs=1e-6)  # mm; two derivations
        assert effects(car)[0, :4] * 2 == pytest.approx(turned, abs=1e-6)


def test_cross_weight_near_the_end_of_a_thread_is_reached_by_the_others():
    heights, cross = np.eye(4) * 1.5 + 0.2, np.array([-4.0, 4.0, 4.0, -4.0])  # mm, and tolerances of cross weight, a turn
    wide = np.full(4, -10.0), np.full(4, 10.0)
    near = np.array([-0.1, -10, -10, -10]), np.array([10, 10, 10, 10.0])
    for low, high in (wide, near):
        turns = kept_heights(low, high, heights, cross, -24.0)
        assert np.all((turns >= low - 1e-9) & (turns <= high + 1e-9))
        assert abs(-24.0 + cross @ turns) <= 1.0 + 1e-9
    # Where nothing reaches it, every perch that helps stands at its end.
    turns = kept_heights(np.full(4, -0.5), np.full(4, 0.5), heights, cross, -24.0)
    assert np.abs(turns) == pytest.approx([0.5] * 4)
