"""`symbols`: the share of characters that are no letters, digits or everyday punctuation; stacked accents."""

from __future__ import annotations

import unicodedata
from functools import cache

from gentlegate.core.filters.base import Finding, barely
from gentlegate.core.kit.filters import Symbols
from gentlegate.core.text.clusters import clusters
from gentlegate.core.text.folding import IGNORABLE
from gentlegate.core.text.letters import ACCENTED, is_mark, script
from gentlegate.core.text.reading import Reading

EVERYDAY = frozenset(".,!?'\"-:;()…“”„‟‘’‚‛–—―‐‑‒«»‹›¡¿·′″")
_PLAIN = "".join(chr(code) for code in range(128) if chr(code).isalnum() or chr(code) in EVERYDAY)
_NOT_COUNTED = " \t\n\r\x0b\x0c\0"
_NO_SYMBOLS = (_PLAIN + _NOT_COUNTED).encode()
_SPACES = _NOT_COUNTED.encode()


@cache
def is_symbol(base: str) -> bool:
    """Whether a cluster that begins with this is neither letter, digit nor punctuation that people write."""
    category = unicodedata.category(base)
    if category[0] in "LNM" or base in EVERYDAY:
        return False
    plain = unicodedata.normalize("NFKC", base)
    if plain != base and plain.isascii():
        return not all(sign.isalnum() or sign in EVERYDAY for sign in plain)
    return category[0] != "P" or base.isascii() or "\u2010" <= base <= "\u205e" or base in "§¶"


class SymbolsFilter:
    key = "symbols"
    on_plain = True

    def __init__(self, settings: Symbols) -> None:
        self.settings = settings
        self._share = settings.share or 0.6
        self._least = settings.least or 12
        self._marks = 3 if settings.marks is None else settings.marks

    def look(self, reading: Reading) -> list[Finding]:
        text = reading.text
        if text.isascii():
            if len(text.encode().translate(None, _NO_SYMBOLS)) < self._least * self._share:
                return []
            plain = reading.measured.encode()
            found = len(plain.translate(None, _NO_SYMBOLS))
            return self._judged(found, len(plain.translate(None, _SPACES)), reading)
        counted = symbols = 0
        for cluster in clusters(reading.measured):
            base = cluster[0]
            if base == "\0" or base.isspace() or IGNORABLE.match(base):
                continue
            counted += 1
            symbols += is_symbol(base)
        return self._judged(symbols, counted, reading) + self._stacked(reading.text)

    def _judged(self, symbols: int, counted: int, reading: Reading) -> list[Finding]:
        if counted < self._least or not counted or symbols / counted < self._share:
            return []
        share = symbols / counted
        signs = [
            place
            for place, sign in enumerate(reading.measured)
            if sign != "\0" and not sign.isspace() and is_symbol(sign)
        ]
        span = (signs[0], signs[-1] + 1)
        return [Finding(self.key, span, round(share, 4), self._share, unsure=barely(share, self._share))]

    def _stacked(self, text: str) -> list[Finding]:
        """More accents on one Latin, Greek or Cyrillic letter than anybody writes."""
        most = start = 0
        here, base = 0, -1
        for place, sign in enumerate(text):
            if is_mark(sign) and base >= 0:
                here += 1
                if here > most:
                    most, start = here, base
            else:
                base = place if script(sign) in ACCENTED else -1
                here = 0
        if most <= self._marks:
            return []
        return [Finding(self.key, (start, start + most + 1), most, self._marks)]
