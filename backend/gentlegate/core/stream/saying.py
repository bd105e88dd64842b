"""Answering whoever asked for something: in chat where it was asked there, at the Desk by the effects alone."""

from __future__ import annotations

from typing import Any

from gentlegate.core.commands.replies import aloud
from gentlegate.core.commands.templates import render
from gentlegate.core.commands.use import Use
from gentlegate.core.effects import Cause, Effect, Refused, Warned, Why
from gentlegate.core.errors import TemplateProblem
from gentlegate.core.parts import Parts


def of_use(use: Use) -> dict[str, Any]:
    """What is kept of a use in chat until its answers are there."""
    return {
        "platform": use.message.platform,
        "message": use.message.id,
        "command": use.name,
        "by": use.person.key,
        "by_name": use.person.name,
        "kind": "command",
    }


def of_desk(do: str, by: str, by_name: str, platform: str | None = None) -> dict[str, Any]:
    """What is kept of an act at the Desk until its answers are there."""
    return {"platform": platform, "message": None, "command": do, "by": by, "by_name": by_name, "kind": "desk"}


def cause_of(values: dict[str, Any]) -> Cause:
    return Cause(values["kind"], values["command"], values["message"])


def say(parts: Parts, values: dict[str, Any], text: str, now: int) -> list[Effect]:
    """Say it where it was asked; nothing is said aloud for the Desk."""
    if values["kind"] == "desk" or not text:
        return []
    return said_on(parts, values["platform"], text, cause_of(values), now)


def said_on(parts: Parts, platform: str, text: str, cause: Cause, now: int) -> list[Effect]:
    return [*aloud(text, platform, parts.abilities(platform), cause, now)]


def refuse(
    parts: Parts, values: dict[str, Any], why: Why, text: str, now: int, platform: str | None = None
) -> list[Effect]:
    """Refuse what was asked, and say why."""
    refused = Refused(
        at=now,
        platform=platform or values["platform"],
        message=values["message"],
        command=values["command"],
        why=why,
        says=text if values["kind"] == "desk" else None,
        cause=cause_of(values),
    )
    return [refused, *say(parts, values, text, now)]


def rendered(parts: Parts, template: str, variables: dict[str, Any], about: str, now: int) -> str | Warned:
    """A template's text, or the warning that it failed."""
    try:
        return render(template, variables, lambda: parts.chance(about, now))
    except TemplateProblem as error:
        return Warned(at=now, about=about, problem=str(error), cause=None)
