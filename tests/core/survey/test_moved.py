"""The old axes found again, what has moved since, and shift apart from distortion."""

import numpy as np
import pytest

from ready_corner.core.errors import MeasuredError
from ready_corner.core.survey.moved import Known, drift, fit

from .frames import frame


def turned(places, degrees=(2.0, -1.0, 8.0), shift=(40.0, -25.0, 12.0)):
    x, y, z = np.radians(degrees)
    rx = np.array([[1, 0, 0], [0, np.cos(x), -np.sin(x)], [0, np.sin(x), np.cos(x)]])
    ry = np.array([[np.cos(y), 0, np.sin(y)], [0, 1, 0], [-np.sin(y), 0, np.cos(y)]])
    rz = np.array([[np.cos(z), -np.sin(z), 0], [np.sin(z), np.cos(z), 0], [0, 0, 1]])
    r = rz @ ry @ rx
    return {n: r @ p + shift for n, p in places.items()}


def known(places, u=0.4, rng=None):
    return {n: Known(p + (rng.normal(0, u, 3) if rng else 0.0), np.eye(3) * u**2) for n, p in places.items()}


def test_the_old_axes_come_back_exactly_and_one_moved_reference_is_found():
    rng = np.random.default_rng(1)
    truth = frame(rng, 7)
    found = fit(known(truth), known(turned(truth)))
    np.testing.assert_allclose(
        found.recovered(np.array([turned(truth)[n] for n in truth])), np.array(list(truth.values())), atol=1e-8
    )
    assert found.moved == ()
    moved = turned({**truth, "P3": truth["P3"] + [0, 4.0, -3.0]})
    found = fit(known(truth, rng=rng), known(moved, rng=rng))
    assert [p.name for p in found.moved] == ["P3"]
    assert found.moved[0].by == pytest.approx([0, 4, -3], abs=4 * 0.4 * 2)
    assert (np.abs(found.moved[0].by - [0, 4, -3]) < found.moved[0].expanded * 2).all()
    assert found.alternatives == ()


def test_the_doubt_of_a_movement_is_that_of_drawn_surveys():
    truth = frame(np.random.default_rng(2), 6)
    names = [n for n in truth if n != "P0"]
    rng = np.random.default_rng(3)
    draws = np.array(
        [
            next(p for p in fit(known(truth, rng=rng), known(turned(truth), rng=rng), names).points if p.name == "P0").by
            for _ in range(400)
        ]
    )
    u = np.sqrt(np.diag(next(p for p in fit(known(truth), known(turned(truth)), names).points if p.name == "P0").covariance))
    np.testing.assert_allclose(draws.std(axis=0), u, rtol=0.15)  # 400 draws know a spread to 3.5 %


@pytest.mark.parametrize(
    ("count", "words"), [(2, "Only 2 of the earlier points"), (0, "None of the earlier"), (3, "with so few")]
)
def test_too_few_points_ask_for_more(count, words):
    truth = frame(np.random.default_rng(4), 3)
    some = dict(list(turned({**truth, "P0": truth["P0"] + 40.0}).items())[:count])
    with pytest.raises(MeasuredError, match=words):
        fit(known(truth), known(some))


def test_points_on_a_line_ask_for_one_beside_it():
    line = {f"P{i}": np.array([i * 300.0, 0, 100.0]) for i in range(4)}
    with pytest.raises(MeasuredError, match="on one line"):
        fit(known(line), known(turned(line)))


def test_a_weld_is_split_into_shift_and_distortion():
    rng = np.random.default_rng(5)
    truth = frame(rng, 9)
    whole = turned(truth, (0.0, 0.0, 0.1), (1.5, 0.0, 0.0))
    found = drift(known(truth), known(whole))
    middle = np.mean(list(truth.values()), axis=0)
    np.testing.assert_allclose(found.shift, np.mean(list(whole.values()), axis=0) - middle, atol=1e-9)
    assert found.turn_deg == pytest.approx([0, 0, 0.1], abs=1e-4)
    assert max(np.abs(p.bent).max() for p in found.points) < 1e-9
    pulled = {**whole, "P4": whole["P4"] + [0, -3.0, 0]}
    found = drift(known(truth, 0.3), known(pulled, 0.3))
    worst = max(found.points, key=lambda p: np.linalg.norm(p.bent))
    assert worst.name == "P4"
    assert -3.0 < worst.bent[1] < -1.5  # the fit has gone a part of the way after it
    assert all(p.certain == (np.linalg.norm(p.by) > 1.5) for p in found.points if not 1.0 < np.linalg.norm(p.by) < 2.2)
