"""Everything that is wrong with the linkages of a plan at once."""

from collections.abc import Iterator, Sequence
from itertools import combinations

import numpy as np

from ready_corner.core.errors import PlannedError
from ready_corner.core.linkage.body import Body, Stand
from ready_corner.core.linkage.layouts import WHEEL
from ready_corner.core.linkage.mechanism import ON_UPRIGHT
from ready_corner.core.linkage.planned import bodies_of
from ready_corner.core.linkage.solve import require_held
from ready_corner.core.plan import CORNERS, END_OF, ENDS, End, Plan

TOGETHER_MM = 0.05  # two points closer than this are one place, for any tool in the shop
DISAGREE_MM = 2.0  # dimensions given twice may differ by what a tape does


def check_linkages(plan: Plan) -> list[PlannedError]:
    """Return everything that is wrong with the linkages of a plan, each with its path; empty where there is nothing."""
    return [*_check_points(plan), *_check_moves(plan), *(e for end in ENDS if plan.linkage(end) for e in _check_end(plan, end))]


def _check_points(plan: Plan) -> Iterator[PlannedError]:
    for name, place in plan.points.items():
        if not np.all(np.isfinite(place)):
            yield PlannedError(
                f"{name} is not a place: its coordinates are not finite. Type them again.", path=f"points.{name}"
            )
    for (a, p), (b, q) in combinations(plan.points.items(), 2):
        if a.split(".")[0] == b.split(".")[0] and np.all(np.isfinite([*p, *q])) and _apart(p, q) < TOGETHER_MM:
            yield PlannedError(f"{a} and {b} are in the same place. Measure both again, or take one out.", path=f"points.{b}")
    for name, (_, y, _) in plan.points.items():
        side = {"L": 1, "R": -1}[name[0]] if name[:2] in CORNERS and name[2:3] == "." else 0
        if name.endswith(f".{WHEEL}") and side * y < 0:
            yield PlannedError(
                f"{name} is {'left' if y > 0 else 'right'} of the centreline, but belongs to the {'left' if side > 0 else 'right'}. "
                "Are left and right exchanged? Offsets to the left are plus.",
                path=f"points.{name}",
                numbers={"offset": y},
            )


def _check_moves(plan: Plan) -> Iterator[PlannedError]:
    """What adjusters are said to move and the linkage does not have."""
    for adjuster in plan.adjusters:
        if adjuster.moves is None:
            continue
        path, name = f"adjusters.{adjuster.id}.moves", adjuster.moves.name
        try:
            bodies = bodies_of(plan, END_OF[adjuster.corner])
        except PlannedError:
            continue  # said of the linkage itself
        members = [f"{b.name}.{link.name}" for b in bodies for link in b.shape.mechanism.links]
        points = [f"{b.name}.{n}" for b in bodies for n in b.shape.mechanism.points if not n.endswith(ON_UPRIGHT)]
        if name not in (points if adjuster.moves.direction else members):
            what = "point" if adjuster.moves.direction else "member"
            has = f" It has {', '.join(members[:8])}." if what == "member" and members else ""
            yield PlannedError(
                f"{adjuster.name} is said to move “{name}”, which is no {what} of the {END_OF[adjuster.corner]}.{has}",
                path=path,
            )
        elif adjuster.moves.direction and not np.linalg.norm(adjuster.moves.direction) > 0:
            yield PlannedError(
                f"{adjuster.name}: a direction of nothing moves nothing. Say which way the point goes.", path=path
            )


def _check_end(plan: Plan, end: End) -> Iterator[PlannedError]:
    linkage = plan.linkage(end)
    assert linkage
    if not linkage.loaded_radius > 0:
        yield PlannedError(
            f"A loaded radius of {linkage.loaded_radius:g} mm cannot be. Measure from the floor to the hub centre.",
            path=f"{end}_linkage.loaded_radius",
        )
        return
    try:
        bodies = bodies_of(plan, end)
    except PlannedError as wrong:
        yield wrong
        return
    for body in bodies:
        yield from _check_parts(plan, end, body)
        yield from _check_size(plan, end, body)
        try:
            require_held(body.shape)
        except PlannedError as wrong:
            yield wrong


