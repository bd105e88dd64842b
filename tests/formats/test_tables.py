from __future__ import annotations

import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.errors import KitError
from gentlegate.formats.tables import read_commands, write_commands

COMMANDS: list[dict[str, Any]] = [
    {"name": "kiln", "reply": "hot"},
    {"name": "glaze", "reply": ["one, \"two\"", "=SUM(A1)"], "aliases": ["dip", "wet"]},
    {"name": "lost", "reply": "x", "needs": {"level": "vip", "people": ["brook:1"]}, "cooldown": "none"},
    {"name": "tea", "reply": "-5", "cooldown": {"everyone": "30s", "person": "stream", "skip_from": "vip"}},
]  # fmt: skip
WORD = st.text(st.characters(codec="utf-8", exclude_categories=["C", "Z"]), min_size=1, max_size=12)


class Tables(unittest.TestCase):
    def test_over_what_is_there_nothing_is_lost(self) -> None:
        read = read_commands(write_commands(COMMANDS), {"commands": COMMANDS})
        self.assertEqual(read["commands"], COMMANDS)

    def test_no_cell_is_reckoned_with(self) -> None:
        cells = write_commands(COMMANDS).splitlines()
        self.assertIn("tea,'-5,everyone,30s,stream,", cells)

    def test_semicolons_other_columns_and_order(self) -> None:
        (command,) = read_commands("\ufeffReply;Name\r\nhot;kiln\r\n\r\n", {})["commands"]
        self.assertEqual(command, {"name": "kiln", "reply": "hot"})

    def test_columns_that_are_left_out_stay_as_they_are(self) -> None:
        (command,) = read_commands("name,level\nlost,Regular\n", {"commands": COMMANDS})["commands"]
        self.assertEqual(command["needs"], {"level": "regular", "people": ["brook:1"]})
        self.assertEqual(command["cooldown"], "none")

    def test_faults_name_their_line(self) -> None:
        for text, place in (
            ("nom,reply\n", "line 1"),
            ("reply\nx\n", "line 1"),
            ("", "line 1"),
            ("name,reply\nkiln,hot\n,x\n", "line 3"),
            ("name,reply\nkiln\n", "line 2"),
            ("name,reply\na,b,c\n", "line 2"),
            ('name,reply\na,"b\n', "line 2"),
            ("name,reply\n" + "a,b\n" * 10_001, "line 10002"),
        ):
            with self.subTest(text[:20]), self.assertRaises(KitError) as caught:
                read_commands(text, {})
            self.assertEqual(caught.exception.path, place)

    @given(st.dictionaries(WORD, st.lists(WORD, min_size=1, max_size=3), max_size=5))
    @settings(max_examples=100, deadline=None)
    def test_a_table_comes_back_as_it_was(self, replies: dict[str, list[str]]) -> None:
        commands = [
            {"name": name, "reply": texts[0] if len(texts) == 1 else texts} for name, texts in replies.items()
        ]
        self.assertEqual(read_commands(write_commands(commands), {})["commands"], commands)


if __name__ == "__main__":
    unittest.main()
