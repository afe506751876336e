"""Entries of the jig at the border: what a browser sends (``...In``: what was typed) and what is kept (with its value)."""

from typing import Annotated, Literal, get_args

from pydantic import Field

from ready_corner.border.base import Act, Id, Model, Words
from ready_corner.border.plan import PointName
from ready_corner.core.engines.survey.readings import KINDS, Kind, Pins, Says, between_pins
from ready_corner.core.plan.plan import Corner, Plan
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.notation import read
from ready_corner.core.record import jig_acts as core
from ready_corner.core.record import weld_acts as works

Typed = Annotated[str, Field(max_length=200)]
Prefix = Annotated[str, Field(min_length=1, max_length=60, pattern=r"^[A-Za-z0-9_.-]+$")]


class SurveyReadIn(Model):
    """A reading of the frame as typed; of a comparison without a number, what is typed is the difference that would have been noticed.

    ``pins``: read between edges of pins of these ``diameters``; ``burnt``: the mark at which the tape was begun.
    """

    kind: Literal["survey"] = "survey"
    version: Literal[1] = 1
    reading: Kind
    points: Annotated[list[PointName], Field(min_length=1, max_length=4)]
    typed: Typed
    tool: Id
    says: Says | None = None
    pins: Pins | None = None
    diameters: tuple[Typed, Typed] = ("", "")
    burnt: Typed = ""
    confirmed: bool = False

    def keep(self, plan: Plan) -> "SurveyReadKept":
        """Return it with its figures: between centres, from the hook; raises ShopNotationError, MeasuredError."""
        figure = read(self.typed, "angle" if KINDS[self.reading].unit == "deg" else "length", plan.units).value
        if self.reading == "in_line" or self.says:
            return SurveyReadKept(**self.model_dump(), value=0.0, bound=figure)
        burnt = read(self.burnt, "length", plan.units).value if self.burnt.strip() else 0.0
        if burnt < 0 or (burnt and burnt >= figure):
            raise MeasuredError("The tape was begun beyond where it was read. Look at both marks again.", path="burnt")
        value, diameters = figure - burnt, (0.0, 0.0)
        if self.pins:
            first, second = (read(d, "length", plan.units).value for d in self.diameters)
            diameters = (first, second)
            value = between_pins(value, self.pins, first, second)
        return SurveyReadKept(**self.model_dump(), value=value, diameters_mm=diameters, burnt_mm=burnt)


class SurveyReadKept(SurveyReadIn):
    """A reading of the frame as kept: between centres, in mm or degrees; ``bound`` in mm where there is no number."""

    value: float
    bound: float = 0.0
    diameters_mm: tuple[float, float] = (0.0, 0.0)
    burnt_mm: float = 0.0

    def to_core(self) -> core.SurveyRead:
        """Return the core's form."""
        return core.SurveyRead(
            self.reading, tuple(self.points), self.value, self.tool, self.typed, self.says, self.bound, self.pins, self.diameters_mm, self.burnt_mm, self.confirmed,
        )  # fmt: skip


class DatumModel(Act):
    """Where the axes of the car are taken from; ``words`` how they were found."""

    core_class = core.DatumChosen
    kind: Literal["datum"] = "datum"
    version: Literal[1] = 1
    plane: tuple[PointName, PointName, PointName]
    line: tuple[PointName, PointName]
    point: PointName
    words: Words = ""
    way: core.DatumWay = "named points"
    figures: tuple[float, float, float, float, float, float] | None = None


class SupportedModel(Act):
    """How the frame is held from now on."""

    core_class = core.Supported
    kind: Literal["supported"] = "supported"
    version: Literal[1] = 1
    how: core.Support


class StatusModel(Act):
    """What a point, or every point that begins so, has come to."""

    core_class = core.StatusGiven
    kind: Literal["status"] = "status"
    version: Literal[1] = 1
    point: Prefix
    status: core.Status


class PinModel(Act):
    """How a pin goes into the hole of a point by hand."""

    core_class = core.PinFelt
    kind: Literal["pin"] = "pin"
    version: Literal[1] = 1
    point: PointName
    says: core.PinSays


class FootIn(Model):
    """Height of a foot of the jig as typed."""

    kind: Literal["foot"] = "foot"
    version: Literal[1] = 1
    foot: Id
    typed: Typed
    tool: Id

    def keep(self, plan: Plan) -> "FootKept":
        """Return it with its figure; raises ShopNotationError."""
        return FootKept(**self.model_dump(), value=read(self.typed, "length", plan.units).value)


class FootKept(FootIn):
    """Height of a foot of the jig as kept, mm."""

    value: float

    def to_core(self) -> core.FootRead:
        """Return the core's form."""
        return core.FootRead(self.foot, self.value, self.tool, self.typed)


