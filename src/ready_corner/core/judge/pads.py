"""The four pads under the tyres: proved level, to be shimmed, or taken out of heights and loads by arithmetic; and which of these it is."""

from dataclasses import dataclass

from ready_corner.core.engines.survey.level import Foot, level_of, packing
from ready_corner.core.judge.figures import Figures
from ready_corner.core.model.springs_of_plan import places
from ready_corner.core.plan.corners import CORNER_WORDS, CORNERS, Corner
from ready_corner.core.quantities.notation import Units, say_exact, say_mass, say_small_length

PLANE_MM = 0.25  # pads that leave less than this to be corrected are flat for any tape


@dataclass(frozen=True)
class Pad:
    """One pad: its height as read, how far up it is to be packed, with which shims where the plan has some, and what arithmetic adds; in words."""

    corner: Corner
    say: str
    up: float
    pack: str
    adds: str


@dataclass(frozen=True)
class Pads:
    """The pads together: which way they are dealt with, in a sentence, and each of them. ``way``: unproved, level, or by arithmetic."""

    way: str
    says: tuple[str, ...]
    pads: tuple[Pad, ...]


def pads_of(figures: Figures) -> Pads:
    """Return how the pads lie and what is done about it. Shims bring every pad up to the highest; whatever is left of it is taken out by arithmetic."""
    state, plan = figures.state, figures.plan
    units, rows = plan.units, {c: state.latest((c, "pad")) for c in CORNERS}
    heights, loads = figures.corrected
    missing = [CORNER_WORDS[c] for c in CORNERS if not rows[c]]
    read = {c: figures.group((c, "pad"), r[-1].spell).estimate for c, r in rows.items() if r}
    if missing:
        said = (
            f"Read the pad of the {', '.join(missing)} too; until then the floor counts as level."
            if read
            else "The pads are not proved level; the floor counts as level."
        )
        return Pads(
            "unproved",
            (said,),
            tuple(Pad(c, say_small_length(read[c].value, units) if c in read else "", 0.0, "", "") for c in CORNERS),
        )
    feet = [Foot(c, float(x), float(y), read[c]) for c, (x, y) in zip(CORNERS, places(plan), strict=True)]
    found = level_of(feet)
    top = max(m.value for m in read.values())
    shims = {p.name: p.shims for p in packing(feet, plan.jig.shims)} if plan.jig and plan.jig.shims else {}
    loaded = any(state.taken.get((c, "load")) for c in CORNERS)
    pads = tuple(
        Pad(
            c,
            say_small_length(read[c].value, units),
            top - read[c].value,
            " + ".join(say_exact(s, units) for s in shims.get(c, ())),
            _adds(heights[i], loads[i] if loaded else 0.0, units),
        )
        for i, c in enumerate(CORNERS)
    )
    sure = max(m.expanded for m in read.values())
    if top - min(m.value for m in read.values()) <= sure:
        return Pads(
            "level",
            (f"The pads are level, as far as they were read (± {say_small_length(sure, units)}). Nothing is taken out.",),
            pads,
        )
    lie = found.along_deg.value, found.across_deg.value
    sides = [
        f"{abs(v):.2f}° {plus if v > 0 else minus}"
        for v, plus, minus in ((lie[0], "up forward", "down forward"), (lie[1], "up to the left", "up to the right"))
        if abs(v) >= 0.005
    ]
    flat = max(abs(h) for h in heights) < PLANE_MM
    says = [
        f"The pads lie {' and '.join(sides)}." if sides else "The pads are even all round.",
        "They are flat: heights stay as they are read, camber is counted from their plane."
        if flat
        else "By arithmetic: what they are off one plane is taken out of heights and loads. Or shim them, tell so, and read them again.",
    ]
    return Pads("arithmetic", tuple(says), pads)


def _adds(height: float, load: float, units: Units) -> str:
    parts = [f"{'+' if height > 0 else '−'}{say_small_length(abs(height), units)}"] if abs(height) >= 0.05 else []
    parts += [f"{'+' if load > 0 else '−'}{say_mass(abs(load), units)}"] if abs(load) >= 0.05 else []
    return ", ".join(parts)
