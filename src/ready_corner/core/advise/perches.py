"""Which perches to turn: for four heights, for cross weight with the heights kept, or for both; fewest corners, whole flats, within the thread.

Source: balance of four springs under a rigid chassis; docs/stance.md, docs/choices.md (Turning).
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.advise.corner import caution_of
from ready_corner.core.advise.perch_factors import PerchFactors, perch_factors
from ready_corner.core.engines.statics.springs import GRAVITY
from ready_corner.core.judge.marks import Evaluation
from ready_corner.core.model.four_springs import fewest_flats, kept_heights
from ready_corner.core.model.springs_of_plan import Response, Springing, places, raises, response, sprung_loads
from ready_corner.core.plan.corners import CORNERS, Corner
from ready_corner.core.plan.footing import School
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.verdict import Aim

FloatArray = NDArray[np.float64]

CROSS = "car.cross_weight"
NOMINAL_KG = 600.0  # where nothing tells the weight; it only scales what a turn does to the cross weight


@dataclass(frozen=True)
class Perches:
    """What the perches do on this car. ``heights`` (4 places, 4 perches) mm a turn, ``loads`` (4, 4) kg a turn, ``cross`` (4,) percent a turn.

    ``low``, ``high``: turns left; ``factors``: what the car has told of them. All with that counted in.
    """

    heights: FloatArray
    loads: FloatArray
    cross: FloatArray
    low: FloatArray
    high: FloatArray
    factors: PerchFactors


@dataclass(frozen=True)
class PerchStep:
    """One perch to turn: turns with their sign, the way to wind it, what to do as a sentence, and the caution at that step."""

    corner: Corner
    adjuster: str
    amount: float
    way: str
    said: Finding
    caution: Finding


@dataclass(frozen=True)
class Turning:
    """The perches to turn and what that comes to: heights in mm and cross weight in percent then (None where it was not read), and why it falls short."""

    school: School
    steps: tuple[PerchStep, ...]
    heights: tuple[float, ...]
    cross: float | None
    short: tuple[Finding, ...]


def perches(evaluation: Evaluation, springs: Springing) -> Perches | None:
    """Return what the perches do, by the plan's springs and what the car has told; None where a corner has no perch named."""
    plan = evaluation.state.plan
    found = [plan.perch(c) for c in CORNERS]
    if any(p is None for p in found):
        return None
    does: Response = response(places(plan), springs.supports(on := evaluation.state.condition.bar_connected), springs.lifts(on))
    per, there = raises(plan, springs), np.array([[p.station, p.offset] for p in (plan.height_place(c) for c in CORNERS)])
    heights, loads = does.at_places(there) @ per, does.loads @ per / GRAVITY
    total = total_kg(evaluation) or NOMINAL_KG
    cross = 100 * (loads[1] + loads[2]) / total
    learned = perch_factors(evaluation, heights, cross)
    room = np.array([p.room(evaluation.state.moved.get(p.id, 0.0)) for p in found if p])
    return Perches(
        heights * learned.factors,
        loads * learned.factors * learned.cross_factor,
        cross * learned.factors * learned.cross_factor,
        room[:, 0],
        room[:, 1],
        learned,
    )


def total_kg(evaluation: Evaluation) -> float | None:
    """Return the weight on the four wheels: by the scales where all four were read, else by the plan."""
    loads = [evaluation.mark(f"{c}.load").value for c in CORNERS]
    if all(v is not None for v in loads):
        return sum(v for v in loads if v is not None)
    return evaluation.state.plan.footing.mass


