"""What the uncertainty of a figure is mostly made of, and what would lessen it.

Source: JCGM 100:2008, 5.1.2: shares of the combined variance by source; docs/readings.md.
"""

from collections.abc import Mapping
from functools import lru_cache
from typing import get_args

from ready_corner.core.judge.read import Figure
from ready_corner.core.plan.corners import Corner
from ready_corner.core.quantities.finding import Finding, finding

MOSTLY = 0.4  # share of the variance from which on a source is named


def mostly(figure: Figure) -> Finding | None:
    """Return what the U of a figure is mostly made of, with what would lessen it; None where it is of many parts.

    Source: see the module.
    """
    own = {f"{c}.{q}" for g in figure.groups for c, q in [g.place]}
    shares: dict[str, float] = {}
    for name, part in figure.measured.parts.items():
        kind = _kind(name, own)
        shares[kind] = shares.get(kind, 0.0) + part**2
    total = sum(shares.values())
    kind = max(shares, key=lambda k: shares[k], default="")
    if not total or shares[kind] < MOSTLY * total:
        return None
    said = _SAID.get(kind)
    if said is None:
        return None
    return finding(said, tool=figure.groups[0].tool.name) if kind in _BY_TOOL else finding(said)


# How a source is called by its name: by the word that stands in it.
_WORDS: Mapping[str, str] = {
    "run-out": "run-out", "floor": "floor", "span": "span", "hub middle": "string", "box parallel": "string", "width": "string",
    "gap_hub": "string", ".rail.": "rail", ".bar_": "line", "gap_mark": "string", "mark place": "string", "inclination": "axis", "toe untold": "toe", "hub set": "hubs", "hubs off": "hubs", "hubs turned": "hubs", " rest": "rest", "moved since": "since", "ways apart": "apart", " zero": "zero", ".pad.": "pads",
}  # fmt: skip
_SAID: Mapping[str, str] = {
    "own": "doubt.own", "zero": "doubt.zero", "run-out": "doubt.run-out", "floor": "doubt.floor", "pads": "doubt.pads", "string": "doubt.string",
    "rail": "doubt.rail", "line": "doubt.line", "span": "doubt.span", "axis": "doubt.axis", "toe": "doubt.toe", "hubs": "doubt.hubs", "rest": "doubt.rest", "since": "doubt.since", "apart": "doubt.apart",
}  # fmt: skip
_BY_TOOL = {"own", "zero"}


def _kind(name: str, own: set[str]) -> str:
    """Return the kind of a source: what is read for the figure itself, a zero, the string, the floor."""
    at, kind = _named(name)
    return "own" if at in own else kind


@lru_cache(maxsize=4096)
def _named(name: str) -> tuple[str, str]:
    """Return the place at a corner that a source's name begins with ("" where it is none), and the kind that its words tell."""
    corner, _, rest = name.partition(".")
    at = f"{corner}.{rest.split('.')[0]}" if corner in get_args(Corner) else ""
    return at, next((kind for word, kind in _WORDS.items() if word in name), "other")
