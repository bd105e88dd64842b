from __future__ import annotations

import unittest
from typing import Any

from gentlegate.core.engine import Engine
from gentlegate.core.events import Happening, Message, Person
from gentlegate.formats.effects import effect_object
from gentlegate.runtime.screen import KEPT_LINES, Screen
from tests.support.logs import at, desk, live, offline, says

KIT: dict[str, Any] = {
    "channel": {"name": "Kiln & Kettle", "gatekeeper": ["brook:@gatekeeper"]},
    "commands": [{"name": "kiln", "reply": "hot", "cooldown": {"everyone": "5s", "person": "1m"}}],
    "counters": [{"name": "lost", "label": "pots lost"}],
    "rotas": [
        {"name": "r", "every": "10m", "chat_lines": 2, "notices": [{"text": "shelf"}]},
        {"name": "off", "on": False},
    ],
    "platforms": {"brook": {"restore": False, "title": 120}},
}


class OnTheScreen(unittest.TestCase):
    def setUp(self) -> None:
        self.engine = Engine(KIT)
        self.screen = Screen(self.engine, {"brook:u-odalys": "Odalys"})
        self.number = 0

    def happens(self, *events: Any) -> None:
        for event in events:
            effects = self.engine.handle(event)
            if isinstance(event, Message):
                self.screen.line(event, event.at)
            for effect in effects:
                self.number += 1
                self.screen.effect(self.number, effect_object(effect))
        self.changes = self.screen.take(self.engine.now)

    def part(self, name: str) -> Any:
        return self.screen.snapshot()["parts"][name]

    def line(self, id: str) -> dict[str, Any]:
        return next(line for line in self.screen.snapshot()["lines"] if line["id"] == id)

    def test_what_happens_stands_in_the_chat_and_nothing_can_be_done_about_it(self) -> None:
        who = Person("brook", "u-moss", "moss", "Moss")
        self.screen.happened(Happening(at(5), "brook", "raid", who, 24), at(5))
        self.happens(live(6))
        (line,) = [one for one in self.screen.snapshot()["lines"] if "happening" in one]
        self.assertEqual((line["person"]["name"], line["happening"]["amount"], line["marks"]), ("Moss", 24, []))
        self.assertIsNone(self.screen.message("brook", line["id"]))
        self.assertFalse(self.screen.spoke_on("brook"))
        self.happens(says(7, "hot", "gatekeeper"))
        self.assertTrue(self.screen.spoke_on("brook"))

    def test_who_is_here_and_what_they_are_changing(self) -> None:
        self.happens(live())
        seats = [("Wren", ()), ("Bram", ("commands.kiln",)), ("Bram", ("channel.name", "commands.kiln"))]
        self.screen.present(seats)
        self.happens(says(1, "hello"))
        self.assertEqual(self.part("present"), ["Bram", "Wren"])
        self.assertEqual(self.part("editing"), [{"name": "Bram", "places": ["channel.name", "commands.kiln"]}])
        self.screen.present([("Bram", ())])
        self.happens(says(2, "hello"))
        self.assertEqual((self.part("present"), self.part("editing")), (["Bram"], []))

    def test_somebody_who_is_forgotten_is_shown_no_more(self) -> None:
        self.happens(live(), says(1, "mine", "sam", id="a"), says(2, "not mine", "lou", id="b"))
        self.screen.forget(["brook:u-sam"])
        self.assertEqual([line["text"] for line in self.screen.snapshot()["lines"]], ["not mine"])
        self.assertIsNone(self.screen.message("brook", "a"))
        self.happens(desk(3, "ban", person="brook:u-sam", message="a"))
        self.assertEqual(len(self.screen.snapshot()["lines"]), 1)

    def test_what_is_done_about_people_moves_their_cards(self) -> None:
        self.happens(live(), says(1, "hello", "sam", id="a"))
        before = self.part("people")
        self.happens(desk(2, "timeout", person="brook:u-sam", seconds=60))
        after = self.part("people")
        self.assertGreater(after, before)
        self.happens(says(3, "nothing happens", "lou"))
        self.assertEqual(self.part("people"), after)

    def test_only_what_changed_is_told(self) -> None:
        self.happens(live(), says(1, "hello", id="a"))
        self.assertTrue(any("line" in change for change in self.changes))
        self.assertEqual(self.screen.take(self.engine.now), [])
        self.happens(says(2, "there", id="b"))
        self.assertEqual([change["line"]["id"] for change in self.changes if "line" in change], ["b"])

    def test_an_undo_stands_at_its_line_with_a_name(self) -> None:
        self.happens(says(1, "bad.test", id="a"), desk(5, "undo", platform="brook", message="a"))
        undone = self.line("a")["marks"][-1]
        self.assertEqual((undone["effect"], undone["by_name"], undone["kept"]), ("undone", "Odalys", ["removal"]))

    def test_counters_with_who_and_whether_there_is_an_undo(self) -> None:
        self.happens(live())
        (before,) = self.part("counters")
        self.assertEqual((before["label"], before["value"], before["undo"]), ("pots lost", 0, False))
        self.happens(says(1, "!count lost +2", "bram", "moderator", id="c"))
        (after,) = self.part("counters")
        self.assertEqual((after["value"], after["by"], after["undo"]), (2, "Bram", True))
        self.assertEqual(self.line("c")["marks"][0]["label"], "pots lost")

    def test_cooldowns_for_everyone_and_each_person(self) -> None:
        self.happens(says(1, "!kiln"))
        running = {entry["who"]: entry["until"] for entry in self.part("cooldowns")}
        self.assertEqual(running, {None: at(6), "Mossandloam": at(61)})
        self.happens(says(7, "hello"))
        self.assertEqual([entry["who"] for entry in self.part("cooldowns")], ["Mossandloam"])

    def test_what_the_next_notices_wait_for(self) -> None:
        self.happens(live(), says(1, "one"))
        rota, off = self.part("notices")
        self.assertEqual((rota["due"], rota["lines"], rota["ready"], off["on"]), (at(600), 1, False, False))

    def test_the_stream_and_its_platforms(self) -> None:
        self.happens(live(title="Bowls", category="Wheel throwing"))
        self.screen.lamp("brook", "no rights", "")
        self.screen.take(self.engine.now)
        (brook,) = self.part("stream")["platforms"]
        self.assertEqual(
            (brook["title"], brook["live"], brook["lamp"], brook["limit"]), ("Bowls", True, "no rights", 120)
        )
        self.happens(offline(10))
        self.assertEqual((self.part("stream")["live"], self.part("stream")["phase"]), (False, "gap"))

    def test_the_gatekeepers_own_lines_are_marked(self) -> None:
        self.happens(says(1, "hot", "gatekeeper", id="g"), says(2, "hello", id="h"))
        self.assertTrue(self.line("g")["gatekeeper"])
        self.assertFalse(self.line("h")["gatekeeper"])

    def test_old_lines_leave(self) -> None:
        for number in range(KEPT_LINES + 20):
            self.screen.line(says(number / 10, "hello", id=f"n{number}"), at(number / 10))
        lines = self.screen.snapshot()["lines"]
        self.assertEqual((len(lines), lines[0]["id"]), (KEPT_LINES, "n20"))
        self.screen.effect(1, {"effect": "remove", "platform": "brook", "message": "n0"})
        self.assertEqual(len(self.screen.take(at(99))) > 0, True)

    def test_passes_looks_and_tonight_stand_on_the_bench(self) -> None:
        self.happens(
            live(),
            says(1, "hi", "a"),
            desk(2, "pass", person="brook:u-a"),
            says(3, "AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAbbbbbbbbbb", "b", id="m1"),
            desk(4, "setting", path="filters.links.on", value=False, tonight=True),
            desk(5, "drawbridge", up=True),
        )
        (one,) = self.part("passes")
        self.assertEqual((one["name"], one["filters"], one["until"]), ("A", ["links"], at(122)))
        (look,) = self.part("looks")
        self.assertEqual((look["message"], look["why"], look["filter"]), ("m1", "unsure", "capitals"))
        (change,) = self.part("tonight")
        self.assertEqual((change["path"], change["how"], change["value"]), ("filters.links.on", "set", False))
        self.assertEqual(self.part("bridge")["until"], at(605))
        self.assertEqual([step["strikes"] for step in self.part("ladder")["steps"]], [1, 2, 3, 5])
