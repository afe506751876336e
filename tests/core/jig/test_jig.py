"""The jig's log folded into a frame: what counts, what it says, pickup points and what they do."""

import math
from dataclasses import replace
from itertools import combinations

import numpy as np
import pytest

from ready_corner.core.advise.pickups import move_of, pickups
from ready_corner.core.engines.linkage.sweep import sweep
from ready_corner.core.engines.survey.propose import Means, possible, propose
from ready_corner.core.engines.survey.readings import model
from ready_corner.core.judge.frame import Frame, expected, places_of
from ready_corner.core.judge.pins import pin_means
from ready_corner.core.judge.squareness import square
from ready_corner.core.model.bodies import bodies_of
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import CalledError, MeasuredError, PlannedError, UnusualError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.notation import Units
from ready_corner.core.record.happenings import Happened
from ready_corner.core.record.jig_acts import DatumChosen, PinFelt, StatusGiven, Supported, SurveyRead
from ready_corner.core.record.logbook import Entry, PlanRevised, check, fold
from ready_corner.core.record.notes import Correction
from ready_corner.core.record.weld_acts import CarryOver
from ready_corner.core.say.jig import (
    say_datum,
    say_drift,
    say_flat,
    say_free,
    say_locked,
    say_lost,
    say_recovered,
    say_verdict,
    say_witnesses,
)
from tests.core.linkage.cars import plan
from tests.words import said

HEATHER = plan("heather")
PLACES = places_of(HEATHER)
NAMES = [f"{c}.{n}" for c in ("LF", "RF", "LR", "RR") for n in ("lower.front", "lower.rear", "upper.front", "upper.rear")]
DATUM = DatumChosen(
    ("LF.lower.front", "RF.lower.front", "LR.lower.rear"), ("LF.lower.front", "LR.lower.rear"), "LF.lower.front"
)
PICKUPS = {n: PLACES[n] for n in NAMES}
RAISED = 310.0  # the table is so far under the plan's ground
WANTED = [p.reading for p in propose({n: PLACES[n] for n in NAMES}, Means(0.16, 0.15), 0.5).list]


def surveyed(truth, wanted=WANTED, rng=None, wrong=None):
    """What a builder would write down of a frame with this truth, by the proposal, without or with the noise of the tools."""
    rows = []
    for i, r in enumerate(wanted):
        value = model(r, truth)[0] + (RAISED if r.kind == "height" else 0.0)
        tool, u = ("trammel", 0.16) if r.kind == "distance" else ("caliper", 0.1)
        value += 0.0 if rng is None else float(rng.normal(0, u))
        rows.append(SurveyRead(r.kind, r.points, value + (wrong[1] if wrong and wrong[0] == i else 0.0), tool))
    return rows


def frame(*whats, of=HEATHER):
    state = fold(None, [Entry(str(n), n, what) for n, what in enumerate((PlanRevised(of), *whats), start=1)])
    return Frame(state.plan, state.jig)


def truth_with(**moved):
    return {n: np.asarray(PLACES[n], dtype=float) + moved.get(n.replace(".", "_"), 0.0) for n in NAMES}


def test_a_frame_as_planned_is_found_as_planned_and_every_point_holds():
    found = frame(*surveyed(truth_with()), DATUM)
    laid, why = found.laid
    assert why is None
    np.testing.assert_allclose([laid.place(n) for n in NAMES], [PLACES[n] for n in NAMES], atol=1e-6)
    assert say_verdict(found.verdict, Units()) == ()
    rows = {p.point: p for p in pickups(found, {}, {}).rows}
    assert rows["LF.upper.front"].verdict == "holds"
    assert rows["LF.upper.front"].options[0].do == "leave it"
    assert rows["LF.tie.inner"].options[0].how.kind == "pickup.unmeasured"
    assert pickups(found, {}, {}).share == sum(p.verdict == "holds" for p in rows.values()) / len(rows)


