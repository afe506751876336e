"""From a plan to the car on its springs: stiffness at the wheels, and what a perch, a pad or a tyre does to heights and loads.

Corners in the order LF, RF, LR, RR; lengths in mm, forces in N. Small changes about the plan's stance; exact as long as no spring goes slack.

Source: stiffness matrices of springs, bars and tyres; docs/stance.md.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.engines.linkage.body import Body
from ready_corner.core.engines.linkage.sweep import sweep
from ready_corner.core.engines.statics.bars import bar_rate_at_wheel, link_ratio
from ready_corner.core.engines.statics.springs import GRAVITY
from ready_corner.core.model.bodies import bodies_of, body_named
from ready_corner.core.model.four_springs import Car, CornerSpring
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, SIDE, Corner
from ready_corner.core.plan.plan import RAISERS, Adjuster, Perch, Plan
from ready_corner.core.quantities.errors import MeasuredError, ReadyCornerError
from ready_corner.core.quantities.finding import finding

FloatArray = NDArray[np.float64]

TYRE_N_PER_MM = 200.0  # where the plan has none; a tyre of ten times the spring's rate hardly shares in what a perch does
ROLL_STEP_DEG = 0.05  # of the central difference that tells what an axle's springs do in roll


def places(plan: Plan) -> FloatArray:
    """Return station and offset of the four wheels, shape (4, 2).

    Source: stiffness matrices of springs, bars and tyres, docs/stance.md.
    """
    return np.array([plan.wheel_place(c) for c in CORNERS])


@dataclass(frozen=True)
class Springing:
    """Springs at the wheels. ``stiffness`` (4, 4) N/mm without bars and tyres; ``ratios`` (4, 4): spring travel by wheel travel; ``tyres`` (4,).

    ``bars`` (4, 4): what anti-roll bars add where they are connected. ``known``: whether all of it is from the plan, not even springs taken for want of it. ``bends`` (4,):
    the share of a corner's rate that comes of its ratio changing with travel; by up to so much a turn of its perch raises it otherwise than by pitch / ratio.
    """

    stiffness: FloatArray
    ratios: FloatArray
    tyres: FloatArray
    bars: FloatArray
    known: bool
    bends: FloatArray = field(default_factory=lambda: np.zeros(4))

    def supports(self, bars_on: bool = False) -> FloatArray:
        """Return the stiffness between chassis and floor, springs and tyres in series, (4, 4)."""
        k = self.stiffness + (self.bars if bars_on else 0.0)
        return np.asarray(k @ np.linalg.inv(np.diag(self.tyres) + k) @ np.diag(self.tyres))

    def lifts(self, bars_on: bool = False) -> FloatArray:
        """Return the force on the chassis per mm that each corner's spring is raised by its perch, chassis held, (4, 4).

        Bars act on the travel of the wheels, not on springs and perches: so without bars these are the supports, and with them less.
        """
        k = self.stiffness + (self.bars if bars_on else 0.0)
        return np.asarray((np.eye(4) - k @ np.linalg.inv(np.diag(self.tyres) + k)) @ self.stiffness)


@dataclass(frozen=True)
class Response:
    """What raising one corner (by its perch at unchanged load, or by a pad or a tyre) does near where the car stands.

    ``heights`` (4, 4): of the chassis at each wheel per mm that each corner is raised; ``loads`` (4, 4): N per mm.
    """

    at: FloatArray
    heights: FloatArray
    loads: FloatArray

    def at_places(self, there: FloatArray) -> FloatArray:
        """Return the heights of chassis places (n, 2) per mm that each corner is raised, (n, 4): the chassis is rigid."""
        wheels = np.column_stack([np.ones(4), self.at])
        return np.asarray(np.column_stack([np.ones(len(there)), there]) @ np.linalg.lstsq(wheels, self.heights, rcond=None)[0])


def response(at: FloatArray, supports: FloatArray, lifts: FloatArray | None = None) -> Response:
    """Return what raising corners at places (4, 2) on these supports (4, 4) does: the least energy of a rigid chassis on them.

    lifts: force per mm of raising, the chassis held (4, 4); of a pad or a tyre the supports themselves, of a perch see :meth:`Springing.lifts`.
    Source: stiffness matrices of springs, bars and tyres, docs/stance.md.
    """
    p = np.column_stack([np.ones(4), at])
    forces = supports if lifts is None else lifts
    heights = p @ np.linalg.solve(p.T @ supports @ p, p.T @ forces)
    return Response(at, heights, forces - supports @ heights)


def tilted_loads(at: FloatArray, supports: FloatArray, rises: FloatArray, weight: float, height: float) -> FloatArray:
    """Return what the tilt of the pads adds to the loads (4,) in N: the centre of gravity, ``height`` over them, leans towards the lower side.

    rises: (4,) heights of the pads; weight in N. The slopes are those of the best plane through the pads.
    Source: stiffness matrices of springs, bars and tyres, docs/stance.md.
    """
    p = np.column_stack([np.ones(4), at])
    _, along, across = np.linalg.lstsq(p, rises, rcond=None)[0]
    moment = weight * height * np.array([0.0, -along, -across])
    return np.asarray(supports @ p @ np.linalg.solve(p.T @ supports @ p, moment))


def sprung_loads(plan: Plan) -> FloatArray | None:
    """Return what the springs of each corner carry at the wheels in N, by mass, shares and unsprung masses of the plan; None where it has no mass.

    Source: stiffness matrices of springs, bars and tyres, docs/stance.md.
    """
    feet = plan.footing
    if feet.mass is None:
        return None
    share = np.array([(feet.front if END_OF[c] == "front" else 1 - feet.front) * (feet.left if SIDE[c] > 0 else 1 - feet.left) for c in CORNERS])  # fmt: skip
    unsprung = np.array([feet.end(END_OF[c]).unsprung or 0.0 for c in CORNERS])
    return np.asarray(GRAVITY * np.maximum(feet.mass * share - unsprung, 0.0))


def springing(plan: Plan) -> Springing:
    """Return the springs of a plan at its wheels by the true ratios of its linkage; even ones where the plan does not tell them.

    Source: stiffness matrices of springs, bars and tyres, docs/stance.md.
    """
    k, ratios, bends = np.zeros((4, 4)), np.eye(4), np.zeros(4)
    bars, known = np.zeros((4, 4)), True
    carried = sprung_loads(plan)
    for n, end in enumerate(ENDS):
        rows = slice(2 * n, 2 * n + 2)
        try:
            block = _end(plan, bodies_of(plan, end), None if carried is None else carried[rows])
        except ReadyCornerError:
            block = None
        if block is None or not np.all(np.isfinite(block[0])) or np.linalg.eigvalsh(block[0]).min() <= 0:
            known = False
            k[rows, rows] = np.eye(2) * 20.0
            continue
        k[rows, rows], ratios[rows, rows], link, bends[rows] = block
        bar = plan.footing.end(end).bar
        if bar is not None:
            per = link_ratio(link, bar.arm) if np.isfinite(link) and link > 0 else 1.0
            bars[rows, rows] = bar_rate_at_wheel(bar.end_rate, per) * np.array([[1.0, -1.0], [-1.0, 1.0]])
    if not known:
        k = np.eye(4) * 20.0  # N/mm; only that the corners are alike matters
    tyres = np.array([plan.footing.end(END_OF[c]).tyre_rate or TYRE_N_PER_MM for c in CORNERS])
    for i, c in enumerate(CORNERS):
        own = next((a.by for a in plan.adjusters if a.corner == c and isinstance(a.by, RAISERS)), None)
        if own and (
            not known or not isinstance(own, Perch)
        ):  # a bar is turned, and only that of a corner by itself is in its linkage
            turning = _turning(plan, c) if known else float("nan")
            ratios[i] = np.eye(4)[i] * (turning if np.isfinite(turning) else own.per_wheel)
    return Springing(k, ratios, tyres, bars, known, bends if known else np.zeros(4))


def _turning(plan: Plan, corner: Corner) -> float:
    """Return how far the torsion bar of a corner turns for a millimetre of its wheel, degrees; nan where its linkage has none."""
    try:
        body = body_named(plan, corner)
    except ReadyCornerError:
        return float("nan")
    if body.is_axle or not body.torsions:
        return float("nan")
    return abs(float(sweep(body, np.zeros(1)).answers[f"{body.torsions[0].name}.deg_per_mm"][0]))


def _end(
    plan: Plan, bodies: tuple[Body, ...], load: FloatArray | None
) -> tuple[FloatArray, FloatArray, float, FloatArray] | None:
    """Return stiffness (2, 2), ratios (2, 2) of an end, its bar's turning in degrees per mm and its ``bends`` (2,); None where no spring has a rate."""
    if not bodies or not all(any(s.rate for s in b.springs) or any(t.rate for t in b.torsions) for b in bodies):
        return None
    if len(bodies) == 2:
        found = [_corner(b, None if load is None else float(load[i])) for i, b in enumerate(bodies)]
        return np.diag([f[0] for f in found]), np.diag([f[1] for f in found]), found[0][2], np.array([f[3] for f in found])
    return *_axle(plan, bodies[0]), np.zeros(2)


