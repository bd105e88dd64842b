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
    "title": Entry(("title",), sets_level="moderator"),
    "count": Entry(("count",)),
    "pass": Entry(("pass",), "moderator"),
}
