"""How figures of marks are said: units, digits and the words for either way, in one table."""

from collections.abc import Mapping
from dataclasses import dataclass

from ready_corner.core.plan.plan import CORNER_WORDS, MARK_WORDS, is_length
from ready_corner.core.quantities.notation import Units, say_angle, say_length, say_mass, say_small_length


@dataclass(frozen=True)
class KindWords:
    """Words for one kind of mark: what plus and minus values are called, and what it needs when it is under or over its aim.

    Where ``plus`` is empty the figure keeps its sign. ``under`` and ``over`` take the size of the miss; ``do_under`` and
    ``do_over`` say the same as short as a drawing needs it, as what to do.
    """

    plus: str
    minus: str
    under: str
    over: str
    do_under: str
    do_over: str


KINDS: Mapping[str, KindWords] = {
    "height": KindWords("", "", "{} too low", "{} too high", "up {}", "down {}"),
    "camber": KindWords("", "", "needs {} less lean in", "needs {} more lean in", "lean out {}", "lean in {}"),
    "toe": KindWords("in", "out", "needs {} more in", "needs {} more out", "toe in {}", "toe out {}"),
    "total_toe": KindWords("in", "out", "needs {} more in", "needs {} more out", "toe in {}", "toe out {}"),
    "thrust": KindWords(
        "to the left", "to the right", "needs {} more to the left", "needs {} more to the right", "left {}", "right {}"
    ),
    "rake": KindWords("nose down", "nose up", "needs {} more nose down", "needs {} more nose up", "nose down {}", "nose up {}"),
    "cross": KindWords(
        "LF+RR up",
        "RF+LR up",
        "left front and right rear {} too low",
        "left front and right rear {} too high",
        "up {}",
        "down {}",
    ),
    "cross_weight": KindWords("", "", "needs {} more on right front and left rear", "needs {} more on left front and right rear", "right front and left rear {} more", "left front and right rear {} more"),
    "load": KindWords("", "", "{} too little", "{} too much", "{} more", "{} less"),
}  # fmt: skip


def kind_of(mark: str) -> str:
    """Return the kind of a mark: its last word."""
    return mark.rsplit(".", 1)[1]


def say_value(mark: str, value: float, units: Units, denominator: int | None = None) -> str:
    """Return a value as the builder says it: “0.10° in”, “−1.25°”, “4 1/2"”."""
    words = KINDS[kind_of(mark)]
    if not words.plus:
        return _plain(mark, value, units, denominator)
    said = say_size(mark, value, units, denominator)
    return f"{said} {words.plus if value > 0 else words.minus}" if any(digit in said for digit in "123456789") else said


def say_size(mark: str, size: float, units: Units, denominator: int | None = None) -> str:
    """Return the size of a difference, without a way."""
    return _plain(mark, abs(size), units, denominator)


def _plain(mark: str, value: float, units: Units, denominator: int | None = None) -> str:
    """Return a figure of a mark with its sign and unit."""
    if is_length(mark):
        return say_length(value, units, denominator=denominator, unit=True)
    if kind_of(mark) == "cross_weight":
        return f"{value:.1f} %".replace("-", "−")
    return say_mass(value, units) if kind_of(mark) == "load" else say_angle(value)


def say_uncertainty(mark: str, expanded: float, units: Units) -> str:
    """Return U as “± 0.12°”."""
    return f"± {say_small_length(expanded, units) if is_length(mark) else _plain(mark, expanded, units)}"


def say_need(mark: str, deviation: float, units: Units) -> str:
    """Return what a mark off its aim needs: “3.5 mm too high”, “needs 0.90° more lean in”."""
    words = KINDS[kind_of(mark)]
    return (words.under if deviation < 0 else words.over).format(_size_of_miss(mark, deviation, units))


def say_do(mark: str, deviation: float, units: Units) -> str:
    """Return the same as short as a drawing needs it: “down 3.5 mm”, “toe out 0.91°”."""
    words = KINDS[kind_of(mark)]
    return (words.do_under if deviation < 0 else words.do_over).format(_size_of_miss(mark, deviation, units))


def _size_of_miss(mark: str, deviation: float, units: Units) -> str:
    size = say_size(mark, deviation, units)
    return say_small_length(abs(deviation), units) if is_length(mark) and size in ('0"', "0.0 mm") else size


def say_mark(mark: str) -> str:
    """Return a mark with its place: “left front camber”, “front total toe”, “thrust angle”."""
    place, kind = mark.rsplit(".", 1)
    where = next((words for corner, words in CORNER_WORDS.items() if corner == place), "" if place == "car" else place)
    return f"{where} {MARK_WORDS[kind]}".strip()
