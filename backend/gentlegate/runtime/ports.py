"""What the shell needs from outside, as the parts that `main` hands in."""

from __future__ import annotations

import asyncio
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from typing import Any, Protocol, TypeVar

from gentlegate.core.journal import Entry, StateChange, Waiting
from gentlegate.core.platforms import Abilities

T = TypeVar("T")


class Journal(Protocol):
    def write(
        self, entries: list[Entry], state: list[StateChange], document: tuple[int, str, dict[str, Any]] | None
    ) -> None: ...

    def waiting(self, platform: str) -> list[Waiting]: ...

    def mark(self, number: int, status: str, now: int, note: str | None = None) -> None: ...


class Connector(Protocol):
    @property
    def name(self) -> str: ...
    @property
    def abilities(self) -> Abilities: ...
    @property
    def rights_words(self) -> str: ...
    @property
    def rate(self) -> Any: ...

    async def run(self, sink: Any, place: int | None) -> None: ...

    async def send(self, key: str, effect: dict[str, Any]) -> dict[str, Any] | None: ...

    async def check(self, sink: Any) -> None: ...

    async def account(self) -> str: ...

    async def called(self) -> str: ...

    async def call(self, shown: str) -> str: ...

    async def was_done(self, key: str) -> bool: ...

    async def close(self) -> None: ...


class StoreThread:
    """The one thread in which the database is used."""

    def __init__(self) -> None:
        self._pool = ThreadPoolExecutor(1, thread_name_prefix="store")

    async def run(self, work: Callable[..., T], *args: Any) -> T:
        return await asyncio.get_running_loop().run_in_executor(self._pool, work, *args)

    def close(self) -> None:
        self._pool.shutdown(wait=True)
