import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ready_corner.core.engines.alignment import camber, string
from ready_corner.core.model.heights import rake_deg
from ready_corner.core.plan.corners import SIDE
from ready_corner.core.quantities.errors import MeasuredError
from tests.core.practice import wheel_axis

from .practice import CORNERS, PracticeCar, turned_about

angles = st.floats(-3, 3)
four = st.tuples(angles, angles, angles, angles)


def test_toe_of_two_mm_over_a_rim_worked_by_hand():
    # 63.5 in front, 61.5 behind, 382 between: sin t = 2/382, t = 0.29998 deg, toe-in
    assert string.toe_against_string_deg(63.5, 61.5, 382.0) == pytest.approx(0.299979, abs=1e-6)  # deg
    assert string.toe_as_length(0.29997935, 382.0) == pytest.approx(2.0, abs=1e-6)  # mm


def test_thrust_worked_by_hand():
    assert string.thrust_deg(0.1, 0.3) == pytest.approx(0.1)  # the right wheel points further in: the pair points left
    assert string.steer_ahead_deg(-0.2, 0.2, 0.1) == pytest.approx(0.1)


def test_a_string_five_mm_further_out_in_front_worked_by_hand():
    # equal widths: asin(5/2500); front hubs 20 mm further out each side: atan(20/2500) more
    assert string.string_opening(55, 50, 2500, 700, 700).opening_deg == pytest.approx(np.degrees(np.arcsin(0.002)), abs=1e-12)
    assert string.string_opening(50, 50, 2500, 720, 700).opening_deg == pytest.approx(
        np.degrees(np.arctan2(20, 2500)), abs=1e-12
    )


@given(four, four, angles, angles)
def test_toes_come_back_through_strings_askew(toes, cambers, left, right):
    car = PracticeCar(
        dict(zip(CORNERS, toes, strict=True)),
        dict(zip(CORNERS, cambers, strict=True)),
        left_string=(1000, left),
        right_string=(-1000, right),
    )
    for corner in CORNERS:
        front, back, _ = car.gaps(corner)
        hubs = [car.gaps(corner[0] + end)[2] for end in "FR"]
        opening = string.string_opening(*hubs, car.wheelbase, *car.half).opening_deg
        toe = string.toe_against_string_deg(front, back, car.span) - opening
        assert toe == pytest.approx(car.toe[corner], abs=1e-9)  # deg; rounding alone


@given(four, st.floats(-2, 2))
def test_a_parallel_box_askew_is_found_from_four_hub_gaps(toes, yaw):
    # the box is turned by yaw to the left, both strings alike
    car = PracticeCar(
        dict(zip(CORNERS, toes, strict=True)), dict.fromkeys(CORNERS, 0.0), left_string=(1000, yaw), right_string=(-1000, yaw)
    )
    hubs = {c: car.gaps(c)[2] for c in CORNERS}
    psi = string.box_yaw_deg(hubs["LF"], hubs["RF"], hubs["LR"], hubs["RR"], car.wheelbase)
    found = {c: float(string.toe_against_string_deg(*car.gaps(c)[:2], car.span)) + SIDE[c] * psi for c in CORNERS}
    assert found == pytest.approx(car.toe, abs=1e-9)  # deg
    box = {c: float(string.toe_against_string_deg(*car.gaps(c)[:2], car.span)) for c in CORNERS}
    assert box["LF"] + box["RF"] == pytest.approx(car.toe["LF"] + car.toe["RF"], abs=1e-9)  # totals do not feel the yaw


def test_partial_derivatives_of_the_opening_agree_with_differences():
    at = np.array([61.0, 48.0, 2400.0, 712.0, 695.0])
    found = string.string_opening(*at)
    for index, slope in (
        (0, found.by_front_gap),
        (1, -found.by_front_gap),
        (3, found.by_front_half_width),
        (4, found.by_rear_half_width),
    ):
        step = np.zeros(5)
        step[index] = 0.01
        central = (string.string_opening(*(at + step)).opening_deg - string.string_opening(*(at - step)).opening_deg) / 0.02
        assert slope == pytest.approx(central, rel=1e-6)


