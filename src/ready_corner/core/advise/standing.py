"""How the car stands: against its plan on the floor, on its stands, on its springs; what brings it there, and why it may be provisional."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

import numpy as np

from ready_corner.core.advise.perches import CROSS, Perches, PerchStep, Turning, perches, total_kg, turning
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
from ready_corner.core.plan.corners import CORNER_WORDS, CORNERS, END_OF, Corner
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.notation import in_units, say_angle, say_mass, say_small_length
from ready_corner.core.quantities.verdict import Aim
from ready_corner.core.record.happenings import has_bar
from ready_corner.core.record.readings import Place, Quantity

FLAT_MM = 1.0  # four heights further than this off one flat chassis are misread, or it is twisted
SCALES_OFF = 0.02  # share of the weight known by which the scales may miss it before it is said


@dataclass(frozen=True)
class CornerStand:
    """One corner: its wheel's travel strip and its springs at work, where the plan tells; what keeps a spring from being told, in words."""

    corner: Corner
    strip: Strip | None
    works: tuple[Working, ...]
    problem: str = ""


@dataclass(frozen=True)
class Stance:
    """How the car stands. Attitudes are against the drawing: ``wanted``, ``floor`` by the heights read (None until four count), ``stands``.

    ``says`` of the stance, ``turns`` for it, ``expected`` heights then; ``does``: what each perch does. ``loads`` kg as corrected, None until all four
    count; ``provisional``: why what was read counts only for now.
    """

    wanted: Attitude | None
    floor: Attitude | None
    stands: Attitude | None
    says: tuple[str, ...]
    turns: Turning | None
    does: Perches | None
    why_not: str
    pads: Pads
    corners: tuple[CornerStand, ...]
    hubs: tuple[Hub, ...]
    stand_says: tuple[str, ...]
    features: tuple[FeatureHeight, ...]
    loads: tuple[float, ...] | None
    load_says: tuple[str, ...]
    provisional: tuple[str, ...]
    notes: tuple[str, ...] = field(default=())

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
        _says(plan, wanted, floor),
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
def turns_now(evaluation: Evaluation) -> tuple[Turning | None, Perches | None, str]:
    """Return the perches to turn now, what each does, and why there are none to turn."""
    marks = [evaluation.mark(f"{c}.height") for c in CORNERS]
    does = _reckoned(evaluation)
    loads = _fresh([evaluation.mark(f"{c}.load") for c in CORNERS])
    turns, why_not = _turns(evaluation, marks, _fresh(marks), loads, does)
    return turns, does, why_not


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
        return perches(evaluation, evaluation.figures.springs)
    except ReadyCornerError:
        return None


def _turns(
    evaluation: Evaluation,
    marks: Sequence[MarkState],
    now: tuple[float, ...] | None,
    loads: tuple[float, ...] | None,
    does: Perches | None,
) -> tuple[Turning | None, str]:
    plan = evaluation.state.plan
    aims: list[Aim] = [m.aim for m in marks if m.aim is not None]
    if len(aims) < len(CORNERS):
        return None, "Give every corner a wanted ride height in the plan."
    if now is None:
        missing = [CORNER_WORDS[c] for c, m in zip(CORNERS, marks, strict=True) if m.state in ("unread", "moved since")]
        return None, f"Read the ride height of the {', '.join(missing)} first."
    cross = evaluation.mark(CROSS)
    wants_cross = plan.footing.school != "height" and cross.aim is not None
    settled = cross.state == "holds" if wants_cross and loads is not None else True
    if all(m.state == "holds" for m in marks) and settled and not (wants_cross and loads is None):
        return None, "Every height holds: leave the perches."
    if does is None:
        return (
            None,
            "Name a spring perch at every corner, and the springs' rates, and the turns are reckoned for all four together.",
        )
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
        return found, "The heights are right: put it on the scales, and cross weight is set with them kept."
    return found, "" if found.steps else found.words or "No whole flat of any perch would better it."


def _says(plan: Plan, wanted: Attitude | None, floor: Attitude | None) -> tuple[str, ...]:
    if floor is None or wanted is None:
        return ()
    units, rows = plan.units, []
    front = [c for c in CORNERS if END_OF[c] == "front"]
    at = [plan.height_place(c) for c in front]
    station = sum(p.station for p in at) / len(at)
    high = floor.height_of((station, 0.0, 0.0)) - wanted.height_of((station, 0.0, 0.0))
    pitch, roll = floor.pitch_deg - wanted.pitch_deg, floor.roll_deg - wanted.roll_deg
    if abs(high) > 0.05:
        rows.append(f"It stands {say_small_length(abs(high), units)} {'high' if high > 0 else 'low'} at the front axle line")
    if abs(pitch) > 0.005:
        rows.append(f"{say_angle(abs(pitch))} {'more nose down' if pitch > 0 else 'less nose down'} than planned")
    if abs(roll) > 0.005:
        rows.append(f"its {'left' if roll > 0 else 'right'} side up by {say_angle(abs(roll))}")
    said = "; ".join(rows) + "." if rows else "It stands as planned."
    off = max((abs(v) for v in floor.left), default=0.0)
    more = (
        f"The four heights are {say_small_length(off, units)} off one flat chassis: read them again, or the chassis is twisted.",
    ) if off > FLAT_MM else ()  # fmt: skip
    return (said[:1].upper() + said[1:], *more)


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
    return evaluation.figures.group(place, rows[-1].spell).estimate.value


