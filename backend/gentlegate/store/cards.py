"""Stage cards: their read-only keys and how each looks."""

from __future__ import annotations

import secrets
from typing import Any

import orjson

from gentlegate.store.database import Database


class Cards:
    def __init__(self, database: Database) -> None:
        self._db = database

    def of(self, card: str) -> tuple[str, dict[str, Any]]:
        """The card's key and style; made when first asked for."""
        row = self._db.connection.execute("SELECT key, style FROM stage_cards WHERE card = ?", (card,)).fetchone()
        if row:
            return str(row["key"]), dict(orjson.loads(row["style"]))
        key = secrets.token_urlsafe(18)
        self._db.connection.execute("INSERT INTO stage_cards (card, key, style) VALUES (?, ?, '{}')", (card, key))
        return key, {}

    def set_style(self, card: str, style: dict[str, Any]) -> None:
        self.of(card)
        self._db.connection.execute(
            "UPDATE stage_cards SET style = ? WHERE card = ?", (orjson.dumps(style).decode(), card)
        )

    def renew(self, card: str) -> str:
        """A new key; the old one opens nothing any more."""
        self.of(card)
        key = secrets.token_urlsafe(18)
        self._db.connection.execute("UPDATE stage_cards SET key = ? WHERE card = ?", (key, card))
        return key

    def by_key(self, key: str) -> tuple[str, dict[str, Any]] | None:
        """The card that a key opens, and its style."""
        row = self._db.connection.execute("SELECT card, style FROM stage_cards WHERE key = ?", (key,)).fetchone()
        return (str(row["card"]), dict(orjson.loads(row["style"]))) if row else None
