"""The logbook: immutable entries, and folding them into the state of a car.

Nothing here judges. Folding strikes out what was corrected, counts what every adjuster was turned, and sorts the readings by
place and *spell*: the stretch of the log between two changes that could move what is read there.
"""

import math
from bisect import bisect_left
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal, get_args

from ready_corner.core.engines.linkage.layouts import LAYOUTS
from ready_corner.core.plan.plan import (
    CORNER_WORDS,
    CORNERS,
    END_OF,
    ENDS,
    Adjuster,
    Corner,
    Gone,
    Linkage,
    Plan,
    Point,
    places_of,
)
from ready_corner.core.quantities.bounds import beyond
from ready_corner.core.quantities.errors import CalledError, MeasuredError, UnusualError
from ready_corner.core.quantities.notation import Kind, Units, say_angle, say_length, say_mass, say_turns
from ready_corner.core.record.jig_acts import Disturbed, JigAct, JigLog, Supported
from ready_corner.core.record.jig_check import check_act
from ready_corner.core.record.letting_go import lets_go
from ready_corner.core.record.stance_acts import StanceAct, StanceLog, StateSaid, TyreFitted, Unlearned

Quantity = Literal["height", "camber", "gap_front", "gap_back", "gap_hub", "pad", "load", "radius", "stand", "hub"]
GAPS: tuple[Quantity, ...] = ("gap_front", "gap_back", "gap_hub")
Place = tuple[Corner, Quantity]


@dataclass(frozen=True)
class QuantityFacts:
    """What is asked of a reading: kind of figure, what no reading can be under, and what no car has (low, high)."""

    kind: Kind
    words: str
    never_under: float | None
    usual: tuple[float, float]
    tool: str


# Limits beyond which a figure is a slip of the pen on any car: mm for lengths, degrees for angles, kg for loads.
QUANTITIES: Mapping[Quantity, QuantityFacts] = {
    "height": QuantityFacts("length", "ride height", 0.0, (5.0, 900.0), "tape"),
    "camber": QuantityFacts("angle", "camber", None, (-15.0, 15.0), "digital"),
    "gap_front": QuantityFacts("length", "gap to the rim's front edge", 0.0, (0.0, 600.0), "rule"),
    "gap_back": QuantityFacts("length", "gap to the rim's back edge", 0.0, (0.0, 600.0), "rule"),
    "gap_hub": QuantityFacts("length", "gap to the hub centre", 0.0, (0.0, 600.0), "rule"),
    "pad": QuantityFacts("length", "height of the floor under the tyre", None, (-150.0, 150.0), "rule"),
    "load": QuantityFacts("mass", "load on the scale", 0.0, (5.0, 1500.0), "scales"),
    "radius": QuantityFacts("length", "loaded tyre radius", 0.0, (100.0, 600.0), "tape"),
    "stand": QuantityFacts("length", "height over the floor on stands", 0.0, (20.0, 1500.0), "tape"),
    "hub": QuantityFacts("length", "hub height over the floor", 0.0, (20.0, 1500.0), "tape"),
}
UPRIGHT_READS = (60.0, 120.0)  # degrees; a block that shows this was zeroed lying down, and reads 90 for upright


@dataclass(frozen=True)
class PlanRevised:
    """A new plan, made from the one of entry ``revises`` (0 for the first). ``confirmed``: though it lets go of points that something refers to."""

    plan: Plan
    revises: int = 0
    confirmed: bool = False


@dataclass(frozen=True)
class Reading:
    """One number as read off one tool: mm or degrees.

    ``upright_deg`` is what the gauge shows for upright (0 or 90). ``confirmed`` keeps a value no car should have.
    """

    quantity: Quantity
    corner: Corner
    value: float
    tool: str
    typed: str = ""
    denominator: int = 0
    upright_deg: float = 0.0
    confirmed: bool = False

    @property
    def place(self) -> Place:
        """Where it was read."""
        return self.corner, self.quantity

    @property
    def figure(self) -> float:
        """The value counted from its own zero: mm or degrees."""
        return self.value - self.upright_deg


