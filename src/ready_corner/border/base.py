"""What every model at the border is made of."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

Name = Annotated[str, Field(min_length=1, max_length=80)]
Id = Annotated[str, Field(min_length=1, max_length=60, pattern=r"^[A-Za-z0-9._-]+$")]
Words = Annotated[str, Field(max_length=2000)]


class Model(BaseModel):
    """Base of every model at the border: no unknown fields, no infinite numbers."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, frozen=True, from_attributes=True)
