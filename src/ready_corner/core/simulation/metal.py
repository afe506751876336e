"""Rigid parts held together by stiff rods and guides, on springs and tyres: where they come to rest.

The practice cars' own physics. It shares nothing with the engines that judge and advise: there a linkage is closed exactly and the springs are a
matrix at the wheels; here every part has all its freedoms, every rod, pin, spring and tyre stores energy, and the car rests where that is least.

Lengths in mm, forces in N, energies in N·mm, axes x forward, y left, z up; the ground is at z 0.

Source: least potential energy of rigid bodies; second derivatives by the exponential map of a small turn.
"""

from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.quantities.errors import CalledError
from ready_corner.core.quantities.finding import finding

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]
GRAVITY = 9.80665
MOST_STEPS, RESTS_N, LONGEST_STEP = 80, 1e-4, 40.0  # of Newton; the force left at rest; the longest step, mm or milliradians


@dataclass(frozen=True)
class Rods:
    """Rods and springs between points of parts: ``a``, ``b`` (m,) the parts, ``at`` (m, 2, 3) the points from the middle of each, ``long`` (m,) at no
    force, ``stiff`` (m,) N/mm."""

    a: IntArray
    b: IntArray
    at: FloatArray
    long: FloatArray
    stiff: FloatArray


@dataclass(frozen=True)
class Guides:
    """Points of parts ``a`` that keep their distance along ``way`` (m, 3), fixed in parts ``b``, from points of ``b``: one row a direction."""

    a: IntArray
    b: IntArray
    at: FloatArray
    way: FloatArray
    stiff: FloatArray


@dataclass(frozen=True)
class Tyres:
    """Wheels on the ground: ``part`` (m,), centre ``at`` (m, 3), spin axis ``axis`` (m, 3), ``radius`` (m,) at no force, ``stiff`` (m,)."""

    part: IntArray
    at: FloatArray
    axis: FloatArray
    radius: FloatArray
    stiff: FloatArray


@dataclass(frozen=True)
class Metal:
    """A car of so many ``parts``, the first of them its body; ``weights`` (n, 4): part, and where it hangs from the middle of that, in rows of part, x, y, z;
    ``newtons`` (n,). ``free`` (6 · parts,) of bool: shift along and turning about x, y, z of each part."""

    parts: int
    rods: Rods
    guides: Guides
    tyres: Tyres
    weights: FloatArray
    newtons: FloatArray
    free: NDArray[np.bool_]


@dataclass
class Rest:
    """Where the parts are: ``middle`` (n, 3), ``turned`` (n, 3, 3)."""

    middle: FloatArray
    turned: FloatArray
    pressed: FloatArray = field(default_factory=lambda: np.zeros(0))  # N of each tyre, once at rest

    def place(self, part: int, at: FloatArray) -> FloatArray:
        """Return where a point of a part is, mm."""
        return np.asarray(self.middle[part] + self.turned[part] @ at)

    def way(self, part: int, direction: FloatArray) -> FloatArray:
        """Return where a direction of a part points."""
        return np.asarray(self.turned[part] @ direction)


def at_rest(metal: Metal, start: Rest, ground: FloatArray) -> Rest:
    """Return where the parts come to rest on ground of so many mm under each tyre (m,). Raises CalledError where they do not, or would not stay.

    Source: Newton on the gradient of the potential energy; a least of it has second derivatives that are positive.
    """
    free = np.flatnonzero(metal.free)
    now = Rest(start.middle.copy(), start.turned.copy())
    for _ in range(MOST_STEPS):
        force, stiff, pressed = _slopes(metal, now, ground)
        # What leans the body about the way it goes keeps its heading, however it is pitched.
        keeps = now.turned[0, 2, 0] / now.turned[0, 0, 0]
        force[3] += keeps * force[5]
        stiff[3] += keeps * stiff[5]
        stiff[:, 3] += keeps * stiff[:, 5]
        if np.abs(force[free]).max() < RESTS_N * 100:  # of turning, N·mm; of shift far under RESTS_N then
            return _stays(now, stiff[np.ix_(free, free)], pressed)
        step = np.zeros(len(force))
        step[free] = np.linalg.solve(stiff[np.ix_(free, free)], -force[free])
        step[5] = keeps * step[3]
        by = step.reshape(-1, 6)
        longest = max(float(np.abs(by[:, :3]).max()), 1000 * float(np.abs(by[:, 3:]).max()))
        by = by * min(1.0, LONGEST_STEP / max(longest, 1e-12))
        now.middle += by[:, :3]
        now.turned = _turns(by[:, 3:]) @ now.turned
        ahead = np.arctan2(now.turned[0, 1, 0], now.turned[0, 0, 0])  # the body keeps its heading, in whichever order it leaned
        now.turned[0] = _turns(np.array([[0.0, 0.0, -ahead]]))[0] @ now.turned[0]
        if longest < 1e-9:
            return _stays(now, stiff[np.ix_(free, free)], pressed)
    raise CalledError(finding("simulation.no-rest"))


