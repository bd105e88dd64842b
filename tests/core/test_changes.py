"""Laws of changed settings: back is back, tonight is only tonight, and what is refused changes nothing."""

from __future__ import annotations

import copy
import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.engine import Engine
from gentlegate.core.errors import GateError
from tests.support.kits import said_by
from tests.support.logs import desk, live, of, offline, says

KIT: dict[str, Any] = {
    "commands": [{"name": "kiln", "reply": "hot"}, {"name": "tea", "reply": "oolong"}],
    "filters": {"links": {"allowed": ["kiln.example"]}},
    "people": {"regulars": ["brook:@sam"]},
}
GOOD: list[tuple[str, Any]] = [
    ("channel.prefix", "?"),
    ("channel.mood", "library"),
    ("filters.length.most", 99),
    ("filters.links.on", False),
    ("filters.links.allowed", ["shelf.example"]),
    ("people.regulars", ["brook:@lou"]),
    ("commands.kiln", {"name": "kiln", "reply": "cold"}),
    ("commands.tea", None),
    ("commands.new", {"name": "new", "reply": "fresh"}),
    ("counters.mugs", {"name": "mugs", "start": 3}),
]
BAD: list[tuple[str, Any]] = [
    ("channel.prefix", "two words"),
    ("channel.timezone", "Kiln/Kettle"),
    ("filters.length.most", "many"),
    ("filters.glue.on", True),
    ("commands.kiln", {"name": "kiln", "reply": "{{ person.name"}),
    ("commands.kiln", {"name": "kiln", "reply": "x", "cooldown": "soon"}),
    ("people.linked", [["brook:u-a", "brook:u-b"], ["brook:u-b"]]),
    ("nowhere.at.all", 1),
]
SEVERAL = st.lists(st.sampled_from(GOOD), min_size=1, max_size=6, unique_by=lambda change: change[0])


def changes(listed: list[tuple[str, Any]]) -> list[dict[str, Any]]:
    return [{"path": path, "value": value} for path, value in listed]


class Together(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(SEVERAL)
    def test_many_changes_made_at_once_go_back_at_once(self, listed: list[tuple[str, Any]]) -> None:
        engine = Engine(copy.deepcopy(KIT))
        before = said_by(engine.document)
        made = engine.handle(desk(1, "settings", changes=changes(listed), about="many"))
        self.assertEqual(len(of(made, "setting")), len(listed))
        engine.handle(desk(2, "settings_back", number=engine.changes.last_batch))
        self.assertEqual(said_by(engine.document), before)
        with self.assertRaises(GateError):
            engine.handle(desk(3, "settings_back", number=engine.changes.last_batch))

    @settings(max_examples=60, deadline=None)
    @given(SEVERAL, st.sampled_from(BAD), st.integers(0, 6))
    def test_one_that_cannot_be_takes_all_with_it(
        self, listed: list[tuple[str, Any]], bad: tuple[str, Any], place: int
    ) -> None:
        engine = Engine(copy.deepcopy(KIT))
        engine.handle(live())
        engine.state.take_changes()
        before, kit = copy.deepcopy(engine.document), engine.parts.kit
        wanted = [change for change in listed if change[0] != bad[0]]
        wanted.insert(min(place, len(wanted)), bad)
        for act in (desk(1, "settings", changes=changes(wanted)), desk(1, "setting", path=bad[0], value=bad[1]), desk(1, "setting", path=bad[0], value=bad[1], tonight=True)):  # fmt: skip
            with self.assertRaises(GateError):
                engine.handle(act)
            self.assertEqual((engine.document, engine.effective), (before, before))
            self.assertIs(engine.parts.kit, kit)
            self.assertEqual(engine.state.take_changes(), [])


class Tonight(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(SEVERAL, st.lists(st.sampled_from(GOOD), max_size=2))
    def test_it_holds_and_puts_itself_back_whatever_is_changed_for_good_beside_it(
        self, listed: list[tuple[str, Any]], lasting: list[tuple[str, Any]]
    ) -> None:
        engine = Engine(copy.deepcopy(KIT))
        engine.handle(live())
        for number, (path, value) in enumerate(listed, 1):
            engine.handle(desk(number, "setting", path=path, value=value, tonight=True))
        self.assertEqual(engine.document, KIT)
        sure = dict(KIT)
        for number, (path, value) in enumerate(lasting, 20):
            try:
                engine.handle(desk(number, "setting", path=path, value=value))
            except GateError:
                continue
            sure = engine.document
        engine.handle(offline(100))
        engine.handle(says(5000, "long after"))
        self.assertEqual(engine.effective, engine.document)
        self.assertEqual(said_by(engine.document), said_by(sure))
        self.assertEqual(len(engine.state.tonight), 0)
