"""The figures of a car from its readings, each with the uncertainty of what it came from.

A figure belongs to a spell: the repeats at its places between two changes. Toe needs front and back gap of the same spell, and
the hub gaps of the same rig of the strings.

Source: JCGM 100:2008, 5.1.2, over the geometry of gaps, gauges and pads; docs/choices.md (Figures, Uncertainty).
"""

import math
from bisect import bisect_left, bisect_right
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import groupby
from operator import attrgetter
from typing import NamedTuple, cast

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.engines.alignment import camber as camber_of
from ready_corner.core.engines.alignment import steering_axis, string
from ready_corner.core.engines.statics.springs import GRAVITY
from ready_corner.core.judge.memory import Memory, note, remembered
from ready_corner.core.judge.reach import Wheels, warped, wheels_of
from ready_corner.core.model.heights import cross_share, rake_deg
from ready_corner.core.model.springs_of_plan import Springing, places, response, springing, tilted_loads
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, SIDE, Corner, End
from ready_corner.core.plan.marks import CORNER_KINDS, MARK_KINDS, OfMark, ReadBy
from ready_corner.core.plan.plan import UNTAPED_MM, Plan
from ready_corner.core.quantities.errors import MeasuredError, ReadyCornerError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import Measured, combine, propagate
from ready_corner.core.quantities.tools import EYE, SPANS, Tool, odd_repeat
from ready_corner.core.record.logbook import CarState
from ready_corner.core.record.readings import QUANTITIES, Place, Quantity, Taken

EVERY_PLACE = cast(Mapping[str, tuple[Quantity, ...]], {k: MARK_KINDS[k].every for k in CORNER_KINDS})
EDGES: tuple[Quantity, ...] = ("gap_front", "gap_back")

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]
_spell_of = attrgetter("spell")


@dataclass(frozen=True)
class Group:
    """Repeats at one place in one spell, with the tool of the latest of them; other tools' repeats are set aside.

    ``odd``: entry number of a repeat that does not agree with the rest, or None.
    """

    place: Place
    spell: int
    rows: tuple[Taken, ...]
    tool: Tool

    @cached_property
    def estimate(self) -> Measured:
        """Mean of the repeats in mm or degrees; of a wheel that was read half a turn round too the mean of both halves."""
        name = f"{self.place[0]}.{self.place[1]}.{self.spell}"
        halves = [
            self.tool.estimate(rows, f"{name}{half}") for rows, half in zip(self.halves, ("", ".half"), strict=True) if rows
        ]
        return combine(halves, [1 / len(halves)] * len(halves))

    @cached_property
    def halves(self) -> tuple[list[float], list[float]]:
        """What was read as the wheel stood, and half a turn round."""
        as_it_stood, round_ = ([t.reading.figure for t in self.rows if t.reading.half_turn is half] for half in (False, True))
        return as_it_stood, round_

    @property
    def is_halved(self) -> bool:
        """Whether run-out of the rim falls out of the mean."""
        return all(self.halves)

    @cached_property
    def why(self) -> tuple[Finding, ...]:
        """Why it is provisional: what the car was not yet at one of the repeats."""
        return tuple(dict.fromkeys(w for t in self.rows for w in t.why))

    @cached_property
    def odd(self) -> int | None:
        """Entry number of the repeat that disagrees, if one does."""
        for rows, half in zip(self.halves, (False, True), strict=True):
            if (i := odd_repeat(rows, self.tool)) is not None:
                return [t for t in self.rows if t.reading.half_turn is half][i].number
        return None


@dataclass(frozen=True)
class Figure:
    """A figure of one corner: what it is, the groups of repeats read for it, and in which ways; ``apart``: two ways that do not agree, said."""

    measured: Measured
    groups: tuple[Group, ...]
    ways: tuple[ReadBy, ...] = ()
    apart: Finding | None = None

    @property
    def number(self) -> int:
        """Entry number of the latest reading in it."""
        return max(g.rows[-1].number for g in self.groups)

    @property
    def why(self) -> tuple[Finding, ...]:
        """Why it is provisional: what the car was not yet at a reading in it."""
        return tuple(dict.fromkeys(w for g in self.groups for w in g.why))


class Seen(NamedTuple):
    """A figure as it was in every spell in which it can be made (n), oldest first: value, the standard uncertainty of its own readings (zeros of
    tools, which all share, left out), latest entry, and whether it was counted from the frame."""

    spell: IntArray
    value: FloatArray
    u: FloatArray
    number: IntArray
    on_frame: NDArray[np.bool_]

    def only(self, which: NDArray[np.bool_]) -> "Seen":
        """Return the rows of a mask."""
        return Seen._make(column[which] for column in self)


FLOOR_UNTOLD, FLOOR_ALONG = "floor across", "floor along"
WAYS_APART = "ways apart"
APART = 2.5  # standard uncertainties of their difference beyond which two ways of reading do not agree
# Where nobody told: a steering axis as cars have it, and as a car is built that was drawn; standard uncertainties in degrees.
USUAL_AXIS = {"caster": (5.0, 4.0), "inclination": (10.0, 5.0)}
AXIS_BUILT_DEG, JOINTS_READ_DEG, TOE_UNTOLD_DEG = 1.5, 0.3, 0.5
NUDGE = 1e-3  # mm or degrees, of central differences
STRETCH = 24  # spells whose figures are kept together


def _columns(rows: Sequence[tuple[int, float, float, int, bool]]) -> Seen:
    """Return rows of spell, value, u, entry and whether from the frame as columns."""
    spell, value, u, number, on_frame = zip(*rows, strict=True) if rows else ((),) * 5
    return Seen(
        np.array(spell, dtype=np.int64),
        np.array(value, dtype=np.float64),
        np.array(u, dtype=np.float64),
        np.array(number, dtype=np.int64),
        np.array(on_frame, dtype=np.bool_),
    )


