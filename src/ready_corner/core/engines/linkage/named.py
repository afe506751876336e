"""What each answer is called, its unit and the digits worth printing.

Source: units of the car; docs/choices.md (Notation).
"""

from dataclasses import dataclass

from ready_corner.core.quantities.notation import Units


@dataclass(frozen=True)
class Named:
    """An answer as shown: label, unit ("" for a plain number), digits after the point, and what plus means."""

    label: str
    unit: str
    digits: int
    plus: str = ""


ANSWERS: dict[str, Named] = {
    "camber_deg": Named("Camber", "°", 2, "top leans out"),
    "toe_deg": Named("Toe", "°", 2, "front points in"),
    "caster_deg": Named("Caster", "°", 2, "top of the axis leans back"),
    "inclination_deg": Named("Steering-axis inclination", "°", 2, "top of the axis leans in"),
    "camber_deg_per_mm": Named("Camber gain", "°/mm", 4, "leans out in bump"),
    "toe_deg_per_mm": Named("Bump steer", "°/mm", 4, "toes in in bump"),
    "half_track_change": Named("Half track, change", "mm", 2, "wider"),
    "wheelbase_change": Named("Wheelbase, change", "mm", 2, "wheel forward"),
    "axis_pitch": Named("Steering axis, pitch of its screw", "mm/rad", 1, "0 is a pure rotation"),
    "scrub": Named("Scrub radius", "mm", 1, "axis meets the ground inboard"),
    "trail": Named("Mechanical trail", "mm", 1, "axis meets the ground ahead"),
    "front_arm": Named("Front-view swing arm", "mm", 0, "centre inboard"),
    "side_arm": Named("Side-view swing arm", "mm", 0, "centre behind"),
    "roll_centre_height": Named("Roll centre, height", "mm", 1, "over the ground"),
    "roll_centre_offset": Named("Roll centre, offset", "mm", 1, "to the left"),
    "track": Named("Track at the ground", "mm", 1),
    "ackermann_percent": Named("Ackermann", "%", 0, "100 is the full difference"),
    "anti_dive_percent": Named("Anti-dive", "%", 0),
    "anti_lift_percent": Named("Anti-lift", "%", 0),
    "anti_squat_percent": Named("Anti-squat", "%", 0),
    "drive_anti_lift_percent": Named("Anti-lift under drive", "%", 0),
    "shaft.plunge": Named("Halfshaft plunge", "mm", 2, "longer"),
    "shaft.inner_deg": Named("Halfshaft, inner joint", "°", 1),
    "shaft.outer_deg": Named("Halfshaft, outer joint", "°", 1),
    "rocker.angle_deg": Named("Rocker", "°", 1),
    "bar.angle_deg": Named("Anti-roll bar, turn", "°", 2),
    "bar.deg_per_mm": Named("Anti-roll bar, ratio", "°/mm", 4),
}
_ENDINGS = {
    ".length": ("{}, length", "mm", 1),
    ".to_tyre": ("{}, gap to the tyre", "mm", 1),
    ".ratio": ("{}, motion ratio", "", 3),
    ".ratio_per_mm": ("{}, change of ratio", "/mm", 5),
    ".wheel_rate": ("{}, wheel rate, its spring as long as drawn", "N/mm", 1),
    ".mm_per_roll_deg": ("{}, shortening in roll", "mm/°", 2),
    ".level_deg": ("{}, to level", "°", 1),
    ".inner_deg": ("{}, inner joint", "°", 1),
    ".outer_deg": ("{}, outer joint", "°", 1),
    ".angle_deg": ("{}, turn", "°", 2),
    ".deg_per_mm": ("{}, ratio", "°/mm", 4),
}


def named(answer: str) -> Named | None:
    """Return how an answer is shown; None for those that only serve others (places and slopes)."""
    if answer in ANSWERS:
        return ANSWERS[answer]
    for ending, (label, unit, digits) in _ENDINGS.items():
        if answer.endswith(ending):
            what = answer.removesuffix(ending)
            return Named(label.format(what[0].upper() + what[1:]), unit, digits)
    return None


# For a car in inches: what each unit becomes, by which factor, and how many more digits that asks for.
_IN_INCHES: dict[str, tuple[str, float, int]] = {
    "mm": ("in", 1 / 25.4, 1), "°/mm": ("°/in", 25.4, -1), "/mm": ("/in", 25.4, -1), "mm/rad": ("in/rad", 1 / 25.4, 1), "mm/°": ("in/°", 1 / 25.4, 1),
    "N/mm": ("lbf/in", 5.710147162769, -1),
}  # fmt: skip


def shown(unit: str, digits: int, inches: bool) -> tuple[str, float, int]:
    """Return the unit in which a car shows a figure, the factor to it, and the digits worth printing."""
    name, factor, more = _IN_INCHES.get(unit, (unit, 1.0, 0)) if inches else (unit, 1.0, 0)
    return name, factor, max(digits + more, 0)


def say_rate(value: float, units: Units) -> str:
    """Return a rate in N/mm as the car says it: “21.4 N/mm”, “122 lbf/in”."""
    unit, factor, digits = shown("N/mm", 1, units.inches)
    return f"{value * factor:.{digits}f} {unit}"
