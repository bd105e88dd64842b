"""One message as the filters read it, and what a measure leaves out of it."""

from __future__ import annotations

import re
from functools import cached_property

from gentlegate.core.company import Company
from gentlegate.core.events import Message
from gentlegate.core.text.clusters import clusters, emoji_spans
from gentlegate.core.text.link_entries import EntryIndex
from gentlegate.core.text.links import Link, find_links
from gentlegate.core.text.spelling import fold_fully

MENTION = re.compile(r"(?<!\w)@\w+")
READ_AT_MOST = 10_000
"""Code points; what is longer is found by its length, and read no further."""


class Reading:
    """One message; each view of it is made once, when first asked for.

    `body` is where the text begins after a known command's name; `named` holds the hosts of the channel's lists.
    `first_ever` and `new_name` say that the person was never here before, or comes under a name that is new in this
    stream; `held_back` that newcomers are held back for now.
    """

    def __init__(
        self,
        message: Message,
        body: int,
        now: int,
        identity: str,
        company: Company,
        named: EntryIndex | None = None,
        disguised: bool = True,
    ) -> None:
        self.message = message
        self.text = message.text if len(message.text) <= READ_AT_MOST else message.text[:READ_AT_MOST]
        self.ascii = self.text.isascii()
        self.body = body
        self.now = now
        self.identity = identity
        self.company = company
        self.first_ever = self.new_name = self.held_back = False
        self._named = named
        self._disguised = disguised

    @cached_property
    def lower(self) -> str:
        return self.text.lower()

    @cached_property
    def folded(self) -> str:
        """The text after a command's name, fully folded."""
        return fold_fully(self.text[self.body :] if self.body else self.text)

    @cached_property
    def without_emotes(self) -> str:
        """The text after a command's name, fully folded, without emotes and emoji."""
        if not self.message.emotes and self.ascii:
            return self.folded
        text, end, pieces = self.text, self.body, []
        for start, after in self.emote_spans:
            pieces.append(text[end:start])
            end = max(end, after)
        return fold_fully(" ".join([*pieces, text[end:]]))

    @cached_property
    def links(self) -> list[Link]:
        return find_links(self.text, self._disguised, self._named)

    @cached_property
    def mentions(self) -> list[tuple[int, int]]:
        return [match.span() for match in MENTION.finditer(self.text)] if "@" in self.text else []

    @cached_property
    def emote_spans(self) -> list[tuple[int, int]]:
        """Emotes and emoji in order; an emoji within an emote is the emote's."""
        emotes = [span for span in self.message.emotes if span[0] < span[1]]
        emoji = [] if self.ascii else emoji_spans(self.text)
        if not emotes:
            return emoji
        return sorted([*emotes, *(span for span in emoji if not any(s <= span[0] < e for s, e in emotes))])

    @cached_property
    def left_out(self) -> list[tuple[int, int]]:
        """Spans that no measure counts, in code points."""
        spans = [*self.emote_spans, *((link.start, link.end) for link in self.links), *self.mentions]
        return [(0, self.body), *spans] if self.body else spans

    @cached_property
    def measured(self) -> str:
        """The text with everything that is left out blanked by NUL, so that places stay the same."""
        text = self.text
        if not self.left_out:
            return text
        signs = list(text)
        for start, end in self.left_out:
            end = min(end, len(text))
            signs[start:end] = "\0" * (end - start)
        return "".join(signs)

    @cached_property
    def measured_clusters(self) -> list[str]:
        """The clusters of the measured text, in lower case; each code point that is left out is one."""
        return [cluster.lower() for cluster in clusters(self.measured)]
