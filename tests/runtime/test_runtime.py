from __future__ import annotations

import asyncio
import unittest
from collections.abc import Awaitable, Callable
from dataclasses import replace
from typing import Any, ClassVar

import orjson

from gentlegate.core.engine import Engine
from gentlegate.core.errors import ActError, GateError
from gentlegate.core.journal import Entry, StateChange, Waiting
from gentlegate.core.moments import SECOND
from gentlegate.core.platforms import Abilities
from gentlegate.core.team import Account
from gentlegate.runtime.clock import Clock
from gentlegate.runtime.gate import Gate
from gentlegate.runtime.hub import LONGEST_QUEUE, Hub
from gentlegate.runtime.outbox import Outbox
from gentlegate.runtime.past import LINES, Past
from gentlegate.runtime.ports import StoreThread
from gentlegate.runtime.screen import Screen
from tests.support.logs import live, says

KIT = {"commands": [{"name": "kiln", "reply": "hot", "cooldown": "none"}], "counters": [{"name": "lost"}]}
ODALYS = Account(1, "odalys", "Odalys", "lead", "brook:u-odalys")


class MemoryJournal:
    """Keeps what a journal would, and can be made to fail."""

    def __init__(self, open_acts: list[Waiting] | None = None) -> None:
        self.entries: list[Entry] = []
        self.state: list[StateChange] = []
        self.documents: list[Any] = []
        self.marks: list[tuple[int, str]] = []
        self._open = open_acts or []

    def write(self, entries: list[Entry], state: list[StateChange], document: Any) -> None:
        for entry in entries:
            entry.numbers = [len(self.entries) * 10 + place for place in range(len(entry.effects))]
            self.entries.append(entry)
        self.state += state
        self.documents += [document] if document else []

    def waiting(self, platform: str) -> list[Waiting]:
        return self._open

    def mark(self, number: int, status: str, now: int, note: str | None = None) -> None:
        self.marks.append((number, status))


class Hourglass(Clock):
    """A clock that stands until it is turned."""

    def __init__(self, now: int = 1_000_000 * SECOND) -> None:
        super().__init__()
        self.moment = now

    def now(self) -> int:
        return self.moment


def run(work: Callable[[], Awaitable[None]]) -> None:
    asyncio.run(asyncio.wait_for(work(), 20))  # type: ignore[arg-type]


