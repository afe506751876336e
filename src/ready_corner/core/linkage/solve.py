"""From drives to poses: Newton on the pose, along the branch that begins at the design position.

Another assembly of the same links is not an answer. So rows are reached by steps from the design position; where the steps can go no
further without a link at full stretch, the branch ends and the rows beyond say so.
"""

from dataclasses import dataclass

import numpy as np

from ready_corner.core.errors import PlannedError
from ready_corner.core.linkage.mechanism import DOF, Pose, Shape, design_pose, scaled_singular_values, system
from ready_corner.core.linkage.space import Array, dot, rotation_by, skew

CLOSED_MM = 1e-9  # a row has converged when no link is further than this from its length
NEARLY_SINGULAR, SINGULAR = 1e-2, 1e-6  # smallest over largest singular value of the scaled rows: warn, refuse
STEP_MM = 8.0  # between knots of a sweep; a tenth of the shortest arms in use
LEAST_STEP_MM = 1e-5  # the end of a branch is found this closely
MOST_ITERATIONS = 30


class SingularLinkageError(PlannedError):
    """The links do not hold the wheel: ``member`` takes most of the free motion, ``ratio`` is that of the singular values."""

    code = "linkage_singular"

    def __init__(self, member: str, ratio: float, what: str) -> None:
        self.member, self.ratio = member, ratio
        super().__init__(
            f"{what} The smallest singular value is {ratio:.1e} of the largest; {member} is in it. Move one of its ends.",
            path=f"members.{member}",
            numbers={"ratio": ratio},
        )


@dataclass(frozen=True)
class End:
    """Where a branch ends: drives there, and the member at full stretch."""

    travel: float
    steer: float
    member: str


@dataclass(frozen=True)
class Poses:
    """Solved rows: ``pose`` (N, …), ``travel`` (N,) mm, ``roll`` (N,) rad, largest ``residual`` (N,) mm, ``converged`` (N,).

    ``condition``: smallest over largest singular value of the scaled rows at the design position. ``ends``: where branches ended.
    ``bind`` (N,): by how much over-held links are off their lengths in mm, 0 where the links just hold the body.
    """

    pose: Pose
    travel: Array
    roll: Array
    residual: Array
    converged: Array
    condition: float
    ends: tuple[End, ...] = ()
    iterations: int = 0

    @property
    def rows(self) -> int:
        """Number of positions."""
        return len(self.travel)


def solve(shape: Shape, travel: Array, steer: Array | float = 0.0, roll: Array | float = 0.0) -> Poses:
    """Return the pose at every travel (mm, bump positive), steer (rack mm, left positive) and roll (rad, axles only).

    The three broadcast to (N,). Raises SingularLinkageError where the links do not hold the body in its design position.
    """
    travel, steer, roll = (np.array(a, dtype=float) for a in np.broadcast_arrays(np.atleast_1d(travel), steer, roll))
    condition = require_held(shape)
    line = _one_line(travel, steer, roll)
    if line is None:
        return _by_steps(shape, travel, steer, roll, condition)
    start, direction, along = line
    first = _march(shape, np.zeros(3), start) if np.any(start) else None
    if first is not None and first.end is not None:
        return _beyond(shape, travel, roll, steer, condition, (first.end,))
    knot = first.knots[-1] if first else None
    branches = [
        _march(shape, start, start + direction * s, knot) for s in (along.min(initial=0.0), along.max(initial=0.0)) if s != 0
    ]
    pose, reached = _between_knots(shape, branches, start, direction, along, steer, knot)
    found = _polish(shape, pose, travel, roll, condition)
    ends = tuple(b.end for b in branches if b.end is not None)
    return _masked(found, reached, ends)


def require_held(shape: Shape) -> float:
    """Return how well the design position is held; raises SingularLinkageError under 1e-6."""
    pose = design_pose(shape, 1)
    _, rows = system(shape, pose, np.zeros(1), np.zeros(1))
    values = scaled_singular_values(shape, rows)[0]
    ratio = float(values[DOF - 1] / values[0]) if len(values) >= DOF else 0.0
    if not ratio >= SINGULAR:
        raise SingularLinkageError(_weakest(shape, rows[0]), ratio, "The links do not hold the wheel in its design position.")
    return ratio


def solve_near(shape: Shape, travel: Array | float = 0.0, roll: Array | float = 0.0, steer: Array | float = 0.0) -> Poses:
    """Return poses close to the design position for stacks of drawn shapes (N, n, 3): Newton from there, no continuation."""
    rows = max(shape.x.shape[0] if shape.x.ndim > 2 else 1, shape.links.shape[0] if shape.links.ndim > 1 else 1, np.size(travel))
    travel, roll, steer = (np.broadcast_to(np.asarray(a, dtype=float), (rows,)) for a in (travel, roll, steer))
    start = design_pose(shape, rows)
    return _polish(shape, Pose(start.rotation, start.place, steer), travel, roll, 1.0)


