"""What was recorded of streams: when they began and ended, the lines of each, and the notices that were posted."""

from __future__ import annotations

import orjson

from gentlegate.core.events import Person, StreamChange
from gentlegate.core.rotas.recorded import Line
from gentlegate.formats.log import read_object
from gentlegate.store.database import Database

MOST_POSTS = 50_000


class Streams:
    def __init__(self, database: Database) -> None:
        self._db = database

    def changes(self) -> list[StreamChange]:
        """Every change that a platform told of its stream, in order."""
        rows = self._db.connection.execute("SELECT at, body FROM events WHERE kind = 'stream' ORDER BY seq")
        found = []
        for row in rows:
            event = read_object(orjson.loads(row["body"]))
            assert isinstance(event, StreamChange)
            found.append(event)
        return found

    def lines(self, begin: int, end: int) -> list[Line]:
        """The messages from `begin` up to `end` that were not removed."""
        rows = self._db.connection.execute(
            "SELECT e.at, e.platform, json_extract(e.body, '$.person.id') AS id,"
            " json_extract(e.body, '$.person.login') AS login FROM events e"
            " WHERE e.kind = 'message' AND e.at >= ? AND e.at <= ? AND NOT EXISTS ("
            " SELECT 1 FROM effects f WHERE f.event = e.seq AND f.effect = 'verdict'"
            " AND json_extract(f.body, '$.outcome') != 'allow') ORDER BY e.seq",
            (begin, end),
        )
        return [
            Line(row["at"], Person(row["platform"], str(row["id"]), row["login"], row["login"])) for row in rows
        ]

    def posts(self) -> list[tuple[int, str, str, str, str]]:
        """Moment, rota, platform, text and how its sending stands, of every notice that was posted; newest first."""
        rows = self._db.connection.execute(
            "SELECT e.at, e.platform, json_extract(e.body, '$.cause.name') AS rota,"
            " json_extract(e.body, '$.text') AS text, o.status FROM effects e"
            " LEFT JOIN outbox o ON o.effect = e.seq"
            " WHERE e.effect = 'say' AND json_extract(e.body, '$.cause.kind') = 'notice'"
            " ORDER BY e.seq DESC LIMIT ?",
            (MOST_POSTS,),
        )
        return [(row["at"], row["rota"], row["platform"], row["text"], row["status"] or "sent") for row in rows]
