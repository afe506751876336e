"""What any measured points tell when they are asked."""

from dataclasses import replace
from itertools import combinations

import numpy as np
import pytest

from ready_corner.core.advise.to_measure import to_measure
from ready_corner.core.engines.survey.propose import Means
from ready_corner.core.judge.asked_points import told_of
from ready_corner.core.judge.squareness import bays_told, square
from ready_corner.core.plan.bays import bays
from ready_corner.core.quantities.errors import CalledError, MeasuredError
from ready_corner.core.record.jig_acts import SurveyRead

from .test_jig import DATUM, HEATHER, PLACES, frame, surveyed, truth_with

BAY = ("LF.lower.front", "RF.lower.front", "LR.lower.rear", "RR.lower.rear")


def figures(told):
    return [dict(f.figures) for f in told]


def test_points_as_planned_are_square_level_and_as_far_apart_as_planned():
    sound = frame(*surveyed(truth_with()), DATUM)
    apart = figures(told_of(sound, "apart", BAY[:2]))[0]
    assert apart["size"] == pytest.approx(np.linalg.norm(np.subtract(PLACES[BAY[0]], PLACES[BAY[1]])), abs=1e-6)
    assert not any(f.get("out") for f in figures(told_of(sound, "bay", BAY)))
    assert not any(f.get("out") for f in figures(told_of(sound, "member", BAY[:2])))


def test_a_corner_that_is_off_is_told_by_what_it_does_to_its_bay_and_its_member():
    off = frame(*surveyed(truth_with(RR_lower_rear=[0.0, -6.0, 4.0])), DATUM)
    bay = {f.kind: dict(f.figures) for f in told_of(off, "bay", BAY)}
    assert (bay["points.shift"]["out"], bay["points.longer"]["out"], bay["points.twist"]["out"]) == (True, False, True)
    assert bay["points.shift"]["off"] == pytest.approx(3.0, abs=1e-6)  # the middle of the rear goes half as far as its corner
    assert bay["points.twist"] == bay["points.twist"] | {"corner": "RR.lower.rear", "high": True}
    member = told_of(off, "member", ("LR.lower.rear", "RR.lower.rear"))
    assert [f["out"] for f in figures(member)] == [False, True]
    assert figures(member)[1]["end"] == "RR.lower.rear"
    assert figures(member)[1]["off"] == pytest.approx(4.0, abs=1e-6)
    # Sides exchanged, the same is told of the same end.
    assert figures(told_of(off, "member", ("RR.lower.rear", "LR.lower.rear")))[1]["end"] == "RR.lower.rear"


def test_the_middle_of_a_hole_by_three_points_of_its_rim_or_more():
    middle, across, along = np.array([-300.0, 50.0, 180.0]), np.array([0.6, 0.8, 0.0]), np.array([0.0, 0.0, 1.0])
    names = ("LF.lower.front", "RF.lower.front", "LF.upper.front", "RF.upper.front")
    at = [middle + 75 * (np.cos(a) * across + np.sin(a) * along) for a in (0.2, 1.4, 3.0, 4.4)]
    truth = truth_with() | dict(zip(names, at, strict=True))
    found = frame(*surveyed(truth), DATUM)
    laid = found.laid[0]
    for chosen in (names[:3], names):
        spot, size = figures(told_of(found, "hole", chosen))
        place = laid.place(names[0]) - laid.place(names[1])
        assert np.linalg.norm(place) == pytest.approx(np.linalg.norm(at[0] - at[1]), abs=1e-4)
        apart = [np.linalg.norm(laid.place(n) - [spot["x"], spot["y"], spot["z"]]) for n in chosen]
        assert apart == pytest.approx([75.0] * len(chosen), abs=1e-4)
        assert size["wide"] == pytest.approx(150.0, abs=1e-4)
        assert size["off"] == pytest.approx(0.0, abs=1e-4)


@pytest.mark.parametrize(
    ("ask", "points", "refusal"),
    [
        ("apart", BAY[:1], CalledError),
        ("bay", (*BAY[:3], BAY[0]), CalledError),
        ("apart", ("LF.lower.front", "LF.tie.inner"), MeasuredError),
        ("hole", ("LF.lower.front", "LF.lower.rear", "nobody"), MeasuredError),
    ],
)
def test_points_that_cannot_tell_are_refused_with_a_sentence(ask, points, refusal):
    with pytest.raises(refusal) as told:
        told_of(frame(*surveyed(truth_with()), DATUM), ask, points)
    assert told.value.sentence


