"""Every answer at every position: angles, places, rates, springs and joints of one wheel. See docs/linkage.md for each definition.

All functions take a stack of shapes and poses, real or complex, and give arrays of its shape (...,). Angles in degrees, lengths
in mm, plan axes; rates are per millimetre of the wheel centre's vertical travel at fixed steering (of an axle: of heave).
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.linkage.body import Body, Wheel
from ready_corner.core.engines.linkage.knuckles import wheel_motion
from ready_corner.core.engines.linkage.layouts import KINGPINS
from ready_corner.core.engines.linkage.mechanism import Pose, Shape, change_along, link_lines, system
from ready_corner.core.engines.linkage.parts import arm_turning, bar_turning, rocker_turning, spring_length
from ready_corner.core.engines.linkage.solve import per_row, solve_rows
from ready_corner.core.engines.linkage.space import STEP, Array, atan2_deg, cross, dot, skew, turned, unit

UP = np.array([0.0, 0.0, 1.0])
Answers = dict[str, Array]


@dataclass(frozen=True)
class Motion:
    """A pose with how it moves per mm of travel: ``twist`` (..., 6), and with the steering let go and lengthened, ``by_tie``.

    ``rows``: those of the constraints there, (..., m, 6).
    """

    twist: Array
    by_tie: Array | None
    rows: Array


def motion_of(body: Body, shape: Shape, pose: Pose) -> Motion:
    """Return how a pose moves per mm of travel, and per mm of tie rod where there is one.

    Source: ISO 8855 definitions; instantaneous screw of the upright, docs/linkage.md.
    """
    _, rows = system(shape, pose, np.zeros(()), np.zeros(()))
    m = shape.mechanism
    tie = next((i for i, link in enumerate(m.links) if link.name == "tie rod"), None)
    target = np.zeros((*rows.shape[:-1], 1 if tie is None else 2), dtype=rows.dtype)
    target[..., -m.drives, 0] = 1.0
    if tie is not None:
        target[..., tie, 1] = 1.0
    found = solve_rows(shape, rows, target)
    return Motion(found[..., 0], None if tie is None else found[..., 1], rows)


def nudged(pose: Pose, twist: Array, step: complex = 1j * STEP) -> Pose:
    """Return a pose moved along a twist by an imaginary step, to the first order, which is all a complex step asks.

    Source: ISO 8855 definitions; instantaneous screw of the upright, docs/linkage.md.
    """
    return Pose(pose.rotation + step * skew(twist[..., :3]) @ pose.rotation, pose.place + step * twist[..., 3:], pose.steer)


def bending(shape: Shape, pose: Pose, motion: Motion) -> Array:
    """Return how the twist itself changes per mm of travel, (..., 6): rows · bending = −(change of rows along the twist) · twist.

    Source: ISO 8855 definitions; instantaneous screw of the upright, docs/linkage.md.
    """
    change = change_along(shape, pose, motion.twist)
    return np.asarray(-solve_rows(shape, motion.rows, change[..., None])[..., 0])


def place_answers(shape: Shape, pose: Pose, wheel: Wheel) -> Answers:
    """Return camber, toe, wheel centre and contact point of one wheel, and how far they have gone from the design position.

    Source: ISO 8855 definitions; instantaneous screw of the upright, docs/linkage.md.
    """
    s = wheel.side
    n, centre, first = turned(pose.rotation, wheel.axis), pose.at(shape, wheel.centre), shape.point(wheel.centre)
    contact, design = centre + wheel.loaded_radius * _down(n), first + wheel.loaded_radius * _down(wheel.axis)
    return {
        "camber_deg": atan2_deg(-n[..., 2], np.sqrt(n[..., 0] ** 2 + n[..., 1] ** 2)),
        "toe_deg": atan2_deg(n[..., 0], s * n[..., 1]),
        "centre_x": centre[..., 0], "centre_y": centre[..., 1], "centre_z": centre[..., 2],
        "contact_x": contact[..., 0], "contact_y": contact[..., 1], "contact_z": contact[..., 2],
        "half_track": s * contact[..., 1],
        "half_track_change": s * (contact[..., 1] - design[..., 1]),
        "wheelbase_change": centre[..., 0] - first[..., 0],
    }  # fmt: skip


def _down(n: Array) -> Array:
    """Return the direction from the centre of a disc to its lowest point, the disc square to n."""
    return unit(n * n[..., 2, None] - UP)


def wheel_answers(body: Body, shape: Shape, pose: Pose, motion: Motion, wheel: Wheel) -> Answers:
    """Return the angles, places and rates of one wheel; see docs/linkage.md.

    Source: ISO 8855 definitions; instantaneous screw of the upright, docs/linkage.md.
    """
    of_body = pose
    pose, twist = wheel_motion(body, shape, pose, motion.twist, wheel)
    out = place_answers(shape, pose, wheel)
    s = wheel.side
    n, centre = turned(pose.rotation, wheel.axis), np.stack([out[f"centre_{k}"] for k in "xyz"], axis=-1)
    contact = np.stack([out[f"contact_{k}"] for k in "xyz"], axis=-1)
    turning, speed = twist[..., :3], twist[..., 3:] + cross(twist[..., :3], centre - pose.place)
    n_speed = cross(turning, n)
    level2 = n[..., 0] * n[..., 0] + n[..., 1] * n[..., 1]
    fall, fall_speed = n * n[..., 2, None] - UP, n_speed * n[..., 2, None] + n * n_speed[..., 2, None]
    deep = np.sqrt(dot(fall, fall))[..., None]
    down_speed = (fall_speed - fall * dot(fall, fall_speed)[..., None] / deep**2) / deep
    contact_speed = speed + wheel.loaded_radius * down_speed
    at_contact = speed + cross(turning, contact - centre)
    out |= {
        "camber_deg_per_mm": -n_speed[..., 2] / np.sqrt(level2) * (180 / np.pi),
        "toe_deg_per_mm": s * (n[..., 1] * n_speed[..., 0] - n[..., 0] * n_speed[..., 1]) / level2 * (180 / np.pi),
        "contact_slope": s * contact_speed[..., 1] / contact_speed[..., 2],
        "side_slope_contact": at_contact[..., 0] / at_contact[..., 2],
        "side_slope_centre": speed[..., 0] / speed[..., 2],
        "front_arm": s * (contact[..., 1] - centre[..., 1] + speed[..., 2] / turning[..., 0]),
        "side_arm": -speed[..., 2] / turning[..., 1],
    }
    if axis_joints(body, wheel) is not None:
        return out | about_joints(body, shape, of_body, wheel, out, n)
    if motion.by_tie is None:
        return out
    at, k, pitch = _free_axis(pose, twist, motion.by_tie)
    return out | _about_axis((at, k), n, contact, s) | {"axis_pitch": pitch}


def about_joints(body: Body, shape: Shape, pose: Pose, wheel: Wheel, found: Answers, n: Array) -> Answers:
    """Return caster, inclination, scrub and trail of a wheel with axis n whose steering axis is a line between joints; ``pose`` of the body, and what was
    ``found`` of the wheel. Empty where it is no such line.

    Source: ISO 8855 definitions; instantaneous screw of the upright, docs/linkage.md.
    """
    names = axis_joints(body, wheel)
    if names is None:
        return {}
    lower, upper = (pose.of_car(shape, name) if name in body.layout.of_car else pose.at(shape, name) for name in names)
    contact = np.stack([found[f"contact_{k}"] for k in "xyz"], axis=-1)
    return _about_axis((lower, _upward(upper - lower)), n, contact, wheel.side)


def axis_joints(body: Body, wheel: Wheel) -> tuple[str, str] | None:
    """Return the two points the steering axis of a wheel goes through, lower first; None where it is no line between joints.

    Without joints it is the pure rotation left when the tie rod is let go, nearer the vertical; where there is none, the screw of
    least pitch, whose pitch in mm a radian is the answer ``axis_pitch`` (0 of a pure rotation).
    Source: ISO 8855 definitions; instantaneous screw of the upright, docs/linkage.md.
    """
    if body.is_axle and body.steered:
        return KINGPINS["left" if wheel.side > 0 else "right"]
    return body.layout.axis


def _pitch_form(a: Array, b: Array) -> tuple[Array, Array, Array]:
    """Return the quadratic form ω·v of p a + q b: coefficients of p², 2pq and q²."""
    return (
        dot(a[..., :3], a[..., 3:]),
        (dot(a[..., :3], b[..., 3:]) + dot(b[..., :3], a[..., 3:])) / 2,
        dot(b[..., :3], b[..., 3:]),
    )


def _free_axis(pose: Pose, by_travel: Array, by_tie: Array) -> tuple[Array, Array, Array]:
    """Return a point, the upward direction and the pitch in mm a radian of the axis left when the tie rod is let go."""
    aa, ab, bb = _pitch_form(by_travel, by_tie)
    under = ab * ab - aa * bb
    real = np.sqrt(np.where(under.real >= 0, under, 0))
    # Roots of aa p² + 2 ab p + bb = 0 with q = 1, in the form that keeps its digits where aa is small.
    big = -(ab + np.where(ab.real >= 0, 1.0, -1.0) * real)
    with np.errstate(divide="ignore", invalid="ignore"):
        roots = [big / aa, bb / big]
    least = _least_pitch(by_travel, by_tie)
    screws = [np.where(under.real >= 0, r, least) for r in roots]
    twists = [r[..., None] * by_travel + by_tie for r in screws]
    upright = [np.nan_to_num(np.abs(unit(t[..., :3].real)[..., 2]), nan=-1.0) for t in twists]
    chosen = np.where((upright[0] >= upright[1])[..., None], twists[0], twists[1])
    turning, speed = chosen[..., :3], chosen[..., 3:]
    at = pose.place + cross(turning, speed) / dot(turning, turning)[..., None]
    pitch = np.where(under.real >= 0, 0.0, dot(turning, speed) / dot(turning, turning))
    return at, _upward(turning), pitch


def _least_pitch(a: Array, b: Array) -> Array:
    """Return p of the screw p a + b whose pitch ω·v / ω·ω is smallest in size: an extreme of the ratio of two quadratic forms."""
    n = _pitch_form(a, b)
    d = (dot(a[..., :3], a[..., :3]), dot(a[..., :3], b[..., :3]), dot(b[..., :3], b[..., :3]))
    # d(N/D)/dp = 0: (n0 d1 − n1 d0) p² + (n0 d2 − n2 d0) p + (n1 d2 − n2 d1) = 0
    q2, q1, q0 = n[0] * d[1] - n[1] * d[0], n[0] * d[2] - n[2] * d[0], n[1] * d[2] - n[2] * d[1]
    root = np.sqrt(q1 * q1 - 4 * q2 * q0 + 0j)
    root = root if np.iscomplexobj(a) else root.real
    with np.errstate(divide="ignore", invalid="ignore"):
        found = [(-q1 + root) / (2 * q2), (-q1 - root) / (2 * q2)]
        pitch = [np.abs(((n[0] * p * p + 2 * n[1] * p + n[2]) / (d[0] * p * p + 2 * d[1] * p + d[2])).real) for p in found]
    return np.asarray(np.where(np.nan_to_num(pitch[0], nan=np.inf) <= np.nan_to_num(pitch[1], nan=np.inf), found[0], found[1]))


def _upward(direction: Array) -> Array:
    return np.asarray(unit(direction) * np.where(direction[..., 2, None].real < 0, -1.0, 1.0))


def _about_axis(axis: tuple[Array, Array], n: Array, contact: Array, side: int) -> Answers:
    """Caster, inclination, scrub and trail; the last two in the wheel's own heading axes, in the level plane through the contact point."""
    at, k = axis
    with np.errstate(divide="ignore", invalid="ignore"):
        ground = at + k * ((contact[..., 2] - at[..., 2]) / k[..., 2])[..., None]
    outboard = unit(np.stack([n[..., 0], n[..., 1], np.zeros_like(n[..., 0])], axis=-1))
    heading = side * cross(outboard, np.broadcast_to(UP, outboard.shape))
    off = ground - contact
    return {
        "caster_deg": atan2_deg(-k[..., 0], k[..., 2]),
        "inclination_deg": atan2_deg(-side * k[..., 1], k[..., 2]),
        "scrub": -dot(off, outboard),
        "trail": dot(off, heading),
    }


