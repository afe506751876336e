"""Toe against a line, and the line's own angle: strings, a straight edge on a rail, hub bars and a line down the middle.

Source: JCGM 100:2008, 5.1.2, over the geometry of gaps; docs/choices.md (Figures, Uncertainty).
"""

import math
from bisect import bisect_left
from collections.abc import Callable, Sequence

from ready_corner.core.engines.alignment import string
from ready_corner.core.judge.memory import remembered
from ready_corner.core.judge.read import EDGES, Group, OfState, Read, default_tool
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, SIDE, Corner
from ready_corner.core.plan.marks import ReadBy
from ready_corner.core.plan.plan import UNTAPED_MM, Plan
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.measured import KNOWN_AS_U, Measured, propagate
from ready_corner.core.record.readings import Place, Quantity

HUBS_OFF = "hubs off"  # a part of an u with a sign: by how much an angle is known to be out, times KNOWN_AS_U


def run_out(plan: Plan, corner: Corner, kind: str) -> Measured:
    """Return what the run-out of a rim adds to a camber or a toe: nothing but its u, degrees. A dial's whole reading, the wheel standing anywhere."""
    span = plan.axle_of(corner).rim_flange_diameter
    u = math.degrees(plan.ways.sure("run_out") / math.sqrt(2) / span)
    return Measured(0.0, {f"{corner} run-out {kind}": u} if u else {})


def _aside(opening: Measured, off: Sequence[Measured], by: Sequence[float]) -> Measured:
    """Return an opening with what it is known to be out by, since hubs were not where the plan has them: it stays as the half widths give it, and is that much less sure."""
    out = sum(o.value * b for o, b in zip(off, by, strict=True))
    return Measured(opening.value, {**opening.parts, HUBS_OFF: KNOWN_AS_U * out}) if out else opening


