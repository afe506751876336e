"""A builder who does at a practice car what is said next, and nothing else, until nothing is left to do or to say.

Source: docs/practice.md.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field

from ready_corner.core.advise.corner import set_corner
from ready_corner.core.advise.lift import lift
from ready_corner.core.advise.next import Step, ask_of, next_step
from ready_corner.core.advise.standing import turns_now
from ready_corner.core.judge.marks import Evaluation, evaluate
from ready_corner.core.judge.read import default_tool
from ready_corner.core.plan.marks import CORNER_KINDS, kind_of
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.finding import Finding
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.happenings import Happened, Stuck, Turned
from ready_corner.core.record.logbook import CarState, Entry, PlanRevised, What, fold_on
from ready_corner.core.record.readings import Place, Quantity, Reading
from ready_corner.core.simulation.car import HiddenCar

MOST_STEPS = 400


@dataclass
class Work:
    """The work on one practice car, with its count: ``lifts`` (times the car went up to be turned at), ``readings``, groups of turns and how many
    of them left the car truly worse, left ``fewer`` marks truly within their tolerance than they found, and how many marks that were told to hold and truly
    did they ``spoilt``; how many lists ``foretold`` that a mark that holds would be lost; after how many lifts every mark was ``true`` first, None where they never were; the last ``step``. ``told``: what the plan says of the car, where that is less than there is or other than it was built to. ``judged``: every figure of a corner mark as it stood
    before each lift and at the end: its mark, whether the truth lies inside U, whether it was told to hold, and whether it truly does."""

    car: HiddenCar
    told: Plan | None = None
    state: CarState = field(init=False)
    now: Evaluation = field(init=False)
    step: Step | None = None
    lifts: int = 0
    readings: int = 0
    groups: int = 0
    worse: int = 0
    fewer: int = 0
    spoilt: int = 0
    foretold: int = 0
    true: int | None = None
    judged: list[tuple[str, bool, bool, bool]] = field(default_factory=list)

    def __post_init__(self) -> None:
        plan = self.told or self.car.plan
        self.state = CarState(plan)
        self.now = evaluate(self.state)
        self.tell(PlanRevised(plan))

    def tell(self, what: What) -> None:
        """Write something down."""
        number = self.state.number + 1
        self.state = fold_on(self.state, [Entry(str(number), number, what)])
        self.now = evaluate(self.state, self.now)

    def run(self) -> Step:
        """Do what is said until it is done or a plan would have to change; return the last step. Raises RuntimeError where there is no end."""
        for _ in range(MOST_STEPS):
            self.step = next_step(self.now)
            if self.step.kind in ("done", "plan", "state"):
                self._look()
                return self.step
            self.do(self.step)
        raise RuntimeError(f"no end after {MOST_STEPS} steps")

    def do(self, step: Step) -> None:
        """Do one thing that is said."""
        if step.kind == "settle":
            self.car.roll()
            self.tell(Happened("settled"))
        elif step.kind in ("reconnect", "disconnect"):
            self.tell(Happened("bar_on" if step.kind == "reconnect" else "bar_off"))
        elif step.kind == "read" and step.corner and step.quantity:
            self.read((step.corner, step.quantity), self._named_tool(step, step.quantity), step.half)
        else:
            self._look()
            before, out = self.misses(), set(self.truly_out())
            held = {m.mark for m in self.now.marks if m.state == "holds"} - out
            self.lifts, self.groups = self.lifts + 1, self.groups + 1
            self.foretold += self._loses_by_forecast()
            self._turn_all(step)
            self.worse += self.misses() > before + 1e-9
            then = set(self.truly_out())
            self.true = self.lifts if self.true is None and not then else self.true
            self.fewer += len(then) > len(out)
            self.spoilt += len(held & then)

    def _loses_by_forecast(self) -> bool:
        """Whether a mark that holds would be out of its tolerance by what the list says itself."""
        told = lift(self.now)
        then = {e.mark: e.value for e in told.expected} if told else {}
        return any(
            m.state == "holds" and m.aim is not None and m.mark in then and m.aim.margin(then[m.mark] - m.aim.aim) < 0
            for m in self.now.marks
        )

    def _look(self) -> None:
        """Hold every figure of a corner that counts against the truth."""
        out = set(self.truly_out())
        for m in self.now.marks:
            if (
                m.value is not None
                and m.expanded is not None
                and m.state not in ("unread", "moved since")
                and kind_of(m.mark) in CORNER_KINDS
            ):
                inside = abs(m.value - self.car.truth(m.mark)) <= m.expanded
                self.judged.append((m.mark, inside, m.state == "holds", m.mark not in out))

    def misses(self) -> float:
        """Return the sum of squared true misses of all aims of corners, in tolerances."""
        return sum((a.to_go(self.car.truth(a.mark) - a.aim) / a.tolerance) ** 2 for a in self._aims)

    def truly_out(self) -> tuple[str, ...]:
        """Return the marks of corners that are truly out."""
        return tuple(a.mark for a in self._aims if a.margin(self.car.truth(a.mark) - a.aim) < 0)

    @property
    def _aims(self) -> list[Aim]:
        """What is wanted of corners, as the program was told."""
        return [a for a in (self.told or self.car.plan).aims_now if kind_of(a.mark) in CORNER_KINDS]

    def read(self, place: Place, tool: Tool | None = None, half: bool = False) -> None:
        """Take a reading and write it down."""
        corner, quantity = place
        with_ = tool or ask_of(self.now, place).tool
        self.readings += 1
        self.tell(Reading(quantity, corner, self.car.read(corner, quantity, with_, 180.0 * half), with_.id, half_turn=half))

    def turn(self, adjuster: str, amount: float) -> None:
        """Turn as told; what went only part of the way is said to be stuck."""
        went = self.car.turn(adjuster, amount)
        if abs(went) > 1e-9:
            self.tell(Turned(adjuster, went))
        if abs(went - amount) > 1e-9:
            self.tell(Stuck(adjuster))

    def _turn_all(self, step: Step) -> None:
        """Turn all that is told together, the car going up once for it."""
        if step.kind == "lift":
            while (told := lift(self.now)) and (turn := told.next):
                self.turn(turn.of.id, turn.left)
        elif step.kind == "turn" and step.corner:
            for its in set_corner(self.now, step.corner).turns:
                if its.amount:
                    self.turn(its.adjuster, its.amount)
        elif step.kind == "perch":
            told_now = turns_now(self.now)[0]
            for wound in told_now.steps if told_now else ():
                self.turn(wound.adjuster, wound.amount)
        elif step.kind == "try":
            first = next(a for a in self.car.plan.adjusters if a.corner == step.corner and not a.raises)
            self.turn(first.id, 1.0)

    def _named_tool(self, step: Step, quantity: Quantity) -> Tool | None:
        """Return the tool that the step asks for, None for the usual one."""
        usual = default_tool(self.car.plan, quantity)
        named = set(_figures(step.reason, "tool"))
        fitting = [t for t in self.car.plan.toolbox if t.measures == usual.measures and t.name in named]
        return fitting[-1] if fitting else None


def _figures(found: object, name: str) -> Iterator[object]:
    """Yield every figure of a name in a finding and in those it is made of."""
    if isinstance(found, Finding):
        for key, value in found.figures:
            if key == name:
                yield value
            yield from _figures(value, name)
    elif isinstance(found, tuple):
        for one in found:
            yield from _figures(one, name)
