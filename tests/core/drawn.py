"""Cars drawn by chance, all of them off as their plan says they may be, and what tools with steps, scatter and zeros read of them in every way.

The geometry is written anew, with points, planes and rotations about a line, and shares no formula with what it tests.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field, replace

import numpy as np
from scipy.optimize import brentq
from scipy.spatial.transform import Rotation

from ready_corner.core.judge.marks import evaluate
from ready_corner.core.plan.corners import CORNERS, SIDE
from ready_corner.core.plan.plan import DOUBTS, UNTAPED_MM, Axle, Ways
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.jig_acts import GaugeZeroed
from ready_corner.core.record.logbook import fold
from tests.core.cars import Log, plan
from tests.core.practice import PracticeCar

FRONT = ("LF", "RF")
SHOP = (
    Tool("rule", "Rule", "length", 0.5, 0.2),
    Tool("tape", "Tape", "length", 1.0, 0.5),
    Tool("digital", "Gauge", "angle", 0.05, 0.03, 0.02),
    Tool("plate", "Plate", "steer", 0.5, 0.2, 0.2),
    Tool("scales", "Scales", "mass", 0.5, 0.4),
)
PLATES, BAR = 610.0, 900.0
EVEN_SPRINGS = 20.0 * 200.0 / 220.0  # N/mm of a spring and a tyre in a row, as a plan without a linkage is taken to have
AIMS = tuple(Aim(f"{c}.{k}", v, 0.5) for k, v in (("caster", 5.0), ("inclination", 10.0)) for c in FRONT)


@dataclass
class Steered(PracticeCar):
    """A practice car whose front wheels turn about a line through two joints, caster and inclination in degrees by corner; on a floor of pads."""

    caster: dict | None = None
    inclination: dict | None = None
    up: tuple = (0.0, 0.0, 1.0)

    def joints(self, corner):
        """From lower to upper joint, mm."""
        high = 260.0
        back, inside = (high * np.tan(np.radians(by[corner])) for by in (self.caster, self.inclination))
        return np.array([-back, -SIDE[corner] * inside, high])

    def turned(self, corner, steered):
        """The wheel's axis once it points so many degrees further in, about its own joints."""
        along = self.joints(corner) / np.linalg.norm(self.joints(corner))
        heading = lambda n: np.degrees(np.arctan2(n[0], SIDE[corner] * n[1]))  # noqa: E731
        first = self.axis(corner)
        spun = lambda by: Rotation.from_rotvec(by * along).apply(first)  # noqa: E731
        return spun(brentq(lambda by: heading(spun(by)) - heading(first) - steered, -1.2, 1.2, xtol=1e-15))

    def shown(self, axis):
        """What a gauge on the rim shows that is zeroed on ``up``, degrees."""
        return float(np.degrees(np.arcsin(-axis @ np.array(self.up))))

    def offsets(self, corner):
        """How far the upper joint lies behind and inside the lower one, and over it, by plumb lines."""
        up = np.array(self.up)
        ahead = np.array([1.0, 0, 0]) - up[0] * up
        ahead /= np.linalg.norm(ahead)
        to = self.joints(corner)
        return -to @ ahead, -SIDE[corner] * to @ np.cross(up, ahead), to @ up


@dataclass
class Drawn(Steered):
    """A car as it is: the middle of either axle beside the centreline by ``aside`` mm, a hub further ahead by ``ahead`` mm, and rims that run out by ``out`` mm
    (half of what a dial shows in all), each at its ``phase``."""

    aside: tuple = (0.0, 0.0)
    ahead: dict = field(default_factory=dict)
    out: float = 0.0
    phase: dict = field(default_factory=dict)

    def hub(self, corner):
        return super().hub(corner) + np.array([self.ahead[corner], self.aside[0 if corner[1] == "F" else 1], 0.0])

    def rim(self, corner):
        """Front and back point of the rim as it runs out."""
        front, back = self.edges(corner)
        off = np.array([0.0, SIDE[corner] * self.out * np.cos(self.phase[corner]), 0.0])
        return front + off, back - off

    def lean_of_rim(self, corner, round_=False):
        """What the rim's run-out adds to a gauge on it, degrees; the other way half a turn round."""
        return float(np.degrees(2 * self.out / self.span) * np.sin(self.phase[corner])) * (-1 if round_ else 1)

    def across(self, point, offset, degrees):
        """Distance in mm of a point from a line on the floor: its offset at the front axle line, and its heading to the left."""
        along = np.array([np.cos(np.radians(degrees)), np.sin(np.radians(degrees))])
        return abs((offset - point[1]) * along[0] + point[0] * along[1])