def test_what_a_point_does_is_what_the_linkage_does_and_what_to_do_comes_least_first():
    found = frame(*surveyed(truth_with(RR_upper_front=[0.0, 2.5, 0.0])), DATUM)
    result = pickups(found, {}, {})
    row = next(p for p in result.rows if p.point == "RR.upper.front")
    assert row.off == pytest.approx([0, 2.5, 0], abs=1e-6)
    assert (row.verdict, said(row.move)) == ("out", ("2.5 right",))
    body = next(b for b in bodies_of(HEATHER, "rear") if b.name == "RR")
    off = np.add(body.shape.point("upper.front"), [0, 2.5, 0])
    after = sweep(body.built({"upper.front": off}), np.zeros(1)).answers
    before = sweep(body, np.zeros(1)).answers
    by = {e.answer: e.by for e in row.effects}
    for k in ("camber_deg", "toe_deg", "caster_deg"):
        assert by[k] == pytest.approx((after[k] - before[k])[0], abs=0.02)  # linear in 2.5 mm
    together = {e.answer: e.by for e in result.together["RR"]}
    assert together["camber_deg"] == pytest.approx((after["camber_deg"] - before["camber_deg"])[0], abs=1e-6)
    spoils = [o.spoils for o in row.options]
    assert spoils == sorted(spoils)
    assert row.options[-1].do == "cut and move"
    assert row.twin == pytest.approx([0, -2.5, 0], abs=1e-6)
    taken = next(o for o in row.options if o.do == "take it up")
    assert "removed left" in said(taken.how)


def test_what_is_too_close_to_call_is_measured_and_never_cut():
    close = settled = 0
    for seed in range(8):
        rng = np.random.default_rng([seed, 50])
        rows = surveyed(truth_with(RR_upper_front=[0.0, HEATHER.point_tolerance + rng.uniform(-0.3, 0.3), 0.0]), rng=rng)
        found = frame(*rows, DATUM)
        for p in pickups(found, {}, {}).rows:
            if p.verdict == "too close to call":
                close += 1
                assert [o.do for o in p.options] == ["measure"]
                figures = dict(p.options[0].how.figures)
                settled += bool(figures["does"])
                assert figures["then"] is None or figures["then"] < figures["sure"]
    assert close >= 6
    mirrored = frame(*[r for r in surveyed(truth_with()) if r.reading == "distance" or "upper.front" not in r.points[0]], DATUM)
    for p in pickups(mirrored, {}, {}).rows:
        if p.point in {m.point for m in mirrored.network.mirrors}:
            assert (p.verdict, p.options[0].how.kind) == ("too close to call", "pickup.mirrored")


def test_a_misread_tape_is_named_in_the_builders_words():
    i = next(i for i, r in enumerate(WANTED) if r.kind == "distance" and set(r.points) & {"LF.lower.front"})
    found = frame(*surveyed(truth_with(), rng=np.random.default_rng(3), wrong=(i, 25.4)), DATUM)
    lines = say_verdict(found.verdict, Units())
    assert len(lines) == 1
    assert lines[0].startswith(found.verdict.named.reading.said)
    assert "Measure it again. Until that is done, the frame is judged without what is wrong." in lines[0]
    struck = frame(*surveyed(truth_with(), rng=np.random.default_rng(3), wrong=(i, 25.4)), DATUM, Correction(str(i + 2)))
    assert struck.verdict is None


@pytest.mark.parametrize("seed", range(6))
def test_a_named_wrong_reading_drives_no_verdict(seed):
    rng = np.random.default_rng([seed, 40])
    more = [*WANTED, *(r for r in possible(PICKUPS, Means(0.16, 0.15)) if r.kind == "distance" and rng.random() < 0.4)]
    rows, i = surveyed(truth_with(), more, rng), int(rng.integers(len(more)))
    sound = frame(*rows, DATUM)
    assert sound.verdict is None
    bad = replace(rows[i], value=rows[i].value + 25.4)
    found = frame(*rows[:i], bad, *rows[i + 1 :], DATUM)
    doubted = {r.id for r in found.verdict.doubted}
    assert str(i + 2) in doubted
    assert not {r.reading.id for r in found.network.rows} & doubted
    before = {p.point: p for p in pickups(sound, {}, {}).rows}
    for p in pickups(found, {}, {}).rows:
        if p.verdict == "out" or any(o.do in ("cut and move", "shim") for o in p.options):
            assert before[p.point].verdict != "holds"  # only what the sound readings say too
        if found.doubted(p.point):
            assert (p.verdict, [o.do for o in p.options]) == ("too close to call", ["measure"])
            assert "in doubt; read again first" in said(p.doubt)


