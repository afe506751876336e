"""Shop notation in and out: lengths in mm or inch fractions, angles in degrees and minutes, turns and flats, loads in kg or lb.

Lengths come back in millimetres, angles in degrees, turns in turns (a flat is a sixth of one), loads in kilograms. Values are built as exact
fractions and rounded to a float once, so that printing and reading back is the identity.
"""

import math
import re
import unicodedata
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from typing import Literal

from ready_corner.core.errors import MeasuredError, PlannedError

MM_PER_INCH = Fraction(254, 10)  # exact, by the definition of the inch
KG_PER_LB = Fraction(45359237, 100000000)  # exact, by the definition of the pound
FLATS_PER_TURN = 6
LONGEST_TEXT = 60  # characters; nothing a builder reads off a tool is longer

System = Literal["mm", "inch_fraction", "inch_decimal"]
Kind = Literal["length", "angle", "turns", "mass"]
FINEST = (16, 32, 64)

_UNIT_WORDS: dict[str, tuple[Kind, Fraction]] = {
    **dict.fromkeys(("mm",), ("length", Fraction(1))),
    **dict.fromkeys(("cm",), ("length", Fraction(10))),
    **dict.fromkeys(("m",), ("length", Fraction(1000))),
    **dict.fromkeys(('"', "in", "inch", "inches"), ("length", MM_PER_INCH)),
    **dict.fromkeys(("ft", "foot", "feet"), ("length", 12 * MM_PER_INCH)),
    **dict.fromkeys(("°", "deg", "degs", "degree", "degrees"), ("angle", Fraction(1))),
    **dict.fromkeys(("min", "minute", "minutes"), ("angle", Fraction(1, 60))),
    **dict.fromkeys(("sec", "second", "seconds"), ("angle", Fraction(1, 3600))),
    **dict.fromkeys(("kg",), ("mass", Fraction(1))),
    **dict.fromkeys(("lb", "lbs", "pound", "pounds"), ("mass", KG_PER_LB)),
    **dict.fromkeys(("t", "turn", "turns"), ("turns", Fraction(1))),
    **dict.fromkeys(("shim", "shims"), ("turns", Fraction(1))),
    **dict.fromkeys(("f", "flat", "flats"), ("turns", Fraction(1, FLATS_PER_TURN))),
}
# ' and " are feet and inches on a tape, minutes and seconds on a gauge.
_MARKS: dict[Kind, dict[str, Fraction]] = {
    "length": {"'": 12 * MM_PER_INCH, '"': MM_PER_INCH},
    "angle": {"'": Fraction(1, 60), '"': Fraction(1, 3600)},
    "turns": {},
    "mass": {},
}
_KIND_WORDS: dict[Kind, str] = {"length": "a length", "angle": "an angle", "turns": "turns and flats", "mass": "a load"}
_KIND_EXAMPLES: dict[Kind, str] = {
    "length": "37 3/4 or 952 mm",
    "angle": "-1.25 or -1°15'",
    "turns": "2t1f or 1 1/2 turns",
    "mass": "143.5 kg or 316 lb",
}
_TURN_WAYS = {
    "longer": 1,
    "shorter": -1,
    "out": 1,
    "in": -1,
    "up": 1,
    "down": -1,
    "more": 1,
    "less": -1,
    "added": 1,
    "removed": -1,
}
# The larger unit, the one that may follow it in the same figure, and how many of the second make one of the first.
_FOLLOWS = {12 * MM_PER_INCH: MM_PER_INCH}
_ANGLE_FOLLOWS = {Fraction(1): Fraction(1, 60), Fraction(1, 60): Fraction(1, 3600)}
_TURN_FOLLOWS = {Fraction(1): Fraction(1, FLATS_PER_TURN)}
_FOLLOWING: dict[Kind, dict[Fraction, Fraction]] = {
    "length": _FOLLOWS,
    "angle": _ANGLE_FOLLOWS,
    "turns": _TURN_FOLLOWS,
    "mass": {},
}

_SAME = str.maketrans({
    "−": "-", "–": "-", "—": "-", "‐": "-", "‑": "-", "⁄": "/", "∕": "/", "′": "'", "’": "'", "‘": "'",
    "″": '"', "”": '"', "“": '"', "º": "°", "˚": "°", "\u00a0": " ", "\u2009": " ", "\u202f": " ",
})  # fmt: skip
_NUMBER = re.compile(r"(?:(\d+)\s*[-\s]\s*)?(\d+)\s*/\s*(\d+)|(\d+\.\d*|\.\d+|\d+)")
_WORD = re.compile(r"[a-z]+|[°'\"]")