@dataclass(frozen=True)
class Turned:
    """An adjuster was turned (or shimmed): ``amount`` in turns or shims, plus being longer, out, added, up."""

    adjuster: str
    amount: float
    typed: str = ""


Happening = Literal["settled", "bar_off", "bar_on", "string", "tyre", "load", "level", "weld", "cut", "knock"]
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
# What a happening leaves alone is not listed: settling and the bar change the condition of the car, not its marks' readings.
_CAR: tuple[Quantity, ...] = ("height", "camber", *GAPS, "load")  # what is read of a car on its wheels
_ON_STANDS: tuple[Quantity, ...] = ("stand", "hub")
_MOVES: Mapping[Happening, tuple[Quantity, ...]] = {
    "settled": (),
    "bar_off": (),
    "bar_on": (),
    "string": GAPS,
    "tyre": (*_CAR, "radius"),
    "load": _CAR,
    "level": get_args(Quantity),
    "weld": _CAR,
    "cut": _CAR,
    "knock": (*_CAR, *_ON_STANDS),
}
# What a change with a figure moves is told as that of so many turns: of a millimetre of a tyre's radius, of a kilogram, and of a kilogram a millimetre forward or left.
TYRE: Mapping[Corner, str] = {c: f"tyre of {c}" for c in CORNERS}
LOAD = ("load", "load forward", "load left")
_BREAKS_RIG: tuple[Happening, ...] = ("string", "level", "knock")
_UNSETTLES: tuple[Happening, ...] = ("tyre", "load", "level", "knock")


@dataclass(frozen=True)
class Happened:
    """Something else happened to the car, at one corner or (None) to all of it.

    ``points``: beginnings of the names of points that a weld or cut may have moved; empty: all of the corner, or of the car.
    ``by``: by how much the loaded radius of a corner's tyre has grown, mm, or what was put into the car (minus: taken out), kg, at
    ``place`` (station, offset), mm; so that what it moves is computed. None: not known, and all it can move is *moved since*.
    """

    what: Happening
    corner: Corner | None = None
    words: str = ""
    points: tuple[str, ...] = ()
    by: float | None = None
    place: tuple[float, float] | None = None


@dataclass(frozen=True)
class Correction:
    """Strikes out another entry; striking out a correction brings back what it struck."""

    strikes: str
    reason: str = ""


@dataclass(frozen=True)
class Note:
    """Words, with nothing computed from them."""

    words: str
    corner: Corner | None = None


@dataclass(frozen=True)
class Surveyed:
    """Places of points as measured, in the axes of the plan in mm, each sure to ``expanded`` (U) along every axis.

    ``confirmed`` keeps a point far from where the plan has it.
    """

    points: Mapping[str, Point]
    expanded: float
    words: str = ""
    confirmed: bool = False


@dataclass(frozen=True)
class Unreadable:
    """An entry that this version cannot read or fold; it counts for nothing, and stays in the log with the ``sentence`` why."""

    sentence: str


What = PlanRevised | Reading | Turned | Happened | Surveyed | JigAct | StanceAct | Correction | Note | Unreadable


@dataclass(frozen=True)
class Entry:
    """One line of the logbook. ``number`` runs without gaps from 1; ``at`` is the browser's time, kept as written."""

    id: str
    number: int
    what: What
    at: str = ""
    who: str = ""


@dataclass(frozen=True)
class Taken:
    """A reading in its place in the log: entry number, spell, and why it is provisional: what the car was not yet when it was read.

    ``on_frame``: an angle counted from the frame, on which the gauge was zeroed, and not from gravity.
    """

    number: int
    spell: int
    reading: Reading
    why: tuple[str, ...] = ()
    on_frame: bool = False


