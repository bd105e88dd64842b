"""Sending effects out: in order per platform, removals before replies, within the platform's rate, with back-off."""

from __future__ import annotations

import asyncio
import heapq
import time
from collections import deque
from collections.abc import Callable
from typing import Any

import structlog

from gentlegate.core.journal import Waiting
from gentlegate.core.moments import SECOND
from gentlegate.runtime.clock import Clock
from gentlegate.runtime.ports import Connector, Journal, StoreThread

PRIORITY = {"remove": 0, "timeout": 0, "ban": 0, "unban": 0, "restore": 0}
REPLY_KEEPS = 30 * SECOND
MOST_TRIES, LOOKUP_TRIES = 8, 2
FIRST_WAIT, LONGEST_WAIT = 0.2, 20.0
log = structlog.get_logger()


class Outbox:
    """One platform's outgoing side. `report` is told how each sending stands."""

    def __init__(
        self,
        connector: Connector,
        journal: Journal,
        store: StoreThread,
        clock: Clock,
        install: str,
        report: Callable[[int, str], None],
        answer: Callable[[dict[str, Any], Any, str | None], None] = lambda body, found, problem: None,
    ) -> None:
        self._connector = connector
        self._journal = journal
        self._store = store
        self._clock = clock
        self._install = install
        self._report = report
        self._answer = answer
        self._asking: set[asyncio.Task[None]] = set()
        self._heap: list[tuple[int, int, Waiting, int]] = []
        self._wake = asyncio.Event()
        self._sent: deque[float] = deque()
        self._sending: Waiting | None = None

    def put(self, waiting: Waiting, tries: int = 0) -> None:
        if waiting.body["effect"] == "lookup" and not tries:
            asking = asyncio.create_task(self._send(waiting, 0))
            self._asking.add(asking)
            asking.add_done_callback(self._asking.discard)
            return
        heapq.heappush(self._heap, (PRIORITY.get(waiting.body["effect"], 1), waiting.number, waiting, tries))
        self._wake.set()

    def unsent(self) -> set[str]:
        """The kinds of effects that are still to be sent, or are being sent now."""
        kinds = {waiting.body["effect"] for _, _, waiting, _ in self._heap}
        return kinds | ({self._sending.body["effect"]} if self._sending else set())

    async def run(self) -> None:
        for waiting in await self._store.run(self._journal.waiting, self._connector.name):
            await self._resume(waiting)
        while True:
            if not self._heap:
                self._wake.clear()
                await self._wake.wait()
            await self._within_rate()
            if self._heap:
                _, _, self._sending, tries = heapq.heappop(self._heap)
                await self._send(self._sending, tries)
                self._sending = None

    async def _resume(self, waiting: Waiting) -> None:
        """What was open when the gate stopped; the one act in flight is asked about."""
        asked = waiting.body["effect"] == "lookup"
        if waiting.in_flight and not asked and await self._done_already(waiting):
            await self._mark(waiting, "sent")
            self._answered(waiting, {}, None)
        elif all(known.number != waiting.number for _, _, known, _ in self._heap):
            self.put(waiting)

    async def _done_already(self, waiting: Waiting) -> bool:
        wait = FIRST_WAIT
        while True:
            try:
                return await self._connector.was_done(self._key(waiting))
            except Exception as error:
                log.warning("outbox.ask", platform=self._connector.name, problem=str(error))
            await asyncio.sleep(wait)
            wait = min(wait * 2, LONGEST_WAIT)

    def _key(self, waiting: Waiting) -> str:
        return f"{self._install}-{waiting.number}"

    async def _within_rate(self) -> None:
        rate = self._connector.rate
        while len(self._sent) >= rate.count:
            left = self._sent[0] + rate.seconds - time.monotonic()
            if left > 0:
                await asyncio.sleep(left)
            else:
                self._sent.popleft()

    async def _send(self, waiting: Waiting, tries: int) -> None:
        if waiting.body["effect"] == "say" and self._clock.now() - waiting.at > REPLY_KEEPS:
            await self._mark(waiting, "dropped", "it waited more than 30 s")
            return
        await self._mark(waiting, "sending")
        try:
            found = await self._connector.send(self._key(waiting), waiting.body)
        except Exception as error:
            await self._failed(waiting, tries + 1, error)
        else:
            await self._mark(waiting, "sent")
            self._answered(waiting, found, None)
        if waiting.body["effect"] != "lookup":
            self._sent.append(time.monotonic())

    async def _failed(self, waiting: Waiting, tries: int, error: Exception) -> None:
        again = hasattr(error, "after")
        if not again:
            await self._mark(waiting, "impossible", str(error))
            self._answered(waiting, None, str(error))
        elif (
            tries >= (LOOKUP_TRIES if waiting.body["effect"] == "lookup" else MOST_TRIES)
            and waiting.body["effect"] != "remove"
        ):
            await self._mark(waiting, "failed", str(error))
            self._answered(waiting, None, str(error))
        else:
            await self._mark(waiting, "waiting", str(error))
            self.put(waiting, tries)
            after: Any = getattr(error, "after", None)
            await asyncio.sleep(after if after is not None else min(FIRST_WAIT * 2**tries, LONGEST_WAIT))

    def _answered(self, waiting: Waiting, found: Any, problem: str | None) -> None:
        """Hand on what a platform answered to something that waits for it."""
        if waiting.body.get("ask") is not None:
            self._answer(waiting.body, found, problem)

    async def _mark(self, waiting: Waiting, status: str, note: str | None = None) -> None:
        await self._store.run(self._journal.mark, waiting.number, status, self._clock.now(), note)
        if status != "sending":
            self._report(waiting.number, status)
