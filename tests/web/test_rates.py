"""Bounds for what costs: each session its own, nobody else's."""

from __future__ import annotations

import unittest

from starlette.requests import Request

from gentlegate.web.door.rates import FROM_ONE_PLACE, HASHED, READS, WORKED_OUT, WRITES, Rates
from gentlegate.web.problems import Refused


def request(path: str, host: str = "10.0.0.1") -> Request:
    return Request({"type": "http", "path": path, "headers": [], "query_string": b"", "client": (host, 1), "server": ("gate", 80), "scheme": "http"})  # fmt: skip


class Bounds(unittest.TestCase):
    def taken(
        self, rates: Rates, path: str, method: str, cookie: str | None = "one", host: str = "10.0.0.1"
    ) -> int:
        """How many come through before one is refused, up to a thousand."""
        for count in range(1000):
            try:
                rates.take(request(path, host), method, cookie)
            except Refused as refused:
                self.assertEqual(refused.problem.status, 429)
                return count
        return 1000

    def test_reading_writing_working_out_and_hashing_each_have_their_own(self) -> None:
        for path, method, limit in (
            ("/api/commands", "GET", READS),
            ("/api/desk/count", "POST", WRITES),
            ("/api/rotas/forecast", "POST", WORKED_OUT),
            ("/api/quotes/table.csv", "GET", WORKED_OUT),
            ("/api/session", "POST", HASHED),
        ):
            with self.subTest(path):
                self.assertEqual(self.taken(Rates(), path, method), limit.amount)

    def test_one_who_asks_too_often_stops_nobody_else(self) -> None:
        rates = Rates()
        self.taken(rates, "/api/desk/count", "POST", "one")
        self.assertEqual(self.taken(rates, "/api/desk/count", "POST", "two"), WRITES.amount)
        self.assertEqual(self.taken(rates, "/api/desk/count", "POST", None, "10.0.0.2"), WRITES.amount)

    def test_made_up_cookies_are_bounded_by_where_they_come_from(self) -> None:
        rates = Rates()
        for number in range(FROM_ONE_PLACE.amount):
            rates.take(request("/api/commands"), "GET", f"cookie {number}")
        with self.assertRaises(Refused):
            rates.take(request("/api/commands"), "GET", "one more")
        rates.take(request("/api/commands", "10.0.0.2"), "GET", "one more")

    def test_hashing_is_bounded_by_where_it_comes_from_whatever_the_cookie(self) -> None:
        rates = Rates()
        for number in range(HASHED.amount):
            rates.take(request("/api/session"), "POST", f"cookie {number}")
        with self.assertRaises(Refused):
            rates.take(request("/api/join"), "POST", "another cookie")
        rates.take(request("/api/session", "10.0.0.9"), "POST", None)

    def test_pages_and_hooks_are_not_counted(self) -> None:
        for path in ("/", "/assets/a.js", "/hooks/plaza"):
            self.assertEqual(self.taken(Rates(), path, "POST"), 1000)
