"""What is written down at the jig: readings, the datum, how the frame is held, what a point has come to, how a pin goes in."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Annotated, Any, Literal

from ready_corner.core.engines.survey.datum import Datum, require_held
from ready_corner.core.engines.survey.readings import KINDS, Kind, Pins, Says, between_pins, compared
from ready_corner.core.engines.survey.readings import Reading as Measurement
from ready_corner.core.plan.corners import CORNERS, Point
from ready_corner.core.plan.plan import Plan, places_of, twin_of
from ready_corner.core.quantities.errors import CalledError, MeasuredError, UnusualError
from ready_corner.core.quantities.fields import Id, Many, Measure, PointName, Prefix, TheLength, Typed, Words, WorkedOut
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.record.act import entry_kind
from ready_corner.core.record.jig_base import JigAct, require_known, require_reads
from ready_corner.core.record.moves import Move, places
from ready_corner.core.record.readings import ON_STANDS
from ready_corner.core.record.weld_acts import Works

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


STEEP_DEG = 10.0
FAR_MM = 120.0  # a distance further from the plan's is asked about once


def _measure(sent: Mapping[str, Any]) -> Measure:
    return "angle" if KINDS[sent["reading"]].unit == "deg" else "length"


@entry_kind
@dataclass(frozen=True)
class SurveyRead(JigAct):
    """One reading of the frame, as typed and as what it means between centres: mm or degrees.

    ``says`` and ``bound`` of a comparison without a number; ``pins`` and ``diameters`` where it was read between edges; ``burnt`` mm were
    taken off, where the tape was begun at a mark instead of its hook.
    """

    kind = "survey"
    model = "SurveyRead"
    reading: Kind
    points: Annotated[tuple[PointName, ...], Many(4, 1)]
    value: Annotated[float, Typed(_measure, "typed")]
    tool: Id
    typed: Annotated[str, WorkedOut] = ""
    says: Says | None = None
    bound: Annotated[float, WorkedOut] = 0.0
    pins: Pins | None = None
    diameters: Annotated[tuple[float, float], Typed("length", "diameters", "diameters_mm")] = (0.0, 0.0)
    burnt: Annotated[float, Typed("length", "burnt", "burnt_mm")] = 0.0
    confirmed: bool = False

    def into(self, log: "JigLog", number: int) -> "JigLog":
        """Return the log with one more act."""
        return replace(log, noted=(*log.noted, Noted(number, self, log.support, log.zero)))

    @classmethod
    def worked_out(cls, sent: Mapping[str, Any], figures: Mapping[str, Any]) -> Mapping[str, Any]:
        """Return the figure between centres and from the hook; of a comparison what would have been noticed."""
        value, burnt, diameters = figures["value"], figures["burnt"], figures["diameters"]
        if sent["reading"] == "in_line" or sent["says"]:
            return {"value": 0.0, "bound": value, "diameters": (0.0, 0.0), "burnt": 0.0}
        if burnt < 0 or (burnt and burnt >= value):
            raise MeasuredError(finding("survey.burnt"), path="burnt")
        if not sent["pins"]:
            return {"value": value - burnt, "diameters": (0.0, 0.0)}
        return {"value": between_pins(value - burnt, sent["pins"], *diameters)}

    def check(self, plan: Plan) -> None:
        """Refuse unknown points, a point from itself, another tool; ask about a distance far from the plan's."""
        require_known(self.points, plan)
        if self.reading == "compare" and self.says:
            a, b, c, d = self.points if len(self.points) == 4 else (*self.points, *[""] * 4)[:4]
            compared("new", (a, b, c, d), self.says, self.bound)
            return
        Measurement("new", self.reading, self.points, self.value, 1.0)
        if self.reading == "in_line":
            if not self.bound > 0:
                raise MeasuredError(finding("survey.no-play"), path="typed")
            return
        tool = plan.tool(self.tool)
        if (tool.measures == "angle") != (KINDS[self.reading].unit == "deg"):
            raise CalledError(
                finding("tool.other-reading", tool=tool.name, reading=f"a {KINDS[self.reading].words}"), path="tool"
            )
        if self.reading == "distance" and not self.confirmed:
            known = places_of(plan)
            planned = math.dist(known[self.points[0]], known[self.points[1]])
            if abs(self.value - planned) > FAR_MM:
                raise UnusualError(
                    finding("survey.unlike-plan", value=self.value, planned=planned),
                    path="typed",
                    numbers={"value": self.value, "planned": planned},
                )