def _nearest(numbers: IntArray, to: IntArray) -> IntArray:
    """Return which of some entries (ascending, at least one) lies nearest to each of others; of two as near, the later."""
    after = np.minimum(np.searchsorted(numbers, to), len(numbers) - 1)
    before = np.maximum(after - 1, 0)
    nearer = np.abs(to - numbers[before]) < np.abs(numbers[after] - to)
    return np.where(nearer, before, after)


def default_tool(plan: Plan, quantity: Quantity) -> Tool:
    """Return the tool a quantity is read with unless another is chosen."""
    facts = QUANTITIES[quantity]
    wanted = plan.tool_for.get(quantity, facts.tool)
    fitting = [t for t in plan.toolbox if t.measures == facts.measures]
    return next((t for t in fitting if t.id == wanted), fitting[0])


def tools_for(plan: Plan, quantity: Quantity) -> list[Tool]:
    """Return the tools of a plan that can read a quantity."""
    facts = QUANTITIES[quantity]
    return [t for t in plan.toolbox if t.measures == facts.measures and (facts.spanned or t.id not in SPANS)]


@dataclass(frozen=True)
class _Under:
    """What stands under the wheels: ``rises`` of pads and tyres, mm, and what each adds to heights (4, n) and loads in kg (4, n); ``tilt`` in kg (4,)."""

    rises: tuple[Measured, ...]
    heights: FloatArray
    loads: FloatArray
    tilt: FloatArray


@dataclass(frozen=True)
class _Upright:
    """The upward unit vector ``up`` (3,) that gauges are zeroed on, in the axes of the plane the car stands on; its sources of doubt, and ``tilted``
    (n, 3): what it would be with one more of each."""

    up: FloatArray
    sources: tuple[Measured, ...]
    tilted: FloatArray


def _by_nudges(angle: Callable[[Sequence[float], FloatArray], float], inputs: Sequence[Measured], on: _Upright) -> Measured:
    """Return an angle of figures and of what is upright, degrees, its uncertainty propagated through the function itself."""
    at = [m.value for m in inputs]

    def nudged(i: int, by: float) -> float:
        return angle([v + by * (k == i) for k, v in enumerate(at)], on.up)

    value = angle(at, on.up)
    by = [(nudged(i, NUDGE) - nudged(i, -NUDGE)) / (2 * NUDGE) for i in range(len(at))]
    return propagate(value, [*inputs, *on.sources], [*by, *(angle(at, up) - value for up in on.tilted)])


def joined(mark: str, made: Sequence[Figure]) -> Figure:
    """Return one figure of several ways: by their weights where they agree; where two do not, half their difference stands in U, and it is said.

    Source: weighted mean by 1/u², JCGM 100:2008, 5.1.2; docs/readings.md.
    """
    if len(made) == 1:
        return made[0]
    weights = np.array([1 / max(f.measured.u, 1e-9) ** 2 for f in made])
    whole = combine([f.measured for f in made], [float(w) for w in weights / weights.sum()])
    groups, ways = tuple(g for f in made for g in f.groups), tuple(w for f in made for w in f.ways)
    by = [(f, g, combine([f.measured, g.measured], [1.0, -1.0])) for i, f in enumerate(made) for g in made[:i]]
    first, second, off = max(by, key=lambda pair: abs(pair[2].value) / max(pair[2].u, 1e-9))
    if abs(off.value) <= APART * off.u:
        return Figure(whole, groups, ways)
    told = finding(
        "mark.ways-apart", first=second.ways[0].words, second=first.ways[0].words, off=OfMark(mark, abs(off.value), 0)
    )
    return Figure(Measured(whole.value, {**whole.parts, WAYS_APART: abs(off.value) / 2}), groups, ways, told)


def _known_tool(state: CarState, id_: str) -> Tool | None:
    """Return a tool of the plan, or of an earlier one; None where there never was one of this name."""
    return state.gone.known(state.plan, id_)


def best_of(rows: Sequence[Taken]) -> list[Taken]:
    """Return the repeats that count: those read when the car was ready, else those nearest to it that were read alike.

    What was read before the car had settled, or in another state than the plan's, is never averaged with what was read after; nor an angle
    counted from the frame with one from gravity.
    """
    rows = [t for t in rows if t.on_frame == rows[-1].on_frame]
    least = min(len(t.why) for t in rows)
    why = next(t.why for t in reversed(rows) if len(t.why) == least)
    return [t for t in rows if t.why == why]


