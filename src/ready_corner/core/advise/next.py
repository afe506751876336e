"""What to measure, in the order one walks round the car, and what to do next.

Source: docs/choices.md, What is next.
"""

import math
from dataclasses import dataclass
from itertools import chain
from typing import Literal

from ready_corner.core.advise.corner import finest, perch_turn, set_corner
from ready_corner.core.advise.lift import WALK, costs, lift
from ready_corner.core.advise.perches import CROSS
from ready_corner.core.advise.provable import proving_tools
from ready_corner.core.advise.read_first import read_first
from ready_corner.core.advise.standing import turns_now
from ready_corner.core.judge.fits import questions
from ready_corner.core.judge.marks import Evaluation, MarkState
from ready_corner.core.judge.memory import remembered
from ready_corner.core.judge.read import default_tool
from ready_corner.core.plan.corners import AROUND, CORNERS, ROUND_AND_BACK, Corner
from ready_corner.core.plan.marks import AIMED_KINDS, ANGLES, CORNER_KINDS, MARK_KINDS, OVER_FLOOR, OfMark, kind_of
from ready_corner.core.plan.names import turn_parts
from ready_corner.core.plan.plan import Plan, StringsOn
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.tools import EYE, Tool
from ready_corner.core.quantities.verdict import MOST_REPEATS
from ready_corner.core.record.happenings import has_bar
from ready_corner.core.record.jig_acts import Support, Zero
from ready_corner.core.record.readings import PAD_WAYS, QUANTITIES, Drawing, Place, Quantity, Reading, Round, mark_at, read_by

PADS: tuple[Place, ...] = tuple((c, "pad") for c in AROUND)
PAD_STEPS: tuple[Place, ...] = tuple((c, "pad_step") for c in ROUND_AND_BACK)


@dataclass(frozen=True)
class Ask:
    """One place of the round: what to read, with which tool, what was read last, and whether it is wanted now.

    ``tool``: that of its latest reading, else its usual one; ``at``: the feature of the chassis its height is read at; ``latest``: of so many
    ``repeats``. ``zero``: what the gauge is zeroed on as told last; None where nothing is zeroed to read it. ``string``: what the strings rest on,
    empty where that was not said; None where none comes into it. ``stands``: how the car is held as told last, where the floor decides what is read;
    ``on the jig`` where nobody said; else None. ``runs_out``: by how much the rim was found to run out there in all, mm or degrees.
    """

    corner: Corner
    quantity: Quantity
    tool: Tool
    at: str
    wanted: bool
    latest: Reading | None
    repeats: int
    drawing: Drawing
    zero: Zero | None = None
    string: StringsOn | None = None
    stands: Support | None = None
    runs_out: float | None = None


def round_of(evaluation: Evaluation) -> tuple[Ask, ...]:
    """Return every place of the round in walking order; pads first where one of them was ever read."""
    pads = (way for way in (PADS, PAD_STEPS) if any(p in evaluation.state.taken for p in way))
    return tuple(_ask(evaluation, place) for place in (*chain.from_iterable(pads), *_walked(evaluation, "set")))


def floor_round(evaluation: Evaluation) -> tuple[Ask, ...]:
    """Return every place that is read of the car on its wheels at the stage Stance: pads, heights, loads where scales come into it, radii of tyres; steps from
    pad to pad once they are begun."""
    begun = any(p in evaluation.state.taken for p in PAD_STEPS)
    return tuple(_ask(evaluation, place) for place in _walked(evaluation, "floor") if begun or place not in PAD_STEPS)


def stand_round(evaluation: Evaluation) -> tuple[Ask, ...]:
    """Return every place that is read of the car on its stands: heights of the chassis, then the hubs."""
    return tuple(_ask(evaluation, place) for place in _walked(evaluation, "stands"))


@remembered
def _walked(evaluation: Evaluation, round_: Round) -> tuple[Place, ...]:
    """Return the places of a round in the order one walks: all round for each quantity, then those that are read together at a corner."""
    state = evaluation.state
    asked = {
        q: facts
        for q, facts in QUANTITIES.items()
        if round_ in facts.walked
        and (not facts.if_aimed or state.plan.aim(facts.if_aimed) or any((c, q) in state.taken for c in facts.corners))
    }
    all_round = (
        (c, q)
        for q, facts in asked.items()
        if not facts.corner_by_corner
        for c in (ROUND_AND_BACK if q == "pad_step" else AROUND)
        if c in facts.corners and _in_its_way(state.plan, c, q)
    )
    by_corner = (
        (c, q)
        for c in WALK
        for q, facts in asked.items()
        if facts.corner_by_corner and c in facts.corners and _in_its_way(state.plan, c, q)
    )
    return (*all_round, *by_corner)