@entry_kind
@dataclass(frozen=True)
class DatumChosen(JigAct):
    """Where the axes of the car are taken from, by names of points; ``way`` of working, ``words`` how they were found.

    ``figures``: heights of the plane, offsets of the line, station of the point, mm, where they are not the plan's but those found before.
    """

    kind = "datum"
    model = "Datum"
    plane: tuple[PointName, PointName, PointName]
    line: tuple[PointName, PointName]
    point: PointName
    words: Words = ""
    way: DatumWay = "named points"
    figures: tuple[float, float, float, float, float, float] | None = None

    def into(self, log: "JigLog", number: int) -> "JigLog":
        """Return the log with one more act."""
        return replace(log, datum=self, datum_number=number)

    def check(self, plan: Plan) -> None:
        """Refuse unknown points, the same point twice, and a datum that leaves the car free to move."""
        require_known((*self.plane, *self.line, self.point), plan)
        if len(set(self.plane)) < 3 or len(set(self.line)) < 2:
            raise MeasuredError(finding("datum.same-points"), path="plane")
        known = places_of(plan)
        require_held(datum_of(self, known), known)


@entry_kind
@dataclass(frozen=True)
class Supported(JigAct):
    """How the frame is held from now on."""

    kind = "supported"
    sentence = "The frame is {how} now"
    how: Support

    def into(self, log: "JigLog", number: int) -> "JigLog":
        """Return the log with one more act."""
        off = log.support == "on the jig" and self.how != "on the jig"
        shaken = (number, finding("move.frame-support", how=self.how)) if self.how != log.support else log.shaken
        return replace(log, support=self.how, left_jig=number if off else log.left_jig, shaken=shaken)

    def moves(self, log: "JigLog", number: int) -> list[Move]:
        """Return that another support moves what was read on the stands."""
        if self.how == log.support:
            return []
        return [Move(number, "", 0.0, places(ON_STANDS, CORNERS), finding("move.support", how=self.how), unknown=True)]


@entry_kind
@dataclass(frozen=True)
class StatusGiven(JigAct):
    """A point (or every point that begins so: ``RR``, ``RR.lower``) is provisional, tacked, welded or painted now."""

    kind = "status"
    sentence = "{point:point}: {status}"
    model = "Status"
    point: Prefix
    status: Status

    def into(self, log: "JigLog", number: int) -> "JigLog":
        """Return the log with one more act."""
        return replace(log, statuses={**log.statuses, self.point: self.status})

    def check(self, plan: Plan) -> None:
        """Refuse a beginning with which no point's name begins."""
        if not any(n == self.point or n.startswith(f"{self.point}.") for n in places_of(plan)):
            raise CalledError(finding("status.no-point", point=self.point), path="point")


@entry_kind
@dataclass(frozen=True)
class PinFelt(JigAct):
    """How a pin goes into the hole of a point by hand."""

    kind = "pin"
    sentence = "Pin of {point:point}: {says}"
    model = "Pin"
    point: PointName
    says: PinSays

    def into(self, log: "JigLog", number: int) -> "JigLog":
        """Return the log with one more act."""
        return replace(log, pins={**log.pins, self.point: (*log.pins.get(self.point, ()), (number, self.says))})

    def check(self, plan: Plan) -> None:
        """Refuse a point that is not known."""
        require_known((self.point,), plan)


@entry_kind
@dataclass(frozen=True)
class FootRead(JigAct):
    """Height of one foot of the jig (or pad), by laser, water level or rule from one line, mm, plus being higher."""

    kind = "foot"
    sentence = "Foot {foot} of the jig: {value:length}"
    model = "Foot"
    foot: Id
    value: TheLength
    tool: Id
    typed: Annotated[str, WorkedOut] = ""

    def into(self, log: "JigLog", number: int) -> "JigLog":
        """Return the log with one more act."""
        return replace(log, feet={**log.feet, self.foot: (number, self)})

    def check(self, plan: Plan) -> None:
        """Refuse a foot the jig does not have, and another tool."""
        feet = plan.jig.feet if plan.jig else {}
        if self.foot not in feet:
            raise CalledError(
                finding("jig.no-foot", foot=self.foot, feet=tuple(feet)),
                path="foot",
            )
        require_reads(plan, self.tool, "length")


@entry_kind
@dataclass(frozen=True)
class SlopeRead(JigAct):
    """A level read along or across the jig, and read again end for end: degrees, plus rising forward or to the left as it lay first."""

    kind = "slope"
    sentence = "Level {way} the jig: {first:typed}, end for end {second:typed}"
    model = "Slope"
    way: Literal["along", "across"]
    first: Annotated[float, Typed("angle", "typed")]
    second: Annotated[float, Typed("angle", "reversed_typed")]
    tool: Id

    def into(self, log: "JigLog", number: int) -> "JigLog":
        """Return the log with one more act."""
        return replace(log, slopes=(*log.slopes, (number, self)))

    def check(self, plan: Plan) -> None:
        """Refuse another tool, and a slope that no jig has."""
        require_reads(plan, self.tool, "angle")
        if max(abs(self.first), abs(self.second)) > STEEP_DEG:
            raise MeasuredError(finding("slope.impossible", angle=max(abs(self.first), abs(self.second))), path="typed")


