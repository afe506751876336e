"""Curves of an end over travel, steering or roll; what if something moved; and which levers move a figure most.

Source: the linkage swept, exact derivatives; docs/linkage.md.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ready_corner.core.engines.linkage.body import Body
from ready_corner.core.engines.linkage.mechanism import BOX_POINTS
from ready_corner.core.engines.linkage.named import Named, named
from ready_corner.core.engines.linkage.space import Array
from ready_corner.core.engines.linkage.sweep import Sweep, sweep
from ready_corner.core.engines.linkage.worth import Lengths, Parameter, Spread, parameters, sensitivities, spread
from ready_corner.core.model.bodies import EndSweep, bodies_of, sweep_end
from ready_corner.core.plan.corners import End, Point
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import CalledError, PlannedError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import COVERAGE
from ready_corner.core.quantities.naming import meant

Over = Literal["travel", "steer", "roll"]
MOST_ROWS = 401
# Past what any wheel does: mm, mm of a rack or degrees of a drop arm, degrees.
FURTHEST: Mapping[Over, float] = {"travel": 500.0, "steer": 400.0, "roll": 45.0}


@dataclass(frozen=True)
class Change:
    """Something moved by so much: a point of the plan along x, y or z in mm, or the length of a member of a corner (axis None)."""

    name: str
    axis: int | None
    by: float


@dataclass(frozen=True)
class Curve:
    """One answer over the rows: of the left wheel, the right one, or of both together (``left`` alone)."""

    answer: str
    said: Named
    left: Array
    right: Array | None


@dataclass(frozen=True)
class Limit:
    """How near something comes to its limit over the rows: ``left`` of it in ``unit`` (minus is past it), at which drive.

    ``share`` of its whole range that is left; the list of them is worst first. ``body`` and ``part``: what it is of; ``shares`` (N,) row by row.
    """

    what: str
    left: float
    unit: str
    at: float
    share: float
    body: str
    part: str
    shares: Array

    def said(self, over: Over) -> Finding:
        """What is left of it, or by how much it is past it, and where."""
        sized = "angle" if self.unit == "°" else "length"
        at = ("angle" if over == "roll" else "length", self.at)
        return finding("limit.near", left=(sized, abs(self.left)), past=self.left < 0, at=at)


@dataclass(frozen=True)
class Study:
    """Curves over one drive; ``drive`` (N,) in mm or degrees; ``warnings`` say what is out of reach or binds; ``limits`` worst first.

    ``swept``: the sweeps it was made of.
    """

    drive: Array
    curves: tuple[Curve, ...]
    warnings: tuple[Finding, ...]
    limits: tuple[Limit, ...]
    swept: tuple[Sweep, ...]


@dataclass(frozen=True)
class Lever:
    """One parameter with what a millimetre of it does to a figure, and to the others it spoils most, each by answer."""

    parameter: Parameter
    does: float
    spoils: tuple[tuple[str, float], ...]


def study(
    plan: Plan,
    end: End,
    over: Over,
    low: float,
    high: float,
    rows: int,
    changes: Sequence[Change] = (),
    lengths: Lengths = "kept",
    before: Study | None = None,
    built: Mapping[str, Point] | None = None,
) -> Study:
    """Return every curve of an end from ``low`` to ``high`` of a drive, with some points or members moved.

    ``before``: the study of the same plan and range with nothing moved; a wheel that no change touches is taken from it.
    ``built``: places of points as measured, in place of the planned ones, some or all.
    Raises CalledError for a range that is none, PlannedError where the plan has no linkage there or a name is not in it.
    """
    if not (np.isfinite([low, high]).all() and low < high and 2 <= rows <= MOST_ROWS):
        raise CalledError(
            finding("study.no-range", low=low, high=high, rows=rows, MOST_ROWS=MOST_ROWS),
            path="low",
        )
    if max(abs(low), abs(high)) > FURTHEST[over]:
        raise CalledError(
            finding("study.too-far", low=low, high=high, most=FURTHEST[over]), path="low" if -low > high else "high"
        )
    drive = np.linspace(low, high, rows)
    planned = tuple(s.body for s in before.swept) if before else as_built(bodies_of(plan, end), end, built or {}, lengths)
    bodies = tuple(changed(b, end, changes, lengths) for b in planned)
    _know_all(bodies, end, changes)
    zero = np.zeros(rows)
    drives = {"travel": (drive, zero, zero), "steer": (zero, drive, zero), "roll": (zero, zero, drive)}[over]
    found = sweep_end(plan, end, *drives, bodies=bodies or None, before=before.swept if before else ())
    warnings = tuple(w for s in found.bodies for w in s.warnings)
    return Study(drive, _curves(found), warnings, limits_of(found.bodies, drive), found.bodies)


def as_built(bodies: Sequence[Body], end: End, built: Mapping[str, Point], lengths: Lengths) -> tuple[Body, ...]:
    """Return bodies with measured points in place of planned ones: partly measured allowed, names of other bodies passed over."""
    found = []
    for body in bodies:
        own = {n.split(".", 1)[1]: p for n, p in built.items() if n.split(".", 1)[0] in (body.name, end)}
        known = {n: p for n, p in own.items() if n in body.shape.mechanism.points}
        found.append(body.built(known, lengths) if known else body)
    return tuple(found)


def limits_of(sweeps: Sequence[Sweep], drive: Array) -> tuple[Limit, ...]:
    """Return how near every joint with a limit, every damper with its lengths, every shaft with its plunge and every spring beside its
    tyre comes to it; worst first."""
    rows: list[Limit] = []

    def nearest(what: str, part: str, left: Array, unit: str, whole: float) -> None:
        if np.isfinite(left).any():
            i = int(np.nanargmin(left))
            worst = float(left[i])
            rows.append(Limit(what, worst, unit, float(drive[i]), worst / whole, name, part, left / whole))

    for swept in sweeps:
        name = swept.body.name
        for joint in swept.body.joints:
            angle = swept.shared.get(f"{joint.member}.{joint.at}_deg")
            if angle is not None:
                nearest(
                    f"{name} {joint.member}, {joint.at} joint",
                    joint.member,
                    joint.limit_deg - np.abs(angle),
                    "°",
                    joint.limit_deg,
                )
        if shaft := swept.body.shaft:
            plunge, whole = swept.shared["shaft.plunge"], (shaft.pushed or 0.0) + (shaft.pulled or 0.0)
            if shaft.pushed is not None:
                nearest(f"{name} halfshaft, pushed in", "shaft", plunge + shaft.pushed, "mm", whole or 1.0)
            if shaft.pulled is not None:
                nearest(f"{name} halfshaft, pulled out", "shaft", shaft.pulled - plunge, "mm", whole or 1.0)
        for spring in swept.body.springs:
            size = swept.shared[f"{spring.name}.length"]
            if spring.to_tyre:
                gap = swept.shared[f"{spring.name}.to_tyre"]
                nearest(f"{name} {spring.name}, to the tyre", spring.name, gap, "mm", spring.to_tyre)
            stroke = (spring.open or 0.0) - (spring.closed or 0.0)
            if spring.closed is not None:
                nearest(
                    f"{name} {spring.name}, closing",
                    spring.name,
                    size - spring.closed,
                    "mm",
                    stroke if spring.open else spring.closed,
                )
            if spring.open is not None:
                nearest(
                    f"{name} {spring.name}, opening",
                    spring.name,
                    spring.open - size,
                    "mm",
                    stroke if spring.closed else spring.open,
                )
    return tuple(sorted(rows, key=lambda row: row.share))


def _curves(found: EndSweep) -> tuple[Curve, ...]:
    rows = [Curve(k, said, v, found.right.get(k)) for k, v in found.left.items() if (said := named(k))]
    rows += [Curve(k, said, v, None) for k, v in found.pair.items() if (said := named(k))]
    if len(found.bodies) == 1:
        rows += [Curve(k, said, v, None) for k, v in found.bodies[0].shared.items() if (said := named(k))]
    return tuple(rows)


def changed(body: Body, end: End, changes: Sequence[Change], lengths: Lengths) -> Body:
    """Return a body with those of the changes that are its own; a change at a corner leaves the other side as it is."""
    for change in changes:
        corner, _, name = change.name.partition(".")
        if corner != body.name and not (corner == end and name in BOX_POINTS):
            continue
        if change.axis is None:
            members = [link.name for link in body.shape.mechanism.links]
            if name in members:
                links = body.shape.links.copy()
                links[members.index(name)] += change.by
                body = replace(body, shape=replace(body.shape, links=links))
        elif name in body.shape.mechanism.points:
            place = body.shape.point(name).copy()
            place[change.axis] += change.by
            body = body.built({name: tuple(place)}, lengths)
    return body


def _know_all(bodies: Sequence[Body], end: End, changes: Sequence[Change]) -> None:
    known = {f"{b.name}.{n}" for b in bodies for n in (*b.shape.mechanism.points, *b.shape.mechanism.rows)}
    known |= {f"{end}.{n}" for n in BOX_POINTS if any(b.shape.mechanism.box for b in bodies)}
    if missing := [c.name for c in changes if c.name not in known]:
        raise PlannedError(
            finding("study.no-such-lever", end=end, lever=missing[0], near=meant(missing[0], sorted(known))), path="changes"
        )


WATCHED = ("camber_deg", "toe_deg", "caster_deg", "toe_deg_per_mm", "camber_deg_per_mm", "scrub", "trail")


def levers(plan: Plan, end: End, answer: str, count: int = 8) -> tuple[Lever, ...]:
    """Return which points and members of the left wheel (or the axle) move a figure most at rest, and what else they move.

    Per mm, links keeping their lengths, at the same wheel travel. Raises CalledError where the answer is no wheel's.
    """
    bodies = bodies_of(plan, end)
    if not bodies:
        raise PlannedError(finding("linkage.not-said", end=end), path=f"{end}_linkage")
    body = bodies[0]
    all_of = parameters(body)
    found = sensitivities(sweep(body, np.zeros(1)), all_of, rates=False)
    side = "left." if body.is_axle else ""
    key = answer if answer in found else side + answer
    if key not in found:
        raise CalledError(
            finding("study.no-answer", answer=answer, near=meant(answer, [k.removeprefix(side) for k in found])),
            path="answer",
        )
    worth = found[key][:, 0]
    order = sorted((i for i in range(len(all_of)) if abs(worth[i]) > 1e-9), key=lambda i: -abs(float(worth[i])))[:count]
    watched = [w for w in WATCHED if side + w in found and side + w != key]
    return tuple(Lever(all_of[i], float(worth[i]), tuple((w, float(found[side + w][i, 0])) for w in watched)) for i in order)


SPREAD_OF = ("camber_deg", "toe_deg", "caster_deg", "toe_deg_per_mm")


def spread_of(plan: Plan, end: End, expanded: float, samples: int = 4000) -> Spread:
    """Return how far camber, toe, caster and bump steer of the left wheel scatter when every point is sure to ± ``expanded`` mm (U) along every axis.

    Links keep their lengths. Standard uncertainties, linear and of drawn cars solved fully. Raises CalledError for a doubt of nothing.
    """
    if not expanded > 0:
        raise CalledError(finding("study.no-doubt"), path="typed")
    bodies = bodies_of(plan, end)
    if not bodies:
        raise PlannedError(finding("linkage.not-said", end=end), path=f"{end}_linkage")
    body = bodies[0]
    held = {n for link in body.shape.mechanism.links for n in (link.body, link.upright)} | set(body.layout.needed)
    wanted = [p for p in parameters(body) if p.axis is not None and p.name in held]
    side = "left." if body.is_axle else ""
    names = [side + a for a in SPREAD_OF if side + a in sweep(body, np.zeros(1)).answers]
    return spread(body, wanted, np.eye(len(wanted)) * (expanded / COVERAGE) ** 2, names, samples)


__all__ = ["Change", "Curve", "Lever", "Limit", "Over", "Study", "changed", "levers", "limits_of", "spread_of", "study"]
