"""A car with a hidden truth: its pickups lie where they were welded, not where they were drawn, its springs are not quite what their labels
say, its strings were set by hand and its tools are what tools are. It answers readings and takes turns, and never tells its truth unasked.

What adjusters do to it, where its hubs then stand and what its tyres carry is that of rigid parts at rest on their springs (``metal``), solved anew for
every setting and for the ground it stands on; nothing of it comes from the engines that judge it. Everything is drawn from one seed.

Source: least potential energy of rigid parts; gaps by distances in space; docs/practice.md.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import brentq, lsq_linear
from scipy.spatial.transform import Rotation

from ready_corner.core.plan.corners import AROUND, CORNERS, END_OF, ENDS, SIDE, Corner
from ready_corner.core.plan.marks import CORNER_KINDS, MARK_KINDS, STEERED, kind_of
from ready_corner.core.plan.plan import Adjuster, Plan
from ready_corner.core.quantities.errors import CalledError, ReadyCornerError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.notation import FLATS_PER_TURN
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.record.readings import Quantity
from ready_corner.core.simulation.metal import GRAVITY, Rest
from ready_corner.core.simulation.standing import Standing, spin_axis

FloatArray = NDArray[np.float64]
PLUMB_MM, JOINTS_MM = 120.0, 260.0  # a plumb line outside a rim; the height between two ball joints
USUAL_AXIS = {"caster": 5.0, "inclination": 10.0}  # of a wheel without two joints that tell it, degrees
GAP_AT = {
    "gap_front": 1.0,
    "gap_back": -1.0,
    "gap_hub": 0.0,
    "edge_front": 1.0,
    "edge_back": -1.0,
    "bar_front": 1.0,
    "bar_back": -1.0,
}
LEVEL = np.zeros(4)
MADE_TRIES = 4  # cars whose links would not reach are drawn again, with pickups half as far off


@dataclass(frozen=True)
class Faults:
    """How far a practice car is off its plan and mis-set, and how well it can be read: standard deviations unless “most” is said.

    ``built``: mm along each axis of every pickup; ``springs``: share of each rate; ``camber``, ``caster``, ``toe`` (degrees), ``height`` (mm): most that it
    is mis-set by; ``pads``: mm of each pad off level; ``run_out``: mm of each rim as a dial shows it in all, wherever it lies; ``span``: mm of the
    rims of an axle; ``strings``: most mm and degrees by which a string is off, ``rolls``: mm and degrees by which the car stands otherwise beside one on stands each time it was rolled;
    ``sticks``: mm that a spring of a car which was not rolled stands off;
    ``settled``: the same once it was; ``stuck``: share of adjusters that go no further one way; ``untold``: most of what an adjuster does of which the
    plan does not say what it moves, degrees a turn.
    """

    built: float = 1.5
    springs: float = 0.08
    camber: float = 2.0
    caster: float = 1.5
    toe: float = 1.0
    height: float = 15.0
    pads: float = 1.5
    run_out: float = 0.25
    span: float = 0.5
    strings: tuple[float, float] = (15.0, 0.15)
    rolls: tuple[float, float] = (5.0, 0.08)
    sticks: float = 2.0
    settled: float = 0.2
    stuck: float = 0.0
    untold: float = 0.4


def _angles(axis: FloatArray, side: int) -> tuple[float, float]:
    """Return toe and camber of a spin axis, degrees."""
    return float(np.degrees(np.arctan2(axis[0], side * axis[1]))), float(np.degrees(-np.arcsin(axis[2])))


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
        self._zero = {t.id: self._rng.normal(0, t.zero) for t in self.plan.toolbox}
        self._pads = self._rng.normal(0, self.faults.pads, 4)
        self._rims = {c: self._rng.uniform(0, 2 * np.pi) for c in CORNERS}
        self._spans = {e: self.plan.axle(e).rim_flange_diameter + self._rng.normal(0, self.faults.span) for e in ENDS}
        self._strings = {side: self._string(side) for side in (1, -1)}
        self._rails = {
            side: (side * self._rng.uniform(320, 380), float(np.radians(self._rng.uniform(-1.5, 1.5)))) for side in (1, -1)
        }
        self._middle = self._rng.uniform(-4, 4), float(np.radians(self._rng.uniform(-0.3, 0.3)))
        self._own = {a.id: self._rng.uniform(-self.faults.untold, self.faults.untold, 2) for a in self.plan.adjusters}
        self._stands = self._rng.normal(0, self.faults.settled, 4)
        self._beside_strings = (0.0, 0.0)
        self._limits = {a.id: self._rng.uniform(-1, 1) for a in self.plan.adjusters if self._rng.random() < self.faults.stuck}
        self._plates: dict[tuple[Corner, str], float] = {}
        self._round = 0.0  # how far round the wheel stands that is read, radians
        self._set: dict[str, dict[str, float]] = {}
        self._rests: dict[str, Rest] = {}
        self._shift: dict[str, float] = {}
        self._standing, self._rightly = self._made()
        self._off = self._mis_set()

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

    def stand(self, turned: Mapping[str, float], settled: bool, moved: int, rolled: int, moment: int) -> None:
        """Leave the car with its adjusters turned so far, come to rest at entry ``moved`` of its logbook and rolled last at ``rolled`` (0: not yet); what is read at ``moment``
        scatters as it did."""
        self.turned = {a.id: turned.get(a.id, 0.0) for a in self.plan.adjusters}
        rest = np.random.default_rng([self.seed, 1, moved])
        self._stands = rest.normal(0, self.faults.settled if settled else self.faults.sticks, 4)
        self._beside_strings = self._rolled_to(np.random.default_rng([self.seed, 3, rolled]) if rolled else None)
        self._rng = np.random.default_rng([self.seed, 2, moment])

    def steer(self, corner: Corner, way: str, plate: float) -> None:
        """Steer a front wheel “in” or “out” until its plate shows so many degrees."""
        self._plates[corner, way] = plate

    def roll(self) -> None:
        """Roll and bounce the car until it has settled; it then stands otherwise beside strings on stands of their own."""
        self._stands = self._rng.normal(0, self.faults.settled, 4)
        self._beside_strings = self._rolled_to(self._rng)

    def read(self, corner: Corner, quantity: Quantity, tool: Tool, wheel_deg: float = 0.0) -> float:
        """Return what a tool shows at a place, mm, degrees or kg: with its scatter, its zero and the step of its scale; of a wheel so far round."""
        self._round = float(np.radians(wheel_deg))
        shown = self._exact(corner, quantity) + self._zero.get(tool.id, 0.0) + self._rng.normal(0, tool.repeatability)
        return float(round(shown / tool.step) * tool.step)

    # ---- its truth ----

    @property
    def handed_over(self) -> Mapping[str, float]:
        """How far every adjuster was from its right place when the car was handed over, in turns or shims."""
        return self._off

    def truth(self, mark: str) -> float:
        """Return a mark of a corner as it truly is on level pads: height in mm, angles in degrees, load in kg."""
        return self._figures(self._now)[mark]

    def beside(self, corner: Corner) -> float:
        """Return how far the middle of a wheel truly stands off its place in the plan, mm outwards, on level pads."""
        rest = self._at_rest(self._now, False)
        return SIDE[corner] * float(self._standing.wheel(rest, corner)[0][1]) - self.plan.axle_of(corner).half_width

    @property
    def _now(self) -> dict[str, float]:
        """Turns of every adjuster from where the plan draws it."""
        return {a: self._rightly.get(a, 0.0) + self._off.get(a, 0.0) + t for a, t in self.turned.items()}

    def _figures(self, turns: Mapping[str, float]) -> dict[str, float]:
        """Return all marks of corners with adjusters so far off the drawing, on level pads."""
        key = _key(turns)
        if key not in self._set:
            rest = self._at_rest(turns, False)
            found: dict[str, float] = {}
            for i, c in enumerate(CORNERS):
                aim = self.plan.aim(f"{c}.height")
                found[f"{c}.height"] = (
                    (aim.aim if aim else 0.0) + self._standing.height(rest, c) + self._shift.get(f"{c}.height", 0.0)
                )
                found[f"{c}.toe"], found[f"{c}.camber"] = _angles(self._wheel(rest, c, turns)[1], SIDE[c])
                found[f"{c}.load"] = float(rest.pressed[i]) / GRAVITY + self._shift.get(f"{c}.load", 0.0)
                if (k := self._standing.axis(rest, c)) is not None:
                    found[f"{c}.caster"] = float(np.degrees(np.arctan2(-k[0], k[2]))) + self._shift.get(f"{c}.caster", 0.0)
                    found[f"{c}.inclination"] = float(np.degrees(np.arctan2(-SIDE[c] * k[1], k[2]))) + self._shift.get(
                        f"{c}.inclination", 0.0
                    )
                else:
                    found |= {f"{c}.{kind}": usual + self._shift.get(f"{c}.{kind}", 0.0) for kind, usual in USUAL_AXIS.items()}
            self._set[key] = found
        return self._set[key]

    def _at_rest(self, turns: Mapping[str, float], as_it_stands: bool) -> Rest:
        """Return where its parts are: on level pads without friction, or as it stands."""
        key = _key(turns) + (repr((self._stands.tolist(), self._pads.tolist())) if as_it_stands else "")
        if key not in self._rests:
            ground, sticks = (self._pads, self._stands) if as_it_stands else (LEVEL, LEVEL)
            self._rests[key] = self._standing.at(turns, ground, sticks)
        return self._rests[key]

    def _wheel(self, rest: Rest, c: Corner, turns: Mapping[str, float]) -> tuple[FloatArray, FloatArray]:
        """Return the middle of a wheel and its spin axis, with what adjusters add of which the plan does not say what they move."""
        middle, axis = self._standing.wheel(rest, c)
        more = np.array([self._shift.get(f"{c}.camber", 0.0), self._shift.get(f"{c}.toe", 0.0)])
        for a in self.plan.adjusters:
            if a.corner == c and a.moves is None and not a.raises:
                more += self._own[a.id] * turns.get(a.id, 0.0)
        if not more.any():
            return middle, axis
        toe, camber = _angles(axis, SIDE[c])
        return middle, spin_axis(toe + float(more[1]), camber + float(more[0]), SIDE[c])

    def _exact(self, corner: Corner, quantity: Quantity) -> float:
        """Return what a tool without faults would show."""
        i, rest = CORNERS.index(corner), self._at_rest(self._now, True)
        if quantity == "height":
            aim = self.plan.aim(f"{corner}.height")
            shift = (aim.aim if aim else 0.0) + self._shift.get(f"{corner}.height", 0.0)
            return shift + self._standing.height(rest, corner) - self._floor_at(corner)
        if quantity == "camber":
            return self._gauged(corner)
        if quantity in ("lean_top", "lean_bottom"):
            half = self._spans[END_OF[corner]] / 2 * np.sin(np.radians(self._gauged(corner)))
            return PLUMB_MM + float(half) * (-1 if quantity == "lean_top" else 1)
        if quantity in MARK_KINDS["caster"].every or quantity in MARK_KINDS["inclination"].every:
            return self._of_axis(corner, quantity)
        if quantity == "load":
            return float(rest.pressed[i]) / GRAVITY + self._shift.get(f"{corner}.load", 0.0)
        if quantity == "pad_step":
            before = AROUND[AROUND.index(corner) - 1]
            return float(self._pads[i] - self._pads[CORNERS.index(before)])
        if quantity == "pad":
            return float(self._pads[i] - self._pads[0])
        if quantity in ("gap_front", "gap_back", "gap_hub"):
            return self._gap(corner, self._beside(self._strings[SIDE[corner]]), GAP_AT[quantity])
        if quantity in ("edge_front", "edge_back"):
            return self._gap(corner, self._rails[SIDE[corner]], GAP_AT[quantity])
        if quantity in ("bar_front", "bar_back"):
            return self._gap(corner, self._beside(self._middle), GAP_AT[quantity], self.plan.ways.bar or 0.0)
        if quantity == "rail":
            offset, heading = self._rails[SIDE[corner]]
            return abs(offset + float(np.tan(heading)) * self.plan.wheel_place(corner)[0])
        raise CalledError(finding("simulation.cannot-read", quantity=quantity))

    def _floor_at(self, corner: Corner) -> float:
        """Return how high the floor is where a height is read, mm: as the plane of the pads lies there, and off it as the pad beside it is."""
        at = np.array([[1.0, *self.plan.wheel_place(c)] for c in CORNERS])
        plane, place = np.linalg.lstsq(at, self._pads, rcond=None)[0], self.plan.height_place(corner)
        i = CORNERS.index(corner)
        return float(plane @ [1.0, place.station, place.offset] + self._pads[i] - at[i] @ plane)

    def _rim(self, corner: Corner) -> FloatArray:
        """Return the axis of a rim as it stands, its run-out counted."""
        toe, camber = _angles(self._wheel(self._at_rest(self._now, True), corner, self._now)[1], SIDE[corner])
        return spin_axis(toe + self._off_rim(corner, "toe"), camber + self._off_rim(corner, "camber"), SIDE[corner])

    def _gauged(self, corner: Corner, steered: float = 0.0) -> float:
        """Return what a gauge zeroed on gravity shows at a rim; ``steered`` so many degrees in about its steering axis."""
        axis = self._rim(corner)
        if steered:
            wheel = self._wheel(self._at_rest(self._now, True), corner, self._now)[1]
            about, toe = self._steering_axis(corner), _angles(wheel, SIDE[corner])[0]

            def off(turn: float) -> float:
                return _angles(Rotation.from_rotvec(turn * about).apply(wheel), SIDE[corner])[0] - toe - steered

            turn = brentq(off, -1.2, 1.2, xtol=1e-13)  # radians, well past any lock
            axis = Rotation.from_rotvec(turn * about).apply(axis)
        return float(np.degrees(-np.arcsin(axis[2])))

    def _steering_axis(self, corner: Corner) -> FloatArray:
        """Return the unit steering axis of a corner as it stands, pointing up; as cars have it where it has no two joints."""
        k = self._standing.axis(self._at_rest(self._now, True), corner)
        tans = (
            [np.tan(np.radians(USUAL_AXIS[kind])) for kind in STEERED]
            if k is None
            else [-k[0] / k[2], -SIDE[corner] * k[1] / k[2]]
        )
        behind, inside = (
            np.tan(np.arctan(t) + np.radians(self._shift.get(f"{corner}.{kind}", 0.0)))
            for t, kind in zip(tans, STEERED, strict=True)
        )
        found = np.array([-behind, -SIDE[corner] * inside, 1.0])
        return np.asarray(found / np.linalg.norm(found))

    def _of_axis(self, corner: Corner, quantity: Quantity) -> float:
        """Return what is read of a steering axis: of the line between its joints, or of a sweep of the wheel."""
        way = "in" if quantity.endswith("_in") else "out"
        if quantity.startswith("plate_"):
            return self._steered(corner, way)
        if quantity.startswith("sweep_"):
            plate = self._steered(corner, way)
            return self._gauged(corner, plate if way == "in" else -plate)
        x, y, z = self._steering_axis(corner)
        behind, inside = float(-x / z), float(-SIDE[corner] * y / z)
        by = {"caster": np.degrees(np.arctan(behind)), "inclination": np.degrees(np.arctan(inside)), "joint_height": JOINTS_MM}
        return float(by.get(quantity, JOINTS_MM * (behind if quantity == "caster_offset" else inside)))

    def _steered(self, corner: Corner, way: str) -> float:
        """Return how far a wheel is steered “in” or “out” on its plate, degrees: always to the same stroke of it, or as somebody steered it."""
        if (corner, way) not in self._plates:
            own = np.random.default_rng([self.seed, 4, CORNERS.index(corner), way == "in"])
            self._plates[corner, way] = float(own.uniform(17.0, 22.0))
        return self._plates[corner, way]

    def _off_rim(self, corner: Corner, kind: str) -> float:
        """Return what the run-out of a rim adds to its camber or toe as it stands, degrees."""
        at = self._rims[corner] + self._round
        return float(
            np.degrees(self.faults.run_out * (np.cos(at) if kind == "toe" else np.sin(at)) / self._spans[END_OF[corner]])
        )

    def _gap(self, corner: Corner, line: tuple[float, float], end: float, bar: float = 0.0) -> float:
        """Return the distance in mm from the hub (``end`` 0), or from the front (1) or back (-1) edge of the rim level through it, or mark of a bar so long
        on the hub, to a line."""
        middle, wheel = self._wheel(self._at_rest(self._now, True), corner, self._now)
        axis = wheel if bar else self._rim(corner)
        # The level line through the plane of the rim points ahead.
        ahead = SIDE[corner] * np.cross(axis, (0.0, 0.0, 1.0))
        point = middle + (bar or self._spans[END_OF[corner]]) / 2 * end * ahead / np.linalg.norm(ahead)
        offset, heading = line
        way = np.array([np.cos(heading), np.sin(heading)])
        to = np.array([0.0, offset]) - point[:2]
        return abs(float(to[0] * way[1] - to[1] * way[0]))

    def _beside(self, line: tuple[float, float]) -> tuple[float, float]:
        """Return where a line that was set up beside the car runs now that the car was rolled."""
        return line[0] + self._beside_strings[0], line[1] + self._beside_strings[1]

    def _rolled_to(self, rng: np.random.Generator | None) -> tuple[float, float]:
        """Return by how much strings on stands of their own lie elsewhere, mm and radians to the left, once the car was rolled; strings on the car go with it."""
        if rng is None or self.plan.ways.strings_on != "stands":
            return 0.0, 0.0
        far, turned = self.faults.rolls
        return float(rng.normal(0, far)), float(np.radians(rng.normal(0, turned)))

    # ---- how it is drawn ----

    def _string(self, side: int) -> tuple[float, float]:
        """Return where the string of a side passes the front axle line, mm left, and its heading to the left, radians."""
        far, turned = self.faults.strings
        half = max(self.plan.front.half_width, self.plan.rear.half_width)
        return side * (half + 90.0) + self._rng.uniform(-far, far), float(np.radians(self._rng.uniform(-turned, turned)))

    def _made(self) -> tuple[Standing, dict[str, float]]:
        """Return the car as it was built, and the turns from the drawing that set it right."""
        built = self.faults.built
        for _ in range(MADE_TRIES):
            try:
                self._standing = Standing(self.plan, self._rng, built, self.faults.springs)
                return self._standing, self._set_rightly()
            except ReadyCornerError:
                built /= 2
                self._set, self._rests, self._shift = {}, {}, {}
        raise CalledError(finding("simulation.no-rest"))

    def _set_rightly(self) -> dict[str, float]:
        """Return how far every adjuster is from the drawing where all aims are met as nearly as they can be; what none of them brings within half a
        tolerance of its aim was built so, and is shifted there."""
        aims = [a for a in self.plan.aims_now if kind_of(a.mark) in CORNER_KINDS and a.mark in self._figures({})]
        turns = {a.id: 0.0 for a in self.plan.adjusters}
        self._worth = self._by_a_turn()
        told = [a for a in self.plan.adjusters if not a.notched]
        if aims and told:
            by = np.array([[self._worth[a.id][aim.mark] / aim.tolerance for a in told] for aim in aims])
            for _ in range(4):
                now = self._figures(turns)
                miss = np.array([(aim.aim - now[aim.mark]) / aim.tolerance for aim in aims])
                rooms = np.array([a.room(turns[a.id]) for a in told]) / 2
                ease = 1e-3 * np.eye(len(told))
                found = lsq_linear(
                    np.vstack([by, ease]), np.concatenate([miss, np.zeros(len(told))]), (rooms[:, 0] - 1e-9, rooms[:, 1] + 1e-9)
                ).x
                for a, x in zip(told, found, strict=True):
                    turns[a.id] += float(x)
        now = self._figures(turns)
        for aim in aims:
            if abs(now[aim.mark] - aim.aim) > aim.tolerance / 2:
                self._shift[aim.mark] = aim.aim + self._rng.uniform(-0.25, 0.25) * aim.tolerance - now[aim.mark]
        self._set = {}
        return turns

    def _by_a_turn(self) -> dict[str, dict[str, float]]:
        """Return what one turn of each adjuster from the drawing does to every mark of a corner."""
        bare = self._figures({})
        found = {}
        for a in self.plan.adjusters:
            one = self._figures({a.id: 1.0})
            found[a.id] = {mark: value - bare[mark] for mark, value in one.items()}
        return found

    def _mis_set(self) -> dict[str, float]:
        """Return how far every adjuster is off its right place, in whole steps, so that no mark is off by more than is said and room is left to come back."""
        off: dict[str, float] = {}
        for adjuster in self.plan.adjusters:
            low, high = adjuster.room(self._rightly[adjuster.id])
            step = adjuster.flats_per_step / FLATS_PER_TURN
            most = max(min(self._furthest(adjuster), -low, high), 0.0)  # it must come back, and not begin past its end
            off[adjuster.id] = float(round(self._rng.uniform(-most, most) / step) * step)
        return off

    def _furthest(self, adjuster: Adjuster) -> float:
        """Return how many turns of one adjuster bring a mark of its corner to the most that is said, alone."""
        most = {
            "height": self.faults.height,
            "caster": self.faults.caster,
            "camber": self.faults.camber,
            "toe": self.faults.toe,
        }
        own, by = adjuster.corner, self._worth[adjuster.id]
        return min(size / max(abs(by[f"{own}.{kind}"]), 1e-6) for kind, size in most.items() if own in MARK_KINDS[kind].corners)


def _key(turns: Mapping[str, float]) -> str:
    return repr(sorted((a, round(t, 9)) for a, t in turns.items() if t))
