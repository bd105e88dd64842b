"""The live gate: one engine, fed by connectors and Desks; what it decides is stored together and then carried out.

Judging never waits on the database: entries are gathered and committed as a group, at most 25 ms later, and only what
is committed is sent out and shown.
"""

from __future__ import annotations

import asyncio
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import structlog

from gentlegate.core.effects import (
    Ban,
    CounterMoved,
    Drawbridge,
    Effect,
    Marked,
    PassGiven,
    Remove,
    SettingChanged,
    Timeout,
    Title,
    Unban,
    Undone,
    Warned,
)
from gentlegate.core.engine import Engine
from gentlegate.core.errors import GateError
from gentlegate.core.events import DeskAct, Event, Message
from gentlegate.core.journal import Entry, LedgerEntry, Waiting, is_sent_out
from gentlegate.core.team import Account
from gentlegate.formats.effects import effect_object
from gentlegate.runtime.clock import Clock
from gentlegate.runtime.hub import Hub
from gentlegate.runtime.ports import Journal, StoreThread
from gentlegate.runtime.screen import Screen

GATHER_FOR = 0.01
KNOWN_IDS = 50_000
log = structlog.get_logger()


class Gate:
    def __init__(
        self, engine: Engine, journal: Journal, store: StoreThread, clock: Clock, screen: Screen, hub: Hub
    ) -> None:
        self.engine = engine
        self.screen = screen
        self.hub = hub
        self.clock = clock
        self._journal = journal
        self._store = store
        self._entries: list[Entry] = []
        self._places: dict[str, int] = {}
        self._document: tuple[int, str, dict[str, Any]] | None = None
        self._seen: OrderedDict[tuple[str, str], None] = OrderedDict()
        self._dirty = asyncio.Event()
        self._retime = asyncio.Event()
        self._committed: asyncio.Future[None] | None = None
        self.carry_out: Callable[[Waiting], None] = lambda waiting: None

    def know(self, ids: list[tuple[str, str]]) -> None:
        """Messages that are stored already."""
        for key in ids:
            self._seen[key] = None

    def receive(self, event: Event, place: int | None = None) -> None:
        """Take in what a platform says; each message once, however often it is delivered."""
        if isinstance(event, Message):
            if (event.platform, event.id) in self._seen:
                return
            self._seen[event.platform, event.id] = None
            if len(self._seen) > KNOWN_IDS:
                self._seen.popitem(last=False)
        now = self.clock.now()
        self._time_passes(now)
        before = self.engine.document
        try:
            effects = self.engine.handle(event, now)
        except Exception:
            log.exception("gate.event", kind=type(event).__name__)
            effects = []
        if self.engine.document is not before and isinstance(event, Message):
            self._document = (now, event.person.key, self.engine.document)
        if place is not None and hasattr(event, "platform"):
            self._places[event.platform] = place
        self._add(Entry(now, event, effects, self._ledger(effects, event)))

    def lamp(self, platform: str, lamp: str, note: str = "") -> None:
        """How a connection stands."""
        self.screen.lamp(platform, lamp, note)
        self.hub.changed()

    async def act(self, account: Account, do: str, **values: Any) -> list[Effect]:
        """Carry out an act of somebody at the Desk; returns once it is stored. GateError where it cannot be."""
        event = DeskAct(self.clock.now(), account.key, do, {**values, "name_of_by": account.name})
        if do in ("setting", "settings"):
            await asyncio.to_thread(self.engine.changes.prepare, event)
        now = self.clock.now()
        event = replace(event, at=now)
        self._time_passes(now)
        before = self.engine.document
        effects = self.engine.handle(event, now)
        if self.engine.document is not before:
            self._document = (now, account.key, self.engine.document)
        self._add(Entry(now, event, effects, self._ledger(effects, event, account)))
        await self.committed()
        return effects

    def _time_passes(self, now: int) -> None:
        effects = self.engine.advance(now)
        if effects:
            self._add(Entry(now, None, effects, self._ledger(effects, None)))

    def _add(self, entry: Entry) -> None:
        if any(isinstance(effect, SettingChanged) for effect in entry.effects):
            self.screen.settings_changed()
        self._entries.append(entry)
        self._dirty.set()
        self._retime.set()

    async def committed(self) -> None:
        """Wait until all that has been decided so far is stored."""
        if self._committed is None:
            self._committed = asyncio.get_running_loop().create_future()
        await asyncio.shield(self._committed)

    async def run(self) -> None:
        """Commit what gathers, for ever."""
        while True:
            await self._dirty.wait()
            await asyncio.sleep(GATHER_FOR)
            await self.flush()

    async def flush(self) -> None:
        self._dirty.clear()
        entries, self._entries = self._entries, []
        document, self._document = self._document, None
        done, self._committed = self._committed, None
        state = self.engine.state.take_changes()
        state += [("place", platform, {"place": place}) for platform, place in self._places.items()]
        self._places.clear()
        try:
            await self._store.run(self._journal.write, entries, state, document)
        except BaseException as error:
            if done and not done.done():
                done.set_exception(GateError(f"It could not be stored: {error}"))
            raise
        self._show(entries)
        if done and not done.done():
            done.set_result(None)

    def _show(self, entries: list[Entry]) -> None:
        for entry in entries:
            if isinstance(entry.event, Message):
                self.screen.line(entry.event, entry.now)
            for number, effect in zip(entry.numbers, entry.effects, strict=True):
                body = effect_object(effect)
                if is_sent_out(effect):
                    self.carry_out(Waiting(number, effect.at, body))
                self.screen.effect(number, body)
        self.hub.changed()

    def sending(self, number: int, status: str) -> None:
        self.screen.sending(number, status)
        self.hub.changed()

    async def keep_time(self) -> None:
        """Let due things happen at their moment."""
        while True:
            self._retime.clear()
            due = self.engine.next_due()
            wait = None if due is None else max(0.0, (due - self.clock.now()) / 1e6) + 0.001
            try:
                await asyncio.wait_for(self._retime.wait(), wait)
            except TimeoutError:
                self._time_passes(self.clock.now())
                self._dirty.set()

    @staticmethod
    def _ledger(effects: list[Effect], event: Event | None, account: Account | None = None) -> list[LedgerEntry]:
        """What of it the ledger keeps: changes and acts, with who and where."""
        who = account.key if account else event.person.key if isinstance(event, Message) else "gate"
        place = "desk" if account else "chat" if isinstance(event, Message) else "gate"
        lines = []
        for effect in effects:
            if isinstance(effect, CounterMoved):
                lines.append(LedgerEntry(effect.at, who, place, "count", effect.name, effect.before, effect.after))
            elif isinstance(effect, Title):
                lines.append(LedgerEntry(effect.at, who, place, "title", effect.platform, None, effect.title))
            elif isinstance(effect, PassGiven):
                lines.append(
                    LedgerEntry(effect.at, who, place, "pass", effect.person, list(effect.filters), effect.until)
                )
            elif isinstance(effect, Marked):
                about = f"{effect.platform} {effect.message}"
                lines.append(LedgerEntry(effect.at, who, place, "mark", about, None, effect.mark))
            elif isinstance(effect, Drawbridge):
                lines.append(LedgerEntry(effect.at, who, place, "drawbridge", effect.why, None, effect.state))
            elif isinstance(effect, Unban) and effect.by is not None:
                lines.append(LedgerEntry(effect.at, who, place, "lift", f"{effect.platform} {effect.person}"))
            elif isinstance(effect, Remove | Timeout | Ban) and effect.by is not None:
                about = effect.message if isinstance(effect, Remove) else effect.person
                seconds = effect.seconds if isinstance(effect, Timeout) else None
                lines.append(
                    LedgerEntry(effect.at, who, place, effect.effect, f"{effect.platform} {about}", None, seconds)
                )
            elif isinstance(effect, Undone):
                about = f"{effect.platform} {effect.message}"
                lines.append(LedgerEntry(effect.at, who, place, "undo", about))
            elif isinstance(effect, SettingChanged):
                lines.append(
                    LedgerEntry(effect.at, who, place, "setting", effect.path, effect.before, effect.after)
                )
            elif isinstance(effect, Warned):
                lines.append(LedgerEntry(effect.at, "gate", "gate", "warning", effect.about, None, effect.problem))
        return lines
