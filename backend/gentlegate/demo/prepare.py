"""A clean data folder with the demo's world in it."""

from __future__ import annotations

import time
from importlib.resources import files
from pathlib import Path
from typing import Any

import orjson

from gentlegate.core.errors import GateError
from gentlegate.store.accounts import Accounts, Connections
from gentlegate.store.database import Database
from gentlegate.store.journal import Journal

MARK = "this-is-the-demo"
TEAM = (
    ("marlo", "Marlo Finch", "broadcaster", "brook:u-marlo_finch"),
    ("odalys", "Odalys", "lead", "brook:u-odalys"),
    ("bram", "Bram", "moderator", "brook:u-bram"),
    ("wren", "Wren", "moderator", "lantern:u-wren"),
)
PASSWORD = "tea-before-kiln"
TOKEN = "let-the-gatekeeper-in"


def kit() -> dict[str, Any]:
    """The settings of Kiln & Kettle."""
    document: dict[str, Any] = orjson.loads((files("gentlegate.demo") / "kit.json").read_bytes())
    return document


def prepare(folder: Path, playhouse: str) -> None:
    """Make the folder anew; GateError where it holds something that is not the demo."""
    from argon2 import PasswordHasher

    database = folder / "gentlegate.db"
    if database.exists() and not (folder / MARK).exists():
        raise GateError(f"{folder} holds a channel of your own; give the demo another GENTLEGATE_DATA")
    folder.mkdir(parents=True, exist_ok=True)
    (folder / MARK).touch()
    for ending in ("", "-wal", "-shm"):
        (folder / f"gentlegate.db{ending}").unlink(missing_ok=True)
    opened = Database(database)
    Journal(opened).write([], [], (time.time_ns() // 1000, "gate", kit()))
    secret = PasswordHasher().hash(PASSWORD)
    for login, name, level, person in TEAM:
        Accounts(opened).add(login, name, level, secret, person)
    for platform in ("brook", "lantern"):
        Connections(opened).put(platform, playhouse, TOKEN)
    opened.close()
