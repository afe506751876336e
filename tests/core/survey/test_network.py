"""The network: truth recovered, doubt agreed with drawn surveys, what is not determined named, readings of every kind."""

import math

import numpy as np
import pytest
from scipy.optimize import least_squares
from scipy.stats import chi2

from ready_corner.core.engines.survey.chance import chi_square_within
from ready_corner.core.engines.survey.datum import Datum, fitted, kabsch, lay
from ready_corner.core.engines.survey.network import adjust
from ready_corner.core.engines.survey.propose import Means, possible
from ready_corner.core.engines.survey.readings import Reading, between_pins, compared, model
from ready_corner.core.quantities.errors import CalledError, MeasuredError

from .frames import frame, read, rough, well_checked

RNG = np.random.default_rng


def test_without_noise_the_truth_comes_back_to_a_millionth():
    rng = RNG(1)
    truth = frame(rng)
    found = adjust(read(truth, well_checked(truth, rng)), rough(truth, rng))
    names = list(found.names)
    assert found.free == ()
    assert found.gauge == 3  # heights hold the table; a shift and a turn on it are left
    a, b = found.places, np.array([truth[n] for n in names])
    rotation, shift = kabsch(a, b, np.ones(len(names)))
    np.testing.assert_allclose(a @ rotation.T + shift, b, atol=1e-6)


def test_every_kind_of_reading_is_its_own_slope_and_brings_the_truth_back():
    rng = RNG(2)
    truth = frame(rng, 6)
    kinds = [("distance", 2, 0.5), ("height", 1, 0.5), ("offset", 1, 0.5), ("station", 1, 0.5), ("rise", 2, 0.5), ("along", 2, 0.5), ("across", 2, 0.5),
             ("slope", 2, 0.05), ("heading", 2, 0.05), ("compare", 4, 0.5)]  # fmt: skip
    rows = []
    for i in range(90):
        kind, count, u = kinds[i % len(kinds)]
        rows.append(Reading(f"r{i}", kind, tuple(rng.permutation(list(truth))[:count].tolist()), 1.0, u))
    readings = read(truth, rows)
    for r in readings:
        _, grads = model(r, truth)
        for name, g in grads.items():
            for k in range(3):
                ends = []
                for d in (1e-4, -1e-4):
                    moved = {n: p.copy() for n, p in truth.items()}
                    moved[name][k] += d
                    ends.append(model(r, moved)[0])
                assert g[k] == pytest.approx((ends[0] - ends[1]) / 2e-4, abs=1e-5), (r.kind, name, k)
    found = adjust(readings, rough(truth, rng, 15.0))
    assert found.gauge == 0
    np.testing.assert_allclose(found.places, [truth[n] for n in found.names], atol=1e-6)


def test_the_adjustment_is_that_of_a_plain_solver_and_its_doubt_that_of_drawn_surveys():
    rng = RNG(3)
    truth = frame(rng, 8)
    what = [
        *well_checked(truth, rng, 0.85),
        Reading("s", "station", ("P0",), 1.0, 0.5),
        Reading("o", "offset", ("P0",), 1.0, 0.5),
        Reading("o2", "offset", ("P5",), 1.0, 0.5),
    ]
    start = rough(truth, rng)
    readings = read(truth, what, rng)
    found = adjust(readings, start)
    names = list(found.names)

    def residuals(x):
        places = dict(zip(names, x.reshape(-1, 3), strict=True))
        return [(model(r, places)[0] - r.value) / r.u for r in readings]

    plain = least_squares(residuals, np.array([truth[n] for n in names]).ravel(), xtol=1e-14, ftol=1e-14, gtol=1e-14)
    np.testing.assert_allclose(found.places, plain.x.reshape(-1, 3), atol=1e-4)
    assert found.misfit == pytest.approx(2 * plain.cost, rel=1e-6)
    assert sum(r.redundancy for r in found.rows) == pytest.approx(found.dof)
    draws = np.array([adjust(read(truth, what, rng), start).places.ravel() for _ in range(300)])
    spread = draws.std(axis=0) / np.sqrt(np.diag(found.covariance))
    assert np.abs(spread - 1).max() < 0.2  # 300 draws know a spread to 4 %; the worst of 24 is within five of those
    assert np.mean(spread) == pytest.approx(1.0, abs=0.05)


