"""What a turn of every adjuster does by the plan to every corner mark: its own camber and toe, and through springs and tyres heights, loads and the other corners.

Small changes about the plan's stance. A link first moves its wheel with the spring keeping its length; what that lifts the chassis by, and
what a perch lifts it by, is shared out by the least energy of a stiff chassis on its springs and tyres; camber and toe then go with the
travel of each wheel and, relative to the ground, with the roll of the body. A live axle is one part.
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.errors import ReadyCornerError
from ready_corner.core.linkage.planned import bodies_of
from ready_corner.core.linkage.sweep import Sweep, sweep
from ready_corner.core.linkage.worth import Hold, sensitivities
from ready_corner.core.logbook import LOAD, TYRE
from ready_corner.core.plan import CORNERS, END_OF, ENDS, SIDE, Adjuster, Corner, Perch, Plan
from ready_corner.core.setting.learn import Worth
from ready_corner.core.setting.predicted import LEAST_DEG, PART_TRUSTED, parts_of
from ready_corner.core.stance.model import ROLL_STEP_DEG, Response, Springing, places, raises, response
from ready_corner.core.stance.springs import GRAVITY

FloatArray = NDArray[np.float64]

# Standard uncertainties. Springs of the plan are seldom known better than to a tenth; even springs taken for want of it, than to two fifths.
SPRINGS_TRUSTED, SPRINGS_GUESSED = 0.1, 0.4
LEAST_MM, LEAST_KG = 0.02, 0.05  # a turn
UNTOLD_PER_MM = {"camber": 0.05, "toe": 0.02}  # degrees a millimetre of travel, of a wheel whose linkage the plan does not tell
LEAST_PER_MM = 0.003


@dataclass(frozen=True)
class Wheels:
    """How camber and toe (4,) of the wheels go with their travel (4,): rows (4, 4) degrees a mm, nan where the plan does not tell; ``axle`` (4,) of bool."""

    camber: FloatArray
    toe: FloatArray
    axle: FloatArray


def reach(plan: Plan, springs: Springing, bar_on: bool) -> dict[str, Worth]:
    """Return what one turn (or shim) of each adjuster adds to each corner mark, by mark: mm, degrees, kg, with their covariance.

    An adjuster of which the plan does not say what it moves is left out.
    """
    at, supports = places(plan), springs.supports(bar_on)
    there = np.array([[p.station, p.offset] for p in (plan.height_place(c) for c in CORNERS)])
    lifted, turned = response(at, supports), response(at, supports, springs.lifts(bar_on))
    per, wheels = raises(plan, springs), wheels_of(plan)
    trusted = SPRINGS_TRUSTED if springs.known else SPRINGS_GUESSED
    links = _links(plan)
    found: dict[str, dict[str, tuple[float, float]]] = {
        f"{c}.{k}": {} for c in CORNERS for k in ("height", "camber", "toe", "load")
    }
    for adjuster in plan.adjusters:
        if isinstance(adjuster.by, Perch):
            rise = per[:, CORNERS.index(adjuster.corner)]
            rise, own, how = (rise, {}, turned) if np.isfinite(rise).all() else (_alone(adjuster), {}, turned)
        elif adjuster.id in links:
            own, how = links[adjuster.id], lifted
            rise = np.array([own.get((c, "rise"), 0.0) for c in CORNERS])
        else:
            continue
        _add(found, adjuster.id, rise, own, how, there, springs, wheels, trusted)
    for i, c in enumerate(CORNERS):
        _add(found, TYRE[c], np.eye(4)[i], {}, lifted, there, springs, wheels, trusted, extended=True)
    _weights(found, at, supports, there, springs, wheels, trusted)
    return {mark: _worth(rows) for mark, rows in found.items()}


def _weights(
    found: dict[str, dict[str, tuple[float, float]]],
    at: FloatArray,
    supports: FloatArray,
    there: FloatArray,
    springs: Springing,
    wheels: Wheels,
    trusted: float,
) -> None:
    """Add what a kilogram put into the car does, at the origin, and a kilogram's millimetre forward or left of it."""
    p = np.column_stack([np.ones(4), at])
    stiff = p.T @ supports @ p
    for name, one in zip(LOAD, -GRAVITY * np.eye(3), strict=True):
        q = np.linalg.solve(stiff, one)
        how = Response(at, np.outer(p @ q, np.ones(4)) / 4, np.outer(-supports @ (p @ q), np.ones(4)) / 4)
        least = name == LOAD[0]
        _add(found, name, np.ones(4), {}, how, there, springs, wheels, trusted, scale=1.0 if least else 0.0)


