"""Which adjusters of a whole car to turn and how far, so that all its marks come to their aims together, in whole steps.

What is sought is the least expected square of what the marks will miss their aims by, in units of tolerance: the miss itself, and what the
doubt about each turn's worth adds to it. So of two adjusters that would do, the one that is better known is taken, and none is turned for
what cannot be told from noise.

Source: bounded least squares with errors in the coefficients (their expectation is a quadratic form); whole steps by descent over single
steps and pairs from the bounded optimum; docs/choices.md, Turning.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import combinations
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import lsq_linear
from scipy.special import ndtr

from ready_corner.core.engines.turns import Lever, Turns, Wanted
from ready_corner.core.quantities.measured import COVERAGE
from ready_corner.core.quantities.notation import FLATS_PER_TURN
from ready_corner.core.quantities.verdict import HARDLY, SPOILS

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.intp]

RIDGE = 1e-6  # of the greatest effect: of several ways that do equally well, the least turning
SURE_SHARE = 0.3  # of a tolerance is left to turn within where the tools could not tell anyway
HARDLY_WORSE = 0.05  # squared tolerances, over all marks: for so little no adjuster more is turned
ROUNDS = 200  # of descent; each betters the whole, so it ends long before
FEW = 6  # levers of which every pair is tried by itself
LEANS = 3  # times the marks that still miss are given more weight
LETTING_GO, WORST = (
    6,
    3,
)  # times marks that miss are weighted anew by how far they miss; how many of them are let go by themselves
ABOVE_ALL = 1e4  # what a mark weighs that is to be brought in whatever it costs
KEEPS = 6  # times the marks that are to stay held are given four times their weight
LETS_GO = 0.1  # what a mark out of reach weighs then
NEAR = 2  # steps either side of the best of two levers that are tried
ALL_STEPS = 400  # of one lever at most, the whole of its room
ANEW = 0.5  # of the variance of a reading is otherwise, between it and the next: the rest (zeroes, spans, lines, hubs) is as it was
SLIPS = 0.1  # of its tolerance a mark may slip that is within it and not sure to be
EDGES = 0.1  # marks, by which the outlook is to be better for marks that hold to come near the edge of their tolerance
A_SPANNER = 0.02  # of a mark: by so much an adjuster more must better the outlook


def solve_together(
    wanted: Sequence[Wanted],
    levers: Sequence[Lever],
    worth: FloatArray,
    covariance: Sequence[FloatArray],
    fixed: FloatArray | None = None,
    further: Callable[[FloatArray], FloatArray] | None = None,
    held: NDArray[np.bool_] | None = None,
    share: float = 1.0,
) -> Turns:
    """Return the turns of all levers that bring all marks nearest their aims, fewest adjusters for what holds beyond doubt.

    worth: (marks, levers), mark units a turn; covariance: per mark (levers, levers); fixed: (levers,) turns that are made and stand, nan where
    a lever is free; further: of turns (levers,), what they do to every mark (marks,) beyond so many times one of them, asked once near the
    optimum; held: (marks,) those that are to stay held. Of what holds more marks only that is taken which loses none of these, and where one
    mark is out of reach the others are brought in without it. Marks are weighted anew until as many as can be hold; then every adjuster is
    left alone without which they do as well.
    Levers that do the same are no refusal: the better known does it.
    Source: see the module.
    """
    form = _Form.of(wanted, levers, np.asarray(worth, dtype=float), covariance, fixed, held, share)
    free = np.isnan(form.fixed)
    best = form.best(free)
    if further is not None:
        form = form.aimed(form.target - further(best) / np.array([w.tolerance for w in wanted]))
        best = form.best(free)
    leaned = _leaned(form, best, free)
    best = _fewest(form, _kept(form, leaned, free), free)
    if form.held.any():  # marks may come near their edge where that brings more to hold than it puts at risk
        near = form.to_the_edge()
        other = _fewest(near, _kept(near, leaned, free), free)
        found, then = form.outlook(np.stack([best, other]))
        best = other if then > found + EDGES else best
    return _answer(form, best, free)


def gains(
    wanted: Sequence[Wanted], worth: FloatArray, covariance: Sequence[FloatArray], held: NDArray[np.bool_], turns: FloatArray
) -> tuple[float, float]:
    """Return what turns (levers,) gain: how many marks more than now are likely to be read as holding, and by how much what is out beyond doubt
    comes nearer, a step of it the less the further out it is.

    A mark that is moved by more than its turns may move it unread (SPOILS of its tolerance), or does not hold now and is moved at all, is read
    again, with the scatter of that, and counts by how much likelier it is to hold then than if it were read again unmoved; the others stay as they are.
    Both are one sum of where the car stands, so no two turns are worth their while that undo each other.
    Source: normal distribution of what is left and of the reading of it; the logarithm of 1 + what is out, in tolerances; docs/choices.md, Turning.
    """
    levers = [Lever(str(i), 0.0, 0.0) for i in range(len(turns))]
    form = _Form.of(wanted, levers, np.asarray(worth, dtype=float), covariance, None, held)
    return float(form.outlook(turns[None])[0]), float(form.nearer_by(turns[None])[0])


def cost_of(
    wanted: Sequence[Wanted],
    levers: Sequence[Lever],
    worth: FloatArray,
    covariance: Sequence[FloatArray],
    held: NDArray[np.bool_],
    mark: int,
) -> tuple[int, ...]:
    """Return which of the marks that hold would no longer do so beyond doubt, were one mark brought in before all others; none where it cannot be.

    Source: least squares with that mark weighted above all; see :func:`solve_together`.
    """
    form = _Form.of(wanted, levers, np.asarray(worth, dtype=float), covariance, None, held)
    others = np.where(form.held, np.sqrt(ABOVE_ALL), 1 / np.maximum(np.abs(form.target), 1.0) ** 2)
    turns = form.leaning(np.where(np.arange(len(wanted)) == mark, ABOVE_ALL, others)).best(np.ones(len(levers), dtype=bool))
    spoilt = np.flatnonzero(form.held & form._past(turns[None])[0])
    return tuple(map(int, spoilt)) if form.within(turns)[mark] else ()


def search_together(
    wanted: Sequence[Wanted],
    levers: Sequence[Lever],
    worth: FloatArray,
    covariance: Sequence[FloatArray],
    held: NDArray[np.bool_],
) -> tuple[Turns, float]:
    """Return the turns of one lever or of two that are worth most of all their whole steps, none of which loses what is held; and what they are worth.

    No turns where nothing betters it. Of one lever every step of its room is tried; of two, those around the best of both for the marks that
    do not hold, and for each of these alone.
    Source: whole search; see :func:`gains`.
    """
    form = _Form.of(wanted, levers, np.asarray(worth, dtype=float), covariance, None, held)
    free = np.ones(len(levers), dtype=bool)
    every = np.vstack([np.zeros((1, len(levers))), *form.singles(), *form.pairs()])
    tries: FloatArray = np.unique(np.round(every, 9), axis=0).astype(np.float64)
    tries = tries[form.keeps(tries)]
    worth_it = form.outlook(tries) + form.nearer_by(tries) - A_SPANNER * np.sum(tries != 0, axis=1)
    best = tries[int(np.lexsort((np.abs(tries).sum(axis=1), -np.round(worth_it, 6)))[0])]
    return _answer(form, best, free), float(worth_it.max())


def _leaned(form: "_Form", best: FloatArray, free: NDArray[np.bool_]) -> FloatArray:
    """Return turns that hold as many marks as can be: those that still miss are given more weight."""
    weights = np.ones(len(form.wanted))
    for _ in range(LEANS):
        if form.holding(best) == len(form.wanted):
            break
        weights = np.where(form.holds(best), weights, 2 * weights)
        other = form.leaning(weights).best(free)
        if form.merit(other) <= form.merit(best):
            break
        best = other
    return _let_go(form, best, free)


def _let_go(form: "_Form", best: FloatArray, free: NDArray[np.bool_]) -> FloatArray:
    """Return turns with which what is out of reach spoils no other mark: the further one misses, the less it weighs, until that settles; begun with all that
    misses, and with each of those that miss most let go by itself.

    Source: iteratively reweighted least squares, weights 1 within a tolerance and 1 / miss² beyond it (truncated squares).
    """
    found, missed = best, np.maximum(form.misses(best), 1.0)
    for first in (missed, *(np.where(one, missed, 1.0) for one in _worst(form, best))):
        off, last = first, best
        for _ in range(LETTING_GO):
            other = form.leaning(1 / off**2).best(free)
            found = max(found, other, key=form.merit)
            if np.array_equal(other, last) or form.within(other).all():
                break
            off, last = np.maximum(form.misses(other), 1.0), other
    return found


def _worst(form: "_Form", turns: FloatArray) -> list[NDArray[np.bool_]]:
    """Return each of the marks that turns leave furthest out of their tolerance by itself, (marks,), the furthest first."""
    missed = form.misses(turns)
    return [np.arange(len(missed)) == k for k in np.argsort(-missed)[:WORST] if missed[k] > 1]


def _kept(form: "_Form", best: FloatArray, free: NDArray[np.bool_]) -> FloatArray:
    """Return turns that lose none of the marks that are to stay held: these are given more weight, and what is out of reach less; at the least nothing is turned."""
    if not form.lost(best):
        return best
    still = np.where(np.isnan(form.fixed), 0.0, form.fixed)
    found = [still, best]
    stay = form.held | form.within(np.zeros_like(best))
    off = ~stay & ~form.holds(best)
    for out_of_reach in (np.zeros_like(off), off, *(one for one in _worst(form, best) if off[one].all())):
        weights = np.where(out_of_reach, LETS_GO, 1.0)
        for _ in range(KEEPS):
            weights = np.where(stay, 4 * weights, weights)
            found.append(form.leaning(weights).best(free))
            if not form.lost(found[-1]):
                break
    return form.nearer(max(found, key=form.merit), free)


def _answer(form: "_Form", best: FloatArray, free: NDArray[np.bool_]) -> Turns:
    left, expanded = form.left(best)
    levers, exact = form.levers, form.bounded(free)
    missed = form.misses(exact) > 1e-6
    ended = [
        lever.adjuster
        for x, lever, one in zip(exact, levers, free, strict=True)
        if one and (x <= lever.low + 1e-9 or x >= lever.high - 1e-9)
    ]
    return Turns(
        tuple(map(float, best)),
        tuple(map(float, exact)),
        tuple(map(float, left)),
        tuple(map(float, expanded)),
        tuple(ended) if missed.any() else (),
        bool(missed.any()),
    )


def _fewest(form: "_Form", best: FloatArray, free: NDArray[np.bool_]) -> FloatArray:
    """Return turns that do as well with as few adjusters as can be: with one, with two (of few), else the least of those turned left alone first."""
    own, open_ = np.flatnonzero(free), len(form.wanted) - form.holding(np.zeros_like(best))
    # One adjuster brings hardly more than height, camber and toe of a corner to hold.
    for size in [n for n in (1, 2) if open_ <= 3 * n and (n == 1 or len(own) <= FEW)]:
        tries = []
        for chosen in combinations(own, size) if np.sum(best[own] != 0) > size else ():
            only = np.zeros_like(free)
            only[list(chosen)] = True
            if form.does_as_well(other := form.best(only), best):
                tries.append(other)
        if tries:
            return min(tries, key=form.cost)
    while True:
        used = [j for j in np.argsort(np.diag(form.square) * best**2) if free[j] and best[j]]
        for j in used if form.holds(best).all() else form.spared(best, used):
            without = free & (best != 0)
            without[j] = False
            other = form.best(without)
            if form.does_as_well(other, best):
                best = other
                break
        else:
            return best


@dataclass(frozen=True)
class _Form:
    """The quadratic form: rows (marks, levers) and target (marks,) in tolerances, ``square`` (levers, levers) with the doubt of the worths in it."""

    wanted: Sequence[Wanted]
    levers: Sequence[Lever]
    rows: FloatArray
    target: FloatArray
    doubts: FloatArray  # (marks, levers, levers), squared tolerances
    u2: FloatArray  # (marks,) of the readings, squared tolerances
    held: NDArray[np.bool_]  # (marks,) that are to stay held
    share: float  # of the doubt about worths that weighs: less than 1 where all will be read and turned once more in any case
    edge: bool  # whether these may come as near their edge as their readings tell, whatever the doubt about the turns
    square: FloatArray
    towards: FloatArray
    fixed: FloatArray
    low: FloatArray
    high: FloatArray
    step: FloatArray
    moves: "_Moves"
    gains: FloatArray  # (tries,) what each adds to the form by itself

    @classmethod
    def of(
        cls,
        wanted: Sequence[Wanted],
        levers: Sequence[Lever],
        worth: FloatArray,
        covariance: Sequence[FloatArray],
        fixed: FloatArray | None,
        held: NDArray[np.bool_] | None = None,
        share: float = 1.0,
    ) -> "_Form":
        tolerances = np.array([w.tolerance for w in wanted])
        rows, target = worth / tolerances[:, None], np.array([w.to_go for w in wanted]) / tolerances
        doubts = np.asarray(covariance, dtype=float) / (tolerances**2)[:, None, None]
        step = np.array([lever.flats_per_step for lever in levers]) / FLATS_PER_TURN
        stands = np.full(len(levers), np.nan) if fixed is None else fixed
        # Nothing is turned past its end; what stands already, stands.
        low, high = (np.array([getattr(lever, end) for lever in levers], dtype=float) for end in ("low", "high"))
        low, high = np.ceil(low / step - 1e-9) * step, np.floor(high / step + 1e-9) * step
        u2 = (np.array([w.u for w in wanted]) / tolerances) ** 2
        moves, none = _moves(tuple(step.tolist())), np.zeros(0)
        keep = np.zeros(len(wanted), dtype=bool) if held is None else np.asarray(held, dtype=bool)
        made = cls(
            wanted,
            levers,
            rows,
            target,
            doubts,
            u2,
            keep,
            share,
            False,
            np.zeros((0, 0)),
            none,
            stands,
            low,
            high,
            step,
            moves,
            none,
        )
        return made.leaning(np.ones(len(wanted)))

    def leaning(self, weights: FloatArray) -> "_Form":
        """Return the form with marks (marks,) weighted."""
        square = (self.rows * weights[:, None]).T @ self.rows + np.tensordot(self.share * weights, self.doubts, 1)
        square = square + RIDGE * max(float(np.max(np.diag(square), initial=0.0)), 1e-12) * np.eye(len(self.levers))
        towards = (self.rows * weights[:, None]).T @ self.target
        gains = np.einsum("ki,ki->k", self.moves.rows @ square, self.moves.rows)
        return replace(self, square=square, towards=towards, gains=gains)

    def aimed(self, target: FloatArray) -> "_Form":
        """Return the form with other targets (marks,), the marks weighted alike."""
        return replace(self, target=target, towards=self.rows.T @ target)

    def left(self, turns: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Return what is left to go of every mark after turns, and its U then, in its unit."""
        tolerances = np.array([w.tolerance for w in self.wanted])
        return (self.target - self.rows @ turns) * tolerances, self.expanded(turns) * tolerances

    def expanded(self, turns: FloatArray) -> FloatArray:
        """Return the U of every mark after turns, in tolerances."""
        return self._expanded_of(turns[None])[0]  # type: ignore[no-any-return]

    def misses(self, turns: FloatArray) -> FloatArray:
        """Return by how much marks miss their aims after turns (..., levers), sure or not: (..., marks), in tolerances."""
        return np.asarray(np.abs(self.target - turns @ self.rows.T))

    def holds(self, turns: FloatArray) -> NDArray[np.bool_]:
        """Return which marks would hold beyond doubt after turns, or as near as their tools could tell."""
        within = np.maximum(1 - self.expanded(turns), SURE_SHARE)
        return np.asarray(self.misses(turns) <= within + 1e-9)

    def within(self, turns: FloatArray) -> NDArray[np.bool_]:
        """Return which marks come within their tolerance by turns (..., levers), sure or not: (..., marks)."""
        return np.asarray(self.misses(turns) <= 1 + 1e-9)

    def holding(self, turns: FloatArray) -> int:
        """Return how many."""
        return int(self.holds(turns).sum())

    def cost(self, turns: FloatArray) -> float:
        """Return the expected sum of squared misses in tolerances, but for a constant."""
        return float(turns @ self.square @ turns - 2 * self.towards @ turns)

    def lost(self, turns: FloatArray) -> int:
        """Return how many of the marks that are to stay held would not, or are within their tolerance and would be nearer its edge than they would hold at."""
        return int(np.sum(self._past(turns[None])))

    def to_the_edge(self) -> "_Form":
        """Return the form with what holds allowed as near its edge as the readings tell."""
        return replace(self, edge=True)

    def _past(self, tries: FloatArray) -> NDArray[np.bool_]:
        """Return which marks turns (n, levers) leave further off than they may be, (n, marks): what holds goes no nearer its edge than it
        reads or would hold at, what is within without being sure hardly nearer, what is out beyond doubt may be anywhere."""
        read = COVERAGE * np.sqrt(self.u2)
        doubt = np.broadcast_to(read, (len(tries), len(self.u2))) if self.edge else self._expanded_of(tries)
        off, surely = np.abs(self.target), np.maximum(1 - doubt, SURE_SHARE)
        within = np.where(off <= 1 + 1e-9, np.minimum(np.maximum(off + SLIPS, surely), 1.0), np.inf)
        limits = np.where(self.held, np.maximum(off, surely), within) + 1e-9
        return np.asarray(self.misses(tries) > limits)

    def merit(self, turns: FloatArray) -> tuple[int, int, int, float]:
        """Return what makes one answer better than another: how few marks are lost, how many hold, how many come within their tolerance, then how little they miss."""
        return -self.lost(turns), self.holding(turns), int(self.within(turns).sum()), -self.cost(turns)

    def keeps(self, tries: FloatArray) -> NDArray[np.bool_]:
        """Return which of several turns (n, levers) lose none of the marks that are to stay held."""
        return np.asarray(~np.any(self._past(tries), axis=1))

    def nearer(self, turns: FloatArray, free: NDArray[np.bool_]) -> FloatArray:
        """Return turns that miss less in all, step by step, none of which loses a mark that is to stay held, or that has come within its tolerance."""
        if self.lost(turns):
            return turns
        moves = self.moves.rows[free[self.moves.i] & free[self.moves.j]] if len(self.moves.rows) else self.moves.rows
        within = self.within(turns)
        for _ in range(ROUNDS if len(moves) else 0):
            tries = turns + moves
            change = np.einsum("ki,ij,kj->k", moves, self.square, moves) - 2 * moves @ (self.towards - self.square @ turns)
            good = (change < -1e-9) & np.all((tries >= self.low - 1e-9) & (tries <= self.high + 1e-9), axis=1)
            at = np.flatnonzero(good)
            at = at[self.keeps(tries[at]) & np.all(self.within(tries[at])[:, within], axis=1)]
            if not len(at):
                break
            turns = tries[at[np.argmin(change[at])]]
        return self._whole(turns)

    def _whole(self, turns: FloatArray) -> FloatArray:
        """Return turns with what sums of steps have blurred put right."""
        return np.where(self.moves.flats, np.round(turns * FLATS_PER_TURN) / FLATS_PER_TURN, turns)

    def _expanded_of(self, tries: FloatArray) -> FloatArray:
        """Return the U of every mark after turns, (n, marks), in tolerances."""
        doubts = np.einsum("mij,ni,nj->nm", self.doubts, tries, tries, optimize=True)
        return np.asarray(COVERAGE * np.sqrt(np.maximum(self.u2 + doubts, 0.0)))

    def outlook(self, tries: FloatArray) -> FloatArray:
        """Return how many marks more than now are likely to be read as holding after turns (n, levers), (n,); see :func:`gains`."""
        moved, expanded, doubt = tries @ self.rows.T, self._expanded_of(tries), COVERAGE * np.sqrt(self.u2)
        doubted = np.sqrt(np.maximum(expanded**2 - doubt**2, 0.0))  # of the turns themselves
        limit = np.where(self.held, SPOILS, HARDLY)
        again = np.maximum(np.abs(moved), doubted) > limit
        room = np.maximum(1 - doubt, 0.0)

        def chance(left: FloatArray, doubted: FloatArray) -> FloatArray:
            u = np.sqrt((doubted / COVERAGE) ** 2 + ANEW * self.u2) + 1e-12
            return np.where(room > 0, ndtr((room - left) / u) - ndtr((-room - left) / u), 0.0)

        # What does not hold could as well be read once more as it stands.
        before = np.where(self.held, 1.0, chance(self.target, np.zeros_like(doubt)))
        return np.asarray(np.sum(np.where(again, chance(self.target - moved, doubted) - before, 0.0), axis=1))

    def nearer_by(self, tries: FloatArray) -> FloatArray:
        """Return by how much turns (n, levers) bring nearer what is out beyond doubt, (n,); see :func:`nearer`."""
        read = COVERAGE * np.sqrt(self.u2)
        still, then = (
            np.log1p(np.maximum(missed - 1 - read, 0.0)).sum(axis=-1) for missed in (np.abs(self.target), self.misses(tries))
        )
        return np.asarray(still - then)

    def singles(self) -> list[FloatArray]:
        """Return every step of every lever by itself, (n, levers) each."""
        found = []
        for j, step in enumerate(self.step):
            low, high = (
                round(end / step) for end in (max(self.low[j], -ALL_STEPS * step), min(self.high[j], ALL_STEPS * step))
            )
            rows = np.zeros((max(high - low + 1, 0), len(self.step)))
            rows[:, j] = step * np.arange(low, high + 1) if high >= low else 0.0
            found.append(rows)
        return found

    def pairs(self) -> list[FloatArray]:
        """Return the steps of every two levers around what is best for the marks that do not hold, all together and each alone, (n, levers) each."""
        open_ = np.flatnonzero(~self.held & ~self.holds(np.zeros(len(self.step))))
        near = np.stack(np.meshgrid(*[np.arange(-NEAR, NEAR + 1)] * 2, indexing="ij"), axis=-1).reshape(-1, 2)
        kept = np.where(self.held, 4.0, 0.0)
        forms = [self.leaning(kept + np.isin(np.arange(len(kept)), some)) for some in ([open_] + [[k] for k in open_])]
        found = []
        for i, j in combinations(range(len(self.step)), 2):
            if not (np.any(self.rows[open_, i]) or np.any(self.rows[open_, j])):
                continue
            at = np.array([i, j])
            for form in forms:
                exact = np.linalg.solve(form.square[at[:, None], at], form.towards[at])
                steps = np.round(np.clip(exact, self.low[at], self.high[at]) / self.step[at]) + near
                rows = np.zeros((len(steps), len(self.step)))
                rows[:, at] = steps * self.step[at]
                found.append(rows[np.all((rows >= self.low - 1e-9) & (rows <= self.high + 1e-9), axis=1)])
        return found

    def does_as_well(self, other: FloatArray, turns: FloatArray) -> bool:
        """Return whether other turns do as well: every mark that holds holds still, what is within its tolerance stays there, as many are likely to be read as holding, and what is not misses by hardly more."""
        held = self.holds(turns)
        if not np.all(self.holds(other)[held]) or self.lost(other) > self.lost(turns):
            return False
        if not np.all(self.within(other)[self.within(turns)]):
            return False
        less, now = self.outlook(np.stack([other, turns]))
        if less < now - EDGES:
            return False
        return bool(held.all()) or self.cost(other) <= self.cost(turns) + HARDLY_WORSE

    def spared(self, turns: FloatArray, used: Sequence[int]) -> list[int]:
        """Return those of the levers in use without which the cost may be hardly more: for the others even the best of the rest, no end in its way, is worse.

        Source: the least of a quadratic form with one unknown at 0 is more than its least by the square of that unknown over its diagonal
        entry of the inverse.
        """
        own, rest = np.array(used, dtype=int), np.where(np.isin(np.arange(len(turns)), used), 0.0, turns)
        towards = self.towards[own] - self.square[own] @ rest
        inverse = np.linalg.inv(self.square[own[:, None], own])
        least = inverse @ towards
        bound = self.cost(rest) - float(towards @ least) + least**2 / np.diag(inverse)
        allowed = self.cost(turns) + HARDLY_WORSE + 1e-9
        return [j for j, cost in zip(used, bound, strict=True) if cost <= allowed]

    def bounded(self, free: NDArray[np.bool_]) -> FloatArray:
        """Return the best turns of the free levers within their room, not in whole steps; the others stay where they stand, else at 0."""
        turns = np.where(np.isnan(self.fixed), 0.0, self.fixed)
        open_ = free & (self.high > self.low)
        if not open_.any():
            return turns
        own = np.flatnonzero(open_)
        square, towards = self.square[own[:, None], own], self.towards[own] - self.square[own] @ np.where(open_, 0.0, turns)
        best = np.linalg.solve(square, towards)
        low, high = self.low[own], self.high[own]
        if np.any((best < low) | (best > high)):
            root = np.linalg.cholesky(square).T
            best = lsq_linear(root, np.linalg.solve(root.T, towards), (low, high), method="bvls", tol=1e-12).x
        turns[open_] = best
        return turns

    def best(self, free: NDArray[np.bool_]) -> FloatArray:
        """Return the best whole steps of the free levers that descent finds from the bounded optimum."""
        exact = self.bounded(free)
        turns = np.where(free, np.clip(np.round(exact / self.step) * self.step, self.low, self.high), exact)
        moves, gains = self.moves, self.gains
        if not free.all():
            gains = np.where(free[moves.i] & free[moves.j], gains, np.inf)
        low, high = self.low - 1e-9, self.high + 1e-9
        for _ in range(ROUNDS if len(gains) else 0):
            change = gains - 2 * (moves.rows @ (self.towards - self.square @ turns))
            while True:  # the best step for which there is room
                k = int(np.argmin(change))
                after = turns + moves.rows[k]
                i, j = moves.i[k], moves.j[k]
                if change[k] >= -1e-12 or (low[i] <= after[i] <= high[i] and low[j] <= after[j] <= high[j]):
                    break
                change[k] = np.inf
            if change[k] >= -1e-12:
                break
            turns = after
        return self._whole(turns)