def twist(shape: Shape, pose: Pose, drive: int = 0) -> Array:
    """Return the motion (..., 6) per unit of one drive, rack held: of travel, per mm; of roll (drive 1), per mm of its row."""
    _, rows = system(shape, pose, np.zeros(()), np.zeros(()))
    return per_row(shape, rows, drive - shape.mechanism.drives)


def per_row(shape: Shape, rows: Array, which: int) -> Array:
    """Return the motion (..., 6) that lengthens one row by one and leaves the others."""
    target = np.zeros((*rows.shape[:-1], 1), dtype=rows.dtype)
    target[..., which, 0] = 1.0
    return np.asarray(solve_rows(shape, rows, target)[..., 0])


def solve_rows(shape: Shape, rows: Array, target: Array) -> Array:
    """Return solutions (..., 6, k) of rows (..., m, 6) times solution = target (..., m, k).

    With more rows than six the drives are met exactly, and over-held links share what is left by least squares.
    """
    if rows.shape[-2] == DOF:
        return np.asarray(np.linalg.solve(rows, target))
    square, right = _bordered(shape, rows, target)
    return np.asarray(np.linalg.solve(square, right)[..., :DOF, :])


def _bordered(shape: Shape, rows: Array, target: Array | None = None) -> tuple[Array, Array]:
    """Return the square matrix of least squares under the drives, with its right side (Lagrange)."""
    n = shape.mechanism.drives
    links, drives = rows[..., :-n, :], rows[..., -n:, :]
    across = np.swapaxes(links, -1, -2)
    square = np.zeros((*rows.shape[:-2], DOF + n, DOF + n), dtype=rows.dtype)
    square[..., :DOF, :DOF], square[..., :DOF, DOF:], square[..., DOF:, :DOF] = across @ links, np.swapaxes(drives, -1, -2), drives
    right = np.zeros(()) if target is None else np.concatenate([across @ target[..., :-n, :], target[..., -n:, :]], axis=-2)
    return square, right


def _sign(shape: Shape, rows: Array) -> Array:
    """Return the sign of the determinant (...,): it turns where a branch does."""
    square = rows if rows.shape[-2] == DOF else _bordered(shape, rows)[0]
    with np.errstate(all="ignore"):
        return np.asarray(np.sign(np.linalg.det(square / np.abs(square).max(axis=(-1, -2), keepdims=True))))


@dataclass(frozen=True)
class _Knot:
    along: float  # 0 at the beginning of the branch, 1 at its aim
    pose: Pose  # of one row
    motion: Array  # (1, 6), per unit of ``along``


@dataclass(frozen=True)
class _Branch:
    aim: Array  # (travel, steer, roll)
    knots: list[_Knot]
    end: End | None


def _one_line(travel: Array, steer: Array, roll: Array) -> tuple[Array, Array, Array] | None:
    """Return start, direction and the place of every row along it, where all rows differ in one drive alone; else None."""
    drives = np.stack([travel, steer, roll], axis=-1)
    varied = [k for k in range(3) if np.any(drives[:, k] != drives[0, k])]
    if len(varied) > 1:
        return None
    k = varied[0] if varied else 0
    start = drives[0].copy()
    start[k] = 0.0
    return start, np.eye(3)[k], drives[:, k]


def _march(shape: Shape, begin: Array, aim: Array, knot: _Knot | None = None) -> _Branch:
    """Walk from one set of drives to another in steps, halving them where Newton does not follow; stop where the branch ends."""
    way = aim - begin
    pose = knot.pose if knot else design_pose(shape, 1)
    pose = Pose(pose.rotation, pose.place, np.array([begin[1]]))
    size = abs(way[0]) + abs(way[1]) + abs(way[2]) * 500  # a radian of roll moves a wheel by about half a track
    step = min(STEP_MM / size, 1.0)
    motion, sign = _motion(shape, pose, begin, way)
    knots, along = [_Knot(0.0, pose, motion)], 0.0
    while along < 1.0:
        target = min(along + step, 1.0)
        guess = _moved(pose, motion * (target - along))
        drives = begin + way * target
        trial = Pose(guess.rotation, guess.place, np.array([drives[1]]))
        found = _newton(shape, trial, drives[:1], drives[2:3], 12)
        ok = bool(found.converged[0]) and _gap(found.pose, trial, shape) < 0.25 * step * size + 1e-9
        if ok:
            motion_there, sign_there = _motion(shape, found.pose, drives, way)
            ok = sign_there == sign and bool(np.all(np.isfinite(motion_there)))
        if not ok:
            step /= 2
            if step * size < LEAST_STEP_MM:
                return _Branch(aim, knots, _end(shape, pose, begin + way * along))
            continue
        along, pose, motion = target, found.pose, motion_there
        knots.append(_Knot(along, pose, motion))
        step = min(step * 2, STEP_MM / size, 1.0)
    return _Branch(aim, knots, None)


