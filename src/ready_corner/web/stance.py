"""Stage Stance: how the car stands on the floor, on its stands and on its springs; what brings it to its heights; and the sums beside it."""

from collections.abc import Mapping
from typing import TYPE_CHECKING, Annotated, Literal

import numpy as np
from fastapi import APIRouter
from pydantic import Field

from ready_corner.border.base import Model
from ready_corner.border.kinds import SENT, Kept
from ready_corner.core.advise import sums as core
from ready_corner.core.advise.perches import CROSS
from ready_corner.core.advise.standing import CornerStand, Stance, stance
from ready_corner.core.engines.linkage.named import say_rate, shown
from ready_corner.core.engines.statics.attitude import Attitude
from ready_corner.core.engines.statics.bars import RollBar
from ready_corner.core.judge.corners import at_rest_of, movement_of
from ready_corner.core.judge.marks import Evaluation
from ready_corner.core.judge.pads import Pad
from ready_corner.core.model.limits import Limit
from ready_corner.core.model.movement import Movement
from ready_corner.core.model.ride_heights import Hub
from ready_corner.core.model.springwork import Working, rates_over
from ready_corner.core.model.struts import AtWork, dummy_struts
from ready_corner.core.plan.corners import CORNERS, Corner, End
from ready_corner.core.plan.footing import SCHOOL_WORDS, School
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.notation import Units, read, say_exact, say_length, say_mass, say_small_length, say_turns
from ready_corner.core.say.judged import say_mark_value
from ready_corner.core.say.stance import (
    arm_lines,
    say_hub,
    say_loads,
    say_off,
    say_perch,
    say_preload,
    seat_lines,
    spring_lines,
)
from ready_corner.core.say.template import say_line
from ready_corner.web.said import all_said, said
from ready_corner.web.view import View
from ready_corner.web.workshop import TheWorkshop

router = APIRouter()
if TYPE_CHECKING:
    StateModel = Kept
else:
    StateModel = SENT["state"]
TRAVEL_ROWS = np.linspace(-80.0, 80.0, 65)  # mm of wheel travel over which the rates are drawn


class AttitudeView(View):
    """How the chassis lies against the drawing: turns in degrees, height in mm."""

    pitch_deg: float
    roll_deg: float
    height: float


class PerchView(View):
    """One perch to turn; ``amount`` as it may be typed."""

    corner: Corner
    adjuster: str
    say: str
    amount: str
    caution: str


class LimitView(View):
    """What ends the travel of a wheel, mm from the drawing."""

    name: str
    travel: float
    stop: bool
    say: str


class StripView(View):
    """The travel of one wheel; mm from the drawing, bump positive."""

    wanted: float
    now: float | None
    bump: list[LimitView]
    droop: list[LimitView]
    bump_left: str
    droop_left: str
    lines: list[tuple[str, bool]]


class SpringLineView(View):
    """A spring at work, as lines of what and how much; its rate at the wheel over travel for drawing, in ``unit`` and ``travel_unit``."""

    name: str
    lines: list[tuple[str, str]]
    travel: list[float]
    travel_unit: Literal["mm", "in"]
    rate: list[float | None]
    rough: float | None
    unit: str
    seats: list[tuple[str, str, str, str]]
    preload: str
    loose: bool


class RodView(View):
    """A rod in place of a spring, eye to eye, in words; empty where the plan does not tell. ``length``: at the wanted stance, mm."""

    name: str
    at_wanted: str
    at_ride: str
    at_level: str
    at_bump: str
    at_droop: str
    rate: str
    ratio: str
    rough: str
    length: float | None


class HubView(View):
    """Where a hub must sit on the stands, and what the one that was set will give (``off``: further than the height's tolerance); in words, and in mm for drawing."""

    corner: Corner
    wanted: str
    read: str
    gives: str
    gives_short: str
    off: bool
    at: float
    set_at: float | None


class StandView(View):
    """One corner: heights and loads after the turns, its travel, springs and rods."""

    corner: Corner
    expected: str
    load: str
    strip: StripView | None
    springs: list[SpringLineView]
    rods: list[RodView]
    arms: list[tuple[str, str]]
    does_short: list[str]
    learned: str
    learned_of: str
    wheel: tuple[float, float]
    radius: float
    problem: str


