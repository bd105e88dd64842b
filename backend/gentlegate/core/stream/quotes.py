"""Quotes: numbered for ever, searched, shown without repeats, removed and put back (spec page 5)."""

from __future__ import annotations

from typing import Any

from gentlegate.core.effects import Cause, SettingChanged
from gentlegate.core.moments import as_datetime
from gentlegate.core.parts import Parts
from gentlegate.core.records import QuoteRecord
from gentlegate.core.text.spelling import fold

NO_REPEAT = 5
LONGEST = 500
SHOWN = "quotes"


def key_of(number: int) -> str:
    return f"{number:07d}"


def standing(parts: Parts) -> list[QuoteRecord]:
    """Every quote that was not removed, by number."""
    return sorted((q for _, q in parts.state.quotes.items() if not q.removed), key=lambda q: q.number)


def by_number(parts: Parts, number: int) -> QuoteRecord | None:
    found = parts.state.quotes.get(key_of(number))
    return found if found and not found.removed else None


def search(parts: Parts, words: str) -> list[QuoteRecord]:
    """The quotes with these words in their text, or of who said them; the channel itself said most of them."""
    wanted, channel = fold(words), parts.kit.channel.name
    return [
        quote
        for quote in standing(parts)
        if wanted in fold(quote.text) or (quote.said_by != channel and wanted in fold(quote.said_by))
    ]


def pick(parts: Parts, among: list[QuoteRecord], about: object) -> QuoteRecord | None:
    """One of them by chance, none of the last five shown if there are others."""
    record = parts.state.shown.get(SHOWN)
    lately = set(record.numbers) if record else set()
    fresh = [quote for quote in among if quote.number not in lately] or among
    return parts.chance("quote", about).choice(fresh) if fresh else None


def note_shown(parts: Parts, quote: QuoteRecord) -> None:
    record = parts.state.shown.edit(SHOWN)
    record.numbers = [*(n for n in record.numbers if n != quote.number), quote.number][-NO_REPEAT:]


def add(
    parts: Parts, text: str, by: str, by_name: str, platform: str | None, now: int, cause: Cause, **given: Any
) -> tuple[QuoteRecord, SettingChanged]:
    """A new quote; who said it is the broadcaster unless it is told."""
    number = max((q.number for _, q in parts.state.quotes.items()), default=0) + 1
    quote = QuoteRecord(
        number=number,
        text=text.strip()[:LONGEST],
        by=by,
        by_name=by_name,
        said_by=str(given.get("said_by") or parts.kit.channel.name),
        category=str(given.get("category") or (parts.category(platform) if platform else None) or ""),
        at=now,
    )
    parts.state.quotes.put(key_of(number), quote)
    return quote, _changed(quote, None, quote.text, by, now, cause)


def remove(parts: Parts, number: int, by: str, now: int, cause: Cause) -> SettingChanged | None:
    """Take a quote away; None where there is none of this number."""
    if by_number(parts, number) is None:
        return None
    quote = parts.state.quotes.edit(key_of(number))
    quote.removed = True
    return _changed(quote, quote.text, None, by, now, cause)


def restore(parts: Parts, number: int, by: str, now: int, cause: Cause) -> SettingChanged | None:
    """Put a removed quote back; None where none was removed."""
    found = parts.state.quotes.get(key_of(number))
    if found is None or not found.removed:
        return None
    quote = parts.state.quotes.edit(key_of(number))
    quote.removed = False
    return _changed(quote, None, quote.text, by, now, cause)


def _changed(
    quote: QuoteRecord, before: str | None, after: str | None, by: str, now: int, cause: Cause
) -> SettingChanged:
    return SettingChanged(at=now, path=f"quotes.{quote.number}", before=before, after=after, by=by, cause=cause)


def variables(parts: Parts, quote: QuoteRecord) -> dict[str, Any]:
    """What a template may ask of a quote."""
    return {
        "number": quote.number,
        "text": quote.text,
        "said_by": quote.said_by,
        "by": quote.by_name,
        "category": quote.category,
        "date": as_datetime(quote.at).astimezone(parts.zone).strftime("%Y-%m-%d"),
    }
