"""`capitals`: the share of upper-case among cased letters, once there are enough of them."""

from __future__ import annotations

from gentlegate.core.filters.base import Finding, barely
from gentlegate.core.kit.filters import Capitals
from gentlegate.core.text.reading import Reading


class CapitalsFilter:
    key = "capitals"
    on_plain = True

    def __init__(self, settings: Capitals) -> None:
        self.settings = settings
        self._share = settings.share or 0.8
        self._letters = settings.letters or 40

    def look(self, reading: Reading) -> list[Finding]:
        text = reading.text
        if len(text) < self._letters or text == reading.lower:
            return []
        text = reading.measured
        upper = sum(map(str.isupper, text))
        if upper < self._letters * self._share - 1:
            return []
        cased = upper + sum(map(str.islower, text))
        share = upper / cased
        if cased < self._letters or share < self._share:
            return []
        letters = [place for place, sign in enumerate(text) if sign.isupper() or sign.islower()]
        span = (letters[0], letters[-1] + 1)
        return [Finding(self.key, span, round(share, 4), self._share, unsure=barely(share, self._share))]
