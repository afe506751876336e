"""What this car has taught of its perches: how much more or less each raises than the springs of the plan say, by heights read before and after.

The plan's springs give what a turn does to all four corners up to one factor a perch; the factors are estimated by weighted least squares
with the plan as a first guess, so that one turn and one round of heights already tell, and more tell better.

Source: weighted least squares with the plan as prior; docs/stance.md.
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.learning import FloatArray, Observations
from ready_corner.core.judge.marks import Evaluation
from ready_corner.core.judge.memory import remembered
from ready_corner.core.model.heights import cross_share
from ready_corner.core.plan.corners import CORNERS, Corner
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import COVERAGE

GUESS_U = (
    0.3  # standard uncertainty of the plan's factor 1: ratios and rates of springs are rarely known better than to a third
)
TOLD = 0.5  # a factor whose uncertainty has come under this share of the guess's is told as learned


@dataclass(frozen=True)
class PerchFactors:
    """Factors of the four perches on what the plan says, with their covariance (4, 4); ``learned``: which of them the car has told, and what that came to."""

    factors: FloatArray
    covariance: FloatArray
    learned: tuple[bool, ...]
    cross_factor: float
    says: tuple[tuple[str, Finding], ...]  # by adjuster


def perch_factors(evaluation: Evaluation, by: FloatArray, cross_by: FloatArray | None = None) -> PerchFactors:
    """Return what was learned of the perches.

    by: (4, 4) heights at their places per turn of each perch by the plan, nan columns where there is none; cross_by: (4,) percent of cross weight a turn.
    """
    perches = _perches_of(evaluation)
    rows, values, weights = [], [], []
    by = np.nan_to_num(by)
    unknowns = 8  # the factor of each perch as it goes now, and as it went before it was forgotten
    for i, corner in enumerate(CORNERS):
        for turns, value, u in _without_level(evaluation, corner):
            rows.append(turns * np.tile(by[i], 2))
            values.append(value)
            weights.append(u**-2)
    a = np.vstack(rows) if rows else np.zeros((0, unknowns))
    y, w = (np.concatenate(part) if part else np.zeros(0) for part in (values, weights))
    information = a.T @ (a * w[:, None]) + np.eye(unknowns) / GUESS_U**2
    # A factor is 1 and what is learned beside it.
    off = np.linalg.solve(information, a.T @ (w * (y - a @ np.ones(unknowns))))
    covariance: FloatArray = np.asarray(np.linalg.inv(information), dtype=np.float64)[:4, :4]
    factors: FloatArray = np.asarray(np.clip(1 + off[:4], 0.2, 5.0), dtype=np.float64)
    told = tuple(bool(np.sqrt(covariance[i, i]) < TOLD * GUESS_U) for i in range(4))
    says = tuple((p, _told(i, float(factors[i]), float(np.sqrt(covariance[i, i])))) for p, i in perches.items() if told[i])
    cross = 1.0 if cross_by is None else _cross_factor(evaluation, np.nan_to_num(cross_by) * factors)
    return PerchFactors(factors, covariance, told, cross, says)


def _told(i: int, factor: float, u: float) -> Finding:
    planned = abs(factor - 1) < COVERAGE * u
    return finding("perch.taught", corner=CORNERS[i], planned=planned, factor=factor, percent=COVERAGE * u * 100)


def _perches_of(evaluation: Evaluation) -> dict[str, int]:
    """Return the perches of the plan, each with the place of its corner among the four."""
    return {p.id: i for i, c in enumerate(CORNERS) if (p := evaluation.state.plan.perch(c)) is not None}


@remembered
def _without_level(evaluation: Evaluation, corner: Corner) -> tuple[tuple[FloatArray, FloatArray, FloatArray], ...]:
    """Return, a stretch at a time, turns (n, 8 unknowns), values and u (n,) less their mean, for only within a stretch heights compare."""
    perches, found = _perches_of(evaluation), evaluation.observations(f"{corner}.height")
    forgot = {a: n for a, n in evaluation.state.stance.unlearned.items() if a in perches}
    until = {name: evaluation.turned_at(name, number) for name, number in forgot.items()}
    all_turns = _turns_of(found, perches)
    parts = []
    for stretch in np.unique(found.stretch):
        own = found.stretch == stretch
        total = all_turns[own]
        if len(total) < 2 or not np.any(total != total[0]):
            continue  # no perch was turned between them
        before = np.zeros_like(total)  # as far as what was learned then was given up since
        for k, name in enumerate(perches):
            if name in forgot:
                before[:, k] = np.where(found.numbers[own] <= forgot[name], total[:, k], until[name])
        turns = np.zeros((len(total), 8))
        at = list(perches.values())
        turns[:, at], turns[:, [4 + i for i in at]] = total - before, before
        u, values = np.maximum(found.u[own], 1e-6), found.values[own]
        share = u**-2 / np.sum(u**-2)
        parts.append((turns - share @ turns, values - share @ values, u))
    return tuple(parts)


def _turns_of(found: Observations, perches: Mapping[str, int]) -> FloatArray:
    """Return how far each perch had been turned at every observation (n, perches); 0 for one that cannot move the mark."""
    if not perches:
        return np.zeros((len(found.values), 0))
    column = {name: found.turned[:, i] for i, name in enumerate(found.adjusters)}
    return np.stack([column.get(name, np.zeros(len(found.values))) for name in perches], axis=1)


def _cross_factor(evaluation: Evaluation, by: FloatArray) -> float:
    """Return by what factor turns move the cross weight against what springs and tyres of the plan say; 1 until two rounds of loads tell."""
    top = bottom = 0.0
    for values, turns in _rounds_of_loads(evaluation):
        sums = turns @ by
        sums = sums - sums.mean()
        top, bottom = top + float(sums @ values), bottom + float(sums @ sums)
    guess = 0.25  # squared percent: what a round of scales tells less than this by is not told
    return float(np.clip((top + guess) / (bottom + guess), 0.2, 5.0))


@remembered
def _rounds_of_loads(evaluation: Evaluation) -> tuple[tuple[FloatArray, FloatArray], ...]:
    """Return, a stretch at a time, the cross weights (n,) in percent less their mean, and how far each perch had been turned at each (n, 4)."""
    perches = _perches_of(evaluation)
    seen = [evaluation.observations(f"{c}.load") for c in CORNERS]
    found = [{key: i for i, key in enumerate(_keys(one))} for one in seen]
    rounds: dict[int, list[tuple[float, FloatArray]]] = {}
    turned = _turns_of(seen[0], perches)
    for key, i in found[0].items():
        if any(key not in other for other in found):
            continue
        loads = [float(one.values[other[key]]) for one, other in zip(seen, found, strict=True)]
        if not sum(loads) > 0:
            continue  # scales that carry nothing share nothing
        turns = np.zeros(4)
        turns[list(perches.values())] = turned[i]
        rounds.setdefault(key[0], []).append((100 * cross_share(*loads), turns))
    parts = []
    for rows in rounds.values():
        values = np.array([v for v, _ in rows])
        parts.append((values - values.mean(), np.stack([t for _, t in rows])))
    return tuple(parts)


def _keys(seen: Observations) -> list[tuple[int, frozenset[tuple[str, float]]]]:
    """Return what tells observations of the same moment: the stretch, and how far everything had been turned."""
    turned = [frozenset(zip(seen.adjusters, row, strict=True)) for row in seen.turned.tolist()]
    return list(zip(seen.stretch.tolist(), turned, strict=True))
