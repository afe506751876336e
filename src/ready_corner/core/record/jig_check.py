"""What cannot go into the log of the jig, said before it is kept."""

import math
from collections.abc import Collection

from ready_corner.core.engines.survey.datum import require_held
from ready_corner.core.engines.survey.readings import KINDS, Reading, compared
from ready_corner.core.plan.plan import Plan, places_of
from ready_corner.core.quantities.errors import CalledError, MeasuredError, UnusualError
from ready_corner.core.quantities.naming import meant
from ready_corner.core.quantities.notation import say_length
from ready_corner.core.record.datum import datum_of
from ready_corner.core.record.jig_acts import DatumChosen, FootRead, JigAct, PinFelt, SlopeRead, StatusGiven, SurveyRead
from ready_corner.core.record.weld_acts import Accepted, Cleared, WorkAct, check_work

STEEP_DEG = 10.0
FAR_MM = 120.0  # a distance further from the plan's is asked about once


def check_act(plan: Plan, act: JigAct) -> None:
    """Refuse what cannot be: unknown points, a distance of nothing, a point from itself, a tool that does not read it.

    Raises CalledError, MeasuredError, and UnusualError for a distance far from the plan's that is not confirmed.
    """
    known = places_of(plan)
    if isinstance(act, SurveyRead):
        _check_read(plan, act, known)
    elif isinstance(act, DatumChosen):
        _known((*act.plane, *act.line, act.point), known)
        if len(set(act.plane)) < 3 or len(set(act.line)) < 2:
            raise MeasuredError("A plane wants three points, a line two. Name different ones.", path="plane")
        require_held(datum_of(act, known), known)
    elif isinstance(act, PinFelt):
        _known((act.point,), known)
    elif isinstance(act, WorkAct):
        check_work(act)
        if isinstance(act, Accepted | Cleared):
            _known((act.point,), known)
    elif isinstance(act, FootRead):
        feet = plan.jig.feet if plan.jig else {}
        if act.foot not in feet:
            raise CalledError(
                f"The plan has no foot “{act.foot}”."
                + (f" It has {', '.join(feet)}." if feet else " Say in the plan where the feet of the jig stand."),
                path="foot",
            )
        _reads(plan, act.tool, "length")
    elif isinstance(act, SlopeRead):
        _reads(plan, act.tool, "angle")
        if max(abs(act.first), abs(act.second)) > STEEP_DEG:
            raise MeasuredError(
                f"{max(abs(act.first), abs(act.second)):g}° is no jig. Read it again, counted from level.", path="typed"
            )
    elif isinstance(act, StatusGiven) and not any(n == act.point or n.startswith(f"{act.point}.") for n in known):
        raise CalledError(f"No point begins with “{act.point}”. Look at its spelling.", path="point")


def _reads(plan: Plan, tool_id: str, kind: str) -> None:
    tool = plan.tool(tool_id)
    if tool.measures != kind:
        raise CalledError(
            f"A {tool.name.lower()} does not read {'an angle' if kind == 'angle' else 'a length'}. Choose another tool.",
            path="tool",
        )


def _known(names: tuple[str, ...], known: Collection[str]) -> None:
    for name in names:
        if name not in known:
            raise CalledError(
                f"The plan has no point “{name}”. {meant(name, known)} Or give it a rough place in the plan.",
                path="points",
            )


def _check_read(plan: Plan, act: SurveyRead, known: dict[str, tuple[float, float, float]]) -> None:
    _known(act.points, known)
    if act.reading == "compare" and act.says:
        a, b, c, d = act.points if len(act.points) == 4 else (*act.points, *[""] * 4)[:4]
        compared("new", (a, b, c, d), act.says, act.bound)
        return
    Reading("new", act.reading, act.points, act.value, 1.0)
    if act.reading == "in_line":
        if not act.bound > 0:
            raise MeasuredError("Say how much play the rod has in the holes; more than nothing.", path="typed")
        return
    tool = plan.tool(act.tool)
    if (tool.measures == "angle") != (KINDS[act.reading].unit == "deg"):
        raise CalledError(
            f"A {tool.name.lower()} does not read a {KINDS[act.reading].words}. Choose another tool.", path="tool"
        )
    if act.reading == "distance" and not act.confirmed:
        planned = math.dist(known[act.points[0]], known[act.points[1]])
        if abs(act.value - planned) > FAR_MM:
            raise UnusualError(
                f"{say_length(act.value, plan.units, denominator=0, unit=True)}, but the plan has them {say_length(planned, plan.units, denominator=0, unit=True)} apart. Type it again, or keep it, marked.",
                path="typed",
                numbers={"value": act.value, "planned": planned},
            )
