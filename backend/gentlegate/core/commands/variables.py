"""What a template may ask for (spec page 4, *Templates*)."""

from __future__ import annotations

from typing import Any

from gentlegate.core.commands.use import Use
from gentlegate.core.commands.values import MomentWords, SpanWords
from gentlegate.core.events import LEVELS, Person
from gentlegate.core.parts import Parts


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
            "uptime": SpanWords(now - stream.began) if parts.streams.live else "",
            "live": parts.streams.live,
            "platform": platform,
        },
        "channel": parts.kit.channel.name,
        "counter": counters,
        "now": MomentWords(now, parts.kit.channel.timezone),
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


def use_variables(parts: Parts, use: Use, uses: int) -> dict[str, Any]:
    """Everything for a command's reply; `uses` counts this use."""
    return channel_variables(parts, use.message.platform, use.now) | {
        "person": person_variables(use.person, use.level, use.now),
        "args": use.args,
        "arg": use.args.split(),
        "uses": uses,
    }