class GateTest(unittest.TestCase):
    def gate(self, kit: dict[str, Any] | None = None) -> tuple[Gate, MemoryJournal, list[Waiting]]:
        engine, journal, clock, sent = Engine(KIT if kit is None else kit), MemoryJournal(), Hourglass(), []
        screen = Screen(engine, {ODALYS.key: "Odalys"})
        gate = Gate(engine, journal, StoreThread(), clock, screen, Hub(screen, clock.now))
        gate.carry_out = sent.append
        return gate, journal, sent

    def message(self, gate: Gate, text: str, id: str) -> Any:
        event = says(0, text, id=id)
        return type(event)(gate.clock.now(), event.platform, id, event.person, text)

    def test_each_message_once_however_often_it_is_delivered(self) -> None:
        async def work() -> None:
            gate, journal, sent = self.gate()
            for _ in range(3):
                gate.receive(self.message(gate, "!kiln", "a"), 7)
            await gate.flush()
            gate.receive(self.message(gate, "!kiln", "a"), 7)
            await gate.flush()
            self.assertEqual([len(journal.entries), len(sent)], [1, 1])
            self.assertIn(("place", "brook", {"place": 7}), journal.state)

        run(work)

    def test_nothing_goes_out_or_is_shown_before_it_is_stored(self) -> None:
        async def work() -> None:
            gate, journal, sent = self.gate()
            gate.receive(self.message(gate, "!kiln", "a"))
            self.assertEqual((sent, gate.screen.snapshot()["lines"]), ([], []))

            def fail(*_: Any) -> None:
                raise OSError("disk full")

            journal.write = fail  # type: ignore[method-assign]
            with self.assertRaises(OSError):
                await gate.flush()
            self.assertEqual((sent, gate.screen.snapshot()["lines"]), ([], []))

        run(work)

    def test_acts_return_once_stored_and_stand_in_the_ledger(self) -> None:
        async def work() -> None:
            gate, journal, _ = self.gate()
            committing = asyncio.create_task(gate.run())
            await gate.act(ODALYS, "count", name="lost", step="+1")
            (line,) = journal.entries[-1].ledger
            self.assertEqual(
                (line.who, line.place, line.what, line.before, line.after), (ODALYS.key, "desk", "count", 0, 1)
            )
            with self.assertRaises(ActError):
                await gate.act(ODALYS, "count", name="nothing", step="+1")
            await gate.act(ODALYS, "setting", path="commands.tea", value={"name": "tea", "reply": "poured"})
            self.assertEqual(journal.documents[-1][2]["commands"][-1]["name"], "tea")
            with self.assertRaises(GateError):
                await gate.act(ODALYS, "setting", path="commands.tea", value={"name": "tea", "reply": "{{ x"})
            self.assertEqual(len(journal.documents), 1)
            committing.cancel()

        run(work)

    def test_what_chat_changes_is_stored_with_who_did_it(self) -> None:
        async def work() -> None:
            gate, journal, _ = self.gate()
            mod = frozenset({"moderator"})
            event = self.message(gate, "!teach tea poured", "a")
            gate.receive(replace(event, person=replace(event.person, badges=mod)))
            await gate.flush()
            ((_, who, document),) = journal.documents
            self.assertEqual((who, document["commands"][-1]["name"]), (event.person.key, "tea"))
            (line,) = journal.entries[-1].ledger
            self.assertEqual((line.what, line.about, line.place), ("setting", "commands.tea", "chat"))
            gate.receive(self.message(gate, "!tea", "b"))
            await gate.flush()
            self.assertEqual(len(journal.documents), 1)

        run(work)

    def test_a_change_for_tonight_is_state_and_no_new_settings(self) -> None:
        async def work() -> None:
            gate, journal, _ = self.gate()
            committing = asyncio.create_task(gate.run())
            await gate.act(ODALYS, "setting", path="filters.links.on", value=False, tonight=True)
            self.assertEqual(journal.documents, [])
            self.assertIn("tonight", {name for name, _, _ in journal.state})
            self.assertFalse(gate.engine.parts.kit.filters.links.on)
            committing.cancel()

        run(work)

    def test_passes_lifts_and_marks_stand_in_the_ledger(self) -> None:
        async def work() -> None:
            gate, journal, _ = self.gate()
            committing = asyncio.create_task(gate.run())
            gate.receive(self.message(gate, "see bad.test", "a"))
            await gate.act(ODALYS, "pass", person="brook:u-moss")
            await gate.act(ODALYS, "lift", person="brook:u-moss")
            await gate.act(ODALYS, "look", platform="brook", message="a")
            await gate.act(ODALYS, "drawbridge", up=True)
            said = [line.what for entry in journal.entries for line in entry.ledger]
            self.assertEqual(said, ["pass", "lift", "mark", "drawbridge"])
            committing.cancel()

        run(work)

    def test_due_things_happen_by_the_clock(self) -> None:
        async def work() -> None:
            kit = {
                "rotas": [
                    {
                        "name": "r",
                        "every": "1m",
                        "chat_lines": 0,
                        "first_after": "10s",
                        "notices": [{"text": "shelf"}],
                    }
                ]
            }
            gate, _, sent = self.gate(kit)
            event = live()
            gate.receive(type(event)(gate.clock.now(), "brook", True))
            await gate.flush()
            gate.clock.moment += 11 * SECOND  # type: ignore[attr-defined]
            task = asyncio.create_task(gate.keep_time())
            while not sent:
                await asyncio.sleep(0.001)
                await gate.flush()
            task.cancel()
            self.assertEqual(sent[0].body["text"], "shelf")

        run(work)

    def test_the_screen_says_what_was_done_about_a_line(self) -> None:
        async def work() -> None:
            gate, _, sent = self.gate()
            gate.receive(self.message(gate, "see bad.test", "a"))
            await gate.flush()
            (line,) = gate.screen.snapshot()["lines"]
            self.assertEqual([mark["effect"] for mark in line["marks"]], ["verdict", "say"])
            self.assertEqual(line["sending"]["remove"], "waiting")
            gate.sending(sent[0].number, "sent")
            self.assertEqual(gate.screen.snapshot()["lines"][0]["sending"]["remove"], "sent")

        run(work)


