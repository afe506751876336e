"""Levers on fixed axes: a rocker, the arm of an anti-roll bar, the drop arm and the idler of a steering box.

Real or complex; see ``space``.

Source: lever and length geometry; docs/linkage.md.
"""

from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.linkage.space import Array, atan2, cross, dot, unit


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


def swung_by_rod(axis: tuple[Array, Array], end: Array, rod: Moving, rod_before: Array, long2: Array | None = None) -> Turning:
    """Return how a lever on a fixed axis turns when a rod of fixed length leads from its end to a moving point.

    ``end`` and ``rod_before`` are the design positions of the lever's end and of the rod's other end; ``long2`` is the rod's length
    squared, where it is not that between the two. nan where the rod does not reach. Of the two places where it could, the one
    continuous with the design position.
    Source: circle of a lever through the sphere of a rod, docs/linkage.md.
    """
    first, second = axis
    k = unit(second - first)
    e1, centre = _off_axis(first, k, end)
    radius2 = dot(e1, e1)
    e2 = cross(k, e1)
    to, before = rod.place - centre, rod_before - centre
    long2 = dot(rod_before - end, rod_before - end) if long2 is None else long2
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


@dataclass(frozen=True)
class Box:
    """A steering box with an idler: the relay between drop arm and idler carries the inner ends of the tie rods.

    Axes by two points each, ``arm`` and ``idler_arm`` the joints of the relay, all (..., 3) in the design position. The steer is the turn of the drop arm in
    degrees, plus moving the relay to the left.
    """

    first: Array
    second: Array
    arm: Array
    idler_first: Array
    idler_second: Array
    idler_arm: Array
    relay2: Array  # length of the relay squared

    @property
    def lever(self) -> float:
        """Length of the drop arm, square to its axis, in mm."""
        off, _ = _off_axis(self.first, unit(self.second - self.first), self.arm)
        return float(np.sqrt(np.mean(np.sum(off.real**2, axis=-1))))

    def push(self, steer_deg: Array, inner: Array) -> Array:
        """Return how far a point of the relay (..., 3) is moved at a turn (...,); nan where the relay does not reach."""
        axis = unit(self.second - self.first)
        way = np.where(cross(axis, self.arm - self.first)[..., 1].real >= 0, 1.0, -1.0)
        drop = Turning(self.first, axis, np.asarray(steer_deg) * (way * np.pi / 180), np.zeros(()))
        here = drop.carries(self.arm).place
        still = Moving(here, np.zeros(3))
        with np.errstate(invalid="ignore", divide="ignore"):
            idler = swung_by_rod((self.idler_first, self.idler_second), self.idler_arm, still, self.arm, self.relay2)
            there = idler.carries(self.idler_arm).place
        before, now = _frame(self.arm, self.idler_arm, axis), _frame(here, there, axis)
        seen = [dot(inner - self.arm, e) for e in before]
        return np.asarray(here + sum(part[..., None] * e for part, e in zip(seen, now, strict=True)) - inner)


def _frame(start: Array, end: Array, up: Array) -> tuple[Array, Array, Array]:
    """Return three unit vectors square to each other: along start to end, and as near to a direction as that allows."""
    along = unit(end - start)
    third = unit(up - along * dot(along, up)[..., None])
    return along, cross(third, along), third
