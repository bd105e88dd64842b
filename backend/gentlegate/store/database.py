"""The database file: opening it, bringing it up to date, and the one transaction helper."""

from __future__ import annotations

import os
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from importlib.resources import files
from pathlib import Path

from gentlegate.core.errors import GateError

_MIGRATIONS = files("gentlegate.store") / "migrations"


class StoreError(GateError):
    """The database cannot be used; its text says why."""


class Database:
    """A connection in WAL mode. Use it from one thread at a time."""

    def __init__(self, path: Path | str) -> None:
        _only_for_its_owner(Path(path))
        self.connection = sqlite3.connect(path, isolation_level=None, check_same_thread=False, timeout=10)
        self.connection.row_factory = sqlite3.Row
        try:
            for pragma in ("journal_mode = WAL", "synchronous = NORMAL", "foreign_keys = ON"):
                self.connection.execute(f"PRAGMA {pragma}")
            self._migrate()
        except sqlite3.DatabaseError as error:
            self.connection.close()
            raise StoreError(f"{path} is not a Gentle Gate database ({error})") from None
        self._depth = 0

    def close(self) -> None:
        self.connection.close()

    @contextmanager
    def transaction(self) -> Iterator[sqlite3.Connection]:
        """All or nothing; inside another one, a part of it that can fail alone."""
        depth = getattr(self, "_depth", 0)
        begin, done, undo = ("BEGIN IMMEDIATE", "COMMIT", "ROLLBACK")
        if depth:
            begin, done, undo = (f"SAVEPOINT s{depth}", f"RELEASE s{depth}", f"ROLLBACK TO s{depth}")
        self.connection.execute(begin)
        self._depth = depth + 1
        try:
            yield self.connection
            self.connection.execute(done)
        except BaseException:
            self.connection.execute(undo)
            raise
        finally:
            self._depth = depth

    def _migrate(self) -> None:
        version = self.connection.execute("PRAGMA user_version").fetchone()[0]
        steps = sorted(entry.name for entry in _MIGRATIONS.iterdir() if entry.name.endswith(".sql"))
        if version > len(steps):
            raise StoreError(f"the database is of version {version}; this Gentle Gate knows {len(steps)}")
        for number, name in enumerate(steps[version:], start=version + 1):
            script = (_MIGRATIONS / name).read_text(encoding="utf-8")
            with self.transaction() as connection:
                for statement in statements(script):
                    connection.execute(statement)
                connection.execute(f"PRAGMA user_version = {number}")


def _only_for_its_owner(path: Path) -> None:
    """A new file is readable by its owner alone, and SQLite makes those beside it alike: they hold tokens."""
    with suppress(OSError):
        os.close(os.open(path, os.O_CREAT | os.O_RDWR, 0o600))


def known_version() -> int:
    """The version that a database of this Gentle Gate has."""
    return sum(entry.name.endswith(".sql") for entry in _MIGRATIONS.iterdir())


def statements(script: str) -> Iterator[str]:
    """The statements of an SQL script, one by one, so that they run inside our own transaction."""
    gathered = ""
    for line in script.splitlines(keepends=True):
        gathered += line
        if sqlite3.complete_statement(gathered):
            yield gathered
            gathered = ""
