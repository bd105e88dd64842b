"""Laws of taking changes back, one by one and by section."""

from __future__ import annotations

import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from gentlegate.core.kit import edit
from gentlegate.core.kit.sections import SECTIONS, going_back
from gentlegate.core.kit.taking_back import holds, way_back
from gentlegate.core.text.folding import fold_name
from tests.support.kits import said_by

NAMES = st.sampled_from(["kiln", "Clay", "mug", "KETTLE"])
ENTRIES = st.builds(lambda name, reply: {"name": name, "reply": reply}, NAMES, st.sampled_from(["a", "b"]))
CHANGES = st.one_of(
    st.tuples(NAMES.map("commands.{}".format), st.one_of(st.none(), ENTRIES)),
    st.tuples(
        st.sampled_from(["channel.prefix", "filters.links.on", "filters.length.most"]),
        st.sampled_from([None, 1, 2]),
    ),
)


def document(changes: list[tuple[str, Any]]) -> edit.Document:
    """The settings after these changes, those left out that cannot be."""
    found: edit.Document = {}
    for change in changes:
        if possible(found, change):
            found = edit.write(found, *change)
    return found


def possible(settings: edit.Document, change: tuple[str, Any]) -> bool:
    path, value = change
    if not path.startswith("commands."):
        return True
    if value is None:
        return edit.read(settings, path) is not None
    stands = edit.where_it_stands(path, value)
    return fold_name(stands) == fold_name(path) or edit.read(settings, stands) is None


def same(one: edit.Document, other: edit.Document) -> bool:
    return bool(said_by(one) == said_by(other))


class SingleChanges(unittest.TestCase):
    @given(st.lists(CHANGES, max_size=8), CHANGES)
    def test_taken_back_is_as_before_and_taken_back_again_is_the_change(
        self, history: list[tuple[str, Any]], change: tuple[str, Any]
    ) -> None:
        before = document(history)
        if not possible(before, change):
            return
        path, value = change
        was = edit.read(before, path)
        after = edit.write(before, path, value)
        if was == value:
            self.assertFalse(holds(edit.Opened(after), path, was, value))
            return
        self.assertTrue(holds(edit.Opened(after), path, was, value))
        undo = way_back(path, was, value)
        back = edit.write(after, *undo)
        self.assertTrue(same(back, before), (before, after, back))
        if undo[1] is not None:
            self.assertTrue(holds(edit.Opened(back), undo[0], value, undo[1]))
        again = edit.write(back, *way_back(undo[0], value, undo[1]))
        self.assertTrue(same(again, after), (after, again))

    @given(st.lists(CHANGES, min_size=1, max_size=6), CHANGES)
    def test_what_was_changed_again_since_does_not_hold(
        self, history: list[tuple[str, Any]], last: tuple[str, Any]
    ) -> None:
        before = document(history)
        path, value = last
        if value is None or not possible(before, last) or edit.read(before, path) == value:
            return
        after = edit.write(before, path, value)
        stands = edit.where_it_stands(path, value)
        other = {"name": value["name"], "reply": "other"} if isinstance(value, dict) else 99
        self.assertFalse(holds(edit.Opened(edit.write(after, stands, other)), path, edit.read(before, path), value))


class Sections(unittest.TestCase):
    @given(st.lists(CHANGES, max_size=8), st.lists(CHANGES, max_size=8))
    def test_every_section_put_back_is_everything_put_back(
        self, one: list[tuple[str, Any]], other: list[tuple[str, Any]]
    ) -> None:
        now, then = document(one), document(other)
        back = now
        for section in SECTIONS:
            changes = going_back(back, then, section)
            back = edit.write_all(back, changes)
            self.assertEqual(going_back(back, then, section), [])
        self.assertTrue(same(back, then), (now, then, back))
        self.assertEqual([change for section in SECTIONS for change in going_back(then, then, section)], [])
