"""Whether what was read after a turn is what the turn should have done; where it is neither that nor near it, what is likelier.

Only the first reading after a turn is questioned: whoever reads it again has looked, and is believed.

Source: normalised error of predicted and read, JCGM 100:2008, 5.1.2; docs/choices.md, Turning.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from ready_corner.core.engines.learning import FloatArray, WorthOfTurns, contradicted, learn
from ready_corner.core.judge.marks import Evaluation
from ready_corner.core.judge.memory import remembered
from ready_corner.core.judge.reach import is_usual
from ready_corner.core.plan.corners import CORNERS, Corner
from ready_corner.core.plan.marks import ANGLES, MARK_KINDS, OfMark, kind_of
from ready_corner.core.plan.plan import Adjuster
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.record.happenings import thing_turned

DOUBTED = 3.0  # standard uncertainties of predicted and read together beyond which a step is questioned
AGREES = 2.5  # within which one of the likelier stories fits
QUESTIONED = tuple(f"{c}.{k}" for k in ("height", *ANGLES) for c in MARK_KINDS[k].corners)


@dataclass(frozen=True)
class _Step:
    """What a mark did between its last two readings, ``read``, and what each of the adjusters turned between them should have done; with the u of each."""

    read: float
    each: Mapping[str, float]
    u_read: float
    u_expected: float

    @property
    def expected(self) -> float:
        return sum(self.each.values())

    @property
    def u(self) -> float:
        return float(np.hypot(self.u_read, self.u_expected))

    def off(self, but: float = 0.0) -> float:
        """How far what was read lies from what was expected, were that ``but`` more, in standard uncertainties."""
        return abs(self.read - self.expected - but) / max(self.u, 1e-12)


@remembered
def question(evaluation: Evaluation, mark: str) -> Finding | None:
    """Return what is to be asked about the last reading of a corner mark after a turn; None where it fits, was read more than once, or nothing is known.

    Source: see the module.
    """
    corner, kind = _split(mark)
    figure = evaluation.figures.figure(kind, corner)
    if figure is None or any(len(g.rows) > 1 for g in figure.groups) or evaluation.mark(mark).moved:
        return None
    step = _last_step(evaluation, mark)
    if step is None or step.off() <= DOUBTED:
        return None
    names = tuple(dict.fromkeys(thing_turned(evaluation.state.plan, a)[0] for a in step.each))
    read, expected, sure = (OfMark(mark, v, 0) for v in (step.read, step.expected, 2 * step.u))
    story = _story(evaluation, mark, step)
    return finding("fits.not", mark=mark, names=names, read=read, expected=expected, sure=sure, story=story)


def _story(evaluation: Evaluation, mark: str, step: _Step) -> Finding:
    """Return what is likelier than that the turns did this: the story that fits what was read best, if one does."""
    corner, kind = _split(mark)
    figure = evaluation.figures.figure(kind, corner)
    if figure and figure.why:
        return finding("fits.unready", why=figure.why)
    stories: list[tuple[float, Finding]] = []
    things = {name: thing_turned(evaluation.state.plan, name) for name in step.each}
    for said, of in dict.fromkeys(things.values()):  # a load is one thing, though it moves the car in three ways
        part, changed = sum(step.each[name] for name, its in things.items() if its == (said, of)), of is None
        stories += [
            (step.off(-part), finding("fits.not-turned", adjuster=said, changed=changed)),
            (step.off(-2 * part), finding("fits.other-way", adjuster=said, changed=changed)),
        ]
        twin = None if of is None else _exchanged(evaluation, step, of, mark)
        if of is not None and twin is not None:
            stories.append((twin, finding("fits.sides", adjuster=of.name)))
    best = min(stories, key=lambda s: s[0], default=None)
    return best[1] if best and best[0] <= AGREES else finding("fits.loose")


def _exchanged(evaluation: Evaluation, step: _Step, of: Adjuster, mark: str) -> float | None:
    """Return how far both sides lie from what they should have done had the like adjusters of both been exchanged, in standard uncertainties of the
    worse of them; None where the other side tells nothing of it."""
    corner, kind = _split(mark)
    other = next(
        (a for a in evaluation.state.plan.adjusters if a.name == of.name and a.corner == _twin(corner) and of.corner == corner),
        None,
    )
    twin = _last_step(evaluation, f"{_twin(corner)}.{kind}", exact=True)
    if other is None or twin is None:
        return None
    mine, its = step.each.get(of.id, 0.0), twin.each.get(other.id, 0.0)
    # Left and right share every formula: what a turn of the one does to its wheel, the same turn of the other does to its own.
    return max(step.off(its - mine), twin.off(mine - its)) if abs(mine - its) > AGREES * step.u else None


def _last_step(evaluation: Evaluation, mark: str, exact: bool = False) -> _Step | None:
    """Return what a mark did between its last two readings, against what was known of the turns between them before the last; None where nothing
    was turned, or something else happened. ``exact``: by all that was known, even where the plan alone expects it."""
    seen = evaluation.observations(mark)
    if len(seen.values) < 2 or seen.stretch[-1] != seen.stretch[-2]:
        return None
    read, u_read = float(seen.values[-1] - seen.values[-2]), float(np.hypot(seen.u[-1], seen.u[-2]))
    turned: FloatArray = seen.turned[-1] - seen.turned[-2]
    amounts = {a: float(t) for a, t in zip(seen.adjusters, turned, strict=True) if abs(t) > 1e-9}
    if not amounts:
        return None
    by_plan, plan = evaluation.reach.get(mark), evaluation.state.plan
    usual = {a.id for a in plan.adjusters if is_usual(plan, a)}
    if by_plan is not None and usual.isdisjoint(amounts) and not exact and all(a in by_plan.adjusters for a in amounts):
        step = _of(read, u_read, amounts, by_plan)
        if step.off() <= AGREES:  # what the plan alone expects was read: no need to look what else is known
            return step
    earlier = replace(
        seen,
        turned=seen.turned[:-1],
        values=seen.values[:-1],
        u=seen.u[:-1],
        stretch=seen.stretch[:-1],
        numbers=seen.numbers[:-1],
    )
    if any(a in usual and learn(earlier).of(a) is None for a in amounts):
        return None  # what such links usually do is no ground to question a reading
    known = learn(earlier) if by_plan is None else learn(earlier, contradicted(by_plan, learn(earlier)))
    if any(known.of(a) is None for a in amounts):
        return None
    return _of(read, u_read, amounts, known)


def _of(read: float, u_read: float, amounts: Mapping[str, float], known: WorthOfTurns) -> _Step:
    """Return a step by what turns are known to be worth."""
    row, covariance = np.array(list(amounts.values())), known.covariance_of(list(amounts))
    each = {a: (known.of(a) or 0.0) * t for a, t in amounts.items()}
    return _Step(read, each, u_read, float(np.sqrt(max(float(row @ covariance @ row), 0.0))))


def questions(evaluation: Evaluation) -> dict[str, Finding]:
    """Return what is to be asked about each mark whose last reading fits no turn.

    Source: see the module.
    """
    aimed = {a.mark for a in evaluation.state.plan.aims_now}
    return {m: q for m in QUESTIONED if m in aimed and (q := question(evaluation, m)) is not None}


def _split(mark: str) -> tuple[Corner, str]:
    return next(c for c in CORNERS if mark.startswith(f"{c}.")), kind_of(mark)


def _twin(corner: Corner) -> Corner:
    return CORNERS[CORNERS.index(corner) ^ 1]
