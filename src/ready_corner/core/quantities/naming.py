"""Names that were meant: the nearest of those that exist, for the sentence about one that does not."""

from collections.abc import Iterable
from difflib import get_close_matches

MOST_NAMED = 8  # more than this in a sentence is a list nobody reads


def meant(name: str, known: Iterable[str]) -> str:
    """Return a sentence with the names nearest to one that is not known, or with those there are; empty where there are none.

    >>> meant("tie_rod", ["tie rod", "upper front leg"])
    'Is “tie rod” meant?'
    >>> meant("roof", ["tie rod", "upper front leg"])
    'There are tie rod, upper front leg.'
    """
    names = list(dict.fromkeys(known))
    by_lower = {n.lower(): n for n in names}
    near = [by_lower[n] for n in get_close_matches(name.lower(), by_lower, n=3, cutoff=0.6)]
    if near:
        return f"Is {' or '.join(f'“{n}”' for n in near)} meant?"
    if not names:
        return ""
    more = f" and {len(names) - MOST_NAMED} more" if len(names) > MOST_NAMED else ""
    return f"There {'is' if len(names) == 1 else 'are'} {', '.join(names[:MOST_NAMED])}{more}."
