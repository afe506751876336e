"""What is done to the car and what happens to it: an adjuster turned, and the rest; what each moves, and the condition it leaves the car in."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated

from ready_corner.core.engines.linkage.layouts import LAYOUTS
from ready_corner.core.plan.corners import CORNER_WORDS, CORNERS, END_OF, ENDS, Corner
from ready_corner.core.plan.marks import OVER_FLOOR
from ready_corner.core.plan.names import place_words, turn_parts
from ready_corner.core.plan.plan import Adjuster, Plan, StringsOn
from ready_corner.core.quantities.errors import CalledError, MeasuredError
from ready_corner.core.quantities.fields import Id, Label, Many, Prefix, Typed, Words, WorkedOut
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.record.act import Act, entry_kind
from ready_corner.core.record.moves import Move, places
from ready_corner.core.record.readings import MOVED_BY, OF_LINKS, ON_WHEELS, Happening, Quantity, read_by
from ready_corner.core.record.stance_acts import StateSaid

HAPPENING_WORDS: Mapping[Happening, str] = {
    "settled": "car rolled and bounced until it settled",
    "bar_off": "anti-roll bar links taken off",
    "bar_on": "anti-roll bar links put back on",
    "string": "string moved",
    "tyre": "tyre or pressure changed",
    "load": "load changed",
    "level": "floor or pads changed",
    "weld": "welded",
    "cut": "cut or taken out",
    "knock": "knocked or dropped",
}


# What a change with a figure moves is told as that of so many turns: of a millimetre of a tyre's radius, of a kilogram, and of a kilogram a millimetre forward or left.
TYRE: Mapping[Corner, str] = {c: f"tyre of {c}" for c in CORNERS}


LOAD = ("load", "load forward", "load left")


def thing_turned(plan: Plan, name: str) -> tuple[str, Adjuster | None]:
    """Return what a change of the car is told of, in the words of the builder, by its name in the log's moves; and the adjuster, where it is one.

    Source: docs/record.md, what an entry moves.
    """
    adjuster = next((a for a in plan.adjusters if a.id == name), None)
    if adjuster is not None:
        return place_words(adjuster), adjuster
    tyre = next((f"{CORNER_WORDS[c]} tyre" for c, its in TYRE.items() if its == name), name)
    return LOAD[0] if name in LOAD else tyre, None


_BREAKS_RIG: tuple[Happening, ...] = ("string", "level", "knock")
# What strings do not stay beside the car for, by what they rest on: they move with the tyres, and stay behind on stands of their own; on the tyres a turn moves them too.
_LEAVES_STRINGS: Mapping[StringsOn, tuple[Happening, ...]] = {"tyres": ("settled", "tyre", "load"), "stands": ("settled",)}


_UNSETTLES: tuple[Happening, ...] = ("tyre", "load", "level", "knock")


DISTURBS: tuple[Happening, ...] = ("weld", "cut", "knock")


@entry_kind
@dataclass(frozen=True)
class Turned(Act):
    """An adjuster was turned (or shimmed): ``amount`` in turns or shims, plus being longer, out, added, up."""

    kind = "turned"
    adjuster: Annotated[Id, Label("Adjuster", "adjuster")]
    amount: Annotated[float, Typed("turns", "typed"), Label("Turns")]
    typed: Annotated[str, WorkedOut] = ""


@entry_kind
@dataclass(frozen=True)
class Stuck(Act):
    """An adjuster goes no further for now, and what is to be turned is worked out without it; to turn it says that it goes again."""

    kind = "stuck"
    adjuster: Annotated[Id, Label("Adjuster", "adjuster")]
    words: Words = ""

    def check(self, plan: Plan) -> None:
        """Refuse one that the plan does not have."""
        plan.adjuster(self.adjuster)


@entry_kind
@dataclass(frozen=True)
class Happened(Act):
    """Something else happened to the car, at one corner or (None) to all of it.

    ``points``: beginnings of the names of points that a weld or cut may have moved; empty: all of the corner, or of the car.
    ``by``: by how much the loaded radius of a corner's tyre has grown, mm, or what was put into the car (minus: taken out), kg, at
    ``place`` (station, offset), mm; so that what it moves is computed. None: not known, and all it can move is *moved since*.
    """

    kind = "happened"
    what: Happening
    corner: Corner | None = None
    words: Words = ""
    points: Annotated[tuple[Prefix, ...], Many(40)] = ()
    by: float | None = None
    place: tuple[float, float] | None = None

    def check(self, plan: Plan) -> None:
        """Refuse a figure that nothing can be done with."""
        if self.by is None:
            return
        if self.what == "tyre" and not self.corner:
            raise CalledError(finding("tyre.which-corner"), path="corner")
        if self.what == "load" and not self.place:
            raise CalledError(finding("load.where"), path="place")
        if self.what not in ("tyre", "load"):
            raise CalledError(finding("happened.no-figure", what=self.what), path="by")


UNSETTLED = finding("why.unsettled")
OFF_WHEELS = ("on stands", "on a lift", "on blocks", "on fixed rods")
_LEANS = frozenset({"height", "load", *OVER_FLOOR})  # what the car's load and state show in


@dataclass(frozen=True)
class Condition:
    """Whether the car has been settled since it last moved on its springs, and whether its anti-roll bar is connected."""

    settled: bool = False
    bar_connected: bool = True

    def why(self, quantity: Quantity, said: StateSaid | None, has_bar: bool, stands: str = "") -> tuple[Finding, ...]:
        """Return why a reading taken now is provisional; of what does not hang on the springs nothing is. ``stands``: how the car is held, as told last."""
        if quantity not in ON_WHEELS:
            return ()
        if stands in OFF_WHEELS:  # then the floor decides nothing, and the springs carry nothing of it
            return (finding("why.off-wheels", how=stands),)
        rows = [] if self.settled else [UNSETTLED]
        if has_bar and self.bar_connected and quantity in ("height", "load"):
            rows.append(finding("why.bar-on"))
        return (*rows, *(said.wanting if said and _LEANS.intersection(read_by(quantity)) else ()))


def has_bar(plan: Plan) -> bool:
    """Whether the car has an anti-roll bar at either end, as far as the plan says."""
    return any(plan.footing.end(e).bar or (plan.linkage(e) and plan.linkage(e).bar) for e in ENDS)  # type: ignore[union-attr]


def moved_by(
    number: int, what: Turned | Happened, plan: Plan, condition: Condition, before: Mapping[str, float]
) -> tuple[list[Move], Condition]:
    """Return what was moved, and the condition of the car after it; ``before``: how far each adjuster was turned since its plan."""
    moves, then = _moved_by(number, what, plan, condition, before)
    on = plan.ways.strings_on
    if on == "tyres" if isinstance(what, Turned) else what.what in _LEAVES_STRINGS.get(on, ()):
        moves = [replace(m, breaks_rig=True) for m in moves]
    return moves, then


def _moved_by(
    number: int, what: Turned | Happened, plan: Plan, condition: Condition, before: Mapping[str, float]
) -> tuple[list[Move], Condition]:
    if isinstance(what, Happened):
        moves = places(MOVED_BY[what.what], _hit(plan, what))
        if what.what == "tyre" and what.corner:  # a tyre lifts its corner and, through the springs, the others
            moves = places(ON_WHEELS, CORNERS) | places(("radius",), (what.corner,))
        settled = what.what == "settled" or (condition.settled and what.what not in _UNSETTLES)
        bar = what.what == "bar_on" or (condition.bar_connected and what.what != "bar_off")
        said = finding("move.told", words=what.words) if what.words else finding("move.happened", what=what.what, points=())
        if what.by is not None and what.what == "tyre" and what.corner:
            return [Move(number, TYRE[what.corner], what.by, moves, said, False)], Condition(settled, bar)
        if what.by is not None and what.place and what.what == "load":
            parts = zip(LOAD, (what.by, what.by * what.place[0], what.by * what.place[1]), strict=True)
            return [Move(number, name, amount, moves, said, False) for name, amount in parts], Condition(settled, bar)
        unknown = bool(moves) and what.what != "string"
        return [Move(number, "", 0.0, moves, said, unknown, what.what in _BREAKS_RIG)], Condition(settled, bar)
    adjuster = next((a for a in plan.adjusters if a.id == what.adjuster), None)
    if adjuster is None:  # taken out of the plan since: what it moved cannot be told
        return [Move(number, "", 0.0, places(ON_WHEELS, CORNERS), finding("move.turned-gone"), True)], condition
    # Shims stand at the hub of their own wheel, unless the plan says that they move something else.
    alone = adjuster.kind == "shims" and adjuster.moves is None
    corners = CORNERS if adjuster.raises else (adjuster.corner,) if alone else _part(plan, adjuster.corner)
    moves = places(ON_WHEELS if adjuster.raises else OF_LINKS, corners)
    settled = condition.settled and not adjuster.raises
    size, way = turn_parts(adjuster, what.amount)
    said = finding("move.turned", corner=adjuster.corner, adjuster=adjuster.name, size=size, way=way)
    amount = adjuster.evenly(before.get(adjuster.id, 0.0), what.amount)
    return [Move(number, adjuster.id, amount, moves, said, False)], replace(condition, settled=settled)


def _part(plan: Plan, corner: Corner) -> tuple[Corner, ...]:
    """Return the corners that move as one part with a corner: both of a live axle, else itself."""
    linkage = plan.linkage(END_OF[corner])
    one = linkage is not None and linkage.layout in LAYOUTS and LAYOUTS[linkage.layout].axle
    return tuple(c for c in CORNERS if END_OF[c] == END_OF[corner]) if one else (corner,)


def _hit(plan: Plan, what: Happened) -> tuple[Corner, ...]:
    """Return the corners that something which happened may have moved: that of its corner, or of the points that are named."""
    if what.corner:
        return _part(plan, what.corner) if what.what in DISTURBS else (what.corner,)
    heads = {p.split(".")[0] for p in what.points}
    if not heads or not all(h in ENDS or h in CORNERS for h in heads):
        return CORNERS
    corners = {c for h in CORNERS if h in heads for c in _part(plan, h)} | {c for c in CORNERS if END_OF[c] in heads}
    return tuple(c for c in CORNERS if c in corners)


class OutOfThreadError(MeasuredError):
    """An adjuster asked past its thread; ``numbers`` hold the turns asked and the room either way."""

    code = "out_of_thread"
