"""Where the parts of a linkage are over a sweep, to be drawn as they move.

Source: solved poses of the linkage; docs/linkage.md.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.linkage.body import Stand
from ready_corner.core.engines.linkage.mechanism import DOF
from ready_corner.core.engines.linkage.parts import rocker_turning, stand
from ready_corner.core.engines.linkage.space import Array, turned
from ready_corner.core.engines.linkage.sweep import Sweep


@dataclass(frozen=True)
class PartMoving:
    """A part drawn as a line: ``name`` as limits name it, ``kind`` a link or what rides on one, ``ends`` (N, 2, 3) in mm, in the axes of the car."""

    name: str
    kind: str
    ends: Array


@dataclass(frozen=True)
class WheelMoving:
    """A wheel: ``centre`` (N, 3) in mm, ``axis`` (N, 3) along its spin axis outboard, and its loaded radius in mm."""

    centre: Array
    axis: Array
    radius: float


@dataclass(frozen=True)
class BodyMoving:
    """All of one corner or axle over the rows of a sweep; rows that were not reached are nan."""

    body: str
    parts: tuple[PartMoving, ...]
    wheels: tuple[WheelMoving, ...]


Line = Callable[[str, str, Array, Array], PartMoving]


def moving(swept: Sweep) -> BodyMoving:
    """Return where every link, spring, rod, bar and shaft of a swept body is, and its wheels; (N, …) over the rows of the sweep.

    Source: solved poses of the linkage; docs/linkage.md.
    """
    pose, shape, rows = swept.poses.pose, swept.body.shape, swept.poses.rows

    def line(name: str, kind: str, inner: Array, outer: Array) -> PartMoving:
        ends = np.stack([np.broadcast_to(inner, (rows, 3)), np.broadcast_to(outer, (rows, 3))], axis=1)
        return PartMoving(name, kind, np.where(swept.poses.converged[:, None, None], ends, np.nan))

    def parts() -> Iterator[PartMoving]:
        layout = swept.body.layout
        for link in (*layout.links, *layout.may):
            if link.name in shape.mechanism.rows:
                yield line(link.name, "link", pose.of_car(shape, link.body), pose.at(shape, link.upright))
        for slide in layout.slides:
            yield line(slide.name, "link", pose.of_car(shape, slide.body), pose.at(shape, slide.foot))
        centre = pose.at(shape, swept.body.wheels[0].centre)
        for hinge in layout.hinges:
            first, second = pose.of_car(shape, hinge.first), pose.of_car(shape, hinge.second)
            yield line(hinge.name, "link", first, second)
            yield from (line(f"{hinge.name} arm {n}", "link", end, centre) for n, end in enumerate((first, second)))
        for pivot in layout.pivots:
            yield line(pivot.name, "link", pose.of_car(shape, pivot.body), centre)
        if not swept.body.is_axle:  # the upright, from the middle of the wheel to what it is held by
            held = dict.fromkeys([*(x.upright for x in (*layout.links, *layout.may)), *(s.foot for s in layout.slides)])
            for point in held:
                if point in shape.mechanism.points:
                    yield line(f"upright, {point}", "upright", pose.at(shape, point), centre)
        yield from _riding(swept, line)

    wheels = tuple(
        WheelMoving(pose.at(shape, w.centre), turned(pose.rotation, w.axis), w.loaded_radius) for w in swept.body.wheels
    )
    return BodyMoving(swept.body.name, tuple(parts()), wheels)


def _riding(swept: Sweep, line: Line) -> Iterator[PartMoving]:
    body, pose, shape = swept.body, swept.poses.pose, swept.body.shape
    still = np.zeros((swept.poses.rows, DOF))

    def place(where: Stand) -> Array:
        return stand(body, shape, pose, still, where).place

    for spring in body.springs:
        yield line(spring.name, "spring", place(spring.ends[0]), place(spring.ends[1]))
    if body.rocker:
        rocker = body.rocker
        push = rocker_turning(body, shape, pose, still, rocker).carries(shape.point(rocker.push)).place
        yield line("rod", "rod", place(rocker.rod), push)
        yield line("rocker", "rod", push, shape.point(rocker.first))
    if body.bar:
        yield line("bar", "rod", shape.point(body.bar.first), shape.point(body.bar.second))
    if body.shaft:
        yield line("shaft", "rod", shape.point(body.shaft.inner), pose.at(shape, body.shaft.outer))
