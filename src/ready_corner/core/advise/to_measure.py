"""What to measure at the jig with the tools at hand: the list worked out for the points of a frame, beside what is read already."""

from collections.abc import Sequence

import numpy as np

from ready_corner.core.engines.survey.propose import Means, Proposal, propose
from ready_corner.core.engines.survey.readings import Reading
from ready_corner.core.judge.frame import Frame
from ready_corner.core.quantities.naming import OF_FRAME

LIES_FLAT = 1e-6  # mm of planned height between points that lie in one plane on the table
HELD = 0.1  # mm; standard uncertainty of a height that is not to be read, so that the list is made for the plane alone
KINDS = ("distance", "height", "offset", "station", "rise")


def to_measure(frame: Frame, pickups: Sequence[str], means: Means, wanted: float) -> Proposal:
    """Return what to read so that every pickup is sure to ``wanted`` mm (U), each reading checked by others; where the plan has none, of the points of
    the frame itself: by their distances alone, where it is planned flat.

    Raises MeasuredError for fewer than two points, or means that measure nothing.
    Source: design of a network by what each reading adds; docs/survey.md.
    """
    names = [n for n in pickups if n in frame.planned] or [n for n in frame.planned if n.startswith(f"{OF_FRAME}.")]
    places = {n: frame.planned[n] for n in names}
    taken = [r for r in frame.readings if set(r.points) <= set(names) and r.kind in KINDS]
    flat = not pickups and bool(names) and float(np.ptp([p[2] for p in places.values()])) < LIES_FLAT
    if flat and means.distance is not None and not any(r.kind != "distance" for r in taken):
        held = [Reading(f"planned {n}", "height", (n,), p[2], HELD) for n, p in places.items()]
        return propose(places, Means(means.distance, None, None, means.reach), wanted, (*taken, *held))
    return propose(places, means, wanted, taken)