def _in_its_way(plan: Plan, corner: Corner, quantity: Quantity) -> bool:
    """Whether a quantity is read in the way in which the plan reads one of its marks; so is what is read for none."""
    strings = QUANTITIES[quantity].strings
    if strings and plan.ways.strings not in strings:
        return False
    if (way := QUANTITIES[quantity].of_way) and plan.ways.reads(QUANTITIES[quantity].mark).name != way:
        return False
    return not read_by(quantity) or bool(_for_marks(plan, corner, quantity))


def _for_marks(plan: Plan, corner: Corner, quantity: Quantity) -> list[str]:
    """Return the marks that are asked for, and for which the plan reads a quantity at a corner."""
    kinds = [k for k in read_by(quantity) if quantity in plan.ways.reads(k).read]
    return [m for k in kinds if (m := mark_at(k, corner)) and (not MARK_KINDS[k].only_aimed or plan.aim(m))]


def ask_of(evaluation: Evaluation, place: Place) -> Ask:
    """Return one place of the round, whether or not it is among those walked."""
    return _ask(evaluation, place)


def _read_beside(evaluation: Evaluation, corner: Corner, broken: int) -> bool:
    """Whether a toe is read against the line as it lies since an entry, or is to be: one that was read before holds with the line as it lay then."""
    mark = evaluation.mark(f"{corner}.toe")
    figure = evaluation.figures.figure("toe", corner)
    return evaluation.is_wanted(mark.mark) and (not mark.fresh or figure is None or figure.number > broken)


@remembered
def _ask(evaluation: Evaluation, place: Place) -> Ask:
    corner, quantity = place
    state = evaluation.state
    rows, tool = state.latest(place), proving_tools(state.plan).get(quantity) or default_tool(state.plan, quantity)
    if rows:
        tool = next((t for t in state.plan.toolbox if t.id == rows[-1].reading.tool), tool)
    latest, at = rows[-1].reading if rows else None, state.plan.height_place(corner).name
    zero = state.jig.zero if QUANTITIES[quantity].gauged else None
    string = state.plan.ways.strings_on if QUANTITIES[quantity].scene == "string" else None
    stands = state.jig.support if QUANTITIES[quantity].floor else None
    wanted, drawing = _is_wanted(evaluation, place), QUANTITIES[quantity].drawing
    runs_out = evaluation.figures.read.group(place, rows[-1].spell).runs_out if rows else None
    return Ask(corner, quantity, tool, at, wanted, latest, len(rows), drawing, zero, string, stands, runs_out)


def _is_wanted(evaluation: Evaluation, place: Place) -> bool:
    """Whether a place is to be read now: never read, or its mark is unread or moved and the place not read since."""
    corner, quantity = place
    state, rows = evaluation.state, evaluation.state.latest(place)
    if quantity == "radius":  # that of the plan will do, but of a stand-in there is none
        since = state.stance.stand_ins.get(corner)
        return since is not None and not (rows and rows[-1].number > since)
    if quantity in PAD_WAYS and _pads_otherwise(evaluation, place):
        return False
    every, behind_it = _for_marks(state.plan, corner, quantity), QUANTITIES[quantity].asked_for
    asked = [m for m in every if evaluation.is_wanted(m)]
    if (every and not asked) or (
        not every and behind_it and not any(evaluation.is_wanted(f"{c}.{k}") for k in behind_it for c in MARK_KINDS[k].corners)
    ):
        return False  # nobody wants what is read here
    if not rows:  # what is known already in another way need not be read in this one
        return not asked or any(not evaluation.mark(m).fresh for m in asked)
    if not QUANTITIES[quantity].mark:
        return state.spells.get(place, 0) > rows[-1].spell
    if QUANTITIES[quantity].outlives and "string" not in QUANTITIES[quantity].moved_by:
        return state.spells.get(place, 0) > rows[-1].spell
    if QUANTITIES[quantity].outlives:  # a turn of a link that leaves the hub about where it was, but not a move of the strings
        figures = evaluation.figures
        if quantity == "gap_hub" and figures.hubs.left(figures.strings.line(corner), rows[-1].number):
            return True
        broken = state.rig_breaks[-1] if state.rig_breaks else 0
        return broken > rows[-1].number and any(
            _read_beside(evaluation, c, broken) for c in figures.strings.line(corner) or (corner,)
        )
    marks = [evaluation.mark(mark_at(k, corner)) for k in read_by(quantity) or (QUANTITIES[quantity].mark,)]
    behind = state.spells.get(place, 0) > rows[-1].spell
    return behind and any(m.state in ("moved since", "unread") or m.aim is None for m in marks)


