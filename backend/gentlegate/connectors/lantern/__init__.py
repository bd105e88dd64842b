"""Lantern: heard by polling with a cursor, acts by HTTP; there is a page of chat only while it is live."""

from __future__ import annotations

import asyncio
import time
from typing import Any
from urllib.parse import quote

from gentlegate.connectors.base import NotPossible, Rate, Sink, TryAgain
from gentlegate.connectors.http import Http
from gentlegate.connectors.lantern import wire
from gentlegate.core.platforms import Abilities

ABILITIES = Abilities(
    private=False,
    threads=False,
    offline_chat=False,
    followers_only=False,
    clip=False,
    raid=False,
    shoutout=False,
    length=200,
    title=96,
    timeout_values=(15, 60, 360, 1800, 72000),
)
POLL_CHAT, POLL_STATUS, LONGEST_WAIT = 0.1, 2.0, 15.0


class Lantern:
    name = wire.PLATFORM
    abilities = ABILITIES
    rights_words = "keeper: gatekeeper"
    rate = Rate(1, 1.02)

    def __init__(self, address: str, token: str, home: str = "") -> None:
        self._http = Http(address, {"X-Lantern-Key": token})
        self._said: tuple[Any, ...] | None = None
        self._live = False

    async def run(self, sink: Sink, place: int | None) -> None:
        """Poll for ever: the status every two seconds, the page of chat while live."""
        wait, next_status = POLL_CHAT, 0.0
        sink.lamp(self.name, "connecting")
        while True:
            try:
                if time.monotonic() >= next_status:
                    place = await self._status(sink, place)
                    next_status = time.monotonic() + POLL_STATUS
                if self._live:
                    place = await self._page(sink, place)
                wait = POLL_CHAT
            except (TryAgain, NotPossible) as error:
                self._said = None
                sink.lamp(self.name, "broken", str(error))
                wait = min(max(wait, 0.25) * 2, LONGEST_WAIT)
            await asyncio.sleep(wait)

    async def check(self, sink: Sink) -> None:
        status = await self._http.get("/lantern/status")
        sink.lamp(self.name, "joined" if status["keeper"] else "no rights")
        sink.receive(wire.channel(status, time.time_ns() // 1000), None)

    async def _status(self, sink: Sink, place: int | None) -> int | None:
        """Take in the status; the first place is where the page stands now."""
        status = await self._http.get("/lantern/status")
        self._live = bool(status["lit"])
        place = int(status["cursor"]) if place is None else place
        said = (status["lit"], status["headline"], status["shelf"], status["keeper"])
        if said != self._said:
            self._said = said
            sink.lamp(self.name, "joined" if status["keeper"] else "no rights")
            sink.receive(wire.channel(status, time.time_ns() // 1000), place)
        return place

    async def _page(self, sink: Sink, place: int | None) -> int | None:
        try:
            page = await self._http.get("/lantern/page", cursor=place)
        except NotPossible:
            self._live = False
            return place
        for entry in page["entries"]:
            event = wire.entry(entry, time.time_ns() // 1000)
            sink.receive(event, int(page["cursor"]))
        return int(page["cursor"])

    async def send(self, key: str, effect: dict[str, Any]) -> dict[str, Any] | None:
        if effect["effect"] == "lookup":
            return await self._look_up(effect["what"], effect["name"])
        found = wire.request(effect)
        if found is None:
            raise NotPossible(f"Lantern cannot {effect['effect']}")
        path, body = found
        return await self._http.post(path, {"key": key, **body})

    async def _look_up(self, what: str, name: str) -> dict[str, Any] | None:
        if what == "category":
            return {"names": (await self._http.get("/lantern/shelves"))["shelves"]}
        if what == "person":
            who = await self._http.find(f"/lantern/people/{quote(name, safe='')}")
            return who and {"id": who["number"], "login": who["nick"], "name": who["display"]}
        found = await self._http.find(f"/lantern/rooms/{quote(name, safe='')}")
        return found and {
            "login": found["nick"],
            "name": found["display"],
            "link": found["url"],
            "category": found["shelf"],
        }

    async def called(self) -> str:
        return str((await self._http.get("/lantern/status"))["display"])

    async def account(self) -> str:
        return str((await self._http.get("/lantern/status"))["nick"])

    async def call(self, shown: str) -> str:
        return str((await self._http.post("/lantern/display", {"key": "", "words": shown}))["display"])

    async def was_done(self, key: str) -> bool:
        return bool((await self._http.get(f"/lantern/acts/{key}"))["done"])

    async def close(self) -> None:
        await self._http.close()
