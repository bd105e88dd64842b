"""Brook: pushes over a WebSocket, takes acts over HTTP, and can be asked for what was missed."""

from __future__ import annotations

import asyncio
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Header, WebSocket, WebSocketDisconnect
from pydantic import BaseModel

from playhouse.house import GATEKEEPER, Line, Platform, Refusal

LINE_LIMIT, TITLE_LIMIT, NAME_LIMIT = 480, 120, 25
TIMEOUT = (5, 21 * 86400)
ADS = (20, 45, 75, 150)


class Said(BaseModel):
    key: str
    body: str
    thread: str | None = None
    whisper_to: str | None = None


class Keyed(BaseModel):
    key: str


class Quiet(Keyed):
    seconds: int


class Followers(Keyed):
    only: bool


class Channel(Keyed):
    title: str | None = None
    section: str | None = None


class Shown(BaseModel):
    shown: str


class Noted(Keyed):
    note: str = ""


class Towards(Keyed):
    to: str


def wire_line(line: Line) -> dict[str, Any]:
    """A line as Brook sends it."""
    return {
        "id": line.id,
        "ts": round(line.at * 1000),
        "author": {"uid": line.uid, "handle": line.login, "shown": line.name, "marks": line.badges},
        "body": line.text,
        "pictures": line.emotes,
        "deed": line.action,
        "thread": line.reply_to,
    }


def frame(brook: Platform, happening: dict[str, Any]) -> dict[str, Any] | None:
    """What is pushed about something that happened, if anything."""
    what = happening["what"]
    if what == "line" and not happening["line"].private_to:
        return {"n": happening["n"], "type": "line", "line": wire_line(happening["line"])}
    if what == "gone" and "by" in happening:
        return {"n": happening["n"], "type": "deleted", "id": happening["line"].id, "by": happening["by"]}
    if what == "happening":
        kept = {key: happening[key] for key in ("of", "uid", "amount", "text")}
        who = {"handle": happening["login"], "shown": happening["name"]}
        return {"n": happening["n"], "type": "event", **who, **kept}
    if what in ("channel", "rights"):
        return {"n": happening["n"], "type": "channel", **channel(brook)}
    return None


def channel(brook: Platform) -> dict[str, Any]:
    return {
        "on_air": brook.live,
        "title": brook.title,
        "section": brook.category,
        "moderator": brook.rights,
        "watching": brook.viewers,
        "you": brook.shown,
        "your_handle": GATEKEEPER,
    }


def router(brook: Platform) -> APIRouter:
    def allowed(authorization: Annotated[str, Header()] = "") -> None:
        if authorization != f"Bearer {brook.token}":
            raise Refusal(401, "this token does not let you in")

    routes = APIRouter(prefix="/brook", dependencies=[])
    guarded = [Depends(allowed)]

    @routes.websocket("/feed")
    async def feed(socket: WebSocket, token: str = "", after: int = 0) -> None:
        if token != brook.token or brook.broken:
            await socket.close(4401 if token != brook.token else 1013)
            return
        await socket.accept()
        queue: asyncio.Queue[dict[str, Any]] = asyncio.Queue()
        stop = brook.listen(queue.put_nowait)
        try:
            await socket.send_json({"type": "hello", **channel(brook)})
            for happening in [h for h in brook.happenings if h["n"] > after] if after else []:
                if pushed := frame(brook, happening):
                    await socket.send_json(pushed)
            while not brook.broken:
                if pushed := frame(brook, await queue.get()):
                    await socket.send_json(pushed)
            await socket.close(1012)
        except (WebSocketDisconnect, asyncio.CancelledError):
            pass
        finally:
            stop()

    @routes.post("/say", dependencies=guarded)
    async def say(said: Said) -> dict[str, Any]:
        values = {"reply_to": said.thread, "private_to": said.whisper_to}
        return brook.once(said.key, lambda: brook.speak(said.body, LINE_LIMIT, **values))

    @routes.post("/lines/{id}/delete", dependencies=guarded)
    async def delete(id: str, act: Keyed) -> dict[str, Any]:
        return brook.once(act.key, lambda: brook.remove(id))

    @routes.post("/people/{uid}/quiet", dependencies=guarded)
    async def quiet(uid: str, act: Quiet) -> dict[str, Any]:
        if not TIMEOUT[0] <= act.seconds <= TIMEOUT[1]:
            raise Refusal(422, "5 seconds to 21 days")
        return brook.once(act.key, lambda: brook.shut(uid, act.seconds))

    @routes.post("/people/{uid}/ban", dependencies=guarded)
    async def ban(uid: str, act: Keyed) -> dict[str, Any]:
        return brook.once(act.key, lambda: brook.shut(uid, None))

    @routes.post("/people/{uid}/free", dependencies=guarded)
    async def free(uid: str, act: Keyed) -> dict[str, Any]:
        return brook.once(act.key, lambda: brook.free(uid))

    @routes.post("/channel", dependencies=guarded)
    async def set_channel(act: Channel) -> dict[str, Any]:
        if act.section is not None:
            section = act.section
            return brook.once(act.key, lambda: brook.set_category(section))
        return brook.once(act.key, lambda: brook.set_title(act.title or "", TITLE_LIMIT))

    @routes.get("/channel", dependencies=guarded)
    async def get_channel() -> dict[str, Any]:
        if brook.broken:
            raise Refusal(503, "the platform has trouble")
        return channel(brook)

    @routes.get("/sections", dependencies=guarded)
    async def sections() -> dict[str, Any]:
        return {"sections": brook.categories}

    @routes.get("/channels/{handle}", dependencies=guarded)
    async def find_channel(handle: str) -> dict[str, Any]:
        entry = brook.channel(handle)
        return {
            "handle": entry["login"],
            "shown": entry["name"],
            "page": entry["link"],
            "last_section": entry["category"],
        }

    @routes.get("/people/{handle}", dependencies=guarded)
    async def find_person(handle: str) -> dict[str, Any]:
        who = brook.person(handle)
        return {"uid": who["uid"], "handle": who["login"], "shown": who["name"]}

    @routes.put("/me", dependencies=guarded)
    async def call_myself(act: Shown) -> dict[str, Any]:
        return {"shown": brook.call(act.shown, NAME_LIMIT)}

    @routes.post("/markers", dependencies=guarded)
    async def marker(act: Noted) -> dict[str, Any]:
        return brook.once(act.key, lambda: brook.mark(act.note))

    @routes.post("/clips", dependencies=guarded)
    async def clip(act: Keyed) -> dict[str, Any]:
        return brook.once(act.key, brook.clip)

    @routes.post("/breaks", dependencies=guarded)
    async def ad(act: Quiet) -> dict[str, Any]:
        return brook.once(act.key, lambda: brook.ad(act.seconds, ADS))

    @routes.post("/raids", dependencies=guarded)
    async def raid(act: Towards) -> dict[str, Any]:
        return brook.once(act.key, lambda: brook.send_to("raid", act.to))

    @routes.post("/shoutouts", dependencies=guarded)
    async def shoutout(act: Towards) -> dict[str, Any]:
        return brook.once(act.key, lambda: brook.send_to("shoutout", act.to))

    @routes.post("/followers", dependencies=guarded)
    async def followers(act: Followers) -> dict[str, Any]:
        return brook.once(act.key, lambda: brook.only_followers(act.only))

    @routes.get("/acts/{key}", dependencies=guarded)
    async def act_done(key: str) -> dict[str, Any]:
        return {"done": key in brook.acts}

    return routes
