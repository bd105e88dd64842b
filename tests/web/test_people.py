"""The People room over HTTP: cards, messages, notes, links, lists, and what is removed for good."""

from __future__ import annotations

import unittest
from typing import Any, ClassVar

from tests.support.world import World, eventually


def setUpModule() -> None:
    WithWorld.world = World().start(platforms=("brook", "lantern", "plaza"))


def tearDownModule() -> None:
    WithWorld.world.stop()


class WithWorld(unittest.TestCase):
    world: ClassVar[World]

    def setUp(self) -> None:
        self.marlo, self.odalys, self.bram = (self.world.client(login) for login in ("marlo", "odalys", "bram"))
        for client in (self.marlo, self.odalys, self.bram):
            self.addCleanup(client.close)

    def card(self, person: str) -> dict[str, Any]:
        return dict(self.bram.get(f"/api/people/card/{person}").raise_for_status().json())

    def said(self, person: str) -> list[dict[str, Any]]:
        return list(self.bram.get(f"/api/people/card/{person}/messages").raise_for_status().json()["messages"])

    def type(self, text: str, login: str, platform: str = "brook") -> str:
        id = self.world.type(text, login, platform=platform)
        eventually(lambda: any(one["text"] == text for one in self.said(f"{platform}:@{login}")))
        return id


class Cards(WithWorld):
    def test_what_they_wrote_and_what_became_of_it(self) -> None:
        self.type("good evening", "clay_ton")
        id = self.type("this one goes", "clay_ton")
        self.bram.post(
            "/api/desk/timeout", json={"platform": "brook", "message": id, "seconds": 60}
        ).raise_for_status()
        newest, older = self.said("brook:u-clay_ton")[:2]
        self.assertEqual((newest["text"], newest["outcome"], newest["by"]), ("this one goes", "remove", "Bram"))
        self.assertEqual((older["text"], older["outcome"]), ("good evening", None))
        card = self.card("brook:u-clay_ton")
        self.assertEqual(
            [(act["what"], act["by"], act["seconds"]) for act in card["acts"]][:1], [("timeout", "Bram", 60)]
        )
        self.assertEqual((card["messages"], card["level"]), (2, "everyone"))

    def test_found_by_any_name_and_nobody_is_said_so(self) -> None:
        self.type("hello", "slipcast_lu")
        found = self.bram.get("/api/people", params={"search": "SLIPCAST"}).json()["people"]
        self.assertEqual([one["key"] for one in found], ["brook:u-slipcast_lu"])
        lately = self.bram.get("/api/people").json()["people"]
        self.assertEqual(lately[0]["key"], "brook:u-slipcast_lu")
        answer = self.bram.get("/api/people/card/brook:u-never_was")
        self.assertEqual((answer.status_code, answer.json()["where"]), (404, "person"))
        self.assertEqual(self.bram.get("/api/people/card/nonsense").status_code, 422)

    def test_notes_have_author_and_way_back(self) -> None:
        self.type("hello", "notable")
        body = {"person": "brook:@notable", "text": "  Asked nicely on Tuesday. "}
        note = self.bram.post("/api/people/notes", json=body).raise_for_status().json()
        (shown,) = self.card("brook:u-notable")["notes"]
        self.assertEqual((shown["text"], shown["by"], shown["mine"]), ("Asked nicely on Tuesday.", "Bram", True))
        with self.world.client("wren") as wren:
            self.assertEqual(wren.put(f"/api/people/notes/{note['id']}", json={"gone": True}).status_code, 403)
        self.odalys.put(f"/api/people/notes/{note['id']}", json={"gone": True}).raise_for_status()
        self.assertEqual(self.card("brook:u-notable")["notes"], [])
        self.bram.put(f"/api/people/notes/{note['id']}", json={"gone": False}).raise_for_status()
        self.assertEqual(len(self.card("brook:u-notable")["notes"]), 1)
        kept = self.odalys.get("/api/ledger", params={"what": "note"}).json()["entries"]
        self.assertEqual(
            [(one["before"], one["after"]) for one in kept][:3],
            [(None, note["id"]), (note["id"], None), (None, note["id"])],
        )
        self.assertNotIn("Tuesday", str(kept))


