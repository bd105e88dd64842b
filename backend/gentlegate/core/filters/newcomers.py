"""`newcomers`: a first message ever with a link, mentions or a pitch; accounts that are too young."""

from __future__ import annotations

from collections.abc import Callable

from gentlegate.core.filters.base import Finding
from gentlegate.core.kit.filters import Newcomers
from gentlegate.core.moments import seconds
from gentlegate.core.text.link_entries import Address
from gentlegate.core.text.phrases import Phrases, read_phrase
from gentlegate.core.text.reading import Reading
from gentlegate.core.text.words import lines

MENTIONS = 2


class NewcomersFilter:
    """`allowed` tells whether a link is on the channel's list of allowed ones."""

    key = "newcomers"

    def __init__(self, settings: Newcomers, allowed: Callable[[Address], bool]) -> None:
        self.settings = settings
        pitches = lines("newcomer-pitches") if settings.phrases is None else settings.phrases
        self._pitches = Phrases([read_phrase(index, text) for index, text in enumerate(pitches)])
        self._account = settings.account or 0
        self.on_plain = self._account > 0
        self._allowed = allowed

    def look(self, reading: Reading) -> list[Finding]:
        found = []
        if self._account and (since := reading.message.person.account_since) is not None:
            age = reading.now - since
            if age < self._account:
                limit = seconds(self._account)
                found.append(Finding(self.key, None, seconds(max(0, age)), limit, quiet=True))
        if not reading.first_ever and not reading.held_back:
            return found
        for link in reading.links:
            if not self._allowed(link.address):
                found.append(Finding(self.key, (link.start, link.end), quiet=True))
                break
        mentions = reading.mentions
        least = 1 if reading.held_back else MENTIONS
        if len(mentions) >= least:
            span = (mentions[0][0], mentions[-1][1])
            found.append(Finding(self.key, span, len(mentions), least, quiet=True))
        if reading.first_ever:
            found += [Finding(self.key, (h.start, h.end), quiet=True) for h in self._pitches.find(reading.text)[:1]]
        return found
