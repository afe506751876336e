"""What the tools in hand cannot prove and the threads cannot set, said of a plan before anything is measured.

A whole round is read once, as if the car stood on its aims: what the marks would then be sure to is what these tools give.

Source: ISO 14253-1 with U reckoned beforehand; docs/choices.md, Uncertainty.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from ready_corner.core.advise.corner import finest_lever, step_of
from ready_corner.core.judge.figures import default_tool
from ready_corner.core.judge.marks import Evaluation, MarkState, evaluate
from ready_corner.core.model.wanting import Wanting
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, Corner
from ready_corner.core.plan.marks import OfMark
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.record.happenings import Happened
from ready_corner.core.record.logbook import Entry, PlanRevised, fold
from ready_corner.core.record.readings import QUANTITIES, Quantity, Reading

GAP_MM, LOAD_KG = 100.0, 100.0  # of the round that is made up; what it comes to does not hang on them


@dataclass(frozen=True)
class Limit:
    """A mark whose tolerance cannot be met: ``least`` tolerance that these tools can prove and this thread can set, in the unit of the mark; and why."""

    mark: str
    least: float
    why: Finding


def limits(plan: Plan) -> tuple[Limit, ...]:
    """Return every corner mark with an aim whose tolerance no reading with the plan's tools can hold, or one step of its adjuster is greater than."""
    try:
        found = evaluate(fold(None, list(_round(plan))))
        marks = [found.mark(f"{c}.{k}") for k in ("height", "camber", "toe") for c in CORNERS]
    except ReadyCornerError:
        return ()
    return tuple(limit for m in marks if m.aim and m.expanded is not None for limit in _limit(found, m))


def unprovable(plan: Plan) -> Iterator[Wanting]:
    """Yield what cannot be proved or set as something the plan wants: the worst of each kind at each end, of how many."""
    found = limits(plan)
    for kind in ("height", "camber", "toe"):
        for end in ENDS:
            own = [x for x in found if x.mark.endswith(kind) and END_OF[_corner_of(x.mark)] == end]
            if own:
                worst = max(own, key=lambda x: x.least)
                yield Wanting(finding("wanting.provable", end=end, quantity=kind), "aims", "Set", worst.why)


def _corner_of(mark: str) -> Corner:
    return next(c for c in CORNERS if mark.startswith(f"{c}."))


def _round(plan: Plan) -> Iterator[Entry]:
    widest = max(plan.front.half_width, plan.rear.half_width)

    def figure(corner: Corner, quantity: Quantity) -> float:
        aim = plan.aim(f"{corner}.{quantity}")
        if quantity in ("height", "camber"):
            return aim.aim if aim else 100.0 if quantity == "height" else 0.0
        if quantity == "pad":
            return 0.0
        return LOAD_KG if quantity == "load" else GAP_MM + widest - plan.axle_of(corner).half_width

    yield Entry("1", 1, PlanRevised(plan))
    yield Entry("2", 2, Happened("bar_off"))
    yield Entry("3", 3, Happened("settled"))
    asked: tuple[Quantity, ...] = ("pad", "height", "camber", "gap_front", "gap_back", "gap_hub", "load")
    kinds = {t.measures for t in plan.toolbox}
    for n, (quantity, corner) in enumerate(((q, c) for q in asked for c in CORNERS), start=4):
        if QUANTITIES[quantity].kind in kinds:
            yield Entry(str(n), n, Reading(quantity, corner, figure(corner, quantity), default_tool(plan, quantity).id))


def _limit(found: Evaluation, mark: MarkState) -> Iterator[Limit]:
    assert mark.aim
    tolerance, expanded = mark.aim.tolerance, mark.expanded or 0.0
    step, adjuster = finest_lever(found, mark.mark)
    least = expanded + step / 2
    said: dict[str, Any] = {
        "mark": mark.mark,
        "least": OfMark(mark.mark, least, 0),
        "tolerance": OfMark(mark.mark, tolerance, 0),
    }
    if expanded > tolerance:
        sure = OfMark(mark.mark, expanded)
        yield Limit(mark.mark, least, finding("limit.unprovable", **said, sure=sure, way=mark.read_with))
    elif adjuster and step > tolerance:
        worth = OfMark(mark.mark, step, 0)
        yield Limit(
            mark.mark, least, finding("limit.coarse", **said, step=step_of(adjuster), adjuster=adjuster.name, worth=worth)
        )
