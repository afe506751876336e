"""What is said around the weld: of the body on the jig, of the order of joints, of clearances."""

import math
from collections.abc import Iterator, Sequence

from ready_corner.core.plan.corners import CORNER_WORDS, Corner
from ready_corner.core.plan.names import say_point
from ready_corner.core.quantities.notation import Units, say_length
from ready_corner.core.record.jig_acts import JigLog
from ready_corner.core.record.weld_acts import OpeningRead, Works, body_move
from ready_corner.core.say.template import say_finding


def _stale(log: JigLog, number: int, units: Units, *points: str) -> str:
    """Return that something read before may not be so any more, and why; empty where it still stands."""
    since = log.since(number, *points)
    return f"read it again: since then {say_finding(since.said, units)}" if since else ""


def say_body(log: JigLog, units: Units) -> tuple[str, ...]:
    """Return what is to be done to the body on the jig, in words; of what may have moved since it was read, that it is to be read again."""
    works = log.works
    rows = [f"Braces in: {', '.join(works.braces)}. Take none out before its neighbours are tacked."] if works.braces else []
    rows += [*_say_openings(log, units), *_say_sills(log, units)]
    rows += [
        f"{support.name} locates with {say_length(support.hole - support.pin, units, denominator=0, unit=True)} of play."
        for support in works.supports.values()
        if support.role == "locates" and support.pin and support.hole
    ]
    rows += [*_say_dropped(log, units), *_say_carried(log, units)]
    for cut in works.cuts.values():
        near = say_length(cut.by, units, denominator=0, unit=True)
        rows.append(
            f"No cut at {cut.what} nearer than {near} to {say_point(cut.point)}: {cut.reason}. Metal left can still go."
        )
    return tuple(rows)


def _say_openings(log: JigLog, units: Units) -> Iterator[str]:
    openings: dict[Corner, OpeningRead] = {}
    for corner, (number, opening) in log.works.openings.items():
        if stale := _stale(log, number, units, corner):
            yield f"The {CORNER_WORDS[corner]} opening: {stale}."
            continue
        openings[corner] = opening
        move = body_move(opening)
        far = say_length(abs(move), units, denominator=0, unit=True)
        said = (
            "is in the middle of its opening"
            if abs(move) < 0.05
            else f"wants the body {far} {'forward' if move > 0 else 'aft'}"
        )
        yield f"The {CORNER_WORDS[corner]} axle centre {said}."
    pairs: tuple[tuple[Corner, Corner, str], ...] = (("LF", "RF", "front"), ("LR", "RR", "rear"))
    for left, right, words in pairs:
        if left in openings and right in openings:
            apart = body_move(openings[left]) - body_move(openings[right])
            if abs(apart) > 0.5:
                yield f"Left and right ask for {say_length(abs(apart), units, denominator=0, unit=True)} more at the {words} {'left' if apart > 0 else 'right'}: the body is turned, or an opening is not as its twin."


def _say_sills(log: JigLog, units: Units) -> Iterator[str]:
    for place, ends in (("front", ("LF", "RF")), ("rear", ("LR", "RR"))):
        left, right = (log.works.sills.get((place, side)) for side in ("left", "right"))
        if not left or not right:
            continue
        if stale := _stale(log, min(left[0], right[0]), units, *ends, f"sill.{place}"):
            yield f"Sills at the {place}: {stale}."
            continue
        apart = left[1].value - right[1].value
        sag = " It was so before anything was cut." if left[1].sag or right[1].sag else ""
        low, far = "right" if apart > 0 else "left", say_length(abs(apart), units, denominator=0, unit=True)
        said = "level" if abs(apart) < 0.05 else f"the {low} is {far} lower: pack it by so much, or note it as sag"
        yield f"Sills at the {place}: {said}.{sag}"


def _say_dropped(log: JigLog, units: Units) -> Iterator[str]:
    for number, dropped in log.works.dropped.values():
        point = say_point(dropped.point)
        point = f"{point[0].upper()}{point[1:]}"
        if stale := _stale(log, number, units, dropped.point):
            yield f"{point} dropped: {stale}."
            continue
        off, lean = dropped.off, math.degrees(math.atan(dropped.lean))
        far = say_length(abs(off), units, denominator=0, unit=True)
        way = "outboard or forward" if off > 0 else "inboard or aft"
        said = "the mark is true" if abs(off) < 0.05 else f"the mark would be {far} too far {way}: set it back by so much"
        yield f"{point} dropped: the line leans {abs(lean):.2f}°; {said}."


def _say_carried(log: JigLog, units: Units) -> Iterator[str]:
    for number, c in log.works.carries.values():
        between = f"{say_point(c.first)} to {say_point(c.second)}"
        since = log.since(number, c.first, c.second)
        yield (
            f"{c.gauge} carries the datum over no more, {between}: since then {say_finding(since.said, units)}. Choose points that stayed."
            if since
            else f"The datum is carried over by {between}: {c.gauge}."
        )


def say_order(works: Works, done: Sequence[str]) -> tuple[str, ...]:
    """Return what to weld next, and what is wrong with the order: neighbours on one side one after the other draw the frame that way."""
    if works.order is None:
        return ()
    left = [j for j in works.order.joints if j not in done]
    rows = [f"Weld next: {left[0]}." if left else "Every joint of the list is welded."]
    if works.order.way == "in steps, checked after each" and done and left:
        rows.append("Read the points of the last joint again before the next.")
    sides = [_side(j) for j in left[:3]]
    if len(sides) == 3 and sides[0] and len(set(sides)) == 1:
        rows.append(
            f"The next three joints are all on the {sides[0]}: the frame is drawn that way. Take one of the other side between."
        )
    return tuple(rows)


def _side(joint: str) -> str:
    words = joint.replace(".", " ").split()
    return (
        "left"
        if words and (words[0] in ("LF", "LR") or "left" in words)
        else "right"
        if words and (words[0] in ("RF", "RR") or "right" in words)
        else ""
    )


def say_gaps(log: JigLog, units: Units) -> tuple[str, ...]:
    """Return clearances and bush gaps, the least first; of what may have moved since, that it is to be read again."""
    rows = sorted(log.works.gaps.values(), key=lambda g: g[1].value)
    return tuple(
        f"{g.point.replace('.', ' ')} to {g.to}: {say_length(g.value, units, denominator=0, unit=True)}{' (bush)' if g.what == 'bush' else ''}{f'; {stale}' if (stale := _stale(log, number, units, g.point)) else ''}"
        for number, g in rows
    )