class ShopNotationError(MeasuredError):
    """What was typed is not a figure in shop notation; ``text`` is what was typed."""

    code = "not_shop_notation"

    def __init__(self, sentence: str, text: str) -> None:
        super().__init__(sentence)
        self.text = text


class WrongKindError(ShopNotationError):
    """A length where an angle is asked, or the like."""

    code = "wrong_kind_of_figure"


@dataclass(frozen=True)
class Units:
    """How one car says its lengths: ``finest`` is the denominator of its smallest inch fraction."""

    system: System = "mm"
    finest: int = 32

    def __post_init__(self) -> None:
        if self.system not in ("mm", "inch_fraction", "inch_decimal"):
            raise PlannedError(
                f"{self.system!r} is no unit of this shop; choose mm, inch fractions or decimal inches.", path="units.system"
            )
        if self.finest not in FINEST:
            raise PlannedError(
                f"1/{self.finest} is on no rule; choose 1/16, 1/32 or 1/64.",
                path="units.finest",
                numbers={"finest": self.finest},
            )

    @property
    def inches(self) -> bool:
        """Whether a figure without a unit is in inches."""
        return self.system != "mm"

    @property
    def bare(self) -> Fraction:
        """Millimetres in the unit of a figure without one."""
        return MM_PER_INCH if self.inches else Fraction(1)

    def plain(self, kind: Kind) -> Fraction:
        """What a figure of a kind without a unit is counted in: mm, degrees, turns or kg."""
        return self.bare if kind == "length" else KG_PER_LB if kind == "mass" and self.inches else Fraction(1)


@dataclass(frozen=True)
class Figure:
    """A figure as read: value in mm, degrees or turns.

    ``denominator`` is that of the finest fraction typed, 1 for a whole number, 0 for a decimal.
    """

    value: float
    denominator: int
    text: str


@dataclass(frozen=True)
class _Part:
    number: Fraction
    denominator: int
    scale: Fraction | None


def read(text: str, kind: Kind, units: Units) -> Figure:
    """Return the figure typed: mm for a length, degrees for an angle, turns for turns, kg for a load.

    What has no unit is in the car's unit (length, load), degrees (angle) or turns. A stack of blocks is typed as a sum: 89+38+12. Comma and point are both the decimal mark.
    Turns take a direction word: shorter, in and down are minus.
    Raises ShopNotationError, or WrongKindError where the unit typed is of another kind, with a sentence for the field.
    """
    if kind == "length" and "+" in text.strip()[1:]:
        stack = [read(part, kind, units) for part in text.strip().split("+")]
        whole = 0 if any(f.denominator == 0 for f in stack) else max(f.denominator for f in stack)
        return Figure(math.fsum(f.value for f in stack), whole, text.strip())
    plain, sign = _plain(text, kind)
    parts = _parts(plain, kind, text)
    total, smallest = Fraction(0), None
    for i, part in enumerate(parts):
        scale = part.scale
        if scale is None:
            scale = _FOLLOWING[kind].get(smallest) if smallest else units.plain(kind)
        if i and (parts[i - 1].scale is None or scale is None or _FOLLOWING[kind].get(smallest or Fraction(0)) != scale):
            raise ShopNotationError(
                f"“{text.strip()}” holds two numbers. Type one figure, such as {_KIND_EXAMPLES[kind]}.", text
            )
        assert scale is not None
        if i and parts[i - 1].number.denominator != 1:
            raise ShopNotationError(
                f"“{text.strip()}” has a part of a larger unit before the smaller one. Say it in one of them.", text
            )
        if i and kind != "turns" and part.number * scale >= (smallest or 0):
            raise ShopNotationError(f"“{text.strip()}”: the smaller unit holds a whole larger one. Type it again.", text)
        total, smallest = total + part.number * scale, scale
    try:
        value = float(sign * total)
    except OverflowError:
        value = math.inf
    if not math.isfinite(value):
        raise ShopNotationError("That figure has no end. Type what the tool reads.", text)
    fraction = 0 if any(p.denominator == 0 for p in parts) else max(p.denominator for p in parts)
    return Figure(value, fraction, text.strip())


