"""Stage Jig: the survey, what is wrong with it, its datum, pickup points against the plan, what moved, and what to measure."""

from typing import TYPE_CHECKING, Annotated, Literal, get_args

import numpy as np
from fastapi import APIRouter
from pydantic import Field

from ready_corner.border.base import Model, Name
from ready_corner.border.entries import Typed
from ready_corner.border.kinds import SENT, Kept, Sent
from ready_corner.border.plan import ToolModel
from ready_corner.core.advise.pickups import Do, Effect, Pickups
from ready_corner.core.advise.to_measure import to_measure
from ready_corner.core.engines.linkage.named import shown
from ready_corner.core.engines.survey.datum import Laid
from ready_corner.core.engines.survey.propose import Means
from ready_corner.core.engines.survey.readings import KINDS, Kind
from ready_corner.core.judge.asked_points import AskOf, told_of
from ready_corner.core.judge.frame import Frame
from ready_corner.core.judge.level import Level, instruments, level
from ready_corner.core.judge.pins import pin_means
from ready_corner.core.judge.squareness import bays_told, square
from ready_corner.core.judge.survey_views import agreement, ellipses, read_once
from ready_corner.core.quantities.naming import short_point
from ready_corner.core.quantities.notation import Units, echo, read, say_angle, say_length, signed
from ready_corner.core.quantities.verdict import Verdict
from ready_corner.core.record.jig_acts import DATUM_NOTES, Noted, PinSays, Status, Support, SurveyRead, Zero
from ready_corner.core.record.weld_acts import WeldWay, conditions, open_holds
from ready_corner.core.say.jig import (
    say_agreement,
    say_datum,
    say_drift,
    say_drift_first,
    say_flat,
    say_free,
    say_gauge,
    say_locked,
    say_lost,
    say_read,
    say_recovered,
    say_tools,
    say_verdict,
    say_witnesses,
)
from ready_corner.core.say.weld import say_body, say_gaps, say_order
from ready_corner.web.said import all_said, said
from ready_corner.web.view import View
from ready_corner.web.workshop import TheWorkshop

router = APIRouter()
Prefix = Annotated[str, Field(min_length=1, max_length=60, pattern=r"^[A-Za-z0-9_.-]+$")]
if TYPE_CHECKING:
    DatumModel = Kept
    SurveyReadIn = Sent
else:
    DatumModel, SurveyReadIn = SENT["datum"], SENT["survey"]
Place = tuple[float, float, float]
WRONG = Literal["", "wrong", "may be wrong"]


class BayView(View):
    """Whether a bay of the frame is square."""

    say: str
    verdict: Verdict


class PointView(View):
    """One point of the frame: where the plan has it, where it is (in the axes of the car, mm), how sure, and what is not fixed."""

    name: str
    say: str
    planned: Place
    place: Place | None
    expanded: Place | None
    ellipse: list[tuple[float, float, float]]
    determined: bool
    status: Status
    pins: list[PinSays]
    pin_means: str
    stale: str


class ReadView(View):
    """One reading: as a sentence, whether it still counts, how well it is checked, and whether it is wrong."""

    number: int
    id: str
    reading: Kind
    points: list[str]
    say: str
    counts: bool
    residual: str
    redundancy: float | None
    standardised: float | None
    wrong: WRONG
    mute: bool


class EffectView(View):
    """What a deviation does to a figure, in the units of the car."""

    label: str
    say: str
    answer: str
    size: float


class OptionView(View):
    """One thing to do about a point, and how many figures it leaves to be set again."""

    do: Do
    say: str
    spoils: int


class PickupView(View):
    """One pickup point against the plan."""

    point: str
    say: str
    off: Place | None
    say_off: list[str]
    say_u: list[str]
    say_u_most: str
    twin: list[str]
    twin_most: int | None
    verdict: Verdict | None
    move: str
    effects: list[EffectView]
    options: list[OptionView]
    stale: str
    doubt: str


class TogetherView(View):
    """What all deviations of a corner or axle do together."""

    of: str
    effects: list[EffectView]


class ArrowView(View):
    """The movement of a point since the last weld, cut or knock, mm in the axes of the car."""

    point: str
    by: Place
    certain: bool


class FootView(View):
    """A foot of the jig, and what to do there."""

    name: str
    x: float
    y: float
    say: str
    counts: bool
    do: str


class LevelView(View):
    """How level the jig stands."""

    sentence: str
    notes: list[str]
    feet: list[FootView]


