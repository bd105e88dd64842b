"""What the shell hands to the store: events with what came of them, in the order in which they happened."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from gentlegate.core.effects import Clip, Effect
from gentlegate.core.events import Event

SENT_OUT = frozenset(
    {"remove", "restore", "timeout", "ban", "unban", "say", "title", "category", "marker", "clip", "ad", "raid",
     "shoutout", "lookup", "followers_only"}
)  # fmt: skip
"""The effects that a platform carries out."""


def is_sent_out(effect: Effect) -> bool:
    """Whether a platform is to carry it out; a clip that was made is not made again, our own marker is our own."""
    if isinstance(effect, Clip):
        return effect.ask is not None
    return effect.effect in SENT_OUT and getattr(effect, "platform", None) is not None


StateChange = tuple[str, str, dict[str, Any] | None]
"""Table, key and values of a record; None where it is gone."""


@dataclass(frozen=True, slots=True)
class LedgerEntry:
    """Who did what, where (`chat`, `desk`, `gate`), about what, from what to what; why, where it is part of more."""

    at: int
    who: str
    place: str
    what: str
    about: str | None = None
    before: Any = None
    after: Any = None
    why: str | None = None


@dataclass(slots=True)
class Entry:
    """One event (None: only time passed) with its effects and what the ledger says of it.

    `numbers` is filled in by the store: the stored number of each effect.
    """

    now: int
    event: Event | None
    effects: list[Effect]
    ledger: list[LedgerEntry] = field(default_factory=list)
    numbers: list[int] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Waiting:
    """An effect that is still to be sent; `in_flight` if it may have been sent already."""

    number: int
    at: int
    body: dict[str, Any]
    in_flight: bool = False
