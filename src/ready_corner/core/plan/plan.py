"""What the builder wants of one car: its main dimensions, aims, adjusters, tools and ways of working.

Lengths in mm, angles in degrees, stations forward of the front axle line, offsets positive to the left.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, fields
from typing import Generic, Literal, TypeVar, get_args

from ready_corner.core.engines.linkage.body import Bar, Joint, Loads, Rocker, Shaft, Spring, Torsion
from ready_corner.core.engines.linkage.layouts import LAYOUTS, LayoutName
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, SIDE, Corner, End, Point
from ready_corner.core.plan.footing import Footing
from ready_corner.core.plan.marks import MARK_KINDS, MARKS, ReadBy
from ready_corner.core.plan.provisional import may_be_provisional
from ready_corner.core.quantities.errors import CalledError, PlannedError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.naming import meant
from ready_corner.core.quantities.notation import FLATS_PER_TURN, Units
from ready_corner.core.quantities.tools import EYE, Tool, default_tools
from ready_corner.core.quantities.verdict import Aim

LEAST_ENGAGEMENT_DIAMETERS = 1.5  # thread diameters that stay screwed in, unless the plan says otherwise
SHIM_ALIKE = 0.02  # of a shim: what two of one thickness differ by


LEAST_SIZE = 1e-4  # mm; what is said to have a size and is smaller was typed in another unit


def positive(value: float, what: str, path: str, *, is_length: bool = True) -> None:
    """Raise PlannedError unless ``value`` is finite and a size: at least a ten-thousandth of a millimetre."""
    if not (math.isfinite(value) and value >= LEAST_SIZE):
        kind = "plan.no-size" if is_length and math.isfinite(value) else "plan.no-number"
        raise PlannedError(finding(kind, what=what, value=value), path=path)


def twin_of(name: str) -> str:
    """Return the name of the point on the other side: its corner, or the word left or right in it, exchanged."""
    swap: Mapping[str, str] = {"LF": "RF", "RF": "LF", "LR": "RR", "RR": "LR", "left": "right", "right": "left"}
    return ".".join(swap.get(part, part) for part in name.split("."))


@dataclass(frozen=True)
class Axle:
    """One axle: ``track`` between the wheel centre planes, ``rim_flange_diameter`` over the flanges as measured, in mm.

    ``tyre_diameter`` is the outside of the tyre. ``hub_width`` is from hub centre to hub centre where the string gaps are
    read; None takes the track for it.
    """

    track: float
    rim_flange_diameter: float
    tyre_diameter: float
    hub_width: float | None = None

    @property
    def half_width(self) -> float:
        """From the centreline to where the hub gap is read, in mm."""
        return (self.track if self.hub_width is None else self.hub_width) / 2


@dataclass(frozen=True)
class HeightPlace:
    """Where the ride height of one corner is read: a named feature at a station and an offset, in mm.

    ``height``: its height over the ground in the drawing; None where it was drawn as it is wanted.
    """

    corner: Corner
    name: str
    station: float
    offset: float
    height: float | None = None


@dataclass(frozen=True)
class ThreadedEnd:
    """One threaded end: ``engaged`` is screwed in, ``exposed`` is thread that could still go in; in mm when the plan was made."""

    diameter: float
    pitch_mm_per_turn: float
    engaged: float
    exposed: float
    hand: Literal["right", "left"] = "right"
    least_engagement: float | None = None

    @property
    def must_stay(self) -> float:
        """Least engagement in mm."""
        return LEAST_ENGAGEMENT_DIAMETERS * self.diameter if self.least_engagement is None else self.least_engagement


@dataclass(frozen=True)
class Stack:
    """A shim stack: thickness of one shim, how many are in, how many the bolt has room for.

    ``shelf``: the thicknesses in mm that lie on the shelf, each so many times ``thickness``, the thinnest, in which the stack is then counted;
    none where all are alike.
    """

    thickness: float
    fitted: int
    most: int
    shelf: tuple[float, ...] = ()

    def made_of(self, count: int) -> tuple[float, ...]:
        """Return the fewest shims that are as thick together as so many of the thinnest, mm, the thickest first.

        Source: fewest coins, from the smallest sum up.
        """
        sizes = {1, *(round(thick / self.thickness) for thick in self.shelf)}
        fewest: list[tuple[int, ...]] = [()]
        for total in range(1, count + 1):
            fewest.append(
                min(((s, *fewest[total - s]) for s in sizes if s <= total), key=lambda row: (len(row), sorted(row)[::-1]))
            )
        return tuple(self.thickness * s for s in sorted(fewest[count], reverse=True))


@dataclass(frozen=True)
class Perch:
    """A spring perch: pitch, room left on the thread each way in mm, and spring travel over wheel travel."""

    pitch_mm_per_turn: float
    room_up: float
    room_down: float
    spring_per_wheel: float

    @property
    def per_step(self) -> float:
        """Millimetres of the spring for one turn."""
        return self.pitch_mm_per_turn

    @property
    def per_wheel(self) -> float:
        """Millimetres of the spring for one of the wheel."""
        return self.spring_per_wheel


@dataclass(frozen=True)
class Screw:
    """The fine screw of a torsion bar: its pitch, the lever it works on from the axis of the bar, and the room left on its thread either way, in mm; how
    far the bar turns for a millimetre of the wheel, degrees."""

    pitch_mm_per_turn: float
    lever: float
    room_up: float
    room_down: float
    degrees_per_wheel: float

    @property
    def per_step(self) -> float:
        """Degrees of the bar for one turn, the lever square to its screw."""
        return math.degrees(self.pitch_mm_per_turn / self.lever)

    @property
    def per_wheel(self) -> float:
        """Degrees of the bar for a millimetre of the wheel."""
        return self.degrees_per_wheel


@dataclass(frozen=True)
class Splines:
    """Splines of a torsion bar, at the end that is set over: how many, how far over they may be set either way; how far the bar turns for a millimetre
    of the wheel, degrees."""

    teeth: int
    up: int
    down: int
    degrees_per_wheel: float

    @property
    def per_step(self) -> float:
        """Degrees of the bar for one spline."""
        return 360 / self.teeth

    @property
    def per_wheel(self) -> float:
        """Degrees of the bar for a millimetre of the wheel."""
        return self.degrees_per_wheel


RAISERS = (Perch, Screw, Splines)  # what raises a corner by its spring


@dataclass(frozen=True)
class Slide:
    """A slot or a slide with a scale, as of a strut's top plate or a ball joint: ``mark`` between its marks, ``at`` where it stands, ``most`` at its far
    end; in mm from its near end."""

    mark: float
    at: float
    most: float


@dataclass(frozen=True)
class Cam:
    """An eccentric bolt: ``throw`` of its middle off its axis in mm; ``mark_deg`` from mark to mark, ``at_deg`` where it stands, counted from where the
    throw lies square to what it moves, ``most_deg`` how far it may go either way, at most 90."""

    throw: float
    mark_deg: float
    most_deg: float = 90.0
    at_deg: float = 0.0


AdjusterKind = Literal["tube", "rod_end", "shims", "perch", "screw", "splines", "slide", "cam"]
STEP_WORDS: Mapping[AdjusterKind, str] = {
    "shims": "shim",
    "slide": "mark",
    "cam": "mark",
    "splines": "spline",
}  # of those that go by whole steps only
WAY_WORDS: Mapping[AdjusterKind, tuple[str, str]] = {
    "tube": ("longer", "shorter"), "rod_end": ("out", "in"), "shims": ("added", "removed"), "perch": ("up", "down"), "screw": ("up", "down"), "splines": ("up", "down"),
    "slide": ("up its scale", "down its scale"), "cam": ("up its scale", "down its scale"),
}  # fmt: skip
ALONG_WORDS = (
    ("forward", "back"),
    ("out", "in"),
    ("up", "down"),
)  # of a slide or a cam that moves a point along an axis of the car


@dataclass(frozen=True)
class Moves:
    """What an adjuster moves: a member, which it makes longer, or a point, along a direction of the car (x, y, z), by its length per step.

    ``name`` with its corner: ``LF.tie rod``, ``LF.upper.front``.
    """

    name: str
    direction: Point | None = None


T = TypeVar("T")


class OfKind(Generic[T]):
    """How an adjuster is turned, if it is turned in this way; None where it is in another."""

    def __init__(self, kind: type[T]) -> None:
        self._kind = kind

    def __get__(self, adjuster: "Adjuster", _: object = None) -> T | None:
        return adjuster.by if isinstance(adjuster.by, self._kind) else None


@dataclass(frozen=True)
class Adjuster:
    """A part that can be turned or shimmed. Plus is longer, out, added, or raising its corner; ``by`` says how it works.

    ``half_turns_only``: a rod end in a fork goes by half turns. ``moves``: which member or point, where the plan says; a perch moves
    its spring. ``lock``: what keeps it from turning.
    """

    id: str
    name: str
    corner: Corner
    by: tuple[ThreadedEnd, ...] | Stack | Perch | Screw | Splines | Slide | Cam
    half_turns_only: bool = False
    moves: Moves | None = None
    lock: str = ""

    def __post_init__(self) -> None:
        here = f"adjusters.{self.id}"
        ends = self.by if isinstance(self.by, tuple) else ()
        for i, end in enumerate(ends):
            positive(end.diameter, f"{self.name}: a thread diameter", f"{here}.ends.{i}.diameter")
            positive(end.pitch_mm_per_turn, f"{self.name}: a pitch", f"{here}.ends.{i}.pitch_mm_per_turn")
        self._check_raiser(here)
        if isinstance(self.by, Stack):
            self._check_stack(self.by, here)
        if isinstance(self.by, Slide):
            positive(self.by.mark, f"{self.name}: the space between two marks", f"{here}.slide.mark")
            if not 0 <= self.by.at <= self.by.most:
                raise PlannedError(
                    finding("adjuster.off-scale", name=self.name, at=self.by.at, most=self.by.most),
                    path=f"{here}.slide.at",
                    numbers={"at": self.by.at, "most": self.by.most},
                )
        if isinstance(self.by, Cam):
            positive(self.by.throw, f"{self.name}: a throw", f"{here}.cam.throw")
            positive(self.by.mark_deg, f"{self.name}: the angle between two marks", f"{here}.cam.mark_deg", is_length=False)
            if not (abs(self.by.at_deg) <= self.by.most_deg <= 90 and self.by.mark_deg <= self.by.most_deg):
                raise PlannedError(finding("adjuster.cam-range", name=self.name), path=f"{here}.cam.most_deg")
        if isinstance(self.by, tuple) and not 1 <= len(ends) <= 2:
            raise PlannedError(finding("adjuster.ends", name=self.name), path=f"{here}.ends")
        if self.kind == "tube" and self.length_per_step == 0:
            raise PlannedError(
                finding("adjuster.same-hand", name=self.name),
                path=f"{here}.ends.1.hand",
            )

    def _check_stack(self, stack: Stack, here: str) -> None:
        """Refuse a stack of shims that cannot be, or whose shelf it could not be counted by; raises PlannedError."""
        positive(stack.thickness, f"{self.name}: a shim thickness", f"{here}.shims.thickness")
        if not 0 <= stack.fitted <= stack.most:
            raise PlannedError(
                finding("adjuster.shim-count", name=self.name, fitted=stack.fitted, most=stack.most),
                path=f"{here}.shims.fitted",
                numbers={"fitted": stack.fitted, "most": stack.most},
            )
        for i, thick in enumerate(stack.shelf):
            times = thick / stack.thickness
            if not (times > 0.5 and math.isclose(times, round(times), abs_tol=SHIM_ALIKE)):
                raise PlannedError(
                    finding("adjuster.shim-shelf", name=self.name, thick=thick, one=stack.thickness),
                    path=f"{here}.shims.shelf.{i}",
                )

    def _check_raiser(self, here: str) -> None:
        """Refuse a perch, a screw or splines that cannot be; raises PlannedError."""
        if isinstance(self.by, Perch):
            positive(self.by.pitch_mm_per_turn, f"{self.name}: a pitch", f"{here}.perch.pitch_mm_per_turn")
            positive(
                self.by.spring_per_wheel, f"{self.name}: a spring ratio", f"{here}.perch.spring_per_wheel", is_length=False
            )
        if isinstance(self.by, Screw):
            positive(self.by.pitch_mm_per_turn, f"{self.name}: a pitch", f"{here}.screw.pitch_mm_per_turn")
            positive(self.by.lever, f"{self.name}: a lever", f"{here}.screw.lever")
        if isinstance(self.by, Splines):
            positive(self.by.teeth, f"{self.name}: a number of splines", f"{here}.splines.teeth", is_length=False)
            if self.by.up < 0 or self.by.down < 0:
                raise PlannedError(finding("adjuster.splines-room", name=self.name), path=f"{here}.splines.up")
        if isinstance(self.by, Screw | Splines):
            turning = f"{self.name}: how far the bar turns"
            positive(self.by.degrees_per_wheel, turning, f"{here}.{self.kind}.degrees_per_wheel", is_length=False)

    def clockwise(self, amount: float) -> bool | None:
        """Return whether an amount is turned clockwise: a tube as seen from its right-hand end, a rod end as seen from its eye.

        None where nothing is turned, or where both threads are of one hand. A tube is a nut: clockwise as seen from the eye of its right-hand end
        it leaves that thread, and the other way round at its left-hand end.
        """
        if not isinstance(self.by, tuple) or not amount:
            return None
        hands = [end.hand for end in self.by]
        if len(hands) == 1:
            return (amount < 0) == (hands[0] == "right")
        return amount > 0 if hands[0] != hands[1] else None

    @property
    def ends(self) -> tuple[ThreadedEnd, ...] | None:
        """Its threaded ends, if it goes by thread."""
        return self.by if isinstance(self.by, tuple) else None

    # How it is turned, where that is of one kind; else None.
    shims = OfKind(Stack)
    perch = OfKind(Perch)
    screw = OfKind(Screw)
    splines = OfKind(Splines)
    slide = OfKind(Slide)
    cam = OfKind(Cam)

    @property
    def raises(self) -> bool:
        """Whether it raises its corner by the spring: a perch, the screw or the splines of a torsion bar."""
        return isinstance(self.by, RAISERS)

    @property
    def lift_per_step(self) -> float:
        """Millimetres by which one turn (spline) raises its corner at unchanged load, by the plan's own ratio; of what raises nothing 0."""
        return self.by.per_step / self.by.per_wheel if isinstance(self.by, RAISERS) else 0.0

    @property
    def kind(self) -> AdjusterKind:
        """What sort of adjuster it is, in one word."""
        if isinstance(self.by, tuple):
            return "tube" if len(self.by) == 2 else "rod_end"
        return KINDS[type(self.by)]

    @property
    def notched(self) -> bool:
        """Whether it goes by whole steps only: shims, splines, or marks of a scale."""
        return self.kind in STEP_WORDS

    @property
    def ends_out(self) -> tuple[tuple[ThreadedEnd, float], ...]:
        """Each end with how much of it comes out of its thread in one plus turn, in mm."""
        assert isinstance(self.by, tuple)
        if len(self.by) == 1 or self.by[0].hand != self.by[1].hand:
            return tuple((end, end.pitch_mm_per_turn) for end in self.by)
        coarse, fine = sorted(self.by, key=lambda end: -end.pitch_mm_per_turn)
        return ((coarse, coarse.pitch_mm_per_turn), (fine, -fine.pitch_mm_per_turn))

    @property
    def length_per_step(self) -> float:
        """Millimetres of link, stack, slide or perch for one turn (shim, mark), plus being longer, thicker, higher; of an eccentric in its middle, of a
        torsion bar at the wheel."""
        if isinstance(self.by, Stack):
            return self.by.thickness
        if isinstance(self.by, Slide):
            return self.by.mark
        if isinstance(self.by, Cam):
            return self.by.throw * math.radians(self.by.mark_deg)
        if isinstance(self.by, Perch):
            return self.by.pitch_mm_per_turn
        if isinstance(self.by, Screw | Splines):
            return self.lift_per_step
        return sum(out for _, out in self.ends_out)

    @property
    def flats_per_step(self) -> int:
        """Smallest step it is turned by, in flats; whole shims and marks count as whole turns."""
        return FLATS_PER_TURN if self.notched else FLATS_PER_TURN // 2 if self.half_turns_only else 1

    def room(self, moved: float) -> tuple[float, float]:
        """Return how far it may still go, minus way and plus way, in turns (shims, marks); ``moved`` turns since the plan was made.

        Least engagement and exposed thread are kept at every end. An end already past its limit gives no room that way.
        """
        if isinstance(self.by, Stack):
            low, high = -self.by.fitted - moved, self.by.most - self.by.fitted - moved
        elif isinstance(self.by, Slide):
            low, high = -self.by.at / self.by.mark - moved, (self.by.most - self.by.at) / self.by.mark - moved
        elif isinstance(self.by, Cam):
            low, high = ((way * self.by.most_deg - self.by.at_deg) / self.by.mark_deg - moved for way in (-1, 1))
        elif isinstance(self.by, Splines):
            low, high = -self.by.down - moved, self.by.up - moved
        elif isinstance(self.by, Perch | Screw):
            pitch = self.by.pitch_mm_per_turn
            low, high = -self.by.room_down / pitch - moved, self.by.room_up / pitch - moved
        else:
            low, high = -math.inf, math.inf
            for end, out in self.ends_out:
                loose, tight = (end.engaged - end.must_stay) / out, -end.exposed / out
                low, high = max(low, min(loose, tight) - moved), min(high, max(loose, tight) - moved)
        return min(low, 0.0), max(high, 0.0)

    def even(self, moved: float) -> float:
        """Return how far ``moved`` takes it in steps that all do alike, each of :attr:`length_per_step`: of an eccentric the sine, of others the same."""
        if not isinstance(self.by, Cam):
            return moved
        at, step = math.radians(self.by.at_deg), math.radians(self.by.mark_deg)
        return (math.sin(at + moved * step) - math.sin(at)) / step

    def evenly(self, stood: float, amount: float) -> float:
        """Return an amount that it is turned by, from where it ``stood``, in steps that all do alike."""
        return self.even(stood + amount) - self.even(stood) if isinstance(self.by, Cam) else amount

    def uneven(self, even: float) -> float:
        """Return the turns (shims, marks) since the plan that take it so far: the inverse of :meth:`even`, an eccentric at most square."""
        if not isinstance(self.by, Cam):
            return even
        at, step = math.radians(self.by.at_deg), math.radians(self.by.mark_deg)
        return (math.asin(max(-1.0, min(1.0, even * step + math.sin(at)))) - at) / step

    def reach(self, moved: float) -> tuple[float, float, float]:
        """Return its room either way and its finest step in even steps, as it stands ``moved`` from the plan."""
        low, high = self.room(moved)
        here, step = self.even(moved), self.flats_per_step / FLATS_PER_TURN
        if isinstance(self.by, Cam):
            angle = math.radians(self.by.at_deg + moved * self.by.mark_deg)
            step = max(math.cos(angle), math.radians(self.by.mark_deg) / 2)  # near its end a mark does next to nothing
        return self.even(moved + low) - here, self.even(moved + high) - here, step

    def settable(self, moved: float, even: float) -> float:
        """Return the nearest that it can be set to, ``even`` steps from where it stands: in even steps, an eccentric on a mark."""
        if not isinstance(self.by, Cam):
            return even
        low, high = self.room(moved)
        here = self.even(moved)
        marks = round(self.uneven(here + even) - moved)
        return self.even(moved + max(math.ceil(low - 1e-9), min(math.floor(high + 1e-9), marks))) - here

    def way(self, amount: float) -> str:
        """Return the word for the direction of a movement."""
        words = WAY_WORDS[self.kind]
        if self.kind in ("slide", "cam") and self.moves and self.moves.direction:
            along = [part * (SIDE[self.corner] if k == 1 else 1) for k, part in enumerate(self.moves.direction)]
            k = max(range(3), key=lambda i: abs(along[i]))
            words = ALONG_WORDS[k] if along[k] > 0 else ALONG_WORDS[k][::-1]
        return words[0 if amount >= 0 else 1]


