"""The live gate: one engine, fed by connectors and Desks; what it decides is stored together and then carried out.

Judging never waits on the database: entries are gathered and committed as a group, at most 25 ms later, and only what
is committed is sent out and shown.
"""

from __future__ import annotations

import asyncio
import contextlib
from collections import OrderedDict
from collections.abc import AsyncIterator, Callable
from dataclasses import replace
from typing import Any

import structlog

from gentlegate.core.effects import Effect, SettingChanged
from gentlegate.core.engine import Engine
from gentlegate.core.errors import GateError
from gentlegate.core.events import Answer, DeskAct, Event, Happening, Message, StreamChange
from gentlegate.core.journal import Entry, LedgerEntry, Waiting, is_sent_out
from gentlegate.core.stream import raids
from gentlegate.core.team import Account
from gentlegate.formats.effects import effect_object
from gentlegate.runtime.clock import Clock
from gentlegate.runtime.hub import Hub
from gentlegate.runtime.ledger_lines import ledger_lines, of_act, of_raid, shown_on
from gentlegate.runtime.ports import Journal, StoreThread
from gentlegate.runtime.screen import Screen

GATHER_FOR = 0.01
KNOWN_IDS = 50_000
KEPT_ASKS = 200
HEARD_WITHIN = 8.0
LET_IN = ("joined", "no rights")
"""The lamps of a platform that lets the Gatekeeper in."""
THE_GATE = Account(0, "gate", "The gate", "broadcaster", "gate")
"""Whoever does what nobody asked for."""
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
        self._asked_by: tuple[str, str] | None = None
        self._whys: dict[int, str] = {}
        self._let_in: asyncio.Queue[str] = asyncio.Queue()
        self._raid = raids.armed(engine.parts)
        self._shown = shown_on(engine.state)
        self._finished: OrderedDict[int, list[Effect]] = OrderedDict()
        self._waiting_for: dict[int, asyncio.Future[None]] = {}
        self.carry_out: Callable[[Waiting], None] = lambda waiting: None
        self.unsent: Callable[[str], set[str]] = lambda platform: set()
        """The kinds of effects that a platform has not been sent yet."""
        self.hearers: set[Callable[[Message], None]] = set()
        """Told of every message that comes in."""

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
        if isinstance(event, StreamChange):
            event = self._as_we_set_it(event)
        now = self.clock.now()
        self._time_passes(now)
        before = self.engine.document
        if isinstance(event, Answer):
            self._asked_by = self._who_asked(event.ask)
        try:
            effects = self.engine.handle(event, now)
        except Exception:
            log.exception("gate.event", kind=type(event).__name__)
            effects = []
        if self.engine.document is not before and isinstance(event, Message):
            self._document = (now, event.person.key, self.engine.document)
        if place is not None and hasattr(event, "platform"):
            self._places[event.platform] = place
        lines = self._ledger(effects, event)
        if isinstance(event, Answer) and (why := self._whys.get(event.ask)):
            lines = [replace(line, why=why) for line in lines]
        self._add(Entry(now, event, effects, lines))
        if isinstance(event, Answer):
            self._note_finished(event.ask, effects)

    def _as_we_set_it(self, event: StreamChange) -> StreamChange:
        """A title or category from before the one that is on its way there is old news."""
        unsent = self.unsent(event.platform)
        return replace(
            event,
            title=None if "title" in unsent else event.title,
            category=None if "category" in unsent else event.category,
        )

    def answer(self, body: dict[str, Any], found: Any, problem: str | None) -> None:
        """What a platform answered to something it was asked."""
        self.receive(Answer(self.clock.now(), body["ask"], body["platform"], found, problem))

    def _who_asked(self, ask: int) -> tuple[str, str] | None:
        record = self.engine.state.asks.get(str(ask))
        if record is None:
            return None
        kind = record.values["kind"]
        return record.values["by"], "desk" if kind == "desk" else "chat" if kind == "command" else "gate"

    def _note_finished(self, ask: int, effects: list[Effect]) -> None:
        """Whoever waits for an ask is told once every platform has answered."""
        if self.engine.state.asks.get(str(ask)) is not None:
            return
        self._whys.pop(ask, None)
        self._finished[ask] = effects
        if len(self._finished) > KEPT_ASKS:
            self._finished.popitem(last=False)
        if waiting := self._waiting_for.pop(ask, None):
            waiting.set_result(None)

    async def act_and_hear(self, account: Account, do: str, why: str | None = None, **values: Any) -> list[Effect]:
        """Carry out an act that asks platforms; what came of their answers too, stored, if they come soon."""
        effects = await self.act(account, do, why=why, **values)
        asks = {ask for effect in effects if (ask := getattr(effect, "ask", None)) is not None}
        for ask in asks:
            if ask not in self._finished:
                self._waiting_for[ask] = asyncio.get_running_loop().create_future()
                with contextlib.suppress(TimeoutError):
                    await asyncio.wait_for(self._waiting_for[ask], HEARD_WITHIN)
                self._waiting_for.pop(ask, None)
            effects = [*effects, *self._finished.get(ask, [])]
        if asks:
            await self.flush()
        return effects

    def lamp(self, platform: str, lamp: str, note: str = "") -> None:
        """How a connection stands."""
        self.screen.lamp(platform, lamp, note)
        self.hub.changed()
        if lamp in LET_IN:
            self._let_in.put_nowait(platform)

    async def let_in(self) -> AsyncIterator[str]:
        """The platforms that let the Gatekeeper in, each time that one says so."""
        while True:
            yield await self._let_in.get()

    async def act(
        self,
        account: Account,
        do: str,
        *,
        still: Callable[[], None] | None = None,
        why: str | None = None,
        **values: Any,
    ) -> list[Effect]:
        """Carry out an act of somebody at the Desk; returns once it is stored. GateError where it cannot be.

        `still` is asked at the last moment, after all waiting: it raises where the act must not be made any more.
        `why` stands in the ledger.
        """
        event = DeskAct(self.clock.now(), account.key, do, {**values, "name_of_by": account.name})
        if do in ("setting", "settings"):
            await asyncio.to_thread(self.engine.changes.prepare, event)
        if still:
            still()
        now = self.clock.now()
        event = replace(event, at=now)
        self._time_passes(now)
        before = self.engine.document
        effects = self.engine.handle(event, now)
        if self.engine.document is not before:
            self._document = (now, account.key, self.engine.document)
        if why:
            self._whys |= {ask: why for effect in effects if (ask := getattr(effect, "ask", None)) is not None}
        lines = [replace(line, why=why) for line in self._ledger(effects, event, account)]
        self._add(Entry(now, event, effects, lines))
        await self.committed()
        return effects

    async def note(
        self, account: Account, what: str, about: str | None, before: Any, after: Any, why: str | None = None
    ) -> None:
        """Keep in the ledger what changed without the engine: the team, and what belongs to it."""
        now = self.clock.now()
        line = LedgerEntry(now, account.key, "desk", what, about, before, after, why)
        self._add(Entry(now, None, [], [line]))
        await self.committed()

    def _time_passes(self, now: int) -> None:
        effects = self.engine.advance(now)
        ledger = self._ledger(effects, None)
        if effects or ledger:
            self._add(Entry(now, None, effects, ledger))

    def _add(self, entry: Entry) -> None:
        if any(isinstance(effect, SettingChanged) for effect in entry.effects):
            self.screen.settings_changed()
        if entry.ledger:
            self.screen.ledger_grew()
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
                for hear in list(self.hearers):
                    hear(entry.event)
            if isinstance(entry.event, Happening):
                self.screen.happened(entry.event, entry.now)
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

    def _ledger(
        self, effects: list[Effect], event: Event | None, account: Account | None = None
    ) -> list[LedgerEntry]:
        """What of it the ledger keeps, with who and where."""
        who, place = "gate", "gate"
        if account and account is not THE_GATE:
            who, place = account.key, "desk"
        elif isinstance(event, Message):
            who, place = event.person.key, "chat"
        elif isinstance(event, Answer) and self._asked_by:
            who, place = self._asked_by
        was, self._raid = self._raid, raids.armed(self.engine.parts)
        raided = of_raid(was, self._raid, self.engine.now, who, place)
        shown, self._shown = self._shown, shown_on(self.engine.state)
        return [*ledger_lines(effects, who, place, shown), *raided, *of_act(event, who)]