def _corner(body: Body, load: float | None) -> tuple[float, float, float, float]:
    answers = sweep(body, np.zeros(1)).answers
    named = [*(s.name for s in body.springs if s.rate), *(t.name for t in body.torsions if t.rate)]
    rates = [float(answers[f"{name}.wheel_rate"][0]) for name in named]
    spring = next((s for s in body.springs if s.rate), None)
    ratio = float(answers[f"{spring.name}.ratio"][0]) if spring else 1.0
    rate = sum(rates)
    if spring and spring.rate and load is not None and len(rates) == 1:
        # The force is what the corner carries, wherever the perch is; the sweep can only take the free length between the eyes.
        rate = spring.rate * ratio**2 + load / ratio * float(answers[f"{spring.name}.ratio_per_mm"][0])
    bar = answers.get("bar.deg_per_mm")
    bends = abs(1 - spring.rate * ratio**2 / rate) if spring and spring.rate and len(rates) == 1 and rate else 0.0
    return rate, ratio, abs(float(bar[0])) if bar is not None else float("nan"), bends


def _axle(plan: Plan, body: Body) -> tuple[FloatArray, FloatArray, float]:
    """Return stiffness and ratios of a live axle between its two wheels: its springs move in heave and in roll."""
    step = np.radians(ROLL_STEP_DEG)
    still = sweep(body, np.zeros(1)).shared
    rolled = sweep(body, np.zeros(2), roll_deg=np.array([-ROLL_STEP_DEG, ROLL_STEP_DEG])).shared
    wide = abs(body.shape.point(body.wheels[0].centre)[1] - body.shape.point(body.wheels[1].centre)[1])
    rows, rates = [], []
    for spring in (s for s in body.springs if s.rate):
        heave = float(still[f"{spring.name}.ratio"][0])
        low, high = rolled[f"{spring.name}.length"]
        roll = float(low - high) / (2 * wide * np.tan(step))  # shortening per mm of difference between the wheels
        rows.append([heave / 2 + roll, heave / 2 - roll])
        rates.append(
            float(spring.rate or 0.0)
            + float(still[f"{spring.name}.wheel_rate"][0] - (spring.rate or 0.0) * heave**2) / max(heave**2, 1e-9)
        )
    j = np.array(rows)
    if j.shape != (2, 2):
        rate = float(np.sum(rates)) / 2
        return np.eye(2) * rate, np.eye(2), float("nan")
    left_first = j if j[0, 0] >= j[1, 0] else j[::-1]
    kept = np.array(rates if j[0, 0] >= j[1, 0] else rates[::-1])
    return left_first.T @ np.diag(kept) @ left_first, left_first, float("nan")


