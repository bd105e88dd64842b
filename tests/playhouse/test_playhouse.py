"""The stand-in platforms behave as their table says, over HTTP."""

from __future__ import annotations

import asyncio
import json
import unittest
from collections.abc import Awaitable, Callable
from typing import Any

import httpx

from playhouse import player
from playhouse.app import build
from playhouse.compose import calm, link_spam
from playhouse.house import Platform, Refusal

TOKEN = "let-me-in"
BROOK = {"Authorization": f"Bearer {TOKEN}"}
LANTERN = {"X-Lantern-Key": TOKEN}


class OverHttp(unittest.TestCase):
    def ask(self, work: Callable[[httpx.AsyncClient], Awaitable[None]]) -> None:
        async def run() -> None:
            app = build(dict.fromkeys(("brook", "lantern", "plaza"), TOKEN))
            transport = httpx.ASGITransport(app=app)
            async with httpx.AsyncClient(transport=transport, base_url="http://playhouse") as client:
                for platform in ("brook", "lantern"):
                    await client.post("/live", json={"platform": platform, "live": True, "title": "Bowls"})
                await work(client)

        asyncio.run(run())

    async def line(self, client: httpx.AsyncClient, platform: str, **fields: Any) -> httpx.Response:
        return await client.post("/type", json={"platform": platform, "login": "sam", "text": "hi"} | fields)

    def test_limits_and_lengths(self) -> None:
        async def work(client: httpx.AsyncClient) -> None:
            for status, path, headers, body in (
                (200, "/brook/say", BROOK, {"key": "1", "body": "x" * 480}),
                (422, "/brook/say", BROOK, {"key": "2", "body": "x" * 481}),
                (200, "/brook/channel", BROOK, {"key": "3", "title": "x" * 120}),
                (422, "/brook/channel", BROOK, {"key": "4", "title": "x" * 121}),
                (422, "/brook/people/u-sam/quiet", BROOK, {"key": "5", "seconds": 4}),
                (200, "/brook/people/u-sam/quiet", BROOK, {"key": "6", "seconds": 5}),
                (422, "/lantern/hush", LANTERN, {"key": "1", "who": "u-sam", "seconds": 61}),
                (422, "/lantern/post", LANTERN, {"key": "2", "words": "x" * 201}),
            ):
                with self.subTest(path=path, body=body):
                    self.assertEqual((await client.post(path, json=body, headers=headers)).status_code, status)

        self.ask(work)

    def test_the_rate_says_when_to_come_again(self) -> None:
        async def work(client: httpx.AsyncClient) -> None:
            first = await client.post("/lantern/post", json={"key": "1", "words": "a"}, headers=LANTERN)
            second = await client.post("/lantern/post", json={"key": "2", "words": "b"}, headers=LANTERN)
            self.assertEqual((first.status_code, second.status_code), (200, 429))
            self.assertGreater(float(second.headers["Retry-After"]), 0)

        self.ask(work)

    def test_a_key_counts_once(self) -> None:
        async def work(client: httpx.AsyncClient) -> None:
            for _ in range(3):
                await client.post("/brook/say", json={"key": "same", "body": "once"}, headers=BROOK)
            lines = (await client.get("/lines/brook")).json()
            self.assertEqual([line["text"] for line in lines], ["once"])
            self.assertEqual((await client.get("/brook/acts/same", headers=BROOK)).json(), {"done": True})
            self.assertEqual((await client.get("/brook/acts/other", headers=BROOK)).json(), {"done": False})

        self.ask(work)

    def test_lanterns_page_is_there_only_while_live_and_goes_by_the_cursor(self) -> None:
        async def work(client: httpx.AsyncClient) -> None:
            cursor = (await client.get("/lantern/page", headers=LANTERN)).json()["cursor"]
            await self.line(client, "lantern", text="one")
            page = (await client.get("/lantern/page", headers=LANTERN, params={"cursor": cursor})).json()
            self.assertEqual([entry["words"] for entry in page["entries"]], ["one"])
            again = await client.get("/lantern/page", headers=LANTERN, params={"cursor": page["cursor"]})
            self.assertEqual(again.json()["entries"], [])
            await client.post("/live", json={"platform": "lantern", "live": False})
            self.assertEqual((await client.get("/lantern/page", headers=LANTERN)).status_code, 404)

        self.ask(work)

    def test_who_is_shut_out_cannot_speak_until_freed(self) -> None:
        async def work(client: httpx.AsyncClient) -> None:
            await client.post("/brook/people/u-sam/ban", json={"key": "1"}, headers=BROOK)
            self.assertEqual((await self.line(client, "brook")).status_code, 403)
            await client.post("/brook/people/u-sam/free", json={"key": "2"}, headers=BROOK)
            self.assertEqual((await self.line(client, "brook")).status_code, 200)

        self.ask(work)

    def test_without_rights_nothing_is_moderated(self) -> None:
        async def work(client: httpx.AsyncClient) -> None:
            id = (await self.line(client, "brook")).json()["id"]
            await client.post("/trouble", json={"platform": "brook", "rights": False})
            answer = await client.post(f"/brook/lines/{id}/delete", json={"key": "1"}, headers=BROOK)
            self.assertEqual(
                (answer.status_code, answer.json()["reason"]), (403, "the Gatekeeper is no moderator here")
            )

        self.ask(work)

    def test_unknown_platforms_and_evenings_are_said(self) -> None:
        async def work(client: httpx.AsyncClient) -> None:
            self.assertEqual((await self.line(client, "creek")).status_code, 404)
            answer = await client.post("/evening", json={"name": "wild"})
            self.assertEqual(answer.status_code, 404)
            self.assertIn("calm", answer.json()["reason"])

        self.ask(work)

    def test_an_evening_plays_on_all_platforms(self) -> None:
        async def work(client: httpx.AsyncClient) -> None:
            await client.post("/evening", json={"name": "calm", "speed": 60, "quick_start": 60})
            async with asyncio.timeout(10):
                counts = [0]
                while not all(counts):
                    await asyncio.sleep(0.01)
                    names = ("brook", "lantern", "plaza")
                    counts = [len((await client.get(f"/lines/{name}")).json()) for name in names]
            self.assertEqual((await client.post("/evening/stop")).json(), {"evening": None})

        self.ask(work)


class Evenings(unittest.TestCase):
    def test_what_ships_is_what_is_composed(self) -> None:
        for name, evening in (("calm", calm()), ("link-spam", link_spam())):
            with self.subTest(name):
                shipped = [line for _, line in player.load(name)]
                composed = list(evening.write())
                self.assertEqual([json.loads(line) for line in composed], shipped)
                self.assertGreater(len(shipped), 500)

    def test_times_never_run_backwards(self) -> None:
        for name in player.names():
            times = [at for at, _ in player.load(name)]
            self.assertEqual(times, sorted(times))

    def test_an_unknown_evening(self) -> None:
        with self.assertRaises(Refusal):
            player.load("wild")


class Numbers(unittest.TestCase):
    def test_they_grow_over_restarts(self) -> None:
        first, second = (Platform("brook", "t", (1, 1), (1, 1)) for _ in range(2))
        first.say("sam", "hi")
        self.assertGreaterEqual(second.n + 1, first.n - 1)
        self.assertEqual(first.uid("Sam"), second.uid("sam"))
