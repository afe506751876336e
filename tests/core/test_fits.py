"""A step that fits neither plan nor car is questioned: turned the other way, not turned at all, sides exchanged, read too soon; and nothing else is."""

import numpy as np
import pytest

from ready_corner.core.advise.accept import accept
from ready_corner.core.advise.found import as_found
from ready_corner.core.advise.next import next_step
from ready_corner.core.judge.fits import questions
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.record.happenings import Happened, Turned
from ready_corner.core.record.logbook import Entry
from ready_corner.core.record.notes import Job
from ready_corner.core.record.readings import Reading
from ready_corner.core.simulation.builder import Work
from ready_corner.core.simulation.car import Faults, HiddenCar
from ready_corner.core.simulation.cars import practice_plan
from tests.core.linkage.cars import plan
from tests.words import said

QUIET = Faults(built=0.5, camber=0.1, caster=0.1, toe=0.1, height=0.5)


def ready(seed=2):
    """A practice car that is nearly right, read all round once."""
    work = Work(HiddenCar(practice_plan(plan("five-link"), "five-link"), seed, QUIET))
    work.tell(Happened("settled"))
    work.tell(Happened("bar_off"))
    reads(
        work,
        [(c, q) for q in ("pad", "height", "camber", "gap_front", "gap_back", "gap_hub") for c in ("LF", "RF", "LR", "RR")],
    )
    return work


def reads(work, places):
    for place in places:
        work.read(place)


def toes(work):
    reads(work, [(c, q) for c in ("LF", "RF") for q in ("gap_front", "gap_back")])
    return {m: said(q.figure("story")) for m, q in questions(work.now).items()}


def test_a_turn_that_went_as_told_is_not_questioned_however_far_it_went():
    work = ready()
    for amount in (1.0, -2.0, 3.0):
        work.turn("LF.tie", amount)
        assert toes(work) == {}


@pytest.mark.parametrize(
    ("made", "story"),
    [
        ({"LF.tie": -1.5}, "It would fit if the left front tie rod end had gone the other way. Did it?"),
        ({}, "It would fit if the left front tie rod end had not been turned. Was it, and was it that one?"),
        (
            {"LF.tie": 4.0},
            "Look for a joint that is loose, a nut that is not locked, or a wheel that was not set down; then read it again.",
        ),
    ],
)
def test_what_fits_better_is_asked(made, story):
    work = ready()
    for adjuster, amount in made.items():
        work.car.turn(adjuster, amount)
    work.tell(Turned("LF.tie", 1.5))
    assert toes(work) == {"LF.toe": story}
    step = next_step(work.now)
    assert (step.kind, step.corner, step.quantity) == ("read", "LF", "gap_front")
    assert said(step.reason).startswith("The left front toe changed by ")
    work.read(("LF", "gap_front"))
    assert questions(work.now) == {}  # whoever reads it again has looked


def test_sides_that_were_exchanged_are_asked_for_as_such():
    work = ready()
    for adjuster, amount in (("LF.tie", -1.0), ("RF.tie", 2.0)):
        work.car.turn(adjuster, amount)
    work.tell(Turned("LF.tie", 2.0))
    work.tell(Turned("RF.tie", -1.0))
    asked = toes(work)
    assert set(asked) == {"LF.toe", "RF.toe"}
    assert set(asked.values()) == {
        "Both sides would fit if left and right had been exchanged at the tie rod end. Were they, at the wheel or in the log?"
    }


@pytest.mark.parametrize(
    ("told", "name", "other_way"),
    [
        (Happened("tyre", "LF", by=8.0), "left front tyre", False),
        (Happened("tyre", "LF", by=-8.0), "left front tyre", True),
        (Happened("load", by=60.0, place=(-300.0, 200.0)), "load", False),
    ],
)
def test_a_tyre_or_a_load_that_was_changed_as_told_is_not_questioned_and_one_that_was_not_is_by_its_name(told, name, other_way):
    work = ready()
    before, settled = work.now, Happened("settled")
    reads(work, [("LF", "height")])
    for what in (told, settled):
        work.tell(what)
    effect = work.now.worth_now("LF.height")
    parts = {
        m.adjuster: m.amount for m in work.now.state.moves if m.adjuster in effect.adjusters and m.number > before.state.number
    }
    expected = sum((effect.of(a) or 0.0) * n for a, n in parts.items())
    assert abs(expected) > 3.0
    stood = work.now.figures.figure("height", "LF").measured.value
    fits = work.now.given
    for share in (1.0, -1.0 if other_way else 0.0):
        read = accept(fits, Entry("r", fits.number + 1, Reading("height", "LF", stood + share * expected, "tape")))
        asked = questions(evaluate(read))
        if share == 1.0:
            assert "LF.height" not in asked
        else:
            assert said(asked["LF.height"].figure("story")).startswith(f"It would fit if the {name} had ")
            assert ("the other way. Was it?" in said(asked["LF.height"])) is other_way
            assert ("not been changed. Was it, and was it by that much?" in said(asked["LF.height"])) is not other_way


def test_a_reading_of_a_car_that_has_not_settled_is_asked_about_that_first():
    work = ready()
    work.turn("LF.perch", 1.0)
    exact = work.car.truth("LF.height")
    work.tell(Reading("height", "LF", exact + 30.0, "tape"))
    asked = questions(work.now)
    assert said(asked["LF.height"].figure("story")) == "It was read before the car had settled: that may be all."


def test_of_practice_cars_that_are_worked_on_rightly_nothing_is_questioned():
    for layout, seed in (("heather", 21), ("tern", 22), ("three-link-axle", 23)):
        work = Work(HiddenCar(practice_plan(plan(layout), layout), seed))
        tell, asked = work.tell, []

        def telling(what, tell=tell, asked=asked, work=work):
            tell(what)
            asked.extend(questions(work.now))

        work.tell = telling
        assert work.run().kind == "done"
        assert asked == []
        assert np.isfinite(work.misses())


def test_the_car_as_it_was_found_stays_so_until_a_new_job_begins():
    work = ready()
    rows = lambda: {r.now.mark: (r.found and r.found.value, r.now.value) for r in as_found(work.now)}  # noqa: E731
    first = rows()
    assert all(found == now for found, now in first.values() if found is not None)
    work.turn("LF.tie", 2.0)
    toes(work)
    later = rows()
    assert later["LF.toe"][0] == first["LF.toe"][0]
    assert abs(later["LF.toe"][1] - first["LF.toe"][1]) > 0.3
    assert later["LF.caster"] == (None, None)
    work.tell(Job("new rod ends"))
    assert rows()["LF.toe"][0] is None
    toes(work)
    assert rows()["LF.toe"][0] == rows()["LF.toe"][1]
    work.turn("LF.tie", -1.0)
    toes(work)
    again = rows()["LF.toe"]
    assert abs(again[0] - again[1]) > 0.2