@dataclass(frozen=True)
class Move:
    """A change as far as readings are concerned: what it moved, by what, in which spell it ended.

    ``adjuster`` is empty where it was no turn; ``unknown``: its effect on the marks cannot be computed. ``breaks_rig``: hub gaps
    read before it say nothing of the strings after it. Moving a string moves its readings but no mark.
    """

    number: int
    adjuster: str
    amount: float
    moves: frozenset[Place]
    words: str
    unknown: bool
    breaks_rig: bool = False


@dataclass(frozen=True)
class Condition:
    """Whether the car has been settled since it last moved on its springs, and whether its anti-roll bar is connected."""

    settled: bool = False
    bar_connected: bool = True

    def why(self, quantity: Quantity, said: StateSaid | None, has_bar: bool) -> tuple[str, ...]:
        """Return why a reading taken now is provisional; of what does not hang on the springs nothing is."""
        if quantity not in _CAR:
            return ()
        rows = [] if self.settled else ["before the car had settled"]
        if has_bar and self.bar_connected and quantity in ("height", "load"):
            rows.append("with the anti-roll bar links on")
        return (*rows, *(said.wanting if said and quantity in ("height", "load", "camber") else ()))


@dataclass(frozen=True)
class CarState:
    """What plan and logbook come to.

    ``moved``: turns of each adjuster since its thread was last measured for the plan. ``taken``: unstruck readings by place,
    oldest first. ``surveyed``: where points were measured last, with U. ``moves``: unstruck changes, oldest first, ``rig_breaks``: numbers of those after which the strings are not where they were. ``spells``: how many changes each place has seen.
    """

    plan: Plan
    plan_number: int = 0
    entries: tuple[Entry, ...] = ()
    struck: Mapping[str, str] = field(default_factory=dict)
    moved: Mapping[str, float] = field(default_factory=dict)
    taken: Mapping[Place, tuple[Taken, ...]] = field(default_factory=dict)
    moves: tuple[Move, ...] = ()
    rig_breaks: tuple[int, ...] = ()
    spells: Mapping[Place, int] = field(default_factory=dict)
    condition: Condition = Condition()
    surveyed: Mapping[str, tuple[Point, float]] = field(default_factory=dict)
    gone: Gone = field(default_factory=Gone)
    jig: JigLog = field(default_factory=JigLog)
    stance: StanceLog = field(default_factory=StanceLog)

    @property
    def number(self) -> int:
        """Number of the latest entry."""
        return self.entries[-1].number if self.entries else 0

    def latest(self, place: Place) -> tuple[Taken, ...]:
        """Return the repeats of the latest spell in which a place was read, oldest first."""
        taken = self.taken.get(place, ())
        return taken[bisect_left(taken, taken[-1].spell, key=lambda t: t.spell) :] if taken else ()


def fold(plan: Plan | None, entries: Sequence[Entry]) -> CarState:
    """Return the state that a plan and entries in order of their numbers come to.

    ``plan`` may be None where the entries begin with one. Raises CalledError where there is none at all.
    """
    first = plan or next((e.what.plan for e in entries if isinstance(e.what, PlanRevised)), None)
    if first is None:
        raise CalledError("This logbook has no plan. Begin the car with one.")
    return _folded(CarState(first), entries)


def fold_on(state: CarState, entries: Sequence[Entry]) -> CarState:
    """Return the state after some more entries; the same as folding all of them at once."""
    if any(isinstance(e.what, Correction) for e in entries):
        return _folded(CarState(fold_plan(state)), (*state.entries, *entries))
    return _folded(state, entries)


def fold_all(state: CarState | None, entries: Sequence[Entry]) -> CarState:
    """Return the state after entries that were kept, whatever they hold: one that cannot be folded counts for nothing, and says so.

    ``state``: what they come after, None for the first. Raises CalledError where there is no plan at all.
    """
    try:
        return fold_on(state, entries) if state else fold(None, entries)
    except CalledError:
        raise
    except Exception:  # whatever it is: one bad line must not take the rest of the logbook with it
        if len(entries) == 1 and state:
            unread = Unreadable(
                "This line could not be reckoned with, so it counts for nothing. Strike it out, or read it again."
            )
            return fold_on(state, [replace(entries[0], what=unread)])
    for entry in entries:
        state = fold_all(state, [entry])
    assert state is not None
    return state


