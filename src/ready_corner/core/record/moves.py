"""Changes as far as readings are concerned: what each moved, and where a new spell begins."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

from ready_corner.core.plan.corners import CORNERS, Corner
from ready_corner.core.quantities.finding import Finding
from ready_corner.core.record.readings import QUANTITIES, Place, Quantity


@dataclass(frozen=True)
class Move:
    """A change as far as readings are concerned: what it moved, by what, in which spell it ended.

    ``adjuster`` is empty where it was no turn; ``unknown``: its effect on the marks cannot be computed. ``breaks_rig``: hub gaps
    read before it say nothing of the strings after it. Moving a string moves its readings but no mark.
    """

    number: int
    adjuster: str
    amount: float
    moves: frozenset[Place]
    said: Finding
    unknown: bool
    breaks_rig: bool = False


def places(quantities: Iterable[Quantity], corners: Iterable[Corner]) -> frozenset[Place]:
    """Return the places of quantities at corners."""
    return _places(tuple(quantities), tuple(corners))


@lru_cache(maxsize=512)
def _places(quantities: tuple[Quantity, ...], corners: tuple[Corner, ...]) -> frozenset[Place]:
    return frozenset((_at(corner, quantity), quantity) for quantity in quantities for corner in corners)


def _at(corner: Corner, quantity: Quantity) -> Corner:
    """Return the corner at which a quantity of a corner stands: what is read across an axle at its left one."""
    return CORNERS[CORNERS.index(corner) & ~1] if QUANTITIES[quantity].of_axle else corner
