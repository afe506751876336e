"""Reading plan and logbook files: everything that is wrong at once, each with its path in the file."""

import json
import re
from collections import Counter
from collections.abc import Sequence
from itertools import pairwise
from typing import Any, TypeVar

from pydantic import ValidationError

from ready_corner.border.base import Model
from ready_corner.border.entries import (
    FIRST_YEAR,
    LAST_YEAR,
    CarFileModel,
    EntryKept,
    LogbookModel,
    PlanRevisedModel,
    WorkshopModel,
    kept_to_core,
)
from ready_corner.border.plan import PlanModel, PlanProblemsError
from ready_corner.border.slips import slips
from ready_corner.core.advise.reckoned import admitted, in_the_way
from ready_corner.core.quantities.errors import CalledError, ReadyCornerError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.record.logbook import CarState, Entry
from ready_corner.core.say.template import say_finding

M = TypeVar("M", bound=Model)
LARGEST_BYTES = 10_000_000  # a logbook of 20,000 entries is about 6 MB
LARGEST_WORKSHOP_BYTES = 100_000_000
MOST_LINES = 1_000_000  # of a logbook
MOST_NAMES = 5_000  # of one object; the largest plan has some hundred points


class FileRefusedError(CalledError):
    """A file cannot be taken; ``problems`` are all the paths with what is wrong there."""

    code = "file_refused"

    def __init__(self, problems: list[tuple[str, str]]) -> None:
        self.problems = problems
        lines = tuple(f"{path}: {said}" if path else said for path, said in problems)
        super().__init__(finding("file.refused", problems=lines), path=problems[0][0])


def schemas() -> dict[str, dict[str, Any]]:
    """Return the JSON Schema of every kind of file, by kind."""
    kinds: dict[str, type[Model]] = {"plan": PlanModel, "logbook": LogbookModel, "workshop": WorkshopModel}
    return {kind: model.model_json_schema(mode="serialization") for kind, model in kinds.items()}


def read_plan(data: bytes) -> PlanModel:
    """Return the plan in a file; raises FileRefusedError where it is none, or none that could be."""
    model = _read(_parsed(data, "plan", LARGEST_BYTES), data, PlanModel, "plan")
    try:
        model.to_core()
    except PlanProblemsError as wrong:
        raise FileRefusedError([(p.path, say_finding(p.finding, wrong.units)) for p in wrong.problems]) from wrong
    return model


def read_logbook(data: bytes) -> tuple[LogbookModel, CarState]:
    """Return the logbook in a file and the state of the car after it; raises FileRefusedError."""
    model = _read(_parsed(data, "logbook", LARGEST_BYTES), data, LogbookModel, "logbook")
    problems = [
        (f"entries.{i}.number", f"This is entry {i + 1} of the file, not {kept.number}. None may be missing.")
        for i, kept in enumerate(model.entries)
        if kept.number != i + 1
    ]
    core, wrong = _entries(model.entries, "entries")
    if problems + wrong:
        raise FileRefusedError(problems + wrong)
    state, refused = admitted(None, core)
    if refused:
        raise FileRefusedError(_lines(refused, "entries", state))
    return model, state


def read_workshop(data: bytes) -> WorkshopModel:
    """Return the cars in a workshop file, or the one of a logbook file; raises FileRefusedError.

    Numbers of entries run upwards; a logbook from a database that had lost lines has gaps, and is put back with them. Whether each car
    can be taken is asked of each by itself: :func:`read_car`.
    """
    found = _parsed(data, "workshop", LARGEST_WORKSHOP_BYTES)
    whole = not isinstance(found, dict) or found.get("format") != "ready-corner logbook"
    if whole:
        model = _read(found, data, WorkshopModel, "workshop")
    else:
        only = _read(found, data, LogbookModel, "logbook")
        model = WorkshopModel(cars=[CarFileModel(slug=slug_of(only.entries), entries=only.entries)])
    problems = []
    for i, car in enumerate(model.cars):
        path = f"cars.{i}.entries" if whole else "entries"
        numbers = [kept.number for kept in car.entries]
        problems += [
            (f"{path}.{j}.number", f"Entry {b} stands after entry {a}. They run upwards.")
            for j, (a, b) in enumerate(pairwise(numbers), 1)
            if b <= a
        ]
        problems += _entries(car.entries, path)[1]
    names = Counter(car.slug for car in model.cars)
    problems += [("cars", f"“{name}” is in the file {times} times.") for name, times in names.items() if times > 1]
    if problems:
        raise FileRefusedError(problems)
    return model


