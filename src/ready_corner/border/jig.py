"""Entries of the jig at the border: what a browser sends (``...In``: what was typed) and what is kept (with its value)."""

from collections.abc import Callable
from typing import Annotated, Literal, get_args

from pydantic import Field

from ready_corner.border.base import Id, Model, Words
from ready_corner.border.plan import PointName
from ready_corner.core.errors import MeasuredError
from ready_corner.core.jig import acts as core
from ready_corner.core.jig import works
from ready_corner.core.plan import Corner, Plan
from ready_corner.core.shop import read
from ready_corner.core.survey.readings import KINDS, Kind, Pins, Says, between_pins

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

    def to_core(self, plan: Plan) -> core.SurveyRead:
        """Return the core's reading: between centres, from the hook; raises ShopNotationError, MeasuredError."""
        figure = read(self.typed, "angle" if KINDS[self.reading].unit == "deg" else "length", plan.units).value
        made = {
            "reading": self.reading,
            "points": tuple(self.points),
            "tool": self.tool,
            "typed": self.typed,
            "confirmed": self.confirmed,
        }
        if self.reading == "in_line" or self.says:
            return core.SurveyRead(**made, value=0.0, says=self.says, bound=figure)  # type: ignore[arg-type]
        burnt = read(self.burnt, "length", plan.units).value if self.burnt.strip() else 0.0
        if burnt < 0 or (burnt and burnt >= figure):
            raise MeasuredError("The tape was begun beyond where it was read. Look at both marks again.", path="burnt")
        value, diameters = figure - burnt, (0.0, 0.0)
        if self.pins:
            first, second = (read(d, "length", plan.units).value for d in self.diameters)
            diameters = (first, second)
            value = between_pins(value, self.pins, first, second)
        return core.SurveyRead(**made, value=value, pins=self.pins, diameters=diameters, burnt=burnt)  # type: ignore[arg-type]


class SurveyReadKept(SurveyReadIn):
    """A reading of the frame as kept: between centres, in mm or degrees; ``bound`` in mm where there is no number."""

    value: float
    bound: float = 0.0
    diameters_mm: tuple[float, float] = (0.0, 0.0)
    burnt_mm: float = 0.0

    def kept(self) -> core.SurveyRead:
        """Return the core's form of what was kept."""
        return core.SurveyRead(
            self.reading,
            tuple(self.points),
            self.value,
            self.tool,
            self.typed,
            self.says,
            self.bound,
            self.pins,
            self.diameters_mm,
            self.burnt_mm,
            self.confirmed,
        )

    @classmethod
    def of(cls, read: core.SurveyRead, diameters: tuple[str, str] = ("", ""), burnt: str = "") -> "SurveyReadKept":
        """Return the open form of a reading."""
        return cls(
            reading=read.reading, points=list(read.points), typed=read.typed, tool=read.tool, says=read.says, pins=read.pins, diameters=diameters, burnt=burnt,
            confirmed=read.confirmed, value=read.value, bound=read.bound, diameters_mm=read.diameters, burnt_mm=read.burnt,
        )  # fmt: skip


class DatumModel(Model):
    """Where the axes of the car are taken from; ``words`` how they were found."""

    kind: Literal["datum"] = "datum"
    version: Literal[1] = 1
    plane: tuple[PointName, PointName, PointName]
    line: tuple[PointName, PointName]
    point: PointName
    words: Words = ""
    way: core.DatumWay = "named points"
    figures: tuple[float, float, float, float, float, float] | None = None


class SupportedModel(Model):
    """How the frame is held from now on."""

    kind: Literal["supported"] = "supported"
    version: Literal[1] = 1
    how: core.Support


class StatusModel(Model):
    """What a point, or every point that begins so, has come to."""

    kind: Literal["status"] = "status"
    version: Literal[1] = 1
    point: Prefix
    status: core.Status


class PinModel(Model):
    """How a pin goes into the hole of a point by hand."""

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


