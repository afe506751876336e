"""Entries about the log and the points: corrections, notes, and points that were measured in place elsewhere."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated

from ready_corner.core.plan.corners import Corner, Point
from ready_corner.core.plan.plan import Plan, places_of
from ready_corner.core.quantities.errors import CalledError, MeasuredError, UnusualError
from ready_corner.core.quantities.fields import Above, Id, Identity, Label, Many, PointName, Text, Words
from ready_corner.core.quantities.finding import finding
from ready_corner.core.record.act import Act, entry_kind


@entry_kind
@dataclass(frozen=True)
class Correction(Act):
    """Strikes out another entry; striking out a correction brings back what it struck."""

    kind = "correction"
    sentence = "{reason}"
    strikes: Annotated[str, Identity]
    reason: Words = ""


@entry_kind
@dataclass(frozen=True)
class Note(Act):
    """Words, with nothing computed from them."""

    kind = "note"
    sentence = "{words}"
    words: Annotated[str, Text(2000, 1)]
    corner: Corner | None = None


@entry_kind
@dataclass(frozen=True)
class Job(Act):
    """A new job begins: what is read from now on until something is turned is how the car was found."""

    kind = "job"
    title = "A new job begins"
    form = "log"
    sentence = "A new job begins{words?: {words}}"
    words: Annotated[Words, Label("What is to be done")] = ""


@entry_kind
@dataclass(frozen=True)
class Practised(Act):
    """The car is one to practise on: its truth is drawn from ``seed``, of a ``layout`` and a ``fault``, and hidden. It stands right behind the first plan."""

    kind = "practice"
    sentence = "A car to practise on, number {seed}"
    layout: Id
    fault: Id
    seed: int


@entry_kind
@dataclass(frozen=True)
class Surveyed(Act):
    """Places of points as measured, in the axes of the plan in mm, each sure to ``expanded`` (U) along every axis.

    ``confirmed`` keeps a point far from where the plan has it.
    """

    kind = "surveyed"
    points: Annotated[Mapping[PointName, Point], Many(400, 1)]
    expanded: Annotated[float, Above(0)]
    words: Words = ""
    confirmed: bool = False

    def check(self, plan: Plan) -> None:
        """Refuse points the plan does not have, and ask about those far from where it has them."""
        if not self.points:
            raise MeasuredError(finding("surveyed.none"), path="points")
        if not self.expanded > 0:
            raise MeasuredError(finding("surveyed.no-doubt"), path="expanded")
        planned = places_of(plan)
        for name, place in self.points.items():
            wanted = planned.get(name)
            if wanted is None:
                raise CalledError(
                    finding("surveyed.no-point", name=name),
                    path=f"points.{name}",
                )
            away = math.dist(place, wanted)
            if away > FAR_MM and not self.confirmed:
                raise UnusualError(
                    finding("surveyed.far-off", point=name, away=away),
                    path=f"points.{name}",
                    numbers={"distance": away},
                )


FAR_MM = 300.0  # no pickup point is welded so far off its place
