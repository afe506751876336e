"""From drives to poses: Newton on the pose, along the branch that begins at the design position.

Another assembly of the same links is not an answer. So rows are reached by steps from the design position; where the steps can go no
further without a link at full stretch, the branch ends and the rows beyond say so.

Source: Newton's method on the constraint equations, branch followed from the design position; docs/linkage.md.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ready_corner.core.engines.linkage.mechanism import DOF, Pose, Shape, design_pose, scaled_singular_values, system
from ready_corner.core.engines.linkage.space import STEP, Array, dot, rotation_by, skew
from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.quantities.finding import Finding, finding

CLOSED_MM = 1e-9  # a row has converged when no link is further than this from its length
NEARLY_SINGULAR, SINGULAR = 1e-2, 1e-6  # smallest over largest singular value of the scaled rows: warn, refuse
STEP_MM = 20.0  # between knots of a sweep; halved wherever Newton does not follow
LEAST_STEP_MM = 1e-5  # the end of a branch is found this closely
MOST_ITERATIONS = 30
MOST_TRIES = 200  # steps of one walk, followed or not; the furthest drive takes some fifty
MOST_BRANCHES = 64  # of one shape that are kept
LEVER_MM = 500.0  # a radian of roll counts as so many mm of drive: about half a track


class SingularLinkageError(PlannedError):
    """The links do not hold the wheel: ``member`` takes most of the free motion, ``ratio`` is that of the singular values."""

    code = "linkage_singular"

    def __init__(self, member: str, ratio: float, what: Finding) -> None:
        self.member, self.ratio = member, ratio
        super().__init__(
            finding("linkage.singular", what=what, ratio=ratio, member=member),
            path=f"members.{member}",
            numbers={"ratio": ratio},
        )


@dataclass(frozen=True)
class End:
    """Where a branch ends: drives there (mm, roll in degrees), and the member at full stretch."""

    travel: float
    steer: float
    member: str
    roll_deg: float = 0.0


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
    Source: Newton's method on the constraint equations, branch followed from the design position, docs/linkage.md.
    """
    travel, steer, roll = (np.array(a, dtype=float) for a in np.broadcast_arrays(np.atleast_1d(travel), steer, roll))
    condition = require_held(shape)
    drives = np.stack([travel, steer, roll], axis=-1)
    if np.any(steer != steer[0]) or (np.any(travel != travel[0]) and np.any(roll != roll[0])):
        return _by_steps(shape, drives, condition)
    begin: Pose | None = None
    ends: tuple[End, ...] = ()
    if steer[0]:
        per_mm = shape.steer_per_mm
        branch = _march(shape, np.zeros(3), np.array([0.0, per_mm, 0.0]), float(steer[0] / per_mm))
        first = _polish(
            shape, *_between(shape, branch.knots, steer[:1] / per_mm, steer[:1]), steer[:1] * 0, steer[:1] * 0, condition
        )
        if not first.converged[0]:
            return masked(_nowhere(shape, drives, condition), np.zeros(len(travel), dtype=bool), branch.ends)
        begin = first.pose
    which = 2 if np.any(roll != roll[0]) or not np.any(travel) else 0
    direction = np.eye(3)[which] * (1 / LEVER_MM if which == 2 else 1.0)
    start = drives[0] * (1 - np.eye(3)[which])
    if which == 2 and travel[0]:  # heave first, then roll
        branch = _march(shape, start * [0, 1, 0], np.eye(3)[0], float(travel[0]), begin)
        begin, ends = (
            _polish(shape, *_between(shape, branch.knots, travel[:1], steer[:1]), travel[:1], roll[:1] * 0, condition).pose,
            branch.ends,
        )
    along = drives[:, which] / direction[which]
    knots: dict[float, _Knot] = {}
    for reach in (along.min(initial=0.0), along.max(initial=0.0)):
        branch = _march(shape, start, direction, float(reach), begin)
        knots.update({k.along: k for k in branch.knots})
        ends += branch.ends
    pose, reached = _between(shape, [knots[s] for s in sorted(knots)], along, steer)
    return masked(_polish(shape, pose, reached, travel, roll, condition), reached, ends)