class PadView(View):
    """One pad and what is done about it."""

    corner: Corner
    say: str
    up: str
    pack: str
    adds: str


class FeatureView(View):
    """A feature by which ride height may be said."""

    name: str
    wanted: str
    now: str
    master: bool


class StanceView(View):
    """How the car stands, and what brings it to its heights."""

    says: list[str]
    why_not: str
    short: str
    school: School
    school_words: str
    cross: str
    cross_then: str
    perches: list[PerchView]
    corners: list[StandView]
    pads: list[PadView]
    pads_way: str
    pads_say: list[str]
    loads: list[str]
    load_says: list[str]
    hubs: list[HubView]
    stand_says: list[str]
    features: list[FeatureView]
    provisional: list[str]
    notes: list[str]
    state: StateModel | None
    stand_ins: list[Corner]
    wanted: AttitudeView | None
    floor: AttitudeView | None
    stands: AttitudeView | None


@router.get("/cars/{slug}/stance")
def stance_of(slug: str, workshop: TheWorkshop) -> StanceView:
    """Return how the car stands against its plan."""
    evaluation = workshop.evaluation(slug)
    return stance_view(evaluation, stance(evaluation))


def stance_view(evaluation: Evaluation, found: Stance) -> StanceView:
    """Return the stance as shown."""
    state, units = evaluation.state, evaluation.state.plan.units
    turns = found.turns
    return StanceView(
        says=all_said(found.says, units),
        why_not=said(found.why_not, units),
        short=" ".join(all_said(turns.short, units)) if turns else "",
        school=turns.school if turns else state.plan.footing.school,
        school_words=SCHOOL_WORDS[turns.school if turns else state.plan.footing.school],
        cross=say_mark_value(evaluation.mark(CROSS), units),
        cross_then=f"{turns.cross:.1f} %" if turns and turns.steps and turns.cross is not None else "",
        perches=[
            PerchView(
                corner=p.corner,
                adjuster=p.adjuster,
                say=said(p.said, units),
                amount=f"{say_turns(p.amount)} {p.way}",
                caution=said(p.caution, units),
            )
            for p in found.perches
        ],
        corners=[_corner(evaluation, found, i) for i in range(4)],
        pads=[_pad(p, units) for p in found.pads.pads],
        pads_way=found.pads.way,
        pads_say=all_said(found.pads.says, units),
        loads=[] if found.loads is None else list(say_loads(np.array(found.loads), units)),
        load_says=all_said(found.load_says, units),
        hubs=[_hub(evaluation, h) for h in found.hubs],
        stand_says=all_said(found.stand_says, units),
        features=[
            FeatureView(
                name=f.name,
                wanted=_length(f.wanted, units),
                now="" if f.now is None else _length(f.now, units),
                master=f.master,
            )
            for f in found.features
        ],
        provisional=all_said(found.provisional, units),
        notes=all_said(found.notes, units),
        state=StateModel.model_validate(state.stance.state) if state.stance.state else None,
        stand_ins=[c for c in CORNERS if c in state.stance.stand_ins],
        wanted=_attitude(found.wanted),
        floor=_attitude(found.floor),
        stands=_attitude(found.stands),
    )


def _pad(pad: Pad, units: Units) -> PadView:
    height, load = pad.adds
    adds = [f"{'+' if height > 0 else '−'}{say_small_length(abs(height), units)}"] if abs(height) >= 0.05 else []
    adds += [f"{'+' if load > 0 else '−'}{say_mass(abs(load), units)}"] if abs(load) >= 0.05 else []
    return PadView(
        corner=pad.corner,
        say="" if pad.height is None else say_small_length(pad.height, units),
        up=_length(pad.up, units) if pad.up > 0.05 else "",
        pack=" + ".join(say_exact(s, units) for s in pad.pack),
        adds=", ".join(adds),
    )


def _attitude(a: Attitude | None) -> AttitudeView | None:
    return None if a is None else AttitudeView.model_validate(a)


