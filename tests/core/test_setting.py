import numpy as np
import pytest

from ready_corner.core.engines.learning import Observations, WorthOfTurns, contradicted, learn
from ready_corner.core.engines.turns import AlikeError, Lever, Wanted, solve

FREE = [Lever("a", -50, 50), Lever("b", -50, 50)]


def wanted(camber, toe, u=0.0):
    return [Wanted("LR.camber", camber, 0.2, u), Wanted("LR.toe", toe, 0.1, u)]


def known(**worths):
    """What was known before: worth and u by adjuster."""
    u2 = np.diag([u**2 for _, u in worths.values()])
    return WorthOfTurns(tuple(worths), tuple(w for w, _ in worths.values()), tuple(map(tuple, u2.tolist())))


def learned(rows, before=None):
    """What rows of (value, u, stretch, turns by adjuster) teach."""
    names = tuple(rows[0][3]) if rows else ()
    value, u, stretch, turned = ([r[i] for r in rows] for i in range(4))
    table = np.array([[t[n] for n in names] for t in turned], dtype=float)
    seen = Observations(names, table, np.array(value), np.array(u), np.array(stretch), np.arange(len(rows)))
    return learn(seen, before) if before else learn(seen)


def none(n, marks=2):
    return [np.zeros((n, n))] * marks


def test_worths_come_back_exactly_from_readings_without_noise():
    rng = np.random.default_rng(1)
    truth = {"a": 0.31, "b": -0.12, "c": 0.05}
    levels, turned, rows = [2.0, -1.0], dict.fromkeys(truth, 0.0), []
    for step in range(8):
        stretch = step // 4
        rows.append((levels[stretch] + sum(truth[k] * turned[k] for k in truth), 0.01, stretch, dict(turned)))
        turned = {k: v + rng.integers(-6, 7) / 6 for k, v in turned.items()}
    found = learned(rows)
    assert dict(zip(found.adjusters, found.per_turn, strict=True)) == pytest.approx(truth, abs=1e-12)
    assert learned(rows[::-1]).per_turn == pytest.approx(found.per_turn, abs=1e-12)


def test_one_trial_worked_by_hand():
    found = learned([(-1.0, 0.03, 0, {"a": 0.0}), (-1.4, 0.04, 0, {"a": 2.0})])
    assert found.of("a") == pytest.approx(-0.2)
    assert found.u("a") == pytest.approx(0.05 / 2)  # both readings, over two turns


def test_what_the_plan_knows_and_one_trial_combine_by_weight():
    """A flat read with a rule, -2.14 a turn give or take 0.83, beside a linkage's -1.35 give or take 0.135: by hand the mean by weight."""
    trial = [(0.0, 0.4888, 0, {"a": 0.0, "b": 0.0}), (-2.14, 0.6708, 0, {"a": 1.0, "b": 0.0})]
    found = learned(trial, known(a=(-1.35, 0.135), b=(0.5, 0.05)))
    by = 1 / 0.83**2, 1 / 0.135**2
    assert found.of("a") == pytest.approx((by[0] * -2.14 + by[1] * -1.35) / sum(by), abs=1e-4)
    assert found.u("a") == pytest.approx(sum(by) ** -0.5, abs=1e-4)
    assert (found.of("b"), found.u("b")) == (pytest.approx(0.5), pytest.approx(0.05))  # not tried: as the plan has it


def test_adjusters_turned_together_are_told_apart_by_what_was_known_before():
    together = [(0.0, 0.01, 0, {"a": 0.0, "b": 0.0}), (0.6, 0.01, 0, {"a": 1.0, "b": 1.0})]
    assert learned(together).alike == ("a", "b")
    found = learned(together, known(a=(0.3, 0.03), b=(0.2, 0.03)))
    assert found.alike == ()
    assert found.of("a") + found.of("b") == pytest.approx(0.6, abs=0.02)
    assert found.of("a") - found.of("b") == pytest.approx(0.1, abs=1e-6)
    half = learned(together, known(a=(0.3, 0.03)))  # of b the plan says nothing
    assert half.of("b") == pytest.approx(0.3, abs=1e-6)


