"""Which adjusters to turn and how far, so that several marks of a corner come to their aims together."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import lsq_linear

from ready_corner.core.errors import MeasuredError
from ready_corner.core.metrology.measured import COVERAGE
from ready_corner.core.shop import nearest_flats

FloatArray = NDArray[np.float64]

# Two adjusters whose effects, each mark in units of its tolerance, differ by less than this share are one adjuster to the car.
LEAST_DIFFERENCE = 0.02
# A ridge against the size of the effects: picks the smallest turns among those that do equally well, far below a flat.
RIDGE = 1e-7


class AlikeError(MeasuredError):
    """Adjusters that move the car the same way; ``adjusters`` names them."""

    code = "adjusters_alike"

    def __init__(self, adjusters: Sequence[str], sentence: str) -> None:
        self.adjusters = tuple(adjusters)
        super().__init__(sentence, path="adjusters")


@dataclass(frozen=True)
class Wanted:
    """One mark to bring to its aim: how far it still has to go, its tolerance and the standard uncertainty of its reading."""

    mark: str
    to_go: float
    tolerance: float
    u: float


@dataclass(frozen=True)
class Lever:
    """One adjuster: name, room each way in turns, smallest step in flats."""

    adjuster: str
    low: float
    high: float
    flats_per_step: int = 1


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

    worth: (marks, levers), mark units per turn; covariance: per mark (levers, levers). Bounded least squares; among turns that
    do equally well, the smallest. Turns are rounded to the nearest whole step inside the room; a tie goes to the smaller one.
    Raises AlikeError where two marks need two adjusters and all given move the car the same way.
    """
    tolerances = np.array([w.tolerance for w in wanted])
    target = np.array([w.to_go for w in wanted]) / tolerances
    scaled = np.asarray(worth, dtype=float) / tolerances[:, None]
    _refuse_alike(scaled, levers, [np.asarray(c) / t**2 for c, t in zip(covariance, tolerances, strict=True)])
    low, high = np.array([lever.low for lever in levers]), np.array([lever.high for lever in levers])
    exact = _bounded(scaled, target, low, high)
    turns = np.array([_whole(x, lever) for x, lever in zip(exact, levers, strict=True)])
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


def _whole(exact: float, lever: Lever) -> float:
    step = lever.flats_per_step / 6
    turns = nearest_flats(exact, lever.flats_per_step)
    while turns > lever.high + 1e-9:
        turns -= step
    while turns < lever.low - 1e-9:
        turns += step
    return turns


def _refuse_alike(scaled: FloatArray, levers: Sequence[Lever], covariance: Sequence[FloatArray]) -> None:
    """Refuse several adjusters that all do the same, as far as the trials can tell (twice the standard uncertainty)."""
    if min(scaled.shape) < 2:
        return
    # Judge directions, not lengths: a fine thread is no less an adjuster than a coarse one.
    length = np.linalg.norm(scaled, axis=0)
    if np.any(length == 0):
        idle = [lever.adjuster for lever, one in zip(levers, length, strict=True) if one == 0]
        raise AlikeError(idle, f"Turning {' and '.join(idle)} changed nothing that was read. Leave it out.")
    left, singular, right = np.linalg.svd(scaled / length)
    second = right[1] / length
    doubt = np.sqrt(sum(left[m, 1] ** 2 * (second @ c @ second) for m, c in enumerate(covariance)))
    if singular[1] < max(LEAST_DIFFERENCE * singular[0], 2 * doubt):
        names = [lever.adjuster for lever in levers]
        raise AlikeError(
            names,
            f"{' and '.join(names)} move this corner the same way, as far as the trials tell, so they cannot be told apart. "
            "Choose one of them, or try each again by a larger turn.",
        )
