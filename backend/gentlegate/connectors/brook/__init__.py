"""Brook: hears by WebSocket push, acts by HTTP; what was missed is sent again from a place on."""

from __future__ import annotations

import asyncio
import json
import time
from typing import Any
from urllib.parse import quote

from websockets.asyncio.client import connect
from websockets.exceptions import WebSocketException

from gentlegate.connectors.base import NotPossible, Rate, Sink
from gentlegate.connectors.brook import wire
from gentlegate.connectors.http import Http
from gentlegate.core.platforms import Abilities

ABILITIES = Abilities(restore=False, length=480, title=120, timeout_range=(5, 21 * 86400), ads=(20, 45, 75, 150))
FIRST_WAIT, LONGEST_WAIT = 0.25, 15.0


class Brook:
    name = wire.PLATFORM
    abilities = ABILITIES
    rights_words = "!!trust gatekeeper"
    rate = Rate(90, 40)

    def __init__(self, address: str, token: str, home: str = "") -> None:
        self._feed = address.replace("http", "ws", 1).rstrip("/") + "/brook/feed"
        self._token = token
        self._http = Http(address, {"Authorization": f"Bearer {token}"})

    async def run(self, sink: Sink, place: int | None) -> None:
        """Hear for ever; a broken connection is opened again and goes on from the last place."""
        wait = FIRST_WAIT
        while True:
            sink.lamp(self.name, "connecting")
            try:
                async with connect(f"{self._feed}?token={self._token}&after={place or 0}", proxy=None) as socket:
                    wait = FIRST_WAIT
                    async for text in socket:
                        place = self._hear(json.loads(text), sink, place)
            except (OSError, WebSocketException, TimeoutError) as error:
                sink.lamp(self.name, "broken", str(error))
            else:
                sink.lamp(self.name, "broken", "the platform closed the connection")
            await asyncio.sleep(wait)
            wait = min(wait * 2, LONGEST_WAIT)

    def _hear(self, frame: dict[str, Any], sink: Sink, place: int | None) -> int | None:
        number = frame.get("n", place)
        if frame["type"] == "line":
            sink.receive(wire.message(frame["line"]), number)
        elif frame["type"] == "deleted":
            sink.receive(wire.removal(frame, time.time_ns() // 1000), number)
        elif frame["type"] == "event":
            sink.receive(wire.happening(frame, time.time_ns() // 1000), number)
        elif frame["type"] in ("hello", "channel"):
            rights = bool(frame["moderator"])
            sink.lamp(self.name, "joined" if rights else "no rights")
            sink.receive(wire.channel(frame, time.time_ns() // 1000), number)
        return number

    async def check(self, sink: Sink) -> None:
        state = await self._http.get("/brook/channel")
        sink.lamp(self.name, "joined" if state["moderator"] else "no rights")
        sink.receive(wire.channel(state, time.time_ns() // 1000), None)

    async def send(self, key: str, effect: dict[str, Any]) -> dict[str, Any] | None:
        if effect["effect"] == "lookup":
            return await self._look_up(effect["what"], effect["name"])
        found = wire.request(effect)
        if found is None:
            raise NotPossible(f"Brook cannot {effect['effect']}")
        path, body = found
        return await self._http.post(path, {"key": key, **body})

    async def _look_up(self, what: str, name: str) -> dict[str, Any] | None:
        if what == "category":
            return {"names": (await self._http.get("/brook/sections"))["sections"]}
        if what == "person":
            who = await self._http.find(f"/brook/people/{quote(name, safe='')}")
            return who and {"id": who["uid"], "login": who["handle"], "name": who["shown"]}
        found = await self._http.find(f"/brook/channels/{quote(name, safe='')}")
        return found and {
            "login": found["handle"],
            "name": found["shown"],
            "link": found["page"],
            "category": found["last_section"],
        }

    async def called(self) -> str:
        return str((await self._http.get("/brook/channel"))["you"])

    async def account(self) -> str:
        return str((await self._http.get("/brook/channel"))["your_handle"])

    async def call(self, shown: str) -> str:
        return str((await self._http.put("/brook/me", {"shown": shown}))["shown"])

    async def was_done(self, key: str) -> bool:
        return bool((await self._http.get(f"/brook/acts/{key}"))["done"])

    async def close(self) -> None:
        await self._http.close()
