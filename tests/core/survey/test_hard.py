"""Surveys that were seen to break what is told of them: nothing left to judge from, a mistake so large that it drags all with it, an innocent in its place."""

from contextlib import suppress
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from ready_corner.core.advise.pickups import pickups
from ready_corner.core.engines.survey.network import adjust
from ready_corner.core.engines.survey.wrong import find_wrong
from ready_corner.core.judge.frame import Frame
from ready_corner.core.judge.squareness import square
from ready_corner.core.plan.plan import places_of
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.notation import Units
from ready_corner.core.record.jig_acts import SurveyRead
from ready_corner.core.record.logbook import Entry, PlanRevised, fold
from ready_corner.core.say.jig import say_free, say_verdict
from ready_corner.exchange.files import read_logbook
from tests.amounts import drawn
from tests.core.linkage.cars import plan

from .frames import rough
from .test_wrong import well_held

CASES = Path(__file__).parents[2] / "cases"


def frame_of(name):
    _, state = read_logbook((CASES / f"{name}.logbook.json").read_bytes())
    return Frame(state.plan, state.jig, state.gone)


def told(frame):
    """Whatever a page asks of a frame."""
    network = frame.network
    found = [say_verdict(frame.verdict, Units()), frame.laid, square(frame), pickups(frame, {}, {}).rows, frame.drift]
    return [*found, frame.recovered, frame.carried, say_free(network, Units()) if network else ()]


@pytest.mark.parametrize("name", ["two-tapes-differ", "triangle-cannot-close"])
def test_where_every_reading_may_be_the_wrong_one_nothing_is_judged_and_all_are_named(name):
    frame = frame_of(name)
    assert len(frame.verdict.suspects) == len({s.reading.id for s in frame.verdict.suspects}) >= 2
    assert frame.unexplained or frame.network.sound
    told(frame)


def test_the_one_tape_that_is_a_hundred_off_is_among_those_named():
    frame = frame_of("innocent-named")
    assert "RF tie inner to LR lower rear" in {r.said for r in frame.verdict.doubted}
    assert frame.network.sound


def test_what_is_judged_from_is_never_a_false_minimum():
    frame = frame_of("false-minimum")
    assert frame.verdict.named.reading.said == "RF tie inner to RR lower front"
    assert frame.verdict.named.by == pytest.approx(537, abs=5)  # mm; 514.1 and the U of what the rest say
    assert frame.network.sound


def test_a_mistake_of_decimetres_is_found_or_nothing_is_judged():
    lost = named = 0
    for seed in range(cars := drawn(12, 4)):
        rng = np.random.default_rng([seed, 77])
        truth, sound = well_held(rng)
        start = rough(truth, rng, 5.0)
        tapes = [i for i, r in enumerate(sound) if r.kind == "distance"]
        for i in rng.choice(tapes, 6, replace=False):
            by = float(rng.uniform(100, 900) * rng.choice([-1, 1]))
            if sound[i].value + by < 50:
                by = -by
            readings = [*sound[:i], replace(sound[i], value=sound[i].value + by), *sound[i + 1 :]]
            verdict = find_wrong(adjust(readings, start), start)
            doubted = {r.id for r in verdict.doubted}
            assert verdict.sure is None or (verdict.sure.sound and sound[i].id in doubted)
            named += verdict.named is not None
            lost += verdict.sure is None
    assert lost <= 0.05 * 6 * cars
    assert named >= 0.9 * 6 * cars


def test_any_first_readings_can_be_told():
    heather = plan("heather")
    names = [n for n in places_of(heather) if n.split(".")[0] in ("LF", "RF", "LR")][:7]
    for seed in range(drawn(400, 30)):
        rng = np.random.default_rng([seed, 5])
        rows = []
        for _ in range(int(rng.integers(1, 7))):
            a, b = rng.choice(names, 2, replace=False)
            kind = rng.choice(["distance", "distance", "height", "offset", "station", "rise"])
            points = (str(a),) if kind in ("height", "offset", "station") else (str(a), str(b))
            rows.append(SurveyRead(str(kind), points, float(rng.uniform(100, 1500)), "tape"))
        log = [Entry(str(n), n, what) for n, what in enumerate((PlanRevised(heather), *rows), start=1)]
        state = fold(None, log)
        with suppress(ReadyCornerError):  # a sentence; anything else is a fault
            told(Frame(state.plan, state.jig))
