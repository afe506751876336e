"""What each point and each link is worth: derivatives of every answer by implicit differentiation, and the spread of a build.

With rows · pose change = −(change of residuals by a parameter), and the answers carried along by a complex step, every derivative is
exact to rounding.

Source: implicit differentiation of the constraints, docs/linkage.md; of the complex step see ``space``.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ready_corner.core.engines.linkage.answers import motion_of, nudged
from ready_corner.core.engines.linkage.body import Body
from ready_corner.core.engines.linkage.mechanism import ON_UPRIGHT, Pose, Shape, link_lengths, system
from ready_corner.core.engines.linkage.parts import spring_length
from ready_corner.core.engines.linkage.solve import Poses, solve_near, solve_rows
from ready_corner.core.engines.linkage.space import STEP, Array
from ready_corner.core.engines.linkage.sweep import Sweep, answers_at, sweep
from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.naming import meant

Hold = Literal["travel", "spring"]
Lengths = Literal["kept", "anew"]


@dataclass(frozen=True)
class Parameter:
    """One coordinate of a point (``axis`` 0, 1, 2) or, with axis None, the length of a link."""

    name: str
    axis: int | None

    @property
    def said(self) -> str:
        """Its name with its axis: ``lower.ball.z``, ``tie rod``."""
        return self.name if self.axis is None else f"{self.name}.{'xyz'[self.axis]}"


def parameters(body: Body) -> tuple[Parameter, ...]:
    """Return every coordinate of every point and every link length.

    Source: implicit differentiation of the constraints, docs/linkage.md.
    """
    points = [n for n in body.shape.mechanism.points if not n.endswith(ON_UPRIGHT)]
    coordinates = [Parameter(n, k) for n in points for k in range(3)]
    return (*coordinates, *(Parameter(link.name, None) for link in body.shape.mechanism.links))


def sensitivities(
    swept: Sweep,
    wanted: Sequence[Parameter],
    hold: Hold = "travel",
    lengths: Lengths = "kept",
    spring: str = "",
    rates: bool = True,
) -> dict[str, Array]:
    """Return d(answer)/d(parameter), shape (parameters, N), by answer: per mm.

    hold: at the same wheel travel, or at the same length of a spring (its perch held). lengths: links keep theirs when a point
    moves, or are taken anew from the drawing. ``spring`` names the spring held; the first one where it is empty. rates: those of
    motion ratios and wheel rates too, which cost four times the rest.
    Raises PlannedError where a spring is to be held and there is none.
    Source: implicit differentiation of the constraints, docs/linkage.md.
    """
    known = {p.name for p in parameters(swept.body)}
    if missing := next((p.name for p in wanted if p.name not in known), None):
        raise PlannedError(
            finding("worth.no-such-lever", body=swept.body.name, lever=missing, near=meant(missing, sorted(known))),
            path="parameters",
        )
    if not swept.poses.converged.all():
        raise PlannedError(finding("worth.out-of-reach"), path="travel")
    found, along = _by_step(swept, wanted, hold, lengths, spring)
    return found | _of_rates(swept, wanted, lengths, along, found) if rates else found


def _by_step(
    swept: Sweep, wanted: Sequence[Parameter], hold: Hold, lengths: Lengths, spring: str
) -> tuple[dict[str, Array], Array]:
    """Return the derivatives a complex step can give, and by how far each parameter moves the wheel along its travel, (parameters, N)."""
    body, pose, m = swept.body, swept.poses.pose, swept.body.shape.mechanism
    x = np.repeat(body.shape.x[None].astype(complex), len(wanted), axis=0)
    links = np.repeat(body.shape.links[None].astype(complex), len(wanted), axis=0)
    for i, parameter in enumerate(wanted):
        if parameter.axis is None:
            links[i, [link.name for link in m.links].index(parameter.name)] += 1j * STEP
        else:
            for name in body.twins(parameter.name, lengths):
                x[i, m.index(name), parameter.axis] += 1j * STEP
    if lengths == "anew":
        # A redesign takes the length from the drawing; a length changed as such is changed on top of it.
        links += link_lengths(m, x) - link_lengths(m, body.shape.x)
    rods = None if lengths == "anew" else body.shape.x if body.shape.rods is None else body.shape.rods
    shape = Shape(m, x[:, None], links[:, None], rods)  # (parameters, 1, …) against rows (N, …)
    travel, roll = swept.poses.travel, swept.poses.roll
    moved, _ = system(shape, pose, travel, roll)
    _, rows = system(body.shape, pose, travel, roll)
    change = -np.moveaxis(solve_rows(body.shape, rows, np.moveaxis(moved.imag / STEP, 0, -1)), -1, 0)
    along = np.zeros(change.shape[:-1])
    if hold == "spring":
        along = _keeping_spring(body, shape, pose, change, spring)
        change = change + along[..., None] * motion_of(body, body.shape, pose).twist
    wheels, shared = answers_at(body, shape, nudged(pose, change))
    found = replace(swept, wheels=wheels, shared=shared).answers
    wide = {name: np.broadcast_to(np.asarray(value, dtype=complex), change.shape[:-1]) for name, value in found.items()}
    return {name: np.imag(value) / STEP for name, value in wide.items()}, along


ALONG_MM = 0.5  # between the travels at which derivatives are compared; five points, so the error goes with its fourth power


def _of_rates(
    swept: Sweep, wanted: Sequence[Parameter], lengths: Lengths, along: Array, found: Mapping[str, Array]
) -> dict[str, Array]:
    """Return the derivatives of how ratios change over travel, and of wheel rates.

    A rate is a complex step already, and one cannot ride on another; so the exact derivatives of the ratio are compared at four
    travels nearby: d(ratio per mm)/dp = d(d ratio/dp)/dz.
    """
    body = swept.body
    names = {s.name: (f"{s.name}.ratio", f"{s.name}.ratio_per_mm", f"{s.name}.length") for s in body.springs}
    names |= {t.name: (f"{t.name}.deg_per_mm", f"{t.name}.deg_per_mm2", f"{t.name}.angle_deg") for t in body.torsions}
    if not names:
        return {}
    slopes: dict[str, Array] = {name: np.zeros(along.shape) for name in names}
    bends: dict[str, Array] = {name: np.zeros(swept.poses.rows) for name in names}
    for step, weight in ((-2, 1), (-1, -8), (1, 8), (2, -1)):
        near = sweep(body, swept.poses.travel + step * ALONG_MM, swept.poses.pose.steer, np.degrees(swept.poses.roll))
        there, _ = _by_step(near, wanted, "travel", lengths, "")
        for name, (ratio, change, _) in names.items():
            slopes[name] = slopes[name] + weight * there[ratio] / (12 * ALONG_MM)
            bends[name] = bends[name] + weight * near.shared[change] / (12 * ALONG_MM)
    out: dict[str, Array] = {}
    for spring in body.springs:
        ratio, change, size = names[spring.name]
        out[change] = slopes[spring.name] + bends[spring.name] * along
        if spring.rate is not None:
            by = 2 * swept.shared[ratio] * found[ratio]
            if spring.loose_at is not None:
                by = by + (spring.loose_at - swept.shared[size]) * out[change] - found[size] * swept.shared[change]
            out[f"{spring.name}.wheel_rate"] = spring.rate * by
    for torsion in body.torsions:
        ratio, change, size = names[torsion.name]
        out[change] = slopes[torsion.name] + bends[torsion.name] * along
        if torsion.rate is not None:
            by = 2 * swept.shared[ratio] * found[ratio] + swept.shared[size] * out[change] + found[size] * swept.shared[change]
            out[f"{torsion.name}.wheel_rate"] = torsion.rate * 1000 * np.pi / 180 * by
    return out


def _keeping_spring(body: Body, shape: Shape, pose: Pose, change: Array, name: str) -> Array:
    """Return the further travel that brings the spring back to its length: (change of length) / (shortening per mm)."""
    spring = next((s for s in body.springs if name in ("", s.name)), None)
    if spring is None:
        raise PlannedError(finding("worth.no-spring", body=body.name), path="springs")
    twist = motion_of(body, body.shape, pose).twist
    there = nudged(pose, change)
    length, _ = spring_length(body, shape, there, np.broadcast_to(twist, change.shape).astype(complex), spring)
    _, ratio = spring_length(body, body.shape, pose, twist, spring)
    return np.asarray(length.imag / STEP / ratio)


@dataclass(frozen=True)
class Spread:
    """Standard uncertainty of answers (by name, a number each) from that of points and links: linear, and from full solves of samples.

    ``samples``: by answer (drawn,); rows that did not close are nan, and ``lost`` counts them.
    """

    linear: Mapping[str, float]
    drawn: Mapping[str, float]
    samples: Mapping[str, Array]
    lost: int


def spread(
    body: Body, wanted: Sequence[Parameter], covariance: Array, answers: Sequence[str], samples: int = 10_000, seed: int = 1
) -> Spread:
    """Return how far answers at the design position scatter, given the covariance of parameters (mm²), links keeping their lengths.

    Source: implicit differentiation of the constraints, docs/linkage.md.
    """
    swept = _at_design(body)
    by = sensitivities(swept, wanted, rates=any("rate" in a or "_per_mm" in a for a in answers))
    linear = {a: float(np.sqrt(max(float(by[a][:, 0] @ covariance @ by[a][:, 0]), 0.0))) for a in answers}
    root = _root(covariance)
    errors = np.random.default_rng(seed).standard_normal((samples, len(wanted))) @ root.T
    x, links = np.repeat(body.shape.x[None], samples, 0), np.repeat(body.shape.links[None], samples, 0)
    names = [link.name for link in body.shape.mechanism.links]
    for i, p in enumerate(wanted):
        if p.axis is None:
            links[:, names.index(p.name)] += errors[:, i]
        else:
            x[:, body.shape.mechanism.index(p.name), p.axis] += errors[:, i]
    drawn = Shape(body.shape.mechanism, x, links, body.shape.x if body.shape.rods is None else body.shape.rods)
    poses = solve_near(drawn)
    wheels, shared = answers_at(replace(body, shape=drawn), drawn, _only_good(poses))
    found = replace(swept, wheels=wheels, shared=shared).answers
    picked = {a: np.where(poses.converged, found[a], np.nan) for a in answers}
    return Spread(linear, {a: float(np.nanstd(v)) for a, v in picked.items()}, picked, int(np.sum(~poses.converged)))


def _only_good(poses: Poses) -> Pose:
    nan = np.where(poses.converged, 1.0, np.nan)
    return Pose(poses.pose.rotation * nan[:, None, None], poses.pose.place * nan[:, None], poses.pose.steer)


def _root(covariance: Array) -> Array:
    """Return a square root of a covariance, singular or not."""
    values, vectors = np.linalg.eigh(covariance)
    return np.asarray(vectors * np.sqrt(np.maximum(values, 0.0)))


def _at_design(body: Body) -> Sweep:
    """Return the sweep of the design position alone."""
    return sweep(body, np.zeros(1))
