"""Grapheme clusters (UAX #29): what a reader sees as one character, and which of them are emoji (UTS #51)."""

from __future__ import annotations

from functools import cache
from typing import Any

KEYCAP, EMOJI_STYLE, TEXT_STYLE = "\u20e3", "\ufe0f", "\ufe0e"


@cache
def _pattern(source: str) -> Any:
    import regex

    return regex.compile(source)


def clusters(text: str) -> list[str]:
    """The clusters of a text, in order."""
    if text.isascii() and "\r" not in text:
        return list(text)
    return _pattern(r"\X").findall(text)  # type: ignore[no-any-return]


def count(text: str) -> int:
    """How many clusters a text has."""
    return len(text) if text.isascii() and "\r" not in text else len(clusters(text))


def is_emoji(cluster: str) -> bool:
    """Emoji presentation, a variation selector 16 or a keycap; not a mere © or ™."""
    if cluster.isascii() or cluster[1:2] == TEXT_STYLE:
        return False
    if EMOJI_STYLE in cluster or KEYCAP in cluster:
        return True
    return _pattern(r"\p{Emoji_Presentation}").search(cluster) is not None


def emoji_spans(text: str) -> list[tuple[int, int]]:
    """The spans of all emoji, in code points."""
    if text.isascii() or _pattern(r"[\p{Emoji_Presentation}\ufe0f\u20e3]").search(text) is None:
        return []
    return [match.span() for match in _pattern(r"\X").finditer(text) if is_emoji(match[0])]
