"""Accounts of the Desk, and who may do what there (spec page 7)."""

from __future__ import annotations

from dataclasses import dataclass

DESK_LEVELS = ("viewer", "moderator", "lead", "broadcaster")
NEEDED = {
    "undo": "moderator",
    "remove": "moderator",
    "timeout": "moderator",
    "ban": "moderator",
    "lift": "moderator",
    "pass": "moderator",
    "look": "viewer",
    "second_look": "moderator",
    "drawbridge": "moderator",
    "tonight": "moderator",
    "count": "moderator",
    "title": "moderator",
    "say": "moderator",
    "clear": "moderator",
    "category": "moderator",
    "shoutout": "moderator",
    "marker": "moderator",
    "clip": "moderator",
    "ad": "moderator",
    "raid": "lead",
    "cancel_raid": "moderator",
    "quote": "moderator",
    "arrivals": "moderator",
    "rota": "moderator",
    "stage": "lead",
    "overlap": "moderator",
    "commands": "lead",
    "filters": "lead",
    "mood": "lead",
}
"""The level that each act at the Desk needs."""


@dataclass(frozen=True, slots=True)
class Account:
    """`level` is one of DESK_LEVELS; `person` the account's own person string, where it is known in chat."""

    id: int
    login: str
    name: str
    level: str
    person: str | None

    @property
    def key(self) -> str:
        """Who this is in events: the person in chat where that is known."""
        return self.person or f"desk:{self.login}"

    def may(self, act: str) -> bool:
        return DESK_LEVELS.index(self.level) >= DESK_LEVELS.index(NEEDED[act])
