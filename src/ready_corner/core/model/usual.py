"""What a turn of a link is usually worth where the plan tells no linkage: by where its name says it sits, and the size of the wheel; wide, until the car tells.

Most cars that come in to be set are brought without points. A turn of a rod on them is not unknown: the joints of an upright stand apart by a
little under half of the tyre, and a steering arm is a fifth of it long, within a third either way. What has no sign of its own (a tie rod ahead of the
axle or behind it) has none here either: it is tried.

Source: lever arms of usual uprights, 1 / length in radians; docs/choices.md (Turning), the table of usual worths.
"""

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass

from ready_corner.core.plan.plan import Adjuster, Plan

JOINTS_APART, STEERING_ARM, STRUT = 0.45, 0.20, 1.05  # shares of the diameter of the tyre
HUB_OF_ARM, HUB_OF_TIE = 0.5, 0.05  # mm that a hub goes sideways for a millimetre of a link
WIDE = 0.35  # of a worth, standard uncertainty, where its way is known


@dataclass(frozen=True)
class Usual:
    """A place of a link by words in its name: ``sets`` what it is there for; degrees a millimetre by a lever that is so much of the tyre, with its ``way``, 0
    where either may be. ``beside``: standard uncertainties a millimetre of what it does besides, in degrees, mm and kg."""

    words: str
    sets: str
    lever: float
    way: int
    beside: Mapping[str, float]


_ARM = {"camber": 0.02, "toe": 0.15, "caster": 0.10, "inclination": 0.05, "height": 0.15, "load": 0.3}
_ROD = {"camber": 0.03, "toe": 0.0, "caster": 0.02, "inclination": 0.01, "height": 0.02, "load": 0.05}
# The first that fits.
USUAL = (
    Usual(
        r"caster|\bleg\b|fore and aft|tension|compression|drag|radius rod|leading",
        "caster",
        JOINTS_APART,
        0,
        {**_ARM, "camber": 0.08},
    ),
    Usual(r"\btie\b|\btoe\b|track rod|steering", "toe", STEERING_ARM, 0, _ROD),
    Usual(r"strut|top plate|top mount|camber plate", "camber", STRUT, 1, _ARM),
    Usual(r"\bball\b", "camber", JOINTS_APART, 0, _ARM),
    Usual(r"\b(top|upper)\b", "camber", JOINTS_APART, 1, _ARM),
    Usual(r"\b(lower|bottom)\b", "camber", JOINTS_APART, -1, {**_ARM, "height": 0.4, "load": 0.8}),
)


def _usual(adjuster: Adjuster) -> Usual | None:
    name = f"{adjuster.name} {adjuster.moves.name if adjuster.moves else ''}".lower().replace("-", " ").replace(".", " ")
    return next((u for u in USUAL if re.search(u.words, name)), None)


def usual_sets(adjuster: Adjuster) -> str:
    """Return the kind of mark that a link is there for by its name; empty where that tells nothing.

    Source: see the module.
    """
    place = _usual(adjuster)
    return "" if place is None or adjuster.raises else place.sets


def usual_hub(adjuster: Adjuster) -> float:
    """Return how far a hub usually goes sideways for one turn of a link of which nothing is told, mm, standard uncertainty: half of what it gains in length,
    hardly at all for what turns the wheel about its own axis.

    Source: see the module.
    """
    place = _usual(adjuster)
    return (HUB_OF_TIE if place and place.sets == "toe" else HUB_OF_ARM) * abs(adjuster.length_per_step)


def usual_of(plan: Plan, adjuster: Adjuster) -> dict[str, tuple[float, float]]:
    """Return what one turn (shim, mark) of a link is usually worth to the marks of its corner, by kind, each with its standard uncertainty; degrees, mm,
    kg. Empty for what raises its corner, and where its name tells no place.

    Source: see the module.
    """
    if adjuster.raises:
        return {}
    place = _usual(adjuster)
    if place is None:
        return {}
    length = adjuster.length_per_step
    per = math.degrees(1 / (place.lever * plan.axle_of(adjuster.corner).tyre_diameter))
    rows = {kind: (0.0, u * abs(length)) for kind, u in place.beside.items()}
    rows[place.sets] = (place.way * per * length, (WIDE if place.way else 1.0) * per * abs(length))
    return rows
