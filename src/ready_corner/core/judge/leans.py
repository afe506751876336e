"""Camber, caster and inclination from what gauges, plumb lines and sweeps read against whatever is upright: gravity over the pads, or the frame.

Source: JCGM 100:2008, 5.1.2, over the geometry of gauges and pads; docs/readings.md.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.alignment import camber as camber_of
from ready_corner.core.engines.alignment import steering_axis, string
from ready_corner.core.engines.statics.attitude import attitude_of
from ready_corner.core.judge.ground import Ground
from ready_corner.core.judge.memory import remembered
from ready_corner.core.judge.read import Figure, FloatArray, Group, OfState
from ready_corner.core.judge.strings import run_out
from ready_corner.core.plan.corners import CORNERS, END_OF, SIDE, Corner
from ready_corner.core.plan.marks import MARK_KINDS, ReadBy
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.measured import Measured, combine, propagate

LEANING = ("camber", "caster", "inclination")
FLOOR_UNTOLD, FLOOR_ALONG = "floor across", "floor along"
# Where nobody told: a steering axis as cars have it, and as a car is built that was drawn; standard uncertainties in degrees.
USUAL_AXIS = {"caster": (5.0, 4.0), "inclination": (10.0, 5.0)}
AXIS_BUILT_DEG, JOINTS_READ_DEG, TOE_UNTOLD_DEG = 1.5, 0.3, 0.5
NUDGE = 1e-3  # mm or degrees, of central differences


@dataclass(frozen=True)
class Upright:
    """The upward unit vector ``up`` (3,) that gauges are zeroed on, in the axes of the plane the car stands on; its sources of doubt, and ``tilted``
    (n, 3): what it would be with one more of each."""

    up: FloatArray
    sources: tuple[Measured, ...]
    tilted: FloatArray


def by_nudges(angle: Callable[[Sequence[float], FloatArray], float], inputs: Sequence[Measured], on: Upright) -> Measured:
    """Return an angle of figures and of what is upright, degrees, its uncertainty propagated through the function itself."""
    at = [m.value for m in inputs]

    def nudged(i: int, by: float) -> float:
        return angle([v + by * (k == i) for k, v in enumerate(at)], on.up)

    value = angle(at, on.up)
    by = [(nudged(i, NUDGE) - nudged(i, -NUDGE)) / (2 * NUDGE) for i in range(len(at))]
    return propagate(value, [*inputs, *on.sources], [*by, *(angle(at, up) - value for up in on.tilted)])


def of_floor(measured: Measured) -> float:
    """Return the u² of an angle that comes of a floor nobody has read, square degrees; 0 where none does."""
    return sum(measured.parts.get(name, 0.0) ** 2 for name in (FLOOR_UNTOLD, FLOOR_ALONG))


class Leans(OfState):
    """Leaning angles of wheels and steering axes, degrees. ``figure``: the figure of a kind at a corner in a spell, the latest where none is named."""

    def __init__(self, ground: Ground, figure: Callable[..., Figure | None], aspect: str = "") -> None:
        super().__init__(ground.memory)
        self.aspect = aspect  # told apart in memory: the same readings by other figures beside them
        self.read, self.ground, self.figure = ground.read, ground, figure

    def made(self, kind: str, corner: Corner, groups: tuple[Group, ...], way: ReadBy) -> Measured:
        """Return camber, caster or inclination of a corner, degrees, by groups read in one way; raises MeasuredError where they tell none."""
        return self._camber(corner, groups, way) if kind == "camber" else self._of_axis(kind, corner, groups, way)

    def _camber(self, corner: Corner, groups: tuple[Group, ...], way: ReadBy) -> Measured:
        on_frame = groups[0].rows[-1].on_frame
        beside = self.read.toe_beside(corner, groups[0].rows[-1].number) if self.ground.floor or on_frame else None
        return self._camber_from_upright(corner, groups[0].spell, beside, way, on_frame)

    @remembered
    def _camber_from_upright(self, corner: Corner, spell: int, toe_spell: int | None, way: ReadBy, on_frame: bool) -> Measured:
        """Return a camber that was counted from gravity or the frame, what stands under it and the wheel's own toe taken out, degrees."""
        rim = max(self.read.group((corner, q), spell).rim_left for q in way.read)  # type: ignore[arg-type]
        estimate = combine([self.leaned(corner, spell, way), run_out(self.plan, corner, "camber")], [1.0, rim])
        toe = None if toe_spell is None else self.figure("toe", corner, toe_spell)
        steer, on = toe.measured.value if toe else 0.0, self.upright(on_frame)
        ups = np.vstack([on.up, on.tilted])
        value, *tilted = camber_of.camber_from_gravity_deg(estimate.value, SIDE[corner], ups, steer).tolist()
        by = [t - value for t in tilted]
        warp = self.ground.warped[corner][0] if self.ground.floor and not on_frame else 0.0
        # d(camber)/d(reading) is 1 to the square of the floor's slope
        return propagate(value - warp, [estimate, *on.sources], [1.0, *by])

    def leaned(self, corner: Corner, spell: int, way: ReadBy) -> Measured:
        """Return what a camber reads against whatever is upright, degrees: a gauge's figure, or the gaps of a rim to a plumb line over its span."""
        first, *others = [self.read.group((corner, q), spell).estimate for q in way.read]  # type: ignore[arg-type]
        if not others:
            return first
        span = self.plan.axle_of(corner).rim_flange_diameter
        lean = -float(string.toe_against_string_deg(first.value, others[0].value, span))
        by = math.degrees(1 / (span * max(math.cos(math.radians(lean)), 1e-6)))
        known = Measured(span, {f"{END_OF[corner]} span": self.plan.ways.sure("span") / 2})
        return propagate(lean, [first, others[0], known], [-by, by, -math.degrees(math.tan(math.radians(lean))) / span])

    def _of_axis(self, kind: str, corner: Corner, groups: tuple[Group, ...], way: ReadBy) -> Measured:
        """Return caster or inclination, the floor taken out: of the line between the joints, or of the axis that a sweep turned about."""
        which = 0 if kind == "caster" else 1
        if way.name == "sweep":
            return self._swept(which, corner, groups)
        other = self._axis_near("inclination" if kind == "caster" else "caster", corner)
        own = [g.estimate for g in groups]

        def angle(at: Sequence[float], up: FloatArray) -> float:
            lean = at[0] if len(own) == 1 else float(steering_axis.angle_of_offset_deg(at[0], at[1]))
            both = (lean, at[-1]) if kind == "caster" else (at[-1], lean)
            return float(steering_axis.from_gravity_deg(*both, SIDE[corner], up)[which])

        return by_nudges(angle, [*own, other], self.upright(groups[0].rows[-1].on_frame))

    def _swept(self, which: int, corner: Corner, groups: tuple[Group, ...]) -> Measured:
        """Return caster (0) or inclination (1) of a sweep: cambers steered in and out, the angles of the plates counted from the wheel's own toe,
        and the camber straight ahead where it was read too. A caster takes the inclination from wherever it is known best."""
        spell, on_frame, side = groups[0].spell, groups[0].rows[-1].on_frame, SIDE[corner]
        near = self.read.toe_beside(corner, groups[0].rows[-1].number)
        toe = self.figure("toe", corner, near) if near is not None else None
        untold = Measured(aim.aim if (aim := self.plan.aim(f"{corner}.toe")) else 0.0, {f"{corner} toe untold": TOE_UNTOLD_DEG})
        ahead = [self.leaned(corner, spell, w) for w in self.read.ways_in("camber", corner, spell)[:1]]
        known = self._inclination_known(corner)
        off = run_out(self.plan, corner, "camber")
        leans = [combine([g, off], [1.0, 1.0]) for g in (groups[0].estimate, groups[1].estimate, *ahead)]
        u = max(leans[0].u, 1e-6)

        def angle(at: Sequence[float], up: FloatArray) -> float:
            plate_in, plate_out, own, inclination, *cambers = at
            steer = np.array([own + plate_in, own - plate_out, own][: len(cambers)])
            leaning = camber_of.camber_from_gravity_deg(np.array(cambers), side, up, steer)
            by = None if which else steering_axis.Known(inclination, known.u)
            return float(steering_axis.axis_from_sweep(steer, leaning, by, u)[which])

        plates = [groups[2].estimate, groups[3].estimate]
        return by_nudges(angle, [*plates, toe.measured if toe else untold, known, *leans], self.upright(on_frame))

    def _inclination_known(self, corner: Corner) -> Measured:
        """Return the inclination for a sweep, degrees: of the joints as they were read last, the floor taken out, else as :meth:`_axis_near` has it."""
        for way in MARK_KINDS["inclination"].ways:
            if way.name != "sweep" and (spells := self.read.spells(corner, way.read)):  # type: ignore[arg-type]
                groups = tuple(self.read.group((corner, q), spells[-1]) for q in way.read)  # type: ignore[arg-type]
                read = self._of_axis("inclination", corner, groups, way)
                return Measured(read.value, {**read.parts, f"{corner} inclination of the joints": JOINTS_READ_DEG})
        return self._axis_near("inclination", corner)

    def _axis_near(self, kind: str, corner: Corner) -> Measured:
        """Return caster or inclination about as it is, degrees: as the joints were read last, else as drawn, else as cars have it."""
        for way in MARK_KINDS[kind].ways:
            spells = [] if way.name == "sweep" else self.read.spells(corner, way.read)  # type: ignore[arg-type]
            if spells:
                first, *others = [self.read.group((corner, q), spells[-1]).estimate for q in way.read]  # type: ignore[arg-type]
                lean = (
                    float(steering_axis.angle_of_offset_deg(first.value, max(others[0].value, 1.0))) if others else first.value
                )
                return Measured(lean, {f"{corner} {kind} of the joints": JOINTS_READ_DEG})
        drawn = float(self.ground.wheels.drawn[kind][CORNERS.index(corner)])
        usual, u = USUAL_AXIS[kind]
        value, u = (drawn, AXIS_BUILT_DEG) if math.isfinite(drawn) else (usual, u)
        return Measured(value, {f"{corner} {kind} untold": u})

    @remembered
    def upright(self, on_frame: bool) -> Upright:
        """Return what gauges are upright by, in the axes of the plane the car stands on: gravity over the pads as read, or the frame."""
        if on_frame:
            return self._frame_upright()
        if self.ground.floor:
            return Upright(self.ground.floor.up, tuple(self.ground.pads), self.ground.tilted)
        u = math.degrees(self.plan.ways.sure("floor") / 2)
        at = np.array([self.plan.wheel_place(c) for c in CORNERS])
        by = u / np.sqrt(((at - at.mean(axis=0)) ** 2).sum(axis=0)) if u else (0.0, 0.0)
        sources = tuple(Measured(0.0, {n: float(b)} if u else {}) for n, b in ((FLOOR_ALONG, by[0]), (FLOOR_UNTOLD, by[1])))
        sine, cosine = math.sin(math.radians(1)), math.cos(math.radians(1))
        return Upright(camber_of.LEVEL_UP, sources, np.array([[sine, 0.0, cosine], [0.0, sine, cosine]]))

    def _frame_upright(self) -> Upright:
        """Return the upright of the frame in the plane of the tyres, by its four heights against the drawing."""
        heights = [self.figure("height", c) for c in CORNERS]
        at = [self.plan.height_place(c) for c in CORNERS]
        aims = [self.plan.aim(f"{c}.height") for c in CORNERS]
        drawn = [p.height if p.height is not None else a.aim if a else None for p, a in zip(at, aims, strict=True)]
        if any(h is None for h in heights) or any(d is None for d in drawn):
            raise MeasuredError(finding("camber.frame-heights"), path="typed")
        figures = tuple(h.measured for h in heights if h)
        places = [(p.station, p.offset, float(d or 0.0)) for p, d in zip(at, drawn, strict=True)]
        read = np.array([m.value for m in figures])

        def up(heights: FloatArray) -> FloatArray:
            return attitude_of(places, heights.tolist()).upright

        return Upright(up(read), figures, np.array([up(read + one) for one in np.eye(len(CORNERS))]))
