"""An earlier survey against a later one: rigid fit, which points have moved since, and what is shift and what distortion.

Source: deformation analysis by generalised least squares; docs/survey.md.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.linkage.space import rotation_by
from ready_corner.core.engines.survey.chance import chi_square_within
from ready_corner.core.engines.survey.datum import kabsch, require_upright, thin, whole_motions_about_origin
from ready_corner.core.engines.survey.network import DOUBT
from ready_corner.core.engines.survey.readings import Array
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding

LEAST_POINTS = 3
LEAST_MM = 1e-3  # standard uncertainty that is put on every coordinate, so that what was read without any still has a weight
MOST_ROUNDS = 6  # in which it must be found which points are bent; more is a search without an end
UNFELT_MM = 30.0  # standard uncertainty of a motion of the whole that the readings do not feel; far over theirs, not so far that their second order counts


@dataclass(frozen=True)
class Known:
    """A place with its covariance (3, 3), mm and mm²."""

    place: Array
    covariance: Array


@dataclass(frozen=True)
class Shifted:
    """One point of both surveys: ``by`` (3,) later minus earlier in the earlier axes, with its covariance; ``stayed``: used for the fit.

    ``doubt``: how sure it is that it did not move by chance: its squared distance in standard deviations.
    """

    name: str
    by: Array
    covariance: Array
    stayed: bool
    doubt: float

    @property
    def expanded(self) -> Array:
        """U of the movement along each axis, (3,)."""
        return np.asarray(2 * np.sqrt(np.maximum(np.diag(self.covariance), 0.0)))


@dataclass(frozen=True)
class Fit:
    """A rigid fit: earlier = R later + t, from the points that stayed. ``points``: all of both surveys, the most moved first.

    ``alternatives``: other points whose having moved instead would explain it as well; where there are any, it cannot be told which did.
    """

    rotation: Array
    shift: Array
    covariance: Array
    points: tuple[Shifted, ...]
    alternatives: tuple[str, ...] = ()

    @property
    def moved(self) -> tuple[Shifted, ...]:
        """The points that have moved beyond doubt."""
        return tuple(p for p in self.points if not p.stayed)

    def recovered(self, later: Array) -> Array:
        """Return places (n, 3) of the later survey in the axes of the earlier."""
        return np.asarray(later @ self.rotation.T + self.shift)


def fit(earlier: Mapping[str, Known], later: Mapping[str, Known], trusted: Sequence[str] | None = None) -> Fit:
    """Return the rigid fit of a later survey on an earlier one, weighted by both covariances, without scale.

    trusted: points that are known to have stayed; None: found out, by leaving out the one that disagrees most until the rest agree.
    Raises MeasuredError for fewer than three usable points, or points on a line, saying what more to measure.
    Source: deformation analysis by generalised least squares; docs/survey.md.
    """
    names = [n for n in earlier if n in later and (trusted is None or n in trusted)]
    _require(names, earlier)
    kept = _Both.of(names, earlier, later)
    alternatives: list[str] = []
    while True:
        rotation, shift, covariance = _solved(kept)
        if trusted is not None or _agree(kept, rotation, shift):
            break
        worst, alternatives = _worst(kept)
        if worst is None:
            raise MeasuredError(
                finding("moved.who-moved", count=len(kept.names)),
                path="points",
            )
        kept = kept.without(worst)
    require_upright(rotation)
    rows = [_shifted(n, earlier[n], later[n], rotation, shift, covariance, n in kept.names) for n in earlier if n in later]
    return Fit(rotation, shift, covariance, tuple(sorted(rows, key=lambda r: (r.stayed, -r.doubt))), tuple(alternatives))


@dataclass(frozen=True)
class _Both:
    """The same points in both surveys: places (n, 3) and covariances (n, 3, 3) each, mm and mm²."""

    names: tuple[str, ...]
    before: Array
    before_covariance: Array
    after: Array
    after_covariance: Array

    @classmethod
    def of(cls, names: Sequence[str], earlier: Mapping[str, Known], later: Mapping[str, Known]) -> "_Both":
        rows = [(earlier[n].place, earlier[n].covariance, later[n].place, later[n].covariance) for n in names]
        return cls(tuple(names), *(np.array(column) for column in zip(*rows, strict=True)))

    def without(self, name: str) -> "_Both":
        i = self.names.index(name)
        left = (np.delete(part, i, axis=0) for part in (self.before, self.before_covariance, self.after, self.after_covariance))
        return _Both(self.names[:i] + self.names[i + 1 :], *left)

    def weights(self, rotation: Array) -> Array:
        """Return (n, 3, 3): by what the distance of each point between the surveys weighs, once the later is turned by ``rotation``."""
        return np.asarray(np.linalg.pinv(self.before_covariance + rotation @ self.after_covariance @ rotation.T))


def _require(names: Sequence[str], earlier: Mapping[str, Known]) -> None:
    if len(names) < LEAST_POINTS:
        raise MeasuredError(
            finding("moved.too-few-stayed", stayed=len(names), more=LEAST_POINTS - len(names)),
            path="points",
        )
    if thin(np.array([earlier[n].place for n in names])):
        raise MeasuredError(
            finding("moved.on-one-line"),
            path="points",
        )


def _solved(both: _Both) -> tuple[Array, Array, Array]:
    """Return rotation, shift and their covariance (6, 6) as a small motion about the origin of the earlier axes."""
    a, b = both.after, both.before
    rotation, shift = kabsch(a, b, np.ones(len(a)))
    normal = np.eye(6)
    for _ in range(50):
        now = a @ rotation.T + shift
        g = whole_motions_about_origin(now).reshape(len(a), 3, 6)
        weighted = g.transpose(0, 2, 1) @ both.weights(rotation)
        normal = (weighted @ g).sum(axis=0)
        right = (weighted @ (b - now)[:, :, None]).sum(axis=0)[:, 0]
        step = np.linalg.lstsq(normal, right, rcond=1e-14)[0]
        turn = rotation_by(step[3:])
        rotation, shift = turn @ rotation, turn @ shift + step[:3]
        if np.abs(step[:3]).max() < 1e-10:
            break
    return rotation, shift, np.linalg.pinv(normal)


def _misfit(both: _Both, rotation: Array, shift: Array) -> float:
    off = both.after @ rotation.T + shift - both.before
    return float(np.einsum("ni,nij,nj->", off, both.weights(rotation), off))


def _agree(both: _Both, rotation: Array, shift: Array) -> bool:
    return _misfit(both, rotation, shift) <= chi_square_within(1 - DOUBT, 3 * len(both.names) - 6)


def _worst(both: _Both) -> tuple[str | None, list[str]]:
    """Return the point without which the rest agree best, and others without which they would agree too; None where too few are left."""
    found = []
    for n in both.names:
        rest = both.without(n)
        if len(rest.names) < LEAST_POINTS or thin(rest.before):
            continue
        rotation, shift, _ = _solved(rest)
        found.append((_misfit(rest, rotation, shift), n, _agree(rest, rotation, shift)))
    if not found or len(both.names) <= LEAST_POINTS:
        return None, []
    found.sort()
    return found[0][1], [n for _, n, agrees in found[1:] if agrees]


def _shifted(name: str, before: Known, after: Known, rotation: Array, shift: Array, covariance: Array, stayed: bool) -> Shifted:
    now = rotation @ after.place + shift
    g = whole_motions_about_origin(now[None]).reshape(3, 6)
    own = before.covariance + rotation @ after.covariance @ rotation.T
    # A point of the fit has pulled the fit towards itself; one that was left out bears the fit's doubt on top of its own.
    q = own - g @ covariance @ g.T if stayed else own + g @ covariance @ g.T
    by = now - before.place
    return Shifted(name, by, q, stayed, float(by @ np.linalg.pinv(own + g @ covariance @ g.T) @ by))


@dataclass(frozen=True)
class Drift:
    """What happened between two surveys in one set of axes: a rigid motion of the whole, and what is bent beside it, by point.

    ``shift`` (3,) of the middle, mm, and ``turn_deg`` (3,) about x, y, z, each with its U; what the readings do not feel has a U without
    end. ``points``: the most bent first. ``alternatives``: points of which some are bent, and the readings do not tell which.
    """

    shift: Array
    shift_expanded: Array
    turn_deg: Array
    turn_expanded: Array
    points: tuple["Bent", ...]
    alternatives: tuple[str, ...] = ()


@dataclass(frozen=True)
class Bent:
    """One point between two surveys: ``by`` its movement, ``bent`` what of it is no motion of the whole, each with U, (3,).

    ``certain``: whether it is bent beyond doubt, and no other point could be in its place; what is bent is told from the other points, not from itself.
    """

    name: str
    by: Array
    by_expanded: Array
    bent: Array
    bent_expanded: Array
    certain: bool


def drift(
    before: Mapping[str, Known], after: Mapping[str, Known], covariance: Array | None = None, loose: Array | None = None
) -> Drift:
    """Return what moved between two surveys in the same axes: as a whole, and what is bent at which points.

    ``covariance`` (3n, 3n) of later minus earlier over the points of both, in the order of ``before``; the points' own where None.
    ``loose`` (3n, k): motions of the whole that one of the surveys does not feel. Points are left out of the rigid part one after the
    other until the rest keep their distances. Raises MeasuredError for too few points.
    Source: deformation analysis by generalised least squares; docs/survey.md.
    """
    names = [n for n in before if n in after]
    _require(names, before)
    return _Drift(names, before, after, covariance, loose).found()


class _Drift:
    """Generalised least squares of later minus earlier: a motion of the whole, and three figures for each point that is bent.

    The whole is brought together at the points that are not bent; from there on all is linear. Source: Koch, Parameter Estimation, on the mean-shift test.
    """

    def __init__(
        self,
        names: Sequence[str],
        before: Mapping[str, Known],
        after: Mapping[str, Known],
        covariance: Array | None,
        loose: Array | None,
    ) -> None:
        self.names, n = list(names), len(names)
        self.x = np.array([before[m].place for m in names])
        self.later = np.array([after[m].place for m in names])
        if covariance is None:
            covariance = np.zeros((3 * n, 3 * n))
            for i, m in enumerate(names):
                covariance[3 * i : 3 * i + 3, 3 * i : 3 * i + 3] = before[m].covariance + after[m].covariance
        self.own = np.maximum(np.diag(covariance), 0.0)
        q = covariance + LEAST_MM**2 * np.eye(3 * n)
        self.middle = self.x.mean(axis=0)
        size = max(float(np.sqrt(((self.x - self.middle) ** 2).sum(axis=1).mean())), 1e-9)
        self.scale = np.array(
            [1.0] * 3 + [1 / size] * 3
        )  # turns are reckoned at the frame's size, else mm and radians stand far apart
        self.g = whole_motions_about_origin(self.x - self.middle) * self.scale
        if loose is not None and loose.shape[1]:
            # As motions of these very places: noise and bends in the places that they were told at would look like a turn that is felt.
            loose = self.g @ np.linalg.lstsq(self.g, loose, rcond=1e-12)[0]
            q = q + UNFELT_MM**2 * n * loose @ loose.T
        values, vectors = np.linalg.eigh((q + q.T) / 2)
        self.weight = (vectors / np.maximum(values, LEAST_MM**2)) @ vectors.T
        self.plane = self.weight @ self.g
        self._lay_on(range(n))

    def _lay_on(self, points: Sequence[int]) -> None:
        """Bring the later survey together with the earlier one at these points, unweighted; from there on all is linear.

        Not by weighted steps: a motion that no reading feels (yaw, of heights and tapes) is hardly weighed, and they would run away in it. What
        is left over after this is as large as what is bent, and a step from there so small against the frame that its square is far under U.
        """
        own = list(points)
        middle = self.x[own].mean(axis=0)
        rotation, moved = kabsch(self.later[own] - middle, self.x[own] - middle, np.ones(len(own)))
        # x − middle = R (later − middle) + t; kept as later − own middle = turned (x − own middle) + shift
        self.turned = np.asarray(rotation.T)
        off = middle - self.middle
        self.shift = off - self.turned @ (off + moved)
        self.d = self._left_over()
        p = self.weight - self.plane @ np.linalg.lstsq(self.g.T @ self.plane, self.plane.T, rcond=1e-15)[0]
        self.free = _Free(p, p @ self.d, float(self.d @ p @ self.d))

    def _left_over(self) -> Array:
        """Return what of later minus earlier the motion found so far does not explain, in the earlier axes, (3n,)."""
        return np.asarray(((self.later - self.middle - self.shift) @ self.turned - (self.x - self.middle)).ravel())

    def _motion(self, d: Array, bent: Sequence[int]) -> tuple[Array, Array]:
        """Return the motion (6,) that explains what is left over best, some points being bent, and its covariance (6, 6)."""
        a = np.zeros((len(d), 6 + 3 * len(bent)))
        a[:, :6] = self.g
        for j, i in enumerate(bent):
            a[3 * i : 3 * i + 3, 6 + 3 * j : 9 + 3 * j] = np.eye(3)
        normal = a.T @ self.weight @ a
        step = np.linalg.lstsq(normal, a.T @ self.weight @ d, rcond=1e-15)[0]
        return step[:6] * self.scale, np.linalg.pinv(normal, rcond=1e-15)[:6, :6] * np.outer(self.scale, self.scale)

    def _go(self, step: Array) -> None:
        self.shift, self.turned = self.shift + self.turned @ step[:3], self.turned @ rotation_by(step[3:])

    def found(self) -> Drift:
        """Return the motion of the whole and what is bent: laid on anew at the points that are not, until these stay the same. Raises MeasuredError
        where they never do."""
        bent, doubtful, instead = self._bent()
        for _ in range(MOST_ROUNDS):
            laid_on = [i for i in range(len(self.names)) if i not in bent]
            self._lay_on(laid_on)
            before = set(bent)
            bent, doubtful, instead = self._bent()
            if set(bent) == before:
                break
        else:
            raise MeasuredError(finding("moved.not-settled"), path="points")
        step, covariance = self._motion(self.d, bent)
        rows = [self._row(i, bent, i in doubtful) for i in range(len(self.names))]
        rows.sort(key=lambda r: (not r.certain, -float(np.linalg.norm(r.bent))))
        self._go(step)
        t, u = self.turned, np.sqrt(np.maximum(np.diag(covariance), 0.0))
        turn = np.degrees(np.array([t[2, 1] - t[1, 2], t[0, 2] - t[2, 0], t[1, 0] - t[0, 1]]) / 2)
        return Drift(self.shift, 2 * u[:3], turn, np.degrees(2 * u[3:]), tuple(rows), tuple(instead))

    def _bent(self) -> tuple[list[int], list[int], list[str]]:
        """Return which points are bent: left out one after the other until the rest agree, and put back where the rest agree with them; which of
        these others could be bent in place of; and all that could be, these among them."""
        bent: list[int] = []
        now = self.free
        while not (agrees := now.agrees(bent)) and len(self.names) - len(bent) > LEAST_POINTS:
            tried = [(without.misfit, i, without) for i in self._others(bent) for without in [now.without(i)]]
            if not tried:
                break
            _, worst, now = min(tried, key=lambda row: row[:2])
            bent.append(worst)
        if not agrees:
            return [], [], []
        for i in tuple(bent):
            if self._agree([k for k in bent if k != i]):
                bent.remove(i)
        doubtful, instead = [], dict[int, None]()
        for i in bent:
            rest = [k for k in bent if k != i]
            if others := [k for k in self._others(rest) if k != i and self._agree([*rest, k])]:
                doubtful.append(i)
                instead |= dict.fromkeys([i, *others])
        return bent, doubtful, [self.names[i] for i in instead]

    def _others(self, bent: Sequence[int]) -> list[int]:
        """Return the points that may be bent beside these: the rest of which is no line."""
        return [i for i in range(len(self.names)) if i not in bent and not thin(np.delete(self.x, [*bent, i], axis=0))]

    def _agree(self, bent: Sequence[int]) -> bool:
        """Return whether the points keep their distances but for these."""
        now = self.free
        for i in bent:
            now = now.without(i)
        return now.agrees(bent)

    def _row(self, i: int, bent: Sequence[int], doubtful: bool) -> Bent:
        without = self.free
        for k in bent:
            without = without.without(k) if k != i else without
        off, q = without.bend(i)
        by, turned = self.later[i] - self.x[i], self.turned
        certain = i in bent and not doubtful and float(off @ np.linalg.solve(q, off)) > chi_square_within(1 - DOUBT, 3)
        own = 2 * np.sqrt(self.own[3 * i : 3 * i + 3])
        expanded = 2 * np.sqrt(np.maximum(np.diag(turned @ q @ turned.T), 0.0))
        return Bent(self.names[i], by, own, turned @ off, expanded, bool(certain))


@dataclass(frozen=True)
class _Free:
    """What is left over of each point, freed of the motion of the whole: cofactors p (3n, 3n), v = p d (3n,) and the misfit."""

    p: Array
    v: Array
    misfit: float

    def _at(self, i: int) -> slice:
        return slice(3 * i, 3 * i + 3)

    def bend(self, i: int) -> tuple[Array, Array]:
        """Return by how much one point is bent as the others tell it, (3,), and its covariance (3, 3)."""
        at = self._at(i)
        q = np.linalg.pinv(self.p[at, at], rcond=1e-12)
        return q @ self.v[at], q

    def without(self, i: int) -> "_Free":
        """Return what is left over when a point is bent freely."""
        at = self._at(i)
        off, q = self.bend(i)
        p = self.p - self.p[:, at] @ q @ self.p[at, :]
        v = self.v - self.p[:, at] @ off
        p[at, :], p[:, at], v[at] = 0.0, 0.0, 0.0
        return _Free(p, v, self.misfit - float(self.v[at] @ off))

    def agrees(self, bent: Sequence[int]) -> bool:
        """Return whether the points that are not bent keep their distances, all together and each of them."""
        left = [i for i in range(len(self.v) // 3) if i not in bent]
        if self.misfit > chi_square_within(1 - DOUBT, 3 * len(left) - 6):
            return False
        worst = max(float(self.v[self._at(i)] @ self.bend(i)[0]) for i in left)
        return worst <= chi_square_within((1 - DOUBT) ** (1 / len(left)), 3)
