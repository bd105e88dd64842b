"""What has to be asked of platforms: a `lookup` goes out, an answer comes back, and then it is gone on with.

Where nobody can be asked (a replay, the try-out), the answer is taken from the kit at the same moment.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Literal

from gentlegate.core.effects import Cause, Effect, Lookup
from gentlegate.core.events import Answer
from gentlegate.core.parts import Parts
from gentlegate.core.records import AskRecord

ANY = {"any": True}
"""The answer of a platform that takes any category."""


def open_ask(
    parts: Parts, what: str, names: Mapping[str, str], then: str, values: dict[str, Any], now: int
) -> AskRecord:
    """A new ask of these platforms; `names` says what each is asked for."""
    last = parts.state.shown.edit("asks")
    number = (last.numbers or [0])[-1] + 1
    last.numbers = [number]
    record = AskRecord(number, what, dict(names), then, values, now, list(names))
    return parts.state.asks.put(str(number), record)


def look_up(
    parts: Parts,
    what: Literal["category", "channel"],
    names: Mapping[str, str],
    then: str,
    values: dict[str, Any],
    now: int,
    cause: Cause | None,
) -> list[Effect]:
    """Ask platforms for a category or channel, each by its own name for it."""
    record = open_ask(parts, what, names, then, values, now)
    asked = record.number if parts.can_ask else None
    effects: list[Effect] = [
        Lookup(at=now, platform=name, what=what, name=wanted, ask=asked, cause=cause)
        for name, wanted in names.items()
    ]
    if not parts.can_ask:
        for name, wanted in names.items():
            effects += answered(parts, Answer(now, record.number, name, _from_kit(parts, what, name, wanted)), now)
    return effects


def _from_kit(parts: Parts, what: str, platform: str, name: str) -> Any:
    section = parts.kit.platforms.get(platform)
    if what == "category":
        known = section.categories if section else None
        return ANY if known is None else {"names": list(known)}
    entry = parts.find_channel(name, platform)
    return entry.model_dump() if entry else None


def answered(parts: Parts, answer: Answer, now: int) -> list[Effect]:
    """Take an answer in; with the last one it is gone on. An answer nobody waits for is nothing."""
    key = str(answer.ask)
    known = parts.state.asks.get(key)
    if known is None or answer.platform not in known.open:
        return []
    record = parts.state.asks.edit(key)
    record.open = [name for name in record.open if name != answer.platform]
    record.found[answer.platform] = {"problem": answer.problem} if answer.problem else answer.found
    if record.open:
        return []
    parts.state.asks.drop(key)
    return parts.finish(record, now)
