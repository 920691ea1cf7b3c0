"""Exceptions as problem details (RFC 9457), in one place. No traceback reaches a user."""

from collections.abc import Mapping
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from starlette.exceptions import HTTPException

from lumso.core.errors import AmbiguousValue, InvalidValue, LumsoError, UnknownEntry
from lumso.formats.reading import Fault, UnfitDocument, faults_of
from lumso.services.errors import CannotWorkOut
from lumso.store.errors import (
    Busy,
    InPlace,
    NoBackup,
    NotFound,
    OtherKey,
    StaleRevision,
    StoreError,
    TooLong,
    Unwritable,
)


class FaultOut(BaseModel):
    """One thing wrong: where (a JSON pointer into what was sent), what, and what is allowed."""

    at: str
    says: str
    allowed: str


class ProblemOut(BaseModel):
    """RFC 9457 problem details, with the faults, and the readings of an ambiguous length."""

    type: str
    title: str
    status: int
    detail: str
    faults: list[FaultOut] = []
    readings: list[str] = []
    head: int | None = None


class WrongCode(LumsoError):
    """That is not the code of the workshop."""


class TooManyTries(LumsoError):
    """Too many wrong codes were given from one device. `retry_s` says when it may try again."""

    def __init__(self, says: str, retry_s: int) -> None:
        super().__init__(says)
        self.retry_s = retry_s


class Refusal(Exception):
    """Problem details that were made elsewhere."""

    def __init__(self, problem: ProblemOut) -> None:
        super().__init__(problem.detail)
        self.problem = problem


STATUS: tuple[tuple[type[LumsoError], int, str], ...] = (
    (UnfitDocument, 422, "That cannot be used"),
    (InvalidValue, 422, "That value cannot be used"),
    (UnknownEntry, 422, "That name is not known"),
    (WrongCode, 403, "That is not the code"),
    (TooManyTries, 429, "Too many tries"),
    (CannotWorkOut, 422, "It cannot be worked out"),
    (NotFound, 404, "Not found"),
    (StaleRevision, 412, "Changed elsewhere"),
    (InPlace, 409, "There is another by now"),
    (OtherKey, 422, "That key was used"),
    (TooLong, 503, "That took too long"),
    (Busy, 503, "The database is in use"),
    (NoBackup, 422, "That is no backup"),
    (Unwritable, 503, "The database cannot be written"),
    (StoreError, 503, "The database refused"),
    (LumsoError, 400, "That did not work"),
)


def reply(problem: ProblemOut, headers: Mapping[str, str] | None = None) -> JSONResponse:
    """Problem details as an answer."""
    body = problem.model_dump(exclude_none=True)
    return JSONResponse(body, problem.status, headers, media_type="application/problem+json")


MOST_FAULTS = 20
"""An error names no more faults than these: whoever sends thousands is not told each."""


def _out(fault: Fault) -> FaultOut:
    return FaultOut(at=fault.at, says=fault.says, allowed=fault.allowed)


def problem_of(error: LumsoError) -> ProblemOut:
    """The problem details of one of Lumso's own errors."""
    status, title = next((s, t) for kind, s, t in STATUS if isinstance(error, kind))
    problem = ProblemOut(type=f"/problems/{type(error).__name__}", title=title, status=status, detail=str(error))
    match error:
        case UnfitDocument():
            problem.faults = [_out(f) for f in error.faults[:MOST_FAULTS]]
            problem.detail = error.faults[0].says
        case InvalidValue():
            problem.faults = [FaultOut(at=error.field, says=error.says, allowed=error.allowed)]
            problem.readings = list(error.readings) if isinstance(error, AmbiguousValue) else []
        case StaleRevision():
            problem.head = error.head
    return problem


def install(app: FastAPI) -> None:
    """Answer what is refused with problem details; a mistake of our own is answered at the door."""

    @app.exception_handler(LumsoError)
    def refused(request: Request, error: LumsoError) -> JSONResponse:
        headers = {"Retry-After": str(error.retry_s)} if isinstance(error, TooManyTries) else None
        return reply(problem_of(error), headers)

    @app.exception_handler(Refusal)
    def refused_elsewhere(request: Request, error: Refusal) -> JSONResponse:
        return reply(error.problem)

    @app.exception_handler(RequestValidationError)
    def unfit(request: Request, error: RequestValidationError) -> JSONResponse:
        faults = faults_of(error.errors()[:MOST_FAULTS], {"body": error.body})
        out = [FaultOut(at=f.at.removeprefix("/body"), says=f.says, allowed=f.allowed) for f in faults]
        detail = out[0].says if out else "What was sent cannot be read."
        return reply(
            ProblemOut(type="/problems/Unfit", title="That cannot be used", status=422, detail=detail, faults=out)
        )

    @app.exception_handler(HTTPException)
    def http(request: Request, error: HTTPException) -> JSONResponse:
        return reply(
            ProblemOut(
                type="about:blank",
                title=str(error.detail),
                status=error.status_code,
                detail=str(error.detail),
            ),
            error.headers,
        )


RESPONSES: dict[int | str, dict[str, Any]] = {"default": {"model": ProblemOut, "description": "Problem details"}}
