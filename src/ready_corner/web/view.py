"""What everything that is shown has in common."""

from pydantic import BaseModel, ConfigDict


class View(BaseModel):
    """Base of what is shown."""

    model_config = ConfigDict(from_attributes=True, json_schema_serialization_defaults_required=True)