@dataclass(frozen=True)
class HowRead:
    """One way round a car: how its strings are set, and in which ways each kind of mark is read; ``tells``: the kinds of marks that it is about."""

    tells: tuple[str, ...]
    camber: tuple[str, ...] = ()
    toe: tuple[str, ...] = ()
    axis: tuple[str, ...] = ()
    strings: str = "each"
    taped: bool = True
    pads: bool = True
    frame: bool = False
    plates: bool = False


_TOES = ("toe", "total_toe", "thrust")
_AXIS = ("caster", "inclination")
HOW_READ = {
    "tape, scales and trammel": HowRead(("height", "rake", "cross", "load", "cross_weight", "wheelbase", "setback")),
    "string at each side": HowRead(_TOES, toe=("string",)),
    "string at each side, widths not taped": HowRead(_TOES, toe=("string",), taped=False),
    "box of strings": HowRead(_TOES, toe=("string",), strings="box"),
    "box of strings, widths not taped": HowRead(_TOES, toe=("string",), strings="box", taped=False),
    "strings by marks of the frame": HowRead(_TOES, toe=("string",), strings="marks"),
    "straight edge along the rails": HowRead(_TOES, toe=("rail",)),
    "hub bars and a middle line": HowRead(_TOES, toe=("bars",)),
    "strings and straight edges": HowRead(_TOES, toe=("string", "rail")),
    "rims half a turn round, strings": HowRead(_TOES, toe=("halved",)),
    "toe plates": HowRead(("total_toe",), plates=True),
    "toe plates and strings": HowRead(("total_toe",), toe=("string",), plates=True),
    "gauge on the rim": HowRead(("camber",), ("gauge",), ("string",)),
    "gauge, no pads read": HowRead(("camber",), ("gauge",), pads=False),
    "gauge zeroed on the frame": HowRead(("camber",), ("gauge",), frame=True),
    "gauge, half a turn round": HowRead(("camber",), ("halved",)),
    "plumb line and rule": HowRead(("camber",), ("plumb",)),
    "gauge and plumb line": HowRead(("camber",), ("gauge", "plumb")),
    "sweep": HowRead(_AXIS, ("gauge",), ("string",), ("sweep",)),
    "sweep, toes not read": HowRead(_AXIS, ("gauge",), axis=("sweep",)),
    "sweep, gauge zeroed on the frame": HowRead(_AXIS, ("gauge",), ("string",), ("sweep",), frame=True),
    "bar across the joints": HowRead(_AXIS, axis=("bar",)),
    "bar across the joints, no pads read": HowRead(_AXIS, axis=("bar",), pads=False),
    "plumb lines from the joints": HowRead(_AXIS, axis=("plumb",)),
    "sweep and bar": HowRead(_AXIS, ("gauge",), ("string",), ("sweep", "bar")),
}


def normal_of(slope):
    """The upward unit vector of a plane that rises by ``slope`` along x and y."""
    return np.array([-slope[0], -slope[1], 1.0]) / np.sqrt(1 + slope @ slope)


def gravity_over(slope):
    """The upright of the workshop, seen from a car on pads that rise by ``slope`` along it and across."""
    normal, ahead = normal_of(slope), np.array([1.0, 0.0, slope[0]]) / np.hypot(1.0, slope[0])
    return tuple(np.array([ahead[2], np.cross(normal, ahead)[2], normal[2]]))


def _plan(how: HowRead, rng):
    """A plan of a shop that reads so; its figures are the drawing's, and every car is off them."""
    width = lambda w: Axle(w, 381.0, 600.0, hub_width=w if how.taped else None)  # noqa: E731
    marks = {
        c: (float(rng.uniform(-500, -300) - (1500 if c[1] == "R" else 0)), SIDE[c] * float(rng.uniform(250, 420)))
        for c in (CORNERS if how.strings == "marks" else ())
    }
    bare = plan(tools=SHOP, ways=Ways(how.strings, plates=PLATES, bar=BAR, marks=marks))
    return replace(bare, front=width(1420.0), rear=width(1380.0), aims=(*bare.aims, *AIMS))


def _car(of, rng):
    """A car that is off this plan by chance, and the slope of what it stands on."""
    by_corner = lambda middle, sd: {c: float(middle + rng.normal(0, sd)) for c in CORNERS}  # noqa: E731
    sure = {n: of.ways.sure(n) / 2 for n in DOUBTS}
    taped = np.hypot(1 / np.sqrt(12), 0.5)
    width = lambda end: end.half_width + rng.normal(0, taped if end.hub_width else UNTAPED_MM / 2) / 2  # noqa: E731
    box = np.degrees(rng.normal(0, sure["box_parallel"]) / 2 / of.wheelbase) if of.ways.strings == "box" else 0.0
    yaw = np.full(2, rng.normal(0, 0.15)) if of.ways.strings == "box" else rng.normal(0, 0.15, 2)
    slope = rng.normal(0, 0.003, 2)
    return slope, Drawn(
        by_corner(0.0, 0.5), by_corner(-1.5, 0.4), of.wheelbase, (width(of.front), width(of.rear)), 381.0 + rng.normal(0, sure["span"]),
        (820.0, yaw[0] + box), (-830.0, yaw[1] - box), by_corner(4.0, 2.0), by_corner(10.0, 5.0), gravity_over(slope),
        tuple(rng.normal(0, sure["hub_middle"], 2)), by_corner(0.0, 1.5), sure["run_out"], {c: rng.uniform(0, 2 * np.pi) for c in CORNERS},
    )  # fmt: skip