def _motion(shape: Shape, pose: Pose, drives: Array, way: Array) -> tuple[Array, float]:
    """Return the motion per unit of the way, (1, 6), and the sign of the determinant of the rows."""
    _, rows = system(shape, pose, drives[:1], drives[2:3])
    target = np.zeros((1, rows.shape[-2], 1))
    drives_at = rows.shape[-2] - shape.mechanism.drives
    target[0, drives_at, 0] = way[0]
    if shape.mechanism.drives > 1:
        target[0, drives_at + 1, 0] = way[2] * _roll_gain(shape, pose, drives[2])
    if way[1]:
        for i, link in enumerate(shape.mechanism.links):
            if link.body == shape.mechanism.steered:  # the rack moving by one shortens the link by its own direction
                target[0, i, 0] = rows[0, i, 4] * way[1]
    with np.errstate(all="ignore"):
        try:
            motion = solve_rows(shape, rows, target)[..., 0]
        except np.linalg.LinAlgError:
            motion = np.full((1, DOF), np.nan)
    return motion, float(_sign(shape, rows)[0])


def _roll_gain(shape: Shape, pose: Pose, roll: float) -> float:
    """Return the length by which the roll row changes per radian: across times the sine's slope, in mm."""
    left, right = (pose.at(shape, name)[0] for name in shape.mechanism.reference)
    across = left - right
    return float(across[1] * np.cos(roll) + across[2] * np.sin(roll))


def _moved(pose: Pose, motion: Array) -> Pose:
    return Pose(rotation_by(motion[..., :3]) @ pose.rotation, pose.place + motion[..., 3:], pose.steer)


def _gap(a: Pose, b: Pose, shape: Shape) -> float:
    """Return how far two poses of one row are apart, in mm at the size of the body."""
    turn = np.abs(a.rotation - b.rotation).max()
    return float(np.abs(a.place - b.place).max() + turn * 100.0)


def _newton(shape: Shape, pose: Pose, travel: Array, roll: Array, most: int) -> Poses:
    """Return poses after Newton steps until every row has converged, or ``most`` steps."""
    rows = len(pose.place)
    last = np.full(rows, np.inf)
    iterations, over = 0, False
    while iterations < most:
        iterations += 1
        residual, jacobian = system(shape, pose, travel, roll)
        over = residual.shape[-1] > DOF
        size = np.abs(residual).max(axis=-1)
        # Over-held links never close; there the step says when it is done.
        done = size < CLOSED_MM * 1e-3 if not over else last < CLOSED_MM * 1e-3
        if np.all(done | ~np.isfinite(size)):
            break
        try:
            step = -solve_rows(shape, jacobian, residual[..., None])[..., 0]
        except np.linalg.LinAlgError:
            step = _row_by_row(shape, jacobian, residual)
        # A step of over half a radian has left the branch; it is kept short so that other rows can go on.
        turn = np.sqrt(dot(step[:, :3], step[:, :3]))
        step *= np.minimum(1.0, 0.5 / np.maximum(turn, 1e-12))[:, None]
        pose = _moved(pose, step)
        last = np.abs(step[:, 3:]).max(axis=-1)
    residual, _ = system(shape, pose, travel, roll)
    size = np.abs(residual).max(axis=-1)
    drives = np.abs(residual[:, -shape.mechanism.drives :]).max(axis=-1)
    converged = (drives < 1e-6) & (last < CLOSED_MM) if over else size < CLOSED_MM
    return Poses(pose, travel, roll, size, converged, 1.0, (), iterations)


def _row_by_row(shape: Shape, jacobian: Array, residual: Array) -> Array:
    out = np.full((len(residual), DOF), np.nan)
    for i in range(len(residual)):
        try:
            out[i] = -solve_rows(shape, jacobian[i], residual[i][:, None])[:, 0]
        except np.linalg.LinAlgError:
            continue
    return out


def _polish(shape: Shape, pose: Pose, travel: Array, roll: Array, condition: float) -> Poses:
    found = _newton(shape, pose, travel, roll, MOST_ITERATIONS)
    return Poses(found.pose, travel, roll, found.residual, found.converged, condition, (), found.iterations)


