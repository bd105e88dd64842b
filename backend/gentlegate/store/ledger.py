"""The ledger: who changed or did what. It only grows."""

from __future__ import annotations

from typing import Any

import orjson

from gentlegate.core.journal import LedgerEntry
from gentlegate.store.database import Database

MOST_NAMES = 20
COLUMNS = "seq, at, who, place, what, about, before, after, why"


def as_text(value: Any) -> str:
    return orjson.dumps(value).decode()


def write_ledger(database: Database, line: LedgerEntry) -> None:
    database.connection.execute(
        "INSERT INTO ledger (at, who, place, what, about, before, after, why) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
        (line.at, line.who, line.place, line.what, line.about, as_text(line.before), as_text(line.after), line.why),
    )


class Ledger:
    def __init__(self, database: Database) -> None:
        self._db = database

    def history(self, section: str, name: str, most: int = 100) -> list[LedgerEntry]:
        """What became of an entry of a named list, under every name that it had; newest first."""
        names, waiting = {name.casefold()}, [name]
        rows: dict[int, LedgerEntry] = {}
        while waiting and len(names) <= MOST_NAMES:
            for seq, entry in self._about(section, waiting.pop(), most):
                rows[seq] = entry
                for value in (entry.before, entry.after):
                    other = value.get("name") if isinstance(value, dict) else None
                    if other and other.casefold() not in names:
                        names.add(other.casefold())
                        waiting.append(other)
        return [rows[seq] for seq in sorted(rows, reverse=True)][:most]

    def search(
        self,
        *,
        who: str | None,
        kind: str | None,
        text: str,
        before: int | None,
        most: int,
        since: int | None = None,
        until: int | None = None,
    ) -> list[tuple[int, LedgerEntry]]:
        """Numbered entries, newest first: of one person, of one kind, with these words in what they are about.

        `since` and `until` are moments, the second one not included.
        """
        conditions: list[str] = ["1"]
        values: list[Any] = []
        asked = (
            ("who = ?", who), ("what = ?", kind), ("seq < ?", before), ("at >= ?", since), ("at < ?", until),
        )  # fmt: skip
        for condition, value in asked:
            if value is not None:
                conditions.append(condition)
                values.append(value)
        if text.strip():
            conditions.append("(instr(lower(coalesce(about, '')), lower(?)) OR instr(lower(after), lower(?)))")
            values += [text.strip(), text.strip()]
        found = self._db.connection.execute(
            f"SELECT {COLUMNS} FROM ledger WHERE {' AND '.join(conditions)} ORDER BY seq DESC LIMIT ?",
            (*values, most),
        )
        return [(int(row["seq"]), entry_of(row)) for row in found]

    def since(self, at: int, but: str, most: int) -> list[tuple[int, LedgerEntry]]:
        """What others than `but` did since a moment, newest first."""
        found = self._db.connection.execute(
            f"SELECT {COLUMNS} FROM ledger"
            " WHERE seq >= (SELECT seq FROM ledger WHERE at >= ? ORDER BY at, seq LIMIT 1) AND who != ?"
            " ORDER BY seq DESC LIMIT ?",
            (at, but, most),
        )
        return [(int(row["seq"]), entry_of(row)) for row in found]

    def stopped_since(self, at: int) -> list[tuple[str, str, int]]:
        """Filter, outcome and how often, of what the judge stopped since a moment."""
        rows = self._db.connection.execute(
            "SELECT json_extract(body, '$.filter') AS filter, json_extract(body, '$.outcome') AS outcome, count(*) AS n"
            " FROM effects WHERE effect = 'verdict' AND at >= ? AND outcome != 'allow'"
            " GROUP BY 1, 2 ORDER BY n DESC",
            (at,),
        )
        return [(row["filter"], row["outcome"], row["n"]) for row in rows]

    def writers(self, messages: list[str]) -> dict[str, str]:
        """Who wrote these messages, each given as `platform id`."""
        found = {}
        for about in messages:
            platform, _, id = about.partition(" ")
            row = self._db.connection.execute(
                "SELECT person FROM events WHERE kind = 'message' AND platform = ? AND message = ?", (platform, id)
            ).fetchone()
            if row and row["person"]:
                found[about] = row["person"]
        return found

    def entry(self, number: int) -> LedgerEntry | None:
        row = self._db.connection.execute(f"SELECT {COLUMNS} FROM ledger WHERE seq = ?", (number,)).fetchone()
        return entry_of(row) if row else None

    def kinds(self) -> list[tuple[str, int]]:
        """Every kind of entry with how many there are."""
        rows = self._db.connection.execute("SELECT what, count(*) AS n FROM ledger GROUP BY what ORDER BY what")
        return [(row["what"], row["n"]) for row in rows]

    def people(self) -> list[str]:
        """Everybody who is in it."""
        return [row["who"] for row in self._db.connection.execute("SELECT DISTINCT who FROM ledger ORDER BY who")]

    def acts(self, what: str, about: str, most: int = 50) -> list[LedgerEntry]:
        """The acts of one kind about one thing, newest first."""
        found = self._db.connection.execute(
            f"SELECT {COLUMNS} FROM ledger WHERE what = ? AND about = ? COLLATE NOCASE ORDER BY seq DESC LIMIT ?",
            (what, about, most),
        )
        return [entry_of(row) for row in found]

    def _about(self, section: str, name: str, most: int) -> list[tuple[int, LedgerEntry]]:
        """The changes of the place, and the one that gave it this name."""
        found = self._db.connection.execute(
            f"SELECT {COLUMNS} FROM ledger"
            " WHERE what = 'setting' AND about = ? COLLATE NOCASE"
            f" UNION SELECT {COLUMNS} FROM ledger"
            " WHERE what = 'setting' AND about LIKE ? AND json_extract(after, '$.name') = ? COLLATE NOCASE"
            " ORDER BY seq DESC LIMIT ?",
            (f"{section}.{name}", f"{section}.%", name, most),
        )
        return [(int(row["seq"]), entry_of(row)) for row in found]


def entry_of(row: Any) -> LedgerEntry:
    before, after = orjson.loads(row["before"]), orjson.loads(row["after"])
    return LedgerEntry(row["at"], row["who"], row["place"], row["what"], row["about"], before, after, row["why"])