def warped(plan: Plan, springs: Springing, wheels: Wheels, rises: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Return what pads off one plane by ``rises`` (4,) mm do to camber and toe (4,) degrees: each wheel travels, and the body leans."""
    how = response(places(plan), springs.supports())
    heights, loads = how.heights @ rises, how.loads @ rises
    travel = rises - heights - loads / springs.tyres
    lean = [np.degrees((heights[i] - heights[i + 1]) / (how.at[i, 1] - how.at[i + 1, 1])) for i in (0, 0, 2, 2)]
    camber, toe = np.nan_to_num(wheels.camber) @ travel, np.nan_to_num(wheels.toe) @ travel
    for i, c in enumerate(CORNERS):
        if wheels.axle[i]:  # a live axle lies on its two pads
            first = i - i % 2
            camber[i] = -SIDE[c] * np.degrees((rises[first] - rises[first + 1]) / (how.at[first, 1] - how.at[first + 1, 1]))
        else:
            camber[i] -= SIDE[c] * lean[i]
    return camber, toe


def _alone(adjuster: Adjuster) -> FloatArray:
    """Return what a turn of a perch raises its own corner by at unchanged load, where not every corner has a perch named."""
    assert isinstance(adjuster.by, Perch)
    rise = np.zeros(4)
    rise[CORNERS.index(adjuster.corner)] = adjuster.by.pitch_mm_per_turn / adjuster.by.spring_per_wheel
    return rise


def _add(
    found: dict[str, dict[str, tuple[float, float]]],
    name: str,
    rise: FloatArray,
    own: Mapping[tuple[Corner, str], float],
    how: Response,
    there: FloatArray,
    springs: Springing,
    wheels: Wheels,
    trusted: float,
    extended: bool = False,
    scale: float = 1.0,
) -> None:
    heights, loads = how.heights @ rise, how.loads @ rise
    # A link and a tyre move the wheel itself; a perch and a load only the chassis.
    travel = (rise if own or extended else np.zeros(4)) - heights - loads / springs.tyres
    for kind, values, least in (("height", how.at_places(there) @ rise, LEAST_MM), ("load", loads / GRAVITY, LEAST_KG)):
        for c, v in zip(CORNERS, values, strict=True):
            found[f"{c}.{kind}"][name] = float(v), trusted * abs(float(v)) + (least * scale if rise.any() else 0.0)
    lean = [np.degrees((heights[i] - heights[i + 1]) / (how.at[i, 1] - how.at[i + 1, 1])) for i in (0, 0, 2, 2)]
    for i, c in enumerate(CORNERS):
        for kind, rows in (("camber", wheels.camber), ("toe", wheels.toe)):
            direct = own.get((c, kind), 0.0)
            told = bool(np.isfinite(rows[i]).all())
            with_travel = float(rows[i] @ travel) if told else 0.0
            if kind == "camber" and not wheels.axle[i]:
                with_travel -= SIDE[c] * float(lean[i])
            u = PART_TRUSTED * abs(direct) + (LEAST_DEG if (c, kind) in own else 0.0) + trusted * abs(with_travel)
            u += (LEAST_PER_MM if told else UNTOLD_PER_MM[kind]) * abs(float(travel[i]))
            found[f"{c}.{kind}"][name] = direct + with_travel, u


def _worth(rows: Mapping[str, tuple[float, float]]) -> Worth:
    u = np.array([u for _, u in rows.values()])
    return Worth(tuple(rows), tuple(v for v, _ in rows.values()), tuple(map(tuple, np.diag(u**2).tolist())))


def _swept(plan: Plan) -> dict[Corner, Sweep]:
    """Return the linkage of each corner at the plan's stance; the same for both corners of an axle, absent where the plan has none."""
    found: dict[Corner, Sweep] = {}
    for end in ENDS:
        corners = [c for c in CORNERS if END_OF[c] == end]
        try:
            bodies = bodies_of(plan, end)
            rows = [sweep(body, np.zeros(1)) for body in bodies]
        except ReadyCornerError:
            continue
        if rows:
            found |= dict(zip(corners, rows if len(rows) == 2 else rows * 2, strict=True))
    return found


def wheels_of(plan: Plan) -> Wheels:
    """Return how camber and toe go with travel by the plan's linkages; reckoned once for a plan."""
    camber, toe, axle = np.full((4, 4), np.nan), np.full((4, 4), np.nan), np.zeros(4, dtype=bool)
    swept = _swept(plan)
    for i, c in enumerate(CORNERS):
        if c not in swept:
            continue
        body, answers = swept[c].body, swept[c].answers
        camber[i], toe[i] = 0.0, 0.0
        if not body.is_axle:
            camber[i, i], toe[i, i] = float(answers["camber_deg_per_mm"][0]), float(answers["toe_deg_per_mm"][0])
            continue
        side, first = ("left." if SIDE[c] > 0 else "right."), i - i % 2
        rolled = sweep(body, np.zeros(2), roll_deg=np.array([-ROLL_STEP_DEG, ROLL_STEP_DEG])).answers[f"{side}toe_deg"]
        wide = abs(body.shape.point(body.wheels[0].centre)[1] - body.shape.point(body.wheels[1].centre)[1])
        heave = float(answers[f"{side}toe_deg_per_mm"][0]) / 2
        by_roll = float(rolled[1] - rolled[0]) / (2 * ROLL_STEP_DEG) * float(np.degrees(1 / wide))
        toe[i, first], toe[i, first + 1] = heave + by_roll, heave - by_roll
        axle[i] = True
    return Wheels(camber, toe, axle)


def _links(plan: Plan) -> dict[str, dict[tuple[Corner, str], float]]:
    """Return what one turn of each link does to camber and toe (degrees) of the wheels it moves, their springs keeping their length, and to
    how far each wheel then stands out under the chassis (“rise”, mm)."""
    found: dict[str, dict[tuple[Corner, str], float]] = {}
    swept = _swept(plan)
    for corner in CORNERS:
        own = [a for a in plan.adjusters if a.corner == corner and a.moves and not isinstance(a.by, Perch)]
        if not own or corner not in swept:
            continue
        body = swept[corner].body
        wanted = list(dict.fromkeys(p for a in own for p, _ in parts_of(a)))
        hold: Hold = "spring" if body.springs and not body.is_axle else "travel"
        by = sensitivities(swept[corner], wanted, hold, rates=False)
        corners = [c for c in CORNERS if END_OF[c] == END_OF[corner]] if body.is_axle else [corner]
        for adjuster in own:
            rows = found[adjuster.id] = {}
            for c in corners:
                side = ("left." if SIDE[c] > 0 else "right.") if body.is_axle else ""
                for kind, answer, sign in (("camber", "camber_deg", 1.0), ("toe", "toe_deg", 1.0), ("rise", "contact_z", -1.0)):
                    per_mm = sum(float(by[side + answer][wanted.index(p), 0]) * weight for p, weight in parts_of(adjuster))
                    rows[c, kind] = sign * per_mm * adjuster.length_per_step
    return found
