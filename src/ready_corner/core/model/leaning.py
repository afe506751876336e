"""How the body leans by the heights of its corners, and what that does to the angles of its wheels against the ground.

Source: ISO 8855 axes, small angles of the body; docs/stance.md.
"""

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.plan.corners import SIDE, Corner

FloatArray = NDArray[np.float64]


def leans(rises: FloatArray, at: FloatArray) -> FloatArray:
    """Return how far each end leans to the right by the heights of its two sides, (4,) degrees by corner; rises (4,) mm at places (4, 2) mm."""
    return np.array([np.degrees((rises[i] - rises[i + 1]) / (at[i, 1] - at[i + 1, 1])) for i in (0, 0, 2, 2)])


def pitch(rises: FloatArray, at: FloatArray) -> float:
    """Return how far the body leans back by the heights of its two ends, degrees: nose up plus."""
    return float(np.degrees((rises[:2].mean() - rises[2:].mean()) / (at[:2, 0].mean() - at[2:, 0].mean())))


def leaning(kind: str, corner: Corner, lean: float, back: float, camber: float = 0.0) -> float:
    """Return what a body that leans to the right and back, degrees, does to an angle of a wheel that leans with it; its toe goes by its own ``camber``,
    degrees: the axis of a wheel that leans in heads out as the nose comes up."""
    toe = camber * float(np.radians(back))
    return {"caster": back, "inclination": SIDE[corner] * lean, "camber": -SIDE[corner] * lean, "toe": toe}.get(kind, 0.0)
