"""What a revision of the plan measured anew, lets go, and makes *moved since*."""

from collections.abc import Sequence

from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS
from ready_corner.core.plan.plan import Gone, Linkage, Plan, places_of
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.record.moves import Move, places
from ready_corner.core.record.readings import MOVED_BY, Place


def revised(before: Plan, after: Plan, number: int, moved: dict[str, float], spells: dict[Place, int]) -> list[Move]:
    """Count anew what a revision measured anew, and return what it makes *moved since*."""
    for adjuster in after.adjusters:
        known = next((a for a in before.adjusters if a.id == adjuster.id), None)
        if known is None or known.by != adjuster.by:
            moved[adjuster.id] = 0.0
    rows = [Move(number, "", 0.0, places, said, unknown=True) for places, said in spoilt_by(before, after)]
    count(spells, rows)
    return rows


def gone_after(gone: Gone, before: Plan, after: Plan) -> Gone:
    """Return what is not planned any more after a revision; what is named again is planned again."""
    planned, tools = places_of(after), {t.id for t in after.toolbox}
    points = {**gone.points, **places_of(before)}
    known = {**gone.tools, **{t.id: t for t in before.toolbox}}
    return Gone({n: p for n, p in points.items() if n not in planned}, {i: t for i, t in known.items() if i not in tools})


def count(spells: dict[Place, int], moves: Sequence[Move]) -> None:
    """Begin a new spell at every place that was moved."""
    for place in (p for move in moves for p in move.moves):
        spells[place] = spells.get(place, 0) + 1


def _held(linkage: Linkage) -> tuple[object, ...]:
    springs = [(s.name, s.ends, s.rate, s.free, s.helper, s.seat) for s in linkage.springs]
    return linkage.layout, linkage.lengths, springs


def spoilt_by(before: Plan, after: Plan) -> list[tuple[frozenset[Place], Finding]]:
    """Return what a revision makes *moved since*, with the reason: heights read at another place now, and corners whose linkage is made anew.

    A point that was not given before, and everything that only judges or reckons (aims, tracks, spans), moves nothing.
    """
    rows: list[tuple[frozenset[Place], Finding]] = []
    for corner in CORNERS:
        was, now = before.height_place(corner), after.height_place(corner)
        named = any(p.corner == corner for p in before.heights)
        if named and (was.name, was.station, was.offset) != (now.name, now.station, now.offset):
            rows.append((places(("height",), (corner,)), finding("move.height-place", at=now.name)))
    for end in ENDS:
        corners = [c for c in CORNERS if END_OF[c] == end]
        held, holds = before.linkage(end), after.linkage(end)
        if held and holds and _held(held) != _held(holds):
            rows.append((places(MOVED_BY["weld"], corners), finding("move.linkage", end=end)))
            continue
        for corner in corners:
            own = [corner, end, *(["L" + corner[1]] if holds and holds.mirrored else [])]
            moved = [
                n for n, p in after.points.items() if n in before.points and before.points[n] != p and n.split(".")[0] in own
            ]
            if moved:
                rows.append((places(MOVED_BY["weld"], (corner,)), finding("move.points", point=moved[0], more=len(moved) - 1)))
    return rows
