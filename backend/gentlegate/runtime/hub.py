"""To the screens: a numbered snapshot, then numbered frames of changes, at most one in 50 ms.

A screen that sees a gap in the numbers asks again; one that cannot keep up is sent a new snapshot instead of an ever
longer queue.
"""

from __future__ import annotations

import asyncio
from collections.abc import Callable
from typing import Any

import orjson

from gentlegate.runtime.screen import Change, Screen

FRAME_EVERY = 0.05
LONGEST_QUEUE = 40


class Seat:
    """One screen's place in the hub."""

    def __init__(self, name: str, account: int = 0, session: str = "") -> None:
        self.name = name
        self.account = account
        self.session = session
        self.editing: tuple[str, ...] = ()
        """The places in the settings that hold something unsaved there."""
        self.dismissed = asyncio.Event()
        self.queue: asyncio.Queue[bytes | None] = asyncio.Queue(LONGEST_QUEUE)
        self.behind = True

    def put(self, frame: bytes) -> None:
        if self.behind:
            return
        try:
            self.queue.put_nowait(frame)
        except asyncio.QueueFull:
            self.again()

    def again(self) -> None:
        """Forget what is queued; a snapshot comes next."""
        self.behind = True
        while not self.queue.empty():
            self.queue.get_nowait()
        self.queue.put_nowait(None)


class Hub:
    def __init__(self, screen: Screen, now: Callable[[], int]) -> None:
        self._screen = screen
        self._now = now
        self._seats: set[Seat] = set()
        self._number = 0
        self._wake = asyncio.Event()

    def changed(self) -> None:
        """Something on the screen may have changed."""
        self._wake.set()

    def sit(self, name: str, account: int = 0, session: str = "") -> Seat:
        seat = Seat(name, account, session)
        self._seats.add(seat)
        seat.queue.put_nowait(None)
        self._presence()
        return seat

    def leave(self, seat: Seat) -> None:
        self._seats.discard(seat)
        self._presence()

    def edits(self, seat: Seat, places: tuple[str, ...]) -> None:
        """Somebody has begun to change these places, and no others, without having saved."""
        if seat.editing != places:
            seat.editing = places
            self._presence()

    def accounts(self) -> set[int]:
        """The accounts that have a screen open."""
        return {seat.account for seat in self._seats}

    def screens_of(self, account: int) -> int:
        """How many screens an account has open."""
        return sum(seat.account == account for seat in self._seats)

    def show_anew(self) -> None:
        """Send every screen a new snapshot: something is gone that frames cannot take away."""
        for seat in self._seats:
            seat.again()

    def dismiss(self, account: int, session: str | None = None, but: str | None = None) -> None:
        """Close an account's screens at once, or those of one session, or all `but` one's; who may comes in anew."""
        for seat in self._seats:
            if seat.account == account and session in (None, seat.session) and seat.session != but:
                seat.dismissed.set()
        self.team_changed()

    def team_changed(self) -> None:
        """Somebody may do something else now; every screen asks anew."""
        self._screen.team_changed()
        self.changed()

    def _presence(self) -> None:
        self._screen.present((seat.name, seat.editing) for seat in self._seats)
        self.changed()

    async def run(self) -> None:
        while True:
            await self._wake.wait()
            self._wake.clear()
            self._send(self._screen.take(self._now()))
            await asyncio.sleep(FRAME_EVERY)

    def _send(self, changes: list[Change]) -> None:
        if not changes:
            return
        self._number += 1
        frame = orjson.dumps({"number": self._number, "changes": changes})
        for seat in self._seats:
            seat.put(frame)

    def snapshot(self, seat: Seat) -> bytes:
        """Everything as it is now; the frames that follow carry the next numbers."""
        self._send(self._screen.take(self._now()))
        seat.behind = False
        return orjson.dumps({"number": self._number, "snapshot": self._screen.snapshot(), "now": self._now()})

    async def next_frame(self, seat: Seat) -> bytes:
        frame = await seat.queue.get()
        while frame is None and not seat.queue.empty():
            frame = seat.queue.get_nowait()
        return self.snapshot(seat) if frame is None or seat.behind else frame

    def facts(self) -> dict[str, Any]:
        return {"screens": len(self._seats), "frames": self._number}
