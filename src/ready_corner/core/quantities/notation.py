"""Shop notation in and out: lengths in mm or inch fractions, angles in degrees and minutes, turns and flats, loads in kg or lb.

Lengths come back in millimetres, angles in degrees, turns in turns (a flat is a sixth of one), loads in kilograms. Values are built as exact
fractions and rounded to a float once, so that printing and reading back is the identity.
"""

import math
import re
import unicodedata
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from typing import Literal

from ready_corner.core.quantities.errors import MeasuredError, PlannedError
from ready_corner.core.quantities.finding import Finding, finding

MM_PER_INCH = Fraction(254, 10)  # exact, by the definition of the inch
KG_PER_LB = Fraction(45359237, 100000000)  # exact, by the definition of the pound
N_PER_LBF = Fraction(44482216152605, 10**13)  # exact: the pound times standard gravity, 9.80665 m/s²
N_PER_KGF = Fraction(980665, 100000)
N_MM_PER_LBF_IN = N_PER_LBF / MM_PER_INCH  # a spring rate of one pound to the inch
NM_PER_LBF_FT = N_PER_LBF * 12 * MM_PER_INCH / 1000
FLATS_PER_TURN = 6
LONGEST_TEXT = 60  # characters; nothing a builder reads off a tool is longer

System = Literal["mm", "inch_fraction", "inch_decimal"]
Kind = Literal["length", "angle", "turns", "mass", "rate", "torsion"]
FINEST = (16, 32, 64)

_UNIT_WORDS: dict[str, tuple[Kind, Fraction]] = {
    **dict.fromkeys(("mm", "millimetre", "millimetres", "millimeter", "millimeters"), ("length", Fraction(1))),
    **dict.fromkeys(("cm", "centimetre", "centimetres", "centimeter", "centimeters"), ("length", Fraction(10))),
    **dict.fromkeys(("m", "metre", "metres", "meter", "meters"), ("length", Fraction(1000))),
    **dict.fromkeys(("thou", "thous"), ("length", MM_PER_INCH / 1000)),
    **dict.fromkeys(('"', "in", "inch", "inches"), ("length", MM_PER_INCH)),
    **dict.fromkeys(("ft", "foot", "feet"), ("length", 12 * MM_PER_INCH)),
    **dict.fromkeys(("°", "deg", "degs", "degree", "degrees"), ("angle", Fraction(1))),
    **dict.fromkeys(("min", "minute", "minutes"), ("angle", Fraction(1, 60))),
    **dict.fromkeys(("sec", "second", "seconds"), ("angle", Fraction(1, 3600))),
    **dict.fromkeys(("kg",), ("mass", Fraction(1))),
    **dict.fromkeys(("lb", "lbs", "pound", "pounds"), ("mass", KG_PER_LB)),
    **dict.fromkeys(("n/mm",), ("rate", Fraction(1))),
    **dict.fromkeys(("n/m",), ("rate", Fraction(1, 1000))),
    **dict.fromkeys(("kn/m",), ("rate", Fraction(1))),
    **dict.fromkeys(("kg/mm", "kgf/mm"), ("rate", N_PER_KGF)),
    **dict.fromkeys(("lbf/in", "lb/in", "lbs/in"), ("rate", N_MM_PER_LBF_IN)),
    **dict.fromkeys(("nm/deg", "nm/°"), ("torsion", Fraction(1))),
    **dict.fromkeys(("lbfft/deg", "lbft/deg", "ftlb/deg", "lbfft/°"), ("torsion", NM_PER_LBF_FT)),
    **dict.fromkeys(("t", "turn", "turns"), ("turns", Fraction(1))),
    **dict.fromkeys(("shim", "shims", "mark", "marks", "spline", "splines"), ("turns", Fraction(1))),
    **dict.fromkeys(("f", "flat", "flats"), ("turns", Fraction(1, FLATS_PER_TURN))),
}
# ' and " are feet and inches on a tape, minutes and seconds on a gauge.
_DEGREES = ("°", "deg", "degs", "degree", "degrees")
_MARKS: dict[Kind, dict[str, Fraction]] = {
    "length": {"'": 12 * MM_PER_INCH, '"': MM_PER_INCH},
    "angle": {"'": Fraction(1, 60), '"': Fraction(1, 3600)},
    "turns": dict.fromkeys(_DEGREES, Fraction(1, 360)),  # 60° of a turn is a flat
    "mass": {},
    "rate": {},
    "torsion": {},
}
_KIND_WORDS: dict[Kind, str] = {
    "length": "a length",
    "angle": "an angle",
    "turns": "turns and flats",
    "mass": "a load",
    "rate": "a spring rate",
    "torsion": "a torsion rate",
}
_KIND_EXAMPLES: dict[Kind, str] = {
    "length": "37 3/4 or 952 mm",
    "angle": "-1.25 or -1°15'",
    "turns": "2t1f or 1 1/2 turns",
    "mass": "143.5 kg or 316 lb",
    "rate": "21.4 N/mm or 122 lbf/in",
    "torsion": "35 N·m/deg or 26 lbf·ft/deg",
}
# The words for either way, as they are printed beside a figure; the figure takes their sign.
_WAYS: dict[Kind, dict[str, int]] = {
    "turns": {"longer": 1, "shorter": -1, "out": 1, "in": -1, "up": 1, "down": -1, "more": 1, "less": -1, "added": 1, "removed": -1},
    "angle": {"in": 1, "out": -1, "to the left": 1, "to the right": -1, "left": 1, "right": -1, "nose down": 1, "nose up": -1, "in more": 1},
    "length": {"forward": 1, "aft": -1, "left": 1, "right": -1, "up": 1, "down": -1, "high": 1, "low": -1, "longer": 1, "shorter": -1},
    "mass": {}, "rate": {}, "torsion": {},
}  # fmt: skip
_WORDS_OF_TURNS = (
    (re.compile(r"\band\b"), " "),
    (re.compile(r"\bno turn\b"), "0 turns"),
    (re.compile(r"\bthree[ -]quarters?( of)?( an?)?\b"), "3/4"),
    (re.compile(r"\b(an? |one )?half( of)?( an?)?\b"), "1/2"),
    (re.compile(r"\b(an? |one )?quarter( of)?( an?)?\b"), "1/4"),
)
# The larger unit, and those that may follow it in the same figure; the first is that of a figure without one.
_FOLLOWING: dict[Kind, dict[Fraction, tuple[Fraction, ...]]] = {
    "length": {12 * MM_PER_INCH: (MM_PER_INCH,)},
    "angle": {Fraction(1): (Fraction(1, 60),), Fraction(1, 60): (Fraction(1, 3600),)},
    "turns": {Fraction(1): (Fraction(1, FLATS_PER_TURN), Fraction(1, 360))},
    "mass": {},
    "rate": {},
    "torsion": {},
}
_THOUSAND = re.compile(r"(?<![\d.,/])(\d{1,3}),(\d{3})(?![\d,])")
_APOSTROPHE = re.compile(r"(?<!\d)(\d{1,3})'(\d{3})(?!\d)")