OUT_REPEATS, HARDLY_OUT = 3, 1.5  # as often one is read that is out by no more than so many U before a plan is blamed for it
StepKind = Literal["settle", "disconnect", "state", "read", "lift", "perch", "turn", "try", "reconnect", "done", "plan"]


@dataclass(frozen=True)
class Step:
    """What to do next, its reason, and where to go for it; ``half``: it is read with the wheel half a turn round."""

    kind: StepKind
    sentence: Finding
    reason: Finding | None
    corner: Corner | None = None
    quantity: Quantity | None = None
    half: bool = False


@remembered
def next_step(evaluation: Evaluation) -> Step:
    """Return the next thing to do: what is left of a lift, settle, read, then one lift for the whole car; what no lift betters, one by one."""
    state = evaluation.state
    if not state.plan.aims_now:
        build = state.plan.stage == "build"
        return Step("plan", finding("next.say-aims"), finding("because.no-aims", build=build))
    if evaluation.before_turns is not evaluation and (left := _lift_step(evaluation)):
        return left
    if not state.condition.settled:
        return Step("settle", finding("next.settle"), finding("because.unsettled"))
    if odd := next(iter(questions(evaluation).items()), None):
        place = _place_of(evaluation, evaluation.mark(odd[0]))
        return Step("read", finding("next.question", what=place), odd[1], *place)
    judged = [m for m in evaluation.marks if m.state is not None]
    order = [m for m in judged if kind_of(m.mark) in AIMED_KINDS]
    heights = [m for m in order if kind_of(m.mark) == "height"]
    if floor := _floor_first(evaluation):
        return floor
    held: list[Step] = []  # what keeps a mark from holding that nothing which can be done from here would mend
    if fresh := _to_read(evaluation, heights):
        return _bar_off(evaluation, fresh)
    if fresh := _to_read(evaluation, order):
        return fresh
    if first := next((m for m in order if m.aim and read_first(evaluation, m.mark)), None):
        return _first_read(evaluation, first)
    if told := _lift_step(evaluation):
        return told
    for mark in heights:
        if mark.state == "out":
            step = _stuck_or(evaluation, mark, _height_step(evaluation, mark))
            if step.kind != "plan":
                return _bar_off(evaluation, step)
            held.append(step)
    return _of_corners(evaluation, order, held) or Step("done", finding("next.done"), finding("because.done"))


def _first_read(evaluation: Evaluation, mark: MarkState) -> Step:
    """Return what is read of a mark before anything is turned for it, and why."""
    said = evaluation.state.stance.state
    if mark.provisional and said and said.wanting:
        return _unsure_step(evaluation, mark)
    place = _place_to_settle(evaluation, mark)
    read: tuple[Quantity, ...] = evaluation.state.plan.ways.reads(kind_of(mark.mark)).read  # type: ignore[assignment]
    for quantity in read:
        rows = evaluation.state.latest((place[0], quantity))
        if rows and (rows[-1].why if mark.provisional else mark.by_eye and rows[-1].reading.tool == EYE.id):
            place = (place[0], quantity)
            break
    why = read_first(evaluation, mark.mark)
    if why is not None and why.kind == "first.wide" and evaluation.finer(mark.mark) == finding("settle.floor"):
        place = _pad_to_read(evaluation) or place
    because = finding("because.first", mark=mark.mark, why=why)
    if why is not None and why.kind == "first.wide" and evaluation.finer(mark.mark) == finding("settle.read-half"):
        return _half_step(evaluation, mark, because)
    step = Step("read", finding("next.read", what=place), because, *place)
    return _bar_off(evaluation, step) if place[1] in ("height", "load") else step


