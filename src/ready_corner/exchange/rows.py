"""Sweeps as open rows: JSON and CSV, and points as CSV. What is not known is null, or an empty field."""

import csv
import io
import math
from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from ready_corner.core.engines.linkage.answers import axis_joints
from ready_corner.core.engines.linkage.space import Array
from ready_corner.core.engines.linkage.sweep import Sweep, sweep
from ready_corner.core.model.bodies import body_named, sweep_end
from ready_corner.core.model.study import Over, limits_of
from ready_corner.core.plan.corners import END_OF, Corner, Point
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.notation import Units, read
from ready_corner.core.say.template import say_finding
from ready_corner.exchange.files import FileRefusedError

MOST_POINTS, MOST_LINES = 400, 450  # of a plan, and of a table with its headings
MOST_TOLD = 40  # wrong lines told one by one; more are counted


def sweep_rows(plan: Plan, corner: Corner, travel: Array, rack: Array | float) -> dict[str, Any]:
    """Return one wheel over travel and rack as open rows, with where its branch ends and what is to be warned of."""
    body = body_named(plan, corner)
    found = sweep(body, travel, rack)
    wheel = found.wheels[0 if len(found.wheels) == 1 or corner.startswith("L") else 1]
    drives = {"travel": found.poses.travel, "rack": found.poses.pose.steer}
    which = body.wheels[0 if len(found.wheels) == 1 or corner.startswith("L") else 1]
    return _table(plan, corner, drives, found.poses.converged, {**wheel, **found.shared}, [str(w) for w in found.warnings]) | {
        "steering_axis": _axis_words(axis_joints(body, which), wheel),
        "ends": [{"travel": e.travel, "rack": e.steer, "member": e.member} for e in found.ends],
        "limits": _limits(plan, [found], drives),
    }


DRIVEN: Mapping[str, Over] = {"travel": "travel", "heave": "travel", "rack": "steer", "roll_deg": "roll"}


def _limits(plan: Plan, sweeps: Sequence[Sweep], drives: Mapping[str, Array]) -> list[dict[str, Any]]:
    """Return what comes nearest to its limit over the rows, worst first, by the first drive that changes over them; each with its sentence."""
    name = next((n for n, v in drives.items() if v.max() > v.min()), next(iter(drives)))
    return [
        {"what": k.what, "left": k.left, "unit": k.unit, "at": k.at, "say": say_finding(k.said(DRIVEN[name]), plan.units)}
        for k in limits_of(sweeps, drives[name])
    ]


def _axis_words(joints: tuple[str, str] | None, wheel: Mapping[str, Array]) -> str:
    """Return what caster and the like are taken from; ``axis_pitch`` tells row by row where it is a screw."""
    if joints:
        return f"{joints[0]} to {joints[1]}"
    if "axis_pitch" not in wheel:
        return "none"
    return "screw of least pitch" if (abs(wheel["axis_pitch"]) > 0).any() else "pure rotation"


def pair_rows(plan: Plan, corner: Corner, heave: Array, roll_deg: Array | float, rack: Array | float) -> dict[str, Any]:
    """Return the end a corner belongs to over heave, roll and rack: both wheels, and what belongs to both."""
    end = END_OF[corner]
    found = sweep_end(plan, end, heave, rack, roll_deg)
    answers = {f"left.{k}": v for k, v in found.left.items()} | {f"right.{k}": v for k, v in found.right.items()} | found.pair
    if len(found.bodies) == 1:
        answers |= found.bodies[0].shared  # springs, dampers and links of an axle, which belong to neither wheel
    poses = [s.poses for s in found.bodies]
    good = poses[0].converged & poses[-1].converged
    roll = roll_deg + heave * 0
    drives = {"heave": heave + roll * 0, "rack": poses[0].pose.steer, "roll_deg": roll}
    ends = [{"travel": e.travel, "rack": e.steer, "member": f"{s.body.name} {e.member}"} for s in found.bodies for e in s.ends]
    limits = _limits(plan, found.bodies, drives)
    return _table(plan, end, drives, good, answers, [str(w) for s in found.bodies for w in s.warnings]) | {
        "ends": ends,
        "limits": limits,
    }


