"""Aims of a plan in words."""

from ready_corner.core.plan.marks import say_size, say_value
from ready_corner.core.plan.plan import Plan


def say_aim(plan: Plan, mark: str) -> str:
    """Return what is wanted of a mark with its tolerance: “−1.50° ± 0.30°”; empty where the plan has no aim for it."""
    aim = plan.aim(mark)
    if aim is None:
        return ""
    typed = f" ({aim.typed})" if aim.typed else ""
    return f"{say_value(mark, aim.aim, plan.units)}{typed} ± {say_size(mark, aim.tolerance, plan.units)}"