def _stays(now: Rest, stiff: FloatArray, pressed: FloatArray) -> Rest:
    """Return a rest in which the car stays. Raises CalledError where it would fall out of it, or stands on fewer than its tyres."""
    try:
        np.linalg.cholesky((stiff + stiff.T) / 2)
    except np.linalg.LinAlgError:
        raise CalledError(finding("simulation.no-rest")) from None
    if not (pressed > 0).all():
        raise CalledError(finding("simulation.no-rest"))
    now.pressed = pressed
    return now


def tensions(metal: Metal, drawn: Rest, springs: NDArray[np.bool_]) -> tuple[FloatArray, FloatArray]:
    """Return what every rod (m,) and guide must carry, N, for the car to rest as drawn on its tyres' present forces: least squares, as the springs alone where they can.

    springs: (m,) which rods are springs; they carry what they can, so rods that hold too much carry no more than they must.
    Source: equilibrium of forces, least norm.
    """
    free = np.flatnonzero(metal.free)
    by_length, long, *_ = _rod_rows(metal, drawn)
    rows = np.concatenate([by_length, _guide_rows(metal, drawn)[0]])[:, free]
    ease = np.concatenate([np.where(springs, 1.0, 1e-2), np.full(len(metal.guides.a), 1e-2)])
    loose = replace(metal, rods=replace(metal.rods, long=long))
    force = _slopes(loose, drawn, np.zeros(len(metal.tyres.part)))[0][free]
    found = np.linalg.lstsq((rows * ease[:, None]).T, -force, rcond=1e-9)[0] * ease
    return found[: len(metal.rods.a)], found[len(metal.rods.a) :]


def _cross(v: FloatArray) -> FloatArray:
    """Return [v]× of (..., 3)."""
    out = np.zeros((*v.shape, 3))
    out[..., 0, 1], out[..., 0, 2] = -v[..., 2], v[..., 1]
    out[..., 1, 0], out[..., 1, 2] = v[..., 2], -v[..., 0]
    out[..., 2, 0], out[..., 2, 1] = -v[..., 1], v[..., 0]
    return out


def _turns(by: FloatArray) -> FloatArray:
    """Return the rotations by vectors (n, 3), radians."""
    size = np.linalg.norm(by, axis=1)
    k = _cross(by / np.maximum(size, 1e-300)[:, None])
    return np.asarray(np.eye(3) + np.sin(size)[:, None, None] * k + (1 - np.cos(size))[:, None, None] * (k @ k))


def _second(arm: FloatArray, force: FloatArray) -> FloatArray:
    """Return the second derivative by a turn of force · (turned arm), (m, 3, 3)."""
    both = arm[:, :, None] * force[:, None, :]
    return np.asarray((both + both.transpose(0, 2, 1)) / 2 - np.einsum("mi,mi->m", arm, force)[:, None, None] * np.eye(3))


def _arms(now: Rest, part: IntArray, at: FloatArray) -> tuple[FloatArray, FloatArray]:
    arm = np.einsum("mij,mj->mi", now.turned[part], at)
    return arm, now.middle[part] + arm


def _rod_rows(metal: Metal, now: Rest) -> tuple[FloatArray, FloatArray, FloatArray, FloatArray, FloatArray]:
    """Return what the length of every rod gains by each freedom (m, 6 n), its length, its direction and its two arms."""
    r = metal.rods
    arm_a, a = _arms(now, r.a, r.at[:, 0])
    arm_b, b = _arms(now, r.b, r.at[:, 1])
    long = np.linalg.norm(a - b, axis=1)
    u = (a - b) / long[:, None]
    rows = np.zeros((len(long), metal.parts, 6))
    m = np.arange(len(long))
    rows[m, r.a] += np.hstack([u, np.cross(arm_a, u)])
    rows[m, r.b] -= np.hstack([u, np.cross(arm_b, u)])
    return rows.reshape(len(long), -1), long, u, arm_a, arm_b


def _guide_rows(metal: Metal, now: Rest) -> tuple[FloatArray, FloatArray, FloatArray, FloatArray, FloatArray]:
    """Return what the way along every guide gains by each freedom (m, 6 n), how far it is off, its direction, the arm of its point, and that point from the middle of what guides it."""
    g = metal.guides
    arm, a = _arms(now, g.a, g.at[:, 0])
    e = np.einsum("mij,mj->mi", now.turned[g.b], g.way)
    q = a - now.middle[g.b]
    off = np.einsum("mi,mi->m", e, q) - np.einsum("mi,mi->m", g.way, g.at[:, 1])
    rows = np.zeros((len(off), metal.parts, 6))
    m = np.arange(len(off))
    rows[m, g.a] += np.hstack([e, np.cross(arm, e)])
    rows[m, g.b] += np.hstack([-e, np.cross(e, q)])
    return rows.reshape(len(off), -1), off, e, arm, q


