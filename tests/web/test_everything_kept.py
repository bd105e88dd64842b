"""Whatever is changed or done, by Desk or by chat, stands in the ledger: who, from where, about what."""

from __future__ import annotations

import unittest
from typing import Any, ClassVar

import httpx

from tests.support.world import World, eventually

DESK: list[tuple[str, str, Any, str, str]] = [
    ("POST", "/api/desk/count", {"name": "boils", "step": "=7"}, "count", "boils"),
    ("POST", "/api/desk/title", {"title": "Nine of twelve"}, "title", "brook"),
    ("POST", "/api/stream/category", {"category": "Glaze lab", "platforms": ["brook"]}, "category", "brook"),
    ("POST", "/api/stream/marker", {"note": "the wobble"}, "marker", "brook"),
    ("POST", "/api/stream/clip", {}, "clip", "brook"),
    ("POST", "/api/stream/ad", {"platform": "brook", "seconds": 45}, "ad", "brook"),
    ("POST", "/api/stream/raid", {"name": "wickerworks", "platform": "brook"}, "raid_armed", "brook"),
    ("DELETE", "/api/stream/raid", None, "raid_armed", "brook"),
    ("POST", "/api/stream/shoutout", {"name": "wickerworks", "platform": "brook"}, "shoutout", "brook"),
    ("POST", "/api/desk/pass", {"person": "brook:u-guest", "length": "5m"}, "pass", "brook:u-guest"),
    ("POST", "/api/desk/pass", {"person": "brook:u-guest", "end": True}, "pass", "brook:u-guest"),
    ("POST", "/api/desk/people/timeout", {"person": "brook:u-guest", "seconds": 60}, "timeout", "brook brook:u-guest"),
    ("POST", "/api/desk/people/ban", {"person": "brook:u-guest"}, "ban", "brook brook:u-guest"),
    ("POST", "/api/desk/people/lift", {"person": "brook:u-guest"}, "lift", "brook brook:u-guest"),
    ("POST", "/api/desk/undo", {"person": "brook:u-guest"}, "undo", "brook "),
    ("POST", "/api/stream/arrivals/forget", {"person": "brook:u-guest"}, "arrivals", "brook:u-guest"),
    ("POST", "/api/desk/drawbridge", {"up": True}, "drawbridge", ""),
    ("POST", "/api/desk/drawbridge", {"up": False}, "drawbridge", ""),
    ("PUT", "/api/rules/mood", {"mood": "library", "tonight": True}, "tonight", "channel.mood"),
    ("PUT", "/api/rules/mood", {"mood": "party"}, "setting", "channel.mood"),
    ("PUT", "/api/rules/filters/length", {"values": {"most": 333}}, "setting", "filters.length.most"),
    ("POST", "/api/rules/lists/links/allowed", {"add": ["fresh.example"]}, "setting", "filters.links.allowed"),
    ("PUT", "/api/commands/fresh", {"command": {"name": "fresh", "reply": "x"}, "revision": None}, "setting", "commands.fresh"),
    ("DELETE", "/api/commands/fresh", None, "setting", "commands.fresh"),
    ("PUT", "/api/cues/fresh", {"command": {"name": "fresh", "hears": ["fresh clay"], "reply": "x"}, "revision": None}, "setting", "cues.fresh"),
    ("PUT", "/api/counters/fresh", {"command": {"name": "fresh"}, "revision": None}, "setting", "counters.fresh"),
    ("PUT", "/api/rotas/fresh", {"rota": {"name": "fresh", "notices": [{"text": "x"}]}, "revision": None}, "setting", "rotas.fresh"),
    ("POST", "/api/quotes", {"text": "Clay is patient.", "said_by": "Marlo"}, "setting", "quotes."),
    ("POST", "/api/people/lists/regulars", {"add": ["brook:u-guest"]}, "setting", "people.regulars"),
    ("POST", "/api/people/link", {"person": "brook:u-guest", "other": "lantern:u-guest"}, "setting", "people.linked"),
    ("POST", "/api/people/notes", {"person": "brook:u-guest", "text": "kind"}, "note", "brook:u-guest"),
    ("POST", "/api/team/invitations", {"level": "viewer", "note": "Ivy"}, "invite", "Ivy"),
]  # fmt: skip
"""Method, address and body of an act; the kind of its entry, and what that is about (or begins with)."""
CHAT = [
    ("!count lost =4", "count", "lost"),
    ("!title Ten of twelve", "title", "brook"),
    ("!category Kiln opening", "category", "brook"),
    ("!pass guest for 3m links", "pass", "brook:u-guest"),
    ("!teach glue Use slip, not glue.", "setting", "commands.glue"),
    ("!reword glue Slip and score.", "setting", "commands.glue"),
    ("!forget glue", "setting", "commands.glue"),
    ("!mood parlour", "setting", "channel.mood"),
    ("!marker that sound", "marker", "brook"),
    ("!quote add It held.", "setting", "quotes."),
]
"""What a lead types, with the same two."""


class Kept(unittest.TestCase):
    world: ClassVar[World]
    odalys: ClassVar[httpx.Client]

    @classmethod
    def setUpClass(cls) -> None:
        cls.world = World().start()
        cls.odalys = cls.world.client("odalys")
        cls.world.type("I am the guest", "guest")
        eventually(lambda: cls.odalys.get("/api/people/card/brook:u-guest").is_success)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.odalys.close()
        cls.world.stop()

    def newest(self) -> int:
        return int(self.world.rows("SELECT max(seq) FROM ledger")[0][0] or 0)

    def since(self, number: int, what: str) -> list[dict[str, Any]]:
        found = self.odalys.get("/api/ledger", params={"what": what}).raise_for_status().json()["entries"]
        return [one for one in found if one["number"] > number]

    def test_every_act_at_the_desk(self) -> None:
        for method, address, body, what, about in DESK:
            with self.subTest(f"{method} {address} {body}"):
                before = self.newest()
                self.odalys.request(method, address, json=body).raise_for_status()
                entries = eventually(lambda before=before, what=what: self.since(before, what))  # type: ignore[misc]
                self.assertTrue(any(str(one["about"]).startswith(about) for one in entries), entries)
                self.assertEqual({(one["who"], one["place"]) for one in entries}, {("Odalys", "desk")})

    def test_every_act_in_chat(self) -> None:
        for words, what, about in CHAT:
            with self.subTest(words):
                before = self.newest()
                self.world.type(words, "odalys", "moderator")
                entries = eventually(lambda before=before, what=what: self.since(before, what))  # type: ignore[misc]
                self.assertTrue(any(str(one["about"]).startswith(about) for one in entries), entries)
                self.assertEqual({(one["who"], one["place"]) for one in entries}, {("Odalys", "chat")})

    def test_what_only_looks_leaves_nothing(self) -> None:
        before = self.newest()
        for address in ("/api/commands", "/api/people", "/api/hand-over", "/api/team", "/api/rules", "/api/kits"):
            self.odalys.get(address).raise_for_status()
        self.odalys.post("/api/try-out", json={"text": "!count lost +1"}).raise_for_status()
        self.odalys.post("/api/rotas/forecast", json={}).raise_for_status()
        self.assertEqual(self.newest(), before)
