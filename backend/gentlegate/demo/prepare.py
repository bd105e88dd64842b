"""A clean data folder with the demo's world in it."""

from __future__ import annotations

import time
from dataclasses import replace
from importlib.resources import files
from pathlib import Path
from typing import Any

import orjson

from gentlegate.core.engine import Engine
from gentlegate.core.errors import GateError
from gentlegate.core.events import DeskAct
from gentlegate.core.journal import Entry
from gentlegate.core.moments import HOUR
from gentlegate.formats.log import read_object
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
QUOTES = (
    ("Clay remembers everything you did to it.", "Marlo Finch"),
    ("That is not a crack, that is a view.", "Marlo Finch"),
    ("The kettle is the only clock in this studio.", "Odalys"),
    ("Every bowl is a plate that changed its mind.", "Marlo Finch"),
    ("I glaze, therefore I am late.", "Bram"),
    ("Wobble is a style once you do it twice.", "Marlo Finch"),
    ("We do not drop pots. We release them.", "Wren"),
)
YESTERDAY = "copycats"
AGO = 20 * HOUR
PASSWORD = "tea-before-kiln"
TOKEN = "let-the-gatekeeper-in"


def kit() -> dict[str, Any]:
    """The settings of Kiln & Kettle."""
    document: dict[str, Any] = orjson.loads((files("gentlegate.demo") / "kit.json").read_bytes())
    return document


def last_stream(database: Database, document: dict[str, Any], now: int) -> None:
    """A recorded evening of yesterday, so that the rules have lines to be looked at with."""
    text = (files("playhouse") / "evenings" / f"{YESTERDAY}.jsonl").read_text(encoding="utf-8")
    events = [_as_heard(orjson.loads(line)) for line in text.splitlines()]
    shift = now - AGO - events[-1].at
    engine, entries = Engine(document), []
    for event in events:
        event = replace(event, at=event.at + shift)
        entries.append(Entry(event.at, event, engine.handle(event)))
    for text, said_by in QUOTES:
        values = {"text": text, "said_by": said_by, "name_of_by": "Odalys"}
        act = DeskAct(events[-1].at + shift, "brook:u-odalys", "quote", values)
        entries.append(Entry(act.at, act, engine.handle(act)))
    over = events[-1].at + shift + HOUR
    entries.append(Entry(over, None, engine.advance(over)))
    journal = Journal(database)
    journal.write(entries, engine.state.take_changes(), None)
    journal.all_sent(over)


def _as_heard(line: dict[str, Any]) -> Any:
    """A line of an evening as the stand-in platforms would tell it."""
    if "person" in line:
        line["person"]["id"] = f"u-{line['person']['login']}"
        line["id"] = f"last-{line['id']}"
    return read_object(line)


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
    now = time.time_ns() // 1000
    Journal(opened).write([], [], (now, "gate", kit()))
    last_stream(opened, kit(), now)
    secret = PasswordHasher().hash(PASSWORD)
    for login, name, level, person in TEAM:
        Accounts(opened).add(login, name, level, secret, person)
    for platform in ("brook", "lantern", "plaza"):
        Connections(opened).put(platform, playhouse, TOKEN)
    opened.close()