class _Moves(NamedTuple):
    """Steps that are tried, ``rows`` (tries, levers): of lever ``i`` alone (then ``j`` is the same), or of ``i`` and ``j`` (tries,);
    ``flats`` (levers,): whose steps are whole flats: those of an eccentric are none."""

    rows: FloatArray
    i: IntArray
    j: IntArray
    flats: NDArray[np.bool_]


@lru_cache(maxsize=64)
def _moves(step: tuple[float, ...]) -> _Moves:
    """Return single steps of every lever, one to three, and pairs of one or two, each either way."""
    found = [(j, j, n, 0) for j in range(len(step)) for n in (-3, -2, -1, 1, 2, 3)]
    for i, j in combinations(range(len(step)), 2):
        for n, m in ((1, 1), (1, -1), (1, 2), (1, -2), (2, 1), (2, -1)):
            found += [(i, j, way * n, way * m) for way in (1, -1)]
    i_, j_, n_, m_ = np.array(found, dtype=int).reshape(-1, 4).T
    rows, at = np.zeros((len(found), len(step))), np.arange(len(found))
    rows[at, j_] = m_
    rows[at, i_] = n_
    flats = np.array(step) * FLATS_PER_TURN
    return _Moves(rows * np.array(step), i_, j_, np.abs(flats - np.round(flats)) < 1e-12)
