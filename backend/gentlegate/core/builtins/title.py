"""`!title [text]`: read the title, or set it on every live platform, or on the one named with `on NAME`."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from gentlegate.core.builtins.base import Answer, Plan, refuse
from gentlegate.core.commands.use import Use
from gentlegate.core.effects import Cause, Effect, Title
from gentlegate.core.parts import Parts


class TitleBuiltIn:
    key = "title"

    def plan(self, use: Use, parts: Parts) -> Plan:
        if not use.args:
            return Plan(run=lambda: ([], _read(parts)))
        text, platforms = aimed(use.args, parts)
        if not text:
            return refuse("Write the title after the command.", changes=True)
        problems = too_long(text, platforms, parts)
        if len(problems) == len(platforms):
            return refuse(" ".join(problems.values()) or "No platform is connected.", changes=True)
        return Plan(run=lambda: set_title(text, platforms, parts, use.now, use.cause), changes=True)


def targets(parts: Parts) -> list[str]:
    """Every live platform; while none is live, every platform known."""
    return list(parts.streams.now.live) or parts.platform_names()


def set_title(text: str, platforms: Iterable[str], parts: Parts, now: int, cause: Cause) -> Answer:
    """Set it where it fits; the answer says where it is now and what it was before."""
    platforms = list(platforms)
    problems = too_long(text, platforms, parts)
    took = [name for name in platforms if name not in problems]
    before = {name: parts.title(name) for name in took}
    effects: list[Effect] = []
    for name in took:
        parts.state.platforms.edit(name).title = text
        effects.append(Title(at=now, platform=name, title=text, cause=cause))
    said = []
    if took:
        where = f" on {_listed(took)}" if problems or len(platforms) < len(targets(parts)) else ""
        said.append(f'Title is now "{text}"{where}. Before: {by_platform(before)}.')
    return effects, " ".join([*said, *problems.values()])


def too_long(text: str, platforms: Iterable[str], parts: Parts) -> dict[str, str]:
    """By platform, why it would not take this title."""
    problems = {}
    for name in platforms:
        limit = parts.abilities(name).title
        if limit is not None and len(text) > limit:
            shown = name.capitalize()
            problems[name] = f"{shown} takes titles of at most {limit} characters; this one has {len(text)}."
    return problems


def aimed_at_one(args: str, parts: Parts, here: str) -> tuple[str, str]:
    """The text, and the platform named with `on NAME`, or this one."""
    text, platforms = aimed(args, parts)
    return text, platforms[0] if text != args else here


def aimed(args: str, parts: Parts) -> tuple[str, list[str]]:
    """The text, and the platform named with `on NAME`, or all that are meant."""
    words = args.rsplit(None, 2)
    if words[-2:-1] == ["on"] and words[-1].lower() in parts.platform_names():
        return " ".join(words[:-2]), [words[-1].lower()]
    return args, targets(parts)


def _read(parts: Parts) -> str:
    titles = {name: title for name in targets(parts) if (title := parts.title(name))}
    return f"Title: {by_platform(titles)}." if titles else "No title is set."


def by_platform(titles: Mapping[str, str | None]) -> str:
    """What each platform has, in quotes; once where all have the same."""
    quoted = {name: f'"{title}"' if title else "none" for name, title in titles.items()}
    if len(set(quoted.values())) == 1:
        return next(iter(quoted.values()))
    return ", ".join(f"{title} ({name.capitalize()})" for name, title in quoted.items())


def _listed(names: list[str]) -> str:
    shown = [name.capitalize() for name in names]
    return shown[0] if len(shown) == 1 else f"{', '.join(shown[:-1])} and {shown[-1]}"
