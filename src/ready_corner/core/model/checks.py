"""Everything that is wrong with a plan's figures and linkages at once, so that whatever is reckoned from a plan that passes has an end.

Source: docs/linkage.md and docs/stance.md: what a layout and a spring want.
"""

from collections.abc import Iterator, Mapping, Sequence

import numpy as np

from ready_corner.core.engines.linkage.body import Body, Stand
from ready_corner.core.engines.linkage.layouts import LAYOUTS, WHEEL
from ready_corner.core.engines.linkage.mechanism import ON_UPRIGHT, design_pose
from ready_corner.core.engines.linkage.parts import beside_tyre
from ready_corner.core.engines.linkage.solve import require_held, solve
from ready_corner.core.engines.linkage.space import Array
from ready_corner.core.model.bodies import CORNERS_OF, bodies_of
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, End, Point
from ready_corner.core.plan.plan import Linkage, Plan
from ready_corner.core.quantities.bounds import beyond
from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.naming import meant

TOGETHER_MM = 0.05  # two points closer than this are one place, for any tool in the shop
DISAGREE_MM = 2.0  # dimensions given twice may differ by what a tape does
LEAST_APART = 0.1  # of the wheelbase: two marks nearer to one another tell less of a string than the tape blurs, and the front one is ahead
MOST_LEAN_DEG = 45.0  # of a wheel at rest, in toe or camber; no wheel rolls so, and at 90 nothing of it is defined


def check_plan(plan: Plan) -> list[PlannedError]:
    """Return everything that is wrong with a plan, each with its path; empty where there is nothing.

    Figures without end come first and alone: nothing can be reckoned with them.
    """
    return [
        PlannedError(
            finding("check.value", value=value),
            path=path,
            numbers={"value": value} if np.isfinite(value) else {},
        )
        for path, value in beyond(plan)
    ] or [*check_linkages(plan), *_check_marks(plan)]


def _check_marks(plan: Plan) -> Iterator[PlannedError]:
    """Two marks of a side that a string is held against, one as far along as the other: they tell no angle."""
    for front, rear in (("LF", "LR"), ("RF", "RR")):
        marks = plan.ways.marks
        if front in marks and rear in marks and marks[front][0] - marks[rear][0] < LEAST_APART * plan.wheelbase:  # type: ignore[index]
            yield PlannedError(
                finding("check.marks-one-station", front=front, rear=rear, apart=marks[front][0] - marks[rear][0]),  # type: ignore[index]
                path=f"ways.marks.{rear}",
            )


def check_linkages(plan: Plan) -> list[PlannedError]:
    """Return everything that is wrong with the linkages of a plan, each with its path; empty where there is nothing."""
    found = list(_check_points(plan))
    spoilt = {str(e.path).split(".")[1] for e in found if e.path.startswith("points.")}
    for end in ENDS:
        linkage = plan.linkage(end)
        if linkage is None:
            continue
        wrong = list(_check_names(end, linkage))
        found += wrong
        if not wrong and spoilt.isdisjoint((end, *CORNERS_OF[end])):  # else it would be told twice, in worse words
            found += [*_check_end(plan, end), *_check_moves(plan, end)]
    return found


def _check_points(plan: Plan) -> Iterator[PlannedError]:
    for name, place in plan.points.items():
        if not np.all(np.isfinite(place)):
            yield PlannedError(finding("check.no-place", point=name), path=f"points.{name}")
    for a, b in _together({name: place for name, place in plan.points.items() if np.all(np.isfinite(place))}):
        yield PlannedError(finding("check.same-place", first=a, second=b), path=f"points.{b}")
    for name, (_, y, _) in plan.points.items():
        side = {"L": 1, "R": -1}[name[0]] if name[:2] in CORNERS and name[2:3] == "." else 0
        if name.endswith(f".{WHEEL}") and side * y < 0:
            yield PlannedError(
                finding("check.wrong-side", point=name, left=y > 0, of_left=side > 0),
                path=f"points.{name}",
                numbers={"offset": y},
            )


