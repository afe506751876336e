"""Stage Travel: curves over travel, steering or roll, what if something moved, and the levers of a figure."""

import math
from typing import Annotated, Any, Literal

import numpy as np
from fastapi import APIRouter
from pydantic import Field

from ready_corner.border.base import Model, Name
from ready_corner.border.entries import Typed
from ready_corner.core.engines.linkage.named import named, shown
from ready_corner.core.engines.linkage.space import Array
from ready_corner.core.model.moving import moving
from ready_corner.core.model.study import Change, Curve, Limit, Over, Study, levers, spread_of
from ready_corner.core.plan.corners import End
from ready_corner.core.plan.names import say_point
from ready_corner.core.quantities.measured import COVERAGE
from ready_corner.core.quantities.notation import Units, read
from ready_corner.web.said import all_said, said
from ready_corner.web.view import View
from ready_corner.web.workshop import TheWorkshop
from ready_corner.workshop import Workshop

router = APIRouter()
SIXTEENTH_MM = 25.4 / 16


class ChangeIn(Model):
    """A point moved along x, y or z (axis 0, 1, 2) or a member made longer (no axis), as typed in shop notation."""

    name: Name
    axis: Literal[0, 1, 2] | None = None
    typed: Typed


Place = tuple[float, float, float]


class StudyIn(Model):
    """Which curves are asked: an end over a drive, in mm or degrees, as planned or as built (with the points measured), with something moved."""

    end: End
    over: Literal["travel", "steer", "roll"] = "travel"
    low: float = -60.0
    high: float = 60.0
    rows: Annotated[int, Field(ge=2, le=401)] = 61
    changes: list[ChangeIn] = Field(default=[], max_length=20)
    lengths: Literal["kept", "anew"] = "kept"
    built: bool = False


class CurveView(View):
    """One answer over the rows; ``right`` is null where it belongs to both wheels."""

    answer: str
    label: str
    unit: str
    digits: int
    plus: str
    left: list[float | None]
    right: list[float | None] | None


class LimitView(View):
    """How near something comes to its limit; minus is past it. ``shares``: what is left of its range, row by row, of ``part`` of ``body``."""

    what: str
    left: float
    unit: str
    at: float
    body: str
    part: str
    shares: list[float | None]
    say: str


class StudyView(View):
    """Curves over a drive, and what comes nearest to its limit, worst first; all in the units of the car."""

    drive: list[float]
    unit: str
    curves: list[CurveView]
    warnings: list[str]
    limits: list[LimitView]


class PartView(View):
    """A part drawn as a line: its two ends over the rows, each (forward, left, up) in mm; null where it was not reached."""

    name: str
    kind: str
    ends: list[tuple[Place, Place] | None]


class WheelView(View):
    """A wheel over the rows: its centre in mm, its spin axis outboard, and its loaded radius in mm."""

    centre: list[Place | None]
    axis: list[Place | None]
    radius: float


class BodyView(View):
    """A corner or an axle as it moves."""

    body: str
    parts: list[PartView]
    wheels: list[WheelView]


class SpreadView(View):
    """How far a figure scatters (U, about 95 of 100 cars), by drawn cars and by slopes."""

    label: str
    unit: str
    digits: int
    drawn: float
    linear: float


class LeverView(View):
    """What a small step of one point or member does: a millimetre, or a sixteenth of an inch."""

    name: str
    axis: int | None
    say: str
    does: float
    spoils: list[str]


def _plain(values: Array) -> list[float | None]:
    """Return values for a plot: to 1e-7, a third of the length of all their digits."""
    rounded: list[float | None] = np.round(values, 7).tolist()
    return rounded if np.isfinite(values).all() else [v if v is not None and math.isfinite(v) else None for v in rounded]


def _curve(curve: Curve, inches: bool) -> CurveView:
    said = curve.said
    unit, factor, digits = shown(said.unit, said.digits, inches)
    right = None if curve.right is None else _plain(curve.right * factor)
    return CurveView(
        answer=curve.answer,
        label=said.label,
        unit=unit,
        digits=digits,
        plus=said.plus,
        left=_plain(curve.left * factor),
        right=right,
    )


def _limit(limit: Limit, drive: float, over: Over, units: Units) -> LimitView:
    unit, factor, _ = shown(limit.unit, 1, units.inches)
    return LimitView(
        what=limit.what,
        left=limit.left * factor,
        unit=unit,
        at=limit.at * drive,
        body=limit.body,
        part=limit.part,
        shares=_plain(limit.shares),
        say=said(limit.said(over), units),
    )


