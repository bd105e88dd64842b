"""What something costs, as a ratio to something else measured in the same breath; the machine may be busy."""

from __future__ import annotations

import time
from collections.abc import Callable

Work = Callable[[], object]
ATTEMPTS = 6


def _taken(work: Work) -> float:
    begun = time.thread_time()
    work()
    return max(time.thread_time() - begun, 1e-7)


def ratio(work: Work, to: Work, most: float, rounds: int = 7) -> float:
    """How many times `to` the work costs: the two take turns and the quickest of each counts.

    A machine that others use may slow one of them down; so while it is over `most`, it is measured anew, six times
    in all, and the smallest ratio is given.
    """
    found = float("inf")
    for _ in range(ATTEMPTS):
        pairs = [(_taken(work), _taken(to)) for _ in range(rounds)]
        found = min(found, min(one for one, _ in pairs) / min(other for _, other in pairs))
        if found < most:
            break
    return found