def test_a_car_that_contradicts_its_drawing_is_believed():
    alone, drawn = known(a=(0.9, 0.02)), known(a=(0.3, 0.03), b=(0.2, 0.03))
    doubted = contradicted(drawn, alone)
    assert (doubted.u("a"), doubted.u("b")) == (pytest.approx(0.6), pytest.approx(0.03))
    assert contradicted(drawn, known(a=(0.36, 0.02))).u("a") == pytest.approx(0.03)  # that much may be


def test_covariance_of_worths_agrees_with_drawn_readings():
    rng = np.random.default_rng(2)
    design = [{"a": 0.0, "b": 0.0}, {"a": 1.0, "b": 0.0}, {"a": 1.0, "b": 1.5}, {"a": -0.5, "b": 1.5}]
    u = [0.03, 0.05, 0.04, 0.03]
    drawn = np.array(
        [
            learned([(rng.normal(0.2 * d["a"] - 0.1 * d["b"], s), s, 0, d) for d, s in zip(design, u, strict=True)]).per_turn
            for _ in range(4000)
        ]
    )
    said = learned([(0.0, s, 0, d) for d, s in zip(design, u, strict=True)])
    np.testing.assert_allclose(
        np.cov(drawn.T), said.covariance, rtol=0.1, atol=2e-5
    )  # 10 %: four standard errors of 4000 draws


def test_adjusters_only_ever_turned_together_are_named_and_the_rest_is_learned():
    rows = [
        (0.0, 0.1, 0, {"a": 0, "b": 0, "c": 0}),
        (1.0, 0.1, 0, {"a": 1, "b": 1, "c": 0}),
        (3.0, 0.1, 0, {"a": 1, "b": 1, "c": 1}),
    ]
    found = learned(rows)
    assert (found.adjusters, found.alike) == (("c",), ("a", "b"))
    assert found.of("c") == pytest.approx(2.0)
    assert found.of("a") is None


def test_a_change_of_another_kind_between_readings_teaches_nothing():
    assert learned([(0.0, 0.1, 0, {"a": 0.0}), (5.0, 0.1, 1, {"a": 1.0})]).adjusters == ()
    assert learned([]).adjusters == ()


def test_camber_and_toe_are_solved_together_as_two_equations_are_by_hand():
    # 0.5 a + 0.1 b = 0.8, -0.3 a + 0.6 b = 0.18  =>  a = 1.4, b = 1.0
    found = solve(wanted(0.8, 0.18), FREE, [[0.5, 0.1], [-0.3, 0.6]], none(2))
    assert found.exact == pytest.approx((1.4, 1.0), abs=1e-9)
    a, b = found.turns
    assert found.left == pytest.approx((0.8 - 0.5 * a - 0.1 * b, 0.18 + 0.3 * a - 0.6 * b))
    assert not found.compromise


@pytest.mark.parametrize("seed", range(60))
def test_whole_steps_are_the_best_of_all_within_reach_and_not_each_the_nearest(seed):
    rng = np.random.default_rng(seed)
    levers = [Lever("a", -4, 4, int(rng.choice([1, 3, 6]))), Lever("b", -4, 4, int(rng.choice([1, 3, 6])))]
    worth, tolerance = rng.uniform(-1, 1, (2, 2)), rng.uniform(0.05, 0.3, 2)
    asked = [
        Wanted(m, float(g), float(t), float(t) / 8) for m, g, t in zip("ct", rng.uniform(-1, 1, 2), tolerance, strict=True)
    ]
    try:
        found = solve(asked, levers, worth, none(2))
    except AlikeError:
        return
    grid = [np.arange(-24, 25, lever.flats_per_step) / 6 for lever in levers]
    every = np.stack(np.meshgrid(*grid, indexing="ij"), -1).reshape(-1, 2)
    missed = np.abs([w.to_go for w in asked] - every @ worth.T) / tolerance
    holds = np.all(missed <= 0.75 + 1e-9, axis=1)
    mine = np.abs([w.to_go for w in asked] - worth @ found.turns) / tolerance
    if holds.any() and np.abs(found.exact).max() < 4:
        assert (mine <= 0.75 + 1e-9).all()
        assert np.count_nonzero(found.turns) == np.count_nonzero(every[holds], axis=1).min()
    elif not holds.any():
        assert (mine**2).sum() <= (missed**2).sum(axis=1).min() + 1e-9
    assert (mine**2).sum() <= sum((w.to_go / t) ** 2 for w, t in zip(asked, tolerance, strict=True)) + 1e-9


