"""Names that were meant: the nearest of those that exist, for the sentence about one that does not."""

from collections.abc import Iterable
from difflib import get_close_matches

from ready_corner.core.quantities.finding import Finding, finding

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
