"""What is judged and advised, in words: marks, adjusters and turns as they are shown, and a toe in every way it is said."""

import math

from ready_corner.core.advise.corner import AdjusterState, Expected, LearnedWorth, Turn
from ready_corner.core.advise.next import Ask, aim_of
from ready_corner.core.engines.alignment.string import toe_as_length
from ready_corner.core.judge.marks import MarkState
from ready_corner.core.plan.marks import say_do, say_uncertainty, say_value, say_way
from ready_corner.core.plan.names import turn_parts
from ready_corner.core.plan.plan import Axle
from ready_corner.core.quantities.notation import Units, say_small_length, shows_nothing
from ready_corner.core.record.readings import QUANTITIES, SIDE_WORDS, say_figure, say_reading, title_of
from ready_corner.core.say.template import say_finding


def say_mark_value(mark: MarkState, units: Units) -> str:
    """Return the value of a mark, a dash where it is not read."""
    return "—" if mark.value is None else say_value(mark.mark, mark.value, units, mark.denominator)


def say_mark_u(mark: MarkState, units: Units) -> str:
    """Return what its value is sure to; empty where it is not read."""
    return "" if mark.expanded is None else say_uncertainty(mark.mark, mark.expanded, units)


def say_mark_aim(mark: MarkState, units: Units) -> str:
    """Return what is wanted of a mark: “aim −1.50° ± 0.30°”; empty where nothing is."""
    return f"aim {say_finding(aim_of(mark), units)}" if mark.aim else ""


def say_mark_do(mark: MarkState, units: Units) -> str:
    """Return what a mark that is out needs, as short as a drawing wants it."""
    return say_do(mark.mark, mark.deviation or 0.0, units) if mark.state == "out" else ""


def say_worth(worth: LearnedWorth, units: Units) -> str:
    """Return what a turn is worth, with its U."""
    return f"{say_value(worth.mark, worth.per_turn, units, 0)} {say_uncertainty(worth.mark, worth.expanded, units)}"


def say_left(state: AdjusterState, units: Units) -> tuple[str, str]:
    """Return what is left of an adjuster either way, plus way first."""
    plus, minus = (say_finding(part, units) for part in state.left)
    return plus, minus


def say_turn(turn: Turn) -> tuple[str, str]:
    """Return how far to turn and which way; empty words where nothing is turned."""
    return turn_parts(turn.of, turn.amount) if turn.amount else ("", "")


def say_expected(expected: Expected, units: Units) -> tuple[str, str]:
    """Return what a mark would read afterwards, and what it would be sure to."""
    return (
        say_value(expected.mark, expected.value, units, 0),
        say_uncertainty(expected.mark, expected.expanded, units),
    )


# What is to be known beside the reading; of stands of their own nothing is.
STRING_LIES = {
    "car": "The strings hang on the car and lean with it.",
    "tyres": "The string lies on the tyres: whatever is turned moves it, and all four gaps at the hubs are read anew after it.",
}


def say_ask(ask: Ask, units: Units) -> tuple[str, str]:
    """Return what is asked at a place of the round, and how it is read."""
    zero = "the frame" if ask.zero == "frame" else "gravity"
    how = QUANTITIES[ask.quantity].how.format(tool=ask.tool.name, place=ask.at, side=SIDE_WORDS[ask.corner], zero=zero)
    if ask.string in STRING_LIES:
        how += f" {STRING_LIES[ask.string]}"
    if ask.runs_out is not None:
        how += f" The rim runs out by {say_figure(QUANTITIES[ask.quantity].kind, ask.runs_out, units)} in all, and that is taken out."
    return title_of((ask.corner, ask.quantity)), how


def say_latest(ask: Ask, units: Units) -> str:
    """Return what was read last at a place; empty where nothing was."""
    read = ask.latest
    return "" if read is None else say_reading(units, ask.quantity, read.value, read.denominator, read.typed)


def say_tread(mark: MarkState, units: Units) -> str:
    """Return a camber as it shows at the tread: by how much one edge of so much width is lower than the other; empty where unread.

    Source: width · tan(camber), plane trigonometry.
    """
    if mark.value is None:
        return ""
    width = 4 * 25.4 if units.inches else 100.0
    lower = say_small_length(width * abs(math.tan(math.radians(mark.value))), units)
    return f"{say_mark_value(mark, units)}: {'inner' if mark.value < 0 else 'outer'} edge {lower} lower across {say_small_length(width, units)} of tread"


def say_toes(mark: MarkState, axle: Axle, units: Units) -> tuple[str, ...]:
    """Return the toe of a corner in degrees, mm at the rim and inches at the tyre, each with its span; empty where unread."""
    if mark.value is None:
        return ()
    said = say_mark_value(mark, units)
    way = "" if shows_nothing(said) else f" {say_way(mark.mark, mark.value)}"

    def over(what: str, span: float, *, inches: bool) -> str:
        size = abs(float(toe_as_length(mark.value or 0.0, span)))
        said, wide = (f'{size / 25.4:.3f}"', f'{span / 25.4:.2f}"') if inches else (f"{size:.1f} mm", f"{span:.0f} mm")
        return f"{said}{way} over the {what}'s {wide}"

    # In a metric car the length at the tyre is said in inches too, as many are used to; in an inch car nothing is in millimetres.
    return (said, over("rim", axle.rim_flange_diameter, inches=units.inches), over("tyre", axle.tyre_diameter, inches=True))
