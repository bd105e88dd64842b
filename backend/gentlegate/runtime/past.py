"""The lines of the last streams, as the Rules room looks at them; read from the store when asked for."""

from __future__ import annotations

from collections import deque
from typing import Protocol

from gentlegate.core.events import Message
from gentlegate.runtime.ports import StoreThread

LINES = 5_000


class Messages(Protocol):
    def recent_messages(self, count: int, after: int = 0) -> list[tuple[int, Message, int]]: ...


class Past:
    def __init__(self, journal: Messages, store: StoreThread) -> None:
        self._journal = journal
        self._store = store
        self._lines: deque[Message] = deque(maxlen=LINES)
        self._newest = 0

    def forget(self) -> None:
        """Read everything anew: something stored was changed."""
        self._lines.clear()
        self._newest = 0

    async def lines(self) -> list[Message]:
        """The newest lines, oldest first; only what came since the last time is read."""
        found = await self._store.run(self._journal.recent_messages, LINES, self._newest)
        for seq, message, _ in found:
            if seq > self._newest:
                self._newest = seq
                self._lines.append(message)
        return list(self._lines)
