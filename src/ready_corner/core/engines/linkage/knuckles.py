"""Wheels that turn on kingpins of a live axle: where each is, and how it moves, from the pose of the axle. Real or complex."""

import numpy as np

from ready_corner.core.engines.linkage.body import Body, Wheel
from ready_corner.core.engines.linkage.layouts import DRAG_OUTER, KINGPINS, STEERING_ARMS, TIE_INNER
from ready_corner.core.engines.linkage.levers import Moving, Turning, swung_by_rod
from ready_corner.core.engines.linkage.mechanism import Pose, Shape
from ready_corner.core.engines.linkage.space import Array, cross, rotation_by, turned

OTHER = {"left": "right", "right": "left"}


def wheel_motion(body: Body, shape: Shape, pose: Pose, twist: Array, wheel: Wheel) -> tuple[Pose, Array]:
    """Return the pose of a wheel and its twist (..., 6) about the place of that pose.

    Those of the body itself where the wheel is fixed to it; turned on the kingpin where an axle steers.
    Source: rotation about a hinge by Rodrigues, docs/linkage.md.
    """
    if not (body.is_axle and body.steered):
        return pose, twist
    turning = _knuckles(shape, pose, twist)["left" if wheel.side > 0 else "right"]
    on_kingpin = rotation_by(turning.axis * turning.angle[..., None])
    rotation = pose.rotation @ on_kingpin
    at = pose.place + turned(pose.rotation, turning.at - shape.centre)
    place = at + turned(rotation, shape.centre - turning.at)
    spin = turned(pose.rotation, turning.axis * turning.speed[..., None])
    speed = twist[..., 3:] + cross(twist[..., :3], place - pose.place) + cross(spin, place - at)
    return Pose(rotation, place, pose.steer), np.concatenate([twist[..., :3] + spin, speed], axis=-1)


def _knuckles(shape: Shape, pose: Pose, twist: Array) -> dict[str, Turning]:
    """Return how each knuckle has turned on its kingpin, in the axes of the axle as designed; nan where a rod does not reach."""
    driven = "left" if shape.point(DRAG_OUTER)[..., 1].real.mean() > 0 else "right"
    back = np.swapaxes(pose.rotation, -1, -2)
    inner = pose.of_car(shape, TIE_INNER)
    # The axle is looked at as if it stood still: the car's point then moves the other way.
    place = shape.centre + turned(back, inner - pose.place)
    speed = -turned(back, twist[..., 3:] + cross(twist[..., :3], inner - pose.place))
    first = _swung(shape, driven, DRAG_OUTER, Moving(place, speed), TIE_INNER)
    arm = STEERING_ARMS[driven]
    second = _swung(shape, OTHER[driven], STEERING_ARMS[OTHER[driven]], first.carries(shape.point(arm)), arm)
    return {driven: first, OTHER[driven]: second}


def _swung(shape: Shape, side: str, end: str, rod: Moving, rod_before: str) -> Turning:
    axis = tuple(shape.point(name) for name in KINGPINS[side])
    return swung_by_rod((axis[0], axis[1]), shape.point(end), rod, shape.point(rod_before), shape.rod2(end, rod_before))
