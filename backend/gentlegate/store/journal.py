"""Events, effects, state and the outbox, written together: what happened and what came of it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import orjson

from gentlegate.core.effects import Effect
from gentlegate.core.events import Event, Happening, Message
from gentlegate.core.journal import Entry, StateChange, Waiting, is_sent_out
from gentlegate.core.moments import parse_moment
from gentlegate.core.state import State
from gentlegate.formats.effects import effect_object
from gentlegate.formats.log import event_object, read_object
from gentlegate.store.database import Database
from gentlegate.store.ledger import as_text, write_ledger


class Journal:
    def __init__(self, database: Database) -> None:
        self._db = database

    def write(
        self, entries: list[Entry], state: list[StateChange], document: tuple[int, str, dict[str, Any]] | None
    ) -> None:
        """One transaction for all of it; `document` is `(moment, who, settings)` where the settings changed."""
        with self._db.transaction() as db:
            for entry in entries:
                self._write_entry(entry)
            for name, key, values in state:
                if values is None:
                    db.execute("DELETE FROM state WHERE name = ? AND key = ?", (name, key))
                else:
                    db.execute(
                        "INSERT INTO state (name, key, body) VALUES (?, ?, ?)"
                        " ON CONFLICT (name, key) DO UPDATE SET body = excluded.body",
                        (name, key, as_text(values)),
                    )
            if document:
                at, who, settings = document
                db.execute(
                    "INSERT INTO settings (at, who, document) VALUES (?, ?, ?)", (at, who, as_text(settings))
                )

    def _write_entry(self, entry: Entry) -> None:
        db = self._db.connection
        number = None
        if entry.event is not None:
            event = entry.event
            body = event_object(event, entry.now)
            message = event.id if isinstance(event, Message) else None
            person = event.person.key if isinstance(event, Message) else None
            platform = getattr(event, "platform", None)
            number = db.execute(
                "INSERT INTO events (at, kind, platform, message, person, body) VALUES (?, ?, ?, ?, ?, ?)",
                (entry.now, body["kind"], platform, message, person, as_text(body)),
            ).lastrowid
        entry.numbers = [self._write_effect(effect, number) for effect in entry.effects]
        for line in entry.ledger:
            write_ledger(self._db, line)

    def _write_effect(self, effect: Effect, event: int | None) -> int:
        body = effect_object(effect)
        platform = body.get("platform")
        cursor = self._db.connection.execute(
            "INSERT INTO effects (event, at, effect, platform, message, body) VALUES (?, ?, ?, ?, ?, ?)",
            (event, effect.at, effect.effect, platform, body.get("message"), as_text(body)),
        )
        number = cursor.lastrowid or 0
        if is_sent_out(effect):
            self._db.connection.execute(
                "INSERT INTO outbox (effect, platform, status, changed) VALUES (?, ?, 'waiting', ?)",
                (number, platform, effect.at),
            )
        return number

    def load_state(self) -> State:
        """The engine's state as it was last written."""
        state = State()
        rows = self._db.connection.execute("SELECT name, key, body FROM state")
        state.load([(row["name"], row["key"], orjson.loads(row["body"])) for row in rows])
        return state

    def load_settings(self) -> tuple[int, dict[str, Any]]:
        """The newest settings with their revision; revision 0 and nothing where there are none."""
        row = self._db.connection.execute(
            "SELECT revision, document FROM settings ORDER BY revision DESC LIMIT 1"
        ).fetchone()
        return (row["revision"], orjson.loads(row["document"])) if row else (0, {})

    def settings_at(self, at: int) -> tuple[int, dict[str, Any]] | None:
        """The settings that held at a moment, with the moment from which on; None before the first ones."""
        row = self._db.connection.execute(
            "SELECT at, document FROM settings WHERE at <= ? ORDER BY revision DESC LIMIT 1", (at,)
        ).fetchone()
        return (row["at"], orjson.loads(row["document"])) if row else None

    def latest(self) -> int:
        """The moment of the newest event or effect."""
        row = self._db.connection.execute(
            "SELECT max(coalesce((SELECT max(at) FROM events), 0), coalesce((SELECT max(at) FROM effects), 0)) AS at"
        ).fetchone()
        return int(row["at"])

    def recent_messages(self, count: int, after: int = 0) -> list[tuple[int, Message, int]]:
        """The newest messages, oldest first, each with its number and moment; none up to the number `after`."""
        found = self._recent(("message",), count, after)
        return [(seq, event, at) for seq, event, at in found if isinstance(event, Message)]

    def recent_lines(self, count: int) -> list[tuple[int, Message | Happening, int]]:
        """The newest messages and happenings, oldest first, as `recent_messages`."""
        found = self._recent(("message", "happening"), count, 0)
        return [(seq, event, at) for seq, event, at in found if isinstance(event, Message | Happening)]

    def _recent(self, kinds: tuple[str, ...], count: int, after: int) -> list[tuple[int, Event, int]]:
        rows = self._db.connection.execute(
            f"SELECT seq, at, body FROM events WHERE kind IN ({', '.join('?' * len(kinds))}) AND seq > ?"
            " ORDER BY seq DESC LIMIT ?",
            (*kinds, after, count),
        ).fetchall()
        return [(int(row["seq"]), read_object(orjson.loads(row["body"])), int(row["at"])) for row in reversed(rows)]

    def effects_on(self, first_event: int) -> list[tuple[int, dict[str, Any], str | None]]:
        """The effects that came of this event and later ones: number, object, and how its sending stands."""
        rows = self._db.connection.execute(
            "SELECT e.seq, e.body, o.status FROM effects e LEFT JOIN outbox o ON o.effect = e.seq"
            " WHERE e.event >= ? ORDER BY e.seq",
            (first_event,),
        )
        return [(int(row["seq"]), orjson.loads(row["body"]), row["status"]) for row in rows]

    def known_ids(self, count: int) -> list[tuple[str, str]]:
        rows = self._db.connection.execute(
            "SELECT platform, message FROM events WHERE kind = 'message' ORDER BY seq DESC LIMIT ?", (count,)
        ).fetchall()
        return [(row["platform"], row["message"]) for row in reversed(rows)]

    def fact(self, name: str, make: Callable[[], dict[str, Any]]) -> dict[str, Any]:
        """Something about this installation, made once and kept."""
        row = self._db.connection.execute(
            "SELECT body FROM state WHERE name = 'fact' AND key = ?", (name,)
        ).fetchone()
        if row:
            return dict(orjson.loads(row["body"]))
        made = make()
        self._db.connection.execute(
            "INSERT INTO state (name, key, body) VALUES ('fact', ?, ?)", (name, as_text(made))
        )
        return made

    def place(self, platform: str) -> int | None:
        """How far a platform had been heard."""
        row = self._db.connection.execute(
            "SELECT body FROM state WHERE name = 'place' AND key = ?", (platform,)
        ).fetchone()
        return int(orjson.loads(row["body"])["place"]) if row else None

    def waiting(self, platform: str) -> list[Waiting]:
        """What is still to be sent to a platform, in order."""
        rows = self._db.connection.execute(
            "SELECT o.effect, o.status, e.body FROM outbox o JOIN effects e ON e.seq = o.effect"
            " WHERE o.platform = ? AND o.status IN ('waiting', 'sending') ORDER BY o.effect",
            (platform,),
        )
        found = []
        for row in rows:
            body = orjson.loads(row["body"])
            found.append(Waiting(int(row["effect"]), parse_moment(body["at"]), body, row["status"] == "sending"))
        return found

    def all_sent(self, now: int) -> None:
        """Nothing is left to be sent, as after a stream that is over."""
        self._db.connection.execute("UPDATE outbox SET status = 'sent', changed = ?", (now,))

    def mark(self, number: int, status: str, now: int, note: str | None = None) -> None:
        """How the sending of an effect stands now."""
        self._db.connection.execute(
            "UPDATE outbox SET status = ?, changed = ?, note = ?, tries = tries + (? = 'sending') WHERE effect = ?",
            (status, now, note, status, number),
        )
