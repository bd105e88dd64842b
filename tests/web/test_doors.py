"""Every door by every level and by nobody: routes, the socket and what a screen says on it; and what is bounded."""

from __future__ import annotations

import asyncio
import contextlib
import json
import unittest
from collections.abc import Awaitable, Callable
from http.client import HTTPConnection
from typing import Any, ClassVar

import httpx
from websockets.asyncio.client import connect
from websockets.exceptions import ConnectionClosed, InvalidStatus

from gentlegate.demo.prepare import PASSWORD
from gentlegate.web.desk.acts import MOST_SCREENS, TOO_MANY_SCREENS
from tests.support.team import add_account
from tests.support.world import World

NOBODY, VIEWER, MODERATOR, LEAD, BROADCASTER = range(5)
LEVELS = (None, "ivy", "bram", "odalys", "marlo")
"""Who has each of these levels."""

DOORS: list[tuple[str, str, Any, int]] = [
    ("GET", "/api/session", None, VIEWER),
    ("GET", "/api/commands", None, VIEWER),
    ("POST", "/api/commands/preview", {"reply": "hi"}, VIEWER),
    ("PUT", "/api/commands/door", {"command": {"name": "door", "reply": "x"}, "revision": None}, LEAD),
    ("DELETE", "/api/commands/door", None, LEAD),
    (
        "PUT",
        "/api/cues/door",
        {"command": {"name": "door", "hears": ["door"], "reply": "x"}, "revision": None},
        LEAD,
    ),
    ("DELETE", "/api/cues/door", None, LEAD),
    ("GET", "/api/commands/door/history", None, VIEWER),
    ("POST", "/api/commands/several", {"names": ["door"], "on": True}, LEAD),
    ("GET", "/api/cues/door/history", None, VIEWER),
    ("PUT", "/api/built-ins/uptime", {"setting": {}, "revision": "none"}, LEAD),
    ("GET", "/api/built-ins/uptime/history", None, VIEWER),
    ("GET", "/api/kits", None, VIEWER),
    ("POST", "/api/kits/export", {}, LEAD),
    ("GET", "/api/kits/commands.csv", None, LEAD),
    ("POST", "/api/kits/preview", {"text": "{}"}, LEAD),
    ("POST", "/api/kits/take", {"text": "{}", "name": "door", "picks": [{"place": "ladder"}]}, LEAD),
    ("POST", "/api/kits/take-back", {"number": 999}, LEAD),
    ("POST", "/api/cues/heard", {"command": {"hears": ["hello"]}}, VIEWER),
    ("GET", "/api/sections/channel", None, VIEWER),
    ("PUT", "/api/sections/channel", {"values": {}, "revision": "none"}, LEAD),
    ("GET", "/api/counters", None, VIEWER),
    ("GET", "/api/counters/door/steps", None, VIEWER),
    ("PUT", "/api/counters/door", {"command": {"name": "door"}, "revision": None}, LEAD),
    ("DELETE", "/api/counters/door", None, LEAD),
    ("GET", "/api/ledger", None, MODERATOR),
    ("GET", "/api/ledger/filters", None, MODERATOR),
    ("POST", "/api/ledger/999/undo", None, MODERATOR),
    ("GET", "/api/platforms", None, VIEWER),
    ("POST", "/api/platforms/harbour/check", None, MODERATOR),
    ("POST", "/api/platforms/harbour/test", None, MODERATOR),
    ("PUT", "/api/platforms/harbour", {"address": "http://x.test", "token": "t"}, BROADCASTER),
    ("POST", "/api/platforms/harbour/gatekeeper", {"person": "brook:@x"}, BROADCASTER),
    ("GET", "/api/team", None, VIEWER),
    ("POST", "/api/team/invitations", {"level": "viewer"}, LEAD),
    ("DELETE", "/api/team/invitations/999", None, LEAD),
    ("PUT", "/api/team/accounts/nobody", {"level": "viewer"}, BROADCASTER),
    ("DELETE", "/api/team/accounts/nobody", None, BROADCASTER),
    ("PUT", "/api/team/permissions/door", {"level": "lead"}, BROADCASTER),
    ("DELETE", "/api/team/accounts/nobody/second", None, BROADCASTER),
    ("POST", "/api/second", {"password": PASSWORD}, VIEWER),
    ("PUT", "/api/second", {"code": "000000"}, VIEWER),
    ("POST", "/api/second/off", {"code": "000000"}, VIEWER),
    ("GET", "/api/sessions", None, VIEWER),
    ("DELETE", "/api/sessions/999", None, VIEWER),
    ("GET", "/api/rotas", None, VIEWER),
    ("PUT", "/api/rotas/door", {"rota": {"name": "door"}, "revision": None}, LEAD),
    ("DELETE", "/api/rotas/door", None, LEAD),
    ("GET", "/api/rotas/door/history", None, VIEWER),
    ("POST", "/api/rotas/door/pause", {"paused": True}, MODERATOR),
    ("POST", "/api/rotas/door/next", None, MODERATOR),
    ("POST", "/api/rotas/try", {"rota": "door", "notice": {"text": "hello"}}, MODERATOR),
    ("POST", "/api/rotas/forecast", {}, VIEWER),
    ("GET", "/api/rotas/notices.ics", None, VIEWER),
    ("GET", "/api/rotas/posts.csv", None, VIEWER),
    ("GET", "/api/quotes", None, VIEWER),
    ("POST", "/api/quotes", {"text": "Clay remembers."}, MODERATOR),
    ("DELETE", "/api/quotes/999", None, MODERATOR),
    ("POST", "/api/quotes/999/restore", None, MODERATOR),
    ("GET", "/api/quotes/table.csv", None, VIEWER),
    ("POST", "/api/quotes/table", {"text": "text"}, MODERATOR),
    ("GET", "/api/stage", None, LEAD),
    ("PUT", "/api/stage/shoutout/style", {"style": {}, "revision": "none"}, LEAD),
    ("POST", "/api/stage/shoutout/key", None, LEAD),
    ("GET", "/api/stream/categories?name=glaze", None, VIEWER),
    ("POST", "/api/stream/category", {"category": "Glaze lab", "platforms": ["brook"]}, MODERATOR),
    ("POST", "/api/stream/shoutout", {"name": "wickerworks"}, MODERATOR),
    ("POST", "/api/stream/marker", {"note": "here"}, MODERATOR),
    ("POST", "/api/stream/clip", {}, MODERATOR),
    ("POST", "/api/stream/ad", {"platform": "brook", "seconds": 1}, MODERATOR),
    ("POST", "/api/stream/raid", {"name": "nobody_at_all"}, LEAD),
    ("DELETE", "/api/stream/raid", None, MODERATOR),
    ("POST", "/api/stream/arrivals/forget", {}, MODERATOR),
    ("GET", "/api/stream/markers", None, VIEWER),
    ("GET", "/api/stream/markers.csv", None, VIEWER),
    ("GET", "/api/stream/chapters.txt", None, VIEWER),
    ("GET", "/api/rules", None, VIEWER),
    ("PUT", "/api/rules/mood", {"mood": "parlour"}, LEAD),
    ("PUT", "/api/rules/mood", {"mood": "parlour", "tonight": True}, MODERATOR),
    ("PUT", "/api/rules/filters/links", {"values": {}}, LEAD),
    ("PUT", "/api/rules/filters/links", {"values": {}, "tonight": True}, MODERATOR),
    ("GET", "/api/rules/lists/links/allowed", None, VIEWER),
    ("POST", "/api/rules/lists/links/allowed", {}, LEAD),
    ("POST", "/api/rules/lists/links/allowed", {"tonight": True}, MODERATOR),
    ("POST", "/api/rules/feeds", {"name": "door"}, LEAD),
    ("POST", "/api/rules/feeds/door/again", None, LEAD),
    ("DELETE", "/api/rules/feeds/door", None, LEAD),
    ("POST", "/api/try-out", {"text": "hi"}, VIEWER),
    ("POST", "/api/rules/tuning", {"filter": "capitals", "field": "share"}, VIEWER),
    ("POST", "/api/rules/try", {"text": "hi"}, VIEWER),
    ("POST", "/api/rules/consequence", {"filter": "links"}, VIEWER),
    ("POST", "/api/desk/undo", {"platform": "brook", "message": "none"}, MODERATOR),
    ("POST", "/api/desk/remove", {"platform": "brook", "message": "none"}, MODERATOR),
    ("POST", "/api/desk/timeout", {"platform": "brook", "message": "none", "seconds": 60}, MODERATOR),
    ("POST", "/api/desk/ban", {"platform": "brook", "message": "none"}, MODERATOR),
    ("POST", "/api/desk/people/timeout", {"person": "brook:u-nobody", "seconds": 5}, MODERATOR),
    ("POST", "/api/desk/people/ban", {"person": "brook:"}, MODERATOR),
    ("POST", "/api/desk/people/lift", {"person": "brook:u-nobody"}, MODERATOR),
    ("POST", "/api/desk/pass", {"person": "brook:u-nobody", "end": True}, MODERATOR),
    ("POST", "/api/desk/look", {"platform": "brook", "message": ""}, MODERATOR),
    ("POST", "/api/desk/settle", {"platform": "brook", "message": "", "mark": "right"}, MODERATOR),
    ("POST", "/api/desk/drawbridge", {"up": False}, MODERATOR),
    ("POST", "/api/desk/put-back", {"number": 99}, MODERATOR),
    ("POST", "/api/desk/count", {"name": "mugs", "step": "+1"}, MODERATOR),
    ("POST", "/api/desk/title", {"title": "Twelve bowls"}, MODERATOR),
    ("POST", "/api/desk/say", {"text": "hello"}, MODERATOR),
    ("POST", "/api/desk/clear", {"command": "kiln"}, MODERATOR),
    ("GET", "/api/hand-over", None, MODERATOR),
    ("POST", "/api/hand-over/seen", None, MODERATOR),
    ("GET", "/api/ledger/section?section=commands&at=1", None, MODERATOR),
    ("POST", "/api/ledger/section", {"section": "commands", "at": 1, "revision": "none"}, LEAD),
    ("DELETE", "/api/team/accounts/nobody/sessions", None, BROADCASTER),
    ("PUT", "/api/password", {"old": "none", "new": "none of these"}, VIEWER),
    ("GET", "/api/platforms/harbour/name", None, MODERATOR),
    ("PUT", "/api/platforms/harbour/name", {"name": "Keeper"}, BROADCASTER),
    ("GET", "/api/people?search=sam", None, MODERATOR),
    ("GET", "/api/people/overview", None, MODERATOR),
    ("GET", "/api/people/card/brook:u-nobody", None, MODERATOR),
    ("GET", "/api/people/card/brook:u-nobody/messages", None, MODERATOR),
    ("DELETE", "/api/people/card/brook:u-nobody", None, BROADCASTER),
    ("POST", "/api/people/notes", {"person": None, "text": "The kettle is on."}, MODERATOR),
    ("PUT", "/api/people/notes/999", {"gone": True}, MODERATOR),
    ("POST", "/api/people/link", {"person": "brook:u-a", "other": "brook:u-a"}, LEAD),
    ("POST", "/api/people/unlink", {"person": "brook:u-nobody"}, LEAD),
    ("GET", "/api/people/lists/regulars", None, MODERATOR),
    ("POST", "/api/people/lists/regulars", {}, LEAD),
    ("POST", "/api/people/lists/leads", {}, BROADCASTER),
    ("POST", "/api/people/check", {"platform": "brook", "names": ["nobody"]}, LEAD),
    ("POST", "/api/desk/overlap", {"key": "kiln", "person": "brook:u-nobody"}, MODERATOR),
]
"""Method, path, body, and the place in LEVELS from which on it opens."""


