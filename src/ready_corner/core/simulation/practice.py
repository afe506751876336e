"""A practice car that is worked on like any other: what its logbook says was done to it stands on a hidden truth, which is told at the end.

The truth follows from the plan it began with, its layout, fault and number; nothing of it is kept anywhere.

Source: docs/practice.md.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from ready_corner.core.judge.marks import Evaluation
from ready_corner.core.plan.marks import CORNER_KINDS, kind_of
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import CalledError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.naming import meant
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.record.happenings import Happened, Turned
from ready_corner.core.record.logbook import CarState, PlanRevised
from ready_corner.core.record.notes import Practised
from ready_corner.core.record.readings import Place, Reading
from ready_corner.core.simulation.car import Faults, HiddenCar

# A fault to practise on, by its name: its words, and how far the car is off.
FAULTS: Mapping[str, tuple[str, Faults]] = {
    "all-round": ("everything was taken apart and put back by eye", Faults()),
    "heights": ("the perches were wound at random", Faults(height=15.0, camber=0.2, caster=0.2, toe=0.2)),
    "steering": ("the steering was off, and put back by eye", Faults(height=2.0, camber=0.2, caster=0.3, toe=1.0)),
    "arms": ("new rod ends in the arms", Faults(height=3.0, camber=2.0, caster=1.5, toe=1.0)),
    "crooked": ("the pickups were welded 3 mm off", Faults(built=3.0)),
    "floor": ("the floor is far from level", Faults(pads=6.0)),
}


@dataclass(frozen=True)
class TrueMark:
    """A mark as it truly is (mm, degrees), as it was read last (None where it was not), its aim, and whether it truly is within tolerance."""

    mark: str
    true: float
    read: float | None
    aim: float
    holds: bool


@dataclass(frozen=True)
class Truth:
    """What a practice car hid, and what the work on it came to: ``off`` turns of every adjuster from its right place as it was handed over; ``lifts``
    with something turned, ``readings`` taken."""

    marks: tuple[TrueMark, ...]
    off: Mapping[str, float]
    lifts: int
    readings: int

    @property
    def ready(self) -> bool:
        """Whether every mark with an aim truly is within tolerance."""
        return all(m.holds for m in self.marks)


def practised(state: CarState) -> Practised | None:
    """Return what makes a car one to practise on; None for any other. It stands right behind the first plan."""
    return next((e.what for e in state.entries[:3] if isinstance(e.what, Practised)), None)


def faults_of(name: str) -> Faults:
    """Return a fault by its name. Raises CalledError where there is none such."""
    if name not in FAULTS:
        raise CalledError(finding("practice.no-fault", name=name, near=meant(name, list(FAULTS))), path="fault")
    return FAULTS[name][1]


def hidden_car(state: CarState) -> HiddenCar:
    """Return the car behind a logbook, as it was handed over. Raises CalledError where it is none to practise on."""
    what = practised(state)
    if what is None:
        raise CalledError(finding("practice.none"), path="car")
    first: Plan = next(e.what.plan for e in state.entries if isinstance(e.what, PlanRevised))
    return HiddenCar(first, what.seed, faults_of(what.fault))


def shown(car: HiddenCar, state: CarState, place: Place, tool: Tool, wheel_deg: float = 0.0) -> float:
    """Return what a tool shows at a place of the car as its logbook has left it, in mm, degrees or kg. Asked twice between two entries it shows the same."""
    _stood(car, state)
    corner, quantity = place
    way = quantity.rpartition("_")[2]
    read = state.latest((corner, f"plate_{way}"))  # type: ignore[arg-type]
    if quantity.startswith("sweep_") and read:
        car.steer(corner, way, read[-1].reading.value)
    return car.read(corner, quantity, tool, wheel_deg)


def truth(car: HiddenCar, found: Evaluation) -> Truth:
    """Return what the car hid, at the end of what its logbook says."""
    state = found.state
    _stood(car, state)
    aims = [a for a in car.plan.aims_now if kind_of(a.mark) in CORNER_KINDS]
    marks = []
    for aim in aims:
        true, now = car.truth(aim.mark), found.mark(aim.mark)
        marks.append(TrueMark(aim.mark, true, now.value, aim.aim, aim.margin(true - aim.aim) >= -1e-9))
    told = [e.what for e in state.entries if e.id not in state.struck and isinstance(e.what, Reading | Turned)]
    lifts = sum(isinstance(now, Turned) and not isinstance(was, Turned) for was, now in zip([None, *told], told, strict=False))
    return Truth(tuple(marks), dict(car.handed_over), lifts, sum(isinstance(w, Reading) for w in told))


def _stood(car: HiddenCar, state: CarState) -> None:
    """Leave the car as its logbook says: its adjusters, and how it came to rest since it last moved on its springs."""
    turned: dict[str, float] = {}
    moved = rolled = 0
    for e in state.entries:
        if e.id not in state.struck and isinstance(e.what, Turned | Happened):
            moved = e.number
            if isinstance(e.what, Turned):
                turned[e.what.adjuster] = turned.get(e.what.adjuster, 0.0) + e.what.amount
            elif e.what.what == "settled":
                rolled = e.number
    car.stand(turned, state.condition.settled, moved, rolled, state.number)


def say_practice(what: Practised) -> Finding:
    """Return what is practised on, for whoever lists it."""
    words = FAULTS[what.fault][0] if what.fault in FAULTS else what.fault
    return finding("practice.of", words=words, number=what.seed)