_SAME = str.maketrans({
    "−": "-", "–": "-", "—": "-", "‐": "-", "‑": "-", "⁄": "/", "∕": "/", "′": "'", "’": "'", "‘": "'",
    "″": '"', "”": '"', "“": '"', "º": "°", "˚": "°", "\u00a0": " ", "\u2009": " ", "\u202f": " ",
})  # fmt: skip
_NUMBER = re.compile(r"(?:(\d+)\s*[-\s]\s*)?(\d+)\s*/\s*(\d+)|(\d+\.\d*|\.\d+|\d+)")
_WORD = re.compile(r"[a-z]+|[°'\"]")
_RATE_WORD = re.compile(r"[a-z]+(?:/[a-z°]+)?")


class ShopNotationError(MeasuredError):
    """What was typed is not a figure in shop notation; ``text`` is what was typed."""

    code = "not_shop_notation"

    def __init__(self, what: Finding, text: str) -> None:
        super().__init__(what)
        self.text = text


class WrongKindError(ShopNotationError):
    """A length where an angle is asked, or the like."""

    code = "wrong_kind_of_figure"


_INCH_CARS: dict[Kind, Fraction] = {"mass": KG_PER_LB, "rate": N_MM_PER_LBF_IN, "torsion": NM_PER_LBF_FT}


