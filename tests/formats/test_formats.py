"""What is written can be read, and is what the published schemas say."""

from __future__ import annotations

import json
import unittest
from typing import Any

import orjson
from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.effects import (
    EFFECTS,
    Cause,
    CounterMoved,
    Drawbridge,
    Exempt,
    PassGiven,
    Reason,
    Refused,
    Say,
    SettingChanged,
    Timeout,
    Undone,
    Verdict,
)
from gentlegate.core.errors import LogLineError
from gentlegate.core.events import DeskAct, Event, Happening, Message, Person, Removal, StreamChange, Tick
from gentlegate.formats.effects import effect_line, effect_object
from gentlegate.formats.log import event_object, read_line, read_object
from gentlegate.formats.schemas import schema
from tests.support.logs import BEGIN

words = st.text(st.characters(codec="utf-8", exclude_categories=["Cs"]), max_size=40)
names = st.text("abcdefghij_0123456789", min_size=1, max_size=12)
moments = st.integers(0, 4_000_000_000_000_000)
badges = st.frozensets(st.sampled_from(["broadcaster", "moderator", "vip", "subscriber", "bot"]))


@st.composite
def people(draw: Any, platform: str = "brook") -> Person:
    since = st.none() | moments
    return Person(platform, draw(names), draw(names), draw(names), draw(badges), draw(since), draw(since))


@st.composite
def messages(draw: Any) -> Message:
    text = draw(words)
    spans = draw(st.lists(st.tuples(st.integers(0, len(text)), st.integers(0, len(text))), max_size=3))
    emotes = tuple(tuple(sorted(span)) for span in spans)
    reply_to = draw(st.none() | names)
    return Message(draw(moments), "brook", draw(names), draw(people()), text, emotes, draw(st.booleans()), reply_to)


events = st.one_of(
    messages(),
    st.builds(StreamChange, moments, st.just("brook"), st.booleans(), st.none() | words, st.none() | words),
    st.builds(
        Happening,
        moments,
        st.just("brook"),
        st.sampled_from(["follow", "subscribe", "gift", "tip", "raid"]),
        people(),
        st.none() | st.floats(0, 1e9),
        st.none() | words,
    ),
    st.builds(Removal, moments, st.just("brook"), names),
    st.builds(DeskAct, moments, names, names, st.dictionaries(st.sampled_from(["step", "name", "title"]), words)),
    st.builds(Tick, moments),
)


class Log(unittest.TestCase):
    @given(events)
    @settings(max_examples=250, deadline=None)
    def test_an_event_written_is_the_event_read(self, event: Event) -> None:
        self.assertEqual(read_line(orjson.dumps(event_object(event, event.at))), event)

    def test_extra_fields_do_not_matter(self) -> None:
        line = {"kind": "tick", "at": "2026-03-07T18:00:00+00:00", "mood": "tea"}
        self.assertEqual(read_object(line), Tick(BEGIN))

    def test_the_shown_name_is_the_login_where_there_is_none(self) -> None:
        line = {"kind": "message", "id": "1", "at": "2026-03-07T18:00:00Z", "platform": "brook", "text": "hi"}
        event = read_object(line | {"person": {"id": "17", "login": "mossandloam"}})
        assert isinstance(event, Message)
        self.assertEqual((event.person.name, event.person.badges), ("mossandloam", frozenset()))

    def test_wrong_types_name_their_field(self) -> None:
        person = {"id": "17", "login": "mossandloam"}
        good = {
            "kind": "message",
            "id": "1",
            "at": "2026-03-07T18:00:00Z",
            "platform": "brook",
            "person": person,
            "text": "hi",
        }
        for field, value, where in (
            ("text", None, "text"),
            ("id", 7, "id"),
            ("id", "", "id"),
            ("at", 12, "at"),
            ("person", "17", "person"),
            ("person", {"id": 17, "login": "m"}, "person.id"),
            ("person", person | {"badges": "vip"}, "person.badges"),
            ("person", person | {"follows_since": "lately"}, "person.follows_since"),
            ("action", "yes", "action"),
            ("emotes", [[0]], "emotes.0"),
        ):
            with self.subTest(field=field, value=value), self.assertRaises(LogLineError) as caught:
                read_object(good | {field: value})
            self.assertTrue(caught.exception.field.startswith(where), caught.exception.field)