def test_what_a_tool_shares_is_counted_once_and_its_zero_found_where_it_can_be():
    rng = RNG(4)
    truth = frame(rng, 9)
    what = [
        Reading(r.id, r.kind, r.points, r.value, r.u, "tape" if r.kind == "distance" else "")
        for r in well_checked(truth, rng, 0.9)
    ]
    readings = [
        Reading(r.id, r.kind, r.points, r.value + (3.0 if r.tool else 0.0), r.u, r.tool) for r in read(truth, what, rng)
    ]
    found = adjust(readings, rough(truth, rng), {"tape": 5.0})
    zero, u = found.tools["tape"]
    assert zero == pytest.approx(3.0, abs=3 * u)
    assert u < 0.5
    assert found.sound
    assert not adjust(readings, rough(truth, rng), {"tape": 0.2}).sound


def test_what_nothing_fixes_is_named_by_point_and_direction():
    rng = RNG(5)
    truth = frame(rng, 7)
    what = [r for r in well_checked(truth, rng, 1.0) if "P6" not in r.points or r.id in ("distance P0 P6", "distance P1 P6")]
    found = adjust(read(truth, what), rough(truth, rng, 5.0))
    assert {f.point for f in found.free} == {"P6"}
    assert found.determined == frozenset(f"P{i}" for i in range(6))
    way = found.free[0].direction
    for other in ("P0", "P1"):  # it is free to go round the line of the two: square to both distances
        line = found.place("P6") - found.place(other)
        assert abs(way @ line) / np.linalg.norm(line) < 1e-6
    flat = [
        Reading(r.id, r.kind, r.points, r.value, r.u) for r in read(truth, what) if r.kind == "height" or "P6" not in r.points
    ]
    only_height = adjust([*flat, Reading("o", "offset", ("P6",), float(truth["P6"][1]), 0.5)], rough(truth, rng, 5.0))
    assert "P6" in {f.point for f in only_height.free}


def test_two_groups_that_nothing_holds_together_are_not_determined():
    rng = RNG(6)
    truth = frame(rng, 10)
    groups = [{f"P{i}" for i in range(5)}, {f"P{i}" for i in range(5, 10)}]
    what = [r for r in well_checked(truth, rng, 1.0) if r.kind == "distance" and any(set(r.points) <= g for g in groups)]
    found = adjust(read(truth, what), rough(truth, rng, 5.0))
    assert found.gauge == 6
    assert {f.point for f in found.free} == set(truth)


def test_in_line_and_compared_readings_do_what_they_say():
    x = {"A": (0, 0, 0), "B": (502, 6, -4), "C": (1000, 0, 0), "D": (0, 400, 0), "E": (1003, 403, 0)}
    known = [
        Reading(f"{k}{n}", k, (n,), float(p[i]), 1e-4)
        for n, p in x.items()
        for i, k in enumerate(("station", "offset", "height"))
        if n in "ACD"
    ]
    known += [
        Reading("sB", "station", ("B",), 502.0, 1e-4),
        Reading("oE", "offset", ("E",), 403.0, 1e-4),
        Reading("hE", "height", ("E",), 0.0, 1e-4),
    ]
    found = adjust(
        [*known, Reading("rod", "in_line", ("A", "B", "C"), 0.0, 0.1), compared("cmp", ("A", "C", "D", "E"), "same", 0.5)], x
    )
    np.testing.assert_allclose(found.place("B"), (502, 0, 0), atol=1e-3)
    assert np.linalg.norm(found.place("E") - found.place("D")) == pytest.approx(1000.0, abs=1e-3)
    shorter, longer = (compared("c", ("A", "C", "D", "E"), says, 2.0) for says in ("shorter", "longer"))
    assert (shorter.value, longer.value, longer.u) == (-12.0, 12.0, 10.0)
    for true in (2.5, 6.5, 30.0):  # whatever it is by, a true answer is not called wrong
        far = {**x, "E": (1000.0 - true, 400, 0)}
        sure = [
            Reading(f"{k}{n}", k, (n,), float(p[i]), 0.01)
            for n, p in far.items()
            for i, k in enumerate(("station", "offset", "height"))
        ]
        assert adjust([*sure, longer], far).sound
    assert compared("c", ("A", "C", "D", "E"), "same", 3.0).u == pytest.approx(math.sqrt(3))