def turning(
    plan: Plan,
    does: Perches,
    school: School,
    now: FloatArray,
    aims: tuple[Aim, ...],
    cross: float | None,
    cross_aim: Aim | None,
    loads: FloatArray | None = None,
    sure: Sequence[float] = (0.0, 0.0, 0.0, 0.0, 0.0),
) -> Turning:
    """Return the perches to turn. now: the four heights in mm; cross: percent; loads: kg the springs carry, where they were read.
    sure: U of the heights and the cross weight; the turns aim at what would hold beyond doubt, not at the edge of the tolerance.

    By weight the heights are kept as near as flats allow. Falls back to heights where there is no cross weight to go by.
    """
    if cross is None or cross_aim is None:
        school = "height"
    wanted, tolerance = np.array([a.aim for a in aims]), np.array([a.tolerance for a in aims])
    rows = does.heights / tolerance[:, None]
    missed = np.array([-a.to_go(float(h)) for a, h in zip(aims, now - wanted, strict=True)])
    off = (np.zeros(len(aims)) if school == "weight" else missed) / tolerance
    if school != "height" and cross is not None and cross_aim is not None:
        rows = np.vstack([rows, does.cross / cross_aim.tolerance])
        off = np.append(off, -cross_aim.to_go(cross - cross_aim.aim) / cross_aim.tolerance)
    doubt = np.array(sure[: len(off)]) / np.append(tolerance, cross_aim.tolerance if cross_aim else 1.0)[: len(off)]
    within = np.maximum(1 - doubt, 0.5)  # of the tolerance; half of it where the tools could not tell anyway
    if school == "weight":
        turns = kept_heights(does.low, does.high, does.heights, rows[4] / within[4], float(off[4] / within[4]))
    else:
        turns = fewest_flats(does.low, does.high, rows / within[:, None], off / within, np.zeros(4))
    heights = now + does.heights @ turns
    after = None if cross is None else cross + float(does.cross @ turns)
    short, slack = _short(does, rows, off, turns, tolerance, after), _slack(plan, does, turns, loads)
    return Turning(school, steps(plan, turns), tuple(heights.tolist()), after, tuple(w for w in (short, slack) if w))


def steps(plan: Plan, turns: FloatArray) -> tuple[PerchStep, ...]:
    """Return the perches to turn, an end at a time, so that each end is lifted once."""
    rows = []
    for corner, amount in zip(CORNERS, turns, strict=True):
        adjuster = plan.perch(corner)
        if amount and adjuster:
            way = adjuster.way(float(amount))
            rows.append(
                PerchStep(
                    corner,
                    adjuster.id,
                    float(amount),
                    way,
                    finding(
                        "perch.wind", corner=corner, name=adjuster.name if adjuster.screw else "", way=way, turns=float(amount)
                    ),
                    caution_of(adjuster),
                )
            )
    return tuple(rows)


def _slack(plan: Plan, does: Perches, turns: FloatArray, loads: FloatArray | None) -> Finding | None:
    """Return which spring would carry nothing, if one would."""
    if loads is None and (carried := sprung_loads(plan)) is not None:
        loads = carried / GRAVITY
    if loads is None:
        return None
    empty = [c for c, kg in zip(CORNERS, loads + does.loads @ turns, strict=True) if kg <= 0]
    return finding("perch.slack", corners=empty) if empty else None


def _short(
    does: Perches, rows: FloatArray, off: FloatArray, turns: FloatArray, tolerance: FloatArray, cross: float | None
) -> Finding | None:
    """Return what cannot be met, why, and how near it comes. rows, off: the aims as they were solved; tolerance: of the heights, mm."""
    missed = off + rows @ turns
    if np.abs(missed).max() <= 1 + 1e-9:
        return None
    free = np.linalg.lstsq(rows, -off, rcond=None)[0]  # as if no thread ended
    if np.abs(off + rows @ free).max() < np.abs(missed).max() - 0.05:
        past = [c for c, t, a, b in zip(CORNERS, free, does.low, does.high, strict=True) if not a <= t <= b]
        why = finding("perch.thread-ends", corners=past) if past else finding("perch.no-flats")
    else:
        why = finding("perch.rigid")
    left = []
    if len(missed) > 4 and abs(missed[4]) > 1 and cross is not None:
        left.append(finding("car.cross-comes-to", percent=cross))
    worst = int(np.argmax(np.abs(missed[:4])))
    if abs(missed[worst]) > 1:
        size, high = abs(float(missed[worst] * tolerance[worst])), bool(missed[worst] > 0)
        left.append(finding("perch.corner-left", corner=CORNERS[worst], off=size, high=high))
    return finding("perch.short", why=why, left=left)
