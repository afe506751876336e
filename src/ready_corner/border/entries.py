"""Entries of the logbook at the border: what a browser sends (``...In``: what was typed) and what is kept (with its value)."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import AwareDatetime, Field

from ready_corner.border.base import Id, Model, Words
from ready_corner.border.jig import (
    DatumModel,
    FootIn,
    FootKept,
    JigModel,
    PinModel,
    PlainWork,
    Prefix,
    SlopeIn,
    SlopeKept,
    StatusModel,
    SupportedModel,
    SurveyReadIn,
    SurveyReadKept,
    WorkIn,
    WorkKept,
    ZeroedModel,
    jig_from_core,
    jig_to_core,
    level_kept,
    level_to_core,
    work_kept,
    work_to_core,
)
from ready_corner.border.plan import PlanModel, PointName
from ready_corner.border.stance import StanceModel, stance_from_core, stance_to_core
from ready_corner.core import logbook as core
from ready_corner.core.jig.acts import JigAct, SurveyRead
from ready_corner.core.plan import Corner, Plan
from ready_corner.core.shop import read
from ready_corner.core.stance.acts import StanceAct

Typed = Annotated[str, Field(max_length=200)]


class PlanRevisedModel(Model):
    """A new plan made from that of entry ``revises`` (0 for the first)."""

    kind: Literal["plan"] = "plan"
    version: Literal[1] = 1
    plan: PlanModel
    revises: int = 0


class ReadingIn(Model):
    """A reading as typed, in shop notation."""

    kind: Literal["reading"] = "reading"
    version: Literal[1] = 1
    quantity: core.Quantity
    corner: Corner
    typed: Typed
    tool: Id
    confirmed: bool = False


class ReadingKept(ReadingIn):
    """A reading as kept: with its value in mm, degrees or kg, and what the gauge shows for upright."""

    value: float
    denominator: int = 0
    upright_deg: float = 0.0


class TurnedIn(Model):
    """An adjuster turned, as typed: “1t2f”, “2 shims removed”."""

    kind: Literal["turned"] = "turned"
    version: Literal[1] = 1
    adjuster: Id
    typed: Typed


class TurnedKept(TurnedIn):
    """An adjuster turned, as kept: amount in turns or shims, plus being longer, out, added, up."""

    amount: float


class HappenedModel(Model):
    """Something else that happened to the car."""

    kind: Literal["happened"] = "happened"
    version: Literal[1] = 1
    what: core.Happening
    corner: Corner | None = None
    words: Words = ""
    points: Annotated[tuple[Prefix, ...], Field(max_length=40)] = ()


class SurveyedModel(Model):
    """Places of points as measured, in mm in the axes of the plan, each sure to ``expanded`` along every axis."""

    kind: Literal["surveyed"] = "surveyed"
    version: Literal[1] = 1
    points: Annotated[dict[PointName, tuple[float, float, float]], Field(min_length=1, max_length=400)]
    expanded: Annotated[float, Field(gt=0)]
    words: Words = ""
    confirmed: bool = False


class CorrectionModel(Model):
    """Strikes out another entry."""

    kind: Literal["correction"] = "correction"
    version: Literal[1] = 1
    strikes: UUID
    reason: Words = ""


class NoteModel(Model):
    """Words."""

    kind: Literal["note"] = "note"
    version: Literal[1] = 1
    words: Annotated[str, Field(min_length=1, max_length=2000)]
    corner: Corner | None = None


WhatIn = Annotated[
    PlanRevisedModel
    | ReadingIn
    | TurnedIn
    | HappenedModel
    | SurveyedModel
    | SurveyReadIn
    | FootIn
    | SlopeIn
    | WorkIn
    | PlainWork
    | JigModel
    | StanceModel
    | CorrectionModel
    | NoteModel,
    Field(discriminator="kind"),
]
WhatKept = Annotated[
    PlanRevisedModel
    | ReadingKept
    | TurnedKept
    | HappenedModel
    | SurveyedModel
    | SurveyReadKept
    | FootKept
    | SlopeKept
    | WorkKept
    | PlainWork
    | JigModel
    | StanceModel
    | CorrectionModel
    | NoteModel,
    Field(discriminator="kind"),
]


class EntryIn(Model):
    """An entry as a browser sends it, with an identity and a time of its own."""

    id: UUID
    at: AwareDatetime
    who: Annotated[str, Field(max_length=80)] = ""
    what: WhatIn


class EntryKept(Model):
    """An entry as kept in the log and in logbook files."""

    id: UUID
    number: Annotated[int, Field(gt=0)]
    at: datetime
    who: str = ""
    what: WhatKept


class LogbookModel(Model):
    """A logbook file, version 1: the entries of one car in order."""

    format: Literal["ready-corner logbook"] = "ready-corner logbook"
    version: Literal[1] = 1
    entries: list[EntryKept]


def what_to_core(what: WhatIn, plan: Plan | None) -> core.What:
    """Return the core's form of what a browser sent, its figures read in the units of the plan in force.

    Raises ShopNotationError for what is no figure, PlanProblemsError for a plan that cannot be.
    """
    if isinstance(what, PlanRevisedModel):
        return core.PlanRevised(what.plan.to_core(), what.revises)
    if isinstance(what, HappenedModel):
        return core.Happened(what.what, what.corner, what.words, what.points)
    if isinstance(what, SurveyedModel):
        return core.Surveyed(dict(what.points), what.expanded, what.words, what.confirmed)
    if isinstance(what, CorrectionModel):
        return core.Correction(str(what.strikes), what.reason)
    if isinstance(what, NoteModel):
        return core.Note(what.words, what.corner)
    if isinstance(what, DatumModel | ZeroedModel | SupportedModel | StatusModel | PinModel):
        return jig_to_core(what)
    if isinstance(what, PlainWork):
        return work_to_core(what)
    if isinstance(what, StanceModel):
        return stance_to_core(what)
    assert plan is not None
    if isinstance(what, WorkIn):
        return work_to_core(work_kept(what, plan))
    if isinstance(what, SurveyReadIn):
        return what.to_core(plan)
    if isinstance(what, FootIn | SlopeIn):
        return level_to_core(what, plan)
    if isinstance(what, TurnedIn):
        return core.Turned(what.adjuster, read(what.typed, "turns", plan.units).value, what.typed)
    figure = read(what.typed, core.QUANTITIES[what.quantity].kind, plan.units)
    upright = core.upright_of(what.quantity, figure.value)
    return core.Reading(
        what.quantity, what.corner, figure.value, what.tool, what.typed, figure.denominator, upright, what.confirmed
    )


def kept_to_core(entry: EntryKept) -> core.Entry:
    """Return the core's form of an entry that was kept; its figures are taken as they were kept."""
    what: core.What
    kept = entry.what
    if isinstance(kept, ReadingKept):
        what = core.Reading(**kept.model_dump(exclude={"kind", "version"}))
    elif isinstance(kept, SurveyReadKept):
        what = kept.kept()
    elif isinstance(kept, WorkKept):
        what = work_to_core(kept)
    elif isinstance(kept, FootKept | SlopeKept):
        what = level_kept(kept)
    elif isinstance(kept, TurnedKept):
        what = core.Turned(kept.adjuster, kept.amount, kept.typed)
    else:
        what = what_to_core(kept, None)
    return core.Entry(str(entry.id), entry.number, what, entry.at.isoformat(), entry.who)


