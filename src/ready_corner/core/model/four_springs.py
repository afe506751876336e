"""A car on four springs: where it stands and what each wheel carries, from its perches, and the perches for what is wanted.

A rigid chassis free to heave, pitch and roll (small angles); at each corner a spring through the linkage's ratio, a tyre under it, a floor
that need not be level; anti-roll bars connected or not. Lengths in mm, forces in N, rates in N/mm; corners in the order LF, RF, LR, RR.

Source: balance of four springs under a rigid chassis, virtual work; docs/stance.md.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import lsq_linear

from ready_corner.core.engines.statics.springs import GRAVITY, in_series
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.notation import FLATS_PER_TURN

FloatArray = NDArray[np.float64]

LEAST_TURNING = 1e-6  # mm² a squared turn
KEPT_TRIES = 81
FAR_OFF = 1.5  # tolerances; what all four perches miss by more than whole flats could, no three of them meet


@dataclass(frozen=True)
class CornerSpring:
    """One corner: its place (x forward, y left), ``rate`` at the wheel, ``ratio`` spring travel over wheel travel, tyre rate, unsprung mass in kg.

    ``free``: how high the chassis reference stands over the hub with the spring just slack and the perch as it is now; ``radius``: of the
    unloaded tyre; ``floor``: height of the pad under it; ``pitch``: of the perch, mm a turn; ``low``, ``high``: turns left either way, plus up.
    """

    x: float
    y: float
    rate: float
    ratio: float
    free: float
    radius: float
    tyre: float = 200.0
    unsprung: float = 0.0
    floor: float = 0.0
    pitch: float = 2.0
    low: float = -10.0
    high: float = 10.0

    @property
    def per_turn(self) -> float:
        """Millimetres that one turn of the perch raises the free height of the corner."""
        return self.pitch / self.ratio


@dataclass(frozen=True)
class Car:
    """Four corners and what stands on them: sprung ``mass`` in kg with its centre at ``cg`` (x, y).

    Bars in N per mm of difference between the travels of two wheels against the body, whatever their springs and perches do; ``coupled``: what the
    springs of an axle, which stand inboard of its wheels, add per mm of difference between what both wheels compress, front and rear.

    ``raises``: mm that each corner is raised per turn of each perch, (4, 4), where a perch raises more than its own corner.
    """

    corners: tuple[CornerSpring, CornerSpring, CornerSpring, CornerSpring]
    mass: float
    cg: tuple[float, float]
    front_bar: float = 0.0
    rear_bar: float = 0.0
    raises: FloatArray | None = None
    coupled: tuple[float, float] = (0.0, 0.0)

    @property
    def by_turn(self) -> FloatArray:
        """Millimetres that each corner is raised, at unchanged load, per turn of each perch, (4 corners, 4 perches)."""
        return np.diag([c.per_turn for c in self.corners]) if self.raises is None else self.raises

    @property
    def thread(self) -> tuple[FloatArray, FloatArray]:
        """Turns left down (minus) and up of each perch."""
        return np.array([c.low for c in self.corners]), np.array([c.high for c in self.corners])

    def __post_init__(self) -> None:
        if not self.mass > 0:
            raise MeasuredError(finding("car.no-mass", mass=self.mass), path="mass")
        for name, corner in zip(CORNERS, self.corners, strict=True):
            if not (corner.rate > 0 and corner.tyre > 0 and corner.ratio > 0):
                raise MeasuredError(
                    finding("car.no-rate", corner=name),
                    path=f"{name}.rate",
                )
            if not corner.radius > 0:
                raise MeasuredError(finding("car.no-tyre-radius", corner=name), path=f"{name}.radius")


@dataclass(frozen=True)
class Standing:
    """Where a car stands: height of the chassis reference over the floor's zero at each corner, load on each pad, spring compression at the wheel, each (4,).

    ``lifted``: corners whose spring is slack.
    """

    heights: FloatArray
    loads: FloatArray
    compressions: FloatArray
    lifted: tuple[bool, ...]

    @property
    def cross(self) -> float:
        """Cross weight: (RF + LR) over all."""
        return float((self.loads[1] + self.loads[2]) / self.loads.sum())

    @property
    def left(self) -> float:
        """Share of the left side."""
        return float((self.loads[0] + self.loads[2]) / self.loads.sum())

    @property
    def rear(self) -> float:
        """Share of the rear."""
        return float((self.loads[2] + self.loads[3]) / self.loads.sum())


def stand(car: Car, turns: Sequence[float] | FloatArray = (0.0, 0.0, 0.0, 0.0)) -> Standing:
    """Return where the car stands with its perches turned by so much (plus raises its corner).

    Newton on heave, pitch and roll; a spring that goes slack lets go. Raises MeasuredError where nothing holds it up.
    Source: balance of four springs under a rigid chassis, virtual work; docs/stance.md.
    """
    t = np.asarray(turns, dtype=float)
    p = np.array([[1.0, c.x, c.y] for c in car.corners])
    free = np.array([c.free for c in car.corners]) + car.by_turn @ t
    weight = car.mass * GRAVITY
    load = weight * np.array([1.0, car.cg[0], car.cg[1]])
    scale = np.array([1.0, 1e-3, 1e-3])  # forces, and moments in N·m
    sunk = weight / sum(in_series(c.rate, c.tyre) for c in car.corners)  # begun where four even springs would carry it
    q = np.array([float(np.mean(free)) + float(np.mean([c.radius + c.floor for c in car.corners])) - sunk, 0.0, 0.0])
    for _ in range(200):
        now = _forces(car, p @ q, free)
        miss = (p.T @ now.force - load) * scale
        if np.abs(miss).max() < 1e-9 * weight:
            break
        matrix = (p.T @ now.slope @ p) * scale[:, None]
        try:
            step = -np.linalg.solve(matrix, miss)
        except np.linalg.LinAlgError as wrong:
            raise MeasuredError(finding("car.nothing-holds"), path="corners") from wrong
        q = q + step * min(1.0, 200.0 / max(float(np.abs(p @ step).max()), 1e-12))
    else:
        raise MeasuredError(finding("car.no-place"), path="corners")
    z = p @ q
    now = _forces(car, z, free)
    return Standing(z, now.carried, now.compression, tuple(bool(c <= 0) for c in now.compression))


class _Forces(NamedTuple):
    """Upward force of each corner on the chassis, its slopes by the four heights and by the four free heights (4, 4), compressions at the wheel, loads on the pads."""

    force: FloatArray
    slope: FloatArray
    by_free: FloatArray
    compression: FloatArray
    carried: FloatArray


def _forces(car: Car, z: FloatArray, free: FloatArray) -> _Forces:
    """Return what the corners do with the chassis at four heights.

    Hub heights follow from tyre and spring together: four linear equations with the bars between the wheels of an end.
    """
    k = np.array([c.rate for c in car.corners])
    tyre = np.array([c.tyre for c in car.corners])
    ground = np.array([c.radius + c.floor for c in car.corners])
    unsprung = np.array([c.unsprung for c in car.corners]) * GRAVITY
    bars, coupled = _between(car.front_bar, car.rear_bar), _between(*car.coupled)
    on = np.ones(4, dtype=bool)
    for _ in range(8):
        # Force on the chassis f = K c + B w: springs by their compression c = free − z + hub, which a perch adds to; bars by the travel of the
        # wheels against the body, w = hub − z, which no perch touches. The tyre carries f + unsprung = tyre (ground − hub).
        springs = np.diag(k * on) + coupled
        s = springs + bars
        hub = np.linalg.solve(np.diag(tyre) + s, tyre * ground - unsprung - springs @ (free - z) + bars @ z)
        c = free - z + hub
        slack = c <= 0
        if np.array_equal(slack, ~on):
            break
        on = ~slack
    springs = np.diag(k * on) + coupled
    s = springs + bars
    # d f / d z = −S (I − (T + S)⁻¹ S), d f / d free = (I − S (T + S)⁻¹) K
    slope = -s @ (np.eye(4) - np.linalg.solve(np.diag(tyre) + s, s))
    by_free = (np.eye(4) - s @ np.linalg.inv(np.diag(tyre) + s)) @ springs
    force = springs @ c + bars @ (hub - z)
    return _Forces(force, slope, by_free, c, force + unsprung)


def _between(front: float, rear: float) -> FloatArray:
    """Return the stiffness (4, 4) of what acts on the difference between the two wheels of an end."""
    pair = np.array([[1.0, -1.0], [-1.0, 1.0]])
    return np.block([[front * pair, np.zeros((2, 2))], [np.zeros((2, 2)), rear * pair]])


def energy(car: Car, q: Sequence[float], hubs: Sequence[float], turns: Sequence[float] = (0.0, 0.0, 0.0, 0.0)) -> float:
    """Return the potential energy in N·mm of heave, pitch, roll and hub heights: least where the car stands. Springs are taken as never slack.

    Source: balance of four springs under a rigid chassis, virtual work; docs/stance.md.
    """
    t, hub = np.asarray(turns, dtype=float), np.asarray(hubs, dtype=float)
    p = np.array([[1.0, c.x, c.y] for c in car.corners])
    z = p @ np.asarray(q, dtype=float)
    free = np.array([c.free for c in car.corners]) + car.by_turn @ t
    c = free - z + hub
    tyre = np.array([k.radius + k.floor for k in car.corners]) - hub
    springs = sum(
        k.rate * x**2 / 2 + k.tyre * y**2 / 2 + k.unsprung * GRAVITY * h
        for k, x, y, h in zip(car.corners, c, tyre, hub, strict=True)
    )
    w = hub - z
    bars = car.front_bar * (w[0] - w[1]) ** 2 / 2 + car.rear_bar * (w[2] - w[3]) ** 2 / 2
    bars += car.coupled[0] * (c[0] - c[1]) ** 2 / 2 + car.coupled[1] * (c[2] - c[3]) ** 2 / 2
    return float(springs + bars + car.mass * GRAVITY * (np.array([1.0, car.cg[0], car.cg[1]]) @ np.asarray(q, dtype=float)))


def effects(car: Car, turns: Sequence[float] | FloatArray = (0.0, 0.0, 0.0, 0.0), found: Standing | None = None) -> FloatArray:
    """Return what one turn of each perch does near where the car stands: (4 perches, 5): four heights in mm, and cross weight.

    By implicit differentiation of the balance; exact as long as no spring goes slack. ``found``: where it stands, if that is known.
    Source: balance of four springs under a rigid chassis, virtual work; docs/stance.md.
    """
    t = np.asarray(turns, dtype=float)
    now = stand(car, t) if found is None else found
    p = np.array([[1.0, c.x, c.y] for c in car.corners])
    at = _forces(car, now.heights, np.array([c.free for c in car.corners]) + car.by_turn @ t)
    by_free = -p @ np.linalg.solve(p.T @ at.slope @ p, p.T @ at.by_free)  # heights by free heights: (4, 4)
    loads = at.slope @ by_free + at.by_free
    cross = (loads[1] + loads[2]) / now.loads.sum()
    return np.asarray((np.vstack([by_free, cross]) @ car.by_turn).T)


@dataclass(frozen=True)
class Asked:
    """What is wanted: heights at the corners in mm with a tolerance, and cross weight (a share) with its own; None where it is not asked.

    Cross weight alone is brought about with the heights kept as near as flats allow.
    """

    heights: tuple[float, float, float, float] | None
    tolerance: float = 2.0
    cross: float | None = None
    cross_tolerance: float = 0.005


@dataclass(frozen=True)
class PerchTurns:
    """Turns of the four perches in whole flats, where the car stands then, whether everything asked is met, and what is not."""

    turns: tuple[float, float, float, float]
    standing: Standing
    met: bool
    short: Finding | None


def perch_turns(car: Car, asked: Asked, start: Sequence[float] | FloatArray = (0.0, 0.0, 0.0, 0.0)) -> PerchTurns:
    """Return the perch turns that bring the car to what is asked, with the fewest corners touched, whole flats, within the thread.

    start: turns they have had already; the answer counts them in. Of all sets of corners that meet every tolerance the smallest; else the one that comes nearest. A rigid chassis has three heights to give
    and four perches: the fourth freedom is the cross weight.
    Source: balance of four springs under a rigid chassis, virtual work; docs/stance.md.
    """
    begun = np.asarray(start, dtype=float)
    about = turns = begun
    for _ in range(6):  # what a turn does changes only where a spring goes slack; then once more from there
        now = stand(car, about)
        by = effects(car, about, now)
        rows = [by[:, i] / asked.tolerance for i in range(4)] if asked.heights is not None else []
        rows += [by[:, 4] / asked.cross_tolerance] if asked.cross is not None else []
        low, high = car.thread
        left = low - begun, high - begun
        if asked.heights is None and asked.cross is not None:
            cross, off = by[:, 4] / asked.cross_tolerance, float(_aims(asked, now)[0])
            moved = kept_heights(*left, by[:, :4].T, cross, off - float(cross @ (about - begun)))
        else:
            moved = fewest_flats(*left, np.array(rows, dtype=float).reshape(-1, 4), _aims(asked, now), about - begun)
        turns = begun + moved
        found = stand(car, turns)
        if found.lifted == now.lifted or np.array_equal(turns, about):
            break
        about = turns
    miss = float(np.abs(_aims(asked, found)).max(initial=0.0))
    lf, rf, lr, rr = (float(v) for v in turns)
    return PerchTurns((lf, rf, lr, rr), found, miss <= 1.0, None if miss <= 1.0 else _short(car, asked, turns, found))


def kept_heights(low: FloatArray, high: FloatArray, heights: FloatArray, cross: FloatArray, off: float) -> FloatArray:
    """Return whole flats (4,) that bring the cross weight within its tolerance with the least sum of squared height changes, all four perches where that takes four.

    low, high: turns left, (4,); ``heights`` (4, 4) mm and ``cross`` (4,) per turn, ``off``: both of cross weight in units of its tolerance.
    Where no flats within the thread reach it, those that come nearest. A rigid chassis has three heights to keep: one way of turning all
    four changes the loads and, but for the bar and for whole flats, none of them.
    Source: balance of four springs under a rigid chassis, virtual work; docs/stance.md.
    """
    # The way of turning that changes the cross weight by one for the least change of heights; a little of the turns themselves decides among equals.
    least = np.linalg.solve(heights.T @ heights + LEAST_TURNING * np.eye(4), cross)
    way = least / (cross @ least)
    reach = np.linspace(-1.0, 1.0, KEPT_TRIES)  # over the whole of the tolerance
    exact = np.outer(reach - off, way)
    if np.any((exact < low - 1e-9) | (exact > high + 1e-9)):
        exact = np.array([_kept_within(low, high, heights, cross, r - off) for r in reach[:: KEPT_TRIES // 16]])
    exact = exact * FLATS_PER_TURN
    around = np.array(list(np.ndindex(*[3] * 4))) - 1
    tries = np.unique((np.round(exact)[:, None, :] + around).reshape(-1, 4), axis=0) / FLATS_PER_TURN
    tries = np.vstack([np.zeros(4), tries[np.all((tries >= low - 1e-9) & (tries <= high + 1e-9), axis=1)]])
    miss = np.maximum(np.abs(off + tries @ cross), 1.0)
    changed = np.sum((tries @ heights.T) ** 2, axis=1)
    order = np.lexsort((np.abs(tries).sum(axis=1), np.round(changed, 6), np.round(miss, 9)))
    return np.asarray(tries[order[0]])


def _kept_within(low: FloatArray, high: FloatArray, heights: FloatArray, cross: FloatArray, by: float) -> FloatArray:
    """Return the turns (4,) within the thread that change the cross weight by so much, else as nearly as goes, for the least change of heights.

    Source: least squares within bounds, what is wanted weighed far over what is kept.
    """
    weigh = 1e4 * float(np.linalg.norm(heights)) / max(float(np.linalg.norm(cross)), 1e-12)
    rows = np.vstack([weigh * cross, heights, np.sqrt(LEAST_TURNING) * np.eye(4)])
    room = high - low > 1e-9
    turns = np.clip(np.zeros(4), low, high)
    if room.any():
        wanted = np.concatenate([[weigh * by], np.zeros(8)]) - rows[:, ~room] @ turns[~room]
        turns[room] = lsq_linear(rows[:, room], wanted, (low[room], high[room]), method="bvls", tol=1e-14).x
    return turns


def fewest_flats(low: FloatArray, high: FloatArray, by: FloatArray, off: FloatArray, about: FloatArray) -> FloatArray:
    """Return whole flats (4,) of the fewest perches that bring every aim within its tolerance, else those that come nearest.

    low, high: turns left at each, (4,). ``by`` (aims, 4) per turn and ``off`` (aims,) at the turns ``about``, both in units of the tolerances.
    Source: balance of four springs under a rigid chassis, virtual work; docs/stance.md.
    """
    best: tuple[float, int, float] | None = None
    chosen = np.zeros(4)
    everything = _rounded(by, off - by @ about, [0, 1, 2, 3], low, high)
    if len(by) and np.abs(off + by @ (everything - about)).max() > FAR_OFF:
        return everything  # fewer perches than all of them come no nearer
    for count in range(5):
        for which in combinations(range(4), count):
            turns = _rounded(by, off - by @ about, list(which), low, high)
            miss = float(np.abs(off + by @ (turns - about)).max(initial=0.0))
            key = (max(miss, 1.0), count, round(float(np.abs(turns).sum()), 9))
            if best is None or key < best:
                best, chosen = key, turns
        if best and best[0] <= 1.0:
            break
    return chosen


def _rounded(by: FloatArray, off: FloatArray, which: list[int], low: FloatArray, high: FloatArray) -> FloatArray:
    """Return the turns of some perches by least squares within their thread, then the whole flats about them that miss least; ``off`` at no turns."""
    turns = np.zeros(4)
    if not which or not len(by):
        return turns
    exact = np.linalg.lstsq(by[:, which], -off, rcond=None)[0]
    if np.any(exact < low[which]) or np.any(exact > high[which]):
        exact = lsq_linear(by[:, which], -off, (low[which], high[which]), method="bvls").x
    flats = np.floor(exact * FLATS_PER_TURN + 1e-9)
    trials = (flats + np.array(list(np.ndindex(*[2] * len(which))))) / FLATS_PER_TURN
    inside = np.all((trials >= low[which] - 1e-9) & (trials <= high[which] + 1e-9), axis=1)
    if not inside.any():
        turns[which] = np.clip(np.round(exact * FLATS_PER_TURN) / FLATS_PER_TURN, low[which], high[which])
        return turns
    trials = trials[inside]
    miss = np.abs(off + trials @ by[:, which].T)
    turns[which] = trials[np.lexsort((np.sum(miss**2, axis=1), np.round(miss.max(axis=1), 12)))[0]]
    return turns


def _aims(asked: Asked, found: Standing) -> FloatArray:
    """Return how far everything asked is off, in units of its tolerance."""
    rows = [] if asked.heights is None else list((found.heights - np.asarray(asked.heights)) / asked.tolerance)
    if asked.cross is not None:
        rows.append((found.cross - asked.cross) / asked.cross_tolerance)
    return np.asarray(rows, dtype=float)


def _short(car: Car, asked: Asked, turns: FloatArray, found: Standing) -> Finding:
    """Return what cannot be met, and how near it comes."""
    ended = [
        c
        for c, t, k in zip(CORNERS, turns, car.corners, strict=True)
        if min(abs(t - k.low), abs(t - k.high)) < 1 / FLATS_PER_TURN
    ]
    left = []
    if asked.cross is not None and abs(found.cross - asked.cross) > asked.cross_tolerance:
        left.append(finding("car.cross-comes-to", percent=found.cross * 100))
    if asked.heights is not None:
        off = found.heights - np.asarray(asked.heights)
        worst = int(np.argmax(np.abs(off)))
        if abs(off[worst]) > asked.tolerance:
            left.append(
                finding("car.corner-left", corner=CORNERS[worst], off=float(abs(off[worst])), high=bool(off[worst] > 0))
            )
    return finding("car.cannot-stand", ended=ended, left=left)
