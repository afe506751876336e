"""What to measure, in the order one walks round the car, and what to do next."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ready_corner.core.advise.corner import perch_turn, set_corner
from ready_corner.core.advise.standing import turns_now
from ready_corner.core.judge.figures import default_tool
from ready_corner.core.judge.marks import Evaluation, MarkState
from ready_corner.core.judge.memory import remembered
from ready_corner.core.plan.aims import say_aim
from ready_corner.core.plan.corners import CORNER_WORDS, CORNERS, Corner
from ready_corner.core.plan.marks import AIMED_KINDS, MARK_KINDS, kind_of, say_mark, say_size
from ready_corner.core.plan.plan import Perch
from ready_corner.core.record.happenings import has_bar
from ready_corner.core.record.readings import QUANTITIES, SIDE_WORDS, Drawing, Place, Quantity, Round, say_reading, title_of

WALK: tuple[Corner, ...] = ("LF", "LR", "RR", "RF")
_ALL_ROUND: tuple[Corner, ...] = ("LF", "RF", "RR", "LR")
PADS: tuple[Place, ...] = tuple((c, "pad") for c in _ALL_ROUND)


@dataclass(frozen=True)
class Ask:
    """One place of the round: what to read, with what, what was read, and whether it is wanted now.

    ``tool``: that of its latest reading, else its usual one; ``latest``: that reading as said, of so many ``repeats``, and as it was typed.
    """

    corner: Corner
    quantity: Quantity
    title: str
    how: str
    tool: str
    wanted: bool
    latest: str
    repeats: int
    latest_typed: str
    drawing: Drawing


def round_of(evaluation: Evaluation) -> tuple[Ask, ...]:
    """Return every place of the round in walking order; pads first where one of them was ever read."""
    pads = PADS if any(p in evaluation.state.taken for p in PADS) else ()
    return tuple(_ask(evaluation, place) for place in (*pads, *_walked(evaluation, "set")))


def floor_round(evaluation: Evaluation) -> tuple[Ask, ...]:
    """Return every place that is read of the car on its wheels at the stage Stance: pads, heights, loads where scales come into it, radii of tyres."""
    return tuple(_ask(evaluation, place) for place in _walked(evaluation, "floor"))


def stand_round(evaluation: Evaluation) -> tuple[Ask, ...]:
    """Return every place that is read of the car on its stands: heights of the chassis, then the hubs."""
    return tuple(_ask(evaluation, place) for place in _walked(evaluation, "stands"))


def _walked(evaluation: Evaluation, round_: Round) -> Iterator[Place]:
    """Yield the places of a round in the order one walks: all round for each quantity, then those that are read together at a corner."""
    state = evaluation.state
    asked = {
        q: facts
        for q, facts in QUANTITIES.items()
        if round_ in facts.walked
        and (not facts.if_aimed or state.plan.aim(facts.if_aimed) or any((c, q) in state.taken for c in facts.corners))
    }
    yield from ((c, q) for q, facts in asked.items() if not facts.corner_by_corner for c in _ALL_ROUND if c in facts.corners)
    yield from ((c, q) for c in WALK for q, facts in asked.items() if facts.corner_by_corner and c in facts.corners)


def ask_of(evaluation: Evaluation, place: Place) -> Ask:
    """Return one place of the round, whether or not it is among those walked."""
    return _ask(evaluation, place)


@remembered
def _ask(evaluation: Evaluation, place: Place) -> Ask:
    corner, quantity = place
    state = evaluation.state
    rows, tool = state.latest(place), default_tool(state.plan, quantity)
    if rows:
        tool = next((t for t in state.plan.toolbox if t.id == rows[-1].reading.tool), tool)
    where = state.plan.height_place(corner).name
    return Ask(
        corner, quantity, title_of(place), QUANTITIES[quantity].how.format(tool=tool.name, place=where, side=SIDE_WORDS[corner]),
        tool.id, _is_wanted(evaluation, place), say_reading(state.plan.units, quantity, rows[-1].reading.value, rows[-1].reading.denominator, rows[-1].reading.typed) if rows else "", len(rows),
        rows[-1].reading.typed if rows else "", QUANTITIES[quantity].drawing,
    )  # fmt: skip


def _is_wanted(evaluation: Evaluation, place: Place) -> bool:
    """Whether a place is to be read now: never read, or its mark is unread or moved and the place not read since."""
    corner, quantity = place
    state, rows = evaluation.state, evaluation.state.latest(place)
    if quantity == "radius":  # that of the plan will do, but of a stand-in there is none
        since = state.stance.stand_ins.get(corner)
        return since is not None and not (rows and rows[-1].number > since)
    if not rows:
        return True
    if not QUANTITIES[quantity].mark:
        return state.spells.get(place, 0) > rows[-1].spell
    if quantity == "gap_hub":  # the strings' own angle outlives a turn of a link, not a move of the strings
        return any(m.breaks_rig and m.number > rows[-1].number for m in state.moves)
    mark = evaluation.mark(f"{corner}.{QUANTITIES[quantity].mark}")
    behind = state.spells.get(place, 0) > rows[-1].spell
    return (mark.state == "moved since" and behind) or (mark.state == "unread" and behind) or (mark.aim is None and behind)


StepKind = Literal["settle", "disconnect", "state", "read", "perch", "turn", "try", "reconnect", "done", "plan"]


@dataclass(frozen=True)
class Step:
    """What to do next: a sentence, its reason, and where to go for it."""

    kind: StepKind
    sentence: str
    reason: str
    corner: Corner | None = None
    quantity: Quantity | None = None


@remembered
def next_step(evaluation: Evaluation) -> Step:
    """Return the next thing to do: settle, read, heights, then camber with toe, corner by corner; heights reopen the rest."""
    state = evaluation.state
    if not state.plan.aims_now:
        return Step(
            "plan",
            "Say what is wanted first",
            f"The plan has no aims {'of the build ' if state.plan.stage == 'build' else ''}yet, so no reading can hold. Give camber, toe and heights an aim with a tolerance.",
        )
    if not state.condition.settled:
        return Step(
            "settle",
            "Roll the car and bounce each end",
            "Readings of a car that has not settled are provisional. Say so when it has.",
        )
    judged = [m for m in evaluation.marks if m.state is not None]
    order = [m for m in judged if kind_of(m.mark) in AIMED_KINDS]
    heights = [m for m in order if kind_of(m.mark) == "height"]
    held: list[Step] = []  # what keeps a mark from holding that nothing which can be done from here would mend
    if fresh := _to_read(evaluation, heights):
        return _bar_off(evaluation, fresh)
    for mark in heights:
        if mark.state == "out":
            step = _height_step(evaluation, mark)
            if step.kind != "plan":
                return _bar_off(evaluation, step)
            held.append(step)
    if fresh := _to_read(evaluation, order):
        return fresh
    return _of_corners(evaluation, order, held) or Step(
        "done", "Every mark holds", "Lock every jam nut, check steering and brakes, and keep the sheet with the car."
    )


def _bar_off(evaluation: Evaluation, step: Step) -> Step:
    """Return what comes before a step that is about heights: the links of a bar that is on are taken off."""
    if not (has_bar(evaluation.state.plan) and evaluation.state.condition.bar_connected):
        return step
    return Step(
        "disconnect",
        "Take the anti-roll bar links off",
        f"A bar under load holds one corner up: heights read with it on are provisional. Then: {step.sentence[0].lower()}{step.sentence[1:]}.",
    )


def _of_corners(evaluation: Evaluation, order: list[MarkState], held: list[Step]) -> Step | None:
    """Return what to do when all is read and no height can be turned nearer: turns, what is too close to call, then the car as a whole; last what is ``held``."""
    judged = [m for m in evaluation.marks if m.state is not None]
    for corner in CORNERS:
        off = [m for m in order if m.mark.startswith(corner) and m.state == "out" and kind_of(m.mark) != "height"]
        if off:
            step = _corner_step(evaluation, corner, off)
            if step.kind != "plan":
                return step
            held.append(step)
    for unsure in [m for m in judged if m.state == "too close to call"]:
        step = _unsure_step(evaluation, unsure)
        if step.kind != "plan":
            return _bar_off(evaluation, step) if step.quantity in ("height", "load") else step
        held.append(step)
    if weight := _weight_step(evaluation):
        return _bar_off(evaluation, weight)
    if not evaluation.state.condition.bar_connected:
        return Step(
            "reconnect",
            "Put the anti-roll bar links back on",
            "Without preload, car at rest. It is not ready while they are off.",
        )
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
    quantity: Quantity = MARK_KINDS[kind_of(mark.mark)].read[0]  # type: ignore[assignment]
    return corner, quantity


def _unsure_step(evaluation: Evaluation, mark: MarkState) -> Step:
    """Return what settles a mark that is too close to call: a reading, a turn, or what would have to change in the plan."""
    corner, quantity = _place_of(evaluation, mark)
    named = f"{say_mark(mark.mark).capitalize()} is too close to call"
    reason = f"{mark.reason.capitalize()}. {mark.settle}"
    if mark.way == "ready":
        said = evaluation.state.stance.state
        if said and said.wanting:
            return Step("state", f"The car is {' and '.join(said.wanting)}", f"{named}. {reason}")
        return Step("read", named, reason, corner, quantity)
    if mark.way == "turn":
        if kind_of(mark.mark) == "height":
            together = turns_now(evaluation)[0]
            if together and together.steps:
                return _height_step(evaluation, mark)
        elif mark.mark in (f"{corner}.camber", f"{corner}.toe"):
            step = _corner_step(evaluation, corner, [mark])
            if step.kind in ("turn", "try"):
                return step
            reason = f"{mark.reason.capitalize()}. {step.reason}"
        return Step("plan", named, f"{reason} It holds with a tolerance of {_wide_enough(evaluation, mark)}.")
    if mark.way == "plan":
        return Step("plan", named, reason)
    return Step("read", named, reason, corner, quantity)


def _wide_enough(evaluation: Evaluation, mark: MarkState) -> str:
    return say_size(mark.mark, abs(mark.deviation or 0.0) + (mark.expanded or 0.0), evaluation.state.plan.units, 0)


def _whole_step(evaluation: Evaluation, mark: MarkState) -> Step:
    """Return what to do for a mark of the car as a whole, its corners holding or having no aim of their own."""
    corner, quantity = _place_of(evaluation, mark)
    named = f"{say_mark(mark.mark).capitalize()}: {mark.reason}"
    if mark.state in ("unread", "moved since"):
        return Step("read", named, "The corners hold one by one; this one is about the car as a whole.", corner, quantity)
    parts = [evaluation.mark(name) for name, weight in evaluation.figures.whole(mark.mark) if weight]
    if mark.mark == "car.cross_weight" and evaluation.state.plan.footing.school == "height":
        return Step(
            "plan", named, "The perches are turned by height alone. Let them be turned by weight, or for both, in the plan."
        )
    if not any(MARK_KINDS[kind_of(m.mark)].aimed for m in parts):
        wide = _wide_enough(evaluation, mark)
        return Step(
            "plan", named, f"No adjuster of the plan sets it. Look where the links are fastened, or widen it to {wide}."
        )
    bare = [m for m in parts if m.aim is None]
    if bare:
        names = " and ".join(say_mark(m.mark) for m in bare)
        return Step("plan", named, f"Give {names} an aim of its own in the plan, so that turns can be told for it.")
    narrower = (
        "Each corner holds within its own tolerance and the sum does not: narrow those of the corners, or widen this one to "
    )
    return Step("plan", named, f"{narrower}{_wide_enough(evaluation, mark)}.")


def _weight_step(evaluation: Evaluation) -> Step | None:
    """Return what is to be done for the cross weight, once the rest holds; None where it is not wanted or holds."""
    cross = evaluation.mark("car.cross_weight")
    if cross.state == "out" and (weighed := turns_now(evaluation)[0]) and weighed.school != "height" and weighed.steps:
        first = weighed.steps[0]
        return Step("perch", first.say, f"Cross weight {cross.reason}. {first.caution}", first.corner, "load")
    if cross.state in ("unread", "moved since"):
        at = next(c for c in CORNERS if not evaluation.mark(f"{c}.load").fresh)
        moved = "" if cross.state == "unread" else f" It has moved since: {cross.reason}."
        return Step(
            "read",
            "Put it on the scales",
            f"Cross weight is wanted at {say_aim(evaluation.state.plan, cross.mark)}.{moved}",
            at,
            "load",
        )
    return None


def _to_read(evaluation: Evaluation, marks: list[MarkState]) -> Step | None:
    waiting = [m for m in marks if m.state in ("unread", "moved since")]
    if not waiting:
        return None
    asks = [
        a
        for a in round_of(evaluation)
        if a.wanted and any(m.mark == f"{a.corner}.{QUANTITIES[a.quantity].asked_for}" for m in waiting)
    ]
    if not asks:
        return None
    first = asks[0]
    left = f"{len(asks)} places to read on this round." if len(asks) > 1 else "The last place of this round."
    moved = next((m for m in waiting if m.state == "moved since"), None)
    reason = f"{say_mark(moved.mark).capitalize()} has moved since: {moved.reason}. {left}" if moved else left
    return Step("read", f"Read {first.title[0].lower()}{first.title[1:]}", reason, first.corner, first.quantity)


def _height_step(evaluation: Evaluation, mark: MarkState) -> Step:
    corner = next(c for c in CORNERS if mark.mark.startswith(c))
    where = CORNER_WORDS[corner]
    together = turns_now(evaluation)[0]
    if together and together.steps:
        first, more = together.steps[0], len(together.steps) - 1
        then = f" Then {' and '.join(p.say[0].lower() + p.say[1:] for p in together.steps[1:])}." if more else ""
        return Step(
            "perch",
            first.say,
            f"The {where} stands {mark.reason}; all four are reckoned together. Height carries camber and toe with it, so it comes first.{then} {first.caution}",
            first.corner,
            "height",
        )
    if together:  # all four are reckoned together, and no turn betters them: one corner's own sum would only undo another
        return Step(
            "plan",
            f"{say_mark(mark.mark).capitalize()} is {mark.reason}, and no turn of a perch betters it",
            f"{together.words} Read heights and pads once more; if it stays, another height or a wider tolerance would have to be asked for.",
            corner,
            "height",
        )
    turn = perch_turn(evaluation, corner)
    if turn:
        return Step(
            "perch",
            f"Wind the {where} perch {turn.say.rsplit(' ', 1)[1]} {turn.say.rsplit(' ', 1)[0]}",
            f"It stands {mark.reason}. Height carries camber and toe with it, so it comes first. {turn.caution}",
            corner,
            "height",
        )
    named = evaluation.state.plan.perch(corner)
    return Step(
        "perch" if named else "plan",
        f"Bring the {where} to its height first: {mark.reason}",
        "Height carries camber and toe with it. No perch with thread left is named at this corner: name one in the plan, or shim it.",
        corner,
        "height",
    )


def _corner_step(evaluation: Evaluation, corner: Corner, off: list[MarkState]) -> Step:
    answer = set_corner(evaluation, corner)
    said = "; ".join(f"{m.mark.split('.')[1]} {m.reason}" for m in off)
    if answer.why_not:
        links = any(a.corner == corner and not isinstance(a.by, Perch) for a in evaluation.state.plan.adjusters)
        return Step("try" if links else "plan", f"{CORNER_WORDS[corner].capitalize()}: {said}", answer.why_not, corner)
    if not any(t.amount for t in answer.turns):
        return Step("plan", answer.sentence, f"{answer.reason} Now {said}.", corner)
    turns = ", ".join(f"{t.name} {t.say}" for t in answer.turns if t.amount)
    return Step("turn", answer.sentence, f"{turns or answer.reason}. Now {said}.", corner)
