"""The car with its adjusters elsewhere: heights, camber, toe and loads by the full linkage and the springs, solved anew for a setting.

Where ``judge.reach`` tells what a small turn is worth, this tells what any setting comes to: every body is solved with its links as long as
they then are, the body of the car rides on its springs and tyres, and each wheel goes to where that leaves it.

Source: constraint equations of rigid bodies, docs/linkage.md; stiffness matrices, docs/stance.md.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.engines.linkage.answers import axis_joints
from ready_corner.core.engines.linkage.body import Body
from ready_corner.core.engines.linkage.sweep import length_at_rest, sweep, travel_near
from ready_corner.core.model.leaning import leaning, leans, pitch
from ready_corner.core.model.predicted import parts_of
from ready_corner.core.model.springs_of_plan import Springing, places, raised_by, response
from ready_corner.core.model.study import Change, Limit, changed, limits_of
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, Corner, End
from ready_corner.core.plan.marks import ANGLES, MARK_KINDS, kind_of
from ready_corner.core.plan.plan import Plan

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Setting:
    """Heights at their places (4,) in mm against the drawing, angles (4,) in degrees a kind, loads (4,) in N beside what the springs carry as drawn;
    nan where the links would not reach. Angles of the steering axis are there where the plan has aims for them."""

    heights: FloatArray
    angles: Mapping[str, FloatArray]
    loads: FloatArray

    def of(self, kind: str) -> FloatArray:
        """Return heights or an angle of all corners, (4,); zeros of an angle that is not there."""
        return self.heights if kind == "height" else self.angles.get(kind, np.zeros(4))


def setting(
    plan: Plan, bodies: Mapping[str, Body], springs: Springing, turns: Mapping[str, float], bar_on: bool = False
) -> Setting:
    """Return what a car comes to with its adjusters ``turns`` off the drawing (turns or shims by adjuster, plus way).

    bodies: by corner or end, as planned or as built; a wheel without one keeps its angles. Adjusters of which the plan does not say what they
    move do nothing here.
    Source: constraint equations of rigid bodies, stiffness matrices; see the module.
    """
    at = places(plan)
    held = {name: _held(plan, name, body, turns) for name, body in bodies.items()}
    rise = np.array([held[n].rise[_side(c, held[n].body)] if (n := _name(c, bodies)) else 0.0 for c in CORNERS])
    raised = np.zeros(4) + sum(raised_by(a, springs) * turns.get(a.id, 0.0) for a in plan.adjusters if a.raises)
    stands, perched = response(at, springs.supports(bar_on)), response(at, springs.supports(bar_on), springs.lifts(bar_on))
    heights = stands.heights @ rise + perched.heights @ raised
    loads = stands.loads @ rise + perched.loads @ raised
    travel = rise - heights - loads / springs.tyres
    there = np.array([[1.0, p.station, p.offset] for p in (plan.height_place(c) for c in CORNERS)])
    plane = np.linalg.lstsq(np.column_stack([np.ones(4), at]), heights, rcond=None)[0]
    kinds = [k for k in ANGLES if k in ("camber", "toe") or any(kind_of(a.mark) == k for a in plan.aims_now)]
    angles = {kind: np.zeros(4) for kind in kinds}
    lean, back = leans(heights, at), pitch(heights, at)
    for i, c in enumerate(CORNERS):
        if name := _name(c, bodies):
            own = [kind for kind in kinds if c in MARK_KINDS[kind].corners]
            for kind, value in _angles(c, held[name], travel, float(lean[i]), back, own).items():
                angles[kind][i] = value
    return Setting(there @ plane, angles, loads)


def past_limits(plan: Plan, bodies: Mapping[str, Body], turns: Mapping[str, float]) -> tuple[tuple[str, Limit], ...]:
    """Return what would be past its limit with adjusters ``turns`` off the drawing, and is not as drawn: joints, dampers, the plunge of shafts, a spring against its tyre;
    each with its end, over the travel between the stops, worst first.

    Source: angles and lengths over travel, docs/linkage.md.
    """
    found: list[tuple[str, Limit]] = []
    for name, body in bodies.items():
        shaft = body.shaft and (body.shaft.pushed is not None or body.shaft.pulled is not None)
        if not (body.joints or shaft or any((s.closed, s.open, s.to_tyre) != (None, None, None) for s in body.springs)):
            continue
        held, end = _held(plan, name, body, turns), name if name in ENDS else END_OF[name]  # type: ignore[index]
        if held.body is body:
            continue
        stops = plan.footing.end(end)
        drive = np.array([-(stops.droop or 0.0), 0.0, stops.bump or 0.0])
        drawn = {k.what: k.left for k in limits_of([sweep(body, drive)], drive)}
        now = limits_of([sweep(held.body, held.travel + drive)], drive)
        found += [(end, k) for k in now if k.left < 0 <= drawn.get(k.what, 0.0)]
    return tuple(sorted(found, key=lambda row: row[1].share))


@dataclass(frozen=True)
class _Held:
    """A body as its links hold it with its spring at the length it has as drawn: at which travel, and how far each wheel stands out, mm."""

    body: Body
    travel: float
    rise: tuple[float, ...]


def _name(corner: Corner, bodies: Mapping[str, Body]) -> str:
    """Return the body that carries the wheel of a corner; empty where there is none."""
    return next((n for n in (corner, END_OF[corner]) if n in bodies), "")


def _side(corner: Corner, body: Body) -> int:
    return CORNERS.index(corner) % 2 if body.is_axle else 0


def _held(plan: Plan, name: str, body: Body, turns: Mapping[str, float]) -> _Held:
    end: End = next(e for e in ENDS if e == name or e == dict(END_OF).get(name))  # type: ignore[call-overload]
    changes = [
        Change(f"{name}.{p.name}", p.axis, weight * a.length_per_step * turns[a.id])
        for a in plan.adjusters
        if turns.get(a.id) and (a.corner == name or (body.is_axle and END_OF[a.corner] == end))
        for p, weight in parts_of(a)
    ]
    if not changes:
        return _Held(body, 0.0, (0.0,) * len(body.wheels))
    turned, travel = changed(body, end, changes, "kept"), 0.0
    if turned.springs and not turned.is_axle:
        own = turned.springs[0]
        travel = travel_near(turned, own, length_at_rest(body, own))
    rest, now = (sweep(b, np.array([z]), only_pose=True).wheels for b, z in ((body, 0.0), (turned, travel)))
    return _Held(turned, travel, tuple(float((r["contact_z"] - t["contact_z"])[0]) for r, t in zip(rest, now, strict=True)))


def _angles(
    corner: Corner, held: _Held, travel: FloatArray, lean: float, back: float, kinds: Sequence[str]
) -> dict[str, float]:
    """Return angles of a wheel against the ground, degrees, with the travel (4,) of all wheels in mm beside what the links hold them at, the body
    leaning right by ``lean`` and back by ``back``."""
    i, body = CORNERS.index(corner), held.body
    plain = not set(kinds) - {"camber", "toe"} or axis_joints(body, body.wheels[0]) is not None
    if body.is_axle:
        first = i - i % 2
        wide = 2 * abs(float(body.shape.point(body.wheels[0].centre)[1]))
        heave = (travel[first] + travel[first + 1]) / 2
        roll = float(np.degrees(np.arctan((travel[first] - travel[first + 1]) / wide)))
        found = sweep(body, np.array([held.travel + heave]), roll_deg=np.array([roll]), only_pose=plain).wheels[i % 2]
    else:
        found = sweep(body, np.array([held.travel + travel[i]]), only_pose=plain).wheels[0]
    # An axle lies on its tyres, however the body leans over it: what it rolls under the body is the body's roll.
    camber = float(found["camber_deg"][0])
    return {kind: float(found[f"{kind}_deg"][0]) + leaning(kind, corner, lean, back, camber) for kind in kinds}
