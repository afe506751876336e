"""The frame as a network: weighted least squares over every reading, what it determines, and how well each reading is checked.

Gauss–Markov model with the zero of each tool as an unknown of its own (0 ± its standard uncertainty), so that what readings share is
counted once. What the readings leave free of the whole (a shift, a turn) is settled by staying nearest to the starting places; the
datum is laid on afterwards and never bends the readings. Source: Koch, Parameter Estimation and Hypothesis Testing in Linear Models.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from scipy.stats import chi2

from ready_corner.core.errors import MeasuredError
from ready_corner.core.survey.design import FREE, Design, settle, with_priors
from ready_corner.core.survey.mirror import Mirror, untangled
from ready_corner.core.survey.readings import Array, Reading, Where

UNKNOWN_MM = (
    100.0  # a direction in which the readings are surer than to no more than this (standard uncertainty) is not determined
)
SEEN = 1e-3  # share of a point in what is free, above which it is not determined
DOUBT = 0.001  # significance of the tests: one sound network in a thousand is called unsound
MUTE = 0.05  # a reading of less redundancy than this is said to be unable to show itself wrong
CHECKED = 0.01  # a redundancy number under this is none: no other reading would show a mistake


@dataclass(frozen=True)
class Row:
    """A reading after the adjustment: ``residual`` adjusted minus read, ``redundancy`` 0 (alone) to 1, ``standardised`` residual, None where unchecked.

    ``mistake``: by how much it disagrees with the rest, with its U; None where unchecked.
    """

    reading: Reading
    adjusted: float
    residual: float
    redundancy: float
    standardised: float | None
    mistake: float | None = None
    mistake_expanded: float | None = None

    @property
    def mute(self) -> bool:
        """Whether the reading is so little checked by others that it could not show itself wrong."""
        return self.redundancy < MUTE


@dataclass(frozen=True)
class Free:
    """A direction in which nothing fixes a point: ``direction`` (3,) unit."""

    point: str
    direction: Array


@dataclass(frozen=True)
class Network:
    """An adjusted network. ``places`` (n, 3) mm with ``covariance`` (3n, 3n), in the axes of its readings, by ``names``.

    ``free``: what is not determined, worst first; those points' places are only their starting ones. ``gauge``: how many freedoms of the
    whole the readings leave (0 to 6). ``dof``: readings to spare. ``tools``: the zero found for each tool, mm or degrees, and its u.
    ``mirrors``: points that could as well be somewhere else. ``loose`` (3n, gauge): the motions of the whole that the readings leave,
    each of length 1.
    """

    names: tuple[str, ...]
    places: Array
    covariance: Array
    rows: tuple[Row, ...]
    free: tuple[Free, ...]
    gauge: int
    dof: int
    misfit: float
    tools: Mapping[str, tuple[float, float]] = field(default_factory=dict)
    mirrors: tuple[Mirror, ...] = ()
    loose: Array = field(default_factory=lambda: np.zeros((0, 0)))

    def place(self, name: str) -> Array:
        """Return where a point is, (3,)."""
        return np.asarray(self.places[self.names.index(name)])

    def cov(self, name: str) -> Array:
        """Return the covariance of a point, (3, 3), mm²."""
        i = 3 * self.names.index(name)
        return np.asarray(self.covariance[i : i + 3, i : i + 3])

    @cached_property
    def determined(self) -> frozenset[str]:
        """The points that the readings fix in every direction."""
        return frozenset(self.names) - {f.point for f in self.free}

    @property
    def sigma0(self) -> float | None:
        """Root of the misfit over the readings to spare: about 1 when the tools are as good as said; None without any to spare."""
        return float(np.sqrt(self.misfit / self.dof)) if self.dof > 0 else None

    @property
    def sound(self) -> bool:
        """Whether the readings agree within what their tools can do."""
        worst = max((abs(r.standardised) for r in self.rows if r.standardised is not None), default=0.0)
        return bool(self.dof <= 0 or (self.misfit <= chi2.ppf(1 - DOUBT, self.dof) and worst <= worst_allowed(len(self.rows))))


def worst_allowed(count: int) -> float:
    """Return the greatest standardised residual that so many sound readings may show (Šidák)."""
    single = 1 - (1 - DOUBT) ** (1 / max(count, 1))
    return float(np.sqrt(float(chi2.ppf(1 - single, 1))))


def adjust(
    readings: Sequence[Reading], start: Mapping[str, Where], zeros: Mapping[str, float] | None = None, mirrors: bool = True
) -> Network:
    """Return the places that agree best with all readings, from rough starting places (mm), with everything that can be said of them.

    ``zeros``: standard uncertainty of each tool's zero, by tool. Points that no reading touches are left out. ``mirrors``: whether
    points that could as well be on the other side are looked for.
    Raises MeasuredError where readings were taken in different support states, or contradict each other so that nothing fits.
    """
    states = sorted({r.state for r in readings if r.state})
    if len(states) > 1:
        raise MeasuredError(
            f"These readings were taken with the frame held in {len(states)} ways: {', '.join(states)}. Its shape is not the same; adjust each by itself.",
            path="state",
        )
    touched = {p for r in readings for p in r.points}
    names = [n for n in start if n in touched]
    design = Design(readings, names, zeros or {})
    x = np.array([start[n] for n in names], dtype=float).reshape(-1, 3)
    x, shift = settle(design, x)
    found: tuple[Mirror, ...] = ()
    if mirrors:
        x, shift, found = untangled(design, x, shift)
    return _judged(design, x, shift, found)


def whole_motions(x: Array) -> Array:
    """Return the six motions of the whole, (3n, 6): three shifts, three turns about the middle scaled to the frame's size."""
    n = len(x)
    g = np.zeros((3 * n, 6))
    away = x - x.mean(axis=0) if n else x
    size = max(float(np.sqrt((away**2).sum(axis=1).mean())) if n else 1.0, 1e-9)
    for k in range(3):
        g[k::3, k] = 1.0
        turn = np.cross(np.eye(3)[k], away)
        g[:, 3 + k] = turn.reshape(-1) / size
    return g


