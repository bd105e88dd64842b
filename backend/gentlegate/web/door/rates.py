"""How often anybody may ask: bounds for what costs, far above what a person does by hand."""

from __future__ import annotations

import hashlib
import re

from limits import RateLimitItem, RateLimitItemPerMinute, RateLimitItemPerSecond
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter
from starlette.requests import HTTPConnection

from gentlegate.web.problems import Refused

COSTLY = re.compile(
    r"/api/(try-out|commands/preview|rotas/(forecast|preview)|rules/(tuning|try|consequence)|ledger/section"
    r"|platforms/[^/]+/(check|test)|people/check)|/api/kits\b|/api/rules/feeds|\.csv$|/table$"
)
"""What is worked out or asked of others."""
HASHING = re.compile(r"/api/(session|join|welcome|password|second(/off)?)$")
"""What hashes a password or compares a code."""

READS = RateLimitItemPerSecond(400, 10, namespace="reads")
WRITES = RateLimitItemPerSecond(120, 10, namespace="writes")
WORKED_OUT = RateLimitItemPerSecond(60, 10, namespace="costly")
HASHED = RateLimitItemPerMinute(90, namespace="hashing")
FROM_ONE_PLACE = RateLimitItemPerSecond(4000, 10, namespace="place")
"""A whole team may sit behind one address; made-up cookies do not go beyond this."""


class Rates:
    """Moving windows by session, or by where one comes from while nobody is logged in."""

    def __init__(self) -> None:
        self._limiter = MovingWindowRateLimiter(MemoryStorage())

    def take(self, request: HTTPConnection, method: str, cookie: str | None) -> None:
        """Refused with 429 where this comes too often."""
        path = request.url.path
        if not path.startswith("/api/"):
            return
        host = request.client.host if request.client else "?"
        who = hashlib.sha256(cookie.encode()).hexdigest()[:16] if cookie else host
        self._count(FROM_ONE_PLACE, host)
        reading = method in ("GET", "HEAD")
        self._count(READS if reading else WRITES, who)
        if COSTLY.search(path):
            self._count(WORKED_OUT, who)
        if HASHING.search(path) and not reading:
            self._count(HASHED, host)

    def _count(self, limit: RateLimitItem, who: str) -> None:
        if not self._limiter.hit(limit, who):
            seconds = limit.get_expiry()
            detail = f"Too many requests at once. What you typed is kept; try again in {seconds} s."
            raise Refused(429, "too-many", detail)
