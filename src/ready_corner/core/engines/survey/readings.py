"""Readings of a survey: each is one number (or a comparison without one) about named points, as the tool gave it.

Axes of the survey: the table (or a level) is z = 0, the centreline y = 0 with left plus, the station line x = 0 with forward plus.
Lengths in mm, angles in degrees; u is the standard uncertainty of one reading without its tool's zero.

Source: vector algebra; docs/survey.md.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.quantities.errors import CalledError, MeasuredError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.naming import short_point

Array = NDArray[Any]  # of float64
Where = Sequence[float] | Array  # a place, (3,)
Kind = Literal["distance", "height", "offset", "station", "rise", "along", "across", "slope", "heading", "compare", "in_line"]
NOTICED_MM = 10.0  # a difference that is noticed and not measured may be as large as this, one standard uncertainty
Says = Literal["same", "shorter", "longer"]


@dataclass(frozen=True)
class KindFacts:
    """How many points a kind of reading is about, whether it is read in mm or degrees, and its words."""

    points: int
    unit: Literal["mm", "deg"]
    words: str


KINDS: Mapping[Kind, KindFacts] = {
    "distance": KindFacts(2, "mm", "distance, point to point"),
    "height": KindFacts(1, "mm", "height over the table"),
    "offset": KindFacts(1, "mm", "offset from the centreline, left plus"),
    "station": KindFacts(1, "mm", "distance from the station line, forward plus"),
    "rise": KindFacts(2, "mm", "height of the second over the first"),
    "along": KindFacts(2, "mm", "second forward of the first"),
    "across": KindFacts(2, "mm", "second left of the first"),
    "slope": KindFacts(2, "deg", "slope from the first up to the second"),
    "heading": KindFacts(2, "deg", "heading of the second from the first, off the centreline, left plus"),
    "compare": KindFacts(4, "mm", "first distance against the second"),
    "in_line": KindFacts(3, "mm", "the second in line with the first and the third"),
}


@dataclass(frozen=True)
class Reading:
    """One reading of the survey.

    ``points``: their names in the order of its kind. ``value`` in mm or degrees; of a comparison 0 for the same, minus or plus where the
    first distance is said to be shorter or longer. ``u``: standard uncertainty. ``tool``: shares its zero with the other readings of it;
    empty for none. ``state``: how the frame was held; readings of different states are never mixed.
    """

    id: str
    kind: Kind
    points: tuple[str, ...]
    value: float
    u: float
    tool: str = ""
    state: str = ""

    def __post_init__(self) -> None:
        facts = KINDS[self.kind]
        if len(self.points) != facts.points:
            raise CalledError(finding("survey.point-count", reading=facts.words, count=facts.points), path=f"{self.id}.points")
        if not (math.isfinite(self.value) and math.isfinite(self.u) and self.u > 0):
            raise MeasuredError(finding("survey.no-figure", reading=self.said), path=f"{self.id}.value")
        pairs = [self.points[:2], self.points[2:]] if self.kind == "compare" else [self.points]
        for names in pairs:
            if len(set(names)) < len(names):
                raise MeasuredError(finding("survey.from-itself", point=names[0]), path=f"{self.id}.points")
        if self.kind == "compare" and set(self.points[:2]) == set(self.points[2:]):
            raise MeasuredError(
                finding("survey.compared-with-itself", first=self.points[0], second=self.points[1]),
                path=f"{self.id}.points",
            )
        if self.kind == "distance" and self.value <= 0:
            raise MeasuredError(
                finding("survey.impossible", reading=self.said, value=self.value),
                path=f"{self.id}.value",
                numbers={"value": self.value},
            )

    @property
    def said(self) -> str:
        """What was read, in words, without its number."""
        names = [short_point(p) for p in self.points]
        match self.kind:
            case "distance":
                return f"{names[0]} to {names[1]}"
            case "compare":
                return f"{names[0]} to {names[1]} against {names[2]} to {names[3]}"
            case "in_line":
                return f"{names[1]} in line with {names[0]} and {names[2]}"
            case "height" | "offset" | "station":
                return f"{self.kind} of {names[0]}"
        return f"{self.kind} from {names[0]} to {names[1]}"


def compared(id_: str, points: tuple[str, str, str, str], says: Says, bound: float) -> Reading:
    """Return a comparison of two distances without a number; ``bound``: the difference in mm that would have been noticed.

    The same: 0, evenly likely within the bound. Shorter or longer: by the bound at least, and nobody said how much more; it pulls weakly
    that way, and calls no difference wrong that is only large. Source: JCGM 100:2008, 4.3.7.
    """
    if not bound > 0:
        raise MeasuredError(finding("survey.no-bound"), path="bound")
    if says == "same":
        return Reading(id_, "compare", points, 0.0, bound / math.sqrt(3))
    far = max(NOTICED_MM, 5 * bound)
    return Reading(id_, "compare", points, -(bound + far) if says == "shorter" else bound + far, far)


Pins = Literal["near_to_far", "outside", "inside"]


def between_pins(value: float, how: Pins, first_diameter: float, second_diameter: float) -> float:
    """Return the distance of two pins' centres from one between their edges, mm.

    near_to_far: from the near side of the first to the far side of the second (equal pins: the centre distance itself); outside to
    outside; inside to inside. Raises MeasuredError where that leaves nothing.
    Source: docs/survey.md.
    """
    half = first_diameter / 2, second_diameter / 2
    centre = value + {"near_to_far": half[0] - half[1], "outside": -half[0] - half[1], "inside": half[0] + half[1]}[how]
    if not centre > 0:
        raise MeasuredError(
            finding("survey.pins-too-large", value=value),
            path="value",
            numbers={"value": value, "centre": centre},
        )
    return centre


def model(reading: Reading, x: Mapping[str, Array]) -> tuple[float, dict[str, Array]]:
    """Return what a reading would be at these places (name to (3,)), and its gradient by point, (3,) each.

    Source: docs/survey.md.
    """
    p = [x[name] for name in reading.points]
    match reading.kind:
        case "height" | "offset" | "station":
            k = {"station": 0, "offset": 1, "height": 2}[reading.kind]
            return float(p[0][k]), {reading.points[0]: _unit(k)}
        case "rise" | "along" | "across":
            k = {"along": 0, "across": 1, "rise": 2}[reading.kind]
            return float(p[1][k] - p[0][k]), {reading.points[0]: -_unit(k), reading.points[1]: _unit(k)}
        case "distance":
            size, way = _distance(p[0], p[1])
            return size, {reading.points[0]: -way, reading.points[1]: way}
        case "slope":
            return _slope(reading, p[1] - p[0])
        case "heading":
            return _heading(reading, p[1] - p[0])
        case "compare":
            a, way_a = _distance(p[0], p[1])
            b, way_b = _distance(p[2], p[3])
            grads: dict[str, Array] = {}
            for name, g in zip(reading.points, (-way_a, way_a, way_b, -way_b), strict=True):
                grads[name] = grads.get(name, np.zeros(3)) + g
            return a - b, grads
    raise AssertionError(reading.kind)  # in_line is split into two rows; see network


def _unit(k: int) -> Array:
    return np.asarray(np.eye(3)[k])


def _distance(a: Array, b: Array) -> tuple[float, Array]:
    line = b - a
    size = float(np.linalg.norm(line))
    return size, line / max(size, 1e-12)


def _slope(reading: Reading, d: Array) -> tuple[float, dict[str, Array]]:
    flat = float(np.hypot(d[0], d[1]))
    size2 = max(flat**2 + d[2] ** 2, 1e-12)
    g = np.degrees(np.array([-d[2] * d[0] / max(flat, 1e-9), -d[2] * d[1] / max(flat, 1e-9), flat]) / size2)
    return float(np.degrees(np.arctan2(d[2], flat))), {reading.points[0]: -g, reading.points[1]: g}


def _heading(reading: Reading, d: Array) -> tuple[float, dict[str, Array]]:
    """The angle of the line of a member to the centreline, whichever of its ends is named first: within a quarter turn."""
    flat2 = max(float(d[0] ** 2 + d[1] ** 2), 1e-12)
    g = np.degrees(np.array([-d[1], d[0], 0.0]) / flat2)
    angle = float(np.degrees(np.arctan2(d[1], d[0])))
    turns = round((angle - reading.value) / 180.0)
    return angle - 180.0 * turns, {reading.points[0]: -g, reading.points[1]: g}
