"""Joining the platforms over HTTP: every step seen, what comes next, and nothing that fails silently."""

from __future__ import annotations

import json
import unittest
from typing import Any, ClassVar

from gentlegate.demo.prepare import TOKEN
from tests.support.world import World, eventually

ALL = ["authorised", "joined", "rights", "live", "heard", "answered"]


class Joining(unittest.TestCase):
    world: ClassVar[World]

    def setUp(self) -> None:
        self.world = World().start(live=False)  # type: ignore[misc]
        self.addCleanup(self.world.stop)
        self.marlo = self.world.client("marlo")
        self.addCleanup(self.marlo.close)

    def standing(self, platform: str = "brook") -> dict[str, Any]:
        found = self.marlo.get("/api/platforms").raise_for_status().json()["platforms"]
        return next(dict(one) for one in found if one["platform"] == platform)

    def test_the_shown_name_is_the_broadcasters_to_change_and_kept_in_the_ledger(self) -> None:
        eventually(lambda: "joined" in self.standing()["done"])
        path = "/api/platforms/brook/name"
        self.assertEqual(self.marlo.get(path).json(), {"name": "Gatekeeper"})
        with self.world.client("odalys") as odalys:
            self.assertEqual(odalys.get(path).json(), {"name": "Gatekeeper"})
            self.assertEqual(odalys.put(path, json={"name": "Kiln Keeper"}).status_code, 403)
        self.assertEqual(self.marlo.put(path, json={"name": " Kiln Keeper "}).json(), {"name": "Kiln Keeper"})
        long = self.marlo.put(path, json={"name": "a name with more than 25 characters"})
        self.assertEqual(long.status_code, 409)
        self.assertIn("25 characters", long.json()["detail"])
        (entry,) = self.marlo.get("/api/ledger", params={"what": "shown_name"}).json()["entries"]
        self.assertEqual((entry["before"], entry["after"]), ("Gatekeeper", "Kiln Keeper"))
        self.assertEqual(self.marlo.get("/api/platforms/harbour/name").status_code, 422)

    def test_step_by_step_to_a_reply_that_came_back(self) -> None:
        eventually(lambda: self.standing("plaza")["done"][:3] == ALL[:3])
        self.assertEqual(self.standing("plaza")["next"], "live")
        self.world.go("plaza", True)
        eventually(lambda: "live" in self.standing("plaza")["done"])
        self.assertEqual(self.standing("plaza")["next"], "heard")
        self.world.type("first of all", platform="plaza")
        eventually(lambda: self.standing("plaza")["next"] == "answered")
        tested = self.marlo.post("/api/platforms/plaza/test").json()
        self.assertTrue(tested["back"] and tested["known"])
        self.assertIsNone(self.standing("plaza")["next"])

    def test_the_account_that_is_let_in_is_the_gatekeeper(self) -> None:
        """Without anybody's having to say so, also where the settings know nothing of it."""
        settings = {"channel": {"name": "Kiln & Kettle"}}
        self.world.kill_gate()
        self.world.change("INSERT INTO settings (at, who, document) VALUES (1, 'gate', ?)", json.dumps(settings))
        self.world.start_gate()
        with self.world.client("marlo") as marlo:
            find = {"what": "setting", "text": "channel.gatekeeper"}
            made = eventually(
                lambda: (
                    marlo.get("/api/ledger", params=find).json()["entries"][2:]
                    and marlo.get("/api/ledger", params=find).json()["entries"]
                )
            )
        self.assertEqual({(one["key"], one["place"]) for one in made}, {("gate", "gate")})
        whys = [f"the account that {platform} lets in" for platform in ("Brook", "Lantern", "Plaza")]
        self.assertEqual(sorted(one["why"] for one in made), whys)
        self.world.go("brook", True)
        eventually(lambda: self.world.health()["live"])
        with self.world.client("marlo") as marlo:
            self.assertTrue(marlo.post("/api/platforms/brook/test").json()["known"])

    def test_rights_that_are_missing_are_asked_for_in_words_that_work(self) -> None:
        eventually(lambda: "rights" in self.standing()["done"])
        self.world.trouble("brook", rights=False)
        eventually(lambda: self.standing()["next"] == "rights")
        self.world.type(self.standing()["rights_words"], "marlo_finch", "broadcaster")
        checked = self.marlo.post("/api/platforms/brook/check").json()
        self.assertIn("rights", checked["done"])
        self.world.trouble("brook", rights=False)
        self.world.type("!!trust gatekeeper", "pushy")
        self.assertNotIn("rights", self.marlo.post("/api/platforms/brook/check").json()["done"])

    def test_a_wrong_token_is_said_and_a_right_one_mends_it(self) -> None:
        for platform in ("lantern", "brook", "plaza"):
            with self.subTest(platform):
                address = {"address": self.world.playhouse_address}
                self.marlo.put(f"/api/platforms/{platform}", json=address | {"token": "wrong"}).raise_for_status()
                eventually(lambda platform=platform: self.standing(platform)["lamp"] == "broken")  # type: ignore[misc]
                self.assertEqual(self.standing(platform)["next"], "authorised")
                self.assertTrue(self.standing(platform)["note"])
                self.marlo.put(f"/api/platforms/{platform}", json=address | {"token": TOKEN}).raise_for_status()
                eventually(lambda platform=platform: "joined" in self.standing(platform)["done"])  # type: ignore[misc]
        self.world.go("lantern", True)
        self.world.type("!kiln", platform="lantern")
        eventually(lambda: any("640" in text for text in self.world.texts("lantern")))
        secrets = self.world.rows("SELECT before, after FROM ledger WHERE what = 'platform'")
        self.assertNotIn(TOKEN, str(secrets))

    def test_where_there_is_no_chat_and_who_nobody_knows(self) -> None:
        eventually(lambda: "joined" in self.standing("lantern")["done"])
        refused = self.marlo.post("/api/platforms/lantern/test")
        self.assertEqual((refused.status_code, refused.json()["where"]), (422, "platform"))
        self.assertEqual(self.marlo.post("/api/platforms/harbour/test").status_code, 422)
        self.assertEqual(
            self.marlo.put("/api/platforms/harbour", json={"address": "http://x.test", "token": "t"}).status_code,
            404,
        )
        taken = self.marlo.post("/api/platforms/brook/gatekeeper", json={"person": "brook:@helper"})
        self.assertEqual(taken.status_code, 204)
        self.assertEqual(
            self.marlo.post("/api/platforms/brook/gatekeeper", json={"person": "plaza:@x"}).status_code, 422
        )

    def test_a_broken_connection_is_told_as_such(self) -> None:
        eventually(lambda: "joined" in self.standing()["done"])
        self.world.trouble("brook", broken=True)
        checked = self.marlo.post("/api/platforms/brook/check").json()
        self.assertEqual((checked["lamp"], checked["next"]), ("broken", "authorised"))
        self.world.trouble("brook", broken=False)
        eventually(lambda: "joined" in self.standing()["done"])