def _judged(design: Design, x: Array, zeros: Array, mirrors: tuple[Mirror, ...] = ()) -> Network:
    residual, rows = design.at(x, zeros)
    full, right = with_priors(design, rows, residual, zeros)
    c = design.coordinates
    values, vectors = np.linalg.eigh(full.T @ full)
    known = values > max(FREE * values[-1], UNKNOWN_MM**-2)
    rank = int(known.sum())
    null = vectors[:c, ~known]  # what the readings do not feel; a tool's zero never is, it has a prior
    loose, free = _split(design.names, x, null)
    inverse = vectors[:, known] / np.sqrt(values[known])
    q = inverse @ inverse.T
    hat = np.sum((full @ inverse) ** 2, axis=1)
    spare = 1 - hat[: len(residual)]
    misfit = float(right @ right)
    tools = {t: (float(zeros[k]), float(np.sqrt(q[c + k, c + k]))) for k, t in enumerate(design.tools)}
    dof = len(full) - rank
    rows_found = _rows(design, residual, spare)
    return Network(design.names, x, q[:c, :c], rows_found, free, loose.shape[1], dof, misfit, tools, mirrors, loose)


def _rows(design: Design, residual: Array, spare: Array) -> tuple[Row, ...]:
    found = []
    rows_of: dict[int, list[int]] = {}
    for k, j in enumerate(design.row_of):
        rows_of.setdefault(j, []).append(k)
    for i, reading in enumerate(design.readings):
        at = rows_of[i]
        worst = max(at, key=lambda k: float(abs(residual[k]) / np.sqrt(max(float(spare[k]), CHECKED))))
        off, left = float(residual[worst] * reading.u), float(spare[worst])
        checked = left > CHECKED
        found.append(
            Row(
                reading,
                reading.value + off,
                off,
                max(left, 0.0),
                float(residual[worst] / np.sqrt(left)) if checked else None,
                -off / left if checked else None,
                2 * reading.u / float(np.sqrt(left)) if checked else None,
            )
        )
    return tuple(found)


def _split(names: Sequence[str], x: Array, null: Array) -> tuple[Array, tuple[Free, ...]]:
    """Part what is free into motions of the whole and single points: return the first, (3n, k), and the second."""
    if not null.shape[1]:
        return np.zeros((3 * len(names), 0)), ()
    whole = np.linalg.qr(_independent(whole_motions(x)))[0]
    # Of the motions of the whole, those that lie within what is free.
    within = null @ (null.T @ whole)
    _, s, vt = np.linalg.svd(within - whole, full_matrices=True)
    sizes = np.zeros(whole.shape[1])
    sizes[: len(s)] = s
    gauge_basis = whole @ vt[sizes < 1e-6].T
    rest = null - gauge_basis @ (gauge_basis.T @ null)
    u, s, _ = np.linalg.svd(rest, full_matrices=False)
    basis = _least_spread(u[:, s > 1e-6], gauge_basis)
    free = []
    for i, name in enumerate(names):
        vectors, sizes, _ = np.linalg.svd(basis[3 * i : 3 * i + 3], full_matrices=False)
        free += [(float(v), Free(name, _signed(vectors[:, k]))) for k, v in enumerate(sizes) if v > SEEN]
    return gauge_basis, tuple(f for _, f in sorted(free, key=lambda row: -row[0]))


def _least_spread(basis: Array, gauge: Array) -> Array:
    """Return what is free with such motions of the whole added that it moves as few points as possible.

    Least sum of the points' movements, by reweighting: else one loose point would seem to move the whole frame the other way.
    """
    if not gauge.shape[1] or not basis.shape[1]:
        return basis
    out = basis.copy()
    for k in range(basis.shape[1]):
        now = out[:, k]
        for _ in range(60):
            size = np.linalg.norm(now.reshape(-1, 3), axis=1)
            weight = np.repeat(1 / np.maximum(size, 1e-9 * size.max()), 3)
            now = out[:, k] - gauge @ np.linalg.solve((gauge * weight[:, None]).T @ gauge, gauge.T @ (weight * out[:, k]))
        out[:, k] = now / np.linalg.norm(now)
    return out


def _independent(g: Array) -> Array:
    """Return the columns of the motions that are motions: a line of points does not turn about itself."""
    u, s, _ = np.linalg.svd(g, full_matrices=False)
    return np.asarray(u[:, s > 1e-9 * s[0]])


def _signed(v: Array) -> Array:
    return np.asarray(v * np.sign(v[np.argmax(np.abs(v))]))