def _between_knots(
    shape: Shape, branches: list[_Branch], start: Array, direction: Array, along: Array, steer: Array, knot: _Knot | None
) -> tuple[Pose, Array]:
    """Return first guesses for all rows by cubic Hermite between knots, and which rows lie on the branch at all."""
    begin = knot.pose if knot else design_pose(shape, 1)
    rows: list[tuple[float, Pose, Array]] = []
    for b in branches:
        reach = float((b.aim - start) @ direction)
        rows += [(k.along * reach, k.pose, k.motion / reach) for k in b.knots]
    if not rows:
        rows = [(0.0, begin, np.zeros((1, DOF)))]
    rows.sort(key=lambda r: r[0])
    s = np.array([r[0] for r in rows])
    keep = np.concatenate([[True], np.diff(s) > 0])
    s = s[keep]
    place = np.concatenate([r[1].place for r in rows])[keep]
    rotation = np.concatenate([r[1].rotation for r in rows])[keep]
    motion = np.concatenate([r[2] for r in rows])[keep]
    reached = (along >= s[0]) & (along <= s[-1])
    if len(s) == 1:
        guess = Pose(np.repeat(rotation, len(along), 0), np.repeat(place, len(along), 0), steer)
        return guess, reached
    i = np.clip(np.searchsorted(s, along) - 1, 0, len(s) - 2)
    h = s[i + 1] - s[i]
    u = np.clip((along - s[i]) / h, 0, 1)
    a, b_, c, d = 2 * u**3 - 3 * u**2 + 1, u**3 - 2 * u**2 + u, -2 * u**3 + 3 * u**2, u**3 - u**2
    turning = skew(motion[:, :3]) @ rotation
    mixed_place = a[:, None] * place[i] + (b_ * h)[:, None] * motion[i, 3:] + c[:, None] * place[i + 1] + (d * h)[:, None] * motion[i + 1, 3:]
    wide = (slice(None), None, None)
    mixed = a[wide] * rotation[i] + (b_ * h)[wide] * turning[i] + c[wide] * rotation[i + 1] + (d * h)[wide] * turning[i + 1]
    for _ in range(2):  # back onto the rotations; the interpolation is off by some 1e-8
        mixed = 1.5 * mixed - 0.5 * mixed @ np.swapaxes(mixed, -1, -2) @ mixed
    return Pose(mixed, mixed_place, steer), reached


def _by_steps(shape: Shape, travel: Array, steer: Array, roll: Array, condition: float) -> Poses:
    """Rows that differ in more than one drive: all of them walk straight from the design position, together."""
    drives = np.stack([travel, steer, roll], axis=-1)
    size = np.abs(drives) @ np.array([1.0, 1.0, 500.0])
    steps = max(int(np.ceil(size.max(initial=0.0) / STEP_MM)), 1)
    start = design_pose(shape, len(travel))
    pose, alive = start, np.ones(len(travel), dtype=bool)
    sign = _sign(shape, system(shape, pose, travel * 0, roll * 0)[1])
    found = None
    for k in range(1, steps + 1):
        part = drives * (k / steps)
        trial = Pose(pose.rotation, pose.place, part[:, 1])
        found = _newton(shape, trial, part[:, 0], part[:, 2], MOST_ITERATIONS if k == steps else 4)
        now = _sign(shape, system(shape, found.pose, part[:, 0], part[:, 2])[1])
        alive &= (found.residual < 1e-3) & (now == sign)
        pose = found.pose
    assert found is not None
    result = Poses(found.pose, travel, roll, found.residual, found.converged & alive, condition, (), found.iterations)
    if alive.all():
        return result
    worst = int(np.argmin(alive))
    branch = _march(shape, np.zeros(3), drives[worst])
    return _masked(result, alive, (branch.end,) if branch.end else ())


def _masked(found: Poses, reached: Array, ends: tuple[End, ...]) -> Poses:
    good = found.converged & reached
    nan = np.where(good, 1.0, np.nan)
    pose = Pose(found.pose.rotation * nan[:, None, None], found.pose.place * nan[:, None], found.pose.steer)
    return Poses(pose, found.travel, found.roll, np.where(good, found.residual, np.inf), good, found.condition, ends, found.iterations)


def _beyond(shape: Shape, travel: Array, roll: Array, steer: Array, condition: float, ends: tuple[End, ...]) -> Poses:
    start = design_pose(shape, len(travel))
    nothing = Poses(Pose(start.rotation, start.place, steer), travel, roll, travel * 0, np.ones(len(travel), dtype=bool), condition)
    return _masked(nothing, np.zeros(len(travel), dtype=bool), ends)


def _end(shape: Shape, pose: Pose, drives: Array) -> End:
    _, rows = system(shape, pose, drives[:1], drives[2:3])
    return End(float(drives[0]), float(drives[1]), _weakest(shape, rows[0]))


def _weakest(shape: Shape, rows: Array) -> str:
    """Return the member that carries most of the forces in balance without a load: what is at full stretch, or doubled.

    Drives are passed over unless they are alone in it.
    """
    left, _, _ = np.linalg.svd(rows, full_matrices=True)
    share = np.abs(left[:, min(len(rows), DOF) - 1])
    share[-shape.mechanism.drives :] *= 0.1
    return shape.mechanism.rows[int(np.argmax(share))]