class HoldView(View):
    """A condition before final weld, and whether it is met."""

    condition: str
    met: bool


class WorksView(View):
    """Around the weld, and the body on the jig."""

    holds: list[HoldView]
    joints: list[str]
    way: WeldWay
    reason: str
    done: list[str]
    order: list[str]
    gaps: list[str]
    body: list[str]
    accepted: dict[str, str]


class JigView(View):
    """All that is shown of a frame at the jig."""

    number: int
    support: Support
    supports: list[Support]
    points: list[PointView]
    readings: list[ReadView]
    wrong: list[str]
    loose: list[str]
    notes: list[str]
    datum: DatumModel | None
    axes: str
    sigma0: float | None
    dof: int
    pickups: list[PickupView]
    together: list[TogetherView]
    square: list[str]
    bays: list[BayView]
    since: str
    moved: list[str]
    moved_first: str
    arrows: list[ArrowView]
    accepted: int
    counted: int
    level: LevelView | None
    instruments: list[str]
    works: WorksView
    datum_note: str
    zero: Zero
    carried: DatumModel | None
    tools: list[ToolModel]


class ProposalIn(Model):
    """What to measure for: points (all of the plan's pickup points where empty), and how sure each is to be."""

    typed: Typed
    points: list[str] = Field(default=[], max_length=60)
    tape: str = "tape"
    table: str = "rule"
    heights: bool = True


class ProposedView(View):
    """One reading to take, and the greatest U of any point that is left after it; empty while one is not fixed."""

    reading: Kind
    points: list[str]
    say: str
    left: str


class ProposalView(View):
    """What to measure, in walking order."""

    list: list[ProposedView]
    reached: bool
    say: str


class MeansView(View):
    """What a reading would mean before it is kept."""

    said: str
    means: str


class LostView(View):
    """What taking a part away would do to the datum."""

    say: str


@router.get("/cars/{slug}/jig")
def jig(slug: str, workshop: TheWorkshop) -> JigView:
    """Return the frame of a car as surveyed."""
    return jig_view(workshop.frame(slug), workshop.pickups(slug), workshop.state(slug).number, workshop.ids(slug))


def jig_view(frame: Frame, found: Pickups, number: int, ids: dict[int, str]) -> JigView:
    """Return all that is told of a frame, for the page and for the command alike; ``ids``: of the entries, by number."""
    units, network = frame.plan.units, frame.network
    laid, axes = frame.laid
    fit, why_not = frame.recovered
    drift = frame.drift
    rows = [
        PickupView(
            point=p.point,
            say=short_point(p.point),
            off=None if p.off is None else _place(p.off),
            say_off=[] if p.off is None else [_signed(v, units) for v in p.off],
            say_u=[] if p.expanded is None else [say_length(float(v), units, denominator=0) for v in p.expanded],
            say_u_most="" if p.expanded is None else say_length(float(max(p.expanded)), units, denominator=0),
            twin=[] if p.twin is None else [_signed(v, units) for v in p.twin],
            twin_most=p.twin_most,
            verdict=p.verdict,
            move=", ".join(all_said(p.move, units)),
            effects=[_effect(e, units) for e in p.effects],
            options=[OptionView(do=o.do, say=said(o.how, units), spoils=o.spoils) for o in p.options],
            stale=said(p.stale, units),
            doubt=said(p.doubt, units),
        )
        for p in found.rows
    ]
    zeros, names = frame.zeros, {t.id: t.name for t in (*frame.gone.tools.values(), *frame.plan.toolbox)}
    notes = [
        *(say_tools(network, zeros, names, units) if network else ()),
        *say_flat(frame),
        *say_datum(frame),
        *say_locked(frame),
        *say_witnesses(frame),
    ]
    if network and (gauge := say_gauge(network)):
        notes.append(gauge)
    return JigView(
        number=number,
        support=frame.log.support,
        supports=list(get_args(Support)),
        points=[_point(frame, n, laid) for n in frame.planned],
        readings=_reads(frame, ids),
        wrong=list(say_verdict(frame.verdict, units)),
        loose=list(say_free(network, units)) if network else [],
        notes=notes,
        datum=DatumModel.model_validate(frame.log.datum) if frame.log.datum else None,
        axes=said(axes, units),
        sigma0=frame.adjusted.sigma0 if frame.adjusted else None,
        dof=frame.adjusted.dof if frame.adjusted else 0,
        pickups=rows,
        together=[TogetherView(of=k, effects=[_effect(e, units) for e in v]) for k, v in found.together.items()],
        square=all_said(square(frame), units),
        bays=[BayView(say=said(b, units), verdict=b.figure("verdict")) for b in bays_told(frame)],
        since=said(frame.log.disturbed[-1].said, units) if frame.log.disturbed else "",
        moved=[
            *(say_recovered(fit, units) if fit else [said(why_not, units)] if why_not else []),
            *(say_drift(drift, units) if drift else []),
        ],
        moved_first=say_drift_first(drift, units) if drift else "",
        arrows=[ArrowView(point=p.name, by=_place(p.bent), certain=p.certain) for p in drift.points] if drift else [],
        accepted=sum(bool(r.verdict == "holds" or (r.options and r.options[0].do == "leave it")) for r in rows),
        counted=len(rows),
        tools=[ToolModel.model_validate(t) for t in frame.plan.toolbox],
        works=_works(frame),
        instruments=all_said(instruments(frame.plan, frame.log, frame.gone), units),
        carried=DatumModel.model_validate(carried) if (carried := frame.carried) else None,
        zero=frame.log.zero,
        datum_note=DATUM_NOTES.get(frame.log.datum.way, "") if frame.log.datum else "",
        level=_level(stands, units) if (stands := level(frame.plan, frame.log, frame.gone)) else None,
    )