def _half_step(evaluation: Evaluation, mark: MarkState, because: Finding) -> Step:
    """Return what is read with the wheel half a turn round, so that run-out falls out of a mark: the first place of it not read so yet."""
    corner, _ = _place_of(evaluation, mark)
    read: tuple[Quantity, ...] = evaluation.state.plan.ways.reads(kind_of(mark.mark)).read  # type: ignore[assignment]
    state, turns = evaluation.state, dict[Quantity, set[float]]()
    for q in read:  # at which turns of the wheel each was read since anything was turned that could have moved it
        now = state.spells.get((corner, q), 0)
        turns[q] = {t.reading.turned_deg for t in state.taken.get((corner, q), ()) if t.spell == now}
    # What has moved a little since is read anew as it stands too: half a turn of then tells nothing beside what was read before.
    if plain := next((q for q in read if not turns[q]), None):
        return Step("read", finding("next.read", what=(corner, plain)), because, corner, plain)
    place = corner, next((q for q in read if len(turns[q]) < 2), read[0])
    lone = turns[place[1]] == {180.0}
    return Step("read", finding("next.read" if lone else "next.read-half", what=place), because, *place, half=not lone)


def _pads_otherwise(evaluation: Evaluation, place: Place) -> bool:
    """Whether a pad need not be read at a place: the floor is known, or is being read in the other way; one that was changed since is read as it was."""
    state, rows = evaluation.state, evaluation.state.latest(place)
    if rows and state.spells.get(place, 0) > rows[-1].spell:
        return False
    stepped, each = (any(p in state.taken for p in way) for way in (PAD_STEPS, PADS))
    return bool(evaluation.figures.ground.pads) or (each and not stepped if place in PAD_STEPS else stepped)


def _pad_to_read(evaluation: Evaluation) -> Place | None:
    """Return the pad to read next where the floor is wanted: the next step of a round that was begun, else the next of the four; None where they are known."""
    taken = evaluation.state.taken
    if evaluation.figures.ground.pads:
        return None
    return next((p for p in (PAD_STEPS if any(p in taken for p in PAD_STEPS) else PADS) if p not in taken), None)


def _floor_first(evaluation: Evaluation) -> Step | None:
    """Return the pad to read first where an angle is wanted and nothing is known of the floor; None once all are read, or the plan has it level."""
    plan = evaluation.state.plan
    wanted = any(kind_of(a.mark) in OVER_FLOOR for a in plan.aims_now)
    place = _pad_to_read(evaluation)
    if (
        not wanted
        or place is None
        or not plan.ways.sure("floor")
        or any(kind_of(m.mark) in OVER_FLOOR and m.fresh for m in evaluation.marks)
    ):
        return None
    reason = finding(
        "because.floor", off=plan.ways.sure("floor"), angle=math.degrees(plan.ways.sure("floor") / plan.front.track)
    )
    return Step("read", finding("next.read", what=place), reason, *place)


def _stuck_or(evaluation: Evaluation, mark: MarkState, step: Step) -> Step:
    """Return a step for one mark, unless it is a turn or a trial and the whole car was reckoned together: then none brings it on, and what would have to change is said."""
    found = lift(evaluation)
    if step.kind == "plan" and (again := _once_more(evaluation, mark)):
        return again
    if step.kind not in ("turn", "perch", "try") or found is None:
        return step
    corner = next((c for c in CORNERS if mark.mark.startswith(f"{c}.")), None)
    if again := _once_more(evaluation, mark):
        return again
    then = next((e for e in found.expected if e.mark == mark.mark), None)
    left = abs(then.value - mark.aim.aim) if then and mark.aim else math.inf
    tried = finding(
        "set.searched",
        count=found.tried,
        several=found.tried != 1,
        left=OfMark(mark.mark, left, 0) if left < abs(mark.deviation or 0.0) else None,
    )
    coarse = finest(evaluation, mark)
    spoilt = costs(evaluation, mark.mark)
    reason = finding("because.no-lift", finest=coarse or tried, ended=found.ended, spoilt=spoilt, wide=_wide_enough(mark))
    return Step("plan", finding("next.no-lift", mark=mark.mark, reason=mark.reason), reason, corner)


