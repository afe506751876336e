"""What is read of a car on its wheels or its stands, one row a quantity: with what, within which limits, and what may move it."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Annotated, Any, Literal, get_args

from ready_corner.core.plan.corners import AROUND, CORNER_WORDS, CORNERS, END_OF, SIDE, Corner
from ready_corner.core.plan.marks import MARK_KINDS, OVER_FLOOR
from ready_corner.core.plan.plan import Plan, Strings
from ready_corner.core.quantities.errors import CalledError, MeasuredError, UnusualError
from ready_corner.core.quantities.fields import Id, Label, Measure, Typed, WorkedOut
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.notation import Kind, Units, decimals_of, say_angle, say_length, say_mass
from ready_corner.core.quantities.tools import EYE, INCH, Measures
from ready_corner.core.record.act import Act, entry_kind

Quantity = Literal[
    "height", "camber", "gap_front", "gap_back", "gap_hub", "pad", "pad_step", "load", "radius", "stand", "hub", "wheelbase", "lean_top", "lean_bottom",
    "caster", "caster_offset", "joint_height", "inclination", "inclination_offset", "plate_in", "sweep_in", "plate_out", "sweep_out",
    "plates_front", "plates_back", "gap_mark", "edge_front", "edge_back", "rail", "bar_front", "bar_back",
]  # fmt: skip
Happening = Literal["settled", "bar_off", "bar_on", "string", "tyre", "load", "level", "weld", "cut", "knock"]
Round = Literal["set", "floor", "stands"]
Drawing = Literal["above", "behind", "side", "wheel", "plumb", "joints", "joints_ahead", "sweep", "inside"]
# Of tolerances: so far off its aim a figure is asked about, where a slip would put it so near.
FAR_OFF, NEAR_AIM = 20.0, 10.0
PAD_WAYS: tuple[Quantity, ...] = ("pad", "pad_step")  # each by itself, or a level from one to the next round the car
GAPS: tuple[Quantity, ...] = ("gap_front", "gap_back", "gap_hub", "gap_mark")
Place = tuple[Corner, Quantity]


Scene = Literal["string", "out", "gauge", "plate", "upright", "plumb", "bar", "level", "stepped", "across", "scale"]
_SCENES: Mapping[str, Scene] = {"wheel": "string", "inside": "out", "behind": "gauge", "side": "upright", "plumb": "plumb"}
# How a reading is held, and what is done wrong most often; beside its small drawing.
USUAL_MISTAKES: Mapping[Scene, str] = {
    "string": "Eye square over the rule, at the near side of the string. A rule that leans reads too much; one that pushes the string, too little.",
    "out": "Square from the edge, level. A rule that leans reads too much; an edge that touches the tyre moves with it.",
    "gauge": "Flat on bare rim, no weight or lip under it. Let it come to rest; read it, turn nothing by eye.",
    "plate": "Read the plate under the wheel, not the steering wheel, eye straight above its mark. Nobody leans on the car.",
    "upright": "Its foot flat on the floor, upright, eye at the height of the mark. A tape that leans reads too much.",
    "plumb": "Let the line hang still, clear of the tyre. The rule lies level, from the line and not from the bob.",
    "bar": "The bar seated on both joints alike, dirt wiped off. Lay the gauge the same way round each time.",
    "level": "Both ends of the hose open, no air in it; or the laser warmed up. Read at the mark, not at the edge of the pad.",
    "stepped": "Read it, turn the level end for end, and take the mean. Straight edge on its edge; go all round, so that the last step proves the others.",
    "across": "Taut, the same pull at either end, nothing touched on its way. A tape that sags reads too much.",
    "scale": "All four level and zeroed before the car is on them, tyres at pressure, nobody leaning on it.",
}


@dataclass(frozen=True)
class QuantityFacts:
    """One quantity: kind of figure, its words (``short`` on a key, ``spot`` for where it is read on a drawing), what no reading can be under, what no car has (low, high), and with what it is read.

    ``title`` and ``how``: as it is asked for, with {Corner}, {side}, {tool} and {place}. ``mark``: the kind of mark it is read for; empty for what
    other figures are made of. ``moved_by``: what that happens to the car moves it. ``floor``: it is read of the car on its wheels, and
    what the springs do shows in it. ``behind``: the marks for which it is asked, though it is no reading of them.
    ``walked``: the rounds on which it is asked for, at every corner in turn, or (``corner_by_corner``) with what else is read there; only where
    it was read before or the mark ``if_aimed`` has an aim, if that is named. What is read in one way among several is asked for where the plan
    reads in that way. ``drawing``: on which it is shown. ``gauged``: an angle that counts from whatever the gauge was zeroed on. ``outlives``: it is still
    good after a turn of a link: a string's own angle. ``of_axle``: it is read across an axle, and stands at its left corner. ``spanned``: from mark to mark, as a trammel does.
    ``strings``: it is read where they are set so; empty: however they are. ``of_way``: only where its mark is read in that way, behind which it stands. ``held``: how its tool is, where the drawing does not tell.
    ``by_eye``: what an eye says of it may be noted.
    """

    kind: Kind
    words: str
    short: str
    spot: str
    never_under: float | None
    usual: tuple[float, float]
    tool: str
    title: str
    how: str
    mark: str
    moved_by: tuple[Happening, ...]
    floor: bool = False
    corners: tuple[Corner, ...] = CORNERS
    behind: tuple[str, ...] = ()
    walked: tuple[Round, ...] = ()
    corner_by_corner: bool = False
    drawing: Drawing = "above"
    if_aimed: str = ""
    gauged: bool = False
    outlives: bool = False
    of_axle: bool = False
    spanned: bool = False
    strings: tuple[Strings, ...] = ()
    of_way: str = ""
    held: Scene | None = None
    by_eye: bool = False

    @property
    def measures(self) -> Measures:
        """What a tool must measure to read it."""
        return "steer" if self.tool == "plate" else self.kind  # type: ignore[return-value]

    @property
    def scene(self) -> Scene:
        """How the tool is held: which small drawing shows it."""
        if self.held:
            return self.held
        if self.drawing == "above":
            return (
                "scale"
                if self.kind == "mass"
                else "level"
                if self.tool == "rule"
                else "upright"
                if not self._across
                else "across"
            )
        if self.drawing == "sweep":
            return "plate" if self.tool == "plate" else "gauge"
        if self.drawing in {"joints", "joints_ahead"}:
            return "bar" if self.kind == "angle" else "upright" if self.tool == "tape" else "plumb"
        return _SCENES[self.drawing]

    @property
    def _across(self) -> bool:
        return self.of_axle or self.spanned

    @property
    def asked_for(self) -> tuple[str, ...]:
        """The kinds of marks that want it read: its own, or those that it stands behind."""
        return (self.mark,) if self.mark else self.behind


_FLOOR = ("height", *OVER_FLOOR)
_CAR: tuple[Happening, ...] = ("tyre", "load", "level", "weld", "cut", "knock")
_STRING: tuple[Happening, ...] = ("string", *_CAR)
_GAP = "{tool} square to the string, level, at the height of the wheel centre."


def _steered(
    words: str, short: str, spot: str, usual: tuple[float, float], title: str, how: str, gauged: bool = False
) -> QuantityFacts:
    """Return one quantity of a sweep: the plate under a steered front wheel, or its camber there."""
    return QuantityFacts(
        "angle", words, short, spot, None if gauged else 0.0, usual, "digital" if gauged else "plate", title, how, "caster", _CAR, True,
        corners=("LF", "RF"), walked=("set",), corner_by_corner=True, drawing="sweep",
        gauged=gauged,
    )  # fmt: skip


def _inside(words: str, short: str, spot: str, usual: tuple[float, float], tool: str, title: str, how: str) -> QuantityFacts:
    """Return one distance to a wheel from a line inside it, outwards."""
    return QuantityFacts(
        "length", words, short, spot, 0.0, usual, tool, title, how, "toe", _STRING, True,
        walked=("set",), corner_by_corner=True, drawing="inside",
    )  # fmt: skip


# Limits beyond which a figure is a slip of the pen on any car: mm for lengths, degrees for angles, kg for loads.
QUANTITIES: Mapping[Quantity, QuantityFacts] = {
    "pad": QuantityFacts(
        "length", "height of the floor under the tyre", "pad", "the pad", None, (-150.0, 150.0), "rule", "{Corner} pad, height of the floor",
        "Water level or laser: how high this pad is against the left front one, which itself is 0. Plus where this pad is the higher.", "", ("level",), behind=_FLOOR,
        walked=("floor",),
    ),
    "pad_step": QuantityFacts(
        "length", "step of the floor from the tyre before", "step", "the pad, from the one before it", None, (-150.0, 150.0), "rule", "{Corner} pad, step from the {before}",
        "Spirit level on a straight edge from the pad before, going round. {tool} under its lower end. Plus where this pad is the higher.",
        "", ("level",), behind=_FLOOR, walked=("floor",), held="stepped",
    ),
    "height": QuantityFacts(
        "length", "ride height", "ride", "the ride height", 0.0, (5.0, 900.0), "tape", "{Corner} ride height", "{tool} from the floor to {place}.", "height", _CAR, True,
        walked=("set", "floor"), drawing="side",
    ),
    "camber": QuantityFacts(
        "angle", "camber", "cam", "camber", None, (-15.0, 15.0), "digital", "{Corner} camber",
        "{tool} on the flat of the rim, zeroed on {zero}. Minus when the top leans in.", "camber", _CAR, True, by_eye=True,
        walked=("set",), drawing="behind", gauged=True,
    ),
    "lean_top": QuantityFacts(
        "length", "gap from the plumb line to the rim's top edge", "top", "the gap at the top", 0.0, (0.0, 600.0), "rule", "{Corner} rim, top edge to the plumb line",
        "{tool} level from a plumb line outside the wheel, at the rim's highest point.", "camber", _CAR, True,
        walked=("set",), corner_by_corner=True, drawing="plumb",
    ),
    "lean_bottom": QuantityFacts(
        "length", "gap from the plumb line to the rim's bottom edge", "bottom", "the gap at the bottom", 0.0, (0.0, 600.0), "rule", "{Corner} rim, bottom edge to the plumb line",
        "{tool} level from the same plumb line, at the rim's lowest point.", "camber", _CAR, True,
        walked=("set",), corner_by_corner=True, drawing="plumb",
    ),
    "plates_front": QuantityFacts(
        "length", "tape across the toe plates in front", "plates front", "the tape in front", 0.0, (300.0, 4000.0), "tape", "{End} toe plates, tape in front of the wheels",
        "A plate held against each wheel, steering straight. {tool} from notch to notch, in front.", "total_toe", _CAR, True,
        corners=("LF", "LR"), walked=("set",), corner_by_corner=True, drawing="above", of_axle=True, spanned=True,
    ),
    "plates_back": QuantityFacts(
        "length", "tape across the toe plates behind", "plates back", "the tape behind", 0.0, (300.0, 4000.0), "tape", "{End} toe plates, tape behind the wheels",
        "The plates as they are. {tool} from notch to notch, behind.", "total_toe", _CAR, True,
        corners=("LF", "LR"), walked=("set",), corner_by_corner=True, drawing="above", of_axle=True, spanned=True,
    ),
    "plate_in": _steered("angle the plate shows, steered in", "plate in", "the plate", (2.0, 60.0), "{Corner} plate, front of the wheel steered in",
        "Steer until the front of this wheel points in by 20° or so. Read the turn plate: any angle will do."),
    "sweep_in": _steered("camber steered in", "cam in", "the camber steered in", (-25.0, 25.0), "{Corner} camber, steered in",
        "{tool} on the flat of the rim, brake held on, zeroed on {zero}. Minus when the top leans in.", gauged=True),
    "plate_out": _steered("angle the plate shows, steered out", "plate out", "the plate", (2.0, 60.0), "{Corner} plate, front of the wheel steered out",
        "Steer through straight ahead until its front points out by about as much. Read the turn plate."),
    "sweep_out": _steered("camber steered out", "cam out", "the camber steered out", (-25.0, 25.0), "{Corner} camber, steered out",
        "{tool} on the flat of the rim, brake held on, zeroed on {zero}. Minus when the top leans in.", gauged=True),
    "caster": QuantityFacts(
        "angle", "lean of the ball joints, from the side", "caster", "the lean of the joints", None, (-30.0, 30.0), "digital", "{Corner} ball joints, lean from the side",
        "{tool} on a bar across upper and lower ball joint, along the car. Plus when the upper one lies behind.", "caster", _CAR, True,
        corners=("LF", "RF"), walked=("set",), corner_by_corner=True, drawing="joints", gauged=True,
    ),
    "caster_offset": QuantityFacts(
        "length", "upper ball joint behind the lower", "behind", "how far it lies behind", None, (-200.0, 300.0), "rule", "{Corner} upper ball joint, how far behind the lower",
        "{tool} along the car between plumb lines from both joints. Minus when the upper one lies ahead.", "caster", _CAR, True,
        corners=("LF", "RF"), walked=("set",), corner_by_corner=True, drawing="joints",
    ),
    "inclination": QuantityFacts(
        "angle", "lean of the ball joints, from ahead", "incl", "the lean of the joints", None, (-10.0, 45.0), "digital", "{Corner} ball joints, lean from ahead",
        "{tool} on a bar across upper and lower ball joint, across the car. Plus when the upper one lies further in.", "inclination", _CAR, True,
        corners=("LF", "RF"), walked=("set",), corner_by_corner=True, drawing="joints_ahead", gauged=True,
    ),
    "inclination_offset": QuantityFacts(
        "length", "upper ball joint further in than the lower", "inside", "how far it lies inside", None, (-100.0, 400.0), "rule", "{Corner} upper ball joint, how far inside the lower",
        "{tool} across the car between plumb lines from both joints. Minus when the upper one lies further out.", "inclination", _CAR, True,
        corners=("LF", "RF"), walked=("set",), corner_by_corner=True, drawing="joints_ahead",
    ),
    "joint_height": QuantityFacts(
        "length", "height of the upper ball joint over the lower", "joints", "the height between the joints", 0.0, (50.0, 900.0), "tape", "{Corner} ball joints, height between them",
        "{tool} upright, from the level of the lower joint to that of the upper.", "caster", _CAR, True,
        corners=("LF", "RF"), walked=("set",), corner_by_corner=True, drawing="joints",
    ),
    "gap_front": QuantityFacts(
        "length", "gap to the rim's front edge", "front", "the front gap", 0.0, (0.0, 600.0), "rule", "{Corner} rim, front edge to the string", _GAP, "toe", _STRING, True,
        walked=("set",), corner_by_corner=True, drawing="wheel",
    ),
    "gap_back": QuantityFacts(
        "length", "gap to the rim's back edge", "back", "the back gap", 0.0, (0.0, 600.0), "rule", "{Corner} rim, back edge to the string", _GAP, "toe", _STRING, True,
        walked=("set",), corner_by_corner=True, drawing="wheel",
    ),
    "gap_hub": QuantityFacts(
        "length", "gap to the hub centre", "hub", "the hub gap", 0.0, (0.0, 600.0), "rule", "{Corner} hub centre to the string",
        "{tool} square to the string. It tells the string's own angle.", "toe", _STRING, True,
        walked=("set",), corner_by_corner=True, drawing="wheel", outlives=True, strings=("each", "box"), of_way="string",
    ),
    "gap_mark": QuantityFacts(
        "length", "gap from the frame's mark to the string", "mark", "the gap at the mark", 0.0, (0.0, 900.0), "rule", "{Corner} mark of the frame to the string",
        "{tool} square to the string, from the mark whose place the plan gives. Two of them tell the string's own angle.", "toe", _STRING, True,
        walked=("set",), corner_by_corner=True, drawing="wheel", outlives=True, strings=("marks",), of_way="string",
    ),
    "edge_front": _inside("gap from the straight edge to the rim's front edge", "front", "the front gap", (0.0, 900.0), "caliper", "{Corner} rim, front edge from the straight edge",
        "Straight edge along the rail. {tool} square to it, outwards, level, at the height of the wheel centre."),
    "edge_back": _inside("gap from the straight edge to the rim's back edge", "back", "the back gap", (0.0, 900.0), "caliper", "{Corner} rim, back edge from the straight edge",
        "The straight edge as it lies. {tool} square to it, outwards, level, at the height of the wheel centre."),
    "rail": QuantityFacts(
        "length", "distance of the rail from the centreline", "rail", "where the rail is", 0.0, (50.0, 1200.0), "tape", "{Corner} rail, how far from the centreline",
        "{tool} square from the centreline to the face that the straight edge lies on, at the axle line, or at the mark whose station the plan gives. Read at both ends it proves the rail.",
        "toe", ("weld", "cut", "knock"), walked=("set",), corner_by_corner=True, drawing="inside", outlives=True, of_way="rail",
    ),
    "bar_front": _inside("distance from the middle line to the hub bar's front mark", "front", "the distance in front", (100.0, 1500.0), "tape", "{Corner} hub bar, front mark to the middle line",
        "Bar bolted square on the hub, level; a taut line or a laser down the middle of the car. {tool} square to the line."),
    "bar_back": _inside("distance from the middle line to the hub bar's back mark", "back", "the distance behind", (100.0, 1500.0), "tape", "{Corner} hub bar, back mark to the middle line",
        "Bar and line as they are. {tool} square to the line."),
    "load": QuantityFacts(
        "mass", "load on the scale", "load", "the load", 0.0, (5.0, 1500.0), "scales", "{Corner} load on the scale",
        "{tool} under the tyre, all four level and zeroed before the car is on them.", "load", _CAR, True,
        walked=("floor",), if_aimed="car.cross_weight",
    ),
    "radius": QuantityFacts(
        "length", "loaded tyre radius", "radius", "the tyre radius", 0.0, (100.0, 600.0), "tape", "{Corner} loaded tyre radius",
        "{tool} from the floor to the hub centre, the car on it, at pressure.", "", ("tyre", "level"),
        walked=("floor",),
    ),
    "stand": QuantityFacts(
        "length", "height over the floor on stands", "stand", "the height on stands", 0.0, (20.0, 1500.0), "tape", "{Corner} height on the stands",
        "{tool} from the floor to {place}, the chassis on its stands. Blocks may be typed one by one: 89+38+12.", "", ("level", "knock"),
        walked=("stands",),
    ),
    "hub": QuantityFacts(
        "length", "hub height over the floor", "hub height", "the hub height", 0.0, (20.0, 1500.0), "tape", "{Corner} hub height",
        "{tool} from the floor to the hub centre: where strings between opposite bolt holes cross, or the middle of a sleeve.", "", ("level", "knock"),
        walked=("stands",),
    ),
    "wheelbase": QuantityFacts(
        "length", "wheelbase", "base", "the wheelbase", 0.0, (500.0, 6000.0), "trammel", "Wheelbase on the {side}",
        "{tool} from hub centre to hub centre on the {side}, or between plumb lines dropped from them; wheels straight ahead.", "wheelbase",
        ("weld", "cut", "knock"), spanned=True, corners=("LF", "RF"), walked=("set",), corner_by_corner=True, if_aimed="car.setback",
    ),
}  # fmt: skip
ON_WHEELS: tuple[Quantity, ...] = tuple(q for q, facts in QUANTITIES.items() if facts.floor)
ON_STANDS: tuple[Quantity, ...] = tuple(q for q, facts in QUANTITIES.items() if "stands" in facts.walked)
OF_LINKS: tuple[Quantity, ...] = tuple(q for q in ON_WHEELS if q != "load")  # what a turn of a link may move at its corner
MOVED_BY: Mapping[Happening, tuple[Quantity, ...]] = {
    h: tuple(q for q, facts in QUANTITIES.items() if h in facts.moved_by) for h in get_args(Happening)
}
SIDE_WORDS: Mapping[Corner, str] = {c: "left" if s > 0 else "right" for c, s in SIDE.items()}
UPRIGHT_READS = (60.0, 120.0)  # degrees; a block that shows this was zeroed lying down, and reads 90 for upright


def _measure(sent: Mapping[str, Any]) -> Measure:
    found: Measure = QUANTITIES[sent["quantity"]].kind  # type: ignore[assignment]
    return found


@entry_kind
@dataclass(frozen=True)
class Reading(Act):
    """One number as read off one tool: mm, degrees or kg.

    ``upright_deg`` is what the gauge shows for upright (0 or 90). ``confirmed`` keeps a value no car should have. ``half_turn``: the wheel stood half a
    turn round, so that with a reading as it stood before the run-out of its rim falls out of the mean; ``wheel_deg``: as far round as this, where it was not half a turn.
    """

    kind = "reading"
    quantity: Quantity
    corner: Corner
    value: Annotated[float, Typed(_measure, "typed"), Label("Reading")]
    tool: Annotated[Id, Label("With", "tool")]
    typed: Annotated[str, WorkedOut] = ""
    denominator: Annotated[int, WorkedOut] = 0
    upright_deg: Annotated[float, WorkedOut] = 0.0
    confirmed: bool = False
    half_turn: bool = False
    wheel_deg: float = 0.0

    @property
    def turned_deg(self) -> float:
        """How far round the wheel stood, degrees."""
        return 180.0 if self.half_turn else self.wheel_deg

    @property
    def place(self) -> Place:
        """Where it was read."""
        return self.corner, self.quantity

    @property
    def figure(self) -> float:
        """The value counted from its own zero: mm or degrees."""
        return self.value - self.upright_deg

    @classmethod
    def worked_out(cls, sent: Mapping[str, Any], figures: Mapping[str, Any]) -> Mapping[str, Any]:
        """Return the denominator that was typed, and what the gauge shows for upright."""
        value = figures["value"]
        return {"denominator": value.denominator, "upright_deg": upright_of(sent["quantity"], value)}

    def check(self, plan: Plan) -> None:
        """Refuse another tool, what no tool can give, and what no car has unless it is confirmed."""
        facts = QUANTITIES[self.quantity]
        if self.corner not in facts.corners:
            raise CalledError(
                finding("reading.not-there", reading=facts.words, corner=self.corner, at=facts.corners), path="corner"
            )
        tool = plan.tool(self.tool)
        if tool is EYE and not facts.by_eye:
            raise CalledError(finding("tool.not-by-eye", reading=facts.words), path="tool")
        if tool.measures != facts.measures:
            raise CalledError(finding("tool.other-reading", tool=tool.name, reading=facts.words), path="tool")
        if not 0 <= self.wheel_deg < 360 or (self.half_turn and self.wheel_deg):
            raise CalledError(finding("reading.wheel-turn"), path="wheel_deg")
        read = (facts.kind, self.figure)
        if facts.never_under is not None and self.figure < facts.never_under:
            gap, load = self.quantity in GAPS, self.quantity == "load"
            raise MeasuredError(
                finding("reading.impossible", reading=facts.words, figure=read, gap=gap, load=load),
                path="typed",
                numbers={"value": self.figure},
            )
        asked = self.hardly_meant(plan)
        if asked and not self.confirmed:
            raise asked

    def hardly_meant(self, plan: Plan) -> UnusualError | None:
        """Return what is asked about once: a figure that is on no car, or that a slip explains where it is nowhere near its aim; None where it is neither."""
        facts = QUANTITIES[self.quantity]
        (low, high), read = facts.usual, (facts.kind, self.figure)
        if not low <= self.figure <= high:
            return UnusualError(
                finding("reading.unusual", reading=facts.words, figure=read),
                path="typed",
                numbers={"value": self.figure, "low": low, "high": high},
            )
        aim = plan.aim(f"{self.corner}.{self.quantity}")
        if aim is None or abs(self.figure - aim.aim) <= FAR_OFF * aim.tolerance:
            return None
        units = (INCH, 1 / INCH) if facts.measures == "length" else ()
        meant = next(
            (m for k in (10.0, 0.1, *units) if abs((m := self.figure * k) - aim.aim) <= NEAR_AIM * aim.tolerance), None
        )
        if meant is None:
            return None
        unit = not math.isclose(abs(math.log10(abs(meant / self.figure))), 1.0)
        return UnusualError(
            finding("reading.slip", reading=facts.words, figure=read, meant=(facts.kind, meant), unit=unit),
            path="typed",
            numbers={"value": self.figure, "meant": meant},
        )


@dataclass(frozen=True)
class Taken:
    """A reading in its place in the log: entry number, spell, and why it is provisional: what the car was not yet when it was read.

    ``on_frame``: an angle counted from the frame, on which the gauge was zeroed, and not from gravity. ``known``: by how much its gauge was known to
    read too much then, degrees, as two readings end for end: first and second.
    """

    number: int
    spell: int
    reading: Reading
    why: tuple[Finding, ...] = ()
    on_frame: bool = False
    known: tuple[float, float] | None = None


@cache
def read_by(quantity: Quantity) -> tuple[str, ...]:
    """Return the kinds of marks that are read by a quantity, in one of their ways."""
    return tuple(k for k, row in MARK_KINDS.items() if quantity in row.every)


def mark_at(kind: str, corner: Corner) -> str:
    """Return the mark of a kind that is read at a corner: its own, that of its axle, or the car's."""
    sums = MARK_KINDS[kind].sums
    if sums is None:
        return f"{corner}.{kind}"
    return f"{END_OF[corner]}.{kind}" if END_OF[corner] in sums else f"car.{kind}"