class FootKept(FootIn):
    """Height of a foot of the jig as kept, mm."""

    value: float


class SlopeIn(Model):
    """A level read along or across, and again end for end, as typed."""

    kind: Literal["slope"] = "slope"
    version: Literal[1] = 1
    way: Literal["along", "across"]
    typed: Typed
    reversed_typed: Typed
    tool: Id


class SlopeKept(SlopeIn):
    """A level read both ways as kept, degrees."""

    first: float
    second: float


def level_to_core(what: FootIn | SlopeIn, plan: Plan) -> core.FootRead | core.SlopeRead:
    """Return the core's act; raises ShopNotationError."""
    if isinstance(what, FootIn):
        return core.FootRead(what.foot, read(what.typed, "length", plan.units).value, what.tool, what.typed)
    first, second = (read(t, "angle", plan.units).value for t in (what.typed, what.reversed_typed))
    return core.SlopeRead(what.way, first, second, what.tool, f"{what.typed} / {what.reversed_typed}")


def level_kept(what: FootKept | SlopeKept) -> core.FootRead | core.SlopeRead:
    """Return the core's form of what was kept."""
    if isinstance(what, FootKept):
        return core.FootRead(what.foot, what.value, what.tool, what.typed)
    return core.SlopeRead(what.way, what.first, what.second, what.tool, f"{what.typed} / {what.reversed_typed}")


class ZeroedModel(Model):
    """What the angle gauge is zeroed on from now on."""

    kind: Literal["zeroed"] = "zeroed"
    version: Literal[1] = 1
    on: core.Zero


class HoldModel(Model):
    """A condition to be met before final weld is met, or not any more."""

    kind: Literal["hold"] = "hold"
    version: Literal[1] = 1
    condition: Annotated[str, Field(min_length=1, max_length=120)]
    met: bool = True
    words: Words = ""


class AcceptedModel(Model):
    """What is left of a point's deviation is accepted for a reason."""

    kind: Literal["accepted"] = "accepted"
    version: Literal[1] = 1
    point: PointName
    reason: Words


class WeldOrderModel(Model):
    """The joints in the order of welding."""

    kind: Literal["weld_order"] = "weld_order"
    version: Literal[1] = 1
    joints: Annotated[tuple[Annotated[str, Field(min_length=1, max_length=80)], ...], Field(max_length=100)]
    way: works.WeldWay = "in steps, checked after each"
    reason: Words = ""


class SupportPointModel(Model):
    """A point the body stands on; diameters in mm."""

    kind: Literal["support_point"] = "support_point"
    version: Literal[1] = 1
    name: Annotated[str, Field(min_length=1, max_length=60)]
    role: works.Role
    pin: float = Field(default=0.0, ge=0)
    hole: float = Field(default=0.0, ge=0)


class BracingModel(Model):
    """Whether the shell is braced before it is cut."""

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


class GapKept(GapIn):
    """Clearance or gap as kept, mm."""

    value: float


class OpeningIn(Model):
    """A wheel opening, from the axle centre to its edge ahead and behind, as typed."""

    kind: Literal["opening"] = "opening"
    version: Literal[1] = 1
    corner: Corner
    ahead_typed: Typed
    behind_typed: Typed


class OpeningKept(OpeningIn):
    """A wheel opening as kept, mm."""

    ahead: float
    behind: float


class SillIn(Model):
    """Height of sill or seam over the jig, as typed."""

    kind: Literal["sill"] = "sill"
    version: Literal[1] = 1
    place: Literal["front", "rear"]
    side: Literal["left", "right"]
    typed: Typed
    sag: bool = False


class SillKept(SillIn):
    """Height of sill or seam as kept, mm."""

    value: float