def _slopes(metal: Metal, now: Rest, ground: FloatArray) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Return the gradient (6 n,) and the second derivatives (6 n, 6 n) of the energy, and what every tyre carries."""
    n = 6 * metal.parts
    r, g, t = metal.rods, metal.guides, metal.tyres
    rows, long, u, arm_a, arm_b = _rod_rows(metal, now)
    pull = r.stiff * (long - r.long)
    force, stiff = rows.T @ pull, (rows.T * r.stiff) @ rows
    across = (pull / long)[:, None, None] * (np.eye(3) - u[:, :, None] * u[:, None, :])
    moves, m = np.zeros((len(long), metal.parts, 6, 3)), np.arange(len(long))
    for part, arm, way in ((r.a, arm_a, 1.0), (r.b, arm_b, -1.0)):
        moves[m, part, :3] += way * np.eye(3)
        moves[m, part, 3:] += way * _cross(arm)
        _add(stiff, part, _second(arm, way * pull[:, None] * u))
    by = moves.reshape(len(long), n, 3)
    stiff += (by @ across).transpose(1, 0, 2).reshape(n, -1) @ by.transpose(1, 0, 2).reshape(n, -1).T
    rows, off, e, arm, q = _guide_rows(metal, now)
    push = g.stiff * off
    force += rows.T @ push
    stiff += (rows.T * g.stiff) @ rows
    _add(stiff, g.a, _second(arm, push[:, None] * e))
    _add(stiff, g.b, _second(e, push[:, None] * q))
    _crossed(stiff, g, _cross(push[:, None] * e), arm)
    pressed = np.zeros(len(t.part))
    for k, part in enumerate(t.part):
        arm1 = now.turned[part] @ t.at[k]
        axis = now.turned[part] @ t.axis[k]
        flat = np.sqrt(1 - axis[2] ** 2)
        deep = t.radius[k] * flat - (now.middle[part] + arm1)[2] + ground[k]
        if deep <= 0:
            continue
        row = np.zeros(n)
        # The lowest point of a disc: its centre less the radius, as far as the disc stands upright.
        row[6 * part : 6 * part + 3] = (0.0, 0.0, -1.0)
        row[6 * part + 3 : 6 * part + 6] = -np.cross(arm1, (0, 0, 1.0)) - t.radius[k] * axis[2] / flat * np.cross(
            axis, (0, 0, 1.0)
        )
        pressed[k] = t.stiff[k] * deep
        force += pressed[k] * row
        stiff += t.stiff[k] * np.outer(row, row)
        down = _second(arm1[None], np.array([[0.0, 0.0, -pressed[k]]]))[0]
        spin = np.cross(axis, (0, 0, 1.0))
        down -= pressed[k] * t.radius[k] / flat**3 * np.outer(spin, spin)
        _add(stiff, np.array([part]), down[None])
    for (part, *at), weight in zip(metal.weights, metal.newtons, strict=True):
        i, arm1 = 6 * int(part), now.turned[int(part)] @ np.array(at)
        force[i + 2] += weight
        force[i + 3 : i + 6] += weight * np.cross(arm1, (0, 0, 1.0))
        _add(stiff, np.array([int(part)]), _second(arm1[None], np.array([[0.0, 0.0, weight]])))
    return force, stiff, pressed


def _add(stiff: FloatArray, part: IntArray, blocks: FloatArray) -> None:
    """Add blocks of turning to the second derivatives of their parts."""
    n = len(stiff) // 6
    np.add.at(stiff.reshape(n, 6, n, 6).transpose(0, 2, 1, 3)[:, :, 3:, 3:], (part, part), blocks)


def _crossed(stiff: FloatArray, g: Guides, turn: FloatArray, arm: FloatArray) -> None:
    """Add what turning the guiding part does to the force on the guided point, and on the middle of the guiding part."""
    n = len(stiff) // 6
    by_part = stiff.reshape(n, 6, n, 6).transpose(0, 2, 1, 3)
    turned, swung = turn.transpose(0, 2, 1), _cross(arm)
    np.add.at(by_part[:, :, 3:, :3], (g.b, g.a), turn)
    np.add.at(by_part[:, :, :3, 3:], (g.a, g.b), turned)
    np.add.at(by_part[:, :, 3:, 3:], (g.b, g.a), -turn @ swung)
    np.add.at(by_part[:, :, 3:, 3:], (g.a, g.b), swung @ turned)
    np.add.at(by_part[:, :, 3:, :3], (g.b, g.b), -turn)
    np.add.at(by_part[:, :, :3, 3:], (g.b, g.b), -turned)
