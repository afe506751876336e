"""One error format: a stable code, a sentence, and every problem with its path and numbers."""

import contextlib
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from sqlalchemy.exc import DataError, InterfaceError, InternalError, OperationalError, PendingRollbackError
from sqlalchemy.exc import TimeoutError as PoolTimeoutError
from starlette.exceptions import HTTPException

from ready_corner.border.plan import PlanProblemsError
from ready_corner.border.slips import slips
from ready_corner.core.quantities.errors import CalledError, MeasuredError, PlannedError, ReadyCornerError, SavedFirstError
from ready_corner.core.quantities.notation import Units
from ready_corner.core.say.template import say_finding
from ready_corner.exchange.files import FileRefusedError
from ready_corner.storage.logbooks import AwayError
from ready_corner.web.guard import HEADERS
from ready_corner.workshop import NoSuchCarError


class Problem(BaseModel):
    """One thing that is wrong: where in the request, of what kind, in a sentence, with its figures."""

    path: str
    kind: str = ""
    sentence: str
    numbers: dict[str, float] = {}


class Refusal(BaseModel):
    """What every refusal looks like."""

    code: str
    sentence: str
    problems: list[Problem]


# The first that fits gives the status; every error of the core's tree is under one of them.
STATUSES: tuple[tuple[type[ReadyCornerError], int], ...] = (
    (NoSuchCarError, 404),
    (SavedFirstError, 409),
    (MeasuredError, 422),
    (PlannedError, 422),
    (CalledError, 422),
)


def refusal_of(error: ReadyCornerError, units: Units | None = None) -> Refusal:
    """Return a core error in the one format, its lengths in the units of the car it is about."""
    units = error.units if isinstance(error, PlanProblemsError) else units or Units()
    if isinstance(error, FileRefusedError):
        return Refusal(
            code=error.code, sentence=error.sentence, problems=[Problem(path=p, sentence=s) for p, s in error.problems]
        )
    single = error.problems if isinstance(error, PlanProblemsError) else [error]
    problems = [
        Problem(path=e.path, kind=e.finding.kind, sentence=say_finding(e.finding, units), numbers=e.numbers) for e in single
    ]
    return Refusal(code=error.code, sentence=say_finding(error.finding, units), problems=problems)


def refusal_of_request(errors: list[dict[str, Any]]) -> Refusal:
    """Return Pydantic's findings in the one format, every one of them."""
    problems = [Problem(path=path, sentence=sentence) for path, sentence in slips(errors)]
    first = problems[0]
    return Refusal(
        code="request_refused", sentence=f"{first.path}: {first.sentence}" if first.path else first.sentence, problems=problems
    )


def install(app: FastAPI) -> None:
    """Give the application its handlers, one for each family."""

    def answer(status: int, refusal: Refusal) -> JSONResponse:
        return JSONResponse(refusal.model_dump(), status_code=status)

    @app.exception_handler(ReadyCornerError)
    def _core(request: Request, error: ReadyCornerError) -> JSONResponse:
        status = next((s for kind, s in STATUSES if isinstance(error, kind)), 422)
        units = None
        if (slug := request.path_params.get("slug")) and not isinstance(error, NoSuchCarError):
            with contextlib.suppress(Exception):  # the refusal is what matters
                units = request.app.state.workshop.state(slug).plan.units
        return answer(status, refusal_of(error, units))

    @app.exception_handler(RequestValidationError)
    def _request(_: Request, error: RequestValidationError) -> JSONResponse:
        return answer(422, refusal_of_request(list(error.errors())))

    @app.exception_handler(HTTPException)
    def _http(_: Request, error: HTTPException) -> JSONResponse:
        return answer(error.status_code, Refusal(code="request_refused", sentence=f"{error.detail}.", problems=[]))

    @app.exception_handler(Exception)
    def _fault(_: Request, error: Exception) -> JSONResponse:
        sentence = f"This could not be reckoned: a fault of Ready Corner ({type(error).__name__}). What is in the log stays there; the log and the plan still open."
        # It is answered outside of everything that an answer else passes.
        return JSONResponse(Refusal(code="fault", sentence=sentence, problems=[]).model_dump(), 500, HEADERS)

    def away(_: Request, __: Exception) -> JSONResponse:
        sentence = "The database is away, or busy. What you record is kept in this browser and handed over when it is back."
        return answer(503, Refusal(code="database_away", sentence=sentence, problems=[]))

    for kind in (OperationalError, InterfaceError, InternalError, PoolTimeoutError, PendingRollbackError, AwayError):
        app.add_exception_handler(kind, away)

    @app.exception_handler(DataError)
    def _data(_: Request, error: DataError) -> JSONResponse:
        sentence = f"The database cannot keep a value of this: {error.orig}. Look at its dates and names."
        return answer(422, Refusal(code="not_kept", sentence=sentence, problems=[]))
