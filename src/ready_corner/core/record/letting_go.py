"""What refers to points that a revision of the plan lets go, and what becomes of it."""

import math
from collections.abc import Iterator, Mapping

from ready_corner.core.plan.corners import Point
from ready_corner.core.record.jig_acts import JigLog

RENAMED_MM = 1.0  # a new point so near to one let go is that point under another name
NAMED = 3


def lets_go(
    log: JigLog, surveyed: Mapping[str, object], lost: Mapping[str, Point], new: Mapping[str, Point]
) -> tuple[str, ...]:
    """Return sentences about points of the plan that are ``lost`` though something refers to them; empty where nothing does."""
    return tuple(_told(log, surveyed, lost, new))


def _told(log: JigLog, surveyed: Mapping[str, object], lost: Mapping[str, Point], new: Mapping[str, Point]) -> Iterator[str]:
    def spoken(names: list[str]) -> str:
        said = [n.replace(".", " ") for n in names[:NAMED]]
        return ", ".join(said) + (f" and {len(names) - NAMED} more" if len(names) > NAMED else "")

    counts = {n: sum(n in noted.read.points for noted in log.noted) for n in lost}
    if read := [n for n, count in counts.items() if count]:
        total = sum(any(p in lost for p in noted.read.points) for noted in log.noted)
        yield f"{spoken(read)} would not be planned any more, but {total} reading{'s' * (total != 1)} of the jig refer to {'it' if len(read) == 1 else 'them'}: they stay readings, and go on holding the other points, but nothing is judged there."
    renamed = [(n, m) for n in read for m, place in new.items() if math.dist(place, lost[n]) <= RENAMED_MM]
    if renamed:
        yield f"{spoken([renamed[0][1]])} is where {spoken([renamed[0][0]])} was: readings keep the name they were taken under, and do not count for the new one."
    if log.datum and (axes := [n for n in dict.fromkeys((*log.datum.plane, *log.datum.line, log.datum.point)) if n in lost]):
        yield f"The datum is taken from {spoken(axes)}: without it the axes are those of the points that stayed, or of the plan as a whole, until another is chosen."
    if placed := [n for n in lost if n in surveyed and n not in read]:
        yield f"{spoken(placed)} was measured in place: that stays in the log, and Travel does not take it any more."
    works = log.works
    if said := [n for n in lost if n in works.accepted or n in log.pins or any(point == n for point, _ in works.gaps)]:
        yield f"What was written down of {spoken(said)} stays in the log: accepted, pins, clearances."
