"""A corner or an axle: its mechanism with wheels, springs, dampers, rocker, anti-roll bar and shaft.

Source: constraint equations of rigid bodies; docs/linkage.md.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ready_corner.core.engines.linkage.layouts import LAYOUTS, STEERED_AXLE, Layout, LayoutName
from ready_corner.core.engines.linkage.mechanism import DOF, Shape
from ready_corner.core.engines.linkage.space import Array
from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.naming import meant


@dataclass(frozen=True)
class Wheel:
    """One wheel: ``side`` +1 left, −1 right; ``centre`` names its point; static toe and camber in degrees in the design position."""

    side: int
    centre: str
    loaded_radius: float
    toe_deg: float = 0.0
    camber_deg: float = 0.0

    @property
    def axis(self) -> Array:
        """Unit vector along the spin axis in the design position, outboard (shape (3,))."""
        t, c = np.radians(self.toe_deg), np.radians(self.camber_deg)
        return np.array([np.sin(t) * np.cos(c), self.side * np.cos(t) * np.cos(c), -np.sin(c)])


@dataclass(frozen=True)
class Stand:
    """Where a spring, a rod or a drop link is fastened: a point ``on`` "car", "upright" (or axle), "rocker", or an arm by its name."""

    point: str
    on: str


@dataclass(frozen=True)
class Rocker:
    """A rocker on an axis through two points of the car, moved by a pushrod or pullrod from ``rod`` to its point ``push``."""

    first: str
    second: str
    push: str
    rod: Stand


@dataclass(frozen=True)
class Spring:
    """A spring or damper between two stands. ``rate`` N/mm, ``free`` length and the damper's ``closed`` and ``open`` lengths in mm, where known.

    ``solid``: length of the coil when its turns touch. ``helper``: a second coil on it, as (rate, free, solid).
    ``seat``: how much longer it is from eye to eye than its coil, the perch as it is in the plan. ``to_tyre``: the gap between it and its tyre in the
    design position, where it stands beside one.
    """

    name: str
    ends: tuple[Stand, Stand]
    rate: float | None = None
    free: float | None = None
    closed: float | None = None
    open: float | None = None
    solid: float | None = None
    helper: tuple[float, float, float] | None = None
    seat: float = 0.0
    to_tyre: float | None = None

    @property
    def loose_at(self) -> float | None:
        """How far its eyes are apart when its coil is just loose, mm; None where its free length is not known."""
        return None if self.free is None else self.free + self.seat


@dataclass(frozen=True)
class Torsion:
    """A torsion bar on the axis of an arm (or of the hinge); ``rate`` in N·m per degree, where known.

    ``inner``, ``outer``: how many splines its ends have; ``fine_deg``: what its fine adjuster covers either way.
    """

    name: str
    arm: str
    rate: float | None = None
    inner: int | None = None
    outer: int | None = None
    fine_deg: float = 0.0


@dataclass(frozen=True)
class Bar:
    """One end of an anti-roll bar: it turns about an axis through two points of the car; a drop link goes from ``arm`` to ``link``."""

    first: str
    second: str
    arm: str
    link: Stand


@dataclass(frozen=True)
class Shaft:
    """A halfshaft from a joint in the car to a joint on the wheel axis; the inner joint's axis points outboard along y.

    ``pushed``, ``pulled``: how much shorter and longer than drawn its plunge lets it be, mm; None where nobody told.
    """

    inner: str
    outer: str
    pushed: float | None = None
    pulled: float | None = None


@dataclass(frozen=True)
class Joint:
    """A ball joint or rod end with a stud: ``member`` is the link in it, ``at`` its "inner" or "outer" end, ``limit_deg`` how far it may work."""

    member: str
    at: str
    limit_deg: float
    stud: tuple[float, float, float] | None = None


@dataclass(frozen=True)
class Loads:
    """What the percentages against dive, lift and squat are counted from; without it none is shown.

    ``height`` of the centre of gravity over the ground in mm; ``front_share`` of the braking force; whether brakes and drive act in
    the wheel ("outboard") or on the body ("inboard"); which end is ``driven``.
    """

    height: float
    front_share: float
    brakes: Literal["outboard", "inboard"] = "outboard"
    drive: Literal["outboard", "inboard"] = "inboard"
    driven: Literal["front", "rear", "both"] = "rear"

    def __post_init__(self) -> None:
        if not self.height > 0:
            raise PlannedError(finding("loads.height-impossible", height=self.height), path="loads.height")
        if not 0 <= self.front_share <= 1:
            raise PlannedError(
                finding("loads.share-impossible", front_share=self.front_share),
                path="loads.front_share",
            )


@dataclass(frozen=True)
class Body:
    """A corner or an axle in its design position, ready to be solved.

    ``name`` is that of the corner (``LF``) or of the end (``rear``). Its shape may be replaced by one measured or drawn.
    """

    name: str
    layout: Layout
    shape: Shape
    wheels: tuple[Wheel, ...]
    springs: tuple[Spring, ...] = ()
    torsions: tuple[Torsion, ...] = ()
    rocker: Rocker | None = None
    bar: Bar | None = None
    shaft: Shaft | None = None
    joints: tuple[Joint, ...] = ()

    @property
    def is_axle(self) -> bool:
        """Whether it carries two wheels."""
        return len(self.wheels) == 2

    @property
    def held_too_much(self) -> bool:
        """Whether an axle has more links than hold it, so that something of them gives as it rolls or as one is turned.

        Source: six freedoms, heave and roll among them; docs/linkage.md, Held too much.
        """
        return self.is_axle and len(self.shape.mechanism.rows) > DOF

    @property
    def steered(self) -> bool:
        """Whether the rack moves it."""
        return bool(self.shape.mechanism.steered)

    def built(self, points: Mapping[str, Sequence[float]], lengths: str = "kept") -> "Body":
        """Return the body with some points elsewhere (as measured): links "kept" at their lengths, or taken "anew".

        Raises PlannedError for a name it does not have.
        """
        x = self.shape.x.copy()
        for name, place in points.items():
            if name not in self.shape.mechanism.points:
                raise PlannedError(
                    finding(
                        "body.no-point",
                        body=self.name,
                        point=name,
                        near=meant(name, [n for n in self.shape.mechanism.points if not n.endswith("@upright")]),
                    ),
                    path=f"points.{self.name}.{name}",
                )
            for each in self.twins(name, lengths):
                x[self.shape.mechanism.index(each)] = place
        rods = self.shape.x if self.shape.rods is None else self.shape.rods
        shape = Shape(self.shape.mechanism, x, self.shape.links, rods)
        return replace(self, shape=shape if lengths == "kept" else Shape.taken_anew(shape))

    def twins(self, name: str, lengths: str) -> tuple[str, ...]:
        """Return the rows of the coordinate array that move with a point: its twin on the upright too where it is drawn anew."""
        twin = f"{name}@upright"
        return (name, twin) if lengths == "anew" and twin in self.shape.mechanism.points else (name,)


def body_of(
    name: str,
    layout: LayoutName,
    points: Mapping[str, Sequence[float]],
    wheels: tuple[Wheel, ...],
    steered: bool = False,
    lengths: Mapping[str, float] | None = None,
    box: bool = False,
    **parts: object,
) -> Body:
    """Return a body from the points of a plan, named without their corner.

    Raises PlannedError naming the points that are missing, not finite, or in the same place as the other end of their link.
    Source: layouts as constraints on rigid bodies, docs/linkage.md.
    """
    found = LAYOUTS[layout]
    needed = (*found.needed, *(STEERED_AXLE if steered and found.axle else ()))
    if missing := [p for p in needed if p not in points]:
        raise PlannedError(
            finding("body.points-missing", body=name, layout=layout, missing=tuple(missing)), path=f"points.{name}.{missing[0]}"
        )
    for point, place in points.items():
        if not np.all(np.isfinite(np.asarray(place, dtype=float))):
            raise PlannedError(finding("body.no-place", body=name, point=point), path=f"points.{name}.{point}")
    if steered and found.axle and not points["left.arm"][1] > points["right.arm"][1]:
        raise PlannedError(finding("body.sides-exchanged", body=name, name=name), path=f"points.{name}.left.arm")
    mechanism = found.mechanism(points, steered, box)
    shape = Shape.of(mechanism, points, lengths)
    for link, size in zip(mechanism.links, shape.links, strict=True):
        if not size > 0:
            raise PlannedError(
                finding("body.no-length", body=name, inner=link.body, outer=name, link=link.upright, name=link.name),
                path=f"points.{name}.{link.upright}",
            )
    return Body(name, found, shape, wheels, **parts)  # type: ignore[arg-type]
