"""Times and durations. A moment is a whole number of microseconds since 1970-01-01T00:00:00Z; so is a span."""

from __future__ import annotations

import re
from datetime import UTC, datetime, timedelta
from functools import lru_cache

SECOND = 1_000_000
MINUTE = 60 * SECOND
HOUR = 60 * MINUTE
DAY = 24 * HOUR
_EPOCH = datetime(1970, 1, 1, tzinfo=UTC)
_MICROSECOND = timedelta(microseconds=1)
_UNITS = {"d": DAY, "h": HOUR, "m": MINUTE, "s": SECOND}
_DURATION = re.compile(r"(?:(\d{1,6})d)?(?:(\d{1,6})h)?(?:(\d{1,6})m)?(?:(\d{1,9}(?:\.\d{1,3})?)s)?")
LONGEST = 3650 * DAY


def moment_of(when: datetime) -> int:
    """The moment of an aware datetime, exact to the microsecond."""
    return (when - _EPOCH) // _MICROSECOND


def as_datetime(moment: int) -> datetime:
    """The moment as an aware datetime in UTC."""
    return _EPOCH + timedelta(microseconds=moment)


def parse_moment(text: str) -> int:
    """Read an RFC 3339 time with any offset; finer than a microsecond is cut. ValueError if it is none."""
    if text[-1:] == "Z" and text[10:11] == "T":
        if len(text) == 20:
            return _whole_second(text)
        fraction = text[20:-1]
        if text[19:20] == "." and fraction.isdigit() and fraction.isascii():
            return _whole_second(text[:19] + "Z") + int(fraction[:6].ljust(6, "0"))
    return _parse(text)


@lru_cache(maxsize=512)
def _whole_second(text: str) -> int:
    return _parse(text)


def _parse(text: str) -> int:
    if len(text) < 20 or text[10] not in "Tt ":
        raise ValueError("not an RFC 3339 time such as 2026-03-07T18:00:00Z")
    try:
        when = datetime.fromisoformat(text.upper().replace(" ", "T"))
    except ValueError as error:
        raise ValueError(f"not an RFC 3339 time such as 2026-03-07T18:00:00Z ({error})") from None
    if when.tzinfo is None:
        raise ValueError("the time has no offset; end it with Z or +01:00")
    return moment_of(when)


def format_moment(moment: int) -> str:
    """RFC 3339 in UTC with `Z`, with three or six decimals only where they are needed."""
    whole, rest = divmod(moment, SECOND)
    stem = as_datetime(whole * SECOND).strftime("%Y-%m-%dT%H:%M:%S")
    if not rest:
        return stem + "Z"
    return f"{stem}.{rest // 1000:03d}Z" if rest % 1000 == 0 else f"{stem}.{rest:06d}Z"


def parse_span(value: object) -> int:
    """A duration: a number of seconds, or a string such as `45s`, `5m`, `1h30m`, `2d`. ValueError if neither."""
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        raise ValueError('a duration is a number of seconds or a string such as "45s", "5m", "1h30m", "2d"')
    if isinstance(value, str):
        match = _DURATION.fullmatch(value.strip().lower().replace(" ", ""))
        if match is None or not any(match.groups()):
            raise ValueError(f'"{value}" is not a duration; write "45s", "5m", "1h30m" or "2d"')
        span = round(
            sum(float(n) * _UNITS[u] for n, u in zip(match.groups(), "dhms", strict=True) if n is not None)
        )
    else:
        if value != value or value in (float("inf"), float("-inf")) or value < 0:
            raise ValueError("a duration is never negative and has an end")
        span = round(value * SECOND)
    if span > LONGEST:
        raise ValueError("a duration is at most 3650 days")
    return span


def seconds(span: int) -> float | int:
    """A span in seconds to the millisecond, as a whole number where it is one."""
    value = round(span / SECOND, 3)
    return int(value) if value == int(value) else value


def in_words(span: int) -> str:
    """A span as people say it, with its two largest units: `6 h`, `1 h 43 min`, `45 s`."""
    whole = max(0, round(span / SECOND))
    days, rest = divmod(whole, 86400)
    hours, rest = divmod(rest, 3600)
    minutes, secs = divmod(rest, 60)
    parts = [(days, "d"), (hours, "h"), (minutes, "min"), (secs, "s")]
    first = next((i for i, (n, _) in enumerate(parts) if n), 3)
    said = [f"{n} {unit}" for n, unit in parts[first : first + 2] if n]
    return " ".join(said) or "0 s"
