"""How the car stands: against its plan on the floor, on its stands, on its springs; what brings it there, and why it may be provisional.

Source: balance of four springs under a rigid chassis; docs/stance.md.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

import numpy as np

from ready_corner.core.advise.lift import Lift, lift
from ready_corner.core.advise.perches import CROSS, Perches, PerchStep, Turning, perches, steps, total_kg, turning
from ready_corner.core.engines.statics.attitude import Attitude
from ready_corner.core.engines.statics.springs import GRAVITY
from ready_corner.core.judge.corners import movement_of
from ready_corner.core.judge.marks import Evaluation, MarkState
from ready_corner.core.judge.memory import remembered
from ready_corner.core.judge.pads import Pads, pads_of
from ready_corner.core.model.limits import Strip, strip
from ready_corner.core.model.movement import Movement
from ready_corner.core.model.ride_heights import (
    FeatureHeight,
    Hub,
    attitude_from,
    feature_heights,
    hangs_over_floor,
    hub_of,
    travel_at,
    wanted_attitude,
)
from ready_corner.core.model.springs_of_plan import sprung_loads
from ready_corner.core.model.springwork import Working, working
from ready_corner.core.plan.corners import CORNERS, END_OF, Corner
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.happenings import has_bar
from ready_corner.core.record.readings import Place, Quantity

FLAT_MM = 1.0  # four heights further than this off one flat chassis are misread, or it is twisted
SCALES_OFF = 0.02  # share of the weight known by which the scales may miss it before it is said


@dataclass(frozen=True)
class CornerStand:
    """One corner: its wheel's travel strip and its springs at work, where the plan tells; what keeps a spring from being told."""

    corner: Corner
    strip: Strip | None
    works: tuple[Working, ...]
    problem: Finding | None = None


@dataclass(frozen=True)
class Stance:
    """How the car stands. Attitudes are against the drawing: ``wanted``, ``floor`` by the heights read (None until four count), ``stands``.

    ``says`` of the stance, ``turns`` for it, ``expected`` heights then; ``does``: what each perch does. ``loads`` kg as corrected, None until all four
    count; ``provisional``: why what was read counts only for now.
    """

    wanted: Attitude | None
    floor: Attitude | None
    stands: Attitude | None
    says: tuple[Finding, ...]
    turns: Turning | None
    does: Perches | None
    why_not: Finding | None
    pads: Pads
    corners: tuple[CornerStand, ...]
    hubs: tuple[Hub, ...]
    stand_says: tuple[Finding, ...]
    features: tuple[FeatureHeight, ...]
    loads: tuple[float, ...] | None
    load_says: tuple[Finding, ...]
    provisional: tuple[Finding, ...]
    notes: tuple[Finding, ...] = field(default=())

    @property
    def perches(self) -> tuple[PerchStep, ...]:
        """The perches to turn."""
        return self.turns.steps if self.turns else ()

    @property
    def expected(self) -> tuple[float, ...]:
        """The four heights after the turns, mm; empty where there are none."""
        return self.turns.heights if self.turns else ()


def stance(evaluation: Evaluation) -> Stance:
    """Return how the car stands and what brings it to its heights and cross weight, with the fewest corners touched."""
    plan = evaluation.state.plan
    marks = [evaluation.mark(f"{c}.height") for c in CORNERS]
    now = _fresh(marks)
    wanted = _attitude(lambda: wanted_attitude(plan))
    floor = None if now is None else _attitude(lambda: attitude_from(plan, dict(zip(CORNERS, now, strict=True))))
    stands = _attitude(lambda: attitude_from(plan, _on_stands(evaluation)))
    loads = _fresh([evaluation.mark(f"{c}.load") for c in CORNERS])
    turns, does, why_not = turns_now(evaluation)
    hubs, stand_says = _stands(evaluation, wanted, stands)
    return Stance(
        wanted,
        floor,
        stands,
        _says(wanted, floor, plan),
        turns,
        does,
        why_not,
        pads_of(evaluation.figures),
        tuple(_corner(evaluation, c, wanted, floor, loads) for c in CORNERS),
        hubs,
        stand_says,
        () if wanted is None else feature_heights(plan, wanted, floor),
        loads,
        _load_says(plan, loads),
        _provisional(evaluation),
        _notes(evaluation, marks, loads),
    )