def sprung_answers(body: Body, shape: Shape, pose: Pose, twist: Array) -> Answers:
    """Return lengths of springs and dampers, turning of torsion bars, and their ratios.

    Source: ISO 8855 definitions; instantaneous screw of the upright, docs/linkage.md.
    """
    out: Answers = {}
    for spring in body.springs:
        out[f"{spring.name}.length"], out[f"{spring.name}.ratio"] = spring_length(body, shape, pose, twist, spring)
    for torsion in body.torsions:
        turning = arm_turning(shape, pose, twist, body.layout.arms[torsion.arm])
        out[f"{torsion.name}.angle_deg"] = turning.angle * (180 / np.pi)
        out[f"{torsion.name}.deg_per_mm"] = turning.speed * (180 / np.pi)
    return out


def part_answers(body: Body, shape: Shape, pose: Pose, twist: Array) -> Answers:
    """Return lengths and ratios of springs and dampers, turning of rocker, bar and torsion bars, and the halfshaft.

    Source: ISO 8855 definitions; instantaneous screw of the upright, docs/linkage.md.
    """
    out = sprung_answers(body, shape, pose, twist)
    if body.rocker:
        out["rocker.angle_deg"] = rocker_turning(body, shape, pose, twist, body.rocker).angle * (180 / np.pi)
    if body.bar:
        bar = bar_turning(body, shape, pose, twist, body.bar)
        out["bar.angle_deg"], out["bar.deg_per_mm"] = bar.angle * (180 / np.pi), bar.speed * (180 / np.pi)
    if body.shaft:
        inner, outer = shape.point(body.shaft.inner), pose.at(shape, body.shaft.outer)
        wheel, line = body.wheels[0], outer - inner
        size, before = np.sqrt(dot(line, line)), shape.point(body.shaft.outer) - inner
        out["shaft.plunge"] = size - np.sqrt(dot(before, before))
        for name, across in (("inner", np.array([0.0, wheel.side, 0.0])), ("outer", turned(pose.rotation, wheel.axis))):
            out[f"shaft.{name}_deg"] = _between_deg(line, np.broadcast_to(across, line.shape))
    return out