KINDS: Mapping[type, AdjusterKind] = {
    Stack: "shims",
    Perch: "perch",
    Screw: "screw",
    Splines: "splines",
    Slide: "slide",
    Cam: "cam",
}


# What a careful hand gets where nothing is said, mm; each is named wherever the plan's gaps are told.
DOUBTS: Mapping[str, tuple[float, str]] = {
    "hub_middle": (2.0, "how nearly the middle of the hubs is on the centreline"),
    "box_parallel": (1.0, "how nearly parallel the box of strings is"),
    "mark_places": (1.0, "how surely the marks on the frame are placed that the strings are held against"),
    "span": (2.0, "how surely the span over the rims is known"),
    "run_out": (0.3, "run-out of the rims, or that it is taken out"),
    "floor": (4.0, "how nearly level the pads are where they were not read"),
    "settled": (0.6, "how nearly alike the car stands each time it has settled"),
}
AXLE_MIDDLE_MM = 3.0  # U of the middle of the hubs of a live axle, which nothing but a rod or its links hold sideways
UNTAPED_MM = 3.5  # U of a width over the hubs that was never taped, the track standing in for it: pickups lie 1 to 3 mm off


Strings = Literal["each", "box", "marks"]
StringsOn = Literal["", "stands", "car", "tyres"]


