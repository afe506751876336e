"""What the tools in hand cannot prove and the threads cannot set, said of a plan before anything is measured.

A whole round is read once, as if the car stood on its aims: what the marks would then be sure to is what these tools give.

Source: ISO 14253-1 with U reckoned beforehand; docs/choices.md, Uncertainty.
"""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from ready_corner.core.advise.corner import finest_lever, step_of
from ready_corner.core.engines.alignment.steering_axis import camber_when_steered_deg
from ready_corner.core.judge.marks import Evaluation, MarkState, evaluate, places_of_figure
from ready_corner.core.judge.memory import aside
from ready_corner.core.judge.read import default_tool, tools_for
from ready_corner.core.model.wanting import Wanting
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, Corner
from ready_corner.core.plan.marks import ANGLES, MARK_KINDS, OfMark
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import COVERAGE
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.quantities.verdict import chance_to_hold, finer_than, spread
from ready_corner.core.record.happenings import Happened
from ready_corner.core.record.logbook import Entry, PlanRevised, fold
from ready_corner.core.record.readings import QUANTITIES, Quantity, Reading

JOINTS_MM, SWEEP_DEG = 260.0, 20.0  # between two ball joints, and either way on a plate
PROVES = 0.9
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
        found = _read_on_aims(_This(plan))
        marks = [found.mark(f"{c}.{k}") for k in ("height", *ANGLES) for c in MARK_KINDS[k].corners]
    except ReadyCornerError:
        return ()
    return tuple(limit for m in marks if m.aim and m.expanded is not None for limit in _limit(found, m))


@dataclass(frozen=True, eq=False)
class _This:
    """A plan by its identity."""

    plan: Plan

    def __hash__(self) -> int:
        return id(self.plan)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _This) and self.plan is other.plan


def proving_tools(plan: Plan) -> Mapping[Quantity, Tool]:
    """Return with which tool each quantity is read so that a mark on its aim will probably be read as holding (nine in ten): the usual one where that
    does, else the coarsest that does, else the finest. What the plan names a tool for is read with that.

    Source: ISO 14253-1 with U reckoned beforehand; docs/choices.md, Uncertainty.
    """
    return _proving_tools(_This(plan))


@lru_cache(maxsize=8)
def _read_on_aims(this: _This) -> Evaluation:
    """Return a car as its plan wants it, every place read once with the usual tool; raises what such a plan is refused for."""
    return evaluate(fold(None, list(_round(this.plan))))


@lru_cache(maxsize=32)
def _proving_tools(this: _This) -> Mapping[Quantity, Tool]:
    with aside():
        return _proved(this.plan)


def _proved(plan: Plan) -> Mapping[Quantity, Tool]:
    try:
        found = _read_on_aims(_This(plan))
        marks = [
            (m, found.figures.figure(k, c)) for k in ANGLES for c in MARK_KINDS[k].corners if (m := found.mark(f"{c}.{k}")).aim
        ]
    except ReadyCornerError:
        return {}
    tools: dict[Quantity, Tool] = {}
    for mark, figure in marks:
        if figure is None or mark.aim is None:
            continue
        places, weight = places_of_figure(figure)
        rest = math.sqrt(max(figure.measured.u**2 - spread(places, weight) ** 2, 0.0))
        for tool in (None, *finer_than(places, tools_for(plan, figure.groups[0].place[1]))):
            then = [p.by(tool) for p in places] if tool else places
            if chance_to_hold(COVERAGE * math.hypot(rest, spread(then, weight)), mark.aim) >= PROVES:
                break
        for group in figure.groups if tool else ():
            quantity, known = group.place[1], tools.get(group.place[1], group.tool)
            if tool and tool.measures == known.measures and tool.step < known.step and quantity not in plan.tool_for:
                tools[quantity] = tool
    return tools


def unprovable(plan: Plan) -> Iterator[Wanting]:
    """Yield what cannot be proved or set as something the plan wants: the worst of each kind at each end, of how many."""
    found = limits(plan)
    for kind in ("height", *ANGLES):
        for end in ENDS:
            own = [x for x in found if x.mark.endswith(kind) and END_OF[_corner_of(x.mark)] == end]
            if own:
                worst = max(own, key=lambda x: x.least)
                yield Wanting(
                    finding("wanting.provable", end=end, quantity=kind), f"aims.{worst.mark}", "Set", worst.why, needed=False
                )


def _corner_of(mark: str) -> Corner:
    return next(c for c in CORNERS if mark.startswith(f"{c}."))


def _round(plan: Plan) -> Iterator[Entry]:
    widest = max(plan.front.half_width, plan.rear.half_width)

    def figure(corner: Corner, quantity: Quantity) -> float:
        aim = plan.aim(f"{corner}.{quantity}")
        if quantity == "height":
            return aim.aim if aim else 100.0
        if QUANTITIES[quantity].kind == "angle" or "joint" in quantity or quantity.endswith("_offset"):
            return _of_axis(plan, corner, quantity)
        if quantity == "pad":
            return 0.0
        return LOAD_KG if quantity == "load" else GAP_MM + widest - plan.axle_of(corner).half_width

    yield Entry("1", 1, PlanRevised(plan))
    yield Entry("2", 2, Happened("bar_off"))
    yield Entry("3", 3, Happened("settled"))
    angles = (
        q
        for k in ANGLES
        for q in plan.ways.reads(k).read
        if not MARK_KINDS[k].only_aimed or any(plan.aim(f"{c}.{k}") for c in CORNERS)
    )
    asked: tuple[Quantity, ...] = tuple(dict.fromkeys(("pad", "height", *angles, "gap_hub", "gap_mark", "rail", "load")))  # type: ignore[arg-type]
    kinds = {t.measures for t in plan.toolbox}
    for n, (quantity, corner) in enumerate(((q, c) for q in asked for c in QUANTITIES[q].corners), start=4):
        if QUANTITIES[quantity].measures in kinds:
            yield Entry(str(n), n, Reading(quantity, corner, figure(corner, quantity), default_tool(plan, quantity).id))


def _of_axis(plan: Plan, corner: Corner, quantity: Quantity) -> float:
    """Return what an angle reads on its aim, and what is read of a steering axis that stands on its aims, else as cars have it."""
    aims = {
        k: a.aim if (a := plan.aim(f"{corner}.{k}")) else usual
        for k, usual in {**dict.fromkeys(ANGLES, 0.0), "caster": 5.0, "inclination": 10.0}.items()
    }
    way = {"_in": 1, "_out": -1}.get(quantity[quantity.rfind("_") :], 0)
    if quantity.startswith("plate"):
        return SWEEP_DEG
    if quantity.startswith("sweep"):
        steer = aims["toe"] + way * SWEEP_DEG
        return float(camber_when_steered_deg(aims["caster"], aims["inclination"], aims["toe"], aims["camber"], steer))
    if quantity == "joint_height":
        return JOINTS_MM
    if quantity.endswith("_offset"):
        return JOINTS_MM * math.tan(math.radians(aims[quantity.removesuffix("_offset")]))
    return aims[quantity]


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
    if mark.aim.beyond:
        return  # a limit of one side: far enough on the other it always holds
    if expanded > tolerance:
        sure = OfMark(mark.mark, expanded)
        yield Limit(mark.mark, least, finding("limit.unprovable", **said, sure=sure, way=mark.read_with))
    elif adjuster and least > tolerance:
        by, worth, sure = step_of(adjuster), OfMark(mark.mark, step, 0), OfMark(mark.mark, expanded)
        yield Limit(mark.mark, least, finding("limit.coarse", **said, step=by, adjuster=adjuster.name, worth=worth, sure=sure))
