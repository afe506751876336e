"""Around the weld: hold points, the order of joints, what is accepted and why, clearances, and the body on the jig."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Annotated, Literal

from ready_corner.core.plan.corners import Corner
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.fields import (
    Above,
    Label,
    Length,
    Many,
    Name,
    Otherwise,
    PointName,
    Text,
    TheLength,
    Words,
    WorkedOut,
)
from ready_corner.core.quantities.finding import finding
from ready_corner.core.record.act import entry_kind
from ready_corner.core.record.jig_base import JigAct, require_known

if TYPE_CHECKING:
    from ready_corner.core.record.jig_acts import JigLog

HOLDS = (
    "suspension cycled through its whole travel",
    "engine and steering trial-fitted",
    "body placed",
    "left and right compared",
)
WeldWay = Literal["in steps, checked after each", "tack all, then weld out"]
Role = Literal["carries", "locates"]
LEAST_DEPTH = 50.0  # mm between the two depths at which a dropped line is looked at


class WeldAct(JigAct):
    """A kind of entry around the weld."""

    def onto(self, works: "Works", number: int) -> "Works":
        """Return what was written down around the weld with one more act."""
        raise NotImplementedError

    def into(self, log: "JigLog", number: int) -> "JigLog":
        """Return the log with one more act."""
        return replace(log, works=self.onto(log.works, number))


@entry_kind
@dataclass(frozen=True)
class HoldMet(WeldAct):
    """A condition that is to be met before final weld is met, or is not any more."""

    kind = "hold"
    sentence = "Before final weld: {condition}{met?|, not any more}. {words}"
    model = "Hold"
    condition: Annotated[str, Text(120, 1)]
    met: bool = True
    words: Words = ""

    def onto(self, works: "Works", number: int) -> "Works":
        """Return the works with the condition as it is now."""
        return replace(works, holds={**works.holds, self.condition: (number, self)})


@entry_kind
@dataclass(frozen=True)
class Accepted(WeldAct):
    """What is left of a point's deviation is accepted for a reason; what is built on it later starts from where it is."""

    kind = "accepted"
    sentence = "{point:point}: what is left of it is accepted. {reason}"
    point: PointName
    reason: Words

    def onto(self, works: "Works", number: int) -> "Works":
        """Return the works with the point accepted."""
        return replace(works, accepted={**works.accepted, self.point: (number, self.reason)})

    def check(self, plan: Plan) -> None:
        """Refuse a point that is not known, and no reason."""
        if not self.reason.strip():
            raise MeasuredError(finding("accepted.no-reason"), path="reason")
        require_known((self.point,), plan)


@entry_kind
@dataclass(frozen=True)
class WeldOrder(WeldAct):
    """The joints in the order in which they are to be welded, and the way of working with its reason."""

    kind = "weld_order"
    sentence = "Order of welding, {way}: {joints:list}. {reason}"
    joints: Annotated[tuple[Name, ...], Many(100)]
    way: WeldWay = "in steps, checked after each"
    reason: Words = ""

    def onto(self, works: "Works", number: int) -> "Works":
        """Return the works with the order."""
        return replace(works, order=self)

    def check(self, plan: Plan) -> None:
        """Refuse no joints, or one named twice."""
        if not self.joints or len(set(self.joints)) < len(self.joints):
            raise MeasuredError(finding("weld-order.no-joints"), path="joints")


@entry_kind
@dataclass(frozen=True)
class Cleared(WeldAct):
    """Least clearance of a point to a neighbour, or the gap of a bracket to its bush, mm."""

    kind = "gap"
    title = "Clearances and bush gaps"
    form = "weld"
    sentence = "{point:point} to {to}: {value:length}"
    model = "Gap"
    point: Annotated[PointName, Label("Point", "point")]
    to: Annotated[Name, Label("To what")]
    what: Annotated[Literal["neighbour", "bush"], Otherwise("neighbour"), Label("Of a")]
    value: Annotated[TheLength, Label("Clearance or gap")]
    typed: Annotated[str, WorkedOut] = ""

    def onto(self, works: "Works", number: int) -> "Works":
        """Return the works with the clearance."""
        return replace(works, gaps={**works.gaps, (self.point, self.to): (number, self)})

    def check(self, plan: Plan) -> None:
        """Refuse a point that is not known, and less than nothing."""
        if self.value < 0:
            raise MeasuredError(finding("gap.below-zero"), path="typed")
        require_known((self.point,), plan)


@entry_kind
@dataclass(frozen=True)
class OpeningRead(WeldAct):
    """A wheel opening against the axle centre: horizontally from the centre to its edge ahead and behind, at one height, mm."""

    kind = "opening"
    title = "Wheel opening"
    form = "weld"
    sentence = "{corner:Corner} opening: {ahead:length} ahead of the axle, {behind:length} behind"
    model = "Opening"
    corner: Annotated[Corner, Label("Corner")]
    ahead: Annotated[Length, Label("Ahead")]
    behind: Annotated[Length, Label("Behind")]

    def onto(self, works: "Works", number: int) -> "Works":
        """Return the works with the opening."""
        return replace(works, openings={**works.openings, self.corner: (number, self)})

    def check(self, plan: Plan) -> None:
        """Refuse an axle that is not within its opening."""
        if min(self.ahead, self.behind) <= 0:
            raise MeasuredError(finding("arch.outside"), path="typed")


