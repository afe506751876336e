"""The axes of the car laid on a survey: 3-2-1 by named points, after the adjustment, without bending it.

The plane's three points fix height and two tilts, the line's two points fix offset and yaw, the one point fixes the station. A line that
lies across the car fixes station and yaw, and the point the offset; a mid-line halves the distance of each point to its partner.

Source: six conditions that fix a rigid body, covariance carried through (JCGM 100:2008, 5.1.2); docs/survey.md.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.linkage.space import rotation_by
from ready_corner.core.engines.survey.network import Network, whole_motions
from ready_corner.core.engines.survey.readings import Array, Where
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.naming import short_point

ON_A_LINE = 1e-3  # three points nearer to one line than this share of their length give no plane
LEAST_HELD = (
    0.03  # smallest singular value of what a datum fixes, in sizes of the frame, under which a motion of the whole is left free
)
MOTIONS = ("shift along the car", "shift across the car", "go up and down", "roll about a line along the car",
           "tip nose up or down", "turn, seen from above")  # fmt: skip


@dataclass(frozen=True)
class Condition:
    """One figure that a datum fixes: the sum of some coordinates (point, axis, weight) is ``value`` mm."""

    parts: tuple[tuple[str, int, float], ...]
    value: float


@dataclass(frozen=True)
class Datum:
    """Where each axis is taken from: names of points, and the figures they get (0 where not given), mm.

    plane: three points with their heights; line: two points with their offsets; point: one with its station. ``across``: the line lies
    across the car, so its figures are stations and the point's is an offset; None: as it lies. ``partners``: of each point of the line
    the one on the other side, and the offsets are those of their middles; where the line's two points are each other's partners, its
    figures are the offset of their middle, and by how much the first is ahead.
    """

    plane: tuple[str, str, str]
    line: tuple[str, str]
    point: str
    heights: tuple[float, float, float] = (0.0, 0.0, 0.0)
    offsets: tuple[float, float] = (0.0, 0.0)
    station: float = 0.0
    across: bool | None = None
    partners: tuple[str, str] | None = None

    @property
    def names(self) -> tuple[str, ...]:
        """All its points, each once."""
        return tuple(dict.fromkeys([*self.plane, *self.line, *(self.partners or ()), self.point]))

    def lies_across(self, at: Mapping[str, Where]) -> bool:
        """Return whether its line lies across the car, by rough places in the axes of the car."""
        if self.across is not None:
            return self.across
        a, b = (np.asarray(at[n], dtype=float) for n in self.line)
        return bool(abs(b[1] - a[1]) > abs(b[0] - a[0]))

    def conditions(self, across: bool) -> tuple[Condition, ...]:
        """Return the six figures it fixes."""
        rows = [Condition(((n, 2, 1.0),), h) for n, h in zip(self.plane, self.heights, strict=True)]
        first, second = self.line
        if self.partners == (second, first):
            rows.append(Condition(((first, 1, 0.5), (second, 1, 0.5)), self.offsets[0]))
            rows.append(Condition(((first, 0, 1.0), (second, 0, -1.0)), self.offsets[1]))
            return (*rows, Condition(((self.point, 0, 1.0),), self.station))
        if self.partners:
            for name, other, y in zip(self.line, self.partners, self.offsets, strict=True):
                rows.append(Condition(((name, 1, 0.5), (other, 1, 0.5)), y))
            return (*rows, Condition(((self.point, 0, 1.0),), self.station))
        rows += [Condition(((n, 0 if across else 1, 1.0),), v) for n, v in zip(self.line, self.offsets, strict=True)]
        return (*rows, Condition(((self.point, 1 if across else 0, 1.0),), self.station))


@dataclass(frozen=True)
class Laid:
    """A survey in the axes of a datum: ``places`` (n, 3) with ``covariance`` (3n, 3n) by ``names``; ``rotation``, ``shift``: new = R old + t."""

    names: tuple[str, ...]
    places: Array
    covariance: Array
    rotation: Array
    shift: Array

    def place(self, name: str) -> Array:
        """Return where a point is, (3,)."""
        return np.asarray(self.places[self.names.index(name)])

    def cov(self, name: str, other: str | None = None) -> Array:
        """Return the covariance of a point, or of one with another, (3, 3), mm²."""
        i, j = 3 * self.names.index(name), 3 * self.names.index(other or name)
        return np.asarray(self.covariance[i : i + 3, j : j + 3])

    def expanded(self, name: str) -> Array:
        """Return U of a point along each axis, (3,)."""
        return np.asarray(2 * np.sqrt(np.maximum(np.diag(self.cov(name)), 0.0)))


def lay(network: Network, datum: Datum, near: Mapping[str, Where] | None = None) -> Laid:
    """Return the survey in the axes of a datum, with the covariance of whatever it is not taken from.

    ``near``: rough places in the wanted axes, to tell which way round; the survey's own where None.
    Raises MeasuredError where a point of the datum is not determined, or it leaves a motion of the whole free.
    Source: similarity-free datum transformation (Kabsch 1976); docs/survey.md.
    """
    loose = [f for f in network.free if f.point in datum.names]
    if missing := [n for n in datum.names if n not in network.names]:
        raise MeasuredError(
            finding("datum.not-measured", point=missing[0]),
            path="datum",
        )
    if loose:
        raise MeasuredError(
            finding("datum.not-fixed", point=loose[0].point),
            path="datum",
        )
    _require_spread(network, datum)
    x = network.places
    rotation, shift = _rough(network, datum, near)
    begun = dict(zip(network.names, x @ rotation.T + shift, strict=True))
    require_held(datum, begun)
    conditions = datum.conditions(datum.lies_across(begun))
    rows = _rows_of(conditions, network.names)
    values = np.array([c.value for c in conditions])
    for _ in range(50):
        now = x @ rotation.T + shift
        miss = rows @ now.ravel() - values
        g = whole_motions_about_origin(now)
        step = np.linalg.solve(rows @ g, -miss)
        turn = rotation_by(step[3:])
        rotation, shift = turn @ rotation, turn @ shift + step[:3]
        if (np.abs(step[:3]).max() < 1e-12 * (1 + np.abs(now).max()) and np.abs(step[3:]).max() < 1e-15) or np.abs(
            miss
        ).max() < 1e-12:
            break
    require_upright(rotation)
    places = x @ rotation.T + shift
    return Laid(network.names, places, _with_datum(network.covariance, rotation, places, rows), rotation, shift)


def _rows_of(conditions: Sequence[Condition], names: Sequence[str]) -> Array:
    """Return the conditions as rows over all coordinates, (6, 3n)."""
    at = {name: 3 * i for i, name in enumerate(names)}
    rows = np.zeros((len(conditions), 3 * len(names)))
    for r, condition in enumerate(conditions):
        for name, axis, weight in condition.parts:
            rows[r, at[name] + axis] += weight
    return rows


def require_held(datum: Datum, at: Mapping[str, Where]) -> None:
    """Refuse a datum that leaves a motion of the whole free, by rough places (mm) in the axes of the car of its points and all that hangs on it.

    Judged in the axes that it fixes: raises MeasuredError that says which way the car could still go, and how far the furthest of the
    points would go with a millimetre at one of the datum's.
    Source: similarity-free datum transformation (Kabsch 1976); docs/survey.md.
    """
    names = list(at)
    x = np.array([at[n] for n in names], dtype=float)
    rows = _rows_of(datum.conditions(datum.lies_across(at)), names)
    motions = whole_motions(x)
    _, held, ways = np.linalg.svd(rows @ motions)
    if held[-1] >= LEAST_HELD:
        return
    far = float(np.abs(motions @ ways[-1]).max() / max(float(held[-1]), 1e-9))
    free = MOTIONS[int(np.argmax(np.abs(ways[-1])))]
    raise MeasuredError(
        finding("datum.leaves-free", free=free, lever=far if far < 1e4 else 0.0),
        path="datum",
        numbers={"held": float(held[-1])},
    )


def _with_datum(covariance: Array, rotation: Array, places: Array, d: Array) -> Array:
    """Return a covariance turned into the new axes and freed of what the datum fixes: S Q Sᵀ with S = I − G (D G)⁻¹ D."""
    n = len(places)
    big = np.kron(np.eye(n), rotation)
    q = big @ covariance @ big.T
    g = whole_motions(places)
    s = np.eye(3 * n) - g @ np.linalg.solve(d @ g, d)
    return np.asarray(s @ q @ s.T)


def whole_motions_about_origin(x: Array) -> Array:
    """Return the six motions of the whole, (3n, 6): three shifts and three turns about the origin, in mm and radians.

    Source: similarity-free datum transformation (Kabsch 1976); docs/survey.md.
    """
    g = np.zeros((len(x), 3, 6))
    g[:, [0, 1, 2], [0, 1, 2]] = 1.0
    g[:, [2, 0, 1], [3, 4, 5]] = x[:, [1, 2, 0]]
    g[:, [1, 2, 0], [3, 4, 5]] = -x[:, [2, 0, 1]]
    return g.reshape(-1, 6)


def _rough(network: Network, datum: Datum, near: Mapping[str, Where] | None) -> tuple[Array, Array]:
    """Return a first rotation and shift: the rigid fit to rough places where they are given."""
    common = [n for n in network.names if near and n in near and n in network.determined]
    if near is None or len(common) < 3:
        return np.eye(3), np.zeros(3)
    a, b = np.array([network.place(n) for n in common]), np.array([near[n] for n in common], dtype=float)
    return kabsch(a, b, np.ones(len(common)))


def kabsch(a: Array, b: Array, weights: Array) -> tuple[Array, Array]:
    """Return the rotation and shift that bring points a (n, 3) nearest to b, weighted, without scale or mirror.

    Source: W. Kabsch, Acta Crystallographica A 32 (1976).
    """
    w = weights / weights.sum()
    middle_a, middle_b = w @ a, w @ b
    u, _, vt = np.linalg.svd((a - middle_a).T @ ((b - middle_b) * w[:, None]))
    flip = np.sign(np.linalg.det(vt.T @ u.T))
    rotation = vt.T @ np.diag([1.0, 1.0, flip]) @ u.T
    return rotation, middle_b - rotation @ middle_a


def _require_spread(network: Network, datum: Datum) -> None:
    p = np.array([network.place(n) for n in datum.plane])
    if thin(p):
        raise MeasuredError(
            finding("datum.plane-on-line", points=tuple(short_point(n) for n in datum.plane)),
            path="datum.plane",
        )
    a, b = (network.place(n) for n in datum.line)
    normal = np.cross(p[1] - p[0], p[2] - p[0])
    normal /= np.linalg.norm(normal)
    along = b - a
    flat = along - normal * (along @ normal)
    if float(np.linalg.norm(flat)) < ON_A_LINE * max(float(np.linalg.norm(along)), 1.0):
        raise MeasuredError(
            finding("datum.line-upright"),
            path="datum.line",
        )


def require_upright(rotation: Array) -> None:
    """Refuse axes in which the frame stands on its head. Raises MeasuredError.

    Source: similarity-free datum transformation (Kabsch 1976); docs/survey.md.
    """
    if rotation[2, 2] < 0:
        raise MeasuredError(
            finding("datum.upside-down"),
            path="points",
        )


def thin(p: Array) -> bool:
    """Whether places (n, 3) lie on one line, as good as.

    Source: similarity-free datum transformation (Kabsch 1976); docs/survey.md.
    """
    s = np.linalg.svd(p - p.mean(axis=0), compute_uv=False)
    return bool(s[1] < ON_A_LINE * s[0]) if s[0] > 0 else True


def fitted(network: Network, wanted: Mapping[str, Where], placed: float = 0.0) -> Laid:
    """Return the survey laid on wanted places as a whole, least squares over every determined point that has one.

    ``placed``: standard uncertainty of these points about their wanted places, mm, where the axes are to be sure by themselves; no less than
    what they are seen to be off by is taken. Raises MeasuredError for fewer than three such points, or points on one line.
    Source: similarity-free datum transformation (Kabsch 1976); docs/survey.md.
    """
    common = [n for n in network.names if n in network.determined and n in wanted]
    if len(common) < 3 or thin(np.array([network.place(n) for n in common])):
        raise MeasuredError(finding("datum.too-few"), path="points")
    a, b = np.array([network.place(n) for n in common]), np.array([wanted[n] for n in common], dtype=float)
    rotation, shift = kabsch(a, b, np.ones(len(common)))
    require_upright(rotation)
    places = network.places @ rotation.T + shift
    rows = [i for i, n in enumerate(network.names) if n in common]
    n = len(places)
    big = np.kron(np.eye(n), rotation)
    g = whole_motions(places)
    d = np.zeros_like(g.T)
    for i in rows:  # inner constraint over the points of the fit
        d[:, 3 * i : 3 * i + 3] = g[3 * i : 3 * i + 3].T
    s = np.eye(3 * n) - g @ np.linalg.solve(d @ g, d)
    covariance = s @ big @ network.covariance @ big.T @ s.T
    if placed:
        off = places[rows] - b
        seen = float(np.sqrt((off**2).sum() / (3 * len(rows) - 6)))
        covariance = covariance + max(placed, seen) ** 2 * g @ np.linalg.solve(d @ g, g.T)
    return Laid(network.names, places, np.asarray(covariance), rotation, shift)
