from __future__ import annotations

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.engine import Engine
from tests.support.logs import desk, live, of, offline, run, said, says, whys

KIT = {"counters": [{"name": "lost", "label": "pots lost"}], "channel": {"cooldown": "none"}}


def counts(when: float, step: str, login: str = "bram") -> object:
    return says(when, f"!count lost {step}", login, "moderator")


class Counting(unittest.TestCase):
    def test_reading_and_stepping(self) -> None:
        effects = run(
            KIT, counts(0, "+3"), counts(1, "-1"), says(2, "!count LOST"), counts(3, "=10"), counts(4, "undo")
        )
        self.assertEqual(
            said(effects),
            ["pots lost: 0 → 3", "pots lost: 3 → 2", "pots lost: 2", "pots lost: 2 → 10", "pots lost: 10 → 2"],
        )
        self.assertEqual(next((c.before, c.after, c.by) for c in of(effects, "counter")), (0, 3, "brook:u-bram"))

    def test_a_viewer_may_read_only(self) -> None:
        self.assertEqual(whys(run(KIT, says(0, "!count lost +1"))), ["level"])

    def test_what_it_cannot_do_is_said(self) -> None:
        for text in (
            "!count",
            "!count nothing",
            "!count nothing +1",
            "!count lost undo",
            "!count lost +9007199254740992",
        ):
            with self.subTest(text):
                effects = run(KIT, says(0, text, "bram", "moderator"))
                self.assertEqual((whys(effects), len(said(effects))), (["arguments"], 1))

    def test_it_stops_at_the_lowest(self) -> None:
        effects = run(KIT, counts(0, "-1"))
        self.assertEqual((of(effects, "counter"), said(effects)), ([], ["pots lost: 0, as before"]))
        negative = {"counters": [{"name": "lost", "lowest": None}]}
        self.assertEqual(of(run(negative, counts(0, "-1")), "counter")[0].after, -1)

    def test_changing_neither_waits_nor_starts_a_wait(self) -> None:
        slow = KIT | {"channel": {"cooldown": {"everyone": "1m"}}}
        effects = run(slow, counts(0, "+1"), says(1, "!count lost"), counts(2, "+2"), says(3, "!count lost"))
        self.assertEqual(whys(effects), ["cooldown"])

    def test_a_streams_counter_begins_anew(self) -> None:
        kit = {"counters": [{"name": "lost", "keep": "stream"}]}
        effects = run(kit, live(), counts(1, "+2"), offline(10), live(700), counts(701, "undo"))
        self.assertEqual(
            [(c.before, c.after, c.by) for c in of(effects, "counter")], [(0, 2, "brook:u-bram"), (2, 0, None)]
        )
        self.assertEqual(whys(effects), ["arguments"])

    def test_short_commands_count(self) -> None:
        kit = KIT | {
            "commands": [
                {"name": "lost", "reply": "{{ counter.lost }} gone", "counts": [{"counter": "lost", "by": 1}]}
            ]
        }
        effects = run(kit, says(0, "!lost", "a"), says(1, "!lost", "b"), says(5, "!lost", "b"))
        self.assertEqual([c.after for c in of(effects, "counter")], [1, 2])
        self.assertEqual(whys(effects), ["duplicate"])


class Guard(unittest.TestCase):
    def test_another_persons_equal_step_within_the_guard(self) -> None:
        effects = run(KIT, counts(0, "+1"), counts(4.999, "+1", "wren"), counts(5, "+1", "wren"))
        self.assertEqual((whys(effects), [c.after for c in of(effects, "counter")]), (["duplicate"], [1, 2]))
        self.assertIn("Bram", said(effects)[1])

    def test_the_same_person_or_another_step_is_not_held(self) -> None:
        self.assertEqual(whys(run(KIT, counts(0, "+1"), counts(1, "+1"), counts(2, "+2", "wren"))), [])

    def test_nothing_guards_after_an_undo(self) -> None:
        self.assertEqual(whys(run(KIT, counts(0, "+1"), counts(1, "undo"), counts(2, "+1", "wren"))), [])

    def test_chat_and_desk_are_one(self) -> None:
        engine = Engine(KIT)
        engine.handle(counts(0, "+1"))  # type: ignore[arg-type]
        self.assertEqual(whys(engine.handle(desk(1, "count", name="lost", step="+1"))), ["duplicate"])
        self.assertEqual(whys(engine.handle(desk(2, "count", by="brook:u-bram", name="lost", step="+1"))), [])

    def test_linked_people_are_one(self) -> None:
        kit = KIT | {"people": {"linked": [["brook:u-bram", "brook:u-wren"]]}}
        self.assertEqual(whys(run(kit, counts(0, "+1"), counts(1, "+1", "wren"))), [])

    @given(
        st.lists(
            st.tuples(st.sampled_from(["+1", "-1", "=4", "undo"]), st.sampled_from("ab"), st.integers(0, 7)),
            max_size=30,
        )
    )
    @settings(max_examples=120, deadline=None)
    def test_against_a_naive_model(self, steps: list[tuple[str, str, int]]) -> None:
        now, value, history, last = 0, 0, [], None
        events = []
        for step, who, gap in steps:
            now += gap
            events.append(counts(now, step, who))
            if step == "undo":
                value, last = (history.pop(), None) if history else (value, last)
                continue
            if last and last[0] == step and last[1] != who and now - last[2] < 5:
                continue
            after = 4 if step == "=4" else max(0, value + int(step))
            if after != value:
                history.append(value)
                value, last = after, (step, who, now)
        engine = Engine(KIT)
        for event in events:
            engine.handle(event)  # type: ignore[arg-type]
        self.assertEqual(engine.parts.counters.value(engine.parts.counters.all["lost"]), value)
