"""What the plan says of what a car stands on: its weight, tyres, stops, bars, the lowest points, and where stands go under it."""

import math
from dataclasses import dataclass
from typing import Literal

from ready_corner.core.engines.statics.bars import RollBar
from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.quantities.finding import finding

School = Literal["height", "weight", "both"]
SCHOOL_WORDS: dict[School, str] = {
    "height": "by height: four corner heights, cross weight as it comes",
    "weight": "by weight: cross weight, the heights kept as they are",
    "both": "both: heights and cross weight, each within its tolerance as far as can be",
}


@dataclass(frozen=True)
class Feature:
    """A named place of the chassis: station, offset, and its height over the ground in the drawing, mm."""

    name: str
    station: float
    offset: float
    height: float

    @property
    def place(self) -> tuple[float, float, float]:
        """Its place in the axes of the plan."""
        return self.station, self.offset, self.height


@dataclass(frozen=True)
class EndFooting:
    """What stands under one end: ``tyre_rate`` in N/mm, ``unsprung`` kg a corner, wheel travel to the ``bump`` and ``droop`` stops, mm.

    ``to_body``: how far the wheel may rise from its place in the drawing before the tyre touches the body, mm. ``bar``: its anti-roll bar.
    """

    tyre_rate: float | None = None
    unsprung: float | None = None
    bump: float | None = None
    droop: float | None = None
    to_body: float | None = None
    bar: RollBar | None = None

    def __post_init__(self) -> None:
        for name, least in (("tyre_rate", 0.0), ("bump", 0.0), ("droop", 0.0)):
            value = getattr(self, name)
            if value is not None and not (math.isfinite(value) and value > least):
                what = (
                    finding("footing.no-rate") if name == "tyre_rate" else finding("footing.no-travel", way=name, travel=value)
                )
                raise PlannedError(what, path=f"footing.{name}", numbers={name: value})
        if self.unsprung is not None and not (math.isfinite(self.unsprung) and self.unsprung >= 0):
            raise PlannedError(
                finding("footing.unsprung", unsprung=self.unsprung),
                path="footing.unsprung",
                numbers={"unsprung": self.unsprung},
            )


@dataclass(frozen=True)
class Footing:
    """What the car stands on. ``mass``: of the car as it runs, kg; ``front``, ``left``: shares of it on the front and left wheels.

    ``features``: by which ride height may be said too, beside where it is read. ``low``: what touches the ground first. ``stands``: where
    stands go, the height being that of what rests on them. ``school``: what perches are turned for, with its reason. ``margin``: by how much
    the bump stop must come before ground and body, mm.
    """

    mass: float | None = None
    front: float = 0.5
    left: float = 0.5
    front_end: EndFooting = EndFooting()
    rear_end: EndFooting = EndFooting()
    features: tuple[Feature, ...] = ()
    low: tuple[Feature, ...] = ()
    stands: tuple[Feature, ...] = ()
    school: School = "height"
    school_reason: str = ""
    margin: float = 5.0

    def __post_init__(self) -> None:
        if self.mass is not None and not (math.isfinite(self.mass) and self.mass > 0):
            raise PlannedError(
                finding("footing.mass", mass=self.mass),
                path="footing.mass",
                numbers={"mass": self.mass},
            )
        for name in ("front", "left"):
            if not 0 < getattr(self, name) < 1:
                raise PlannedError(
                    finding("footing.share", way=name, share=getattr(self, name)),
                    path=f"footing.{name}",
                )
        for field in ("features", "low", "stands"):
            names = [f.name for f in getattr(self, field)]
            if twice := next((n for n in names if names.count(n) > 1), None):
                raise PlannedError(finding("footing.twice", name=twice), path=f"footing.{field}")

    def end(self, end: str) -> EndFooting:
        """Return what stands under the front or the rear."""
        return self.front_end if end == "front" else self.rear_end
