"""What settings say, for comparing: entries by name, empty sections and places in lists left aside."""

from __future__ import annotations

from typing import Any

from gentlegate.core.kit.edit import NAMED_LISTS
from gentlegate.core.text.folding import fold_name


def said_by(settings: dict[str, Any]) -> Any:
    """The settings as nested tables without what is empty."""
    named = {
        section: {fold_name(entry["name"]): entry for entry in settings.get(section) or []}
        for section in NAMED_LISTS
    }
    return _full({**settings, **named})


def _full(value: Any) -> Any:
    if not isinstance(value, dict):
        return value
    return {key: kept for key, one in value.items() if (kept := _full(one)) not in ({}, None)}
