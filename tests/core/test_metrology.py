import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.quantities.measured import Measured, combine, propagate
from ready_corner.core.quantities.tools import Tool, default_tools, odd_repeat
from ready_corner.core.quantities.verdict import Aim, ReadWith, can_hold, chance_to_hold, judge, what_settles

GAUGE = Tool("g", "Gauge", "angle", 0.1, 0.06, 0.02)


def test_uncertainty_of_one_and_of_four_repeats_worked_by_hand():
    step = 0.1 / math.sqrt(12)
    one, four = GAUGE.estimate([1.0], "LF"), GAUGE.estimate([1.0, 1.05, 0.95, 1.0], "LF")
    assert one.u == pytest.approx(math.sqrt(step**2 + 0.06**2 + 0.02**2))
    seen = (8 * (0.06**2 + step**2) + 0.005) / 11  # the tool's figure counts as eight repeats, these four as three
    assert four.u == pytest.approx(math.sqrt(step**2 + (seen - step**2) / 4 + 0.02**2))  # repeats average the scatter alone
    assert one.expanded == 2 * one.u


def test_two_repeats_a_step_apart_make_nothing_worse_and_many_that_scatter_are_heard():
    one, two = GAUGE.estimate([1.0], "a"), GAUGE.estimate([1.0, 1.1], "a")
    assert two.u < one.u
    drawn = np.random.default_rng(4).normal(0, 0.5, 400)
    assert GAUGE.estimate(drawn, "a").parts["a scatter"] == pytest.approx(np.std(drawn, ddof=1) / 20, rel=0.02)


def test_a_zero_shared_by_two_readings_cancels_in_their_difference():
    a, b = GAUGE.estimate([1.0], "a"), GAUGE.estimate([2.0], "b")
    free = math.hypot(0.1 / math.sqrt(12), 0.06)
    assert combine([a, b], [1, -1]).u == pytest.approx(free * math.sqrt(2))
    assert a.covariance(b) == pytest.approx(0.02**2)


def test_propagation_agrees_with_drawn_samples():
    rng = np.random.default_rng(7)
    x, y = Measured(60.0, {"x": 0.3, "zero": 0.2}), Measured(58.0, {"y": 0.25, "zero": 0.2})
    zero, ex, ey = rng.normal(0, 1, (3, 200_000))
    drawn = np.degrees(np.arcsin(((60 + 0.3 * ex + 0.2 * zero) - (58 + 0.25 * ey + 0.2 * zero)) / 381))
    slope = math.degrees(1 / (381 * math.sqrt(1 - (2 / 381) ** 2)))
    assert propagate(0, [x, y], [slope, -slope]).u == pytest.approx(
        np.std(drawn), rel=0.01
    )  # 1 %: five standard errors of 2e5 draws


@given(st.floats(-2, 2), st.floats(0.01, 1), st.floats(0.001, 2))
def test_the_guard_band_has_equality_in_the_outer_verdicts(aim, tolerance, expanded):
    assume(abs(expanded - tolerance) > 1e-6)  # closer, equality is a matter of rounding
    u = {"s": expanded / 2}
    assert judge(Measured(aim + tolerance + expanded, u), Aim("LF.toe", aim, tolerance)).verdict == "out"
    assert judge(Measured(aim - tolerance - expanded, u), Aim("LF.toe", aim, tolerance)).verdict == "out"
    inside = judge(Measured(aim + max(tolerance - expanded, 0), u), Aim("LF.toe", aim, tolerance)).verdict
    assert inside == ("holds" if expanded <= tolerance else "too close to call" if expanded > 0 else "out")
    if expanded > tolerance:
        assert not can_hold(expanded, Aim("LF.toe", aim, tolerance))


@pytest.mark.parametrize("tolerance", [0.0, -0.1, math.nan, math.inf])
def test_an_aim_without_a_tolerance_is_refused(tolerance):
    with pytest.raises(PlannedError) as refused:
        Aim("LF.toe", 0.1, tolerance)
    assert refused.value.path == "aims.LF.toe.tolerance"


@pytest.mark.parametrize(("field", "value"), [("step", 0.0), ("step", math.nan), ("repeatability", -1.0), ("zero", math.inf)])
def test_a_tool_that_cannot_be_is_refused(field, value):
    facts = {"step": 0.1, "repeatability": 0.1, "zero": 0.0, field: value}
    with pytest.raises(PlannedError) as refused:
        Tool("t", "T", "angle", **facts)
    assert refused.value.path == f"tools.t.{field}"


@pytest.mark.parametrize("value", [0.1, 0.17, 0.24, 0.3])
def test_what_would_settle_it_does_so_as_often_as_is_said(value):
    coarse, fine = Tool("c", "Coarse", "angle", 0.02, 0.1), Tool("f", "Fine", "angle", 0.01, 0.01)
    aim, rng = Aim("LF.camber", 0.0, 0.3), np.random.default_rng(9)
    for others in ((coarse,), (coarse, fine)):
        figure = coarse.estimate([value], "a")
        found = what_settles(figure, aim, [ReadWith(coarse, 1)], others, 1.0)
        if not found.chance:
            continue
        settled = 0
        for _ in range(2000):
            truth = value + rng.normal(0, figure.u)
            if found.repeats:
                more = [truth + rng.normal(0, 0.1) for _ in range(found.repeats - 1)]
                again = Measured(np.mean([value, *more]), coarse.estimate([0.0] * found.repeats, "a").parts)
            else:
                again = fine.estimate([truth + rng.normal(0, 0.01)], "a")
            settled += judge(again, aim).verdict != "too close to call"
        assert settled / 2000 == pytest.approx(found.chance, abs=0.06)  # the step is drawn as if it were scatter
    assert (found.tool == "Fine") == (value > 0.2)


def test_where_even_a_figure_on_its_aim_would_not_be_read_as_holding_no_turn_is_worth_its_while():
    assert chance_to_hold(0.1, Aim("LF.toe", 0.0, 0.1)) == 0.0
    assert chance_to_hold(0.05, Aim("LF.toe", 0.0, 0.1)) == pytest.approx(math.erf(2 / math.sqrt(2)))
    assert chance_to_hold(0.0, Aim("LF.toe", 0.0, 0.1)) == 1.0


def test_the_repeat_that_disagrees_is_pointed_at():
    rule = Tool("r", "Rule", "length", 0.5, 0.2)
    assert odd_repeat([61.0, 61.5, 61.0, 86.5], rule) == 3
    assert odd_repeat([61.0, 86.4], rule) == 1
    assert odd_repeat([61.0, 61.5, 61.0], rule) is None
    assert odd_repeat([61.0], rule) is None


def test_every_new_car_begins_with_tools_for_every_kind():
    for inches in (True, False):
        assert {t.measures for t in default_tools(inches)} == {"length", "angle", "mass", "steer"}