def test_between_pins_by_hand():
    assert between_pins(500.0, "near_to_far", 12.0, 12.0) == 500.0
    assert between_pins(500.0, "near_to_far", 10.0, 14.0) == 498.0  # 500 = centre − 5 + 7
    assert between_pins(500.0, "outside", 10.0, 14.0) == 488.0
    assert between_pins(500.0, "inside", 10.0, 14.0) == 512.0
    with pytest.raises(MeasuredError, match="between the edges"):
        between_pins(5.0, "outside", 10.0, 14.0)


@pytest.mark.parametrize(
    ("make", "error", "words"),
    [
        (lambda: Reading("a", "distance", ("A", "B"), 0.0, 1.0), MeasuredError, "cannot be"),
        (lambda: Reading("a", "distance", ("A", "A"), 5.0, 1.0), MeasuredError, "measured from itself"),
        (lambda: Reading("a", "distance", ("A",), 5.0, 1.0), CalledError, "about 2 points"),
        (lambda: Reading("a", "height", ("A",), math.nan, 1.0), MeasuredError, "no figure"),
        (lambda: compared("a", ("A", "B", "C", "D"), "same", 0.0), MeasuredError, "bound"),
        (lambda: adjust([Reading("a", "distance", ("A", "B"), 5.0, 1.0)], {"A": (0, 0, 0)}), CalledError, "No such point: “B”"),
        (lambda: adjust([Reading("a", "height", ("A",), 5.0, 1.0, state="on the jig"), Reading("b", "height", ("A",), 5.0, 1.0, state="on stands")], {"A": (0, 0, 0)}), MeasuredError, "held in 2 ways"),
    ],
)  # fmt: skip
def test_what_cannot_be_read_is_said(make, error, words):
    with pytest.raises(error, match=words):
        make()


def test_a_triangle_that_cannot_close_is_unsound_and_stays_visible():
    readings = [
        Reading("ab", "distance", ("A", "B"), 100.0, 0.5),
        Reading("bc", "distance", ("B", "C"), 100.0, 0.5),
        Reading("ca", "distance", ("C", "A"), 300.0, 0.5),
    ]
    found = adjust(readings, {"A": (0, 0, 0), "B": (90, 20, 0), "C": (200, 0, 10)})
    assert not found.sound
    assert all(np.isfinite(found.places).ravel())


def test_the_datum_is_laid_on_and_bends_nothing():
    rng = RNG(8)
    truth = frame(rng, 9)
    found = adjust(read(truth, well_checked(truth, rng), rng), rough(truth, rng))
    datum = Datum(
        ("P0", "P1", "P2"),
        ("P3", "P4"),
        "P5",
        tuple(truth[n][2] for n in ("P0", "P1", "P2")),
        tuple(truth[n][1] for n in ("P3", "P4")),
        float(truth["P5"][0]),
    )
    laid = lay(found, datum, truth)
    for ((name, axis, _),), value in ((c.parts, c.value) for c in datum.conditions(across=False)):
        assert laid.place(name)[axis] == pytest.approx(value, abs=1e-9)
        assert laid.cov(name)[axis, axis] == pytest.approx(0.0, abs=1e-9)
    for a, b in (("P6", "P7"), ("P0", "P8")):
        assert np.linalg.norm(laid.place(a) - laid.place(b)) == pytest.approx(
            np.linalg.norm(found.place(a) - found.place(b)), abs=1e-9
        )
    np.testing.assert_allclose(
        laid.places, [truth[n] for n in laid.names], atol=6.0
    )  # noise of tenths, through the lever of the datum
    draws = np.array(
        [
            lay(adjust(read(truth, well_checked(truth, RNG(8)), rng), rough(truth, rng)), datum, truth).places.ravel()
            for _ in range(1)
        ]
    )
    assert draws.shape == (1, 27)


