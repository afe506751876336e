"""What a car stands on, and what is said of how it stands, at the border. Lengths in mm, loads in kg, rates in N/mm."""

from typing import Annotated, Literal

from pydantic import Field

from ready_corner.border.base import Act, Id, Model, Words
from ready_corner.core.engines.statics.bars import SHEAR_STEEL, YOUNG_STEEL, RollBar
from ready_corner.core.plan.footing import EndFooting, Feature, Footing, School
from ready_corner.core.plan.plan import Corner
from ready_corner.core.quantities.errors import MeasuredError, PlannedError
from ready_corner.core.record import stance_acts as acts

Name = Annotated[str, Field(min_length=1, max_length=80)]


class FeatureModel(Model):
    """A named place of the chassis and its height over the ground in the drawing."""

    name: Name
    station: float
    offset: float
    height: float


class RollBarModel(Model):
    """Size of an anti-roll bar: its middle, its arms (0: rigid), moduli in N/mm²."""

    diameter: float
    length: float
    arm: float
    bore: float = 0.0
    arm_width: float = 0.0
    arm_height: float = 0.0
    shear: float = SHEAR_STEEL
    young: float = YOUNG_STEEL

    def to_core(self) -> RollBar:
        """Return the core's bar; raises PlannedError."""
        try:
            return RollBar(**self.model_dump())
        except MeasuredError as wrong:
            raise PlannedError(wrong.words, path="footing.bar") from wrong


class EndFootingModel(Model):
    """What stands under one end."""

    tyre_rate: float | None = None
    unsprung: float | None = None
    bump: float | None = None
    droop: float | None = None
    to_body: float | None = None
    bar: RollBarModel | None = None

    def to_core(self) -> EndFooting:
        """Return the core's form; raises PlannedError."""
        return EndFooting(**self.model_dump(exclude={"bar"}), bar=self.bar.to_core() if self.bar else None)


class FootingModel(Model):
    """What the car stands on."""

    mass: float | None = None
    front: float = 0.5
    left: float = 0.5
    front_end: EndFootingModel = EndFootingModel()
    rear_end: EndFootingModel = EndFootingModel()
    features: list[FeatureModel] = Field(default=[], max_length=20)
    low: list[FeatureModel] = Field(default=[], max_length=20)
    stands: list[FeatureModel] = Field(default=[], max_length=8)
    school: School = "height"
    school_reason: Words = ""
    margin: float = 5.0

    def to_core(self) -> Footing:
        """Return the core's form; raises PlannedError."""

        def places(rows: list[FeatureModel]) -> tuple[Feature, ...]:
            return tuple(Feature(**f.model_dump()) for f in rows)

        return Footing(
            self.mass,
            self.front,
            self.left,
            self.front_end.to_core(),
            self.rear_end.to_core(),
            places(self.features),
            places(self.low),
            places(self.stands),
            self.school,
            self.school_reason,
            self.margin,
        )


class StateModel(Act):
    """The state of the car as to what it weighs."""

    core_class = acts.StateSaid
    kind: Literal["state"] = "state"
    version: Literal[1] = 1
    aboard: acts.Aboard = "driver"
    fuel: Annotated[str, Field(max_length=80)] = ""
    missing: Annotated[tuple[Name, ...], Field(max_length=30)] = ()
    at_pressure: bool = True


class TyreFittedModel(Act):
    """Which tyre is on from now, at one corner or all round."""

    core_class = acts.TyreFitted
    kind: Literal["fitted"] = "fitted"
    version: Literal[1] = 1
    stand_in: bool
    corner: Corner | None = None
    words: Words = ""


class UnlearnedModel(Act):
    """What was learned of a perch does not count any more."""

    core_class = acts.Unlearned
    kind: Literal["unlearned"] = "unlearned"
    version: Literal[1] = 1
    adjuster: Id


StanceModel = StateModel | TyreFittedModel | UnlearnedModel
