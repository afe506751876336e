"""Names of points, directions, adjusters and turns, as the builder says them."""

from ready_corner.core.plan.corners import CORNER_WORDS, END_OF
from ready_corner.core.plan.plan import STEP_WORDS, Adjuster
from ready_corner.core.quantities.naming import OF_FRAME
from ready_corner.core.quantities.notation import say_turns

AXIS_WORDS = (("forward", "aft"), ("left", "right"), ("up", "down"))


_DIMENSIONS = {
    "rim_flange_diameter": "rim",
    "tyre_diameter": "tyre",
    "hub_width": "width over the hubs",
    "loaded_radius": "loaded radius",
}


def say_dimension(path: str) -> str:
    """Return a dimension of the plan by its path: “front track”, “rear loaded radius”, “LF upper ball”."""
    if path.startswith("points."):
        return say_point(path.removeprefix("points."))
    end, _, part = path.replace("_linkage", "").partition(".")
    return f"{end} {_DIMENSIONS.get(part, part)}".strip()


def say_point(name: str) -> str:
    """Return a dotted name as words: ``LF.lower.ball`` is “left front lower ball”."""
    first, *rest = name.split(".")
    corner = {str(k): v for k, v in CORNER_WORDS.items()}.get(first, first)
    return " ".join(rest if first == OF_FRAME and rest else [corner, *rest]).replace("-", " ")


def place_words(adjuster: Adjuster) -> str:
    """Return an adjuster with its corner, as the builder says it."""
    end = f"{END_OF[adjuster.corner]} "  # a name that begins with its end needs that but once: “left rear top arm end”
    return f"{CORNER_WORDS[adjuster.corner]} {adjuster.name.removeprefix(end)}"


def turn_words(adjuster: Adjuster, amount: float) -> str:
    """Return an amount with its direction: “1 turn 2 flats longer”, “2 shims added”, “3 marks out”."""
    return " ".join(turn_parts(adjuster, amount))


def turn_parts(adjuster: Adjuster, amount: float) -> tuple[str, str]:
    """Return an amount and its direction: “1 turn 2 flats” and “longer”."""
    one = STEP_WORDS.get(adjuster.kind)
    return f"{abs(amount):g} {one}{'s' * (abs(amount) != 1)}" if one else say_turns(amount), adjuster.way(amount)
