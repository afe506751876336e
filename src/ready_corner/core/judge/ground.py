"""What a car stands on: pads, tyres and stand-ins, springs under it, and what they add to heights, loads, camber and toe.

Source: docs/choices.md (Figures); the statics of engines/statics.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.alignment import camber as camber_of
from ready_corner.core.engines.statics.springs import GRAVITY
from ready_corner.core.engines.survey.level import heights_round
from ready_corner.core.judge.memory import remembered
from ready_corner.core.judge.reach import Reach, Wheels, reach, warped, wheels_of
from ready_corner.core.judge.read import FloatArray, OfState, Read
from ready_corner.core.model.springs_of_plan import Springing, places, response, springing, tilted_loads
from ready_corner.core.plan.corners import AROUND, CORNERS, END_OF, ROUND_AND_BACK, Corner
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.measured import Measured
from ready_corner.core.record.readings import Place


@dataclass(frozen=True)
class Under:
    """What stands under the wheels: ``rises`` of pads and tyres, mm, and what each adds to heights (4, n) and loads in kg (4, n); ``tilt`` in kg (4,)."""

    rises: tuple[Measured, ...]
    heights: FloatArray
    loads: FloatArray
    tilt: FloatArray


@dataclass(frozen=True)
class Stepped:
    """Pads by steps round: ``heights`` over the first (4,) by corner, by how much the round does not close (``apart``), mm, and its last entry."""

    heights: list[Measured]
    apart: Measured
    last: int

    @property
    def closes(self) -> bool:
        """Whether it closes, as sure as it was read: else something is made of none of it."""
        return abs(self.apart.value) <= self.apart.expanded


class Ground(OfState):
    """What the car stands on, by what was read of it and by the plan."""

    def __init__(self, read: Read) -> None:
        super().__init__(read.memory)
        self.read = read

    @property
    @remembered
    def springs(self) -> Springing:
        """The springs of the plan at the wheels."""
        return springing(self.plan)

    @property
    @remembered
    def wheels(self) -> Wheels:
        """How camber and toe go with travel by the plan."""
        return wheels_of(self.plan)

    @property
    @remembered
    def reach(self) -> Reach:
        """What turns do to marks and hubs by the plan alone, the links of a bar off: so heights and loads are read, and perches turned."""
        try:
            return reach(self.plan, self.springs, False)
        except ReadyCornerError:
            return Reach({}, {}, {})

    @property
    @remembered
    def rest(self) -> tuple[FloatArray, FloatArray]:
        """What the friction in each corner puts into every height (mm) and load (kg) each time the car has settled, (4, 4) standard uncertainties."""
        u = self.plan.ways.sure("settled") / 2
        by = response(places(self.plan), self.springs.supports(), self.springs.lifts())
        there = np.array([[p.station, p.offset] for p in (self.plan.height_place(c) for c in CORNERS)])
        return u * by.at_places(there), u * by.loads / GRAVITY

    @property
    @remembered
    def radii(self) -> dict[Corner, Measured]:
        """The loaded radius of the tyre each corner is planned for: read on the car while it was on, else that of the plan; absent where neither is."""
        found: dict[Corner, Measured] = {}
        for corner in CORNERS:
            linkage = self.plan.linkage(END_OF[corner])
            if linkage is not None:
                found[corner] = Measured(linkage.loaded_radius, {})
            since = self.state.stance.stand_ins.get(corner, math.inf)
            other = [(low, high) for c, low, high in self.state.stance.stood_in if c == corner]
            own = [
                t
                for t in self.state.taken.get((corner, "radius"), ())
                if t.number < since and not any(low < t.number < high for low, high in other)
            ]
            if own:
                found[corner] = self.read.group((corner, "radius"), own[-1].spell).estimate
        return found

    @property
    @remembered
    def stand_ins(self) -> dict[Corner, Measured]:
        """The loaded radius of every stand-in tyre that is on and was read since."""
        found: dict[Corner, Measured] = {}
        for corner in self.state.stance.stand_ins:
            place: Place = (corner, "radius")  # type: ignore[assignment]
            rows = self.state.latest(place)
            if rows and rows[-1].number > self.state.stance.stand_ins[corner]:
                found[place[0]] = self.read.group(place, rows[-1].spell).estimate
        return found

    @property
    @remembered
    def under(self) -> Under:
        """What the pads and stand-in tyres do to heights and loads, to be taken out of both."""
        pads = self.pads
        rises: list[Measured] = []
        heights, loads = np.zeros((4, 0)), np.zeros((4, 0))
        tilt = np.zeros(4)
        if pads or self.stand_ins:
            at = places(self.plan)
            s = self.springs.supports()
            by = response(at, s)
            there = np.array([[p.station, p.offset] for p in (self.plan.height_place(c) for c in CORNERS)])
            if pads:
                rises += pads
                heights, loads = np.eye(4) - by.heights, -by.loads / GRAVITY
                if self.plan.loads and self.plan.footing.mass:
                    weight = self.plan.footing.mass * GRAVITY
                    lie = np.array([r.value for r in rises])
                    tilt = -tilted_loads(at, s, lie, weight, self.plan.loads.height) / GRAVITY
            for corner, own in self.stand_ins.items():
                if (planned := self.radii.get(corner)) is None:
                    continue
                i = CORNERS.index(corner)
                rises += [own, planned]
                raised, loaded = by.at_places(there)[:, i], by.loads[:, i] / GRAVITY
                heights = np.column_stack([heights, -raised, raised])
                loads = np.column_stack([loads, -loaded, loaded])
        return Under(tuple(rises), heights, loads, tilt)

    @property
    def corrected(self) -> tuple[tuple[float, ...], tuple[float, ...]]:
        """What is added to each height (mm) and load (kg) as read, for pads and stand-in tyres, (4,) each."""
        lie = np.array([r.value for r in self.under.rises])
        return tuple((self.under.heights @ lie).tolist()), tuple((self.under.loads @ lie + self.under.tilt).tolist())

    def _read_last(self, places: Sequence[Place]) -> tuple[list[Measured], int]:
        """Return what was read last at all of some places, and the entry of the last of them; nothing while one is wanting."""
        rows = [self.state.latest(p) for p in places]
        if not all(rows):
            return [], 0
        found = [self.read.group(p, r[-1].spell).estimate for p, r in zip(places, rows, strict=True)]
        return found, max(r[-1].number for r in rows)

    @property
    @remembered
    def stepped(self) -> Stepped | None:
        """The four pads by a level taken from each to the next all round; None until it has been all round since the floor was changed."""
        places_: list[Place] = [(c, "pad_step") for c in ROUND_AND_BACK]
        steps, last = self._read_last(places_)
        if not steps or any(self.state.spells.get(p, 0) > self.state.latest(p)[-1].spell for p in places_):
            return None
        heights, apart = heights_round(steps)
        by = dict(zip(AROUND, heights, strict=True))
        return Stepped([by[c] for c in CORNERS], apart, last)

    @property
    @remembered
    def pads(self) -> list[Measured]:
        """The heights of the four pads as they were read last: each by itself, or by steps round that close; none while some are wanting."""
        each, last = self._read_last([(c, "pad") for c in CORNERS])
        steps = self.stepped
        return steps.heights if steps and steps.closes and steps.last > last else each

    @property
    @remembered
    def floor(self) -> camber_of.Floor | None:
        """The floor from the four pads; None until all four are read, and the floor is then taken as level."""
        if not self.pads:
            return None
        heights = [p.value for p in self.pads]
        return camber_of.floor_from_pads([self.plan.wheel_place(c) for c in CORNERS], heights)

    @property
    @remembered
    def tilted(self) -> FloatArray:
        """Gravity's upward unit vectors in the car's axes were each pad a millimetre higher, (4, 3)."""
        at, lie = [self.plan.wheel_place(c) for c in CORNERS], np.array([p.value for p in self.pads])
        return np.array([camber_of.floor_from_pads(at, lie + one).up for one in np.eye(len(CORNERS))])

    @property
    @remembered
    def warped(self) -> dict[Corner, tuple[float, float]]:
        """What the warp of the pads, beside their slope, does to camber and toe of each corner through its travel, degrees."""
        assert self.floor
        try:
            camber, toe = warped(self.plan, self.springs, self.wheels, self.floor.residual)
        except ReadyCornerError:
            return dict.fromkeys(CORNERS, (0.0, 0.0))
        return {c: (float(camber[i]), float(toe[i])) for i, c in enumerate(CORNERS)}
