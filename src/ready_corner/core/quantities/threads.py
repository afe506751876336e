"""Threads as the shop names them: M12×1.75, 1/2-20, #10-32, 20 tpi, with the hand beside it."""

import re
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.notation import MM_PER_INCH, ShopNotationError, Units, read, say_exact

Hand = Literal["left", "right"]
# Coarse pitches of ISO 261, mm, by nominal diameter: what is meant where the pitch is not named.
COARSE = {4: 0.7, 5: 0.8, 6: 1.0, 8: 1.25, 10: 1.5, 12: 1.75, 14: 2.0, 16: 2.0, 18: 2.5, 20: 2.5, 22: 2.5, 24: 3.0}
_HAND = re.compile(r"\b(left|right)([ -]hand(ed)?)?\b|\b([lr])\.?h\.?(?![a-z])", re.IGNORECASE)
_METRIC = re.compile(r"m\s*(\d+(?:[.,]\d+)?)(?:\s*[x×*]\s*(\d+(?:[.,]\d+)?))?", re.IGNORECASE)
_SERIES = re.compile(r"\b(unc|unf|unef|un|unr)\b", re.IGNORECASE)
_UNIFIED = re.compile(r"(#\d+|.+?)\s*[-x×]\s*(\d+)\s*(?:tpi)?")
_TPI = re.compile(
    r"(\d+(?:\.\d+)?)\s*(?:tpi|t\.p\.i\.|threads?(?: (?:per|to the) inch)?|per inch|/\s*in(?:ch)?)", re.IGNORECASE
)
MOST_COARSE_MM = 6.0  # no screw of a car climbs more in a turn


@dataclass(frozen=True)
class Thread:
    """A thread as named: ``diameter`` and ``pitch`` in mm, and its ``hand``; None of what was not named."""

    diameter: float | None
    pitch: float | None
    hand: Hand | None


def read_thread(text: str, units: Units, wanted: Literal["diameter", "pitch"] = "diameter") -> Thread:
    """Return a thread as typed; a figure alone is what is ``wanted``, in the car's unit. Raises ShopNotationError.

    >>> read_thread("M12×1.75 LH", Units()), read_thread("1/2-20", Units("inch_fraction")).pitch
    (Thread(diameter=12.0, pitch=1.75, hand='left'), 1.27)
    """
    found = _HAND.search(text)
    side = (found[1] or found[4]).lower() if found else ""
    hand: Hand | None = "left" if side.startswith("l") else "right" if side else None
    rest = _SERIES.sub(" ", _HAND.sub(" ", text)).strip(" ,;")
    if metric := _METRIC.fullmatch(rest):
        size = float(metric[1].replace(",", "."))
        pitch = float(metric[2].replace(",", ".")) if metric[2] else COARSE.get(int(size)) if size == int(size) else None
        if pitch is None:
            raise ShopNotationError(finding("thread.no-pitch", text=text.strip(), size=size), text)
        return Thread(size, pitch, hand)
    if per_inch := _TPI.fullmatch(rest):
        return Thread(None, _per_inch(per_inch[1], text), hand)
    unified = _UNIFIED.fullmatch(rest)
    if unified and not unified[1].strip().endswith(("-", "/")) and not re.fullmatch(r"\d+", unified[1].strip()):
        name = unified[1].strip()
        size = (
            25.4 * (0.060 + 0.013 * int(name[1:]))
            if name.startswith("#")
            else read(name, "length", Units("inch_fraction")).value
        )
        return Thread(round(size, 9), _per_inch(unified[2], text), hand)
    value = read(rest, "length", units).value
    if wanted == "pitch":
        if value > MOST_COARSE_MM:
            raise ShopNotationError(finding("thread.pitch-impossible", value=value), text)
        return Thread(None, value, hand)
    return Thread(value, None, hand)


def _per_inch(count: str, text: str) -> float:
    number = Fraction(count)
    if number <= 0:
        raise ShopNotationError(finding("thread.no-threads", text=text.strip()), text)
    return float(MM_PER_INCH / number)


def say_pitch(mm: float, units: Units) -> str:
    """Return a pitch as the shop names it: millimetres, or threads to the inch where they come out whole.

    >>> say_pitch(1.75, Units()), say_pitch(1.27, Units("inch_fraction"))
    ('1.75', '20 tpi')
    """
    threads = float(MM_PER_INCH) / mm if mm > 0 else 0.0
    if units.inches and threads >= 1 and abs(threads - round(threads)) < 1e-6:  # a float of 25.4/n is so near
        return f"{round(threads)} tpi"
    return say_exact(mm, units).removesuffix(" mm")
