"""Changing one place of a kit document. Places are dotted; entries of lists are named by their `name`."""

from __future__ import annotations

import copy
from typing import Any

from gentlegate.core.errors import KitError
from gentlegate.core.text.folding import fold_name

NAMED_LISTS = ("commands", "cues", "counters", "rotas")
Document = dict[str, Any]


def read(document: Document, path: str) -> Any:
    """What stands at the place, or None."""
    here: Any = document
    for depth, part in enumerate(_parts(path)):
        if isinstance(here, list):
            here = next((entry for entry in here if fold_name(entry.get("name", "")) == fold_name(part)), None)
        elif isinstance(here, dict):
            here = here.get(part)
        if here is None:
            return None
        if depth > 20:
            raise KitError(path, "this place is too deep")
    return here


def write(document: Document, path: str, value: Any) -> Document:
    """A new document with the value at the place; None removes it. KitError where there is no such place."""
    changed = copy.deepcopy(document)
    parts = _parts(path)
    if parts[0] in NAMED_LISTS and len(parts) > 1:
        _write_entry(changed.setdefault(parts[0], []), parts, path, value)
    else:
        _write_key(changed, parts, path, value)
    return changed


def add(document: Document, path: str, values: list[Any]) -> Document:
    """A new document with these entries at the end of the list at the place; what stands there already stays once."""
    there = _list_at(document, path)
    known = {_entry_key(entry) for entry in there}
    return write(document, path, [*there, *(value for value in values if _entry_key(value) not in known)])


def take(document: Document, path: str, values: list[Any]) -> Document:
    """A new document without these entries in the list at the place."""
    gone = {_entry_key(value) for value in values}
    return write(document, path, [entry for entry in _list_at(document, path) if _entry_key(entry) not in gone])


def _list_at(document: Document, path: str) -> list[Any]:
    there = read(document, path)
    if there is not None and not isinstance(there, list):
        raise KitError(path, "there is no list at this place")
    return list(there or [])


def _entry_key(entry: Any) -> str:
    text = entry.get("text", entry.get("name")) if isinstance(entry, dict) else entry
    return str(text).strip().casefold()


def _parts(path: str) -> list[str]:
    head, _, rest = path.partition(".")
    if head in NAMED_LISTS and rest:
        return [head, rest]
    return path.split(".")


def _write_entry(entries: list[Any], parts: list[str], path: str, value: Any) -> None:
    wanted = fold_name(parts[1])
    place = next((i for i, entry in enumerate(entries) if fold_name(entry.get("name", "")) == wanted), None)
    if value is None:
        if place is None:
            raise KitError(path, "there is no such entry to remove")
        del entries[place]
    elif place is None:
        entries.append(value)
    else:
        entries[place] = value


def _write_key(document: Document, parts: list[str], path: str, value: Any) -> None:
    here = document
    for part in parts[:-1]:
        here = here.setdefault(part, {})
        if not isinstance(here, dict):
            raise KitError(path, "there is no such place in the settings")
    if value is None:
        here.pop(parts[-1], None)
    else:
        here[parts[-1]] = value