def _stands(
    evaluation: Evaluation, wanted: Attitude | None, stands: Attitude | None
) -> tuple[tuple[Hub, ...], tuple[str, ...]]:
    plan = evaluation.state.plan
    if wanted is None:
        return (), ("Give the ride heights in the plan first: from them it is told where the hubs must sit.",)
    if stands is None:
        return (), ("Read the height of the chassis over the floor at three places or four, on its stands.",)
    hubs: list[Hub] = []
    says: list[str] = []
    rake, roll = stands.pitch_deg, stands.roll_deg
    tilt = [f"{say_angle(abs(rake))} nose {'down' if rake > 0 else 'up'}"] if abs(rake) >= 0.005 else []
    tilt += [f"{say_angle(abs(roll))} {'left' if roll > 0 else 'right'} side up"] if abs(roll) >= 0.005 else []
    says.append(
        f"On its stands the chassis lies {' and '.join(tilt) if tilt else 'level, as drawn'}; the hub heights allow for it."
    )
    hang = []
    for corner in CORNERS:
        radius = evaluation.figures.radii.get(corner)
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
            return tuple(hubs), (*says, f"{CORNER_WORDS[corner].capitalize()}: {wrong.say(in_units(plan.units))}")
        hubs.append(hub)
        if hub.hangs > 0:
            says.append(f"{CORNER_WORDS[corner].capitalize()}: the wheel droops {say_small_length(hub.hangs, plan.units)} short of so low a hub. Take the droop stop off, or lower the stands.")  # fmt: skip
        over = hangs_over_floor(plan, corner, _moves(evaluation, corner), radius.value if radius else 0.0, stands)
        hang += [(corner, over)] if np.isfinite(over) and over > 0 else []
    if hang:
        corner, over = max(hang, key=lambda row: row[1])
        says.append(f"These stands are higher than the wheels can droop: the {CORNER_WORDS[corner]} hangs {say_small_length(over, plan.units)} over the floor. Right for setting hubs; its springs carry nothing.")  # fmt: skip
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
    radius = evaluation.figures.radii.get(corner)
    if wanted is None or radius is None:
        return CornerStand(corner, None, ())
    try:
        move = movement_of(evaluation, corner)
        travel = travel_at(move, radius.value, wanted)
        now = None if floor is None else travel_at(move, radius.value, floor)
        end = plan.footing.end(END_OF[corner])
        load = sprung_load(plan, corner, loads)
        works, problem = [], ""
        for spring in move.springs if load is not None else ():
            if spring.rate is None or spring.free is None:
                continue
            try:
                works.append(
                    working(move, spring, load or 0.0, travel if now is None else now, -end.droop if end.droop else None)
                )
            except ReadyCornerError as wrong:
                problem = wrong.say(in_units(plan.units))
        own = evaluation.figures.stand_ins.get(corner)
        found = strip(plan, move, wanted, travel, now, tuple(works), radius.value - own.value if own else 0.0)
    except ReadyCornerError as wrong:
        return CornerStand(corner, None, (), wrong.say(in_units(plan.units)))
    return CornerStand(corner, found, tuple(works), problem)


def sprung_load(plan: Plan, corner: Corner, loads: tuple[float, ...] | None) -> float | None:
    """Return what the springs of a corner carry at the wheel in N: by the scales, else by the plan's mass; None where neither tells."""
    i = CORNERS.index(corner)
    if loads is not None:
        return max((loads[i] - (plan.footing.end(END_OF[corner]).unsprung or 0.0)) * GRAVITY, 0.0)
    carried = sprung_loads(plan)
    return None if carried is None else float(carried[i])


def _load_says(plan: Plan, loads: tuple[float, ...] | None) -> tuple[str, ...]:
    if loads is None:
        return ()
    total, says = sum(loads), []
    if total <= 0:
        return ("The scales carry nothing. Zero them, and put the car on.",)
    known = plan.footing.mass
    if known is not None and abs(total - known) > SCALES_OFF * known:
        says.append(
            f"The scales add up to {say_mass(total, plan.units)}, but the car weighs {say_mass(known, plan.units)} by its plan. Is one not zeroed, is it as it runs, or does a wheel stand beside its scale?"
        )
    return tuple(says)


def _provisional(evaluation: Evaluation) -> tuple[str, ...]:
    """Return why heights and loads that were read count only for now, and what the car is not yet."""
    state, figures = evaluation.state, evaluation.figures
    read = [f"read {w}" for c in CORNERS for k in ("height", "load") if (f := figures.figure(k, c)) for w in f.why]
    now = [] if state.condition.settled else ["it has not settled since it last moved on its springs"]
    now += [f"the car is {w}" for w in (state.stance.state.wanting if state.stance.state else ())]
    unread = [c for c in CORNERS if c in state.stance.stand_ins and c not in figures.stand_ins]
    now += [f"the {CORNER_WORDS[c]} stands on a stand-in tyre whose loaded radius is not read" for c in unread]
    return tuple(dict.fromkeys([*read, *now]))


def _notes(evaluation: Evaluation, marks: Sequence[MarkState], loads: tuple[float, ...] | None) -> tuple[str, ...]:
    state, rows = evaluation.state, []
    if state.stance.state is None:
        rows.append("Say what is aboard and what is not fitted yet: heights hold for that state only.")
    if has_bar(state.plan):
        holds = all(m.state == "holds" for m in marks)
        if state.condition.bar_connected and not holds:
            rows.append("Take the anti-roll bar links off: a bar under load holds one corner up.")
        if not state.condition.bar_connected and holds:
            rows.append("Put the anti-roll bar links back on without preload: they must slip on by hand with the car at rest. It is not ready while they are off.")  # fmt: skip
    if loads is None:
        weight = total_kg(evaluation)
        rows.append(f"Weights not taken{'' if weight is None else '; the springs are reckoned with the weight of the plan'}.")
    return tuple(rows)