def test_readings_that_nothing_explains_judge_nothing():
    rng = np.random.default_rng(1)
    rows = surveyed(truth_with(), rng=rng)
    rows = [replace(r, value=r.value + float(rng.uniform(-60, 60))) if r.reading == "distance" else r for r in rows]
    found = frame(*rows, DATUM)
    assert found.unexplained
    assert say_verdict(found.verdict, Units())[-1] == "Nothing is judged from them until they agree."
    judged = [p for p in pickups(found, {}, {}).rows if p.verdict]
    assert judged
    assert {(p.verdict, *(o.do for o in p.options)) for p in judged} == {("too close to call", "measure")}
    assert square(found) == ()


def test_after_a_weld_readings_of_its_points_do_not_count_and_the_pull_is_told():
    rng = np.random.default_rng(8)
    before, weld = surveyed(truth_with(), rng=rng), Happened("weld", points=("RR",))
    halfway = frame(*before, DATUM, weld)
    assert all(not any(p.startswith("RR.") for p in r.points) for r in halfway.readings)
    assert next(p for p in pickups(halfway, {}, {}).rows if p.point == "RR.upper.rear").stale == finding(
        "move.happened", what="weld", points=("RR",)
    )
    pulled = truth_with(RR_upper_front=[0, 3.0, 0], RR_upper_rear=[0, 3.0, 0])
    after = frame(*before, DATUM, weld, *surveyed(pulled, rng=rng))
    fit, why = after.recovered
    assert why is None
    assert {p.name for p in fit.moved} <= {"RR.upper.front", "RR.upper.rear"}
    by = {p.name: p.by for p in after.drift.points}
    assert by["RR.upper.front"] == pytest.approx([0, 3, 0], abs=1.5)
    assert any("RR upper" in s and "left" in s for s in say_drift(after.drift, Units()))
    assert any("stayed" in s for s in say_recovered(fit, Units()))


def test_a_datum_is_judged_by_what_it_gives_the_furthest_point_and_a_mid_line_says_what_may_still_move():
    coarse = [replace(r, tool="tape") if r.reading == "distance" else r for r in surveyed(truth_with())]
    near = DatumChosen(
        ("LF.lower.front", "LF.lower.rear", "RF.lower.front"), ("LF.lower.front", "LF.lower.rear"), "LF.lower.front"
    )
    lines = say_datum(frame(*coarse, near))
    assert "nothing can hold there" in lines[0]
    assert not any("nothing can hold" in s for s in say_datum(frame(*surveyed(truth_with()), DATUM)))
    mid = replace(DATUM, way="mid-line of the lower inner pivots")
    found = frame(*surveyed(truth_with(LF_lower_front=[0, 1.0, 0], LR_lower_rear=[0, -1.0, 0])), mid)
    laid, why = found.laid
    assert why is None
    for a, b in (("LF.lower.front", "RF.lower.front"), ("LR.lower.rear", "RR.lower.rear")):
        assert laid.place(a)[1] + laid.place(b)[1] == pytest.approx(0, abs=1e-6)
    assert "sideways only both alike" in say_datum(found)[-1]


def test_a_flat_frame_taped_all_round_lays_its_datum_without_heights():
    rails = {
        f"frame.{n}": (x, y, 200.0)
        for n, x, y in (("lf", 0.0, 300.0), ("rf", 0.0, -300.0), ("lr", -1800.0, 320.0), ("rr", -1800.0, -320.0))
    }
    of = Plan("Rails", Units(), 2300.0, HEATHER.front, HEATHER.rear, points=rails)
    truth = {n: np.array(p) + ([0, 6.0, 0] if n == "frame.rr" else 0.0) for n, p in rails.items()}
    taped = [
        SurveyRead("distance", (a, b), float(np.linalg.norm(truth[a] - truth[b])), "tape") for a, b in combinations(rails, 2)
    ]
    found = frame(*taped, DatumChosen(("frame.lf", "frame.rf", "frame.lr"), ("frame.lf", "frame.lr"), "frame.lf"), of=of)
    laid, why = found.laid
    assert why is None
    assert found.flat
    assert laid.place("frame.rr")[1] == pytest.approx(-314, abs=0.5)
    assert laid.expanded("frame.rr")[1] < 4
    assert laid.expanded("frame.rr")[2] > 10  # a height nobody has read holds nothing
    assert "taken to be as flat as planned" in say_flat(found)[0]
    high = [SurveyRead("height", (n,), 210.0, "rule") for n in rails]
    assert not frame(*taped, *high, of=of).flat


