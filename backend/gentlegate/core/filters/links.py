"""`links`: a link that no list allows. Forbidden wins over allowed."""

from __future__ import annotations

from gentlegate.core.filters.base import Finding
from gentlegate.core.kit.filters import Links
from gentlegate.core.text.link_entries import EntryIndex, read_entry
from gentlegate.core.text.measures import Reading

FORBIDDEN_SECONDS = 600


class LinksFilter:
    key = "links"

    def __init__(self, settings: Links) -> None:
        self.settings = settings
        allowed = [read_entry(entry.text) for entry in settings.allowed]
        forbidden = [read_entry(entry.text) for entry in settings.forbidden]
        self.named = EntryIndex([*allowed, *forbidden])
        self._allowed = EntryIndex(allowed)
        self._forbidden = EntryIndex(forbidden)

    def look(self, reading: Reading) -> list[Finding]:
        found = []
        for link in reading.links:
            span = (link.start, link.end)
            if (index := self._forbidden.find(link.address)) is not None:
                entry = self.settings.forbidden[index]
                seconds = entry.seconds if entry.step else FORBIDDEN_SECONDS
                found.append(Finding(self.key, span, step=entry.step or "timeout", seconds=seconds, forbidden=True))
            else:
                allowed = self._allowed.find(link.address) is not None
                found.append(Finding(self.key, span, allowed=allowed))
        return found
