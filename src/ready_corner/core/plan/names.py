"""Names of points and directions, as the builder says them."""

from ready_corner.core.plan.plan import CORNER_WORDS

AXIS_WORDS = (("forward", "aft"), ("left", "right"), ("up", "down"))


def say_point(name: str) -> str:
    """Return a dotted name as words: ``LF.lower.ball`` is “left front lower ball”."""
    first, *rest = name.split(".")
    corner = {str(k): v for k, v in CORNER_WORDS.items()}.get(first, first)
    return " ".join([corner, *rest]).replace("-", " ")
