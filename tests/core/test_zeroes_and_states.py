"""What a reading may count for by gauge, zero and where the car is; sentences of ways that give no figure."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.spatial.transform import Rotation

from ready_corner.core.advise.car import judge_car
from ready_corner.core.advise.found import as_found
from ready_corner.core.advise.next import next_step, round_of
from ready_corner.core.engines.alignment.camber import camber_deg, toe_deg
from ready_corner.core.engines.statics.attitude import Attitude
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.model.checks import check_plan
from ready_corner.core.model.leaning import leaning
from ready_corner.core.record.happenings import OFF_WHEELS, Condition, Happened, Turned, moved_by
from ready_corner.core.record.jig_acts import GaugeZeroed, SlopeRead, Supported
from ready_corner.core.record.logbook import Entry, PlanRevised, fold
from ready_corner.core.record.readings import Reading
from ready_corner.core.say.judged import say_ask
from tests.core.linkage.cars import plan
from tests.core.practice import wheel_axis
from tests.core.survey.test_hard import CASES
from tests.kept.said import state_of
from tests.words import said

HEATHER = plan("heather")
SETTLED = (PlanRevised(HEATHER), Happened("bar_off"), Happened("settled"))


def judged(*whats):
    return evaluate(fold(None, [Entry(str(n), n, what) for n, what in enumerate((*SETTLED, *whats), start=1)]))


def camber(corner, value, tool="digital"):
    return Reading("camber", corner, value, tool)


PADS = [Reading("pad", c, 0.0, "rule") for c in ("LF", "RF", "LR", "RR")]
LEVEL = [Reading("height", c, h, "caliper") for c, h in (("LF", 78.0), ("RF", 78.0), ("LR", 86.0), ("RR", 86.0))]
ON = "on its wheels"


@pytest.mark.parametrize("how", [ON, *OFF_WHEELS])
@pytest.mark.parametrize(("quantity", "value", "tool"), [("camber", -1.8, "digital"), ("height", 78.0, "caliper")])
@pytest.mark.parametrize("zero", ["gravity", "frame"])
def test_what_a_reading_may_count_for_by_where_the_car_is_and_what_its_gauge_is_zeroed_on(how, quantity, value, tool, zero):
    before = LEVEL if quantity == "camber" else LEVEL[1:]
    found = judged(
        *PADS, *before, GaugeZeroed(zero), Supported(how), Happened("settled"), *[Reading(quantity, "LF", value, tool)] * 3
    )
    mark = found.mark(f"LF.{quantity}")
    assert (mark.state == "holds") == (how == ON)
    if how != ON:
        assert mark.provisional
        assert [w.figure("how") for w in found.figures.figure(quantity, "LF").why] == [how]
        assert next_step(found).kind in ("read", "settle", "state")


def test_a_known_error_of_a_gauge_is_taken_out_from_then_on_with_its_doubt():
    bare = judged(*PADS, camber("LF", -1.6)).figures.figure("camber", "LF").measured
    turned = SlopeRead("along", 0.45, -0.05, "digital")  # end for end: it reads 0.20 too much by itself
    known = judged(*PADS, turned, camber("LF", -1.6)).figures.figure("camber", "LF").measured
    assert known.value == pytest.approx(bare.value - 0.20, abs=1e-9)
    assert "digital zero" in known.parts
    earlier = judged(*PADS, camber("LF", -1.6), turned).figures.figure("camber", "LF").measured
    assert earlier.value == pytest.approx(bare.value)
    anew = judged(*PADS, turned, GaugeZeroed("gravity"), camber("LF", -1.6)).figures.figure("camber", "LF").measured
    assert anew.value == pytest.approx(bare.value)  # zeroed since: what it reads by itself is another matter


def test_a_wheel_that_leans_heads_off_as_the_nose_comes_up():
    for toe, lean, side, back in ((0.3, -3.0, 1, 1.0), (-0.2, 2.0, -1, -1.5)):
        n = wheel_axis(toe, lean, side)
        nose_up = Rotation.from_euler("y", -back, degrees=True).apply(n)
        by = float(toe_deg(nose_up)) - toe
        assert leaning("toe", "LF" if side > 0 else "RF", 0.0, back, lean) == pytest.approx(by, abs=2e-4)  # deg; second order
        assert camber_deg(nose_up) == pytest.approx(lean, abs=0.02)


def test_the_upright_of_a_frame_is_exact_at_any_attitude():
    for pitch, roll in ((1.5, -0.8), (-2.0, 1.2), (0.0, 3.0)):
        stands = Attitude(pitch, roll, 100.0)
        up = stands.up
        ahead = np.array([1.0, 0, 0]) - up[0] * up
        ahead /= np.linalg.norm(ahead)
        turned = np.stack([ahead, np.cross(up, ahead), up])  # floor from chassis
        assert np.allclose(turned @ turned.T, np.eye(3), atol=1e-12)
        assert stands.upright == pytest.approx(turned[:, 2], abs=1e-12)


@pytest.mark.parametrize(
    ("case", "words"), [("plates-no-span", "toe plates are apart"), ("plates-impossible", "tapes differ by")]
)
def test_a_way_that_gives_no_figure_says_its_own_sentence(case, words):
    state = state_of((CASES / f"{case}.json").read_bytes())
    assert words in said(evaluate(state).mark("front.total_toe").reason)


def test_what_has_moved_since_is_not_told_as_now():
    found = judged(*PADS, *LEVEL, Turned("LF.perch", 3.0))
    row = next(r for r in as_found(found) if r.now.mark == "LF.height")
    assert row.now.moved
    assert not next(r for r in as_found(judged(*PADS, *LEVEL)) if r.now.mark == "LF.height").now.moved


def test_two_marks_of_a_side_at_one_station_are_asked_about():
    state = state_of((CASES / "marks-one-station.json").read_bytes())
    assert any(e.path.startswith("ways.marks") for e in check_plan(state.plan))
    assert not any(e.path.startswith("ways.marks") for e in check_plan(HEATHER))


GAPS_READ = [
    Reading(q, c, 90.0 if q == "gap_hub" else 60.0, "caliper")
    for c in ("LF", "LR")
    for q in ("gap_front", "gap_back", "gap_hub")
]
MOVES_TYRES = (
    Turned("RR.tie-rod", 0.5),
    Turned("LF.perch", 0.5),
    Happened("settled"),
    Happened("tyre", "RF", by=1.0),
    Happened("load", by=5.0, place=(0.0, 0.0)),
    Happened("load"),
)
LEAVES_TYRES = (Happened("bar_off"), Happened("weld", "LF"), Happened("cut"))


def strung(rests):
    return replace(HEATHER, ways=replace(HEATHER.ways, strings_on=rests))


@pytest.mark.parametrize("rests", ["", "stands", "car", "tyres"])
def test_strings_that_lie_on_the_tyres_move_with_whatever_moves_a_tyre(rests):
    for change in (*MOVES_TYRES, *LEAVES_TYRES):
        moves, _ = moved_by(9, change, strung(rests), Condition(), {})
        rolled = rests == "stands" and change == Happened("settled")  # those on stands of their own stay behind
        assert all(m.breaks_rig == (rolled or (rests == "tyres" and change in MOVES_TYRES)) for m in moves), change


@pytest.mark.parametrize("rests", ["stands", "tyres"])
def test_gaps_at_the_hubs_are_read_anew_where_the_strings_moved(rests):
    anew = [Reading(q, "LF", 60.0, "caliper") for q in ("gap_front", "gap_back")]
    found = judged(PlanRevised(strung(rests)), *PADS, *GAPS_READ, MOVES_TYRES[0], *anew)
    lies = rests == "tyres"
    assert (found.figures.figure("toe", "LF") is None) == lies
    asked = {(a.corner, a.quantity): a for a in round_of(found)}
    assert asked["LF", "gap_hub"].wanted == asked["LR", "gap_hub"].wanted == lies
    assert asked["LF", "gap_hub"].string == rests
    assert ("on the tyres" in say_ask(asked["LF", "gap_front"], HEATHER.units)[1]) == lies
    if lies:
        hubs = [r for r in GAPS_READ if r.quantity == "gap_hub"]
        again = judged(PlanRevised(strung(rests)), *PADS, *GAPS_READ, MOVES_TYRES[0], *anew, *hubs)
        assert again.figures.figure("toe", "LF") is not None


@pytest.mark.parametrize("first", [-89.0, -1.5])
def test_a_camber_that_no_wheel_gives_on_such_a_floor_leaves_the_others_and_the_car(first):
    """One of several readings of a wheel that cannot be spoils neither the others nor whatever is worked out of all of them."""
    slope = [Reading("pad", c, h, "rule") for c, h in (("LF", 0.0), ("RF", 0.0), ("LR", 200.0), ("RR", 200.0))]
    rows = [*slope, camber("LF", first), Turned("LF.upper", 1.0), camber("LF", -90.5 - first), *LEVEL]
    found = judged(*rows)
    assert len(found.figures.seen("camber", "LF").value) == 1
    assert judge_car(found).next.sentence
    refused = found.mark("LF.camber").value is None
    assert refused == (first == -1.5)


def read_of_strings(hub):
    """Both rims and hubs of the left side, the rear hub so far from the string."""
    gaps = {"gap_front": 60.0, "gap_back": 60.0}
    return [Reading(q, c, gaps.get(q, hub if c == "LR" else 90.0), "caliper") for c in ("LF", "LR") for q in (*gaps, "gap_hub")]


def test_gaps_at_the_hubs_that_no_string_gives_spoil_no_toe_read_on_another():
    for first, last in ((90.0, 30_000.0), (30_000.0, 90.0)):
        found = judged(*PADS, *read_of_strings(first), Happened("string"), *read_of_strings(last))
        assert len(found.figures.seen("toe", "LF").value) == 1
        assert judge_car(found).next.sentence
        assert (found.mark("LF.toe").value is None) == (last > 1000)
