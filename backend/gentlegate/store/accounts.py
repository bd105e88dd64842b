"""Accounts of the Desk, their sessions, and the one-time keys that make the first one."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from gentlegate.core.moments import HOUR
from gentlegate.core.team import Account
from gentlegate.store.database import Database, StoreError

IDLE, USE_NOTED = 7 * 24 * HOUR, HOUR
"""How long a session may lie unused, and how exactly its use is noted."""


@dataclass(frozen=True, slots=True)
class Session:
    """`token` is the hash of what the cookie holds."""

    token: str
    began: int
    from_where: str


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
        row = self._db.connection.execute(
            "SELECT * FROM accounts WHERE login = ? AND gone IS NULL", (login,)
        ).fetchone()
        return (_account(row), str(row["password"])) if row else None

    def all(self) -> list[Account]:
        """Everybody who ever had an account, also those who have left."""
        return [_account(row) for row in self._db.connection.execute("SELECT * FROM accounts ORDER BY id")]

    def here(self) -> list[Account]:
        """Those who may log in."""
        rows = self._db.connection.execute("SELECT * FROM accounts WHERE gone IS NULL ORDER BY id")
        return [_account(row) for row in rows]

    def change(self, account: Account, level: str, person: str | None) -> Account:
        self._db.connection.execute(
            "UPDATE accounts SET level = ?, person = ? WHERE id = ?", (level, person, account.id)
        )
        return Account(account.id, account.login, account.name, level, person)

    def leave(self, account: Account, now: int) -> None:
        """Somebody leaves: their sessions end at once, and the log-in is free again."""
        with self._db.transaction() as db:
            db.execute("DELETE FROM sessions WHERE account = ?", (account.id,))
            freed = f"{account.login} (left {account.id})"
            db.execute("UPDATE accounts SET gone = ?, login = ? WHERE id = ?", (now, freed, account.id))

    def begin_session(self, token: str, account: Account, now: int, ends: int, from_where: str) -> None:
        """`token` is the hash of what the cookie holds."""
        self._db.connection.execute(
            "INSERT INTO sessions (token, account, began, ends, from_where) VALUES (?, ?, ?, ?, ?)",
            (token, account.id, now, ends, from_where),
        )

    def of_session(self, token: str, now: int) -> Account | None:
        """Whose session it is; None where it has ended, or was not used for IDLE."""
        row = self._db.connection.execute(
            "SELECT a.*, coalesce(s.used, s.began) AS used FROM sessions s JOIN accounts a ON a.id = s.account"
            " WHERE s.token = ? AND s.ends > ? AND coalesce(s.used, s.began) > ? AND a.gone IS NULL",
            (token, now, now - IDLE),
        ).fetchone()
        if row and now - row["used"] > USE_NOTED:
            self._db.connection.execute("UPDATE sessions SET used = ? WHERE token = ?", (now, token))
        return _account(row) if row else None

    def end_session(self, token: str) -> None:
        self._db.connection.execute("DELETE FROM sessions WHERE token = ?", (token,))

    def came(self, account: int, now: int, away: int) -> None:
        """A screen of theirs is open now; if none was for at least `away` microseconds, that is remembered."""
        self._db.connection.execute(
            "UPDATE accounts SET away_from = CASE WHEN here_at IS NULL OR ? - here_at < ? THEN away_from ELSE here_at END,"
            " here_at = ? WHERE id = ?",
            (now, away, now, account),
        )

    def still_here(self, accounts: set[int], now: int) -> None:
        """Screens of these accounts are open, or were until just now."""
        with self._db.transaction() as db:
            db.executemany("UPDATE accounts SET here_at = ? WHERE id = ?", [(now, one) for one in accounts])

    def away_from(self, account: int) -> int | None:
        """Since when somebody was away, as long as they have not looked at what they missed."""
        row = self._db.connection.execute("SELECT away_from FROM accounts WHERE id = ?", (account,)).fetchone()
        return row["away_from"] if row else None

    def seen_missed(self, account: int) -> None:
        """They know what they missed."""
        self._db.connection.execute("UPDATE accounts SET away_from = NULL WHERE id = ?", (account,))

    def set_password(self, account: Account, password: str, keep: str) -> None:
        """Another password, as its hash; every session but that of the token `keep` (a hash) ends."""
        with self._db.transaction() as db:
            db.execute("UPDATE accounts SET password = ? WHERE id = ?", (password, account.id))
            db.execute("DELETE FROM sessions WHERE account = ? AND token != ?", (account.id, keep))

    def end_sessions(self, account: Account) -> None:
        """Every session of theirs ends."""
        self._db.connection.execute("DELETE FROM sessions WHERE account = ?", (account.id,))

    def set_second(self, account: Account, secret: str | None, step: int = 0) -> None:
        """Ask for codes of this secret from now on, later ones than of `step`; None asks for none."""
        self._db.connection.execute(
            "UPDATE accounts SET second = ?, second_used = ? WHERE id = ?", (secret, step, account.id)
        )

    def second_of(self, account: Account) -> tuple[str, int] | None:
        """The secret and the last step used; None where no code is asked for."""
        row = self._db.connection.execute(
            "SELECT second, second_used FROM accounts WHERE id = ?", (account.id,)
        ).fetchone()
        return (row["second"], row["second_used"]) if row and row["second"] else None

    def use_second(self, account: Account, step: int) -> bool:
        """Take the code of a step; False where it or a later one was taken already."""
        done = self._db.connection.execute(
            "UPDATE accounts SET second_used = ? WHERE id = ? AND second_used < ?", (step, account.id, step)
        )
        return done.rowcount == 1

    def with_second(self) -> set[int]:
        """The accounts that are asked for a code."""
        rows = self._db.connection.execute("SELECT id FROM accounts WHERE second IS NOT NULL")
        return {row["id"] for row in rows}

    def sessions(self, account: Account, now: int) -> list[Session]:
        """The account's open sessions, newest first."""
        rows = self._db.connection.execute(
            "SELECT token, began, from_where FROM sessions WHERE account = ? AND ends > ?"
            " AND coalesce(used, began) > ? ORDER BY began DESC",
            (account.id, now, now - IDLE),
        )
        return [Session(row["token"], row["began"], row["from_where"]) for row in rows]

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
