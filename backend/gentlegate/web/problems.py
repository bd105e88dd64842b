"""From errors to answers (RFC 9457), in one place. `where` names the field or the place in the settings."""

from __future__ import annotations

from typing import Any

import structlog
from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel, Field
from starlette.exceptions import HTTPException

from gentlegate.core.errors import ActError, GateError, JustDone, KitError, TemplateProblem

log = structlog.get_logger()


class Problem(BaseModel):
    """What went wrong, where, and what to do."""

    type: str = Field("about:blank", description="A name for the kind of problem.")
    title: str = Field(description="The kind of problem in a few words.")
    status: int
    detail: str = Field(description="What happened and what to do.")
    where: str | None = Field(None, description="The field, or the place in the settings.")
    theirs: Any = Field(None, description="What somebody else has saved meanwhile.")
    revision: str | None = Field(None, description="The revision of `theirs`, for saving over it once it was seen.")


class Refused(Exception):
    """A refusal that the web itself gives."""

    def __init__(
        self,
        status: int,
        kind: str,
        detail: str,
        where: str | None = None,
        theirs: Any = None,
        revision: str | None = None,
    ) -> None:
        super().__init__(detail)
        self.problem = Problem(
            type=f"gentlegate:{kind}",
            title=kind.replace("-", " "),
            status=status,
            detail=detail,
            where=where,
            theirs=theirs,
            revision=revision,
        )


def answer(problem: Problem) -> JSONResponse:
    return JSONResponse(
        problem.model_dump(exclude_none=True), problem.status, media_type="application/problem+json"
    )


def of_error(error: GateError) -> Problem:
    """The problem that one of our own errors is."""
    if isinstance(error, KitError):
        return _problem("settings-not-valid", 422, error.problem, error.path)
    if isinstance(error, TemplateProblem):
        return _problem("template-not-valid", 422, str(error), "reply")
    if isinstance(error, JustDone):
        return _just_done(error)
    if isinstance(error, ActError):
        return _problem("act-not-possible", 422, str(error), error.field or None)
    return _problem("refused", 409, str(error), None)


def _just_done(error: JustDone) -> Problem:
    """What another has just done; the screen asks for one more press where `goes_on` is true."""
    problem = _problem("just-done", 409, f"{error.who} was there a moment ago: {error.outcome}.", None)
    done = {"who": error.who, "outcome": error.outcome, "at": error.at, "seconds": error.seconds}
    return problem.model_copy(update={"theirs": {**done, "goes_on": error.goes_on}})


def _problem(kind: str, status: int, detail: str, where: str | None) -> Problem:
    detail = detail[:1].upper() + detail[1:]
    return Problem(
        type=f"gentlegate:{kind}", title=kind.replace("-", " "), status=status, detail=detail, where=where
    )


def install(app: FastAPI) -> None:
    """Make every error of the application a problem answer."""

    @app.exception_handler(Refused)
    async def _refused(_: Request, error: Refused) -> JSONResponse:
        return answer(error.problem)

    @app.exception_handler(GateError)
    async def _gate(_: Request, error: GateError) -> JSONResponse:
        return answer(of_error(error))

    @app.exception_handler(RequestValidationError)
    async def _request(_: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"][1:]) or None
        return answer(_problem("request-not-valid", 422, first["msg"], where))

    @app.exception_handler(HTTPException)
    async def _http(_: Request, error: HTTPException) -> JSONResponse:
        return answer(
            _problem(
                "not-found" if error.status_code == 404 else "refused",
                error.status_code,
                str(error.detail),
                None,
            )
        )

    @app.exception_handler(Exception)
    async def _unknown(request: Request, error: Exception) -> JSONResponse:
        log.exception("web.error", path=request.url.path)
        return answer(
            _problem("fault", 500, "Something went wrong here; nothing was changed. It is in the log.", None)
        )


ANSWERS: dict[int | str, dict[str, Any]] = {
    status: {"model": Problem, "description": words}
    for status, words in {
        401: "Nobody is logged in.",
        403: "This account may not do that.",
        409: "Somebody else was there first.",
        422: "Something in the request cannot be; `where` says which field.",
    }.items()
}