class Figures:
    """All figures of one state of a car; worked out when asked for, and kept in its ``memory``."""

    def __init__(self, memory: Memory) -> None:
        self.memory, self.state = memory, memory.state

    @property
    def plan(self) -> Plan:
        """The plan in force."""
        return self.state.plan

    @remembered
    def _at(self, place: Place) -> dict[int, tuple[Taken, ...]]:
        """Return what was read at a place, by spell, oldest first."""
        return {n: tuple(rows) for n, rows in groupby(self.state.taken.get(place, ()), _spell_of)}

    @remembered
    def spells(self, corner: Corner, quantities: tuple[Quantity, ...]) -> list[int]:
        """Return the spells in which all these places of a corner were read, oldest first."""
        first, *others = [self._at((corner, q)) for q in quantities]
        return [n for n in first if all(n in other for other in others)]

    @remembered
    def group(self, place: Place, spell: int) -> Group:
        """Return the repeats at a place in a spell in which it was read."""
        note("taken", place, spell)  # and of the place nothing else: other spells do not change it
        every = self.memory.given.taken[place]
        rows = every[bisect_left(every, spell, key=_spell_of) : bisect_right(every, spell, key=_spell_of)]
        by_tool = [
            t.reading.tool for t in rows if t.reading.tool != EYE.id
        ]  # what an eye says counts where nothing else was read
        id_ = by_tool[-1] if by_tool else EYE.id
        tool = _known_tool(self.state, id_) or default_tool(self.plan, place[1])
        own = [t for t in rows if t.reading.tool == id_]
        return Group(place, spell, tuple(best_of(own)), tool)

    @remembered
    def spells_of(self, kind: str, corner: Corner) -> list[int]:
        """Return the spells in which a mark of a corner was read in one of its ways, oldest first."""
        read = [spells for way in MARK_KINDS[kind].ways if (spells := self.spells(corner, way.read))]  # type: ignore[arg-type]
        return read[0] if len(read) == 1 else sorted({n for spells in read for n in spells})

    def _ways_in(self, kind: str, corner: Corner, spell: int) -> tuple[ReadBy, ...]:
        """Return the ways in which a mark was read whole in a spell."""
        ways = MARK_KINDS[kind].ways
        return ways if len(ways) == 1 else tuple(w for w in ways if all(spell in self._at((corner, q)) for q in w.read))  # type: ignore[arg-type]

    def figure(self, kind: str, corner: Corner, spell: int | None = None) -> Figure | None:
        """Return height (mm), an angle (degrees), or load (kg) of a corner in a spell, the latest where None; None where not all is read."""
        if spell is None:
            spells = self.spells_of(kind, corner)
            if not spells:
                return None
            spell = spells[-1]
        try:
            return self._figure(kind, corner, spell, self._ways_in(kind, corner, spell))
        except MeasuredError:
            return None

    def refusal(self, kind: str, corner: Corner) -> MeasuredError | None:
        """Return why a figure cannot be made of what was read last; None where it can, or nothing was read."""
        if spells := self.spells_of(kind, corner):
            try:
                self._figure(kind, corner, spells[-1], self._ways_in(kind, corner, spells[-1]))
            except MeasuredError as refusal:
                return refusal
        return None

    @remembered
    def _figure(self, kind: str, corner: Corner, spell: int, ways: tuple[ReadBy, ...]) -> Figure | None:
        """Return a figure in a spell by all the ways in which it was read in it; what one of them cannot tell the others may."""
        made: list[Figure] = []
        refused: MeasuredError | None = None
        for way in ways:
            groups = tuple(self.group((corner, q), spell) for q in way.read)  # type: ignore[arg-type]
            own: Callable[[Corner, tuple[Group, ...], ReadBy], Measured | None] | None = getattr(self, f"_{kind}", None)
            try:
                measured = own(corner, groups, way) if own else groups[0].estimate
            except MeasuredError as error:
                refused = error
                continue
            if measured is not None:
                made.append(Figure(measured, groups, (way,)))
        if refused and not made:
            raise refused
        return joined(f"{corner}.{kind}", made) if made else None

    @remembered
    def seen(self, kind: str, corner: Corner) -> Seen:
        """Return what a figure was in every spell in which it can be made, oldest first: as :meth:`figure` makes it, all in one go."""
        if MARK_KINDS[kind].only_aimed or any(self.spells(corner, w.read) for w in MARK_KINDS[kind].ways[1:]):  # type: ignore[arg-type]
            return _columns(
                [self._row(kind, corner, f, n) for n in self.spells_of(kind, corner) if (f := self.figure(kind, corner, n))]
            )
        found = self._bare(kind, corner)
        if kind in ("height", "load"):
            i, lie = CORNERS.index(corner), np.array([r.value for r in self._under.rises])
            more = self._under.heights[i] @ lie if kind == "height" else self._under.loads[i] @ lie + self._under.tilt[i]
            return found._replace(value=found.value + float(more))
        if kind == "toe":
            return self._off_string(corner, found)
        if kind != "camber" or not len(found.value):
            return found
        if not self.floor or found.on_frame.any():
            own = [self.figure("camber", corner, spell) for spell in found.spell.tolist()]
            made = found.only(np.array([f is not None for f in own]))
            return made._replace(value=np.array([f.measured.value for f in own if f], dtype=np.float64))
        steer = self._steer(corner, found.number)
        values = camber_of.camber_from_gravity_deg(found.value, SIDE[corner], self.floor.up, steer)
        return found._replace(value=np.atleast_1d(values) - self._warped[corner][0])

    def _off_string(self, corner: Corner, found: Seen) -> Seen:
        """Return toe against the string with the string's own opening, and the warp of the pads, taken out; without what has no opening."""
        rigs = np.searchsorted(np.array(self.state.rig_breaks, dtype=np.int64), found.number)
        opened = {rig: on.value for rig in np.unique(rigs).tolist() if (on := self._opening_on(corner, rig)) is not None}
        by = np.array([opened.get(rig, np.nan) for rig in rigs.tolist()], dtype=np.float64)
        warp = self._warped[corner][1] if self.floor else 0.0
        return found._replace(value=found.value - by - warp).only(~np.isnan(by))

    def _steer(self, corner: Corner, numbers: IntArray) -> FloatArray:
        """Return the toe that was read next to each of some entries, degrees; 0 where it cannot be told."""
        read, toes = self._toes_read(corner), self.seen("toe", corner)
        if not len(read[0]) or not len(toes.spell):
            return np.zeros(len(numbers))
        beside = read[0][_nearest(read[1], numbers)]
        at = np.minimum(np.searchsorted(toes.spell, beside), len(toes.spell) - 1)
        return np.where(toes.spell[at] == beside, toes.value[at], 0.0)

    def _row(self, kind: str, corner: Corner, figure: Figure, spell: int) -> tuple[int, float, float, int, bool]:
        """Return what :class:`Seen` keeps of a figure: of its u, what its own readings put in."""
        own = tuple(f"{corner}.{q}." for q in EVERY_PLACE[kind])
        parts = [part for name, part in figure.measured.parts.items() if name.startswith(own)]
        return spell, figure.measured.value, math.hypot(*parts), figure.number, False

    @remembered
    def _bare(self, kind: str, corner: Corner) -> Seen:
        """Return a figure in every spell as its own readings alone have it, in the usual way: toe against the string, the rest as read."""
        spells = self.spells(corner, MARK_KINDS[kind].read)  # type: ignore[arg-type]
        parts = [self._stretch(kind, corner, *spells[i : i + STRETCH]) for i in range(0, len(spells), STRETCH)]
        return Seen._make(map(np.concatenate, zip(*parts, strict=True))) if parts else _columns(())

    @remembered
    def _stretch(self, kind: str, corner: Corner, *spells: int) -> Seen:
        """Return the same of a stretch of spells, which a reading in another leaves as it is."""
        return _columns([row for spell in spells if (row := self._own(kind, corner, spell)) is not None])

    def _own(self, kind: str, corner: Corner, spell: int) -> tuple[int, float, float, int, bool] | None:
        groups = [self.group((corner, q), spell) for q in MARK_KINDS[kind].read]  # type: ignore[arg-type]
        try:
            bare = self.against_string(corner, spell) if kind == "toe" else groups[0].estimate
        except MeasuredError:
            return None
        own = {name for g in groups for name in g.estimate.parts if not name.endswith(" zero")}
        u = Measured(0.0, {n: part for n, part in bare.parts.items() if n in own}).u
        return spell, bare.value, u, max(g.rows[-1].number for g in groups), groups[0].rows[-1].on_frame

    def _height(self, corner: Corner, groups: tuple[Group, ...], _: ReadBy) -> Measured:
        by = self._under
        return combine([groups[0].estimate, *by.rises], [1.0, *map(float, by.heights[CORNERS.index(corner)])])

    def _load(self, corner: Corner, groups: tuple[Group, ...], _: ReadBy) -> Measured:
        by = self._under
        i = CORNERS.index(corner)
        return combine([groups[0].estimate, *by.rises], [1.0, *map(float, by.loads[i])], float(by.tilt[i]))

    @property
    @remembered
    def springs(self) -> Springing:
        """The springs of the plan at the wheels."""
        return springing(self.plan)

    @property
    @remembered
    def wheels(self) -> Wheels:
        """How camber and toe go with travel by the plan."""
        return wheels_of(self.plan)

    @property
    @remembered
    def radii(self) -> dict[Corner, Measured]:
        """The loaded radius of the tyre each corner is planned for: read on the car while it was on, else that of the plan; absent where neither is."""
        found: dict[Corner, Measured] = {}
        for corner in CORNERS:
            linkage = self.plan.linkage(END_OF[corner])
            if linkage is not None:
                found[corner] = Measured(linkage.loaded_radius, {})
            since = self.state.stance.stand_ins.get(corner, math.inf)
            other = [(low, high) for c, low, high in self.state.stance.stood_in if c == corner]
            own = [
                t
                for t in self.state.taken.get((corner, "radius"), ())
                if t.number < since and not any(low < t.number < high for low, high in other)
            ]
            if own:
                found[corner] = self.group((corner, "radius"), own[-1].spell).estimate
        return found

    @property
    @remembered
    def stand_ins(self) -> dict[Corner, Measured]:
        """The loaded radius of every stand-in tyre that is on and was read since."""
        found: dict[Corner, Measured] = {}
        for corner in self.state.stance.stand_ins:
            place: Place = (corner, "radius")  # type: ignore[assignment]
            rows = self.state.latest(place)
            if rows and rows[-1].number > self.state.stance.stand_ins[corner]:
                found[place[0]] = self.group(place, rows[-1].spell).estimate
        return found

    @property
    @remembered
    def _under(self) -> "_Under":
        """What the pads and stand-in tyres do to heights and loads, to be taken out of both."""
        pads = [self.state.latest((c, "pad")) for c in CORNERS]
        rises: list[Measured] = []
        heights, loads = np.zeros((4, 0)), np.zeros((4, 0))
        tilt = np.zeros(4)
        if all(pads) or self.stand_ins:
            at = places(self.plan)
            s = self.springs.supports()
            by = response(at, s)
            there = np.array([[p.station, p.offset] for p in (self.plan.height_place(c) for c in CORNERS)])
            if all(pads):
                rises += [self.group((c, "pad"), rows[-1].spell).estimate for c, rows in zip(CORNERS, pads, strict=True)]
                heights, loads = np.eye(4) - by.heights, -by.loads / GRAVITY
                if self.plan.loads and self.plan.footing.mass:
                    weight = self.plan.footing.mass * GRAVITY
                    lie = np.array([r.value for r in rises])
                    tilt = -tilted_loads(at, s, lie, weight, self.plan.loads.height) / GRAVITY
            for corner, own in self.stand_ins.items():
                if (planned := self.radii.get(corner)) is None:
                    continue
                i = CORNERS.index(corner)
                rises += [own, planned]
                raised, loaded = by.at_places(there)[:, i], by.loads[:, i] / GRAVITY
                heights = np.column_stack([heights, -raised, raised])
                loads = np.column_stack([loads, -loaded, loaded])
        return _Under(tuple(rises), heights, loads, tilt)

    @property
    def corrected(self) -> tuple[tuple[float, ...], tuple[float, ...]]:
        """What is added to each height (mm) and load (kg) as read, for pads and stand-in tyres, (4,) each."""
        lie = np.array([r.value for r in self._under.rises])
        return tuple((self._under.heights @ lie).tolist()), tuple((self._under.loads @ lie + self._under.tilt).tolist())

    def _camber(self, corner: Corner, groups: tuple[Group, ...], way: ReadBy) -> Measured:
        on_frame = groups[0].rows[-1].on_frame
        beside = self._toe_beside(corner, groups[0].rows[-1].number) if self.floor or on_frame else None
        return self._camber_from_upright(corner, groups[0].spell, beside, way, on_frame)

    @remembered
    def _toes_read(self, corner: Corner) -> tuple[IntArray, IntArray]:
        """Return the spells in which toe was read at a corner (n), and the entry at which each was, in the order of these."""
        rows: dict[int, int] = {}
        for way in MARK_KINDS["toe"].ways:
            at = self._at((corner, way.read[1]))  # type: ignore[arg-type]
            rows |= {n: max(at[n][-1].number, rows.get(n, 0)) for n in self.spells(corner, way.read)}  # type: ignore[arg-type]
        found = sorted(rows.items(), key=lambda row: row[1])
        return np.array([n for n, _ in found], dtype=np.int64), np.array([e for _, e in found], dtype=np.int64)

    def _toe_beside(self, corner: Corner, number: int) -> int | None:
        """Return the spell of toe that was read next to an entry; None where toe never was."""
        spells, numbers = self._toes_read(corner)
        return int(spells[_nearest(numbers, np.array([number]))[0]]) if len(spells) else None

    @remembered
    def _camber_from_upright(self, corner: Corner, spell: int, toe_spell: int | None, way: ReadBy, on_frame: bool) -> Measured:
        """Return a camber that was counted from gravity or the frame, what stands under it and the wheel's own toe taken out, degrees."""
        halved = all(self.group((corner, q), spell).is_halved for q in way.read)  # type: ignore[arg-type]
        estimate = combine([self._leaned(corner, spell, way), self._run_out(corner, "camber")], [1.0, 0.0 if halved else 1.0])
        toe = None if toe_spell is None else self.figure("toe", corner, toe_spell)
        steer, on = toe.measured.value if toe else 0.0, self._upright(on_frame)
        ups = np.vstack([on.up, on.tilted])
        value, *tilted = camber_of.camber_from_gravity_deg(estimate.value, SIDE[corner], ups, steer).tolist()
        by = [t - value for t in tilted]
        warp = self._warped[corner][0] if self.floor and not on_frame else 0.0
        # d(camber)/d(reading) is 1 to the square of the floor's slope
        return propagate(value - warp, [estimate, *on.sources], [1.0, *by])

    def _leaned(self, corner: Corner, spell: int, way: ReadBy) -> Measured:
        """Return what a camber reads against whatever is upright, degrees: a gauge's figure, or the gaps of a rim to a plumb line over its span."""
        first, *others = [self.group((corner, q), spell).estimate for q in way.read]  # type: ignore[arg-type]
        if not others:
            return first
        span = self.plan.axle_of(corner).rim_flange_diameter
        lean = -float(string.toe_against_string_deg(first.value, others[0].value, span))
        by = math.degrees(1 / (span * max(math.cos(math.radians(lean)), 1e-6)))
        known = Measured(span, {f"{END_OF[corner]} span": self.plan.ways.sure("span") / 2})
        return propagate(lean, [first, others[0], known], [-by, by, -math.degrees(math.tan(math.radians(lean))) / span])

    # ---- the steering axis ----

    def _caster(self, corner: Corner, groups: tuple[Group, ...], way: ReadBy) -> Measured:
        return self._of_axis("caster", corner, groups, way)

    def _inclination(self, corner: Corner, groups: tuple[Group, ...], way: ReadBy) -> Measured:
        return self._of_axis("inclination", corner, groups, way)

    def _of_axis(self, kind: str, corner: Corner, groups: tuple[Group, ...], way: ReadBy) -> Measured:
        """Return caster or inclination, the floor taken out: of the line between the joints, or of the axis that a sweep turned about."""
        which = 0 if kind == "caster" else 1
        if way.name == "sweep":
            return self._swept(which, corner, groups)
        other = self._axis_near("inclination" if kind == "caster" else "caster", corner)
        own = [g.estimate for g in groups]

        def angle(at: Sequence[float], up: FloatArray) -> float:
            lean = at[0] if len(own) == 1 else float(steering_axis.angle_of_offset_deg(at[0], at[1]))
            both = (lean, at[-1]) if kind == "caster" else (at[-1], lean)
            return float(steering_axis.from_gravity_deg(*both, SIDE[corner], up)[which])

        return _by_nudges(angle, [*own, other], self._upright(groups[0].rows[-1].on_frame))

    def _swept(self, which: int, corner: Corner, groups: tuple[Group, ...]) -> Measured:
        """Return caster (0) or inclination (1) of a sweep: cambers steered in and out, the angles of the plates counted from the wheel's own toe,
        and the camber straight ahead where it was read too. A caster takes the inclination from wherever it is known best."""
        spell, on_frame, side = groups[0].spell, groups[0].rows[-1].on_frame, SIDE[corner]
        near = self._toe_beside(corner, groups[0].rows[-1].number)
        toe = self.figure("toe", corner, near) if near is not None else None
        untold = Measured(aim.aim if (aim := self.plan.aim(f"{corner}.toe")) else 0.0, {f"{corner} toe untold": TOE_UNTOLD_DEG})
        ahead = [self._leaned(corner, spell, w) for w in self._ways_in("camber", corner, spell)[:1]]
        known = self._inclination_known(corner)
        run_out = self._run_out(corner, "camber")
        leans = [combine([g, run_out], [1.0, 1.0]) for g in (groups[0].estimate, groups[1].estimate, *ahead)]
        u = max(leans[0].u, 1e-6)

        def angle(at: Sequence[float], up: FloatArray) -> float:
            plate_in, plate_out, own, inclination, *cambers = at
            steer = np.array([own + plate_in, own - plate_out, own][: len(cambers)])
            leaning = camber_of.camber_from_gravity_deg(np.array(cambers), side, up, steer)
            by = None if which else steering_axis.Known(inclination, known.u)
            return float(steering_axis.axis_from_sweep(steer, leaning, by, u)[which])

        plates = [groups[2].estimate, groups[3].estimate]
        return _by_nudges(angle, [*plates, toe.measured if toe else untold, known, *leans], self._upright(on_frame))

    def _inclination_known(self, corner: Corner) -> Measured:
        """Return the inclination for a sweep, degrees: of the joints as they were read last, the floor taken out, else as :meth:`_axis_near` has it."""
        for way in MARK_KINDS["inclination"].ways:
            if way.name != "sweep" and (spells := self.spells(corner, way.read)):  # type: ignore[arg-type]
                groups = tuple(self.group((corner, q), spells[-1]) for q in way.read)  # type: ignore[arg-type]
                read = self._of_axis("inclination", corner, groups, way)
                return Measured(read.value, {**read.parts, f"{corner} inclination of the joints": JOINTS_READ_DEG})
        return self._axis_near("inclination", corner)

    def _axis_near(self, kind: str, corner: Corner) -> Measured:
        """Return caster or inclination about as it is, degrees: as the joints were read last, else as drawn, else as cars have it."""
        for way in MARK_KINDS[kind].ways:
            spells = [] if way.name == "sweep" else self.spells(corner, way.read)  # type: ignore[arg-type]
            if spells:
                first, *others = [self.group((corner, q), spells[-1]).estimate for q in way.read]  # type: ignore[arg-type]
                lean = (
                    float(steering_axis.angle_of_offset_deg(first.value, max(others[0].value, 1.0))) if others else first.value
                )
                return Measured(lean, {f"{corner} {kind} of the joints": JOINTS_READ_DEG})
        drawn = float(self.wheels.drawn[kind][CORNERS.index(corner)])
        usual, u = USUAL_AXIS[kind]
        value, u = (drawn, AXIS_BUILT_DEG) if math.isfinite(drawn) else (usual, u)
        return Measured(value, {f"{corner} {kind} untold": u})

    # ---- what is upright ----

    @remembered
    def _upright(self, on_frame: bool) -> "_Upright":
        """Return what gauges are upright by, in the axes of the plane the car stands on: gravity over the pads as read, or the frame."""
        if on_frame:
            return self._frame_upright()
        if self.floor:
            return _Upright(self.floor.up, tuple(self._pads), self._tilted)
        u = math.degrees(self.plan.ways.sure("floor") / 2)
        at = np.array([self.plan.wheel_place(c) for c in CORNERS])
        by = u / np.sqrt(((at - at.mean(axis=0)) ** 2).sum(axis=0)) if u else (0.0, 0.0)
        sources = tuple(Measured(0.0, {n: float(b)} if u else {}) for n, b in ((FLOOR_ALONG, by[0]), (FLOOR_UNTOLD, by[1])))
        sine, cosine = math.sin(math.radians(1)), math.cos(math.radians(1))
        return _Upright(camber_of.LEVEL_UP, sources, np.array([[sine, 0.0, cosine], [0.0, sine, cosine]]))

    @property
    @remembered
    def _tilted(self) -> FloatArray:
        """Gravity's upward unit vectors in the car's axes were each pad a millimetre higher, (4, 3)."""
        at, lie = [self.plan.wheel_place(c) for c in CORNERS], np.array([p.value for p in self._pads])
        return np.array([camber_of.floor_from_pads(at, lie + one).up for one in np.eye(len(CORNERS))])

    def _frame_upright(self) -> "_Upright":
        """Return the upright of the frame in the plane of the tyres, by its four heights against the drawing."""
        heights = [self.figure("height", c) for c in CORNERS]
        at = [self.plan.height_place(c) for c in CORNERS]
        aims = [self.plan.aim(f"{c}.height") for c in CORNERS]
        drawn = [p.height if p.height is not None else a.aim if a else None for p, a in zip(at, aims, strict=True)]
        if any(h is None for h in heights) or any(d is None for d in drawn):
            raise MeasuredError(finding("camber.frame-heights"), path="typed")
        figures = tuple(h.measured for h in heights if h)
        design = np.array([[1.0, p.station, p.offset] for p in at])
        lie = np.array([m.value for m in figures]) - np.array(drawn, dtype=float)

        def up(off: FloatArray) -> FloatArray:
            _, along, across = np.linalg.lstsq(design, off, rcond=None)[0]
            return np.asarray(np.array([-along, -across, 1.0]) / np.sqrt(1 + along**2 + across**2))

        return _Upright(up(lie), figures, np.array([up(lie + one) for one in np.eye(len(CORNERS))]))

    def _run_out(self, corner: Corner, kind: str) -> Measured:
        """Return what the run-out of a rim adds to a camber or a toe: nothing but its u, degrees. A dial's whole reading, the wheel standing anywhere."""
        span = self.plan.axle_of(corner).rim_flange_diameter
        u = math.degrees(self.plan.ways.sure("run_out") / math.sqrt(2) / span)
        return Measured(0.0, {f"{corner} run-out {kind}": u} if u else {})

    @property
    @remembered
    def _warped(self) -> dict[Corner, tuple[float, float]]:
        """What the warp of the pads, beside their slope, does to camber and toe of each corner through its travel, degrees."""
        assert self.floor
        try:
            camber, toe = warped(self.plan, self.springs, self.wheels, self.floor.residual)
        except ReadyCornerError:
            return dict.fromkeys(CORNERS, (0.0, 0.0))
        return {c: (float(camber[i]), float(toe[i])) for i, c in enumerate(CORNERS)}

    def _toe(self, corner: Corner, groups: tuple[Group, ...], way: ReadBy) -> Measured | None:
        if way.name == "string":
            against = self.against_string(corner, groups[0].spell)
            opening = self.opening(corner, groups[0].rows[-1].number)
        else:
            against = self._against_inside(corner, groups, way)
            rail, rig = way.name == "rail", self._rig(groups[0].rows[-1].number)
            opening = self._opening_of_rail(corner) if rail else self._opening_of_line(corner, rig)
        if opening is None:
            return None
        halved = all(g.is_halved for g in groups)
        plain = halved or way.name == "bars"  # a bar is bolted to the hub, and no rim runs out under it
        found = combine([against, opening, self._run_out(corner, "toe")], [1, -1, 0 if plain else 1])
        return Measured(found.value - self._warped[corner][1], found.parts) if self.floor else found

    @remembered
    def against_string(self, corner: Corner, spell: int) -> Measured:
        """Return toe against the string as it stands, in degrees, from front and back gap of one spell."""
        span = self.plan.axle_of(corner).rim_flange_diameter
        front, back = (self.group((corner, q), spell).estimate for q in EDGES)
        toe = float(string.toe_against_string_deg(front.value, back.value, span))
        string.require_clear_of_tyre(front.value, back.value, span, self.plan.axle_of(corner).tyre_diameter)
        by = math.degrees(1 / (span * max(math.cos(math.radians(toe)), 1e-6)))
        known = Measured(span, {f"{END_OF[corner]} span": self.plan.ways.sure("span") / 2})
        return propagate(toe, [front, back, known], [by, -by, -math.degrees(math.tan(math.radians(toe))) / span])

    def _against_inside(self, corner: Corner, groups: tuple[Group, ...], way: ReadBy) -> Measured:
        """Return toe against a line inside the wheel, degrees: a straight edge along a rail, or a line down the middle; gaps outwards, so the other way round."""
        bars = way.name == "bars"
        if bars and self.plan.ways.bar is None:
            raise MeasuredError(finding("bars.no-span"), path="ways.bar")
        span = self.plan.ways.bar if bars and self.plan.ways.bar else self.plan.axle_of(corner).rim_flange_diameter
        front, back = (g.estimate for g in groups)
        toe = -float(string.toe_against_string_deg(front.value, back.value, span))
        by = math.degrees(1 / (span * max(math.cos(math.radians(toe)), 1e-6)))
        known = Measured(span, {f"{END_OF[corner]} {'bar' if bars else 'span'}": self.plan.ways.sure("span") / 2})
        return propagate(toe, [front, back, known], [-by, by, -math.degrees(math.tan(math.radians(toe))) / span])

    @remembered
    def _opening_of_rail(self, corner: Corner) -> Measured:
        """Return how far a rail runs away from the centreline towards the front, degrees, by where it was read at its two ends; refused where it was not."""
        on: tuple[Corner, Corner] = ("LF", "LR") if SIDE[corner] > 0 else ("RF", "RR")
        places_: list[Place] = [(c, "rail") for c in on]
        rows = [self.state.latest(p) for p in places_]
        moved = self.state.spells
        if unread := tuple(p[0] for p, own in zip(places_, rows, strict=True) if not own or moved.get(p, 0) > own[-1].spell):
            raise MeasuredError(finding("rail.not-proved", corners=unread), path="typed")
        ahead, behind = (self.group(p, own[-1].spell).estimate for p, own in zip(places_, rows, strict=True))
        marks = self.plan.ways.marks
        first, second = (marks[c][0] if c in marks else self.plan.wheel_place(c)[0] for c in on)
        apart, wider = first - second, ahead.value - behind.value
        by = math.degrees(apart / (apart**2 + wider**2))
        return propagate(math.degrees(math.atan2(wider, apart)), [ahead, behind], [by, -by])

    @remembered
    def _opening_of_line(self, corner: Corner, rig: int) -> Measured:
        """Return by how much a line down the middle is turned away from the centreline, degrees, as a wheel of this side sees it: by the distances to all four
        hub bars; refused where some are wanting."""
        ends: tuple[Quantity, Quantity] = ("bar_front", "bar_back")
        found: list[list[Measured]] = []
        for c in CORNERS:
            spells = [n for n in self.spells(c, ends) if self._rig(self._at((c, ends[1]))[n][-1].number) == rig]
            found.append([self.group((c, q), spells[-1]).estimate for q in ends] if spells else [])
        if unread := tuple(c for c, own in zip(CORNERS, found, strict=True) if not own):
            raise MeasuredError(finding("bars.wanting", corners=unread), path="typed")
        lf, rf, lr, rr = ((own[0].value + own[1].value) / 2 for own in found)
        yaw = string.box_yaw_deg(lf, rf, lr, rr, self.plan.wheelbase)
        side, by = SIDE[corner], math.degrees(1 / (2 * self.plan.wheelbase * math.cos(math.radians(yaw))))
        weights = [side * way * by / 2 for way in (-1, 1, 1, -1) for _ in ends]
        sources = [m for own in found for m in own]
        return propagate(side * yaw, [*sources, *self._middles], [*weights, 2 * side * by, -2 * side * by])

    def _rig(self, number: int) -> int:
        """Return on which rig of the strings a reading was taken: how many breaks went before it."""
        return bisect_left(self.state.rig_breaks, number)

    @property
    def _against(self) -> Quantity:
        """What a string's own angle is told by: gaps to the hubs, or to marks of the frame."""
        return "gap_mark" if self.plan.ways.strings == "marks" else "gap_hub"

    @remembered
    def _hub_spells_of(self, corner: Corner) -> dict[int, int]:
        """The spell of the latest hub gap of a corner on each rig."""
        breaks = self.state.rig_breaks
        return {bisect_left(breaks, t.number): t.spell for t in self.state.taken.get((corner, self._against), ())}

    def opening(self, corner: Corner, number: int) -> Measured | None:
        """Return the opening in degrees of the string that a reading was taken from; None where the hub gaps are wanting."""
        return self._opening_on(corner, self._rig(number))

    def _opening_on(self, corner: Corner, rig: int) -> Measured | None:
        on: tuple[Corner, ...] = ("LF", "LR", "RF", "RR")
        if self.plan.ways.strings != "box":
            on = on[:2] if SIDE[corner] > 0 else on[2:]
        if self.plan.ways.strings == "marks" and not all(c in self.plan.ways.marks for c in on):
            return None
        hubs = tuple((c, n) for c in on if (n := self._hub_spells_of(c).get(rig)) is not None)
        return self._opening(SIDE[corner], hubs) if len(hubs) == len(on) else None

    @remembered
    def _opening(self, on: int, hubs: tuple[tuple[Corner, int], ...]) -> Measured:
        """Return the opening of the string on the left (1) or right (-1), degrees, by the hub gaps of these corners in these spells."""
        plan = self.plan
        gaps = [self.group((c, self._against), n).estimate for c, n in hubs]
        if plan.ways.strings == "marks":
            return self._opening_by_marks([c for c, _ in hubs], gaps)
        if plan.ways.strings == "box":
            lf, lr, rf, rr = gaps
            yaw = string.box_yaw_deg(lf.value, rf.value, lr.value, rr.value, plan.wheelbase)
            by = math.degrees(1 / (2 * plan.wheelbase * math.cos(math.radians(yaw))))
            side = -on
            parallel = Measured(0.0, {"box parallel": plan.ways.sure("box_parallel") / 2})
            sources = [lf, lr, rf, rr, parallel, *self._middles]
            # A box wider in front opens both strings; the middle of the hubs off the centreline turns it.
            return propagate(
                side * yaw, sources, [-side * by, side * by, side * by, -side * by, by, 2 * side * by, -2 * side * by]
            )
        front, rear = gaps
        found = string.string_opening(front.value, rear.value, plan.wheelbase, plan.front.half_width, plan.rear.half_width)
        tool = next((t for t in plan.toolbox if t.id == "tape"), default_tool(plan, "height"))
        taped = tool.estimate([0.0], "").u
        widths = [Measured(0.0, {f"{end} width": (taped if plan.axle(end).hub_width else UNTAPED_MM / 2) / 2}) for end in ENDS]
        half = [found.by_front_half_width, found.by_rear_half_width]
        return propagate(
            found.opening_deg,
            [front, rear, *widths, *self._middles],
            [found.by_front_gap, -found.by_front_gap, *half, *(on * b for b in half)],
        )

    def _opening_by_marks(self, corners: Sequence[Corner], gaps: Sequence[Measured]) -> Measured:
        """Return the opening of a string by its gaps to two marks of the frame, front first, whose places the plan gives, degrees."""
        (ahead, out), (behind, inner) = (self.plan.ways.marks[c] for c in corners)
        side = SIDE[corners[0]]
        found = string.string_opening(gaps[0].value, gaps[1].value, ahead - behind, side * out, side * inner)
        u = self.plan.ways.sure("mark_places") / 2
        placed = [Measured(0.0, {f"{c} mark place": u}) for c in corners]
        by = [found.by_front_gap, -found.by_front_gap, found.by_front_half_width, found.by_rear_half_width]
        return propagate(found.opening_deg, [*gaps, *placed], by)

    @property
    def _middles(self) -> list[Measured]:
        """How far the middle of the hubs of each axle may be off the centreline: nothing but its u, mm."""
        u = self.plan.ways.sure("hub_middle") / 2
        return [Measured(0.0, {f"{end} hub middle": u}) for end in ENDS]

    @property
    @remembered
    def _pads(self) -> list[Measured]:
        """The heights of the four pads, where all are read."""
        return [self.group((c, "pad"), self.state.latest((c, "pad"))[-1].spell).estimate for c in CORNERS]

    @property
    @remembered
    def floor(self) -> camber_of.Floor | None:
        """The floor from the four pads; None until all four are read, and the floor is then taken as level."""
        groups = [self.state.latest((corner, "pad")) for corner in CORNERS]
        if not all(groups):
            return None
        heights = [p.value for p in self._pads]
        return camber_of.floor_from_pads([self.plan.wheel_place(c) for c in CORNERS], heights)

    @remembered
    def by_plates(self, end: End) -> Figure | None:
        """Return the total toe of an axle as it was read last by plates and a tape across them; None where it never was, or cannot be made of that."""
        corner: Corner = "LF" if end == "front" else "LR"
        way = MARK_KINDS["total_toe"].ways[1]
        spells = self.spells(corner, way.read)  # type: ignore[arg-type]
        if not spells:
            return None
        groups = tuple(self.group((corner, q), spells[-1]) for q in way.read)  # type: ignore[arg-type]
        span = Measured(self.plan.ways.plates or 0.0, {"plates span": self.plan.ways.sure("span") / 2})
        toes = [a.aim if (a := self.plan.aim(f"{c}.toe")) else 0.0 for c in CORNERS if END_OF[c] == end]

        def total(at: Sequence[float], _: FloatArray) -> float:
            return float(string.total_toe_from_plates_deg(at[0], at[1], at[2], toes[0] - toes[1]))

        rims = [self._run_out(c, "toe") for c in CORNERS if END_OF[c] == end]
        level = _Upright(camber_of.LEVEL_UP, (), np.zeros((0, 3)))
        try:
            found = _by_nudges(total, [groups[0].estimate, groups[1].estimate, span], level)
        except MeasuredError:
            return None
        return Figure(combine([found, *rims], [1.0, *[1.0] * len(rims)]), groups, (way,))

    def whole(self, mark: str) -> tuple[tuple[str, float], ...]:
        """Return which corner marks a whole-car mark is made of, with the weight of each at the present figures."""
        place, kind = mark.split(".")
        if plain := (MARK_KINDS[kind].sums or {}).get(place):
            return plain
        if kind == "cross_weight":
            loads = [f.measured.value if (f := self.figure("load", c)) else 1.0 for c in CORNERS]
            total = max(sum(loads), 1e-9)
            share = (loads[1] + loads[2]) / total
            return tuple((f"{c}.load", 100 * (w - share) / total) for c, w in zip(CORNERS, (0.0, 1.0, 1.0, 0.0), strict=True))
        heights = [self.figure("height", c) for c in CORNERS]
        front = sum(h.measured.value for h in heights[:2] if h) / 2
        rear = sum(h.measured.value for h in heights[2:] if h) / 2
        by = math.degrees(self.between_heights / (self.between_heights**2 + (rear - front) ** 2)) / 2
        return tuple((f"{c}.height", by if END_OF[c] == "rear" else -by) for c in CORNERS)

    @property
    @remembered
    def between_heights(self) -> float:
        """Distance in mm between the stations at which front and rear heights are read, each the middle of its two."""
        at = {c: self.plan.height_place(c).station for c in CORNERS}
        return max((at["LF"] + at["RF"] - at["LR"] - at["RR"]) / 2, 1.0)

    def whole_value(self, mark: str) -> Measured | None:
        """Return the value of a whole-car mark with its uncertainty; None until all it is made of is read."""
        parts = [(self.figure(name.split(".")[1], name.split(".")[0]), weight) for name, weight in self.whole(mark)]  # type: ignore[arg-type]
        if any(f is None for f, _ in parts):
            return None
        figures, weights = [f.measured for f, _ in parts if f], [w for _, w in parts]
        plain = combine(figures, weights)
        if mark not in ("car.rake", "car.cross_weight"):
            return plain
        lf, rf, lr, rr = (f.value for f in figures)
        if mark == "car.cross_weight":
            if not lf + rf + lr + rr > 0:  # scales that carry nothing share nothing
                return None
            return Measured(100 * cross_share(lf, rf, lr, rr), plain.parts)
        return Measured(rake_deg((lf + rf) / 2, (lr + rr) / 2, self.between_heights), plain.parts)
