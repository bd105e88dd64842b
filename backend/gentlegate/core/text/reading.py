"""One message as the filters read it, and what a measure leaves out of it."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any, Generic, TypeVar, overload

from gentlegate.core.company import Company, Talk
from gentlegate.core.events import Message
from gentlegate.core.text.clusters import clusters, emoji_spans
from gentlegate.core.text.link_entries import EntryIndex
from gentlegate.core.text.links import Link, find_links
from gentlegate.core.text.spelling import fold_fully, fold_words

MENTION = re.compile(r"(?<!\w)@\w+")
NOTHING = Talk()
READ_AT_MOST = 10_000
"""Code points; what is longer is found by its length, and read no further."""


FIRST_PRIVATE = 0xF0000
T = TypeVar("T")


class lazy(Generic[T]):
    """A property that is worked out once, when first asked for; without the lock of the standard one."""

    def __init__(self, work: Callable[[Any], T]) -> None:
        self._work = work
        self._name = work.__name__
        self.__doc__ = work.__doc__

    @overload
    def __get__(self, instance: None, owner: type) -> lazy[T]: ...
    @overload
    def __get__(self, instance: object, owner: type) -> T: ...
    def __get__(self, instance: object | None, owner: type) -> lazy[T] | T:
        if instance is None:
            return self
        value = instance.__dict__[self._name] = self._work(instance)
        return value


class Reading:
    """One message; each view of it but the plainest is made once, when first asked for.

    `lower` and `words` are the text in lower case, whole and parted at spaces; `plain` tells that a glance finds
    nothing that a measure leaves out.
    `body` is where the text begins after a known command's name; `named` holds the hosts of the channel's lists.
    `first_ever` and `new_name` say that the person was never here before, or comes under a name that is new in this
    stream; `held_back` that newcomers are held back for now.
    """

    talk = NOTHING
    first_ever = new_name = held_back = False

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
        self.lower = lower = self.text.lower()
        self.words = lower.split()
        self.plain = (
            self.ascii
            and not body
            and not message.emotes
            and not ("." in lower or "@" in lower or "dot" in lower or "//" in lower or "\\" in lower)
        )
        self.body = body
        self.now = now
        self.identity = identity
        self.company = company
        self._named = named
        self._disguised = disguised

    @lazy
    def folded(self) -> str:
        """The text after a command's name, fully folded."""
        if self.body or not self.ascii:
            return fold_fully(self.text[self.body :])
        return fold_words(self.words)

    @lazy
    def without_emotes(self) -> str:
        """The text after a command's name, fully folded, without emotes and emoji."""
        if not self.message.emotes and self.ascii:
            return self.folded
        text, end, pieces = self.text, self.body, []
        for start, after in self.emote_spans:
            pieces.append(text[end:start])
            end = max(end, after)
        return fold_fully(" ".join([*pieces, text[end:]]))

    @lazy
    def links(self) -> list[Link]:
        return find_links(self.text, self._disguised, self._named)

    @lazy
    def mentions(self) -> list[tuple[int, int]]:
        return [match.span() for match in MENTION.finditer(self.text)] if "@" in self.text else []

    @lazy
    def emote_spans(self) -> list[tuple[int, int]]:
        """Emotes and emoji in order; an emoji within an emote is the emote's."""
        emotes = [span for span in self.message.emotes if span[0] < span[1]]
        emoji = [] if self.ascii else emoji_spans(self.text)
        if not emotes:
            return emoji
        return sorted([*emotes, *(span for span in emoji if not any(s <= span[0] < e for s, e in emotes))])

    @lazy
    def left_out(self) -> list[tuple[int, int]]:
        """Spans that no measure counts, in code points."""
        spans = [*self.emote_spans, *((link.start, link.end) for link in self.links), *self.mentions]
        return [(0, self.body), *spans] if self.body else spans

    @lazy
    def measured(self) -> str:
        """The text with everything that is left out blanked by NUL, so that places stay the same."""
        text = self.text
        if self.plain or not self.left_out:
            return text
        signs = list(text)
        for start, end in self.left_out:
            end = min(end, len(text))
            signs[start:end] = "\0" * (end - start)
        return "".join(signs)

    @lazy
    def measured_clusters(self) -> list[str]:
        """The clusters of the measured text, in lower case; each code point that is left out is one."""
        return [cluster.lower() for cluster in clusters(self.measured)]

    @lazy
    def measured_signs(self) -> str:
        """The measured text in lower case with one character for each cluster, equal where the clusters are."""
        if self.ascii:
            return self.measured.lower()
        known: dict[str, str] = {"\0": "\0"}
        return "".join(
            known.setdefault(cluster, chr(FIRST_PRIVATE + len(known))) for cluster in self.measured_clusters
        )

    def span_of_signs(self, start: int, end: int) -> tuple[int, int]:
        """Where a piece of the measured signs stands in the text."""
        if self.ascii:
            return start, end
        lengths = [len(cluster) for cluster in clusters(self.measured)]
        first = sum(lengths[:start])
        return first, first + sum(lengths[start:end])
