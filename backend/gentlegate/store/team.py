"""Invitations to the Desk, and the permissions that the broadcaster has moved."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from gentlegate.core.team import Account
from gentlegate.store.accounts import Accounts
from gentlegate.store.database import Database


@dataclass(frozen=True, slots=True)
class Invitation:
    """`ends` is a moment; `by` the name of who made it."""

    id: int
    level: str
    note: str
    made: int
    ends: int
    by: str


class Team:
    def __init__(self, database: Database) -> None:
        self._db = database
        self._accounts = Accounts(database)

    def invite(self, key: str, level: str, note: str, by: Account, now: int, ends: int) -> int:
        """`key` is the hash of the one in the link."""
        row = self._db.connection.execute(
            "INSERT INTO invitations (key, level, note, made, ends, made_by) VALUES (?, ?, ?, ?, ?, ?) RETURNING id",
            (key, level, note, now, ends, by.id),
        ).fetchone()
        return int(row["id"])

    def open_invitations(self, now: int) -> list[Invitation]:
        """Those that may still be used, newest first."""
        rows = self._db.connection.execute(
            "SELECT i.*, a.name AS by FROM invitations i JOIN accounts a ON a.id = i.made_by"
            " WHERE i.used_by IS NULL AND i.ends > ? ORDER BY i.id DESC",
            (now,),
        )
        return [_invitation(row) for row in rows]

    def invitation(self, key: str, now: int) -> Invitation | None:
        """What a key invites to; None where it was used, has ended or never was."""
        row = self._db.connection.execute(
            "SELECT i.*, a.name AS by FROM invitations i JOIN accounts a ON a.id = i.made_by"
            " WHERE i.key = ? AND i.used_by IS NULL AND i.ends > ?",
            (key, now),
        ).fetchone()
        return _invitation(row) if row else None

    def withdraw(self, id: int) -> bool:
        done = self._db.connection.execute("DELETE FROM invitations WHERE id = ? AND used_by IS NULL", (id,))
        return done.rowcount == 1

    def accept(self, key: str, login: str, name: str, password: str, now: int) -> Account | None:
        """An account by an invitation, which is used up; None where it counts no more. StoreError as in `add`."""
        with self._db.transaction() as db:
            found = self.invitation(key, now)
            if found is None:
                return None
            account = self._accounts.add(login, name, found.level, password)
            db.execute("UPDATE invitations SET used_by = ? WHERE id = ?", (account.id, found.id))
            return account

    def moved(self) -> dict[str, str]:
        """The acts whose level was moved."""
        rows = self._db.connection.execute("SELECT act, level FROM moved_permissions")
        return {row["act"]: row["level"] for row in rows}

    def move(self, act: str, level: str | None) -> None:
        """Move an act to a level; None puts it back."""
        if level is None:
            self._db.connection.execute("DELETE FROM moved_permissions WHERE act = ?", (act,))
        else:
            self._db.connection.execute(
                "INSERT INTO moved_permissions (act, level) VALUES (?, ?)"
                " ON CONFLICT (act) DO UPDATE SET level = excluded.level",
                (act, level),
            )


def _invitation(row: sqlite3.Row) -> Invitation:
    return Invitation(row["id"], row["level"], row["note"], row["made"], row["ends"], row["by"])
