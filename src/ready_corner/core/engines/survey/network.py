"""The frame as a network: weighted least squares over every reading, what it determines, and how well each reading is checked.

Gauss–Markov model with the zero of each tool as an unknown of its own (0 ± its standard uncertainty), so that what readings share is
counted once. What the readings leave free of the whole (a shift, a turn) is settled by staying nearest to the starting places; the
datum is laid on afterwards and never bends the readings. Source: Koch, Parameter Estimation and Hypothesis Testing in Linear Models.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np

from ready_corner.core.engines.survey.chance import chi_square_within
from ready_corner.core.engines.survey.design import FREE, Design, settle, with_priors
from ready_corner.core.engines.survey.mirror import Mirror, untangled
from ready_corner.core.engines.survey.readings import Array, Reading, Where, model
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding

UNKNOWN_MM = (
    100.0  # a direction in which the readings are surer than to no more than this (standard uncertainty) is not determined
)
STIFF = 1e-6  # points keep their distance when they part by less than this share of what they move
UPRIGHT = 0.99  # a direction is upwards when its upward part is no less
LEVEL_MM = 20.0  # points within so much of one height are a flat frame
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

    def says(self, reading: Reading) -> tuple[float, float]:
        """Return what a reading would be by the network, and its standard uncertainty without the reading's own; not of a rod in line."""
        value, grads = model(reading, {n: self.place(n) for n in reading.points})
        g = np.zeros(3 * len(self.names))
        for name, part in grads.items():
            i = 3 * self.names.index(name)
            g[i : i + 3] += part
        return value, float(np.sqrt(max(float(g @ self.covariance @ g), 0.0)))

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
        return bool(
            self.dof <= 0 or (self.misfit <= chi_square_within(1 - DOUBT, self.dof) and worst <= worst_allowed(len(self.rows)))
        )


def worst_allowed(count: int) -> float:
    """Return the greatest standardised residual that so many sound readings may show (Šidák).

    Source: least-squares adjustment of a free network, redundancy numbers (Baarda); docs/survey.md.
    """
    single = 1 - (1 - DOUBT) ** (1 / max(count, 1))
    return float(np.sqrt(chi_square_within(1 - single, 1)))


def adjust(
    readings: Sequence[Reading], start: Mapping[str, Where], zeros: Mapping[str, float] | None = None, mirrors: bool = True
) -> Network:
    """Return the places that agree best with all readings, from rough starting places (mm), with everything that can be said of them.

    ``zeros``: standard uncertainty of each tool's zero, by tool. Points that no reading touches are left out. ``mirrors``: whether
    points that could as well be on the other side are looked for.
    Raises MeasuredError where readings were taken in different support states, or contradict each other so that nothing fits.
    Source: least-squares adjustment of a free network, redundancy numbers (Baarda); docs/survey.md.
    """
    states = sorted({r.state for r in readings if r.state})
    if len(states) > 1:
        raise MeasuredError(
            finding("network.several-states", count=len(states), states=tuple(states)),
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


def lies_flat(network: Network) -> tuple[str, ...]:
    """Return the points of a network that is flat and held within its plane by its readings, and by nothing upwards; else none.

    Source: least-squares adjustment of a free network, redundancy numbers (Baarda); docs/survey.md.
    """
    x = network.places
    upwards = any(r.reading.kind in ("height", "rise", "slope") for r in network.rows)
    if len(x) < 3 or not network.free or upwards or any(abs(f.direction[2]) < UPRIGHT for f in network.free):
        return ()
    return network.names if float(np.ptp(x[:, 2])) <= LEVEL_MM else ()


def whole_motions(x: Array) -> Array:
    """Return the six motions of the whole, (3n, 6): three shifts, three turns about the middle scaled to the frame's size.

    Source: least-squares adjustment of a free network, redundancy numbers (Baarda); docs/survey.md.
    """
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
    basis = u[:, s > 1e-6]
    if not basis.shape[1]:
        return gauge_basis, ()
    basis = _beside(x, null, basis)
    free = []
    for i, name in enumerate(names):
        vectors, sizes, _ = np.linalg.svd(basis[3 * i : 3 * i + 3], full_matrices=False)
        free += [(float(v), Free(name, _signed(vectors[:, k]))) for k, v in enumerate(sizes) if v > SEEN]
    return gauge_basis, tuple(f for _, f in sorted(free, key=lambda row: -row[0]))


def _beside(x: Array, null: Array, basis: Array) -> Array:
    """Return what is free with such a motion of the whole taken off that the greatest part of the frame that is stiff in itself stays.

    Else one loose point would seem to move all others the other way, and a hinge would name both of its sides. The stiff part is found by
    one motion drawn from all that is free: points of one body go with it alike, and other points do not, but by chance of measure zero.
    """
    g = whole_motions(x)
    drawn = null @ np.random.default_rng(1).normal(size=(null.shape[1], 2))
    stiff = _stiffest(x, g, drawn)
    if len(stiff) < 3 or 2 * len(stiff) <= len(x):
        return basis  # no part is the frame more than another is
    at = [3 * i + k for i in stiff for k in range(3)]
    return np.asarray(basis - g @ np.linalg.lstsq(g[at], basis[at], rcond=1e-10)[0])


def _stiffest(x: Array, g: Array, drawn: Array) -> list[int]:
    """Return the most points, by number, that go alike with a drawn motion of all (3n, k), as one body."""
    n, most = len(x), list[int]()
    size = float(np.abs(drawn).max())
    blocks, moves = g.reshape(n, 3, 6), drawn.reshape(n, 3, -1)
    done: set[frozenset[int]] = set()
    for i in range(n):
        for j in range(i + 1, n):
            line = x[j] - x[i]
            gap = float(np.abs(line @ (moves[j] - moves[i])).max())
            if gap > STIFF * size * float(np.linalg.norm(line)) or any({i, j} <= body for body in done):
                continue  # they do not keep their distance
            for k in range(n):
                if k in (i, j) or np.linalg.norm(np.cross(line, x[k] - x[i])) < 1e-3 * float(line @ line):
                    continue
                three = [i, j, k]
                motion, *_ = np.linalg.lstsq(blocks[three].reshape(9, 6), moves[three].reshape(9, -1), rcond=1e-10)
                off = np.abs(np.einsum("nij,jk->nik", blocks, motion) - moves).reshape(n, -1).max(axis=1)
                if max(off[three]) > STIFF * size:
                    continue
                body = frozenset(int(m) for m in np.flatnonzero(off <= STIFF * size))
                done.add(body)
                if len(body) > len(most):
                    most = sorted(body)
                break
    return most


def _independent(g: Array) -> Array:
    """Return the columns of the motions that are motions: a line of points does not turn about itself."""
    u, s, _ = np.linalg.svd(g, full_matrices=False)
    return np.asarray(u[:, s > 1e-9 * s[0]])


def _signed(v: Array) -> Array:
    return np.asarray(v * np.sign(v[np.argmax(np.abs(v))]))
