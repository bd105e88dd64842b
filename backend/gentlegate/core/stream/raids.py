"""Raids: looked up, armed for 30 s in which anyone of moderator level may cancel, then gone."""

from __future__ import annotations

from typing import Any

from gentlegate.core.effects import Cause, Effect, Raid
from gentlegate.core.moments import SECOND
from gentlegate.core.parts import Parts
from gentlegate.core.records import AskRecord, RaidRecord
from gentlegate.core.stream import saying
from gentlegate.core.stream.asks import look_up
from gentlegate.core.text.folding import fold_name

ARMED_FOR = 30 * SECOND
KEY = "raid"


def armed(parts: Parts) -> RaidRecord | None:
    return parts.state.raids.get(KEY)


def due(parts: Parts) -> int | None:
    record = armed(parts)
    return record.due if record else None


def problem(parts: Parts, platform: str) -> tuple[Any, str] | None:
    """Why nobody can be raided from there now."""
    shown = platform.capitalize()
    if not parts.abilities(platform).raid:
        return "unsupported", f"{shown} has no raids."
    if platform not in parts.streams.now.live:
        return "offline", f"{shown} is not live."
    if record := armed(parts):
        return "duplicate", f"{record.by_name} has armed a raid to {record.name} already."
    return None


def arm(parts: Parts, name: str, platform: str, values: dict[str, Any], now: int) -> list[Effect]:
    values = values | {"on": platform, "asked": name.strip().lstrip("@")}
    return look_up(parts, "channel", {platform: values["asked"]}, "raid", values, now, saying.cause_of(values))


def finish(parts: Parts, record: AskRecord, now: int) -> list[Effect]:
    values, platform = record.values, record.values["on"]
    found = record.found.get(platform)
    if not isinstance(found, dict) or found.get("problem"):
        words = f'{platform.capitalize()} knows no channel named "{values["asked"]}".'
        return saying.refuse(parts, values, "arguments", words, now, platform)
    if found.get("self") or fold_name(str(found.get("name") or "")) == fold_name(parts.kit.channel.name):
        return saying.refuse(parts, values, "arguments", "That is this channel itself.", now, platform)
    if (why := problem(parts, platform)) is not None:
        return saying.refuse(parts, values, why[0], why[1], now, platform)
    login = str(found.get("login") or values["asked"])
    name = str(found.get("name") or login)
    by, by_name = values["by"], values["by_name"]
    parts.state.raids.put(KEY, RaidRecord(platform, login, name, now + ARMED_FOR, by, by_name))
    prefix = parts.kit.channel.prefix
    command = next((slot.names[0] for slot in parts.slots.values() if slot.key == "/raid"), "raid")
    return saying.say(parts, values, f"Raid to {name} goes in 30 s. {prefix}{command} cancel stops it.", now)


def cancel(parts: Parts) -> RaidRecord | None:
    """Call a raid off; the one that was armed, if one was."""
    record = armed(parts)
    parts.state.raids.drop(KEY)
    return record


def go(parts: Parts, now: int) -> list[Effect]:
    """The 30 s are over: it goes, if the stream is still on there."""
    record = cancel(parts)
    if record is None or record.platform not in parts.streams.now.live:
        return []
    return [Raid(at=now, platform=record.platform, target=record.target, cause=Cause("command", "raid"))]
