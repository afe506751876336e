"""What a turn of each adjuster is worth on this car, learned from readings before and after it was turned.

One mark is read several times while its adjusters are turned between the readings. Within a *stretch* in which nothing else
happened, reading = level of the stretch + Σ (worth of adjuster x turns so far). Weighted least squares over all stretches gives
the worths with their covariance; an adjuster that the readings cannot tell from another is left out and named.

Source: weighted least squares with a level a stretch; docs/choices.md.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]

# An adjuster counts as determined when its unit vector leaves less than this in the null space of the design.
DETERMINED = 1e-7


class Observations(NamedTuple):
    """Figures of one mark (n), in its unit: each with its own standard uncertainty, its stretch, the number of its latest entry and the
    cumulative turns of each adjuster by then (n, adjusters)."""

    adjusters: tuple[str, ...]
    turned: FloatArray
    values: FloatArray
    u: FloatArray
    stretch: IntArray
    numbers: IntArray


@dataclass(frozen=True)
class WorthOfTurns:
    """What one turn (or shim) of each adjuster adds to one mark, in its unit.

    ``per_turn`` and ``covariance`` (n, n) run with ``adjusters``; ``alike`` names those moved only together.
    """

    adjusters: tuple[str, ...] = ()
    per_turn: tuple[float, ...] = ()
    covariance: tuple[tuple[float, ...], ...] = ()
    alike: tuple[str, ...] = ()

    def of(self, adjuster: str) -> float | None:
        """Return what a turn of one adjuster is worth, or None where it was not tried."""
        return self.per_turn[self.adjusters.index(adjuster)] if adjuster in self.adjusters else None

    def u(self, adjuster: str) -> float:
        """Return the standard uncertainty of what a turn of one adjuster is worth."""
        i = self.adjusters.index(adjuster)
        return float(np.sqrt(max(self.covariance[i][i], 0.0)))

    def covariance_of(self, adjusters: Sequence[str]) -> FloatArray:
        """Return the covariance of some of the worths, in the order asked for."""
        rows = [self.adjusters.index(a) for a in adjusters]
        return np.asarray(self.covariance, dtype=float)[np.ix_(rows, rows)]


def learn(seen: Observations) -> WorthOfTurns:
    """Return what the turns between these observations were worth; an empty WorthOfTurns where nothing was turned between two.

    Source: weighted least squares with a level a stretch; docs/choices.md.
    """
    if not seen.adjusters or len(seen.values) < 2:
        return WorthOfTurns()
    design, values, weights = seen.turned.astype(float), seen.values.astype(float), 1 / np.maximum(seen.u, 1e-9)
    # Taking each stretch's weighted mean off rows and values is the same as carrying its level as an unknown.
    for s in np.unique(seen.stretch):
        rows = seen.stretch == s
        share = weights[rows] ** 2 / np.sum(weights[rows] ** 2)
        design[rows] -= share @ design[rows]
        values[rows] -= share @ values[rows]
    size = np.max(np.abs(design), axis=0)
    moved = size > 1e-9  # turns; below that the adjuster was not turned between two readings
    names = [a for a, m in zip(seen.adjusters, moved, strict=True) if m]
    if not names:
        return WorthOfTurns()
    scaled = (design[:, moved] / size[moved]) * weights[:, None]
    columns, singular, rows_of_v = np.linalg.svd(scaled, full_matrices=scaled.shape[0] < scaled.shape[1])
    rank = int(np.sum(singular > 1e-9 * singular[0]))
    null = rows_of_v[rank:]
    known = np.linalg.norm(null, axis=0) < DETERMINED if len(null) else np.ones(len(names), dtype=bool)
    inverse = (rows_of_v[:rank].T / singular[:rank]) @ columns[:, :rank].T
    worths = (inverse @ (values * weights)) / size[moved]
    covariance = (inverse @ inverse.T) / np.outer(size[moved], size[moved])
    keep = np.flatnonzero(known)
    return WorthOfTurns(
        tuple(names[i] for i in keep),
        tuple(float(worths[i]) for i in keep),
        tuple(tuple(float(covariance[i, j]) for j in keep) for i in keep),
        tuple(n for n, k in zip(names, known, strict=True) if not k),
    )
