"""The Playhouse's own door: a page to type as anyone, go live, play evenings, and cause trouble."""

from __future__ import annotations

import time
from importlib.resources import files
from typing import Any, Literal

from fastapi import FastAPI, Request
from fastapi.responses import HTMLResponse, JSONResponse
from pydantic import BaseModel, Field

from playhouse import brook, lantern, plaza
from playhouse.directory import BROOK_CATEGORIES, LANTERN_CATEGORIES
from playhouse.house import Platform, Refusal
from playhouse.player import Player, names

DONE = ("marker", "clip", "ad", "raid", "shoutout")
"""What the Gatekeeper may have done besides talking and moderating."""


class Typed(BaseModel):
    platform: str
    login: str = Field(min_length=1, max_length=60)
    text: str = Field(min_length=1, max_length=2000)
    badges: list[str] = []
    id: str | None = None
    seconds_ago: float = Field(0, ge=0, description="As if it had been written earlier.")


class Going(BaseModel):
    platform: str
    live: bool
    title: str | None = None
    category: str | None = None


class Removing(BaseModel):
    platform: str
    id: str
    login: str = "bram"


class Happening(BaseModel):
    platform: str
    what: Literal["follow", "subscribe", "gift", "tip", "raid"]
    login: str = Field(min_length=1, max_length=60)
    amount: float | None = None
    text: str | None = Field(None, max_length=500)


class Trouble(BaseModel):
    platform: str
    rights: bool | None = None
    broken: bool | None = None


class Playing(BaseModel):
    name: str
    speed: float = Field(default=1, ge=1, le=60)
    quick_start: float = 0


def build(tokens: dict[str, str]) -> FastAPI:
    """The application with its platforms; `tokens` lets the Gatekeeper in."""
    platforms: dict[str, Platform] = {
        "brook": Platform("brook", tokens["brook"], (30, 40), (90, 40)),
        "lantern": Platform("lantern", tokens["lantern"], (1, 1), (1, 1)),
        "plaza": plaza.Plaza(tokens["plaza"]),
    }
    platforms["brook"].categories = BROOK_CATEGORIES
    platforms["lantern"].categories = LANTERN_CATEGORIES
    platforms["brook"].trusting = "!!trust gatekeeper"
    platforms["lantern"].trusting = "keeper: gatekeeper"
    platforms["plaza"].trusting = "@plaza let gatekeeper moderate"
    player = Player(platforms)
    app = FastAPI(title="The Playhouse", docs_url=None, redoc_url=None)
    app.state.player = player
    app.include_router(brook.router(platforms["brook"]))
    app.include_router(lantern.router(platforms["lantern"]))
    app.include_router(plaza.router(platforms["plaza"]))

    def named(name: str) -> Platform:
        if name not in platforms:
            raise Refusal(404, f"no such platform; there are: {', '.join(platforms)}")
        return platforms[name]

    @app.exception_handler(Refusal)
    async def refused(_: Request, refusal: Refusal) -> JSONResponse:
        headers = {} if refusal.after is None else {"Retry-After": f"{refusal.after:.3f}"}
        return JSONResponse({"reason": refusal.reason}, refusal.status, headers)

    @app.get("/", response_class=HTMLResponse)
    async def page() -> str:
        return (files("playhouse") / "page" / "index.html").read_text(encoding="utf-8")

    @app.get("/state")
    async def state() -> dict[str, Any]:
        return {
            "evening": player.name,
            "evenings": names(),
            "platforms": {name: _shown(platform) for name, platform in platforms.items()},
        }

    @app.post("/type")
    async def type_line(typed: Typed) -> dict[str, Any]:
        values = {"badges": typed.badges, "id": typed.id, "at": time.time() - typed.seconds_ago}
        line = named(typed.platform).say(typed.login.strip(), typed.text, **values)
        return {"id": line.id, "at": line.at}

    @app.post("/happening")
    async def happen(happening: Happening) -> dict[str, Any]:
        values = (happening.what, happening.login.strip(), happening.amount, happening.text)
        return named(happening.platform).happen(*values)

    @app.post("/remove")
    async def remove_line(removing: Removing) -> dict[str, Any]:
        return named(removing.platform).remove_by(removing.id, removing.login)

    @app.post("/live")
    async def go(going: Going) -> dict[str, Any]:
        named(going.platform).go(going.live, going.title, going.category)
        return {"live": going.live}

    @app.post("/trouble")
    async def trouble(trouble: Trouble) -> dict[str, Any]:
        platform = named(trouble.platform)
        if trouble.broken is not None:
            platform.broken = trouble.broken
            platform.tell("trouble")
        if trouble.rights is not None:
            platform.give_rights(trouble.rights)
        return {"rights": platform.rights, "broken": platform.broken}

    @app.post("/evening")
    async def play(playing: Playing) -> dict[str, Any]:
        player.play(playing.name, playing.speed, playing.quick_start)
        return {"evening": player.name, "speed": player.speed}

    @app.post("/evening/stop")
    async def stop() -> dict[str, Any]:
        player.stop()
        return {"evening": None}

    @app.get("/lines/{platform}")
    async def lines(platform: str, after: int = 0) -> list[dict[str, Any]]:
        return [
            {
                "n": line.n,
                "id": line.id,
                "at": line.at,
                "name": line.name,
                "badges": line.badges,
                "text": line.text,
                "reply_to": line.reply_to,
                "private_to": line.private_to,
                "removed": line.removed,
                "removed_at": line.removed_at,
            }
            for line in named(platform).lines
            if line.n > after
        ]

    return app


def _shown(platform: Platform) -> dict[str, Any]:
    now = time.time()
    return {
        "live": platform.live,
        "title": platform.title,
        "category": platform.category,
        "rights": platform.rights,
        "broken": platform.broken,
        "followers_only": platform.followers_only,
        "shut_out": {
            login: None if until == float("inf") else round(until - now)
            for login, until in platform.shut_out.items()
            if until > now
        },
        "done": [one for one in platform.happenings if one["what"] in DONE],
        "lines": [
            {"id": line.id, "name": line.name, "badges": line.badges, "text": line.text, "removed": line.removed}
            for line in list(platform.lines)[-40:]
        ],
    }