def raises(plan: Plan, springs: Springing) -> FloatArray:
    """Return the mm that each corner is raised, at unchanged load, per turn of each perch, (4 corners, 4 perches); nan for a perch not named.

    Source: stiffness matrices of springs, bars and tyres, docs/stance.md.
    """
    named = [plan.perch(c) for c in CORNERS]
    return np.column_stack([np.full(4, np.nan) if p is None else raised_by(p, springs) for p in named])


def raised_by(adjuster: Adjuster, springs: Springing) -> FloatArray:
    """Return the mm that each corner is raised, at unchanged load, (4,), per turn (spline) of what raises one.

    For independent wheels pitch / ratio; on an axle a perch also lowers the other side, where the springs stand inboard of the wheels.
    Source: stiffness matrices of springs, bars and tyres, docs/stance.md.
    """
    assert isinstance(adjuster.by, RAISERS)
    return np.asarray(np.linalg.inv(springs.ratios)[:, CORNERS.index(adjuster.corner)] * adjuster.by.per_step)


def car_of(plan: Plan, pads: Sequence[float] = (0.0, 0.0, 0.0, 0.0), bars_on: bool = False) -> Car:
    """Return the car of a plan on its springs, its chassis at the stance of the drawing (heights 0 at the wheels) with level pads and its perches as they are.

    Loads are then the plan's shares. pads: heights of the four pads in mm. Raises MeasuredError where the plan has no weight, PlannedError without a linkage.
    Source: stiffness matrices of springs, bars and tyres, docs/stance.md.
    """
    feet, springs, carried = plan.footing, springing(plan), sprung_loads(plan)
    if feet.mass is None or carried is None:
        raise MeasuredError(finding("car.no-weight"), path="footing.mass")
    if not springs.known:
        raise MeasuredError(finding("car.no-springs"), path="springs")
    pressed = np.linalg.solve(springs.stiffness, carried)
    corners, at = [], places(plan)
    for i, c in enumerate(CORNERS):
        linkage, unsprung, perch = plan.linkage(END_OF[c]), feet.end(END_OF[c]).unsprung or 0.0, plan.perch(c)
        assert linkage
        other = i + 1 if i % 2 == 0 else i - 1
        low, high = perch.room(0.0) if perch else (0.0, 0.0)
        corners.append(
            CornerSpring(
                float(at[i, 0]),
                float(at[i, 1]),
                float(springs.stiffness[i, i] + springs.stiffness[i, other]),
                1.0,
                float(pressed[i]) - linkage.loaded_radius,
                linkage.loaded_radius + float(carried[i] + unsprung * GRAVITY) / float(springs.tyres[i]),
                float(springs.tyres[i]),
                unsprung,
                float(pads[i]),
                low=low,
                high=high,
            )
        )
    coupled = [-float(springs.stiffness[i, i + 1]) for i in (0, 2)]  # the springs of an axle, which stand inboard of its wheels
    bars = [-float(springs.bars[i, i + 1]) if bars_on else 0.0 for i in (0, 2)]
    sprung = carried / GRAVITY
    cg = (float(sprung @ at[:, 0] / sprung.sum()), float(sprung @ at[:, 1] / sprung.sum()))
    turned = np.nan_to_num(raises(plan, springs))
    return Car(
        (corners[0], corners[1], corners[2], corners[3]),
        float(sprung.sum()),
        cg,
        bars[0],
        bars[1],
        turned,
        (coupled[0], coupled[1]),
    )
