"""The session's cookie. Over TLS it is bound to this host alone by its name (RFC 6265bis, `__Host-`)."""

from __future__ import annotations

from fastapi import Request, Response
from starlette.requests import HTTPConnection

SECONDS = 30 * 86400
PLAIN, OVER_TLS = "gentlegate_session", "__Host-gentlegate_session"


def _over_tls(connection: HTTPConnection) -> bool:
    return connection.url.scheme in ("https", "wss")


def token_of(connection: HTTPConnection) -> str:
    """The session's token; empty where there is none."""
    return connection.cookies.get(OVER_TLS if _over_tls(connection) else PLAIN, "")


def keep(response: Response, request: Request, token: str) -> None:
    """Let the browser keep it: for no script, no other site, and over TLS no other host."""
    tls = _over_tls(request)
    name = OVER_TLS if tls else PLAIN
    response.set_cookie(name, token, max_age=SECONDS, httponly=True, samesite="strict", secure=tls)


def forget(response: Response, request: Request) -> None:
    tls = _over_tls(request)
    response.delete_cookie(OVER_TLS if tls else PLAIN, httponly=True, samesite="strict", secure=tls)
