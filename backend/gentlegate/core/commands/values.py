"""Values that templates print as people read them, and that filters can still reckon with."""

from __future__ import annotations

from zoneinfo import ZoneInfo

from gentlegate.core.moments import SECOND, as_datetime, in_words


class SpanWords(str):
    """A span that prints in words."""

    __slots__ = ("span",)
    span: int

    def __new__(cls, span: int) -> SpanWords:
        words = super().__new__(cls, in_words(span))
        words.span = span
        return words


class MomentWords(str):
    """A moment that prints in the channel's zone."""

    __slots__ = ("clock",)
    clock: str

    def __new__(cls, moment: int, zone: str) -> MomentWords:
        local = as_datetime(moment - moment % SECOND).astimezone(ZoneInfo(zone))
        words = super().__new__(cls, local.strftime("%Y-%m-%d %H:%M"))
        words.clock = local.strftime("%H:%M")
        return words


def ordinal(number: int) -> str:
    """1st, 2nd, 3rd, 4th … 11th, 12th, 13th."""
    ending = "th" if 10 <= abs(number) % 100 <= 20 else {1: "st", 2: "nd", 3: "rd"}.get(abs(number) % 10, "th")
    return f"{number}{ending}"