class PastLines(unittest.TestCase):
    def test_only_what_is_new_is_read_and_the_oldest_go(self) -> None:
        asked: list[int] = []

        class Messages:
            stored: ClassVar[list[tuple[int, Any, int]]] = []

            def recent_messages(self, count: int, after: int = 0) -> list[tuple[int, Any, int]]:
                asked.append(after)
                return [row for row in self.stored if row[0] > after][-count:]

        async def work() -> None:
            past = Past(Messages(), StoreThread())
            Messages.stored += [(n, says(n, f"line {n}"), n) for n in range(1, LINES + 11)]
            self.assertEqual(len(await past.lines()), LINES)
            Messages.stored.append((LINES + 11, says(1, "newest"), 1))
            lines = await past.lines()
            self.assertEqual((len(lines), lines[-1].text, lines[0].text), (LINES, "newest", "line 12"))
            self.assertEqual(asked, [0, LINES + 10])

        run(work)


class HubTest(unittest.TestCase):
    def test_a_snapshot_then_numbered_frames_without_gaps(self) -> None:
        async def work() -> None:
            engine, clock = Engine(KIT), Hourglass()
            screen = Screen(engine, {})
            hub = Hub(screen, clock.now)
            seat = hub.sit("Bram")
            first = orjson.loads(await hub.next_frame(seat))
            self.assertIn("snapshot", first)
            task = asyncio.create_task(hub.run())
            numbers = []
            for number in range(3):
                screen.line(says(number, "hello"), clock.now())
                hub.changed()
                numbers.append(orjson.loads(await hub.next_frame(seat))["number"])
            task.cancel()
            self.assertEqual(numbers, list(range(first["number"] + 1, first["number"] + 4)))

        run(work)

    def test_a_screen_that_cannot_keep_up_gets_a_snapshot(self) -> None:
        async def work() -> None:
            engine, clock = Engine(KIT), Hourglass()
            screen = Screen(engine, {})
            hub = Hub(screen, clock.now)
            seat = hub.sit("Bram")
            await hub.next_frame(seat)
            for number in range(LONGEST_QUEUE + 5):
                screen.line(says(number, "hello"), clock.now())
                hub._send(screen.take(clock.now()))
            frame = orjson.loads(await hub.next_frame(seat))
            self.assertEqual(len(frame["snapshot"]["lines"]), LONGEST_QUEUE + 5)
            self.assertTrue(seat.queue.empty())

        run(work)


class TryLater(Exception):
    after = 0.001


class StubPlatform:
    """Takes what it is sent; `refuse` makes it fail first."""

    name = "brook"
    abilities = Abilities()

    class rate:
        count, seconds = 1000, 1.0

    def __init__(self, refuse: list[Exception] | None = None, done: bool = False) -> None:
        self.sent: list[tuple[str, str]] = []
        self._refuse = refuse or []
        self._done = done

    async def run(self, sink: Any, place: int | None) -> None: ...

    async def send(self, key: str, effect: dict[str, Any]) -> None:
        if self._refuse:
            raise self._refuse.pop(0)
        self.sent.append((key, effect["effect"]))

    async def was_done(self, key: str) -> bool:
        return self._done

    async def close(self) -> None: ...


