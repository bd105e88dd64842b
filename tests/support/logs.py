"""Short ways to write a log and run it through the engine."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from gentlegate.core.effects import Effect
from gentlegate.core.engine import Engine
from gentlegate.core.events import DeskAct, Event, Message, Person, StreamChange, Tick
from gentlegate.core.moments import SECOND, parse_moment

BEGIN = parse_moment("2026-03-07T18:00:00Z")
_ids = iter(range(1, 10**9))


def at(seconds: float) -> int:
    """The moment this long after the evening's beginning."""
    return BEGIN + round(seconds * SECOND)


def person(login: str = "mossandloam", platform: str = "brook", badges: Iterable[str] = ()) -> Person:
    return Person(platform, f"u-{login}", login, login.title(), frozenset(badges))


def says(
    when: float,
    text: str,
    login: str = "mossandloam",
    *badges: str,
    platform: str = "brook",
    id: str | None = None,
    reply_to: str | None = None,
    emotes: tuple[tuple[int, int], ...] = (),
) -> Message:
    who = person(login, platform, badges)
    return Message(at(when), platform, id or f"m{next(_ids)}", who, text, emotes, False, reply_to)


def live(when: float = 0, platform: str = "brook", **values: Any) -> StreamChange:
    return StreamChange(at(when), platform, True, **values)


def offline(when: float, platform: str = "brook") -> StreamChange:
    return StreamChange(at(when), platform, False)


def desk(when: float, do: str, by: str = "brook:u-odalys", **values: Any) -> DeskAct:
    return DeskAct(at(when), by, do, values)


def run(kit: dict[str, Any], *events: Event, until: float | None = None, **options: Any) -> list[Effect]:
    """The effects of the events, in order."""
    engine = Engine(kit, **options)
    effects: list[Effect] = []
    for event in events:
        effects += engine.handle(event)
    if until is not None:
        effects += engine.handle(Tick(at(until)))
    return effects


def of(effects: Iterable[Effect], kind: str) -> list[Any]:
    return [effect for effect in effects if effect.effect == kind]


def said(effects: Iterable[Effect]) -> list[str]:
    return [effect.text for effect in of(effects, "say")]


def whys(effects: Iterable[Effect]) -> list[str]:
    return [effect.why for effect in of(effects, "refused")]


def moments(effects: Iterable[Effect]) -> list[float]:
    """When each was, in seconds after the beginning."""
    return [(effect.at - BEGIN) / SECOND for effect in effects]
