"""Another bot answering our commands is noticed, said once, and settled."""

from __future__ import annotations

import unittest
from typing import Any

from gentlegate.core.engine import Engine
from gentlegate.core.errors import ActError
from gentlegate.core.events import Message
from tests.support.logs import desk, live, of, offline, person, says

KIT: dict[str, Any] = {
    "channel": {"gatekeeper": ["brook:@gate"]},
    "people": {"ignored": ["brook:@otherbot"]},
    "commands": [{"name": "kiln", "reply": "hot", "cooldown": "none"}, {"name": "tea", "reply": "poured"}],
}


class Overlaps(unittest.TestCase):
    def setUp(self) -> None:
        self.engine = Engine(KIT)
        self.engine.handle(live())

    def said(self, *events: Any) -> list[tuple[str, str, int]]:
        effects = [effect for event in events for effect in self.engine.handle(event)]
        return [(e.command, e.person, e.count) for e in of(effects, "overlap")]

    def answered(
        self, begin: float, times: int, bot: str = "otherbot", after: float = 2, *badges: str
    ) -> list[Any]:
        events = []
        for n in range(times):
            when = begin + n * 10
            events += [says(when, "!kiln"), says(when + after, "the kiln is hot", bot, *badges)]
        return self.said(*events)

    def test_three_times_within_three_seconds_is_said_once(self) -> None:
        self.assertEqual(self.answered(10, 2), [])
        self.assertEqual(self.answered(40, 3), [("kiln", "brook:u-otherbot", 3)])

    def test_the_third_second_counts_and_later_does_not(self) -> None:
        self.assertEqual(len(self.answered(10, 3, after=3)), 1)
        self.assertEqual(self.answered(100, 5, "tardybot", 3.001, "bot"), [])

    def test_a_badge_tells_a_bot_and_people_and_the_gatekeeper_are_none(self) -> None:
        self.assertEqual(len(self.answered(10, 3, "badgebot", 1, "bot")), 1)
        self.assertEqual(self.answered(100, 4, "quillwort"), [])
        self.assertEqual(self.answered(200, 4, "gate"), [])

    def test_one_answer_counts_for_one_command_and_a_thread_names_it(self) -> None:
        first, second = says(10, "!kiln", id="k1"), says(11, "!tea", id="t1")
        for n in range(3):
            begin = n * 20
            kiln, tea = says(begin + 10, "!kiln", id=f"k{n}x"), says(begin + 11, "!tea", id=f"t{n}x")
            reply = Message(
                says(begin + 12, "").at, "brook", f"r{n}", person("otherbot"), "hot", (), False, f"k{n}x"
            )
            found = self.said(kiln, tea, reply)
        self.assertEqual(found, [("kiln", "brook:u-otherbot", 3)])
        self.assertEqual(self.said(first, second), [])

    def test_a_new_stream_counts_anew(self) -> None:
        self.answered(10, 2)
        self.said(offline(60), live(2000))
        self.assertEqual(self.answered(2010, 2), [])

    def test_it_is_settled_once(self) -> None:
        self.answered(10, 3)
        settled = {"key": "kiln", "person": "brook:u-otherbot"}
        self.engine.handle(desk(50, "overlap", **settled))
        with self.assertRaises(ActError):
            self.engine.handle(desk(51, "overlap", **settled))
        self.assertEqual(self.answered(60, 4), [])


if __name__ == "__main__":
    unittest.main()
