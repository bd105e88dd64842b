from __future__ import annotations

import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from gentlegate.core.errors import KitError, LifecycleError
from gentlegate.core.events import StreamChange
from gentlegate.core.kit import edit
from gentlegate.core.kit.load import load_kit
from gentlegate.core.kit.warnings import warnings_of
from gentlegate.core.moments import format_moment, in_words, parse_moment, parse_span
from gentlegate.core.state import State
from gentlegate.core.streams import Streams

MINUTE = 60_000_000

BAD: list[tuple[Any, str, str]] = [
    ([], "", "one JSON object"),
    ({"gentlegate": 2}, "gentlegate", "version 2"),
    ({"comands": []}, "comands", 'did you mean "commands"'),
    ({"filters": {"links": {"alowed": []}}}, "filters.links.alowed", 'did you mean "allowed"'),
    ({"filters": {"links": {"allowed": [{"txt": "x"}]}}}, "filters.links.allowed.0.text", "needed"),
    ({"filters": {"links": {"allowed": ["ok.test", "two words"]}}}, "filters.links.allowed.1", "space"),
    ({"filters": {"capitals": {"share": "a lot"}}}, "filters.capitals.share", "number"),
    ({"filters": {"capitals": {"share": 1.5}}}, "filters.capitals.share", "less than or equal to 1"),
    ({"filters": {"capitals": {"on": 1}}}, "filters.capitals.on", "boolean"),
    ({"channel": {"timezone": "Kiln/Shed"}}, "channel.timezone", "time zone"),
    ({"channel": {"stream_gap": "soon"}}, "channel.stream_gap", "not a duration"),
    ({"channel": {"cooldown": "default"}}, "channel.cooldown", "default itself"),
    ({"channel": {"mood": "rowdy"}}, "channel.mood", "'party'"),
    ({"people": {"leads": ["odalys"]}}, "people.leads.0", "platform:id"),
    ({"people": {"linked": [["a:1"], ["a:1"]]}}, "people.linked", "two links"),
    ({"commands": [{"name": "kiln"}]}, "commands.0.reply", "needed"),
    ({"commands": [{"name": "two words", "reply": "x"}]}, "commands.0.name", "one word"),
    ({"commands": [{"name": "!kiln", "reply": "x"}]}, "commands.0.name", "without its prefix"),
    ({"commands": [{"name": "a", "reply": "x"}, {"name": "A", "reply": "x"}]}, "commands.1.name", "already"),
    ({"commands": [{"name": "a", "reply": "x", "aliases": ["title"]}]}, "commands.0.aliases.0", "built-in title"),
    ({"commands": [{"name": "a", "reply": ["x", "{{ y"]}]}, "commands.0.reply.1", "line 1"),
    ({"commands": [{"name": "a", "reply": "hi\n{{ x | nofilter }}"}]}, "commands.0.reply.0", "line 2"),
    ({"commands": [{"name": "a", "reply": "x", "cooldown": {"everyone": "x"}}]}, "commands.0.cooldown.everyone", "duration"),
    ({"commands": [{"name": "a", "reply": "x", "cooldown": {"evryone": 1}}]}, "commands.0.cooldown.evryone", "everyone"),
    ({"commands": [{"name": "a", "reply": "x", "counts": [{"counter": "b", "by": 1}]}]}, "commands.0.counts.0.counter", "no counter"),
    ({"counters": [{"name": "a"}, {"name": "A"}]}, "counters.1.name", "already"),
    ({"built_ins": {"tittle": {}}}, "built_ins.tittle", "no such built-in"),
    ({"rotas": [{"name": "r", "every": "30s"}]}, "rotas.0.every", "at least"),
    ({"rotas": [{"name": "r", "notices": [{"text": "a", "command": "b"}]}]}, "rotas.0.notices.0", "either"),
    ({"rotas": [{"name": "r", "notices": [{"command": "b"}]}]}, "rotas.0.notices.0.command", "no command"),
    ({"rotas": [{"name": "r", "notices": [{"text": "a", "from": "2026-03-08", "until": "2026-03-07"}]}]}, "rotas.0.notices.0", "swap"),
    ({"ladder": {"steps": [{"strikes": 1, "step": "timeout"}]}}, "ladder.steps", "seconds"),
    ({"platforms": {"brook": {"lenght": 100}}}, "platforms.brook.lenght", "length"),
]  # fmt: skip


class BadKits(unittest.TestCase):
    def test_each_is_refused_with_its_place_and_remedy(self) -> None:
        for document, path, words in BAD:
            with self.subTest(document), self.assertRaises(KitError) as caught:
                load_kit(document)
            self.assertEqual(caught.exception.path, path)
            self.assertIn(words, caught.exception.problem)


