"""Points that distances alone would have as well on the other side: the better side is taken, and where both do, that is said."""

from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.survey.design import Design, settle
from ready_corner.core.engines.survey.readings import Array

TRIED_MM = (-600.0, -300.0, -150.0, -60.0, 60.0, 150.0, 300.0, 600.0)
APART_MM = 3.0  # two places nearer than this are one
ALIKE = 6.6  # places whose misfits differ by less than this cannot be told apart (0.01 of chi-squared with one freedom)
WEAK = 6.0  # points whose readings hold them so many times worse one way than another are looked at
MOST_TURNS = 5


@dataclass(frozen=True)
class Mirror:
    """A point that the readings would have as well on the other side, ``away`` (3,) mm from where it was taken to be."""

    point: str
    away: Array


def untangled(design: Design, x: Array, zeros: Array) -> tuple[Array, Array, tuple[Mirror, ...]]:
    """Return the adjustment with every point on its better side, and those that could be on either.

    Source: reflection of a network in a plane; docs/survey.md.
    """
    found: list[Mirror] = []
    for _ in range(MOST_TURNS):
        found, better = [], x.copy()
        for i, name in enumerate(design.names):
            for away, gain in _other_places(design, i, x):
                if gain > ALIKE and np.array_equal(better[i], x[i]):
                    better[i] = x[i] + away
                elif abs(gain) <= ALIKE and not any(m.point == name for m in found):
                    found.append(Mirror(name, away))
        if np.array_equal(better, x):
            break
        trial, trial_zeros = settle(design, better)
        if not _cost(design, trial, trial_zeros) < _cost(design, x, zeros) - 1e-9:
            break
        x, zeros = trial, trial_zeros
    return x, zeros, tuple(found)


def _cost(design: Design, x: Array, zeros: Array) -> float:
    residual, _ = design.at(x, zeros)
    return float(residual @ residual)


def _other_places(design: Design, i: int, x: Array) -> list[tuple[Array, float]]:
    """Return other places of one point at which its own readings fit, the others staying: how far away, and by how much less the misfit is there."""
    name = design.names[i]
    at = dict(zip(design.names, x, strict=True))
    own = [r for r in design.readings if name in r.points]
    if not own or any(r.kind not in ("distance", "height", "offset", "station", "rise", "along", "across") for r in own):
        return []
    far = [r for r in own if r.kind == "distance"]
    if len(far) < 2:
        return []
    q = np.array([at[r.points[0] if r.points[1] == name else r.points[1]] for r in far])
    d, weight = np.array([r.value for r in far]), 1 / np.array([r.u for r in far])
    flat, flat_weight = _flat(own, name, at)
    lines = (x[i] - q) / np.maximum(np.linalg.norm(x[i] - q, axis=1), 1e-9)[:, None] * weight[:, None]
    rows = np.vstack([lines, flat[:, :3] * flat_weight[:, None]])
    values, vectors = np.linalg.eigh(rows.T @ rows)
    if len(own) > 3 and values[0] * WEAK**2 > values[2]:
        return []
    if values[0] < 1e-8 or (len(own) < 3):
        return []  # not determined at all; that is said elsewhere
    starts = x[i] + np.array(TRIED_MM)[:, None] * vectors[:, 0]
    p = np.vstack([x[i][None], starts])
    for _ in range(25):
        p, cost = _newton(p, q, d, weight, flat, flat_weight)
    here, cost_here = p[0], cost[0]
    others: list[tuple[Array, float]] = []
    for place, value in zip(p[1:], cost[1:], strict=True):
        away = place - here
        if np.linalg.norm(away) < APART_MM or not np.isfinite(value) or value > cost_here + ALIKE:
            continue
        if not any(np.linalg.norm(away - a) < APART_MM for a, _ in others):
            others.append((away, float(cost_here - value)))
    return sorted(others, key=lambda row: -row[1])


def _flat(own: list, name: str, at: dict[str, Array]) -> tuple[Array, Array]:  # type: ignore[type-arg]
    """Return the readings that fix one coordinate as rows (direction, value), and their weights."""
    axes = {"station": 0, "offset": 1, "height": 2, "along": 0, "across": 1, "rise": 2}
    rows = []
    weights = []
    for r in own:
        if r.kind not in axes:
            continue
        k, value = axes[r.kind], r.value
        if len(r.points) == 2:
            first, second = r.points
            value = at[first][k] + r.value if second == name else at[second][k] - r.value
        rows.append([*np.eye(3)[k], value])
        weights.append(1 / r.u)
    return np.array(rows).reshape(-1, 4), np.array(weights)


def _newton(p: Array, q: Array, d: Array, weight: Array, flat: Array, flat_weight: Array) -> tuple[Array, Array]:
    """One damped Gauss–Newton step of several tries (s, 3) at one point, and their misfits before it."""
    line = p[:, None, :] - q
    size = np.maximum(np.linalg.norm(line, axis=2), 1e-9)
    residual = (size - d) * weight
    rows = line / size[..., None] * weight[:, None]
    if len(flat):
        residual = np.hstack([residual, (p @ flat[:, :3].T - flat[:, 3]) * flat_weight])
        rows = np.concatenate([rows, np.broadcast_to(flat[:, :3] * flat_weight[:, None], (len(p), *flat[:, :3].shape))], axis=1)
    normal = np.swapaxes(rows, 1, 2) @ rows
    right = (np.swapaxes(rows, 1, 2) @ residual[..., None])[..., 0]
    damped = normal + 1e-9 * np.trace(normal, axis1=1, axis2=2)[:, None, None] * np.eye(3)
    step = np.linalg.solve(damped, right[..., None])[..., 0]
    long = np.linalg.norm(step, axis=1, keepdims=True)
    return p - step * np.minimum(1.0, 200.0 / np.maximum(long, 1e-12)), np.sum(residual**2, axis=1)
