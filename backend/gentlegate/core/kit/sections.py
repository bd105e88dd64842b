"""Sections of the settings as wholes: what putting one back to an earlier state would change."""

from __future__ import annotations

from typing import Any, Literal, get_args

from gentlegate.core.kit import edit
from gentlegate.core.text.folding import fold_name

SectionName = Literal[
    "channel", "filters", "ladder", "drawbridge", "commands", "built_ins", "cues", "counters", "rotas", "arrivals",
    "shoutouts", "happenings", "quotes", "people", "platforms",
]  # fmt: skip
SECTIONS: tuple[SectionName, ...] = get_args(SectionName)
NOT_KEPT = "filters.links.feeds"
"""Imported lists are not in the settings themselves, so that they cannot be put back with them."""


def going_back(now: edit.Document, then: edit.Document, section: str) -> list[edit.Change]:
    """The changes that let a section be as it was: entries of a named list each, values each, filters' values each."""
    here, there = now.get(section), then.get(section)
    if section in edit.NAMED_LISTS:
        return _entries(section, here or [], there or [])
    if section == "filters":
        keys = sorted({*(here or {}), *(there or {})})
        return [
            one for key in keys for one in _values(f"filters.{key}", (here or {}).get(key), (there or {}).get(key))
        ]
    return _values(section, here, there)


def _entries(section: str, here: list[Any], there: list[Any]) -> list[edit.Change]:
    one = {fold_name(entry["name"]): entry for entry in here}
    other = {fold_name(entry["name"]): entry for entry in there}
    gone = [(f"{section}.{entry['name']}", None) for key, entry in one.items() if key not in other]
    back = [(f"{section}.{entry['name']}", entry) for key, entry in other.items() if one.get(key) != entry]
    return [*gone, *back]


def _values(path: str, here: Any, there: Any) -> list[edit.Change]:
    if not isinstance(here or {}, dict) or not isinstance(there or {}, dict):
        return [(path, there)] if here != there else []
    one, other = here or {}, there or {}
    changed = [key for key in sorted({*one, *other}) if one.get(key) != other.get(key)]
    return [(f"{path}.{key}", other.get(key)) for key in changed if f"{path}.{key}" != NOT_KEPT]
