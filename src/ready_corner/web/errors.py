"""One error format: a stable code, a sentence, and every problem with its path and numbers."""

import contextlib
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from sqlalchemy.exc import DBAPIError
from starlette.exceptions import HTTPException

from ready_corner.border.plan import PlanProblemsError
from ready_corner.core.errors import CalledError, MeasuredError, PlannedError, ReadyCornerError, SavedFirstError
from ready_corner.workshop import NoSuchCarError


class Problem(BaseModel):
    """One thing that is wrong: where in the request, in a sentence, with its figures."""

    path: str
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

# Pydantic's words for the commonest slips, said as the builder needs them; {} takes the limit.
_SENTENCES = {
    "missing": "This is missing. Give it a value.",
    "extra_forbidden": "This is no field here. Take it out, or look at its spelling.",
    "finite_number": "This is not a finite number.",
    "float_parsing": "This is not a number.",
    "int_parsing": "This is not a whole number.",
    "string_too_long": "This is too long: at most {max_length} characters.",
    "string_too_short": "Nothing is typed here yet.",
    "too_long": "That are too many: at most {max_length}.",
    "json_invalid": "This is not JSON: {error}.",
    "uuid_parsing": "This is no UUID.",
    "timezone_aware": "This time has no zone. Send it with one.",
}


def refusal_of(error: ReadyCornerError) -> Refusal:
    """Return a core error in the one format."""
    single = error.problems if isinstance(error, PlanProblemsError) else [error]
    problems = [Problem(path=e.path, sentence=e.sentence, numbers=e.numbers) for e in single]
    return Refusal(code=error.code, sentence=error.sentence, problems=problems)


def refusal_of_request(errors: list[dict[str, Any]]) -> Refusal:
    """Return Pydantic's findings in the one format, every one of them."""
    problems = []
    for error in errors:
        sentence = str(error["msg"]).removeprefix("Value error, ")
        with contextlib.suppress(KeyError):
            sentence = _SENTENCES[error["type"]].format(**error.get("ctx", {}))
        problems.append(Problem(path=".".join(str(p) for p in error["loc"] if p != "body"), sentence=sentence))
    first = problems[0]
    return Refusal(
        code="request_refused", sentence=f"{first.path}: {first.sentence}" if first.path else first.sentence, problems=problems
    )


def install(app: FastAPI) -> None:
    """Give the application its handlers, one for each family."""

    def answer(status: int, refusal: Refusal) -> JSONResponse:
        return JSONResponse(refusal.model_dump(), status_code=status)

    @app.exception_handler(ReadyCornerError)
    def _core(_: Request, error: ReadyCornerError) -> JSONResponse:
        return answer(next((s for kind, s in STATUSES if isinstance(error, kind)), 422), refusal_of(error))

    @app.exception_handler(RequestValidationError)
    def _request(_: Request, error: RequestValidationError) -> JSONResponse:
        return answer(422, refusal_of_request(list(error.errors())))

    @app.exception_handler(HTTPException)
    def _http(_: Request, error: HTTPException) -> JSONResponse:
        return answer(error.status_code, Refusal(code="request_refused", sentence=f"{error.detail}.", problems=[]))

    @app.exception_handler(DBAPIError)
    def _database(_: Request, __: DBAPIError) -> JSONResponse:
        sentence = "The database is away. What you record is kept in this browser and handed over when it is back."
        return answer(503, Refusal(code="database_away", sentence=sentence, problems=[]))
