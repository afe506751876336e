"""A body over its travel and steering: every answer at every position.

Source: ISO 8855 definitions; instantaneous screw of the upright; docs/linkage.md.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.linkage.answers import (
    Answers,
    about_joints,
    member_answers,
    motion_of,
    nudged,
    part_answers,
    place_answers,
    rate_answers,
    roll_answers,
    wheel_answers,
)
from ready_corner.core.engines.linkage.body import Body, Spring, Wheel
from ready_corner.core.engines.linkage.knuckles import wheel_motion
from ready_corner.core.engines.linkage.mechanism import Pose, Shape, design_pose
from ready_corner.core.engines.linkage.parts import arm_turning, spring_length, tyre_gaps
from ready_corner.core.engines.linkage.solve import NEARLY_SINGULAR, End, Poses, masked, solve
from ready_corner.core.engines.linkage.space import STEP, Array, cross, turned
from ready_corner.core.quantities.errors import CalledError, PlannedError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.naming import meant

MOST_MM, MOST_ROLL_DEG = 2000.0, 60.0  # no wheel travels, and no car rolls, so far; a range beyond is a slip
BINDS_MM = 1e-6  # links further than this from their lengths are not rounding: they bind


@dataclass(frozen=True)
class Sweep:
    """Rows of positions: drives (N,), ``converged`` (N,), answers by wheel side and by name (N,); nan where a row is out of reach.

    ``ends``: where the branch ends and which member is at full stretch.
    """

    body: Body
    poses: Poses
    wheels: tuple[Answers, ...]
    shared: Answers
    warnings: tuple[Finding, ...] = ()

    @property
    def ends(self) -> tuple[End, ...]:
        """Where the branch ends."""
        return self.poses.ends

    @property
    def answers(self) -> Answers:
        """All answers of a corner by name; of an axle, those of its left and right wheel by ``left.`` and ``right.``."""
        if len(self.wheels) == 1:
            return {**self.wheels[0], **self.shared}
        sides = ("left", "right")
        return {
            f"{side}.{k}": v for side, wheel in zip(sides, self.wheels, strict=True) for k, v in wheel.items()
        } | self.shared


def sweep(
    body: Body, travel: Array, steer: Array | float = 0.0, roll_deg: Array | float = 0.0, *, only_pose: bool = False
) -> Sweep:
    """Return every answer at every travel (mm, bump positive), steer (rack mm, left positive) and roll (degrees, axles only).

    The three broadcast: a row of travels against a column of steers gives answers in the shape of that grid (``poses`` stay in one row).
    only_pose: camber, toe and positions alone, and the steering axis where it is a line between joints. Raises SingularLinkageError, and PlannedError where what cannot be steered or rolled is.
    Source: docs/linkage.md.
    """
    for name, drive, most, unit in (
        ("travel", travel, MOST_MM, "mm"),
        ("steer", steer, MOST_MM, "mm"),
        ("roll", roll_deg, MOST_ROLL_DEG, "°"),
    ):
        largest = float(np.max(np.abs(np.asarray(drive, dtype=float)), initial=0.0))
        if not largest <= most:
            raise CalledError(
                finding("sweep.out-of-range", name=name, largest=largest, unit=unit, most=most),
                path=name,
            )
    if np.any(np.asarray(steer)) and not body.steered:
        raise PlannedError(finding("sweep.not-steered", body=body.name), path="steer")
    if np.any(np.asarray(roll_deg)) and not body.is_axle:
        raise PlannedError(finding("sweep.one-corner", body=body.name), path="roll")
    drives = np.broadcast_arrays(*(np.asarray(a, dtype=float) for a in (travel, steer, roll_deg)))
    grid = drives[0].shape
    flat = [np.atleast_1d(d.ravel()) for d in drives]
    poses = solve(body.shape, flat[0], flat[1], np.radians(flat[2]))
    wheels, shared = answers_at(body, body.shape, poses.pose, only_pose=only_pose)
    said = _warnings(body, poses, wheels, shared)
    if len(grid) > 1:
        wheels = tuple({name: value.reshape(grid) for name, value in wheel.items()} for wheel in wheels)
        shared = {name: value.reshape(grid) for name, value in shared.items()}
    return Sweep(body, poses, wheels, shared, said)


def sweep_known(body: Body, travel: Array) -> Sweep:
    """Return a sweep over travels (N,) of which some are not known (nan), such as where an arm that never is level would be: their rows are nan.

    Source: docs/linkage.md.
    """
    wanted = np.atleast_1d(np.asarray(travel, dtype=float))
    known = np.isfinite(wanted)
    swept = sweep(body, np.where(known, wanted, 0.0))
    if known.all():
        return swept
    wheels = tuple(_blanked(w, known) for w in swept.wheels)
    return Sweep(body, masked(swept.poses, known, swept.ends), wheels, _blanked(swept.shared, known), swept.warnings)


def answers_at(body: Body, shape: Shape, pose: Pose, *, only_pose: bool = False) -> tuple[tuple[Answers, ...], Answers]:
    """Return the answers of each wheel, and those of the members, at solved poses of a shape.

    Source: docs/linkage.md.
    """
    ok = np.isfinite(pose.place[..., 0])
    whole = pose if ok.all() else _filled(pose, shape, ok)
    shared: Answers = {}
    if only_pose:
        wheels = tuple(_placed(body, shape, whole, w) for w in body.wheels)
    else:
        with np.errstate(
            divide="ignore", invalid="ignore"
        ):  # nan and inf are the answers where an arm is endless or a rod too short
            motion = motion_of(body, shape, whole)
            wheels = tuple(wheel_answers(body, shape, whole, motion, wheel) for wheel in body.wheels)
            found = part_answers(body, shape, whole, motion.twist)
            shared = {**found, **member_answers(body, shape, whole)}
            if body.is_axle and not np.iscomplexobj(motion.twist):
                shared |= roll_answers(body, shape, whole)
            if not np.iscomplexobj(motion.twist):  # they are a complex step themselves, and one cannot ride on another
                shared |= rate_answers(body, shape, whole, motion, found)
                shared |= tyre_gaps(body, shape, whole)
    if ok.all():
        return wheels, shared
    return tuple(_blanked(w, ok) for w in wheels), _blanked(shared, ok)


def _placed(body: Body, shape: Shape, pose: Pose, wheel: Wheel) -> Answers:
    """Return where a wheel is and how it stands, and its steering axis where that is a line between joints."""
    of_wheel = wheel_motion(body, shape, pose, np.zeros((*pose.place.shape[:-1], 6)), wheel)[0]
    found = place_answers(shape, of_wheel, wheel)
    return found | about_joints(body, shape, pose, wheel, found, turned(of_wheel.rotation, wheel.axis))


def _filled(pose: Pose, shape: Shape, ok: Array) -> Pose:
    """Return the poses with the design position in place of rows that were not reached, so that nothing singular is inverted."""
    place = np.where(ok[:, None], pose.place, shape.centre)
    return Pose(np.where(ok[:, None, None], pose.rotation, np.eye(3)), place, pose.steer)


def _blanked(answers: Mapping[str, Array], ok: Array) -> Answers:
    return {name: np.where(ok, value, np.nan) for name, value in answers.items()}


def _where(end: End) -> tuple[Finding, ...]:
    """Return where a branch ends: a roll as roll, with the heave and the steering it was at."""
    parts = [finding("sweep.at-roll", roll=abs(end.roll_deg), left=end.roll_deg > 0)] if end.roll_deg else []
    if end.travel or not parts:
        parts.append(finding("sweep.at-travel", travel=abs(end.travel), bump=end.travel >= 0))
    if end.steer:
        parts.append(finding("sweep.at-rack", rack=abs(end.steer), left=end.steer > 0))
    return tuple(parts)


def _warnings(body: Body, poses: Poses, wheels: tuple[Answers, ...], shared: Answers) -> tuple[Finding, ...]:
    said = []
    for end in poses.ends:
        said.append(finding("sweep.full-stretch", body=body.name, member=end.member, where=_where(end)))
    bound = np.nanmax(np.where(poses.converged, poses.residual, 0.0), initial=0.0)
    if bound > BINDS_MM:
        said.append(finding("sweep.binds", body=body.name, off=float(bound)))
    if poses.condition < NEARLY_SINGULAR:
        said.append(finding("sweep.only-just", body=body.name, condition=float(poses.condition)))
    for wheel in wheels:
        if (screw := np.abs(wheel.get("axis_pitch", np.zeros(poses.rows)))[poses.converged]).any():
            said.append(finding("sweep.screw", body=body.name, rows=int(np.count_nonzero(screw)), pitch=float(screw.max())))
    for spring in body.springs:
        lost = np.isnan(shared.get(f"{spring.name}.length", np.zeros(poses.rows))) & poses.converged
        if lost.any():
            first = poses.travel[lost][np.argmin(np.abs(poses.travel[lost]))]
            said.append(
                finding("sweep.rod", body=body.name, travel=abs(float(first)), bump=bool(first >= 0), spring=spring.name)
            )
    return tuple(said)


def travel_for_length(body: Body, spring: Spring, length: Array, steer: float = 0.0, reach: float = 250.0) -> Array:
    """Return the travel (N,) at which a spring or damper has each of these lengths in mm; see :func:`_travel_for`.

    Source: docs/linkage.md.
    """

    def measured(pose: Pose) -> tuple[Array, Array]:
        size, ratio = spring_length(body, body.shape, pose, motion_of(body, body.shape, pose).twist, spring)
        return size, -ratio  # the ratio is of shortening

    return _travel_for(body, measured, length, steer, reach)


def length_at_rest(body: Body, spring: Spring) -> float:
    """Return the length of a spring in the design position, mm.

    Source: docs/linkage.md.
    """
    pose = design_pose(body.shape, 1)
    return float(spring_length(body, body.shape, pose, motion_of(body, body.shape, pose).twist, spring)[0][0])


def travel_near(body: Body, spring: Spring, length: float) -> float:
    """Return the travel at which a spring has a length in mm, by Newton from the design position; of what lies far off as :func:`travel_for_length`.

    Source: docs/linkage.md.
    """
    travel = np.zeros(1)
    for _ in range(12):
        with np.errstate(divide="ignore", invalid="ignore"):
            poses = solve(body.shape, travel)
            size, ratio = spring_length(body, body.shape, poses.pose, motion_of(body, body.shape, poses.pose).twist, spring)
        step = (size - length) / ratio  # the ratio is of shortening
        if not (poses.converged[0] and np.isfinite(step[0])):
            break
        travel = travel + step
        if abs(float(step[0])) < 1e-9:
            return float(travel[0])
    return float(travel_for_length(body, spring, np.array([length]))[0])


def travel_for_angle(body: Body, arm: str, angle_deg: Array, steer: float = 0.0, reach: float = 250.0) -> Array:
    """Return the travel (N,) at which an arm has turned by each of these angles in degrees from the design position; see :func:`_travel_for`.

    arm: one that a spring could stand on, plus where its joint has risen; or a member, whose angle is its rise to level.
    Raises PlannedError for a name the body does not have.
    Source: docs/linkage.md.
    """
    if arm in body.layout.arms:
        its = body.layout.arms[arm]
        first, second, joint = (body.shape.point(n) for n in (its.first, its.second, its.joint))
        up = 1.0 if cross(second - first, joint - first)[2] >= 0 else -1.0

        def measured(pose: Pose) -> tuple[Array, Array]:
            turning = arm_turning(body.shape, pose, motion_of(body, body.shape, pose).twist, its)
            return np.degrees(turning.angle) * up, np.degrees(turning.speed) * up

    elif any(link.name == arm for link in body.shape.mechanism.links):

        def measured(pose: Pose) -> tuple[Array, Array]:
            name, twist = f"{arm}.level_deg", motion_of(body, body.shape, pose).twist
            found = member_answers(body, body.shape, nudged(pose, twist))[name]
            return found.real, found.imag / STEP

    else:
        raise PlannedError(
            finding(
                "sweep.no-arm",
                body=body.name,
                arm=arm,
                near=meant(arm, [*body.layout.arms, *(k.name for k in body.shape.mechanism.links)]),
            ),
            path="arm",
        )
    return _travel_for(body, measured, angle_deg, steer, reach)


def _travel_for(
    body: Body, measured: Callable[[Pose], tuple[Array, Array]], wanted: Array, steer: float, reach: float
) -> Array:
    """Return the travel (N,) at which something has each of these values, on the branch of the design position; nan beyond it.

    ``measured`` gives the value and its slope per mm. Newton on the travel from a table of the whole branch, to 1e-9.
    """
    wanted = np.atleast_1d(np.asarray(wanted, dtype=float))
    table = np.linspace(-reach, reach, 161)
    poses = solve(body.shape, table, steer)
    with np.errstate(divide="ignore", invalid="ignore"):
        size = measured(_filled(poses.pose, body.shape, poses.converged))[0]
    known = poses.converged & np.isfinite(size)
    table, size = table[known], size[known]
    if len(table) < 2:
        return np.full(len(wanted), np.nan)
    middle = int(np.argmin(np.abs(table)))
    way = np.sign(np.gradient(size, table))
    low, high = middle, middle  # as far as it goes one way only
    while low > 0 and way[low - 1] == way[middle]:
        low -= 1
    while high < len(way) - 1 and way[high + 1] == way[middle]:
        high += 1
    part = slice(low, high + 1)
    order = np.argsort(size[part])
    travel = np.interp(wanted, size[part][order], table[part][order], left=np.nan, right=np.nan)
    good = np.isfinite(travel)
    for _ in range(20):
        if not good.any():
            break
        with np.errstate(divide="ignore", invalid="ignore"):
            now, slope = measured(solve(body.shape, travel[good], steer).pose)
        travel[good] -= (now - wanted[good]) / slope
        if np.all(np.abs(now - wanted[good]) < 1e-9):
            break
    return np.asarray(travel)
