"""A law of what screens are sent: a snapshot with the frames that follow is the snapshot that comes later."""

from __future__ import annotations

import unittest
from collections.abc import Callable
from typing import Any

import orjson
from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.engine import Engine
from gentlegate.core.errors import GateError
from gentlegate.core.events import Message
from gentlegate.formats.effects import effect_object
from gentlegate.runtime.hub import LONGEST_QUEUE, Hub, Seat
from gentlegate.runtime.screen import Screen
from tests.support.logs import at, desk, live, offline, says

KIT: dict[str, Any] = {
    "commands": [{"name": "kiln", "reply": "hot", "cooldown": {"everyone": "5s"}}],
    "counters": [{"name": "lost", "guard": "0s"}],
    "filters": {"phrases": {"entries": ["glue"]}, "newcomers": {"on": False}},
}
PEOPLE = st.sampled_from(["sam", "lou", "moss"])
TEXTS = st.sampled_from(["hello", "!kiln", "a glue gun", "HOLD IT " * 9, "see pots.test"])
DOINGS = st.one_of(
    st.tuples(st.just("says"), PEOPLE, TEXTS),
    st.tuples(st.just("count"), st.sampled_from(["+1", "=7", "undo"])),
    st.tuples(st.just("undo"), PEOPLE),
    st.tuples(st.just("pass"), PEOPLE),
    st.tuples(st.just("tonight"), st.integers(1, 9)),
    st.tuples(st.just("live"), st.booleans()),
    st.tuples(st.just("lamp"), st.sampled_from(["joined", "no rights"])),
    st.tuples(st.just("edits"), st.sampled_from(["commands.kiln", "filters.length"])),
    st.tuples(st.just("frame")),
    st.tuples(st.just("read")),
)


class Page:
    """What a browser keeps: the parts and the lines by key, from a snapshot and the frames that follow it."""

    def __init__(self) -> None:
        self.number = -1
        self.lines: dict[str, Any] = {}
        self.parts: dict[str, Any] = {}

    def take(self, data: bytes) -> None:
        frame = orjson.loads(data)
        if "snapshot" in frame:
            self.lines = {line["key"]: line for line in frame["snapshot"]["lines"]}
            self.parts = frame["snapshot"]["parts"]
        else:
            assert frame["number"] == self.number + 1, "a frame is missing"
            for change in frame["changes"]:
                if "line" in change:
                    self.lines[change["line"]["key"]] = change["line"]
                else:
                    self.parts[change["part"]] = change["value"]
        self.number = frame["number"]


class Room:
    """An engine with its screen and hub, and one page that may lag behind."""

    def __init__(self) -> None:
        self.engine, self.seconds, self.effects = Engine(KIT), 0, 0
        self.screen = Screen(self.engine, {})
        self.hub = Hub(self.screen, lambda: at(self.seconds))
        self.seat: Seat = self.hub.sit("Bram")
        self.page = Page()

    def handle(self, event: Any) -> None:
        try:
            effects = self.engine.handle(event)
        except GateError:
            return
        if isinstance(event, Message):
            self.screen.line(event, event.at)
        for effect in effects:
            self.effects += 1
            self.screen.effect(self.effects, effect_object(effect))

    def frame(self) -> None:
        self.hub._send(self.screen.take(at(self.seconds)))

    def read(self) -> None:
        """The page takes whatever waits for it."""
        while not self.seat.queue.empty():
            waiting = self.seat.queue.get_nowait()
            self.page.take(self.hub.snapshot(self.seat) if waiting is None or self.seat.behind else waiting)

    def do(self, what: str, *about: Any) -> None:
        self.seconds += 7
        acts: dict[str, Callable[..., None]] = {
            "says": lambda who, text: self.handle(says(self.seconds, text, who)),
            "count": lambda step: self.handle(desk(self.seconds, "count", name="lost", step=step)),
            "undo": lambda who: self.handle(desk(self.seconds, "undo", person=f"brook:u-{who}")),
            "pass": lambda who: self.handle(desk(self.seconds, "pass", person=f"brook:u-{who}")),
            "tonight": lambda most: self.handle(
                desk(self.seconds, "setting", path="filters.emotes.most", value=most, tonight=True)
            ),
            "live": lambda on: self.handle(live(self.seconds) if on else offline(self.seconds)),
            "lamp": lambda lamp: self.screen.lamp("brook", lamp, ""),
            "edits": lambda place: self.hub.edits(self.seat, (place,)),
            "frame": self.frame,
            "read": self.read,
        }
        acts[what](*about)


class Frames(unittest.TestCase):
    @settings(max_examples=80, deadline=None)
    @given(st.lists(DOINGS, max_size=40))
    def test_a_snapshot_and_the_frames_after_it_are_the_later_snapshot(self, doings: list[tuple[Any, ...]]) -> None:
        room = Room()
        room.handle(live(0))
        for doing in doings:
            room.do(*doing)
        room.frame()
        room.read()
        whole = orjson.loads(orjson.dumps(room.screen.snapshot()))
        self.assertEqual(room.page.parts, whole["parts"])
        newest = {line["key"]: line for line in whole["lines"]}
        self.assertEqual({key: room.page.lines[key] for key in newest}, newest)

    @given(st.integers(LONGEST_QUEUE + 1, LONGEST_QUEUE * 2))
    def test_a_page_that_does_not_keep_up_gets_one_snapshot_and_no_long_queue(self, frames: int) -> None:
        room = Room()
        room.handle(live(0))
        room.frame()
        room.read()
        for _ in range(frames):
            room.do("count", "+1")
            room.frame()
            self.assertLessEqual(room.seat.queue.qsize(), LONGEST_QUEUE)
        self.assertTrue(room.seat.behind)
        room.read()
        (lost,) = room.page.parts["counters"]
        self.assertEqual(lost["value"], frames)