def test_two_alike_beside_a_third_are_said_as_two_are():
    levers = [*FREE[:2], Lever("c", -50, 50)]
    with pytest.raises(AlikeError, match="b and c move this corner the same way"):
        solve(wanted(0.8, 0.18), levers, [[0.5, 0.1, 0.2], [-0.3, 0.6, 1.2]], none(3))


def test_one_adjuster_and_two_aims_is_the_weighted_compromise():
    found = solve(wanted(0.6, -0.2), FREE[:1], [[0.5], [0.2]], none(1))
    weighted = (0.5 / 0.2 * 0.6 / 0.2 + 0.2 / 0.1 * -0.2 / 0.1) / (
        (0.5 / 0.2) ** 2 + (0.2 / 0.1) ** 2
    )  # least squares in tolerances, by hand
    assert found.exact[0] == pytest.approx(weighted, abs=1e-9)
    assert found.compromise


def test_a_thread_that_ends_is_kept_and_named():
    levers = [Lever("a", -1.0, 0.5), Lever("b", -50, 50)]
    found = solve(wanted(0.8, 0.18), levers, [[0.5, 0.1], [-0.3, 0.6]], none(2))
    assert found.exact[0] == pytest.approx(0.5, abs=1e-9)
    assert found.at_limit == ("a",)
    # with a held, b alone: least squares in tolerances, by hand
    rest, slope = np.array([(0.8 - 0.25) / 0.2, (0.18 + 0.15) / 0.1]), np.array([0.1 / 0.2, 0.6 / 0.1])
    assert found.exact[1] == pytest.approx(slope @ rest / (slope @ slope), abs=1e-6)
    stuck = solve(wanted(0.8, 0.18), [Lever("a", 0.0, 0.0), Lever("b", 0.0, 0.0)], [[0.5, 0.1], [-0.3, 0.6]], none(2))
    assert (stuck.turns, stuck.at_limit) == ((0.0, 0.0), ("a", "b"))


def test_steps_stay_inside_the_thread_and_keep_their_size():
    found = solve(wanted(0.8, 0.18), [Lever("a", -9, 1.45, 3), Lever("b", -9, 9, 6)], [[0.5, 0.1], [-0.3, 0.6]], none(2))
    assert found.turns == (1.0, 1.0)  # 1.5 is past 1.45


def test_three_adjusters_turn_as_little_as_will_do():
    matrix = np.array([[0.5, 0.1, 0.3], [-0.3, 0.6, 0.2]])
    found = solve(wanted(0.8, 0.18), [*FREE, Lever("c", -50, 50)], matrix, none(3))
    assert found.exact == pytest.approx(np.linalg.pinv(matrix / [[0.2], [0.1]]) @ [4.0, 1.8], abs=1e-9)


@pytest.mark.parametrize("second", [[1.0, -0.6], [0.25, -0.1501], [-0.5, 0.3]])
def test_adjusters_that_move_the_car_the_same_way_cannot_be_told_apart(second):
    with pytest.raises(AlikeError, match="cannot be told apart") as refused:
        solve(wanted(0.8, 0.18), FREE, np.column_stack([[0.5, -0.3], second]), none(2))
    assert refused.value.adjusters == ("a", "b")
    doubtful = [np.diag([0.0, 0.3**2]), np.diag([0.0, 0.3**2])]
    with pytest.raises(AlikeError):
        solve(wanted(0.8, 0.18), FREE, [[0.5, 0.5], [-0.3, -0.1]], doubtful)  # different, but within what the trials can tell


def test_what_the_car_would_read_is_less_sure_the_further_it_is_turned():
    covariance = [np.diag([0.02**2, 0.0]), np.diag([0.0, 0.01**2])]
    found = solve(wanted(0.8, 0.18, u=0.05), FREE, [[0.5, 0.1], [-0.3, 0.6]], covariance)
    a, b = found.turns
    assert found.expanded == pytest.approx((2 * np.hypot(0.05, 0.02 * a), 2 * np.hypot(0.05, 0.01 * b)))
