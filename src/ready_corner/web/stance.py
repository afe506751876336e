"""Stage Stance: how the car stands, the perches that bring it to its heights, and the springs of each corner at work."""

import numpy as np
from fastapi import APIRouter

from ready_corner.core.errors import ReadyCornerError
from ready_corner.core.linkage.words import shown
from ready_corner.core.plan import CORNERS, Corner, Plan
from ready_corner.core.shop import Units, say_length
from ready_corner.core.stance.planned import at_work, dummy_struts
from ready_corner.core.stance.standing import stance
from ready_corner.web.views import View
from ready_corner.web.workshop import TheWorkshop

router = APIRouter()


class PerchView(View):
    """One perch to turn."""

    corner: Corner
    adjuster: str
    say: str
    caution: str


class RodView(View):
    """A rod in place of a spring, eye to eye, in words; empty where the plan does not tell."""

    name: str
    at_ride: str
    at_level: str
    at_bump: str
    at_droop: str
    rate: str
    ratio: str
    rough: str


class StandView(View):
    """One corner: the height it would have after the turns, and its springs."""

    corner: Corner
    expected: str
    rods: list[RodView]


class StanceView(View):
    """How the car stands, and what brings it to its heights."""

    says: list[str]
    why_not: str
    perches: list[PerchView]
    corners: list[StandView]


@router.get("/cars/{slug}/stance")
def stance_of(slug: str, workshop: TheWorkshop) -> StanceView:
    """Return how the car stands against its plan."""
    evaluation = workshop.evaluation(slug)
    plan = evaluation.state.plan
    found = stance(evaluation)
    corners = [
        StandView(
            corner=c,
            expected=say_length(found.expected[i], plan.units, denominator=0) if found.perches else "",
            rods=_rods(plan, c),
        )
        for i, c in enumerate(CORNERS)
    ]
    return StanceView(
        says=list(found.says),
        why_not=found.why_not,
        perches=[PerchView.model_validate(p) for p in found.perches],
        corners=corners,
    )


def _rods(plan: Plan, corner: Corner) -> list[RodView]:
    try:
        rods, work = dummy_struts(plan, corner), {w.name: w for w in at_work(plan, corner, np.zeros(1))}
    except ReadyCornerError:
        return []
    units = plan.units
    unit, factor, digits = shown("N/mm", 1, units.inches)
    rows = []
    for rod in rods:
        one = work.get(rod.name)
        rough = (
            f"{abs(one.off) * 100:.0f} % {'over' if one.off > 0 else 'under'}"
            if one is not None and np.isfinite(one.off)
            else ""
        )
        rows.append(
            RodView(
                name=rod.name,
                at_ride=_said(rod.at_ride, units),
                at_level=_said(rod.at_level, units),
                at_bump=_said(rod.at_bump, units),
                at_droop=_said(rod.at_droop, units),
                rate=f"{float(one.rate[0]) * factor:.{digits}f} {unit}" if one is not None else "",
                ratio=f"{float(one.ratio[0]):.3f}" if one is not None else "",
                rough=rough,
            )
        )
    return rows


def _said(mm: float, units: Units) -> str:
    return say_length(mm, units, denominator=0) if np.isfinite(mm) else ""
