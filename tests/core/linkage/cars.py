"""The demo plans as bodies, and corners small enough to be worked by hand."""

from functools import cache
from importlib.resources import files

from ready_corner.core.engines.linkage.body import Spring as SpringPart
from ready_corner.core.engines.linkage.body import Stand, Wheel, body_of
from ready_corner.core.model.bodies import bodies_of
from ready_corner.exchange.files import read_plan

NAMES = ("heather", "tern", "five-link", "trailing-arm", "hinged-arm", "three-link-axle")
# One body of every layout: plan, end.
EACH = (("heather", "front"), ("heather", "rear"), ("tern", "front"), ("tern", "rear"), ("five-link", "rear"), ("trailing-arm", "rear"),
        ("hinged-arm", "rear"), ("three-link-axle", "rear"))  # fmt: skip
CORNERS_ONLY = tuple(e for e in EACH if e not in (("tern", "rear"), ("three-link-axle", "rear")))


@cache
def plan(name):
    return read_plan((files("ready_corner.demo") / f"{name}.plan.json").read_bytes()).to_core()


@cache
def body(name, end):
    return bodies_of(plan(name), end)[0]


def wishbones(upper=(500.0, 400.0), lower=(500.0, 150.0), inner=(250.0, 250.0), rise=(0.0, 0.0), tie=None, **more):
    """A double wishbone whose arms turn about fore-and-aft lines: all motion is in the front view.

    upper, lower: (offset, height) of the ball joints; inner: offsets of the pivots; rise: how much lower each pivot is than its joint.
    The tie rod copies the lower arm, so it adds no steering.
    """
    points = {}
    for name, (y, z), y0, low in zip(("upper", "lower"), (upper, lower), inner, rise, strict=True):
        points |= {f"{name}.front": (200.0, y0, z - low), f"{name}.rear": (-200.0, y0, z - low), f"{name}.ball": (0.0, y, z)}
    points |= {"tie.inner": (-120.0, inner[1], lower[1] - rise[1]), "tie.outer": (-120.0, *lower), "wheel": (0.0, 620.0, 280.0)}
    return body_of("LF", "double wishbone", points | (tie or {}), (Wheel(1, "wheel", 280.0, **more),), True)


def planar_strut():
    """A strut in one plane: lower arm about a fore-and-aft line, tie rod copying it, strut from a top mount to the upright."""
    points = {
        "lower.front": (200.0, 250.0, 160.0), "lower.rear": (-200.0, 250.0, 160.0), "lower.ball": (0.0, 600.0, 150.0),
        "tie.inner": (-120.0, 250.0, 160.0), "tie.outer": (-120.0, 600.0, 150.0), "strut.top": (0.0, 520.0, 780.0), "strut.foot": (0.0, 600.0, 150.0),
        "wheel": (0.0, 650.0, 290.0),
    }  # fmt: skip
    coil = SpringPart("strut", (Stand("strut.top", "car"), Stand("strut.foot", "upright")), 25.0, 700.0)
    return body_of("LF", "strut", points, (Wheel(1, "wheel", 290.0),), True, springs=(coil,))
