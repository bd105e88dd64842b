"""Setting the category on platforms that name things differently (spec page 5, *Title and category*)."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from rapidfuzz import process
from rapidfuzz.fuzz import ratio

from gentlegate.core.builtins.title import by_platform
from gentlegate.core.effects import Category, Effect
from gentlegate.core.kit.model import PinnedCategory
from gentlegate.core.parts import Parts
from gentlegate.core.records import AskRecord
from gentlegate.core.stream import saying
from gentlegate.core.stream.asks import look_up
from gentlegate.core.text.spelling import fold

NEAR, AHEAD, SUGGESTED = 85, 10, 3


@dataclass(frozen=True, slots=True)
class Found:
    """The entry that a name means in a directory, or what comes nearest to it."""

    entry: str | None
    nearest: tuple[str, ...] = ()


def nearest(wanted: str, names: Iterable[str]) -> Found:
    """Folded-equal, or clearly nearest: at least 85 of 100, and 10 ahead of the second."""
    listed = list(names)
    folded = [_folded(name) for name in listed]
    if _folded(wanted) in folded:
        return Found(listed[folded.index(_folded(wanted))])
    best = process.extract(_folded(wanted), folded, scorer=ratio, limit=SUGGESTED)
    if best and best[0][1] >= NEAR and (len(best) == 1 or best[0][1] - best[1][1] >= AHEAD):
        return Found(listed[best[0][2]])
    return Found(None, tuple(listed[place] for _, score, place in best if score > 0))


def _folded(name: str) -> str:
    return " ".join(fold(name).split())


def meant(parts: Parts, platform: str, wanted: str, listed: Iterable[str] | None) -> Found:
    """What a platform's entry a name means: the channel's own word for it, its exact name, or what is clearly nearest.

    `listed` is the platform's directory, None where it takes any name.
    """
    names = None if listed is None else list(listed)
    pin = _pin(parts, wanted)
    if pin is None and names is not None and _folded(wanted) in map(_folded, names):
        return nearest(wanted, names)
    name = _on_platform(pin or _near_pin(parts, wanted), platform, wanted)
    return Found(name) if names is None else nearest(name, names)


def _pin(parts: Parts, wanted: str) -> PinnedCategory | None:
    folded = _folded(wanted)
    for pin in parts.kit.channel.categories:
        if folded in {_folded(word) for word in (pin.name, *pin.shortcuts)}:
            return pin
    return None


def _near_pin(parts: Parts, wanted: str) -> PinnedCategory | None:
    """The pinned category that a name with a slip in it means."""
    pins = {pin.name: pin for pin in parts.kit.channel.categories}
    return pins.get(nearest(wanted, pins).entry or "")


def _on_platform(pin: PinnedCategory | None, platform: str, wanted: str) -> str:
    return pin.platforms.get(platform, pin.name) if pin else wanted


def agree(parts: Parts, categories: Mapping[str, str]) -> bool:
    """Whether the platforms have the same category, each by its own name for it."""
    return len({_own_name(parts, platform, category) for platform, category in categories.items()}) <= 1


def _own_name(parts: Parts, platform: str, category: str) -> str:
    folded = _folded(category)
    for pin in parts.kit.channel.categories:
        if _folded(pin.platforms.get(platform, pin.name)) == folded:
            return _folded(pin.name)
    return folded


def unable(parts: Parts, platforms: Iterable[str]) -> str | None:
    """What to say where one of these platforms cannot have its category set at all."""
    names = [name.capitalize() for name in platforms if not parts.abilities(name).category]
    return f"The category cannot be set from here on {' and '.join(names)}." if names else None


def set_category(
    parts: Parts, wanted: str, platforms: Iterable[str], values: dict[str, Any], now: int
) -> list[Effect]:
    """Look the category up on each platform; it is set once all have answered."""
    names = {name: _on_platform(_pin(parts, wanted), name, wanted) for name in platforms}
    values = values | {"wanted": wanted}
    return look_up(parts, "category", names, "category", values, now, saying.cause_of(values))


def finish(parts: Parts, record: AskRecord, now: int) -> list[Effect]:
    """Set it where it was found; say where it is now, what it was before, and what was not found."""
    values = record.values
    cause = saying.cause_of(values)
    took: dict[str, str] = {}
    before: dict[str, str | None] = {}
    effects: list[Effect] = []
    problems: dict[str, str] = {}
    for platform, wanted in record.names.items():
        found = _entry(parts, platform, record.found.get(platform), str(values["wanted"]))
        if isinstance(found, Found) and found.entry is not None:
            took[platform] = found.entry
            before[platform] = parts.category(platform)
            parts.state.platforms.edit(platform).category = found.entry
            effects.append(Category(at=now, platform=platform, category=found.entry, cause=cause))
        else:
            problems[platform] = _problem(platform, wanted, found)
    said = [f"Category is now {_words(took)}. Before: {_words(before)}."] if took else []
    text = " ".join([*said, *problems.values()])
    if not took:
        return saying.refuse(parts, values, "arguments", text, now, next(iter(problems), None))
    if values["kind"] == "desk":
        for platform, problem in problems.items():
            effects += saying.refuse(parts, values, "arguments", problem, now, platform)
    return [*effects, *saying.say(parts, values, text, now)]


def _entry(parts: Parts, platform: str, found: Any, wanted: str) -> Found | str:
    """What a platform's answer makes of the name, or what went wrong."""
    if not isinstance(found, dict):
        return "gave no answer"
    if found.get("problem"):
        return str(found["problem"])
    return meant(parts, platform, wanted, None if found.get("any") else found.get("names", ()))


def _problem(platform: str, wanted: str, found: Found | str) -> str:
    shown = platform.capitalize()
    if isinstance(found, str):
        return f"{shown}: {found}."
    close = ", ".join(f'"{name}"' for name in found.nearest)
    return f'{shown} has no category "{wanted}"' + (f"; nearest: {close}." if close else ".")


def _words(names: Mapping[str, str | None]) -> str:
    where = f" on {next(iter(names)).capitalize()}" if len(names) == 1 else ""
    return by_platform(names) + where
