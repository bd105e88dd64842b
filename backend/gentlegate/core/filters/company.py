"""Filters about a message among others: `resends`, `pace`, `copycats`."""

from __future__ import annotations

from gentlegate.core.filters.base import Finding
from gentlegate.core.kit.filters import Copycats, Pace, Resends
from gentlegate.core.text.clusters import count
from gentlegate.core.text.reading import Reading

SHORT = 4


class ResendsFilter:
    key = "resends"
    on_plain = True

    def __init__(self, settings: Resends) -> None:
        self.settings = settings
        self._copies = settings.copies or 4
        self._window = settings.window or 60_000_000

    def look(self, reading: Reading) -> list[Finding]:
        said = reading.talk.texts
        text = reading.folded
        if len(said) < self._copies or not text:
            return []
        copies = sum(1 for at, other in said if other == text and reading.now - at < self._window)
        if copies < self._copies:
            return []
        limit = self._copies * 2 if count(text) < SHORT else self._copies
        return [Finding(self.key, None, copies, limit)] if copies >= limit else []


class PaceFilter:
    key = "pace"
    on_plain = True

    def __init__(self, settings: Pace) -> None:
        self.settings = settings
        self._messages = settings.messages or 15
        self._window = settings.window

    def look(self, reading: Reading) -> list[Finding]:
        times = reading.talk.times
        if len(times) <= self._messages:
            return []
        messages = sum(1 for at in times if reading.now - at < self._window)
        return [Finding(self.key, None, messages, self._messages)] if messages > self._messages else []


class CopycatsFilter:
    key = "copycats"
    on_plain = True

    def __init__(self, settings: Copycats) -> None:
        self.settings = settings
        self._people = settings.people or 5
        self._window = settings.window or 20_000_000
        self._alike = settings.alike or 0.9
        self._least = settings.least or 16

    def look(self, reading: Reading) -> list[Finding]:
        text = reading.without_emotes
        if len(text) < self._least or (not reading.ascii and count(text) < self._least):
            return []
        people = reading.company.crowd(text, reading.identity, reading.now, self._window, self._alike, self._people)
        return [Finding(self.key, None, people, self._people, quiet=True)] if people else []
