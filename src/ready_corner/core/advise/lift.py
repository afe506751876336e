"""One list a lift: what to turn at the whole car so that all its marks come to their aims together, walking round once.

The list is worked out of what was read before the first turn of it, and stands until something is read again: what was turned as told is
done, and where something was turned otherwise, or is stuck, the rest is worked out anew around it.

Source: docs/choices.md, Turning; the effects of turns by judge.marks (plan and car together), whole steps by engines.together.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from math import erf, prod, sqrt

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.advise.corner import (
    Expected,
    amount_of,
    caution_of,
    expected_of,
    lever_of,
    seen_of,
    settled_on,
    wanted_of,
)
from ready_corner.core.advise.perches import CROSS
from ready_corner.core.advise.read_first import read_first
from ready_corner.core.engines.learning import NOTHING_YET, FloatArray
from ready_corner.core.engines.linkage.body import Body
from ready_corner.core.engines.together import cost_of, gains, search_together, solve_together
from ready_corner.core.engines.turns import Lever, Turns, Wanted
from ready_corner.core.judge.marks import Evaluation, MarkState, split, spoils
from ready_corner.core.judge.memory import remembered
from ready_corner.core.judge.reach import is_usual
from ready_corner.core.model.bodies import bodies_by_name, bodies_of
from ready_corner.core.model.setting import Setting, past_limits, setting
from ready_corner.core.model.usual import usual_of, usual_sets
from ready_corner.core.plan.corners import CORNERS, Corner, End
from ready_corner.core.plan.marks import AIMED_KINDS, ANGLES, CORNER_KINDS, MARK_KINDS, OfMark, kind_of
from ready_corner.core.plan.names import place_words, turn_parts
from ready_corner.core.plan.plan import Adjuster
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import COVERAGE
from ready_corner.core.quantities.notation import FLATS_PER_TURN
from ready_corner.core.quantities.verdict import HARDLY

Mask = NDArray[np.bool_]
WALK: tuple[Corner, ...] = ("LF", "LR", "RR", "RF")
AXLES: Mapping[End, tuple[Corner, ...]] = {"front": ("LF", "RF"), "rear": ("LR", "RR")}
WORTH_IT = 0.25  # marks more that hold, or logarithms of tolerances that marks come nearer, in all, for which a lift is worth its while
OF_ANGLES = ("total_toe", "thrust")  # sums that no height comes into
RISKS = 0.25  # marks, of those that hold, that a lift which only brings others nearer may be expected to lose
UNDOES = 0.3  # of the cosine of what one does and another did
NO_TURN = 1e-9
FAR = 2.0  # turns or shims from which on one wants to look half way
MOST_CAUTIONS = 3
# Turns at once of a link of which nothing is known: under two what it does drowns in what a perch does beside it.
LEAST_TRIED, MOST_TRIED = 2.0, 3.0
# Where all will hardly hold after a lift, and all is read and turned once more anyway, the doubt about what turns do weighs so much less: what is learned mends it.
NOT_LAST, NOT_LAST_SHARE = 0.1, 0.1
# An axle stays about where it is along the car as it is squared; from so far on it is said what to look at.
ALONG_MM, ALONG_SAID_MM = 2.0, 6.0
MOST_USUAL = 6.0  # turns or shims at once of a link that is known only as such links usually are
EVEN_LAST = 0.5  # of practice cars told so much or more, 19 of 20 wanted no further lift; of those told less, three in five


@dataclass(frozen=True)
class LiftTurn:
    """One thing to turn in a lift: ``amount`` in all, of that ``done`` already; ``left`` to turn now, plus way with its sign.

    ``reads``: what the marks it is there for would read once it is turned, all before it being turned too; ``half``: half way, where that is far.
    """

    of: Adjuster
    amount: float
    done: float
    stuck: bool = False
    reads: tuple[OfMark, ...] = ()
    half: tuple[OfMark, ...] = ()

    @property
    def seen(self) -> Finding | None:
        """Which way round that is, and as seen from where; None where nothing goes round."""
        return seen_of(self.of, self.left)

    @property
    def left(self) -> float:
        """What is still to be turned, in turns or shims."""
        left = self.amount - self.done
        return 0.0 if self.stuck or abs(left) < NO_TURN else left

    @property
    def said(self) -> Finding:
        """How far to turn it which way; once it is done, how far it was."""
        size, way = turn_parts(self.of, self.left or self.amount)
        return finding("turn.turn", size=size, way=way)

    @property
    def then(self) -> Finding | None:
        """What the gauge would read after this step; None where it is done, or does nothing that is read."""
        return finding("lift.then-reads", reads=self.reads, half=self.half) if self.reads and self.left else None

    @property
    def caution(self) -> Finding:
        """What is to be minded at this step."""
        return caution_of(self.of)


@dataclass(frozen=True)
class Stop:
    """One corner of the walk: what is turned there, in the order in which it is done."""

    corner: Corner
    turns: tuple[LiftTurn, ...]

    @property
    def done(self) -> bool:
        """Whether nothing is left to turn there."""
        return not any(t.left for t in self.turns)


@dataclass(frozen=True)
class Lift:
    """The whole list. ``expected``: every mark as it would read then; ``again``: which marks are to be read afterwards, the others need not;
    ``chance``: that all hold then; ``ended``: adjusters whose range ends first; ``missed``: marks that would not be brought within tolerance.

    ``betters``: whether it is worth its while; where not, nothing that is turned brings the car on.
    ``cautions``: what the plan says would be past its limit then: a joint, a damper, the plunge of a shaft.
    ``tried``: how many adjusters every step of was reckoned with. ``trials``: adjusters that are turned to find out what they do, of which the plan does not say what they move;
    ``unsaid``: of one of them not even the name says where it sits, and so which way it goes.
    """

    stops: tuple[Stop, ...]
    expected: tuple[Expected, ...]
    again: tuple[str, ...]
    chance: float
    ended: tuple[str, ...]
    missed: tuple[str, ...]
    betters: bool
    trials: tuple[str, ...] = ()
    unsaid: bool = False
    cautions: tuple[Finding, ...] = ()
    tried: int = 0

    @property
    def turns(self) -> tuple[LiftTurn, ...]:
        """All its turns, in the order of the walk."""
        return tuple(t for s in self.stops for t in s.turns)

    @property
    def next(self) -> LiftTurn | None:
        """The first that is still to be turned; None where none is, or it is not worth its while."""
        return next((t for t in self.turns if t.left), None) if self.betters else None

    @property
    def begun(self) -> bool:
        """Whether something of it was turned already."""
        return any(t.done for t in self.turns)

    @property
    def sentence(self) -> Finding:
        """What it is, in one line."""
        count = sum(1 for t in self.turns if t.left or not self.begun)
        corners = sum(1 for s in self.stops if any(t.left or not self.begun for t in s.turns))
        return finding("lift.one", count=count, several=count != 1, corners=corners, more=corners != 1, begun=self.begun)

    @property
    def afterwards(self) -> Finding:
        """What is to be read again once it is done, and what need not be."""
        leave = tuple(e.mark for e in self.expected if e.mark not in self.again)
        return finding("lift.again", again=self.again, leave=leave)

    @property
    def reason(self) -> Finding:
        """How sure it is, and what would be left."""
        trials = {"trials": self.trials, "many": len(self.trials) > 1, "unsaid": self.unsaid}
        chance = {
            "percent": 100 * self.chance,
            "missed": self.missed,
            "sure": not (self.missed or self.trials),
            "again": bool(self.trials) or (bool(self.missed) and not self.ended),
            "last": self.chance >= EVEN_LAST,
        }
        return finding("lift.why", links=len(self.turns) > 1, ended=self.ended, **trials, **chance)  # type: ignore[arg-type]


@remembered
def lift(evaluation: Evaluation, corners: tuple[Corner, ...] = CORNERS) -> Lift | None:
    """Return what to turn at these corners in one lift, with what of it is done; None where they hold, want reading first, or nothing is known to move them."""
    base = evaluation.before_turns
    asked = _asked(base, corners)
    if asked is None:
        return None
    to_try = _trials(base, corners) or _unsure(base, corners)
    trying = {a.id for a, _ in to_try}  # what is tried is turned as far as is told there, whatever else it might do
    done = np.array(
        [0.0 if (n := lever.adjuster) in trying else _turned_evenly(evaluation, base, n) for lever in asked.levers], dtype=float
    )
    stuck = np.array([lever.adjuster in evaluation.state.stuck for lever in asked.levers], dtype=bool)
    # Where something is tried the other links of the corner stay as they are: else it cannot be told which of them did what.
    tried_at = {a.corner for a, _ in to_try}
    fixed = {
        a.id: 0.0
        for lever in asked.levers
        if (a := base.state.plan.adjuster(lever.adjuster)).corner in tried_at and not a.raises
    }
    found = _solved(base, corners, tuple(fixed.items()))
    # What was turned otherwise than told, or goes no further, stands as it is: the rest is worked out around it.
    astray = _astray(np.array(found.turns), done) | (stuck & (np.abs(np.array(found.turns) - done) > NO_TURN))
    if astray.any():
        fixed |= {lever.adjuster: float(t) for lever, t, a in zip(asked.levers, done, astray, strict=True) if a}
        found = _solved(base, corners, tuple(fixed.items()))
    worth_it = _worth_it(base, asked, found)
    if to_try and not worth_it and not done.any():  # what is known does not better it: of the list only what is tried is left
        found = replace(found, turns=(0.0,) * len(found.turns), left=asked.left_now, expanded=asked.expanded_now)
    trials = [
        LiftTurn(a, _turned(evaluation, base, a.id) or amount, _turned(evaluation, base, a.id))
        for a, amount in to_try
        if a.id not in evaluation.state.stuck
    ]
    turns = [*_walked(base, asked, np.array(found.turns), done, stuck), *trials]
    tried = {f"{t.of.corner}.{kind}" for t in trials for kind in AIMED_KINDS}  # what they will read is what the trial is for
    perches = tuple(t.of.id for t in turns if t.of.raises and t.amount)
    tried |= {m.mark for m in asked.marks if any(_guessed(base, n, p) for n, _ in _parts(base, m.mark) for p in perches)}
    known = [i for i, m in enumerate(asked.marks) if m.mark not in tried or kind_of(m.mark) == "height"]
    expected = tuple(expected_of(m := asked.marks[i], _off(m), found.left[i], found.expanded[i]) for i in known)
    return Lift(
        tuple(Stop(c, own) for c in WALK if (own := tuple(t for t in turns if t.of.corner == c))),
        expected,
        tuple(
            w.mark
            for w, row, c in zip(asked.wanted, asked.worth, asked.covariance, strict=True)
            if w.mark in tried or _spoils(w, row, c, found)
        ),
        prod(_chance(asked.wanted[i].tolerance, found.left[i], found.expanded[i]) for i in known) if not trials else 0.0,
        tuple(its.name for a in found.at_limit if _ends(base, its := base.state.plan.adjuster(a), asked)),
        tuple(asked.wanted[i].mark for i in known if abs(found.left[i]) > asked.wanted[i].tolerance),
        any(t.amount for t in turns) and (bool(trials) or bool(done.any()) or worth_it),
        tuple(place_words(t.of) for t in trials),
        any(not usual_of(base.state.plan, t.of).get(usual_sets(t.of), (0.0,))[0] for t in trials),
        _cautions(base, tuple((t.of.id, t.amount) for t in turns if t.amount)),
        len(asked.levers),
    )


@remembered
def costs(evaluation: Evaluation, mark: str) -> tuple[str, ...]:
    """Return the marks that hold and would no longer do so for sure, were one that is out brought in before all others; none where it is not reckoned, or no turn brings it in."""
    base = evaluation.before_turns
    asked = _asked(base, CORNERS)
    at = [m.mark for m in asked.marks] if asked else []
    if asked is None or mark not in at or not asked.levers:
        return ()
    found = cost_of(asked.wanted, asked.levers, asked.worth, asked.covariance, asked.held, at.index(mark))
    return tuple(at[k] for k in found)


def _ends(base: Evaluation, adjuster: Adjuster, asked: "_Asked") -> bool:
    """Whether it is its own range that ends for an adjuster at the end of what it may be turned."""
    lever, room = (
        next(x for x in asked.levers if x.adjuster == adjuster.id),
        lever_of(adjuster, base.state.moved.get(adjuster.id, 0.0)),
    )
    return (lever.low, lever.high) == (room.low, room.high)


@remembered
def _cautions(base: Evaluation, turns: tuple[tuple[str, float], ...]) -> tuple[Finding, ...]:
    """Return what would be past its limit once a lift is turned, by the plan, and which axle goes along the car."""
    plan, made = base.state.plan, dict(base.state.moved)
    goes = {end: sum(by.get(a, 0.0) * n for a, n in turns) for end, by in base.figures.ground.reach.along.items()}
    shifted = tuple(
        finding("lift.axle-along", end=end, by=abs(mm), ahead=mm > 0) for end, mm in goes.items() if abs(mm) > ALONG_SAID_MM
    )
    shifted += tuple(
        finding("lift.axle-binds", end=end)
        for end, by in base.figures.ground.reach.along.items()
        if any(a in by for a, _ in turns) and bodies_of(plan, end)[0].held_too_much
    )
    for name, amount in turns:
        made[name] = made.get(name, 0.0) + amount
    even = {a.id: a.even(made[a.id]) for a in plan.adjusters if made.get(a.id)}
    try:
        past = past_limits(plan, _bodies(base), even)
    except ReadyCornerError:
        return shifted
    return shifted + tuple(
        finding(
            "lift.past-limit",
            what=k.what,
            over=("angle" if k.unit == "°" else "length", -k.left),
            at=k.at,
            bump=k.at > 0,
            stance=k.at == 0,
        )
        for _, k in past[:MOST_CAUTIONS]
    )


@remembered
def _trials(base: Evaluation, corners: tuple[Corner, ...]) -> tuple[tuple[Adjuster, float], ...]:
    """Return what to try at every corner whose camber or toe what is known does not bring home, of what is not known yet: at one corner links that set different
    marks, and of twins left and right each the other one, since the one teaches what the other does."""
    asked, found = _asked(base, corners), _solved(base, corners, ())
    assert asked
    short = {w.mark[:2] for w, left in zip(asked.wanted, found.left, strict=True) if abs(left) > w.tolerance}
    rows: list[tuple[Adjuster, float]] = []
    for corner in (c for c in WALK if c in corners and c in short):
        tried = set[str]()
        for adjuster in _untold(base, (corner,)):
            low, high = adjuster.room(base.state.moved.get(adjuster.id, 0.0))
            sets = usual_sets(adjuster)
            # Two are told apart in one lift only where it is known that they set different marks.
            if sets in tried or (tried and "" in (sets, *tried)):
                continue
            twin = base.state.plan.twin(adjuster)
            if twin and twin in (a for a, _ in rows):  # what that one does this one will be taken to do
                continue
            if twin and tried and twin.corner in short and _follows(twin, adjuster) and twin in _untold(base, corners):
                continue
            far = _far_enough(base, adjuster, sets)
            if amount := next(
                (n * way for n in range(far, 0, -1) for way, room in ((1.0, high), (-1.0, -low)) if room >= n), 0.0
            ):
                rows.append((adjuster, amount))
                tried.add(sets)
    return tuple(rows)


@remembered
def _unsure(base: Evaluation, corners: tuple[Corner, ...]) -> tuple[tuple[Adjuster, float], ...]:
    """Return what to turn by itself at every corner where a mark is out that the list would leave out: the link it hangs on, as long as that is known only as such
    links usually are; and how far, towards the aim."""
    asked, rows = _asked(base, corners), dict[Corner, tuple[Adjuster, float]]()
    assert asked
    found = _solved(base, corners, ())
    turned = {lever.adjuster: abs(t) for lever, t in zip(asked.levers, found.turns, strict=True)}
    for m, w, left in zip(asked.marks, asked.wanted, found.left, strict=True):
        if m.state != "out" or abs(left) <= w.tolerance or kind_of(m.mark) not in ANGLES or split(m.mark)[0] in rows:
            continue
        for a in base.state.plan.adjusters:
            worth, own = base.worth_now(m.mark).of(a.id), a.corner == split(m.mark)[0] and usual_sets(a) == kind_of(m.mark)
            # What the list turns so far is learned from that.
            if not own or not worth or not base.is_guess(m.mark, a) or turned.get(a.id, np.inf) >= LEAST_TRIED:
                continue
            low, high = a.room(base.state.moved.get(a.id, 0.0))
            most = 1.0 if a.notched else MOST_TRIED
            amount = float(np.clip(np.round(w.to_go / worth), *np.clip((low, high), -most, most).astype(int)))
            if amount and a.id not in base.state.stuck:
                rows[a.corner] = a, amount
                break
    return tuple(rows[c] for c in WALK if c in rows)


def _follows(adjuster: Adjuster, other: Adjuster) -> bool:
    """Whether the corner of one comes further round the walk than that of another."""
    return WALK.index(adjuster.corner) > WALK.index(other.corner)


def _far_enough(base: Evaluation, adjuster: Adjuster, sets: str) -> int:
    """Return how many turns (shims, marks) of a link are tried at once: about half of what its mark is out by, by what such links usually do, so that what they do is
    read well beside the scatter; one at least, and no more than a thread that was just freed should go unwatched."""
    mark = base.mark(f"{adjuster.corner}.{sets}") if sets else None
    usual = usual_of(base.state.plan, adjuster).get(sets)
    if mark is None or mark.deviation is None or usual is None or adjuster.notched:
        return 1
    per = max(abs(usual[0]), usual[1])
    return int(min(max(abs(mark.deviation) / per / 2, LEAST_TRIED), MOST_TRIED)) if per else 1


def _untold(base: Evaluation, corners: tuple[Corner, ...]) -> list[Adjuster]:
    """Return the links of corners of which neither plan nor car tells what they do."""
    return [
        a
        for a in base.state.plan.adjusters
        if a.corner in corners and not a.raises and not _is_known(base, a) and a.id not in base.state.stuck
    ]


def _walked(base: Evaluation, asked: "_Asked", amounts: FloatArray, done: FloatArray, stuck: Mask) -> list[LiftTurn]:
    """Return the turns in the order in which they are done, walking round once: at each corner height before caster before camber before toe; each with
    what is read after it."""
    at = {m.mark: i for i, m in enumerate(asked.marks)}
    adjusters = [base.state.plan.adjuster(lever.adjuster) for lever in asked.levers]

    def share(i: int, kind: str) -> float:
        row = at.get(f"{adjusters[i].corner}.{kind}")
        return 0.0 if row is None else abs(float(asked.worth[row, i])) / asked.wanted[row].tolerance

    def order(i: int) -> tuple[int, float]:
        shares = [share(i, kind) for kind in ANGLES]
        mean = sum(n * s for n, s in enumerate(shares)) / sum(shares) if any(shares) else 0.0
        return WALK.index(adjusters[i].corner), -1.0 if adjusters[i].raises else mean

    turned, rows = np.zeros(len(amounts)), []
    for i in sorted(range(len(adjusters)), key=order):
        if abs(amounts[i]) <= NO_TURN and abs(done[i]) <= NO_TURN:
            continue
        turned[i] = amounts[i]
        kinds = ("height",) if adjusters[i].raises else ANGLES
        own = [(mark, at[mark]) for kind in kinds if (mark := f"{adjusters[i].corner}.{kind}") in at]
        moved = [
            (mark, k) for mark, k in own if abs(float(asked.worth[k, i] * amounts[i])) > HARDLY * asked.wanted[k].tolerance
        ]
        reads, half = (
            tuple(
                OfMark(
                    mark,
                    (asked.marks[k].value or 0.0) + float(asked.worth[k] @ turned - back * asked.worth[k, i] * amounts[i]),
                    0,
                )
                for mark, k in moved
            )
            for back in (0.0, 0.5)
        )
        far = half if abs(amounts[i]) >= FAR else ()
        stood = base.state.moved.get(adjusters[i].id, 0.0)
        amount, made = (amount_of(adjusters[i], stood, float(t)) for t in (amounts[i], done[i]))
        rows.append(LiftTurn(adjusters[i], amount, made, bool(stuck[i]), reads, far))
    return rows


@dataclass(frozen=True)
class _Asked:
    """What is wanted of which marks with which adjusters: worth (marks, levers), and its covariance a mark."""

    marks: tuple[MarkState, ...]
    wanted: tuple[Wanted, ...]
    levers: tuple[Lever, ...]
    worth: FloatArray
    covariance: tuple[FloatArray, ...]

    @property
    def held(self) -> Mask:
        """Which marks (marks,) hold now, and are to go on doing so; of an axle that stays where it is along the car nobody reads whether it does."""
        return np.array([m.state == "holds" for m in self.marks] + [False] * (len(self.wanted) - len(self.marks)), dtype=bool)

    def with_axles(self, along: Mapping[End, Mapping[str, float]]) -> "_Asked":
        """Return what is wanted with every axle that can be squared and stay where it is along the car, as one more mark (after all others): links on both sides of it."""
        rows = [
            row
            for by in along.values()
            if np.sum((row := np.array([by.get(lever.adjuster, 0.0) for lever in self.levers])) != 0) > 1
        ]
        more = tuple(Wanted("", 0.0, ALONG_MM, 0.0) for _ in rows)
        none = np.zeros((len(self.levers), len(self.levers)))
        return replace(
            self,
            wanted=(*self.wanted, *more),
            worth=np.vstack([self.worth, *rows]),
            covariance=(*self.covariance, *(none for _ in rows)),
        )

    def marks_alone(self, found: Turns) -> Turns:
        """Return what was found without what it says of axles."""
        return replace(found, left=found.left[: len(self.marks)], expanded=found.expanded[: len(self.marks)])

    @property
    def left_now(self) -> tuple[float, ...]:
        """What is left to go of every mark while nothing is turned, in its unit."""
        return tuple(w.to_go for w in self.wanted)

    @property
    def expanded_now(self) -> tuple[float, ...]:
        """The U of these."""
        return tuple(COVERAGE * w.u for w in self.wanted)

    def lost(self, found: Turns) -> int:
        """Return how many of these would be off their aims by more than their tolerance."""
        return sum(held and abs(left) > w.tolerance for held, w, left in zip(self.held, self.wanted, found.left, strict=True))


@remembered
def _asked(base: Evaluation, corners: tuple[Corner, ...]) -> _Asked | None:
    """Return the marks of these corners (of all four those of the car as a whole too) with all that moves them; None where one wants reading first."""
    whole = len(corners) == len(CORNERS)
    aimed = [m for m in base.marks if m.aim is not None and _is_set(base, m, corners, whole)]
    if not aimed or any(read_first(base, m.mark) for m in aimed if m.mark != CROSS):
        return None
    aimed = [m for m in aimed if not read_first(base, m.mark)]
    if all(m.state == "holds" or (m.state == "too close to call" and m.way != "turn") for m in aimed):
        return None
    levers = tuple(
        _lever(base, a)
        for a in base.state.plan.adjusters
        if a.corner in corners and _is_known(base, a) and not (a.raises and _stays(base, a.corner, aimed))
    )
    if not levers and not _untold(base, corners):
        return None
    names = tuple(lever.adjuster for lever in levers)
    rows = [_row(base, m.mark, names) for m in aimed]
    keep = base.state.plan.footing.school == "weight" and any(m.mark == CROSS for m in aimed)
    wanted = tuple(wanted_of(m, _off(m)) for m in aimed)
    if keep:
        wanted = tuple(replace(w, to_go=0.0) if kind_of(w.mark) == "height" else w for w in wanted)
    return _Asked(tuple(aimed), wanted, levers, np.array([r for r, _ in rows]), tuple(c for _, c in rows))


def _lever(base: Evaluation, adjuster: Adjuster) -> Lever:
    """Return what can be turned of an adjuster in one lift: of a link that is known only as such links usually are, no more than MOST_USUAL either way."""
    lever = lever_of(adjuster, base.state.moved.get(adjuster.id, 0.0))
    mark = f"{adjuster.corner}.{usual_sets(adjuster)}"
    if mark not in base.reach or not base.is_guess(mark, adjuster):
        return lever
    return replace(lever, low=max(lever.low, -MOST_USUAL), high=min(lever.high, MOST_USUAL))


def _off(mark: MarkState) -> float:
    """Return how far off its aim a mark stands, what has moved it since it was read counted, and what it is known to be read out by."""
    return mark.off + mark.effect


def _stays(base: Evaluation, corner: Corner, aimed: Sequence[MarkState]) -> bool:
    """Whether a corner stands where anything beyond its aim does too, and no sum of heights or loads wants it moved: its perch is wound for no angle."""
    found = base.mark(f"{corner}.height")
    if found.aim is None or not found.aim.beyond or found.state != "holds":
        return False
    sums = [m for m in aimed if kind_of(m.mark) not in CORNER_KINDS and kind_of(m.mark) not in OF_ANGLES]
    return found.aim.to_go(found.deviation or 0.0) == 0 and all(m.state == "holds" for m in sums)


def _is_set(base: Evaluation, mark: MarkState, corners: Sequence[Corner], whole: bool) -> bool:
    """Whether a mark is brought to its aim by turning: heights, camber and toe of the corners, and sums of these; cross weight unless heights go before it."""
    kind = kind_of(mark.mark)
    if kind in CORNER_KINDS:
        return kind in AIMED_KINDS and split(mark.mark)[0] in corners
    if mark.mark == CROSS:
        return whole and base.state.plan.footing.school != "height"
    parts = [name for name, weight in base.figures.whole(mark.mark) if weight]
    return all(kind_of(name) in AIMED_KINDS and split(name)[0] in corners for name in parts)


def _is_known(base: Evaluation, adjuster: Adjuster) -> bool:
    """Whether it is known, by plan or car, what a turn does to the marks of its own corner that it is there for."""
    if adjuster.raises:
        return base.worth_now(f"{adjuster.corner}.height").of(adjuster.id) is not None
    marks = [
        m
        for kind in ANGLES
        if (m := f"{adjuster.corner}.{kind}") and (not MARK_KINDS[kind].only_aimed or base.state.plan.aim(m))
    ]
    if any(base.worth_now(m).of(adjuster.id) is None for m in marks):
        return False
    if not all(base.is_guess(m, adjuster) for m in marks):
        return True
    # Of a link that is known only as such links usually are, the way at least is to be known: else it is tried.
    return any(abs(base.worth_now(m).of(adjuster.id) or 0.0) > base.worth_now(m).u(adjuster.id) for m in marks)


def _parts(base: Evaluation, mark: str) -> tuple[tuple[str, float], ...]:
    """Return the corner marks that a mark is made of, with their weights: itself, where it is one."""
    return ((mark, 1.0),) if kind_of(mark) in CORNER_KINDS else base.figures.whole(mark)


def _guessed(base: Evaluation, mark: str, lever: str) -> bool:
    """Whether what a lever does to an angle is a guess: a perch that was not tried yet, at a wheel whose linkage the plan does not tell.

    Such a guess weighs nothing where it is decided what to turn: heights are brought in for themselves, and the angle is read afterwards.
    """
    corner, kind = split(mark)
    if kind not in ANGLES or not base.state.plan.adjuster(lever).raises or base.worth(mark).of(lever) is not None:
        return False
    return not np.isfinite(base.figures.ground.wheels.by_travel[kind][CORNERS.index(corner)]).all()


@remembered
def _row(base: Evaluation, mark: str, levers: tuple[str, ...]) -> tuple[FloatArray, FloatArray]:
    """Return what a turn of each lever adds to a mark (levers,), and the covariance of that (levers, levers); what is not known to move it does not."""
    row, covariance = np.zeros(len(levers)), np.zeros((len(levers), len(levers)))
    for name, weight in _parts(base, mark):
        worth = base.worth_now(name)
        at = [i for i, lever in enumerate(levers) if lever in worth.adjusters and not _guessed(base, name, lever)]
        own = [levers[i] for i in at]
        row[at] += weight * np.array([worth.of(a) for a in own], dtype=float)
        covariance[np.ix_(at, at)] += weight**2 * worth.covariance_of(own)
    return row, covariance


@remembered
def _solved(base: Evaluation, corners: tuple[Corner, ...], fixed: tuple[tuple[str, float], ...]) -> Turns:
    """Return the turns for what is asked, some standing as they are."""
    asked = _asked(base, corners)
    assert asked
    stands: Mapping[str, float] = dict(fixed)
    held = np.array([stands.get(lever.adjuster, np.nan) for lever in asked.levers])
    if not asked.levers:
        return Turns((), (), asked.left_now, asked.expanded_now, (), False)
    whole = asked.with_axles(base.figures.ground.reach.along)

    def solved(share: float) -> Turns:
        return whole.marks_alone(
            solve_together(
                whole.wanted,
                whole.levers,
                whole.worth,
                whole.covariance,
                held,
                lambda turns: np.concatenate([_further(base, asked, turns), np.zeros(len(whole.wanted) - len(asked.wanted))]),
                whole.held,
                share,
            )
        )

    found = solved(1.0)
    if _all_hold(asked, found) < NOT_LAST:
        found = solved(NOT_LAST_SHARE)
    # Many a little nearer is no lift; one or two of them may bring some to hold.
    if not fixed and not _worth_it(base, asked, found):
        searched, gain = search_together(whole.wanted, whole.levers, whole.worth, whole.covariance, whole.held)
        found = whole.marks_alone(searched) if gain > WORTH_IT else found
    stood = [(base.state.plan.adjuster(lever.adjuster), base.state.moved.get(lever.adjuster, 0.0)) for lever in asked.levers]
    return settled_on(found, stood, asked.worth)


@remembered
def _set_to(base: Evaluation, turns: tuple[tuple[str, float], ...]) -> Setting:
    """Return the car of the plan with its adjusters elsewhere."""
    plan = base.state.plan
    return setting(plan, _bodies(base), base.figures.ground.springs, dict(turns))


@remembered
def _bodies(base: Evaluation) -> dict[str, Body]:
    return bodies_by_name(base.state.plan)


def _further(base: Evaluation, asked: _Asked, turns: FloatArray) -> FloatArray:
    """Return what the turns do to every mark beyond so many times one of them, (marks,): by the full linkage of the plan, on its way to the aims.

    The car is taken to stand as its plan has it once they are made; zeros where the plan does not tell its linkage.
    """
    by = base.reach
    try:
        made = tuple((lever.adjuster, -float(t)) for lever, t in zip(asked.levers, turns, strict=True) if t)
        ends = _set_to(base, ()), _set_to(base, made)
    except ReadyCornerError:
        return np.zeros(len(asked.wanted))
    own: dict[str, float] = {}
    used = [lever.adjuster for lever, t in zip(asked.levers, turns, strict=True) if t]
    usual = {a.id for a in base.state.plan.adjusters if is_usual(base.state.plan, a)}
    for kind in AIMED_KINDS:
        then, now = (e.of(kind) for e in ends)
        for c in MARK_KINDS[kind].corners:
            if any(_guessed(base, f"{c}.{kind}", name) for name in used):
                continue
            i = CORNERS.index(c)
            worth = by.get(f"{c}.{kind}", NOTHING_YET)
            straight = sum(
                (worth.of(lever.adjuster) or 0.0) * t
                for lever, t in zip(asked.levers, turns, strict=True)
                if lever.adjuster not in usual  # those the linkage of the plan does not move
            )
            own[f"{c}.{kind}"] = float(then[i] - now[i]) - straight
    return np.asarray(
        np.nan_to_num([sum(own.get(name, 0.0) * weight for name, weight in _parts(base, m.mark)) for m in asked.marks])
    )


def _turned(evaluation: Evaluation, base: Evaluation, adjuster: str) -> float:
    """Return how far an adjuster was turned in this lift, in whole flats."""
    made = evaluation.state.moved.get(adjuster, 0.0) - base.state.moved.get(adjuster, 0.0)
    return round(made * FLATS_PER_TURN) / FLATS_PER_TURN


def _turned_evenly(evaluation: Evaluation, base: Evaluation, adjuster: str) -> float:
    """Return the same in steps that all do alike."""
    its = base.state.plan.adjuster(adjuster)
    return its.evenly(base.state.moved.get(adjuster, 0.0), _turned(evaluation, base, adjuster))


@remembered
def _turned_last(base: Evaluation) -> dict[str, float]:
    """Return what was turned in the last lift, turns or shims: all since the last reading before its last turn."""
    moves = [m for m in base.state.moves if m.adjuster]
    if not moves:
        return {}
    numbers = (t.number for rows in base.state.taken.values() for t in rows)
    begun = max((n for n in numbers if n < moves[-1].number), default=0)
    made: dict[str, float] = {}
    for m in moves:
        if m.number > begun:
            made[m.adjuster] = made.get(m.adjuster, 0.0) + m.amount
    return made


def _astray(told: FloatArray, done: FloatArray) -> Mask:
    """Return which levers were turned otherwise than told: another way, too far, or when they were to be left."""
    on_the_way = (np.sign(done) == np.sign(told)) & (np.abs(done) <= np.abs(told) + NO_TURN)
    return np.asarray((np.abs(done) > NO_TURN) & ~on_the_way)


def _worth_it(base: Evaluation, asked: _Asked, found: Turns) -> bool:
    """Whether a lift is worth its while: it loses nothing that holds, and brings more marks to hold, or what is out nearer at hardly any risk for what holds; the
    latter not where it would undo what was turned last."""
    turns = np.array(found.turns)
    if asked.lost(found):
        return False
    holding, nearer = gains(asked.wanted, asked.worth, asked.covariance, asked.held, turns)
    if holding + nearer > WORTH_IT:
        return True
    risk = sum(
        1 - _chance(w.tolerance, left, expanded)
        for held, w, left, expanded in zip(asked.held, asked.wanted, found.left, found.expanded, strict=True)
        if held
    )
    tolerances = np.array([w.tolerance for w in asked.wanted])
    does, last = (asked.worth @ turns) / tolerances, _turned_last(base)
    did = (asked.worth @ np.array([last.get(lever.adjuster, 0.0) for lever in asked.levers])) / tolerances
    undoes = float(does @ did) < -UNDOES * float(np.linalg.norm(does) * np.linalg.norm(did))
    return nearer > WORTH_IT and risk < RISKS and not undoes


def _spoils(wanted: Wanted, row: FloatArray, covariance: FloatArray, found: Turns) -> bool:
    """Whether the turns move a mark so far, or so doubtfully, that it is to be read again."""
    turns = np.array(found.turns)
    return spoils(float(row @ turns), COVERAGE * sqrt(max(float(turns @ covariance @ turns), 0.0)), wanted.tolerance)


def _all_hold(asked: _Asked, found: Turns) -> float:
    """Return how probable it is that all marks lie within their tolerances after turns."""
    return prod(
        _chance(w.tolerance, left, expanded) for w, left, expanded in zip(asked.wanted, found.left, found.expanded, strict=True)
    )


def _chance(tolerance: float, left: float, expanded: float) -> float:
    """Return how probable it is that a mark lies within its tolerance then."""
    u = max(expanded / COVERAGE, 1e-12) * sqrt(2)
    return 0.5 * (erf((tolerance - left) / u) + erf((tolerance + left) / u))
