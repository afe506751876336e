"""Toe from a string outside the wheels, and what to take off it where the string is askew.

One formula serves both sides: toe is positive when the front of the wheel points in, and the *opening* of an outside string is
positive where the string runs away from the centreline towards the front. Toe about the centreline = toe against the string
minus the opening of that string. Everything accepts arrays of any shape and broadcasts.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding

FloatArray = NDArray[np.float64]


class StringError(MeasuredError):
    """The gaps cannot be those of a straight string outside a wheel."""

    code = "string_refused"


@dataclass(frozen=True)
class Opening:
    """Opening of an outside string in degrees, with its partial derivatives for the propagation of uncertainty.

    Derivatives are in degrees per mm: with respect to the front hub gap (the rear one has the opposite) and to the front half
    width (the rear one is kept as well, since the two differ).
    """

    opening_deg: float
    by_front_gap: float
    by_front_half_width: float
    by_rear_half_width: float


def toe_against_string_deg(front_gap: ArrayLike, back_gap: ArrayLike, span: ArrayLike) -> FloatArray:
    """Return toe against an outside string in degrees, positive when the front of the wheel points in.

    Gaps and span in mm, square to the string at the height of the wheel centre; the span is between the two points touched.
    sin t′ = (front gap − back gap) / span. Exact for any camber, the two points lying level in the plane of the wheel.
    Raises StringError for a gap under zero, a span of nothing, or a difference greater than the span.
    Source: plane trigonometry of gaps to a straight string, docs/choices.md.
    """
    front, back, wide = (np.asarray(a, dtype=float) for a in (front_gap, back_gap, span))
    if np.any(wide <= 0):
        raise StringError(finding("string.no-span"), path="span")
    if np.any(front < 0) or np.any(back < 0):
        raise StringError(finding("string.gap-below-zero"), path="typed")
    sine = (front - back) / wide
    if np.any(np.abs(sine) > 1):
        worst = float(np.max(np.abs(front - back)))
        raise StringError(
            finding("string.gaps-too-far-apart", difference=worst, span=float(np.min(wide))),
            path="typed",
            numbers={"difference": worst, "span": float(np.min(wide))},
        )
    return np.asarray(np.degrees(np.arcsin(sine)), dtype=float)


def require_clear_of_tyre(front_gap: float, back_gap: float, span: float, tyre_diameter: float) -> None:
    """Raise StringError where the string would lie on the tread, and so be straight no longer; all in mm.

    The rim's gaps are carried on in the plane of the wheel to the tread, the tyre being at least as wide as its rim.
    Source: plane trigonometry of gaps to a straight string, docs/choices.md.
    """
    clear = (front_gap + back_gap) / 2 - abs(front_gap - back_gap) / 2 * tyre_diameter / span
    if clear < 0:
        raise StringError(
            finding("string.through-tyre", front=front_gap, back=back_gap, over=-clear),
            path="typed",
            numbers={"clear": clear},
        )


def string_opening(
    front_hub_gap: float, rear_hub_gap: float, wheelbase: float, front_half_width: float, rear_half_width: float
) -> Opening:
    """Return how far one outside string runs away from the centreline towards the front, from its gaps to two hubs.

    All in mm; gaps square to the string. With h = hypot(wheelbase, Δw) and Δw = front − rear half width:
    opening = asin((front gap − rear gap) / h) + atan2(Δw, wheelbase). Raises StringError where no line gives such gaps.
    Source: plane trigonometry of gaps to a straight string, docs/choices.md.
    """
    narrow = front_half_width - rear_half_width
    between = float(np.hypot(wheelbase, narrow))
    sine = (front_hub_gap - rear_hub_gap) / between
    if wheelbase <= 0 or abs(sine) >= 1:
        raise StringError(
            finding("string.hub-gaps-disagree", front=front_hub_gap, rear=rear_hub_gap),
            path="typed",
            numbers={"front": front_hub_gap, "rear": rear_hub_gap},
        )
    by_gap = np.degrees(1 / (between * np.sqrt(1 - sine**2)))
    by_width = -by_gap * sine * narrow / between + np.degrees(wheelbase / between**2)
    return Opening(
        float(np.degrees(np.arcsin(sine) + np.arctan2(narrow, wheelbase))), float(by_gap), float(by_width), float(-by_width)
    )


def box_yaw_deg(gap_lf: float, gap_rf: float, gap_lr: float, gap_rr: float, wheelbase: float) -> float:
    """Return the yaw ψ of a parallel box of strings about the centreline in degrees, from the four hub gaps in mm.

    sin ψ = ((a_RF − a_LF) − (a_RR − a_LR)) / (2 · wheelbase); toe about the centreline is t_box + ψ on the left, − ψ on the right.
    Source: plane trigonometry of gaps to a straight string, docs/choices.md.
    """
    sine = ((gap_rf - gap_lf) - (gap_rr - gap_lr)) / (2 * wheelbase)
    if abs(sine) >= 1:
        raise StringError(finding("string.box-disagrees"), path="typed")
    return float(np.degrees(np.arcsin(sine)))


def toe_of_length_deg(length: ArrayLike, span: ArrayLike, wheels: int = 1) -> FloatArray:
    """Return the toe in degrees that a length over a span is: of one wheel, or the sum of two that share it alike. In mm; plus is in.

    Raises StringError where the length is more than the span.
    Source: plane trigonometry of gaps to a straight string, docs/choices.md.
    """
    size, wide = np.asarray(length, dtype=float) / wheels, np.asarray(span, dtype=float)
    if np.any(wide <= 0) or np.any(np.abs(size) > wide):
        raise StringError(finding("toe.longer-than-span"), path="typed")
    return np.asarray(wheels * np.degrees(np.arcsin(size / wide)))


def toe_as_length(toe_deg: ArrayLike, span: ArrayLike) -> FloatArray:
    """Return toe in degrees as a difference of gaps in mm over a stated span in mm, positive for toe-in.

    Source: plane trigonometry of gaps to a straight string, docs/choices.md.
    """
    return np.asarray(span, dtype=float) * np.sin(np.radians(toe_deg))


def total_toe_from_plates_deg(
    front: ArrayLike, back: ArrayLike, span: ArrayLike, apart: ArrayLike = 0.0, setback: ArrayLike = 0.0
) -> FloatArray:
    """Return the total toe of an axle in degrees from a tape across two plates against its wheels, in front and behind; all in mm.

    span: between the notches of a plate, half of it either side of the hub. apart: left toe less right, degrees; setback: of one hub against the
    other. With A = √(back² − setback²) − √(front² − setback²) it is 2 · asin(A / (2 · span · cos(apart / 2))); exact for wheels alike.
    Raises StringError for a span of nothing, or a difference that no toe could make.
    Source: plane trigonometry of two plates and a tape, docs/readings.md.
    """
    f, b, wide, off = (np.asarray(a, dtype=float) for a in (front, back, span, setback))
    if np.any(wide <= 0):
        raise StringError(finding("plates.no-span"), path="ways.plates")
    if np.any(f <= np.abs(off)) or np.any(b <= np.abs(off)):
        raise StringError(finding("plates.too-short", front=float(np.min(f)), back=float(np.min(b))), path="typed")
    sine = (np.sqrt(b**2 - off**2) - np.sqrt(f**2 - off**2)) / (2 * wide * np.cos(np.radians(apart) / 2))
    if np.any(np.abs(sine) > 1):
        worst = float(np.max(np.abs(b - f)))
        raise StringError(finding("plates.too-far-apart", difference=worst), path="typed", numbers={"difference": worst})
    return np.asarray(2 * np.degrees(np.arcsin(sine)))


def thrust_deg(left_rear_deg: float, right_rear_deg: float) -> float:
    """Return the thrust angle in degrees, positive when the thrust line points to the left: (RR toe − LR toe) / 2.

    Source: plane trigonometry of gaps to a straight string, docs/choices.md.
    """
    return (right_rear_deg - left_rear_deg) / 2


def steer_ahead_deg(left_front_deg: float, right_front_deg: float, thrust: float = 0.0) -> float:
    """Return where the front wheels point together, in degrees to the left of the thrust line (0: of the centreline).

    Source: plane trigonometry of gaps to a straight string, docs/choices.md.
    """
    return (right_front_deg - left_front_deg) / 2 - thrust
