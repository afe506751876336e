"""Saving a whole workshop to one file, and bringing what was saved into a workshop: what is new is appended, what contradicts is refused by name."""

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ready_corner.border.entries import CarFileModel, EntryKept, PlanRevisedModel, WorkshopModel, kept_to_core
from ready_corner.core.advise.reckoned import admitted, in_the_way
from ready_corner.core.quantities.finding import finding
from ready_corner.core.record.logbook import CarState
from ready_corner.core.say.template import say_finding
from ready_corner.exchange.files import FileRefusedError, read_car, read_workshop
from ready_corner.storage.logbooks import Logbooks, TakenError
from ready_corner.workshop import Workshop

MOST_NAMED = 20  # contradictions told of one car; more are counted


@dataclass(frozen=True)
class Brought:
    """What became of one car of a file: where it is now, how many entries are new, and what is refused, in sentences (then nothing is)."""

    slug: str
    name: str
    new: int
    had: int
    refused: tuple[str, ...] = ()


def save(logbooks: Logbooks) -> bytes:
    """Return every car with its whole logbook as one file: the same workshop gives the same bytes."""
    cars = []
    for line in logbooks.cars():
        key = logbooks.find(line.slug)
        if key is not None:
            cars.append(CarFileModel(slug=line.slug, entries=logbooks.after(key.id, 0)))
    return (WorkshopModel(cars=cars).model_dump_json(indent=1) + "\n").encode()


def put_back(workshop: Workshop, data: bytes) -> list[Brought]:
    """Bring every car of a workshop file, or the one of a logbook file, into a workshop; each car whole or not at all.

    Raises FileRefusedError for a file that is none.
    """
    return [_bring(workshop, car) for car in read_workshop(data).cars]


def _bring(workshop: Workshop, car: CarFileModel) -> Brought:
    logbooks = workshop.logbooks
    first = car.entries[0]
    name = first.what.plan.name if isinstance(first.what, PlanRevisedModel) else car.slug
    id_ = str(uuid.uuid5(first.id, "car"))
    here = logbooks.find_id(id_)
    if here is None:
        try:
            read_car(car)
        except FileRefusedError as wrong:
            return Brought(car.slug, name, 0, 0, _named([f"{p}: {said}" for p, said in wrong.problems]))
        try:
            return Brought(workshop.begin_with(id_, car.slug, car.entries), name, len(car.entries), 0)
        except TakenError:
            return Brought(
                car.slug,
                name,
                0,
                0,
                ("Some of its lines are in another car of this workshop already. Nothing of it was brought in.",),
            )
    with workshop.held(here.slug) as (state, kept):
        had = {str(e.id): e for e in kept}
        contradicting = [
            f"Entry {e.number} of the file and entry {had[str(e.id)].number} here are the same line and do not say the same."
            for e in car.entries
            if str(e.id) in had and not _same(had[str(e.id)], e)
        ]
        if contradicting:
            return Brought(here.slug, name, 0, len(kept), _named(contradicting))
        new = [e for e in car.entries if str(e.id) not in had]
        if not new:
            return Brought(here.slug, name, 0, len(kept))
        straight = car.entries[: len(kept)] == kept  # nothing was written here since the file was made from the same log
        try:
            rows = new if straight else _renumbered(state, kept, car.entries, new)
            _stands(state, rows, {moved.number: entry.number for moved, entry in zip(rows, new, strict=True)})
        except _ContradictionError as wrong:
            return Brought(here.slug, name, 0, len(kept), (str(wrong),))
        try:
            logbooks.append(here.id, rows)
        except TakenError:
            said = "Some of its lines are in another car of this workshop already, or others are recording in it. Nothing of it was brought in."
            return Brought(here.slug, name, 0, len(kept), (said,))
        return Brought(here.slug, name, len(rows), len(kept))


class _ContradictionError(Exception):
    """A line of the file that cannot stand after what is here."""


def _renumbered(
    state: CarState, kept: Sequence[EntryKept], told: Sequence[EntryKept], new: Sequence[EntryKept]
) -> list[EntryKept]:
    """Return new entries numbered on after those that are here."""
    numbers = {e.number: n.number for n in kept for e in told if e.id == n.id}  # of a line in the file, and here
    rows: list[EntryKept] = []
    revised = state.plan_number
    for number, entry in enumerate(new, start=state.number + 1):
        what = entry.what
        if isinstance(what, PlanRevisedModel):
            base = numbers.get(what.revises)
            if base != revised:
                raise _ContradictionError(
                    finding("file.plan-revised-here", number=entry.number, revises=what.revises, here=state.plan_number)
                )
            what, revised = what.model_copy(update={"revises": base}), number
        rows.append(EntryKept(id=entry.id, number=number, at=entry.at, who=entry.who, what=what))
        numbers[entry.number] = number
    return rows


def _stands(state: CarState, rows: Sequence[EntryKept], numbers: Mapping[int, int]) -> None:
    """Raise _ContradictionError where new entries cannot stand after what is here; ``numbers`` of them in the file."""
    core = [kept_to_core(row) for row in rows]
    after, refused = admitted(state, core)
    said = [
        f"Entry {numbers[core[i].number]} of the file cannot stand after what is here: {say_finding(wrong.finding, state.plan.units)}"
        for i, wrong in refused
    ]
    if not said and (found := in_the_way(after)):
        entry, why = found
        since = numbers.get(entry.number)
        said = [f"{f'Entry {since} of the file: ' if since else ''}{say_finding(why.finding, state.plan.units)}"]
    if said:
        raise _ContradictionError(" ".join(_named(said)))


def _same(here: EntryKept, there: EntryKept) -> bool:
    return (here.at, here.who, here.what) == (there.at, there.who, there.what) or _as_moved(here) == _as_moved(there)


def _as_moved(entry: EntryKept) -> tuple[object, ...]:
    """A revision brought in after other lines revises the same plan under another number."""
    what = entry.what.model_copy(update={"revises": 0}) if isinstance(entry.what, PlanRevisedModel) else entry.what
    return entry.at, entry.who, what


def _named(sentences: list[str]) -> tuple[str, ...]:
    more = len(sentences) - MOST_NAMED
    return (*sentences[:MOST_NAMED], *([f"And {more} more."] if more > 0 else []), "Nothing of it was brought in.")
