"""How a car stands against its plan, and the perches for it."""

from dataclasses import replace

import pytest

from ready_corner.core.logbook import Entry, Happened, PlanRevised, Reading, fold
from ready_corner.core.plan import CORNERS
from ready_corner.core.readiness.marks import evaluate
from ready_corner.core.stance.standing import stance
from tests.core.linkage.cars import plan

TERN = plan("tern")
AIMS = {c: TERN.aim(f"{c}.height").aim for c in CORNERS}


def standing(heights, of=TERN):
    rows = [PlanRevised(of), Happened("settled"), *(Reading("height", c, h, "caliper") for c, h in heights.items())]
    return stance(evaluate(fold(None, [Entry(str(n), n, what) for n, what in enumerate(rows, start=1)])))


def test_a_car_at_its_heights_is_left_alone():
    found = standing(AIMS)
    assert found.attitude.pitch_deg == pytest.approx(0, abs=1e-9)
    assert (found.says, found.perches) == (("It stands as planned.",), ())
    assert "leave the perches" in found.why_not


def test_a_car_high_at_the_rear_is_wound_down_there_alone():
    found = standing({c: h + (14.0 if c.endswith("R") else 0.0) for c, h in AIMS.items()})
    assert found.attitude.pitch_deg > 0
    assert "more nose down than planned" in found.says[0]
    assert {p.corner for p in found.perches} == {"LR", "RR"}
    assert all(p.amount < 0 and p.say.startswith("Wind the") and " down " in p.say for p in found.perches)
    assert all(abs(e - AIMS[c]) <= TERN.aim(f"{c}.height").tolerance for e, c in zip(found.expected, CORNERS, strict=True))


def test_heights_that_one_flat_chassis_cannot_have_are_said():
    found = standing({**AIMS, "RR": AIMS["RR"] + 12.0})
    assert "off one flat chassis" in found.says[1]


def test_what_is_wanting_is_said():
    assert "Read the ride height of the right rear first." in standing({c: h for c, h in AIMS.items() if c != "RR"}).why_not
    high = {c: h + 20.0 for c, h in AIMS.items()}
    assert "Name a spring perch at every corner" in standing(high, replace(TERN, adjusters=())).why_not
    assert "wanted ride height" in standing(AIMS, replace(TERN, aims=())).why_not
