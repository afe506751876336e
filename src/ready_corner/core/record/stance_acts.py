"""What is written down about how a car stands: the state it is in, which tyre is on, and what is to be learned no more."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

Aboard = Literal["driver", "ballast", "nobody"]
ABOARD_WORDS: Mapping[Aboard, str] = {"driver": "driver aboard", "ballast": "ballast for the driver", "nobody": "nobody aboard"}


@dataclass(frozen=True)
class StateSaid:
    """The state of the car as to what it weighs: who is aboard, fuel in words, what is not fitted yet, and tyres at pressure or not."""

    aboard: Aboard = "driver"
    fuel: str = ""
    missing: tuple[str, ...] = ()
    at_pressure: bool = True

    @property
    def weighs(self) -> tuple[object, ...]:
        """What changes the load on the springs."""
        return self.aboard, self.fuel.strip().lower(), tuple(sorted(m.strip().lower() for m in self.missing))

    @property
    def wanting(self) -> tuple[str, ...]:
        """Why readings of a car in this state are provisional."""
        rows = [f"without {' and '.join(self.missing)}"] if self.missing else []
        rows += ["with neither driver nor ballast"] if self.aboard == "nobody" else []
        return (*rows, *(() if self.at_pressure else ("with tyres not at pressure",)))

    @property
    def words(self) -> str:
        """The state in a sentence."""
        rows = [ABOARD_WORDS[self.aboard], *([f"fuel {self.fuel}"] if self.fuel else [])]
        rows += [f"not fitted yet: {', '.join(self.missing)}"] if self.missing else []
        return ", ".join([*rows, "tyres at pressure" if self.at_pressure else "tyres not at pressure"])


@dataclass(frozen=True)
class TyreFitted:
    """Which tyre is on from now: the one the car is planned for, or a stand-in of its own radius; at one corner, or (None) all round."""

    stand_in: bool
    corner: str | None = None
    words: str = ""


@dataclass(frozen=True)
class Unlearned:
    """What was learned of a perch up to here does not count any more: it goes by the plan again."""

    adjuster: str


StanceAct = StateSaid | TyreFitted | Unlearned


@dataclass(frozen=True)
class StanceLog:
    """What was said of the car's stance and not struck out. ``stand_ins``: corners on a stand-in, ``stood_in``: those that were, from which entry to which; ``unlearned``: perches, each with the entry that said so."""

    state: StateSaid | None = None
    stand_ins: Mapping[str, int] = field(default_factory=dict)
    stood_in: tuple[tuple[str, int, int], ...] = ()
    unlearned: Mapping[str, int] = field(default_factory=dict)

    def after(self, number: int, act: StanceAct) -> "StanceLog":
        """Return the log with one more act."""
        if isinstance(act, StateSaid):
            return replace(self, state=act)
        if isinstance(act, Unlearned):
            return replace(self, unlearned={**self.unlearned, act.adjuster: number})
        here = (act.corner,) if act.corner else ("LF", "RF", "LR", "RR")
        others = {c: n for c, n in self.stand_ins.items() if c not in here}
        ended = tuple((c, self.stand_ins[c], number) for c in here if c in self.stand_ins)
        now = dict.fromkeys(here, number) if act.stand_in else {}
        return replace(self, stand_ins={**others, **now}, stood_in=(*self.stood_in, *ended))
