"""The try-out: a made-up message through the real engine, on a copy of all that it remembers. Nothing is touched."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from gentlegate.core.effects import Effect
from gentlegate.core.engine import Engine
from gentlegate.core.events import LEVELS, Message, Person
from gentlegate.core.kit import edit
from gentlegate.core.platforms import Abilities
from gentlegate.core.records import AccountRecord
from gentlegate.core.state import State

_BADGES = {"broadcaster": "broadcaster", "moderator": "moderator", "vip": "vip", "subscriber": "subscriber"}


@dataclass(frozen=True, slots=True)
class Attempt:
    """Who says what; `live` makes their platform live or offline for it, `new` lets them never have been here."""

    text: str
    person: Person
    live: bool
    action: bool = False
    new: bool = False


def made_up(
    document: edit.Document, platform: str, id: str, names: tuple[str, str], level: str, now: int
) -> tuple[edit.Document, Person]:
    """A person of this level, with log-in and shown name, and the settings under which they have it."""
    badges = frozenset({_BADGES[level]} if level in _BADGES else ())
    person = Person(platform, id, *names, badges, now if level == "follower" else None)
    if level in ("regular", "lead"):
        document = edit.add(document, f"people.{level}s", [person.key])
    return document, person


def try_out(
    document: edit.Document, state: State, abilities: Mapping[str, Abilities], attempt: Attempt, now: int
) -> tuple[str, list[Effect]]:
    """The person's level, and every effect that the message would have, the verdict first.

    KitError where the settings do not hold.
    """
    engine = Engine(document, state=_as_wanted(state, attempt), platforms=abilities, every_verdict=True)
    engine.resume(now)
    person, stream = attempt.person, engine.parts.streams.now.number
    if not attempt.new:
        engine.state.accounts.put(person.key, AccountRecord(person.login, person.name, stream, now))
    message = Message(now, person.platform, "try-out", person, attempt.text, action=attempt.action)
    return LEVELS[engine.parts.level(person)], engine.handle(message)


def _as_wanted(state: State, attempt: Attempt) -> State:
    """The copy, with the platform live or offline as asked for."""
    stream = state.stream.edit("stream")
    others = [name for name in stream.live if name != attempt.person.platform]
    stream.live = sorted([*others, attempt.person.platform]) if attempt.live else others
    stream.phase = "live" if stream.live else "over"
    state.platforms.edit(attempt.person.platform)
    return state