@dataclass(frozen=True)
class Ways:
    """Ways of working, each with the reason written beside it.

    ``strings``: each on its own (its angle from its two hub gaps and the half widths), or a parallel box (yaw from all four hub
    gaps, half widths not needed), or each by its gaps to two ``marks`` of the frame, whose stations and offsets (left plus, mm) are known by corner; they
    need be neither alike left and right nor the same front and rear, as bars that are stepped or rails that taper. ``strings_on``: what they rest on, empty
    where it is not said: stands of their own, the car, or the tyres, with which they then move. How sure these are, in mm (U), None where the plan does not say and the default stands:
    ``hub_middle`` the middle of the two hubs of an axle on the centreline, ``box_parallel`` the width of the box in front against behind, ``mark_places`` each mark,
    ``span`` between the two points touched; ``run_out`` of the rims, as a dial shows it in all, 0 where it is taken out; and ``floor``, how far
    each pad may be off level for as long as they are not read, 0 where they are known to be level; ``settled``, how far the friction of its joints holds a corner
    off each time the car was rolled and bounced. ``plates``: between the notches of the toe plates,
    mm, None where there are none. ``bar``: between the two marks of the bar on a hub, half of it either side of the hub, mm, likewise. ``read_by``: the way in which each kind of mark is read, where it is not the usual one.
    """

    strings: Strings = "each"
    strings_reason: str = ""
    strings_on: StringsOn = ""
    hub_middle: float | None = None
    box_parallel: float | None = None
    mark_places: float | None = None
    span: float | None = None
    run_out: float | None = None
    floor: float | None = None
    settled: float | None = None
    plates: float | None = None
    bar: float | None = None
    marks: Mapping[Corner, tuple[float, float]] = field(default_factory=dict)
    read_by: Mapping[str, str] = field(default_factory=dict)

    def __post_init__(self) -> None:
        for kind, name in self.read_by.items():
            known = [w.name for w in MARK_KINDS[kind].ways] if kind in MARK_KINDS else []
            if name not in known:
                raise PlannedError(finding("plan.no-way", kind=kind, way=name, known=tuple(known)), path=f"ways.read_by.{kind}")
        for name, what in (("plates", "A span of toe plates"), ("bar", "The span of a hub bar")):
            if (size := getattr(self, name)) is not None:
                positive(size, what, f"ways.{name}")
        for name in DOUBTS:
            value = getattr(self, name)
            if value is not None and not (math.isfinite(value) and value >= 0):
                raise PlannedError(
                    finding("plan.doubt-below-zero"),
                    path=f"ways.{name}",
                )

    def doubts(self) -> tuple[str, ...]:
        """Return which of the doubts act, as the strings are set."""
        others = {"box_parallel": "box", "mark_places": "marks"}
        return tuple(
            n
            for n in DOUBTS
            if others.get(n, self.strings) == self.strings and not (n == "hub_middle" and self.strings == "marks")
        )

    def reads(self, kind: str) -> ReadBy:
        """Return in which way a kind of mark is read: as the plan says, else the usual one."""
        return MARK_KINDS[kind].way(self.read_by.get(kind, ""))

    def sure(self, name: str) -> float:
        """Return how sure one of them is, mm: as the plan says, else the default."""
        value = getattr(self, name)
        return DOUBTS[name][0] if value is None else float(value)


