"""Puts the parts together and starts them; no logic."""

from __future__ import annotations

import asyncio
import contextlib
import logging
import os
import secrets
import signal
import time
from collections.abc import AsyncIterator, Coroutine
from datetime import date
from functools import partial
from pathlib import Path
from typing import Any

import structlog
import uvicorn
from fastapi import FastAPI

from gentlegate.connectors import KNOWN
from gentlegate.connectors.base import Connector
from gentlegate.connectors.lists import fetch
from gentlegate.core.engine import Engine
from gentlegate.core.events import Message
from gentlegate.core.team import NEEDED, Permissions
from gentlegate.runtime.clock import Clock
from gentlegate.runtime.directories import Directories
from gentlegate.runtime.gate import KNOWN_IDS, Gate
from gentlegate.runtime.hub import Hub
from gentlegate.runtime.joining import Joining
from gentlegate.runtime.outbox import Outbox
from gentlegate.runtime.past import Past
from gentlegate.runtime.ports import StoreThread
from gentlegate.runtime.recorded import Recorded
from gentlegate.runtime.screen import Screen
from gentlegate.settings import Environment
from gentlegate.store.accounts import Accounts, Connections
from gentlegate.store.backup import daily
from gentlegate.store.cards import Cards
from gentlegate.store.database import Database, StoreError
from gentlegate.store.journal import Journal
from gentlegate.store.ledger import Ledger
from gentlegate.store.people import People
from gentlegate.store.streams import Streams
from gentlegate.store.team import Team
from gentlegate.web.app import build
from gentlegate.web.door.access import Access, hashed

SCREENS = Path(__file__).resolve().parents[2] / "frontend" / "dist"
LINES_SHOWN = 300
HERE_EVERY = 60.0
COPY_LOOKED_AT = 3600.0
"""Seconds between two looks whether today's copy is made."""
log = structlog.get_logger()


