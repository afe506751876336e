"""Reading plan and logbook files: everything that is wrong at once, each with its path in the file."""

import json
from typing import Any, TypeVar

from pydantic import ValidationError

from ready_corner.border.base import Model
from ready_corner.border.entries import LogbookModel, kept_to_core
from ready_corner.border.plan import PlanModel, PlanProblemsError
from ready_corner.border.slips import slips
from ready_corner.core.errors import CalledError, ReadyCornerError
from ready_corner.core.logbook import CarState, PlanRevised, fold

M = TypeVar("M", bound=Model)
LARGEST_BYTES = 10_000_000  # a logbook of 20,000 entries is about 6 MB


class FileRefusedError(CalledError):
    """A file cannot be taken; ``problems`` are all the paths with what is wrong there."""

    code = "file_refused"

    def __init__(self, problems: list[tuple[str, str]]) -> None:
        self.problems = problems
        super().__init__("\n".join(f"{path}: {said}" if path else said for path, said in problems), path=problems[0][0])


def schemas() -> dict[str, dict[str, Any]]:
    """Return the JSON Schema of every kind of file, by kind."""
    kinds: dict[str, type[Model]] = {"plan": PlanModel, "logbook": LogbookModel}
    return {kind: model.model_json_schema(mode="serialization") for kind, model in kinds.items()}


def read_plan(data: bytes) -> PlanModel:
    """Return the plan in a file; raises FileRefusedError where it is none, or none that could be."""
    model = _read(data, PlanModel, "plan")
    try:
        model.to_core()
    except PlanProblemsError as wrong:
        raise FileRefusedError([(p.path, p.sentence) for p in wrong.problems]) from wrong
    return model


def read_logbook(data: bytes) -> tuple[LogbookModel, CarState]:
    """Return the logbook in a file and the state of the car after it; raises FileRefusedError."""
    model = _read(data, LogbookModel, "logbook")
    if not model.entries or model.entries[0].what.kind != "plan":
        raise FileRefusedError([("entries.0", "A logbook begins with a plan.")])
    seen: set[str] = set()
    problems = []
    core = []
    for i, kept in enumerate(model.entries):
        if kept.number != i + 1:
            problems.append(
                (f"entries.{i}.number", f"This is entry {i + 1} of the file, not {kept.number}. None may be missing.")
            )
        if str(kept.id) in seen:
            problems.append((f"entries.{i}.id", "Another entry has this identity already."))
        seen.add(str(kept.id))
        try:
            core.append(kept_to_core(kept))
        except ReadyCornerError as wrong:
            problems.append((f"entries.{i}.what.{wrong.path}", wrong.sentence))
    if problems:
        raise FileRefusedError(problems)
    assert isinstance(core[0].what, PlanRevised)
    return model, fold(None, core)


def _read(data: bytes, model: type[M], kind: str) -> M:
    if len(data) > LARGEST_BYTES:
        raise FileRefusedError(
            [("", f"{len(data) / 1e6:.0f} MB is no {kind} file; the largest taken is {LARGEST_BYTES / 1e6:.0f} MB.")]
        )
    try:
        found = json.loads(data, object_pairs_hook=_each_once)
    except (ValueError, RecursionError) as wrong:
        raise FileRefusedError([("", f"This is not a JSON file: {wrong}.")]) from wrong
    version = found.get("version", 1) if isinstance(found, dict) else None
    if version != 1:
        said = "This program reads version 1. Open it with a later one." if version else f"This is not a {kind} file."
        raise FileRefusedError([("version" if version else "", said)])
    try:
        return model.model_validate_json(data)
    except ValidationError as wrong:
        raise FileRefusedError(slips(wrong.errors())) from wrong


def _each_once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    names = [name for name, _ in pairs]
    if twice := next((n for n in names if names.count(n) > 1), None):
        raise ValueError(f"“{twice}” stands twice in one object")
    return dict(pairs)