def test_three_points_on_one_line_have_no_circle():
    names = ("LF.upper.front", "RF.upper.front", "LR.upper.front")
    line = {n: np.array([-100.0 * i, 20.0, 350.0]) for i, n in enumerate(names)}
    with pytest.raises(MeasuredError, match="on one line"):
        told_of(frame(*surveyed(truth_with() | line), DATUM), "hole", names)


def test_nothing_is_told_before_anything_is_read():
    with pytest.raises(MeasuredError):
        told_of(frame(of=HEATHER), "apart", BAY[:2])


LOWERS = tuple(f"{c}.lower.{e}" for c in ("LF", "RF", "LR", "RR") for e in ("front", "rear"))


def test_without_a_datum_axes_do_not_hang_on_what_is_judged():
    ahead = truth_with(LF_lower_front=[6.0, 0.0, 0.0])
    found = frame(*surveyed(ahead))
    member = figures(told_of(found, "member", ("LF.lower.front", "RF.lower.front")))[0]
    assert (member["end"], member["off"]) == ("LF.lower.front", pytest.approx(6.0, abs=1e-4))
    assert member["sure"] > 0.3  # the others may be off by the tolerance of a point
    bay = {f.kind: dict(f.figures) for f in told_of(found, "bay", BAY)}
    assert bay["points.diagonals"]["axes"] == "others"
    assert bay["points.shift"]["off"] == pytest.approx(0.0, abs=1e-4)
    # Four points alone: sides unlike, and by how much it is askew nobody can say.
    tapes = list(combinations(BAY, 2))
    alone = frame(
        *[SurveyRead("distance", pair, float(np.linalg.norm(ahead[pair[0]] - ahead[pair[1]])), "trammel") for pair in tapes]
    )
    told = {f.kind for f in told_of(alone, "bay", BAY)}
    assert "points.shift-untold" in told
    assert "points.shift" not in told
    with pytest.raises(MeasuredError, match="No datum is chosen"):
        told_of(alone, "member", BAY[:2])


def test_what_the_datum_makes_level_is_not_told_as_found():
    found = frame(*surveyed(truth_with()), DATUM)
    told = told_of(found, "member", ("LF.lower.front", "RF.lower.front"))
    assert [f.kind for f in told] == ["points.member", "points.by-datum"]


def test_two_cross_measurements_say_which_end_is_ahead():
    plan = replace(HEATHER, points={**HEATHER.points, "frame.middle": (-600.0, 0.0, 150.0)})
    at = {n: np.asarray(plan.points.get(n, PLACES.get(n)), dtype=float) for n in ("frame.middle", *BAY[:2])} | {}
    at["RF.lower.front"] = at["RF.lower.front"] + [5.0, 0, 0]
    rows = [
        SurveyRead("distance", ("frame.middle", n), float(np.linalg.norm(at[n] - at["frame.middle"])), "trammel")
        for n in BAY[:2]
    ]
    told = figures(told_of(frame(*rows, of=plan), "member", BAY[:2]))[0]
    assert (told["out"], told["end"], told["point"]) == (True, "RF.lower.front", "frame.middle")
    assert told["off"] == pytest.approx(5.0, abs=0.6)  # the middle of its ends is ahead by half of it


RAILS = tuple(f"frame.rail.{side}.{end}" for end in ("front", "rear") for side in ("left", "right"))
SIDES = ((0, 1), (2, 3), (0, 2), (1, 3), (0, 3), (1, 2))


def taped(tolerance, **off):
    """A frame of four corners 1800 by 800, nothing of wheels or pickups, its sides and diagonals taped as they are with corners off by so much."""
    places = dict(zip(RAILS, ([0, 400, 0], [0, -400, 0], [-1800, 400, 0], [-1800, -400, 0]), strict=True))
    plan = replace(HEATHER, points=places, front_linkage=None, rear_linkage=None, provisional=(), point_tolerance=tolerance)
    at = [np.add(places[n], off.get("".join(w[0] for w in n.split(".")[2:]), [0.0, 0.0, 0.0])) for n in RAILS]
    reads = (SurveyRead("distance", (RAILS[a], RAILS[b]), float(np.linalg.norm(at[a] - at[b])), "tape") for a, b in SIDES)
    return plan, frame(*reads, of=plan)