def _level(stands: Level, units: Units) -> LevelView:
    feet = [
        FootView(
            name=f.name, x=f.x, y=f.y, counts=f.counts, do=said(f.do, units),
            say="" if f.height is None else say_length(f.height, units, denominator=0),
        )
        for f in stands.feet
    ]  # fmt: skip
    return LevelView(sentence=said(stands.sentence, units), notes=all_said(stands.notes, units), feet=feet)


def _works(frame: Frame) -> WorksView:
    works, units = frame.log.works, frame.plan.units
    left_jig = frame.log.left_jig
    unmet = open_holds(works, frame.log.disturbed[-1].number if frame.log.disturbed else 0, left_jig)
    done = [said(d.said, units) for d in frame.log.disturbed if d.weld]
    bracing = (
        []
        if works.bracing is None
        else ["Braced before it is cut." if works.bracing.braced else "Not braced: read sills and feet again after every cut."]
    )
    return WorksView(
        holds=[HoldView(condition=c, met=c not in unmet) for c in conditions(works, left_jig)],
        joints=list(works.order.joints) if works.order else [],
        way=works.order.way if works.order else get_args(WeldWay)[0],
        reason=works.order.reason if works.order else "",
        done=done,
        order=list(say_order(works, done)),
        gaps=list(say_gaps(frame.log, units)),
        body=[*bracing, *say_body(frame.log, units)],
        accepted={n: reason for n, (_, reason) in works.accepted.items()},
    )


def _place(p: np.ndarray) -> Place:
    return float(round(p[0], 3)), float(round(p[1], 3)), float(round(p[2], 3))


def _signed(v: float, units: Units) -> str:
    said = say_length(abs(float(v)), units, denominator=0)
    return signed(said, v)


def _effect(effect: Effect, units: Units) -> EffectView:
    unit, factor, digits = shown(effect.said.unit, effect.said.digits, units.inches)
    value = round(effect.by * factor, digits)
    said = f"{value:+.{digits}f}".replace("-", "−") if value else "0"
    return EffectView(
        label=effect.said.label, say=f"{said}{'' if unit == '°' else ' '}{unit}".strip(), answer=effect.answer, size=abs(value)
    )


def _point(frame: Frame, name: str, laid: Laid | None) -> PointView:
    network = frame.network
    here = laid is not None and network is not None and name in network.names and name in network.determined
    ellipse = ellipses(laid, name) if here and laid else []
    read_before = any(name in n.read.points for n in frame.log.noted)
    disturbed = frame.last_disturbance(name)
    return PointView(
        name=name,
        say=short_point(name),
        planned=_place(np.asarray(frame.planned[name])),
        place=_place(laid.place(name)) if here and laid else None,
        expanded=_place(laid.expanded(name)) if here and laid else None,
        ellipse=ellipse,
        determined=here,
        status=frame.log.status(name),
        pins=[says for _, says in frame.log.pins.get(name, ())],
        pin_means=said(pin_means(frame.log, name), frame.plan.units),
        stale=said(disturbed.said, frame.plan.units) if disturbed and read_before and not here else "",
    )


