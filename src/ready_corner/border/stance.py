"""What a car stands on, and what is said of how it stands, at the border. Lengths in mm, loads in kg, rates in N/mm."""

from typing import Annotated

from pydantic import Field

from ready_corner.border.base import Model, Words
from ready_corner.core.engines.statics.bars import SHEAR_STEEL, YOUNG_STEEL, RollBar
from ready_corner.core.plan.footing import EndFooting, Feature, Footing, School
from ready_corner.core.quantities.errors import MeasuredError, PlannedError

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
            raise PlannedError(wrong.finding, path="footing.bar") from wrong


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
