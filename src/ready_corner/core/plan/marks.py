"""The kinds of marks, one row each: what it is called, its unit, what is read for it, and the words for either way."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

from ready_corner.core.plan.corners import CORNER_WORDS, CORNERS, Corner
from ready_corner.core.quantities.notation import Units, say_angle, say_length, say_mass, say_small_length, shows_nothing

MarkUnit = Literal["mm", "deg", "kg", "%"]
Sum = tuple[tuple[str, float], ...]  # corner marks, each with its weight


@dataclass(frozen=True)
class ReadBy:
    """One way in which a mark is read at its corner: its ``name`` in plans, its ``words``, and the quantities it takes."""

    name: str
    words: str
    read: tuple[str, ...]


@dataclass(frozen=True)
class MarkKind:
    """One kind of mark.

    ``ways``: how it is read at its corner, the usual one first; none for what is made of corner marks: ``sums`` of them by place, where they
    do not hang on the figures themselves. ``corners``: where it is read. ``aimed``: whether a plan has aims for it, ``only_aimed``: whether
    nobody asks for it where there is none; ``stage``: at which it is set. ``plus`` and ``minus``: what such
    values are called (the figure keeps its sign where empty); ``under`` and ``over``: what is needed, with the size of the miss; ``do_under``
    and ``do_over``: the same as short as a drawing needs it. ``short``: as it stands in the walk-round.
    """

    label: str
    unit: MarkUnit
    ways: tuple[ReadBy, ...]
    plus: str
    minus: str
    under: str
    over: str
    do_under: str
    do_over: str
    sums: Mapping[str, Sum] | None = None
    corners: tuple[Corner, ...] = CORNERS
    aimed: bool = True
    only_aimed: bool = False
    short: str = ""
    stage: Literal["Stance", "Set"] = "Set"

    @property
    def read(self) -> tuple[str, ...]:
        """What is read for it in the usual way."""
        return self.ways[0].read if self.ways else ()

    @property
    def every(self) -> tuple[str, ...]:
        """What is read for it in any way."""
        return tuple(dict.fromkeys(q for way in self.ways for q in way.read))

    def way(self, name: str) -> ReadBy:
        """Return a way by its name; the usual one where there is none such."""
        return next((w for w in self.ways if w.name == name), self.ways[0])


_TOTAL: Mapping[str, Sum] = {"front": (("LF.toe", 1.0), ("RF.toe", 1.0)), "rear": (("LR.toe", 1.0), ("RR.toe", 1.0))}
_HALF: Sum = (("LR.toe", -0.5), ("RR.toe", 0.5))
_DIAGONAL: Sum = (("LF.height", 1.0), ("RF.height", -1.0), ("LR.height", -1.0), ("RR.height", 1.0))

_TAPE = ReadBy("tape", "tape", ("height",))
_SWEEP = ReadBy("sweep", "sweep on turn plates", ("sweep_in", "sweep_out", "plate_in", "plate_out"))
_BAR = ReadBy("bar", "gauge on a bar across the ball joints", ("caster",))
_PLUMB = ReadBy("plumb", "plumb lines and rule", ("caster_offset", "joint_height"))

MARK_KINDS: Mapping[str, MarkKind] = {
    "height": MarkKind("ride height", "mm", (_TAPE,), "", "", "{} too low", "{} too high", "up {}", "down {}", short="height", stage="Stance"),
    "caster": MarkKind(
        "caster", "deg", (_SWEEP, _BAR, _PLUMB), "", "", "needs {} more caster", "needs {} less caster", "more caster {}", "less caster {}",
        corners=("LF", "RF"), only_aimed=True,
    ),
    "inclination": MarkKind(
        "inclination", "deg", (replace(_BAR, read=("inclination",)), replace(_PLUMB, read=("inclination_offset", "joint_height")), _SWEEP),
        "", "", "needs {} more inclination", "needs {} less inclination", "top in {}", "top out {}", corners=("LF", "RF"), only_aimed=True,
    ),
    "camber": MarkKind(
        "camber", "deg", (ReadBy("gauge", "gauge on the rim", ("camber",)), ReadBy("plumb", "plumb line and rule", ("lean_top", "lean_bottom"))),
        "", "", "needs {} less lean in", "needs {} more lean in", "lean out {}", "lean in {}",
    ),
    "toe": MarkKind(
        "toe", "deg",
        (
            ReadBy("string", "string and rule", ("gap_front", "gap_back")),
            ReadBy("rail", "straight edge along a proved rail", ("edge_front", "edge_back")),
            ReadBy("bars", "hub bars and a line down the middle", ("bar_front", "bar_back")),
        ),
        "in", "out", "needs {} more in", "needs {} more out", "toe in {}", "toe out {}",
    ),
    "load": MarkKind("load", "kg", (ReadBy("scales", "scales", ("load",)),), "", "", "{} too little", "{} too much", "{} more", "{} less", aimed=False, stage="Stance"),
    "wheelbase": MarkKind(
        "wheelbase", "mm", (ReadBy("trammel", "trammel", ("wheelbase",)),), "", "", "{} too short", "{} too long", "longer {}", "shorter {}", corners=("LF", "RF"), aimed=False
    ),
    "total_toe": MarkKind(
        "total toe", "deg", (ReadBy("toes", "the toes of both wheels", ()), ReadBy("plates", "toe plates and tape", ("plates_front", "plates_back"))),
        "in", "out", "needs {} more in", "needs {} more out", "toe in {}", "toe out {}", _TOTAL, only_aimed=True,
    ),
    "thrust": MarkKind(
        "thrust angle", "deg", (), "to the left", "to the right", "needs {} more to the left", "needs {} more to the right", "left {}", "right {}",
        {"car": _HALF},
    ),
    "rake": MarkKind(
        "rake", "deg", (), "nose down", "nose up", "needs {} more nose down", "needs {} more nose up", "nose down {}", "nose up {}", {"car": ()}, stage="Stance",
    ),
    "cross": MarkKind(
        "cross difference of heights", "mm", (), "LF+RR up", "RF+LR up", "left front and right rear {} too low",
        "left front and right rear {} too high", "up {}", "down {}", {"car": _DIAGONAL}, short="cross difference", stage="Stance",
    ),
    "cross_weight": MarkKind(
        "cross weight", "%", (), "", "", "needs {} more on right front and left rear", "needs {} more on left front and right rear",
        "right front and left rear {} more", "left front and right rear {} more", {"car": ()}, stage="Stance",
    ),
    "setback": MarkKind(
        "setback", "mm", (), "right front further back", "left front further back", "right front {} too far forward",
        "right front {} too far back", "right front back {}", "right front forward {}", {"car": (("LF.wheelbase", 1.0), ("RF.wheelbase", -1.0))},
    ),
}  # fmt: skip


@dataclass(frozen=True)
class OfMark:
    """A figure of a mark, in its unit: a value, the size of a difference, an uncertainty, or how far it is off its aim. ``denominator``: of the
    fraction it is said in, 0 as a decimal, None as the car says it."""

    mark: str
    value: float
    denominator: int | None = None


CORNER_KINDS = tuple(k for k, row in MARK_KINDS.items() if row.sums is None)
AIMED_KINDS = tuple(k for k in CORNER_KINDS if MARK_KINDS[k].aimed)
ANGLES = tuple(k for k in AIMED_KINDS if MARK_KINDS[k].unit == "deg")  # in the order in which they are set
STEERED = ("caster", "inclination")  # angles of the steering axis
OVER_FLOOR = (*STEERED, "camber")  # angles against gravity, into which the slope of the floor goes
WHOLE_MARKS = tuple(f"{place}.{k}" for k, row in MARK_KINDS.items() for place in row.sums or ())
MARKS = tuple(f"{c}.{k}" for k in AIMED_KINDS for c in MARK_KINDS[k].corners) + WHOLE_MARKS


@lru_cache(maxsize=512)
def kind_of(mark: str) -> str:
    """Return the kind of a mark: its last word."""
    return mark.rsplit(".", 1)[1]


def is_length(mark: str) -> bool:
    """Whether a mark is in mm."""
    return MARK_KINDS[kind_of(mark)].unit == "mm"


def say_mark(mark: str) -> str:
    """Return a mark with its place: “left front camber”, “front total toe”, “thrust angle”."""
    place, kind = mark.rsplit(".", 1)
    where = next((words for corner, words in CORNER_WORDS.items() if corner == place), "" if place == "car" else place)
    return f"{where} {MARK_KINDS[kind].label}".strip()


def say_marks(marks: Sequence[str]) -> str:
    """Return several marks, those of a place together: “left front camber and toe; thrust angle”."""
    places: dict[str, list[str]] = {}
    for mark in marks:
        places.setdefault(mark.rsplit(".", 1)[0], []).append(mark)
    rows = [[say_mark(own[0]), *(MARK_KINDS[kind_of(m)].label for m in own[1:])] for own in places.values()]
    return "; ".join(" and ".join([", ".join(row[:-1]), row[-1]] if len(row) > 1 else row) for row in rows)


def say_value(mark: str, value: float, units: Units, denominator: int | None = None) -> str:
    """Return a value as the builder says it: “0.10° in”, “−1.25°”, “4 1/2"”."""
    words = MARK_KINDS[kind_of(mark)]
    if not words.plus:
        return _plain(mark, value, units, denominator)
    said = say_size(mark, value, units, denominator)
    return said if shows_nothing(said) else f"{said} {say_way(mark, value)}"


