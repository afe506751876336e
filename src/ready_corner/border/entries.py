"""Entries of the logbook at the border: what a browser sends (``...In``: what was typed) and what is kept (with its value)."""

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import AwareDatetime, Field, JsonValue, field_validator

from ready_corner.border.base import Act, Id, Model, Words
from ready_corner.border.jig import (
    FootIn,
    FootKept,
    GapIn,
    JigModel,
    OpeningIn,
    PlainWork,
    Prefix,
    SillIn,
    SlopeIn,
    SlopeKept,
    SurveyReadIn,
    SurveyReadKept,
    WorkKept,
)
from ready_corner.border.plan import PlanModel, PointName
from ready_corner.border.stance import StanceModel
from ready_corner.core.plan.plan import Corner, Plan
from ready_corner.core.quantities.notation import read
from ready_corner.core.record import logbook as core

FIRST_YEAR, LAST_YEAR = 1970, 2200  # a clock that says otherwise is not set

Typed = Annotated[str, Field(max_length=200)]


class PlanRevisedModel(Model):
    """A new plan made from that of entry ``revises`` (0 for the first); ``confirmed``: though it lets go of points that something refers to."""

    kind: Literal["plan"] = "plan"
    version: Literal[1] = 1
    plan: PlanModel
    revises: int = 0
    confirmed: bool = False

    def to_core(self) -> core.PlanRevised:
        """Return the core's form of a plan that was kept; that it could be is asked before it is."""
        return core.PlanRevised(self.plan.to_core(checked=False), self.revises, self.confirmed)


class ReadingIn(Model):
    """A reading as typed, in shop notation."""

    kind: Literal["reading"] = "reading"
    version: Literal[1] = 1
    quantity: core.Quantity
    corner: Corner
    typed: Typed
    tool: Id
    confirmed: bool = False

    def keep(self, plan: Plan) -> "ReadingKept":
        """Return it with its figure; raises ShopNotationError."""
        figure = read(self.typed, core.QUANTITIES[self.quantity].kind, plan.units)
        upright = core.upright_of(self.quantity, figure.value)
        return ReadingKept(**self.model_dump(), value=figure.value, denominator=figure.denominator, upright_deg=upright)


class ReadingKept(ReadingIn):
    """A reading as kept: with its value in mm, degrees or kg, and what the gauge shows for upright."""

    value: float
    denominator: int = 0
    upright_deg: float = 0.0

    def to_core(self) -> core.Reading:
        """Return the core's form."""
        return core.Reading(**self.model_dump(exclude={"kind", "version"}))


class TurnedIn(Model):
    """An adjuster turned, as typed: “1t2f”, “2 shims removed”."""

    kind: Literal["turned"] = "turned"
    version: Literal[1] = 1
    adjuster: Id
    typed: Typed

    def keep(self, plan: Plan) -> "TurnedKept":
        """Return it with its amount; raises ShopNotationError."""
        return TurnedKept(**self.model_dump(), amount=read(self.typed, "turns", plan.units).value)


class TurnedKept(TurnedIn):
    """An adjuster turned, as kept: amount in turns or shims, plus being longer, out, added, up."""

    amount: float

    def to_core(self) -> core.Turned:
        """Return the core's form."""
        return core.Turned(self.adjuster, self.amount, self.typed)


class HappenedModel(Act):
    """Something else that happened to the car."""

    core_class = core.Happened
    kind: Literal["happened"] = "happened"
    version: Literal[1] = 1
    what: core.Happening
    corner: Corner | None = None
    words: Words = ""
    points: Annotated[tuple[Prefix, ...], Field(max_length=40)] = ()
    by: float | None = None
    place: tuple[float, float] | None = None


class SurveyedModel(Act):
    """Places of points as measured, in mm in the axes of the plan, each sure to ``expanded`` along every axis."""

    core_class = core.Surveyed
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

    def to_core(self) -> core.Correction:
        """Return the core's form."""
        return core.Correction(str(self.strikes), self.reason)


class NoteModel(Act):
    """Words."""

    core_class = core.Note
    kind: Literal["note"] = "note"
    version: Literal[1] = 1
    words: Annotated[str, Field(min_length=1, max_length=2000)]
    corner: Corner | None = None


class UnreadableModel(Model):
    """A line of the database that this version cannot read; ``said`` why, ``row`` as it stands there. No server ever wrote one."""

    kind: Literal["unreadable"] = "unreadable"
    version: Literal[1] = 1
    said: str
    row: JsonValue

    def to_core(self) -> core.Unreadable:
        """Return the core's form."""
        return core.Unreadable(self.said)


WhatIn = Annotated[
    PlanRevisedModel
    | ReadingIn
    | TurnedIn
    | HappenedModel
    | SurveyedModel
    | SurveyReadIn
    | FootIn
    | SlopeIn
    | GapIn
    | OpeningIn
    | SillIn
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
    | NoteModel
    | UnreadableModel,
    Field(discriminator="kind"),
]


class EntryIn(Model):
    """An entry as a browser sends it, with an identity and a time of its own."""

    id: UUID
    at: AwareDatetime
    who: Annotated[str, Field(max_length=80)] = ""
    what: WhatIn

    @field_validator("at")
    @classmethod
    def _of_this_age(cls, at: datetime) -> datetime:
        if not FIRST_YEAR < at.year < LAST_YEAR:
            raise ValueError(
                f"No car was worked on in the year {at.year}. Look at the clock of this device, and record it again."
            )
        return at


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


class CarFileModel(Model):
    """A car of a workshop file: its short name there, and the entries of its logbook in order."""

    slug: Annotated[str, Field(min_length=1, max_length=80, pattern=r"^[a-z0-9-]+$")]
    entries: list[EntryKept]


class WorkshopModel(Model):
    """A workshop file, version 1: every car with its whole logbook."""

    format: Literal["ready-corner workshop"] = "ready-corner workshop"
    version: Literal[1] = 1
    cars: list[CarFileModel]


def keep(what: WhatIn, plan: Plan | None) -> WhatKept:
    """Return what a browser sent as it will be kept: whole, and beside what was typed its figures, read in the units of the plan in force.

    Raises ShopNotationError for what is no figure, PlanProblemsError for a plan that cannot be.
    """
    if isinstance(what, PlanRevisedModel):
        what.plan.to_core()
        return what
    if isinstance(what, ReadingIn | TurnedIn | SurveyReadIn | FootIn | SlopeIn | GapIn | OpeningIn | SillIn):
        assert plan is not None
        return what.keep(plan)
    return what


def kept_to_core(entry: EntryKept) -> core.Entry:
    """Return the core's form of an entry that was kept; its figures are taken as they were kept."""
    return core.Entry(str(entry.id), entry.number, entry.what.to_core(), entry.at.isoformat(), entry.who)


def same_as_sent(kept: WhatKept, sent: WhatIn) -> bool:
    """Whether what was kept is what is sent now, apart from the figures read from it."""
    return kept.kind == sent.kind and all(getattr(kept, name) == getattr(sent, name) for name in type(sent).model_fields)
