"""What is stored about people: their messages with what became of them, notes about them, and their removal."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import orjson

from gentlegate.core.journal import LedgerEntry
from gentlegate.store.database import Database
from gentlegate.store.ledger import COLUMNS, as_text, entry_of

LATELY = 3_000
"""The newest messages whose writers talked lately."""


@dataclass(frozen=True, slots=True)
class Said:
    """A message as it was stored: `outcome` and `filter` of its verdict where it was stopped, and its undo."""

    number: int
    at: int
    platform: str
    text: str
    outcome: str | None
    filter: str | None
    by: str | None
    undone: bool


@dataclass(frozen=True, slots=True)
class Note:
    """`person` is None for a note to the whole team."""

    id: int
    person: str | None
    text: str
    at: int
    by: str
    by_name: str


class People:
    def __init__(self, database: Database) -> None:
        self._db = database

    def lately(self, most: int) -> list[tuple[str, int]]:
        """Those who wrote something lately, with the moment of their last message, newest first."""
        rows = self._db.connection.execute(
            "SELECT person, max(at) AS at FROM (SELECT person, at FROM events WHERE kind = 'message'"
            " ORDER BY seq DESC LIMIT ?) GROUP BY person ORDER BY at DESC LIMIT ?",
            (LATELY, most),
        )
        return [(row["person"], row["at"]) for row in rows]

    def messages(self, accounts: Sequence[str], before: int | None, most: int) -> list[Said]:
        """What somebody wrote under any of their accounts, newest first, before the number `before`."""
        found = self._db.connection.execute(
            "SELECT seq, at, platform, message, body FROM events"
            f" WHERE kind = 'message' AND person IN ({_marks(accounts)}) AND (? IS NULL OR seq < ?)"
            " ORDER BY seq DESC LIMIT ?",
            (*accounts, before, before, most),
        ).fetchall()
        return [self._said(row) for row in found]

    def _said(self, row: Any) -> Said:
        outcome = filter_ = by = None
        undone = False
        effects = self._db.connection.execute(
            "SELECT effect, body FROM effects WHERE platform = ? AND message = ? ORDER BY seq",
            (row["platform"], row["message"]),
        )
        for effect in effects:
            body = orjson.loads(effect["body"])
            if effect["effect"] == "verdict" and body["outcome"] != "allow":
                outcome, filter_ = body["outcome"], body["filter"]
            elif effect["effect"] == "remove" and body.get("by"):
                outcome, by = outcome or "remove", body["by"]
            elif effect["effect"] == "undone":
                undone = True
        text = str(orjson.loads(row["body"]).get("text", ""))
        return Said(row["seq"], row["at"], row["platform"], text, outcome, filter_, by, undone)

    def counts(self, accounts: Sequence[str]) -> tuple[int, int | None]:
        """How many messages are stored, and the moment of the last one."""
        row = self._db.connection.execute(
            f"SELECT count(*) AS n, max(at) AS at FROM events WHERE kind = 'message' AND person IN ({_marks(accounts)})",
            tuple(accounts),
        ).fetchone()
        return int(row["n"]), row["at"]

    def acts(self, accounts: Sequence[str], most: int) -> list[tuple[int, LedgerEntry]]:
        """The ledger's entries about a person or a message of theirs, newest first."""
        about = [value for key in accounts for value in (key, f"{key.partition(':')[0]} {key}")]
        found = self._db.connection.execute(
            f"SELECT {COLUMNS} FROM ledger WHERE what IN"
            " ('pass', 'timeout', 'ban', 'lift', 'arrivals', 'note', 'person', 'undo', 'remove', 'mark')"
            f" AND (about IN ({_marks(about)}) OR about IN (SELECT platform || ' ' || message FROM events"
            f" WHERE kind = 'message' AND person IN ({_marks(accounts)})))"
            " ORDER BY seq DESC LIMIT ?",
            (*about, *accounts, most),
        )
        return [(int(row["seq"]), entry_of(row)) for row in found]

    def note(self, person: str | None, text: str, by: str, by_name: str, now: int) -> Note:
        row = self._db.connection.execute(
            "INSERT INTO notes (person, text, at, by, by_name) VALUES (?, ?, ?, ?, ?) RETURNING id",
            (person, text, now, by, by_name),
        ).fetchone()
        return Note(int(row["id"]), person, text, now, by, by_name)

    def note_of(self, id: int) -> Note | None:
        """A note, also one that was taken away."""
        row = self._db.connection.execute("SELECT * FROM notes WHERE id = ?", (id,)).fetchone()
        return _note(row) if row else None

    def take_away(self, id: int, gone: int | None) -> None:
        """Take a note away at a moment, or bring it back (None)."""
        self._db.connection.execute("UPDATE notes SET gone = ? WHERE id = ?", (gone, id))

    def notes(self, accounts: Sequence[str]) -> list[Note]:
        """What was noted about a person, newest first."""
        rows = self._db.connection.execute(
            f"SELECT * FROM notes WHERE person IN ({_marks(accounts)}) AND gone IS NULL ORDER BY id DESC",
            tuple(accounts),
        )
        return [_note(row) for row in rows]

    def notes_since(self, since: int, most: int) -> list[Note]:
        """Every note since a moment, newest first."""
        rows = self._db.connection.execute(
            "SELECT * FROM notes WHERE at >= ? AND gone IS NULL ORDER BY id DESC LIMIT ?", (since, most)
        )
        return [_note(row) for row in rows]

    def erase(self, accounts: Sequence[str], names: Sequence[str], nobody: str, voices: Sequence[str]) -> int:
        """Remove what these accounts said and what says who they were; how many messages that were.

        `voices` are the Gatekeeper's accounts (by id or `@login`), whose lines that name them are emptied too. The rows stay, with their moments, verdicts and counts, under the pseudonym `platform:nobody`.
        """
        clean = _Cleaner(accounts, names, nobody)
        with self._db.transaction() as db:
            db.execute("PRAGMA secure_delete = ON")
            marks = _marks(accounts)
            mine = f"SELECT seq FROM events WHERE person IN ({marks})"
            count = db.execute(
                f"SELECT count(*) AS n FROM events WHERE kind = 'message' AND person IN ({marks})", tuple(accounts)
            ).fetchone()["n"]
            for row in db.execute(
                f"SELECT seq, body FROM effects WHERE event IN ({mine})", tuple(accounts)
            ).fetchall():
                db.execute("UPDATE effects SET body = ? WHERE seq = ?", (clean.of_theirs(row["body"]), row["seq"]))
            for table in ("effects", "events"):
                self._rename_in(table, accounts, clean)
            for account in accounts:
                self._clean_events(account, f"{account.partition(':')[0]}:{nobody}", clean)
            for name in names:
                self._empty_lines(voices, name, clean)
            db.execute(f"DELETE FROM notes WHERE person IN ({marks})", tuple(accounts))
        return int(count)

    def _empty_lines(self, voices: Sequence[str], name: str, clean: _Cleaner) -> None:
        """What the Gatekeeper said to somebody by name."""
        db, marks = self._db.connection, _marks(voices)
        rows = db.execute(
            f"SELECT seq, body FROM events WHERE kind = 'message' AND instr(lower(body), lower(?)) AND (person IN ({marks})"
            f" OR platform || ':@' || lower(json_extract(body, '$.person.login')) IN ({marks}))",
            (name, *voices, *voices),
        ).fetchall()
        for row in rows:
            db.execute("UPDATE events SET body = ? WHERE seq = ?", (clean.emptied(row["body"]), row["seq"]))

    def _clean_events(self, account: str, pseudonym: str, clean: _Cleaner) -> None:
        platform, _, id = account.partition(":")
        db = self._db.connection
        rows = db.execute(
            "SELECT seq, person, body FROM events WHERE person = ? OR (kind = 'happening' AND platform = ?"
            " AND json_extract(body, '$.person.id') = ?)",
            (account, platform, id),
        ).fetchall()
        for row in rows:
            person = pseudonym if row["person"] else None
            db.execute(
                "UPDATE events SET person = ?, body = ? WHERE seq = ?",
                (person, clean.of_theirs(row["body"]), row["seq"]),
            )

    def _rename_in(self, table: str, accounts: Sequence[str], clean: _Cleaner) -> None:
        """What others' lines say of these accounts by their person string, such as a pass or a timeout."""
        db = self._db.connection
        for account in accounts:
            rows = db.execute(f"SELECT seq, body FROM {table} WHERE instr(body, ?)", (f'"{account}"',)).fetchall()
            for row in rows:
                db.execute(f"UPDATE {table} SET body = ? WHERE seq = ?", (clean.of_others(row["body"]), row["seq"]))


