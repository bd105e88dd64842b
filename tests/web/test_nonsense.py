"""Nonsense at every door: a clear refusal that says where, nothing changed, and never a fault."""

from __future__ import annotations

import json
import unittest
from collections.abc import Iterator
from typing import Any, ClassVar

import httpx
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.support.world import World

JSON = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False) | st.text(max_size=20),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner, max_size=3),
    max_leaves=6,
)
NOT_TRIED = {("delete", "/api/session"), ("post", "/api/session"), ("post", "/api/platforms/{platform}/test")}
"""Logging out and in, which would end the trying; and what waits for an answer from outside."""
FILLED = {
    "{number}": "999",
    "{id}": "999",
    "{filter}": "links",
    "{key}": "links",
    "{section}": "channel",
    "{card}": "shoutout",
}


def setUpModule() -> None:
    Nonsense.world = World().start()


def tearDownModule() -> None:
    Nonsense.world.stop()


class Nonsense(unittest.TestCase):
    world: ClassVar[World]
    client: ClassVar[httpx.Client]
    doors: ClassVar[list[tuple[str, str, list[str]]]]

    @classmethod
    def setUpClass(cls) -> None:
        cls.client = cls.world.client("odalys")
        cls.doors = list(cls.with_bodies(cls.client.get("/api/openapi.json").json()))

    @classmethod
    def tearDownClass(cls) -> None:
        cls.client.close()

    @staticmethod
    def with_bodies(document: dict[str, Any]) -> Iterator[tuple[str, str, list[str]]]:
        """Method, address and the body's fields of every route that takes one."""
        for path, methods in document["paths"].items():
            for method, route in methods.items():
                content = route.get("requestBody", {}).get("content", {}).get("application/json")
                if not content or (method, path) in NOT_TRIED or not path.startswith("/api/"):
                    continue
                schema = content["schema"]
                name = schema.get("$ref", "").rpartition("/")[2]
                fields = document["components"]["schemas"].get(name, {}).get("properties", {})
                address = path
                for field, value in FILLED.items():
                    address = address.replace(field, value)
                address = "/".join("nobody" if part.startswith("{") else part for part in address.split("/"))
                yield method, address, list(fields)

    def settings_now(self) -> list[tuple[Any, ...]]:
        return self.world.rows("SELECT max(revision) FROM settings")

    def try_one(self, method: str, address: str, body: Any) -> int:
        answer = self.client.request(method, address, content=json.dumps(body).encode(), headers={"Content-Type": "application/json"})  # fmt: skip
        self.assertLess(answer.status_code, 500, f"{method} {address} {body!r}: {answer.text[:300]}")
        if answer.status_code >= 400:
            problem = answer.json()
            self.assertTrue(problem["detail"], f"{method} {address} {body!r}")
            self.assertEqual(answer.headers["content-type"], "application/problem+json")
        return answer.status_code

    def test_what_is_no_object_and_what_has_unknown_fields(self) -> None:
        before = self.settings_now()
        self.assertGreater(len(self.doors), 50)
        for method, address, _ in self.doors:
            for body in ([], "text", 7, None, {"no_such_field": 1}):
                with self.subTest(door=f"{method} {address}", body=body):
                    self.assertIn(self.try_one(method, address, body), (403, 422, 429))
        self.assertEqual(self.settings_now(), before)

    @settings(max_examples=250, derandomize=True, deadline=None, suppress_health_check=list(HealthCheck))
    @given(st.data())
    def test_known_fields_with_values_of_any_kind(self, data: st.DataObject) -> None:
        method, address, fields = data.draw(st.sampled_from(self.doors))
        body = data.draw(st.fixed_dictionaries({}, optional=dict.fromkeys(fields, JSON)) if fields else st.just({}))
        self.try_one(method, address, body)
