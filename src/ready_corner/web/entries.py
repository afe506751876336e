"""The logbook: recording, what a reading would mean, and the log itself."""

import asyncio
import contextlib
import json
import time
from collections.abc import AsyncIterator
from typing import TYPE_CHECKING, Annotated

from fastapi import APIRouter, Header, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import StreamingResponse

from ready_corner.border.entries import EntryIn
from ready_corner.border.kinds import SENT, Sent
from ready_corner.core.advise.found import as_found
from ready_corner.core.advise.lift import AXLES, lift
from ready_corner.core.judge.marks import State
from ready_corner.core.model.wanting import share_given
from ready_corner.core.plan.corners import End
from ready_corner.core.plan.marks import say_mark
from ready_corner.core.quantities.finding import finding
from ready_corner.core.say.judged import say_mark_aim, say_mark_value
from ready_corner.web.lift import LiftView, lift_view
from ready_corner.web.said import said
from ready_corner.web.view import View
from ready_corner.web.views import CarChange, CarView, LogLine, PreviewView, car_change, car_view, log_lines
from ready_corner.web.workshop import TheWorkshop

router = APIRouter()

READ_AGAIN = finding("mark.read-again")
NEWS_S = 0.2  # between two looks whether something was recorded here
OTHERS_S = 10.0  # between two looks whether another process has written something
NEWS_LASTS_S = 60.0
RETRY_MS = 1000

if TYPE_CHECKING:
    Previewed = Sent
else:
    Previewed = SENT["reading"] | SENT["turned"]


class Recorded(View):
    """The number an entry got, and the car as it is now: whole, or only what has changed ``since`` the entry the browser knew."""

    number: int
    new: bool
    since: int | None
    car: CarView | CarChange


@router.post("/cars/{slug}/entries", status_code=201, response_model=Recorded)
def record(
    slug: str, entry: EntryIn, workshop: TheWorkshop, since: Annotated[int | None, Header(alias="x-since-entry", ge=0)] = None
) -> Response:
    """Take one entry, durably; an entry sent twice is kept once and answered with 200."""
    done = workshop.record(slug, entry)
    kept, known = workshop.by_id(slug), done.before is not None and done.before.state.number == since
    car = car_change(done.before, done.told, kept) if known and done.before else car_view(slug, done.told, kept)
    said = Recorded(number=done.entry.number, new=done.new, since=since if known else None, car=car)
    return Response(said.model_dump_json(), 201 if done.new else 200, media_type="application/json")


class Latest(View):
    """The number of the latest entry of a car; ``progress``: share of the plan that is given and of the pickup points that hold."""

    number: int
    progress: dict[str, float]


@router.get("/cars/{slug}/latest")
def latest(slug: str, workshop: TheWorkshop) -> Latest:
    """Return how far a log has come: asked by every page that shows the car and hears no news, so that one sees what another records."""
    state = workshop.state(slug)
    try:
        jig = workshop.pickups(slug).share if state.plan.points else None
    except Exception:  # the jig says why; whoever looks at the car hears of it all the same
        jig = None
    return Latest(number=state.number, progress={"Plan": share_given(state.plan), **({} if jig is None else {"Jig": jig})})


class Opened(View):
    """How much of a log is read and worked out, of 1."""

    share: float


@router.get("/cars/{slug}/opened")
def opened(slug: str, workshop: TheWorkshop) -> Opened:
    """Return how far the opening of a long log has come, for whoever waits for the car itself."""
    return Opened(share=workshop.opened(slug))


@router.get("/news", response_class=StreamingResponse)
async def news(workshop: TheWorkshop, request: Request) -> StreamingResponse:
    """Send the numbers of the latest entries, by car, whenever a log has come further, as server-sent events: first of all cars, then of those
    that did. One line for all pages of a browser, which holds but a few. It ends by itself after a while: who listens on asks anew, and is asked
    for its passphrase then."""
    first = await run_in_threadpool(workshop.numbers)

    async def told() -> AsyncIterator[str]:
        told, at = first, time.monotonic()
        ends, looks = at + NEWS_LASTS_S, at + OTHERS_S
        yield f"retry: {RETRY_MS}\ndata: {json.dumps(told)}\n\n"
        while (at := time.monotonic()) < ends and not request.app.state.ending:
            await asyncio.sleep(NEWS_S)
            # What is recorded here is known at once; what another process has written only the database tells.
            now = workshop.numbers_here()
            if at >= looks:
                looks = at + OTHERS_S
                with contextlib.suppress(Exception):  # a database that is away tells nothing new
                    now = await run_in_threadpool(workshop.numbers)
            if came := {slug: number for slug, number in now.items() if told.get(slug) != number}:
                told = {**told, **came}
                yield f"data: {json.dumps(came)}\n\n"

    return StreamingResponse(told(), media_type="text/event-stream", headers={"cache-control": "no-store"})


class RevisionView(View):
    """What keeping a plan would do to what was read: marks that would be moved since, and those that would be judged otherwise."""

    moved: list[str]
    otherwise: list[str]


@router.post("/cars/{slug}/revision")
def revision(slug: str, entry: EntryIn, workshop: TheWorkshop) -> RevisionView:
    """Return what an entry would make of marks that were read, keeping nothing; refuses what keeping it would."""
    before, after = workshop.tried(slug, entry)
    was = {m.mark: m.state for m in before.marks}
    changed = [m for m in after.marks if was.get(m.mark) not in (None, "unread", m.state)]
    return RevisionView(
        moved=[say_mark(m.mark) for m in changed if m.state == "moved since"],
        otherwise=[f"{say_mark(m.mark)}: {m.state}" for m in changed if m.state not in ("moved since", None)],
    )


@router.post("/cars/{slug}/preview")
def preview(slug: str, what: Previewed, workshop: TheWorkshop) -> PreviewView:
    """Return what a reading or a turn would mean before it is recorded."""
    return PreviewView.of(workshop.preview(slug, what), workshop.state(slug).plan.units)


@router.get("/cars/{slug}/lift/{end}")
def lift_of_axle(slug: str, end: End, workshop: TheWorkshop) -> LiftView | None:
    """Return what to turn at one axle in one lift; none where it holds, or wants reading first."""
    found = workshop.evaluation(slug)
    return lift_view(lift(found, AXLES[end]), found.state.plan)


class FoundView(View):
    """A mark as it was found in the present job, and as it stands now, in words."""

    mark: str
    name: str
    aim: str
    found: str
    found_state: State | None
    now: str
    now_state: State | None


@router.get("/cars/{slug}/found")
def found(slug: str, workshop: TheWorkshop) -> list[FoundView]:
    """Return every mark with an aim as it was found, and as it stands now."""
    judged = workshop.evaluation(slug)
    units = judged.state.plan.units
    return [
        FoundView(
            mark=row.now.mark,
            name=say_mark(row.now.mark),
            aim=say_mark_aim(row.now, units),
            found=say_mark_value(row.found, units) if row.found else "",
            found_state=row.found.state if row.found else None,
            now=said(READ_AGAIN, units) if row.now.moved else say_mark_value(row.now, units),
            now_state=row.now.state,
        )
        for row in as_found(judged)
    ]


@router.get("/cars/{slug}/log")
def log(
    slug: str,
    workshop: TheWorkshop,
    before: Annotated[int | None, Query(gt=0)] = None,
    limit: Annotated[int, Query(gt=0, le=500)] = 100,
) -> list[LogLine]:
    """Return the log, newest first, from before a number on."""
    state = workshop.state(slug)
    return log_lines(state, {str(e.id): e for e in workshop.kept(slug)}, before, limit)