def _between_deg(a: Array, b: Array) -> Array:
    """Return the angle between two directions in degrees, good to the last digit near 0 and 180."""
    square = cross(a, b)
    return atan2_deg(np.sqrt(dot(square, square)), dot(a, b))


def member_answers(body: Body, shape: Shape, pose: Pose) -> Answers:
    """Return the angle of every link to level, outer end up being plus, and how far every joint works.

    A joint works off square to its stud where that is known, else off its design position; of one in a steered upright steering is no angle: where no
    stud is known it is taken to lie along the steering axis.
    Source: ISO 8855 definitions; instantaneous screw of the upright, docs/linkage.md.
    """
    names = [link.name for link in shape.mechanism.links]
    if not names:
        return {}
    line, own, before = link_lines(shape, pose)
    level = atan2_deg(line[2], np.sqrt(line[0] * line[0] + line[1] * line[1]))
    inner, outer = _between_lines_deg(line, before), _between_lines_deg(own, before)
    out: Answers = {f"{name}.level_deg": level[i] for i, name in enumerate(names)}
    for i, name in enumerate(names):
        out[f"{name}.inner_deg"], out[f"{name}.outer_deg"] = inner[i], outer[i]
    kingpin = axis_joints(body, body.wheels[0]) if body.steered and not body.is_axle else None
    if kingpin:
        low, top = (body.shape.point(n) for n in kingpin)
        along = np.moveaxis(unit(top - low), -1, 0)

        def off_axis(seen: Array) -> Array:
            part = (seen * along.reshape(*along.shape, *(1,) * (seen.ndim - along.ndim))).sum(axis=0)
            return atan2_deg(part, np.sqrt(_square(seen) - part * part))

        for i, name in enumerate(names):
            by = off_axis(own[:, i]) - off_axis(before[:, i])
            out[f"{name}.outer_deg"] = np.where(np.real(by) < 0, -by, by)
    for joint in body.joints:
        if joint.stud is not None and joint.member in names:
            seen = (own if joint.at == "outer" else line)[:, names.index(joint.member)]
            along = sum(seen[k] * part for k, part in enumerate(unit(np.array(joint.stud))))
            out[f"{joint.member}.{joint.at}_deg"] = atan2_deg(along, np.sqrt(_square(seen) - along * along))
    return out


