"""What is said around the weld: of the body on the jig, of the order of joints, of clearances."""

import math
from collections.abc import Sequence

from ready_corner.core.plan.corners import CORNER_WORDS
from ready_corner.core.plan.names import say_point
from ready_corner.core.quantities.notation import Units, say_length
from ready_corner.core.record.weld_acts import Works, body_move


def say_body(works: Works, units: Units) -> tuple[str, ...]:
    """Return what is to be done to the body on the jig, in words."""
    rows = [f"Braces in: {', '.join(works.braces)}. Take none out before its neighbours are tacked."] if works.braces else []
    for corner, opening in works.openings.items():
        move = body_move(opening)
        said = (
            "is in the middle of its opening"
            if abs(move) < 0.05
            else f"wants the body {say_length(abs(move), units, denominator=0, unit=True)} {'forward' if move > 0 else 'aft'}"
        )
        rows.append(f"The {CORNER_WORDS[corner]} axle centre {said}.")
    for left, right, words in (("LF", "RF", "front"), ("LR", "RR", "rear")):
        if left in works.openings and right in works.openings:
            apart = body_move(works.openings[left]) - body_move(works.openings[right])  # type: ignore[index]
            if abs(apart) > 0.5:
                rows.append(
                    f"Left and right ask for {say_length(abs(apart), units, denominator=0, unit=True)} more at the {words} {'left' if apart > 0 else 'right'}: the body is turned, or an opening is not as its twin."
                )
    for place in ("front", "rear"):
        pair = [works.sills.get((place, side)) for side in ("left", "right")]
        if pair[0] and pair[1]:
            apart = pair[0][1].value - pair[1][1].value
            low = "right" if apart > 0 else "left"
            sag = " It was so before anything was cut." if pair[0][1].sag or pair[1][1].sag else ""
            said = (
                "level"
                if abs(apart) < 0.05
                else f"the {low} is {say_length(abs(apart), units, denominator=0, unit=True)} lower: pack it by so much, or note it as sag"
            )
            rows.append(f"Sills at the {place}: {said}.{sag}")
    for support in works.supports.values():
        if support.role == "locates" and support.pin and support.hole:
            rows.append(
                f"{support.name} locates with {say_length(support.hole - support.pin, units, denominator=0, unit=True)} of play."
            )
    for dropped in works.dropped.values():
        off, lean = dropped.off, math.degrees(math.atan(dropped.lean))
        far = say_length(abs(off), units, denominator=0, unit=True)
        way = "outboard or forward" if off > 0 else "inboard or aft"
        said = "the mark is true" if abs(off) < 0.05 else f"the mark would be {far} too far {way}: set it back by so much"
        point = say_point(dropped.point)
        rows.append(f"{point[0].upper()}{point[1:]} dropped: the line leans {abs(lean):.2f}°; {said}.")
    rows += [
        f"The datum is carried over by {say_point(c.first)} to {say_point(c.second)}: {c.gauge}."
        for c in works.carries.values()
    ]
    for cut in works.cuts.values():
        near = say_length(cut.by, units, denominator=0, unit=True)
        rows.append(
            f"No cut at {cut.what} nearer than {near} to {say_point(cut.point)}: {cut.reason}. Metal left can still go."
        )
    return tuple(rows)


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


def say_gaps(works: Works, units: Units) -> tuple[str, ...]:
    """Return clearances and bush gaps, the least first."""
    rows = sorted(works.gaps.values(), key=lambda g: g.value)
    return tuple(
        f"{g.point.replace('.', ' ')} to {g.to}: {say_length(g.value, units, denominator=0, unit=True)}{' (bush)' if g.what == 'bush' else ''}"
        for g in rows
    )
