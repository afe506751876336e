"""An earlier survey against a later one: rigid fit, which points have moved since, and what is shift and what distortion."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from scipy.stats import chi2

from ready_corner.core.errors import MeasuredError
from ready_corner.core.linkage.space import rotation_by
from ready_corner.core.survey.datum import kabsch, thin, whole_motions_about_origin
from ready_corner.core.survey.network import DOUBT
from ready_corner.core.survey.readings import Array

LEAST_POINTS = 3


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
    """
    names = [n for n in earlier if n in later and (trusted is None or n in trusted)]
    _require(names, earlier)
    kept = list(names)
    alternatives: list[str] = []
    while True:
        rotation, shift, covariance = _solved(kept, earlier, later)
        if trusted is not None or _agree(kept, earlier, later, rotation, shift):
            break
        worst, alternatives = _worst(kept, earlier, later)
        if worst is None:
            raise MeasuredError(
                f"The {len(kept)} points left do not keep their distances, and with so few it cannot be told which of them moved. Measure one more point that has stayed.",
                path="points",
            )
        kept.remove(worst)
    rows = [_shifted(n, earlier[n], later[n], rotation, shift, covariance, n in kept) for n in earlier if n in later]
    return Fit(rotation, shift, covariance, tuple(sorted(rows, key=lambda r: (r.stayed, -r.doubt))), tuple(alternatives))


def _require(names: Sequence[str], earlier: Mapping[str, Known]) -> None:
    if len(names) < LEAST_POINTS:
        said = (
            f"Only {len(names)} of the earlier points can be measured"
            if names
            else "None of the earlier points can be measured"
        )
        raise MeasuredError(
            f"{said}; three that are not on one line are needed to find the old axes. Measure {LEAST_POINTS - len(names)} more.",
            path="points",
        )
    if thin(np.array([earlier[n].place for n in names])):
        raise MeasuredError(
            "The points still there are on one line, so the frame could have turned about it. Measure one beside it.",
            path="points",
        )


def _solved(names: Sequence[str], earlier: Mapping[str, Known], later: Mapping[str, Known]) -> tuple[Array, Array, Array]:
    """Return rotation, shift and their covariance (6, 6) as a small motion about the origin of the earlier axes."""
    a, b = np.array([later[n].place for n in names]), np.array([earlier[n].place for n in names])
    rotation, shift = kabsch(a, b, np.ones(len(names)))
    normal = np.eye(6)
    for _ in range(50):
        now = a @ rotation.T + shift
        g = whole_motions_about_origin(now).reshape(len(names), 3, 6)
        normal, right = np.zeros((6, 6)), np.zeros(6)
        for i, n in enumerate(names):
            weight = np.linalg.pinv(earlier[n].covariance + rotation @ later[n].covariance @ rotation.T)
            normal += g[i].T @ weight @ g[i]
            right += g[i].T @ weight @ (b[i] - now[i])
        step = np.linalg.lstsq(normal, right, rcond=1e-14)[0]
        turn = rotation_by(step[3:])
        rotation, shift = turn @ rotation, turn @ shift + step[:3]
        if np.abs(step[:3]).max() < 1e-10:
            break
    return rotation, shift, np.linalg.pinv(normal)


def _off(
    n: str, earlier: Mapping[str, Known], later: Mapping[str, Known], rotation: Array, shift: Array
) -> tuple[Array, Array]:
    off = rotation @ later[n].place + shift - earlier[n].place
    return off, earlier[n].covariance + rotation @ later[n].covariance @ rotation.T


def _misfit(
    names: Sequence[str], earlier: Mapping[str, Known], later: Mapping[str, Known], rotation: Array, shift: Array
) -> float:
    total = 0.0
    for n in names:
        off, q = _off(n, earlier, later, rotation, shift)
        total += float(off @ np.linalg.pinv(q) @ off)
    return total


def _agree(
    names: Sequence[str], earlier: Mapping[str, Known], later: Mapping[str, Known], rotation: Array, shift: Array
) -> bool:
    return _misfit(names, earlier, later, rotation, shift) <= chi2.ppf(1 - DOUBT, 3 * len(names) - 6)


def _worst(names: Sequence[str], earlier: Mapping[str, Known], later: Mapping[str, Known]) -> tuple[str | None, list[str]]:
    """Return the point without which the rest agree best, and others without which they would agree too; None where too few are left."""
    found = []
    for n in names:
        rest = [m for m in names if m != n]
        if len(rest) < LEAST_POINTS or thin(np.array([earlier[m].place for m in rest])):
            continue
        rotation, shift, _ = _solved(rest, earlier, later)
        found.append((_misfit(rest, earlier, later, rotation, shift), n, _agree(rest, earlier, later, rotation, shift)))
    if not found or len(names) <= LEAST_POINTS:
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
    """What happened between two surveys in one set of axes: a rigid motion of the whole, and what is left as distortion, by point.

    ``shift`` (3,) of the middle, mm; ``turn_deg`` (3,) about x, y, z; ``points``: total movement ``by`` and ``bent`` (3,) without the rigid part, with U.
    """

    shift: Array
    turn_deg: Array
    points: tuple["Bent", ...]


@dataclass(frozen=True)
class Bent:
    """One point between two surveys: ``by`` its movement, ``bent`` what of it is no motion of the whole, each with U, (3,)."""

    name: str
    by: Array
    by_expanded: Array
    bent: Array
    bent_expanded: Array
    certain: bool


def drift(before: Mapping[str, Known], after: Mapping[str, Known]) -> Drift:
    """Return what moved between two surveys in the same axes, split into rigid motion and distortion (least squares over all points)."""
    names = [n for n in before if n in after]
    _require(names, before)
    rotation, shift, covariance = _solved(names, before, after)  # before = R after + t
    back, away = rotation.T, -rotation.T @ shift
    middle = np.mean([before[n].place for n in names], axis=0)
    rows = []
    for n in names:
        by = after[n].place - before[n].place
        q = before[n].covariance + after[n].covariance
        bent = after[n].place - (back @ before[n].place + away)
        g = whole_motions_about_origin(before[n].place[None]).reshape(3, 6)
        left = np.maximum(np.diag(q - g @ covariance @ g.T), 0.0)
        certain = float(by @ np.linalg.pinv(q) @ by) > chi2.ppf(1 - DOUBT, 3)
        rows.append(Bent(n, by, 2 * np.sqrt(np.diag(q)), bent, 2 * np.sqrt(left), bool(certain)))
    turn = np.degrees(np.array([back[2, 1] - back[1, 2], back[0, 2] - back[2, 0], back[1, 0] - back[0, 1]]) / 2)
    return Drift(back @ middle + away - middle, turn, tuple(sorted(rows, key=lambda r: -float(np.linalg.norm(r.by)))))
