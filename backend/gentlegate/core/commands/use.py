"""One use of a command in chat."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from gentlegate.core.effects import Cause
from gentlegate.core.events import Message, Person


@dataclass(frozen=True, slots=True)
class Use:
    """Who used what, with which words after it; `identity` is shared by linked accounts."""

    message: Message
    name: str
    args: str
    identity: str
    level: int
    now: int
    kind: Literal["command", "cue"] = "command"

    @property
    def person(self) -> Person:
        return self.message.person

    @property
    def cause(self) -> Cause:
        return Cause(self.kind, self.name, self.message.id)
