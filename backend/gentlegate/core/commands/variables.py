"""What a template may ask for (spec page 4, *Templates*)."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from functools import cached_property
from typing import Any

from gentlegate.core.commands.use import Use
from gentlegate.core.commands.values import MomentWords, SpanWords
from gentlegate.core.events import LEVELS, Person
from gentlegate.core.parts import Parts
from gentlegate.core.stream import quotes


def channel_variables(parts: Parts, platform: str, now: int) -> dict[str, Any]:
    """`stream`, `channel`, `counter` and `now`, the same for everybody."""
    stream = parts.streams.now
    record = parts.state.platforms.get(platform)
    counters = {}
    for counter in parts.counters.all.values():
        counters[counter.name] = counters[counter.name.lower()] = parts.counters.value(counter)
    return {
        "stream": {
            "title": (record.title if record else None) or "",
            "category": (record.category if record else None) or "",
            "uptime": SpanWords(max(0, now - stream.began)) if parts.streams.live else "",
            "live": parts.streams.live,
            "platform": platform,
            "viewers": (record.viewers if record else None) or 0,
        },
        "channel": parts.kit.channel.name,
        "counter": counters,
        "now": MomentWords(now, parts.kit.channel.timezone),
        "quote": AnyQuote(parts, now),
    }


def person_variables(person: Person, level: int, now: int) -> dict[str, Any]:
    follows = SpanWords(max(0, now - person.follows_since)) if person.follows_since is not None else ""
    return {
        "name": person.name,
        "login": person.login,
        "level": LEVELS[level],
        "platform": person.platform,
        "follows_for": follows,
    }


class LookedUp(Mapping[str, Any]):
    """Something that is looked up once a template asks for it; printed as a whole it is its `shown`."""

    shown: str

    def look(self) -> dict[str, Any]:
        raise NotImplementedError

    @cached_property
    def _found(self) -> dict[str, Any]:
        return self.look()

    def __getitem__(self, key: str) -> Any:
        return self._found[key]

    def __iter__(self) -> Iterator[str]:
        return iter(self._found)

    def __len__(self) -> int:
        return len(self._found)

    def __str__(self) -> str:
        return str(self._found[self.shown])


class AnyQuote(LookedUp):
    """A quote by chance."""

    shown = "text"

    def __init__(self, parts: Parts, now: int) -> None:
        self._parts, self._now = parts, now

    def look(self) -> dict[str, Any]:
        quote = quotes.pick(self._parts, quotes.standing(self._parts), self._now)
        return quotes.variables(self._parts, quote) if quote else {"number": "", "text": ""}


class Target(LookedUp):
    """The first word after a command."""

    shown = "name"

    def __init__(self, parts: Parts, use: Use) -> None:
        self._parts, self._use = parts, use

    def look(self) -> dict[str, Any]:
        name, platform = (self._use.args.split() or [""])[0].lstrip("@"), self._use.message.platform
        account = self._parts.find_account(name, platform) if name else None
        channel = self._parts.find_channel(name, platform) if name else None
        login = channel.login if channel else account[1].login if account else name.lower()
        shown = channel.name if channel and channel.name else account[1].name if account else name
        return {
            "name": shown,
            "login": login,
            "link": (channel.link if channel else None) or "",
            "category": (channel.category if channel else None) or "",
            "known": bool(account or channel),
        }


def use_variables(parts: Parts, use: Use, uses: int) -> dict[str, Any]:
    """Everything for a command's reply; `uses` counts this use."""
    return channel_variables(parts, use.message.platform, use.now) | {
        "person": person_variables(use.person, use.level, use.now),
        "args": use.args,
        "arg": use.args.split(),
        "target": Target(parts, use),
        "uses": uses,
    }