def test_the_doubt_in_the_axes_of_a_datum_is_that_of_drawn_surveys():
    rng = RNG(9)
    truth = frame(rng, 7)
    what, start = well_checked(truth, rng, 0.8), rough(truth, rng)
    datum = Datum(
        ("P0", "P1", "P2"),
        ("P0", "P3"),
        "P0",
        tuple(truth[n][2] for n in ("P0", "P1", "P2")),
        tuple(truth[n][1] for n in ("P0", "P3")),
        float(truth["P0"][0]),
    )
    laid = lay(adjust(read(truth, what, rng), start), datum, truth)
    draws = np.array([lay(adjust(read(truth, what, rng), start), datum, truth).places.ravel() for _ in range(300)])
    u = np.sqrt(np.maximum(np.diag(laid.covariance), 0))
    seen = u > 1e-6
    assert seen.sum() == 21 - 6
    ratio = draws.std(axis=0)[seen] / u[seen]
    assert np.abs(ratio - 1).max() < 0.2  # as above


@pytest.mark.parametrize("off", [0.5, -3.0])
def test_a_line_across_the_car_fixes_the_station_and_does_not_turn_it_by_where_its_pivots_are_sideways(off):
    x = {"LF": (0, 300, 200), "RF": (0, -300, 200), "LR": (-2000, 320, 190), "RR": (-2000, -320, 190), "M": (-900, 0, 500)}
    truth = {n: np.array(p, dtype=float) for n, p in x.items()}
    truth["LF"][0] += off
    rows = [
        Reading(f"{k}{n}", k, (n,), float(p[i]), 0.1)
        for n, p in truth.items()
        for i, k in enumerate(("station", "offset", "height"))
    ]
    datum = Datum(("LF", "RF", "LR"), ("LF", "RF"), "LF", (200, 200, 190), (0, 0), 300)
    laid = lay(adjust(rows, x), datum, x)
    for name in ("LF", "RF"):
        assert laid.place(name)[0] == pytest.approx(0, abs=1e-9)
    assert laid.place("LF")[1] == pytest.approx(300, abs=1e-9)
    turned = np.degrees(np.arctan2(laid.rotation[1, 0], laid.rotation[0, 0]))
    assert turned == pytest.approx(np.degrees(np.arctan2(off, 600)), abs=1e-6)


def test_a_mid_line_puts_the_middles_of_its_pairs_on_the_centreline():
    rng = RNG(21)
    x = {"LF": (0, 300, 200), "RF": (0, -300, 200), "LR": (-2000, 320, 190), "RR": (-2000, -320, 190), "M": (-900, 0, 500)}
    truth = {n: np.array(p, dtype=float) + rng.normal(0, 3, 3) for n, p in x.items()}
    rows = [
        Reading(f"{k}{n}", k, (n,), float(p[i]), 0.1)
        for n, p in truth.items()
        for i, k in enumerate(("station", "offset", "height"))
    ]
    plane = ("LF", "RF", "LR")
    laid = lay(adjust(rows, x), Datum(plane, ("LF", "LR"), "LF", (200, 200, 190), partners=("RF", "RR")), x)
    for pair in (("LF", "RF"), ("LR", "RR")):
        assert sum(laid.place(n)[1] for n in pair) == pytest.approx(0, abs=1e-9)
        assert sum(laid.cov(a, b)[1, 1] for a in pair for b in pair) == pytest.approx(0, abs=1e-9)
    square = lay(adjust(rows, x), Datum(plane, ("LF", "RF"), "LF", (200, 200, 190), partners=("RF", "LF")), x)
    assert square.place("LF")[1] == pytest.approx(-square.place("RF")[1], abs=1e-9)
    assert square.place("LF")[0] == pytest.approx(square.place("RF")[0], abs=1e-9)


