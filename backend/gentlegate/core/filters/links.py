"""`links`: a link that no list allows. Forbidden wins over allowed."""

from __future__ import annotations

from collections.abc import Sequence

from gentlegate.core.filters.base import Finding
from gentlegate.core.kit.filters import Links
from gentlegate.core.text.link_entries import Address, EntryIndex, HostSet, read_entry
from gentlegate.core.text.reading import Reading

FORBIDDEN_SECONDS = 600


class LinksFilter:
    key = "links"
    on_plain = False

    def __init__(self, settings: Links, imported: Sequence[list[str]] = ()) -> None:
        self.settings = settings
        allowed = [read_entry(entry.text) for entry in settings.allowed]
        forbidden = [read_entry(entry.text) for entry in settings.forbidden]
        self._allowed = EntryIndex(allowed)
        self._forbidden = EntryIndex(forbidden)
        written = [feed.hosts for feed in settings.feeds if feed.on]
        self._feeds = HostSet(host for hosts in (*written, *imported) for host in hosts)
        self.named = EntryIndex([*allowed, *forbidden], self._feeds)

    def allows(self, address: Address) -> bool:
        return self._allowed.find(address) is not None

    def look(self, reading: Reading) -> list[Finding]:
        found = []
        for link in reading.links:
            span = (link.start, link.end)
            step, seconds = self._forbids(link.address)
            if step:
                found.append(Finding(self.key, span, step=step, seconds=seconds, forbidden=True))
            else:
                found.append(Finding(self.key, span, allowed=self.allows(link.address)))
        return found

    def _forbids(self, address: Address) -> tuple[str | None, int]:
        if (index := self._forbidden.find(address)) is not None:
            entry = self.settings.forbidden[index]
            return entry.step or "timeout", entry.seconds if entry.step else FORBIDDEN_SECONDS
        return ("timeout", FORBIDDEN_SECONDS) if self._feeds.holds(address.host) else (None, 0)
