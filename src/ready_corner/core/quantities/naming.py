"""Names as they are said, and names that were meant: the nearest of those that exist, for the sentence about one that does not."""

from collections.abc import Iterable
from difflib import get_close_matches

from ready_corner.core.quantities.finding import Finding, finding

OF_FRAME = "frame"  # what the names of points begin with that belong to no corner: understood, and not said
MOST_NAMED = 8  # more than this in a sentence is a list nobody reads


def meant(name: str, known: Iterable[str]) -> Finding | None:
    """Return the names nearest to one that is not known, or those there are; None where there are none.

    >>> dict(meant("tie_rod", ["tie rod", "upper front leg"]).figures)
    {'near': ('tie rod',)}
    >>> dict(meant("roof", ["tie rod", "upper front leg"]).figures)
    {'there': ('tie rod', 'upper front leg'), 'one': False, 'more': 0}
    """
    names = list(dict.fromkeys(known))
    by_lower = {n.lower(): n for n in names}
    near = [by_lower[n] for n in get_close_matches(name.lower(), by_lower, n=3, cutoff=0.6)]
    if near:
        return finding("names.meant", near=tuple(near))
    if not names:
        return None
    more = max(len(names) - MOST_NAMED, 0)
    return finding("names.there-are", there=tuple(names[:MOST_NAMED]), one=len(names) == 1, more=more)


def short_point(name: str) -> str:
    """Return a dotted name as it stands at the jig, where corners go by their letters: ``LF.lower.ball`` is “LF lower ball”.

    >>> short_point("frame.rail.left.front")
    'rail left front'
    """
    return name.removeprefix(f"{OF_FRAME}.").replace(".", " ")
