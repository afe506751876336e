"""What rides on the linkage: points on arms and rockers, lengths of springs and dampers, their ratios, the anti-roll bar.

Everything comes as a place and a speed per unit of the drive, so that ratios are exact. Real or complex; see ``space``.
"""

import numpy as np

from ready_corner.core.engines.linkage.body import Bar, Body, Rocker, Spring, Stand, Wheel
from ready_corner.core.engines.linkage.knuckles import wheel_motion
from ready_corner.core.engines.linkage.layouts import Arm
from ready_corner.core.engines.linkage.levers import Moving, Turning, swung_by_rod
from ready_corner.core.engines.linkage.mechanism import Pose, Shape, design_pose
from ready_corner.core.engines.linkage.space import Array, atan2, cross, dot, turned, unit


def on_upright(shape: Shape, pose: Pose, motion: Array, point: str) -> Moving:
    """Return a point of the upright.

    Source: lever and length geometry, docs/linkage.md.
    """
    place = pose.at(shape, point)
    return Moving(place, motion[..., 3:] + cross(motion[..., :3], place - pose.place))


def arm_turning(shape: Shape, pose: Pose, motion: Array, arm: Arm) -> Turning:
    """Return how an arm has turned, from where its joint now is.

    Source: lever and length geometry, docs/linkage.md.
    """
    first, second, before = (shape.point(n) for n in (arm.first, arm.second, arm.joint))
    axis = unit(second - first)
    joint = on_upright(shape, pose, motion, arm.joint)
    was, now = before - first, joint.place - first
    was, now = was - axis * dot(axis, was)[..., None], now - axis * dot(axis, now)[..., None]
    angle = atan2(dot(axis, cross(was, now)), dot(was, now))
    return Turning(first, axis, angle, dot(cross(axis, now), joint.speed) / dot(now, now))


def stand(body: Body, shape: Shape, pose: Pose, motion: Array, where: Stand) -> Moving:
    """Return where a stand is and how it moves.

    Source: lever and length geometry, docs/linkage.md.
    """
    point = shape.point(where.point)
    if where.on == "car":
        return Moving(point, np.zeros(3))
    if where.on == "upright":
        return on_upright(shape, pose, motion, where.point)
    if where.on == "rocker":
        assert body.rocker
        return rocker_turning(body, shape, pose, motion, body.rocker).carries(point)
    return arm_turning(shape, pose, motion, body.layout.arms[where.on]).carries(point)


def rocker_turning(body: Body, shape: Shape, pose: Pose, motion: Array, rocker: Rocker) -> Turning:
    """Return how the rocker has turned; nan where its rod does not reach.

    Source: lever and length geometry, docs/linkage.md.
    """
    axis = shape.point(rocker.first), shape.point(rocker.second)
    rod = stand(body, shape, pose, motion, rocker.rod)
    long2 = shape.rod2(rocker.push, rocker.rod.point)
    return swung_by_rod(axis, shape.point(rocker.push), rod, shape.point(rocker.rod.point), long2)


def bar_turning(body: Body, shape: Shape, pose: Pose, motion: Array, bar: Bar) -> Turning:
    """Return how this end of the anti-roll bar has turned; nan where its drop link does not reach.

    Source: lever and length geometry, docs/linkage.md.
    """
    axis = shape.point(bar.first), shape.point(bar.second)
    rod, long2 = stand(body, shape, pose, motion, bar.link), shape.rod2(bar.arm, bar.link.point)
    return swung_by_rod(axis, shape.point(bar.arm), rod, shape.point(bar.link.point), long2)


def spring_length(body: Body, shape: Shape, pose: Pose, motion: Array, spring: Spring) -> tuple[Array, Array]:
    """Return the length of a spring or damper in mm and its shortening per unit of the drive (the motion ratio).

    Source: lever and length geometry, docs/linkage.md.
    """
    a, b = (stand(body, shape, pose, motion, end) for end in spring.ends)
    between = a.place - b.place
    size = np.sqrt(dot(between, between))
    return size, -dot(between, a.speed - b.speed) / size


def tyre_gaps(body: Body, shape: Shape, pose: Pose) -> dict[str, Array]:
    """Return the gap in mm between each spring that stands beside its tyre and that tyre, (...,), by answer: as drawn, and by how much nearer it has come.

    Source: distance of the spring's line from the plane of the wheel, where it is within the tyre; docs/linkage.md.
    """
    found = {}
    for spring in (s for s in body.springs if s.to_tyre is not None):
        before = beside_tyre(body, shape, design_pose(shape, 1), spring)[0]
        found[f"{spring.name}.to_tyre"] = spring.to_tyre + beside_tyre(body, shape, pose, spring)[0] - before
    return found


def beside_tyre(body: Body, shape: Shape, pose: Pose, spring: Spring) -> tuple[Array, Array]:
    """Return how far inboard of its wheel's middle plane a spring's line comes nearest where it is within the tyre, mm, and how much of its line is, 0 to 1.

    Source: distance of the spring's line from the plane of the wheel, where it is within the tyre; docs/linkage.md.
    """
    still = np.zeros((*pose.place.shape[:-1], 6))
    a, b = (stand(body, shape, pose, still, end).place for end in spring.ends)
    wheel = _beside(body, spring)
    of_wheel = wheel_motion(body, shape, pose, still, wheel)[0]
    n, centre = turned(of_wheel.rotation, wheel.axis), of_wheel.at(shape, wheel.centre)
    from_, along = a - centre, b - a
    inward, in_all = -dot(from_, n), -dot(along, n)
    u, v = from_ + inward[..., None] * n, along + in_all[..., None] * n
    long2, middle = np.maximum(dot(v, v), 1e-12), -dot(u, v)
    within = middle * middle - long2 * (dot(u, u) - wheel.loaded_radius**2)
    half = np.sqrt(np.maximum(within, 0.0))
    first, last = (np.clip((middle + way * half) / long2, 0.0, 1.0) for way in (-1, 1))
    return np.minimum(inward + first * in_all, inward + last * in_all), last - first


def _beside(body: Body, spring: Spring) -> Wheel:
    """Return the wheel that a spring stands beside: of an axle the one on its side."""
    side = float(body.shape.point(spring.ends[1].point)[..., 1].mean())
    return min(body.wheels, key=lambda w: w.side * side <= 0)
