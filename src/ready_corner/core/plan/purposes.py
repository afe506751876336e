"""Starting aims for a purpose, each with one line of reason: general knowledge, to be edited, never more than a beginning."""

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from ready_corner.core.plan.corners import CORNERS, END_OF, End
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.quantities.verdict import Aim

PROVES = 0.75  # share of a tolerance that U may be, so that a car on its aim is mostly read as holding
Purpose = Literal["road", "circuit", "loose surface", "straight line", "rough ground", "ice"]


@dataclass(frozen=True)
class Start:
    """A starting aim of one kind at one end: degrees, with tolerance, and why."""

    kind: Literal["camber", "toe"]
    end: End
    aim: float
    tolerance: float
    reason: str


def _starts(*rows: tuple[Literal["camber", "toe"], End, float, float, str]) -> tuple[Start, ...]:
    return tuple(Start(*row) for row in rows)


STARTS: Mapping[Purpose, tuple[Start, ...]] = {
    "road": _starts(
        ("camber", "front", -0.75, 0.3, "even wear first, a little lean for corners"),
        ("camber", "rear", -1.0, 0.3, "a little more than in front, so that the rear lets go last"),
        ("toe", "front", 0.08, 0.08, "a little in, so that it runs straight"),
        ("toe", "rear", 0.1, 0.08, "in, for a calm rear under power and brakes"),
    ),
    "circuit": _starts(
        ("camber", "front", -2.5, 0.2, "the outer tyre stands up under roll"),
        ("camber", "rear", -1.8, 0.2, "less than in front: drive and braking want a flat tyre"),
        ("toe", "front", -0.08, 0.05, "a little out, so that it turns in"),
        ("toe", "rear", 0.12, 0.05, "in, so that it stays behind under power"),
    ),
    "loose surface": _starts(
        ("camber", "front", -1.0, 0.3, "little side load, and the edge of the tyre is to dig in"),
        ("camber", "rear", -0.5, 0.3, "traction before side force"),
        ("toe", "front", -0.1, 0.1, "out, so that it answers on a loose top"),
        ("toe", "rear", 0.1, 0.1, "in, so that a slide can be held"),
    ),
    "straight line": _starts(
        ("camber", "front", -0.25, 0.2, "upright tyres roll easiest"),
        ("camber", "rear", 0.0, 0.2, "the whole width is to drive"),
        ("toe", "front", 0.05, 0.05, "just in, so that it needs no hand"),
        ("toe", "rear", 0.0, 0.05, "no scrub"),
    ),
    "rough ground": _starts(
        ("camber", "front", 0.0, 0.5, "long travel takes camber with it; the middle is upright"),
        ("camber", "rear", 0.0, 0.5, "as in front"),
        ("toe", "front", 0.1, 0.15, "in, against ruts and play in the joints"),
        ("toe", "rear", 0.0, 0.15, "joints have play; aim at the middle"),
    ),
    "ice": _starts(
        ("camber", "front", -1.5, 0.3, "studs on the outer edge of the outer tyre bite"),
        ("camber", "rear", -0.5, 0.3, "the studs over the whole width are to drive"),
        ("toe", "front", -0.1, 0.15, "out, so that it turns on little grip"),
        ("toe", "rear", 0.1, 0.15, "in, so that it comes round slowly"),
    ),
}


ON_AXLE = "a live axle holds its wheels as they were welded"


def starting_aims(
    purpose: Purpose, axles: Collection[End] = (), provable: Mapping[str, float] | None = None
) -> tuple[Aim, ...]:
    """Return the starting aims of a purpose, one to a mark, each with its reason as its source.

    ``axles``: ends with a live axle, which stands upright and straight whatever the purpose. ``provable``: U of camber and toe (degrees)
    with the tools in hand; a tolerance is not begun with that they could not prove.
    """
    found = []
    for start in STARTS[purpose]:
        least = (provable or {}).get(start.kind, 0.0) / PROVES
        tolerance = max(start.tolerance, math.ceil(least * 100 - 1e-9) / 100)
        aim, reason = (0.0, ON_AXLE) if start.end in axles else (start.aim, start.reason)
        if tolerance > start.tolerance:
            reason += "; as wide as the tools can prove"
        found += [Aim(f"{c}.{start.kind}", aim, tolerance, reason) for c in CORNERS if END_OF[c] == start.end]
    return tuple(found)


def provable(rim: float, tools: Sequence[Tool]) -> dict[str, float]:
    """Return U in degrees of camber, and of toe over rims of this diameter in mm, by the first tool of its kind in a table of tools, read once."""
    found = {}
    if angle := next((t for t in tools if t.id == "digital"), next((t for t in tools if t.measures == "angle"), None)):
        found["camber"] = angle.estimate([0.0], "").expanded
    if length := next((t for t in tools if t.id == "rule"), next((t for t in tools if t.measures == "length"), None)):
        found["toe"] = math.degrees(length.estimate([0.0], "").expanded * math.sqrt(2) / rim)
    return found


PURPOSES: tuple[Purpose, ...] = get_args(Purpose)
