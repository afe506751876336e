"""Levels, feet, bays and pins worked by hand; what to measure."""

import itertools
import math

import numpy as np
import pytest

from ready_corner.core.engines.survey.datum import Laid
from ready_corner.core.engines.survey.level import Foot, by_reversal, level_of, packing, rise_over, screw_feet
from ready_corner.core.engines.survey.network import adjust
from ready_corner.core.engines.survey.propose import Means, propose
from ready_corner.core.engines.survey.readings import Reading
from ready_corner.core.engines.survey.square import BAY, ahead_by_cross, axes_apart, bay_of, mirror_difference
from ready_corner.core.plan.plan import twin_of
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.measured import Measured

from .frames import TABLE, TAPE, frame, read, rough

COUNT = itertools.count()


def sure(value, u=0.0):
    return Measured(value, {f"source {next(COUNT)}": u})


def feet(*heights):
    return [
        Foot(n, x, y, sure(h, 0.2))
        for n, x, y, h in zip(("LF", "RF", "LR", "RR"), (0, 0, -2000, -2000), (600, -600, 600, -600), heights, strict=True)
    ]


def test_reversal_parts_the_slope_from_the_levels_own_error():
    slope, error = by_reversal(Measured(0.45, {"a": 0.02, "zero": 0.1}), Measured(-0.15, {"b": 0.02, "zero": 0.1}))
    assert (slope.value, error.value) == pytest.approx((0.3, 0.15))
    assert slope.u == pytest.approx(0.02 / math.sqrt(2))  # the zero is the same both ways and falls out
    assert rise_over(sure(0.3), 1200.0).value == pytest.approx(1200 * math.tan(math.radians(0.3)))
    with pytest.raises(MeasuredError, match="span"):
        rise_over(sure(0.3), 0.0)


def test_four_feet_by_hand():
    flat = level_of(feet(0, 0, -10.0, -10.0))
    assert flat.along_deg.value == pytest.approx(math.degrees(math.atan(10 / 2000)))
    assert flat.across_deg.value == pytest.approx(0, abs=1e-12)
    assert flat.warp.value == pytest.approx(0, abs=1e-9)
    twisted = level_of(feet(0, 0, 0, -6.0))
    assert twisted.twist["RR"].value == pytest.approx(-6.0)
    assert twisted.twist["RR"].u == pytest.approx(0.4)  # four heights of 0.2 each
    assert twisted.odd == "RR"
    assert twisted.warp.value == pytest.approx(1.5)
    assert level_of(feet(0, 0, 0, 0)[:3]).twist == {}
    with pytest.raises(MeasuredError, match="do not make a plane"):
        level_of(feet(0, 0, 0, 0)[:2])
    with pytest.raises(MeasuredError, match="on one line"):
        level_of([Foot(str(i), i * 100.0, 0.0, sure(0)) for i in range(3)])


def test_screws_and_shims_bring_the_feet_up_to_the_highest():
    turns = {t.name: t for t in screw_feet(feet(3.0, 0.0, -4.3, 1.0), 1.5)}
    assert turns["LF"].turns == 0
    assert turns["RF"].turns == pytest.approx(2.0)
    assert turns["LR"].turns == pytest.approx(29 / 6)  # 7.3 mm is 29.2 flats of 0.25
    assert turns["LR"].left == pytest.approx(7.3 - 29 * 0.25)
    least = screw_feet(feet(3.0, 0.0, -4.0, 1.0), 1.5, "least")
    assert sum(abs(t.rise) for t in least) <= sum(abs(t.rise) for t in screw_feet(feet(3.0, 0.0, -4.0, 1.0), 1.5))
    packs = {p.name: p for p in packing(feet(3.0, 0.0, -4.5, 3.0), (0.5, 1.0, 2.0, 5.0))}
    assert packs["RF"].shims == (2.0, 1.0)
    assert sum(packs["LR"].shims) == pytest.approx(7.5)
    assert packs["RR"].shims == ()
    for wrong in (lambda: screw_feet(feet(0, 0, 0, 0), 0.0), lambda: packing(feet(0, 0, 0, 0), ())):
        with pytest.raises(MeasuredError):
            wrong()


def corners(length, front, rear, **off):
    """The corners of a bay in its plane, each off by so much."""
    at = {"LF": (length, front / 2, 0), "RF": (length, -front / 2, 0), "LR": (0, rear / 2, 0), "RR": (0, -rear / 2, 0)}
    return [np.add(p, off.get(n, (0, 0, 0))) for n, p in at.items()]


def off_square(*places, **how):
    return dict(zip(BAY, bay_of(places, **how), strict=True))


