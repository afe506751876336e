"""A corner's wheel and springs over its whole travel from one sweep of the linkage, so that a question about it is answered without solving again.

Between the rows everything goes by splines; at their spacing those are good to a millionth of a millimetre, which tests hold. Travel from the
drawing in mm, bump positive.

Source: the linkage over travel, cubic splines between; docs/linkage.md.
"""

from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import CubicSpline

from ready_corner.core.engines.linkage.body import Body, Spring
from ready_corner.core.engines.linkage.sweep import Sweep, sweep
from ready_corner.core.model.bodies import body_named
from ready_corner.core.plan.corners import SIDE, Corner
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.quantities.finding import finding

FloatArray = NDArray[np.float64]

REACH_MM = 160.0  # no wheel of a car that is set up travels further
STEP_MM = 2.0


def own_springs(body: Body, corner: Corner) -> tuple[Spring, ...]:
    """Return the springs of a corner: all of its body, or of an axle those without the other side in their name."""
    other = "right" if SIDE[corner] > 0 else "left"
    return tuple(s for s in body.springs if not body.is_axle or other not in s.name.split())


class Movement:
    """One corner of a plan over its travel. Raises PlannedError where the plan has no linkage there."""

    def __init__(self, plan: Plan, corner: Corner, swept: Sweep | None = None) -> None:
        self.corner = corner
        self.body: Body = body_named(plan, corner) if swept is None else swept.body
        rows = round(2 * REACH_MM / STEP_MM) + 1
        self.swept = sweep(self.body, np.linspace(-REACH_MM, REACH_MM, rows)) if swept is None else swept
        side = 0 if not self.body.is_axle or SIDE[corner] > 0 else 1
        self._wheel = self.swept.wheels[side]
        good = self.swept.poses.converged & np.isfinite(self._wheel["centre_z"])
        middle = rows // 2
        low, high = middle, middle  # the part about the drawing that is reached without a gap
        while low > 0 and good[low - 1]:
            low -= 1
        while high < rows - 1 and good[high + 1]:
            high += 1
        self._part = slice(low, high + 1)
        self.travel: FloatArray = np.asarray(self.swept.poses.travel, dtype=float)[self._part]
        self._splines: dict[str, CubicSpline] = {}
        self.kept: dict[tuple[object, ...], Any] = {}  # what others reckon from it alone

    @cached_property
    def springs(self) -> tuple[Spring, ...]:
        """The springs of this corner; see :func:`own_springs`."""
        return own_springs(self.body, self.corner)

    @property
    def spring(self) -> Spring:
        """The spring that has a rate, else the first. Raises PlannedError where there is none."""
        if not self.springs:
            raise PlannedError(finding("corner.no-spring", corner=self.corner), path="springs")
        return next((s for s in self.springs if s.rate), self.springs[0])

    def has(self, name: str) -> bool:
        """Whether there is such an answer."""
        return name in self._wheel or name in self.swept.shared

    def spline(self, name: str) -> CubicSpline:
        """Return an answer over travel; nan outside of what is reached."""
        if name not in self._splines:
            values = np.asarray(self._wheel[name] if name in self._wheel else self.swept.shared[name], dtype=float)[self._part]
            known = np.isfinite(values)
            if known.sum() < 4:
                raise PlannedError(finding("corner.rod-unknown", corner=self.corner, point=name), path="springs")
            self._splines[name] = CubicSpline(self.travel[known], values[known], extrapolate=False)
        return self._splines[name]

    def at(self, name: str, travel: float) -> float:
        """Return an answer at a travel, nan beyond what is reached."""
        return float(self.spline(name)(travel))

    def centre(self, travel: float) -> tuple[float, float, float]:
        """Return the wheel centre in the axes of the plan at a travel."""
        x, y, z = (self.at(f"centre_{k}", travel) for k in "xyz")
        return x, y, z

    def travel_for(self, name: str, value: float) -> float:
        """Return the travel nearest to the drawing at which an answer has a value; nan where it never has."""
        if not np.isfinite(value):
            return float("nan")
        roots = np.asarray(self.spline(name).solve(value, extrapolate=False), dtype=float)
        roots = roots[np.isfinite(roots)]
        return float(roots[np.argmin(np.abs(roots))]) if len(roots) else float("nan")

    @cached_property
    def level(self) -> float:
        """Travel at which the lower arm, or the first member, is level; nan where it never is."""
        return self.travel_for(f"{self.lower}.level_deg", 0.0) if self.lower else float("nan")

    @property
    def lower(self) -> str:
        """The member whose angle is that of the arm: the lower one, or the first; empty where there is none."""
        names = [link.name for link in self.body.shape.mechanism.links]
        return next((n for n in names if n.startswith("lower")), names[0] if names else "")

    @cached_property
    def joint_ends(self) -> tuple[tuple[str, float], ...]:
        """Every joint that comes to its limit, with the travel nearest to the drawing at which it does, either way."""
        found = []
        for joint in self.body.joints:
            name = f"{joint.member}.{joint.at}_deg"
            if not self.has(name):
                continue
            limits = (joint.limit_deg, -joint.limit_deg)
            roots = np.concatenate([self.spline(name).solve(v, extrapolate=False) for v in limits])
            for part in (roots[roots > 0], roots[roots < 0]):
                if len(part):
                    found.append((f"{joint.member} joint, {joint.at}", float(part[np.argmin(np.abs(part))])))
        return tuple(found)


def movement(plan: Plan, corner: Corner, axle: Sweep | None = None) -> Movement:
    """Return how a corner moves; ``axle``: the sweep of the other wheel's, where one live axle carries both."""
    return Movement(plan, corner, axle)
