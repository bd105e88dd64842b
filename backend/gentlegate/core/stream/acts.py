"""The Desk's acts for running the stream; the same rules as in chat, by people whose level the Desk has checked."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from gentlegate.core.builtins.title import targets
from gentlegate.core.effects import Cause, Effect
from gentlegate.core.errors import ActError
from gentlegate.core.events import DeskAct
from gentlegate.core.parts import Parts
from gentlegate.core.stream import ads, arrivals, categories, marks, quotes, raids, saying, shoutouts


def _text(act: DeskAct, field: str) -> str:
    value = act.values.get(field)
    if not isinstance(value, str) or not value.strip():
        raise ActError(f"{field} is missing", field)
    return value.strip()


def _platform(parts: Parts, act: DeskAct) -> str:
    """The platform that is meant: the one named, or the first live one."""
    named = act.values.get("platform")
    if named is not None:
        if named not in parts.platform_names():
            raise ActError(f'no platform is named "{named}"', "platform")
        return str(named)
    known = parts.streams.now.live or parts.platform_names()
    if not known:
        raise ActError("no platform is connected", "platform")
    return known[0]


def _values(act: DeskAct, platform: str | None = None) -> dict[str, Any]:
    return saying.of_desk(act.do, act.by, str(act.values.get("name_of_by", act.by)), platform)


def _category(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    wanted = act.values.get("platforms")
    platforms = [str(name) for name in wanted] if isinstance(wanted, list) else targets(parts)
    if not platforms:
        raise ActError("no platform is connected", "platforms")
    if problem := categories.unable(parts, platforms):
        raise ActError(problem.rstrip("."), "platforms")
    return categories.set_category(parts, _text(act, "category"), platforms, _values(act), now)


def _shoutout(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    name = _text(act, "name")
    if held := shoutouts.held_back(parts, name, now):
        raise ActError(held.rstrip("."), "name")
    platform = _platform(parts, act)
    return shoutouts.shout_out(parts, name, platform, _values(act, platform), now)


def _marker(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    note = str(act.values.get("note") or "").strip()
    if not parts.streams.live:
        raise ActError("nothing is live, so there is nothing to mark", "note")
    if len(note) > marks.LONGEST_NOTE:
        raise ActError(f"a note has at most {marks.LONGEST_NOTE} characters", "note")
    return marks.mark(parts, note, _values(act), now)[0]


def _clip(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    able = marks.able(parts, "clip", act.values.get("platform"))
    if not able:
        raise ActError("no platform that is live makes clips", "platform")
    return marks.clip(parts, able[0], _values(act, able[0]), now)


def _ad(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    platform, seconds = _platform(parts, act), str(act.values.get("seconds", ""))
    if problem := ads.problem(parts, platform, seconds, now):
        raise ActError(problem[1].rstrip("."), "seconds")
    return ads.start(parts, platform, int(seconds), _values(act, platform), now)


def _raid(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    platform = _platform(parts, act)
    if problem := raids.problem(parts, platform):
        raise ActError(problem[1].rstrip("."), "platform")
    return raids.arm(parts, _text(act, "name"), platform, _values(act, platform), now)


def _cancel_raid(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    if raids.cancel(parts) is None:
        raise ActError("no raid is armed", "name")
    return []


def _quote(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    """`text` adds one; `number` with `remove` or `restore` takes it away or puts it back."""
    cause = Cause("desk", "quote")
    if act.values.get("text") is not None:
        text, by_name = _text(act, "text"), str(act.values.get("name_of_by", act.by))
        if len(text) > quotes.LONGEST:
            raise ActError(f"a quote has at most {quotes.LONGEST} characters", "text")
        given = {"said_by": act.values.get("said_by"), "category": act.values.get("category")}
        platform = next(iter(parts.streams.now.live), None)
        return [quotes.add(parts, text, act.by, by_name, platform, now, cause, **given)[1]]
    number = act.values.get("number")
    if not isinstance(number, int):
        raise ActError("give the quote's text or number", "number")
    change = quotes.restore if act.values.get("restore") else quotes.remove
    changed = change(parts, number, act.by, now, cause)
    if changed is None:
        raise ActError(f"there is no quote {number} to change", "number")
    return [changed]


def _arrivals(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    person = act.values.get("person")
    identity = parts.directory.identity_of(str(person)) if person else None
    if not arrivals.forget(parts, identity):
        raise ActError("nobody has arrived in this stream yet", "person")
    return []


ACTS: dict[str, Callable[[Parts, DeskAct, int], list[Effect]]] = {
    "category": _category,
    "shoutout": _shoutout,
    "marker": _marker,
    "clip": _clip,
    "ad": _ad,
    "raid": _raid,
    "cancel_raid": _cancel_raid,
    "quote": _quote,
    "arrivals": _arrivals,
}
