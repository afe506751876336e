"""The axes of the car laid on a survey: 3-2-1 by named points, after the adjustment, without bending it.

The plane's three points fix height and two tilts, the line's two points fix offset and yaw, the one point fixes the station.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ready_corner.core.errors import MeasuredError
from ready_corner.core.linkage.space import rotation_by
from ready_corner.core.survey.network import Network, whole_motions
from ready_corner.core.survey.readings import Array, Where

ON_A_LINE = 1e-3  # three points nearer to one line than this share of their length give no plane


@dataclass(frozen=True)
class Datum:
    """Where each axis is taken from: names of points, and the figures they get (0 where not given), mm.

    plane: three points with their heights; line: two points with their offsets; point: one with its station.
    """

    plane: tuple[str, str, str]
    line: tuple[str, str]
    point: str
    heights: tuple[float, float, float] = (0.0, 0.0, 0.0)
    offsets: tuple[float, float] = (0.0, 0.0)
    station: float = 0.0

    @property
    def names(self) -> tuple[str, ...]:
        """All its points, each once."""
        return tuple(dict.fromkeys([*self.plane, *self.line, self.point]))

    @property
    def conditions(self) -> tuple[tuple[str, int, float], ...]:
        """The six figures it fixes: point, axis, value."""
        rows = [(n, 2, h) for n, h in zip(self.plane, self.heights, strict=True)]
        rows += [(n, 1, y) for n, y in zip(self.line, self.offsets, strict=True)]
        return (*rows, (self.point, 0, self.station))


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


def as_measured(network: Network) -> Laid:
    """Return a survey in the axes of its own readings: table, centreline and station line."""
    return Laid(network.names, network.places, network.covariance, np.eye(3), np.zeros(3))


def lay(network: Network, datum: Datum, near: Mapping[str, Where] | None = None) -> Laid:
    """Return the survey in the axes of a datum, with the covariance of whatever it is not taken from.

    ``near``: rough places in the wanted axes, to tell which way round; the survey's own where None.
    Raises MeasuredError where a point of the datum is not determined, or its points do not make a plane and a line.
    """
    loose = [f for f in network.free if f.point in datum.names]
    if missing := [n for n in datum.names if n not in network.names]:
        raise MeasuredError(
            f"The datum is taken from {missing[0].replace('.', ' ')}, which is not measured yet. Measure it, or take another point.",
            path="datum",
        )
    if loose:
        raise MeasuredError(
            f"The datum is taken from {loose[0].point.replace('.', ' ')}, which the readings do not fix yet. Measure it once more.",
            path="datum",
        )
    _require_spread(network, datum)
    x = network.places
    rotation, shift = _rough(network, datum, near)
    at = {name: i for i, name in enumerate(network.names)}
    rows = [(at[n], k, v) for n, k, v in datum.conditions]
    for _ in range(50):
        now = x @ rotation.T + shift
        miss = np.array([now[i, k] - v for i, k, v in rows])
        g = whole_motions_about_origin(now)
        step = np.linalg.solve(np.array([g[3 * i + k] for i, k, _ in rows]), -miss)
        turn = rotation_by(step[3:])
        rotation, shift = turn @ rotation, turn @ shift + step[:3]
        if (np.abs(step[:3]).max() < 1e-12 * (1 + np.abs(now).max()) and np.abs(step[3:]).max() < 1e-15) or np.abs(
            miss
        ).max() < 1e-12:
            break
    places = x @ rotation.T + shift
    return Laid(network.names, places, _with_datum(network.covariance, rotation, places, rows), rotation, shift)


def _with_datum(covariance: Array, rotation: Array, places: Array, rows: Sequence[tuple[int, int, float]]) -> Array:
    """Return a covariance turned into the new axes and freed of what the datum fixes: S Q Sᵀ with S = I − G (D G)⁻¹ D."""
    n = len(places)
    big = np.kron(np.eye(n), rotation)
    q = big @ covariance @ big.T
    g = whole_motions(places)
    d = np.zeros((6, 3 * n))
    for r, (i, k, _) in enumerate(rows):
        d[r, 3 * i + k] = 1.0
    s = np.eye(3 * n) - g @ np.linalg.solve(d @ g, d)
    return np.asarray(s @ q @ s.T)


def whole_motions_about_origin(x: Array) -> Array:
    """Return the six motions of the whole, (3n, 6): three shifts and three turns about the origin, in mm and radians."""
    g = np.zeros((3 * len(x), 6))
    for k in range(3):
        g[k::3, k] = 1.0
        g[:, 3 + k] = np.cross(np.eye(3)[k], x).reshape(-1)
    return g


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
            f"{', '.join(n.replace('.', ' ') for n in datum.plane)} are on one line, so they give no plane. Take one beside it.",
            path="datum.plane",
        )
    a, b = (network.place(n) for n in datum.line)
    normal = np.cross(p[1] - p[0], p[2] - p[0])
    normal /= np.linalg.norm(normal)
    along = b - a
    flat = along - normal * (along @ normal)
    if float(np.linalg.norm(flat)) < ON_A_LINE * max(float(np.linalg.norm(along)), 1.0):
        raise MeasuredError(
            "The line of the datum stands upright on its plane, so it gives no direction. Take two points apart along the car.",
            path="datum.line",
        )


def thin(p: Array) -> bool:
    """Whether places (n, 3) lie on one line, as good as."""
    s = np.linalg.svd(p - p.mean(axis=0), compute_uv=False)
    return bool(s[1] < ON_A_LINE * s[0]) if s[0] > 0 else True


def fitted(network: Network, wanted: Mapping[str, Where]) -> Laid:
    """Return the survey laid on wanted places as a whole, least squares over every determined point that has one.

    Raises MeasuredError for fewer than three such points, or points on one line.
    """
    common = [n for n in network.names if n in network.determined and n in wanted]
    if len(common) < 3 or thin(np.array([network.place(n) for n in common])):
        raise MeasuredError("Fewer than three points beside each other are determined yet. Go on measuring.", path="points")
    rotation, shift = kabsch(
        np.array([network.place(n) for n in common]), np.array([wanted[n] for n in common], dtype=float), np.ones(len(common))
    )
    places = network.places @ rotation.T + shift
    rows = [i for i, n in enumerate(network.names) if n in common]
    n = len(places)
    big = np.kron(np.eye(n), rotation)
    g = whole_motions(places)
    d = np.zeros_like(g.T)
    for i in rows:  # inner constraint over the points of the fit
        d[:, 3 * i : 3 * i + 3] = g[3 * i : 3 * i + 3].T
    s = np.eye(3 * n) - g @ np.linalg.solve(d @ g, d)
    return Laid(network.names, places, np.asarray(s @ big @ network.covariance @ big.T @ s.T), rotation, shift)
