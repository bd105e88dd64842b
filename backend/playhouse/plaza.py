"""Plaza: tells by signed webhooks, takes acts over HTTP, and can be asked for the lines that were missed.

A webhook carries its time, a delivery number, and `v1=` with the HMAC-SHA256 of `TIME.BODY` under the secret that was
given when it was registered. A delivery that is not taken is repeated, in order.
"""

from __future__ import annotations

import asyncio
import hashlib
import hmac
import json
import time
from typing import Annotated, Any

import httpx
from fastapi import APIRouter, Depends, Header
from pydantic import BaseModel, Field

from playhouse.house import GATEKEEPER, Line, Platform, Refusal

LINE_LIMIT, TITLE_LIMIT, NAME_LIMIT = 320, 80, 40
PAUSE = (60, 9 * 86400)
ADS = (40,)
REMOVED_WITHIN = 600.0
FIRST_WAIT, LONGEST_WAIT = 0.2, 10.0


class Keyed(BaseModel):
    key: str


class Hook(BaseModel):
    url: str = Field(pattern=r"^https?://")
    secret: str = Field(min_length=16)


class Post(Keyed):
    text: str
    answers: str | None = None
    only_for: str | None = None


class Pause(Keyed):
    seconds: int | None = None


class Settings(Keyed):
    name: str | None = None
    topic: str | None = None
    followers_only: bool | None = None


class Named(BaseModel):
    name: str


class Towards(Keyed):
    channel: str


def signature(secret: str, when: str, body: bytes) -> str:
    """What proves that a webhook comes from here."""
    return "v1=" + hmac.new(secret.encode(), when.encode() + b"." + body, hashlib.sha256).hexdigest()


class Plaza(Platform):
    """The platform, and the one webhook that is told."""

    def __init__(self, token: str) -> None:
        super().__init__("plaza", token, (6, 5), (6, 5))
        self.hook: Hook | None = None
        self._queue: asyncio.Queue[dict[str, Any]] | None = None
        self._telling: asyncio.Task[None] | None = None
        self.listen(self._pass_on)

    def register(self, hook: Hook) -> dict[str, Any]:
        """From now on this webhook is told; another one is told no more."""
        if self._telling:
            self._telling.cancel()
        self.hook, self._queue = hook, asyncio.Queue()
        self._telling = asyncio.get_running_loop().create_task(self._tell(hook, self._queue))
        return {"since": self.n, **self.state()}

    def state(self) -> dict[str, Any]:
        return {
            "open": self.live,
            "name": self.title,
            "topic": self.category,
            "may_moderate": self.rights,
            "audience": self.viewers,
            "you": self.shown,
            "your_handle": GATEKEEPER,
        }

    def _pass_on(self, happening: dict[str, Any]) -> None:
        if self._queue is not None and (told := self.told(happening)) is not None:
            self._queue.put_nowait(told)

    def told(self, happening: dict[str, Any]) -> dict[str, Any] | None:
        """What a webhook says about something that happened, if anything; rights are told with everything."""
        what = happening["what"]
        body: dict[str, Any] = {"no": happening["n"], "may_moderate": self.rights}
        if what == "line" and not happening["line"].private_to:
            return body | {"kind": "post", "post": wire_line(happening["line"])}
        if what == "gone" and "by" in happening:
            return body | {"kind": "withdrawn", "post": happening["line"].id}
        if what == "channel":
            return body | {"kind": "state", **self.state()}
        if what == "happening":
            member = {"uid": happening["uid"], "handle": happening["login"], "name": happening["name"]}
            told = {"kind": happening["of"], "member": member, "count": happening["amount"]}
            return body | told | {"words": happening["text"]}
        return None

    async def _tell(self, hook: Hook, queue: asyncio.Queue[dict[str, Any]]) -> None:
        async with httpx.AsyncClient(timeout=5, trust_env=False) as client:
            while True:
                body = json.dumps(await queue.get()).encode()
                wait = FIRST_WAIT
                while not await self._deliver(client, hook, body):
                    await asyncio.sleep(wait)
                    wait = min(wait * 2, LONGEST_WAIT)

    async def _deliver(self, client: httpx.AsyncClient, hook: Hook, body: bytes) -> bool:
        if self.broken:
            return False
        when = str(int(time.time()))
        headers = {
            "Content-Type": "application/json",
            "X-Plaza-Time": when,
            "X-Plaza-Signature": signature(hook.secret, when, body),
        }
        try:
            answer = await client.post(hook.url, content=body, headers=headers)
        except httpx.HTTPError:
            return False
        return answer.status_code < 300 or answer.status_code in (401, 409, 422)