def fold_plan(state: CarState) -> Plan:
    """Return the plan a car began with."""
    return next((e.what.plan for e in state.entries if isinstance(e.what, PlanRevised)), state.plan)


def _folded(state: CarState, entries: Sequence[Entry]) -> CarState:
    """Return the state after some entries; every part that they do not touch is the very object it was."""
    struck = _struck(state.struck, entries)
    surveyed, jig, stance, gone = dict(state.surveyed), state.jig, state.stance, state.gone
    taken: dict[Place, list[Taken]] = {}
    moves: list[Move] = []
    spells, moved = dict(state.spells), dict(state.moved)
    plan, plan_number, condition = state.plan, state.plan_number, state.condition
    for entry in entries:
        what = entry.what
        if entry.id in struck:
            continue
        if isinstance(what, PlanRevised):
            moves += _revised(plan, what.plan, entry.number, moved, spells)
            gone = _gone(gone, plan, what.plan)
            plan, plan_number = what.plan, entry.number
        elif isinstance(what, Reading):
            why = condition.why(what.quantity, stance.state, has_bar(plan))
            on_frame = what.quantity == "camber" and jig.zero == "frame"
            taken.setdefault(what.place, []).append(Taken(entry.number, spells.get(what.place, 0), what, why, on_frame))
        elif isinstance(what, JigAct | StanceAct):
            changed = _changed(entry.number, what, jig, stance)
            jig = jig.after(entry.number, what) if isinstance(what, JigAct) else jig
            stance = stance.after(entry.number, what) if isinstance(what, StanceAct) else stance
            moves += changed
            condition = replace(condition, settled=condition.settled and not changed)
            _count(spells, changed)
        elif isinstance(what, Surveyed):
            surveyed |= {name: (place, what.expanded) for name, place in what.points.items()}
        elif isinstance(what, Turned | Happened):
            made, condition = _move(entry.number, what, plan, condition)
            moves += made
            _count(spells, made[:1])
            jig = _disturbed(jig, entry.number, what)
            if isinstance(what, Turned):
                moved[what.adjuster] = moved.get(what.adjuster, 0.0) + what.amount
    return replace(
        state,
        plan=plan,
        plan_number=plan_number,
        entries=(*state.entries, *entries),
        struck=struck,
        moved=moved if moved != state.moved else state.moved,
        taken={**state.taken, **{p: (*state.taken.get(p, ()), *rows) for p, rows in taken.items()}} if taken else state.taken,
        moves=(*state.moves, *moves) if moves else state.moves,
        rig_breaks=(*state.rig_breaks, *breaks) if (breaks := [m.number for m in moves if m.breaks_rig]) else state.rig_breaks,
        spells=spells if moves else state.spells,
        condition=condition if condition != state.condition else state.condition,
        surveyed=surveyed if len(surveyed) != len(state.surveyed) or surveyed != state.surveyed else state.surveyed,
        gone=gone,
        jig=jig,
        stance=stance,
    )


def _struck(before: Mapping[str, str], entries: Sequence[Entry]) -> Mapping[str, str]:
    """Return which entries are struck out, each with the correction that did."""
    if not any(isinstance(e.what, Correction) for e in entries):
        return before
    struck, by_id = dict(before), {e.id: e for e in entries}
    for entry in reversed(entries):  # a correction strikes what is earlier, so later corrections are settled first
        if isinstance(entry.what, Correction) and entry.id not in struck and entry.what.strikes in by_id:
            struck[entry.what.strikes] = entry.id
    return struck


def _revised(before: Plan, after: Plan, number: int, moved: dict[str, float], spells: dict[Place, int]) -> list[Move]:
    """Count anew what a revision measured anew, and return what it makes *moved since*."""
    for adjuster in after.adjusters:
        known = next((a for a in before.adjusters if a.id == adjuster.id), None)
        if known is None or known.by != adjuster.by:
            moved[adjuster.id] = 0.0
    rows = [Move(number, "", 0.0, places, words, unknown=True) for places, words in spoilt_by(before, after)]
    _count(spells, rows)
    return rows


