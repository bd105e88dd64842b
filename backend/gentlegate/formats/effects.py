"""Effects as JSON objects, one a line."""

from __future__ import annotations

from dataclasses import fields, is_dataclass
from typing import Any

import orjson

from gentlegate.core.effects import EFFECTS, Effect
from gentlegate.core.moments import format_moment

_FIELDS: dict[type[Effect], tuple[str, ...]] = {
    kind: tuple(f.name for f in fields(kind) if f.name not in ("at", "cause")) for kind in EFFECTS
}


_MOMENTS = frozenset({"until"})
"""Fields that hold a moment, written as a time."""
_ONLY_WHERE_THERE = {
    "timeout": ("asked", "by"),
    "remove": ("by",),
    "ban": ("by",),
    "unban": ("by",),
    "setting": ("tonight",),
    "refused": ("says",),
    "clip": ("ask",),
    "lookup": ("ask",),
}


def _plain(value: Any) -> Any:
    if is_dataclass(value) and not isinstance(value, type):
        return {f.name: _plain(getattr(value, f.name)) for f in fields(value)}
    return [_plain(item) for item in value] if isinstance(value, tuple) else value


def effect_object(effect: Effect) -> dict[str, Any]:
    """An effect with its fields in their published order."""
    found: dict[str, Any] = {"at": format_moment(effect.at), "effect": effect.effect}
    for name in _FIELDS[type(effect)]:
        value = getattr(effect, name)
        found[name] = format_moment(value) if name in _MOMENTS and isinstance(value, int) else _plain(value)
    for name in _ONLY_WHERE_THERE.get(effect.effect, ()):
        if found[name] is None:
            del found[name]
    cause = getattr(effect, "cause", None)
    if cause is not None:
        found["cause"] = _plain(cause)
    return found


def effect_line(effect: Effect) -> bytes:
    """An effect as a line, newline included."""
    return orjson.dumps(effect_object(effect), option=orjson.OPT_APPEND_NEWLINE)
