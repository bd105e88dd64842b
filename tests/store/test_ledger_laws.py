"""Laws of the ledger as it is stored: searching is filtering, pages join without a gap, and nothing is ever changed."""

from __future__ import annotations

import sqlite3
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from gentlegate.core.journal import LedgerEntry
from gentlegate.store.ledger import Ledger, write_ledger
from tests.store.test_store import OnAFile

WHO = ("brook:u-bram", "desk:fern", "gate")
KINDS = ("setting", "count", "title")
ABOUT = ("commands.kiln", "commands.Kettle", "mugs", "brook", None)
ENTRIES = st.lists(
    st.builds(
        LedgerEntry,
        at=st.integers(0, 20),
        who=st.sampled_from(WHO),
        place=st.sampled_from(["desk", "chat"]),
        what=st.sampled_from(KINDS),
        about=st.sampled_from(ABOUT),
        before=st.none(),
        after=st.sampled_from([None, 3, {"name": "kiln", "reply": "HOT clay"}]),
        why=st.sampled_from([None, "friends.json"]),
    ),
    max_size=25,
)
ASKED = st.fixed_dictionaries(
    {
        "who": st.none() | st.sampled_from(WHO),
        "kind": st.none() | st.sampled_from(KINDS),
        "text": st.sampled_from(["", "kettle", "KILN", "hot", "%", "nothing of the kind"]),
        "since": st.none() | st.integers(0, 20),
        "until": st.none() | st.integers(0, 20),
    }
)


def wanted(entry: LedgerEntry, asked: dict[str, Any]) -> bool:
    """Whether an entry is meant, said plainly."""
    after = "null" if entry.after is None else str(entry.after).replace("'", '"').replace('": "', '":"')
    words = asked["text"].lower()
    return (
        asked["who"] in (None, entry.who)
        and asked["kind"] in (None, entry.what)
        and (asked["since"] is None or entry.at >= asked["since"])
        and (asked["until"] is None or entry.at < asked["until"])
        and (words in (entry.about or "").lower() or words in after.lower())
    )


class Searching(OnAFile):
    @settings(max_examples=80, deadline=None)
    @given(ENTRIES, ASKED, st.integers(1, 7))
    def test_searching_is_filtering_page_by_page(
        self, entries: list[LedgerEntry], asked: dict[str, Any], most: int
    ) -> None:
        ledger = Ledger(self.database)
        first = self.database.connection.execute("SELECT coalesce(max(seq), 0) FROM ledger").fetchone()[0]
        for entry in entries:
            write_ledger(self.database, entry)
        found: list[LedgerEntry] = []
        before: int | None = None
        while page := ledger.search(**asked, before=before, most=most):
            self.assertLessEqual(len(page), most)
            found += [entry for seq, entry in page if seq > first]
            before = page[-1][0]
            if before <= first:
                break
        self.assertEqual(found, [entry for entry in reversed(entries) if wanted(entry, asked)])

    @settings(max_examples=30, deadline=None)
    @given(ENTRIES.filter(bool), st.sampled_from(["at = 1", "who = 'me'", "after = '0'", "why = NULL"]))
    def test_the_database_itself_refuses_to_change_or_forget(self, entries: list[LedgerEntry], change: str) -> None:
        for entry in entries:
            write_ledger(self.database, entry)
        rows = "SELECT * FROM ledger ORDER BY seq"
        before = [tuple(row) for row in self.database.connection.execute(rows)]
        for statement in (f"UPDATE ledger SET {change}", "DELETE FROM ledger", "DELETE FROM ledger WHERE seq = 1"):
            with self.assertRaisesRegex(sqlite3.IntegrityError, "only grows"):
                self.database.connection.execute(statement)
        self.assertEqual([tuple(row) for row in self.database.connection.execute(rows)], before)

    def test_a_name_that_changed_keeps_its_history(self) -> None:
        ledger = Ledger(self.database)
        names = ["kiln", "oven", "furnace", "hearth"]
        last: dict[str, str] | None = None
        for number, name in enumerate(names):
            now = {"name": name, "reply": str(number)}
            about = f"commands.{last['name'] if last else name}"
            write_ledger(self.database, LedgerEntry(number, "gate", "desk", "setting", about, last, now))
            last = now
        write_ledger(
            self.database, LedgerEntry(9, "gate", "desk", "setting", "commands.other", None, {"name": "other"})
        )
        for name in names:
            whole = [entry.at for entry in ledger.history("commands", name.upper())]
            self.assertEqual(whole, [3, 2, 1, 0], name)
        self.assertEqual([entry.at for entry in ledger.history("commands", "other")], [9])