@entry_kind
@dataclass(frozen=True)
class SillRead(WeldAct):
    """Height of sill or seam over the jig at the front or the rear of one side, mm. ``sag``: it was so before anything was cut."""

    kind = "sill"
    title = "Height of sill or seam"
    form = "weld"
    sentence = "Sill, {place} {side}: {value:length}{sag?, so before anything was cut|}"
    model = "Sill"
    place: Annotated[Literal["front", "rear"], Label("At the")]
    side: Annotated[Literal["left", "right"], Label("Side")]
    value: Annotated[TheLength, Label("Sill or seam, height")]
    typed: Annotated[str, WorkedOut] = ""
    sag: Annotated[bool, Label("it was so before")] = False

    def onto(self, works: "Works", number: int) -> "Works":
        """Return the works with the height."""
        return replace(works, sills={**works.sills, (self.place, self.side): (number, self)})


@entry_kind
@dataclass(frozen=True)
class SupportPoint(WeldAct):
    """A point the body stands on: it carries, or only locates by a pin in a hole; diameters in mm, 0 where there is none."""

    kind = "support_point"
    name: Annotated[str, Text(60, 1)]
    role: Role
    pin: Annotated[float, Above(0, True)] = 0.0
    hole: Annotated[float, Above(0, True)] = 0.0

    def onto(self, works: "Works", number: int) -> "Works":
        """Return the works with the support."""
        return replace(works, supports={**works.supports, self.name: self})

    def check(self, plan: Plan) -> None:
        """Refuse a pin that does not go into its hole."""
        if self.pin and self.hole and self.pin > self.hole:
            raise MeasuredError(finding("support.pin-over-hole", pin=self.pin, hole=self.hole), path="pin")


@entry_kind
@dataclass(frozen=True)
class Bracing(WeldAct):
    """Whether the shell is braced before it is cut, and why."""

    kind = "bracing"
    sentence = "{braced?Braced|Not braced} before it is cut. {reason}"
    braced: bool
    reason: Words = ""

    def onto(self, works: "Works", number: int) -> "Works":
        """Return the works with it."""
        return replace(works, bracing=self)


@entry_kind
@dataclass(frozen=True)
class Brace(WeldAct):
    """A brace set between two points of frame or shell, or taken out again; taken out, what it held may have moved."""

    kind = "brace"
    title = "A brace, set or taken out"
    form = "weld"
    sentence = "Brace {name} {out?taken out|set}, {first:point} to {second:point}"
    name: Annotated[Name, Label("Brace")]
    first: Annotated[PointName, Label("From", "point")]
    second: Annotated[PointName, Label("To", "point")]
    out: Annotated[bool, Label("taken out")] = False

    def onto(self, works: "Works", number: int) -> "Works":
        """Return the works with the braces that are in."""
        others = {name: b for name, b in works.braces.items() if name != self.name}
        return replace(works, braces=others if self.out else {**others, self.name: self})

    def into(self, log: "JigLog", number: int) -> "JigLog":
        """Return the log; of a brace taken out with what may have moved."""
        log = super().into(log, number)
        if not self.out:
            return log
        return log.after_disturbance(number, (self.first, self.second), finding("move.brace-out", brace=self.name))

    def check(self, plan: Plan) -> None:
        """Refuse points that are not known, and a brace from a point to itself."""
        require_known((self.first, self.second), plan)
        if self.first == self.second:
            raise MeasuredError(finding("brace.same-point"), path="second")


@entry_kind
@dataclass(frozen=True)
class Dropped(WeldAct):
    """A point dropped by plumb line or upright laser and looked at in two depths, mm: how far off it the line is at each, plus outboard or forward.

    ``mark``: the depth at which it is to be marked. A line that looks right at one depth may miss at another.
    """

    kind = "dropped"
    title = "A point dropped by laser or plumb line"
    form = "weld"
    sentence = (
        "{point:point} dropped: off by {miss:length} at {depth:length} and by {second_miss:length} at {second_depth:length}"
    )
    point: Annotated[PointName, Label("Dropped point", "point")]
    depth: Annotated[Length, Label("First depth")]
    miss: Annotated[Length, Label("Off by, there")]
    second_depth: Annotated[Length, Label("Second depth")]
    second_miss: Annotated[Length, Label("Off by, there too")]
    mark: Annotated[Length, Label("Depth of the mark")]

    @property
    def lean(self) -> float:
        """How far the line leans, mm a mm."""
        return (self.second_miss - self.miss) / (self.second_depth - self.depth)

    @property
    def off(self) -> float:
        """By how much the mark would be off, mm."""
        return self.miss + self.lean * (self.mark - self.depth)

    def onto(self, works: "Works", number: int) -> "Works":
        """Return the works with the point."""
        return replace(works, dropped={**works.dropped, self.point: (number, self)})

    def check(self, plan: Plan) -> None:
        """Refuse a point that is not known, and one depth twice."""
        require_known((self.point,), plan)
        if abs(self.second_depth - self.depth) < LEAST_DEPTH:
            raise MeasuredError(finding("dropped.one-depth", least=LEAST_DEPTH), path="second_depth")


