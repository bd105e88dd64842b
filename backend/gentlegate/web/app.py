"""The web application: routes, headers, and the screens' files."""

from __future__ import annotations

from collections.abc import Awaitable, Callable
from contextlib import AbstractAsyncContextManager
from pathlib import Path
from typing import Any

from fastapi import FastAPI, Request, Response
from fastapi.responses import FileResponse
from fastapi.routing import APIRoute
from fastapi.staticfiles import StaticFiles

from gentlegate import __version__
from gentlegate.web import (
    built_ins,
    commands,
    consequences,
    cues,
    desk,
    hand_over,
    hooks,
    kits,
    ledger,
    lists,
    people,
    platforms,
    quotes,
    rotas,
    rules,
    sections,
    session,
    stage,
    stream,
    team,
    try_out,
)  # fmt: skip
from gentlegate.web.access import COOKIE
from gentlegate.web.problems import Refused, answer, install
from gentlegate.web.rates import Rates
from gentlegate.web.schemas import Health

HEADERS = {
    "Content-Security-Policy": (
        "default-src 'self'; img-src 'self' data:; style-src 'self'; font-src 'self'; connect-src 'self' ws: wss:;"
        " frame-ancestors 'none'; base-uri 'none'; form-action 'self'"
    ),
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
}
ROOMS = (
    session, desk, stream, commands, cues, built_ins, kits, sections, rotas, quotes, stage, rules, lists, consequences, try_out, team, people, hand_over, platforms, ledger, hooks,
)  # fmt: skip
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
    for module in ROOMS:
        app.include_router(module.routes)
    app.include_router(sections.counter_routes)
    app.include_router(desk.socket_routes)
    app.include_router(stage.socket_routes)

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
            rates.take(request, request.method, request.cookies.get(COOKIE))
            response = await go_on(request)
        except Refused as refused:
            response = answer(refused.problem)
    for name, value in HEADERS.items():
        response.headers.setdefault(name, value)
    return response


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
