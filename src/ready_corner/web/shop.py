"""Reading shop notation for fields of a form."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import Field

from ready_corner.border.base import Model
from ready_corner.border.plan import UnitsModel
from ready_corner.core.shop import Kind, Units, read, say_angle, say_field, say_mass, say_turns
from ready_corner.web.views import View

router = APIRouter()


class FigureIn(Model):
    """What was typed, the kind of figure asked for, and the units of the car."""

    text: str
    kind: Kind
    units: UnitsModel = UnitsModel()


class FigureView(View):
    """The figure in mm, degrees, turns or kg, and as it is printed."""

    value: float
    said: str


class ToSay(Model):
    """A figure in mm, degrees, turns or kg, to be printed."""

    value: float
    kind: Kind


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
    figure = read(typed.text, typed.kind, units)
    return FigureView(value=figure.value, said=_say(figure.value, typed.kind, units, figure.denominator))


def _say(value: float, kind: Kind, units: Units, denominator: int | None) -> str:
    if kind == "length":
        return say_field(value, units, denominator)
    if kind == "mass":
        return say_mass(value, units, 2)
    return say_angle(value) if kind == "angle" else say_turns(value)