def require_held(shape: Shape) -> float:
    """Return how well the design position is held; raises SingularLinkageError under 1e-6.

    Source: Newton's method on the constraint equations, branch followed from the design position, docs/linkage.md.
    """
    known: float | None = shape.walked.get(b"held")
    if known is not None:
        return known
    pose = design_pose(shape, 1)
    _, rows = system(shape, pose, np.zeros(1), np.zeros(1))
    values = scaled_singular_values(shape, rows)[0]
    ratio = float(values[DOF - 1] / values[0]) if len(values) >= DOF else 0.0
    if not ratio >= SINGULAR:
        raise SingularLinkageError(_weakest(shape, rows[0]), ratio, finding("linkage.holds-nothing"))
    shape.walked[b"held"] = ratio
    return ratio


def solve_near(shape: Shape, travel: Array | float = 0.0, roll: Array | float = 0.0, steer: Array | float = 0.0) -> Poses:
    """Return poses close to the design position for stacks of drawn shapes (N, n, 3): Newton from there, no continuation.

    Source: Newton's method on the constraint equations, branch followed from the design position, docs/linkage.md.
    """
    rows = max(
        shape.x.shape[0] if shape.x.ndim > 2 else 1, shape.links.shape[0] if shape.links.ndim > 1 else 1, np.size(travel)
    )
    travel, roll, steer = (np.broadcast_to(np.asarray(a, dtype=float), (rows,)) for a in (travel, roll, steer))
    start = design_pose(shape, rows)
    return _polish(shape, Pose(start.rotation, start.place, steer), np.ones(rows, dtype=bool), travel, roll, 1.0)


def twist(shape: Shape, pose: Pose, drive: int = 0) -> Array:
    """Return the motion (..., 6) per unit of one drive, rack held: of travel, per mm; of roll (drive 1), per mm of its row.

    Source: Newton's method on the constraint equations, branch followed from the design position, docs/linkage.md.
    """
    _, rows = system(shape, pose, np.zeros(()), np.zeros(()))
    return per_row(shape, rows, drive - shape.mechanism.drives)


def per_row(shape: Shape, rows: Array, which: int) -> Array:
    """Return the motion (..., 6) that lengthens one row by one and leaves the others.

    Source: Newton's method on the constraint equations, branch followed from the design position, docs/linkage.md.
    """
    target = np.zeros((*rows.shape[:-1], 1), dtype=rows.dtype)
    target[..., which, 0] = 1.0
    return np.asarray(solve_rows(shape, rows, target)[..., 0])