def _plain(text: str, kind: Kind) -> tuple[str, int]:
    """Return the text with one sign for each thing, lower case, and the sign of the whole taken off."""
    if len(text) > LONGEST_TEXT:
        raise ShopNotationError(
            f"That is {len(text)} characters long. Type one figure, such as {_KIND_EXAMPLES[kind]}.", text[:LONGEST_TEXT]
        )
    spread = "".join(
        f" {unicodedata.normalize('NFKC', ch)} " if unicodedata.decomposition(ch).startswith("<fraction>") else ch
        for ch in text
    )
    plain = spread.translate(_SAME).translate(_SAME).lower().replace("''", '"').strip()
    plain = re.sub(r"(?<=\d),(?=\d)", ".", plain)
    sign = 1
    if kind == "turns" and (way := re.search(r"(longer|shorter|out|in|up|down|more|less|added|removed)\s*$", plain)):
        sign, plain = _TURN_WAYS[way[1]], plain[: way.start()].strip()
    if plain[:1] in "+-" and plain:
        sign, plain = (-sign if plain[0] == "-" else sign), plain[1:].strip()
    if not plain:
        raise ShopNotationError(f"Nothing is typed yet. Type {_KIND_WORDS[kind]}, such as {_KIND_EXAMPLES[kind]}.", text)
    if not plain.isascii() and any(not ch.isascii() and ch != "°" for ch in plain):
        odd = next(ch for ch in plain if not ch.isascii() and ch != "°")
        raise ShopNotationError(
            f"“{odd}” belongs to no figure. Type {_KIND_WORDS[kind]}, such as {_KIND_EXAMPLES[kind]}.", text
        )
    return plain, sign


def _parts(plain: str, kind: Kind, text: str) -> list[_Part]:
    """Split into numbers with their units; refuse whatever is neither."""
    parts: list[_Part] = []
    rest = plain
    while rest:
        if parts and parts[-1].scale is not None and rest[0] == "-":  # 3'-2 1/2"
            rest = rest[1:].lstrip()
        number = _NUMBER.match(rest)
        if not number:
            said = rest.strip()
            raise ShopNotationError(f"“{said}” is not {_KIND_WORDS[kind]}. Type a figure such as {_KIND_EXAMPLES[kind]}.", text)
        whole, over, under, decimal = number.groups()
        rest = rest[number.end() :].lstrip()
        if rest[:1] == "/":
            raise ShopNotationError(
                f"The fraction in “{text.strip()}” is unfinished. Type its lower figure, such as 3/4.", text
            )
        if decimal is None and int(under) == 0:
            raise ShopNotationError(f"“{over}/0” divides by nothing. Type the lower figure of the fraction, such as 3/4.", text)
        value = Fraction(decimal) if decimal else Fraction(int(whole or 0)) + Fraction(int(over), int(under))
        if kind == "angle" and not parts and rest[:1] in ("'", '"') and rest:
            raise WrongKindError(
                f"“{text.strip()}” could be feet or inches; {_KIND_WORDS[kind]} is asked for. Minutes alone are said 0°15'.",
                text,
            )
        scale, rest = _unit(rest, kind, text)
        typed_as = int(under) if decimal is None else int("." not in decimal)
        parts.append(_Part(value, typed_as, scale))
        if rest[:1] == ".":
            raise ShopNotationError(f"“{text.strip()}” has two decimal marks. Type it with one.", text)
    return parts


def _unit(rest: str, kind: Kind, text: str) -> tuple[Fraction | None, str]:
    """Take the unit off the front of what is left, if there is one."""
    word = _WORD.match(rest)
    if not word:
        return None, rest
    after = rest[word.end() :].lstrip(" .") if word[0].isalpha() else rest[word.end() :].lstrip()
    if word[0] in _MARKS[kind]:
        return _MARKS[kind][word[0]], after
    found = _UNIT_WORDS.get(word[0]) or (("length", 12 * MM_PER_INCH) if word[0] == "'" else None)
    if found is None:
        raise ShopNotationError(f"“{word[0]}” is no unit here. Type {_KIND_WORDS[kind]}, such as {_KIND_EXAMPLES[kind]}.", text)
    if found[0] != kind:
        raise WrongKindError(
            f"“{text.strip()}” is {_KIND_WORDS[found[0]]}; {_KIND_WORDS[kind]} is asked for, such as {_KIND_EXAMPLES[kind]}.",
            text,
        )
    return found[1], after


def read_length(text: str, units: Units) -> Figure:
    """Return a length in mm; see :func:`read`.

    >>> read_length("37-3/4", Units("inch_fraction")).value
    958.85
    """
    return read(text, "length", units)


def read_angle(text: str) -> Figure:
    """Return an angle in degrees; see :func:`read`.

    >>> read_angle("-1°15'").value
    -1.25
    """
    return read(text, "angle", Units())


def read_turns(text: str) -> Figure:
    """Return turns, minus for shorter, in and down; see :func:`read`.

    >>> read_turns("1 1/2 turns in").value
    -1.5
    """
    return read(text, "turns", Units())