def _gone(gone: Gone, before: Plan, after: Plan) -> Gone:
    """Return what is not planned any more after a revision; what is named again is planned again."""
    planned, tools = places_of(after), {t.id for t in after.toolbox}
    points = {**gone.points, **places_of(before)}
    known = {**gone.tools, **{t.id: t for t in before.toolbox}}
    return Gone({n: p for n, p in points.items() if n not in planned}, {i: t for i, t in known.items() if i not in tools})


def _count(spells: dict[Place, int], moves: Sequence[Move]) -> None:
    """Begin a new spell at every place that was moved."""
    for place in (p for move in moves for p in move.moves):
        spells[place] = spells.get(place, 0) + 1


def _held(linkage: Linkage) -> tuple[object, ...]:
    springs = [(s.name, s.ends, s.rate, s.free, s.helper, s.seat) for s in linkage.springs]
    return linkage.layout, linkage.lengths, springs


def spoilt_by(before: Plan, after: Plan) -> list[tuple[frozenset[Place], str]]:
    """Return what a revision makes *moved since*, with the words of why: heights read at another place now, and corners whose linkage is made anew.

    A point that was not given before, and everything that only judges or reckons (aims, tracks, spans), moves nothing.
    """
    rows: list[tuple[frozenset[Place], str]] = []
    for corner in CORNERS:
        was, now = before.height_place(corner), after.height_place(corner)
        named = any(p.corner == corner for p in before.heights)
        if named and (was.name, was.station, was.offset) != (now.name, now.station, now.offset):
            rows.append((_places(("height",), (corner,)), f"the plan has its height read at {now.name} now"))
    for end in ENDS:
        corners = [c for c in CORNERS if END_OF[c] == end]
        held, holds = before.linkage(end), after.linkage(end)
        if held and holds and _held(held) != _held(holds):
            rows.append((_places(_MOVES["weld"], corners), f"the plan has the {end} linkage made anew"))
            continue
        for corner in corners:
            own = [corner, end, *(["L" + corner[1]] if holds and holds.mirrored else [])]
            moved = [
                n for n, p in after.points.items() if n in before.points and before.points[n] != p and n.split(".")[0] in own
            ]
            if moved:
                said = f"{moved[0].replace('.', ' ')}" + (f" and {len(moved) - 1} more" if len(moved) > 1 else "")
                rows.append((_places(_MOVES["weld"], (corner,)), f"the plan has moved {said}"))
    return rows


_DISTURBS: tuple[Happening, ...] = ("weld", "cut", "knock")


def _disturbed(jig: JigLog, number: int, what: Turned | Happened) -> JigLog:
    """Return the jig's log with what may have moved points of the frame."""
    if isinstance(what, Turned):
        return jig
    if what.what in ("knock", "level", "load", "cut"):
        jig = replace(jig, shaken=(number, what.words or HAPPENING_WORDS[what.what]))
    if what.what not in _DISTURBS:
        return jig
    points = what.points or ((what.corner,) if what.corner else ())
    where = f" {', '.join(points)}" if points else ""
    words = what.words or f"{HAPPENING_WORDS[what.what]}{where}"
    return replace(jig, disturbed=(*jig.disturbed, Disturbed(number, points, words, what.what == "weld")))


def _places(quantities: Iterable[Quantity], corners: Iterable[Corner]) -> frozenset[Place]:
    corners = tuple(corners)
    return frozenset((corner, quantity) for quantity in quantities for corner in corners)


def has_bar(plan: Plan) -> bool:
    """Whether the car has an anti-roll bar at either end, as far as the plan says."""
    return any(plan.footing.end(e).bar or (plan.linkage(e) and plan.linkage(e).bar) for e in ENDS)  # type: ignore[union-attr]