def drawn_round(how: HowRead, rng):
    """A car read once round in a way: the log of it, and its true figures by mark (mm, degrees, kg, per cent)."""
    of = _plan(how, rng)
    slope, car = _car(of, rng)
    tools = {t.id: t for t in SHOP}
    zero = {t.id: rng.normal(0, t.zero) for t in SHOP}
    log, places = Log(of), {c: np.array(of.wheel_place(c)) for c in CORNERS}

    def read(c, quantity, exact, tool="rule", **more):
        t = tools[tool]
        log.read(c, quantity, round((exact + zero[tool] + rng.normal(0, t.repeatability)) / t.step) * t.step, tool, **more)

    lie = {c: float(places[c] @ slope) for c in CORNERS}
    if not how.pads:  # each pad is somewhere, and none was read: what they come to is a slope
        lie = {c: rng.normal(0, of.ways.sure("floor") / 2) for c in CORNERS}
        fall = np.linalg.lstsq(np.array([[1.0, *places[c]] for c in CORNERS]), np.array(list(lie.values())), rcond=None)[0][1:]
        car.up = gravity_over(fall)
    frame = rng.normal(0, [3.0, 0.002, 0.003])  # how the frame stands over the plane of the tyres: up, along, across
    heights = {c: 110.0 + float(frame @ [1.0, *places[c]]) for c in CORNERS}
    loads = {c: float(rng.normal(160, 20)) for c in CORNERS}
    # Friction holds every corner a little off: a rigid body on four even springs goes with the plane of that, and what is off the plane goes into loads.
    held = rng.normal(0, of.ways.sure("settled") / 2, 4)
    on = np.array([[1.0, *places[c]] for c in CORNERS])
    stands = on @ np.linalg.lstsq(on, held, rcond=None)[0]
    for i, c in enumerate(CORNERS):
        if how.pads:
            read(c, "pad", lie[c] - lie["LF"])
        read(c, "height", heights[c] + stands[i], "tape")
        read(c, "load", loads[c] + (held - stands)[i] * EVEN_SPRINGS / 9.80665, "scales")
    bases = {c: float(np.linalg.norm(car.hub(c) - car.hub(c[0] + "R"))) for c in FRONT}
    for c in FRONT:
        read(c, "wheelbase", bases[c], "tape")
    _read_toes(how, of, car, rng, read)
    if how.frame:
        log.add(GaugeZeroed("frame"))
        car = replace(car, up=tuple(normal_of(frame[1:])))
    for c in CORNERS:
        _read_camber(how, car, read, c)
    for c in FRONT:
        _read_axis(how, car, rng, read, c)
    return log, {**_corner_truth(car, heights, loads, bases), **_car_truth(of, car, heights, loads, bases)}


def _read_camber(how, car, read, c):
    lean = car.shown(car.axis(c)) + car.lean_of_rim(c)
    if {"gauge", "halved"} & set(how.camber):
        read(c, "camber", lean, "digital")
    if "halved" in how.camber:
        read(c, "camber", car.shown(car.axis(c)) + car.lean_of_rim(c, True), "digital", half_turn=True)
    if "plumb" in how.camber:
        off = car.span / 2 * np.sin(np.radians(lean))
        read(c, "lean_top", 60 - off)
        read(c, "lean_bottom", 60 + off)


def _read_toes(how, of, car, rng, read):
    """All toes in the ways that are told: strings with what tells their own angle, straight edges with their rails, hub bars, plates."""
    rails = {s: (s * float(rng.uniform(320, 360)), float(rng.normal(0, 0.7))) for s in (1, -1)}
    line = (float(rng.normal(0, 3)), float(rng.normal(0, 0.2)))
    for c in CORNERS:
        if {"string", "halved"} & set(how.toe):
            _read_string(of, car, rng, read, c)
        if "halved" in how.toe:  # and once more, the rim half a turn round
            for quantity, point, plain in zip(("gap_front", "gap_back"), car.rim(c), car.edges(c), strict=True):
                read(c, quantity, car.gap(2 * plain - point, c[0] == "L"), half_turn=True)
        if "rail" in how.toe:
            read(c, "rail", abs(rails[SIDE[c]][0] + np.tan(np.radians(rails[SIDE[c]][1])) * of.wheel_place(c)[0]), "tape")
            for quantity, point in zip(("edge_front", "edge_back"), car.rim(c), strict=True):
                read(c, quantity, car.across(point, *rails[SIDE[c]]))
        if "bars" in how.toe:
            wide = BAR + rng.normal(0, of.ways.sure("span") / 2)
            for quantity, point in zip(("bar_front", "bar_back"), replace(car, span=wide).edges(c), strict=True):
                read(c, quantity, car.across(point, *line), "tape")
    if how.plates:
        _read_plates(of, car, rng, read)


