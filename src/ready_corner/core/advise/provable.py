"""What the tools in hand cannot prove and the threads cannot set, said of a plan before anything is measured.

A whole round is read once, as if the car stood on its aims: what the marks would then be sure to is what these tools give.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from ready_corner.core.judge.figures import default_tool
from ready_corner.core.judge.marks import Evaluation, MarkState, evaluate
from ready_corner.core.model.wanting import Wanting
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, Corner
from ready_corner.core.plan.marks import say_mark, say_size
from ready_corner.core.plan.plan import Adjuster, Plan
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.notation import FLATS_PER_TURN
from ready_corner.core.record.happenings import Happened
from ready_corner.core.record.logbook import Entry, PlanRevised, fold
from ready_corner.core.record.readings import QUANTITIES, Quantity, Reading

GAP_MM, LOAD_KG = 100.0, 100.0  # of the round that is made up; what it comes to does not hang on them


@dataclass(frozen=True)
class Limit:
    """A mark whose tolerance cannot be met: ``least`` tolerance that these tools can prove and this thread can set, in the unit of the mark; the sentence."""

    mark: str
    least: float
    say: str


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
                yield Wanting(
                    f"{end} {'ride height' if kind == 'height' else kind} that can be proved and set", "aims", "Set", worst.say
                )


def _corner_of(mark: str) -> Corner:
    return next(c for c in CORNERS if mark.startswith(f"{c}."))


def _round(plan: Plan) -> Iterator[Entry]:
    widest = max(plan.front.half_width, plan.rear.half_width)

    def figure(corner: Corner, quantity: Quantity) -> float:
        aim = plan.aim(f"{corner}.{quantity}")
        if quantity in ("height", "camber"):
            return aim.aim if aim else 100.0 if quantity == "height" else 0.0
        return LOAD_KG if quantity == "load" else GAP_MM + widest - plan.axle_of(corner).half_width

    yield Entry("1", 1, PlanRevised(plan))
    yield Entry("2", 2, Happened("bar_off"))
    yield Entry("3", 3, Happened("settled"))
    asked: tuple[Quantity, ...] = ("height", "camber", "gap_front", "gap_back", "gap_hub", "load")
    kinds = {t.measures for t in plan.toolbox}
    for n, (quantity, corner) in enumerate(((q, c) for q in asked for c in CORNERS), start=4):
        if QUANTITIES[quantity].kind in kinds:
            yield Entry(str(n), n, Reading(quantity, corner, figure(corner, quantity), default_tool(plan, quantity).id))


def _limit(found: Evaluation, mark: MarkState) -> Iterator[Limit]:
    assert mark.aim
    units, tolerance, expanded = found.state.plan.units, mark.aim.tolerance, mark.expanded or 0.0
    named = say_mark(mark.mark)
    size = say_size(mark.mark, tolerance, units, 0)
    step, adjuster = _finest(found, mark.mark)
    least = expanded + step / 2
    so = f"The least tolerance that can be proved and set is {say_size(mark.mark, least, units, 0)}."
    if expanded > tolerance:
        way = mark.read_with
        how = f" {way[:1].upper()}{way[1:]}, or widen it." if way else " Take a finer tool, or widen it."
        yield Limit(
            mark.mark, least, f"{named}: read once it is sure to {mark.say_u} only, so nothing can hold ± {size}.{how} {so}"
        )
    elif adjuster and step > tolerance:
        one = {"shims": "one shim"}.get(adjuster.kind, "half a turn" if adjuster.half_turns_only else "one flat")
        yield Limit(mark.mark, least, f"{named}: {one} of {adjuster.name} is worth {say_size(mark.mark, step, units, 0)}, more than its tolerance of {size}. A finer thread or a thinner shim, or widen it. {so}")  # fmt: skip


def _finest(found: Evaluation, mark: str) -> tuple[float, Adjuster | None]:
    """Return the least step of those adjusters that a mark is set by (no other mark of the corner feels them more), and whose it is."""
    corner, kind = mark.split(".")
    others = [f"{corner}.{k}" for k in ("height", "camber", "toe") if k != kind]
    best: tuple[float, Adjuster | None] = (0.0, None)
    for adjuster in found.state.plan.adjusters:
        felt = {
            m: abs(found.worth_now(m).of(adjuster.id) or 0.0) / a.tolerance
            for m in (mark, *others)
            if (a := found.state.plan.aim(m))
        }
        if adjuster.corner != corner or not felt.get(mark) or felt[mark] < max(felt.values()):
            continue
        step = abs(found.worth_now(mark).of(adjuster.id) or 0.0) * adjuster.flats_per_step / FLATS_PER_TURN
        if best[1] is None or step < best[0]:
            best = step, adjuster
    return best
