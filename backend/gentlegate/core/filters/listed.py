"""Filters with the channel's phrases: `phrases` in messages, `names` in names."""

from __future__ import annotations

from gentlegate.core.filters.base import Finding
from gentlegate.core.kit import filters as kit
from gentlegate.core.text.patterns import Patterns, read_pattern
from gentlegate.core.text.phrases import Hit, Phrases, read_phrase
from gentlegate.core.text.reading import Reading


class Entries:
    """Blocked entries and the allowed phrases that shield what they cover, ready to be looked for."""

    def __init__(self, entries: list[kit.Phrase], allowed: list[str]) -> None:
        self._entries = entries
        plain = [
            read_phrase(index, e.text, whole=e.mode == "word", disguised=e.disguised, lang=e.lang)
            for index, e in enumerate(entries)
            if e.mode != "pattern"
        ]
        self._phrases = Phrases(plain)
        self._patterns = Patterns([read_pattern(i, e.text) for i, e in enumerate(entries) if e.mode == "pattern"])
        self._allowed = Phrases([read_phrase(index, text) for index, text in enumerate(allowed)])
        self._any_pattern = len(plain) < len(entries)

    def find(self, text: str) -> list[tuple[Hit, kit.Phrase, bool]]:
        """Every hit with its entry, and whether an allowed phrase covers it."""
        hits = self._phrases.find(text)
        if self._any_pattern and (more := self._patterns.find(text)):
            hits = [*hits, *more]
        if not hits:
            return []
        shields = [(shield.start, shield.end) for shield in self._allowed.find(text)]
        return [
            (hit, self._entries[hit.phrase], any(s <= hit.start and hit.end <= e for s, e in shields))
            for hit in hits
        ]


class PhrasesFilter:
    key = "phrases"
    on_plain = True

    def __init__(self, settings: kit.Phrases) -> None:
        self.settings = settings
        self.entries = Entries(settings.entries, settings.allowed)

    def look(self, reading: Reading) -> list[Finding]:
        return [
            Finding(
                self.key,
                (hit.start, hit.end),
                step=entry.step,
                seconds=entry.seconds if entry.step == "timeout" else None,
                allowed=shielded,
                unsure=hit.disguised and hit.end - hit.start <= 4,
            )
            for hit, entry, shielded in self.entries.find(reading.text)
        ]


class NamesFilter:
    key = "names"
    on_plain = False

    def __init__(self, settings: kit.FilterSection, entries: Entries) -> None:
        self.settings = settings
        self._entries = entries

    def look(self, reading: Reading) -> list[Finding]:
        if not reading.new_name:
            return []
        person = reading.message.person
        found: dict[int, Finding] = {}
        for name in dict.fromkeys((person.login, person.name)):
            for hit, entry, shielded in self._entries.find(name):
                piece = name[hit.start : hit.end]
                seconds = entry.seconds if entry.step == "timeout" else None
                finding = Finding(self.key, None, step=entry.step, seconds=seconds, allowed=shielded, text=piece)
                found.setdefault(hit.phrase, finding)
        return list(found.values())
