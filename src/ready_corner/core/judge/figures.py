"""The figures of a car from its readings, each with the uncertainty of what it came from.

A figure belongs to a spell: the repeats at its places between two changes. Toe needs front and back gap of the same spell, and
the hub gaps of the same rig of the strings.

Source: JCGM 100:2008, 5.1.2, over the geometry of gaps, gauges and pads; docs/choices.md (Figures, Uncertainty).
"""

import math
from collections.abc import Sequence

import numpy as np

from ready_corner.core.engines.alignment import camber as camber_of
from ready_corner.core.engines.alignment import string
from ready_corner.core.judge.ground import Ground
from ready_corner.core.judge.hubs import Hubs
from ready_corner.core.judge.leans import LEANING, Leans, Upright, by_nudges
from ready_corner.core.judge.memory import Memory, remembered
from ready_corner.core.judge.read import (
    EVERY_PLACE,
    Figure,
    FloatArray,
    Group,
    IntArray,
    OfState,
    Read,
    Seen,
    columns,
    joined,
    nearest,
)
from ready_corner.core.judge.strings import Strings, run_out
from ready_corner.core.model.heights import cross_share, rake_deg
from ready_corner.core.plan.corners import CORNERS, END_OF, SIDE, Corner, End
from ready_corner.core.plan.marks import MARK_KINDS, ReadBy
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.measured import Measured, combine

STRETCH = 24  # spells whose figures are kept together


def _of_rest(row: FloatArray) -> dict[str, float]:
    """Return what the friction of each corner puts into a figure, by corner."""
    return {f"{c} rest": float(u) for c, u in zip(CORNERS, row, strict=True) if u}


