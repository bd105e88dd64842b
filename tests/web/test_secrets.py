"""No password, code, key or token is in the log, nor in the ledger."""

from __future__ import annotations

import json
import unittest
from typing import ClassVar

import httpx
import pyotp

from gentlegate.demo.prepare import PASSWORD, TOKEN
from tests.support.world import World

OWN, WRONG, OTHER_TOKEN = "clay is patient", "a wrong guess at it", "another-token-for-lantern"


class Secrets(unittest.TestCase):
    world: ClassVar[World]

    @classmethod
    def setUpClass(cls) -> None:
        cls.world = World().start()

    @classmethod
    def tearDownClass(cls) -> None:
        cls.world.stop()

    def test_what_is_given_in_confidence_is_printed_nowhere(self) -> None:
        marlo = self.world.client("marlo")
        self.addCleanup(marlo.close)
        link = marlo.post("/api/team/invitations", json={"level": "lead"}).raise_for_status().json()["link"]
        key = link.partition("key=")[2]
        body = {"key": key, "login": "fern", "name": "Fern", "password": OWN}
        for _ in range(2):
            joined = httpx.post(f"{self.world.address}/api/join", json=body, trust_env=False)
        self.assertEqual(joined.status_code, 410)
        wrong = {"login": "fern", "password": WRONG}
        for _ in range(7):
            refused = httpx.post(f"{self.world.address}/api/session", json=wrong, trust_env=False)
        self.assertEqual(refused.status_code, 429)
        secret = marlo.post("/api/second", json={"password": PASSWORD}).raise_for_status().json()["secret"]
        code = pyotp.TOTP(secret).now()
        marlo.put("/api/second", json={"code": "000000"})
        marlo.put("/api/second", json={"code": code}).raise_for_status()
        again = {"address": self.world.playhouse_address, "token": OTHER_TOKEN}
        marlo.put("/api/platforms/lantern", json=again).raise_for_status()
        marlo.post("/api/platforms/lantern/check").raise_for_status()
        card = marlo.get("/api/stage").json()["cards"][0]["address"].partition("key=")[2]
        marlo.put("/api/password", json={"old": PASSWORD, "new": OWN}).raise_for_status()
        log = self.world.log.read_text(encoding="utf-8")
        self.assertIn("access.wrong", log)
        self.assertIn("web.refused", log)
        ledger = json.dumps(self.world.rows("SELECT * FROM ledger"))
        session = marlo.cookies["gentlegate_session"]
        for what in (OWN, WRONG, PASSWORD, TOKEN, OTHER_TOKEN, key, secret, card, session):
            self.assertNotIn(what, log)
            self.assertNotIn(what, ledger)
        self.assertNotIn(code, log)