@dataclass(frozen=True)
class Linkage:
    """How the wheels of one end are held: a layout, its steering, and what rides on it. Points stand in the plan by dotted name.

    ``mirrored``: a point of the right side that is not given is the mirror of the left one. ``loaded_radius`` of the tyre in mm;
    ``toe_deg`` and ``camber_deg`` of each wheel in the design position. ``lengths``: links measured on the bench, by corner and
    member (``LF.tie rod``), in mm; the others are as long as their points are apart.
    """

    layout: LayoutName
    loaded_radius: float
    steering: Literal["none", "rack", "box"] = "none"
    mirrored: bool = True
    toe_deg: float = 0.0
    camber_deg: float = 0.0
    springs: tuple[Spring, ...] = ()
    torsions: tuple[Torsion, ...] = ()
    rocker: Rocker | None = None
    bar: Bar | None = None
    shaft: Shaft | None = None
    joints: tuple[Joint, ...] = ()
    lengths: Mapping[str, float] = field(default_factory=dict)


Stage = Literal["build", "running"]


@dataclass(frozen=True)
class Jig:
    """The jig table, stands or pads: where each foot stands (forward, left, mm), the pitch of its screw, and the shims there are, mm."""

    feet: Mapping[str, tuple[float, float]]
    pitch_mm_per_turn: float | None = None
    shims: tuple[float, ...] = ()


