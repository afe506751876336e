"""What rides on the linkage: points on arms and rockers, lengths of springs and dampers, their ratios, the anti-roll bar.

Everything comes as a place and a speed per unit of the drive, so that ratios are exact. Real or complex; see ``space``.
"""

import numpy as np

from ready_corner.core.engines.linkage.body import Bar, Body, Rocker, Spring, Stand
from ready_corner.core.engines.linkage.layouts import Arm
from ready_corner.core.engines.linkage.levers import Moving, Turning, swung_by_rod
from ready_corner.core.engines.linkage.mechanism import Pose, Shape
from ready_corner.core.engines.linkage.space import Array, atan2, cross, dot, unit


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