def _once_more(evaluation: Evaluation, mark: MarkState) -> Step | None:
    """Return the reading that is taken before a plan is blamed: of a mark that is too close to call as often as that may help, of one that is out by hardly more than its U
    until that is sure; None where it was read as often."""
    if kind_of(mark.mark) not in CORNER_KINDS or mark.aim is None or not mark.repeats:
        return None
    if mark.state == "too close to call":
        if mark.repeats >= MOST_REPEATS or mark.way not in ("turn", "plan", ""):
            return None
        most = MOST_REPEATS
    else:
        beyond = -mark.aim.margin(mark.deviation or 0.0)
        if mark.state != "out" or mark.repeats >= OUT_REPEATS or beyond > HARDLY_OUT * (mark.expanded or 0.0):
            return None
        most = OUT_REPEATS
    place = _place_to_settle(evaluation, mark)
    again = finding("because.once-more", mark=mark.mark, reason=mark.reason, times=mark.repeats, most=most)
    return Step("read", finding("next.read", what=place), again, *place)


def _lift_step(evaluation: Evaluation) -> Step | None:
    """Return the next turn of the lift; before the first perch of one the scales, where cross weight is wanted and was not read."""
    found = lift(evaluation)
    if found is None or found.next is None:
        return None
    turn, perches = found.next, any(t.of.raises for t in found.turns)
    if perches and not found.begun and evaluation.state.plan.footing.school != "height":
        cross = evaluation.mark("car.cross_weight")
        if cross.state in ("unread", "moved since") and (scales := _weight_step(evaluation)):
            return _bar_off(evaluation, scales)
    at, name = turn.of.corner, turn.of.name
    reason = finding(
        "because.lift", corner=at, adjuster=name, turn=turn.said, begun=found.begun, why=found.reason, caution=turn.caution
    )
    step = Step("lift", found.sentence, reason, turn.of.corner)
    return _bar_off(evaluation, step) if perches and not found.begun else step


def _bar_off(evaluation: Evaluation, step: Step) -> Step:
    """Return what comes before a step that is about heights: the links of a bar that is on are taken off."""
    if not (has_bar(evaluation.state.plan) and evaluation.state.condition.bar_connected):
        return step
    return Step("disconnect", finding("next.bar-off"), finding("because.bar-holds-up", then=step.sentence))


def _of_corners(evaluation: Evaluation, order: list[MarkState], held: list[Step]) -> Step | None:
    """Return what to do when all is read and no height can be turned nearer: turns, what is too close to call, then the car as a whole; last what is ``held``."""
    judged = [m for m in evaluation.marks if m.state is not None]
    for corner in CORNERS:
        off = [m for m in order if m.mark.startswith(corner) and m.state == "out" and kind_of(m.mark) != "height"]
        if off:
            step = _stuck_or(evaluation, off[0], _corner_step(evaluation, corner, off))
            if step.kind != "plan":
                return step
            held.append(step)
    for unsure in [m for m in judged if m.state == "too close to call"]:
        step = _stuck_or(evaluation, unsure, _unsure_step(evaluation, unsure))
        if step.kind != "plan":
            return _bar_off(evaluation, step) if step.quantity in ("height", "load") else step
        held.append(step)
    if (weight := _weight_step(evaluation)) and _stuck_or(evaluation, evaluation.mark(CROSS), weight).kind != "plan":
        return _bar_off(evaluation, weight)
    if not evaluation.state.condition.bar_connected:
        return Step("reconnect", finding("next.bar-on"), finding("because.bar-is-off"))
    rest = next((m for m in judged if m.state not in ("holds", "too close to call") and m not in order), None)
    if rest:
        return _whole_step(evaluation, rest)
    return held[0] if held else None


def _place_of(evaluation: Evaluation, mark: MarkState) -> Place:
    """Return the place where a mark is read next: of a whole-car mark the one of its corners that was read longest ago."""
    corner = next((c for c in CORNERS if mark.mark.startswith(f"{c}.")), None)
    if corner is None:
        parts = [evaluation.mark(name) for name, weight in evaluation.figures.whole(mark.mark) if weight]
        return _place_of(evaluation, min(parts, key=lambda m: (m.fresh, m.number)))
    read: tuple[Quantity, ...] = evaluation.state.plan.ways.reads(kind_of(mark.mark)).read  # type: ignore[assignment]
    return corner, next((q for q in read if (corner, q) not in evaluation.state.taken), read[0])


