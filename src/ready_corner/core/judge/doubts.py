"""What the uncertainty of a figure is mostly made of, and what would lessen it.

Source: JCGM 100:2008, 5.1.2: shares of the combined variance by source; docs/readings.md.
"""

from collections.abc import Mapping
from typing import get_args

from ready_corner.core.judge.figures import Figure
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
    tool = figure.groups[0].tool.name
    return {
        "own": finding("doubt.own", tool=tool),
        "zero": finding("doubt.zero", tool=tool),
        "run-out": finding("doubt.run-out"),
        "floor": finding("doubt.floor"),
        "pads": finding("doubt.pads"),
        "string": finding("doubt.string"),
        "rail": finding("doubt.rail"),
        "line": finding("doubt.line"),
        "span": finding("doubt.span"),
        "axis": finding("doubt.axis"),
        "toe": finding("doubt.toe"),
        "apart": finding("doubt.apart"),
    }.get(kind)


# How a source is called by its name: by the word that stands in it.
_WORDS: Mapping[str, str] = {
    "run-out": "run-out", "floor": "floor", "span": "span", "hub middle": "string", "box parallel": "string", "width": "string",
    "gap_hub": "string", ".rail.": "rail", ".bar_": "line", "gap_mark": "string", "mark place": "string", "inclination": "axis", "toe untold": "toe", "ways apart": "apart", " zero": "zero", ".pad.": "pads",
}  # fmt: skip


def _kind(name: str, own: set[str]) -> str:
    """Return the kind of a source: what is read for the figure itself, a zero, the string, the floor."""
    place = ".".join(name.split(".")[:2])
    if place in own and place.split(".")[0] in get_args(Corner):
        return "own"
    return next((kind for word, kind in _WORDS.items() if word in name), "other")
