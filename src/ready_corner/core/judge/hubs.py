"""Where the hubs stood when a gap to them was read: off the half widths of the plan by what was turned since, and what is to be turned yet.

The half widths are those of the car as it is to be. One that is mis-set by two degrees of camber has its hubs millimetres beside them, and whoever takes a
string's opening from them is out by a tenth of a degree. What a turn takes a hub outwards the linkage tells; so a gap that was read on the mis-set car is
worth the more, the more of it was turned since.

Source: linkage and springs together (judge.reach); ridge least squares of what is to be turned yet, JCGM 100:2008, 5.1.2, for its u; docs/choices.md.
"""

import math
from collections.abc import Sequence

import numpy as np

from ready_corner.core.engines.learning import WorthOfTurns
from ready_corner.core.judge.ground import Ground
from ready_corner.core.judge.leans import LEANING, Leans
from ready_corner.core.judge.memory import remembered
from ready_corner.core.judge.read import Figure, OfState
from ready_corner.core.plan.corners import CORNERS, END_OF, SIDE, Corner, End
from ready_corner.core.plan.marks import MARK_KINDS
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.measured import COVERAGE, Measured
from ready_corner.core.quantities.verdict import SPOILS

HUB_SET = "hub set"  # ends the name of that part of an u
SETS = ("camber", "caster", "height")  # what is turned for that takes hubs along
# How far a car is off that nobody has read: standard uncertainties, degrees and mm.
UNREAD = {"camber": 1.0, "caster": 0.8, "height": 7.0}
FURTHEST_MM = 12.0  # that a hub is beside its place on a car that is mis-set
HUB_LEFT_MM = 1.0  # the least that is asked about
# By which share what is to be turned yet will be something else; tolerances squared that a turn must be worth.
YET_TRUSTED, LEAST_YET = 0.3, 0.02


