"""What is written down at the jig: readings, the datum, how the frame is held, what a point has come to, how a pin goes in."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

from ready_corner.core.engines.survey.readings import Kind, Pins, Says
from ready_corner.core.record.weld_acts import WorkAct, Works

Status = Literal["provisional", "tacked", "welded", "painted"]
Zero = Literal["gravity", "frame"]
PinSays = Literal["free", "tight", "stuck"]
Support = Literal["on the jig", "on stands", "on a lift", "on blocks", "on fixed rods", "on its wheels"]
DatumWay = Literal[
    "named points",
    "mid-line of the lower inner pivots",
    "frame rail proved parallel",
    "rails offset from the centreline",
    "laser or string centreline",
    "axle line to the wheel openings",
    "one machined front edge",
]
MID_LINE: DatumWay = "mid-line of the lower inner pivots"
DATUM_NOTES: Mapping[DatumWay, str] = {
    "mid-line of the lower inner pivots": "Half of their distance is the centreline for as long as they are only moved up and down.",
    "frame rail proved parallel": "A rail is a reference only after it was proved parallel to the centreline: read its offset at both ends.",
    "rails offset from the centreline": "The plan's offset of each rail stands in at every station; read both rails, not one.",
    "laser or string centreline": "A line that looks centred at one height may miss at another: check it at two.",
    "axle line to the wheel openings": "Openings are pressed, not machined: check both sides, and expect millimetres.",
    "one machined front edge": "One edge fixes the station alone; name the other witnesses before it is covered.",
}  # fmt: skip


@dataclass(frozen=True)
class SurveyRead:
    """One reading of the frame, as typed and as what it means between centres: mm or degrees.

    ``says`` and ``bound`` of a comparison without a number; ``pins`` and ``diameters`` where it was read between edges; ``burnt`` mm were
    taken off, where the tape was begun at a mark instead of its hook.
    """

    reading: Kind
    points: tuple[str, ...]
    value: float
    tool: str
    typed: str = ""
    says: Says | None = None
    bound: float = 0.0
    pins: Pins | None = None
    diameters: tuple[float, float] = (0.0, 0.0)
    burnt: float = 0.0
    confirmed: bool = False


@dataclass(frozen=True)
class DatumChosen:
    """Where the axes of the car are taken from, by names of points; ``way`` of working, ``words`` how they were found.

    ``figures``: heights of the plane, offsets of the line, station of the point, mm, where they are not the plan's but those found before.
    """

    plane: tuple[str, str, str]
    line: tuple[str, str]
    point: str
    words: str = ""
    way: DatumWay = "named points"
    figures: tuple[float, float, float, float, float, float] | None = None


@dataclass(frozen=True)
class Supported:
    """How the frame is held from now on."""

    how: Support


@dataclass(frozen=True)
class StatusGiven:
    """A point (or every point that begins so: ``RR``, ``RR.lower``) is provisional, tacked, welded or painted now."""

    point: str
    status: Status


@dataclass(frozen=True)
class PinFelt:
    """How a pin goes into the hole of a point by hand."""

    point: str
    says: PinSays


@dataclass(frozen=True)
class FootRead:
    """Height of one foot of the jig (or pad), by laser, water level or rule from one line, mm, plus being higher."""

    foot: str
    value: float
    tool: str
    typed: str = ""


@dataclass(frozen=True)
class SlopeRead:
    """A level read along or across the jig, and read again end for end: degrees, plus rising forward or to the left as it lay first."""

    way: Literal["along", "across"]
    first: float
    second: float
    tool: str


@dataclass(frozen=True)
class GaugeZeroed:
    """The angle gauge is zeroed on gravity, or on the frame where level is not to be had; angles read from now on are counted from it."""

    on: Zero


JigAct = SurveyRead | DatumChosen | Supported | StatusGiven | PinFelt | FootRead | SlopeRead | GaugeZeroed | WorkAct


@dataclass(frozen=True)
class Noted:
    """A reading in its place in the log, with how the frame was held, and what an angle is counted from."""

    number: int
    read: SurveyRead
    support: Support
    zero: Zero = "gravity"


@dataclass(frozen=True)
class Disturbed:
    """Something that may have moved points: entry, the beginnings of their names (empty: all of them), and its words."""

    number: int
    points: tuple[str, ...]
    words: str
    weld: bool

    def moves(self, point: str) -> bool:
        """Whether it may have moved a point."""
        return not self.points or any(point == p or point.startswith(f"{p}.") for p in self.points)


@dataclass(frozen=True)
class JigLog:
    """All that was written down at the jig and not struck out, oldest first."""

    noted: tuple[Noted, ...] = ()
    disturbed: tuple[Disturbed, ...] = ()
    datum: DatumChosen | None = None
    datum_number: int = 0
    support: Support = "on the jig"
    statuses: Mapping[str, Status] = field(default_factory=dict)
    pins: Mapping[str, tuple[tuple[int, PinSays], ...]] = field(default_factory=dict)
    feet: Mapping[str, tuple[int, FootRead]] = field(default_factory=dict)
    slopes: tuple[tuple[int, SlopeRead], ...] = ()
    works: Works = field(default_factory=Works)
    zero: Zero = "gravity"
    left_jig: int = 0  # the entry with which it came off the jig last
    shaken: tuple[int, str] = (0, "")  # entry and words of what may have put the jig out of level last

    def after(self, number: int, act: JigAct) -> "JigLog":
        """Return the log with one more act."""
        if isinstance(act, SurveyRead):
            return replace(self, noted=(*self.noted, Noted(number, act, self.support, self.zero)))
        if isinstance(act, DatumChosen):
            return replace(self, datum=act, datum_number=number)
        if isinstance(act, Supported):
            off = self.support == "on the jig" and act.how != "on the jig"
            shaken = (number, f"the frame is {act.how} now") if act.how != self.support else self.shaken
            return replace(self, support=act.how, left_jig=number if off else self.left_jig, shaken=shaken)
        if isinstance(act, GaugeZeroed):
            return replace(self, zero=act.on)
        if isinstance(act, StatusGiven):
            return replace(self, statuses={**self.statuses, act.point: act.status})
        if isinstance(act, WorkAct):
            return replace(self, works=self.works.after(number, act))
        if isinstance(act, FootRead):
            return replace(self, feet={**self.feet, act.foot: (number, act)})
        if isinstance(act, SlopeRead):
            return replace(self, slopes=(*self.slopes, (number, act)))
        return replace(self, pins={**self.pins, act.point: (*self.pins.get(act.point, ()), (number, act.says))})

    def status(self, point: str) -> Status:
        """Return what a point has come to: its own word, else that of the longest beginning of its name."""
        parts = point.split(".")
        for n in range(len(parts), 0, -1):
            if found := self.statuses.get(".".join(parts[:n])):
                return found
        return "provisional"