def _template(path: str) -> str:
    path = path.partition("?")[0].replace("stage/shoutout", "stage/{card}").replace("quotes/999", "quotes/{number}")
    path = path.replace("card/brook:u-nobody", "card/{person}").replace("notes/999", "notes/{id}")
    path = path.replace("people/lists/regulars", "people/lists/{name}").replace(
        "people/lists/leads", "people/lists/{name}"
    )
    path = path.replace("ledger/999", "ledger/{number}").replace("platforms/harbour", "platforms/{platform}")
    path = path.replace("invitations/999", "invitations/{id}").replace("sessions/999", "sessions/{id}")
    path = path.replace("accounts/nobody", "accounts/{login}").replace("permissions/door", "permissions/{act}")
    path = path.replace("sections/channel", "sections/{section}")
    path = path.replace("lists/links/allowed", "lists/{key}/{name}").replace("built-ins/uptime", "built-ins/{key}")
    return path.replace("door", "{name}").replace("filters/links", "filters/{key}")


def setUpModule() -> None:
    WithWorld.world = World().start()
    add_account(WithWorld.world, "ivy", "viewer")


def tearDownModule() -> None:
    WithWorld.world.stop()


class WithWorld(unittest.TestCase):
    world: ClassVar[World]


class Permissions(WithWorld):
    def test_every_route_by_every_level(self) -> None:
        for place, login in enumerate(LEVELS):
            with self.world.client(login) as client:
                for method, path, body, opens in DOORS:
                    with self.subTest(login=login, door=f"{method} {path}"):
                        status = client.request(method, path, json=body).status_code
                        if login is None:
                            self.assertEqual(status, 401)
                        elif place < opens:
                            self.assertEqual(status, 403)
                        else:
                            self.assertNotIn(status, (401, 403, 500))

    def test_the_table_names_every_route(self) -> None:
        document = httpx.get(f"{self.world.address}/api/openapi.json").json()
        open_to_all = {
            ("post", "/api/session"),
            ("delete", "/api/session"),
            ("post", "/api/welcome"),
            ("get", "/api/health"),
            ("post", "/hooks/{platform}"),
            ("get", "/api/join"),
            ("post", "/api/join"),
        }
        named = {(method.lower(), _template(path)) for method, path, _, _ in DOORS}
        routes = {(method, path) for path, methods in document["paths"].items() for method in methods}
        self.assertEqual(routes - open_to_all, named)
        for path, methods in document["paths"].items():
            for method, route in methods.items():
                self.assertTrue(route.get("summary"), f"{method} {path}")