class OldNews(unittest.TestCase):
    gate = GateTest.gate

    def test_a_title_from_before_the_one_on_its_way_changes_nothing(self) -> None:
        async def work() -> None:
            gate, _, _ = self.gate()
            unsent: set[str] = set()
            gate.unsent = lambda platform: unsent
            gate.receive(live(0, title="One", category="Tea"))
            unsent.add("title")
            gate.receive(live(1, title="Before", category="Glaze lab"))
            self.assertEqual(gate.engine.parts.title("brook"), "One")
            unsent.clear()
            gate.receive(live(2, title="Two"))
            self.assertEqual(gate.engine.parts.title("brook"), "Two")
            record = gate.engine.state.platforms.get("brook")
            self.assertEqual(record.category if record else None, "Glaze lab")

        run(work)


class OutboxTest(unittest.TestCase):
    def outcome(
        self, platform: StubPlatform, *acts: Waiting, resumed: list[Waiting] | None = None
    ) -> list[tuple[int, str]]:
        reports: list[tuple[int, str]] = []

        async def work() -> None:
            journal, store, clock = MemoryJournal(resumed), StoreThread(), Hourglass()
            outbox = Outbox(
                platform, journal, store, clock, "i", lambda number, status: reports.append((number, status))
            )
            for act in acts:
                outbox.put(act)
            task = asyncio.create_task(outbox.run())
            final = {"sent", "impossible", "dropped", "failed"}
            while sum(status in final for _, status in reports) < len(acts) + len(resumed or []):
                await asyncio.sleep(0.001)
            task.cancel()

        run(work)
        return reports

    def act(self, number: int, effect: str, age: int = 0, in_flight: bool = False) -> Waiting:
        return Waiting(number, Hourglass().now() - age * SECOND, {"effect": effect, "platform": "brook"}, in_flight)

    def test_removals_go_before_replies_each_in_order(self) -> None:
        platform = StubPlatform()
        self.outcome(platform, *(self.act(n, e) for n, e in enumerate(("say", "remove", "title", "timeout"))))
        self.assertEqual([key for key, _ in platform.sent], ["i-1", "i-3", "i-0", "i-2"])

    def test_a_reply_that_waited_too_long_is_dropped_a_removal_is_not(self) -> None:
        reports = self.outcome(StubPlatform(), self.act(1, "say", age=31), self.act(2, "remove", age=31))
        self.assertEqual(sorted(reports), [(1, "dropped"), (2, "sent")])

    def test_it_tries_again_and_says_what_is_not_possible(self) -> None:
        again = StubPlatform([TryLater(), TryLater()])
        self.assertEqual(self.outcome(again, self.act(1, "say"))[-1], (1, "sent"))
        self.assertEqual(self.outcome(StubPlatform([GateError("no")]), self.act(1, "remove")), [(1, "impossible")])

    def test_it_says_what_is_not_sent_yet(self) -> None:
        platform = StubPlatform([TryLater(), TryLater(), TryLater()])
        seen: list[set[str]] = []

        async def work() -> None:
            outbox = Outbox(
                platform,
                MemoryJournal(),
                StoreThread(),
                Hourglass(),
                "i",
                lambda _, status: seen.append(outbox.unsent()),
            )
            for act in (self.act(1, "title"), self.act(2, "say")):
                outbox.put(act)
            self.assertEqual(outbox.unsent(), {"title", "say"})
            task = asyncio.create_task(outbox.run())
            while outbox.unsent():
                await asyncio.sleep(0.001)
            task.cancel()

        run(work)
        self.assertEqual([sorted(kinds) for kinds in seen[:3]], [["say", "title"]] * 3)
        self.assertEqual([key for key, _ in platform.sent], ["i-1", "i-2"])

    def test_after_a_stop_the_act_in_flight_is_asked_about(self) -> None:
        done = StubPlatform(done=True)
        open_acts = [self.act(1, "say", in_flight=True), self.act(2, "say")]
        self.assertEqual(sorted(self.outcome(done, resumed=open_acts)), [(1, "sent"), (2, "sent")])
        self.assertEqual([key for key, _ in done.sent], ["i-2"])
        lost = StubPlatform(done=False)
        self.outcome(lost, resumed=open_acts)
        self.assertEqual([key for key, _ in lost.sent], ["i-1", "i-2"])