def _together(points: Mapping[str, Point]) -> Iterator[tuple[str, str]]:
    """Yield pairs of points of one corner or end that are in the same place, in the order in which they are given."""
    by_prefix: dict[str, list[str]] = {}
    for name in points:
        by_prefix.setdefault(name.split(".")[0], []).append(name)
    for names in by_prefix.values():
        at = np.array([points[n] for n in names], dtype=float)
        apart = np.linalg.norm(at[:, None] - at[None], axis=2)
        yield from ((names[i], names[j]) for i, j in np.argwhere(np.triu(apart < TOGETHER_MM, 1)))


def _check_moves(plan: Plan, end: End) -> Iterator[PlannedError]:
    """What adjusters of an end are said to move and its linkage does not have."""
    for adjuster in plan.adjusters:
        if adjuster.moves is None or END_OF[adjuster.corner] != end:
            continue
        path, name = f"adjusters.{adjuster.id}.moves", adjuster.moves.name
        try:
            bodies = bodies_of(plan, end)
        except PlannedError:
            continue  # said of the linkage itself
        members = [f"{b.name}.{link.name}" for b in bodies for link in b.shape.mechanism.links]
        points = [f"{b.name}.{n}" for b in bodies for n in b.shape.mechanism.points if not n.endswith(ON_UPRIGHT)]
        if name not in (points if adjuster.moves.direction else members):
            point = bool(adjuster.moves.direction)
            near = meant(name, points if point else members)
            yield PlannedError(
                finding("check.moves-nothing", adjuster=adjuster.name, name=name, point=point, end=end, near=near),
                path=path,
            )
        elif adjuster.moves.direction and not np.linalg.norm(adjuster.moves.direction) > 0:
            yield PlannedError(finding("check.no-direction", adjuster=adjuster.name), path=path)


def _check_names(end: End, linkage: Linkage) -> Iterator[PlannedError]:
    """What can be said of a linkage before it is made: sizes, angles, and names of members, arms and corners that are not there."""
    path, layout = f"{end}_linkage", LAYOUTS[linkage.layout]
    if not linkage.loaded_radius > 0:
        yield PlannedError(
            finding("check.loaded-radius", radius=linkage.loaded_radius),
            path=f"{path}.loaded_radius",
        )
    for name in ("toe", "camber"):
        if abs(value := getattr(linkage, f"{name}_deg")) > MOST_LEAN_DEG:
            yield PlannedError(
                finding("check.design-angle", angle=name, value=value),
                path=f"{path}.{name}_deg",
                numbers={name: value},
            )
    members = [link.name for link in (*layout.links, *layout.may)]
    bodies = (end,) if layout.axle else CORNERS_OF[end]
    known = [f"{b}.{m}" for b in bodies for m in members]
    for name, size in linkage.lengths.items():
        if name not in known:
            yield PlannedError(finding("check.no-member", member=name, end=end, near=meant(name, known)), path=f"{path}.lengths")  # fmt: skip
        elif not size > 0:
            yield PlannedError(finding("check.no-length", member=name, length=size), path=f"{path}.lengths")  # fmt: skip
    for i, torsion in enumerate(linkage.torsions):
        if torsion.arm not in layout.arms:
            yield PlannedError(
                finding(
                    "check.torsion-no-arm",
                    torsion=torsion.name,
                    layout=linkage.layout,
                    arm=torsion.arm,
                    near=meant(torsion.arm, layout.arms),
                ),
                path=f"{path}.torsions.{i}.arm",
            )
    for i, joint in enumerate(linkage.joints):
        if joint.member not in members:
            yield PlannedError(
                finding("check.no-joint", member=joint.member, layout=linkage.layout, near=meant(joint.member, members)),
                path=f"{path}.joints.{i}.member",
            )
    for rows, what in ((linkage.springs, "springs"), (linkage.torsions, "torsions")):
        names = [row.name for row in rows]
        if twice := next((n for n in names if names.count(n) > 1), None):
            yield PlannedError(finding("check.twice", name=twice, among=what), path=f"{path}.{what}")


