"""Entries of the logbook at the border: what a browser sends, and what is kept. Of plans here; every other kind is made in ``kinds``."""

import json
import math
from datetime import datetime
from typing import TYPE_CHECKING, Annotated, Literal, Union
from uuid import UUID

from pydantic import AfterValidator, AwareDatetime, Field, JsonValue

from ready_corner.border.base import Model
from ready_corner.border.kinds import KEPT, MOST_TYPED, SENT, Kept, Sent
from ready_corner.border.plan import PlanModel
from ready_corner.core.plan.plan import Plan
from ready_corner.core.record import logbook as core

FIRST_YEAR, LAST_YEAR = 1970, 2200  # a clock that says otherwise is not set
LARGEST_ROW, DEEPEST_ROW = 100_000, 30  # characters, levels; the database takes 32
Typed = Annotated[str, Field(max_length=MOST_TYPED)]


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


def _keepable(row: JsonValue) -> JsonValue:
    """Return what the database can keep as it is: no number without end, not too deep, not too long."""
    if len(json.dumps(row)) > LARGEST_ROW:
        raise ValueError(f"A line holds more than {LARGEST_ROW // 1000} kB. That is not taken.")
    held, depth = [row], 0
    while held:
        if (depth := depth + 1) > DEEPEST_ROW:
            raise ValueError(f"A line is {DEEPEST_ROW} levels deep and more. That is not taken.")
        if any(isinstance(x, float) and not math.isfinite(x) for x in held):
            raise ValueError("A number of this line has no end. Strike it out of the file.")
        held = [y for x in held if isinstance(x, dict | list) for y in (x.values() if isinstance(x, dict) else x)]
    return row


class UnreadableModel(Model):
    """A line of the database that this version cannot read; ``said`` why, ``row`` as it stands there. No server ever wrote one."""

    kind: Literal["unreadable"] = "unreadable"
    version: Literal[1] = 1
    said: Annotated[str, Field(max_length=1000)]
    row: Annotated[JsonValue, AfterValidator(_keepable)]

    def to_core(self) -> core.Unreadable:
        """Return the core's form."""
        return core.Unreadable(self.said)


if TYPE_CHECKING:
    WhatIn = PlanRevisedModel | Sent
    WhatKept = PlanRevisedModel | Kept | UnreadableModel
else:
    WhatIn = Annotated[Union[(PlanRevisedModel, *SENT.values())], Field(discriminator="kind")]
    WhatKept = Annotated[Union[(PlanRevisedModel, *KEPT.values(), UnreadableModel)], Field(discriminator="kind")]


def _of_this_age(at: datetime) -> datetime:
    if not FIRST_YEAR < at.year < LAST_YEAR:
        raise ValueError(f"No car was worked on in the year {at.year}. Look at the clock of this device, and record it again.")
    return at


At = Annotated[AwareDatetime, AfterValidator(_of_this_age)]
Who = Annotated[str, Field(max_length=80)]


class EntryIn(Model):
    """An entry as a browser sends it, with an identity and a time of its own."""

    id: UUID
    at: At
    who: Who = ""
    what: WhatIn


class EntryKept(Model):
    """An entry as kept in the log and in logbook files."""

    id: UUID
    number: Annotated[int, Field(gt=0)]
    at: datetime
    who: Who = ""
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
    assert plan is not None
    return what.keep(plan)


def kept_to_core(entry: EntryKept) -> core.Entry:
    """Return the core's form of an entry that was kept; its figures are taken as they were kept."""
    return core.Entry(str(entry.id), entry.number, entry.what.to_core(), entry.at.isoformat(), entry.who)


def same_as_sent(kept: WhatKept, sent: WhatIn) -> bool:
    """Whether what was kept is what is sent now, apart from the figures read from it."""
    return kept.kind == sent.kind and all(getattr(kept, name) == getattr(sent, name) for name in type(sent).model_fields)