WorkIn = GapIn | OpeningIn | SillIn
WorkKept = GapKept | OpeningKept | SillKept
PlainWork = HoldModel | AcceptedModel | WeldOrderModel | SupportPointModel | BracingModel
_PLAIN: dict[type, Callable[..., works.WorkAct]] = {
    HoldModel: works.HoldMet, AcceptedModel: works.Accepted, WeldOrderModel: works.WeldOrder, SupportPointModel: works.SupportPoint, BracingModel: works.Bracing,
}  # fmt: skip


def work_kept(what: WorkIn, plan: Plan) -> WorkKept:
    """Return what was typed with its figures in mm; raises ShopNotationError."""

    def mm(text: str) -> float:
        return read(text, "length", plan.units).value

    if isinstance(what, GapIn):
        return GapKept(**what.model_dump(), value=mm(what.typed))
    if isinstance(what, SillIn):
        return SillKept(**what.model_dump(), value=mm(what.typed))
    return OpeningKept(**what.model_dump(), ahead=mm(what.ahead_typed), behind=mm(what.behind_typed))


def work_to_core(what: WorkKept | PlainWork) -> works.WorkAct:
    """Return the core's act."""
    if isinstance(what, GapKept):
        return works.Cleared(what.point, what.to, what.what, what.value, what.typed)
    if isinstance(what, SillKept):
        return works.SillRead(what.place, what.side, what.value, what.typed, what.sag)
    if isinstance(what, OpeningKept):
        return works.OpeningRead(what.corner, what.ahead, what.behind, f"{what.ahead_typed} / {what.behind_typed}")
    return _PLAIN[type(what)](**what.model_dump(exclude={"kind", "version"}))


def work_from_core(act: works.WorkAct) -> WorkKept | PlainWork:
    """Return the open form of an act."""
    if isinstance(act, works.Cleared):
        return GapKept.model_validate(act)
    if isinstance(act, works.SillRead):
        return SillKept.model_validate(act)
    if isinstance(act, works.OpeningRead):
        ahead, _, behind = act.typed.partition(" / ")
        return OpeningKept(corner=act.corner, ahead_typed=ahead, behind_typed=behind, ahead=act.ahead, behind=act.behind)
    plain = next(model for model, made in _PLAIN.items() if made is type(act))
    return plain.model_validate(act)  # type: ignore[attr-defined, no-any-return]


JigModel = DatumModel | ZeroedModel | SupportedModel | StatusModel | PinModel


def jig_to_core(what: JigModel) -> core.JigAct:
    """Return the core's act of an entry that has no figure in it."""
    fields = what.model_dump(exclude={"kind", "version"})
    if isinstance(what, DatumModel):
        return core.DatumChosen(**fields)
    if isinstance(what, SupportedModel):
        return core.Supported(**fields)
    if isinstance(what, ZeroedModel):
        return core.GaugeZeroed(**fields)
    return core.StatusGiven(**fields) if isinstance(what, StatusModel) else core.PinFelt(**fields)


def jig_from_core(act: core.JigAct) -> SurveyReadKept | FootKept | SlopeKept | WorkKept | PlainWork | JigModel:
    """Return the open form of an act."""
    if isinstance(act, works.WorkAct):
        return work_from_core(act)
    if isinstance(act, core.FootRead):
        return FootKept(foot=act.foot, typed=act.typed, tool=act.tool, value=act.value)
    if isinstance(act, core.SlopeRead):
        typed, _, back = act.typed.partition(" / ")
        return SlopeKept(way=act.way, typed=typed, reversed_typed=back, tool=act.tool, first=act.first, second=act.second)
    if isinstance(act, core.SurveyRead):
        return SurveyReadKept.of(act)
    if isinstance(act, core.DatumChosen):
        return DatumModel.model_validate(act)
    if isinstance(act, core.Supported):
        return SupportedModel.model_validate(act)
    if isinstance(act, core.GaugeZeroed):
        return ZeroedModel.model_validate(act)
    return StatusModel.model_validate(act) if isinstance(act, core.StatusGiven) else PinModel.model_validate(act)


SUPPORTS: tuple[core.Support, ...] = get_args(core.Support)