@dataclass(frozen=True)
class Plan:
    """The plan of one car. Aims are at most one to a mark; adjusters and tools have names of their own.

    ``build_aims`` hold while the car is built (zero camber, a nominal height to hang the body by), ``aims`` when it runs; ``stage`` says
    against which of them readings are judged now. ``point_tolerance``: how far a pickup point may be off along each axis, mm.
    ``provisional``: dimensions that are not settled yet, by their path.
    """

    name: str
    units: Units
    wheelbase: float
    front: Axle
    rear: Axle
    aims: tuple[Aim, ...] = ()
    heights: tuple[HeightPlace, ...] = ()
    adjusters: tuple[Adjuster, ...] = ()
    tools: tuple[Tool, ...] = ()
    tool_for: Mapping[str, str] = field(default_factory=dict)
    ways: Ways = Ways()
    about: str = ""
    points: Mapping[str, Point] = field(default_factory=dict)
    front_linkage: Linkage | None = None
    rear_linkage: Linkage | None = None
    loads: Loads | None = None
    build_aims: tuple[Aim, ...] = ()
    stage: Stage = "running"
    point_tolerance: float = 1.0
    jig: Jig | None = None
    footing: Footing = field(default_factory=Footing)
    provisional: tuple[str, ...] = ()

    def __post_init__(self) -> None:
        if not self.name.strip():
            raise PlannedError(finding("plan.no-name"), path="name")
        positive(self.wheelbase, "A wheelbase", "wheelbase")
        positive(self.point_tolerance, "A tolerance of points", "point_tolerance")
        for end in get_args(End):
            axle = self.axle(end)
            for part in fields(axle):
                value = getattr(axle, part.name)
                if value is not None:
                    positive(value, f"{end.capitalize()}: a {part.name.replace('_', ' ')}", f"{end}.{part.name}")
            if axle.rim_flange_diameter >= axle.tyre_diameter:
                raise PlannedError(
                    finding("plan.rim-over-tyre", end=end, rim=axle.rim_flange_diameter, tyre=axle.tyre_diameter),
                    path=f"{end}.rim_flange_diameter",
                    numbers={"rim": axle.rim_flange_diameter, "tyre": axle.tyre_diameter},
                )
        for rows, what in (
            (self.aims, "mark"),
            (self.build_aims, "mark"),
            (self.adjusters, "id"),
            (self.tools, "id"),
            (self.heights, "corner"),
        ):
            names = [getattr(row, what) for row in rows]
            if twice := next((n for n in names if names.count(n) > 1), None):
                kind = {"mark": "aims", "id": "adjusters", "corner": "heights"}[what]
                raise PlannedError(finding("plan.twice", name=twice), path=kind)
        for rows, field_ in ((self.aims, "aims"), (self.build_aims, "build_aims")):
            if unknown := next((aim.mark for aim in rows if aim.mark not in MARKS), None):
                raise PlannedError(finding("plan.no-mark", mark=unknown), path=f"{field_}.{unknown}")
        ids = {tool.id for tool in self.toolbox}
        if missing := next((t for t in self.tool_for.values() if t not in ids), None):
            raise PlannedError(finding("plan.no-tool-for", tool=missing), path="tool_for")
        if strange := sorted(set(self.provisional) - may_be_provisional(self.points)):
            raise PlannedError(finding("plan.not-provisional", dimension=strange[0]), path="provisional")

    @property
    def toolbox(self) -> tuple[Tool, ...]:
        """The tools of this car; from the table a new car begins with where the plan has none for a kind of figure."""
        measured = {t.measures for t in self.tools}
        return (*self.tools, *(t for t in default_tools(self.units.inches) if t.measures not in measured))

    def tool(self, id_: str) -> Tool:
        """Return a tool by its name, the eye among them; CalledError where this car has none such."""
        for tool in (*self.toolbox, EYE):
            if tool.id == id_:
                return tool
        raise CalledError(finding("plan.no-tool", tool=id_, near=meant(id_, [t.id for t in self.toolbox])), path="tool")

    def twin(self, adjuster: Adjuster) -> Adjuster | None:
        """Return the same adjuster on the other side of the car, by its name and how it works; None where there is none."""
        other = twin_of(adjuster.corner)
        return next((a for a in self.adjusters if a.corner == other and (a.name, a.by) == (adjuster.name, adjuster.by)), None)

    def linkage(self, end: End) -> Linkage | None:
        """Return how the wheels of one end are held, if the plan says."""
        return self.front_linkage if end == "front" else self.rear_linkage

    def axle(self, end: End) -> Axle:
        """Return the front or the rear axle."""
        return self.front if end == "front" else self.rear

    def axle_of(self, corner: Corner) -> Axle:
        """Return the axle a corner stands on."""
        return self.axle(END_OF[corner])

    def middle_of_hubs(self, end: End) -> float:
        """Return how nearly the middle of the hubs of an end is on the centreline, mm (U): as the plan says, else the default, which is wider for an axle."""
        linkage = self.linkage(end)
        axle = self.ways.hub_middle is None and linkage is not None and LAYOUTS[linkage.layout].axle
        return AXLE_MIDDLE_MM if axle else self.ways.sure("hub_middle")

    def aim(self, mark: str) -> Aim | None:
        """Return the aim of a mark at the present stage, if the plan has one."""
        return next((aim for aim in self.aims_now if aim.mark == mark), None)

    @property
    def aims_now(self) -> tuple[Aim, ...]:
        """The aims of the present stage."""
        return self.build_aims if self.stage == "build" else self.aims

    def adjuster(self, id_: str) -> Adjuster:
        """Return an adjuster by its name; CalledError where the plan has none such."""
        for adjuster in self.adjusters:
            if adjuster.id == id_:
                return adjuster
        raise CalledError(
            finding(
                "plan.no-adjuster",
                adjuster=id_,
                near=meant(id_, [a.id for a in self.adjusters]) or finding("plan.name-first"),
            ),
            path="adjuster",
        )

    def height_place(self, corner: Corner) -> HeightPlace:
        """Return where the ride height of a corner is read; over the wheel centre where the plan names no place."""
        for place in self.heights:
            if place.corner == corner:
                return place
        return HeightPlace(corner, "chassis at the axle line", *self.wheel_place(corner))

    def wheel_place(self, corner: Corner) -> tuple[float, float]:
        """Return station and offset of a corner's wheel, and of the pad under it, mm."""
        station = 0.0 if END_OF[corner] == "front" else -self.wheelbase
        return station, SIDE[corner] * self.axle_of(corner).track / 2

    def perch(self, corner: Corner) -> Adjuster | None:
        """Return what a corner is raised with by turns of any size, if one is named: its perch, or the screw of its torsion bar."""
        return next((a for a in self.adjusters if a.corner == corner and a.raises and not a.notched), None)


