"""The built-ins' names and what each needs unless a channel says otherwise (spec page 4, *Built-ins*)."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Entry:
    """`names` as heard; `level` is needed to use it, `sets_level` to change something with it."""

    names: tuple[str, ...]
    level: str = "everyone"
    sets_level: str | None = None


BUILT_INS: dict[str, Entry] = {
    "commands": Entry(("commands",)),
    "uptime": Entry(("uptime",)),
    "following": Entry(("following",)),
    "title": Entry(("title",), sets_level="moderator"),
    "category": Entry(("category", "game"), sets_level="moderator"),
    "so": Entry(("so",), "moderator"),
    "marker": Entry(("marker",), "moderator"),
    "clip": Entry(("clip",), "moderator"),
    "ad": Entry(("ad",), "moderator"),
    "raid": Entry(("raid",), "moderator", sets_level="lead"),
    "count": Entry(("count",)),
    "quote": Entry(("quote",)),
    "pass": Entry(("pass",), "moderator"),
    "why": Entry(("why",), "moderator"),
    "teach": Entry(("teach",), "moderator"),
    "reword": Entry(("reword",), "moderator"),
    "forget": Entry(("forget",), "moderator"),
    "mood": Entry(("mood",), "lead"),
    "timers": Entry(("timers",), "moderator"),
}
