"""A practice car with a hidden truth: wheels as discs in space, strings as lines on the floor, tools that read exactly.

Written from the geometry alone, with rotations and perpendicular distances; it shares no formula with what it tests.
"""

from dataclasses import dataclass

import numpy as np

CORNERS = ("LF", "RF", "LR", "RR")
SIDE = {"LF": 1, "RF": -1, "LR": 1, "RR": -1}


def turned_about(axis, degrees):
    """Rotation matrix about x, y or z by so many degrees (right-hand)."""
    c, s = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
    i, j = {"x": (1, 2), "y": (2, 0), "z": (0, 1)}[axis]
    m = np.eye(3)
    m[i, i] = m[j, j] = c
    m[i, j], m[j, i] = -s, s
    return m


@dataclass
class PracticeCar:
    """Toe and camber in degrees by corner; strings as (offset at the front axle line in mm, degrees to the left going forward)."""

    toe: dict
    camber: dict
    wheelbase: float = 2400.0
    half: tuple = (710.0, 690.0)
    span: float = 381.0
    left_string: tuple = (800.0, 0.0)
    right_string: tuple = (-800.0, 0.0)

    def hub(self, corner):
        front = corner[1] == "F"
        return np.array([0.0 if front else -self.wheelbase, SIDE[corner] * self.half[0 if front else 1], 300.0])

    def axis(self, corner):
        """Spin axis pointing outboard: lean the upright wheel about x, then steer it about z."""
        s = SIDE[corner]
        lean = turned_about("x", -s * self.camber[corner])  # plus camber: top out, axis points down
        steer = turned_about("z", -s * self.toe[corner])  # toe-in: the left wheel turns right
        return steer @ lean @ np.array([0.0, s, 0.0])

    def edges(self, corner):
        """Front and back points of the rim, level through the wheel centre, in the plane of the wheel."""
        level = np.cross(np.array([0.0, 0.0, 1.0]), self.axis(corner))
        level *= np.sign(level[0]) / np.linalg.norm(level)
        return self.hub(corner) + level * self.span / 2, self.hub(corner) - level * self.span / 2

    def gap(self, point, left):
        offset, degrees = self.left_string if left else self.right_string
        along = np.array([np.cos(np.radians(degrees)), np.sin(np.radians(degrees))])
        to = np.array([0.0, offset]) - point[:2]
        return abs(to[0] * along[1] - to[1] * along[0])

    def gaps(self, corner):
        """What a rule shows at the front edge, the back edge and the hub."""
        front, back = self.edges(corner)
        return tuple(self.gap(p, corner[0] == "L") for p in (front, back, self.hub(corner)))

    def gauge(self, corner, up=(0.0, 0.0, 1.0)):
        """What a gauge zeroed on gravity shows on the rim, minus when the top leans in."""
        return float(np.degrees(np.arcsin(-self.axis(corner) @ np.asarray(up))))


def wheel_axis(toe_deg, camber_deg, side):
    """Unit spin axes pointing outboard (..., 3): (sin t · cos c, s · cos t · cos c, −sin c), as definitions.md has it."""
    t, c, s = np.broadcast_arrays(np.radians(toe_deg), np.radians(camber_deg), np.asarray(side, dtype=float))
    return np.stack([np.sin(t) * np.cos(c), s * np.cos(t) * np.cos(c), -np.sin(c)], axis=-1)