@remembered
def turns_now(evaluation: Evaluation) -> tuple[Turning | None, Perches | None, Finding | None]:
    """Return the perches to turn now, what each does, and why there are none to turn."""
    marks = [evaluation.mark(f"{c}.height") for c in CORNERS]
    does = _reckoned(evaluation)
    loads = _fresh([evaluation.mark(f"{c}.load") for c in CORNERS])
    turns, why_not = _turns(evaluation, marks, _fresh(marks), loads, does)
    told = lift(evaluation)
    return (turns, does, why_not) if told is None else _of_lift(evaluation, told, turns, does, why_not)


def _of_lift(
    evaluation: Evaluation, told: Lift, alone: Turning | None, does: Perches | None, why_not: Finding | None
) -> tuple[Turning | None, Perches | None, Finding | None]:
    """Return the perches of the one list that there is for the whole car, where there is one; what the heights ``alone`` would fall short of stays said."""
    plan = evaluation.state.plan
    turned = {t.of.id: t.left for t in told.turns} if told.betters else {}
    amounts = np.array([turned.get(p.id, 0.0) if (p := plan.perch(c)) else 0.0 for c in CORNERS])
    if alone is None and not amounts.any():
        return None, does, why_not
    then = {e.mark: e.value for e in told.expected}
    heights = tuple(then.get(m.mark, m.value or 0.0) for m in (evaluation.mark(f"{c}.height") for c in CORNERS))
    school, short = (alone.school, alone.short) if alone else (plan.footing.school, ())
    found = Turning(school, steps(plan, amounts), heights, then.get(CROSS, alone.cross if alone else None), short)
    if amounts.any():
        return found, does, None
    return found, does, why_not or (finding("stance.short", short=short) if short else finding("stance.no-flat"))


def _fresh(marks: Sequence[MarkState]) -> tuple[float, ...] | None:
    """Return four values that count now; None where one is unread or moved since."""
    if not all(m.fresh for m in marks):
        return None
    return tuple(float(m.value) for m in marks if m.value is not None)


def _attitude(make: Callable[[], Attitude]) -> Attitude | None:
    try:
        return make()
    except ReadyCornerError:
        return None


def _reckoned(evaluation: Evaluation) -> Perches | None:
    try:
        return perches(evaluation, evaluation.figures.ground.springs)
    except ReadyCornerError:
        return None


def _turns(
    evaluation: Evaluation,
    marks: Sequence[MarkState],
    now: tuple[float, ...] | None,
    loads: tuple[float, ...] | None,
    does: Perches | None,
) -> tuple[Turning | None, Finding | None]:
    plan = evaluation.state.plan
    aims: list[Aim] = [m.aim for m in marks if m.aim is not None]
    if len(aims) < len(CORNERS):
        return None, finding("stance.no-heights")
    if now is None:
        missing = [c for c, m in zip(CORNERS, marks, strict=True) if m.state in ("unread", "moved since")]
        return None, finding("stance.read-heights", corners=missing)
    cross = evaluation.mark(CROSS)
    wants_cross = plan.footing.school != "height" and cross.aim is not None
    settled = cross.state == "holds" if wants_cross and loads is not None else True
    if all(m.state == "holds" for m in marks) and settled and not (wants_cross and loads is None):
        return None, finding("stance.heights-hold")
    if does is None:
        return None, finding("stance.no-perches")
    unsprung = np.array([plan.footing.end(END_OF[c]).unsprung or 0.0 for c in CORNERS])
    found = turning(
        plan,
        does,
        plan.footing.school,
        np.array(now),
        tuple(aims),
        None if loads is None else cross.value,
        cross.aim,
        None if loads is None else np.array(loads) - unsprung,
        [m.expanded or 0.0 for m in (*marks, cross)],
    )
    if wants_cross and loads is None and not found.steps:
        return found, finding("stance.to-scales")
    return found, None if found.steps else finding("stance.short", short=found.short) if found.short else finding(
        "stance.no-flat"
    )


