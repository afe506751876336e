"""What a revision of the plan changed, in words."""

import math
from collections.abc import Iterable, Iterator

from ready_corner.core.plan.aims import say_wanted
from ready_corner.core.plan.corners import CORNER_WORDS, CORNERS
from ready_corner.core.plan.marks import say_mark
from ready_corner.core.plan.names import say_dimension, say_point
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.notation import Units, say_length
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.readings import QUANTITIES
from ready_corner.core.record.revisions import spoilt_by

NAMED = 3  # points or adjusters told by name; more are counted


def say_revision(before: Plan, after: Plan) -> str:
    """Return what is different between two plans as one line, and what that makes *moved since*; “nothing” where they are alike."""
    said = "; ".join(_changes(before, after)) or "nothing"
    spoilt = sorted({p for places, _ in spoilt_by(before, after) for p in places if p[1] in ("height", "camber")})
    named = [
        f"{CORNER_WORDS[c]} {' and '.join(QUANTITIES[q].words for d, q in spoilt if d == c)}"
        for c in CORNERS
        if any(d == c for d, _ in spoilt)
    ]
    return f"{said}. Moved since by it: {', '.join(named)}" if named else said


def _changes(before: Plan, after: Plan) -> Iterator[str]:
    units = after.units
    if before.name != after.name:
        yield f"called {after.name}"
    if before.wheelbase != after.wheelbase:
        yield f"wheelbase {say_length(before.wheelbase, units)} to {say_length(after.wheelbase, units)}"
    for end in ("front", "rear"):
        was, now = before.axle(end), after.axle(end)
        for part in ("track", "rim_flange_diameter", "tyre_diameter"):
            if getattr(was, part) != getattr(now, part):
                words = part.replace("_", " ")
                yield f"{end} {words} {say_length(getattr(was, part), units)} to {say_length(getattr(now, part), units)}"
        held, holds = before.linkage(end), after.linkage(end)
        if (held and held.layout) != (holds and holds.layout):
            yield f"{end} wheels held by {holds.layout if holds else 'nothing said'}"
        elif held != holds:
            yield f"{end} linkage"
    if before.stage != after.stage:
        yield f"judged by the aims of the {'build' if after.stage == 'build' else 'running car'} now"
    yield from _aims(before.aims, after.aims, after.units)
    yield from (f"build: {said}" for said in _aims(before.build_aims, after.build_aims, after.units))
    yield from _points(before, after)
    yield from _named(before, after)
    if before.ways != after.ways:
        yield "ways of working"
    if before.footing != after.footing:
        yield "what it stands on"
    yield from _settled(before, after)
    if before.heights != after.heights:
        yield "where heights are read"


def _settled(before: Plan, after: Plan) -> Iterator[str]:
    for one, other, word in ((before, after, "settled"), (after, before, "provisional")):
        if names := [say_dimension(d) for d in one.provisional if d not in other.provisional]:
            yield f"{', '.join(names)} {word}"


def _named(before: Plan, after: Plan) -> Iterator[str]:
    """Adjusters and tools by name."""
    for kind, was_ids, now_ids in (
        ("adjuster", {a.id: a for a in before.adjusters}, {a.id: a for a in after.adjusters}),
        ("tool", {t.id: t for t in before.tools}, {t.id: t for t in after.tools}),
    ):
        for verb, names in (
            ("new", [v.name for k, v in now_ids.items() if k not in was_ids]),
            ("taken out", [v.name for k, v in was_ids.items() if k not in now_ids]),
            ("changed", [v.name for k, v in now_ids.items() if k in was_ids and was_ids[k] != v]),
        ):
            if names:
                yield f"{_some(names, kind)} {verb}"


def _aims(before: Iterable[Aim], after: Iterable[Aim], units: Units) -> Iterator[str]:
    was, now = {a.mark: a for a in before}, {a.mark: a for a in after}
    for mark in [*now, *(m for m in was if m not in now)]:
        old, new = was.get(mark), now.get(mark)
        if new is None:
            yield f"no aim any more for {say_mark(mark)}"
        elif old is None or (old.aim, old.tolerance, old.beyond) != (new.aim, new.tolerance, new.beyond):
            yield f"{say_mark(mark)} aim {say_wanted(new, units)}"


def _points(before: Plan, after: Plan) -> Iterator[str]:
    new = [n for n in after.points if n not in before.points]
    gone = [n for n in before.points if n not in after.points]
    moved = {n: math.dist(p, before.points[n]) for n, p in after.points.items() if n in before.points and p != before.points[n]}
    if moved:
        told = [f"{say_point(n)} by {say_length(far, after.units, denominator=0, unit=True)}" for n, far in moved.items()]
        yield f"moved {', '.join(told)}" if len(told) <= NAMED else f"{len(told)} points moved"
    if new:
        yield f"{_some([say_point(n) for n in new], 'point')} new"
    if gone:
        yield f"{_some([say_point(n) for n in gone], 'point')} taken out"


def _some(names: list[str], kind: str) -> str:
    return " and ".join(names) if len(names) <= NAMED else f"{len(names)} {kind}s"
