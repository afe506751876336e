"""How level the jig stands, by the feet read since it was last shaken, and what to turn or pack."""

from dataclasses import dataclass

from ready_corner.core.engines.survey.level import Foot, by_reversal, level_of, packing, screw_feet
from ready_corner.core.plan.plan import Gone, Plan
from ready_corner.core.quantities.measured import Measured
from ready_corner.core.quantities.notation import say_angle, say_exact, say_length, say_turns
from ready_corner.core.record.jig_acts import JigLog

LEVEL_DEG = 0.03  # half a millimetre over a metre


@dataclass(frozen=True)
class FootState:
    """A foot: where it stands, the height read last as said, whether that still counts, and what to do there."""

    name: str
    x: float
    y: float
    say: str
    counts: bool
    do: str


@dataclass(frozen=True)
class Level:
    """The jig's level: a sentence, more sentences, and its feet."""

    sentence: str
    notes: tuple[str, ...]
    feet: tuple[FootState, ...]


def level(plan: Plan, log: JigLog, gone: Gone | None = None) -> Level | None:
    """Return how level the jig stands; None where the plan has no jig and no slope was read."""
    gone = gone or Gone()
    slopes = _slopes(plan, log, gone)
    if plan.jig is None:
        return Level(slopes[0], slopes[1:], ()) if slopes else None
    units, jig = plan.units, plan.jig
    shaken, why = log.shaken
    feet, states = [], []
    for name, (x, y) in jig.feet.items():
        number, read = log.feet.get(name, (0, None))
        counts = read is not None and number > shaken
        if read is not None and counts:
            feet.append(Foot(name, x, y, gone.tool(plan, read.tool).estimate([read.value], name)))
        states.append(FootState(name, x, y, say_length(read.value, units, denominator=0) if read else "", counts, ""))
    if len(feet) < min(3, len(jig.feet)):
        stale = any(s.say and not s.counts for s in states)
        sentence = (
            f"Read the feet again: {why}."
            if stale
            else "Read the height of every foot from one line: laser, water level, or rule."
        )
        return Level(sentence, slopes, tuple(states))
    found = level_of(feet)
    todo = {}
    if jig.pitch_mm_per_turn:
        todo = {t.name: f"up {say_turns(t.turns)}" if t.turns else "leave it" for t in screw_feet(feet, jig.pitch_mm_per_turn)}
    elif jig.shims:
        todo = {
            p.name: f"pack {' + '.join(say_exact(s, units) for s in p.shims)}" if p.shims else "leave it"
            for p in packing(feet, jig.shims)
        }
    notes = [*slopes]
    if found.odd and abs(found.twist[found.odd].value) > found.twist[found.odd].expanded:
        twist = found.twist[found.odd]
        notes.insert(
            0,
            f"{found.odd} stands {say_length(abs(twist.value), units, denominator=0, unit=True)} {'low' if twist.value < 0 else 'high'} on the plane of the other three.",
        )
    return Level(
        _tilt(found.along_deg, found.across_deg),
        tuple(notes),
        tuple(FootState(s.name, s.x, s.y, s.say, s.counts, todo.get(s.name, "")) for s in states),
    )


def _tilt(along: Measured, across: Measured) -> str:
    parts = []
    for slope, plus, minus in ((along, "forward", "aft"), (across, "to the left", "to the right")):
        if abs(slope.value) > max(LEVEL_DEG, slope.expanded):
            parts.append(f"{say_angle(abs(slope.value))} {plus if slope.value > 0 else minus}")
    return f"The jig rises {' and '.join(parts)}." if parts else "The jig stands level, as far as these readings tell."


def _slopes(plan: Plan, log: JigLog, gone: Gone) -> tuple[str, ...]:
    """Return what the levels say that were read both ways since the jig was shaken."""
    rows = []
    for number, read in log.slopes:
        if number <= log.shaken[0]:
            continue
        tool = gone.tool(plan, read.tool)
        slope, own = by_reversal(
            tool.estimate([read.first], f"{number} first"), tool.estimate([read.second], f"{number} second")
        )
        ways = ("forward", "aft") if read.way == "along" else ("to the left", "to the right")
        said = (
            f"rises {say_angle(abs(slope.value))} {ways[0 if slope.value > 0 else 1]}"
            if abs(slope.value) > slope.expanded
            else "is level"
        )
        rows.append(
            f"By reversal it {said} ± {say_angle(slope.expanded)}; the {tool.name.lower()} itself is {say_angle(abs(own.value))} off."
        )
    return tuple(rows)
