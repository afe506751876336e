"""The job itself: pure numbers in, pure numbers out. No web, database, file or clock.

What a user of the core needs is exported here: ``from ready_corner.core import Plan, sweep``; each is loaded when it is first named.
"""

from importlib import import_module
from typing import Any

from ready_corner.core.quantities.finding import Finding, said_by

_FROM = {
    "quantities.errors": (
        "CalledError",
        "MeasuredError",
        "PlannedError",
        "ReadyCornerError",
        "SavedFirstError",
        "UnusualError",
    ),
    "quantities.notation": ("Figure", "Units", "echo", "read", "say_angle", "say_length", "say_mass", "say_turns"),
    "quantities.threads": ("Thread", "read_thread"),
    "engines.alignment.toes": ("Toe", "read_toe"),
    "plan.plan": (
        "Adjuster",
        "Axle",
        "Cam",
        "HeightPlace",
        "Linkage",
        "Moves",
        "Perch",
        "Plan",
        "Slide",
        "Stack",
        "ThreadedEnd",
        "Ways",
    ),
    "quantities.measured": ("Measured", "combine", "propagate"),
    "quantities.tools": ("Tool", "default_tools"),
    "quantities.verdict": ("Aim", "judge"),
    "engines.linkage.body": (
        "Bar",
        "Body",
        "Joint",
        "Loads",
        "Rocker",
        "Shaft",
        "Spring",
        "Stand",
        "Torsion",
        "Wheel",
        "body_of",
    ),
    "engines.linkage.layouts": ("LAYOUTS",),
    "model.bodies": ("EndSweep", "bodies_of", "body_named", "sweep_end"),
    "model.checks": ("check_plan",),
    "engines.linkage.sweep": ("Sweep", "sweep", "travel_for_angle", "travel_for_length"),
    "engines.linkage.worth": ("Parameter", "parameters", "sensitivities", "spread"),
    "model.study": ("Change", "levers", "study"),
    "record.logbook": ("CarState", "Entry", "PlanRevised", "fold", "fold_on"),
    "record.notes": ("Correction", "Note", "Surveyed"),
    "record.happenings": ("Happened", "Turned"),
    "record.readings": ("Reading",),
    "advise.accept": ("accept", "preview"),
    "advise.car": ("CarJudged", "judge_car"),
    "judge.marks": ("Evaluation", "MarkState", "evaluate"),
    "advise.next": ("next_step",),
    "advise.corner": ("set_corner",),
    "model.four_springs": ("Car", "CornerSpring", "perch_turns", "stand"),
    "model.springs_of_plan": ("car_of", "springing"),
    "judge.frame": ("Frame",),
    "advise.pickups": ("pickups",),
    "engines.survey.network": ("Network", "adjust"),
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


def _in_words(finding: Finding) -> str:
    """Return a finding in the words of ``say``, lengths in mm; they are loaded when one is first printed."""
    return str(import_module(f"{__name__}.say.template").in_mm(finding))


said_by(_in_words)