def wire_line(line: Line) -> dict[str, Any]:
    """A line as Plaza tells it."""
    return {
        "id": line.id,
        "time": line.at,
        "from": {"uid": line.uid, "handle": line.login, "name": line.name, "roles": line.badges},
        "text": line.text,
        "glyphs": [{"start": start, "end": end} for start, end in line.emotes],
        "doing": line.action,
        "answers": line.reply_to,
    }


def router(platform: Platform) -> APIRouter:
    assert isinstance(platform, Plaza)
    plaza = platform

    def allowed(authorization: Annotated[str, Header()] = "") -> None:
        if authorization != f"Plaza {plaza.token}":
            raise Refusal(401, "this token does not let you in")
        if plaza.broken:
            raise Refusal(503, "the platform has trouble")

    routes = APIRouter(prefix="/plaza", dependencies=[Depends(allowed)])

    @routes.put("/hook")
    async def register(hook: Hook) -> dict[str, Any]:
        return plaza.register(hook)

    @routes.get("/state")
    async def state() -> dict[str, Any]:
        return plaza.state()

    @routes.get("/missed")
    async def missed(after: int) -> dict[str, Any]:
        told = [plaza.told(happening) for happening in plaza.happenings if happening["n"] > after]
        return {"told": [one for one in told if one is not None], "up_to": plaza.n}

    @routes.post("/posts")
    async def post(act: Post) -> dict[str, Any]:
        values = {"reply_to": act.answers, "private_to": act.only_for}
        return plaza.once(act.key, lambda: plaza.speak(act.text, LINE_LIMIT, **values))

    @routes.post("/posts/{id}/withdraw")
    async def withdraw(id: str, act: Keyed) -> dict[str, Any]:
        if time.time() - plaza.line(id).at > REMOVED_WITHIN:
            raise Refusal(422, "a post older than 10 minutes stays")
        return plaza.once(act.key, lambda: plaza.remove(id))

    @routes.post("/members/{uid}/pause")
    async def pause(uid: str, act: Pause) -> dict[str, Any]:
        if act.seconds is not None and not PAUSE[0] <= act.seconds <= PAUSE[1]:
            raise Refusal(422, "1 minute to 9 days")
        return plaza.once(act.key, lambda: plaza.shut(uid, act.seconds))

    @routes.post("/members/{uid}/welcome")
    async def welcome(uid: str, act: Keyed) -> dict[str, Any]:
        return plaza.once(act.key, lambda: plaza.free(uid))

    @routes.post("/settings")
    async def settings(act: Settings) -> dict[str, Any]:
        def change() -> dict[str, Any]:
            if act.topic is not None:
                return plaza.set_category(act.topic)
            if act.followers_only is not None:
                return plaza.only_followers(act.followers_only)
            return plaza.set_title(act.name or "", TITLE_LIMIT)

        return plaza.once(act.key, change)

    @routes.get("/channels")
    async def find(name: str) -> dict[str, Any]:
        entry = plaza.channel(name)
        return {"handle": entry["login"], "name": entry["name"], "link": entry["link"], "topic": entry["category"]}

    @routes.get("/members")
    async def member(name: str) -> dict[str, Any]:
        who = plaza.person(name)
        return {"uid": who["uid"], "handle": who["login"], "name": who["name"]}

    @routes.put("/members/me")
    async def call_myself(act: Named) -> dict[str, Any]:
        return {"name": plaza.call(act.name, NAME_LIMIT)}

    @routes.post("/clips")
    async def clip(act: Keyed) -> dict[str, Any]:
        return plaza.once(act.key, plaza.clip)

    @routes.post("/ads")
    async def ad(act: Pause) -> dict[str, Any]:
        return plaza.once(act.key, lambda: plaza.ad(act.seconds or 0, ADS))

    @routes.post("/raids")
    async def raid(act: Towards) -> dict[str, Any]:
        return plaza.once(act.key, lambda: plaza.send_to("raid", act.channel))

    @routes.post("/shoutouts")
    async def shoutout(act: Towards) -> dict[str, Any]:
        return plaza.once(act.key, lambda: plaza.send_to("shoutout", act.channel))

    @routes.get("/done/{key}")
    async def done(key: str) -> dict[str, Any]:
        return {"done": key in plaza.acts}

    return routes