def _check_end(plan: Plan, end: End) -> Iterator[PlannedError]:
    try:
        bodies = bodies_of(plan, end)
    except PlannedError as wrong:
        yield wrong
        return
    for body in bodies:
        wrong_parts = [*_check_parts(end, body), *_check_size(plan, end, body)]
        yield from wrong_parts
        if any(p.path.startswith("points.") for p in wrong_parts):
            continue
        try:
            require_held(body.shape)
        except PlannedError as wrong:
            yield wrong
            continue
        with np.errstate(all="ignore"):
            built = solve(body.shape, np.zeros(1)).converged[0]
        if not built:
            given = [k for k in plan.linkage(end).lengths if k.split(".", 1)[0] == body.name]  # type: ignore[union-attr]
            yield PlannedError(
                finding("check.lengths-do-not-reach", body=body.name, given=tuple(given)),
                path=f"{end}_linkage.lengths",
            )


def _check_parts(end: End, body: Body) -> Iterator[PlannedError]:
    for spring in body.springs:
        if spring.closed and spring.open and not spring.closed < spring.open:
            yield PlannedError(
                finding("check.damper-exchanged", body=body.name, spring=spring.name, closed=spring.closed, open=spring.open),
                path=f"{end}_linkage.springs.{spring.name}.closed",
                numbers={"closed": spring.closed, "open": spring.open},
            )
        if spring.to_tyre is not None and not beside_tyre(body, body.shape, design_pose(body.shape, 1), spring)[1].all():
            yield PlannedError(
                finding("check.not-beside-tyre", body=body.name, spring=spring.name),
                path=f"{end}_linkage.springs.{spring.name}.to_tyre",
            )
    for spring in body.springs:
        path = f"{end}_linkage.springs.{spring.name}.solid"
        for size, solid in ((spring.free, spring.solid), spring.helper[1:] if spring.helper else (None, None)):
            if size and solid and not solid < size:
                yield PlannedError(
                    finding("check.spring-solid", body=body.name, spring=spring.name, free=size, solid=solid),
                    path=path,
                    numbers={"free": size, "solid": solid},
                )
        if spring.helper and not spring.helper[0] > 0:
            yield PlannedError(
                finding("check.helper", body=body.name, spring=spring.name),
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
            yield PlannedError(finding("check.point-wanted", body=body.name, point=name), path=f"points.{body.name}.{name}")
    allowed = {"car", "upright", *body.layout.arms, *(["rocker"] if body.rocker else [])}
    for what, stand in stands:
        if stand.on not in allowed:
            yield PlannedError(
                finding(
                    "check.stands-on-nothing",
                    body=body.name,
                    part=what,
                    on=stand.on,
                    layout=body.layout.name,
                    near=meant(stand.on, sorted(allowed)),
                ),
                path=f"{end}_linkage",
            )
    if all(name in body.shape.mechanism.points for name in named) and all(s.on in allowed for _, s in stands):
        yield from _check_levers(end, body)


def _check_levers(end: End, body: Body) -> Iterator[PlannedError]:
    """Springs that nothing shortens, and rockers, bars and shafts without a lever or a length."""
    place = body.shape.point

    def apart(first: str, second: str) -> float:
        return _apart(place(first), place(second))

    for spring in body.springs:
        path, (one, other) = f"{end}_linkage.springs.{spring.name}.ends", spring.ends
        if one.on == other.on:
            yield PlannedError(
                finding("check.spring-both-ends", body=body.name, spring=spring.name, on=one.on),
                path=path,
            )
        elif apart(one.point, other.point) < TOGETHER_MM:
            yield PlannedError(finding("check.spring-no-length", body=body.name, spring=spring.name), path=path)
    swung = [("rocker", body.rocker, body.rocker.push, body.rocker.rod)] if body.rocker else []
    swung += [("bar", body.bar, body.bar.arm, body.bar.link)] if body.bar else []  # type: ignore[list-item]
    for what, part, tip, rod in swung:
        first, second = place(part.first), place(part.second)
        path = f"{end}_linkage.{what}"
        if apart(part.first, part.second) < TOGETHER_MM:
            yield PlannedError(finding("check.no-axis", body=body.name, part=what), path=path)  # fmt: skip
        elif np.linalg.norm(np.cross(second - first, place(tip) - first)) < TOGETHER_MM * np.linalg.norm(second - first):
            yield PlannedError(finding("check.on-axis", body=body.name, tip=tip, part=what), path=path)  # fmt: skip
        if apart(tip, rod.point) < TOGETHER_MM:
            yield PlannedError(finding("check.rod-no-length", body=body.name, part=what), path=path)
        if rod.on in ("car", what):
            yield PlannedError(finding("check.rod-on-chassis", body=body.name, part=what, on=rod.on), path=path)  # fmt: skip
    if body.shaft and min(body.shaft.pushed or 0.0, body.shaft.pulled or 0.0) < 0:
        yield PlannedError(finding("check.shaft-plunge", body=body.name), path=f"{end}_linkage.shaft")
    if body.shaft and apart(body.shaft.inner, body.shaft.outer) < TOGETHER_MM:
        yield PlannedError(finding("check.shaft-no-length", body=body.name), path=f"{end}_linkage.shaft")  # fmt: skip
    for arm, its in body.layout.arms.items():
        first, second, joint = (place(n) for n in (its.first, its.second, its.joint))
        along = float(np.linalg.norm(second - first))
        if along >= TOGETHER_MM and np.linalg.norm(np.cross(second - first, joint - first)) < TOGETHER_MM * along:
            yield PlannedError(
                finding("check.joint-on-axis", body=body.name, joint=its.joint, arm=arm),
                path=f"points.{body.name}.{its.joint}",
            )


def _check_size(plan: Plan, end: End, body: Body) -> Iterator[PlannedError]:
    """Inches typed as millimetres, and dimensions given twice that disagree."""
    shape = body.shape
    wheels = [shape.point(w.centre) for w in body.wheels]
    for name in body.layout.needed:
        away = min(float(np.linalg.norm(shape.point(name) - w)) for w in wheels)
        if away > 10 * max(plan.axle(end).tyre_diameter, 1.0):
            yield PlannedError(
                finding("check.far-from-wheel", body=body.name, point=name, away=away),
                path=f"points.{body.name}.{name}",
                numbers={"distance": away},
            )
    track = plan.axle(end).track
    for wheel, place in zip(body.wheels, wheels, strict=True):
        if abs(abs(place[1]) - track / 2) > DISAGREE_MM:
            small = abs(abs(place[1]) * 25.4 - track / 2) < 0.02 * track
            yield PlannedError(
                finding(
                    "check.off-track",
                    body=body.name,
                    centre=wheel.centre,
                    offset=abs(float(place[1])),
                    half=track / 2,
                    inch=small,
                ),
                path=f"points.{body.name}.{wheel.centre}",
                numbers={"offset": float(place[1]), "half_track": track / 2},
            )
        station = 0.0 if end == "front" else -plan.wheelbase
        if abs(place[0] - station) > DISAGREE_MM:
            yield PlannedError(
                finding("check.off-wheelbase", body=body.name, centre=wheel.centre, station=float(place[0]), planned=station),
                path=f"points.{body.name}.{wheel.centre}",
                numbers={"station": float(place[0]), "wheelbase": plan.wheelbase},
            )


def _apart(a: Sequence[float] | Array, b: Sequence[float] | Array) -> float:
    return float(np.linalg.norm(np.subtract(a, b)))
