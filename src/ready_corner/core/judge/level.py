"""How level the jig stands, by the feet read since it was last shaken, and what to turn or pack.

Source: best plane by least squares; levels by reversal; docs/survey.md.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from ready_corner.core.engines.survey.level import Foot, by_reversal, level_of, packing, rise_over, screw_feet
from ready_corner.core.plan.plan import Gone, Jig, Plan
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import Measured
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.record.jig_acts import JigLog, SlopeRead

LEVEL_DEG = 0.03  # half a millimetre over a metre


@dataclass(frozen=True)
class FootState:
    """A foot: where it stands, the height read last in mm, whether that still counts, and what to do there."""

    name: str
    x: float
    y: float
    height: float | None
    counts: bool
    do: Finding | None


@dataclass(frozen=True)
class Level:
    """The jig's level: what it comes to, what else is to be said, and its feet."""

    sentence: Finding
    notes: tuple[Finding, ...]
    feet: tuple[FootState, ...]


def level(plan: Plan, log: JigLog, gone: Gone | None = None) -> Level | None:
    """Return how level the jig stands; None where the plan has no jig and no slope was read."""
    gone = gone or Gone()
    slopes = _slopes(plan, log, gone)
    if plan.jig is None:
        return Level(slopes[0], slopes[1:], ()) if slopes else None
    jig = plan.jig
    shaken, why = log.shaken
    feet, states = [], []
    for name, (x, y) in jig.feet.items():
        number, read = log.feet.get(name, (0, None))
        counts = read is not None and number > shaken
        if read is not None and counts:
            feet.append(Foot(name, x, y, gone.tool(plan, read.tool).estimate([read.value], name)))
        states.append(FootState(name, x, y, read.value if read else None, counts, None))
    if len(feet) < min(3, len(jig.feet)):
        stale = any(s.height is not None and not s.counts for s in states)
        return Level(finding("level.stale", why=why) if stale else finding("level.unread"), slopes, tuple(states))
    found, notes = level_of(feet), list(slopes)
    if found.odd and abs(found.twist[found.odd].value) > found.twist[found.odd].expanded:
        twist = found.twist[found.odd].value
        notes.insert(0, finding("level.odd-foot", foot=found.odd, off=abs(twist), low=twist < 0))
    todo = _todo(jig, feet)
    return Level(_tilt(found.along_deg, found.across_deg), tuple(notes), tuple(replace(s, do=todo.get(s.name)) for s in states))


def _todo(jig: Jig, feet: Sequence[Foot]) -> dict[str, Finding]:
    """Return what to do at each foot: how far to turn it, or what to pack under it."""
    if jig.pitch_mm_per_turn:
        turned = screw_feet(feet, jig.pitch_mm_per_turn)
        return {t.name: finding("foot.up", turns=t.turns) if t.turns else finding("turn.leave") for t in turned}
    if not jig.shims:
        return {}
    packed = packing(feet, jig.shims)
    return {p.name: finding("foot.pack", shims=_shims(p.shims)) if p.shims else finding("turn.leave") for p in packed}


def _shims(shims: Iterable[float]) -> tuple[Finding, ...]:
    return tuple(finding("foot.shim", thickness=s) for s in shims)


def _tilt(along: Measured, across: Measured) -> Finding:
    parts = [
        finding("level.rises", angle=slope.value, along=lengthways, plus=slope.value > 0)
        for slope, lengthways in ((along, True), (across, False))
        if abs(slope.value) > max(LEVEL_DEG, slope.expanded)
    ]
    return finding("level.tilted", parts=parts) if parts else finding("level.level")


def _reversed(plan: Plan, gone: Gone, number: int, read: SlopeRead) -> tuple[Tool, tuple[Measured, Measured]]:
    """Return the tool of a slope read both ways, and the slope with the tool's own error."""
    tool = gone.tool(plan, read.tool)
    return tool, by_reversal(tool.estimate([read.first], f"{number} first"), tool.estimate([read.second], f"{number} second"))


def _between_feet(plan: Plan, along: bool) -> float:
    """Return how far the feet of the jig are apart, along the car or across it, mm; 0 where the plan has no jig."""
    at = [place[0 if along else 1] for place in plan.jig.feet.values()] if plan.jig else []
    return max(at) - min(at) if at else 0.0


def _slopes(plan: Plan, log: JigLog, gone: Gone) -> tuple[Finding, ...]:
    """Return what the levels say that were read both ways since the jig was shaken."""
    rows = []
    for number, read in log.slopes:
        if number <= log.shaken[0]:
            continue
        tool, (slope, own) = _reversed(plan, gone, number, read)
        rises = abs(slope.value) > slope.expanded
        part = finding("level.rises", angle=slope.value, along=read.way == "along", plus=slope.value > 0)
        span = _between_feet(plan, read.way == "along") if rises else 0.0
        rows.append(
            finding(
                "level.by-reversal",
                rises=part if rises else None,
                span=span or None,
                height=abs(rise_over(slope, span).value) if span else None,
                sure=slope.expanded,
                tool=tool.name,
                off=own.value,
                entries=(number,),
            )
        )
    return tuple(rows)


def instruments(plan: Plan, log: JigLog, gone: Gone) -> tuple[Finding, ...]:
    """Return of every tool that reads an angle how it did when it was turned end for end last, or that it never was.

    Source: reversal, docs/survey.md.
    """
    last = {read.tool: (number, read) for number, read in log.slopes}
    rows = []
    for tool in (t for t in plan.toolbox if t.measures == "angle"):
        if tool.id not in last:
            rows.append(finding("instrument.unchecked", tool=tool.name))
            continue
        number, read = last[tool.id]
        own = _reversed(plan, gone, number, read)[1][1]
        known = abs(own.value) > own.expanded
        rows.append(
            finding("instrument.checked", tool=tool.name, off=own.value, sure=own.expanded, known=known, entries=(number,))
        )
    return tuple(rows)