def _corner(evaluation: Evaluation, found: Stance, i: int) -> StandView:
    plan, one = evaluation.state.plan, found.corners[i]
    corner, units = one.corner, plan.units
    axle, radius = plan.axle_of(corner), evaluation.figures.ground.radii.get(corner)
    told = dict(found.does.factors.says) if found.does else {}
    move = movement_of(evaluation, corner) if one.strip else None
    rest = at_rest_of(evaluation, corner) if move else {}
    perch = plan.perch(corner)
    return StandView(
        corner=corner,
        expected=_length(found.expected[i], units) if found.perches else "",
        load="" if found.loads is None else say_mass(found.loads[i], units),
        strip=_strip(one, units),
        springs=[_spring(plan, move, rest, one, w) for w in one.works] if move else [],
        rods=_rods(plan, move, rest, one.strip.wanted if one.strip else 0.0) if move else [],
        arms=list(arm_lines(move, one.strip.wanted if one.strip.now is None else one.strip.now)) if move and one.strip else [],
        does_short=list(say_perch(plan, found.does, i)) if found.does else [],
        learned=said(told.get(perch.id), units) if perch else "",
        learned_of=perch.id if perch else "",
        wheel=plan.wheel_place(corner),
        radius=radius.value if radius else axle.tyre_diameter / 2,
        problem=said(one.problem, units),
    )


def _strip(one: CornerStand, units: Units) -> StripView | None:
    strip = one.strip
    if strip is None:
        return None

    def limits(rows: tuple[Limit, ...]) -> list[LimitView]:
        return [LimitView(name=k.name, travel=k.travel, stop=k.stop, say=_length(abs(k.travel), units)) for k in rows]

    return StripView(
        wanted=strip.wanted,
        now=strip.now,
        bump=limits(strip.bump),
        droop=limits(strip.droop),
        bump_left="" if strip.bump_left is None else _length(strip.bump_left, units),
        droop_left="" if strip.droop_left is None else _length(strip.droop_left, units),
        lines=[(said(line, units), amiss) for line, amiss in strip.lines],
    )


def _spring(plan: Plan, move: Movement, rest: Mapping[str, AtWork], one: CornerStand, work: Working) -> SpringLineView:
    assert one.strip
    spring, rough = next(s for s in move.springs if s.name == work.name), rest.get(work.name)
    at = one.strip.wanted if one.strip.now is None else one.strip.now
    unit, factor, _ = shown("N/mm", 1, plan.units.inches)
    return SpringLineView(
        name=work.name,
        lines=list(spring_lines(work, rough, plan.units)),
        travel=[float(t) / float(plan.units.bare) for t in TRAVEL_ROWS],
        travel_unit="in" if plan.units.inches else "mm",
        rate=[float(r) * factor if np.isfinite(r) else None for r in rates_over(move, spring, work, TRAVEL_ROWS, at)],
        rough=rough.rough * factor if rough and np.isfinite(rough.rough) else None,
        unit=unit,
        seats=list(seat_lines(plan, move, one.strip, work)),
        preload="" if work.preload is None else say_preload(work.preload, plan.units),
        loose=work.preload is not None and work.preload < 0,
    )


def _rods(plan: Plan, move: Movement, work: Mapping[str, AtWork], wanted: float) -> list[RodView]:
    try:
        rods = dummy_struts(plan, move.corner, wanted, move)
    except ReadyCornerError:
        return []
    units, rows = plan.units, []
    for rod in rods:
        one = work.get(rod.name)
        rows.append(
            RodView(
                name=rod.name,
                at_wanted=_length(rod.at_wanted, units),
                at_ride=_length(rod.at_ride, units),
                at_level=_length(rod.at_level, units),
                at_bump=_length(rod.at_bump, units),
                at_droop=_length(rod.at_droop, units),
                rate=say_rate(float(one.rate[0]), units) if one is not None else "",
                ratio=f"{float(one.ratio[0]):.3f}" if one is not None else "",
                rough=say_off(one.off) if one is not None else "",
                length=rod.at_wanted if np.isfinite(rod.at_wanted) else None,
            )
        )
    return rows