@entry_kind
@dataclass(frozen=True)
class CutLine(WeldAct):
    """A line not to be cut beyond: so far from a point of the frame, mm, and why; or taken back."""

    kind = "cut_line"
    title = "A line not to be cut beyond"
    form = "weld"
    sentence = "{out?Line taken back|No cut}: {what}, nearer than {by:length} to {point:point}. {reason}"
    what: Annotated[Name, Label("Where")]
    point: Annotated[PointName, Label("Measured from", "point")]
    by: Annotated[Length, Label("Not nearer than")]
    reason: Annotated[Name, Label("For what")]
    out: Annotated[bool, Label("taken back")] = False

    def onto(self, works: "Works", number: int) -> "Works":
        """Return the works with the lines that hold."""
        others = {what: c for what, c in works.cuts.items() if what != self.what}
        return replace(works, cuts=others if self.out else {**others, self.what: self})

    def check(self, plan: Plan) -> None:
        """Refuse a point that is not known, and less than nothing."""
        require_known((self.point,), plan)
        if self.by < 0:
            raise MeasuredError(finding("cut.below-zero"), path="by")


@entry_kind
@dataclass(frozen=True)
class CarryOver(WeldAct):
    """A dimension between two points that carries a datum over what goes, chosen beforehand, and the gauge that keeps it; or no more."""

    kind = "carry"
    title = "A dimension that carries the datum over"
    form = "weld"
    sentence = "{out?Carries nothing over any more|Carries the datum over}: {first:point} to {second:point}, kept by {gauge}"
    gauge: Annotated[Name, Label("Gauge that keeps it")]
    first: Annotated[PointName, Label("From", "point")]
    second: Annotated[PointName, Label("To", "point")]
    out: Annotated[bool, Label("no more")] = False

    def onto(self, works: "Works", number: int) -> "Works":
        """Return the works with the dimensions that carry over."""
        others = {gauge: c for gauge, c in works.carries.items() if gauge != self.gauge}
        return replace(works, carries=others if self.out else {**others, self.gauge: (number, self)})

    def check(self, plan: Plan) -> None:
        """Refuse points that are not known, and a dimension from a point to itself."""
        require_known((self.first, self.second), plan)
        if self.first == self.second:
            raise MeasuredError(finding("carry.same-point"), path="second")


@dataclass(frozen=True)
class Works:
    """What was written down around the weld, latest of each, with its entry number where what happens later may undo it."""

    holds: Mapping[str, tuple[int, HoldMet]] = field(default_factory=dict)
    accepted: Mapping[str, tuple[int, str]] = field(default_factory=dict)
    order: WeldOrder | None = None
    gaps: Mapping[tuple[str, str], tuple[int, Cleared]] = field(default_factory=dict)
    openings: Mapping[Corner, tuple[int, OpeningRead]] = field(default_factory=dict)
    sills: Mapping[tuple[str, str], tuple[int, SillRead]] = field(default_factory=dict)
    supports: Mapping[str, SupportPoint] = field(default_factory=dict)
    bracing: Bracing | None = None
    braces: Mapping[str, Brace] = field(default_factory=dict)
    dropped: Mapping[str, tuple[int, Dropped]] = field(default_factory=dict)
    cuts: Mapping[str, CutLine] = field(default_factory=dict)
    carries: Mapping[str, tuple[int, CarryOver]] = field(default_factory=dict)


REFIT = "back in the jig: every pin goes in as it did before"


def conditions(works: Works, left_jig: int) -> tuple[str, ...]:
    """Return every condition before final weld; after work out of the jig, going back into it is one."""
    return tuple(dict.fromkeys([*HOLDS, *((REFIT,) if left_jig else ()), *works.holds]))


def open_holds(works: Works, disturbed: int, left_jig: int = 0) -> tuple[str, ...]:
    """Return the conditions that are not met: never said, taken back, or said before the frame was last disturbed or came off the jig."""

    def met(condition: str) -> bool:
        number, said = works.holds.get(condition, (0, HoldMet(condition, False)))
        return said.met and number > max(disturbed, left_jig if condition == REFIT else 0)

    return tuple(c for c in conditions(works, left_jig) if not met(c))


def body_move(opening: OpeningRead) -> float:
    """Return by how much the body must go forward (minus: aft) so that the axle is in the middle of its opening, mm."""
    return (opening.behind - opening.ahead) / 2
