"""What a turn of an adjuster should be worth by the plan's linkage, for as long as it was not tried on the car."""

from collections.abc import Sequence

import numpy as np

from ready_corner.core.engines.learning import WorthOfTurns
from ready_corner.core.engines.linkage.sweep import Sweep, sweep
from ready_corner.core.engines.linkage.worth import Hold, Parameter, sensitivities
from ready_corner.core.model.bodies import body_named
from ready_corner.core.plan.corners import Corner
from ready_corner.core.plan.plan import Adjuster, Plan
from ready_corner.core.quantities.errors import PlannedError

KINDS = ("camber", "toe")
# A car is seldom made as drawn: pickups 1 to 3 mm off put worths out by up to a ninth. Standard uncertainties: of the worth, and degrees a turn.
PART_TRUSTED, LEAST_DEG = 0.06, 0.01


def predicted(plan: Plan, corner: Corner) -> dict[str, WorthOfTurns]:
    """Return what one turn (or shim) of each adjuster of a corner adds to its camber and toe, in degrees, by kind.

    At the ride height of the plan, its spring keeping its length (of an axle: at the same heave). Empty where the plan has no linkage
    there, or says of no adjuster what it moves.
    Source: implicit differentiation of the linkage, docs/linkage.md.
    """
    own = [a for a in plan.adjusters if a.corner == corner and (a.moves or a.raises)]
    if not own:
        return {}
    try:
        swept = sweep(body_named(plan, corner), np.zeros(1))
    except PlannedError:
        return {}
    body, side = swept.body, "left." if corner.startswith("L") else "right."
    prefix = side if body.is_axle else ""
    links = by_turn(swept, own, [f"{prefix}{kind}_deg" for kind in KINDS])
    rows: dict[str, dict[str, float]] = {kind: {} for kind in KINDS}
    for adjuster in own:
        for kind in KINDS:
            name = f"{prefix}{kind}_deg"
            if adjuster.raises:
                rows[kind][adjuster.id] = -adjuster.lift_per_step * float(swept.answers[f"{name}_per_mm"][0])
            else:
                rows[kind][adjuster.id] = links[adjuster.id][name]
    return {kind: _worth(found) for kind, found in rows.items()}


def casters(plan: Plan, corner: Corner, travel: Sequence[float]) -> tuple[float, ...] | None:
    """Return the caster of a corner as drawn at travels (mm, bump positive), degrees; None where the plan's linkage does not tell it there.

    Source: line through two joints over travel, docs/linkage.md.
    """
    try:
        swept = sweep(body_named(plan, corner), np.asarray(travel, dtype=float))
    except PlannedError:
        return None
    name = f"{'left.' if corner.startswith('L') else 'right.'}caster_deg" if swept.body.is_axle else "caster_deg"
    found = swept.answers.get(name)
    return None if found is None or not np.isfinite(found).all() else tuple(float(v) for v in found)


def by_turn(swept: Sweep, adjusters: Sequence[Adjuster], answers: Sequence[str]) -> dict[str, dict[str, float]]:
    """Return what one turn (or shim) of each link adds to answers of its linkage, in their units, by adjuster and answer.

    Its spring keeps its length (of an axle: at the same heave). Adjusters that move nothing of the linkage are left out.
    Source: implicit differentiation of the linkage, docs/linkage.md.
    """
    wanted = list(dict.fromkeys(p for a in adjusters for p, _ in parts_of(a)))
    if not wanted:
        return {}
    body = swept.body
    hold: Hold = "spring" if body.springs and not body.is_axle else "travel"
    by = sensitivities(swept, wanted, hold, rates=False)
    return {
        a.id: {n: a.length_per_step * sum(float(by[n][wanted.index(p), 0]) * w for p, w in parts_of(a)) for n in answers}
        for a in adjusters
        if parts_of(a)
    }


def parts_of(adjuster: Adjuster) -> list[tuple[Parameter, float]]:
    """Return which parameters of the linkage an adjuster moves, each with its share of a millimetre.

    Source: the direction it moves its point in, as a unit vector; docs/linkage.md.
    """
    if adjuster.moves is None or adjuster.raises:
        return []
    name = adjuster.moves.name.split(".", 1)[1]
    if adjuster.moves.direction is None:
        return [(Parameter(name, None), 1.0)]
    way = np.asarray(adjuster.moves.direction, dtype=float)
    return [(Parameter(name, k), float(w)) for k, w in enumerate(way / np.linalg.norm(way)) if w]


def _worth(found: dict[str, float]) -> WorthOfTurns:
    u = np.array([PART_TRUSTED * abs(v) + LEAST_DEG for v in found.values()])
    return WorthOfTurns.apart(list(found), list(found.values()), u**2)
