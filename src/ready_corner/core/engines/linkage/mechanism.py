"""A rigid body (upright or axle) held by constraints, and the rows each constraint gives to the Newton step.

A pose is a rotation R and a place C: a point x of the body in the design position stands at C + R (x − c), where c is the
reference (the wheel centre; the middle of an axle) in the design position. All points are in the plan's axes, mm. A small motion is a
twist (ω, v): ω the turning of the body, v the motion of the reference; rows are d(residual) = row · (ω, v).

Source: constraint equations of rigid bodies; docs/linkage.md.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

import numpy as np

from ready_corner.core.engines.linkage.levers import Box
from ready_corner.core.engines.linkage.space import STEP, Array, cross, dot, length, skew, square_to, turned

DOF = 6
BOX_POINTS = ("box.first", "box.second", "box.arm", "idler.first", "idler.second", "idler.arm")
ON_UPRIGHT = (
    "@upright"  # ends the name of the twin of a car's point: the place on the upright that meets it in the design position
)


@dataclass(frozen=True)
class Link:
    """A link of fixed length between a point of the car (``body``) and a point of the upright."""

    name: str
    body: str
    upright: str


@dataclass(frozen=True)
class Pivot:
    """A ball joint: a point of the car and its twin on the upright stay together. Three rows."""

    name: str
    body: str

    @property
    def upright(self) -> str:
        """The twin on the upright."""
        return self.body + ON_UPRIGHT


@dataclass(frozen=True)
class Slide:
    """A point of the car that stays on a line fixed to the upright, from a foot to the twin of that point (a strut). Two rows."""

    name: str
    body: str
    foot: str

    @property
    def head(self) -> str:
        """The upper point of the line on the upright."""
        return self.body + ON_UPRIGHT


@dataclass(frozen=True)
class Hinge:
    """The upright turns about the line through two points of the car; their twins on it stay on that line. Five rows."""

    name: str
    first: str
    second: str


@dataclass(frozen=True)
class Mechanism:
    """Constraints of one rigid body on named points.

    ``points``: names in the order of the coordinate array; ``reference``: coordinates are taken from the mean of these points;
    ``heights``: the points whose mean height is the travel (one wheel centre, or the two of an axle).
    """

    points: tuple[str, ...]
    reference: tuple[str, ...]
    links: tuple[Link, ...]
    pivots: tuple[Pivot, ...] = ()
    slides: tuple[Slide, ...] = ()
    hinges: tuple[Hinge, ...] = ()
    steered: str = ""  # the point of the car that the rack, or the relay of the box, moves
    box: bool = False  # whether a steering box moves it; its points are BOX_POINTS

    def index(self, name: str) -> int:
        """Return where a point stands in the coordinate array."""
        return self._places[name]

    @cached_property
    def _places(self) -> dict[str, int]:
        return {name: i for i, name in enumerate(self.points)}

    @cached_property
    def link_ends(self) -> tuple[list[int], list[int]]:
        """Where the inner and the outer points of the links stand in the coordinate array."""
        return [self.index(link.body) for link in self.links], [self.index(link.upright) for link in self.links]

    @cached_property
    def pushed(self) -> Array:
        """Which links have their inner point moved by the steering: 1 or 0, (links,)."""
        return np.array([float(link.body == self.steered) for link in self.links])

    @property
    def drives(self) -> int:
        """How many freedoms are driven: one for a wheel (travel), two for an axle (heave, roll)."""
        return len(self.reference)

    @property
    def rows(self) -> tuple[str, ...]:
        """Name of the member that every row belongs to, drives last."""
        names = [link.name for link in self.links]
        names += [p.name for p in self.pivots for _ in range(3)] + [s.name for s in self.slides for _ in range(2)]
        names += [h.name for h in self.hinges for _ in range(5)]
        return (*names, *("travel", "roll")[: self.drives])


@dataclass(frozen=True)
class Shape:
    """Coordinates and lengths of a mechanism: ``x`` (..., n, 3) in the design position, ``links`` (..., number of links), in mm.

    The leading axes may be rows of a sweep or drawn samples; real, or complex on the way of a complex step. ``rods``: coordinates that
    the lengths of pushrods, drop links and the like are taken from, where points have moved since and rods kept theirs; None: from x.
    """

    mechanism: Mechanism
    x: Array
    links: Array
    rods: Array | None = None

    @classmethod
    def of(
        cls, mechanism: Mechanism, points: Mapping[str, Sequence[float]], lengths: Mapping[str, float] | None = None
    ) -> "Shape":
        """Return the shape that the design points give; ``lengths`` replace those of named links."""
        x = np.array([points.get(name, points[name.removesuffix(ON_UPRIGHT)]) for name in mechanism.points], dtype=float)
        return cls(mechanism, x, link_lengths(mechanism, x)).with_lengths(lengths or {})

    @classmethod
    def taken_anew(cls, shape: "Shape") -> "Shape":
        """Return the shape with every link as long as its points are apart."""
        return cls(shape.mechanism, shape.x, link_lengths(shape.mechanism, shape.x))

    def with_lengths(self, lengths: Mapping[str, float]) -> "Shape":
        """Return the same shape with some links of other lengths in mm."""
        links = self.links.copy()
        for name, value in lengths.items():
            links[..., [link.name for link in self.mechanism.links].index(name)] = value
        return replace(self, links=links)

    def rod2(self, first: str, second: str) -> Array:
        """Return the square of the length of a rod that is no link, (...,), in mm²."""
        x = self.x if self.rods is None else self.rods
        line = x[..., self.mechanism.index(second), :] - x[..., self.mechanism.index(first), :]
        return dot(line, line)

    def point(self, name: str) -> Array:
        """Return a point in the design position, shape (..., 3)."""
        return np.asarray(self.x[..., self.mechanism.index(name), :])

    @cached_property
    def centre(self) -> Array:
        """The reference in the design position, shape (..., 3)."""
        first, *others = [self.point(name) for name in self.mechanism.reference]
        return np.asarray((first + others[0]) / 2 if others else first)

    @cached_property
    def box(self) -> Box | None:
        """The steering box, where there is one."""
        if not self.mechanism.box:
            return None
        return Box(*[*(self.point(name) for name in BOX_POINTS), self.rod2("box.arm", "idler.arm")])

    def push(self, steer: Array) -> Array:
        """Return how far the steered point is moved, (..., 3): a rack to the left by so many mm, a drop arm by so many degrees."""
        if self.box:
            return self.box.push(steer, self.point(self.mechanism.steered))
        return np.asarray(steer[..., None] * np.array([0.0, 1.0, 0.0]))

    @cached_property
    def steer_per_mm(self) -> float:
        """How much steer moves the steered point by about a millimetre: 1 of a rack; degrees of a drop arm."""
        return 1.0 if self.box is None else float(np.degrees(1.0) / self.box.lever)

    @cached_property
    def link_components(self) -> tuple[Array, Array, Array]:
        """Inner points in the car and outer points from the reference, (3, links, ...), and lengths (links, ...): the stack last."""
        inner, outer = self.mechanism.link_ends
        from_centre = self.x[..., outer, :] - self.centre[..., None, :]
        points = (np.ascontiguousarray(np.moveaxis(p, (-1, -2), (0, 1))) for p in (self.x[..., inner, :], from_centre))
        return (*points, np.moveaxis(self.links, -1, 0))  # type: ignore[return-value]

    @cached_property
    def walked(self) -> dict[bytes, Any]:
        """What its solver has walked of its branches so far, so that whoever asks the same shape again goes on from there."""
        return {}


@dataclass(frozen=True)
class Pose:
    """Where the body is: ``rotation`` (..., 3, 3), ``place`` (..., 3) of its reference; ``steer``: rack travel to the left, mm, or turn of the drop arm, degrees."""

    rotation: Array
    place: Array
    steer: Array

    def at(self, shape: Shape, name: str) -> Array:
        """Return where a point of the upright now is, shape (..., 3)."""
        return np.asarray(self.place + turned(self.rotation, shape.point(name) - shape.centre))

    def of_car(self, shape: Shape, name: str) -> Array:
        """Return where a point of the car is: as designed, but for the one that is steered."""
        point = shape.point(name)
        return np.asarray(point + shape.push(self.steer)) if name == shape.mechanism.steered else point


def link_lengths(mechanism: Mechanism, x: Array) -> Array:
    """Return the length of every link in the design position, shape (..., links), in mm.

    Source: constraint equations of rigid bodies and their exact derivatives, docs/linkage.md.
    """
    inner, outer = mechanism.link_ends
    return length(x[..., outer, :] - x[..., inner, :])


def design_pose(shape: Shape, rows: int) -> Pose:
    """Return so many copies of the design position.

    Source: constraint equations of rigid bodies and their exact derivatives, docs/linkage.md.
    """
    place = np.broadcast_to(shape.centre, (rows, 3)).copy()
    return Pose(np.broadcast_to(np.eye(3), (rows, 3, 3)).copy(), place, np.zeros(rows))


def system(shape: Shape, pose: Pose, travel: Array, roll: Array) -> tuple[Array, Array]:
    """Return all residuals (..., m) in mm and their rows (..., m, 6) for a stack of poses: constraints first, drives last.

    travel: of the wheel centre, or the mean of both, in mm, up. roll: of the line of wheel centres in front view, in
    radians, positive when the left wheel rises; an axle only.
    Source: constraint equations of rigid bodies and their exact derivatives, docs/linkage.md.
    """
    one = _single_rows(shape, pose)
    n, drives = len(shape.mechanism.links), shape.mechanism.drives
    stack = np.broadcast_shapes(pose.place.shape[:-1], shape.x.shape[:-2], shape.links.shape[:-1], np.shape(travel))
    kind = np.result_type(shape.x, shape.links, pose.rotation, pose.place)
    # Kept with the stack as the last axis, which numpy walks in one go: several times as quick for few links and many rows.
    residuals, rows = (
        np.empty((n + len(one) + drives, *stack), dtype=kind),
        np.empty((DOF, n + len(one) + drives, *stack), dtype=kind),
    )
    if n:
        _link_rows(shape, pose, residuals[:n], rows[:, :n])
    for i, (residual, arm, direction) in enumerate(one, start=n):
        residuals[i] = residual
        turning = cross(arm, direction)
        for k in range(3):
            rows[k, i], rows[3 + k, i] = turning[..., k], direction[..., k]
    _drive_rows(shape, pose, travel, roll, residuals[-drives:], rows[:, -drives:])
    last = tuple(range(2, 2 + len(stack)))
    return residuals.transpose(*(axis - 1 for axis in last), 0), rows.transpose(*last, 1, 0)


def _link_rows(shape: Shape, pose: Pose, residuals: Array, rows: Array) -> None:
    """Fill in residuals (links, ...) and rows (6, links, ...) of the links."""
    arm, away = _arms(shape, pose, residuals.ndim - 1)
    links = _padded(shape.link_components[2], 1, residuals.ndim - 1)
    now = np.sqrt(away[0] * away[0] + away[1] * away[1] + away[2] * away[2])
    residuals[...] = now - links
    x, y, z = (component / now for component in away)
    rows[0], rows[1], rows[2] = arm[1] * z - arm[2] * y, arm[2] * x - arm[0] * z, arm[0] * y - arm[1] * x
    rows[3], rows[4], rows[5] = x, y, z


def _arms(shape: Shape, pose: Pose, deep: int) -> tuple[list[Array], list[Array]]:
    """Return, for every link, the arm from the reference to its outer point and the way from its inner to its outer: components of (links, ...)."""
    inner, outer, _ = (_padded(a, own, deep) for a, own in zip(shape.link_components, (2, 2, 1), strict=True))
    turn, place = pose.rotation, pose.place
    arm = [turn[..., k, 0] * outer[0] + turn[..., k, 1] * outer[1] + turn[..., k, 2] * outer[2] for k in range(3)]
    away = [place[..., k] + arm[k] - inner[k] for k in range(3)]
    if shape.mechanism.steered:
        push = shape.push(pose.steer)
        away = [away[k] - push[..., k] * _padded(shape.mechanism.pushed, 1, deep) for k in range(3)]
    return arm, away


def link_lines(shape: Shape, pose: Pose) -> tuple[Array, Array, Array]:
    """Return the way of every link from its inner to its outer point, (3, links, ...): as the car sees it, as the upright sees it, and in the design position.

    Source: constraint equations of rigid bodies and their exact derivatives, docs/linkage.md.
    """
    deep = len(np.broadcast_shapes(pose.place.shape[:-1], shape.x.shape[:-2]))
    _, away = _arms(shape, pose, deep)
    away = list(np.broadcast_arrays(*away))
    turn = pose.rotation
    own = [turn[..., 0, k] * away[0] + turn[..., 1, k] * away[1] + turn[..., 2, k] * away[2] for k in range(3)]
    inner, outer = shape.mechanism.link_ends
    before = np.moveaxis(shape.x[..., outer, :] - shape.x[..., inner, :], (-1, -2), (0, 1))
    return np.stack(away), np.stack(own), _padded(before, 2, deep)


def change_along(shape: Shape, pose: Pose, twist: Array) -> Array:
    """Return (change of the rows along a twist) · twist, (..., m): how fast each residual speeds up while the twist stays as it is.

    Source: constraint equations of rigid bodies and their exact derivatives, docs/linkage.md.
    """
    n = len(shape.mechanism.links)
    still = np.zeros(())
    if len(shape.mechanism.rows) > n + 1:  # pivots, slides, hinges and the roll of an axle, by a complex step
        step = 1j * STEP
        there = Pose(
            pose.rotation + step * skew(twist[..., :3]) @ pose.rotation, pose.place + step * twist[..., 3:], pose.steer
        )
        return np.asarray((system(shape, there, still, still)[1].imag @ twist[..., None])[..., 0] / STEP)
    arm, away = _arms(shape, pose, twist.ndim - 1)
    w, v = [twist[..., k] for k in range(3)], [twist[..., 3 + k] for k in range(3)]
    swing = [w[1] * arm[2] - w[2] * arm[1], w[2] * arm[0] - w[0] * arm[2], w[0] * arm[1] - w[1] * arm[0]]
    speed = [v[k] + swing[k] for k in range(3)]
    inward = [w[1] * swing[2] - w[2] * swing[1], w[2] * swing[0] - w[0] * swing[2], w[0] * swing[1] - w[1] * swing[0]]
    long2 = sum(a * a for a in away)
    along = sum(a * b for a, b in zip(away, speed, strict=True))
    # The second derivative of a length: what is square to the link of its speed, squared, over its length, and the pull towards the turning.
    link = (
        sum(a * a for a in speed) - along * along / long2 + sum(a * b for a, b in zip(away, inward, strict=True))
    ) / np.sqrt(long2)
    out = np.zeros((*twist.shape[:-1], n + 1), dtype=twist.dtype)
    out[..., :n] = np.moveaxis(link, 0, -1)
    return out


def _padded(a: Array, own: int, deep: int) -> Array:
    """Return an array whose first axes are its own with ones put between them and its stack until the stack is so deep."""
    return a.reshape(*a.shape[:own], *[1] * (deep - (a.ndim - own)), *a.shape[own:])


def _single_rows(shape: Shape, pose: Pose) -> list[tuple[Array, Array, Array]]:
    """Return residual, arm from the reference and direction of every row that is no link's."""
    m = shape.mechanism
    one: list[tuple[Array, Array, Array]] = []
    for pivot in m.pivots:
        here = pose.at(shape, pivot.upright)
        away = here - pose.of_car(shape, pivot.body)
        one += [(away[..., k], here - pose.place, np.eye(3)[k]) for k in range(3)]
    for slide in m.slides:
        # The line is fixed to the upright: its two square directions turn with it, and the row follows from the point of the car.
        foot, top = pose.at(shape, slide.foot), pose.of_car(shape, slide.body)
        for e in square_to(shape.point(slide.head) - shape.point(slide.foot)):
            direction = turned(pose.rotation, e)
            one.append((dot(direction, foot - top), top - pose.place, direction))
    for hinge in m.hinges:
        first, second = shape.point(hinge.first), shape.point(hinge.second)
        here, there = (pose.at(shape, name + ON_UPRIGHT) for name in (hinge.first, hinge.second))
        away = here - first
        one += [(away[..., k], here - pose.place, np.eye(3)[k]) for k in range(3)]
        one += [(dot(e, there - first), there - pose.place, e) for e in square_to(second - first)]
    return one


