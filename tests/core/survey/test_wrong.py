"""Wrong readings: found and named where they can be, never blamed on an innocent one without saying so."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.engines.survey.network import adjust
from ready_corner.core.engines.survey.propose import Means, possible
from ready_corner.core.engines.survey.readings import Reading
from ready_corner.core.engines.survey.wrong import SLIPS_INCH, find_wrong
from tests.amounts import drawn

from .frames import TABLE, TAPE, frame, read, rough, well_checked


def well_held(rng):
    """A frame and readings of it, every one of which others check by a fifth at least."""
    while True:
        truth = frame(rng, 8)
        names = list(truth)
        rises = [Reading(f"rise {n}", "rise", (n, names[i - 3]), 0.0, 0.5) for i, n in enumerate(names)]
        readings = read(truth, [*well_checked(truth, rng, 0.9), *rises], rng)
        if min(r.redundancy for r in adjust(readings, truth).rows) > 0.2:
            return truth, readings


def with_one_wrong(rng, readings, kind, by):
    """The readings with one of a kind wrong, and which that is."""
    i = int(rng.choice([i for i, r in enumerate(readings) if r.kind == kind]))
    wrong = replace(readings[i], value=readings[i].value + by * rng.choice([-1, 1]))
    return [*readings[:i], wrong, *readings[i + 1 :]], wrong


NETWORKS, PLANTED = drawn(10, 4), 5  # each network is made and checked once, and several errors are planted in it


@pytest.mark.parametrize(("kind", "by"), [("distance", 10.0), ("distance", 25.4), ("height", 10.0)])
def test_a_planted_blunder_is_named_in_nearly_every_well_checked_network(kind, by):
    named, blamed = 0, 0
    for seed in range(NETWORKS):
        rng = np.random.default_rng([seed, int(by)])
        truth, sound = well_held(rng)
        start = rough(truth, rng)
        for _ in range(PLANTED):
            readings, victim = with_one_wrong(rng, sound, kind, by)
            verdict = find_wrong(adjust(readings, start), start)
            assert verdict is not None, seed
            if verdict.named:
                right = verdict.named.reading.id == victim.id
                named += right
                blamed += not right
                if right:
                    assert abs(abs(verdict.named.by) - by) < 4 * verdict.named.expanded / 2
            else:
                listed = {s.reading.id for s in (*verdict.suspects, *verdict.several)}
                assert victim.id in listed | {r.id for s in verdict.several for r in s.instead}, seed
    assert blamed == 0
    assert named >= 0.95 * NETWORKS * PLANTED


def test_sound_surveys_are_let_alone():
    rng = np.random.default_rng(77)
    called = 0
    for _ in range(80):
        truth = frame(rng, 8)
        called += find_wrong(adjust(read(truth, well_checked(truth, rng, 0.7), rng), rough(truth, rng)), truth) is not None
    assert called <= 1  # one in a thousand and some luck


def test_a_misread_inch_is_called_one_and_its_network_settled_without_it():
    rng = np.random.default_rng(5)
    truth, sound = well_held(rng)
    readings, victim = with_one_wrong(rng, sound, "distance", 25.4)
    start = rough(truth, rng)
    verdict = find_wrong(adjust(readings, start), start, slips=SLIPS_INCH)
    assert verdict.named.reading.id == victim.id
    assert verdict.named.slip == "a misread inch"
    assert find_wrong(adjust(readings, start), start).named.slip == ""  # no slip of a tape in millimetres
    assert verdict.settled.sound
    assert victim.id not in {r.reading.id for r in verdict.settled.rows}


def test_where_either_of_two_may_be_wrong_both_are_listed_and_what_would_tell_is_named():
    x = {"A": (0.0, 0.0, 0.0), "B": (1000.0, 0.0, 0.0), "C": (1000.0, 600.0, 0.0), "D": (0.0, 600.0, 0.0)}
    x = {n: np.array(p) for n, p in x.items()}
    known = [
        Reading(f"{k}{n}", k, (n,), float(x[n][i]), 0.2) for n in "ABC" for i, k in enumerate(("station", "offset", "height"))
    ]
    own = [Reading(f"d{a}", "distance", ("D", a), float(np.linalg.norm(x["D"] - x[a])), 0.5) for a in "AB"]
    own += [Reading("hD", "height", ("D",), 0.0, 0.3), Reading("dC", "distance", ("D", "C"), 1010.0, 0.5)]
    found = find_wrong(adjust([*known, *own], x), x, possible=possible(x, Means(TAPE, TABLE, 0.5)))
    assert found.named is None
    assert {"dA", "dB", "dC"} <= {s.reading.id for s in found.suspects}
    assert found.tells is not None


@pytest.mark.parametrize("count", [2, 3, 5])
def test_several_wrong_readings_are_named_or_listed_and_no_innocent_one_is_accused_alone(count):
    right, blamed = 0, 0
    networks = drawn(10, 3)
    for seed in range(networks):
        rng = np.random.default_rng([seed, count])
        truth = frame(rng, 12)
        readings = read(truth, well_checked(truth, rng, 0.9), rng)
        wrong = rng.choice(len(readings), count, replace=False)
        for i in wrong:
            readings[i] = replace(readings[i], value=readings[i].value + rng.choice([-1, 1]) * rng.choice([10, 25.4, 50, 100]))
        victims = {readings[i].id for i in wrong}
        verdict = find_wrong(adjust(readings, rough(truth, rng)), rough(truth, rng))
        doubted = {r.id for r in verdict.doubted}
        blamed += verdict.settles and doubted != victims
        right += victims <= doubted
        if verdict.sure is not None:
            assert verdict.sure.sound
            assert not {r.reading.id for r in verdict.sure.rows} & doubted
    assert right >= networks - 1
    assert blamed <= 1  # two wrong heights of one point may agree with each other


def test_of_eighty_surveys_with_one_wrong_reading_it_is_named_or_listed_in_all_but_a_few():
    listed, alone = 0, 0
    for seed in range(80):
        rng = np.random.default_rng([seed, 7])
        truth = frame(rng, 8)
        readings = read(truth, well_checked(truth, rng, 0.85), rng)
        i = int(rng.integers(len(readings)))
        readings[i] = replace(readings[i], value=readings[i].value + rng.choice([-1, 1]) * rng.choice([10.0, 12.7, 25.4, 50.0]))
        verdict = find_wrong(adjust(readings, rough(truth, rng)), rough(truth, rng))
        doubted = {r.id for r in verdict.doubted} if verdict else set()
        listed += readings[i].id in doubted
        alone += bool(verdict and verdict.settles and readings[i].id not in doubted)
    assert listed >= 78
    assert alone == 0


def test_a_reading_that_hardly_anything_checks_is_listed_as_one_that_could_as_well_be_wrong():
    x = {"A": (0.0, 0.0, 0.0), "B": (1000.0, 0.0, 0.0), "C": (1000.0, 600.0, 0.0), "D": (0.0, 600.0, 0.0)}
    x = {n: np.array(p) for n, p in x.items()}
    known = [
        Reading(f"{k}{n}", k, (n,), float(x[n][i]), 0.2) for n in "ABC" for i, k in enumerate(("station", "offset", "height"))
    ]
    own = [Reading("xD", "station", ("D",), 0.0, 0.3), Reading("hD", "height", ("D",), 0.0, 0.3)]
    fine, coarse = Reading("dA", "distance", ("D", "A"), 600.0, 0.1), Reading("oD", "offset", ("D",), 625.0, 3.0)
    network = adjust([*known, *own, fine, coarse], x)
    assert next(r for r in network.rows if r.reading.id == "dA").mute
    found = find_wrong(network, x)
    assert {("dA", True), ("oD", False)} <= {(s.reading.id, s.mute) for s in found.suspects}
    assert "D" not in found.sure.determined


def test_distances_alone_leave_a_point_on_either_side_and_a_height_decides():
    rng = np.random.default_rng(3)
    base = {
        "A": np.array([0.0, 0, 0]),
        "B": np.array([900.0, 0, 5]),
        "C": np.array([400.0, 700, -5]),
        "D": np.array([-300.0, 500, 0]),
        "E": np.array([500.0, 300, 90]),
    }
    known = [
        Reading(f"{k}{n}", k, (n,), float(base[n][i]), 0.2)
        for n in "ABCD"
        for i, k in enumerate(("station", "offset", "height"))
    ]
    own = [Reading(f"d{a}", "distance", ("E", a), float(np.linalg.norm(base["E"] - base[a])), 0.6) for a in "ABC"]
    found = adjust([*known, *own], rough(base, rng, 10.0))
    assert [m.point for m in found.mirrors] == ["E"]
    assert abs(found.mirrors[0].away[2]) == pytest.approx(180, abs=15)
    assert adjust([*known, *own, Reading("hE", "height", ("E",), 90.0, 0.4)], rough(base, rng, 10.0)).mirrors == ()
    wrong_side = {**base, "E": base["E"] * [1, 1, -1]}
    cured = adjust(
        [
            *known,
            *own,
            Reading("dD", "distance", ("E", "D"), float(np.linalg.norm(base["E"] - base["D"])), 0.6),
            Reading("hE", "height", ("E",), 90.0, 0.4),
        ],
        wrong_side,
    )
    assert cured.place("E")[2] == pytest.approx(90, abs=1.0)