def _changed(number: int, what: JigAct | StanceAct, jig: JigLog, stance: StanceLog) -> list[Move]:
    """Return what a state that was said, another tyre or another support moves; nothing for the rest, and where nothing is changed."""
    if isinstance(what, Supported) and what.how != jig.support:
        return [Move(number, "", 0.0, _places(_ON_STANDS, CORNERS), f"the car is {what.how} now", unknown=True)]
    if isinstance(what, TyreFitted):
        corners = CORNERS if what.corner is None else (what.corner,)
        words = what.words or ("a stand-in tyre fitted" if what.stand_in else "its own tyre fitted")
        moves = _places(_CAR, CORNERS) | _places(("radius",), corners)  # type: ignore[arg-type]
        return [Move(number, "", 0.0, moves, words, unknown=True)]
    if isinstance(what, StateSaid) and stance.state is not None:
        if what.weighs != stance.state.weighs:
            return [Move(number, "", 0.0, _places(_CAR, CORNERS), f"load changed: {what.words}", unknown=True)]
        if what.at_pressure != stance.state.at_pressure:
            return [Move(number, "", 0.0, _places(_MOVES["tyre"], CORNERS), "tyre pressures changed", unknown=True)]
    return []


def _move(number: int, what: Turned | Happened, plan: Plan, condition: Condition) -> tuple[list[Move], Condition]:
    if isinstance(what, Happened):
        moves = _places(_MOVES[what.what], _hit(plan, what))
        if what.what == "tyre" and what.corner:  # a tyre lifts its corner and, through the springs, the others
            moves = _places(_CAR, CORNERS) | _places(("radius",), (what.corner,))
        settled = what.what == "settled" or (condition.settled and what.what not in _UNSETTLES)
        bar = what.what == "bar_on" or (condition.bar_connected and what.what != "bar_off")
        words = what.words or HAPPENING_WORDS[what.what]
        if what.by is not None and what.what == "tyre" and what.corner:
            return [Move(number, TYRE[what.corner], what.by, moves, words, False)], Condition(settled, bar)
        if what.by is not None and what.place and what.what == "load":
            parts = zip(LOAD, (what.by, what.by * what.place[0], what.by * what.place[1]), strict=True)
            return [Move(number, name, amount, moves, words, False) for name, amount in parts], Condition(settled, bar)
        unknown = bool(moves) and what.what != "string"
        return [Move(number, "", 0.0, moves, words, unknown, what.what in _BREAKS_RIG)], Condition(settled, bar)
    adjuster = next((a for a in plan.adjusters if a.id == what.adjuster), None)
    if adjuster is None:  # taken out of the plan since: what it moved cannot be told
        words = "an adjuster no longer in the plan was turned"
        return [Move(number, "", 0.0, _places(_CAR, CORNERS), words, True)], condition
    # Shims stand at the hub of their own wheel, unless the plan says that they move something else.
    alone = adjuster.kind == "shims" and adjuster.moves is None
    corners = CORNERS if adjuster.kind == "perch" else (adjuster.corner,) if alone else _part(plan, adjuster.corner)
    moves = _places(_CAR if adjuster.kind == "perch" else ("height", "camber", *GAPS), corners)
    settled = condition.settled and adjuster.kind != "perch"
    words = f"{place_words(adjuster)} {turn_words(adjuster, what.amount)}"
    return [Move(number, adjuster.id, what.amount, moves, words, False)], replace(condition, settled=settled)


def _part(plan: Plan, corner: Corner) -> tuple[Corner, ...]:
    """Return the corners that move as one part with a corner: both of a live axle, else itself."""
    linkage = plan.linkage(END_OF[corner])
    one = linkage is not None and linkage.layout in LAYOUTS and LAYOUTS[linkage.layout].axle
    return tuple(c for c in CORNERS if END_OF[c] == END_OF[corner]) if one else (corner,)


