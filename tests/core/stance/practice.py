"""A practice car with a hidden truth: a chassis on springs that differ from what its plan says, read with tools that have their steps.

Where it stands is found by least energy, with nothing of what it tests: springs at the wheels by the exact ratio of a straight lever, no linkage.
"""

from dataclasses import dataclass, field, replace

import numpy as np
from scipy.optimize import minimize

from ready_corner.core.judge.marks import evaluate
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.footing import Footing
from ready_corner.core.plan.plan import Adjuster, Axle, HeightPlace, Perch, Plan, Ways
from ready_corner.core.quantities.notation import Units
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.happenings import Happened, Turned
from ready_corner.core.record.logbook import Entry, PlanRevised, fold
from ready_corner.core.record.readings import Reading

G = 9.80665
AT = np.array([[0.0, 650.0], [0.0, -650.0], [-2300.0, 640.0], [-2300.0, -640.0]])
PLACES = np.array([[150.0, 300.0], [150.0, -300.0], [-2100.0, 320.0], [-2100.0, -320.0]])


def practice_plan(aims=(120.0, 120.0, 135.0, 135.0), cross=50.0, school="both", ratio=0.8, room=60.0, tolerance=2.0):
    perches = tuple(Adjuster(f"{c}.perch", "spring perch", c, Perch(2.0, room, room, ratio)) for c in CORNERS)
    return Plan(
        "Practice", Units(), 2300.0, Axle(1300.0, 350.0, 580.0), Axle(1280.0, 350.0, 580.0),
        (*(Aim(f"{c}.height", a, tolerance) for c, a in zip(CORNERS, aims, strict=True)), Aim("car.cross_weight", cross, 0.5)),
        tuple(HeightPlace(c, "floor", x, y) for c, (x, y) in zip(CORNERS, PLACES, strict=True)),
        perches,
        (Tool("tape", "Tape", "length", 0.1, 0.02), Tool("scales", "Scales", "mass", 0.1, 0.02), Tool("rule", "Rule", "length", 0.1, 0.02)),
        footing=Footing(school=school), ways=Ways(settled=0.0),
    )  # fmt: skip


@dataclass
class Practice:
    """The truth: rates at the wheels N/mm, spring ratios, free heights, pads under the tyres, mass and centre of gravity; perches in turns."""

    plan: Plan
    rates: np.ndarray = field(default_factory=lambda: np.array([21.0, 23.0, 26.0, 24.5]))
    ratios: np.ndarray = field(default_factory=lambda: np.array([0.7, 0.72, 0.66, 0.69]))
    free: np.ndarray = field(default_factory=lambda: np.array([182.0, 178.0, 181.0, 186.0]))
    pads: np.ndarray = field(default_factory=lambda: np.zeros(4))
    tyres: np.ndarray = field(default_factory=lambda: np.full(4, 185.0))
    mass: float = 560.0
    cg: tuple = (-1180.0, 20.0)
    turns: np.ndarray = field(default_factory=lambda: np.zeros(4))
    entries: list = field(default_factory=list)

    def __post_init__(self):
        self.tell(PlanRevised(self.plan))

    def tell(self, what):
        n = len(self.entries) + 1
        self.entries.append(Entry(str(n), n, what))

    def stands(self):
        """Heights over the pad at the places read, and loads in kg, by least energy over heave, pitch, roll and four tyres."""
        p = np.column_stack([np.ones(4), AT])
        free = self.free + self.turns * 2.0 / self.ratios

        def energy(v):
            z, hub = p @ (v[:3] * [1, 1e-3, 1e-3]), v[3:]
            c, t = free - z + hub, 290.0 + self.pads - hub
            return 0.5 * (self.rates @ c**2 + self.tyres @ t**2) + self.mass * G * (
                v[0] + 1e-3 * (self.cg[0] * v[1] + self.cg[1] * v[2])
            )

        q = minimize(energy, [400.0, 0, 0, *(285.0 + self.pads)], method="BFGS", options={"gtol": 1e-6, "maxiter": 5000}).x
        there = np.column_stack([np.ones(4), PLACES]) @ (q[:3] * [1, 1e-3, 1e-3])
        # The chassis is some way over its reference; only that it is the same all over matters.
        return there - self.pads - 296.0, self.tyres * (290.0 + self.pads - q[3:]) / G

    def read(self, quantities=("height", "load")):
        self.tell(Happened("settled"))
        heights, loads = self.stands()
        for quantity, values, tool in (("height", heights, "tape"), ("load", loads, "scales")):
            for c, v in zip(CORNERS, values, strict=True):
                if quantity in quantities:
                    self.tell(Reading(quantity, c, round(float(v), 1), tool))

    def read_pads(self):
        for c, v in zip(CORNERS, self.pads, strict=True):
            self.tell(Reading("pad", c, round(float(v), 1), "rule"))

    def turn(self, corner, amount):
        self.turns[CORNERS.index(corner)] += amount
        self.tell(Turned(f"{corner}.perch", amount))

    @property
    def judged(self):
        return evaluate(fold(None, self.entries))


def on_flat(car):
    """The same truth on level pads."""
    return replace(car, pads=np.zeros(4), entries=[])