@pytest.mark.parametrize("by_its_sides", [False, True])
def test_what_a_bay_is_off_by_is_told_apart(by_its_sides):
    none = dict.fromkeys(BAY, 0.0)
    assert off_square(*corners(1800, 800, 800), by_its_sides=by_its_sides) == pytest.approx(none, abs=1e-9)
    ahead = off_square(*corners(1800, 800, 800, LF=(6, 0, 0)), by_its_sides=by_its_sides)
    assert (ahead["front"], ahead["rear"], ahead["longer"]) == pytest.approx((6, 0, 6), abs=1e-9)
    assert ahead["shift"] == pytest.approx(
        0 if not by_its_sides else 1803 * 3 / 800, abs=0.01
    )  # which is why it is not told then
    askew = off_square(*corners(1800, 800, 800, LF=(0, 6, 0), RF=(0, 6, 0)), by_its_sides=by_its_sides)
    assert askew["shift"] == pytest.approx(6.0, abs=1e-4)
    assert (askew["longer"], askew["wider"], askew["left_front_high"]) == pytest.approx((0, 0, 0), abs=1e-9)
    wide = off_square(*corners(1800, 806, 800), by_its_sides=by_its_sides)
    assert (wide["wider"], wide["shift"], wide["longer"]) == pytest.approx((6, 0, 0), abs=1e-9)
    high = off_square(*corners(1800, 800, 800, RR=(0, 0, -6)), by_its_sides=by_its_sides)
    assert high["left_front_high"] == pytest.approx(-6.0, abs=1e-3)  # the diagonal of the corner that hangs is the low one


def test_a_bay_of_any_shape_is_off_by_what_its_coordinates_are():
    rng = np.random.default_rng(8)
    for _ in range(200):
        lf, rf, lr, rr = at = corners(
            rng.uniform(900, 2500),
            rng.uniform(500, 1100),
            rng.uniform(500, 1100),
            LF=rng.uniform(-60, 60, 3),
            RR=rng.uniform(-60, 60, 3),
        )
        found = off_square(*at)
        assert found["shift"] == pytest.approx((lf[1] + rf[1] - lr[1] - rr[1]) / 2)
        assert (found["front"], found["rear"]) == pytest.approx((lf[0] - rf[0], lr[0] - rr[0]))
        mirrored = off_square(*(np.multiply(p, (1, -1, 1)) for p in (rf, lf, rr, lr)))
        for k in ("shift", "front", "rear", "longer"):
            assert mirrored[k] == pytest.approx(-found[k], abs=1e-9)
        assert mirrored["wider"] == pytest.approx(found["wider"])


def test_a_member_by_two_cross_measurements_alone():
    span, along, ahead = 1180.0, 900.0, 7.0
    left, right = math.hypot(along + ahead / 2, span / 2), math.hypot(along - ahead / 2, span / 2)
    found = ahead_by_cross(sure(left, 0.5), sure(right, 0.5), sure(span, 1.0))
    assert found.value == pytest.approx(ahead, abs=1e-4)
    step = 1e-4
    for i in range(3):
        by = [
            ahead_by_cross(*(sure(v + (s if k == i else 0)) for k, v in enumerate((left, right, span)))).value
            for s in (step, -step)
        ]
        part = ahead_by_cross(*(sure(v, 1.0 if k == i else 0.0) for k, v in enumerate((left, right, span)))).u
        assert part == pytest.approx(abs(by[0] - by[1]) / (2 * step), rel=1e-4)
    with pytest.raises(MeasuredError, match="shorter than the ends"):
        ahead_by_cross(sure(300), sure(300), sure(800))


def test_axes_and_twins_from_a_survey():
    x = {"LF.front": (200, 250, 150), "LF.rear": (-200, 246, 146), "RF.front": (200, -250, 150), "RF.rear": (-200, -250, 150)}
    rows = [
        Reading(f"{k}{n}", k, (n,), float(p[i]), 0.2)
        for n, p in x.items()
        for i, k in enumerate(("station", "offset", "height"))
    ]
    found = adjust(rows, x)
    laid = Laid(found.names, found.places, found.covariance, np.eye(3), np.zeros(3))  # in the axes of its own readings
    found = axes_apart(("LF.front", "LF.rear"), ("RF.front", "RF.rear"), laid)
    assert found.splay_deg.value == pytest.approx(math.degrees(math.atan(4 / 400)))
    assert found.tilt_deg.value == pytest.approx(math.degrees(math.atan2(4, math.hypot(400, 4))))
    assert found.splay_deg.u == pytest.approx(math.degrees(0.4 / 400), rel=0.01)
    difference, middle = mirror_difference("LF.rear", "RF.rear", laid)
    assert [d.value for d in difference] == pytest.approx([0, 4, 4])
    assert middle.value == pytest.approx(-2.0)
    assert middle.u == pytest.approx(0.2 / math.sqrt(2))
    assert twin_of("LF.lower.front") == "RF.lower.front"
    assert twin_of("rear.upper.left.body") == "rear.upper.right.body"


def test_what_to_measure_reaches_what_is_wanted_with_every_reading_checked():
    rng = np.random.default_rng(2)
    truth = frame(rng, 10)
    found = propose(truth, Means(TAPE, TABLE), 1.6)
    assert found.reached
    assert found.alone == ()
    readings = [p.reading for p in found.list]
    network = adjust(read(truth, readings), rough(truth, rng, 5.0))
    assert network.free == ()
    assert min(r.redundancy for r in network.rows) > 0.1
    q = np.sqrt(np.diag(network.covariance))
    assert 2 * q.max() < 1.7
    lefts = sorted((p.left for p in found.list), reverse=True)
    assert lefts[-1] <= 1.6
    more = propose(truth, Means(TAPE, TABLE), 1.6, taken=readings[: len(readings) // 2])
    assert 0 < len(more.list) < len(readings)
    assert not propose(truth, Means(TAPE, None), 0.1).reached
    with pytest.raises(MeasuredError, match="at least two"):
        propose({"A": (0, 0, 0)}, Means(), 1.0)
    with pytest.raises(MeasuredError, match="nothing can be measured"):
        propose(truth, Means(None, None), 1.0)
