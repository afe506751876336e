"""What a turn of each adjuster is worth on this car, learned from readings before and after it was turned.

One mark is read several times while its adjusters are turned between the readings. Within a *stretch* in which nothing else
happened, reading = level of the stretch + Σ (worth of adjuster x turns so far). Weighted least squares over all stretches gives
the worths with their covariance; an adjuster that the readings cannot tell from another is left out and named.

Source: weighted least squares with a level a stretch; docs/choices.md.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]

# An adjuster counts as determined when its unit vector leaves less than this in the null space of the design.
DETERMINED = 1e-7
CONTRADICTS = 2.5


@dataclass(frozen=True, eq=False)
class Observations:
    """Figures of one mark (n), in its unit: each with its own standard uncertainty, its stretch, the number of its latest entry and the
    cumulative turns of each adjuster by then (n, adjusters)."""

    adjusters: tuple[str, ...]
    turned: FloatArray
    values: FloatArray
    u: FloatArray
    stretch: IntArray
    numbers: IntArray

    @cached_property
    def levelled(self) -> tuple[FloatArray, FloatArray, FloatArray]:
        """Turns (n, adjusters) and values (n,) less the weighted mean of their stretch, and the weights: the same as carrying each level as an unknown."""
        design, values, weights = self.turned.astype(float), self.values.astype(float), 1 / np.maximum(self.u, 1e-9)
        for s in np.unique(self.stretch):
            rows = self.stretch == s
            share = weights[rows] ** 2 / np.sum(weights[rows] ** 2)
            design[rows] -= share @ design[rows]
            values[rows] -= share @ values[rows]
        return design, values, weights


@dataclass(frozen=True)
class WorthOfTurns:
    """What one turn (or shim) of each adjuster adds to one mark, in its unit.

    ``per_turn`` and ``covariance`` (n, n) run with ``adjusters``; ``alike`` names those moved only together.
    """

    adjusters: tuple[str, ...] = ()
    per_turn: tuple[float, ...] = ()
    covariance: tuple[tuple[float, ...], ...] = ()
    alike: tuple[str, ...] = ()

    @classmethod
    def apart(cls, adjusters: Sequence[str], per_turn: Sequence[float], u2: Sequence[float] | FloatArray) -> "WorthOfTurns":
        """Return worths that nothing ties together, each with the square of its own standard uncertainty."""
        many = len(adjusters)
        covariance = tuple(tuple(float(u2[i]) if i == j else 0.0 for j in range(many)) for i in range(many))
        return cls(tuple(adjusters), tuple(per_turn), covariance)

    def of(self, adjuster: str) -> float | None:
        """Return what a turn of one adjuster is worth, or None where it was not tried."""
        return self.per_turn[self.adjusters.index(adjuster)] if adjuster in self.adjusters else None

    def u(self, adjuster: str) -> float:
        """Return the standard uncertainty of what a turn of one adjuster is worth."""
        i = self.adjusters.index(adjuster)
        return float(np.sqrt(max(self.covariance[i][i], 0.0)))

    def only(self, adjusters: Sequence[str]) -> "WorthOfTurns":
        """Return the worths of some adjusters."""
        if len(adjusters) == len(self.adjusters):
            return self
        covariance = tuple(map(tuple, self.covariance_of(adjusters).tolist()))
        return WorthOfTurns(tuple(adjusters), tuple(self.of(a) or 0.0 for a in adjusters), covariance, self.alike)

    def covariance_of(self, adjusters: Sequence[str]) -> FloatArray:
        """Return the covariance of some of the worths, in the order asked for."""
        at = [self.adjusters.index(a) for a in adjusters]
        return np.array([[self.covariance[i][j] for j in at] for i in at], dtype=np.float64).reshape(len(at), len(at))


NOTHING_YET = WorthOfTurns()


def learn(seen: Observations, before: WorthOfTurns = NOTHING_YET) -> WorthOfTurns:
    """Return what the turns between these observations were worth, with what was known ``before`` (by the plan, say) updated by its weight.

    Without anything known before, an adjuster counts as tried when it was turned between two observations, and is left out where these cannot
    tell it from another; with it, every adjuster that was known before is there, and tells apart what the observations cannot.
    Source: weighted least squares with a level a stretch, what was known before as further observations of each worth (normal prior,
    diagonal of its covariance); docs/choices.md, Turning.
    """
    if not seen.adjusters or len(seen.values) < 2:
        return before
    design, values, weights = seen.levelled
    size = np.max(np.abs(design), axis=0, initial=0.0)
    moved = size > 1e-9  # turns; below that the adjuster was not turned between two readings
    names = [a for a, m in zip(seen.adjusters, moved, strict=True) if m]
    design, size = design[:, moved] * weights[:, None], size[moved]
    more = [a for a in before.adjusters if a not in names]
    if not names:
        return before
    names, size = [*names, *more], np.concatenate([size, np.ones(len(more))])
    known_before = [i for i, a in enumerate(names) if a in before.adjusters]
    order = [before.adjusters.index(names[i]) for i in known_before]
    u2 = [before.covariance[k][k] for k in order]
    u = np.maximum(np.sqrt(np.maximum(u2, 0.0)), 1e-9)
    # Turns that were made, and below them what was known before as an observation of each worth.
    rows, many = np.zeros((len(design) + len(order), len(names))), len(design)
    rows[:many, : design.shape[1]] = design
    rows[many + np.arange(len(order)), known_before] = 1 / u
    expected = np.array([before.per_turn[k] for k in order], dtype=float) / u
    worths, covariance, known = _least_squares(rows / size, np.concatenate([values * weights, expected]))
    keep = np.flatnonzero(known)
    covariance = (covariance / np.outer(size, size))[keep[:, None], keep]
    return WorthOfTurns(
        tuple(names[i] for i in keep),
        tuple((worths / size)[keep].tolist()),
        tuple(map(tuple, covariance.tolist())),
        tuple(n for n, k in zip(names, known, strict=True) if not k),
    )


def contradicted(before: WorthOfTurns, alone: WorthOfTurns) -> WorthOfTurns:
    """Return what was known before, doubted as far as what was learned without it says otherwise.

    Where the two differ by more than both allow (CONTRADICTS standard uncertainties of the difference), what was known before is known only to
    that difference: the car is not as it was drawn there.
    Source: normalised error of two independent results; JCGM 100:2008, 5.1.2, for the u of their difference.
    """
    u2 = [row[i] for i, row in enumerate(before.covariance)]
    for i, adjuster in enumerate(before.adjusters):
        if (own := alone.of(adjuster)) is not None:
            off = own - before.per_turn[i]
            if off**2 > CONTRADICTS**2 * (u2[i] + alone.u(adjuster) ** 2):
                u2[i] = off**2
    return WorthOfTurns.apart(before.adjusters, before.per_turn, u2)


def known_otherwise(before: WorthOfTurns, known: Mapping[str, tuple[float, float]]) -> WorthOfTurns:
    """Return what was known before, some of it known otherwise: a worth and the square of its standard uncertainty, by adjuster.

    Source: normal prior; docs/choices.md, Turning.
    """
    rows = [
        known.get(a, (v, before.covariance[i][i]))
        for i, (a, v) in enumerate(zip(before.adjusters, before.per_turn, strict=True))
    ]
    return WorthOfTurns.apart(before.adjusters, [v for v, _ in rows], [u2 for _, u2 in rows])


def with_hardly(before: WorthOfTurns, adjusters: Sequence[str], u: float) -> WorthOfTurns:
    """Return what was known before, with adjusters of which nothing was known as hardly moving the mark: nothing a turn, give or take ``u``.

    Source: normal prior; docs/choices.md, Turning.
    """
    more = [a for a in adjusters if a not in before.adjusters]
    u2 = [row[i] for i, row in enumerate(before.covariance)]
    return WorthOfTurns.apart((*before.adjusters, *more), (*before.per_turn, *[0.0] * len(more)), [*u2, *[u**2] * len(more)])


def _least_squares(rows: FloatArray, values: FloatArray) -> tuple[FloatArray, FloatArray, NDArray[np.bool_]]:
    """Return the unknowns of rows in units of their own u, their covariance, and which of them the rows determine."""
    columns, singular, rows_of_v = np.linalg.svd(rows, full_matrices=rows.shape[0] < rows.shape[1])
    rank = int(np.sum(singular > 1e-9 * singular[0]))
    null = rows_of_v[rank:]
    known = np.linalg.norm(null, axis=0) < DETERMINED if len(null) else np.ones(rows.shape[1], dtype=bool)
    inverse = (rows_of_v[:rank].T / singular[:rank]) @ columns[:, :rank].T
    return inverse @ values, inverse @ inverse.T, known