def _square(a: Array) -> Array:
    """Return the squared length of vectors whose components come first, (3, ...)."""
    return np.asarray(a[0] * a[0] + a[1] * a[1] + a[2] * a[2])


def _between_lines_deg(a: Array, b: Array) -> Array:
    """Return the angle between directions (3, ...) in degrees; see :func:`_between_deg`."""
    square = np.stack([a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]])
    return atan2_deg(np.sqrt(_square(square)), a[0] * b[0] + a[1] * b[1] + a[2] * b[2])


def roll_answers(body: Body, shape: Shape, pose: Pose) -> Answers:
    """Return how much each spring and damper of an axle is shortened per degree of roll at fixed heave, left wheel up positive, in mm.

    Source: ISO 8855 definitions; instantaneous screw of the upright, docs/linkage.md.
    """
    if not body.springs:
        return {}
    left, right = (pose.at(shape, name) for name in shape.mechanism.reference)
    across, up = left[..., 1] - right[..., 1], left[..., 2] - right[..., 2]
    _, rows = system(shape, pose, np.zeros(()), np.arctan2(up, across))
    motion = per_row(shape, rows, -1)  # per mm of the roll row, which a radian makes as long as the line of wheel centres
    per_degree = np.hypot(across, up) * np.pi / 180
    return {f"{s.name}.mm_per_roll_deg": spring_length(body, shape, pose, motion, s)[1] * per_degree for s in body.springs}