def _hit(plan: Plan, what: Happened) -> tuple[Corner, ...]:
    """Return the corners that something which happened may have moved: that of its corner, or of the points that are named."""
    if what.corner:
        return _part(plan, what.corner) if what.what in _DISTURBS else (what.corner,)
    heads = {p.split(".")[0] for p in what.points}
    if not heads or not all(h in ENDS or h in CORNERS for h in heads):
        return CORNERS
    corners = {c for h in CORNERS if h in heads for c in _part(plan, h)} | {c for c in CORNERS if END_OF[c] in heads}
    return tuple(c for c in CORNERS if c in corners)


def place_words(adjuster: Adjuster) -> str:
    """Return an adjuster with its corner, as the builder says it."""
    return f"{CORNER_WORDS[adjuster.corner]} {adjuster.name}"


def turn_words(adjuster: Adjuster, amount: float) -> str:
    """Return an amount with its direction: “1 turn 2 flats longer”, “2 shims added”."""
    if adjuster.kind == "shims":
        return f"{abs(amount):g} shim{'s' * (abs(amount) != 1)} {adjuster.way(amount)}"
    return f"{say_turns(amount)} {adjuster.way(amount)}"


def upright_of(quantity: Quantity, value: float) -> float:
    """Return what a gauge that shows ``value`` shows for upright: 90 degrees where it was zeroed lying down, else 0."""
    return 90.0 if quantity == "camber" and UPRIGHT_READS[0] <= value <= UPRIGHT_READS[1] else 0.0


def check(state: CarState, what: What) -> None:
    """Refuse what cannot go into the log after this state.

    Raises MeasuredError for a reading no tool can give or a turn past its thread, UnusualError for one no car has unless it is
    confirmed, CalledError for names the plan does not know.
    """
    if not isinstance(what, PlanRevised) and (odd := next(beyond(what), None)):
        raise MeasuredError(
            f"{odd[1]:g} is beyond anything that is measured on a car. Type what the tool shows.", path="typed", numbers={}
        )
    if isinstance(what, Happened) and what.by is not None:
        _check_figure(what)
    if isinstance(what, Reading):
        _check_reading(state, what)
    elif isinstance(what, Turned):
        check_turn(state, what.adjuster, what.amount)
    elif isinstance(what, Surveyed):
        _check_survey(state.plan, what)
    elif isinstance(what, JigAct):
        check_act(state.plan, what)
    elif isinstance(what, PlanRevised):
        _check_revision(state, what)
    elif isinstance(what, Unlearned):
        state.plan.adjuster(what.adjuster)
    elif isinstance(what, Correction):
        target = next((e for e in state.entries if e.id == what.strikes), None)
        if target is None:
            raise CalledError("There is no such entry in this logbook to strike out.", path="strikes")
        if isinstance(target.what, PlanRevised):
            raise CalledError("A plan is not struck out; revise it, and the earlier one stays in the log.", path="strikes")
        if target.id in state.struck:
            raise CalledError(f"Entry {target.number} is struck out already.", path="strikes", numbers={"entry": target.number})


def _check_figure(what: Happened) -> None:
    """Refuse a figure of a change that nothing can be done with."""
    if what.what == "tyre" and not what.corner:
        raise CalledError("By how much a tyre is larger belongs to its corner. Choose it.", path="corner")
    if what.what == "load" and not what.place:
        raise CalledError("What was put in or taken out stands somewhere: type its station and its offset, too.", path="place")
    if what.what not in ("tyre", "load"):
        raise CalledError(f"“{HAPPENING_WORDS[what.what]}” carries no figure. Leave it empty.", path="by")


def _check_revision(state: CarState, what: PlanRevised) -> None:
    """Ask once where points are let go that something refers to."""
    kept = places_of(what.plan)
    lost = {n: p for n, p in places_of(state.plan).items() if n not in kept}
    told = lets_go(state.jig, state.surveyed, lost, {n: p for n, p in kept.items() if n not in places_of(state.plan)})
    if told and not what.confirmed:
        raise UnusualError(
            f"{' '.join(told)} Name them again, or keep this plan all the same.",
            path="plan.points",
            numbers={"points": len(lost)},
        )


