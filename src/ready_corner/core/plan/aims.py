"""Aims of a plan in words."""

from collections.abc import Mapping

from ready_corner.core.plan.marks import say_size, say_value
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.verdict import Beyond

SAID_BEYOND: Mapping[Beyond, tuple[str, str]] = {"": ("±", ""), "over": ("−", ", or more"), "under": ("+", ", or less")}


def say_aim(plan: Plan, mark: str) -> str:
    """Return what is wanted of a mark with its tolerance: “−1.50° ± 0.30°”; empty where the plan has no aim for it."""
    aim = plan.aim(mark)
    if aim is None:
        return ""
    typed = f" ({aim.typed})" if aim.typed else ""
    sign, more = SAID_BEYOND[aim.beyond]
    return f"{say_value(mark, aim.aim, plan.units)}{typed} {sign} {say_size(mark, aim.tolerance, plan.units)}{more}"
