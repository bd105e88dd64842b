"""Shoutouts: looked up, guarded, said, and carried out by the platform where it can (spec page 5)."""

from __future__ import annotations

from typing import Any

from gentlegate.core.commands.variables import channel_variables
from gentlegate.core.effects import Effect, Shoutout
from gentlegate.core.moments import in_words
from gentlegate.core.parts import Parts
from gentlegate.core.records import AskRecord, ShoutoutRecord
from gentlegate.core.stream import saying
from gentlegate.core.stream.asks import look_up
from gentlegate.core.text.folding import fold_name

LAST = "last"
"""The key of the last shoutout of all, for its stage card; no log-in, as those are kept with a sign before them."""


def key_of(login: str) -> str:
    return "@" + fold_name(login.strip().lstrip("@"))


def held_back(parts: Parts, login: str, now: int) -> str | None:
    """Who gave this channel a shoutout just now, in words."""
    record = parts.state.shoutouts.get(key_of(login))
    if record is None or now - record.at >= parts.kit.shoutouts.guard:
        return None
    return f"{record.by_name} gave {record.name or login} a shoutout {in_words(now - record.at)} ago."


def shout_out(parts: Parts, login: str, platform: str, values: dict[str, Any], now: int) -> list[Effect]:
    """Look the channel up; until then nobody else gives it one."""
    login = login.strip().lstrip("@")
    parts.state.shoutouts.put(key_of(login), ShoutoutRecord(now, values["by"], values["by_name"], login))
    values = values | {"on": platform, "asked": login}
    return look_up(parts, "channel", {platform: login}, "shoutout", values, now, saying.cause_of(values))


def finish(parts: Parts, record: AskRecord, now: int) -> list[Effect]:
    values = record.values
    platform, asked = values["on"], values["asked"]
    found = record.found.get(platform)
    if not isinstance(found, dict) or found.get("problem"):
        parts.state.shoutouts.drop(key_of(asked))
        if values["kind"] == "arrival":
            return []
        problem = found.get("problem") if isinstance(found, dict) else None
        text = f"{platform.capitalize()}: {problem}." if problem else _unknown(asked, platform)
        return saying.refuse(parts, values, "arguments", text, now, platform)
    target = _target(found, asked)
    shown = ShoutoutRecord(record.at, values["by"], values["by_name"], **{k: target[k] for k in _KEPT})
    for key in (key_of(asked), key_of(target["login"]), LAST):
        parts.state.shoutouts.put(key, shown)
    return [*_own(parts, platform, target["login"], values, now), *_said(parts, target, values, now)]


_KEPT = ("name", "login", "link", "category")


def _unknown(asked: str, platform: str) -> str:
    return f'{platform.capitalize()} knows no channel named "{asked}".'


def _target(found: dict[str, Any], asked: str) -> dict[str, Any]:
    login = str(found.get("login") or asked)
    return {
        "name": str(found.get("name") or login),
        "login": login,
        "link": str(found.get("link") or ""),
        "category": str(found.get("category") or ""),
        "known": True,
    }


def _own(parts: Parts, platform: str, login: str, values: dict[str, Any], now: int) -> list[Effect]:
    if not parts.abilities(platform).shoutout or platform not in parts.streams.now.live:
        return []
    return [Shoutout(at=now, platform=platform, target=login, cause=saying.cause_of(values))]


def _said(parts: Parts, target: dict[str, Any], values: dict[str, Any], now: int) -> list[Effect]:
    """The personal line, then the template."""
    settings, platform = parts.kit.shoutouts, values["on"]
    lines = {fold_name(login): text for login, text in settings.lines.items()}
    line = lines.get(fold_name(target["login"]))
    template = settings.reply if target["category"] else settings.plain
    variables = channel_variables(parts, platform, now) | {"target": target}
    texts = []
    for text in (line, template):
        if text:
            made = saying.rendered(parts, text, variables, "shoutouts", now)
            if not isinstance(made, str):
                return [made]
            texts.append(made)
    return saying.said_on(parts, platform, " ".join(texts), saying.cause_of(values), now)