def _reads(frame: Frame, ids: dict[int, str]) -> list[ReadView]:
    network, verdict, units = frame.adjusted, frame.verdict, frame.plan.units
    rows = {r.reading.id: r for r in network.rows} if network else {}
    doubted = {r.id for r in verdict.doubted} if verdict else set()
    word: WRONG = "wrong" if verdict and verdict.settles else "may be wrong"
    found = []
    for noted in reversed(frame.log.noted):
        row = rows.get(str(noted.number))
        found.append(
            ReadView(
                number=noted.number,
                id=ids.get(noted.number, ""),
                reading=noted.read.reading,
                points=list(noted.read.points),
                say=say_read(noted.read, frame.plan)
                + (", from the frame" if noted.read.reading == "slope" and noted.zero == "frame" else ""),
                counts=row is not None,
                residual=_off(noted, row.residual, units) if row else "",
                redundancy=round(row.redundancy, 3) if row else None,
                standardised=round(row.standardised, 2) if row and row.standardised is not None else None,
                wrong=word if str(noted.number) in doubted else "",
                mute=bool(row and row.mute),
            )
        )
    return found


def _off(noted: Noted, residual: float, units: Units) -> str:
    size = (
        say_angle(abs(residual)) if KINDS[noted.read.reading].unit == "deg" else say_length(abs(residual), units, denominator=0)
    )
    return signed(size, residual)


@router.post("/cars/{slug}/jig/preview")
def preview(slug: str, what: SurveyReadIn, workshop: TheWorkshop) -> MeansView:
    """Return what a reading would mean beside the others, keeping nothing."""
    frame = workshop.frame(slug)
    plan = frame.plan
    act: SurveyRead = what.keep(plan).to_core()
    confirmed = SurveyRead(**{**act.__dict__, "confirmed": True})
    confirmed.check(plan)
    kind: Literal["angle", "length"] = "angle" if KINDS[act.reading].unit == "deg" else "length"
    figure = read(act.typed, kind, plan.units)
    said = echo(figure, kind, plan.units)
    found = agreement(frame, act)
    return MeansView(said=said, means=say_agreement(found, plan.units))


class AskedIn(Model):
    """Which points are asked, in order, and what for: of a member its left end first; of a bay left front, right front, left rear, right rear."""

    ask: AskOf
    points: list[Name] = Field(max_length=12)


class ToldView(View):
    """What points tell, line by line."""

    lines: list[str]


@router.post("/cars/{slug}/jig/points")
def ask_points(slug: str, asked: AskedIn, workshop: TheWorkshop) -> ToldView:
    """Return what measured points tell: how far apart, how square a member or a bay, the middle of a hole by its rim."""
    frame = workshop.frame(slug)
    return ToldView(lines=all_said(told_of(frame, asked.ask, asked.points), frame.plan.units))


@router.post("/cars/{slug}/jig/proposal")
def proposal(slug: str, asked: ProposalIn, workshop: TheWorkshop) -> ProposalView:
    """Return what to measure so that every point is sure enough and every reading checked by others."""
    frame = workshop.frame(slug)
    plan = frame.plan
    units = plan.units
    wanted = read(asked.typed, "length", units).value
    names = asked.points or [p.point for p in workshop.pickups(slug).rows]
    means = Means(read_once(plan.tool(asked.tape)), read_once(plan.tool(asked.table)) if asked.heights else None)
    found = to_measure(frame, names, means, wanted)
    rows = [
        ProposedView(
            reading=p.reading.kind,
            points=list(p.reading.points),
            say=p.reading.said + (", once more from another zero" if p.again else ""),
            left="" if not np.isfinite(p.left) else f"± {say_length(p.left, units, denominator=0, unit=True)}",
        )
        for p in found.list
    ]
    said = say_length(found.expanded, units, denominator=0, unit=True)
    if not rows:
        say = f"Nothing more is needed: every point is sure to ± {said}."
    elif found.reached:
        say = f"{len(rows)} readings, and every point is sure to ± {said}, each reading checked by others."
    else:
        say = f"With these tools no point comes nearer than ± {said}. Take a finer tool, or ask for less."
    return ProposalView(list=rows, reached=found.reached, say=say)


@router.get("/cars/{slug}/jig/lost")
def lost(slug: str, prefix: Annotated[Prefix, Field()], workshop: TheWorkshop) -> LostView:
    """Return what cutting away everything that begins so would do to the datum; empty where it carries none of it."""
    return LostView(say=say_lost(workshop.frame(slug), [prefix]))
