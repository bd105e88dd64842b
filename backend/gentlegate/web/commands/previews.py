"""How a template would read on each platform, with what it would be told where it is used."""

from __future__ import annotations

from typing import Any, Literal

from gentlegate.core.commands.replies import parts as split
from gentlegate.core.commands.templates import parse, render
from gentlegate.core.commands.variables import channel_variables
from gentlegate.core.parts import Parts
from gentlegate.core.stream import quotes
from gentlegate.web.commands.schemas import PreviewOnPlatform

Used = Literal["command", "arrival", "shoutout", "plain", "happening", "quote", "notice"]
"""Where a template is used; `plain` is a shoutout to somebody who never streamed."""
SHOWN_PERSON = {"name": "Thimblewick", "login": "thimblewick", "level": "everyone", "follows_for": "2 d 4 h"}
SHOWN_QUOTE = {
    "number": 12,
    "text": "Clay remembers everything you did to it.",
    "said_by": "Marlo Finch",
    "by": "Odalys",
    "category": "Wheel throwing",
    "date": "2026-03-07",
}


def shown(parts: Parts, template: str, used: Used, now: int) -> list[PreviewOnPlatform]:
    """The template on each platform. TemplateProblem says where it is wrong."""
    parse(template)
    found = []
    for platform in parts.platform_names():
        variables = channel_variables(parts, platform, now) | _told(parts, used, platform)
        text = render(template, variables, lambda: parts.chance("preview"))
        found.append(PreviewOnPlatform(platform=platform, parts=split(text, parts.abilities(platform).length)))
    return found


def _told(parts: Parts, used: Used, platform: str) -> dict[str, Any]:
    person = {"person": SHOWN_PERSON | {"platform": platform}}
    target = {"login": "wickerworks", "name": "Wicker Works", "link": f"https://{platform}.example/wickerworks"}
    match used:
        case "notice":
            return {}
        case "arrival":
            return person
        case "shoutout" | "plain":
            category = "Basket weaving" if used == "shoutout" else ""
            return {"target": target | {"category": category, "known": True}}
        case "happening":
            return person | {"amount": 12, "text": "for the kiln"}
        case "quote":
            newest = quotes.standing(parts)[-1:]
            return {"quote": quotes.variables(parts, newest[0]) if newest else SHOWN_QUOTE}
    named = {"name": "Two", "login": "two", "link": "", "category": "", "known": False}
    return person | {"args": "two mugs", "arg": ["two", "mugs"], "target": named, "uses": 12, "wait": "8 s"}