async def snapshot(socket: Any) -> dict[str, Any]:
    """The next snapshot that comes."""
    while "snapshot" not in (said := json.loads(await socket.recv())):
        pass
    return dict(said["snapshot"])


class Socket(WithWorld):
    def talk(self, login: str | None, work: Callable[[Any], Awaitable[None]], **headers: str) -> None:
        async def run() -> None:
            address = self.world.address.replace("http", "ws", 1) + "/api/live"
            if login:
                with self.world.client(login) as client:
                    headers["Cookie"] = f"gentlegate_session={client.cookies['gentlegate_session']}"
            async with connect(address, additional_headers=headers, proxy=None) as socket:
                await work(socket)

        asyncio.run(asyncio.wait_for(run(), 20))

    def test_nobody_and_other_sites_are_shut_out(self) -> None:
        async def work(socket: Any) -> None:
            await socket.recv()

        for login, headers in ((None, {}), ("bram", {"Origin": "http://bad.test"})):
            with self.subTest(login), self.assertRaises(InvalidStatus) as refused:
                self.talk(login, work, **headers)
            self.assertEqual(refused.exception.response.status_code, 403)

    def test_what_a_screen_says_by_every_level(self) -> None:
        """A screen may ask for a snapshot; it says what it is changing, if it may change anything; the rest is nothing."""
        said = ["again", "nonsense", '{"editing": 1}', '{"editing": [1]}', '{"delete": "all"}', "x" * 5000]
        for login in LEVELS[VIEWER:]:

            async def work(socket: Any, place: str = f"commands.{login}", heard: bool = login != "ivy") -> None:
                await socket.recv()
                for words in (*said, json.dumps({"editing": [place]}), "again"):
                    await socket.send(words)
                # The second snapshot from here was asked for after all of it had been said.
                await snapshot(socket)
                await socket.send("again")
                shown = await snapshot(socket)
                self.assertEqual(place in str(shown["parts"]["editing"]), heard)

            with self.subTest(login):
                self.talk(login, work)

    def test_one_account_opens_only_so_many_screens(self) -> None:
        with self.world.client("ivy") as ivy:
            cookie = f"gentlegate_session={ivy.cookies['gentlegate_session']}"
        address = self.world.address.replace("http", "ws", 1) + "/api/live"

        async def run() -> int | None:
            async with contextlib.AsyncExitStack() as opened:
                for _ in range(MOST_SCREENS + 1):
                    socket = connect(address, additional_headers={"Cookie": cookie}, proxy=None)
                    last = await opened.enter_async_context(socket)
                    with contextlib.suppress(ConnectionClosed):
                        await last.recv()
                return last.close_code

        self.assertEqual(asyncio.run(asyncio.wait_for(run(), 30)), TOO_MANY_SCREENS)

    def test_a_snapshot_changes_and_a_new_snapshot_when_asked(self) -> None:
        async def work(socket: Any) -> None:
            first = json.loads(await socket.recv())
            self.assertEqual(first["snapshot"]["parts"]["channel"]["name"], "Kiln & Kettle")
            self.world.type("hello from the socket test")
            seen = ""
            while "hello from the socket test" not in seen:
                seen = (await socket.recv()).decode()
            await socket.send("again")
            shown = await snapshot(socket)
            self.assertIn("hello from the socket test", [line["text"] for line in shown["lines"]])

        self.talk("bram", work)


