"""What rides on the linkage: points on arms and rockers, lengths of springs and dampers, their ratios, the anti-roll bar.

Everything comes as a place and a speed per unit of the drive, so that ratios are exact. Real or complex; see ``space``.
"""

from dataclasses import dataclass

import numpy as np

from ready_corner.core.linkage.body import Bar, Body, Rocker, Spring, Stand
from ready_corner.core.linkage.layouts import Arm
from ready_corner.core.linkage.mechanism import Pose, Shape
from ready_corner.core.linkage.space import Array, atan2, cross, dot, unit


@dataclass(frozen=True)
class Moving:
    """A point with its speed: both (..., 3), in mm and mm per unit of the drive."""

    place: Array
    speed: Array


@dataclass(frozen=True)
class Turning:
    """Something that turns about a fixed axis: point and unit direction of it (..., 3), angle from the design position and its speed, rad."""

    at: Array
    axis: Array
    angle: Array
    speed: Array

    def carries(self, point: Array) -> Moving:
        """Return a point fixed to it, given where it was in the design position."""
        away = point - self.at
        along = self.axis * dot(self.axis, away)[..., None]
        square = away - along
        cos, sin = np.cos(self.angle)[..., None], np.sin(self.angle)[..., None]
        place = self.at + along + cos * square + sin * cross(self.axis, square)
        return Moving(place, self.speed[..., None] * cross(self.axis, place - self.at))


def on_upright(shape: Shape, pose: Pose, motion: Array, point: str) -> Moving:
    """Return a point of the upright."""
    place = pose.at(shape, point)
    return Moving(place, motion[..., 3:] + cross(motion[..., :3], place - pose.place))


def arm_turning(shape: Shape, pose: Pose, motion: Array, arm: Arm) -> Turning:
    """Return how an arm has turned, from where its joint now is."""
    first, second, before = (shape.point(n) for n in (arm.first, arm.second, arm.joint))
    axis = unit(second - first)
    joint = on_upright(shape, pose, motion, arm.joint)
    was, now = before - first, joint.place - first
    was, now = was - axis * dot(axis, was)[..., None], now - axis * dot(axis, now)[..., None]
    angle = atan2(dot(axis, cross(was, now)), dot(was, now))
    return Turning(first, axis, angle, dot(cross(axis, now), joint.speed) / dot(now, now))


def swung_by_rod(axis: tuple[Array, Array], end: Array, rod: Moving, rod_before: Array) -> Turning:
    """Return how a lever on a fixed axis turns when a rod of fixed length leads from its end to a moving point.

    ``end`` and ``rod_before`` are the design positions of the lever's end and of the rod's other end. nan where the rod does not
    reach. Of the two places where it could, the one continuous with the design position.
    """
    first, second = axis
    k = unit(second - first)
    e1, centre = _off_axis(first, k, end)
    radius2 = dot(e1, e1)
    e2 = cross(k, e1)
    to, before = rod.place - centre, rod_before - centre
    long2 = dot(rod_before - end, rod_before - end)
    a, b, m = dot(to, e1), dot(to, e2), (dot(to, to) + radius2 - long2) / 2
    under = a * a + b * b - m * m
    with np.errstate(invalid="ignore"):
        half = np.sqrt(np.where(under.real >= 0, under, np.nan))
    side = np.where(dot(before, e2).real > 0, -1.0, 1.0)
    angle = atan2(b, a) + side * atan2(half, m)
    turning = Turning(first, k, angle, np.zeros(()))
    now = turning.carries(end).place
    line = now - rod.place
    speed = dot(line, rod.speed) / dot(line, cross(k, now - first))
    return Turning(first, k, _wrapped(angle), speed)


def _off_axis(at: Array, axis: Array, point: Array) -> tuple[Array, Array]:
    """Return the vector from an axis to a point, square to it, and its foot on the axis."""
    away = point - at
    foot = at + axis * dot(axis, away)[..., None]
    return point - foot, foot


def _wrapped(angle: Array) -> Array:
    """Return the same angle within half a turn of the design position."""
    return np.asarray(angle - 2 * np.pi * np.round(angle.real / (2 * np.pi)))


def stand(body: Body, shape: Shape, pose: Pose, motion: Array, where: Stand) -> Moving:
    """Return where a stand is and how it moves."""
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
    """Return how the rocker has turned; nan where its rod does not reach."""
    axis = shape.point(rocker.first), shape.point(rocker.second)
    rod = stand(body, shape, pose, motion, rocker.rod)
    return swung_by_rod(axis, shape.point(rocker.push), rod, shape.point(rocker.rod.point))


def bar_turning(body: Body, shape: Shape, pose: Pose, motion: Array, bar: Bar) -> Turning:
    """Return how this end of the anti-roll bar has turned; nan where its drop link does not reach."""
    axis = shape.point(bar.first), shape.point(bar.second)
    return swung_by_rod(axis, shape.point(bar.arm), stand(body, shape, pose, motion, bar.link), shape.point(bar.link.point))


def spring_length(body: Body, shape: Shape, pose: Pose, motion: Array, spring: Spring) -> tuple[Array, Array]:
    """Return the length of a spring or damper in mm and its shortening per unit of the drive (the motion ratio)."""
    a, b = (stand(body, shape, pose, motion, end) for end in spring.ends)
    between = a.place - b.place
    size = np.sqrt(dot(between, between))
    return size, -dot(between, a.speed - b.speed) / size
