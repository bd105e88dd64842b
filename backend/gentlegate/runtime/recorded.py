"""Recorded streams and their usual pace, read from the store and remembered while nothing new is recorded."""

from __future__ import annotations

import asyncio
from collections import Counter
from collections.abc import Callable
from typing import Protocol

from gentlegate.core.events import StreamChange
from gentlegate.core.people.identity import Directory
from gentlegate.core.rotas.pace import Pace, usual
from gentlegate.core.rotas.recorded import Line, RecordedStream, counted, course_of, streams_of
from gentlegate.runtime.ports import StoreThread

STREAMS_FOR_PACE = 10
FOR_EVER = 2**62
Usual = tuple[Pace | None, dict[str, float], int]


class PastStreams(Protocol):
    def changes(self) -> list[StreamChange]: ...

    def lines(self, begin: int, end: int) -> list[Line]: ...


class Recorded:
    """`directory` says whose lines count, `gap` what ends a stream."""

    def __init__(
        self, past: PastStreams, store: StoreThread, directory: Callable[[], Directory], gap: Callable[[], int]
    ) -> None:
        self._past = past
        self._store = store
        self._directory = directory
        self._gap = gap
        self._lines: dict[int, list[Line]] = {}
        self._usual: tuple[tuple[object, ...], Usual] | None = None

    async def streams(self) -> list[RecordedStream]:
        """Every stream, oldest first."""
        return streams_of(await self._store.run(self._past.changes), self._gap())

    async def lines(self, stream: RecordedStream) -> list[tuple[int, str]]:
        """Moment and platform of the stream's lines that count."""
        found = self._lines.get(stream.began)
        if found is None:
            end = FOR_EVER if stream.ended is None else stream.ended
            found = await self._store.run(self._past.lines, stream.began, end)
            if stream.ended is not None:
                self._lines[stream.began] = found
        return await asyncio.to_thread(counted, found, self._directory())

    async def course(self, stream: RecordedStream) -> list[tuple[int, str | StreamChange]]:
        return course_of(stream, await self.lines(stream))

    async def usual(self) -> Usual:
        """The usual pace, how chat is spread over the platforms, and of how many streams that is."""
        ended = [stream for stream in await self.streams() if stream.ended is not None][-STREAMS_FOR_PACE:]
        about = (self._directory(), *ended)
        if self._usual is None or self._usual[0] != about:
            self._usual = (about, await self._worked_out(ended))
        return self._usual[1]

    async def _worked_out(self, ended: list[RecordedStream]) -> Usual:
        offsets: list[list[int]] = []
        spread: Counter[str] = Counter()
        for stream in ended:
            lines = await self.lines(stream)
            offsets.append([at - stream.began for at, _ in lines])
            spread.update(platform for _, platform in lines)
        total = spread.total()
        pace = await asyncio.to_thread(usual, offsets)
        return pace, {name: count / total for name, count in spread.items()}, len(ended)
