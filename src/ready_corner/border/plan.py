"""A plan as it stands in files, requests and the database. Lengths in mm, angles in degrees; unknown fields are refused."""

from collections.abc import Callable
from typing import Annotated, Literal, Self, TypeVar, get_args

from pydantic import Field, model_validator

from ready_corner.border.base import Id, Model, Name, Words
from ready_corner.border.stance import FootingModel
from ready_corner.core.engines.linkage.body import Bar, Joint, Loads, Rocker, Shaft, Spring, Stand, Torsion
from ready_corner.core.engines.linkage.layouts import LayoutName
from ready_corner.core.model.checks import check_plan
from ready_corner.core.plan import plan as core
from ready_corner.core.plan.corners import Corner
from ready_corner.core.plan.footing import Footing
from ready_corner.core.quantities.errors import PlannedError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.naming import meant
from ready_corner.core.quantities.notation import Units
from ready_corner.core.quantities.tools import Measures, Tool
from ready_corner.core.quantities.verdict import Aim, Beyond, Trust
from ready_corner.core.record.readings import Quantity

T = TypeVar("T")
PointName = Annotated[str, Field(max_length=60, pattern=r"^[A-Za-z0-9_-]+(\.[A-Za-z0-9_-]+)+$")]
PLAN_VERSION: Literal[1] = 1


class PlanProblemsError(PlannedError):
    """Everything that is wrong with a plan at once; ``problems`` are the single refusals with their paths."""

    code = "plan_refused"

    def __init__(self, problems: list[PlannedError], units: Units) -> None:
        self.problems, self.units = problems, units
        super().__init__(finding("plan.problems", problems=tuple(p.finding for p in problems)), path=problems[0].path)


class UnitsModel(Model):
    """How the car says its lengths."""

    system: Literal["mm", "inch_fraction", "inch_decimal"] = "mm"
    finest: Literal[16, 32, 64] = 32


class AxleModel(Model):
    """One axle, in mm."""

    track: float
    rim_flange_diameter: float
    tyre_diameter: float
    hub_width: float | None = None


class AimModel(Model):
    """What is wanted of one mark, in mm or degrees, with its tolerance either side."""

    mark: Id
    aim: float
    tolerance: float
    source: Words = ""
    trust: Trust = ""
    other: Words = ""
    typed: Annotated[str, Field(max_length=60)] = ""
    beyond: Beyond = ""


class HeightPlaceModel(Model):
    """Where the ride height of one corner is read."""

    corner: Corner
    name: Name
    station: float
    offset: float
    height: float | None = None


class ThreadedEndModel(Model):
    """One threaded end of a link, in mm."""

    diameter: float
    pitch_mm_per_turn: float
    engaged: float
    exposed: float
    hand: Literal["right", "left"] = "right"
    least_engagement: float | None = None


class StackModel(Model):
    """A shim stack; thickness in mm, and the thicknesses on the shelf, each so many times it."""

    thickness: float
    fitted: int
    most: int
    shelf: list[float] = Field(default=[], max_length=20)

    def to_core(self) -> core.Stack:
        """Return the core's stack."""
        return core.Stack(self.thickness, self.fitted, self.most, tuple(self.shelf))


class PerchModel(Model):
    """A spring perch, in mm."""

    pitch_mm_per_turn: float
    room_up: float
    room_down: float
    spring_per_wheel: float


class ScrewModel(Model):
    """The fine screw of a torsion bar, in mm; how far the bar turns for a millimetre of the wheel, in degrees."""

    pitch_mm_per_turn: float
    lever: float
    room_up: float
    room_down: float
    degrees_per_wheel: float


class SplinesModel(Model):
    """Splines of a torsion bar at the end that is set over; how far the bar turns for a millimetre of the wheel, in degrees."""

    teeth: int
    up: int
    down: int
    degrees_per_wheel: float


class SlideModel(Model):
    """A slot or slide with a scale, in mm."""

    mark: float
    at: float
    most: float


class CamModel(Model):
    """An eccentric: its throw in mm, its scale in degrees."""

    throw: float
    mark_deg: float
    most_deg: float = 90.0
    at_deg: float = 0.0


class MovesModel(Model):
    """What an adjuster moves: a member (longer), or a point along a direction of the car."""

    name: Name
    direction: tuple[float, float, float] | None = None