class _Cleaner:
    """Rewrites stored objects so that nobody is found in them."""

    _THEIR_OWN = ("text", "emotes", "says", "link")

    def __init__(self, accounts: Sequence[str], names: Sequence[str], nobody: str) -> None:
        self._nobody = nobody
        self._keys = {account: f"{account.partition(':')[0]}:{nobody}" for account in accounts}
        self._names = {name.casefold() for name in names}

    def of_others(self, text: str) -> str:
        return as_text(self._renamed(orjson.loads(text)))

    def of_theirs(self, text: str) -> str:
        body = self._renamed(orjson.loads(text))
        if isinstance(body.get("person"), dict):
            body["person"] = {"id": self._nobody, "login": self._nobody, "name": self._nobody}
        return as_text(self._without_words(body))

    def emptied(self, text: str) -> str:
        """The line without its words; who said it stays."""
        return as_text(self._without_words(orjson.loads(text)))

    def _without_words(self, body: dict[str, Any]) -> dict[str, Any]:
        for reason in body.get("reasons") or []:
            reason["text"] = None
        for key in self._THEIR_OWN:
            if isinstance(body.get(key), str):
                body[key] = ""
            elif key in body:
                body.pop(key)
        return body

    def _renamed(self, value: Any, key: str = "") -> Any:
        if isinstance(value, dict):
            return {name: self._renamed(one, name) for name, one in value.items()}
        if isinstance(value, list):
            return [self._renamed(one) for one in value]
        if isinstance(value, str):
            if value in self._keys:
                return self._keys[value]
            if key in ("login", "name", "name_of_by") and value.casefold() in self._names:
                return self._nobody
        return value


def _marks(values: Sequence[Any]) -> str:
    return ", ".join("?" * len(values))


def _note(row: Any) -> Note:
    return Note(row["id"], row["person"], row["text"], row["at"], row["by"], row["by_name"])
