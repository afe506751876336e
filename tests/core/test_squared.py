"""Live axles squared by their links: both turned, where there are two, and what is said where the axle goes along or binds."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.advise.lift import lift
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.plan import Moves
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.logbook import fold
from ready_corner.core.simulation.cars import practice_plan
from tests.core.cars import Log
from tests.core.linkage.cars import plan
from tests.core.test_hubs import EXACT
from tests.words import said


def axle_squared(name="three-link-axle", out_of_square=0.8, **links):
    """A car whose rear toes stand as far off as its axle is out of square, all read without error, and the lift for it."""
    of = practice_plan(plan(name), name)
    more = {c: next(a for a in of.adjusters if a.id == f"{c}.perch") for c in ("LR", "RR")}
    links = links or {"LR": "rear.lower left", "RR": "rear.lower right"}
    by = tuple(
        replace(more[c], id=f"{c}.link", name="lower link", by=of.adjuster("LF.tie").by, moves=Moves(m))
        for c, m in links.items()
    )
    aims = tuple(Aim(f"{c}.toe", 0.1, 0.2) for c in ("LR", "RR"))
    log = Log(replace(of, adjusters=by, aims=aims, tools=EXACT, ways=replace(of.ways, hub_middle=0, run_out=0, settled=0)))
    for c in CORNERS:
        log.read(c, "gap_hub", 700.0 - log.entries[0].what.plan.axle_of(c).half_width)
    for c, out in (("LR", out_of_square), ("RR", -out_of_square)):
        span = of.rear.rim_flange_diameter
        log.read(c, "gap_front", 100 + span * np.sin(np.radians(0.1 + out)))
        log.read(c, "gap_back", 100.0)
    return evaluate(fold(None, log.entries))


def test_an_axle_is_squared_by_both_its_links_and_stays_where_it_is_along_the_car():
    found = axle_squared()
    told = lift(found)
    turned = {t.of.id: t.amount for t in told.turns}
    along = found.figures.ground.reach.along["rear"]
    # Both a millimetre longer: it pitches about its upper link, 440 over 210 of the lower ones, its middle at 300.
    assert along["LR.link"] + along["RR.link"] == pytest.approx(-(440 - 300) / (440 - 210), rel=0.03)
    assert np.sign(turned["LR.link"]) == -np.sign(turned["RR.link"])
    assert abs(sum(along[a] * n for a, n in turned.items())) < 1.0
    assert not told.cautions


def test_of_an_axle_with_one_link_to_turn_it_is_said_how_far_it_goes_along():
    told = lift(axle_squared(out_of_square=1.6, LR="rear.lower left"))
    assert [t.of.id for t in told.turns] == ["LR.link"]
    assert told.missed == ()
    (caution,) = told.cautions
    assert said(caution).startswith("The rear axle goes ")
    assert "back by it. Look at its propeller shaft" in said(caution)


def test_of_an_axle_that_is_held_once_too_often_it_is_said_that_one_link_binds_it():
    cautions = lift(axle_squared("tern")).cautions
    assert any("has more links than hold it" in said(c) for c in cautions)