class Hubs(OfState):
    """How far the middle of each wheel was beside its place in the plan, mm outwards."""

    def __init__(self, ground: Ground) -> None:
        super().__init__(ground.memory)
        self.read, self.ground = ground.read, ground
        self._leans = Leans(ground, _untold, "whatever the toe")

    @remembered
    def beside(self, corner: Corner, number: int) -> Measured:
        """Return how far a hub was off its half width at an entry, mm outwards, with what that is not known by beside the half width itself.

        Where the width over the hubs was taped, before anything was turned, both together are off by what was turned from then on.
        """
        own = self._left(corner, number)
        end = END_OF[corner]
        if self.plan.axle(end).hub_width is None:
            return Measured(own[0], _parts(corner, own[1]))
        pair = [c for c in CORNERS if END_OF[c] == end]
        first, second = (self._left(c, number) for c in pair)
        apart = (first[0] - second[0]) / 2 * (1 if corner == pair[0] else -1)
        since = [self._turned(c, 0, number) for c in pair]
        wider, u = sum(s[0] for s in since) / 2, math.hypot(*(s[1] for s in since)) / 2
        both = SIDE[corner] * math.hypot(first[1], second[1]) / 2
        return Measured(apart + wider, {**_parts(end, both), **({f"{end} hubs turned": u} if u else {})})

    def left(self, line: Sequence[Corner], number: int, least: float | None = None) -> tuple[Corner, float, float] | None:
        """Return which hub of a line was taken furthest since an entry, how far outwards and to what U, mm; None where none was, give or take U, so far that the gaps to that
        line are to be read again: all of them, since they belong together."""
        moved = [(c, *self._turned(c, number, None)) for c in line]
        far = max(moved, key=lambda row: max(abs(row[1]), COVERAGE * row[2]), default=None)
        if far is None or max(abs(far[1]), COVERAGE * far[2]) <= (self._least_left if least is None else least):
            return None
        return far[0], far[1], COVERAGE * far[2]

    @property
    @remembered
    def _least_left(self) -> float:
        """How far a hub may be taken from where its gap was read before that is to be read again, mm: as turns a string by a quarter of the tolerance of a toe."""
        narrow = min((a.tolerance for a in self.plan.aims_now if a.mark.endswith(("toe", "thrust"))), default=0.0)
        return max(HUB_LEFT_MM, self.plan.wheelbase * math.radians(SPOILS * narrow))

    def _left(self, corner: Corner, number: int) -> tuple[float, float]:
        """Return how far a hub was off at an entry by all that was turned since and is to be turned yet, mm outwards, and its standard uncertainty."""
        since, yet = self._turned(corner, number, None), self._yet(corner)
        return -since[0] - yet[0], min(math.hypot(since[1], yet[1]), FURTHEST_MM / 2)

    def _turned(self, corner: Corner, after: int, until: int | None) -> tuple[float, float]:
        """Return how far what was turned between two entries took a hub outwards, mm, and its standard uncertainty."""
        worth = self.ground.reach.hubs.get(corner)
        if worth is None:
            return 0.0, 0.0
        return _summed(worth, self.read.turned.between(after, until))

    @remembered
    def _yet(self, corner: Corner) -> tuple[float, float]:
        """Return how far a hub will go outwards by what is to be turned yet for camber, caster and height of its corner, mm, and its standard uncertainty."""
        hub, reach = self.ground.reach.hubs.get(corner), self.ground.reach.marks
        own = [a for a in self.plan.adjusters if a.corner == corner and a.id in (hub.adjusters if hub else ())]
        aims = [a for kind in SETS if (a := self.plan.aim(f"{corner}.{kind}")) and corner in MARK_KINDS[kind].corners]
        if hub is None or not own or not aims:
            return 0.0, 0.0
        # Heights are brought in by what raises the corner, angles by links.
        by = np.array(
            [
                [
                    (reach[a.mark].of(j.id) or 0.0) * (j.raises == a.mark.endswith("height")) if a.mark in reach else 0.0
                    for j in own
                ]
                for a in aims
            ]
        )
        to = np.array([hub.of(j.id) or 0.0 for j in own])
        scale = np.array([a.tolerance for a in aims])
        w = by / scale[:, None]
        # Turns for a unit of every miss: the least that bring it in.
        turns = np.linalg.solve(w.T @ w + LEAST_YET * np.eye(len(own)), w.T) / scale
        miss, u = zip(*(self._miss(a.mark.split(".")[1], corner, a.aim) for a in aims), strict=True)
        each = to * (turns @ np.array(miss))
        unsure = np.array([hub.u(j.id) for j in own])
        doubt = np.concatenate([YET_TRUSTED * each, (to @ turns) * np.array(u), unsure * (turns @ np.array(miss))])
        yet, sure = float(each.sum()), float(np.linalg.norm(doubt))
        # Where it would be more than any wheel goes, nothing is known but that.
        return (yet, min(sure, FURTHEST_MM / 2)) if abs(yet) <= FURTHEST_MM else (0.0, FURTHEST_MM / 2)

    def _miss(self, kind: str, corner: Corner, aim: float) -> tuple[float, float]:
        """Return by how much a mark is still to be moved, and its standard uncertainty: as read last, less what was turned since by the plan."""
        found = self._about(kind, corner)
        if found is None:
            return 0.0, UNREAD[kind]
        value, number = found
        worth = self.ground.reach.marks.get(f"{corner}.{kind}")
        if worth is not None:
            value += _summed(worth, self.read.turned.between(number, None))[0]
        return aim - value, 0.0

    @remembered
    def _about(self, kind: str, corner: Corner) -> tuple[float, int] | None:
        """Return about what a mark was when it was read last, whatever the toe was, and the entry; None where it never was."""
        spells = self.read.spells_of(kind, corner)
        if not spells:
            return None
        for way in self.read.ways_in(kind, corner, spells[-1]):
            groups = tuple(self.read.group((corner, q), spells[-1]) for q in way.read)  # type: ignore[arg-type]
            try:
                made = self._leans.made(kind, corner, groups, way) if kind in LEANING else groups[0].estimate
            except MeasuredError:
                continue
            return made.value, max(g.rows[-1].number for g in groups)
        return None


def _untold(*_: object) -> Figure | None:
    """No figure: what is made of a reading must not hang on the toe that it is wanted for."""
    return None


def _parts(of: Corner | End, u: float) -> dict[str, float]:
    return {f"{of} {HUB_SET}": u} if u else {}


def _summed(worth: WorthOfTurns, net: dict[str, float]) -> tuple[float, float]:
    names = [n for n in net if n in worth.adjusters]
    amounts = np.array([net[n] for n in names])
    u2 = float(amounts @ worth.covariance_of(names) @ amounts) if names else 0.0
    return sum((worth.of(n) or 0.0) * net[n] for n in names), math.sqrt(max(u2, 0.0))
