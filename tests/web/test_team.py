"""The team over HTTP: invitations, levels, permissions, sessions; who has left is cut off at once."""

from __future__ import annotations

import asyncio
import base64
import json
import tempfile
import time
import unittest
from pathlib import Path
from typing import Any, ClassVar

import httpx
import pyotp
from websockets.asyncio.client import connect
from websockets.exceptions import ConnectionClosed

from gentlegate.core.moments import HOUR
from gentlegate.runtime.ports import StoreThread
from gentlegate.store.accounts import Accounts
from gentlegate.store.database import Database
from gentlegate.web.door.passwords import check_new
from gentlegate.web.door.second import SecondFactor as Second
from gentlegate.web.problems import Refused
from tests.support.world import World, eventually

PASSWORD = "clay is patient"


def setUpModule() -> None:
    WithWorld.world = World().start()


def tearDownModule() -> None:
    WithWorld.world.stop()


class WithWorld(unittest.TestCase):
    world: ClassVar[World]

    def setUp(self) -> None:
        self.marlo, self.odalys = self.world.client("marlo"), self.world.client("odalys")
        for client in (self.marlo, self.odalys):
            self.addCleanup(client.close)

    def invite(self, client: httpx.Client, level: str = "moderator", **more: Any) -> str:
        answer = client.post("/api/team/invitations", json={"level": level, **more}).raise_for_status()
        return str(answer.json()["link"]).partition("key=")[2]

    def join(self, key: str, login: str) -> httpx.Response:
        body = {"key": key, "login": login, "name": login.title(), "password": PASSWORD}
        return httpx.post(f"{self.world.address}/api/join", json=body, trust_env=False)

    def new(self, login: str, level: str = "moderator") -> httpx.Client:
        cookies = self.join(self.invite(self.marlo, level), login).raise_for_status().cookies
        client = httpx.Client(base_url=self.world.address, cookies=cookies, trust_env=False)
        self.addCleanup(client.close)
        return client

    def ledger(self, what: str) -> list[tuple[Any, ...]]:
        return self.world.rows("SELECT who, about, before, after FROM ledger WHERE what = ? ORDER BY seq", what)


class Invitations(WithWorld):
    def test_used_once_and_by_one(self) -> None:
        key = self.invite(self.odalys, note="for Juno")
        shown = httpx.get(f"{self.world.address}/api/join", params={"key": key}, trust_env=False).json()
        self.assertEqual((shown["level"], shown["by"]), ("moderator", "Odalys"))
        joined = self.join(key, "juno")
        self.assertEqual((joined.status_code, joined.json()["level"]), (200, "moderator"))
        self.assertEqual(self.join(key, "juno2").status_code, 410)
        self.assertEqual(httpx.get(f"{self.world.address}/api/join", params={"key": key}).status_code, 410)
        self.assertNotIn(key, json.dumps(self.world.rows("SELECT * FROM invitations")))
        self.assertEqual(self.ledger("account")[-1], ("desk:juno", "juno", "null", '"moderator"'))

    def test_withdrawn(self) -> None:
        key = self.invite(self.odalys, note="changed my mind")
        invitations = self.odalys.get("/api/team").json()["invitations"]
        (open_one,) = [one for one in invitations if one["note"] == "changed my mind"]
        self.odalys.delete(f"/api/team/invitations/{open_one['id']}").raise_for_status()
        self.assertEqual(self.join(key, "late").status_code, 410)
        self.assertEqual(self.odalys.delete(f"/api/team/invitations/{open_one['id']}").status_code, 404)

    def test_who_may_invite_whom(self) -> None:
        self.assertEqual(self.odalys.post("/api/team/invitations", json={"level": "lead"}).status_code, 403)
        self.assertEqual(self.odalys.post("/api/team/invitations", json={"level": "broadcaster"}).status_code, 422)
        self.assertEqual(self.marlo.post("/api/team/invitations", json={"level": "lead"}).status_code, 200)
        with self.world.client("bram") as bram:
            self.assertEqual(bram.post("/api/team/invitations", json={"level": "viewer"}).status_code, 403)
            self.assertEqual(bram.get("/api/team").json()["invitations"], [])

    def test_what_is_wrong_uses_nothing_up(self) -> None:
        key = self.invite(self.marlo)
        self.assertEqual(self.join(key, "bram").status_code, 409)
        short = {"key": key, "login": "fine", "name": "Fine", "password": "short"}
        self.assertEqual(httpx.post(f"{self.world.address}/api/join", json=short).status_code, 422)
        self.assertEqual(self.join(key, "two words").status_code, 422)
        self.assertEqual(self.join(key, "fine").status_code, 200)


