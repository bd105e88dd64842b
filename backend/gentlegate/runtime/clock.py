"""The wall clock, never running backwards."""

from __future__ import annotations

import time


class Clock:
    """Moments in microseconds; `after` is the newest moment that is stored already."""

    def __init__(self, after: int = 0) -> None:
        self._last = after

    def now(self) -> int:
        self._last = max(self._last, time.time_ns() // 1000)
        return self._last