class Edits(unittest.TestCase):
    DOCUMENT = {"commands": [{"name": "kiln", "reply": "a"}], "filters": {"links": {"on": True}}}

    def test_entries_are_named(self) -> None:
        changed = edit.write(self.DOCUMENT, "commands.KILN", {"name": "kiln", "reply": "b"})
        self.assertEqual(edit.read(changed, "commands.kiln"), {"name": "kiln", "reply": "b"})
        self.assertEqual(edit.read(self.DOCUMENT, "commands.kiln"), {"name": "kiln", "reply": "a"})
        self.assertEqual(edit.write(changed, "commands.kiln", None)["commands"], [])

    def test_keys_are_made_and_removed(self) -> None:
        self.assertEqual(edit.read(edit.write({}, "channel.mood", "party"), "channel.mood"), "party")
        self.assertEqual(edit.write(self.DOCUMENT, "filters.links", None)["filters"], {})

    def test_what_is_not_there_cannot_be_removed(self) -> None:
        with self.assertRaises(KitError):
            edit.write({}, "commands.kiln", None)


class Times(unittest.TestCase):
    def test_spans(self) -> None:
        for text, seconds in {"45s": 45, "5m": 300, "1h30m": 5400, "2d": 172800, 90: 90, 0.5: 0.5, "0s": 0}.items():
            with self.subTest(text):
                self.assertEqual(parse_span(text), seconds * 1_000_000)
        for wrong in ("", "5", "5 minutes", "-5s", -1, True, None, float("nan"), float("inf"), "m", "99999999d"):
            with self.subTest(wrong), self.assertRaises(ValueError):
                parse_span(wrong)

    def test_moments_with_any_offset(self) -> None:
        self.assertEqual(parse_moment("2026-03-07T19:00:00+01:00"), parse_moment("2026-03-07T18:00:00Z"))
        for wrong in ("2026-03-07", "2026-03-07T18:00:00", "yesterday", "2026-13-07T18:00:00Z"):
            with self.subTest(wrong), self.assertRaises(ValueError):
                parse_moment(wrong)

    @given(st.integers(0, 4_000_000_000_000_000))
    def test_a_moment_written_is_the_moment_read(self, moment: int) -> None:
        self.assertEqual(parse_moment(format_moment(moment)), moment)

    def test_words(self) -> None:
        for span, words in {
            6 * 60 * MINUTE: "6 h",
            103 * MINUTE: "1 h 43 min",
            45_000_000: "45 s",
            0: "0 s",
        }.items():
            self.assertEqual(in_words(span), words)


class StreamTable(unittest.TestCase):
    """Every cell of phase × event; what is not in the table is an error and changes nothing."""

    def streams(self) -> Streams:
        return Streams(State(), 10 * MINUTE)

    def go(self, streams: Streams, when: int, live: bool, platform: str = "brook") -> bool:
        return streams.change(StreamChange(when, platform, live), when)

    def test_a_short_spell_offline_continues_the_stream(self) -> None:
        streams = self.streams()
        self.assertTrue(self.go(streams, 0, True))
        self.assertFalse(self.go(streams, 1, True, "lantern"))
        self.go(streams, 2, False)
        self.assertTrue(streams.live)
        self.go(streams, 3, False, "lantern")
        self.assertEqual((streams.live, streams.due()), (False, 3 + 10 * MINUTE))
        self.assertFalse(self.go(streams, 4, True))
        self.assertEqual((streams.now.number, streams.now.began), (1, 0))

    def test_after_the_gap_a_new_one_begins(self) -> None:
        streams = self.streams()
        self.go(streams, 0, False)
        self.go(streams, 0, True)
        self.go(streams, 5, False)
        streams.end_gap()
        self.assertEqual(streams.now.phase, "over")
        self.assertTrue(self.go(streams, 20 * MINUTE, True))
        self.assertEqual((streams.now.number, streams.now.began), (2, 20 * MINUTE))

    def test_a_gap_cannot_end_that_is_not_there(self) -> None:
        streams = self.streams()
        with self.assertRaises(LifecycleError):
            streams.end_gap()
        self.assertEqual(streams.now.phase, "never")


class Warnings(unittest.TestCase):
    def test_what_is_odd_is_told_with_its_place(self) -> None:
        kit = load_kit(
            {
                "counters": [{"name": "lost"}],
                "commands": [
                    {"name": "drop", "reply": "x", "counts": [{"counter": "lost", "by": 1}], "on": False},
                ],
                "cues": [
                    {"name": "one", "hears": ["tea"], "reply": "x"},
                    {"name": "two", "hears": ["TEA", "coffee"], "reply": "x"},
                ],
                "channel": {"spacing": "5m"},
                "rotas": [{"name": "Fast", "every": "1m", "notices": [{"command": "drop"}]}, {"name": "Mute"}],
            }
        )
        places = [warning.partition(":")[0] for warning in warnings_of(kit)]
        self.assertEqual(places, ["commands.0.counts", "rotas.0.every", "rotas.1.notices", "rotas", "cues.1.hears"])
        self.assertEqual(warnings_of(load_kit({})), [])
