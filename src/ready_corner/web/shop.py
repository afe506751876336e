"""Reading shop notation for fields of a form."""

from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import AfterValidator, Field

from ready_corner.border.base import Model
from ready_corner.border.plan import UnitsModel
from ready_corner.core.engines.alignment.toes import read_toe
from ready_corner.core.quantities.bounds import beyond
from ready_corner.core.quantities.notation import (
    Kind,
    Units,
    echo,
    read,
    read_list,
    read_row,
    say,
    say_angle,
    say_field,
    say_mass,
)
from ready_corner.core.quantities.threads import read_thread, say_pitch
from ready_corner.web.view import View

router = APIRouter()
FieldKind = Kind | Literal["thread", "pitch", "toe", "total_toe", "place", "lengths"]


class FigureIn(Model):
    """What was typed, the kind of figure asked for, and the units of the car; ``spans`` of rim and tyre in mm, for a toe."""

    text: Annotated[str, Field(max_length=200)]
    kind: FieldKind
    units: UnitsModel = UnitsModel()
    spans: Annotated[dict[Literal["rim", "tyre"], float | None], Field(default={}, max_length=2)]


class FigureView(View):
    """The figure in mm, degrees, turns, kg, N/mm or N·m a degree, and as it is printed.

    ``echo``: as typed and in the car's unit, where those differ; ``pitch`` and ``hand`` of a thread that was named whole;
    ``more``: the second and third of three lengths typed in one line as a place; of a list of lengths all after the first.
    """

    value: float
    said: str
    echo: str = ""
    pitch: float | None = None
    hand: Literal["left", "right"] | None = None
    more: tuple[float, ...] = ()


def _of_a_car(value: float) -> float:
    if next(beyond(value), None):
        raise ValueError(f"No figure of a car is {value:g}.")
    return value


class ToSay(Model):
    """A figure in mm, degrees, turns, kg, N/mm or N·m a degree, to be printed."""

    value: Annotated[float, AfterValidator(_of_a_car)]
    kind: FieldKind


class ToSayAll(Model):
    """Figures to be printed in the units of one car."""

    figures: Annotated[list[ToSay], Field(max_length=500)]
    units: UnitsModel = UnitsModel()


@router.post("/shop/say")
def say_figures(asked: ToSayAll) -> list[str]:
    """Return figures printed in shop notation, in the order asked."""
    units = Units(asked.units.system, asked.units.finest)
    return [_say(f.value, f.kind, units, None) for f in asked.figures]


@router.post("/shop/read")
def read_figure(typed: FigureIn) -> FigureView:
    """Return a figure typed in shop notation."""
    units = Units(typed.units.system, typed.units.finest)
    if typed.kind == "thread" or typed.kind == "pitch":  # noqa: PLR1714 - each comparison narrows the type
        found = read_thread(typed.text, units, "pitch" if typed.kind == "pitch" else "diameter")
        value = found.pitch if typed.kind == "pitch" or found.diameter is None else found.diameter
        return FigureView(
            value=value or 0.0, said=_say(value or 0.0, typed.kind, units, None), pitch=found.pitch, hand=found.hand
        )
    if typed.kind == "toe" or typed.kind == "total_toe":  # noqa: PLR1714
        spans = {str(name): mm or 0.0 for name, mm in typed.spans.items()}
        toe = read_toe(typed.text, units, spans, 2 if typed.kind == "total_toe" else 1)
        return FigureView(value=toe.deg, said=_say(toe.deg, "angle", units, None), echo=toe.said)
    if typed.kind == "place":
        row = read_row(typed.text, units)
        words = "; ".join(_say(f.value, "length", units, f.denominator) for f in row)
        return FigureView(value=row[0].value, said=words, more=tuple(f.value for f in row[1:]))
    if typed.kind == "lengths":
        figures = read_list(typed.text, units)
        words = "; ".join(_say(f.value, "length", units, f.denominator) for f in figures)
        return FigureView(value=figures[0].value, said=words, more=tuple(f.value for f in figures[1:]))
    figure = read(typed.text, typed.kind, units)
    said = _say(figure.value, typed.kind, units, figure.denominator)
    return FigureView(value=figure.value, said=said, echo=echo(figure, typed.kind, units) if figure.foreign else "")


def _say(value: float, kind: FieldKind, units: Units, denominator: int | None) -> str:
    if kind == "length" or kind == "lengths" or kind == "thread" or kind == "place":  # noqa: PLR1714
        return say_field(value, units, denominator)
    if kind == "pitch":
        return say_pitch(value, units)
    if kind == "mass":
        return say_mass(value, units, 2)
    return say_angle(value) if kind == "toe" or kind == "total_toe" else say(value, kind, units)  # noqa: PLR1714
