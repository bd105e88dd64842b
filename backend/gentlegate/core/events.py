"""What comes in: one frozen class for each kind of chat-log line (spec page 2). Moments are microseconds."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

EVERYONE, FOLLOWER, REGULAR, SUBSCRIBER, VIP, MODERATOR, LEAD, BROADCASTER = range(8)
LEVELS = ("everyone", "follower", "regular", "subscriber", "vip", "moderator", "lead", "broadcaster")


@dataclass(frozen=True, slots=True)
class Person:
    """Somebody on one platform, as that platform describes them."""

    platform: str
    id: str
    login: str
    name: str
    badges: frozenset[str] = frozenset()
    follows_since: int | None = None
    account_since: int | None = None
    key: str = field(init=False, compare=False, repr=False)
    """`platform:id`, the way a person is written where one string is needed."""

    def __post_init__(self) -> None:
        object.__setattr__(self, "key", f"{self.platform}:{self.id}")


@dataclass(frozen=True, slots=True)
class Message:
    at: int
    platform: str
    id: str
    person: Person
    text: str
    emotes: tuple[tuple[int, int], ...] = ()
    """Spans `[start, end)` in code points of `text`, in order."""
    action: bool = False
    reply_to: str | None = None


@dataclass(frozen=True, slots=True)
class StreamChange:
    at: int
    platform: str
    live: bool
    title: str | None = None
    category: str | None = None
    viewers: int | None = None


@dataclass(frozen=True, slots=True)
class Happening:
    at: int
    platform: str
    what: str
    person: Person
    amount: float | None = None
    text: str | None = None


@dataclass(frozen=True, slots=True)
class Removal:
    """A person other than the gate removed a message on the platform itself."""

    at: int
    platform: str
    message: str


@dataclass(frozen=True, slots=True)
class Answer:
    """What a platform answered to an ask; `problem` where it could not."""

    at: int
    ask: int
    platform: str
    found: Any = None
    problem: str | None = None


@dataclass(frozen=True, slots=True)
class DeskAct:
    """An act at the Desk: `do` names it, `values` are its own fields."""

    at: int
    by: str
    do: str
    values: Mapping[str, Any] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Tick:
    at: int


Event = Message | StreamChange | Happening | Removal | Answer | DeskAct | Tick
