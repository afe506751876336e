"""What is to be read before anything is turned for it: one rule for all.

Turning costs a lift, a reading a minute; so what would be turned for is first read well enough that turning is worth it.

Source: docs/choices.md, Turning; ISO 14253-1 for what can hold at all.
"""

from ready_corner.core.judge.fits import questions
from ready_corner.core.judge.marks import Evaluation, MarkState
from ready_corner.core.judge.memory import remembered
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.tools import EYE
from ready_corner.core.quantities.verdict import HARDLY, can_hold


@remembered
def read_first(evaluation: Evaluation, mark: str) -> Finding | None:
    """Return why a mark is to be read before anything is turned for it; None where what was read of it will do.

    Unread, moved since, read before the car was ready, by eye, doubted, or so widely that nothing could hold while something in the plan reads finer;
    of one that does not hold, whatever has moved it a little since.
    """
    found = evaluation.mark(mark)
    if found.aim is None:
        return None
    if not found.fresh:
        return found.reason
    if found.provisional:
        return finding("first.unready")
    if found.by_eye and _measured(evaluation, found):
        return finding("first.by-eye")
    if (doubt := questions(evaluation).get(mark)) is not None:
        return doubt
    if found.state == "holds":
        return None
    if abs(found.effect) > HARDLY * found.aim.tolerance:
        return finding("first.moved-a-little")
    wide = not can_hold(found.once_set or 0.0, found.aim)
    return finding("first.wide", how=evaluation.finer(mark)) if wide and evaluation.finer(mark) else None


def _measured(evaluation: Evaluation, mark: MarkState) -> bool:
    """Whether the plan has anything but the eye to read an angle with."""
    return any(t.measures == "angle" and t.id != EYE.id for t in evaluation.state.plan.toolbox)