class Levels(WithWorld):
    def test_a_viewer_looks_and_does_nothing(self) -> None:
        client = self.new("trainee", "viewer")
        for path in ("/api/session", "/api/commands", "/api/rotas", "/api/counters", "/api/team"):
            self.assertEqual(client.get(path).status_code, 200)
        self.assertEqual(client.get("/api/session").json()["may"], ["look"])
        for path, body in (
            ("/api/desk/count", {"name": "mugs", "step": "+1"}),
            ("/api/desk/say", {"text": "hi"}),
            ("/api/stream/marker", {"note": ""}),
        ):
            self.assertEqual(client.post(path, json=body).status_code, 403)

    def test_only_the_broadcaster_changes_levels_and_not_its_own(self) -> None:
        self.new("moss")
        self.assertEqual(self.odalys.put("/api/team/accounts/moss", json={"level": "viewer"}).status_code, 403)
        self.marlo.put("/api/team/accounts/moss", json={"level": "lead"}).raise_for_status()
        team = {one["login"]: one for one in self.marlo.get("/api/team").json()["accounts"]}
        self.assertEqual((team["moss"]["level"], team["moss"]["chat"]), ("lead", None))
        self.assertEqual(self.ledger("account")[-1][1:], ("moss", '"moderator"', '"lead"'))
        for login, changed in (("marlo", {"level": "viewer"}), ("nobody", {"level": "viewer"})):
            self.assertEqual(self.marlo.put(f"/api/team/accounts/{login}", json=changed).status_code, 422)
        self.assertEqual(self.marlo.delete("/api/team/accounts/marlo").status_code, 422)

    def test_who_somebody_is_in_chat_makes_desk_and_chat_one_person(self) -> None:
        client = self.new("fern")
        self.world.type("good evening", "fern_pots", "moderator")
        eventually(lambda: self.marlo.get("/api/people/card/brook:u-fern_pots").is_success)
        for wrong in ("brook:u-bram", "nobody"):
            answer = self.marlo.put("/api/team/accounts/fern", json={"person": wrong})
            self.assertEqual((answer.status_code, answer.json()["where"]), (422, "person"))
        self.marlo.put("/api/team/accounts/fern", json={"person": "brook:@fern_pots"}).raise_for_status()
        team = {one["login"]: one for one in self.marlo.get("/api/team").json()["accounts"]}
        self.assertEqual(
            team["fern"]["chat"], {"person": "brook:u-fern_pots", "platform": "brook", "login": "fern_pots"}
        )
        self.assertEqual(self.ledger("in_chat")[-1][1:], ("fern", "null", '"brook:u-fern_pots"'))
        self.world.type("!count lost =11", "fern_pots", "moderator")
        client.post("/api/desk/count", json={"name": "lost", "step": "=12"}).raise_for_status()
        by = eventually(
            lambda: [one for one in self.ledger("count") if one[3] in ("11", "12")][1:] and self.ledger("count")
        )
        self.assertEqual({who for who, _, _, after in by if after in ("11", "12")}, {"brook:u-fern_pots"})
        self.marlo.put("/api/team/accounts/fern", json={"person": ""}).raise_for_status()
        self.assertEqual(self.ledger("in_chat")[-1][1:], ("fern", '"brook:u-fern_pots"', "null"))

    def test_a_permission_is_moved_and_back(self) -> None:
        with self.world.client("bram") as bram:
            step = {"name": "boils", "step": "+1"}
            self.marlo.put("/api/team/permissions/count", json={"level": "lead"}).raise_for_status()
            self.assertEqual(bram.post("/api/desk/count", json=step).status_code, 403)
            self.assertNotIn("count", bram.get("/api/session").json()["may"])
            self.marlo.put("/api/team/permissions/count", json={"level": "moderator"}).raise_for_status()
            self.assertEqual(bram.post("/api/desk/count", json=step).status_code, 200)
        for act in ("team", "invite", "look", "nonsense"):
            self.assertEqual(
                self.marlo.put(f"/api/team/permissions/{act}", json={"level": "moderator"}).status_code, 422
            )
        moved = [(before, after) for _, about, before, after in self.ledger("permission") if about == "count"]
        self.assertEqual(moved, [('"moderator"', '"lead"'), ('"lead"', '"moderator"')])

    def test_moved_permissions_outlive_the_server(self) -> None:
        self.marlo.put("/api/team/permissions/raid", json={"level": "moderator"}).raise_for_status()
        self.world.kill_gate()
        self.world.start_gate()
        with self.world.client("bram") as bram:
            self.assertIn("raid", bram.get("/api/session").json()["may"])
        self.marlo.put("/api/team/permissions/raid", json={"level": "lead"}).raise_for_status()