def _place_to_settle(evaluation: Evaluation, mark: MarkState) -> Place:
    """Return where a mark that is too close to call is read once more: of the places it hangs on the one not read yet with the tool that would settle
    it, else the one read least often."""
    corner, quantity = _place_of(evaluation, mark)
    if kind_of(mark.mark) not in CORNER_KINDS:
        return corner, quantity
    wanted = dict(mark.settle.figures).get("tool") if mark.settle else None
    read: tuple[Quantity, ...] = evaluation.state.plan.ways.reads(kind_of(mark.mark)).read  # type: ignore[assignment]

    def done(q: Quantity) -> tuple[int, bool, int]:
        rows = evaluation.state.latest((corner, q))
        with_it = bool(rows) and evaluation.figures.read.group((corner, q), rows[-1].spell).tool.name == wanted
        return rows[-1].spell if rows else -1, with_it, len(rows)  # one that was not read since anything moved it comes first

    return corner, min(read, key=done)


def _unsure_step(evaluation: Evaluation, mark: MarkState) -> Step:
    """Return what settles a mark that is too close to call: a reading, a turn, or what would have to change in the plan."""
    corner, quantity = _place_to_settle(evaluation, mark)
    named = finding("next.too-close", mark=mark.mark)
    reason = finding("because.close", reason=mark.reason, settle=mark.settle)
    if mark.way == "ready":
        said = evaluation.state.stance.state
        if said and said.wanting:
            return Step("state", finding("next.car-is", why=said.wanting), finding("because.named", named=named, reason=reason))
        return Step("read", named, reason, corner, quantity)
    if mark.way == "hubs":
        line = evaluation.figures.strings.line(corner)
        longest = min(line, key=lambda c: evaluation.state.latest((c, "gap_hub"))[-1].number)
        return Step("read", named, reason, longest, "gap_hub")
    if mark.way == "half":
        return _half_step(evaluation, mark, reason)
    if mark.way == "turn":
        if kind_of(mark.mark) == "height":
            together = turns_now(evaluation)[0]
            if together and together.steps:
                return _height_step(evaluation, mark)
        elif mark.mark in [f"{corner}.{kind}" for kind in ANGLES]:
            step = _corner_step(evaluation, corner, [mark])
            if step.kind in ("turn", "try"):
                return step
            reason = finding("because.close", reason=mark.reason, settle=step.reason)
        return Step("plan", named, finding("because.wide-enough", reason=reason, wide=_wide_enough(mark)))
    if mark.way == "pads" and (place := _pad_to_read(evaluation)):
        return Step("read", named, reason, *place)
    if mark.way == "plan":
        return Step("plan", named, reason)
    return Step("read", named, reason, corner, quantity)


def _wide_enough(mark: MarkState) -> OfMark:
    """Return the tolerance with which a mark would hold as it is."""
    return OfMark(mark.mark, abs(mark.deviation or 0.0) + (mark.expanded or 0.0), 0)


def _whole_step(evaluation: Evaluation, mark: MarkState) -> Step:
    """Return what to do for a mark of the car as a whole, its corners holding or having no aim of their own."""
    corner, quantity = _place_of(evaluation, mark)
    named = finding("next.whole", mark=mark.mark, reason=mark.reason)
    if mark.state in ("unread", "moved since"):
        return Step("read", named, finding("because.whole"), corner, quantity)
    parts = [evaluation.mark(name) for name, weight in evaluation.figures.whole(mark.mark) if weight]
    if mark.mark == "car.cross_weight" and evaluation.state.plan.footing.school == "height":
        return Step("plan", named, finding("because.by-height-alone"))
    if mark.mark == "car.cross_weight" and all(evaluation.state.plan.perch(c) for c in CORNERS):
        short = turns[0].short if (turns := turns_now(evaluation))[0] else ()
        return Step("plan", named, finding("because.cross-stuck", short=short, wide=_wide_enough(mark)))
    wide = _wide_enough(mark)
    if not any(MARK_KINDS[kind_of(m.mark)].aimed for m in parts):
        return Step("plan", named, finding("because.no-adjuster", wide=wide))
    bare = tuple(m.mark for m in parts if m.aim is None)
    if bare:
        return Step("plan", named, finding("because.no-own-aims", marks=bare))
    return Step("plan", named, finding("because.sum", wide=wide))


