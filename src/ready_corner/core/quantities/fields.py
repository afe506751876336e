"""How the fields of an entry are described: what each is a figure of, how it is typed, what it may hold, and its label in a form.

A field is annotated where it is declared; what the API takes, the file format, its JSON Schema, the types of the front end and the form
all follow from that. Nothing here knows how those are made.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Annotated, Any, Literal, Self

Measure = Literal["length", "angle", "mass", "turns"]


class Figure(float):
    """A figure as it was typed and as it was understood: in mm, degrees, kg or turns; ``denominator`` of a fraction of an inch, else 0.

    >>> Figure(9.525, "3/8", 8).typed, Figure(9.525, "3/8", 8) + 1
    ('3/8', 10.525)
    """

    typed: str
    denominator: int

    def __new__(cls, value: float, typed: str = "", denominator: int = 0) -> Self:
        """Return a figure that is a number like any other, and keeps its text."""
        made = super().__new__(cls, value)
        made.typed, made.denominator = typed, denominator
        return made


def typed_of(value: float) -> str:
    """Return what was typed of a figure; empty for one that never was."""
    return value.typed if isinstance(value, Figure) else ""


@dataclass(frozen=True)
class Typed:
    """A figure, typed in shop notation. ``measure`` of it, or what tells it from the other fields sent; ``sent`` and ``kept``: its names in a file.

    It is sent as text under ``sent`` (the field's name with ``_typed``, where empty) and kept beside that as a number under ``kept`` (its own name).
    """

    measure: Measure | Callable[[Mapping[str, Any]], Measure]
    sent: str = ""
    kept: str = ""


@dataclass(frozen=True)
class Text:
    """Words, at most so many characters; a name where it has to look like one."""

    most: int
    least: int = 0
    pattern: str = ""


@dataclass(frozen=True)
class Many:
    """A list of at least and at most so many."""

    most: int
    least: int = 0


@dataclass(frozen=True)
class Above:
    """More than so much, or (``too``) that much too."""

    least: float
    too: bool = False


@dataclass(frozen=True)
class Otherwise:
    """What is meant where nothing is sent."""

    value: str


class WorkedOut:
    """Not sent: worked out when the entry is kept, and kept with it."""


class Identity:
    """The identity of another entry."""


@dataclass(frozen=True)
class Label:
    """What a form calls the field; ``of``: what is chosen from in it, beside what its type says: “point”, “foot”, “tool” or “adjuster”."""

    words: str
    of: str = ""


Length = Annotated[float, Typed("length")]
Angle = Annotated[float, Typed("angle")]
Mass = Annotated[float, Typed("mass")]
Turns = Annotated[float, Typed("turns")]
TheLength = Annotated[float, Typed("length", "typed")]  # of an entry with one figure, which is sent as “typed”
Words = Annotated[str, Text(2000)]
Name = Annotated[str, Text(80, 1)]
Id = Annotated[str, Text(60, 1, r"^[A-Za-z0-9._-]+$")]
PointName = Annotated[str, Text(60, 0, r"^[A-Za-z0-9_-]+(\.[A-Za-z0-9_-]+)+$")]
Prefix = Annotated[str, Text(60, 1, r"^[A-Za-z0-9_.-]+$")]
