"""Errors as application/problem+json (RFC 9457), each kind mapped once."""

import logging
import math
import secrets
from typing import Annotated, Any, Final

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel, Field
from starlette.exceptions import HTTPException

from kelbrast.core.errors import (
    BadInput,
    Cause,
    Conflict,
    Fault,
    NotFound,
    NotLetIn,
    OutsideValidity,
    ReadError,
    StoreTrouble,
    TooSoon,
)
from kelbrast.documents.common import faults
from kelbrast.documents.common.faults import written_place
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file

log = logging.getLogger(__name__)


class FaultOut(BaseModel):
    """One thing that is wrong: the key, and what would mend it; and the same for a person who sees no keys.

    `where`: the field in words; `about`: the keys of all the fields that it speaks of.
    """

    field: str
    message: str
    where: str
    said: SentenceFile
    about: list[str]


def fault_out(fault: Fault) -> FaultOut:
    """A fault for a screen."""
    said = f"{fault.message}; {fault.hint}" if fault.hint else fault.message
    return FaultOut(
        field=fault.field,
        message=said,
        where=faults.where(fault),
        said=to_sentence_file(faults.what(fault)),
        about=list(faults.about(fault)),
    )


class Problem(BaseModel):
    """RFC 9457 problem details, with the faults by key."""

    type: Annotated[str, Field(examples=["about:blank"])] = "about:blank"
    title: str
    status: int
    detail: str
    instance: Annotated[str, Field(description="names this very problem; the program's log has it too")] = ""
    faults: list[FaultOut] = []


MEDIA_TYPE: Final = "application/problem+json"
RESPONSES: Final[dict[int | str, dict[str, Any]]] = {
    422: {"model": Problem, "description": "Something in the request cannot be used"},
}
CHANGED_ELSEWHERE: Final[dict[int | str, dict[str, Any]]] = {
    412: {"model": Problem, "description": "It was changed elsewhere"},
    428: {"model": Problem, "description": "If-Match is missing"},
}
_STORE: Final[dict[Cause, int]] = {"full": 507, "locked": 503, "unreachable": 503}  # everything else is 500
NOT_FOUND: Final[dict[int | str, dict[str, Any]]] = {404: {"model": Problem, "description": "No such thing"}}


def add_problem_handlers(app: FastAPI) -> None:
    """Map the errors of the core, and the framework's own, to problems."""
    app.add_exception_handler(ReadError, lambda _, e: _bad_input(e, 400, "This cannot be read"))
    app.add_exception_handler(BadInput, lambda _, e: _bad_input(e, 422, "Something here cannot be used"))
    app.add_exception_handler(NotFound, lambda _, e: problem(404, "Not found", str(e)))
    app.add_exception_handler(Conflict, lambda _, e: problem(412, "Changed elsewhere", str(e)))
    app.add_exception_handler(OutsideValidity, lambda _, e: problem(422, "Something here cannot be used", str(e)))
    app.add_exception_handler(NotLetIn, lambda _, e: problem(401, "Not paired", str(e)))
    app.add_exception_handler(TooSoon, _too_soon)
    app.add_exception_handler(StoreTrouble, _store)
    app.add_exception_handler(RequestValidationError, _request)
    app.add_exception_handler(HTTPException, _http)
    app.add_exception_handler(Exception, _unexpected)


def problem(
    status: int, title: str, detail: str, faults: tuple[Fault, ...] = (), cause: BaseException | None = None
) -> JSONResponse:
    """One problem as a response, and a line of the log by which it can be found again. `cause`: told in the log alone."""
    listed = [fault_out(fault) for fault in faults]
    instance = secrets.token_hex(4)
    level = logging.ERROR if status >= 500 else logging.INFO
    log.log(level, "problem %s: %s %s: %s", instance, status, title, detail, exc_info=cause)
    body = Problem(title=title, status=status, detail=detail, instance=instance, faults=listed)
    return JSONResponse(body.model_dump(), status_code=status, media_type=MEDIA_TYPE)


def _bad_input(error: Exception, status: int, title: str) -> JSONResponse:
    assert isinstance(error, BadInput)
    return problem(status, title, str(error), error.faults)


def _store(_: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, StoreTrouble)
    return problem(_STORE.get(error.cause, 500), error.title, str(error))


def _too_soon(_: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, TooSoon)
    answer = problem(429, "Too soon", str(error))
    answer.headers["retry-after"] = str(math.ceil(error.wait_s))
    return answer


async def _request(_: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    faults = tuple(Fault(written_place(refused["loc"][1:]), refused["msg"]) for refused in error.errors())
    return problem(422, "Something here cannot be used", "; ".join(str(fault) for fault in faults), faults)


async def _http(_: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, HTTPException)
    return problem(error.status_code, str(error.detail), str(error.detail))


async def _unexpected(_: Request, error: Exception) -> JSONResponse:
    said = "The program failed; your jobs are as they were before this request."
    return problem(500, "Something went wrong here", said, cause=error)
