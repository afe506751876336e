"""What is written down about how a car stands: the state it is in, which tyre is on, and what is to be learned no more."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from ready_corner.core.plan.corners import CORNERS, Corner
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.fields import Id, Many, Name, Text, Words
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.record.act import Act, entry_kind
from ready_corner.core.record.moves import Move, places
from ready_corner.core.record.readings import MOVED_BY, ON_WHEELS

Aboard = Literal["driver", "ballast", "nobody"]
ABOARD_WORDS: Mapping[Aboard, str] = {"driver": "driver aboard", "ballast": "ballast for the driver", "nobody": "nobody aboard"}


class StanceAct(Act):
    """A kind of entry of how the car stands."""

    def into(self, log: "StanceLog", number: int) -> "StanceLog":
        """Return what was said of how the car stands with one more act."""
        raise NotImplementedError

    def moves(self, log: "StanceLog", number: int) -> list[Move]:
        """Return what it moves; mostly nothing."""
        return []


@entry_kind
@dataclass(frozen=True)
class StateSaid(StanceAct):
    """The state of the car as to what it weighs: who is aboard, fuel in words, what is not fitted yet, and tyres at pressure or not."""

    kind = "state"
    sentence = "State of the car: {words}"
    aboard: Aboard = "driver"
    fuel: Annotated[str, Text(80)] = ""
    missing: Annotated[tuple[Name, ...], Many(30)] = ()
    at_pressure: bool = True

    @property
    def weighs(self) -> tuple[object, ...]:
        """What changes the load on the springs."""
        return self.aboard, self.fuel.strip().lower(), tuple(sorted(m.strip().lower() for m in self.missing))

    @property
    def wanting(self) -> tuple[Finding, ...]:
        """Why readings of a car in this state are provisional."""
        rows = [finding("why.missing", missing=self.missing)] if self.missing else []
        rows += [finding("why.nobody")] if self.aboard == "nobody" else []
        return (*rows, *(() if self.at_pressure else (finding("why.pressure"),)))

    @property
    def words(self) -> str:
        """The state in a sentence."""
        rows = [ABOARD_WORDS[self.aboard], *([f"fuel {self.fuel}"] if self.fuel else [])]
        rows += [f"not fitted yet: {', '.join(self.missing)}"] if self.missing else []
        return ", ".join([*rows, "tyres at pressure" if self.at_pressure else "tyres not at pressure"])

    def into(self, log: "StanceLog", number: int) -> "StanceLog":
        """Return the log with the state."""
        return replace(log, state=self)

    def moves(self, log: "StanceLog", number: int) -> list[Move]:
        """Return what it moves that the car weighs something else now, or stands on other pressures."""
        if log.state is None:
            return []
        if self.weighs != log.state.weighs:
            return [Move(number, "", 0.0, places(ON_WHEELS, CORNERS), finding("move.load", state=self.words), unknown=True)]
        if self.at_pressure != log.state.at_pressure:
            return [Move(number, "", 0.0, places(MOVED_BY["tyre"], CORNERS), finding("move.pressures"), unknown=True)]
        return []


@entry_kind
@dataclass(frozen=True)
class TyreFitted(StanceAct):
    """Which tyre is on from now: the one the car is planned for, or a stand-in of its own radius; at one corner, or (None) all round."""

    kind = "fitted"
    model = "TyreFitted"
    stand_in: bool
    corner: Corner | None = None
    words: Words = ""

    def into(self, log: "StanceLog", number: int) -> "StanceLog":
        """Return the log with the tyre that is on."""
        here: tuple[str, ...] = (self.corner,) if self.corner else CORNERS
        others = {c: n for c, n in log.stand_ins.items() if c not in here}
        ended = tuple((c, log.stand_ins[c], number) for c in here if c in log.stand_ins)
        now = dict.fromkeys(here, number) if self.stand_in else {}
        return replace(log, stand_ins={**others, **now}, stood_in=(*log.stood_in, *ended))

    def moves(self, log: "StanceLog", number: int) -> list[Move]:
        """Return that another tyre moves all that is read of the car on its wheels."""
        corners = CORNERS if self.corner is None else (self.corner,)
        said = finding("move.told", words=self.words) if self.words else finding("move.tyre", stand_in=self.stand_in)
        return [Move(number, "", 0.0, places(ON_WHEELS, CORNERS) | places(("radius",), corners), said, unknown=True)]


@entry_kind
@dataclass(frozen=True)
class Unlearned(StanceAct):
    """What was learned of a perch up to here does not count any more: it goes by the plan again."""

    kind = "unlearned"
    adjuster: Id

    def into(self, log: "StanceLog", number: int) -> "StanceLog":
        """Return the log with it."""
        return replace(log, unlearned={**log.unlearned, self.adjuster: number})

    def check(self, plan: Plan) -> None:
        """Refuse an adjuster the plan does not have."""
        plan.adjuster(self.adjuster)


@dataclass(frozen=True)
class StanceLog:
    """What was said of the car's stance and not struck out. ``stand_ins``: corners on a stand-in, ``stood_in``: those that were, from which entry to which; ``unlearned``: perches, each with the entry that said so."""

    state: StateSaid | None = None
    stand_ins: Mapping[str, int] = field(default_factory=dict)
    stood_in: tuple[tuple[str, int, int], ...] = ()
    unlearned: Mapping[str, int] = field(default_factory=dict)
