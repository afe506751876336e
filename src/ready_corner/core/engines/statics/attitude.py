"""How a rigid chassis stands: its attitude from heights read at named places, and the height of any other point of it.

Chassis axes: x forward, y left, z up; places (n, 3) in mm. The attitude is a turn about the y axis (pitch, plus nose down), one about the x
axis (roll, plus left side up) and a height. Exact at any angle.

Source: rigid geometry of the chassis; docs/stance.md.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding

FloatArray = NDArray[np.float64]
LEAST_SPREAD = 1e-3  # places nearer to one line than this share of their length tell nothing across it


@dataclass(frozen=True)
class Attitude:
    """Pitch and roll in degrees, and the height in mm of the chassis origin over the floor. ``left``: how far each place read is off it, mm."""

    pitch_deg: float
    roll_deg: float
    height: float
    left: tuple[float, ...] = ()

    @property
    def up(self) -> FloatArray:
        """The vertical in chassis axes, unit (3,)."""
        p, r = np.radians([self.pitch_deg, self.roll_deg])
        return np.array([-np.sin(p), np.sin(r) * np.cos(p), np.cos(r) * np.cos(p)])

    @property
    def upright(self) -> FloatArray:
        """The chassis' own upward axis in the axes of the floor, unit (3,): x forward along the centreline dropped on it, z square to it."""
        ahead = np.array([1.0, 0.0, 0.0]) - self.up[0] * self.up
        ahead = ahead / np.linalg.norm(ahead)
        return np.array([ahead[2], np.cross(self.up, ahead)[2], self.up[2]])

    def height_of(self, place: Sequence[float] | FloatArray) -> float:
        """Return the height over the floor of a place of the chassis, mm."""
        return float(self.up @ np.asarray(place, dtype=float) + self.height)

    def rake_deg(self, front: Sequence[float], rear: Sequence[float]) -> float:
        """Return the rake between two stations: atan((rear height − front height) / distance between the stations level), plus nose down."""
        a, b = np.asarray(front, dtype=float), np.asarray(rear, dtype=float)
        rise = self.height_of(b) - self.height_of(a)
        level = np.sqrt(max(float((a - b) @ (a - b)) - rise**2, 0.0))
        return float(np.degrees(np.arctan2(rise, level)))


def attitude_of(places: Sequence[Sequence[float]], heights: Sequence[float]) -> Attitude:
    """Return the attitude that heights over the floor at these places give: least squares, exact for three.

    Raises MeasuredError for fewer than three places, places on one line, or heights no rigid chassis can have.
    Source: rigid-body rotation of a chassis plane, docs/stance.md.
    """
    p, h = np.asarray(places, dtype=float), np.asarray(heights, dtype=float)
    if len(p) < 3:
        raise MeasuredError(finding("attitude.too-few", count=len(p)), path="heights")
    s = np.linalg.svd((p - p.mean(axis=0)), compute_uv=False)
    if s[1] < LEAST_SPREAD * s[0]:
        raise MeasuredError(finding("attitude.on-one-line"), path="heights")
    found = np.zeros(3)
    found[2] = float(np.mean(h - p[:, 2]))
    for _ in range(60):
        pitch, roll = float(found[0]), float(found[1])
        now = Attitude(float(np.degrees(pitch)), float(np.degrees(roll)), float(found[2]))
        residual = p @ now.up + found[2] - h
        by_pitch = p @ np.array([-np.cos(pitch), -np.sin(roll) * np.sin(pitch), -np.cos(roll) * np.sin(pitch)])
        by_roll = p @ np.array([0.0, np.cos(roll) * np.cos(pitch), -np.sin(roll) * np.cos(pitch)])
        step = np.linalg.lstsq(np.column_stack([by_pitch, by_roll, np.ones(len(p))]), -residual, rcond=1e-12)[0]
        step[:2] = np.clip(step[:2], -0.3, 0.3)
        found = found + step
        if np.abs(step[2]) < 1e-11 * (1 + abs(found[2])) and np.abs(step[:2]).max() < 1e-14:
            break
    if np.abs(found[:2]).max() > np.radians(45):
        raise MeasuredError(finding("attitude.impossible"), path="heights")
    now = Attitude(float(np.degrees(found[0])), float(np.degrees(found[1])), float(found[2]))
    left = p @ now.up + now.height - h
    return Attitude(now.pitch_deg, now.roll_deg, now.height, tuple(float(v) for v in left))


def hub_on_stands(hub: Sequence[float], loaded_radius: float, wanted: Attitude, present: Attitude) -> float:
    """Return the height over the floor at which a hub must sit while the chassis is on stands, so that it gives the wanted stance on its wheels.

    hub: its place in chassis axes as to station and offset; its height in the chassis is what follows: on its wheels it is the loaded radius
    over the floor. A hub set lower gives a higher car. Raises MeasuredError for a loaded radius of nothing.
    Source: rigid-body rotation of a chassis plane, docs/stance.md.
    """
    _require_radius(loaded_radius)
    up = wanted.up
    z = (loaded_radius - wanted.height - up[0] * hub[0] - up[1] * hub[1]) / up[2]
    return present.height_of((hub[0], hub[1], z))


def ride_from_hub(hub: Sequence[float], hub_height: float, loaded_radius: float, present: Attitude, wanted: Attitude) -> float:
    """Return by how much higher than wanted (minus: lower) the chassis will stand at a hub that was set at this height over the floor on stands.

    Source: rigid-body rotation of a chassis plane, docs/stance.md.
    """
    return hub_on_stands(hub, loaded_radius, wanted, present) - hub_height


def _require_radius(loaded_radius: float) -> None:
    if not loaded_radius > 0:
        raise MeasuredError(
            finding("attitude.no-radius"),
            path="loaded_radius",
        )
