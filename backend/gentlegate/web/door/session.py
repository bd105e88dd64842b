"""Logging in and out, and the first account."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Depends, Request, Response

from gentlegate.core.team import Account, Permissions
from gentlegate.web.door.access import Access, needs
from gentlegate.web.door.cookie import forget, keep
from gentlegate.web.door.passwords import check_new
from gentlegate.web.door.schemas import LogIn, Me, Welcome
from gentlegate.web.problems import ANSWERS

routes = APIRouter(prefix="/api", tags=["session"], responses=ANSWERS)


def me_of(request: Request, account: Account) -> Me:
    """Who somebody is, and what they may do."""
    permissions: Permissions = request.app.state.access.permissions
    return Me(
        login=account.login,
        name=account.name,
        level=account.level,
        may=permissions.of(account),
    )


def from_where(request: Request) -> str:
    return request.client.host if request.client else "?"


@routes.post("/session", summary="Log in")
async def log_in(body: LogIn, request: Request, response: Response) -> Me:
    access: Access = request.app.state.access
    account, token = await access.log_in(body.login, body.password, body.code, from_where(request))
    await access.log_out(request)
    keep(response, request, token)
    return me_of(request, account)


@routes.get("/session", summary="Who is logged in")
async def who(request: Request, account: Annotated[Account, Depends(needs("look"))]) -> Me:
    return me_of(request, account)


@routes.delete("/session", summary="Log out", status_code=204)
async def log_out(request: Request, response: Response) -> None:
    access: Access = request.app.state.access
    await access.log_out(request)
    forget(response, request)


@routes.post("/welcome", summary="Make the broadcaster's account with the one-time key")
async def welcome(body: Welcome, request: Request, response: Response) -> Me:
    access: Access = request.app.state.access
    check_new(body.password, body.login, body.name)
    account, token = await access.welcome(body.key, body.login, body.name, body.password, from_where(request))
    request.app.state.names[account.key] = account.name
    keep(response, request, token)
    return me_of(request, account)