def upright_of(quantity: Quantity, value: float) -> float:
    """Return what a gauge that shows ``value`` shows for upright: 90 degrees where it was zeroed lying down, else 0."""
    return 90.0 if QUANTITIES[quantity].gauged and UPRIGHT_READS[0] <= value <= UPRIGHT_READS[1] else 0.0


def say_figure(kind: Kind, value: float, units: Units) -> str:
    """Return a figure with its unit: degrees, kg or lb, or a length in decimals."""
    if kind == "angle":
        return say_angle(value)
    return say_mass(value, units) if kind == "mass" else say_length(value, units, denominator=0, unit=True)


def title_of(place: Place) -> str:
    """Return a place of the round in words."""
    words = {"Corner": CORNER_WORDS[place[0]].capitalize(), "End": END_OF[place[0]].capitalize(), "side": SIDE_WORDS[place[0]]}
    words["before"] = CORNER_WORDS[AROUND[AROUND.index(place[0]) - 1]]
    return QUANTITIES[place[1]].title.format(**words)


def say_reading(units: Units, quantity: Quantity, value: float, denominator: int, typed: str = "") -> str:
    """Return a reading as it is printed beside its place: in the car's unit, a fraction where it was one, else with no digit less than was typed."""
    kind = QUANTITIES[quantity].kind
    decimals = decimals_of(typed)
    if kind == "angle":
        return say_angle(value, max(2, decimals))
    if kind == "mass":
        return say_mass(value, units, max(1, decimals))
    return say_length(value, units, denominator=None if denominator else 0, decimals=decimals)
