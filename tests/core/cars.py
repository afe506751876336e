"""A plain car and short ways of telling its log."""

from itertools import count

from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.plan import Adjuster, Axle, Perch, Plan, Stack, ThreadedEnd, Ways
from ready_corner.core.quantities.notation import Units
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.happenings import Happened, Turned
from ready_corner.core.record.logbook import Entry, PlanRevised
from ready_corner.core.record.notes import Correction
from ready_corner.core.record.readings import Reading

from .practice import PracticeCar

FINE = (
    Tool("rule", "Rule", "length", 1e-6, 0.0),
    Tool("tape", "Tape", "length", 1e-6, 0.0),
    Tool("digital", "Gauge", "angle", 1e-6, 0.0),
)


def end(hand="right", pitch=1.75, engaged=30.0, exposed=20.0):
    return ThreadedEnd(12.0, pitch, engaged, exposed, hand)


TUBE = Adjuster("LR.toe", "toe link", "LR", (end(), end("left")))
ROD = Adjuster("LR.upper", "upper arm rod end", "LR", (end(),), half_turns_only=True)
SHIMS = Adjuster("LF.shims", "shims", "LF", Stack(1.0, 2, 5))
PERCH = Adjuster("RR.perch", "perch", "RR", Perch(2.0, 20.0, 15.0, 0.8))
ADJUSTERS = (TUBE, ROD, SHIMS, PERCH)


WELL_KNOWN = Ways(hub_middle=0.5, settled=0.0)  # a shop that knows where its hubs are, and cars without friction


def plan(tools=FINE, adjusters=ADJUSTERS, **more):
    more.setdefault("ways", WELL_KNOWN)
    wanted = {"height": (110.0, 2.0), "camber": (-1.5, 0.2), "toe": (0.1, 0.1)}
    aims = tuple(Aim(f"{c}.{kind}", *wanted[kind]) for kind in wanted for c in CORNERS)
    return Plan(
        "Practice",
        Units(),
        2400.0,
        Axle(1420.0, 381.0, 600.0),
        Axle(1380.0, 381.0, 620.0),
        aims,
        adjusters=adjusters,
        tools=tools,
        **more,
    )


class Log:
    """Entries in order; each method adds one and returns its identity."""

    def __init__(self, of=None):
        self.numbers = count(1)
        self.entries = []
        self.add(PlanRevised(of or plan()))
        self.add(Happened("settled"))

    def add(self, what):
        number = next(self.numbers)
        self.entries.append(Entry(f"id-{number}", number, what))
        return f"id-{number}"

    def read(self, corner, quantity, value, tool=None, **more):
        return self.add(
            Reading(quantity, corner, value, tool or {"height": "tape", "camber": "digital"}.get(quantity, "rule"), **more)
        )

    def turn(self, adjuster, amount):
        return self.add(Turned(adjuster, amount))

    def strike(self, id_):
        return self.add(Correction(id_))

    def string(self, corner, car, hub=True):
        front, back, middle = car.gaps(corner)
        self.read(corner, "gap_front", front)
        self.read(corner, "gap_back", back)
        if hub:
            self.read(corner, "gap_hub", middle)

    def round(self, car=None, height=110.0):
        """Read everything once from a practice car that stands on its aims."""
        car = car or PracticeCar(
            dict.fromkeys(CORNERS, 0.1), dict.fromkeys(CORNERS, -1.5), left_string=(1000, 0.3), right_string=(-1000, 0.2)
        )
        for corner in CORNERS:
            self.read(corner, "height", height)
            self.read(corner, "camber", car.gauge(corner))
            self.string(corner, car)
        return car