CAUSE = Cause("command", "kiln", "b1")
SAMPLES = (
    Verdict(
        at=BEGIN,
        platform="brook",
        message="b1",
        outcome="timeout",
        seconds=60,
        filter="capitals",
        reasons=(Reason("capitals", 0.92, 0.8, (0, 5), "HELLO", "timeout"),),
        exempt=(Exempt("links", "allowed"),),
        strikes=2,
    ),
    Say(at=BEGIN, platform="brook", text="hot", cause=CAUSE),
    Refused(at=BEGIN, platform="brook", message="b1", command="kiln", why="cooldown", wait=4.75, cause=CAUSE),
    Timeout(at=BEGIN, platform="lantern", person="lantern:1", seconds=60, asked=45, cause=CAUSE),
    CounterMoved(at=BEGIN, name="lost", before=1, after=2, by=None),
    Undone(at=BEGIN, platform="brook", message="b1", by="brook:2", strikes=0, kept=("removal",), cause=CAUSE),
    SettingChanged(at=BEGIN, path="commands.tea", before=None, after={"name": "tea"}, by="brook:2"),
)


class EffectLines(unittest.TestCase):
    def test_fields_as_published(self) -> None:
        verdict = effect_object(SAMPLES[0])
        self.assertEqual(
            list(verdict),
            ["at", "effect", "platform", "message", "outcome", "seconds", "filter", "reasons", "exempt", "strikes"],
        )
        self.assertEqual(list(verdict["reasons"][0]), ["filter", "measured", "limit", "span", "text", "step"])
        self.assertEqual(verdict["exempt"], [{"filter": "links", "by": "allowed"}])

    def test_each_is_one_line_and_has_what_its_schema_requires(self) -> None:
        shapes = {shape["properties"]["effect"]["const"]: shape for shape in schema("effect")["oneOf"]}
        self.assertEqual(set(shapes), {kind.effect for kind in EFFECTS})
        for sample in SAMPLES:
            with self.subTest(sample.effect):
                line = effect_line(sample)
                self.assertEqual(line.count(b"\n"), 1)
                body, shape = json.loads(line), shapes[sample.effect]
                self.assertLessEqual(set(shape["required"]), set(body))
                self.assertLessEqual(set(body), set(shape["properties"]))

    def test_the_end_of_a_pass_is_a_time_or_the_stream(self) -> None:
        for until, written in ((BEGIN, "2026-03-07T18:00:00Z"), ("stream", "stream")):
            effect = PassGiven(at=BEGIN, person="brook:17", filters=("links",), until=until, by="brook:2")
            self.assertEqual(effect_object(effect)["until"], written)
        drawbridge = Drawbridge(at=BEGIN, state="raised", why="copycats", until=BEGIN, by=None)
        self.assertEqual(effect_object(drawbridge)["until"], "2026-03-07T18:00:00Z")

    def test_asked_is_only_there_where_a_length_was_changed(self) -> None:
        plain = Timeout(at=BEGIN, platform="brook", person="brook:1", seconds=60)
        self.assertNotIn("asked", effect_object(plain))
        self.assertEqual(effect_object(SAMPLES[3])["asked"], 45)


class Schemas(unittest.TestCase):
    def test_the_log_schema_names_every_kind(self) -> None:
        definitions = schema("log")["$defs"]
        kinds = {
            shape["properties"]["kind"]["const"] for shape in definitions.values() if "kind" in shape["properties"]
        }
        self.assertEqual(kinds, {"message", "stream", "happening", "removal", "answer", "desk", "tick"})

    def test_the_kit_schema_refuses_unknown_keys_and_knows_durations(self) -> None:
        kit = schema("kit")
        self.assertFalse(kit["additionalProperties"])
        everyone = kit["$defs"]["Channel"]["properties"]["stream_gap"]
        self.assertEqual([one["type"] for one in everyone["anyOf"]], ["number", "string"])