class LinksAndLists(WithWorld):
    def test_linked_and_parted(self) -> None:
        self.type("hello", "twofold")
        self.type("hello too", "twofold", "lantern")
        self.assertEqual([one["key"] for one in self.card("brook:u-twofold")["alike"]], ["lantern:u-twofold"])
        body = {"person": "brook:u-twofold", "other": "lantern:@twofold"}
        self.assertEqual(self.bram.post("/api/people/link", json=body).status_code, 403)
        self.odalys.post("/api/people/link", json=body).raise_for_status()
        card = self.card("lantern:u-twofold")
        self.assertEqual((len(card["accounts"]), card["messages"], card["alike"]), (2, 2, []))
        self.odalys.post("/api/people/unlink", json={"person": "lantern:u-twofold"}).raise_for_status()
        self.assertEqual(len(self.card("brook:u-twofold")["accounts"]), 1)
        again = self.odalys.post("/api/people/unlink", json={"person": "lantern:u-twofold"})
        self.assertEqual(again.status_code, 422)

    def test_names_are_checked_with_the_platform(self) -> None:
        self.type("hello", "seen_here")
        for platform, known in (("brook", "quillwort"), ("lantern", "ferrous"), ("plaza", "slipdip")):
            body = {"platform": platform, "names": [known, "no_such_person", "two words"]}
            found = self.odalys.post("/api/people/check", json=body).raise_for_status().json()
            self.assertEqual([one["person"] for one in found], [f"{platform}:u-{known}", None, None])
            self.assertIn("knows nobody", found[1]["problem"])
        body = {"platform": "brook", "names": ["@Seen_Here", "lantern:@ferrous"]}
        found = self.odalys.post("/api/people/check", json=body).json()
        self.assertEqual([one["person"] for one in found], ["brook:u-seen_here", "lantern:u-ferrous"])

    def test_lists_and_the_level_they_give(self) -> None:
        self.type("hello", "evergreen")
        path = "/api/people/lists/regulars"
        after = self.odalys.post(path, json={"add": ["brook:u-evergreen"]}).raise_for_status().json()
        self.assertIn(("evergreen", True), [(one["login"], one["known"]) for one in after["entries"]])
        card = self.card("brook:u-evergreen")
        self.assertEqual((card["level"], card["why"][0]["by"], card["lists"]), ("regular", "list", ["regulars"]))
        self.odalys.post(path, json={"take": ["brook:u-evergreen"]}).raise_for_status()
        self.assertEqual(self.card("brook:u-evergreen")["level"], "everyone")
        self.assertEqual(self.odalys.post("/api/people/lists/leads", json={"add": ["brook:u-x"]}).status_code, 403)
        refused = self.odalys.post(path, json={"add": ["not a person"]})
        self.assertEqual((refused.status_code, refused.json()["where"]), (422, "add"))


class ForGood(WithWorld):
    def test_what_somebody_said_is_gone_and_the_counts_stay(self) -> None:
        self.type("my secret recipe", "forgetme")
        self.type("CLICK https://forget.test/me", "forgetme")
        self.bram.post("/api/people/notes", json={"person": "brook:u-forgetme", "text": "a note on forgetme"})
        self.bram.post("/api/desk/pass", json={"person": "brook:u-forgetme", "length": "5m"}).raise_for_status()
        count = self.world.rows("SELECT count(*) FROM events WHERE kind = 'message'")[0][0]
        self.assertEqual(self.odalys.delete("/api/people/card/brook:u-forgetme").status_code, 403)
        answer = self.marlo.delete("/api/people/card/brook:u-forgetme").raise_for_status().json()
        self.assertEqual((answer["messages"], answer["settings"]), (2, []))
        self.assertEqual(self.bram.get("/api/people/card/brook:u-forgetme").status_code, 404)
        self.assertEqual(self.world.rows("SELECT count(*) FROM events WHERE kind = 'message'")[0][0], count)
        for table, column in (("events", "body"), ("events", "person"), ("effects", "body"), ("notes", "text"), ("state", "body"), ("state", "key")):  # fmt: skip
            found = self.world.rows(f"SELECT {column} FROM {table} WHERE instr(lower({column}), 'forgetme')")
            self.assertEqual(found, [], f"{table}.{column}")
        self.assertEqual(self.world.rows("SELECT count(*) FROM events WHERE instr(body, 'secret recipe')"), [(0,)])
        self.assertEqual(self.marlo.get("/api/people", params={"search": "forgetme"}).json()["people"], [])
        self.world.kill_gate()
        self.world.start_gate()
        eventually(lambda: self.world.health()["live"])
        self.assertEqual(self.bram.get("/api/people/card/brook:u-forgetme").status_code, 404)
