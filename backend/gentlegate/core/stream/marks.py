"""Markers and clips: a note at a point of the stream, and a piece of it kept by the platform."""

from __future__ import annotations

from typing import Any

from gentlegate.core.effects import Clip, Effect, Marker
from gentlegate.core.events import Answer
from gentlegate.core.moments import in_words
from gentlegate.core.parts import Parts
from gentlegate.core.records import AskRecord, MarkerRecord
from gentlegate.core.stream import saying
from gentlegate.core.stream.asks import answered, open_ask

LONGEST_NOTE = 200


def able(parts: Parts, what: str, first: str | None = None) -> list[str]:
    """The live platforms that can do it, the one asked for first."""
    live = [name for name in parts.streams.now.live if getattr(parts.abilities(name), what)]
    return sorted(live, key=lambda name: name != first)


def mark(parts: Parts, note: str, values: dict[str, Any], now: int) -> tuple[list[Effect], str]:
    """Keep a note, with each live platform that can and always ourselves."""
    stream = parts.streams.now
    offset = now - stream.began
    number = len(parts.state.markers) + 1
    record = MarkerRecord(now, stream.number, offset, values["by"], values["by_name"], note)
    parts.state.markers.put(f"{number:07d}", record)
    cause = saying.cause_of(values)
    platforms: list[str | None] = [*able(parts, "marker")] or [None]
    effects: list[Effect] = [Marker(at=now, platform=name, note=note, cause=cause) for name in platforms]
    about = f": {note}" if note else ""
    return effects, f"Marked at {in_words(offset)}{about}."


def clip(parts: Parts, platform: str, values: dict[str, Any], now: int) -> list[Effect]:
    """Ask a platform for a clip; it is answered with its link."""
    cause = saying.cause_of(values)
    record = open_ask(parts, "clip", {platform: ""}, "clip", values | {"on": platform}, now)
    if parts.can_ask:
        return [Clip(at=now, platform=platform, ask=record.number, cause=cause)]
    return [
        Clip(at=now, platform=platform, cause=cause),
        *answered(parts, Answer(now, record.number, platform, {}), now),
    ]


def finish_clip(parts: Parts, record: AskRecord, now: int) -> list[Effect]:
    values, platform = record.values, record.values["on"]
    found = record.found.get(platform) or {}
    if found.get("problem"):
        text = f"{platform.capitalize()} made no clip: {found['problem']}."
        return saying.refuse(parts, values, "unsupported", text, now, platform)
    link = found.get("link")
    text = f"Clip: {link}" if link else f"{platform.capitalize()} makes a clip."
    made: list[Effect] = [Clip(at=now, platform=platform, link=link, cause=saying.cause_of(values))] if link else []
    return [*made, *saying.say(parts, values, text, now)]
