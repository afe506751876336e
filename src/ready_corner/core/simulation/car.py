"""A car with a hidden truth: its pickups lie where they were welded, not where they were drawn, its springs are not quite what their labels
say, its strings were set by hand and its tools are what tools are. It answers readings and takes turns, and never tells its truth unasked.

What adjusters do to it is the full linkage of the car as built, solved anew for every setting, not a figure a turn; the body rides on its
own springs and tyres. Everything is drawn from one seed.

Source: constraint equations of rigid bodies (docs/linkage.md) of the drawn points; stiffness matrices (docs/stance.md); gaps by perpendicular
distances from the edges of a disc to a line.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import brentq
from scipy.spatial.transform import Rotation

from ready_corner.core.engines.alignment.camber import toe_deg, wheel_axis
from ready_corner.core.engines.alignment.steering_axis import axis
from ready_corner.core.engines.linkage.body import Body
from ready_corner.core.engines.linkage.sweep import sweep
from ready_corner.core.engines.statics.springs import GRAVITY
from ready_corner.core.model.bodies import bodies_by_name
from ready_corner.core.model.predicted import parts_of
from ready_corner.core.model.setting import setting
from ready_corner.core.model.springs_of_plan import Springing, places, response, springing, sprung_loads
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, SIDE, Corner
from ready_corner.core.plan.marks import MARK_KINDS, STEERED
from ready_corner.core.plan.plan import Adjuster, Plan
from ready_corner.core.quantities.errors import CalledError, ReadyCornerError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.notation import FLATS_PER_TURN
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.record.readings import Quantity

FloatArray = NDArray[np.float64]
PLUMB_MM, JOINTS_MM = 120.0, 260.0  # a plumb line outside a rim; the height between two ball joints
GAP_AT = {
    "gap_front": 1.0,
    "gap_back": -1.0,
    "gap_hub": 0.0,
    "edge_front": 1.0,
    "edge_back": -1.0,
    "bar_front": 1.0,
    "bar_back": -1.0,
}


@dataclass(frozen=True)
class Faults:
    """How far a practice car is off its plan and mis-set, and how well it can be read: standard deviations unless “most” is said.

    ``built``: mm along each axis of every pickup; ``springs``: share of each rate; ``camber``, ``caster``, ``toe`` (degrees), ``height`` (mm): most that it
    is mis-set by; ``pads``: mm of each pad off level; ``run_out``: mm of each rim as a dial shows it in all, half of it either way; ``hubs``: mm
    of the middle of the hubs of an axle off the centreline; ``strings``: most mm and degrees by which a string is off; ``sticks``: mm that a car
    which was not rolled stands off; ``settled``: the same once it was; ``stuck``: share of adjusters that go no further one way; ``untold``: most of what an adjuster does of which the
    plan does not say what it moves, degrees a turn.
    """

    built: float = 1.5
    springs: float = 0.08
    camber: float = 2.0
    caster: float = 1.5
    toe: float = 1.0
    height: float = 15.0
    pads: float = 1.5
    run_out: float = 0.15
    hubs: float = 0.3
    strings: tuple[float, float] = (15.0, 0.15)
    sticks: float = 2.0
    settled: float = 0.2
    stuck: float = 0.0
    untold: float = 0.4


@dataclass
class HiddenCar:
    """One practice car. ``turned``: turns of every adjuster since it was handed over."""

    plan: Plan
    seed: int
    faults: Faults = field(default_factory=Faults)
    turned: dict[str, float] = field(init=False)

    def __post_init__(self) -> None:
        self._rng = np.random.default_rng(self.seed)
        self.turned = {a.id: 0.0 for a in self.plan.adjusters}
        self._bodies = {name: self._built(b) for name, b in bodies_by_name(self.plan).items()}
        self._springs = self._off_label(springing(self.plan))
        self._zero = {t.id: self._rng.normal(0, t.zero) for t in self.plan.toolbox}
        self._pads = self._rng.normal(0, self.faults.pads, 4)
        self._rims = {(c, k): self._rng.normal(0, self.faults.run_out / 2) for c in CORNERS for k in ("camber", "toe")}
        self._hubs = {end: self._rng.normal(0, self.faults.hubs) for end in ENDS}
        self._strings = {side: self._string(side) for side in (1, -1)}
        own = np.random.default_rng([self.seed, 3])  # of its own, so that a car is what it was before there were these
        self._rails = {side: (side * own.uniform(320, 380), float(np.radians(own.uniform(-1.5, 1.5)))) for side in (1, -1)}
        self._middle = own.uniform(-4, 4), float(np.radians(own.uniform(-0.3, 0.3)))
        self._own = {a.id: self._rng.uniform(-self.faults.untold, self.faults.untold, 2) for a in self.plan.adjusters}
        self._stands = self._rng.normal(0, self.faults.settled, 4)
        self._limits = {a.id: self._rng.uniform(-1, 1) for a in self.plan.adjusters if self._rng.random() < self.faults.stuck}
        self._set: dict[str, dict[str, FloatArray]] = {}
        self._right = self._figures({})
        self._off = self._mis_set()
        self._residual = {f"{c}.{k}": self._rng.uniform(-0.5, 0.5) for c in CORNERS for k in ("height", "camber", "toe")}
        self._residual |= {a.mark: self._rng.uniform(-0.5, 0.5) for a in self.plan.aims_now if a.mark.endswith(STEERED)}
        self._plates: dict[tuple[Corner, str], float] = {}
        self._round = 1.0  # which way the rims' run-out lies as the wheels stand

    # ---- what a builder can do ----

    def turn(self, adjuster: str, amount: float) -> float:
        """Turn an adjuster (turns or shims, plus way); return how far it went: one that sticks stops short, in whole steps."""
        its = self.plan.adjuster(adjuster)
        low, high = its.room(self.turned[adjuster])
        went = float(np.clip(amount, low, high))
        if (end := self._limits.get(adjuster)) is not None and amount * end > 0:
            step = its.flats_per_step / FLATS_PER_TURN
            went = float(np.sign(went)) * min(abs(went), round(abs(end) / step) * step)
        self.turned[adjuster] += went
        if its.raises and went:
            self._stands = self._rng.normal(0, self.faults.sticks, 4)
        return went

    def stand(self, turned: Mapping[str, float], settled: bool, moved: int, moment: int) -> None:
        """Leave the car with its adjusters turned so far, come to rest at entry ``moved`` of its logbook; what is read at ``moment`` scatters as it did."""
        self.turned = {a.id: turned.get(a.id, 0.0) for a in self.plan.adjusters}
        rest = np.random.default_rng([self.seed, 1, moved])
        self._stands = rest.normal(0, self.faults.settled if settled else self.faults.sticks, 4)
        self._rng = np.random.default_rng([self.seed, 2, moment])

    def steer(self, corner: Corner, way: str, plate: float) -> None:
        """Steer a front wheel “in” or “out” until its plate shows so many degrees."""
        self._plates[corner, way] = plate

    def roll(self) -> None:
        """Roll and bounce the car until it has settled."""
        self._stands = self._rng.normal(0, self.faults.settled, 4)

    def read(self, corner: Corner, quantity: Quantity, tool: Tool, wheel_deg: float = 0.0) -> float:
        """Return what a tool shows at a place, mm, degrees or kg: with its scatter, its zero and the step of its scale; of a wheel so far round."""
        self._round = float(np.cos(np.radians(wheel_deg)))
        shown = self._exact(corner, quantity) + self._zero.get(tool.id, 0.0) + self._rng.normal(0, tool.repeatability)
        return float(round(shown / tool.step) * tool.step)

    # ---- its truth ----

    @property
    def handed_over(self) -> Mapping[str, float]:
        """How far every adjuster was from its right place when the car was handed over, in turns or shims."""
        return self._off

    def truth(self, mark: str) -> float:
        """Return a mark of a corner as it truly is on level pads: height in mm, camber and toe in degrees, load in kg."""
        place, kind = mark.split(".")
        corner = next(c for c in CORNERS if c == place)
        i = CORNERS.index(corner)
        now = self._now()
        if kind == "load":
            return float(now["load"][i])
        aim = self.plan.aim(mark)
        # Rightly set it lies half a step off its aims, as any car would; so far as it was mis-set and turned, it lies off that.
        rest = self._residual[mark] * (0.5 * aim.tolerance if aim else 0.0)
        wanted = aim.aim if aim else float(self._right[kind][i])
        return wanted + rest + float(now[kind][i] - self._right[kind][i])

    def _now(self) -> Mapping[str, FloatArray]:
        return self._figures({a: self._off.get(a, 0.0) + t for a, t in self.turned.items()})

    def _figures(self, turns: Mapping[str, float]) -> dict[str, FloatArray]:
        """Return heights at their places (mm off the drawing), camber, toe (degrees) and loads (kg) of all corners with adjusters so far off the drawing."""
        key = repr(sorted((a, round(t, 9)) for a, t in turns.items() if t))
        if key not in self._set:
            even = {a: self.plan.adjuster(a).even(t) for a, t in turns.items()}
            found, carried = setting(self.plan, self._bodies, self._springs, even), sprung_loads(self.plan)
            own = np.zeros((4, 2))
            for a in self.plan.adjusters:
                if not parts_of(a) and not a.raises:
                    own[CORNERS.index(a.corner)] += self._own[a.id] * turns.get(a.id, 0.0)
            loads = found.loads + (np.zeros(4) if carried is None else carried)
            untold = {"camber": own[:, 0], "toe": own[:, 1]}
            angles = {kind: value + untold.get(kind, 0.0) for kind, value in found.angles.items()}
            self._set[key] = {"height": found.heights, **angles, "load": loads / GRAVITY}
        return self._set[key]

    def _exact(self, corner: Corner, quantity: Quantity) -> float:
        """Return what a tool without faults would show."""
        i = CORNERS.index(corner)
        on = response(places(self.plan), self._springs.supports(False))
        if quantity == "height":  # over the pad beside it, on which the car does not stand as it would on level ones
            lie = self._pads - on.heights @ self._pads
            return self.truth(f"{corner}.height") + float(self._stands[i]) - float(lie[i])
        if quantity == "camber":
            return self._gauged(corner)
        if quantity in ("lean_top", "lean_bottom"):
            half = self.plan.axle_of(corner).rim_flange_diameter / 2 * np.sin(np.radians(self._gauged(corner)))
            return PLUMB_MM + float(half) * (-1 if quantity == "lean_top" else 1)
        if quantity in MARK_KINDS["caster"].every or quantity in MARK_KINDS["inclination"].every:
            return self._of_axis(corner, quantity)
        if quantity == "load":
            return self.truth(f"{corner}.load") + float((on.loads @ self._pads)[i]) / GRAVITY
        if quantity == "pad":
            return float(self._pads[i] - self._pads[0])
        if quantity in ("gap_front", "gap_back", "gap_hub"):
            return self._gap(corner, self._strings[SIDE[corner]], GAP_AT[quantity])
        if quantity in ("edge_front", "edge_back"):
            return self._gap(corner, self._rails[SIDE[corner]], GAP_AT[quantity])
        if quantity in ("bar_front", "bar_back"):
            return self._gap(corner, self._middle, GAP_AT[quantity], self.plan.ways.bar or 0.0)
        if quantity == "rail":
            offset, heading = self._rails[SIDE[corner]]
            return abs(offset + float(np.tan(heading)) * self.plan.wheel_place(corner)[0])
        raise CalledError(finding("simulation.cannot-read", quantity=quantity))

    def _gauged(self, corner: Corner, steered: float = 0.0) -> float:
        """Return what a gauge zeroed on gravity shows at a rim: the wheel's axis against the upright of the workshop, the floor sloping as its pads do;
        ``steered`` so many degrees in about its steering axis."""
        own = {kind: self.truth(f"{corner}.{kind}") for kind in ("camber", "toe")}
        axis = wheel_axis(
            own["toe"] + self._off_rim(corner, "toe"), own["camber"] + self._off_rim(corner, "camber"), SIDE[corner]
        )
        if steered:
            axis = self._about_axis(corner, axis, own["toe"] + steered)
        return float(np.degrees(np.arcsin(-axis @ self._up)))

    @property
    def _up(self) -> FloatArray:
        """The upright of the workshop in the axes of the plane through the pads."""
        at = np.array([[1.0, *self.plan.wheel_place(c)] for c in CORNERS])
        _, ahead, left = np.linalg.lstsq(at, self._pads, rcond=None)[0]
        return np.asarray(np.array([ahead, left, 1.0]) / np.sqrt(1 + ahead**2 + left**2))

    def _about_axis(self, corner: Corner, rim: FloatArray, toe: float) -> FloatArray:
        """Return the axis of a rim once its wheel is turned about the steering axis until the wheel points ``toe`` in, degrees."""
        wheel = wheel_axis(self.truth(f"{corner}.toe"), self.truth(f"{corner}.camber"), SIDE[corner])
        about = self._steering_axis(corner)

        def off(turn: float) -> float:
            return float(toe_deg(Rotation.from_rotvec(turn * about).apply(wheel))) - toe

        turn = brentq(off, -1.2, 1.2, xtol=1e-13)  # radians, well past any lock
        return np.asarray(Rotation.from_rotvec(turn * about).apply(rim))

    def _steering_axis(self, corner: Corner) -> FloatArray:
        """Return the unit steering axis of a corner in the plane of the pads, pointing up: true caster, and inclination as it is or as cars have it."""
        caster, inclination = (
            self.truth(f"{corner}.{kind}") if kind in self._now() else usual
            for kind, usual in zip(STEERED, (5.0, 10.0), strict=True)
        )
        return axis(caster, inclination, SIDE[corner])

    def _of_axis(self, corner: Corner, quantity: Quantity) -> float:
        """Return what is read of a steering axis: of the line between its joints, against the upright of the workshop, or of a sweep of the wheel."""
        way = "in" if quantity.endswith("_in") else "out"
        if quantity.startswith("plate_"):  # steered anew for every reading of a plate
            self._plates[corner, way] = float(self._rng.uniform(17.0, 22.0))
            return self._plates[corner, way]
        if quantity.startswith("sweep_"):
            plate = self._plates.setdefault((corner, way), 20.0)
            return self._gauged(corner, plate if way == "in" else -plate)
        up = self._up
        ahead = np.array([1.0, 0.0, 0.0]) - up[0] * up
        ahead /= np.linalg.norm(ahead)
        k = self._steering_axis(corner)
        x, y, z = k @ ahead, k @ np.cross(up, ahead), k @ up
        behind, inside = float(-x / z), float(-SIDE[corner] * y / z)
        by = {"caster": np.degrees(np.arctan(behind)), "inclination": np.degrees(np.arctan(inside)), "joint_height": JOINTS_MM}
        return float(by.get(quantity, JOINTS_MM * (behind if quantity == "caster_offset" else inside)))

    def _off_rim(self, corner: Corner, kind: str) -> float:
        """Return what the run-out of a rim adds to its camber or toe as it stands, degrees."""
        return self._round * float(np.degrees(self._rims[corner, kind] / self.plan.axle_of(corner).rim_flange_diameter))

    def _gap(self, corner: Corner, line: tuple[float, float], end: float, bar: float = 0.0) -> float:
        """Return the distance in mm from the hub (``end`` 0), or from the front (1) or back (-1) edge of the rim level through it, or mark of a bar so long
        on the hub, to a line."""
        off = 0.0 if bar else self._off_rim(corner, "toe")
        side, toe = SIDE[corner], np.radians(self.truth(f"{corner}.toe") + off)
        axle = self.plan.axle_of(corner)
        at = np.array(
            [
                0.0 if END_OF[corner] == "front" else -self.plan.wheelbase,
                side * axle.half_width + self._hubs[END_OF[corner]],
                0.0,
            ]
        )
        # The level line through the rim's plane points ahead, and inwards by the toe; the camber leaves it where it is.
        ahead = np.array([np.cos(toe), -side * np.sin(toe), 0.0])
        point = at + (bar or axle.rim_flange_diameter) / 2 * end * ahead
        offset, heading = line
        way = np.array([np.cos(heading), np.sin(heading)])
        to = np.array([0.0, offset]) - point[:2]
        return abs(float(to[0] * way[1] - to[1] * way[0]))

    # ---- how it is drawn ----

    def _string(self, side: int) -> tuple[float, float]:
        """Return where the string of a side passes the front axle line, mm left, and its heading to the left, radians."""
        far, turned = self.faults.strings
        half = max(self.plan.front.half_width, self.plan.rear.half_width)
        return side * (half + 90.0) + self._rng.uniform(-far, far), float(np.radians(self._rng.uniform(-turned, turned)))

    def _built(self, body: Body) -> Body:
        """Return a body with its pickups on the frame where they were welded; its links keep their lengths."""
        names = [
            n for n in body.shape.mechanism.points if not n.endswith("@upright") and n not in {w.centre for w in body.wheels}
        ]
        drawn = {n: tuple(body.shape.point(n) + self._rng.normal(0, self.faults.built, 3)) for n in names}
        made = body.built(drawn, "anew")
        try:
            return made if np.isfinite(sweep(made, np.zeros(1)).wheels[0]["camber_deg"][0]) else body
        except ReadyCornerError:
            return body

    def _off_label(self, springs: Springing) -> Springing:
        by = np.sqrt(np.clip(self._rng.normal(1, self.faults.springs, 4), 0.6, 1.5))
        tyres = springs.tyres * np.clip(self._rng.normal(1, self.faults.springs, 4), 0.6, 1.5)
        return replace(springs, stiffness=springs.stiffness * np.outer(by, by), tyres=tyres)

    def _mis_set(self) -> dict[str, float]:
        """Return how far every adjuster is off its right place, in whole steps, so that no mark is off by more than is said and room is left to come back."""
        off: dict[str, float] = {}
        for adjuster in self.plan.adjusters:
            low, high = adjuster.room(0.0)
            step = adjuster.flats_per_step / FLATS_PER_TURN
            most = min(self._furthest(adjuster), -low, high)  # it must come back, and not begin past its end
            off[adjuster.id] = float(round(self._rng.uniform(-most, most) / step) * step)
        return off

    def _furthest(self, adjuster: Adjuster) -> float:
        """Return how many turns of one adjuster bring a mark of its corner to the most that is said, alone."""
        one = self._figures({adjuster.id: 1.0})
        i = CORNERS.index(adjuster.corner)
        most = {
            "height": self.faults.height,
            "caster": self.faults.caster,
            "camber": self.faults.camber,
            "toe": self.faults.toe,
        }
        allowed = {kind: size for kind, size in most.items() if kind in one and adjuster.corner in MARK_KINDS[kind].corners}
        own = [allowed[k] / max(abs(float(one[k][i] - self._right[k][i])), 1e-6) for k in allowed]
        return min(own)
