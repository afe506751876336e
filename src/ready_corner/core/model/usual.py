"""What a turn of a link is usually worth where the plan tells no linkage: by where its name says it sits, and the size of the wheel; wide, until the car tells.

Most cars that come in to be set are brought without points. A turn of a rod on them is not unknown: the joints of an upright stand apart by a
little under half of the tyre, and a steering arm is a fifth of it long, within a third either way. Which way it goes the name may say (a tie rod ahead of the
axle or behind it, a front or rear leg of an arm); where it does not, it is tried.

Source: lever arms of usual uprights, 1 / length in radians; docs/choices.md (Turning), the table of usual worths.
"""

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass

from ready_corner.core.plan.plan import Adjuster, Plan

JOINTS_APART, STEERING_ARM, STRUT = 0.45, 0.20, 1.05  # shares of the diameter of the tyre
LOWER_ARM = 0.70  # of an arm or a strut above it, as either may be there
OF_LEG = 0.8  # a leg of two swings the joint about the other's end, so it goes further than the leg gains
HUB_OF_ARM, HUB_OF_TIE = 0.5, 0.05  # mm that a hub goes sideways for a millimetre of a link
WIDE, WIDER = 0.35, 0.5  # of a worth, standard uncertainty, where its way is known; where its lever may be one of two


@dataclass(frozen=True)
class Usual:
    """A place of a link by words in its name: ``sets`` what it is there for; degrees a millimetre by a lever that is so much of the tyre, with its ``way``, 0
    where either may be. ``beside``: what it does besides a millimetre and its standard uncertainty, in degrees, mm and kg, of toe where the tie rod is ahead of the axle and
    for a tyre of 1 mm; ``wide``: of the worth."""

    words: str
    sets: str
    lever: float
    way: int
    beside: Mapping[str, tuple[float, float]]
    wide: float = WIDE


# An upper ball carries the foot of the steering arm along by so much of its way, a lower one by the rest; a leg pushes its ball outwards by less than an arm does.
ALONG, ALONG_U, OF_LEG_OUT = 0.25, 0.2, 0.45


def _toe(along: float, out: float = 1.0, u: float = ALONG_U) -> tuple[float, float]:
    """Return degrees of toe a millimetre where the tie rod is ahead of the axle, for a tyre of 1 mm, and its u: the rod holds what the ball would carry along."""
    return math.degrees(along * out / STEERING_ARM), math.degrees(u / STEERING_ARM)


_SOME = {"camber": (0.0, 0.02), "caster": (0.0, 0.05), "inclination": (0.0, 0.05), "height": (0.0, 0.15), "load": (0.0, 0.3)}
_LOW_SOME = {**_SOME, "height": (0.0, 0.4), "load": (0.0, 0.8)}
_ARM = {**_SOME, "toe": _toe(ALONG)}
_LOWER = {**_LOW_SOME, "toe": _toe(1 - ALONG)}
_LEG = {**_SOME, "camber": (0.08, 0.06), "toe": _toe(ALONG, OF_LEG_OUT)}
_LOWER_LEG = {**_LOW_SOME, "camber": (-0.08, 0.06), "toe": _toe(1 - ALONG, OF_LEG_OUT)}
_SLIDE = {**_SOME, "camber": (0.0, 0.08), "toe": _toe(0.0)}
_ROD = {"camber": (0.0, 0.03), "toe": (0.0, 0.0), "caster": (0.0, 0.02), "inclination": (0.0, 0.01)}
_ROD |= {"height": (0.0, 0.02), "load": (0.0, 0.05)}
_UP, _LOW = r"\b(top|upper)\b", r"\b(lower|bottom)\b"
_AHEAD, _BEHIND = r"\b(ahead|in front|forward) of\b", r"\b(behind|aft of|rearward of)\b"
_FRONT_LEG, _REAR_LEG = r"\b(front|forward|leading) leg\b", r"\b(rear|back|trailing) leg\b"
_STRUT, _ROD_WORDS = r"\bstrut|top plate|top mount|camber plate", r"\b(tie|toe|steering|track rod)\b"
_SLIDES_BACK, _SLIDES_ON = r"\b(aft|rearwards?|back)\b(?! of)", r"\b(forwards?)\b(?! of)"


def _all(*words: str) -> str:
    """Return the pattern of a name in which all of these stand, in whichever order."""
    return "".join(f"(?=.*(?:{w}))" for w in words)


# The first that fits. Longer: what a rod pushes goes away from its other end.
USUAL = (
    Usual(_all(_UP, _REAR_LEG), "caster", JOINTS_APART * OF_LEG, -1, _LEG),
    Usual(_all(_UP, _FRONT_LEG), "caster", JOINTS_APART * OF_LEG, 1, _LEG),
    Usual(_all(_LOW, _REAR_LEG), "caster", JOINTS_APART * OF_LEG, 1, _LOWER_LEG),
    Usual(_all(_LOW, _FRONT_LEG), "caster", JOINTS_APART * OF_LEG, -1, _LOWER_LEG),
    Usual(_all(_STRUT, r"\bfore and aft\b"), "caster", STRUT, 0, _SLIDE),
    Usual(_all(_STRUT, _SLIDES_BACK), "caster", STRUT, 1, _SLIDE),
    Usual(_all(_STRUT, _SLIDES_ON), "caster", STRUT, -1, _SLIDE),
    Usual(r"caster|\bleg\b|fore and aft|tension|compression|drag|radius rod|leading", "caster", JOINTS_APART, 0, _SLIDE),
    Usual(_all(_ROD_WORDS, _AHEAD), "toe", STEERING_ARM, -1, _ROD),
    Usual(_all(_ROD_WORDS, _BEHIND), "toe", STEERING_ARM, 1, _ROD),
    Usual(_ROD_WORDS, "toe", STEERING_ARM, 0, _ROD),
    Usual(_STRUT, "camber", STRUT, 1, _ARM),
    Usual(_UP, "camber", JOINTS_APART, 1, _ARM),
    Usual(_LOW, "camber", LOWER_ARM, -1, _LOWER, WIDER),
    Usual(r"\bball\b", "camber", JOINTS_APART, 0, _ARM),
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
    length, tyre = adjuster.length_per_step, plan.axle_of(adjuster.corner).tyre_diameter
    rows = {kind: (value * length, u * abs(length)) for kind, (value, u) in place.beside.items()}
    if place.sets != "toe":
        (by_rod, u), way = place.beside["toe"], _tie_rod(plan, adjuster)
        rows["toe"] = way * by_rod / tyre * length, (u if way else math.hypot(u, by_rod)) / tyre * abs(length)
    per = math.degrees(1 / (place.lever * tyre))
    rows[place.sets] = (place.way * per * length, (place.wide if place.way else 1.0) * per * abs(length))
    return rows


def _tie_rod(plan: Plan, beside: Adjuster) -> int:
    """Return where the tie rod of a corner sits by its name: 1 ahead of the axle, -1 behind it, 0 where it does not say."""
    own = (_usual(a) for a in plan.adjusters if a.corner == beside.corner and not a.raises)
    return next((-place.way for place in own if place and place.sets == "toe" and place.way), 0)