def _check_parts(plan: Plan, end: End, body: Body) -> Iterator[PlannedError]:
    for spring in body.springs:
        if spring.closed and spring.open and not spring.closed < spring.open:
            yield PlannedError(
                f"{body.name}: {spring.name} is {spring.closed:g} mm closed and {spring.open:g} mm open. Are the two exchanged?",
                path=f"{end}_linkage.springs.{spring.name}.closed",
                numbers={"closed": spring.closed, "open": spring.open},
            )
    for spring in body.springs:
        path = f"{end}_linkage.springs.{spring.name}.solid"
        for size, solid in ((spring.free, spring.solid), spring.helper[1:] if spring.helper else (None, None)):
            if size and solid and not solid < size:
                yield PlannedError(
                    f"{body.name}: {spring.name} is {size:g} mm long free, and {solid:g} mm when its coils touch. Measure both again.",
                    path=path,
                    numbers={"free": size, "solid": solid},
                )
        if spring.helper and not spring.helper[0] > 0:
            yield PlannedError(
                f"{body.name}: the helper of {spring.name} has no rate, so it holds nothing up. Type it, or take the helper out.",
                path=path,
            )
    stands: list[tuple[str, Stand]] = [(s.name, e) for s in body.springs for e in s.ends]
    stands += [("the rocker", body.rocker.rod)] if body.rocker else []
    stands += [("the anti-roll bar", body.bar.link)] if body.bar else []
    named = [s.point for _, s in stands]
    named += [body.rocker.first, body.rocker.second, body.rocker.push] if body.rocker else []
    named += [body.bar.first, body.bar.second, body.bar.arm] if body.bar else []
    named += [body.shaft.inner, body.shaft.outer] if body.shaft else []
    for name in dict.fromkeys(named):
        if name not in body.shape.mechanism.points:
            yield PlannedError(f"{body.name} still needs the point {name}.", path=f"points.{body.name}.{name}")
    allowed = {"car", "upright", *body.layout.arms, *(["rocker"] if body.rocker else [])}
    for what, stand in stands:
        if stand.on not in allowed:
            yield PlannedError(
                f"{body.name}: {what} stands on “{stand.on}”, which a {body.layout.name} does not have. It has {', '.join(sorted(allowed))}.",
                path=f"{end}_linkage",
            )


def _check_size(plan: Plan, end: End, body: Body) -> Iterator[PlannedError]:
    """Inches typed as millimetres, and dimensions given twice that disagree."""
    shape = body.shape
    wheels = [shape.point(w.centre) for w in body.wheels]
    for name in body.layout.needed:
        away = min(float(np.linalg.norm(shape.point(name) - w)) for w in wheels)
        if away > 10 * max(plan.axle(end).tyre_diameter, 1.0):
            yield PlannedError(
                f"{body.name}.{name} is {away:.0f} mm from its wheel. Is a unit missing, or an inch typed as a millimetre?",
                path=f"points.{body.name}.{name}",
                numbers={"distance": away},
            )
    track = plan.axle(end).track
    for wheel, place in zip(body.wheels, wheels, strict=True):
        if abs(abs(place[1]) - track / 2) > DISAGREE_MM:
            small = abs(abs(place[1]) * 25.4 - track / 2) < 0.02 * track
            yield PlannedError(
                f"{body.name}.{wheel.centre} is {abs(place[1]):.1f} mm off the centreline, but the track gives {track / 2:.1f}. "
                + ("That is an inch typed as a millimetre." if small else "Measure which of them is right."),
                path=f"points.{body.name}.{wheel.centre}",
                numbers={"offset": float(place[1]), "half_track": track / 2},
            )
        station = 0.0 if end == "front" else -plan.wheelbase
        if abs(place[0] - station) > DISAGREE_MM:
            yield PlannedError(
                f"{body.name}.{wheel.centre} is at station {place[0]:.1f}, but the wheelbase puts it at {station:.1f}. Measure which is right.",
                path=f"points.{body.name}.{wheel.centre}",
                numbers={"station": float(place[0]), "wheelbase": plan.wheelbase},
            )


def _apart(a: Sequence[float], b: Sequence[float]) -> float:
    return float(np.linalg.norm(np.subtract(a, b)))
