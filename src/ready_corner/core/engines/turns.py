"""Which adjusters to turn and how far, so that several marks of a corner come to their aims together.

Source: bounded least squares in units of tolerance, whole steps searched; docs/choices.md.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import lsq_linear

from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import COVERAGE
from ready_corner.core.quantities.notation import FLATS_PER_TURN, nearest_flats

FloatArray = NDArray[np.float64]

# Two adjusters whose effects, each mark in units of its tolerance, differ by less than this share are one adjuster to the car.
LEAST_DIFFERENCE = 0.02
# A ridge against the size of the effects: picks the smallest turns among those that do equally well, far below a flat.
RIDGE = 1e-7
FAR_REACH = 24  # of one of two adjusters, with the best of the other
REACH = (3, 3, 3, 2, 1)  # steps each way that are searched, by how many adjusters are turned


class AlikeError(MeasuredError):
    """Adjusters that move the car the same way; ``adjusters`` names them."""

    code = "adjusters_alike"

    def __init__(self, adjusters: Sequence[str], what: Finding) -> None:
        self.adjusters = tuple(adjusters)
        super().__init__(what, path="adjusters")


@dataclass(frozen=True)
class Wanted:
    """One mark to bring to its aim: how far it still has to go, its tolerance and the standard uncertainty of its reading."""

    mark: str
    to_go: float
    tolerance: float
    u: float


@dataclass(frozen=True)
class Lever:
    """One adjuster: its identity, room each way in turns, smallest step in flats, and what it is called in sentences."""

    adjuster: str
    low: float
    high: float
    flats_per_step: float = 1
    name: str = ""

    @property
    def called(self) -> str:
        """Its name, else its identity."""
        return self.name or self.adjuster


@dataclass(frozen=True)
class Turns:
    """The answer: turns of each adjuster in whole steps, and what they will leave of each mark's way to its aim.

    ``exact`` are the turns before rounding. ``left``: to-go after the turns, in the order asked; ``expanded``: U of the mark's
    reading after them. ``at_limit``: adjusters stopped by their thread. ``compromise``: fewer adjusters than aims, or a thread
    that ends, keep an aim from being met exactly.
    """

    turns: tuple[float, ...]
    exact: tuple[float, ...]
    left: tuple[float, ...]
    expanded: tuple[float, ...]
    at_limit: tuple[str, ...]
    compromise: bool


def solve(wanted: Sequence[Wanted], levers: Sequence[Lever], worth: FloatArray, covariance: Sequence[FloatArray]) -> Turns:
    """Return the turns that bring the marks nearest their aims, each miss counted in units of its tolerance.

    worth: (marks, levers), mark units per turn; covariance: per mark (levers, levers). The whole steps around the bounded optimum of
    every set of adjusters are searched: of those after which all marks hold beyond doubt, the one with the fewest adjusters, then the
    least turning; where there is none, the one with the least sum of squares in units of tolerance.
    Raises AlikeError where two marks need two adjusters and some given move the car the same way.
    Source: bounded least squares in units of tolerance, whole steps searched; docs/choices.md.
    """
    tolerances = np.array([w.tolerance for w in wanted])
    target = np.array([w.to_go for w in wanted]) / tolerances
    scaled = np.asarray(worth, dtype=float) / tolerances[:, None]
    _refuse_alike(scaled, levers, [np.asarray(c) / t**2 for c, t in zip(covariance, tolerances, strict=True)])
    low, high = np.array([lever.low for lever in levers]), np.array([lever.high for lever in levers])
    exact = _bounded(scaled, target, low, high)
    turns = _whole_steps(wanted, levers, scaled, target, covariance)
    left = (target - scaled @ turns) * tolerances
    expanded = [
        COVERAGE * float(np.sqrt(w.u**2 + turns @ np.asarray(c) @ turns)) for w, c in zip(wanted, covariance, strict=True)
    ]
    at_limit = tuple(
        lever.adjuster for x, lever in zip(exact, levers, strict=True) if x <= lever.low + 1e-9 or x >= lever.high - 1e-9
    )
    missed = np.abs(target - scaled @ exact) > 1e-6  # of a tolerance
    return Turns(
        tuple(map(float, turns)),
        tuple(map(float, exact)),
        tuple(map(float, left)),
        tuple(expanded),
        at_limit if missed.any() else (),
        bool(missed.any()),
    )


def _bounded(scaled: FloatArray, target: FloatArray, low: FloatArray, high: FloatArray) -> FloatArray:
    free = np.linalg.lstsq(scaled, target, rcond=None)[0]
    if np.all((free >= low) & (free <= high)):
        return np.asarray(free, dtype=float)
    open_ = high - low > 1e-12  # lsq_linear wants room; an adjuster without any stays where it is
    turns = np.clip(np.zeros_like(low), low, high)
    if open_.any():
        size = RIDGE * np.linalg.norm(scaled)
        rows = np.vstack([scaled[:, open_], size * np.eye(int(open_.sum()))])
        found = lsq_linear(
            rows, np.concatenate([target, np.zeros(int(open_.sum()))]), (low[open_], high[open_]), method="bvls", tol=1e-14
        )
        turns[open_] = found.x
    return turns


def _whole_steps(
    wanted: Sequence[Wanted], levers: Sequence[Lever], scaled: FloatArray, target: FloatArray, covariance: Sequence[FloatArray]
) -> FloatArray:
    """Return the whole steps of every lever, (levers,) turns, by the rule of :func:`solve`."""
    tries = np.unique(np.round(np.vstack(list(_tries(levers, scaled, target))) * FLATS_PER_TURN), axis=0) / FLATS_PER_TURN
    missed = np.abs(target - tries @ scaled.T)  # in tolerances
    squares = np.sum(missed**2, axis=1)
    u = [
        np.sqrt(w.u**2 + np.einsum("ij,jk,ik->i", tries, np.asarray(c), tries)) for w, c in zip(wanted, covariance, strict=True)
    ]
    within = 1 - COVERAGE * np.column_stack(u) / np.array([w.tolerance for w in wanted])
    holds = np.all(missed <= within + 1e-9, axis=1)
    count, turning = np.sum(tries != 0, axis=1), np.abs(tries).sum(axis=1)
    nearest = np.round(squares, 9)  # a tie goes to less turning
    keys = (squares, turning, count, ~holds) if holds.any() else (turning, count, nearest)
    order = np.lexsort(keys)
    return np.asarray(tries[order[0]])


def _tries(levers: Sequence[Lever], scaled: FloatArray, target: FloatArray) -> Iterator[FloatArray]:
    """Yield whole steps (n, levers) around the bounded optimum of every set of adjusters, and no step at all."""
    low, high = np.array([lever.low for lever in levers]), np.array([lever.high for lever in levers])
    yield np.zeros((1, len(levers)))
    for size in range(1, len(levers) + 1):
        for chosen in combinations(range(len(levers)), size):
            at = list(chosen)
            exact = _bounded(scaled[:, at], target, low[at], high[at])
            axes = [_steps_near(x, levers[i], REACH[min(size, len(REACH)) - 1]) for i, x in zip(at, exact, strict=True)]
            rows = np.zeros((int(np.prod([len(a) for a in axes])), len(levers)))
            rows[:, at] = np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1).reshape(-1, size)
            yield rows
            if size == 2:
                yield from _along(at, exact, levers, scaled, target)


def _along(
    at: list[int], exact: FloatArray, levers: Sequence[Lever], scaled: FloatArray, target: FloatArray
) -> Iterator[FloatArray]:
    """Yield pairs of whole steps along the valley that two adjusters of nearly the same effect leave: each step of one with the best of the other."""
    for one, other in ((0, 1), (1, 0)):
        slope = scaled[:, at[other]]
        if not slope @ slope:
            continue
        for step in _steps_near(exact[one], levers[at[one]], FAR_REACH):
            best = float(slope @ (target - scaled[:, at[one]] * step) / (slope @ slope))
            near = _steps_near(best, levers[at[other]], 2)
            rows = np.zeros((len(near), len(levers)))
            rows[:, at[one]], rows[:, at[other]] = step, near
            yield rows


def _steps_near(exact: float, lever: Lever, reach: int) -> FloatArray:
    """Return the whole steps within so many of a turn that is not whole, inside the room."""
    step = lever.flats_per_step / FLATS_PER_TURN
    near = nearest_flats(exact, lever.flats_per_step)
    found = near + step * np.arange(-reach, reach + 1)
    found = found[(found >= lever.low - 1e-9) & (found <= lever.high + 1e-9)]
    return np.asarray(found) if len(found) else np.zeros(1)


def _refuse_alike(scaled: FloatArray, levers: Sequence[Lever], covariance: Sequence[FloatArray]) -> None:
    """Refuse several adjusters that all do the same, as far as the trials can tell (twice the standard uncertainty)."""
    if min(scaled.shape) < 2:
        return
    # Judge directions, not lengths: a fine thread is no less an adjuster than a coarse one.
    length = np.linalg.norm(scaled, axis=0)
    if np.any(length == 0):
        idle = [lever for lever, one in zip(levers, length, strict=True) if one == 0]
        named = " and ".join(lever.called for lever in idle)
        raise AlikeError([lever.adjuster for lever in idle], finding("turns.idle", named=named))
    for one, other in combinations(range(len(levers)), 2):
        at = [one, other]
        left, singular, right = np.linalg.svd(scaled[:, at] / length[at])
        second = right[1] / length[at]
        doubt = np.sqrt(sum(left[m, 1] ** 2 * (second @ c[np.ix_(at, at)] @ second) for m, c in enumerate(covariance)))
        if singular[1] < max(LEAST_DIFFERENCE * singular[0], 2 * doubt):
            names = [levers[i].called for i in at]
            raise AlikeError(
                [levers[i].adjuster for i in at],
                finding("turns.alike", names=tuple(names)),
            )
