"""What a measure leaves out: emotes, emoji, links, mentions and a known command's name."""

from __future__ import annotations

import re
from functools import cached_property

from gentlegate.core.events import Message
from gentlegate.core.text.link_entries import EntryIndex
from gentlegate.core.text.links import Link, find_links

MENTION = re.compile(r"(?<!\w)@\w+")


class Reading:
    """One message as the filters read it; each view is made once, when first asked for.

    `body` is where the text begins after a known command's name; `named` the hosts of the channel's lists.
    """

    def __init__(self, message: Message, body: int, named: EntryIndex | None, disguised: bool) -> None:
        self.message = message
        self.body = body
        self._named = named
        self._disguised = disguised

    @cached_property
    def links(self) -> list[Link]:
        return find_links(self.message.text, self._disguised, self._named)

    @cached_property
    def left_out(self) -> list[tuple[int, int]]:
        """Spans that no measure counts, in code points."""
        text = self.message.text
        spans = [*self.message.emotes, *((link.start, link.end) for link in self.links)]
        if "@" in text:
            spans += [match.span() for match in MENTION.finditer(text)]
        return [(0, self.body), *spans] if self.body else spans

    @cached_property
    def measured(self) -> str:
        """The text with everything that is left out blanked by NUL, so that places stay the same."""
        text = self.message.text
        for start, end in self.left_out:
            text = text[:start] + "\0" * (min(end, len(text)) - start) + text[end:]
        return text