def _check_reading(state: CarState, reading: Reading) -> None:
    facts, units = QUANTITIES[reading.quantity], state.plan.units
    tool = state.plan.tool(reading.tool)
    if tool.measures != facts.kind:
        raise CalledError(f"A {tool.name.lower()} does not read {facts.words}. Choose another tool.", path="tool")
    value = reading.figure
    said = say_figure(facts.kind, value, units)
    if facts.never_under is not None and value < facts.never_under:
        why = (
            "The string would cut through the wheel: move it out and read again."
            if reading.quantity in GAPS
            else "Nothing pulls the car down: is the scale zeroed, and turned the right way round?"
            if reading.quantity == "load"
            else "Read it again."
        )
        raise MeasuredError(f"A {facts.words} of {said} cannot be. {why}", path="typed", numbers={"value": value})
    low, high = facts.usual
    if not low <= value <= high and not reading.confirmed:
        raise UnusualError(
            f"A {facts.words} of {said} is on no car. Type it again, or keep it, marked.",
            path="typed",
            numbers={"value": value, "low": low, "high": high},
        )


def say_figure(kind: Kind, value: float, units: Units) -> str:
    """Return a figure with its unit: degrees, kg or lb, or a length in decimals."""
    if kind == "angle":
        return say_angle(value)
    return say_mass(value, units) if kind == "mass" else say_length(value, units, denominator=0, unit=True)


FAR_MM = 300.0  # no pickup point is welded so far off its place


def _check_survey(plan: Plan, what: Surveyed) -> None:
    if not what.points:
        raise MeasuredError("No point is in this survey. Give at least one, with its three coordinates.", path="points")
    if not what.expanded > 0:
        raise MeasuredError("Nothing is measured without doubt. Give ± how far the survey is sure.", path="expanded")
    planned = places_of(plan)
    for name, place in what.points.items():
        wanted = planned.get(name)
        if wanted is None:
            raise CalledError(
                f"The plan has no point “{name}”. Look at its spelling, or give it a place in the plan first.",
                path=f"points.{name}",
            )
        away = math.dist(place, wanted)
        if away > FAR_MM and not what.confirmed:
            raise UnusualError(
                f"{name} is {say_length(away, plan.units, denominator=0, unit=True)} from where the plan has it. Was it measured from the same datum? Send it again to keep it.",
                path=f"points.{name}",
                numbers={"distance": away},
            )


class OutOfThreadError(MeasuredError):
    """An adjuster asked past its thread; ``numbers`` hold the turns asked and the room either way."""

    code = "out_of_thread"


def check_turn(state: CarState, adjuster_id: str, amount: float) -> None:
    """Raise OutOfThreadError where an adjuster would be sent past its thread, MeasuredError where it is not turned at all."""
    adjuster = state.plan.adjuster(adjuster_id)
    if amount == 0:
        raise MeasuredError(
            f"{adjuster.name} was not turned. Type how far, such as 1t2f, or −1t for {adjuster.way(-1)}.", path="typed"
        )
    if adjuster.kind == "shims" and amount != round(amount):
        raise MeasuredError(f"{adjuster.name} goes by whole shims. Type how many.", path="typed", numbers={"amount": amount})
    low, high = adjuster.room(state.moved.get(adjuster_id, 0.0))
    left = high if amount > 0 else -low
    if not low - 1e-9 <= amount <= high + 1e-9:  # 1e-9 of a turn: turns come from flats, which are no binary fractions
        whole = int(left * 6 + 1e-9) / 6 if adjuster.kind != "shims" else int(left)
        can = (
            f"only {turn_words(adjuster, whole if amount > 0 else -whole)} is left"
            if whole
            else f"nothing is left that way ({adjuster.way(amount)})"
        )
        raise OutOfThreadError(
            f"{adjuster.name} would go past its thread: {can}. Turn less, or fit a {'longer' if amount > 0 else 'shorter'} part and revise the plan.",
            path="typed",
            numbers={"amount": amount, "low": low, "high": high},
        )
