"""Toe as the shop says it: in degrees, or as a length over a stated span, and never without its span."""

import re
from collections.abc import Mapping
from dataclasses import dataclass

from ready_corner.core.engines.alignment.string import toe_of_length_deg
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.notation import ShopNotationError, Units, WrongKindError, read, say_angle, say_length

_OVER = re.compile(r"(.+?)\s*\b(?:over|across|at|on)\b\s*(?:the\s+)?(.+)", re.IGNORECASE)
_NAMES = {
    "rim": "rim",
    "rims": "rim",
    "flange": "rim",
    "flanges": "rim",
    "tyre": "tyre",
    "tyres": "tyre",
    "tire": "tyre",
    "tires": "tyre",
}


@dataclass(frozen=True)
class Toe:
    """A toe in degrees, plus being in; ``said``: both ways where it was typed as a length, else empty."""

    deg: float
    said: str = ""


def read_toe(text: str, units: Units, spans: Mapping[str, float], wheels: int = 1) -> Toe:
    """Return a toe typed in degrees, or as a length over the rim, the tyre or a length: “1/16 in over the rim”, “2 mm out over 380”.

    spans: mm of "rim" and "tyre", where the plan knows them. ``wheels``: 2 for the total of an axle. Raises ShopNotationError.
    Source: toe as a length over a span, asin(difference / span), docs/choices.md.
    """
    found = _OVER.fullmatch(text.strip())
    if not found:
        try:
            return Toe(read(text, "angle", units).value)
        except WrongKindError as wrong:
            raise WrongKindError(
                finding("toe.span-wanted", text=text.strip()),
                text,
            ) from wrong
    size, way = _way(found[1], text)
    name, stated = re.fullmatch(r"([a-z]*)(?:['’]s\b)?\s*(.*)", found[2].strip().lower()).groups()  # type: ignore[union-attr]
    known = spans.get(_NAMES.get(name, ""), 0.0)
    if name in _NAMES and not stated and known <= 0:
        raise ShopNotationError(finding("toe.width-unknown", name=name), text)
    span = known if name in _NAMES and not stated else read(stated if name in _NAMES else found[2], "length", units).value
    length = way * read(size, "length", units).value
    deg = float(toe_of_length_deg(length, span, wheels))
    over = f"the {_NAMES[name]}'s {_size(span, units)}" if name in _NAMES else _size(span, units)
    words = "in" if deg > 0 else "out"
    return Toe(deg, f"{_size(abs(length), units)} {words} over {over} = {say_angle(abs(deg))} {words}" if deg else "0.00°")


def _way(text: str, whole: str) -> tuple[str, int]:
    """Take “in” or “out” off a length; “in” after a figure alone is the way and not inches, for which the mark is typed."""
    said = re.fullmatch(r"(.+?)\s*\b(in|out)", text.strip(), re.IGNORECASE)
    if said is None:
        if text.strip()[:1] in "-−+":
            return text.strip()[1:], -1 if text.strip()[0] in "-−" else 1
        raise ShopNotationError(finding("toe.which-way", text=whole.strip()), whole)
    return said[1], 1 if said[2].lower() == "in" else -1


def _size(mm: float, units: Units) -> str:
    exact = abs(mm / 25.4 * units.finest - round(mm / 25.4 * units.finest)) < 1e-6
    return say_length(mm, units, denominator=None if exact else 0, unit=True)