def _signed(negative: bool, text: str) -> str:
    return f"−{text}" if negative else text


def _mixed(value: Fraction) -> str:
    whole, part = divmod(value, 1)
    if not part:
        return str(whole)
    fraction = f"{part.numerator}/{part.denominator}"
    return f"{whole} {fraction}" if whole else fraction


@lru_cache(maxsize=8192)  # a long log says the same few hundred figures again and again
def say_length(mm: float, units: Units, *, denominator: int | None = None, unit: bool = False) -> str:
    """Return a length in the car's unit; inch fractions to ``denominator`` (the car's finest where None, decimals where 0).

    >>> say_length(958.85, Units("inch_fraction", 16), unit=True)
    '37 3/4"'
    >>> say_length(-0.04, Units())
    '0.0'
    """
    if not units.inches:
        text = f"{abs(mm):.1f}"
        return _signed(mm < 0 and float(text) != 0, text) + (" mm" if unit else "")
    over = (units.finest if units.system == "inch_fraction" else 0) if denominator is None else denominator
    if over:
        steps = round(Fraction(abs(mm)) / MM_PER_INCH * over)
        text, empty = _mixed(Fraction(steps, over)), steps == 0
    else:
        text = f"{abs(mm) / float(MM_PER_INCH):.3f}"
        empty = float(text) == 0
    return _signed(mm < 0 and not empty, text) + ('"' if unit else "")


def say_field(mm: float, units: Units, denominator: int | None = None) -> str:
    """Return a length for a field that may be typed over: to the fraction it was typed as, else as a fraction only where exact.

    >>> say_field(95.25, Units("inch_fraction", 32)), say_field(95.0, Units("inch_fraction", 32)), say_field(952.0, Units())
    ('3 3/4', '3.740', '952')
    """
    if not units.inches:
        return f"{mm:.4f}".rstrip("0").rstrip(".").replace("-", "−")
    exact = Fraction(mm) / MM_PER_INCH * units.finest
    fraction = units.finest if units.system == "inch_fraction" and abs(exact - round(exact)) < Fraction(1, 10**6) else 0
    return say_length(mm, units, denominator=max(denominator, units.finest) if denominator else fraction)


def say_small_length(mm: float, units: Units) -> str:
    """Return a length too small for a fraction, such as an uncertainty: mm to 0.1, inches to a thousandth."""
    return say_length(mm, units, denominator=0, unit=True)


def say_angle(deg: float, decimals: int = 2) -> str:
    """Return an angle in degrees with its sign.

    >>> say_angle(-1.25)
    '−1.25°'
    """
    text = f"{abs(deg):.{decimals}f}"
    return _signed(deg < 0 and float(text) != 0, f"{text}°")


def say_mass(kg: float, units: Units, decimals: int = 1) -> str:
    """Return a load in the car's unit.

    >>> say_mass(143.5, Units()), say_mass(143.5, Units("inch_fraction"))
    ('143.5 kg', '316.4 lb')
    """
    value = kg / float(KG_PER_LB) if units.inches else kg
    text = f"{abs(value):.{decimals}f}"
    return _signed(value < 0 and float(text) != 0, f"{text} {'lb' if units.inches else 'kg'}")


def say_turns(turns: float) -> str:
    """Return turns and flats without a sign; the direction is said in words beside it.

    >>> say_turns(8 / 6), say_turns(1.5), say_turns(-1 / 6)
    ('1 turn 2 flats', '1½ turns', '1 flat')
    """
    flats = abs(turns) * FLATS_PER_TURN
    if abs(flats - round(flats)) > 1e-6:  # flats; a turn not in whole flats was typed as a decimal
        return f"{abs(turns):.2f} turns"
    whole, rest = divmod(round(flats), FLATS_PER_TURN)
    if rest == FLATS_PER_TURN // 2:
        return f"{whole}½ turns" if whole else "½ turn"
    said = [f"{whole} turn{'s' * (whole != 1)}"] * bool(whole) + [f"{rest} flat{'s' * (rest != 1)}"] * bool(rest)
    return " ".join(said) or "no turn"


def nearest_flats(turns: float, flats_per_step: int = 1) -> float:
    """Return turns rounded to the nearest step of so many flats; a tie goes to the smaller movement.

    >>> nearest_flats(0.25) * 6
    1.0
    """
    steps = abs(turns) * FLATS_PER_TURN / flats_per_step
    whole = math.ceil(steps - 0.5 - 1e-9)  # 1e-9 of a step: a tie that rounding moved is still a tie
    return math.copysign(whole * flats_per_step / FLATS_PER_TURN, turns) if whole else 0.0