def say_way(mark: str, value: float) -> str:
    """Return what a value of a mark is called by its way: “in”, “to the left”; empty where the figure keeps its sign."""
    words = MARK_KINDS[kind_of(mark)]
    return words.plus if value > 0 else words.minus


def say_size(mark: str, size: float, units: Units, denominator: int | None = None) -> str:
    """Return the size of a difference, without a way."""
    return _plain(mark, abs(size), units, denominator)


def _plain(mark: str, value: float, units: Units, denominator: int | None = None) -> str:
    """Return a figure of a mark with its sign and unit."""
    if is_length(mark):
        return say_length(value, units, denominator=denominator, unit=True)
    if MARK_KINDS[kind_of(mark)].unit == "%":
        return f"{value:.1f} %".replace("-", "−")
    return say_mass(value, units) if MARK_KINDS[kind_of(mark)].unit == "kg" else say_angle(value)


def say_uncertainty(mark: str, expanded: float, units: Units) -> str:
    """Return U as “± 0.12°”."""
    return f"± {say_small_length(expanded, units) if is_length(mark) else _plain(mark, expanded, units)}"


def say_need(mark: str, deviation: float, units: Units) -> str:
    """Return what a mark off its aim needs: “3.5 mm too high”, “needs 0.90° more lean in”."""
    words = MARK_KINDS[kind_of(mark)]
    return (words.under if deviation < 0 else words.over).format(_size_of_miss(mark, deviation, units))


def say_do(mark: str, deviation: float, units: Units) -> str:
    """Return the same as short as a drawing needs it: “down 3.5 mm”, “toe out 0.91°”."""
    words = MARK_KINDS[kind_of(mark)]
    return (words.do_under if deviation < 0 else words.do_over).format(_size_of_miss(mark, deviation, units))


def _size_of_miss(mark: str, deviation: float, units: Units) -> str:
    size = say_size(mark, deviation, units)
    return say_small_length(abs(deviation), units) if is_length(mark) and size in ('0"', "0.0 mm") else size