@router.post("/cars/{slug}/travel/moving")
def parts_moving(slug: str, asked: StudyIn, workshop: TheWorkshop) -> list[BodyView]:
    """Return where every part of an end is over a drive, to a hundredth of a millimetre: the linkage as it moves, in one answer."""
    found = _study(slug, asked, workshop)
    return [
        BodyView(
            body=b.body,
            parts=[PartView(name=p.name, kind=p.kind, ends=_places(p.ends, 2)) for p in b.parts],
            wheels=[WheelView(centre=_places(w.centre, 2), axis=_places(w.axis, 7), radius=w.radius) for w in b.wheels],
        )
        for b in map(moving, found.swept)
    ]


def _places(values: Array, digits: int) -> list[Any]:
    reached = [bool(np.isfinite(v).all()) for v in values]
    return [v if ok else None for v, ok in zip(np.round(values, digits).tolist(), reached, strict=True)]


def _study(slug: str, asked: StudyIn, workshop: Workshop) -> Study:
    units = workshop.state(slug).plan.units
    changes = [Change(c.name, c.axis, read(c.typed, "length", units).value) for c in asked.changes]
    return workshop.study(slug, asked.end, asked.over, (asked.low, asked.high, asked.rows), changes, asked.lengths, asked.built)


@router.post("/cars/{slug}/travel")
def travel(slug: str, asked: StudyIn, workshop: TheWorkshop) -> StudyView:
    """Return the curves of an end of the car, as planned or with something moved."""
    units = workshop.state(slug).plan.units
    found = _study(slug, asked, workshop)
    unit, factor, _ = shown("°" if asked.over == "roll" else "mm", 1, units.inches)
    return StudyView(
        drive=(found.drive * factor).round(7).tolist(),
        unit=unit,
        curves=[_curve(c, units.inches) for c in found.curves],
        warnings=all_said(found.warnings, units),
        limits=[_limit(limit, factor, asked.over, units) for limit in found.limits],
    )


@router.get("/cars/{slug}/levers")
def levers_of(slug: str, end: End, answer: Name, workshop: TheWorkshop) -> list[LeverView]:
    """Return which points and members move a figure most, per mm, and what else they move."""
    plan = workshop.state(slug).plan
    inches = plan.units.inches
    step = SIXTEENTH_MM if inches else 1.0
    rows = []
    for lever in levers(plan, end, answer):
        way = "" if lever.parameter.axis is None else f", {('forward', 'left', 'up')[lever.parameter.axis]}"
        spoils = [s for a, worth in lever.spoils if (s := _spoils(a, worth * step, inches))]
        longer = "" if lever.parameter.axis is not None else " longer"
        said = named(answer)
        rows.append(
            LeverView(
                name=lever.parameter.name,
                axis=lever.parameter.axis,
                say=f"{say_point(lever.parameter.name)}{way}{longer}",
                does=lever.does * step * shown(said.unit if said else "", 0, inches)[1],
                spoils=spoils[:3],
            )
        )
    return rows


@router.get("/cars/{slug}/spread")
def spread(slug: str, end: End, typed: Typed, workshop: TheWorkshop) -> list[SpreadView]:
    """Return how far the figures of the left wheel scatter, each point being sure to ± what was typed."""
    plan = workshop.state(slug).plan
    found = spread_of(plan, end, read(typed, "length", plan.units).value)
    rows = []
    for name, u in found.drawn.items():
        said = named(name.removeprefix("left."))
        assert said
        unit, factor, digits = shown(said.unit, said.digits, plan.units.inches)
        rows.append(
            SpreadView(
                label=said.label,
                unit=unit,
                digits=digits,
                drawn=COVERAGE * u * factor,
                linear=COVERAGE * found.linear[name] * factor,
            )
        )
    return rows


def _spoils(answer: str, worth: float, inches: bool) -> str:
    """Return what a lever does to another figure in words; empty where that is nothing."""
    said = named(answer)
    if said is None:
        return ""
    unit, factor, digits = shown(said.unit, said.digits, inches)
    worth *= factor
    if abs(worth) <= 10 ** -(digits + 1):
        return ""
    return f"{said.label.lower()} {worth:+.{digits + 1}f}{unit}".replace(" -", " −")