def _weight_step(evaluation: Evaluation) -> Step | None:
    """Return what is to be done for the cross weight, once the rest holds; None where it is not wanted or holds."""
    cross = evaluation.mark("car.cross_weight")
    if cross.state == "out" and (weighed := turns_now(evaluation)[0]) and weighed.school != "height" and weighed.steps:
        first = weighed.steps[0]
        reason = finding("because.cross", reason=cross.reason, caution=first.caution)
        return Step("perch", first.said, reason, first.corner, "load")
    if cross.state in ("unread", "moved since"):
        loads = {c: evaluation.mark(f"{c}.load") for c in CORNERS}
        at = min(CORNERS, key=lambda c: (loads[c].fresh, loads[c].number))  # the sum may have moved where no load by itself has
        moved = None if cross.state == "unread" else cross.reason
        return Step("read", finding("next.scales"), finding("because.scales", aim=aim_of(cross), moved=moved), at, "load")
    return None


def _to_read(evaluation: Evaluation, marks: list[MarkState]) -> Step | None:
    waiting = [m for m in marks if m.state in ("unread", "moved since")]
    if not waiting:
        return None
    asks = [a for a in round_of(evaluation) if a.wanted and any(m.mark in _wants(a) for m in waiting)]
    if not asks:
        return None
    first = asks[0]
    left = finding("because.places", count=len(asks), several=len(asks) > 1)
    moved = next((m for m in waiting if m.state == "moved since"), None)
    reason = finding("because.moved", mark=moved.mark, reason=moved.reason, left=left) if moved else left
    return Step("read", finding("next.read", what=(first.corner, first.quantity)), reason, first.corner, first.quantity)


def _wants(ask: Ask) -> tuple[str, ...]:
    """Return the marks that want a place read: those that are read by it, or the one it stands behind."""
    facts = QUANTITIES[ask.quantity]
    kinds = dict.fromkeys((*read_by(ask.quantity), *facts.asked_for))
    if facts.mark and not read_by(ask.quantity):  # what a line stands by tells of every wheel along it
        return tuple(f"{c}.{kind}" for kind in kinds for c in MARK_KINDS[kind].corners)
    return tuple(mark_at(kind, ask.corner) for kind in kinds)


def aim_of(mark: MarkState) -> Finding:
    """Return what is wanted of a mark."""
    assert mark.aim
    aim, tolerance = OfMark(mark.mark, mark.aim.aim), OfMark(mark.mark, mark.aim.tolerance)
    over, under = mark.aim.beyond == "over", mark.aim.beyond == "under"
    return finding("aim.wanted", aim=aim, typed=mark.aim.typed, tolerance=tolerance, over=over, under=under)


def _height_step(evaluation: Evaluation, mark: MarkState) -> Step:
    corner = next(c for c in CORNERS if mark.mark.startswith(c))
    together = turns_now(evaluation)[0]
    if together and together.steps:
        first, *more = together.steps
        then = tuple(finding("perch.then", step=p.said) for p in more)
        reason = finding("because.height", corner=corner, reason=mark.reason, then=then, caution=first.caution)
        return Step("perch", first.said, reason, first.corner, "height")
    if together:  # all four are reckoned together, and no turn betters them: one corner's own sum would only undo another
        stuck = finding("next.height-stuck", mark=mark.mark, reason=mark.reason)
        return Step(
            "plan",
            stuck,
            finding("because.height-stuck", short=together.short, spoilt=costs(evaluation, mark.mark)),
            corner,
            "height",
        )
    turn = perch_turn(evaluation, corner)
    if turn:
        size, way = turn_parts(turn.of, turn.amount)
        reason = finding("because.height-alone", reason=mark.reason, caution=turn.caution)
        return Step("perch", finding("next.wind", corner=corner, way=way, size=size), reason, corner, "height")
    named = evaluation.state.plan.perch(corner)
    bring = finding("next.bring", corner=corner, reason=mark.reason)
    return Step("perch" if named else "plan", bring, finding("because.no-perch"), corner, "height")


def _corner_step(evaluation: Evaluation, corner: Corner, off: list[MarkState]) -> Step:
    answer = set_corner(evaluation, corner)
    now = tuple(finding("next.mark-is", quantity=kind_of(m.mark), reason=m.reason) for m in off)
    if answer.why_not:
        links = any(a.corner == corner and not a.raises for a in evaluation.state.plan.adjusters)
        return Step("try" if links else "plan", finding("next.corner-is", corner=corner, now=now), answer.why_not, corner)
    assert answer.sentence
    turns = tuple(finding("next.turn", adjuster=t.name, turn=t.said) for t in answer.turns if t.amount)
    if not turns:
        return Step("plan", answer.sentence, finding("because.no-turn", reason=answer.reason, now=now), corner)
    return Step("turn", answer.sentence, finding("because.turns", turns=turns, now=now), corner)