def _table(
    plan: Plan, what: str, drives: Mapping[str, Array], converged: Array, answers: Mapping[str, Array], warnings: Iterable[str]
) -> dict[str, Any]:
    rows: list[dict[str, Any]] = [
        {k: float(v[i]) for k, v in drives.items()}
        | {"converged": bool(converged[i])}
        | {k: _plain(v[i]) for k, v in answers.items()}
        for i in range(len(converged))
    ]
    return {
        "format": "ready-corner sweep",
        "version": 1,
        "plan": plan.name,
        "of": what,
        "rows": rows,
        "warnings": list(warnings),
    }


def _plain(value: float) -> float | None:
    return float(value) if math.isfinite(value) else None


def as_csv(rows: Iterable[Mapping[str, Any]]) -> str:
    """Return rows as CSV with their names on the first line."""
    rows = list(rows)
    out = io.StringIO()
    writer = csv.DictWriter(out, list(rows[0]) if rows else [], lineterminator="\n")
    writer.writeheader()
    writer.writerows({k: "" if v is None else v for k, v in row.items()} for row in rows)
    return out.getvalue()


def points_to_csv(points: Mapping[str, Point]) -> str:
    """Return points as CSV in millimetres: name, x, y, z, unit."""
    return as_csv({"name": n, "x": x, "y": y, "z": z, "unit": "mm"} for n, (x, y, z) in points.items())


def points_from_csv(text: str, units: Units) -> dict[str, Point]:
    """Return points from CSV or from cells pasted from a spreadsheet: name, x, y, z and, where it is given, unit.

    Figures are read in shop notation; without a unit they are in the car's. A first line of headings is passed over. Raises
    FileRefusedError with every line that is wrong.
    """
    lines = [line for line in text.splitlines() if line.strip()]
    if len(lines) > MOST_LINES:
        raise FileRefusedError([("", f"{len(lines)} lines are pasted; a plan holds at most {MOST_POINTS} points. Take the part that belongs to this car.")])  # fmt: skip
    mark = "\t" if any("\t" in line for line in lines) else ";" if all(line.count(";") >= 3 for line in lines) else ","
    points: dict[str, Point] = {}
    wrong: list[tuple[str, str]] = []
    try:
        rows = list(csv.reader(lines, delimiter=mark))
    except csv.Error as refusal:
        raise FileRefusedError(
            [("", f"This is no table of points: {refusal}. Paste name, x, y and z in four columns.")]
        ) from refusal
    for number, row in enumerate(rows, start=1):
        cells = [c.strip() for c in row]
        if number == 1 and cells[:1] and cells[0].lower() in ("name", "point"):
            continue
        if not 4 <= len([c for c in cells if c]) <= 5:
            wrong.append(
                (f"line {number}", f"“{mark.join(cells)[:60]}” is not name, x, y, z and unit. Give each its own column.")
            )
            continue
        name, *figures = cells[:4]
        unit = cells[4] if len(cells) > 4 else ""
        if name in points:
            wrong.append((f"line {number}", f"{name} stands here twice. Keep one of the lines."))
        try:
            x, y, z = (read(f"{f} {unit}".strip(), "length", units).value for f in figures)
            points[name] = (x, y, z)
        except ReadyCornerError as refusal:
            wrong.append((f"line {number}", f"{name}: {refusal.sentence}"))
    if len(wrong) > MOST_TOLD:
        wrong = [*wrong[:MOST_TOLD], ("", f"And {len(wrong) - MOST_TOLD} more lines are wrong.")]
    if wrong or not points:
        raise FileRefusedError(wrong or [("", "There is no point here. Paste name, x, y and z in four columns.")])
    return points