@entry_kind
@dataclass(frozen=True)
class GaugeZeroed(JigAct):
    """The angle gauge is zeroed on gravity, or on the frame where level is not to be had; angles read from now on are counted from it."""

    kind = "zeroed"
    sentence = "Angle gauge zeroed on {on=gravity?gravity|the frame}"
    model = "Zeroed"
    on: Zero

    def into(self, log: "JigLog", number: int) -> "JigLog":
        """Return the log with one more act."""
        return replace(log, zero=self.on, zeroed=number)


@dataclass(frozen=True)
class Noted:
    """A reading in its place in the log, with how the frame was held, and what an angle is counted from."""

    number: int
    read: SurveyRead
    support: Support
    zero: Zero = "gravity"


@dataclass(frozen=True)
class Disturbed:
    """Something that may have moved points: entry, the beginnings of their names (empty: all of them), and what it was."""

    number: int
    points: tuple[str, ...]
    said: Finding
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
    zeroed: int = 0  # the entry with which the gauge was zeroed last
    left_jig: int = 0  # the entry with which it came off the jig last
    shaken: tuple[int, Finding | None] = (0, None)  # entry of what may have put the jig out of level last

    def after(self, number: int, act: JigAct) -> "JigLog":
        """Return the log with one more act."""
        return act.into(self, number)

    def after_disturbance(self, number: int, points: tuple[str, ...], said: Finding, *, weld: bool = False) -> "JigLog":
        """Return the log with something that may have moved points, by the beginnings of their names; all of them where none is named."""
        return replace(self, disturbed=(*self.disturbed, Disturbed(number, points, said, weld)))

    def known_error(self, tool: str) -> tuple[float, float] | None:
        """Return the last two readings end for end of a level or gauge, degrees, from whose sum its own error follows; None where it was not turned since
        it was zeroed last."""
        found = next((read for number, read in reversed(self.slopes) if read.tool == tool and number > self.zeroed), None)
        return (found.first, found.second) if found else None

    def since(self, number: int, *points: str) -> "Disturbed | None":
        """Return what may have moved one of these points last, after an entry; of a corner (``LF``) what moved anything there. None where nothing did."""

        def hit(d: Disturbed) -> bool:
            return any(d.moves(p) or any(q.startswith(f"{p}.") for q in d.points) for p in points)

        return next((d for d in reversed(self.disturbed) if d.number > number and hit(d)), None)

    def welded(self, points: Sequence[str]) -> "JigLog":
        """Return the log with points welded, by the beginnings of their names; what is painted stays so."""
        return replace(self, statuses={**self.statuses, **{p: "welded" for p in points if self.status(p) != "painted"}})

    def status(self, point: str) -> Status:
        """Return what a point has come to: its own word, else that of the longest beginning of its name."""
        parts = point.split(".")
        for n in range(len(parts), 0, -1):
            if found := self.statuses.get(".".join(parts[:n])):
                return found
        return "provisional"


def datum_of(chosen: DatumChosen, planned: Mapping[str, Point]) -> Datum:
    """Return a chosen datum with the plan's figures (mm) at its points, in the axes in which its line lies.

    Raises MeasuredError for a point the plan does not have, or one of a mid-line that has no partner on the other side.
    """
    partners = (twin_of(chosen.line[0]), twin_of(chosen.line[1])) if chosen.way == MID_LINE else None
    if partners and (alone := next((a for a, b in zip(chosen.line, partners, strict=True) if a == b), None)):
        raise MeasuredError(finding("datum.no-partner", point=alone), path="line")
    if missing := next((n for n in (*chosen.plane, *chosen.line, *(partners or ()), chosen.point) if n not in planned), None):
        raise MeasuredError(finding("datum.no-point", point=missing), path="datum")
    z = [planned[n][2] for n in chosen.plane]
    bare = Datum(chosen.plane, chosen.line, chosen.point)
    across = partners is None and bare.lies_across(planned)
    if partners == (chosen.line[1], chosen.line[0]):
        a, b = (planned[n] for n in chosen.line)
        line = [(a[1] + b[1]) / 2, a[0] - b[0]]
    elif partners:
        line = [(planned[a][1] + planned[b][1]) / 2 for a, b in zip(chosen.line, partners, strict=True)]
    else:
        line = [planned[n][0 if across else 1] for n in chosen.line]
    station = planned[chosen.point][1 if across else 0]
    f = chosen.figures or (z[0], z[1], z[2], line[0], line[1], station)
    return Datum(chosen.plane, chosen.line, chosen.point, f[:3], f[3:5], f[5], across, partners)
