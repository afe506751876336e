"""How the car stands against its plan by the four heights read, and which perches bring it there, all four reckoned together."""

from dataclasses import dataclass

import numpy as np

from ready_corner.core.errors import ReadyCornerError
from ready_corner.core.logbook import turn_words
from ready_corner.core.plan import CORNER_WORDS, CORNERS, END_OF, SIDE, Perch, Plan
from ready_corner.core.readiness.marks import Evaluation
from ready_corner.core.setting.corner import caution_of
from ready_corner.core.shop import Units, say_angle, say_length
from ready_corner.core.stance.attitude import Attitude, attitude_of
from ready_corner.core.stance.car import Car, CornerSpring, turns_for_heights
from ready_corner.core.stance.planned import at_work

TYRE_N_PER_MM = 200.0  # where no tyre was measured; a tyre of ten times the spring's rate hardly shares in what a perch does
NOMINAL_KG = 600.0  # what a perch does to the heights does not depend on it


@dataclass(frozen=True)
class PerchStep:
    """One perch to turn: turns with their sign, in words, and the caution at that step."""

    corner: str
    adjuster: str
    amount: float
    say: str
    caution: str


@dataclass(frozen=True)
class Stance:
    """How the car stands: ``attitude`` against the plan (None until four heights count), sentences, perches to turn, and the heights then, mm."""

    attitude: Attitude | None
    says: tuple[str, ...]
    perches: tuple[PerchStep, ...]
    expected: tuple[float, ...]
    why_not: str = ""


def stance(evaluation: Evaluation) -> Stance:
    """Return how the car stands and what brings it to its heights, with the fewest corners touched."""
    plan = evaluation.state.plan
    marks = [evaluation.mark(f"{c}.height") for c in CORNERS]
    aims = [m.aim.aim if m.aim else None for m in marks]
    read = [m.value if m.state not in ("unread", "moved since") else None for m in marks]
    if any(a is None for a in aims):
        return Stance(None, (), (), (), "Give every corner a wanted ride height in the plan.")
    if any(v is None for v in read):
        missing = [CORNER_WORDS[c] for c, v in zip(CORNERS, read, strict=True) if v is None]
        return Stance(None, (), (), (), f"Read the ride height of the {', '.join(missing)} first.")
    wanted, now = np.array(aims, dtype=float), np.array(read, dtype=float)
    at = [plan.height_place(c) for c in CORNERS]
    # The places in the axes of the car as planned: at the plan's stance each is its wanted height over the floor.
    present = attitude_of([(p.station, p.offset, h) for p, h in zip(at, wanted, strict=True)], [float(v) for v in now])
    says = _says(present, plan.units)
    if all(m.state == "holds" for m in marks):
        return Stance(present, says, (), tuple(now.tolist()), "Every height holds: leave the perches.")
    try:
        car = car_of(plan, evaluation)
    except ReadyCornerError as wrong:
        return Stance(present, says, (), (), wrong.sentence)
    if car is None:
        return Stance(
            present,
            says,
            (),
            (),
            "Name a spring perch at every corner, and the springs' rates, and the turns are reckoned for all four together.",
        )
    tolerance = np.array([m.aim.tolerance for m in marks if m.aim])
    turns, expected = turns_for_heights(car, np.array([[p.station, p.offset] for p in at]), now, wanted, tolerance)
    return Stance(
        present,
        says,
        _steps(plan, turns),
        tuple(expected.tolist()),
        "" if np.any(turns) else "No whole flat of any perch would better it.",
    )


def _says(present: Attitude, units: Units) -> tuple[str, ...]:
    rows = []
    if abs(present.height) > 0.05:
        rows.append(
            f"It stands {say_length(abs(present.height), units, denominator=0, unit=True)} {'high' if present.height > 0 else 'low'} at the front axle line"
        )
    if abs(present.pitch_deg) > 0.005:
        rows.append(
            f"{say_angle(abs(present.pitch_deg))} {'more nose down' if present.pitch_deg > 0 else 'less nose down'} than planned"
        )
    if abs(present.roll_deg) > 0.005:
        rows.append(f"its {'left' if present.roll_deg > 0 else 'right'} side up by {say_angle(abs(present.roll_deg))}")
    said = "; ".join(rows) + "." if rows else "It stands as planned."
    off = max(abs(v) for v in present.left)
    more = (
        (
            f"The four heights are {say_length(off, units, denominator=0, unit=True)} off one flat chassis: read them again, or the chassis is twisted.",
        )
        if off > 1.0
        else ()
    )
    return (said[:1].upper() + said[1:], *more)


def car_of(plan: Plan, evaluation: Evaluation) -> Car | None:
    """Return the springs of the car for what perches do to its heights; None where a perch or a rate is wanting. Raises PlannedError."""
    corners = []
    for corner in CORNERS:
        adjuster = next((a for a in plan.adjusters if a.corner == corner and isinstance(a.by, Perch)), None)
        if adjuster is None or not isinstance(adjuster.by, Perch) or plan.linkage(END_OF[corner]) is None:
            return None
        work = at_work(plan, corner, np.zeros(1))
        if not work:
            return None
        low, high = adjuster.room(evaluation.state.moved.get(adjuster.id, 0.0))
        x = 0.0 if END_OF[corner] == "front" else -plan.wheelbase
        rate, by = float(work[0].rate[0]), adjuster.by
        corners.append(
            CornerSpring(
                x,
                SIDE[corner] * plan.axle_of(corner).track / 2,
                rate,
                by.spring_per_wheel,
                500.0,
                300.0,
                TYRE_N_PER_MM,
                pitch=by.pitch_mm_per_turn,
                low=low,
                high=high,
            )
        )
    return Car((corners[0], corners[1], corners[2], corners[3]), NOMINAL_KG, (-plan.wheelbase / 2, 0.0))


def _steps(plan: Plan, turns: np.ndarray) -> tuple[PerchStep, ...]:
    """Return the perches to turn, an end at a time, so that each end is lifted once."""
    rows = []
    for corner, amount in zip(CORNERS, turns, strict=True):
        adjuster = next(a for a in plan.adjusters if a.corner == corner and isinstance(a.by, Perch))
        if amount:
            said = turn_words(adjuster, float(amount))
            way, much = said.rsplit(" ", 1)[1], said.rsplit(" ", 1)[0]
            rows.append(
                PerchStep(
                    corner,
                    adjuster.id,
                    float(amount),
                    f"Wind the {CORNER_WORDS[corner]} perch {way} {much}",
                    caution_of(adjuster),
                )
            )
    return tuple(rows)