def rate_answers(body: Body, shape: Shape, pose: Pose, motion: Motion, found: Mapping[str, Array]) -> Answers:
    """Return how the motion ratios change per mm, and the wheel rates in N/mm, from how the twist bends.

    Source: ISO 8855 definitions; instantaneous screw of the upright, docs/linkage.md.
    """
    out: Answers = {}
    if not (body.springs or body.torsions):
        return out
    ahead = nudged(pose, motion.twist), motion.twist + 1j * STEP * bending(shape, pose, motion)
    later = sprung_answers(body, shape, *ahead)
    for spring in body.springs:
        ratio, change = found[f"{spring.name}.ratio"], later[f"{spring.name}.ratio"].imag / STEP
        out[f"{spring.name}.ratio_per_mm"] = change
        if spring.rate is not None:
            rate = spring.rate * ratio**2
            force = 0.0 if spring.loose_at is None else spring.rate * (spring.loose_at - found[f"{spring.name}.length"])
            out[f"{spring.name}.wheel_rate"] = rate + force * change
    for torsion in body.torsions:
        change = later[f"{torsion.name}.deg_per_mm"].imag / STEP
        out[f"{torsion.name}.deg_per_mm2"] = change
        if torsion.rate is not None:
            # A moment of rate · angle in N·m, through rad/mm: 1000 N·mm to the N·m, π/180 rad to the degree. Bar at rest in the design position.
            per = found[f"{torsion.name}.deg_per_mm"]
            out[f"{torsion.name}.wheel_rate"] = (
                torsion.rate * 1000 * np.pi / 180 * (per**2 + found[f"{torsion.name}.angle_deg"] * change)
            )
    return out
