"""Arrivals: a person's first message in a stream is greeted, or gets a shoutout; many at once are greeted together."""

from __future__ import annotations

from collections.abc import Mapping

from gentlegate.core.commands.variables import channel_variables, person_variables
from gentlegate.core.effects import Cause, Effect
from gentlegate.core.events import BROADCASTER, Message
from gentlegate.core.moments import SECOND
from gentlegate.core.parts import Parts
from gentlegate.core.people.identity import Directory
from gentlegate.core.records import GreetingRecord, UseRecord
from gentlegate.core.stream import saying
from gentlegate.core.stream.shoutouts import held_back, shout_out

MOST, WITHIN = 4, 30 * SECOND
KEY = "greetings"
CAUSE = "arrival"


def arrive(parts: Parts, message: Message, identity: str, level: int, now: int) -> list[Effect]:
    """What a message that may stand leads to, if it is its writer's first in this stream."""
    settings, stream = parts.kit.arrivals, parts.streams.now
    if (settings.greet is None and not settings.shoutout) or stream.phase not in ("live", "gap"):
        return []
    known = parts.state.arrived.get(identity)
    if known is not None and known.stream == stream.number:
        return []
    person = message.person
    parts.state.arrived.put(identity, UseRecord(now, stream.number, person.name))
    if level == BROADCASTER or "bot" in person.badges:
        return []
    effects: list[Effect] = []
    if _holds(parts.directory, settings.shoutout, message) and not held_back(parts, person.login, now):
        values = {
            "platform": message.platform,
            "message": message.id,
            "command": CAUSE,
            "by": "gate",
            "by_name": "The gate",
            "kind": "arrival",
        }
        effects += shout_out(parts, person.login, message.platform, values, now)
    if settings.greet is not None and not _holds(parts.directory, settings.skip, message):
        effects += _greet(parts, message, level, now)
    return effects


def _holds(directory: Directory, listed: list[str], message: Message) -> bool:
    return bool(listed) and directory.holds(directory.people(listed), message.person)


def _greet(parts: Parts, message: Message, level: int, now: int) -> list[Effect]:
    """Greet at once, or with others where four were greeted within 30 s."""
    record = parts.state.greetings.edit(KEY)
    record.times = [at for at in record.times if now - at < WITHIN]
    if len(record.times) >= MOST or record.waiting:
        record.waiting = record.waiting | {
            message.platform: [*record.waiting.get(message.platform, []), message.person.name]
        }
        return []
    record.times.append(now)
    person = person_variables(message.person, level, now)
    return _said(parts, message.platform, person, now, Cause("arrival", CAUSE, message.id))


def due(parts: Parts) -> int | None:
    """When those who wait are greeted together."""
    record = parts.state.greetings.get(KEY)
    return record.times[0] + WITHIN if record and record.waiting and record.times else None


def greet_waiting(parts: Parts, now: int) -> list[Effect]:
    record: GreetingRecord = parts.state.greetings.edit(KEY)
    waiting, record.waiting = record.waiting, {}
    record.times = [at for at in record.times if now - at < WITHIN]
    effects: list[Effect] = []
    for platform, names in waiting.items():
        if platform not in parts.streams.now.live:
            continue
        record.times.append(now)
        listed = names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
        person = {"name": listed, "login": listed, "level": "everyone", "platform": platform, "follows_for": ""}
        effects += _said(parts, platform, person, now, Cause("arrival", CAUSE))
    return effects


def _said(parts: Parts, platform: str, person: Mapping[str, object], now: int, cause: Cause) -> list[Effect]:
    variables = channel_variables(parts, platform, now) | {"person": person}
    text = saying.rendered(parts, parts.kit.arrivals.greet or "", variables, "arrivals.greet", now)
    return saying.said_on(parts, platform, text, cause, now) if isinstance(text, str) else [text]


def forget(parts: Parts, identity: str | None) -> int:
    """Forget this stream's arrivals, of one person or all; how many that were."""
    gone = [key for key, _ in parts.state.arrived.items() if identity is None or key == identity]
    for key in gone:
        parts.state.arrived.drop(key)
    return len(gone)


def prune(parts: Parts) -> None:
    """A stream has begun: those of earlier ones are nobody's arrival any more."""
    for key, record in list(parts.state.arrived.items()):
        if record.stream != parts.streams.now.number:
            parts.state.arrived.drop(key)
    parts.state.greetings.drop(KEY)
