"""What a connector is: one platform's wire format on one side, the core's events and effects on the other."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal, Protocol

from gentlegate.core.errors import GateError
from gentlegate.core.events import Event
from gentlegate.core.platforms import Abilities

Lamp = Literal["connecting", "joined", "broken", "no rights"]


class NotPossible(GateError):
    """The platform will not do this, however often it is asked."""


class TryAgain(GateError):
    """The platform could not do this now; `after` says when to ask again, in seconds, if it was said."""

    def __init__(self, problem: str, after: float | None = None) -> None:
        super().__init__(problem)
        self.after = after


class BadHook(GateError):
    """A webhook that is not taken: `kind` is `forged`, `late`, `early`, `repeated` or `broken`."""

    def __init__(self, kind: str, problem: str) -> None:
        super().__init__(problem)
        self.kind = kind


@dataclass(frozen=True, slots=True)
class Rate:
    """At most `count` sends in any `seconds`."""

    count: int
    seconds: float


class Sink(Protocol):
    """Where a connector puts what it hears. `place` lets it go on from there after a restart."""

    def receive(self, event: Event, place: int | None) -> None: ...

    def lamp(self, platform: str, lamp: Lamp, note: str = "") -> None: ...


class Connector(Protocol):
    """`run` hears until it is cancelled and mends its own connection.

    `send` carries one effect out, or asks for one that is a question; it returns what the platform answered.
    """

    name: str
    abilities: Abilities
    rights_words: str
    """What the broadcaster types in the platform's chat to make the Gatekeeper a moderator."""
    rate: Rate

    async def run(self, sink: Sink, place: int | None) -> None: ...

    async def send(self, key: str, effect: dict[str, Any]) -> dict[str, Any] | None: ...

    async def check(self, sink: Sink) -> None:
        """Ask at once how things stand; what is found goes to the sink. TryAgain or NotPossible where it cannot."""

    async def account(self) -> str:
        """The Gatekeeper's own log-in there. TryAgain or NotPossible where it cannot be asked."""
        ...

    async def called(self) -> str:
        """What the Gatekeeper is called there now. TryAgain or NotPossible where it cannot be asked."""
        ...

    async def call(self, shown: str) -> str:
        """Give the Gatekeeper another shown name; what it is called then. NotPossible where the platform says no."""
        ...

    async def was_done(self, key: str) -> bool: ...

    async def close(self) -> None: ...