def what_from_core(what: core.What, sent: WhatIn | None = None) -> WhatKept:
    """Return the open form of what is kept; what was typed beside its figure is taken from what was ``sent``."""
    if isinstance(what, JigAct):
        if isinstance(what, SurveyRead) and isinstance(sent, SurveyReadIn):
            return SurveyReadKept.of(what, sent.diameters, sent.burnt)
        return jig_from_core(what)
    if isinstance(what, StanceAct):
        return stance_from_core(what)
    if isinstance(what, core.PlanRevised):
        return PlanRevisedModel(plan=PlanModel.from_core(what.plan), revises=what.revises)
    if isinstance(what, core.Reading):
        return ReadingKept.model_validate(what)
    if isinstance(what, core.Turned):
        return TurnedKept.model_validate(what)
    if isinstance(what, core.Happened):
        return HappenedModel.model_validate(what)
    if isinstance(what, core.Surveyed):
        return SurveyedModel.model_validate(what)
    if isinstance(what, core.Correction):
        return CorrectionModel.model_validate(what)
    return NoteModel.model_validate(what)


def same_as_sent(kept: WhatKept, sent: WhatIn) -> bool:
    """Whether what was kept is what is sent now, apart from the figures read from it."""
    return (
        kept.model_dump(
            exclude={
                "value",
                "denominator",
                "upright_deg",
                "amount",
                "bound",
                "diameters_mm",
                "burnt_mm",
                "first",
                "second",
                "ahead",
                "behind",
            }
        )
        == sent.model_dump()
    )
