"""Taking one more entry into the log, and what it would mean before it is taken.

Source: docs/record.md, what keeps an entry out.
"""

from dataclasses import dataclass

from ready_corner.core.advise.corner import caution_of, to_go
from ready_corner.core.advise.next import aim_of
from ready_corner.core.advise.perches import CROSS
from ready_corner.core.advise.standing import stance
from ready_corner.core.judge.fits import question
from ready_corner.core.judge.marks import Evaluation, MarkState, State, evaluate
from ready_corner.core.plan.marks import AIMED_KINDS as CORNER_MARKS
from ready_corner.core.plan.marks import OfMark, kind_of
from ready_corner.core.plan.names import turn_parts
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.record.happenings import Turned
from ready_corner.core.record.logbook import CarState, Entry, check, fold_on
from ready_corner.core.record.readings import GAPS, PAD_WAYS, QUANTITIES, Reading, mark_at

ON_IT = 0.05  # mm; nearer than this nothing is left to go


def accept(state: CarState, entry: Entry, before: Evaluation | None = None) -> CarState:
    """Return the state with one more entry; raises what keeps it out, and then nothing has changed.

    ``before``: the evaluation of an earlier state, to save work.
    Raises as :func:`logbook.check`, and StringError where a reading makes a pair of gaps that no straight string can give.
    """
    return judged_with(state, entry, before).given


def judged_with(state: CarState, entry: Entry, before: Evaluation | None = None) -> Evaluation:
    """Return the same, judged."""
    check(state, entry.what)
    found = evaluate(fold_on(state, [entry]), before)
    edge = isinstance(entry.what, Reading) and entry.what.quantity in GAPS[:2]
    if edge and (refusal := found.figures.refusal("toe", entry.what.corner)):  # type: ignore[union-attr]
        raise refusal
    return found


@dataclass(frozen=True)
class Preview:
    """What an entry would mean: the figure as read, the mark then, and what is still to go in large letters."""

    said: Finding
    means: Finding | None
    state: State | None = None
    large: Finding | None = None
    caution: Finding | None = None


def preview(now: Evaluation, what: Reading | Turned) -> Preview:
    """Return what a reading or a turn would mean, without taking it; raises what would keep it out."""
    evaluation = judged_with(now.given, Entry("preview", now.given.number + 1, what), now)
    if isinstance(what, Turned):
        return _preview_turn(now, what)
    said = finding("preview.read", reading=what)
    if not QUANTITIES[what.quantity].mark:
        return Preview(said, *_behind(evaluation, what))
    mark = evaluation.mark(mark_at(QUANTITIES[what.quantity].mark, what.corner))
    if mark.value is None:
        return Preview(said, _against_string(evaluation, what) or mark.reason)
    large = to_go(evaluation, what.corner, what.figure) if what.quantity == "height" else None
    would = _would(mark)
    if what.quantity == "load" and (cross := evaluation.mark(CROSS)).value is not None:
        return Preview(said, finding("preview.load", load=would, cross=_would(cross), aim=_aim(cross)), cross.state)
    upright, odd = what.upright_deg or 0, mark.odd is not None
    means = finding("preview.mark", would=would, aim=_aim(mark), upright=upright, odd=odd)
    return Preview(said, means, mark.state, large, question(evaluation, mark.mark))


def _would(mark: MarkState) -> Finding:
    value = OfMark(mark.mark, mark.value or 0.0, mark.denominator)
    return finding("preview.would-be", quantity=kind_of(mark.mark), value=value, sure=OfMark(mark.mark, mark.expanded or 0.0))


def _aim(mark: MarkState) -> Finding:
    return finding("preview.aim", aim=aim_of(mark)) if mark.aim else finding("preview.no-aim")


def _behind(evaluation: Evaluation, what: Reading) -> tuple[Finding | None, State | None, Finding | None]:
    """Return what a reading that is no mark's own would mean: no state, and what is to go in large letters."""
    if what.quantity in PAD_WAYS:
        return _floor(evaluation), None, None
    if what.quantity == "radius":
        return finding("preview.radius", stand_in=what.corner in evaluation.state.stance.stand_ins), None, None
    found = stance(evaluation)
    if what.quantity == "stand":
        return found.stand_says[0], None, None
    hub = next((h for h in found.hubs if h.corner == what.corner), None)
    if hub is None or hub.ride is None:
        return found.stand_says[0] if found.stand_says else None, None, None
    left = hub.wanted - what.value
    if abs(left) < ON_IT:
        return finding("preview.hub-on-it"), None, finding("to-go.on-it")
    stands = finding("preview.hub", ride=hub.ride, higher=hub.ride > 0)
    return stands, None, finding("to-go.hub", size=left, up=left > 0)


def _against_string(evaluation: Evaluation, what: Reading) -> Finding | None:
    spells = evaluation.figures.read.spells(what.corner, ("gap_front", "gap_back"))
    if not spells:
        return None
    try:
        toe = evaluation.figures.strings.against_string(what.corner, spells[-1])
    except MeasuredError:
        return None
    return finding("preview.against-string", toe=OfMark(f"{what.corner}.toe", toe.value))


def _floor(evaluation: Evaluation) -> Finding:
    floor = evaluation.figures.ground.floor
    if floor is None:
        return finding("preview.floor-level")
    nose, left = floor.slope_deg
    return finding("preview.floor", nose=nose, down=nose > 0, left=left, up=left > 0)


def _preview_turn(evaluation: Evaluation, what: Turned) -> Preview:
    adjuster = evaluation.state.plan.adjuster(what.adjuster)
    even = adjuster.evenly(evaluation.state.moved.get(adjuster.id, 0.0), what.amount)
    would = []
    for kind in CORNER_MARKS:
        mark = evaluation.mark(f"{adjuster.corner}.{kind}")
        worth = evaluation.worth_now(mark.mark).of(adjuster.id)
        guess = evaluation.is_guess(mark.mark, adjuster)
        if mark.value is not None and worth is not None and kind != "height" and not guess:
            value = OfMark(mark.mark, mark.value + worth * even, 0)
            would.append(finding("preview.would-read", quantity=kind, value=value))
    size, way = turn_parts(adjuster, what.amount)
    length = abs(even * adjuster.length_per_step)
    means = finding("preview.turn", length=length, way=way, would=would)
    return Preview(finding("turn.turn", size=size, way=way), means, None, None, caution_of(adjuster))
