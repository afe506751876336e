"""The line to a tool: one JSON object a line, asked and answered over TCP. See docs/instruments.md.

Asked: ``{"car": …, "corner": "LF", "quantity": "camber", "tool": "digital"}``. Answered: ``{"figure": -1.35, "unit": "deg"}`` with one of
the units of ``UNITS``, or ``{"refused": "a sentence"}``.
"""

import json
import socket
from collections.abc import Mapping
from dataclasses import asdict, dataclass
from typing import get_args

from ready_corner.core.plan.corners import Corner
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.record.readings import Quantity

UNITS: Mapping[str, str] = {"mm": "mm", "in": "in", "deg": "°", "kg": "kg", "lb": "lb"}  # how each is typed
PATIENCE_S = 4.0
MOST = 1e6  # of any unit; also what is no number at all is not at most so much
LONGEST = 4096  # bytes of a line; nobody has so long a figure
Address = tuple[str, int]


class ToolAwayError(MeasuredError):
    """No tool answers at the end of the line, or not with a figure; the sentence says what to do."""

    code = "tool_away"


@dataclass(frozen=True)
class Wanted:
    """What is to be read: of which car, where, with which tool; ``half_turn``: the wheel stands half a turn round, else ``wheel_deg``."""

    car: str
    corner: Corner
    quantity: Quantity
    tool: str
    half_turn: bool = False
    wheel_deg: float = 0.0

    @property
    def turned_deg(self) -> float:
        """How far round the wheel stands, degrees."""
        return 180.0 if self.half_turn else self.wheel_deg


@dataclass(frozen=True)
class Shown:
    """What a tool shows: a figure in one of the units of ``UNITS``."""

    figure: float
    unit: str


def take(address: Address, wanted: Wanted) -> Shown:
    """Return what the tool at an address shows. Raises ToolAwayError where it is not there, is silent, refuses, or answers with no figure."""
    try:
        with socket.create_connection(address, PATIENCE_S) as line:
            line.sendall(asked(wanted))
            with line.makefile("rb") as answers:
                said = answers.readline(LONGEST)
    except OSError as gone:
        raise ToolAwayError(finding("tool.away", host=address[0], port=address[1])) from gone
    return answered(said)


def asked(wanted: Wanted) -> bytes:
    """Return the line that asks for a figure."""
    return json.dumps(asdict(wanted)).encode() + b"\n"


def answered(said: bytes) -> Shown:
    """Return the figure of an answer. Raises ToolAwayError where it is none."""
    found = _object(said)
    if isinstance(refused := found.get("refused"), str) and refused:
        raise ToolAwayError(finding("tool.refused", said=refused[:400]))
    figure, unit = found.get("figure"), found.get("unit")
    a_number = isinstance(figure, int | float) and not isinstance(figure, bool)
    if not a_number or not abs(float(figure)) <= MOST or unit not in UNITS:  # type: ignore[arg-type]
        raise ToolAwayError(finding("tool.no-figure", said=said.decode("utf-8", "replace").strip()[:80]))
    return Shown(float(figure), str(unit))  # type: ignore[arg-type]


def wanted_of(said: bytes) -> Wanted | None:
    """Return what a line asks for; None where it asks for nothing that can be read."""
    found = _object(said)
    named = {name: str(found.get(name, "")) for name in ("car", "corner", "quantity", "tool")}
    if named["corner"] not in get_args(Corner) or named["quantity"] not in get_args(Quantity):
        return None
    turned = found.get("wheel_deg")
    wheel = float(turned) if isinstance(turned, int | float) and 0 <= turned < 360 else 0.0
    return Wanted(**named, half_turn=found.get("half_turn") is True, wheel_deg=wheel)  # type: ignore[arg-type]


def _object(said: bytes) -> dict[str, object]:
    try:
        found = json.loads(said)
    except ValueError:
        return {}
    return found if isinstance(found, dict) else {}
