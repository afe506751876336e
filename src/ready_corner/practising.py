"""The service of practice cars: beginning one, what its tools show, and its truth."""

import secrets
import threading
import uuid
from collections.abc import Mapping
from datetime import datetime
from importlib.resources import files

from ready_corner.border.entries import EntryIn, PlanRevisedModel
from ready_corner.border.kinds import SENT
from ready_corner.border.plan import PlanModel
from ready_corner.core.judge.read import default_tool
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import CalledError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.naming import meant
from ready_corner.core.quantities.tools import INCH, LB
from ready_corner.core.record.readings import QUANTITIES
from ready_corner.core.simulation.car import HiddenCar
from ready_corner.core.simulation.cars import LAYOUTS, practice_plan
from ready_corner.core.simulation.practice import Truth, faults_of, hidden_car, shown, truth
from ready_corner.exchange.files import read_plan
from ready_corner.instruments.line import Shown, Wanted
from ready_corner.workshop import Workshop

# What each layout is called by whoever picks one.
LAYOUT_WORDS: Mapping[str, str] = {
    "heather": "double wishbones, pushrods at both ends",
    "five-link": "wishbones in front, five links at the rear",
    "tern": "struts in front, a live axle on links at the rear",
    "three-link-axle": "wishbones in front, a live axle on three links",
}
MOST_SEED = 1_000_000


class Practising:
    """The practice cars of a workshop. What each hides is drawn once and kept in memory."""

    def __init__(self, workshop: Workshop) -> None:
        self.workshop = workshop
        self._cars: dict[str, HiddenCar] = {}
        self._lock = threading.Lock()

    def begin(self, layout: str, fault: str, id_: uuid.UUID, at: datetime, who: str, seed: int | None = None) -> str:
        """Begin a car to practise on; return its short name. Sent twice with one identity, it is begun once."""
        if layout not in LAYOUTS:
            raise CalledError(finding("practice.no-layout", name=layout, near=meant(layout, list(LAYOUTS))), path="layout")
        faults_of(fault)
        number = secrets.randbelow(MOST_SEED) if seed is None else seed
        plan = PlanModel.from_core(plan_to_practise(layout))
        named = plan.model_copy(update={"name": f"Practice {number:06d}", "about": f"To practise on: {LAYOUT_WORDS[layout]}"})
        first = EntryIn(id=id_, at=at, who=who, what=PlanRevisedModel(kind="plan", plan=named))
        second = SENT["practice"](kind="practice", layout=layout, fault=fault, seed=number)
        slug = self.workshop.begin(first)
        if self.workshop.state(slug).number == 1:
            self.workshop.record(slug, EntryIn(id=uuid.uuid5(id_, "practice"), at=at, who=who, what=second))
        return slug

    def shown(self, wanted: Wanted) -> Shown:
        """Return what a tool shows at a practice car, in the unit of the car. Raises CalledError for any other car, or what is not read so."""
        state = self.workshop.state(wanted.car)
        usual = default_tool(state.plan, wanted.quantity)
        facts = QUANTITIES[wanted.quantity]
        tool = next((t for t in state.plan.toolbox if t.id == wanted.tool and t.measures == facts.measures), usual)
        with self._lock:
            value = shown(self._car(wanted.car), state, (wanted.corner, wanted.quantity), tool, wanted.turned_deg)
        inches = state.plan.units.inches
        if facts.kind == "angle":
            return Shown(round(value, 4), "deg")
        if facts.kind == "mass":
            return Shown(round(value / LB, 2), "lb") if inches else Shown(round(value, 3), "kg")
        return Shown(round(value / INCH, 5), "in") if inches else Shown(round(value, 4), "mm")

    def truth(self, slug: str) -> tuple[Truth, Plan]:
        """Return what a practice car hid, and its plan. Raises CalledError for any other car."""
        found = self.workshop.evaluation(slug)
        with self._lock:
            return truth(self._car(slug), found), self._car(slug).plan

    def _car(self, slug: str) -> HiddenCar:
        if slug not in self._cars:
            self._cars[slug] = hidden_car(self.workshop.state(slug))
        return self._cars[slug]


def plan_to_practise(layout: str) -> Plan:
    """Return the plan of a practice car of a layout."""
    return practice_plan(read_plan((files("ready_corner.demo") / f"{layout}.plan.json").read_bytes()).to_core(), layout)
