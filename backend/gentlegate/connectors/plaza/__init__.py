"""Plaza: tells by signed webhooks, acts by HTTP; what was missed is fetched from a place on."""

from __future__ import annotations

import asyncio
import json
import secrets
import time
from collections import OrderedDict
from collections.abc import Mapping
from typing import Any
from urllib.parse import quote

from gentlegate.connectors.base import BadHook, NotPossible, Rate, Sink, TryAgain
from gentlegate.connectors.http import Http
from gentlegate.connectors.plaza import wire
from gentlegate.core.platforms import Abilities

ABILITIES = Abilities(restore=False, length=320, title=80, timeout_range=(60, 9 * 86400), marker=False, ads=(40,))
WINDOW = 300
"""Seconds by which a webhook's time may differ from ours; within it, each is taken once."""
WATCH_EVERY, FIRST_WAIT, LONGEST_WAIT = 2.0, 0.25, 15.0
KEPT_NUMBERS = 10_000


class Plaza:
    name = wire.PLATFORM
    abilities = ABILITIES
    rights_words = "@plaza let gatekeeper moderate"
    rate = Rate(6, 5.05)

    def __init__(self, address: str, token: str, home: str) -> None:
        self._http = Http(address, {"Authorization": f"Plaza {token}"})
        self._home = f"{home}/hooks/{self.name}"
        self._secret = secrets.token_urlsafe(32)
        self._sink: Sink | None = None
        self._seen: OrderedDict[int, None] = OrderedDict()
        self._place: int | None = None

    async def run(self, sink: Sink, place: int | None) -> None:
        """Ask to be told, fetch what was missed, and see now and then that it is still so."""
        self._sink, self._place = sink, place
        wait = FIRST_WAIT
        sink.lamp(self.name, "connecting")
        registered = False
        while True:
            try:
                if not registered:
                    await self._register(sink)
                    registered = True
                else:
                    await self._fetch_missed(sink)
                wait = WATCH_EVERY
            except (TryAgain, NotPossible) as error:
                registered = False
                sink.lamp(self.name, "broken", str(error))
                wait = FIRST_WAIT if wait == WATCH_EVERY else min(wait * 2, LONGEST_WAIT)
            await asyncio.sleep(wait)

    async def _register(self, sink: Sink) -> None:
        state = await self._http.put("/plaza/hook", {"url": self._home, "secret": self._secret})
        sink.lamp(self.name, "joined" if state["may_moderate"] else "no rights")
        if self._place is None:
            self._place = int(state["since"])
        sink.receive(wire.channel(state, time.time_ns() // 1000), self._place)
        await self._fetch_missed(sink)

    async def _fetch_missed(self, sink: Sink) -> None:
        missed = await self._http.get("/plaza/missed", after=self._place)
        for told in missed["told"]:
            self._take(told, sink)

    def hook(self, headers: Mapping[str, str], body: bytes) -> None:
        """Take a webhook in. BadHook where it is forged, late, repeated or broken."""
        when = headers.get("x-plaza-time", "")
        if not wire.is_signed(self._secret, when, body, headers.get("x-plaza-signature", "")):
            raise BadHook("forged", "the signature is not Plaza's")
        if not when.isdigit() or abs(time.time() - int(when)) > WINDOW:
            raise BadHook("late", f"it is more than {WINDOW} s from now")
        if self._sink is None:
            raise BadHook("early", "nobody listens yet")
        try:
            told = json.loads(body)
            number = int(told["no"])
            if number in self._seen:
                raise BadHook("repeated", "it was taken already")
            self._take(told, self._sink)
        except (ValueError, KeyError, TypeError, AttributeError) as error:
            raise BadHook("broken", f"it cannot be read ({type(error).__name__})") from None

    def _take(self, told: dict[str, Any], sink: Sink) -> None:
        number = int(told["no"])
        if number in self._seen:
            return
        event = wire.event(told, time.time_ns() // 1000)
        self._seen[number] = None
        if len(self._seen) > KEPT_NUMBERS:
            self._seen.popitem(last=False)
        self._place = max(number, self._place or 0)
        sink.lamp(self.name, "joined" if told["may_moderate"] else "no rights")
        if event is not None:
            sink.receive(event, self._place)

    async def check(self, sink: Sink) -> None:
        self._sink = sink
        await self._register(sink)

    async def send(self, key: str, effect: dict[str, Any]) -> dict[str, Any] | None:
        if effect["effect"] == "lookup":
            return await self._look_up(effect["what"], effect["name"])
        found = wire.request(effect)
        if found is None:
            raise NotPossible(f"Plaza cannot {effect['effect']}")
        path, body = found
        return await self._http.post(path, {"key": key, **body})

    async def _look_up(self, what: str, name: str) -> dict[str, Any] | None:
        if what == "category":
            return {"any": True}
        if what == "person":
            who = await self._http.find(f"/plaza/members?name={quote(name)}")
            return who and {"id": who["uid"], "login": who["handle"], "name": who["name"]}
        found = await self._http.find(f"/plaza/channels?name={quote(name)}")
        return found and {
            "login": found["handle"],
            "name": found["name"],
            "link": found["link"],
            "category": found["topic"],
        }

    async def called(self) -> str:
        return str((await self._http.get("/plaza/state"))["you"])

    async def account(self) -> str:
        return str((await self._http.get("/plaza/state"))["your_handle"])

    async def call(self, shown: str) -> str:
        return str((await self._http.put("/plaza/members/me", {"name": shown}))["name"])

    async def was_done(self, key: str) -> bool:
        return bool((await self._http.get(f"/plaza/done/{key}"))["done"])

    async def close(self) -> None:
        await self._http.close()