def _says(wanted: Attitude | None, floor: Attitude | None, plan: Plan) -> tuple[Finding, ...]:
    if floor is None or wanted is None:
        return ()
    at = [plan.height_place(c) for c in CORNERS if END_OF[c] == "front"]
    station = sum(p.station for p in at) / len(at)
    high = floor.height_of((station, 0.0, 0.0)) - wanted.height_of((station, 0.0, 0.0))
    pitch, roll = floor.pitch_deg - wanted.pitch_deg, floor.roll_deg - wanted.roll_deg
    rows = [finding("stance.high", size=high, high=high > 0)] if abs(high) > 0.05 else []
    rows += [finding("stance.pitch", angle=pitch, more=pitch > 0)] if abs(pitch) > 0.005 else []
    rows += [finding("stance.roll", angle=roll, left=roll > 0)] if abs(roll) > 0.005 else []
    off = max((abs(v) for v in floor.left), default=0.0)
    more = (finding("stance.not-flat", off=off),) if off > FLAT_MM else ()
    return (finding("stance.stands", rows=finding("stance.off", rows=rows) if rows else None), *more)


def _on_stands(evaluation: Evaluation) -> dict[Corner, float]:
    """Return the heights on the stands that count since they were last set."""
    return {c: v for c in CORNERS if (v := _read_now(evaluation, c, "stand")) is not None}


def _read_now(evaluation: Evaluation, corner: Corner, quantity: Quantity) -> float | None:
    place: Place = (corner, quantity)
    rows = evaluation.state.latest(place)
    if not rows or rows[-1].spell < evaluation.state.spells.get(place, 0):
        return None
    if quantity == "hub":  # jacked towards a height, each reading is of where it is then, and the last is where it was left
        return rows[-1].reading.figure
    return evaluation.figures.read.group(place, rows[-1].spell).estimate.value


def _stands(
    evaluation: Evaluation, wanted: Attitude | None, stands: Attitude | None
) -> tuple[tuple[Hub, ...], tuple[Finding, ...]]:
    plan = evaluation.state.plan
    if wanted is None:
        return (), (finding("stands.no-heights"),)
    if stands is None:
        return (), (finding("stands.unread"),)
    hubs: list[Hub] = []
    rake, roll = stands.pitch_deg, stands.roll_deg
    tilt = [finding("stands.rake", angle=rake, down=rake > 0)] if abs(rake) >= 0.005 else []
    tilt += [finding("stands.roll", angle=roll, left=roll > 0)] if abs(roll) >= 0.005 else []
    says = [finding("stands.lies", tilt=tilt)]
    hang = []
    for corner in CORNERS:
        radius = evaluation.figures.ground.radii.get(corner)
        try:
            hub = hub_of(
                plan,
                corner,
                _moves(evaluation, corner),
                radius.value if radius else 0.0,
                wanted,
                stands,
                _read_now(evaluation, corner, "hub"),
            )
        except ReadyCornerError as wrong:
            return tuple(hubs), (*says, finding("corner.refused", corner=corner, why=wrong.finding))
        hubs.append(hub)
        if hub.hangs > 0:
            says.append(finding("stands.droops-short", corner=corner, short=hub.hangs))
        over = hangs_over_floor(plan, corner, _moves(evaluation, corner), radius.value if radius else 0.0, stands)
        hang += [(corner, over)] if np.isfinite(over) and over > 0 else []
    if hang:
        corner, over = max(hang, key=lambda row: row[1])
        says.append(finding("stands.hangs", corner=corner, over=float(over)))
    return tuple(hubs), tuple(says)


