"""A level taken from pad to pad round the car: the same floor as by a water level, its own error gone, and a slip that shows."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.advise.next import ask_of, next_step
from ready_corner.core.engines.survey.level import heights_round
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.judge.pads import pads_of
from ready_corner.core.plan.corners import AROUND, CORNERS
from ready_corner.core.plan.plan import Ways
from ready_corner.core.quantities.measured import Measured
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.happenings import Happened
from ready_corner.core.record.logbook import fold
from ready_corner.core.simulation.car import HiddenCar
from ready_corner.core.simulation.cars import practice_plan
from tests.core.cars import FINE, Log
from tests.core.linkage.cars import plan as linked
from tests.words import said

LIE = {"LF": 0.0, "RF": -6.0, "RR": 3.0, "LR": 8.5}
STEPS = {c: LIE[c] - LIE[AROUND[i - 1]] for i, c in enumerate(AROUND)}
ORDER = (*AROUND[1:], AROUND[0])


def read_round(off=0.0, slip=0.0, last=4):
    log = Log()
    for c in ORDER[:last]:
        log.read(c, "pad_step", STEPS[c] + off + (slip if c == "RR" else 0.0), "rule")
    return log


def judged(log):
    return evaluate(fold(None, log.entries))


@pytest.mark.parametrize("off", [0.0, 0.7])
def test_a_level_round_the_pads_tells_the_floor_that_a_water_level_does(off):
    """What the level shows wrongly each time falls out of a round that is closed, as far as its scatter would let it pass."""
    each = Log()
    for c in CORNERS:
        each.read(c, "pad", LIE[c], "rule")
    one = judged(each).figures.ground
    exact = [Measured(v + off, {f"{c}": 1.0}) for c, v in ((c, STEPS[c]) for c in ORDER)]
    heights, apart = heights_round(exact)
    assert [h.value for h in heights] == pytest.approx([LIE[c] for c in AROUND])
    assert apart.value == pytest.approx(4 * off)
    assert apart.u == pytest.approx(2.0)
    assert [h.u for h in heights] == pytest.approx(np.sqrt([0, 3 / 4, 1, 3 / 4]))  # closed loop: k (n − k) / n
    if off == 0:
        round_ = judged(read_round()).figures.ground
        assert round_.floor.up == pytest.approx(one.floor.up, abs=1e-12)
        assert round_.corrected[0] == pytest.approx(one.corrected[0])


def test_steps_that_do_not_close_tell_no_floor_and_say_so():
    found = judged(read_round(slip=20.0))
    assert found.figures.ground.floor is None
    (words,) = (said(f) for f in pads_of(found.figures).says)
    assert words.startswith("Going round, the steps from pad to pad do not close: 20.0 mm")


def test_a_round_is_gone_on_with_until_it_closes_and_pads_need_not_be_read_by_themselves():
    log = read_round(last=2)
    log = Log(replace(log.entries[0].what.plan, ways=Ways(floor=9.0), aims=(Aim("LF.camber", -1.5, 0.2),)))
    assert next_step(judged(log)).quantity == "pad"
    for n, c in enumerate(ORDER):
        log.read(c, "pad_step", STEPS[c], "rule")
        found = judged(log)
        if n < 3:
            step = next_step(found)
            assert (step.corner, step.quantity) == (ORDER[n + 1], "pad_step")
            assert "Go on round with the level" in said(pads_of(found.figures).says[0])
        assert not any(ask_of(found, (o, "pad")).wanted for o in CORNERS)
    assert not any(ask_of(found, (o, "pad_step")).wanted for o in CORNERS)
    assert pads_of(found.figures).way == "arithmetic"
    log.add(Happened("level"))  # shimmed: told so, and read again as they were
    found = judged(log)
    assert found.figures.ground.pads == []
    assert all(ask_of(found, (o, "pad_step")).wanted for o in CORNERS)


def test_what_was_read_last_counts():
    log = read_round()
    for c in CORNERS:
        log.read(c, "pad", 2 * LIE[c], "rule")
    assert judged(log).figures.ground.pads[3].value == pytest.approx(2 * LIE["RR"])
    for c in ORDER:
        log.read(c, "pad_step", STEPS[c], "rule")
    assert judged(log).figures.ground.pads[3].value == pytest.approx(LIE["RR"])


def test_a_practice_car_shows_its_pads_either_way():
    of = practice_plan(linked("heather"), "heather")
    car, tool = HiddenCar(of, 5), replace(FINE[0], step=1e-6, repeatability=0.0, zero=0.0)
    steps = [car.read(c, "pad_step", tool) for c in AROUND]
    assert sum(steps) == pytest.approx(0.0, abs=1e-5)
    assert steps[1] == pytest.approx(car.read("RF", "pad", tool) - car.read("LF", "pad", tool), abs=1e-5)
