"""What the rotas see: the engine's parts, or what a forecast imagines."""

from __future__ import annotations

from typing import Any, Protocol

from gentlegate.core.kit.model import Kit
from gentlegate.core.platforms import Abilities
from gentlegate.core.records import StreamRecord
from gentlegate.core.state import State


class Stream(Protocol):
    @property
    def now(self) -> StreamRecord: ...


class Surroundings(Protocol):
    @property
    def kit(self) -> Kit: ...
    @property
    def state(self) -> State: ...
    @property
    def streams(self) -> Stream: ...

    def platform_names(self) -> list[str]: ...
    def abilities(self, platform: str) -> Abilities: ...
    def chance(self, *about: Any) -> Any: ...


def counts(state: State) -> dict[str, int]:
    """Where each platform's count of lines stands."""
    return {platform: record.count for platform, record in state.lines.items()}