class CutOff(WithWorld):
    def socket_of(self, client: httpx.Client) -> Any:
        cookie = "; ".join(f"{name}={value}" for name, value in client.cookies.items())
        return connect(f"ws://127.0.0.1:{self.world.port}/api/live", additional_headers={"Cookie": cookie})

    def closed_by(self, client: httpx.Client, act: Any) -> int | None:
        """What the open socket of somebody is closed with when this is done."""

        async def run() -> int | None:
            async with self.socket_of(client) as socket:
                await socket.recv()
                await asyncio.to_thread(act)
                async with asyncio.timeout(5):
                    try:
                        while True:
                            await socket.recv()
                    except ConnectionClosed as closed:
                        return closed.rcvd.code if closed.rcvd else None

        return asyncio.run(run())

    def test_who_is_let_go_is_cut_off_at_once(self) -> None:
        client = self.new("leaver")
        code = self.closed_by(client, lambda: self.marlo.delete("/api/team/accounts/leaver").raise_for_status())
        self.assertEqual(code, 4401)
        self.assertEqual(client.get("/api/session").status_code, 401)
        body = {"login": "leaver", "password": PASSWORD}
        self.assertEqual(httpx.post(f"{self.world.address}/api/session", json=body).status_code, 401)
        self.assertNotIn("leaver", [one["login"] for one in self.marlo.get("/api/team").json()["accounts"]])
        self.new("leaver")

    def test_a_session_is_ended_from_another(self) -> None:
        first = self.new("twice")
        body = {"login": "twice", "password": PASSWORD}
        cookies = httpx.post(f"{self.world.address}/api/session", json=body).cookies
        with httpx.Client(base_url=self.world.address, cookies=cookies, trust_env=False) as second:
            listed = second.get("/api/sessions").json()
            self.assertEqual([one["this"] for one in listed], [True, False])
            code = self.closed_by(
                first, lambda: second.delete(f"/api/sessions/{listed[1]['id']}").raise_for_status()
            )
            self.assertEqual(code, 4401)
            self.assertEqual(first.get("/api/session").status_code, 401)
            self.assertEqual(second.get("/api/session").status_code, 200)
            self.assertEqual(self.odalys.delete(f"/api/sessions/{listed[0]['id']}").status_code, 404)