class Service:
    """The running gate: its parts, and the tasks that keep them going."""

    def __init__(self, environment: Environment) -> None:
        environment.data.mkdir(parents=True, exist_ok=True)
        self._environment = environment
        self._database = Database(environment.database)
        self.journal = Journal(self._database)
        self.accounts = Accounts(self._database)
        self.store = StoreThread()
        self._home = f"http://{environment.host}:{environment.port}"
        self._connections = Connections(self._database)
        self.connectors: dict[str, Connector] = {
            platform: KNOWN[platform](address, token, self._home)
            for platform, (address, token) in self._connections.all().items()
            if platform in KNOWN
        }
        _, document = self.journal.load_settings()
        state = self.journal.load_state()
        self.clock = Clock(self.journal.latest())
        abilities = {name: connector.abilities for name, connector in self.connectors.items()}
        self._install = self.journal.fact("install", lambda: {"id": secrets.token_hex(4)})["id"]
        engine = Engine(document, seed=int(self._install, 16), state=state, platforms=abilities, can_ask=True)
        engine.resume(self.clock.now())
        self.names = {account.key: account.name for account in self.accounts.all()}
        self.screen = Screen(engine, self.names)
        self.hub = Hub(self.screen, self.clock.now)
        self.gate = Gate(engine, self.journal, self.store, self.clock, self.screen, self.hub)
        self.gate.know(self.journal.known_ids(KNOWN_IDS))
        self._show_what_was()
        self.outboxes = {name: self._outbox(connector) for name, connector in self.connectors.items()}
        self._tasks: dict[str, list[asyncio.Task[None]]] = {}
        self.gate.unsent = lambda platform: self.outboxes[platform].unsent() if platform in self.outboxes else set()
        self.gate.carry_out = lambda waiting: (
            self.outboxes[waiting.body["platform"]].put(waiting)
            if waiting.body["platform"] in self.outboxes
            else None
        )

    def _outbox(self, connector: Connector) -> Outbox:
        tell = self.gate.sending, self.gate.answer
        return Outbox(connector, self.journal, self.store, self.clock, self._install, *tell)

    def _begin(self, connector: Connector) -> None:
        """Let a platform's two sides run."""
        work = (self.outboxes[connector.name].run(), connector.run(self.gate, self.journal.place(connector.name)))
        self._tasks[connector.name] = [asyncio.create_task(_kept_alive(one)) for one in work]

    async def connect(self, platform: str, address: str, token: str) -> None:
        """Connect a platform now, in the place of an earlier connection to it."""
        await self.store.run(self._connections.put, platform, address, token)
        for task in self._tasks.pop(platform, []):
            task.cancel()
        if old := self.connectors.get(platform):
            await old.close()
        connector = self.connectors[platform] = KNOWN[platform](address, token, self._home)
        self.gate.engine.declare(platform, connector.abilities)
        self.outboxes[platform] = self._outbox(connector)
        self._begin(connector)

    async def _copy_daily(self) -> None:
        """A copy of the database a day, kept for a week beside it."""
        folder = self._environment.data / "copies"
        while True:
            try:
                if made := await asyncio.to_thread(daily, self._environment.database, folder, date.today()):
                    log.info("service.copied", file=str(made))
            except StoreError as error:
                log.warning("service.copy-failed", problem=str(error))
            await asyncio.sleep(COPY_LOOKED_AT)

    async def _note_who_is_here(self) -> None:
        """So that a stop without warning makes nobody seem to have been away."""
        while True:
            await asyncio.sleep(HERE_EVERY)
            await self.store.run(self.accounts.still_here, self.hub.accounts(), self.clock.now())

    def _show_what_was(self) -> None:
        lines = self.journal.recent_lines(LINES_SHOWN)
        for _, event, at in lines:
            self.screen.line(event, at) if isinstance(event, Message) else self.screen.happened(event, at)
        for number, body, status in self.journal.effects_on(lines[0][0]) if lines else []:
            self.screen.effect(number, body, status)

    @contextlib.asynccontextmanager
    async def running(self, app: FastAPI) -> AsyncIterator[None]:
        app.state.gate, app.state.hub, app.state.names = self.gate, self.hub, self.names
        app.state.past = Past(self.journal, self.store)
        ledger = Ledger(self._database)
        past_streams = Streams(self._database)
        app.state.read_posts = partial(self.store.run, past_streams.posts)
        app.state.recorded = Recorded(
            past_streams,
            self.store,
            lambda: self.gate.engine.parts.directory,
            lambda: self.gate.engine.parts.kit.channel.stream_gap,
        )
        app.state.settings_at = partial(self.store.run, self.journal.settings_at)
        app.state.ledger = lambda ask, /, **about: self.store.run(partial(getattr(ledger, ask), **about))
        app.state.fetch_list = fetch
        cards = Cards(self._database)
        app.state.cards = lambda what, *about: self.store.run(getattr(cards, what), *about)
        directories = Directories(self.connectors)
        app.state.directories, app.state.look_for_person = directories.categories, directories.person
        people = People(self._database)
        app.state.people = lambda what, *about: self.store.run(getattr(people, what), *about)
        app.state.hooks = self.connectors
        app.state.joining = Joining(self.gate, self.connectors)
        app.state.known_platforms = sorted(KNOWN)
        app.state.connect = self.connect
        team = Team(self._database)
        app.state.team = lambda what, *about: self.store.run(getattr(team, what), *about)
        app.state.accounts = lambda what, *about: self.store.run(getattr(self.accounts, what), *about)
        app.state.accept_invitation = team.accept
        permissions = Permissions(team.moved())
        app.state.access = Access(self.accounts, self.store, permissions)

        async def move_permission(act: str, level: str) -> None:
            await self.store.run(team.move, act, None if level == NEEDED[act] else level)
            permissions.moved = await self.store.run(team.moved)
            self.hub.team_changed()

        app.state.move_permission = move_permission
        work: list[Coroutine[Any, Any, None]] = [
            self.gate.run(),
            self._copy_daily(),
            self._note_who_is_here(),
            self.gate.keep_time(),
            self.hub.run(),
            app.state.joining.know_itself(),
        ]
        tasks = [asyncio.create_task(_kept_alive(one)) for one in work]
        for connector in self.connectors.values():
            self._begin(connector)
        try:
            yield
        finally:
            of_platforms = [task for both in self._tasks.values() for task in both]
            for task in (*tasks[1:], *of_platforms):
                task.cancel()
            await self.gate.flush()
            tasks[0].cancel()
            await asyncio.gather(*tasks, *of_platforms, return_exceptions=True)
            for connector in self.connectors.values():
                await connector.close()
            self.store.close()
            self._database.close()


async def _kept_alive(work: Coroutine[Any, Any, None]) -> None:
    """A part that fails ends the whole gate, loudly: half a gate would be worse."""
    try:
        await work
    except asyncio.CancelledError:
        raise
    except BaseException:
        log.exception("service.part-failed")
        os.kill(os.getpid(), signal.SIGTERM)


def welcome_link(environment: Environment) -> str | None:
    """A one-time link for the broadcaster's account, where there is no account yet."""
    environment.data.mkdir(parents=True, exist_ok=True)
    database = Database(environment.database)
    try:
        accounts = Accounts(database)
        if accounts.all():
            return None
        key = secrets.token_urlsafe(24)
        accounts.put_welcome_key(hashed(key), time.time_ns() // 1000)
        return f"http://{environment.host}:{environment.port}/welcome?key={key}"
    finally:
        database.close()


def serve(environment: Environment) -> None:
    """Run until stopped."""
    structlog.configure(
        processors=[structlog.processors.TimeStamper(fmt="iso"), structlog.processors.KeyValueRenderer()]
    )
    logging.getLogger("uvicorn.error").addFilter(lambda record: "graceful shutdown" not in record.getMessage())
    service = Service(environment)
    app = build(lifespan=service.running, screens=SCREENS)
    config = uvicorn.Config(
        app,
        environment.host,
        environment.port,
        log_level="warning",
        timeout_graceful_shutdown=2,
        ws_ping_interval=20,
    )
    uvicorn.Server(config).run()