class AdjusterModel(Model):
    """An adjuster: exactly one of ``ends`` (one or two), ``shims``, ``perch``, ``screw``, ``splines``, ``slide``, ``cam``."""

    id: Id
    name: Name
    corner: Corner
    ends: list[ThreadedEndModel] | None = None
    shims: StackModel | None = None
    perch: PerchModel | None = None
    screw: ScrewModel | None = None
    splines: SplinesModel | None = None
    slide: SlideModel | None = None
    cam: CamModel | None = None
    half_turns_only: bool = False
    moves: MovesModel | None = None
    lock: Words = ""

    @model_validator(mode="after")
    def _one_way(self) -> Self:
        if (
            sum(way is not None for way in (self.ends, self.shims, self.perch, self.screw, self.splines, self.slide, self.cam))
            != 1
        ):
            raise ValueError(
                f"{self.name}: give its threaded ends, or its shims, its perch, the screw or the splines of its torsion bar, its slide or its eccentric, and only one of them."
            )
        return self

    def to_core(self) -> core.Adjuster:
        """Return the core's adjuster; raises PlannedError."""
        by: tuple[core.ThreadedEnd, ...] | core.Stack | core.Perch | core.Screw | core.Splines | core.Slide | core.Cam
        if self.slide:
            by = core.Slide(**self.slide.model_dump())
        elif self.cam:
            by = core.Cam(**self.cam.model_dump())
        elif self.shims:
            by = self.shims.to_core()
        elif self.perch:
            by = core.Perch(**self.perch.model_dump())
        elif self.screw:
            by = core.Screw(**self.screw.model_dump())
        elif self.splines:
            by = core.Splines(**self.splines.model_dump())
        else:
            by = tuple(core.ThreadedEnd(**end.model_dump()) for end in self.ends or ())
        moves = core.Moves(self.moves.name, self.moves.direction) if self.moves else None
        return core.Adjuster(self.id, self.name, self.corner, by, self.half_turns_only, moves, self.lock)


class ToolModel(Model):
    """A tool; step, repeatability and zero in mm, degrees or kg."""

    id: Id
    name: Name
    measures: Measures
    step: float
    repeatability: float
    zero: float = 0.0


class WaysModel(Model):
    """Ways of working with the reason beside each."""

    strings: core.Strings = "each"
    strings_reason: Words = ""
    strings_on: core.StringsOn = ""
    hub_middle: float | None = None
    box_parallel: float | None = None
    mark_places: float | None = None
    span: float | None = None
    run_out: float | None = None
    floor: float | None = None
    settled: float | None = None
    plates: float | None = None
    bar: float | None = None
    marks: dict[Corner, tuple[float, float]] = Field(default_factory=dict)
    read_by: dict[Name, Name] = Field(default_factory=dict, max_length=20)


class StandModel(Model):
    """Where a spring or rod is fastened: a point, on "car", "upright", "rocker" or an arm."""

    point: Name
    on: Name


class RockerModel(Model):
    """A rocker on an axis through two points of the car, moved by a rod from a stand to its point ``push``."""

    first: Name
    second: Name
    push: Name
    rod: StandModel


class SpringModel(Model):
    """A spring or damper between two stands; rate in N/mm, lengths in mm."""

    name: Name
    ends: tuple[StandModel, StandModel]
    rate: float | None = Field(default=None, gt=0)
    free: float | None = Field(default=None, gt=0)
    closed: float | None = Field(default=None, gt=0)
    open: float | None = Field(default=None, gt=0)
    solid: float | None = Field(default=None, gt=0)
    helper: tuple[float, float, float] | None = None
    seat: float = 0.0
    to_tyre: float | None = Field(default=None, gt=0)


class TorsionModel(Model):
    """A torsion bar on an arm; rate in N·m per degree."""

    name: Name
    arm: Name
    rate: float | None = Field(default=None, gt=0)
    inner: int | None = Field(default=None, ge=2, le=200)
    outer: int | None = Field(default=None, ge=2, le=200)
    fine_deg: float = Field(default=0.0, ge=0)


class BarModel(Model):
    """One end of an anti-roll bar."""

    first: Name
    second: Name
    arm: Name
    link: StandModel


class ShaftModel(Model):
    """A halfshaft between two joints."""

    inner: Name
    outer: Name
    pushed: float | None = None
    pulled: float | None = None


class JointModel(Model):
    """A joint with a stud (its direction in the design position) and how far it may work in degrees."""

    member: Name
    at: Literal["inner", "outer"]
    limit_deg: float = Field(gt=0, lt=90)
    stud: tuple[float, float, float] | None = None


class LinkageModel(Model):
    """How the wheels of one end are held; lengths in mm, angles in degrees."""

    layout: LayoutName
    loaded_radius: float
    steering: Literal["none", "rack", "box"] = "none"
    mirrored: bool = True
    toe_deg: float = 0.0
    camber_deg: float = 0.0
    springs: list[SpringModel] = Field(default=[], max_length=10)
    torsions: list[TorsionModel] = Field(default=[], max_length=4)
    rocker: RockerModel | None = None
    bar: BarModel | None = None
    shaft: ShaftModel | None = None
    joints: list[JointModel] = Field(default=[], max_length=40)
    lengths: dict[Name, float] = Field(default={}, max_length=40)

    def to_core(self) -> core.Linkage:
        """Return the core's linkage."""
        return core.Linkage(
            self.layout,
            self.loaded_radius,
            self.steering,
            self.mirrored,
            self.toe_deg,
            self.camber_deg,
            tuple(
                Spring(
                    s.name,
                    (_stand(s.ends[0]), _stand(s.ends[1])),
                    s.rate,
                    s.free,
                    s.closed,
                    s.open,
                    s.solid,
                    s.helper,
                    s.seat,
                    s.to_tyre,
                )
                for s in self.springs
            ),
            tuple(Torsion(**t.model_dump()) for t in self.torsions),
            Rocker(self.rocker.first, self.rocker.second, self.rocker.push, _stand(self.rocker.rod)) if self.rocker else None,
            Bar(self.bar.first, self.bar.second, self.bar.arm, _stand(self.bar.link)) if self.bar else None,
            Shaft(**self.shaft.model_dump()) if self.shaft else None,
            tuple(Joint(**j.model_dump()) for j in self.joints),
            dict(self.lengths),
        )


