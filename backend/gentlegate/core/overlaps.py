"""Another bot that answers our commands: noticed when it speaks within three seconds of one, three times in a stream."""

from __future__ import annotations

from gentlegate.core.effects import Cause, Effect, Overlap
from gentlegate.core.errors import ActError
from gentlegate.core.events import DeskAct, Message
from gentlegate.core.parts import Parts

TIMES = 3


def bot_spoke(parts: Parts, bot: Message, now: int) -> list[Effect]:
    """Count what another bot answered; the third time in a stream it is said, once for all."""
    if parts.directory.holds(parts.directory.gatekeeper, bot.person):
        return []
    state, stream = parts.state, parts.streams.now.number
    command = state.listening.answers(bot)
    if command is None:
        return []
    record = state.overlaps.edit(f"{command}\t{bot.person.key}")
    record.count = record.count + 1 if record.stream == stream else 1
    record.stream, record.name = stream, bot.person.name
    if record.count < TIMES or record.said_at is not None:
        return []
    record.said_at = now
    shown, cause = parts.slots[command].shown, Cause("command", parts.slots[command].shown, bot.id)
    return [
        Overlap(
            at=now, platform=bot.platform, person=bot.person.key, command=shown, count=record.count, cause=cause
        )
    ]


def settle(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    """Somebody has seen to it, or wants it so."""
    key = f"{act.values.get('key')}\t{act.values.get('person')}"
    found = parts.state.overlaps.get(key)
    if found is None or found.said_at is None or found.settled_by is not None:
        raise ActError("this is settled already", "key")
    parts.state.overlaps.edit(key).settled_by = act.by
    return []