class SlopeIn(Model):
    """A level read along or across, and again end for end, as typed."""

    kind: Literal["slope"] = "slope"
    version: Literal[1] = 1
    way: Literal["along", "across"]
    typed: Typed
    reversed_typed: Typed
    tool: Id

    def keep(self, plan: Plan) -> "SlopeKept":
        """Return it with its figures; raises ShopNotationError."""
        first, second = (read(t, "angle", plan.units).value for t in (self.typed, self.reversed_typed))
        return SlopeKept(**self.model_dump(), first=first, second=second)


class SlopeKept(SlopeIn):
    """A level read both ways as kept, degrees."""

    first: float
    second: float

    def to_core(self) -> core.SlopeRead:
        """Return the core's form."""
        return core.SlopeRead(self.way, self.first, self.second, self.tool)


class ZeroedModel(Act):
    """What the angle gauge is zeroed on from now on."""

    core_class = core.GaugeZeroed
    kind: Literal["zeroed"] = "zeroed"
    version: Literal[1] = 1
    on: core.Zero


class HoldModel(Act):
    """A condition to be met before final weld is met, or not any more."""

    core_class = works.HoldMet
    kind: Literal["hold"] = "hold"
    version: Literal[1] = 1
    condition: Annotated[str, Field(min_length=1, max_length=120)]
    met: bool = True
    words: Words = ""


class AcceptedModel(Act):
    """What is left of a point's deviation is accepted for a reason."""

    core_class = works.Accepted
    kind: Literal["accepted"] = "accepted"
    version: Literal[1] = 1
    point: PointName
    reason: Words


class WeldOrderModel(Act):
    """The joints in the order of welding."""

    core_class = works.WeldOrder
    kind: Literal["weld_order"] = "weld_order"
    version: Literal[1] = 1
    joints: Annotated[tuple[Annotated[str, Field(min_length=1, max_length=80)], ...], Field(max_length=100)]
    way: works.WeldWay = "in steps, checked after each"
    reason: Words = ""


class SupportPointModel(Act):
    """A point the body stands on; diameters in mm."""

    core_class = works.SupportPoint
    kind: Literal["support_point"] = "support_point"
    version: Literal[1] = 1
    name: Annotated[str, Field(min_length=1, max_length=60)]
    role: works.Role
    pin: float = Field(default=0.0, ge=0)
    hole: float = Field(default=0.0, ge=0)


class BracingModel(Act):
    """Whether the shell is braced before it is cut."""

    core_class = works.Bracing
    kind: Literal["bracing"] = "bracing"
    version: Literal[1] = 1
    braced: bool
    reason: Words = ""


class GapIn(Model):
    """Clearance to a neighbour or gap to a bush, as typed."""

    kind: Literal["gap"] = "gap"
    version: Literal[1] = 1
    point: PointName
    to: Annotated[str, Field(min_length=1, max_length=80)]
    what: Literal["neighbour", "bush"] = "neighbour"
    typed: Typed

    def keep(self, plan: Plan) -> "GapKept":
        """Return it with its figure; raises ShopNotationError."""
        return GapKept(**self.model_dump(), value=read(self.typed, "length", plan.units).value)


class GapKept(GapIn):
    """Clearance or gap as kept, mm."""

    value: float

    def to_core(self) -> works.Cleared:
        """Return the core's form."""
        return works.Cleared(self.point, self.to, self.what, self.value, self.typed)


class OpeningIn(Model):
    """A wheel opening, from the axle centre to its edge ahead and behind, as typed."""

    kind: Literal["opening"] = "opening"
    version: Literal[1] = 1
    corner: Corner
    ahead_typed: Typed
    behind_typed: Typed

    def keep(self, plan: Plan) -> "OpeningKept":
        """Return it with its figures; raises ShopNotationError."""
        ahead, behind = (read(t, "length", plan.units).value for t in (self.ahead_typed, self.behind_typed))
        return OpeningKept(**self.model_dump(), ahead=ahead, behind=behind)


class OpeningKept(OpeningIn):
    """A wheel opening as kept, mm."""

    ahead: float
    behind: float

    def to_core(self) -> works.OpeningRead:
        """Return the core's form."""
        return works.OpeningRead(self.corner, self.ahead, self.behind)


class SillIn(Model):
    """Height of sill or seam over the jig, as typed."""

    kind: Literal["sill"] = "sill"
    version: Literal[1] = 1
    place: Literal["front", "rear"]
    side: Literal["left", "right"]
    typed: Typed
    sag: bool = False

    def keep(self, plan: Plan) -> "SillKept":
        """Return it with its figure; raises ShopNotationError."""
        return SillKept(**self.model_dump(), value=read(self.typed, "length", plan.units).value)


class SillKept(SillIn):
    """Height of sill or seam as kept, mm."""

    value: float

    def to_core(self) -> works.SillRead:
        """Return the core's form."""
        return works.SillRead(self.place, self.side, self.value, self.typed, self.sag)


WorkKept = GapKept | OpeningKept | SillKept
PlainWork = HoldModel | AcceptedModel | WeldOrderModel | SupportPointModel | BracingModel
JigModel = DatumModel | ZeroedModel | SupportedModel | StatusModel | PinModel
SUPPORTS: tuple[core.Support, ...] = get_args(core.Support)
