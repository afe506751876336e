"""The four pads under the tyres: proved level, to be shimmed, or taken out of heights and loads by arithmetic; and which of these it is.

Source: best plane by least squares; docs/stance.md.
"""

from dataclasses import dataclass
from typing import Literal

from ready_corner.core.engines.survey.level import Foot, level_of, packing
from ready_corner.core.judge.figures import Figures
from ready_corner.core.model.springs_of_plan import places
from ready_corner.core.plan.corners import CORNERS, ROUND_AND_BACK, Corner
from ready_corner.core.quantities.finding import Finding, finding

PLANE_MM = 0.25  # pads that leave less than this to be corrected are flat for any tape


@dataclass(frozen=True)
class Pad:
    """One pad: its height as read, mm (None where it is not), how far ``up`` it is to be packed, with which shims where the plan has some, and
    what arithmetic ``adds`` to its corner: height in mm, load in kg."""

    corner: Corner
    height: float | None
    up: float = 0.0
    pack: tuple[float, ...] = ()
    adds: tuple[float, float] = (0.0, 0.0)


@dataclass(frozen=True)
class Pads:
    """The pads together: which way they are dealt with and what is to be said of that, and each of them. ``way``: unproved, level, or by arithmetic."""

    way: Literal["unproved", "level", "arithmetic"]
    says: tuple[Finding, ...]
    pads: tuple[Pad, ...]


def pads_of(figures: Figures) -> Pads:
    """Return how the pads lie and what is done about it. Shims bring every pad up to the highest; whatever is left of it is taken out by arithmetic."""
    state, plan = figures.state, figures.plan
    rows, known = {c: state.latest((c, "pad")) for c in CORNERS}, figures.ground.pads
    heights, loads = figures.ground.corrected
    if not known:
        read = {c: figures.read.group((c, "pad"), r[-1].spell).estimate for c, r in rows.items() if r}
        said = _unproved(figures, [c for c in CORNERS if not rows[c]])
        return Pads("unproved", (said,), tuple(Pad(c, read[c].value if c in read else None) for c in CORNERS))
    read = dict(zip(CORNERS, known, strict=True))
    feet = [Foot(c, float(x), float(y), read[c]) for c, (x, y) in zip(CORNERS, places(plan), strict=True)]
    found = level_of(feet)
    top = max(m.value for m in read.values())
    shims = {p.name: p.shims for p in packing(feet, plan.jig.shims)} if plan.jig and plan.jig.shims else {}
    loaded = any(state.taken.get((c, "load")) for c in CORNERS)
    pads = tuple(
        Pad(c, read[c].value, top - read[c].value, tuple(shims.get(c, ())), (heights[i], loads[i] if loaded else 0.0))
        for i, c in enumerate(CORNERS)
    )
    sure = max(m.expanded for m in read.values())
    if top - min(m.value for m in read.values()) <= sure:
        return Pads("level", (finding("pads.level", sure=sure),), pads)
    sides = [
        finding("pads.side", degrees=abs(slope.value), along=along, plus=slope.value > 0)
        for slope, along in ((found.along_deg, True), (found.across_deg, False))
        if abs(slope.value) >= 0.005
    ]
    flat = max(abs(h) for h in heights) < PLANE_MM
    how = finding("pads.flat" if flat else "pads.arithmetic")
    return Pads("arithmetic", (finding("pads.lie", sides=sides), how), pads)


def _unproved(figures: Figures, missing: list[Corner]) -> Finding:
    """Return why nothing is known of the floor: a round of steps that does not close, or what is still to be read."""
    steps = figures.ground.stepped
    if steps and not steps.closes:
        return finding("pads.not-closed", by=abs(steps.apart.value), sure=steps.apart.expanded)
    to_go = [c for c in ROUND_AND_BACK if not figures.state.latest((c, "pad_step"))]
    if len(to_go) < len(CORNERS):
        return finding("pads.steps-missing", corners=to_go)
    return finding("pads.missing", corners=missing) if len(missing) < len(CORNERS) else finding("pads.unproved")