@dataclass(frozen=True)
class Gone:
    """What earlier plans of a car had and its present one has not: points where they were planned last, and tools.

    Readings refer to them, and stay readings.
    """

    points: Mapping[str, Point] = field(default_factory=dict)
    tools: Mapping[str, Tool] = field(default_factory=dict)

    def tool(self, plan: Plan, id_: str) -> Tool:
        """Return the tool a reading was taken with; CalledError where no plan of this car ever had it."""
        return self.known(plan, id_) or plan.tool(id_)

    def known(self, plan: Plan, id_: str) -> Tool | None:
        """Return the same; None where no plan of this car ever had it."""
        found = next((t for t in plan.toolbox if t.id == id_), None) or self.tools.get(id_)
        return EYE if found is None and id_ == EYE.id else found


def places_of(plan: Plan) -> dict[str, Point]:
    """Return where the plan has every point: those given, and the mirrored twins of left ones."""
    found = dict(plan.points)
    for name, (x, y, z) in plan.points.items():
        prefix, twin = name.split(".")[0], twin_of(name)
        end = next((e for e in ENDS if prefix == e or any(c == prefix and END_OF[c] == e for c in CORNERS)), None)
        linkage = plan.linkage(end) if end else None
        if linkage and linkage.mirrored and twin not in found:
            found[twin] = (x, -y, z)
    return found
