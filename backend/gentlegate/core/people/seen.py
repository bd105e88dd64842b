"""An account as it is seen in chat: what is remembered of it, and the names that it had before."""

from __future__ import annotations

from gentlegate.core.events import Person
from gentlegate.core.records import AccountRecord

KEPT_NAMES = 20


def badges_changed(known: AccountRecord, person: Person) -> bool:
    return known.badges != sorted(person.badges) or known.follows_since != person.follows_since


def seen_as(person: Person, stream: int, known: AccountRecord | None, now: int) -> AccountRecord:
    """The account as it is now; names that it has no more are kept with the moment of the change."""
    had = list(known.had) if known else []
    if known and (known.login, known.name) != (person.login, person.name):
        had = [*had, [known.login, known.name, now]][-KEPT_NAMES:]
    first = known.first if known else now
    badges = sorted(person.badges)
    return AccountRecord(person.login, person.name, stream, first, badges, person.follows_since, had)
