"""Playing an evening: a chat log whose lines happen on the stand-in platforms, faster if wanted."""

from __future__ import annotations

import asyncio
import contextlib
import json
from datetime import datetime
from importlib.resources import files
from typing import Any

from playhouse.house import Platform, Refusal

FASTEST = 60.0
_FOLDER = files("playhouse") / "evenings"


def names() -> list[str]:
    return sorted(entry.name.removesuffix(".jsonl") for entry in _FOLDER.iterdir() if entry.name.endswith(".jsonl"))


def load(name: str) -> list[tuple[float, dict[str, Any]]]:
    """The evening's lines with their seconds from its beginning."""
    if name not in names():
        raise Refusal(404, f"no such evening; there are: {', '.join(names())}")
    lines = [json.loads(text) for text in (_FOLDER / f"{name}.jsonl").read_text(encoding="utf-8").splitlines()]
    begin = datetime.fromisoformat(lines[0]["at"])
    return [((datetime.fromisoformat(line["at"]) - begin).total_seconds(), line) for line in lines]


class Player:
    """Plays one evening at a time."""

    def __init__(self, platforms: dict[str, Platform]) -> None:
        self._platforms = platforms
        self._task: asyncio.Task[None] | None = None
        self.name: str | None = None
        self.speed = 1.0

    def play(self, name: str, speed: float, quick_start: float) -> None:
        """Begin; the first `quick_start` seconds of the evening pass at the fastest speed."""
        lines = load(name)
        self.stop()
        self.name, self.speed = name, min(max(speed, 1.0), FASTEST)
        self._task = asyncio.get_running_loop().create_task(self._run(lines, quick_start))

    def stop(self) -> None:
        if self._task:
            self._task.cancel()
        self._task, self.name = None, None

    async def _run(self, lines: list[tuple[float, dict[str, Any]]], quick_start: float) -> None:
        loop = asyncio.get_running_loop()
        due, before = loop.time(), 0.0
        for at, line in lines:
            due += (at - before) / (FASTEST if at <= quick_start else self.speed)
            before = at
            await asyncio.sleep(max(0.0, due - loop.time()))
            self._happen(line)
        self.name = None

    def _happen(self, line: dict[str, Any]) -> None:
        platform = self._platforms.get(line.get("platform", ""))
        if platform is None:
            return
        if line["kind"] == "stream":
            platform.go(line["live"], line.get("title"), line.get("category"))
        elif line["kind"] == "happening":
            person = line["person"]
            about = (line.get("amount"), line.get("text"), person.get("name"))
            platform.happen(line["what"], person["login"], *about)
        elif line["kind"] == "message":
            person = line["person"]
            with contextlib.suppress(Refusal):
                platform.say(
                    person["login"],
                    line["text"],
                    name=person.get("name"),
                    badges=person.get("badges"),
                    emotes=line.get("emotes") or [],
                    action=line.get("action", False),
                )
