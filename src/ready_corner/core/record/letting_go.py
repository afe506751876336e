"""What refers to points that a revision of the plan lets go, and what becomes of it."""

import math
from collections.abc import Iterator, Mapping, Sequence

from ready_corner.core.plan.corners import Point
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.naming import short_point
from ready_corner.core.record.jig_acts import JigLog

RENAMED_MM = 1.0  # a new point so near to one let go is that point under another name
NAMED = 3


def lets_go(
    log: JigLog, surveyed: Mapping[str, object], lost: Mapping[str, Point], new: Mapping[str, Point]
) -> tuple[Finding, ...]:
    """Return what becomes of points of the plan that are ``lost`` though something refers to them; empty where nothing does."""
    return tuple(_told(log, surveyed, lost, new))


def _some(names: Sequence[str]) -> Finding:
    """Return a few names, and how many more there are."""
    spoken = tuple(short_point(n) for n in names[:NAMED])
    return finding("names.some", names=spoken, more=max(len(names) - NAMED, 0))


def _told(
    log: JigLog, surveyed: Mapping[str, object], lost: Mapping[str, Point], new: Mapping[str, Point]
) -> Iterator[Finding]:
    counts = {n: sum(n in noted.read.points for noted in log.noted) for n in lost}
    if read := [n for n, count in counts.items() if count]:
        total = sum(any(p in lost for p in noted.read.points) for noted in log.noted)
        yield finding("lost.read", points=_some(read), readings=total, several=total != 1, one=len(read) == 1)
    renamed = [(n, m) for n in read for m, place in new.items() if math.dist(place, lost[n]) <= RENAMED_MM]
    if renamed:
        was, now = renamed[0]
        yield finding("lost.renamed", was=_some([was]), now=_some([now]))
    if log.datum and (axes := [n for n in dict.fromkeys((*log.datum.plane, *log.datum.line, log.datum.point)) if n in lost]):
        yield finding("lost.datum", points=_some(axes))
    if placed := [n for n in lost if n in surveyed and n not in read]:
        yield finding("lost.in-place", points=_some(placed))
    works = log.works
    if kept := [n for n in lost if n in works.accepted or n in log.pins or any(point == n for point, _ in works.gaps)]:
        yield finding("lost.written", points=_some(kept))