class SecondFactor(WithWorld):
    def log_in(self, login: str, code: str = "") -> httpx.Response:
        body = {"login": login, "password": PASSWORD, "code": code}
        return httpx.post(f"{self.world.address}/api/session", json=body, trust_env=False)

    def kind(self, answer: httpx.Response) -> str:
        return str(answer.json()["type"]).partition(":")[2]

    def test_turned_on_asked_for_taken_once_and_dropped(self) -> None:
        client = self.new("careful")
        wrong = client.post("/api/second", json={"password": "not this one"})
        self.assertEqual((wrong.status_code, wrong.json()["where"]), (422, "password"))
        secret = client.post("/api/second", json={"password": PASSWORD}).json()["secret"]
        codes = pyotp.TOTP(secret)
        self.assertEqual(self.log_in("careful").status_code, 200)  # not before a first code
        self.assertEqual(client.put("/api/second", json={"code": "000000"}).status_code, 422)
        first = codes.now()
        self.assertEqual(client.put("/api/second", json={"code": first}).status_code, 204)
        self.assertEqual(self.kind(self.log_in("careful")), "code-needed")
        self.assertEqual(self.kind(self.log_in("careful", first)), "code-wrong")
        following = codes.at(time.time() + 30)
        self.assertEqual(self.log_in("careful", f"{following[:3]} {following[3:]}").status_code, 200)
        self.assertEqual(self.kind(self.log_in("careful", following)), "code-wrong")
        team = {one["login"]: one["seconds"] for one in self.marlo.get("/api/team").json()["accounts"]}
        self.assertEqual((team["careful"], team["bram"]), (True, False))
        self.assertEqual(self.marlo.delete("/api/team/accounts/careful/second").status_code, 204)
        self.assertEqual(self.log_in("careful").status_code, 200)
        self.assertNotIn(secret, json.dumps(self.world.rows("SELECT * FROM ledger")))

    def test_a_stranger_learns_nothing_of_it(self) -> None:
        body = {"login": "nobody_here", "password": PASSWORD, "code": "123456"}
        answer = httpx.post(f"{self.world.address}/api/session", json=body, trust_env=False)
        self.assertEqual(self.kind(answer), "log-in-wrong")


class Steps(unittest.TestCase):
    """RFC 6238, appendix B, the last six digits of the SHA-1 rows."""

    def test_the_standards_own_codes(self) -> None:
        secret = base64.b32encode(b"12345678901234567890").decode()
        for moment, code in (
            (59, "287082"),
            (1111111109, "081804"),
            (1234567890, "005924"),
            (20000000000, "353130"),
        ):
            with self.subTest(moment):
                second = Second(None, StoreThread(), lambda moment=moment: float(moment))
                self.assertEqual(second._step_of(secret, code, 0), moment // 30)
                self.assertIsNone(second._step_of(secret, code, moment // 30))
                late = Second(None, StoreThread(), lambda moment=moment: float(moment + 61))
                self.assertIsNone(late._step_of(secret, code, 0))


class Passwords(unittest.TestCase):
    def test_the_first_to_be_tried_and_ones_own_name_are_no_passwords(self) -> None:
        for password in ("password123", "qwertyuiop1", "odalysodalys"):
            with self.subTest(password), self.assertRaises(Refused) as refused:
                check_new(password, "odalys", "Odalys")
            self.assertEqual((refused.exception.problem.status, refused.exception.problem.where), (422, "password"))
        check_new("clay is patient", "odalys", "Odalys")
        check_new("four words of clay " * 8, "odalys")


class IdleSessions(unittest.TestCase):
    def test_a_session_that_lies_unused_ends_and_use_keeps_it(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            database = Database(Path(folder) / "gentlegate.db")
            self.addCleanup(database.close)
            accounts = Accounts(database)
            account = accounts.add("juno", "Juno", "moderator", "secret")
            accounts.begin_session("t", account, 0, 365 * 24 * HOUR, "here")
            for days in (6, 12, 18):
                self.assertIsNotNone(accounts.of_session("t", days * 24 * HOUR))
            self.assertIsNone(accounts.of_session("t", (18 + 7) * 24 * HOUR + 1))
