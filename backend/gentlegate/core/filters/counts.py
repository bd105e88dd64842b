"""Filters that count one thing: `emotes`, `length`, `mentions`. What passes `most` is found."""

from __future__ import annotations

from gentlegate.core.filters.base import Finding
from gentlegate.core.kit.filters import Most
from gentlegate.core.text.clusters import count
from gentlegate.core.text.folding import fold_name
from gentlegate.core.text.reading import Reading


class _AtMost:
    """A filter with `most` alone; `usual` where neither channel nor mood says it."""

    usual: int

    def __init__(self, settings: Most) -> None:
        self.settings = settings
        self._most = self.usual if settings.most is None else settings.most


class EmotesFilter(_AtMost):
    key = "emotes"
    on_plain = False
    usual = 18

    def look(self, reading: Reading) -> list[Finding]:
        if not reading.message.emotes and reading.ascii:
            return []
        spans = reading.emote_spans
        if len(spans) <= self._most:
            return []
        return [Finding(self.key, (spans[0][0], max(end for _, end in spans)), len(spans), self._most)]


class LengthFilter(_AtMost):
    key = "length"
    on_plain = True
    usual = 400

    def look(self, reading: Reading) -> list[Finding]:
        text = reading.message.text
        if len(text) - reading.body <= self._most:
            return []
        length = count(text[reading.body :])
        if length <= self._most:
            return []
        return [Finding(self.key, (reading.body, len(text)), length, self._most)]


class MentionsFilter(_AtMost):
    key = "mentions"
    on_plain = False
    usual = 6

    def look(self, reading: Reading) -> list[Finding]:
        if len(reading.mentions) <= self._most:
            return []
        people = {fold_name(reading.text[start:end]) for start, end in reading.mentions}
        if len(people) <= self._most:
            return []
        return [Finding(self.key, (reading.mentions[0][0], reading.mentions[-1][1]), len(people), self._most)]