def _moves(evaluation: Evaluation, corner: Corner) -> Movement | None:
    try:
        return movement_of(evaluation, corner)
    except ReadyCornerError:
        return None


def _corner(
    evaluation: Evaluation, corner: Corner, wanted: Attitude | None, floor: Attitude | None, loads: tuple[float, ...] | None
) -> CornerStand:
    plan = evaluation.state.plan
    radius = evaluation.figures.ground.radii.get(corner)
    if wanted is None or radius is None:
        return CornerStand(corner, None, ())
    try:
        move = movement_of(evaluation, corner)
        travel = travel_at(move, radius.value, wanted)
        now = None if floor is None else travel_at(move, radius.value, floor)
        end = plan.footing.end(END_OF[corner])
        load = sprung_load(plan, corner, loads)
        works, problem = [], None
        for spring in move.springs if load is not None else ():
            if spring.rate is None or spring.free is None:
                continue
            try:
                works.append(
                    working(move, spring, load or 0.0, travel if now is None else now, -end.droop if end.droop else None)
                )
            except ReadyCornerError as wrong:
                problem = wrong.finding
        own = evaluation.figures.ground.stand_ins.get(corner)
        found = strip(plan, move, wanted, travel, now, tuple(works), radius.value - own.value if own else 0.0)
    except ReadyCornerError as wrong:
        return CornerStand(corner, None, (), wrong.finding)
    return CornerStand(corner, found, tuple(works), problem)


def sprung_load(plan: Plan, corner: Corner, loads: tuple[float, ...] | None) -> float | None:
    """Return what the springs of a corner carry at the wheel in N: by the scales, else by the plan's mass; None where neither tells."""
    i = CORNERS.index(corner)
    if loads is not None:
        return max((loads[i] - (plan.footing.end(END_OF[corner]).unsprung or 0.0)) * GRAVITY, 0.0)
    carried = sprung_loads(plan)
    return None if carried is None else float(carried[i])


def _load_says(plan: Plan, loads: tuple[float, ...] | None) -> tuple[Finding, ...]:
    if loads is None:
        return ()
    total, known = sum(loads), plan.footing.mass
    if total <= 0:
        return (finding("scales.empty"),)
    off = known is not None and abs(total - known) > SCALES_OFF * known
    return (finding("scales.off", total=total, known=known),) if off else ()


def _provisional(evaluation: Evaluation) -> tuple[Finding, ...]:
    """Return why heights and loads that were read count only for now, and what the car is not yet."""
    state, figures = evaluation.state, evaluation.figures
    read = [
        finding("why.read", why=w) for c in CORNERS for k in ("height", "load") if (f := figures.figure(k, c)) for w in f.why
    ]
    now = [] if state.condition.settled else [finding("why.not-settled")]
    now += [finding("why.car-is", why=w) for w in (state.stance.state.wanting if state.stance.state else ())]
    now += [
        finding("why.stand-in", corner=c) for c in CORNERS if c in state.stance.stand_ins and c not in figures.ground.stand_ins
    ]
    return tuple(dict.fromkeys([*read, *now]))


def _notes(evaluation: Evaluation, marks: Sequence[MarkState], loads: tuple[float, ...] | None) -> tuple[Finding, ...]:
    state = evaluation.state
    rows = [finding("note.say-state")] if state.stance.state is None else []
    if has_bar(state.plan):
        holds, on = all(m.state == "holds" for m in marks), state.condition.bar_connected
        if on != holds:
            rows.append(finding("note.bar-off" if on else "note.bar-on"))
    if loads is None:
        rows.append(finding("note.no-weights", planned=total_kg(evaluation) is not None))
    return tuple(rows)
