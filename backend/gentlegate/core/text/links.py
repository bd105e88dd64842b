"""Finding links: what a reader could follow, with or without scheme, also spelled out or otherwise disguised.

The text is first brought into a plain view (NFKC, unseen characters gone), in which disguised dots are written as
dots; every character of the view remembers where it came from. Addresses with a scheme are found first, then bare
hosts, which must end in something real: a public suffix, a reserved ending, an IP address.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache, lru_cache
from typing import TYPE_CHECKING

from gentlegate.core.text.folding import plain_view
from gentlegate.core.text.link_entries import Address, EntryIndex, ascii_host, resolve
from gentlegate.core.text.words import words

if TYPE_CHECKING:
    from publicsuffixlist import PublicSuffixList

MOST_LINKS = 20
"""Links of one message that are looked at; a message with more is stopped by the first of them already."""
RESERVED = frozenset({"example", "test", "invalid", "localhost"})
SPELLED_ENDINGS = (
    "com|net|org|info|xyz|gg|tv|io|co|ru|shop|store|online|site|club|live|link|me|us|uk|de|example|test"
)
_SECOND_LEVEL = frozenset({"com", "net", "org", "gov", "edu", "co", "ac"})
_SIGN = r"[^\s\x00-\x2c\x2e\x2f\x3a-\x40\x5b-\x60\x7b-\x7f\u2000-\u206f\u3000-\u303f«»…]"
_TAIL = r"[/\\?#][^\s<>\"»”]*"
_SCHEMED = re.compile(r"(?<!\w)(?:h(?:tt|xx)ps?|ftp):[/\\]+[^\s<>\"»”]+", re.IGNORECASE)
_AUTHORITY = re.compile(r"(?:[^/\\?#]*@)?(\[[0-9a-fA-F:.]+\]|[^:/\\?#@]+)(?::\d*)?(.*)", re.DOTALL)
_BARE = re.compile(rf"(?<!{_SIGN})({_SIGN}++(?:\.{_SIGN}++)+)\.?(:\d{{1,5}}(?!\d))?({_TAIL})?")
_BRACKETED = re.compile(r"\s?[(\[{<]\s?(?:\.|dot)\s?[)\]}>]\s?", re.IGNORECASE)
_SPELLED = re.compile(rf"(?<![\w-])([\w-]++)(\s++dot\s++)(?=(?:{SPELLED_ENDINGS})(?![\w-]))", re.IGNORECASE)
_SPACED = re.compile(r"(?<=[\w-])(?:\s+\.\s*|\s*\.\s+)(?=[A-Za-z]{2,24}/\S)")
_IPV4 = re.compile(r"(?:(?:25[0-5]|2[0-4]\d|1?\d?\d)\.){3}(?:25[0-5]|2[0-4]\d|1?\d?\d)")
_HINTS = re.compile(r"[.\u3002\uff0e\uff61\u2024]|//|\\\\|dot|\uff44", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Link:
    """A link found: its span in the original text, and where it leads."""

    start: int
    end: int
    address: Address


@cache
def _suffixes() -> PublicSuffixList:
    from publicsuffixlist import PublicSuffixList

    return PublicSuffixList(accept_unknown=False, only_icann=True)


@lru_cache(maxsize=8192)
def has_public_suffix(host: str) -> bool:
    """Whether an ASCII host has a name below a real public suffix or a reserved ending."""
    labels = host.split(".")
    if not all(labels) or len(labels) < 2 or len(host) > 253:
        return False
    return labels[-1] in RESERVED or _suffixes().privatesuffix(host) is not None


def find_links(text: str, disguised: bool = True, named: EntryIndex | None = None) -> list[Link]:
    """All links of the text, in order. `named` holds the hosts of the channel's own lists."""
    if not may_have_links(text):
        return []
    view = _View(text)
    view.plain_dots()
    if disguised:
        view.undisguise()
    found: list[Link] = []
    for link in sorted([*_with_scheme(view), *_bare(view, named)], key=lambda link: (link.start, -link.end)):
        if not found or link.start >= found[-1].end:
            found.append(link)
    return found[:MOST_LINKS]


