"""The HTTP door and the socket, as processes on real ports."""

from __future__ import annotations

import asyncio
import json
import unittest
from collections.abc import Awaitable, Callable
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from threading import Thread
from typing import Any, ClassVar

import httpx
from websockets.asyncio.client import connect
from websockets.exceptions import ConnectionClosed

from tests.support.world import World, eventually

LEVELS = (None, "bram", "odalys", "marlo")
"""Nobody, a moderator, a lead, the broadcaster."""

DOORS: list[tuple[str, str, Any, int]] = [
    ("GET", "/api/session", None, 1),
    ("GET", "/api/commands", None, 1),
    ("POST", "/api/commands/preview", {"reply": "hi"}, 1),
    ("PUT", "/api/commands/door", {"command": {"name": "door", "reply": "x"}, "revision": None}, 2),
    ("DELETE", "/api/commands/door", None, 2),
    ("PUT", "/api/cues/door", {"command": {"name": "door", "hears": ["door"], "reply": "x"}, "revision": None}, 2),
    ("DELETE", "/api/cues/door", None, 2),
    ("GET", "/api/commands/door/history", None, 1),
    ("POST", "/api/commands/several", {"names": ["door"], "on": True}, 2),
    ("GET", "/api/cues/door/history", None, 1),
    ("PUT", "/api/built-ins/uptime", {"setting": {}, "revision": "none"}, 2),
    ("GET", "/api/built-ins/uptime/history", None, 1),
    ("GET", "/api/kits", None, 1),
    ("POST", "/api/kits/export", {}, 2),
    ("GET", "/api/kits/commands.csv", None, 2),
    ("POST", "/api/kits/preview", {"text": "{}"}, 2),
    ("POST", "/api/kits/take", {"text": "{}", "name": "door", "picks": [{"place": "ladder"}]}, 2),
    ("POST", "/api/kits/take-back", {"number": 999}, 2),
    ("POST", "/api/cues/heard", {"command": {"hears": ["hello"]}}, 1),
    ("GET", "/api/sections/channel", None, 1),
    ("PUT", "/api/sections/channel", {"values": {}, "revision": "none"}, 2),
    ("GET", "/api/counters", None, 1),
    ("GET", "/api/counters/door/steps", None, 1),
    ("PUT", "/api/counters/door", {"command": {"name": "door"}, "revision": None}, 2),
    ("DELETE", "/api/counters/door", None, 2),
    ("GET", "/api/ledger", None, 1),
    ("GET", "/api/ledger/filters", None, 1),
    ("POST", "/api/ledger/999/undo", None, 1),
    ("GET", "/api/platforms", None, 1),
    ("POST", "/api/platforms/harbour/check", None, 1),
    ("POST", "/api/platforms/harbour/test", None, 1),
    ("PUT", "/api/platforms/harbour", {"address": "http://x.test", "token": "t"}, 3),
    ("POST", "/api/platforms/harbour/gatekeeper", {"person": "brook:@x"}, 3),
    ("GET", "/api/team", None, 1),
    ("POST", "/api/team/invitations", {"level": "viewer"}, 2),
    ("DELETE", "/api/team/invitations/999", None, 2),
    ("PUT", "/api/team/accounts/nobody", {"level": "viewer"}, 3),
    ("DELETE", "/api/team/accounts/nobody", None, 3),
    ("PUT", "/api/team/permissions/door", {"level": "lead"}, 3),
    ("DELETE", "/api/team/accounts/nobody/second", None, 3),
    ("POST", "/api/second", None, 1),
    ("PUT", "/api/second", {"code": "000000"}, 1),
    ("POST", "/api/second/off", {"code": "000000"}, 1),
    ("GET", "/api/sessions", None, 1),
    ("DELETE", "/api/sessions/999", None, 1),
    ("GET", "/api/rotas", None, 1),
    ("PUT", "/api/rotas/door", {"rota": {"name": "door"}, "revision": None}, 2),
    ("DELETE", "/api/rotas/door", None, 2),
    ("GET", "/api/rotas/door/history", None, 1),
    ("POST", "/api/rotas/door/pause", {"paused": True}, 1),
    ("POST", "/api/rotas/door/next", None, 1),
    ("POST", "/api/rotas/try", {"rota": "door", "notice": {"text": "hello"}}, 1),
    ("POST", "/api/rotas/forecast", {}, 1),
    ("GET", "/api/rotas/notices.ics", None, 1),
    ("GET", "/api/rotas/posts.csv", None, 1),
    ("GET", "/api/quotes", None, 1),
    ("POST", "/api/quotes", {"text": "Clay remembers."}, 1),
    ("DELETE", "/api/quotes/999", None, 1),
    ("POST", "/api/quotes/999/restore", None, 1),
    ("GET", "/api/quotes/table.csv", None, 1),
    ("POST", "/api/quotes/table", {"text": "text"}, 1),
    ("GET", "/api/stage", None, 2),
    ("PUT", "/api/stage/shoutout/style", {}, 2),
    ("POST", "/api/stage/shoutout/key", None, 2),
    ("GET", "/api/stream/categories?name=glaze", None, 1),
    ("POST", "/api/stream/category", {"category": "Glaze lab", "platforms": ["brook"]}, 1),
    ("POST", "/api/stream/shoutout", {"name": "wickerworks"}, 1),
    ("POST", "/api/stream/marker", {"note": "here"}, 1),
    ("POST", "/api/stream/clip", {}, 1),
    ("POST", "/api/stream/ad", {"platform": "brook", "seconds": 1}, 1),
    ("POST", "/api/stream/raid", {"name": "nobody_at_all"}, 2),
    ("DELETE", "/api/stream/raid", None, 1),
    ("POST", "/api/stream/arrivals/forget", {}, 1),
    ("GET", "/api/stream/markers", None, 1),
    ("GET", "/api/stream/markers.csv", None, 1),
    ("GET", "/api/stream/chapters.txt", None, 1),
    ("GET", "/api/rules", None, 1),
    ("PUT", "/api/rules/mood", {"mood": "parlour"}, 2),
    ("PUT", "/api/rules/mood", {"mood": "parlour", "tonight": True}, 1),
    ("PUT", "/api/rules/filters/links", {"values": {}}, 2),
    ("PUT", "/api/rules/filters/links", {"values": {}, "tonight": True}, 1),
    ("GET", "/api/rules/lists/links/allowed", None, 1),
    ("POST", "/api/rules/lists/links/allowed", {}, 2),
    ("POST", "/api/rules/lists/links/allowed", {"tonight": True}, 1),
    ("POST", "/api/rules/feeds", {"name": "door"}, 2),
    ("POST", "/api/rules/feeds/door/again", None, 2),
    ("DELETE", "/api/rules/feeds/door", None, 2),
    ("POST", "/api/try-out", {"text": "hi"}, 1),
    ("POST", "/api/rules/tuning", {"filter": "capitals", "field": "share"}, 1),
    ("POST", "/api/rules/try", {"text": "hi"}, 1),
    ("POST", "/api/rules/consequence", {"filter": "links"}, 1),
    ("POST", "/api/desk/undo", {"platform": "brook", "message": "none"}, 1),
    ("POST", "/api/desk/remove", {"platform": "brook", "message": "none"}, 1),
    ("POST", "/api/desk/timeout", {"platform": "brook", "message": "none", "seconds": 60}, 1),
    ("POST", "/api/desk/ban", {"platform": "brook", "message": "none"}, 1),
    ("POST", "/api/desk/people/timeout", {"person": "brook:u-nobody", "seconds": 5}, 1),
    ("POST", "/api/desk/people/ban", {"person": "brook:"}, 1),
    ("POST", "/api/desk/people/lift", {"person": "brook:u-nobody"}, 1),
    ("POST", "/api/desk/pass", {"person": "brook:u-nobody", "end": True}, 1),
    ("POST", "/api/desk/look", {"platform": "brook", "message": ""}, 1),
    ("POST", "/api/desk/settle", {"platform": "brook", "message": "", "mark": "right"}, 1),
    ("POST", "/api/desk/drawbridge", {"up": False}, 1),
    ("POST", "/api/desk/put-back", {"number": 99}, 1),
    ("POST", "/api/desk/count", {"name": "mugs", "step": "+1"}, 1),
    ("POST", "/api/desk/title", {"title": "Twelve bowls"}, 1),
    ("POST", "/api/desk/say", {"text": "hello"}, 1),
    ("POST", "/api/desk/clear", {"command": "kiln"}, 1),
    ("GET", "/api/people?search=sam", None, 1),
    ("GET", "/api/people/card/brook:u-nobody", None, 1),
    ("GET", "/api/people/card/brook:u-nobody/messages", None, 1),
    ("DELETE", "/api/people/card/brook:u-nobody", None, 3),
    ("POST", "/api/people/notes", {"person": None, "text": "The kettle is on."}, 1),
    ("PUT", "/api/people/notes/999", {"gone": True}, 1),
    ("POST", "/api/people/link", {"person": "brook:u-a", "other": "brook:u-a"}, 2),
    ("POST", "/api/people/unlink", {"person": "brook:u-nobody"}, 2),
    ("GET", "/api/people/lists/regulars", None, 1),
    ("POST", "/api/people/lists/regulars", {}, 2),
    ("POST", "/api/people/lists/leads", {}, 3),
    ("POST", "/api/people/check", {"platform": "brook", "names": ["nobody"]}, 2),
    ("POST", "/api/desk/overlap", {"key": "kiln", "person": "brook:u-nobody"}, 1),
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


class Sessions(WithWorld):
    def test_a_wrong_password_and_too_many(self) -> None:
        with self.world.client(None) as client:
            answers = [client.post("/api/session", json={"login": "wren", "password": "no"}) for _ in range(6)]
        self.assertEqual([answer.status_code for answer in answers], [401] * 5 + [429])
        self.assertEqual(answers[0].headers["content-type"], "application/problem+json")

    def test_the_cookie_is_kept_from_scripts_and_ends(self) -> None:
        with self.world.client("bram") as client:
            cookie = client.post("/api/session", json={"login": "bram", "password": "tea-before-kiln"}).headers[
                "set-cookie"
            ]
            self.assertIn("HttpOnly", cookie)
            self.assertIn("SameSite=strict", cookie)
            token = client.cookies["gentlegate_session"]
            client.delete("/api/session")
            again = httpx.get(f"{self.world.address}/api/session", cookies={"gentlegate_session": token})
        self.assertEqual(again.status_code, 401)

    def test_another_sites_page_changes_nothing(self) -> None:
        with self.world.client("bram") as client:
            answer = client.post(
                "/api/desk/count", json={"name": "mugs", "step": "+1"}, headers={"Origin": "http://bad.test"}
            )
        self.assertEqual(answer.status_code, 403)

    def test_a_welcome_key_that_is_none(self) -> None:
        body = {"key": "guess", "login": "eve", "name": "Eve", "password": "long enough now"}
        self.assertEqual(httpx.post(f"{self.world.address}/api/welcome", json=body).status_code, 403)

    def test_headers(self) -> None:
        policy = httpx.get(f"{self.world.address}/").headers["content-security-policy"]
        self.assertNotIn("unsafe", policy)


class RulesRoom(WithWorld):
    def test_a_value_of_ones_own_and_back(self) -> None:
        with self.world.client("odalys") as client:
            rules = client.put("/api/rules/filters/capitals", json={"values": {"share": 0.9}}).json()
            self.assertEqual((rules["filters"][0]["own"], rules["filters"][0]["values"]["share"]), (["share"], 0.9))
            back = client.put("/api/rules/filters/capitals", json={"values": {"share": None}}).json()
            self.assertEqual((back["filters"][0]["own"], back["filters"][0]["values"]["share"]), ([], 0.8))

    def test_trying_a_line_with_unsaved_settings_touches_nothing(self) -> None:
        with self.world.client("bram") as client:
            body = {"text": "see other.test", "filters": {"links": {"allowed": ["other.test"]}}}
            self.assertEqual(client.post("/api/rules/try", json=body).json()["verdict"]["outcome"], "allow")
            self.assertEqual(
                client.post("/api/rules/try", json={"text": "see other.test"}).json()["verdict"]["outcome"], "nudge"
            )
            bad = client.post(
                "/api/rules/try", json={"text": "x", "filters": {"links": {"allowed": ["two words"]}}}
            )
            self.assertEqual((bad.status_code, bad.json()["where"]), (422, "filters.links.allowed.0"))

    def test_what_a_setting_would_catch(self) -> None:
        id = self.world.type("A LOUD LINE ABOUT MY TEAPOT LID AND ITS TINY SPOUT", "loudly")
        with self.world.client("bram") as client:
            eventually(lambda: self.world.rows("SELECT 1 FROM events WHERE message = ?", id))

            def caught(letters: int) -> list[str]:
                body = {"filter": "capitals", "values": {"letters": letters}}
                return [line["id"] for line in client.post("/api/rules/consequence", json=body).json()["caught"]]

            eventually(lambda: id in caught(10))
            self.assertNotIn(id, caught(900))

    def test_how_lines_measure_whatever_the_limit(self) -> None:
        id = self.world.type("WHAT A FINE AND ROUND TEAPOT THAT IS", "admirer")
        with self.world.client("bram") as client:
            eventually(lambda: self.world.rows("SELECT 1 FROM events WHERE message = ?", id))
            body = {"filter": "capitals", "field": "share", "values": {"letters": 20}}
            found = client.post("/api/rules/tuning", json=body).json()
            self.assertTrue(found["reached"])
            self.assertIn((id, 1.0), [(line["id"], line["measured"]) for line in found["top"]])
            self.assertEqual(found["values"], sorted(found["values"], reverse=True))
            bad = client.post("/api/rules/tuning", json={"filter": "links", "field": "share"})
            self.assertEqual(bad.status_code, 422)

    def test_lists_are_changed_by_entries_for_tonight_or_for_good(self) -> None:
        path = "/api/rules/lists/phrases/entries"
        with self.world.client("bram") as bram, self.world.client("odalys") as odalys:
            self.assertEqual(bram.post(path, json={"add": ["wobblebot"]}).status_code, 403)
            rules = bram.post(path, json={"add": ["wobblebot"], "tonight": True}).json()
            (phrases,) = (view for view in rules["filters"] if view["key"] == "phrases")
            self.assertEqual(phrases["tonight"], ["entries"])
            page = odalys.get(path, params={"search": "WOBBLE"}).json()
            self.assertEqual((page["count"], page["entries"], page["tonight"]), (1, ["wobblebot"], ["wobblebot"]))
            verdict = bram.post("/api/rules/try", json={"text": "W0BBLEB0T"}).json()["verdict"]
            self.assertEqual(verdict["filter"], "phrases")
            self.assertEqual(odalys.post(path, json={"take": ["wobblebot"], "tonight": True}).status_code, 200)
            bad = odalys.post(path, json={"add": ["fine", {"text": "a(b", "mode": "pattern"}]})
            self.assertEqual(bad.status_code, 422)
            self.assertEqual(odalys.get(path, params={"search": "fine"}).json()["count"], 0)

    def test_an_imported_list_of_hosts(self) -> None:
        with self.world.client("odalys") as client:
            text = "# remarks\n0.0.0.0 evil.test\n127.0.0.1 localhost\nplain.test\nno host here\n"
            done = client.post("/api/rules/feeds", json={"name": "Bad hosts", "text": text}).json()
            self.assertEqual((done["hosts"], done["odd"]), (2, [5]))
            verdict = client.post("/api/rules/try", json={"text": "sub.evil.test", "level": "vip"}).json()
            self.assertEqual(verdict["verdict"]["outcome"], "timeout")
            for body in (
                {"name": "x", "text": "# nothing"},
                {"name": "x"},
                {"name": "x", "address": "ftp://x.test"},
            ):
                self.assertEqual(client.post("/api/rules/feeds", json=body).status_code, 422)
            gone = client.post("/api/rules/feeds", json={"name": "y", "address": "http://127.0.0.1:9/none"})
            self.assertEqual(gone.status_code, 409)
            self.assertIn("no answer from", gone.json()["detail"].lower())
            self.assertEqual(client.delete("/api/rules/feeds/bad hosts").json()["feeds"], [])

    def test_a_list_is_imported_again_from_its_address(self) -> None:
        served = ["bad-one.test"]

        class Lists(BaseHTTPRequestHandler):
            def do_GET(self) -> None:
                body = "\n".join(served).encode()
                self.send_response(200)
                self.end_headers()
                self.wfile.write(body)

            def log_message(self, *_: Any) -> None:
                pass

        server = ThreadingHTTPServer(("127.0.0.1", 0), Lists)
        Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        address = f"http://127.0.0.1:{server.server_port}/hosts.txt"
        with self.world.client("odalys") as client:

            def stopped(text: str) -> bool:
                verdict = client.post("/api/rules/try", json={"text": text, "level": "vip"}).json()["verdict"]
                return bool(verdict["outcome"] == "timeout")

            client.post("/api/rules/feeds", json={"name": "Served", "address": address}).raise_for_status()
            self.assertEqual((stopped("bad-one.test"), stopped("bad-two.test")), (True, False))
            served.append("bad-two.test")
            again = client.post("/api/rules/feeds/served/again").json()
            self.assertEqual((again["hosts"], stopped("see bad-two.test")), (2, True))
            client.delete("/api/rules/feeds/served").raise_for_status()
            self.assertFalse(stopped("bad-two.test"))

    def test_a_mood_can_drop_single_changes(self) -> None:
        with self.world.client("odalys") as client:
            client.put("/api/rules/filters/emotes", json={"values": {"most": 7}})
            kept = client.put("/api/rules/mood", json={"mood": "library"}).json()
            self.assertGreaterEqual(kept["own"], 1)
            dropped = client.put("/api/rules/mood", json={"mood": "parlour", "drop": True}).json()
            self.assertEqual((dropped["own"], dropped["mood"]), (0, "parlour"))


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
            with self.subTest(login), self.assertRaises((ConnectionClosed, Exception)):
                self.talk(login, work, **headers)

    def test_a_snapshot_changes_and_a_new_snapshot_when_asked(self) -> None:
        async def work(socket: Any) -> None:
            first = json.loads(await socket.recv())
            self.assertEqual(first["snapshot"]["parts"]["channel"]["name"], "Kiln & Kettle")
            self.world.type("hello from the socket test")
            seen = ""
            while "hello from the socket test" not in seen:
                seen = (await socket.recv()).decode()
            await socket.send("again")
            while "snapshot" not in (again := json.loads(await socket.recv())):
                pass
            self.assertIn("hello from the socket test", [line["text"] for line in again["snapshot"]["lines"]])

        self.talk("bram", work)