class LoadsModel(Model):
    """What anti-dive and the like are counted from; height in mm."""

    height: float
    front_share: float
    brakes: Literal["outboard", "inboard"] = "outboard"
    drive: Literal["outboard", "inboard"] = "inboard"
    driven: Literal["front", "rear", "both"] = "rear"


class JigModel(Model):
    """The feet of a jig, each at (forward, left) in mm; pitch of their screws, and thicknesses of the shims there are."""

    feet: dict[Id, tuple[float, float]] = Field(max_length=12)
    pitch_mm_per_turn: float | None = Field(default=None, gt=0)
    shims: list[float] = Field(default=[], max_length=20)


def _stand(stand: StandModel) -> Stand:
    return Stand(stand.point, stand.on)


class PlanModel(Model):
    """A plan, version 1."""

    format: Literal["ready-corner plan"] = "ready-corner plan"
    version: Literal[1] = PLAN_VERSION
    name: Name
    about: Words = ""
    units: UnitsModel = UnitsModel()
    wheelbase: float
    front: AxleModel
    rear: AxleModel
    aims: list[AimModel] = Field(default=[], max_length=100)
    build_aims: list[AimModel] = Field(default=[], max_length=100)
    stage: core.Stage = "running"
    point_tolerance: float = 1.0
    jig: JigModel | None = None
    footing: FootingModel = FootingModel()
    heights: list[HeightPlaceModel] = Field(default=[], max_length=4)
    adjusters: list[AdjusterModel] = Field(default=[], max_length=100)
    tools: list[ToolModel] = Field(default=[], max_length=50)
    tool_for: dict[Id, Id] = Field(default={}, max_length=40)
    ways: WaysModel = WaysModel()
    points: dict[PointName, tuple[float, float, float]] = Field(default={}, max_length=400)
    front_linkage: LinkageModel | None = None
    rear_linkage: LinkageModel | None = None
    loads: LoadsModel | None = None
    provisional: list[Annotated[str, Field(max_length=90)]] = Field(default=[], max_length=420)

    def to_core(self, *, checked: bool = True) -> core.Plan:
        """Return the core's plan; raises PlanProblemsError with everything that is wrong.

        checked: False for a plan that was kept: it is what it was, whatever later versions refuse.
        """
        problems: list[PlannedError] = []
        units = Units(**self.units.model_dump())

        def each(make: Callable[[], T]) -> T | None:
            try:
                return make()
            except PlannedError as wrong:
                problems.append(wrong)
                return None

        aims = [each(lambda a=a: Aim(**a.model_dump())) for a in self.aims]  # type: ignore[misc]
        build_aims = [each(lambda a=a: Aim(**a.model_dump())) for a in self.build_aims]  # type: ignore[misc]
        adjusters = [each(a.to_core) for a in self.adjusters]
        tools = [each(lambda t=t: Tool(**t.model_dump())) for t in self.tools]  # type: ignore[misc]
        given = self.loads.model_dump() if self.loads else None
        loads = each(lambda: Loads(**given)) if given else None
        footing = each(self.footing.to_core)
        plan = each(
            lambda: core.Plan(
                self.name,
                units,
                self.wheelbase,
                core.Axle(**self.front.model_dump()),
                core.Axle(**self.rear.model_dump()),
                tuple(a for a in aims if a),
                tuple(core.HeightPlace(**h.model_dump()) for h in self.heights),
                tuple(a for a in adjusters if a),
                tuple(t for t in tools if t),
                dict(self.tool_for),
                core.Ways(**self.ways.model_dump()),
                self.about,
                dict(self.points),
                self.front_linkage.to_core() if self.front_linkage else None,
                self.rear_linkage.to_core() if self.rear_linkage else None,
                loads,
                tuple(a for a in build_aims if a),
                self.stage,
                self.point_tolerance,
                core.Jig(dict(self.jig.feet), self.jig.pitch_mm_per_turn, tuple(self.jig.shims)) if self.jig else None,
                footing or Footing(),
                tuple(self.provisional),
            )
        )
        if plan and checked:
            problems += [
                PlannedError(finding("plan.no-quantity", quantity=q, near=meant(q, get_args(Quantity))), path=f"tool_for.{q}")
                for q in self.tool_for
                if q not in get_args(Quantity)
            ]
            problems += check_plan(plan)
        if problems or plan is None:
            raise PlanProblemsError(problems, units)
        return plan

    @classmethod
    def from_core(cls, plan: core.Plan) -> Self:
        """Return the open form of a plan."""
        return cls.model_validate(plan)