@pytest.mark.parametrize(
    ("tolerance", "off", "verdict"),
    [
        (3.0, {}, "holds"),
        (1.0, {}, "too close to call"),
        (3.0, {"lf": [0, 9, 0], "rf": [0, 9, 0]}, "out"),  # a parallelogram
        (3.0, {"rf": [9, 0, 0]}, "out"),  # one side longer
        (3.0, {"lf": [0, 9, 0], "rf": [0, -9, 0]}, "holds"),  # wider in front than planned, and square
    ],
)
def test_four_corners_of_a_frame_and_six_tapes_tell_whether_it_is_square(tolerance, off, verdict):
    _, found = taped(tolerance, **off)
    (told,) = bays_told(found)
    assert (told.figure("bay"), told.figure("verdict")) == ("rail", verdict)
    assert bool(told.figure("times")) == (verdict == "too close to call")
    assert not told.figure("untold")
    assert len(square(found)) > 1


def test_as_many_tapes_as_are_told_settle_it_and_none_is_promised_that_cannot():
    plan, found = taped(1.0)
    times = bays_told(found)[0].figure("times")
    assert times > 1
    often = [n.read for n in found.log.noted] * times
    assert bays_told(frame(*often, of=plan))[0].figure("verdict") == "holds"
    assert bays_told(frame(*often[:-6], of=plan))[0].figure("verdict") == "too close to call"
    (fine,) = bays_told(taped(0.1)[1])
    assert (fine.figure("times"), fine.figure("coarse")) == (0, True)


def test_a_bay_whose_sides_are_not_alike_is_not_said_to_be_askew_without_a_datum():
    (told,) = bays_told(taped(9.0, rf=[4.0, 0, 0])[1])
    assert (told.figure("verdict"), told.figure("untold")) == ("too close to call", True)
    assert [p.kind for p in told.figure("parts")] == ["bay.longer"]
    assert "only a datum can say" in str(told)


def test_the_pivots_are_a_bay_of_their_own_and_the_worst_is_told_first():
    off = frame(*surveyed(truth_with(RR_lower_rear=[0.0, -16.0, 0.0])), DATUM)
    told = bays_told(off)
    assert told[0].figure("bay") == ""
    assert told[0].figure("verdict") == "out"
    assert str(told[0]).startswith("Between front and rear pivots: not square")


def test_a_bay_that_is_not_square_is_told_before_one_that_is():
    plan, _ = taped(3.0)
    at = {n.replace("rail", "hoop"): np.subtract(p, [300, 0, 0]) for n, p in plan.points.items()} | dict(plan.points)
    true = at | {RAILS[1]: np.add(at[RAILS[1]], [16, 0, 0])}
    reads = (
        SurveyRead("distance", pair, float(np.linalg.norm(np.subtract(*(true[n] for n in pair)))), "tape")
        for pair in combinations(at, 2)
    )
    told = bays_told(frame(*reads, of=replace(plan, points={n: tuple(p) for n, p in at.items()})))
    assert [(t.figure("bay"), t.figure("verdict")) for t in told] == [("rail", "out"), ("hoop", "too close to call")]


def test_bays_are_named_by_what_their_corners_have_in_common():
    names = (
        *RAILS,
        "frame.front.left.top",
        "frame.front.right.top",
        "frame.rear.left.top",
        "frame.hoop.left.front",
        "LF.left.front",
    )
    assert bays(names) == {"rail": RAILS}
    assert bays([n.replace("frame", "jig") for n in RAILS]) == {}
    assert bays((*names, "frame.rear.right.top"))["top"][3] == "frame.rear.right.top"
    assert bays(()) == {}


def test_a_flat_frame_of_corners_alone_is_taped_along_its_sides_and_across():
    plan, _ = taped(3.0)
    means = Means(0.7, 0.5)
    found = to_measure(frame(of=plan), [], means, 1.0)
    assert sorted(tuple(sorted(p.reading.points)) for p in found.list) == sorted(
        tuple(sorted((RAILS[a], RAILS[b]))) for a, b in SIDES
    )
    assert found.reached
    begun = SurveyRead("distance", RAILS[:2], 800.0, "tape")
    assert len(to_measure(frame(begun, of=plan), [], means, 1.0).list) == len(SIDES) - 1
    assert any(
        p.reading.kind == "height" for p in to_measure(frame(of=plan), RAILS, means, 1.0).list
    )  # pickups are wanted in all three ways
    bent = replace(plan, points=plan.points | {RAILS[0]: (0.0, 400.0, 5.0)})
    assert any(p.reading.kind == "height" for p in to_measure(frame(of=bent), [], means, 1.0).list)
    read = frame(SurveyRead("height", (RAILS[0],), 100.0, "rule"), of=plan)
    assert any(p.reading.kind == "height" for p in to_measure(read, [], means, 1.0).list)  # heights are read: they go on
    with pytest.raises(MeasuredError, match="two points"):
        to_measure(frame(of=replace(plan, points={})), [], means, 1.0)