def test_a_datum_that_leaves_the_car_free_is_refused_with_the_way_and_how_far_it_would_go():
    x = {"A": (0, 300, 0), "B": (-900, 301, 100), "C": (-2000, 300, 0), "D": (-1000, -300, 0), "E": (0, -300, 300)}
    rows = [
        Reading(f"{k}{n}", k, (n,), float(p[i]), 0.1)
        for n, p in x.items()
        for i, k in enumerate(("station", "offset", "height"))
    ]
    network = adjust(rows, x)
    with pytest.raises(
        MeasuredError, match="free to roll about a line along the car\\. A millimetre at one of its points would put"
    ):
        lay(network, Datum(("A", "B", "C"), ("A", "C"), "A", (0, 100, 0), (300, 300)), x)
    with pytest.raises(MeasuredError, match="free to turn, seen from above"):
        lay(
            network,
            Datum(("A", "C", "D"), ("D", "E"), "A", (0, 0, 0), (-300, -300), across=True),
            x,
        )


def test_a_datum_that_gives_no_plane_or_no_line_is_refused():
    x = {"A": (0, 0, 0), "B": (500, 0, 0), "C": (1000, 0, 0), "D": (300, 400, 0), "E": (300, 400, 200)}
    known = [
        Reading(f"{k}{n}", k, (n,), float(p[i]), 0.1)
        for n, p in x.items()
        for i, k in enumerate(("station", "offset", "height"))
    ]
    found = adjust(known, x)
    np.testing.assert_allclose(found.place("D"), x["D"])
    for datum, words in (
        (Datum(("A", "B", "C"), ("A", "B"), "A"), "on one line"),
        (Datum(("A", "B", "D"), ("D", "E"), "A"), "stands upright"),
        (Datum(("A", "B", "X"), ("A", "B"), "A"), "not measured yet"),
    ):
        with pytest.raises(MeasuredError, match=words):
            lay(found, datum)


def bodies(rng, hinge):
    """Two stiff groups of points that share so many points, taped within each."""
    first = frame(rng, 7)
    second = {f"Q{i}": p + np.array([2600, 0, 0]) for i, p in enumerate(frame(rng, 4).values())}
    shared = dict(list(first.items())[:hinge])
    rows = []
    for group in (first, {**second, **shared}):
        pairs = [(a, b) for i, a in enumerate(group) for b in list(group)[i + 1 :]]
        rows += [Reading(f"{a} {b}", "distance", (a, b), float(np.linalg.norm(group[a] - group[b])), 0.5) for a, b in pairs]
    rows = list({r.id: r for r in rows}.values())
    return {**first, **second}, rows


@pytest.mark.parametrize("seed", range(5))
def test_a_hinge_names_the_lesser_part_and_two_loose_points_name_no_innocent_one(seed):
    rng = RNG([seed, 31])
    truth, rows = bodies(rng, 2)
    assert {f.point for f in adjust(rows, truth).free} == {"Q0", "Q1", "Q2", "Q3"}
    truth = frame(rng, 9)
    names = list(truth)
    rows = read(truth, [r for r in possible(truth, Means(0.6, None)) if not {"P7", "P8"} & set(r.points)])
    for loose in ("P7", "P8"):
        rows += [
            Reading(f"{loose} {n}", "distance", (loose, n), float(np.linalg.norm(truth[loose] - truth[n])), 0.6)
            for n in names[:2]
        ]
    found = adjust(rows, truth)
    assert {f.point for f in found.free} == {"P7", "P8"}
    assert found.gauge == 6


def test_a_frame_that_fits_only_upside_down_is_noticed():
    rng = RNG(12)
    truth = {n: p * [1, 1, 0] for n, p in frame(rng, 7).items()}
    seen = {n: p * [1, -1, 1] for n, p in truth.items()}
    known = [
        Reading(f"{k}{n}", k, (n,), float(p[i]), 0.1)
        for n, p in seen.items()
        for i, k in enumerate(("station", "offset", "height"))
    ]
    with pytest.raises(MeasuredError, match="only upside down"):
        fitted(adjust(known, seen), truth)


def test_what_chance_brings_about_is_the_chi_square_quantile():
    for freedom in (1, 2, 3, 17, 133):
        for share in (0.5, 0.95, 0.999, 1 - 1e-6):
            assert chi_square_within(share, freedom) == pytest.approx(chi2.ppf(share, freedom), rel=1e-12)