class Figures(OfState):
    """All figures of one state of a car: ``read`` what was read, ``ground`` what it stands on, ``strings`` lines toe is read against, ``hubs`` where the
    hubs stood meanwhile."""

    def __init__(self, memory: Memory) -> None:
        super().__init__(memory)
        self.read = Read(memory)
        self.ground = Ground(self.read)
        self.hubs = Hubs(self.ground)
        self.strings = Strings(self.read, self.hubs.beside)

    def figure(self, kind: str, corner: Corner, spell: int | None = None) -> Figure | None:
        """Return height (mm), an angle (degrees), or load (kg) of a corner in a spell, the latest where None; None where not all is read."""
        if spell is None:
            spells = self.read.spells_of(kind, corner)
            if not spells:
                return None
            spell = spells[-1]
        try:
            return self._figure(kind, corner, spell, self.read.ways_in(kind, corner, spell))
        except MeasuredError:
            return None

    def refusal(self, kind: str, corner: Corner) -> MeasuredError | None:
        """Return why a figure cannot be made of what was read last; None where it can, or nothing was read."""
        if spells := self.read.spells_of(kind, corner):
            try:
                self._figure(kind, corner, spells[-1], self.read.ways_in(kind, corner, spells[-1]))
            except MeasuredError as refusal:
                return refusal
        return None

    @remembered
    def _figure(self, kind: str, corner: Corner, spell: int, ways: tuple[ReadBy, ...]) -> Figure | None:
        """Return a figure in a spell by all the ways in which it was read in it; what one of them cannot tell the others may."""
        made: list[Figure] = []
        refused: MeasuredError | None = None
        for way in ways:
            groups = tuple(self.read.group((corner, q), spell) for q in way.read)  # type: ignore[arg-type]
            try:
                measured = self._made(kind, corner, groups, way)
            except MeasuredError as error:
                refused = error
                continue
            if measured is not None:
                made.append(Figure(measured, groups, (way,)))
        if refused and not made:
            raise refused
        return joined(f"{corner}.{kind}", made) if made else None

    def _made(self, kind: str, corner: Corner, groups: tuple[Group, ...], way: ReadBy) -> Measured | None:
        if kind in LEANING:
            return Leans(self.ground, self.figure).made(kind, corner, groups, way)
        own = {"height": self._height, "load": self._load, "toe": self._toe}.get(kind)
        return own(corner, groups, way) if own else groups[0].estimate

    @remembered
    def seen(self, kind: str, corner: Corner) -> Seen:
        """Return what a figure was in every spell in which it can be made, oldest first: as :meth:`figure` makes it, all in one go."""
        if MARK_KINDS[kind].only_aimed or any(self.read.spells(corner, w.read) for w in MARK_KINDS[kind].ways[1:]):  # type: ignore[arg-type]
            return columns(
                [
                    self._row(kind, corner, f, n)
                    for n in self.read.spells_of(kind, corner)
                    if (f := self.figure(kind, corner, n))
                ]
            )
        found = self._bare(kind, corner)
        if kind in ("height", "load"):
            i, lie = CORNERS.index(corner), np.array([r.value for r in self.ground.under.rises])
            more = (
                self.ground.under.heights[i] @ lie
                if kind == "height"
                else self.ground.under.loads[i] @ lie + self.ground.under.tilt[i]
            )
            return found._replace(value=found.value + float(more))
        if kind == "toe":
            return self._off_string(corner, found)
        if kind != "camber" or not len(found.value):
            return found
        if not self.ground.floor or found.on_frame.any():
            return self._each_camber(corner, found)
        steer = self._steer(corner, found.number)
        try:
            values = camber_of.camber_from_gravity_deg(found.value, SIDE[corner], self.ground.floor.up, steer)
        except MeasuredError:  # one of them is given by no wheel on such a floor: the others are told all the same
            return self._each_camber(corner, found)
        return found._replace(value=np.atleast_1d(values) - self.ground.warped[corner][0])

    def _each_camber(self, corner: Corner, found: Seen) -> Seen:
        """Return cambers each made by itself, without those that cannot be made."""
        own = [self.figure("camber", corner, spell) for spell in found.spell.tolist()]
        made = found.only(np.array([f is not None for f in own]))
        return made._replace(value=np.array([f.measured.value for f in own if f], dtype=np.float64))

    def _off_string(self, corner: Corner, found: Seen) -> Seen:
        """Return toe against the string with the string's own opening, and the warp of the pads, taken out; without what has no opening."""
        rigs = np.searchsorted(np.array(self.state.rig_breaks, dtype=np.int64), found.number)
        opened = {rig: on.value for rig in np.unique(rigs).tolist() if (on := self._opening_on(corner, rig)) is not None}
        by = np.array([opened.get(rig, np.nan) for rig in rigs.tolist()], dtype=np.float64)
        warp = self.ground.warped[corner][1] if self.ground.floor else 0.0
        return found._replace(value=found.value - by - warp).only(~np.isnan(by))

    def _opening_on(self, corner: Corner, rig: int) -> Measured | None:
        """Return the opening of a string on a rig; None where its gaps are wanting, or are those of no string along the car."""
        try:
            return self.strings.opening_on(corner, rig)
        except MeasuredError:
            return None

    def _steer(self, corner: Corner, numbers: IntArray) -> FloatArray:
        """Return the toe that was read next to each of some entries, degrees; 0 where it cannot be told."""
        read, toes = self.read.toes_read(corner), self.seen("toe", corner)
        if not len(read[0]) or not len(toes.spell):
            return np.zeros(len(numbers))
        beside = read[0][nearest(read[1], numbers)]
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
        spells = self.read.spells(corner, MARK_KINDS[kind].read)  # type: ignore[arg-type]
        parts = [self._stretch(kind, corner, *spells[i : i + STRETCH]) for i in range(0, len(spells), STRETCH)]
        return Seen._make(map(np.concatenate, zip(*parts, strict=True))) if parts else columns(())

    @remembered
    def _stretch(self, kind: str, corner: Corner, *spells: int) -> Seen:
        """Return the same of a stretch of spells, which a reading in another leaves as it is."""
        return columns([row for spell in spells if (row := self._own(kind, corner, spell)) is not None])

    def _own(self, kind: str, corner: Corner, spell: int) -> tuple[int, float, float, int, bool] | None:
        groups = [self.read.group((corner, q), spell) for q in MARK_KINDS[kind].read]  # type: ignore[arg-type]
        try:
            bare = self.strings.against_string(corner, spell) if kind == "toe" else groups[0].estimate
        except MeasuredError:
            return None
        own = {name for g in groups for name in g.estimate.parts if not name.endswith(" zero")}
        u = Measured(0.0, {n: part for n, part in bare.parts.items() if n in own}).u
        if kind in ("height", "load"):  # it comes to rest anew for every spell
            u = math.hypot(u, *self.ground.rest[kind == "load"][CORNERS.index(corner)])
        return spell, bare.value, u, max(g.rows[-1].number for g in groups), groups[0].rows[-1].on_frame

    def _height(self, corner: Corner, groups: tuple[Group, ...], _: ReadBy) -> Measured:
        by, i = self.ground.under, CORNERS.index(corner)
        rest = Measured(0.0, _of_rest(self.ground.rest[0][i]))
        return combine([groups[0].estimate, rest, *by.rises], [1.0, 1.0, *map(float, by.heights[i])])

    def _load(self, corner: Corner, groups: tuple[Group, ...], _: ReadBy) -> Measured:
        by = self.ground.under
        i = CORNERS.index(corner)
        rest = Measured(0.0, _of_rest(self.ground.rest[1][i]))
        return combine([groups[0].estimate, rest, *by.rises], [1.0, 1.0, *map(float, by.loads[i])], float(by.tilt[i]))

    def _toe(self, corner: Corner, groups: tuple[Group, ...], way: ReadBy) -> Measured | None:
        if way.name == "string":
            against = self.strings.against_string(corner, groups[0].spell)
            opening = self.strings.opening(corner, groups[0].rows[-1].number)
        else:
            against = self.strings.against_inside(corner, groups, way)
            rail, rig = way.name == "rail", self.strings.rig(groups[0].rows[-1].number)
            opening = self.strings.opening_of_rail(corner) if rail else self.strings.opening_of_line(corner, rig)
        if opening is None:
            return None
        # a bar is bolted to the hub, and no rim runs out under it
        rim = 0.0 if way.name == "bars" else max(g.rim_left for g in groups)
        found = combine([against, opening, run_out(self.plan, corner, "toe")], [1, -1, rim])
        return Measured(found.value - self.ground.warped[corner][1], found.parts) if self.ground.floor else found

    def hub_left(self, corner: Corner, figure: Figure, least: float | None = None) -> tuple[Corner, float, float] | None:
        """Return the hub that tells the line a toe was read against and has been taken furthest from where its gap was read, with how far outwards and to what U, mm;
        None where none was taken so far (``least`` mm) that its gap is to be read again, or another way tells the toe too."""
        if any(way.name not in ("string", "bars") for way in figure.ways):
            return None
        at = [(c, n) for way in figure.ways for c, n in self.strings.hubs_read(corner, figure.number, way)]
        return self.hubs.left([c for c, _ in at], min((n for _, n in at), default=0), least)

    def by_plates(self, end: End) -> Figure | None:
        """Return the total toe of an axle as it was read last by plates and a tape across them; None where it never was, or cannot be made of that."""
        try:
            return self._by_plates(end)
        except MeasuredError:
            return None

    def plates_refused(self, end: End) -> MeasuredError | None:
        """Return why the total toe of an axle cannot be made of what was read by plates; None where it can, or nothing was."""
        try:
            self._by_plates(end)
        except MeasuredError as refusal:
            return refusal
        return None

    @remembered
    def _by_plates(self, end: End) -> Figure | None:
        corner: Corner = "LF" if end == "front" else "LR"
        way = MARK_KINDS["total_toe"].ways[1]
        spells = self.read.spells(corner, way.read)  # type: ignore[arg-type]
        if not spells:
            return None
        groups = tuple(self.read.group((corner, q), spells[-1]) for q in way.read)  # type: ignore[arg-type]
        if self.plan.ways.plates is None:
            raise MeasuredError(finding("plates.no-span"), path="ways.plates")
        span = Measured(self.plan.ways.plates, {"plates span": self.plan.ways.sure("span") / 2})
        toes = [a.aim if (a := self.plan.aim(f"{c}.toe")) else 0.0 for c in CORNERS if END_OF[c] == end]

        def total(at: Sequence[float], _: FloatArray) -> float:
            return float(string.total_toe_from_plates_deg(at[0], at[1], at[2], toes[0] - toes[1]))

        rims = [run_out(self.plan, c, "toe") for c in CORNERS if END_OF[c] == end]
        level = Upright(camber_of.LEVEL_UP, (), np.zeros((0, 3)))
        found = by_nudges(total, [groups[0].estimate, groups[1].estimate, span], level)
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
