"""Bays of a frame: four of its points that are called left and right, front and rear, alike in all other words of their names."""

from collections.abc import Iterable

from ready_corner.core.quantities.naming import OF_FRAME

Corners = tuple[str, str, str, str]
_AT = (("left", "front"), ("right", "front"), ("left", "rear"), ("right", "rear"))


def bays(names: Iterable[str]) -> dict[str, Corners]:
    """Return every bay of the frame by what its corners have in common (“rail”), each as left front, right front, left rear, right rear."""
    found: dict[str, dict[tuple[str, str], str]] = {}
    for name in names:
        first, *rest = name.split(".")
        at = next((a for a in _AT if set(a) <= set(rest)), None)
        if first == OF_FRAME and at:
            found.setdefault(" ".join(w for w in rest if w not in at), {})[at] = name
    return {stem: (own[_AT[0]], own[_AT[1]], own[_AT[2]], own[_AT[3]]) for stem, own in found.items() if len(own) == len(_AT)}