class Strings(OfState):
    """What was read against lines, degrees. ``beside``: how far a hub was off its half width at an entry, mm outwards."""

    def __init__(self, read: Read, beside: Callable[[Corner, int], Measured]) -> None:
        super().__init__(read.memory)
        self.read, self._beside = read, beside

    @remembered
    def against_string(self, corner: Corner, spell: int) -> Measured:
        """Return toe against the string as it stands, in degrees, from front and back gap of one spell."""
        span = self.plan.axle_of(corner).rim_flange_diameter
        front, back = (self.read.group((corner, q), spell).estimate for q in EDGES)
        toe = float(string.toe_against_string_deg(front.value, back.value, span))
        string.require_clear_of_tyre(front.value, back.value, span, self.plan.axle_of(corner).tyre_diameter)
        by = math.degrees(1 / (span * max(math.cos(math.radians(toe)), 1e-6)))
        known = Measured(span, {f"{END_OF[corner]} span": self.plan.ways.sure("span") / 2})
        return propagate(toe, [front, back, known], [by, -by, -math.degrees(math.tan(math.radians(toe))) / span])

    def against_inside(self, corner: Corner, groups: tuple[Group, ...], way: ReadBy) -> Measured:
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
    def opening_of_rail(self, corner: Corner) -> Measured:
        """Return how far a rail runs away from the centreline towards the front, degrees, by where it was read at its two ends; refused where it was not."""
        on: tuple[Corner, Corner] = ("LF", "LR") if SIDE[corner] > 0 else ("RF", "RR")
        places_: list[Place] = [(c, "rail") for c in on]
        rows = [self.state.latest(p) for p in places_]
        moved = self.state.spells
        if unread := tuple(p[0] for p, own in zip(places_, rows, strict=True) if not own or moved.get(p, 0) > own[-1].spell):
            raise MeasuredError(finding("rail.not-proved", corners=unread), path="typed")
        ahead, behind = (self.read.group(p, own[-1].spell).estimate for p, own in zip(places_, rows, strict=True))
        marks = self.plan.ways.marks
        first, second = (marks[c][0] if c in marks else self.plan.wheel_place(c)[0] for c in on)
        apart, wider = first - second, ahead.value - behind.value
        by = math.degrees(apart / (apart**2 + wider**2))
        return propagate(math.degrees(math.atan2(wider, apart)), [ahead, behind], [by, -by])

    @remembered
    def opening_of_line(self, corner: Corner, rig: int) -> Measured:
        """Return by how much a line down the middle is turned away from the centreline, degrees, as a wheel of this side sees it: by the distances to all four
        hub bars; refused where some are wanting."""
        ends: tuple[Quantity, Quantity] = ("bar_front", "bar_back")
        found: list[list[Measured]] = []
        for c in CORNERS:
            spells = [n for n in self.read.spells(c, ends) if self.rig(self.read.at((c, ends[1]))[n][-1].number) == rig]
            found.append([self.read.group((c, q), spells[-1]).estimate for q in ends] if spells else [])
        if unread := tuple(c for c, own in zip(CORNERS, found, strict=True) if not own):
            raise MeasuredError(finding("bars.wanting", corners=unread), path="typed")
        off = [self._beside(c, self._number((c, ends[1]), rig)) for c in CORNERS]
        lf, rf, lr, rr = ((own[0].value + own[1].value) / 2 for own in found)
        yaw = string.box_yaw_deg(lf, rf, lr, rr, self.plan.wheelbase)
        side, by = SIDE[corner], math.degrees(1 / (2 * self.plan.wheelbase * math.cos(math.radians(yaw))))
        each = [side * way * by for way in (-1, 1, 1, -1)]
        sources = [m for own in found for m in own]
        weights = [*(w / 2 for w in each for _ in ends), *(-w for w in each), 2 * side * by, -2 * side * by]
        return _aside(propagate(side * yaw, [*sources, *off, *self._middles], weights), off, [-w for w in each])

    def _number(self, place: Place, rig: int) -> int:
        """Return the entry at which a place was read last on a rig."""
        return next((t.number for t in reversed(self.state.taken[place]) if self.rig(t.number) == rig), 0)

    def rig(self, number: int) -> int:
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
        return self.opening_on(corner, self.rig(number))

    def opening_on(self, corner: Corner, rig: int) -> Measured | None:
        """Return the same of a rig."""
        on: tuple[Corner, ...] = ("LF", "LR", "RF", "RR")
        if self.plan.ways.strings != "box":
            on = on[:2] if SIDE[corner] > 0 else on[2:]
        if self.plan.ways.strings == "marks" and not all(c in self.plan.ways.marks for c in on):
            return None
        hubs = tuple((c, n) for c in on if (n := self._hub_spells_of(c).get(rig)) is not None)
        return self._opening(SIDE[corner], hubs) if len(hubs) == len(on) else None

    def hubs_read(self, corner: Corner, number: int, way: ReadBy) -> list[tuple[Corner, int]]:
        """Return the hubs whose gaps tell the line that a toe was read against, each with the entry at which its gap was read last on that rig."""
        rig, bars = self.rig(number), way.name == "bars"
        on = CORNERS if bars else self.line(corner)
        return [(c, self._number((c, "bar_back" if bars else self._against), rig)) for c in on]

    def line(self, corner: Corner) -> tuple[Corner, ...]:
        """Return the hubs whose gaps tell the string at a corner; none where marks of the frame do."""
        if self.plan.ways.strings == "marks":
            return ()
        return CORNERS if self.plan.ways.strings == "box" else tuple(c for c in CORNERS if SIDE[c] == SIDE[corner])

    @remembered
    def _opening(self, on: int, hubs: tuple[tuple[Corner, int], ...]) -> Measured:
        """Return the opening of the string on the left (1) or right (-1), degrees, by the hub gaps of these corners in these spells."""
        plan = self.plan
        gaps = [self.read.group((c, self._against), n).estimate for c, n in hubs]
        if plan.ways.strings == "marks":
            return self._opening_by_marks([c for c, _ in hubs], gaps)
        off = [self._beside(c, self.read.group((c, self._against), n).rows[-1].number) for c, n in hubs]
        if plan.ways.strings == "box":
            lf, lr, rf, rr = (gap.value for gap in gaps)
            yaw = string.box_yaw_deg(lf, rf, lr, rr, plan.wheelbase)
            by = math.degrees(1 / (2 * plan.wheelbase * math.cos(math.radians(yaw))))
            side = -on
            parallel = Measured(0.0, {"box parallel": plan.ways.sure("box_parallel") / 2})
            each = [-side * by, side * by, side * by, -side * by]
            # A box wider in front opens both strings; the middle of the hubs off the centreline turns it.
            weights = [*each, *each, by, 2 * side * by, -2 * side * by]
            return _aside(propagate(side * yaw, [*gaps, *off, parallel, *self._middles], weights), off, each)
        front, rear = (gap.value for gap in gaps)
        found = string.string_opening(front, rear, plan.wheelbase, plan.front.half_width, plan.rear.half_width)
        tool = next((t for t in plan.toolbox if t.id == "tape"), default_tool(plan, "height"))
        taped = tool.estimate([0.0], "").u
        widths = [Measured(0.0, {f"{end} width": (taped if plan.axle(end).hub_width else UNTAPED_MM / 2) / 2}) for end in ENDS]
        half = [found.by_front_half_width, found.by_rear_half_width]
        each = [found.by_front_gap, -found.by_front_gap]
        opening = propagate(
            found.opening_deg,
            [*gaps, *off, *widths, *self._middles],
            [*each, *each, *half, *(on * b for b in half)],
        )
        return _aside(opening, off, each)

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
        return [Measured(0.0, {f"{end} hub middle": self.plan.middle_of_hubs(end) / 2}) for end in ENDS]
