"""The HTTP door, as processes on real ports."""

from __future__ import annotations

import unittest
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from threading import Thread
from typing import Any, ClassVar

import httpx

from gentlegate.demo.prepare import PASSWORD
from tests.support.world import World, eventually


def setUpModule() -> None:
    WithWorld.world = World().start()


def tearDownModule() -> None:
    WithWorld.world.stop()


class WithWorld(unittest.TestCase):
    world: ClassVar[World]


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

    def test_over_tls_the_cookie_is_bound_to_this_host(self) -> None:
        tls = {"X-Forwarded-Proto": "https"}
        body = {"login": "bram", "password": PASSWORD}
        answer = httpx.post(f"{self.world.address}/api/session", json=body, headers=tls)
        cookie = answer.raise_for_status().headers["set-cookie"]
        self.assertTrue(cookie.startswith("__Host-gentlegate_session="), cookie)
        for part in ("Path=/", "Secure", "HttpOnly", "SameSite=strict"):
            self.assertIn(part, cookie)
        self.assertNotIn("Domain", cookie)
        self.assertIn("max-age", answer.headers["strict-transport-security"])
        token = cookie.partition("=")[2].partition(";")[0]
        who = f"{self.world.address}/api/session"
        for name, status in (("__Host-gentlegate_session", 200), ("gentlegate_session", 401)):
            headers = tls | {"Cookie": f"{name}={token}"}
            self.assertEqual(httpx.get(who, headers=headers).status_code, status)

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

    def test_two_who_save_the_same_filter(self) -> None:
        with self.world.client("odalys") as odalys, self.world.client("marlo") as marlo:
            (read,) = (one for one in odalys.get("/api/rules").json()["filters"] if one["key"] == "length")
            first = {"values": {"most": 333}, "revision": read["revision"]}
            marlo.put("/api/rules/filters/length", json=first).raise_for_status()
            for tonight in (False, True):
                second = {"values": {"most": 222, "strikes": 2}, "revision": read["revision"], "tonight": tonight}
                answer = odalys.put("/api/rules/filters/length", json=second)
                self.assertEqual((answer.status_code, answer.json()["theirs"]["most"]), (409, 333))
            over = {"values": {"strikes": 2}, "revision": answer.json()["revision"]}
            saved = odalys.put("/api/rules/filters/length", json=over).raise_for_status().json()
            (now,) = (one for one in saved["filters"] if one["key"] == "length")
            self.assertEqual((now["values"]["most"], now["values"]["strikes"]), (333, 2))
            bad = {"values": {"most": None, "strikes": 500}}
            self.assertEqual(odalys.put("/api/rules/filters/length", json=bad).status_code, 422)
            (kept,) = (one for one in odalys.get("/api/rules").json()["filters"] if one["key"] == "length")
            self.assertEqual(kept["revision"], now["revision"])
            odalys.put("/api/rules/filters/length", json={"values": {"most": None, "strikes": None}})

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
