"""Wire formats, pure: what the platforms send and take, as tables."""

from __future__ import annotations

import unittest
from typing import Any

from gentlegate.connectors.brook import wire as brook
from gentlegate.connectors.lantern import wire as lantern
from gentlegate.core.events import Message, Person, Removal, StreamChange

BROOK_LINE: dict[str, Any] = {
    "id": "b1",
    "ts": 1_772_906_404_250,
    "author": {"uid": "u-moss", "handle": "moss", "shown": "Moss", "marks": ["subscriber", "founder"]},
    "body": "hello :pot:",
    "pictures": [[6, 11], [9, 99], [3, 2]],
    "deed": True,
    "thread": "b0",
}
LANTERN_ENTRY: dict[str, Any] = {
    "ref": "l1",
    "when": 1_772_906_404.25,
    "by": {"number": "u-moss", "nick": "moss", "display": "Moss", "roles": ["moderator"]},
    "words": "hello :pot:",
    "images": [{"from": 6, "to": 11}],
    "me": False,
}
TITLE = {"effect": "title", "title": "Bowls"}
SAY = {"effect": "say", "text": "hot", "reply_to": "b1", "private_to": "brook:u-moss"}
TIMEOUT = {"effect": "timeout", "person": "brook:u-moss", "seconds": 60}


class BrookWire(unittest.TestCase):
    def test_a_line(self) -> None:
        person = Person("brook", "u-moss", "moss", "Moss", frozenset({"subscriber"}))
        expected = Message(1_772_906_404_250_000, "brook", "b1", person, "hello :pot:", ((6, 11),), True, "b0")
        self.assertEqual(brook.message(BROOK_LINE), expected)

    def test_the_least_that_a_line_has(self) -> None:
        line = {"id": "b1", "ts": 1, "author": {"uid": "1", "handle": "moss"}, "body": ""}
        self.assertEqual(brook.message(line).person.name, "moss")

    def test_what_is_no_line(self) -> None:
        for missing in ("id", "ts", "author", "body"):
            with self.subTest(missing), self.assertRaises(KeyError):
                brook.message({key: value for key, value in BROOK_LINE.items() if key != missing})

    def test_the_channel(self) -> None:
        frame = {"on_air": True, "title": "Bowls", "section": "Glaze lab", "moderator": True}
        self.assertEqual(brook.channel(frame, 5), StreamChange(5, "brook", True, "Bowls", "Glaze lab"))

    def test_what_it_takes(self) -> None:
        for effect, path, body in (
            (SAY, "/brook/say", {"body": "hot", "thread": "b1", "whisper_to": "u-moss"}),
            ({"effect": "remove", "message": "b1"}, "/brook/lines/b1/delete", {}),
            (TIMEOUT, "/brook/people/u-moss/quiet", {"seconds": 60}),
            ({"effect": "ban", "person": "brook:u-moss"}, "/brook/people/u-moss/ban", {}),
            ({"effect": "unban", "person": "brook:u-moss"}, "/brook/people/u-moss/free", {}),
            (TITLE, "/brook/channel", {"title": "Bowls"}),
            ({"effect": "followers_only", "on": True}, "/brook/followers", {"only": True}),
        ):
            with self.subTest(effect["effect"]):
                self.assertEqual(brook.request(effect), (path, body))
        self.assertIsNone(brook.request({"effect": "restore", "message": "b1"}))

    def test_a_line_that_a_person_removed(self) -> None:
        self.assertEqual(brook.removal({"id": "b1", "by": "bram"}, 7), Removal(7, "brook", "b1"))


class LanternWire(unittest.TestCase):
    def test_an_entry_that_is_a_line_or_a_removal(self) -> None:
        self.assertEqual(lantern.entry(LANTERN_ENTRY, 7), lantern.message(LANTERN_ENTRY))
        self.assertEqual(lantern.entry({"gone": "l1", "by": "wren"}, 7), Removal(7, "lantern", "l1"))
        self.assertIsNone(lantern.request({"effect": "followers_only", "on": True}))

    def test_an_entry(self) -> None:
        person = Person("lantern", "u-moss", "moss", "Moss", frozenset({"moderator"}))
        expected = Message(1_772_906_404_250_000, "lantern", "l1", person, "hello :pot:", ((6, 11),))
        self.assertEqual(lantern.message(LANTERN_ENTRY), expected)

    def test_the_status(self) -> None:
        status = {"lit": False, "headline": "Bowls", "shelf": "Glaze lab", "keeper": True}
        self.assertEqual(lantern.channel(status, 5), StreamChange(5, "lantern", False, "Bowls", "Glaze lab"))

    def test_what_it_takes(self) -> None:
        for effect, path, body in (
            (SAY, "/lantern/post", {"words": "hot"}),
            ({"effect": "remove", "message": "l1"}, "/lantern/hide", {"entry": "l1"}),
            ({"effect": "restore", "message": "l1"}, "/lantern/show", {"entry": "l1"}),
            (TIMEOUT, "/lantern/hush", {"who": "u-moss", "seconds": 60}),
            ({"effect": "ban", "person": "lantern:u-moss"}, "/lantern/hush", {"who": "u-moss"}),
            ({"effect": "unban", "person": "lantern:u-moss"}, "/lantern/unhush", {"who": "u-moss"}),
            (TITLE, "/lantern/headline", {"words": "Bowls"}),
        ):
            with self.subTest(effect["effect"]):
                self.assertEqual(lantern.request(effect), (path, body))
        self.assertIsNone(lantern.request({"effect": "raid", "target": "x"}))