@dataclass(frozen=True)
class Units:
    """How one car says its lengths: ``finest`` is the denominator of its smallest inch fraction."""

    system: System = "mm"
    finest: int = 32

    def __post_init__(self) -> None:
        if self.system not in ("mm", "inch_fraction", "inch_decimal"):
            raise PlannedError(finding("units.unknown", system=repr(self.system)), path="units.system")
        if self.finest not in FINEST:
            raise PlannedError(
                finding("units.finest", finest=self.finest),
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
        """What a figure of a kind without a unit is counted in: mm, degrees, turns, kg, N/mm or N·m a degree; in an inch car its like."""
        return self.bare if kind == "length" else _INCH_CARS.get(kind, Fraction(1)) if self.inches else Fraction(1)


@dataclass(frozen=True)
class Figure:
    """A figure as read: value in mm, degrees or turns.

    ``denominator`` is that of the finest fraction typed, 1 for a whole number, 0 for a decimal, and for what was typed in millimetres in
    an inch car. ``foreign``: typed in a unit that the car does not use.
    """

    value: float
    denominator: int
    text: str
    foreign: bool = False


@dataclass(frozen=True)
class _Part:
    number: Fraction
    denominator: int
    scale: Fraction | None


def read(text: str, kind: Kind, units: Units) -> Figure:
    """Return the figure typed: mm for a length, degrees for an angle, turns for turns, kg for a load.

    What has no unit is in the car's unit (length, load), degrees (angle) or turns. A stack of blocks is typed as a sum: 89+38+12. Comma and point are both the
    decimal mark, but a comma before exactly three digits asks in millimetres and in pounds. A direction word gives the sign: shorter, out and down are minus of
    turns; out, right and nose up of an angle.
    Raises ShopNotationError, or WrongKindError where the unit typed is of another kind, with a sentence for the field.

    >>> read("12 - 1/2", "length", Units("inch_fraction")).value == 12.5 * 25.4
    True
    """
    if kind == "length" and "+" in text.strip()[1:]:
        return _stack(text, units)
    plain, sign = _plain(text, kind)
    _ask_about_marks(plain, kind, text)
    parts = _parts(re.sub(r"(?<=\d),(?=\d)", ".", plain), kind, text)
    total, smallest, scales = Fraction(0), None, []
    for i, part in enumerate(parts):
        scale, follows = part.scale, _FOLLOWING[kind].get(smallest or Fraction(0), ())
        if scale is None:
            scale = units.plain(kind) if smallest is None else follows[0] if follows else None
            if i and scale is None and smallest == MM_PER_INCH and part.denominator > 1 and part.number < 1:
                scale, follows = MM_PER_INCH, (MM_PER_INCH,)  # 37" 1/4
        if i and (parts[i - 1].scale is None or scale not in follows):
            raise ShopNotationError(finding("notation.two-numbers", text=text.strip(), example=_KIND_EXAMPLES[kind]), text)
        assert scale is not None
        if i and parts[i - 1].number.denominator != 1:
            raise ShopNotationError(finding("notation.larger-part", text=text.strip()), text)
        if i and kind != "turns" and part.number * scale >= (smallest or 0):
            raise ShopNotationError(finding("notation.smaller-whole", text=text.strip()), text)
        total, smallest = total + part.number * scale, scale
        scales.append(scale)
    _ask_about_thousands(plain, kind, scales, text)
    try:
        value = float(sign * total)
    except OverflowError:
        value = math.inf
    if not math.isfinite(value):
        raise ShopNotationError(finding("notation.no-end"), text)
    foreign = any(_foreign(scale, kind, units) for scale in scales)
    fraction = 0 if (foreign and units.inches) or any(p.denominator == 0 for p in parts) else max(p.denominator for p in parts)
    return Figure(value, fraction, text.strip(), foreign)


def read_row(text: str, units: Units, most: int = 3) -> list[Figure]:
    """Return the lengths typed in one line, mm: one figure, or exactly ``most`` of them with semicolons, tabs or commas and a space between.

    Raises ShopNotationError with the sentence for the field.

    >>> [f.value for f in read_row("95; -265,5; 31cm", Units("mm"))]
    [95.0, -265.5, 310.0]
    """
    parts = _line(text)
    if len(parts) not in (1, most):
        raise ShopNotationError(finding("notation.row", text=text.strip(), count=len(parts), wanted=most), text)
    return [read(part, "length", units) for part in parts]


def read_list(text: str, units: Units) -> list[Figure]:
    """Return the lengths typed in one line, mm, as many as there are; raises ShopNotationError with the sentence for the field.

    >>> [f.value for f in read_list("0.5; 1; 3;", Units("mm"))]
    [0.5, 1.0, 3.0]
    """
    parts = [part for part in _line(text) if part.strip()]
    return [read(part, "length", units) for part in parts or [text]]


def _line(text: str) -> list[str]:
    return re.split(r"[;\t]|,\s+", text.strip())


def _stack(text: str, units: Units) -> Figure:
    """Return a stack of blocks; each part has its own unit, and a sum with some parts bare and one with a unit asks."""
    typed = text.strip().split("+")
    with_unit = [bool(re.search(r"[a-z'\"]", part.translate(_SAME).lower())) for part in typed]
    if any(with_unit) and not all(with_unit) and all(part.strip() for part in typed):
        bare, unit = typed[with_unit.index(False)].strip(), typed[with_unit.index(True)].strip()
        raise ShopNotationError(
            finding("notation.which-unit", text=text.strip(), bare=bare, unit=unit),
            text,
        )
    stack = [read(part, "length", units) for part in typed]
    whole = 0 if any(f.denominator == 0 for f in stack) else max(f.denominator for f in stack)
    return Figure(math.fsum(f.value for f in stack), whole, text.strip(), any(f.foreign for f in stack))


def _foreign(scale: Fraction, kind: Kind, units: Units) -> bool:
    """Whether a unit is not one that the car uses: metric in an inch car, inches in a metric one; loads alike."""
    if kind == "length":
        return (scale % (MM_PER_INCH / 1000) == 0) != units.inches
    return kind in _INCH_CARS and (scale == _INCH_CARS[kind]) != units.inches


def _ask_about_marks(plain: str, kind: Kind, text: str) -> None:
    if kind in ("length", "mass") and (mark := _APOSTROPHE.search(plain)):
        whole = int(mark[1] + mark[2])
        raise ShopNotationError(finding("notation.apostrophe", text=text.strip(), whole=whole), text)


def _ask_about_thousands(plain: str, kind: Kind, scales: list[Fraction], text: str) -> None:
    """Ask where a comma may stand for a thousand: in millimetres and in pounds, before exactly three digits."""
    mark = _THOUSAND.search(plain)
    if mark and ((kind == "length" and Fraction(1) in scales) or (kind == "mass" and KG_PER_LB in scales)):
        raise ShopNotationError(
            finding("notation.comma", text=text.strip(), before=mark[1], after=mark[2], mark=mark[1], mark_2=mark[2]),
            text,
        )


def _plain(text: str, kind: Kind) -> tuple[str, int]:
    """Return the text with one sign for each thing, lower case, and the sign of the whole taken off."""
    if len(text) > LONGEST_TEXT:
        raise ShopNotationError(
            finding("notation.too-long", length=len(text), example=_KIND_EXAMPLES[kind]), text[:LONGEST_TEXT]
        )
    spread = "".join(
        f" {unicodedata.normalize('NFKC', ch)} " if unicodedata.decomposition(ch).startswith("<fraction>") else ch
        for ch in text
    )
    plain = spread.translate(_SAME).translate(_SAME).lower().replace("''", '"').strip()
    if kind == "turns":
        for words, figure in _WORDS_OF_TURNS:
            plain = words.sub(figure, plain).strip()
    if kind in ("rate", "torsion"):  # N·m per degree, lbf ft/deg: one word
        plain = re.sub(r"[·⋅*]", "", plain.replace(" per ", "/"))
        plain = re.sub(
            r"(?<=[a-z/°])\s+(?=[a-z/°])|\s*/\s*(?=[a-z°])|(?<=[a-z])\s*/\s*", lambda m: "/" if "/" in m[0] else "", plain
        )
        plain = re.sub(r"degrees?$", "deg", plain)
    plain, sign = _way(plain.removeprefix("±").strip(), kind)
    if plain[:1] in "+-" and plain:
        sign, plain = (-sign if plain[0] == "-" else sign), plain[1:].strip()
    if not plain:
        raise ShopNotationError(finding("notation.empty", asked=_KIND_WORDS[kind], example=_KIND_EXAMPLES[kind]), text)
    if not plain.isascii() and any(not ch.isascii() and ch != "°" for ch in plain):
        odd = next(ch for ch in plain if not ch.isascii() and ch != "°")
        raise ShopNotationError(finding("notation.odd", odd=odd, asked=_KIND_WORDS[kind], example=_KIND_EXAMPLES[kind]), text)
    return plain, sign


def _way(plain: str, kind: Kind) -> tuple[str, int]:
    """Take a direction word off the end or the beginning of a figure; return the rest and its sign."""
    for word in sorted(_WAYS[kind], key=len, reverse=True):
        if plain.endswith(word) and plain != word and not plain[-len(word) - 1].isalpha():
            return plain[: -len(word)].rstrip(), _WAYS[kind][word]
        if plain.startswith(f"{word} "):
            return plain[len(word) :].strip(), _WAYS[kind][word]
    return plain, 1


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
            raise ShopNotationError(
                finding("notation.not-asked", said=said, asked=_KIND_WORDS[kind], example=_KIND_EXAMPLES[kind]), text
            )
        whole, over, under, decimal = number.groups()
        rest = rest[number.end() :].lstrip()
        if rest[:1] == "/":
            raise ShopNotationError(finding("notation.unfinished", text=text.strip()), text)
        if decimal is None and int(under) == 0:
            raise ShopNotationError(finding("notation.over-nothing", over=over), text)
        value = Fraction(decimal) if decimal else Fraction(int(whole or 0)) + Fraction(int(over), int(under))
        if kind == "angle" and not parts and rest[:1] in ("'", '"') and rest:
            raise WrongKindError(
                finding("notation.feet-or-inches", text=text.strip(), asked=_KIND_WORDS[kind]),
                text,
            )
        scale, rest = _unit(rest, kind, text)
        typed_as = int(under) if decimal is None else int("." not in decimal)
        parts.append(_Part(value, typed_as, scale))
        if rest[:1] == ".":
            raise ShopNotationError(finding("notation.two-marks", text=text.strip()), text)
    return parts


def _unit(rest: str, kind: Kind, text: str) -> tuple[Fraction | None, str]:
    """Take the unit off the front of what is left, if there is one."""
    word = (_RATE_WORD if kind in ("rate", "torsion") else _WORD).match(rest)
    if not word:
        return None, rest
    after = rest[word.end() :].lstrip(" .") if word[0].isalpha() else rest[word.end() :].lstrip()
    if word[0] in _MARKS[kind]:
        return _MARKS[kind][word[0]], after
    found = _UNIT_WORDS.get(word[0]) or (("length", 12 * MM_PER_INCH) if word[0] == "'" else None)
    if found is None:
        raise ShopNotationError(
            finding("notation.no-unit", word=word[0], asked=_KIND_WORDS[kind], example=_KIND_EXAMPLES[kind]), text
        )
    if found[0] != kind:
        raise WrongKindError(
            finding(
                "notation.wrong-kind",
                text=text.strip(),
                typed=_KIND_WORDS[found[0]],
                asked=_KIND_WORDS[kind],
                example=_KIND_EXAMPLES[kind],
            ),
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


HALF_UP = 1e-9  # mm; half of the last digit goes up, as a builder rounds: 0.25 is 0.3


@lru_cache(maxsize=8192)  # a long log says the same few hundred figures again and again
def say_length(mm: float, units: Units, *, denominator: int | None = None, unit: bool = False, decimals: int = 0) -> str:
    """Return a length in the car's unit; inch fractions to ``denominator`` (the car's finest where None, decimals where 0).

    decimals: at least so many, where the usual one of a millimetre or three of an inch would cut off what was typed.

    >>> say_length(958.85, Units("inch_fraction", 16), unit=True)
    '37 3/4"'
    >>> say_length(-0.04, Units())
    '0.0'
    """
    if not units.inches:
        text = f"{abs(mm) + HALF_UP:.{max(1, decimals)}f}"
        return _signed(mm < 0 and float(text) != 0, text) + (" mm" if unit else "")
    over = (units.finest if units.system == "inch_fraction" else 0) if denominator is None else denominator
    if over:
        steps = round(Fraction(abs(mm)) / MM_PER_INCH * over)
        text, empty = _mixed(Fraction(steps, over)), steps == 0
    else:
        text = f"{abs(mm) / float(MM_PER_INCH):.{max(3, decimals)}f}"
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


def in_another_unit(typed: str, units: Units) -> bool:
    """Whether what was typed names a unit of length or load that the car does not use."""
    words = _WORD.findall(typed.translate(_SAME).lower())
    named = [_UNIT_WORDS[w] for w in words if w in _UNIT_WORDS and _UNIT_WORDS[w][0] in ("length", "mass")]
    return any(_foreign(scale, kind, units) for kind, scale in named)


_BARE_DECIMAL = re.compile(r"[-+−±]?\d*[.,](\d{1,6})\D*")


def decimals_of(typed: str) -> int:
    """Return how many decimals a figure was typed with, 0 for a fraction, a sum or a whole number; at most six.

    >>> decimals_of("110.25"), decimals_of("37 3/4"), decimals_of("−1,253°")
    (2, 0, 3)
    """
    found = _BARE_DECIMAL.fullmatch(typed.strip())
    return len(found[1]) if found else 0


def echo(figure: Figure, kind: Kind, units: Units) -> str:
    """Return a figure as it is said back while it is typed: in the car's unit, and as typed too where that was in another.

    >>> echo(read("952 mm", "length", Units("inch_fraction")), "length", Units("inch_fraction"))
    '952 mm = 37.480"'
    >>> echo(read("12 - 1/2", "length", Units("inch_fraction")), "length", Units("inch_fraction"))
    '12 1/2"'
    """
    if kind == "length":
        fraction = units.system == "inch_fraction" and figure.denominator
        said = say_length(figure.value, units, denominator=max(figure.denominator, units.finest) if fraction else 0, unit=True)
    else:
        said = say(figure.value, kind, units)
    return f"{figure.text} = {said}" if figure.foreign else said


def say(value: float, kind: Kind, units: Units) -> str:
    """Return a figure of any kind for reading back, as its field or its echo shows it."""
    if kind == "length":
        return say_field(value, units)
    if kind in ("rate", "torsion"):
        names = {"rate": ("N/mm", "lbf/in"), "torsion": ("N·m/deg", "lbf·ft/deg")}[kind]
        number = _trimmed(value / float(units.plain(kind)), 2 if units.inches and kind == "rate" else 4)
        return f"{number} {names[units.inches]}"
    return say_mass(value, units) if kind == "mass" else say_angle(value) if kind == "angle" else say_turns(value)


def _trimmed(value: float, decimals: int) -> str:
    """Return a decimal without the zeros at its end, and with a true minus."""
    text = f"{value:.{decimals}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return "0" if text in ("-0", "") else text.replace("-", "−")


def in_units(units: Units) -> Callable[[float, int], str]:
    """Return how a car says a length in a sentence of code that does not know its units; see ``say.template``."""

    def said(mm: float, decimals: int) -> str:
        return f'{_trimmed(mm / float(MM_PER_INCH), decimals + 2)}"' if units.inches else f"{mm:.{decimals}f} mm"

    return said


def say_exact(mm: float, units: Units) -> str:
    """Return a length whose digits carry its meaning, a pitch or a shim: no more of them than it has, and none cut off.

    >>> say_exact(1.25, Units()), say_exact(1.27, Units("inch_fraction")), say_exact(25.4 / 24, Units("inch_decimal"))
    ('1.25 mm', '0.05"', '0.041667"')
    >>> say_exact(25.4 / 64, Units("inch_fraction"))
    '1/64"'
    """
    if not units.inches:
        return f"{_trimmed(mm, 4)} mm"
    steps = Fraction(mm) / MM_PER_INCH * FINEST[-1]
    if units.system == "inch_fraction" and round(steps) and abs(steps - round(steps)) < Fraction(1, 10**6):
        return f'{_signed(mm < 0, _mixed(Fraction(abs(round(steps)), FINEST[-1])))}"'
    return f'{_trimmed(mm / float(MM_PER_INCH), 6)}"'


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


def nearest_flats(turns: float, flats_per_step: float = 1) -> float:
    """Return turns rounded to the nearest step of so many flats; a tie goes to the smaller movement.

    >>> nearest_flats(0.25) * 6
    1.0
    """
    steps = abs(turns) * FLATS_PER_TURN / flats_per_step
    whole = math.ceil(steps - 0.5 - 1e-9)  # 1e-9 of a step: a tie that rounding moved is still a tie
    return math.copysign(whole * flats_per_step / FLATS_PER_TURN, turns) if whole else 0.0


def shows_nothing(said: str) -> bool:
    """Whether a figure as it is printed shows no digit but noughts, so that it has no way to either side.

    >>> shows_nothing("0.0 mm"), shows_nothing("0.04°")
    (True, False)
    """
    return not any(digit in said for digit in "123456789")


def signed(said: str, value: float) -> str:
    """Return a size as printed with the sign of its value; without one where it shows nothing."""
    return said if shows_nothing(said) else f"{'−' if value < 0 else '+'}{said}"