def test_readings_with_the_frame_held_otherwise_are_not_mixed_in():
    found = frame(*surveyed(truth_with()), Supported("on stands"))
    assert found.readings == ()
    assert frame(*surveyed(truth_with()), Supported("on stands"), Supported("on the jig")).readings


def test_what_carries_a_datum_over_is_chosen_beforehand_and_held_against_what_goes():
    carry = CarryOver("long bar", "LR.lower.front", "RR.lower.front")
    lost = lambda *acts: say_lost(frame(*surveyed(truth_with()), DATUM, *acts), ["LF.lower"])  # noqa: E731
    assert "Nothing is chosen yet to carry it over" in lost()
    assert "Carried over by LR lower front to RR lower front (long bar)." in lost(carry)
    assert "Nothing is chosen yet" in lost(carry, replace(carry, out=True))
    going = replace(carry, gauge="short bar", second="LF.lower.rear")
    assert "short bar was to carry it over and would go with it" in lost(carry, going)
    with pytest.raises(MeasuredError):
        replace(carry, second=carry.first).check(HEATHER)


def test_a_lost_datum_is_found_again_from_what_stays():
    lost, rng = DATUM.plane[0], np.random.default_rng(4)
    stays = [r for r in WANTED if lost not in r.points]
    found = frame(*surveyed(truth_with(), rng=rng), DATUM)
    assert say_lost(found, ["LF.lower"]).startswith("This carries the datum (LF lower front)")
    assert say_lost(found, ["RR.upper"]) == ""
    after = frame(
        *surveyed(truth_with(), rng=rng), DATUM, Happened("cut", points=("LF.lower",)), *surveyed(truth_with(), stays, rng)
    )
    laid, why = after.laid
    assert why.kind == "laid.in-old-axes"
    for n in ("RR.upper.rear", "LF.upper.front"):
        np.testing.assert_allclose(laid.place(n), PLACES[n], atol=3.0)
        assert (laid.expanded(n) < 3.0).all()
    assert say_witnesses(after) == ()
    confirmed = Frame(after.plan, after.log.after(999, after.carried))
    there, why = confirmed.laid
    assert why is None
    assert confirmed.carried is None
    np.testing.assert_allclose(there.place("RR.upper.rear"), laid.place("RR.upper.rear"), atol=1e-6)


def test_what_is_not_fixed_and_what_is_welded_too_soon_is_said():
    loose = frame(*[r for r in surveyed(truth_with()) if "RF.upper.rear" not in r.points or r.reading == "distance"][:40])
    assert any(s.startswith("Nothing fixes the") for s in say_free(loose.network, Units()))
    assert "more are welded, but no datum" in say_locked(frame(StatusGiven("RR", "welded")))[0]
    locked = frame(DATUM, StatusGiven("RR.upper.front", "welded"))
    assert any("provisional" in s for s in say_locked(locked))
    loose = replace(HEATHER, provisional=("rear.track", "points.LF.upper.front"))
    early = say_locked(frame(DATUM, StatusGiven("RR.upper.front", "welded"), of=loose))
    assert any(s.startswith("RR upper front welded, and the rear track that it hangs on is provisional") for s in early)
    assert not any("upper front" in s and "hangs on" in s and "LF" in s for s in early)
    with pytest.raises(PlannedError, match="no dimension that can be provisional"):
        replace(HEATHER, provisional=("front.colour",))
    assert frame(StatusGiven("RR", "tacked"), StatusGiven("RR.upper", "welded")).log.status("RR.upper.rear") == "welded"
    assert frame(PinFelt("RR.upper.rear", "free"), PinFelt("RR.upper.rear", "tight")).log.pins["RR.upper.rear"] == (
        (2, "free"),
        (3, "tight"),
    )


def test_a_pin_that_is_not_free_is_said_with_what_was_done_since_it_was():
    felt = lambda *acts: pin_means(frame(*acts).log, "RR.upper.rear")  # noqa: E731
    pin = lambda says: PinFelt("RR.upper.rear", says)  # noqa: E731
    assert felt() is None
    assert felt(pin("free")) is None
    assert "never free" in said(felt(pin("tight"), pin("stuck")))
    since = said(felt(pin("free"), Happened("weld"), pin("stuck")))
    assert "was free; since then: " in since
    assert "is stuck now" in since
    assert "free earlier" in said(felt(Happened("weld"), pin("free"), pin("tight")))
    assert "freely again" in said(felt(pin("free"), Happened("weld"), pin("tight"), pin("free")))


