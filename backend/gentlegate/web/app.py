"""The web application: routes, headers, and the screens' files."""

from __future__ import annotations

from collections.abc import Awaitable, Callable
from contextlib import AbstractAsyncContextManager
from pathlib import Path
from typing import Any

import structlog
from fastapi import FastAPI, Request, Response
from fastapi.responses import FileResponse
from fastapi.routing import APIRoute
from fastapi.staticfiles import StaticFiles

from gentlegate import __version__
from gentlegate.web import hooks
from gentlegate.web.commands import built_ins, commands, cues
from gentlegate.web.desk import acts, hand_over, stream, try_out
from gentlegate.web.door import session
from gentlegate.web.door.cookie import token_of
from gentlegate.web.door.rates import Rates
from gentlegate.web.people import cards as people
from gentlegate.web.people import lists as people_lists
from gentlegate.web.problems import Refused, answer, install
from gentlegate.web.records import ledger
from gentlegate.web.rules import consequences, filters, lists
from gentlegate.web.schemas import Health
from gentlegate.web.setup import kits, platforms, sections, team
from gentlegate.web.stage import cards as stage
from gentlegate.web.stage import counters, quotes
from gentlegate.web.timers import rotas

HEADERS = {
    "Content-Security-Policy": (
        "default-src 'self'; img-src 'self' data:; style-src 'self'; font-src 'self'; connect-src 'self' ws: wss:;"
        " frame-ancestors 'none'; base-uri 'none'; form-action 'self'"
    ),
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}
OVER_TLS = {"Strict-Transport-Security": "max-age=31536000"}
WHO = "/api/session"
"""Asked by every page that is opened, by nobody too."""
LARGEST_BODY = 32 * 1024 * 1024
"""Bytes; the largest that is taken is an imported list of hosts."""

log = structlog.get_logger()
ROUTES = (
    session.routes,
    acts.routes, acts.socket_routes, stream.routes, hand_over.routes, try_out.routes,
    filters.routes, lists.routes, consequences.routes,
    commands.routes, cues.routes, built_ins.routes,
    rotas.routes,
    counters.routes, stage.routes, stage.socket_routes, quotes.routes,
    people.routes, people_lists.routes,
    ledger.routes,
    team.routes, platforms.routes, kits.routes, sections.routes,
    hooks.routes,
)  # fmt: skip
"""Room by room, as the screens have them."""
Lifespan = Callable[[FastAPI], AbstractAsyncContextManager[None]]


def build(lifespan: Lifespan | None = None, screens: Path | None = None) -> FastAPI:
    """The application. `lifespan` puts `gate`, `hub`, `access` and `names` into its state; `screens` is a folder."""
    app = FastAPI(
        title="Gentle Gate",
        version=__version__,
        description="One gate for a channel's chat, shared by its moderators.",
        lifespan=lifespan,
        generate_unique_id_function=_operation_name,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
    )
    install(app)
    app.state.rates = Rates()
    app.middleware("http")(_guard)
    for routes in ROUTES:
        app.include_router(routes)

    @app.get("/api/health", tags=["service"], summary="Whether it runs")
    async def health(request: Request) -> Health:
        gate = request.app.state.gate
        return Health(
            version=__version__,
            live=gate.engine.parts.streams.live,
            screens=gate.hub.facts()["screens"],
            platforms=gate.screen.lamps(),
        )

    if screens is not None and (screens / "index.html").exists():
        _serve_screens(app, screens)
    return app


def _operation_name(route: APIRoute) -> str:
    return f"{route.tags[0] if route.tags else 'service'}_{route.name}"


async def _guard(request: Request, go_on: Callable[[Request], Awaitable[Response]]) -> Response:
    """Changes are taken from our own pages only; every answer carries the headers."""
    origin = request.headers.get("origin")
    rates: Rates = request.app.state.rates
    foreign = origin is not None and origin.split("://", 1)[-1] != request.headers.get("host")
    if foreign and request.method not in ("GET", "HEAD"):
        response: Response = answer(Refused(403, "foreign-origin", "This came from another site's page.").problem)
    else:
        try:
            _bounded(request)
            rates.take(request, request.method, token_of(request))
            response = await go_on(request)
        except Refused as refused:
            response = answer(refused.problem)
    asked_who = request.method == "GET" and request.url.path == WHO
    if response.status_code in (401, 403, 429) and not asked_who:
        host = request.client.host if request.client else "?"
        log.warning(
            "web.refused", status=response.status_code, method=request.method, path=request.url.path, of=host
        )
    tls = OVER_TLS if request.url.scheme == "https" else {}
    own = {"Cache-Control": "no-store"} if request.url.path.startswith("/api/") else {}
    for name, value in (HEADERS | tls | own).items():
        response.headers.setdefault(name, value)
    return response


def _bounded(request: Request) -> None:
    """Refused where a body is too large, or does not say how large it is."""
    if "transfer-encoding" in request.headers and not request.url.path.startswith("/hooks/"):
        raise Refused(411, "no-length", "A request says how long it is.")
    length = request.headers.get("content-length", "0")
    if not length.isdigit() or int(length) > LARGEST_BODY:
        raise Refused(
            413, "too-large", f"At most {LARGEST_BODY // 2**20} MB are taken at once. Nothing was changed."
        )


def _serve_screens(app: FastAPI, screens: Path) -> None:
    app.mount("/assets", StaticFiles(directory=screens / "assets"), name="assets")
    index, card = screens / "index.html", screens / "stage.html"

    @app.get("/stage-card", include_in_schema=False)
    async def stage_card() -> Any:
        return FileResponse(card, headers={"Cache-Control": "no-cache"})

    @app.get("/{path:path}", include_in_schema=False)
    async def page(path: str) -> Any:
        if path.startswith(("api/", "hooks/")):
            raise Refused(404, "not-found", "There is nothing at this address.")
        return FileResponse(index, headers={"Cache-Control": "no-cache"})
