"""Layouts as data: which points a corner or an axle of each kind has, and which constraints they make.

Names of points are without their corner: ``lower.front`` of LF stands in a plan as ``LF.lower.front``. Those of an axle stand with
its end: ``rear.upper.left.body``.

Source: layouts as constraints on rigid bodies; docs/linkage.md.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from ready_corner.core.engines.linkage.mechanism import ON_UPRIGHT, Hinge, Link, Mechanism, Pivot, Slide

LayoutName = Literal["double wishbone", "five link", "strut", "trailing arm", "hinged arm", "four link axle", "three link axle"]
WHEEL = "wheel"  # the wheel centre of a corner
LEFT_WHEEL, RIGHT_WHEEL = "left.wheel", "right.wheel"  # of an axle
TIE_INNER, TIE_OUTER = "tie.inner", "tie.outer"
# A live axle that steers: each wheel turns on its kingpin; a drag link from ``tie.inner`` turns one of them, and a track rod between both arms the other.
KINGPINS = {side: (f"{side}.kingpin.lower", f"{side}.kingpin.upper") for side in ("left", "right")}
STEERING_ARMS = {side: f"{side}.arm" for side in ("left", "right")}
DRAG_OUTER = "drag.outer"
STEERED_AXLE_LINES = (
    *((f"{side} kingpin", *KINGPINS[side]) for side in KINGPINS),
    ("drag link", TIE_INNER, DRAG_OUTER),
    ("track rod", *STEERING_ARMS.values()),
)
STEERED_AXLE = (*KINGPINS["left"], *KINGPINS["right"], *STEERING_ARMS.values(), TIE_INNER, DRAG_OUTER)


@dataclass(frozen=True)
class Arm:
    """A member that turns about the line through two points of the car and carries a joint to the upright."""

    first: str
    second: str
    joint: str


@dataclass(frozen=True)
class Layout:
    """One kind of suspension: its links, pivots, slides, hinges; ``axis`` names two points the steering axis goes through.

    ``arms``: members that a spring may stand on. ``may``: links that a car may have or not (a Panhard rod).
    """

    name: LayoutName
    words: str
    links: tuple[Link, ...] = ()
    pivots: tuple[Pivot, ...] = ()
    slides: tuple[Slide, ...] = ()
    hinges: tuple[Hinge, ...] = ()
    axis: tuple[str, str] | None = None
    arms: Mapping[str, Arm] = field(default_factory=dict)
    may: tuple[Link, ...] = ()
    axle: bool = False

    @property
    def needed(self) -> tuple[str, ...]:
        """Names of the points that must be given, in the order of a walk from the car outwards."""
        return tuple(dict.fromkeys([*_ends(self.links), *_held(self), *self.wheels]))

    @property
    def wheels(self) -> tuple[str, ...]:
        """Names of the wheel centres."""
        return (LEFT_WHEEL, RIGHT_WHEEL) if self.axle else (WHEEL,)

    def mechanism(self, given: Mapping[str, object], steered: bool, box: bool = False) -> Mechanism:
        """Return the constraints that the points given make; points of springs and the like ride along."""
        links = self.links + tuple(link for link in self.may if link.body in given and link.upright in given)
        twins = [p.upright for p in self.pivots] + [s.head for s in self.slides]
        twins += [n + ON_UPRIGHT for h in self.hinges for n in (h.first, h.second)]
        names = tuple(dict.fromkeys([*_ends(links), *_held(self), *self.wheels, *twins, *given]))
        return Mechanism(names, self.wheels, links, self.pivots, self.slides, self.hinges, TIE_INNER if steered else "", box)

    @property
    def of_car(self) -> frozenset[str]:
        """Names of the points that belong to the car."""
        return frozenset(
            [TIE_INNER, *(link.body for link in (*self.links, *self.may)), *(n for n in _held(self) if not n.endswith(".foot"))]
        )


def _ends(links: tuple[Link, ...]) -> list[str]:
    return [name for link in links for name in (link.body, link.upright)]


def _held(layout: "Layout") -> list[str]:
    names = [p.body for p in layout.pivots] + [n for s in layout.slides for n in (s.body, s.foot)]
    return names + [n for h in layout.hinges for n in (h.first, h.second)]


def _wishbone(name: str) -> tuple[Link, ...]:
    return Link(f"{name} front leg", f"{name}.front", f"{name}.ball"), Link(f"{name} rear leg", f"{name}.rear", f"{name}.ball")


def _rod(name: str) -> Link:
    return Link(name, f"{name}.inner", f"{name}.outer")


def _axle_link(name: str) -> Link:
    return Link(name.replace(".", " "), f"{name}.body", f"{name}.axle")


_TIE = Link("tie rod", TIE_INNER, TIE_OUTER)
_UPPER, _LOWER = Arm("upper.front", "upper.rear", "upper.ball"), Arm("lower.front", "lower.rear", "lower.ball")
_PANHARD = Link("Panhard rod", "panhard.body", "panhard.axle")

LAYOUTS: Mapping[LayoutName, Layout] = {
    layout.name: layout
    for layout in (
        Layout("double wishbone", "two arms, one above the other, and a tie rod or toe link", (*_wishbone("upper"), *_wishbone("lower"), _TIE),
               axis=("lower.ball", "upper.ball"), arms={"upper": _UPPER, "lower": _LOWER}),
        Layout("five link", "five rods in any arrangement", (*(_rod(f"link{i}") for i in range(1, 5)), _TIE)),
        Layout("strut", "one lower arm, a tie rod, and a strut that slides and turns", (*_wishbone("lower"), _TIE),
               slides=(Slide("strut", "strut.top", "strut.foot"),), axis=("lower.ball", "strut.top"), arms={"lower": _LOWER}),
        Layout("trailing arm", "an arm on one ball joint in front, held sideways by two rods", (_rod("rod1"), _rod("rod2")),
               pivots=(Pivot("arm pivot", "arm.front"),)),
        Layout("hinged arm", "one arm on one hinge: semi-trailing, swing axle, spring plate", hinges=(Hinge("hinge", "hinge.inner", "hinge.outer"),),
               arms={"hinge": Arm("hinge.inner", "hinge.outer", WHEEL)}),
        Layout("four link axle", "a live axle on four links, with a Panhard rod or without",
               tuple(_axle_link(f"{h}.{s}") for h in ("upper", "lower") for s in ("left", "right")), may=(_PANHARD,), axle=True),
        Layout("three link axle", "a live axle on three links and a Panhard rod",
               (_axle_link("upper"), _axle_link("lower.left"), _axle_link("lower.right"), _PANHARD), axle=True),
    )
}  # fmt: skip