def test_the_reading_being_typed_is_held_against_the_rest():
    found = frame(*surveyed(truth_with()))
    value, u = expected(found, SurveyRead("distance", ("LF.lower.front", "RR.upper.rear"), 1.0, "tape"))
    assert value == pytest.approx(math.dist(PLACES["LF.lower.front"], PLACES["RR.upper.rear"]), abs=1e-6)
    assert 0.2 < u < 3.0
    assert expected(found, SurveyRead("distance", ("LF.lower.front", "LF.tie.inner"), 1.0, "tape")) is None


def test_a_move_is_said_largest_first_without_what_is_doubt():
    assert said(move_of(np.array([-3.2, 0.4, -1.1]), np.array([0.5, 0.5, 0.5]))) == ("3.2 aft", "1.1 down")


@pytest.mark.parametrize(
    ("act", "error", "words"),
    [
        (SurveyRead("distance", ("LF.elbow", "RF.upper.rear"), 500.0, "tape"), CalledError, "no point “LF.elbow”"),
        (SurveyRead("distance", ("LF.upper.rear", "LF.upper.rear"), 500.0, "tape"), MeasuredError, "from itself"),
        (SurveyRead("distance", ("LF.upper.rear", "RF.upper.rear"), -5.0, "tape"), MeasuredError, "cannot be"),
        (SurveyRead("distance", ("LF.upper.rear", "RF.upper.rear"), 900.0, "tape"), UnusualError, "the plan has them"),
        (SurveyRead("slope", ("LF.upper.rear", "RF.upper.rear"), 0.5, "tape"), CalledError, "does not read"),
        (SurveyRead("compare", ("LF.upper.rear", "RF.upper.rear", "LF.lower.rear", "RF.lower.rear"), 0.0, "tape", says="same"), MeasuredError, "bound"),
        (DatumChosen(("LF.upper.rear",) * 3, ("LF.upper.rear", "LR.upper.rear"), "LF.upper.rear"), MeasuredError, "three points"),
        (StatusGiven("XX", "welded"), CalledError, "No point begins"),
    ],
)  # fmt: skip
def test_what_cannot_be_written_down_is_said(act, error, words):
    with pytest.raises(error, match=words):
        check(fold(None, [Entry("1", 1, PlanRevised(HEATHER))]), act)
    if error is UnusualError:
        check(fold(None, [Entry("1", 1, PlanRevised(HEATHER))]), replace(act, confirmed=True))


def test_groups_that_nothing_holds_together_are_said_as_groups():
    corners = [NAMES[:8], NAMES[8:]]
    pairs = [(a, b) for group in corners for i, a in enumerate(group) for b in group[i + 1 :]]
    apart = [SurveyRead("distance", pair, math.dist(PLACES[pair[0]], PLACES[pair[1]]), "trammel") for pair in pairs]
    found = frame(*apart)
    assert say_free(found.network, Units()) == (
        "Nothing holds these together: LF lower front and 7 more; LR lower front and 7 more. Measure from one group to the other, three times at least.",
    )


def test_a_frame_on_its_back_is_noticed_and_nothing_is_cut():
    turned = {n: np.array([x, y, 600.0 - z]) for n, (x, y, z) in truth_with().items()}
    for more in ((), (DATUM,)):
        found = frame(*surveyed(turned), *more)
        assert found.laid[0] is None
        assert found.laid[1].kind == "laid.upside-down"
        assert {o.do for p in pickups(found, {}, {}).rows for o in p.options} == {"measure"}
    bent = frame(*surveyed(truth_with(RR_upper_front=[0, 0, 40.0], LF_lower_rear=[0, 0, -30.0])), DATUM)
    assert bent.laid[0] is not None


def test_one_point_taped_once_makes_nothing_fall_apart():
    once = SurveyRead("distance", ("LF.tie.inner", "LF.lower.front"), 400.0, "trammel")
    told = say_free(
        frame(*surveyed(truth_with()), once, SurveyRead("height", ("RF.tie.inner",), 500.0, "trammel")).network, Units()
    )
    assert not any("Nothing holds these together" in row for row in told)
    assert any("LF tie inner" in row for row in told)
