"""Tries at what only the right one opens, such as a log-in: after a few wrong ones within a minute, the door waits.

A try counts as wrong from its beginning until it is known to be right, so that many at the same moment are bounded like
many after each other. The bounds are told apart by where one comes from: wrong tries from elsewhere keep nobody out.
"""

from __future__ import annotations

import time
from collections import deque
from collections.abc import Callable

from gentlegate.web.problems import Refused

WITHIN = 60.0
"""Seconds that a wrong try counts."""
BY_ONE, FROM_ONE_PLACE, ABOUT_ONE = 5, 20, 60
"""Wrong tries at one thing from one place; at anything from one place; at one thing from anywhere."""
MOST_KEPT = 20_000
"""So many doors are remembered; beyond it those that nobody tried lately are forgotten first."""


class Try:
    """A try under way."""

    def __init__(self, counts: list[deque[float]], at: float) -> None:
        self._counts = counts
        self._at = at

    def right(self) -> None:
        """It was right and does not count."""
        for times in self._counts:
            if self._at in times:
                times.remove(self._at)


class Tries:
    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._clock = clock
        self._times: dict[str, deque[float]] = {}

    def begin(self, about: str, place: str) -> Try:
        """A try at `about` by somebody at `place`. Refused with 429 where too many were wrong."""
        now = self._clock()
        self._forget(now)
        bounds = {f"{about}\n{place}": BY_ONE, f"\n{place}": FROM_ONE_PLACE, about: ABOUT_ONE}
        counts = [self._lately(key, now) for key in bounds]
        if any(len(times) >= most for times, most in zip(counts, bounds.values(), strict=True)):
            raise Refused(429, "too-many-tries", "Too many wrong tries. Try again in a minute.", "password")
        for times in counts:
            times.append(now)
        return Try(counts, now)

    def _lately(self, key: str, now: float) -> deque[float]:
        times = self._times.setdefault(key, deque())
        while times and times[0] <= now - WITHIN:
            times.popleft()
        return times

    def _forget(self, now: float) -> None:
        if len(self._times) > MOST_KEPT:
            self._times = {key: times for key, times in self._times.items() if times and times[-1] > now - WITHIN}
