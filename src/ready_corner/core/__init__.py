"""The job itself: pure numbers in, pure numbers out. No web, database, file or clock.

What a user of the core needs is exported here: ``from ready_corner.core import Plan, sweep``; each is loaded when it is first named.
"""

from importlib import import_module
from typing import Any

_FROM = {
    "errors": ("CalledError", "MeasuredError", "PlannedError", "ReadyCornerError", "SavedFirstError", "UnusualError"),
    "shop": ("Figure", "Units", "echo", "read", "say_angle", "say_length", "say_mass", "say_turns"),
    "threads": ("Thread", "read_thread"),
    "toes": ("Toe", "read_toe"),
    "plan": ("Adjuster", "Axle", "HeightPlace", "Linkage", "Moves", "Perch", "Plan", "Stack", "ThreadedEnd", "Ways"),
    "metrology.measured": ("Measured", "combine", "propagate"),
    "metrology.tools": ("Tool", "default_tools"),
    "metrology.verdict": ("Aim", "judge"),
    "linkage.body": ("Bar", "Body", "Joint", "Loads", "Rocker", "Shaft", "Spring", "Stand", "Torsion", "Wheel", "body_of"),
    "linkage.layouts": ("LAYOUTS",),
    "linkage.planned": ("EndSweep", "bodies_of", "body_named", "sweep_end"),
    "linkage.checks": ("check_plan",),
    "linkage.sweep": ("Sweep", "sweep", "travel_for_angle", "travel_for_length"),
    "linkage.worth": ("Parameter", "parameters", "sensitivities", "spread"),
    "linkage.study": ("Change", "levers", "study"),
    "logbook": (
        "CarState",
        "Correction",
        "Entry",
        "Happened",
        "Note",
        "PlanRevised",
        "Reading",
        "Surveyed",
        "Turned",
        "fold",
        "fold_on",
    ),
    "readiness.accept": ("accept", "preview"),
    "readiness.car": ("CarJudged", "judge_car"),
    "readiness.marks": ("Evaluation", "MarkState", "evaluate"),
    "readiness.rounds": ("next_step",),
    "setting.corner": ("set_corner",),
    "stance.car": ("Car", "CornerSpring", "perch_turns", "stand"),
    "stance.model": ("car_of", "springing"),
    "jig.frame": ("Frame",),
    "jig.pickups": ("pickups",),
    "survey.network": ("Network", "adjust"),
}
_WHERE = {name: module for module, names in _FROM.items() for name in names}
__all__ = sorted(_WHERE)  # noqa: PLE0605 - the table above is the list


def __getattr__(name: str) -> Any:
    """Return an exported name from the module it is written in."""
    if name not in _WHERE:
        raise AttributeError(f"module “ready_corner.core” exports no {name!r}")
    return getattr(import_module(f"{__name__}.{_WHERE[name]}"), name)


def __dir__() -> list[str]:
    return list(__all__)