@pytest.mark.parametrize(
    ("gaps", "word"),
    [((-1, 60, 380), "cut through"), ((10, 500, 380), "490.0 mm"), ((60, 60, 0), "nothing")],
)
def test_gaps_no_string_can_give_are_refused(gaps, word):
    with pytest.raises(string.StringError, match=word):
        string.toe_against_string_deg(*gaps)


def test_a_string_on_the_tread_is_refused_and_one_beside_it_is_not():
    string.require_clear_of_tyre(2.0, 0.5, 380, 600)
    with pytest.raises(string.StringError, match="cross the tyre") as refused:
        string.require_clear_of_tyre(2.0, 0.2, 380, 600)
    assert refused.value.numbers["clear"] == pytest.approx(1.1 - 0.9 * 600 / 380)


def test_hub_gaps_of_no_string_are_refused():
    with pytest.raises(string.StringError):
        string.string_opening(2500, 0, 2400, 700, 700)
    with pytest.raises(string.StringError):
        string.box_yaw_deg(0, 5000, 0, 0, 2400)


@given(four, four)
def test_the_wheel_axis_is_that_of_the_definition_and_gives_its_angles_back(toes, cambers):
    car = PracticeCar(dict(zip(CORNERS, toes, strict=True)), dict(zip(CORNERS, cambers, strict=True)))
    axes = wheel_axis(toes, cambers, [SIDE[c] for c in CORNERS])
    np.testing.assert_allclose(axes, [car.axis(c) for c in CORNERS], atol=1e-12)
    np.testing.assert_allclose(camber.camber_deg(5 * axes), cambers, atol=1e-12)  # any length of axis
    np.testing.assert_allclose(camber.toe_deg(axes), toes, atol=1e-12)


@given(four, four, st.floats(-4, 4), st.floats(-4, 4))
def test_camber_comes_back_from_a_floor_that_is_not_level(toes, cambers, along, across):
    car = PracticeCar(dict(zip(CORNERS, toes, strict=True)), dict(zip(CORNERS, cambers, strict=True)))
    world_from_car = turned_about("y", along) @ turned_about("x", across)
    up = world_from_car.T @ np.array([0.0, 0.0, 1.0])
    side = [SIDE[c] for c in CORNERS]
    shown = [car.gauge(c, up) for c in CORNERS]
    np.testing.assert_allclose(camber.camber_from_gravity_deg(shown, side, up, toes), cambers, atol=1e-9)


def test_the_floor_comes_from_four_pads():
    # 10 mm down over 2400 towards the nose, 5 mm up on the left over 1400: worked by hand to the first order
    places = [(0, 700), (0, -700), (-2400, 700), (-2400, -700)]
    floor = camber.floor_from_pads(places, [-5 + 2.5, -5 - 2.5, 5 + 2.5, 5 - 2.5])
    assert floor.slope_deg == pytest.approx((np.degrees(10 / 2400), np.degrees(5 / 1400)), abs=1e-4)
    np.testing.assert_allclose(floor.residual, 0, atol=1e-12)
    twisted = camber.floor_from_pads(places, [1, 0, 0, 0])  # one pad 1 mm high: a quarter of it is warp
    np.testing.assert_allclose(twisted.residual, [0.25, -0.25, -0.25, 0.25], atol=1e-12)
    with pytest.raises(MeasuredError, match="one line"):
        camber.floor_from_pads([(0, 0), (1, 1), (2, 2), (3, 3)], [0, 0, 0, 0])


def test_heights_worked_by_hand():
    assert rake_deg(110, 125, 2400) == pytest.approx(np.degrees(np.arctan(15 / 2400)))