def _drive_rows(shape: Shape, pose: Pose, travel: Array, roll: Array, residuals: Array, rows: Array) -> None:
    """Fill in residuals (drives, ...) and rows (6, drives, ...) of the driven freedoms."""
    residuals[0] = pose.place[..., 2] - shape.centre[..., 2] - travel
    rows[...] = 0.0
    rows[5, 0] = 1.0
    if shape.mechanism.drives == 1:
        return
    left, right = (pose.at(shape, name) for name in shape.mechanism.reference)
    across = left - right
    square = np.stack(np.broadcast_arrays(np.zeros_like(roll), -np.sin(roll), np.cos(roll)), axis=-1)
    residuals[1] = dot(across, square)
    turning = cross(
        across, np.broadcast_to(square, across.shape)
    )  # the reference is the middle of both: only turning moves one against the other
    for k in range(3):
        rows[k, 1] = turning[..., k]


def size_of(shape: Shape) -> float:
    """Return the root mean square distance of the held points from the reference in mm: the unit in which ω is as long as v.

    Source: constraint equations of rigid bodies and their exact derivatives, docs/linkage.md.
    """
    held = [link.upright for link in shape.mechanism.links] + [p.upright for p in shape.mechanism.pivots]
    held += [s.body for s in shape.mechanism.slides] + [n for h in shape.mechanism.hinges for n in (h.first, h.second)]
    away = np.stack([shape.point(n) - shape.centre for n in held]).real
    return float(np.sqrt(np.mean(np.sum(away**2, axis=-1)))) or 1.0


def scaled_singular_values(shape: Shape, rows: Array) -> Array:
    """Return the singular values (..., k) of rows whose ω columns are taken in units of the body's size.

    Source: constraint equations of rigid bodies and their exact derivatives, docs/linkage.md.
    """
    scale = np.array([1 / size_of(shape)] * 3 + [1.0] * 3)
    return np.linalg.svd(rows * scale, compute_uv=False)