def _hub(evaluation: Evaluation, hub: Hub) -> HubView:
    units, aim = evaluation.state.plan.units, evaluation.state.plan.aim(f"{hub.corner}.height")
    return HubView(
        corner=hub.corner,
        wanted=_length(hub.wanted, units),
        read="" if hub.read is None else _length(hub.read, units),
        gives=" ".join(say_hub(hub, units)),
        gives_short=say_hub(hub, units)[0],
        off=hub.off(aim.tolerance if aim else None),
        at=hub.wanted,
        set_at=hub.read,
    )


class SpringAsk(Model):
    """A spring by frequency or sag; what is a length is typed in shop notation."""

    kind: Literal["spring"]
    corner: Corner
    hz: float | None = None
    sag: str = ""
    preload: str = ""


class DamperAsk(Model):
    """A damper in hand."""

    kind: Literal["damper"]
    corner: Corner
    closed: str
    open: str


class TorsionAsk(Model):
    """Splines of a torsion bar; rate in N·m per degree."""

    kind: Literal["torsion"]
    inner: int
    outer: int
    arm: str
    rate: float
    load: str
    loaded: str
    low: str = ""
    fine: str = ""


class BarSizeIn(Model):
    """Size of a steel anti-roll bar, mm."""

    diameter: float
    bore: float
    length: float
    arm: float
    arm_width: float
    arm_height: float


class BarAsk(Model):
    """An anti-roll bar, its ends moved so far; None: that of the plan."""

    kind: Literal["bar"]
    end: End
    bar: BarSizeIn | None = None
    left: str
    right: str


class TubeAsk(Model):
    """The tube of a rod."""

    kind: Literal["tube"]
    length: str
    joint: str
    thread: str


class HeightsAsk(Model):
    """Heights of other features, and angles of lower arms."""

    kind: Literal["heights"]
    features: Annotated[dict[str, str], Field(max_length=40)]
    arms: dict[Corner, str]


Ask = Annotated[SpringAsk | DamperAsk | TorsionAsk | BarAsk | TubeAsk | HeightsAsk, Field(discriminator="kind")]


class ReckonedView(View):
    """The answer to one sum, as lines of what and how much."""

    lines: list[tuple[str, str]]


@router.post("/cars/{slug}/stance/reckon")
def reckoned(slug: str, ask: Ask, workshop: TheWorkshop) -> ReckonedView:
    """Return the answer to one sum beside the car."""
    evaluation = workshop.evaluation(slug)
    plan = evaluation.state.plan
    return ReckonedView(
        lines=[say_line(f, plan.units) for f in core.answer_of(_to_core(ask, plan), plan, lambda: stance(evaluation))]
    )


def _to_core(ask: Ask, plan: Plan) -> core.Asked:
    """Return the core's question; raises ShopNotationError."""

    def mm(text: str) -> float:
        return read(text, "length", plan.units).value if text.strip() else 0.0

    if isinstance(ask, SpringAsk):
        return core.SpringAsked(ask.corner, ask.hz, mm(ask.sag) if ask.sag.strip() else None, mm(ask.preload))
    if isinstance(ask, DamperAsk):
        return core.DamperAsked(ask.corner, mm(ask.closed), mm(ask.open))
    if isinstance(ask, TorsionAsk):
        load, loaded = read(ask.load, "mass", plan.units).value, read(ask.loaded, "angle", plan.units).value
        fine = read(ask.fine, "angle", plan.units).value if ask.fine.strip() else 0.0
        return core.TorsionAsked(ask.inner, ask.outer, mm(ask.arm), ask.rate, load, loaded, mm(ask.low), fine)
    if isinstance(ask, BarAsk):
        bar = RollBar(**ask.bar.model_dump()) if ask.bar else plan.footing.end(ask.end).bar
        return core.bar_asked(ask.end, bar, mm(ask.left), mm(ask.right))
    if isinstance(ask, TubeAsk):
        return core.TubeAsked(mm(ask.length), mm(ask.joint), mm(ask.thread))
    arms = {c: read(text, "angle", plan.units).value for c, text in ask.arms.items() if text.strip()}
    return core.HeightsAsked({name: mm(text) for name, text in ask.features.items() if text.strip()}, arms)


def _length(mm: float, units: Units) -> str:
    return say_length(mm, units, denominator=0) if np.isfinite(mm) else ""
