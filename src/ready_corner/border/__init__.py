"""The open form of plan and entries: Pydantic models at the border, turned into the core's dataclasses and back by name."""