def _read_string(of, car, rng, read, c):
    for quantity, point in zip(("gap_front", "gap_back"), car.rim(c), strict=True):
        read(c, quantity, car.gap(point, c[0] == "L"))
    if of.ways.strings == "marks":
        station, offset = of.ways.marks[c]
        read(c, "gap_mark", car.gap(np.array([station, offset + rng.normal(0, of.ways.sure("mark_places") / 2)]), c[0] == "L"))
    else:
        read(c, "gap_hub", car.gap(car.hub(c), c[0] == "L"))


def _read_plates(of, car, rng, read):
    wide = replace(car, span=PLATES + rng.normal(0, of.ways.sure("span") / 2), out=car.out * PLATES / car.span)
    for left, right in (("LF", "RF"), ("LR", "RR")):
        for quantity, points in zip(
            ("plates_front", "plates_back"), zip(wide.rim(left), wide.rim(right), strict=True), strict=True
        ):
            read(left, quantity, float(np.linalg.norm(points[0] - points[1])), "tape")


def _read_axis(how, car, rng, read, c):
    behind, inside, high = car.offsets(c)
    if "bar" in how.axis:
        read(c, "caster", np.degrees(np.arctan2(behind, high)), "digital")
        read(c, "inclination", np.degrees(np.arctan2(inside, high)), "digital")
    if "plumb" in how.axis:
        read(c, "caster_offset", behind)
        read(c, "inclination_offset", inside)
        read(c, "joint_height", high, "tape")
    if "sweep" in how.axis:
        for turned, way in (("in", 1), ("out", -1)):
            plate = rng.uniform(15, 25)
            read(c, f"plate_{turned}", plate, "plate")
            read(c, f"sweep_{turned}", car.shown(car.turned(c, way * plate)) + car.lean_of_rim(c), "digital")


def _corner_truth(car, heights, loads, bases):
    rows = {"height": heights, "load": loads, "wheelbase": bases, "toe": car.toe, "camber": car.camber}
    rows |= {kind: {c: getattr(car, kind)[c] for c in FRONT} for kind in _AXIS}
    return {f"{c}.{kind}": value for kind, row in rows.items() for c, value in row.items()}


def _car_truth(of, car, heights, loads, bases):
    lf, rf, lr, rr = (heights[c] for c in CORNERS)
    return {
        "front.total_toe": car.toe["LF"] + car.toe["RF"],
        "rear.total_toe": car.toe["LR"] + car.toe["RR"],
        "car.thrust": (car.toe["RR"] - car.toe["LR"]) / 2,
        "car.rake": float(np.degrees(np.arctan(((lr + rr) - (lf + rf)) / 2 / of.wheelbase))),
        "car.cross": lf - rf - lr + rr,
        "car.cross_weight": 100 * (loads["RF"] + loads["LR"]) / sum(loads.values()),
        "car.setback": bases["LF"] - bases["RF"],
    }


def rng_of(name: str, seed: int = 29) -> np.random.Generator:
    """The chance by which cars are drawn that are read in a way."""
    return np.random.default_rng([seed, *map(ord, name)])


def inside_u(name: str, draws: int, seed: int = 29) -> dict[str, dict[str, float]]:
    """Read so many cars in a way; return the share of them inside U at each mark, by kind of mark."""
    how, rng = HOW_READ[name], rng_of(name, seed)
    rows: dict[str, list[bool]] = {}
    for _ in range(draws):
        log, truth = drawn_round(how, rng)
        for mark, inside in _judged(how, log, truth):
            rows.setdefault(mark, []).append(inside)
    share: dict[str, dict[str, float]] = {kind: {} for kind in how.tells}
    for mark, own in rows.items():
        assert len(own) == draws, (mark, len(own))
        share[mark.split(".")[1]][mark] = float(np.mean(own))
    assert all(share.values()), share
    return share


def _judged(how: HowRead, log: Log, truth: dict[str, float]) -> Iterator[tuple[str, bool]]:
    found = evaluate(fold(None, log.entries))
    for mark, value in truth.items():
        if mark.split(".")[1] in how.tells:
            m = found.mark(mark)
            if m.value is not None:
                yield mark, abs(m.value - value) <= m.expanded
