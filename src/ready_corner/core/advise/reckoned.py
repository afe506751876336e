"""What a log has to pass before it is kept, whichever way it comes: each entry against those before it, and the car as a whole.

Source: docs/record.md, what keeps an entry out.
"""

from collections.abc import Callable, Sequence

from ready_corner.core.advise.accept import judged_with
from ready_corner.core.advise.car import CarJudged, judge_car
from ready_corner.core.advise.pickups import pickups
from ready_corner.core.advise.standing import stance
from ready_corner.core.judge.frame import Frame
from ready_corner.core.judge.marks import Evaluation, evaluate
from ready_corner.core.quantities.errors import MeasuredError, ReadyCornerError, UnusualError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.record.happenings import Turned
from ready_corner.core.record.logbook import CarState, Entry, PlanRevised, Unreadable, check, fold, fold_all
from ready_corner.core.record.notes import Correction
from ready_corner.core.record.readings import GAPS, Reading


class NotReckonedError(MeasuredError):
    """With an entry the car could not be reckoned any more; ``kind`` is the name of what went wrong, for whoever mends it."""

    code = "not_reckoned"

    def __init__(self, kind: str, *, plan: bool = False) -> None:
        self.kind = kind
        super().__init__(finding("entry.not-reckoned", fault=kind, plan=plan))


def reckoned(state: CarState, earlier: Evaluation | None = None) -> CarJudged:
    """Return a car judged, every stage of it. Raises NotReckonedError, as of its plan, where some stage could not be reckoned.

    Source: see the module.
    """
    try:
        judged = judge_car(evaluate(state, earlier))
        stance(judged.evaluation)
        pickups(Frame(state.plan, state.jig, state.gone), state.moved, {})
    except Exception as wrong:
        raise NotReckonedError(type(wrong).__name__, plan=True) from wrong
    return judged


def in_the_way(state: CarState) -> tuple[Entry, NotReckonedError] | None:
    """Return the earliest entry since which some stage of a car cannot be reckoned, and what is said of it; None where all of it can.

    Source: see the module.
    """
    try:
        reckoned(state)
    except NotReckonedError as wrong:
        entry = failing_since(state.entries, reckoned)
        return entry, NotReckonedError(wrong.kind, plan=isinstance(entry.what, PlanRevised))
    return None


def failing_since(entries: Sequence[Entry], judge: Callable[[CarState], object]) -> Entry:
    """Return the earliest entry of a log since which its car cannot be judged: by halving, each half folded and judged.

    Source: see the module.
    """

    def fails(count: int) -> bool:
        try:
            judge(fold_all(None, entries[:count]))
        except Exception:
            return True
        return False

    low, high = 0, len(entries)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (low, middle) if fails(middle) else (middle, high)
    return entries[high - 1]


def admitted(state: CarState | None, entries: Sequence[Entry]) -> tuple[CarState, list[tuple[int, ReadyCornerError]]]:
    """Return the state after entries that were kept elsewhere, and what keeps some of them out, each with its index; those are not in the state.

    What is only asked about was answered where it was kept. ``state``: what they come after; None where they begin with a plan.
    Source: see the module.
    """
    refused: list[tuple[int, ReadyCornerError]] = []
    waiting: list[Entry] = []
    last: Evaluation | None = None
    if state is None:
        state, entries, begun = fold(None, entries[:1]), entries[1:], 1
    else:
        begun = 0
    for i, entry in enumerate(entries, start=begun):
        what = entry.what
        edge = isinstance(what, Reading) and what.quantity in GAPS[:2]
        if waiting and (edge or isinstance(what, Turned | Correction) or isinstance(waiting[-1].what, PlanRevised)):
            state, waiting = fold_all(state, waiting), []
        try:
            if edge:
                last = judged_with(state, entry, last)
                state = last.given
                continue
            if not isinstance(what, Unreadable):
                check(state, what)
        except UnusualError:
            pass
        except ReadyCornerError as wrong:
            refused.append((i, wrong))
            continue
        except Exception as wrong:
            refused.append((i, NotReckonedError(type(wrong).__name__)))
            continue
        waiting.append(entry)
    return (fold_all(state, waiting) if waiting else state), refused
