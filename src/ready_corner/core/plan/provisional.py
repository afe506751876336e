"""Dimensions of a plan that are not settled yet, and the pickup points that hang on each: made too early, these are moved, cut or relieved later."""

from collections.abc import Iterable, Mapping

from ready_corner.core.plan.corners import END_OF, ENDS, Point

AXLE_PARTS = ("track", "rim_flange_diameter", "tyre_diameter", "hub_width")


def may_be_provisional(points: Iterable[str]) -> frozenset[str]:
    """Return every dimension that may be marked so, by its path in the plan: wheelbase, those of either axle and its wheels, and points."""
    of_ends = {f"{end}.{part}" for end in ENDS for part in AXLE_PARTS} | {f"{end}_linkage.loaded_radius" for end in ENDS}
    return frozenset({"wheelbase", *of_ends, *(f"points.{name}" for name in points)})


def hanging_on(path: str, points: Mapping[str, Point]) -> tuple[str, ...]:
    """Return the points that hang on a dimension: the pickups of its end, of the wheelbase those at the rear, of a point the point itself."""
    if path.startswith("points."):
        return tuple(n for n in points if f"points.{n}" == path)
    end = "rear" if path == "wheelbase" else path.split(".", maxsplit=1)[0].removesuffix("_linkage")
    corners = tuple(c for c, of in END_OF.items() if of == end)
    return tuple(n for n in points if n.split(".")[0] in (*corners, end))
