"""Ad breaks: only the lengths that a platform takes, and none while one runs."""

from __future__ import annotations

from typing import Any

from gentlegate.core.effects import Ad, Effect
from gentlegate.core.moments import SECOND, in_words
from gentlegate.core.parts import Parts
from gentlegate.core.records import AdRecord
from gentlegate.core.stream import saying


def running(parts: Parts, platform: str, now: int) -> AdRecord | None:
    record = parts.state.ads.get(platform)
    return record if record and record.until > now else None


def problem(parts: Parts, platform: str, text: str, now: int) -> tuple[Any, str] | None:
    """Why there is no ad break of this length there: the reason's name, and the words."""
    shown, lengths = platform.capitalize(), parts.abilities(platform).ads
    if not lengths:
        return "unsupported", f"{shown} has no ad breaks."
    if platform not in parts.streams.now.live:
        return "offline", f"{shown} is not live."
    if not text.isascii() or not text.isdigit() or int(text) not in lengths:
        listed = ", ".join(str(length) for length in lengths)
        return "arguments", f"{shown} takes ad breaks of {listed} seconds."
    if record := running(parts, platform, now):
        return "duplicate", f"An ad break runs on {shown}, for {in_words(record.until - now)} still."
    return None


def start(parts: Parts, platform: str, seconds: int, values: dict[str, Any], now: int) -> list[Effect]:
    parts.state.ads.put(platform, AdRecord(now, now + seconds * SECOND, values["by"]))
    return [Ad(at=now, platform=platform, seconds=seconds, cause=saying.cause_of(values))]
