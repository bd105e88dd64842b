"""Accounts of the Desk, and who may do what there (spec page 7)."""

from __future__ import annotations

from collections.abc import Mapping
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
    "ledger": "moderator",
    "card": "moderator",
    "note": "moderator",
    "stage": "lead",
    "overlap": "moderator",
    "commands": "lead",
    "filters": "lead",
    "mood": "lead",
    "people": "lead",
}
"""The level that each act at the Desk needs, unless the broadcaster has moved it."""
TEAM = {"invite": "lead", "team": "broadcaster", "platforms": "broadcaster", "erase": "broadcaster"}
MOVABLE = frozenset(act for act, level in NEEDED.items() if level in ("moderator", "lead"))
"""The acts that may be moved between moderator and lead; the team itself stays where it is."""
NEEDED |= TEAM


class Permissions:
    """Who may do what: the levels above, with those that the broadcaster has moved over them."""

    def __init__(self, moved: Mapping[str, str] | None = None) -> None:
        self.moved = dict(moved or {})

    def level(self, act: str) -> str:
        return self.moved.get(act, NEEDED[act])

    def may(self, account: Account, act: str) -> bool:
        return at_least(account.level, self.level(act))

    def of(self, account: Account) -> list[str]:
        """Every act that the account may do."""
        return [act for act in NEEDED if self.may(account, act)]


def at_least(level: str, needed: str) -> bool:
    return DESK_LEVELS.index(level) >= DESK_LEVELS.index(needed)


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