def read_car(car: CarFileModel) -> CarState:
    """Return the state of a car of a file after its log; raises FileRefusedError with every line that cannot stand where it stands."""
    core = [kept_to_core(kept) for kept in car.entries]
    state, refused = admitted(None, core)
    if refused:
        raise FileRefusedError(_lines(refused, "entries", state))
    if found := in_the_way(state):
        entry, why = found
        raise FileRefusedError([(f"entries.{core.index(entry)}", say_finding(why.finding, state.plan.units))])
    return state


def _lines(refused: Sequence[tuple[int, ReadyCornerError]], path: str, state: CarState) -> list[tuple[str, str]]:
    """Return what keeps lines out, each with its place in the file."""
    return [(f"{path}.{i}.what", say_finding(wrong.finding, state.plan.units)) for i, wrong in refused]


def slug_of(entries: Sequence[EntryKept]) -> str:
    """Return a short name for a car from that of its first plan: what an address takes."""
    first = entries[0].what if entries else None
    name = first.plan.name if isinstance(first, PlanRevisedModel) else ""
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:60].strip("-") or "car"


def _entries(entries: Sequence[EntryKept], path: str) -> tuple[list[Entry], list[tuple[str, str]]]:
    """Return entries in the core's form, and what is wrong with them, each with its path."""
    if not entries or entries[0].what.kind != "plan":
        return [], [(f"{path}.0", "A logbook begins with a plan.")]
    seen: set[str] = set()
    core, problems = [], []
    for i, kept in enumerate(entries):
        if str(kept.id) in seen:
            problems.append((f"{path}.{i}.id", "Another entry has this identity already."))
        seen.add(str(kept.id))
        if kept.number > MOST_LINES:
            problems.append((f"{path}.{i}.number", f"No logbook has {kept.number} lines; {MOST_LINES} is the most."))
        if not FIRST_YEAR < kept.at.year < LAST_YEAR:
            problems.append((f"{path}.{i}.at", f"No car was worked on in the year {kept.at.year}."))
        try:
            if isinstance(kept.what, PlanRevisedModel):
                kept.what.plan.to_core()
            core.append(kept_to_core(kept))
        except PlanProblemsError as wrong:
            problems += [(f"{path}.{i}.what.plan.{p.path}", say_finding(p.finding, wrong.units)) for p in wrong.problems]
        except ReadyCornerError as wrong:
            problems.append((f"{path}.{i}.what.{wrong.path}", wrong.sentence))
    return core, problems


def _parsed(data: bytes, kind: str, most: int) -> Any:
    """Return what a file holds as JSON; raises FileRefusedError for what is none, too large, or names something twice."""
    if len(data) > most:
        raise FileRefusedError([("", f"{len(data) / 1e6:.0f} MB is no {kind} file; the largest taken is {most / 1e6:.0f} MB.")])
    try:
        return json.loads(data, object_pairs_hook=_each_once)
    except (ValueError, RecursionError) as wrong:
        raise FileRefusedError([("", f"This is not a JSON file: {wrong}.")]) from wrong


def _read(found: Any, data: bytes, model: type[M], kind: str) -> M:
    version = found.get("version", 1) if isinstance(found, dict) else None
    if version != 1:
        said = "This program reads version 1. Open it with a later one." if version else f"This is not a {kind} file."
        raise FileRefusedError([("version" if version else "", said)])
    try:
        return model.model_validate_json(data)
    except ValidationError as wrong:
        raise FileRefusedError(slips(wrong.errors())) from wrong


def _each_once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    if len(pairs) > MOST_NAMES:
        raise ValueError(f"one object has {len(pairs)} names; {MOST_NAMES} is the most that is taken")
    found: dict[str, Any] = {}
    for name, value in pairs:
        if name in found:
            raise ValueError(f"“{name[:60]}” stands twice in one object")
        found[name] = value
    return found
