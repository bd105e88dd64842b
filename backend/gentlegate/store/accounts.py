"""Accounts of the Desk, their sessions, and the one-time keys that make the first one."""

from __future__ import annotations

import sqlite3

from gentlegate.core.team import Account
from gentlegate.store.database import Database, StoreError


class Accounts:
    def __init__(self, database: Database) -> None:
        self._db = database

    def add(self, login: str, name: str, level: str, password: str, person: str | None = None) -> Account:
        """`password` is its Argon2id hash. StoreError where the login is taken."""
        try:
            row = self._db.connection.execute(
                "INSERT INTO accounts (login, name, level, password, person) VALUES (?, ?, ?, ?, ?) RETURNING id",
                (login, name, level, password, person),
            ).fetchone()
        except sqlite3.IntegrityError:
            raise StoreError(f'the log-in "{login}" is taken') from None
        return Account(int(row["id"]), login, name, level, person)

    def password_of(self, login: str) -> tuple[Account, str] | None:
        row = self._db.connection.execute("SELECT * FROM accounts WHERE login = ?", (login,)).fetchone()
        return (_account(row), str(row["password"])) if row else None

    def all(self) -> list[Account]:
        return [_account(row) for row in self._db.connection.execute("SELECT * FROM accounts ORDER BY id")]

    def begin_session(self, token: str, account: Account, now: int, ends: int, from_where: str) -> None:
        """`token` is the hash of what the cookie holds."""
        self._db.connection.execute(
            "INSERT INTO sessions (token, account, began, ends, from_where) VALUES (?, ?, ?, ?, ?)",
            (token, account.id, now, ends, from_where),
        )

    def of_session(self, token: str, now: int) -> Account | None:
        row = self._db.connection.execute(
            "SELECT a.* FROM sessions s JOIN accounts a ON a.id = s.account WHERE s.token = ? AND s.ends > ?",
            (token, now),
        ).fetchone()
        return _account(row) if row else None

    def end_session(self, token: str) -> None:
        self._db.connection.execute("DELETE FROM sessions WHERE token = ?", (token,))

    def put_welcome_key(self, key: str, now: int) -> None:
        """Only the newest key counts."""
        with self._db.transaction() as db:
            db.execute("DELETE FROM welcome_keys")
            db.execute("INSERT INTO welcome_keys (key, made) VALUES (?, ?)", (key, now))

    def take_welcome_key(self, key: str) -> bool:
        """Whether the key counted; it is used up."""
        return self._db.connection.execute("DELETE FROM welcome_keys WHERE key = ?", (key,)).rowcount == 1


def _account(row: sqlite3.Row) -> Account:
    return Account(int(row["id"]), row["login"], row["name"], row["level"], row["person"])


class Connections:
    """Where the platforms are and what lets the Gatekeeper in."""

    def __init__(self, database: Database) -> None:
        self._db = database

    def put(self, platform: str, address: str, token: str) -> None:
        self._db.connection.execute(
            "INSERT INTO connections (platform, address, token) VALUES (?, ?, ?)"
            " ON CONFLICT (platform) DO UPDATE SET address = excluded.address, token = excluded.token",
            (platform, address, token),
        )

    def all(self) -> dict[str, tuple[str, str]]:
        """Address and token by platform."""
        rows = self._db.connection.execute("SELECT platform, address, token FROM connections ORDER BY platform")
        return {row["platform"]: (row["address"], row["token"]) for row in rows}
