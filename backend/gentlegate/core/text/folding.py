"""Folding text for comparing: NFKC, casefold, and characters that nobody sees dropped (Unicode 3.13, UAX #15)."""

from __future__ import annotations

import re
import unicodedata

IGNORABLE = re.compile(
    "[\u00ad\u034f\u061c\u115f\u1160\u17b4\u17b5\u180b-\u180f\u200b-\u200f\u202a-\u202e\u2060-\u206f\u3164"
    "\ufe00-\ufe0f\ufeff\uffa0\ufff0-\ufff8\U0001bca0-\U0001bca3\U0001d173-\U0001d17a\U000e0000-\U000e0fff]"
)


def fold_name(text: str) -> str:
    """A name as it is compared: full-width letters plain, case and unseen characters gone."""
    if text.isascii():
        return text.lower()
    return unicodedata.normalize("NFKC", IGNORABLE.sub("", text)).casefold()


def plain_view(text: str) -> tuple[str, list[int] | None]:
    """The text in NFKC without unseen characters, and for each of its characters where it came from.

    The list is None where nothing moved (always for ASCII).
    """
    if text.isascii():
        return text, None
    pieces: list[str] = []
    places: list[int] = []
    for index, sign in enumerate(text):
        if IGNORABLE.match(sign):
            continue
        plain = unicodedata.normalize("NFKC", sign)
        pieces.append(plain)
        places += [index] * len(plain)
    return "".join(pieces), places