def may_have_links(text: str) -> bool:
    """Whether a text has anything that a link needs."""
    if text.isascii():
        return "." in text or "//" in text or "\\" in text or "dot" in text.lower()
    return _HINTS.search(text) is not None


class _View:
    """The plain view of a text; `strong` holds where a dot was written in disguise."""

    def __init__(self, text: str) -> None:
        plain, places = plain_view(text)
        self.text = plain
        self.places = places if places is not None else list(range(len(plain)))
        self.strong: set[int] = set()

    def plain_dots(self) -> None:
        if not self.text.isascii():
            self.text = re.sub("[\u3002\uff0e\uff61\u2024]", ".", self.text)

    def undisguise(self) -> None:
        self._replace(_BRACKETED, strong=True)
        self._replace(_SPELLED, group=2, unless=words("sentence-words"), strong=True)
        self._replace(_SPACED, strong=False)

    def _replace(
        self,
        pattern: re.Pattern[str],
        group: int = 0,
        unless: frozenset[str] = frozenset(),
        strong: bool = False,
    ) -> None:
        for match in reversed(list(pattern.finditer(self.text))):
            if unless and match[1].lower() in unless:
                continue
            start, end = match.span(group)
            if start == 0 or end == len(self.text):
                continue
            self.strong = {p if p < start else p - (end - start) + 1 for p in self.strong}
            if strong:
                self.strong.add(start)
            self.text = self.text[:start] + "." + self.text[end:]
            self.places = [*self.places[: start + 1], *self.places[end:]]

    def link(self, start: int, end: int, host: str, tail: str) -> Link:
        return Link(self.places[start], self.places[end - 1] + 1, resolve(host, tail))


def _trimmed(text: str) -> str:
    """Without the punctuation of the sentence that the link stands in."""
    while text:
        last = text[-1]
        if last in ".,!?;:'\"…*_~" or (last in ")]}" and text.count(last) > text.count("([{"[")]}".index(last)])):
            text = text[:-1]
        else:
            break
    return text


def _with_scheme(view: _View) -> Iterator[Link]:
    for match in _SCHEMED.finditer(view.text):
        whole = _trimmed(match[0])
        rest = re.split(r":[/\\]+", whole, maxsplit=1)
        if len(rest) < 2:
            continue
        authority = _AUTHORITY.fullmatch(rest[1])
        if authority and any(sign.isalnum() for sign in authority[1]):
            yield view.link(match.start(), match.start() + len(whole), authority[1], authority[2])


def _bare(view: _View, named: EntryIndex | None) -> Iterator[Link]:
    if "." not in view.text:
        return
    for match in _BARE.finditer(view.text):
        host, port, tail = match[1], match[2] or "", _trimmed(match[3] or "")
        start = match.start()
        before = view.text[start - 1] if start else ""
        firm = bool(port or tail)
        if before == "@" and not firm and _has_user(view.text, start):
            continue
        if not firm and view.text[match.end() : match.end() + 1] == "@":
            continue
        end = match.end(1) + (match.end(2) - match.start(2) if port else 0)
        end = match.start(3) + len(tail) if tail else end
        strong = any(start <= place < match.end(1) for place in view.strong)
        if _followable(host.strip("-"), firm or strong, named):
            yield view.link(start, end, host, tail)


def _has_user(text: str, start: int) -> bool:
    """Whether a mail address's user stands before the @ at `start - 1`."""
    return start >= 2 and not text[start - 2].isspace()


def _followable(host: str, firm: bool, named: EntryIndex | None) -> bool:
    name = ascii_host(host)
    if _IPV4.fullmatch(name):
        return True
    if named is not None and named.names(name):
        return True
    if not has_public_suffix(name):
        return False
    labels = name.split(".")
    ending = labels[-1]
    if firm or ending in RESERVED or labels[0] == "www":
        return True
    if ending in words("file-endings"):
        return len(labels) > 2 and labels[-2] in _SECOND_LEVEL
    if ending in words("everyday-endings"):
        return len(labels) > 2 and any(len(label) > 2 and not label.isdigit() for label in labels[:-1])
    return True