class Bounds(WithWorld):
    def test_what_costs_is_bounded_for_each_and_nobody_else(self) -> None:
        with self.world.client("bram") as bram, self.world.client("wren") as wren:
            answers = [bram.post("/api/try-out", json={"text": "hi"}) for _ in range(70)]
            refused = [answer for answer in answers if answer.status_code == 429]
            self.assertTrue(refused and answers[0].is_success)
            self.assertIn("try again in", refused[0].json()["detail"])
            self.assertTrue(wren.post("/api/try-out", json={"text": "hi"}).is_success)
            self.assertTrue(bram.get("/api/commands").is_success)

    def test_every_answer_carries_the_headers(self) -> None:
        for path in ("/", "/api/health", "/api/nowhere", "/assets/nothing.js"):
            headers = httpx.get(f"{self.world.address}{path}").headers
            policy = headers["content-security-policy"]
            self.assertIn("default-src 'self'", policy)
            self.assertNotIn("unsafe", policy)
            self.assertEqual(headers["x-content-type-options"], "nosniff")
            self.assertEqual(headers.get("cache-control") == "no-store", path.startswith("/api/"))

    def test_a_body_that_is_too_large_or_says_not_how_large(self) -> None:
        with self.world.client("bram") as bram:
            host, _, port = self.world.address.removeprefix("http://").partition(":")
            large = HTTPConnection(host, int(port), timeout=10)
            large.putrequest("POST", "/api/try-out")
            large.putheader("Content-Length", str(2**30))
            large.endheaders()
            self.assertEqual(large.getresponse().status, 413)
            large.close()
            unsaid = bram.post("/api/try-out", content=iter([b'{"text": "hi"}']))
            self.assertEqual(unsaid.status_code, 411)
