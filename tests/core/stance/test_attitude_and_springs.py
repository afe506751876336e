"""Attitude, hubs on stands, springs, bars: worked by hand, turned round, and what cannot be."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ready_corner.core.engines.statics.attitude import Attitude, attitude_of, hub_on_stands, ride_from_hub
from ready_corner.core.engines.statics.bars import (
    RollBar,
    bar_rate_at_wheel,
    end_force,
    finest_step_deg,
    free_hang_deg,
    spline_steps,
    twist_deg,
)
from ready_corner.core.engines.statics.springs import (
    GRAVITY,
    Coil,
    Stack,
    damper_fit,
    frequency_hz,
    in_series,
    rate_for_frequency,
    rough_wheel_rate,
    settled,
    wheel_rate,
)  # fmt: skip
from ready_corner.core.quantities.errors import MeasuredError
from tests.words import said

PLACES = [(0.0, 230.0, 78.0), (0.0, -230.0, 78.0), (-2280.0, 220.0, 86.0), (-2280.0, -220.0, 86.0)]


@given(st.floats(-8, 8), st.floats(-8, 8), st.floats(-200, 400))
def test_an_attitude_is_found_again_from_its_heights(pitch, roll, height):
    truth = Attitude(pitch, roll, height)
    found = attitude_of(PLACES, [truth.height_of(p) for p in PLACES])
    assert (found.pitch_deg, found.roll_deg, found.height) == pytest.approx((pitch, roll, height), abs=1e-8)


def test_rake_and_the_height_of_any_other_point():
    nose_down = Attitude(0.5, 0.0, 10.0)
    assert nose_down.rake_deg(PLACES[0], (-2280.0, 230.0, 78.0)) == pytest.approx(0.5)
    assert nose_down.height_of((1000.0, 0, 0)) == pytest.approx(10 - 1000 * math.sin(math.radians(0.5)))
    assert Attitude(0, 1.0, 0).height_of((0, 500.0, 0)) == pytest.approx(500 * math.sin(math.radians(1)))  # left side up
    odd = attitude_of(PLACES, [78, 78, 86, 90])
    assert max(abs(v) for v in odd.left) == pytest.approx(1.0, abs=0.06)  # the fourth is 4 off, shared by four


@pytest.mark.parametrize(
    ("places", "heights", "words"),
    [
        (PLACES[:2], (1, 2), "2 heights"),
        ([(0, 0, 0), (1, 0, 0), (2, 0, 0)], (1, 2, 3), "on one line"),
        (PLACES[:3], (0, 450, 0), "No chassis leans"),
    ],
)
def test_heights_that_tell_nothing_are_said(places, heights, words):
    with pytest.raises(MeasuredError, match=words):
        attitude_of(places, heights)


def test_a_hub_set_low_gives_a_high_car_by_the_plain_sum_and_pitched():
    wanted, stands = Attitude(0, 0, 0.0), Attitude(0, 0, 260.0)  # underside 78 on its wheels, 338 on the stands
    hub = hub_on_stands((0.0, 670.0), 270.0, wanted, stands)
    assert hub == pytest.approx(270 - 78 + 338)
    assert ride_from_hub((0.0, 670.0), hub - 6.0, 270.0, stands, wanted) == pytest.approx(6.0)
    raked, tilted = Attitude(0.4, 0, -3.0), Attitude(-0.2, 0.3, 255.0)
    rear = hub_on_stands((-2280.0, -670.0), 282.0, raked, tilted)
    z = (282.0 + 3.0 - raked.up[0] * -2280.0 - raked.up[1] * -670.0) / raked.up[2]
    assert raked.height_of((-2280.0, -670.0, z)) == pytest.approx(282.0)
    assert rear == pytest.approx(tilted.height_of((-2280.0, -670.0, z)))
    with pytest.raises(MeasuredError, match="loaded radius"):
        hub_on_stands((0, 0), 0.0, wanted, stands)


def test_springs_in_series_with_a_helper_that_binds():
    stack = Stack((Coil(40.0, 200.0, 90.0), Coil(10.0, 60.0, 20.0)))
    assert stack.rate(10.0) == pytest.approx(8.0)
    assert stack.changes[0] == pytest.approx((400.0, 50.0))  # 10 N/mm over 40 mm, the main spring 10 mm by then
    assert stack.rate(60.0) == pytest.approx(40.0)
    assert stack.force(60.0) == pytest.approx(800.0)
    assert stack.compression(stack.force(73.0)) == pytest.approx(73.0)
    with pytest.raises(MeasuredError, match=r"coils touch at 110\.0"):
        stack.force(151.0)
    assert math.isinf(stack.rate(150.0))


def test_preload_changes_the_height_and_never_the_rate():
    one = Stack((Coil(50.0, 250.0, 100.0),))
    a = settled(one, 2500.0)
    assert (a.length, a.rate, a.bump, a.droop) == (200.0, 50.0, 100.0, 50.0)
    for wrong in (-1.0, 7600.0):
        with pytest.raises(MeasuredError):
            settled(one, wrong)


def test_wheel_rate_is_the_square_of_the_ratio_by_virtual_work_and_the_rough_one_is_off():
    rate, ratio, h = 60.0, 0.7, 1e-4
    work = [0.5 * rate * (ratio * z) ** 2 for z in (-h, 0, h)]
    assert wheel_rate(rate, ratio) == pytest.approx((work[0] - 2 * work[1] + work[2]) / h**2, rel=1e-6)
    assert wheel_rate(rate, ratio, 3000.0, -0.001) == pytest.approx(60 * 0.49 - 3.0)
    assert rough_wheel_rate(rate, ratio, 30.0) == pytest.approx(
        0.75 * wheel_rate(rate, ratio)
    )  # the lean counted on top of a lever that is the true ratio
    assert frequency_hz(wheel_rate(rate_for_frequency(1.8, 140.0, ratio), ratio), 140.0) == pytest.approx(1.8)
    assert in_series(20.0, 200.0) == pytest.approx(20 * 200 / 220)


def test_a_damper_that_is_the_stop_is_said():
    assert said(damper_fit(300.0, 420.0, 320.0, 410.0).said) == "room at both ends"
    assert "bottoms before full bump" in said(damper_fit(300.0, 420.0, 296.0, 410.0).said)
    assert "stop in droop" in said(damper_fit(300.0, 420.0, 320.0, 425.0).said)
    assert "little room opening" in said(damper_fit(300.0, 420.0, 320.0, 418.0).said)
    with pytest.raises(MeasuredError, match="exchanged"):
        damper_fit(420.0, 300.0, 320.0, 410.0)


def test_a_bar_is_twisted_by_both_its_ends():
    assert twist_deg(30.0, -30.0, 200.0) == pytest.approx(2 * math.degrees(math.asin(0.15)))
    assert twist_deg(30.0, 30.0, 200.0) == 0.0
    bar = RollBar(19.0, 900.0, 200.0)
    near = end_force(bar, 0.01, -0.01) / 0.02
    assert near == pytest.approx(bar.end_rate, rel=1e-6)
    assert bar.moment_per_rad == pytest.approx(79_300 * math.pi * 19**4 / 32 / 900)
    soft = RollBar(19.0, 900.0, 200.0, arm_width=8.0, arm_height=25.0)
    twist, bend = bar.end_rate, 3 * 206_000 * 8 * 25**3 / 12 / 200**3
    assert soft.end_rate == pytest.approx(1 / (1 / twist + 2 / bend))
    assert bar_rate_at_wheel(bar.end_rate, 0.6) == pytest.approx(0.36 * bar.end_rate)
    for wrong in (lambda: twist_deg(201.0, 0, 200.0), lambda: RollBar(0, 1, 1), lambda: bar_rate_at_wheel(1.0, 0.0)):
        with pytest.raises(MeasuredError):
            wrong()


def test_splines_step_finely_when_both_ends_are_shifted():
    assert finest_step_deg(40, 44) == pytest.approx(360 / 440)
    found = spline_steps(0.8, 40, 44)
    assert abs(found.left_deg) <= 360 / 440 / 2
    assert found.inner * 9 + found.outer * 360 / 44 == pytest.approx(found.angle_deg)
    plain = spline_steps(9.0, 40, 44)
    assert (plain.inner, plain.outer, plain.left_deg) == pytest.approx((1, 0, 0.0))
    with pytest.raises(MeasuredError):
        spline_steps(1.0, 0, 44)


def test_an_arm_hangs_free_where_its_load_brings_it_to_its_angle():
    hang = free_hang_deg(4.0, 3200.0, 380.0, 38.0)
    assert hang == pytest.approx(4 + 3200 * 0.380 * math.cos(math.radians(4)) / 38)
    assert np.isfinite(hang)
    with pytest.raises(MeasuredError):
        free_hang_deg(4.0, 100.0, 380.0, 0.0)
    assert GRAVITY == 9.80665
