"""Aims of a plan in words."""

from collections.abc import Mapping

from ready_corner.core.plan.marks import say_size, say_value
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.notation import Units
from ready_corner.core.quantities.verdict import Aim, Beyond

_BEYOND: Mapping[Beyond, tuple[str, str]] = {"": ("±", ""), "over": ("−", ", or more"), "under": ("+", ", or less")}


def say_wanted(aim: Aim, units: Units, typed: str = "") -> str:
    """Return an aim with its tolerance: “−1.50° ± 0.30°”, “78.0 mm − 2.0 mm, or more”; ``typed``: as it was typed, after the figure."""
    sign, more = _BEYOND[aim.beyond]
    return f"{say_value(aim.mark, aim.aim, units)}{typed} {sign} {say_size(aim.mark, aim.tolerance, units)}{more}"


def say_aim(plan: Plan, mark: str) -> str:
    """Return what is wanted of a mark with its tolerance; empty where the plan has no aim for it."""
    aim = plan.aim(mark)
    return say_wanted(aim, plan.units, f" ({aim.typed})" if aim.typed else "") if aim else ""