def solve_rows(shape: Shape, rows: Array, target: Array) -> Array:
    """Return solutions (..., 6, k) of rows (..., m, 6) times solution = target (..., m, k).

    With more rows than six the drives are met exactly, and over-held links share what is left by least squares.
    Source: Newton's method on the constraint equations, branch followed from the design position, docs/linkage.md.
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
    square[..., :DOF, :DOF], square[..., :DOF, DOF:], square[..., DOF:, :DOF] = (
        across @ links,
        np.swapaxes(drives, -1, -2),
        drives,
    )
    right = np.zeros(()) if target is None else np.concatenate([across @ target[..., :-n, :], target[..., -n:, :]], axis=-2)
    return square, right


def _sign(shape: Shape, rows: Array) -> Array:
    """Return the sign of the determinant (...,): it turns where a branch does."""
    square = rows if rows.shape[-2] == DOF else _bordered(shape, rows)[0]
    with np.errstate(all="ignore"):
        return np.asarray(np.sign(np.linalg.det(square / np.abs(square).max(axis=(-1, -2), keepdims=True))))


@dataclass(frozen=True)
class _Knot:
    along: float  # mm of drive from where the branch begins
    pose: Pose  # of one row
    motion: Array  # (1, 6) per mm of drive


@dataclass(frozen=True)
class _Branch:
    """A branch as far as it was walked; ``ends`` where it does not go further; ``step`` and ``followed``: with what it is walked on."""

    knots: tuple[_Knot, ...]
    ends: tuple[End, ...]
    step: float
    followed: int
    sign: float

    def until(self, reach: float) -> "_Branch":
        """Return it until past a reach."""
        last = next((i for i, k in enumerate(self.knots) if abs(k.along) >= abs(reach)), None)
        return self if last is None else replace(self, knots=self.knots[: last + 1], ends=())


def _march(shape: Shape, start: Array, direction: Array, reach: float, begin: Pose | None = None) -> _Branch:
    """Walk along a direction of the drives (travel, steer, roll) until past a reach, by steps that do not depend on it.

    What was walked of this shape before is not walked again.
    """
    way = np.copysign(1.0, reach)
    parts = [start, direction, np.array(way)] + ([] if begin is None else [begin.rotation, begin.place, begin.steer])
    key = b"".join(np.ascontiguousarray(p, dtype=float).tobytes() for p in parts)
    known: _Branch | None = shape.walked.get(key)
    if known is None or not (known.ends or abs(known.knots[-1].along) >= abs(reach)):
        known = _walk(shape, start, direction, reach, known or _begin(shape, start, direction, begin))
        if len(shape.walked) >= MOST_BRANCHES:
            shape.walked.clear()
        shape.walked[key] = known
    return known.until(reach)


def _begin(shape: Shape, start: Array, direction: Array, begin: Pose | None) -> _Branch:
    """Return a branch of which nothing was walked yet."""
    if begin is None:  # links of other lengths than the design's hold it elsewhere: the branch begins where they do
        begin = design_pose(shape, 1)
        found, _ = _newton(shape, Pose(begin.rotation, begin.place, start[1:2]), start[:1], start[2:3], 12)
        begin = found.pose if found.converged[0] else begin
    pose = Pose(begin.rotation, begin.place, start[1:2])
    motion, sign = _motion(shape, system(shape, pose, start[:1], start[2:3])[1], pose, start, direction)
    return _Branch((_Knot(0.0, pose, motion),), (), STEP_MM, 0, sign)


def _walk(shape: Shape, start: Array, direction: Array, reach: float, branch: _Branch) -> _Branch:
    """Return a branch walked on until past a reach, or to its end.

    Steps are halved where Newton does not follow, or where the rows would turn over; the branch ends where no step is left.
    """
    way, sign, step, followed = np.copysign(1.0, reach), branch.sign, branch.step, branch.followed
    knots = list(branch.knots)
    along, pose, motion = knots[-1].along, knots[-1].pose, knots[-1].motion
    tries = 0
    while abs(along) < abs(reach):
        tries += 1
        if tries > MOST_TRIES:  # it creeps where it can hardly be followed: what lies beyond is not told
            return _Branch(tuple(knots), (_end(shape, pose, start + direction * along),), step, followed, sign)
        there = along + way * step
        drives = start + direction * there
        # The motion half a step on, by how it changed over the last one: a third fewer Newton steps than by the motion here.
        ahead = (
            motion if len(knots) < 2 else motion + (motion - knots[-2].motion) * (there - along) / (along - knots[-2].along) / 2
        )
        guess = _moved(pose, ahead * (there - along))
        trial = Pose(guess.rotation, guess.place, drives[1:2])
        found, rows = _newton(shape, trial, drives[:1], drives[2:3], 12)
        ok = bool(found.converged[0]) and _gap(found.pose, trial) < 0.25 * step
        if ok:
            motion_there, sign_there = _motion(shape, rows, found.pose, drives, direction)
            ok = sign_there == sign and bool(np.all(np.isfinite(motion_there)))
        followed = followed + 1 if ok else 0
        if not ok:
            step /= 2
            if step < LEAST_STEP_MM:
                return _Branch(tuple(knots), (_end(shape, pose, start + direction * along),), step, followed, sign)
            continue
        along, pose, motion = there, found.pose, motion_there
        knots.append(_Knot(along, pose, motion))
        if followed > 2:  # before the end of a branch no three steps of one size go by, so they only shrink there
            step = min(step * 2, STEP_MM)
    return _Branch(tuple(knots), (), step, followed, sign)


def _motion(shape: Shape, rows: Array, pose: Pose, drives: Array, direction: Array) -> tuple[Array, float]:
    """Return the motion per mm along a direction of the drives, (1, 6), and the sign of the determinant of the rows."""
    target = np.zeros((1, rows.shape[-2], 1))
    first = rows.shape[-2] - shape.mechanism.drives
    target[0, first, 0] = direction[0]
    if shape.mechanism.drives > 1:
        target[0, first + 1, 0] = direction[2] * _roll_gain(shape, pose, drives[2])
    if direction[1]:
        for i, link in enumerate(shape.mechanism.links):
            if link.body == shape.mechanism.steered:  # its inner point moving by one shortens the link by its own direction
                push = shape.push(drives[1:2] + 1j * STEP).imag[0] / STEP
                target[0, i, 0] = rows[0, i, 3:] @ push * direction[1]
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


def _gap(a: Pose, b: Pose) -> float:
    """Return how far two poses of one row are apart: the greatest of the places and of 100 mm times the turn."""
    turn = np.abs(a.rotation - b.rotation).max()
    return float(max(np.abs(a.place - b.place).max(), turn * 100.0))


def _newton(shape: Shape, pose: Pose, travel: Array, roll: Array, most: int) -> tuple[Poses, Array]:
    """Return poses after at most so many Newton steps, with their rows. A row that has closed is left as it is, whatever others do."""
    last = np.full(len(pose.place), np.inf)
    iterations = 0
    while True:
        residual, rows = system(shape, pose, travel, roll)
        over = residual.shape[-1] > DOF
        size = np.abs(residual).max(axis=-1)
        # Over-held links never close; there the step says when it is done.
        done = (last if over else size) < CLOSED_MM * 0.1
        if iterations == most or np.all(done | ~np.isfinite(size)):
            break
        iterations += 1
        try:
            step = -solve_rows(shape, rows, residual[..., None])[..., 0]
        except np.linalg.LinAlgError:
            step = _row_by_row(shape, rows, residual)
        # A step of over half a radian has left the branch; it is kept short so that other rows can go on.
        turn = np.sqrt(dot(step[:, :3], step[:, :3]))
        step *= np.where(done, 0.0, np.minimum(1.0, 0.5 / np.maximum(turn, 1e-12)))[:, None]
        pose = _moved(pose, step)
        last = np.where(done, last, np.abs(step[:, 3:]).max(axis=-1))
    drives = np.abs(residual[:, -shape.mechanism.drives :]).max(axis=-1)
    converged = (drives < CLOSED_MM) & (last < CLOSED_MM) if over else size < CLOSED_MM
    return Poses(pose, travel, roll, size, converged, 1.0, (), iterations), rows


def _row_by_row(shape: Shape, jacobian: Array, residual: Array) -> Array:
    out = np.full((len(residual), DOF), np.nan)
    for i in range(len(residual)):
        try:
            out[i] = -solve_rows(shape, jacobian[i], residual[i][:, None])[:, 0]
        except np.linalg.LinAlgError:
            continue
    return out


def _polish(shape: Shape, pose: Pose, reached: Array, travel: Array, roll: Array, condition: float) -> Poses:
    found, _ = _newton(shape, pose, travel, roll, MOST_ITERATIONS)
    return Poses(found.pose, travel, roll, found.residual, found.converged & reached, condition, (), found.iterations)


def _between(shape: Shape, knots: Sequence[_Knot], along: Array, steer: Array) -> tuple[Pose, Array]:
    """Return first guesses by cubic Hermite between knots, and which rows lie on the branch at all."""
    knots = sorted(knots, key=lambda k: k.along)
    s = np.array([k.along for k in knots])
    place, rotation = (np.concatenate([getattr(k.pose, part) for k in knots]) for part in ("place", "rotation"))
    motion = np.concatenate([k.motion for k in knots])
    reached = (along >= s[0]) & (along <= s[-1])
    if len(s) == 1:
        return Pose(np.repeat(rotation, len(along), 0), np.repeat(place, len(along), 0), steer), reached
    i = np.clip(np.searchsorted(s, along, side="right") - 1, 0, len(s) - 2)
    h = s[i + 1] - s[i]
    u = np.clip((along - s[i]) / h, 0, 1)
    weights = 2 * u**3 - 3 * u**2 + 1, (u**3 - 2 * u**2 + u) * h, -2 * u**3 + 3 * u**2, (u**3 - u**2) * h
    turning = skew(motion[:, :3]) @ rotation

    def mixed(value: Array, slope: Array) -> Array:
        a, b, c, d = (w.reshape(-1, *[1] * (value.ndim - 1)) for w in weights)
        return np.asarray(a * value[i] + b * slope[i] + c * value[i + 1] + d * slope[i + 1])

    turn = mixed(rotation, turning)
    for _ in range(2):  # back onto the rotations; the interpolation is off by some 1e-6
        turn = 1.5 * turn - 0.5 * turn @ np.swapaxes(turn, -1, -2) @ turn
    return Pose(turn, mixed(place, motion[:, 3:]), steer), reached


def _by_steps(shape: Shape, drives: Array, condition: float) -> Poses:
    """Rows that differ in more than one drive: each walks straight from the design position, in as many steps as its way is long."""
    way = np.abs(drives) @ np.array([1.0, 1 / shape.steer_per_mm, LEVER_MM])
    steps = np.maximum(np.ceil(way / STEP_MM), 1)
    pose, alive = design_pose(shape, len(drives)), np.ones(len(drives), dtype=bool)
    sign = _sign(shape, system(shape, pose, way * 0, way * 0)[1])
    for k in range(1, int(steps.max()) + 1):
        part = drives * np.minimum(k / steps, 1.0)[:, None]
        trial = Pose(pose.rotation, pose.place, part[:, 1])
        found, rows = _newton(shape, trial, part[:, 0], part[:, 2], MOST_ITERATIONS)
        alive &= found.converged & (_sign(shape, rows) == sign)
        pose = found.pose
    result = Poses(
        found.pose, drives[:, 0], drives[:, 2], found.residual, found.converged & alive, condition, (), found.iterations
    )
    if alive.all():
        return result
    worst = int(np.argmin(alive))
    direction = drives[worst] / way[worst]
    return masked(result, alive, _march(shape, np.zeros(3), direction, float(way[worst])).ends)


def masked(found: Poses, reached: Array, ends: tuple[End, ...]) -> Poses:
    """Return poses with the rows that were not ``reached`` (N,) made nan and not converged.

    Source: Newton's method on the constraint equations, branch followed from the design position, docs/linkage.md.
    """
    good = found.converged & reached
    nan = np.where(good, 1.0, np.nan)
    pose = Pose(found.pose.rotation * nan[:, None, None], found.pose.place * nan[:, None], found.pose.steer)
    return Poses(
        pose, found.travel, found.roll, np.where(good, found.residual, np.inf), good, found.condition, ends, found.iterations
    )


def _nowhere(shape: Shape, drives: Array, condition: float) -> Poses:
    start = design_pose(shape, len(drives))
    pose = Pose(start.rotation, start.place, drives[:, 1])
    return Poses(pose, drives[:, 0], drives[:, 2], drives[:, 0] * 0, np.zeros(len(drives), dtype=bool), condition)


def _end(shape: Shape, pose: Pose, drives: Array) -> End:
    _, rows = system(shape, pose, drives[:1], drives[2:3])
    return End(float(drives[0]), float(drives[1]), _weakest(shape, rows[0]), float(np.degrees(drives[2])))


def _weakest(shape: Shape, rows: Array) -> str:
    """Return the member that carries most of the forces in balance without a load: what is at full stretch, or doubled.

    Drives are passed over unless they are alone in it.
    """
    left, _, _ = np.linalg.svd(rows, full_matrices=True)
    share = np.abs(left[:, min(len(rows), DOF) - 1])
    share[-shape.mechanism.drives :] *= 0.1
    return shape.mechanism.rows[int(np.argmax(share))]
