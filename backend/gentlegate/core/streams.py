"""When a stream begins, goes on and ends (spec page 2, *Live*), as a table of phase × event."""

from __future__ import annotations

from gentlegate.core.errors import LifecycleError
from gentlegate.core.events import StreamChange
from gentlegate.core.records import StreamRecord
from gentlegate.core.state import State

NEXT: dict[tuple[str, str], str] = {
    ("never", "on"): "live",
    ("never", "off"): "never",
    ("live", "on"): "live",
    ("live", "off"): "live",
    ("live", "last off"): "gap",
    ("gap", "on"): "live",
    ("gap", "off"): "gap",
    ("gap", "gap over"): "over",
    ("over", "on"): "live",
    ("over", "off"): "over",
}


_NEVER = StreamRecord()


class Streams:
    """The channel's stream over all its platforms. `gap` is `channel.stream_gap` in microseconds."""

    def __init__(self, state: State, gap: int) -> None:
        self._state = state
        self.gap = gap

    @property
    def now(self) -> StreamRecord:
        """Where it stands; read only."""
        return self._state.stream.get("stream") or _NEVER

    @property
    def live(self) -> bool:
        return self.now.phase == "live"

    def due(self) -> int | None:
        """When the gap is over, if one runs."""
        now = self.now
        return now.last_off + self.gap if now.phase == "gap" else None

    def change(self, event: StreamChange, now: int) -> bool:
        """Take in what a platform says; True when a stream begins."""
        self._note(event)
        live = [name for name in self.now.live if name != event.platform]
        if event.live:
            live = sorted([*live, event.platform])
        what = "on" if event.live else "last off" if self.now.phase == "live" and not live else "off"
        before = self._move(what)
        record = self._state.stream.edit("stream")
        record.live = live
        if what == "last off":
            record.last_off = now
        if what != "on" or before not in ("never", "over"):
            return False
        record.number += 1
        record.began = now
        return True

    def end_gap(self) -> None:
        self._move("gap over")

    def _move(self, what: str) -> str:
        record = self._state.stream.edit("stream")
        before = record.phase
        if (before, what) not in NEXT:
            raise LifecycleError("stream", before, what)
        record.phase = NEXT[before, what]
        return before

    def _note(self, event: StreamChange) -> None:
        record = self._state.platforms.edit(event.platform)
        if event.title is not None:
            record.title = event.title
        if event.category is not None:
            record.category = event.category
        if event.viewers is not None:
            record.viewers = event.viewers
