"""How far the Gatekeeper has come on each platform: from being let in to a reply that came back."""

from __future__ import annotations

import asyncio
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import structlog

from gentlegate.core.errors import ActError, GateError
from gentlegate.core.events import Message, Person
from gentlegate.core.team import Account
from gentlegate.runtime.gate import LET_IN, THE_GATE, Gate
from gentlegate.runtime.ports import Connector

Step = Literal["authorised", "joined", "rights", "live", "heard", "answered"]
STEPS: tuple[Step, ...] = ("authorised", "joined", "rights", "live", "heard", "answered")
BACK_WITHIN = 8.0
log = structlog.get_logger()


@dataclass(frozen=True, slots=True)
class Standing:
    """The steps that are done on a platform; `lamp` and `note` say how its connection stands."""

    platform: str
    done: frozenset[Step]
    lamp: str
    note: str
    rights_words: str


@dataclass(frozen=True, slots=True)
class Came:
    """A test reply as it came back: who said it there, and whether that is known to be the Gatekeeper."""

    seconds: float
    person: str
    name: str
    known: bool


class Joining:
    def __init__(self, gate: Gate, connectors: Mapping[str, Connector]) -> None:
        self._gate = gate
        self._connectors = connectors
        self._answered: set[str] = set()

    async def know_itself(self) -> None:
        """List the Gatekeeper's own account on every platform that lets it in, so that it never judges itself."""
        known: dict[str, Connector] = {}
        async for platform in self._gate.let_in():
            connector = self._connectors[platform]
            if known.get(platform) is connector:
                continue
            try:
                await self._list_itself(platform, await connector.account())
                known[platform] = connector
            except (GateError, LookupError) as error:
                # A platform that does not say it is no reason to stop: Setup asks for it after a test reply.
                log.warning("joining.account", platform=platform, problem=repr(error))

    async def _list_itself(self, platform: str, login: str) -> None:
        directory = self._gate.engine.parts.directory
        if not directory.holds(directory.gatekeeper, Person(platform, "", login, login)):
            listed = [f"{platform}:@{login.casefold()}"]
            why = f"the account that {platform.capitalize()} lets in"
            await self._gate.act(THE_GATE, "setting", why=why, path="channel.gatekeeper", add=listed)

    def standing(self, platform: str) -> Standing:
        lamp, note = self._gate.screen.lamp_of(platform)
        parts = self._gate.engine.parts
        let_in = lamp in LET_IN
        done: set[Step] = {"authorised", "joined"} if let_in else set()
        if lamp == "joined":
            done.add("rights")
        if let_in and platform in parts.streams.now.live:
            done.add("live")
        if any(key.startswith(f"{platform}:") for key, _ in parts.state.accounts.items()):
            done.add("heard")
        if platform in self._answered or self._gate.screen.spoke_on(platform):
            done.add("answered")
        return Standing(platform, frozenset(done), lamp, note, self._connectors[platform].rights_words)

    def all(self) -> list[Standing]:
        return [self.standing(platform) for platform in sorted(self._connectors)]

    def connector(self, platform: str) -> Connector:
        """ActError where no such platform is connected."""
        if platform not in self._connectors:
            raise ActError(f'no platform "{platform}" is connected', "platform")
        return self._connectors[platform]

    async def check(self, platform: str) -> Standing:
        """Ask the platform at once how things stand."""
        connector = self.connector(platform)
        try:
            await connector.check(self._gate)
        except Exception as error:
            self._gate.lamp(platform, "broken", str(error))
        return self.standing(platform)

    async def test(self, account: Account, platform: str) -> Came | None:
        """Say something there and wait for it to come back; None where it does not. ActError where it cannot be said."""
        self.connector(platform)
        parts = self._gate.engine.parts
        if platform not in parts.streams.now.live and not parts.abilities(platform).offline_chat:
            raise ActError(f"{platform.capitalize()} has no chat while it is offline", "platform")
        text = f"Test by {account.name}: the gate can be read here."
        loop = asyncio.get_running_loop()
        came: asyncio.Future[Message] = loop.create_future()

        def hear(message: Message) -> None:
            if message.platform == platform and message.text == text and not came.done():
                came.set_result(message)

        begun = loop.time()
        self._gate.hearers.add(hear)
        try:
            await self._gate.act(account, "say", text=text, platforms=[platform])
            message = await asyncio.wait_for(came, BACK_WITHIN)
        except TimeoutError:
            return None
        finally:
            self._gate.hearers.discard(hear)
        self._answered.add(platform)
        directory = self._gate.engine.parts.directory
        known = directory.holds(directory.gatekeeper, message.person)
        key = f"{platform}:@{message.person.login.casefold()}"
        return Came(max(round(loop.time() - begun, 1), 0.1), key, message.person.name, known)
