"""The car as it was found, before anything of a job was turned, beside how it stands now.

Source: docs/choices.md, As found and as left.
"""

from dataclasses import dataclass

from ready_corner.core.judge.marks import Evaluation, MarkState, evaluate
from ready_corner.core.judge.memory import note, remembered
from ready_corner.core.record.happenings import Turned
from ready_corner.core.record.logbook import fold_all
from ready_corner.core.record.notes import Job


@dataclass(frozen=True)
class FoundMark:
    """One mark with an aim: as it was found (None where it was not read before something was turned), and as it stands now."""

    found: MarkState | None
    now: MarkState


@remembered
def as_found(evaluation: Evaluation) -> tuple[FoundMark, ...]:
    """Return every mark with an aim as it was found in the present job, and as it stands now. A job begins where it is said to, else with the log."""
    note("entries")  # which of them turned something, and where the job begins
    state = evaluation.given
    begun = max((e.number for e in state.entries if isinstance(e.what, Job) and e.id not in state.struck), default=0)
    turned = next(
        (e.number for e in state.entries if e.number > begun and isinstance(e.what, Turned) and e.id not in state.struck), None
    )
    then = evaluation if turned is None else evaluate(fold_all(None, [e for e in state.entries if e.number < turned]))
    rows = []
    for mark in evaluation.marks:
        if mark.aim is None:
            continue
        was = then.mark(mark.mark)
        rows.append(FoundMark(was if was.value is not None and was.number > begun else None, mark))
    return tuple(rows)
