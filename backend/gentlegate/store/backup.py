"""Copies of the database while it is used, and putting one back; a file that is not ours or damaged is refused."""

from __future__ import annotations

import os
import sqlite3
from contextlib import closing
from datetime import date
from pathlib import Path

from gentlegate.store.database import Database, StoreError, known_version

KEPT_DAYS = 7
PAGES_AT_ONCE = 2_000
OUR_TABLES = frozenset({"events", "effects", "state", "settings", "ledger", "accounts"})


def back_up(database: Path, target: Path) -> None:
    """Copy the database as it is at one moment, with SQLite's own backup. StoreError where it cannot be.

    The copy appears under its name only when it is whole.
    """
    if not database.exists():
        raise StoreError(f"there is no database at {database}")
    if target.exists():
        raise StoreError(f"{target} exists already; give another name, nothing was written")
    partial = target.with_name(f"{target.name}.partial")
    partial.unlink(missing_ok=True)
    try:
        os.close(os.open(partial, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600))
        with closing(_opened(database)) as source, closing(sqlite3.connect(partial)) as copy:
            source.backup(copy, pages=PAGES_AT_ONCE, sleep=0.005)
        partial.rename(target)
    except (OSError, sqlite3.Error) as error:
        partial.unlink(missing_ok=True)
        raise StoreError(f"{target} could not be written: {error}") from None


def problem_of(file: Path) -> str | None:
    """Why a file cannot be put back; None where it can."""
    if not file.is_file():
        return f"there is no file {file}"
    try:
        with closing(_opened(file)) as opened:
            tables = {row[0] for row in opened.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            if not tables >= OUR_TABLES:
                return f"{file} is no copy of a Gentle Gate database"
            version = opened.execute("PRAGMA user_version").fetchone()[0]
            if version > known_version():
                return f"{file} is of version {version}; this Gentle Gate knows {known_version()}"
            damage = opened.execute("PRAGMA integrity_check(1)").fetchone()[0]
            return None if damage == "ok" else f"{file} is damaged: {damage}"
    except sqlite3.DatabaseError as error:
        return f"{file} is damaged or no database: {error}"


def restore(file: Path, database: Path, aside: Path) -> None:
    """Put a copy back; what stood there until now goes to `aside`. StoreError where the copy is not good."""
    if problem := problem_of(file):
        raise StoreError(f"{problem}. Nothing was touched.")
    database.parent.mkdir(parents=True, exist_ok=True)
    if database.exists():
        back_up(database, aside)
    fresh = database.with_name(f"{database.name}.restored")
    fresh.unlink(missing_ok=True)
    back_up(file, fresh)
    for leftover in ("-wal", "-shm"):
        database.with_name(database.name + leftover).unlink(missing_ok=True)
    fresh.replace(database)
    Database(database).close()


def daily(database: Path, folder: Path, today: date) -> Path | None:
    """Today's copy, if there is none yet; those of more than a week ago go."""
    folder.mkdir(parents=True, exist_ok=True)
    target = folder / f"gentlegate-{today.isoformat()}.db"
    made = None
    if not target.exists():
        back_up(database, target)
        made = target
    for old in sorted(folder.glob("gentlegate-????-??-??.db"))[:-KEPT_DAYS]:
        old.unlink()
    return made


def _opened(path: Path) -> sqlite3.Connection:
    return sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True, timeout=10)
