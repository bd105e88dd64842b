"""Changing places of a kit document. Places are dotted; entries of lists are named by their `name`.

A document is never changed in place: what is written shares with it all that stays the same.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from gentlegate.core.errors import KitError
from gentlegate.core.text.folding import fold_name

NAMED_LISTS = ("commands", "cues", "counters", "rotas")
LINES = "shoutouts.lines."
Document = dict[str, Any]
Change = tuple[str, Any]
"""A place and what is to stand there; None removes it."""


class Opened:
    """A document opened for many reads and writes; `document` is what came of them."""

    def __init__(self, document: Document) -> None:
        self._document = dict(document)
        self._lists: dict[str, dict[str, Any]] = {}
        self._own: set[tuple[str, ...]] = set()

    def _entries(self, section: str) -> dict[str, Any]:
        """A named list as a table by folded name, in its order."""
        if section not in self._lists:
            listed = self._document.get(section) or []
            self._lists[section] = {fold_name(entry.get("name", "")): entry for entry in listed}
        return self._lists[section]

    @property
    def document(self) -> Document:
        return self._document | {section: list(entries.values()) for section, entries in self._lists.items()}

    def read(self, path: str) -> Any:
        """What stands at the place, or None."""
        section, name = _in_named_list(path)
        if name:
            return self._entries(section).get(fold_name(name))
        if section in self._lists:
            return list(self._lists[section].values())
        here: Any = self._document
        for part in _parts(path):
            here = here.get(part) if isinstance(here, dict) else None
            if here is None:
                return None
        return here

    def write(self, path: str, value: Any) -> None:
        """Let the value stand at the place; None removes it. KitError where there is no such place."""
        section, name = _in_named_list(path)
        if name:
            self._write_entry(self._entries(section), name, path, value)
            return
        self._lists.pop(section, None)
        *parents, last = _parts(path)
        here = self._document
        for depth, part in enumerate(parents):
            there = here.get(part, {})
            if not isinstance(there, dict):
                raise KitError(path, "there is no such place in the settings")
            place = tuple(parents[: depth + 1])
            if place not in self._own:
                there = dict(there)
                self._own.add(place)
            here[part] = there
            here = there
        if value is None:
            here.pop(last, None)
        else:
            here[last] = value
        self._own = {place for place in self._own if place[: len(parents) + 1] != (*parents, last)}

    @staticmethod
    def _write_entry(entries: dict[str, Any], name: str, path: str, value: Any) -> None:
        if value is not None:
            entries[fold_name(name)] = value
        elif entries.pop(fold_name(name), None) is None:
            raise KitError(path, "there is no such entry to remove")


def read(document: Document, path: str) -> Any:
    """What stands at the place, or None."""
    return Opened(document).read(path)


def where_it_stands(path: str, value: Any) -> str:
    """The place under which a value is found once it was written: an entry may have been given another name."""
    section, name = _in_named_list(path)
    own = value.get("name") if name and isinstance(value, dict) else None
    return f"{section}.{own}" if isinstance(own, str) and fold_name(own) != fold_name(name) else path


def write(document: Document, path: str, value: Any) -> Document:
    """A new document with the value at the place; None removes it. KitError where there is no such place."""
    return write_all(document, [(path, value)])


def write_all(document: Document, changes: Iterable[Change]) -> Document:
    """A new document with all the changes, in their order. KitError where one cannot be."""
    opened = Opened(document)
    for path, value in changes:
        opened.write(path, value)
    return opened.document


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
    """The keys of a place; a personal line is named by a log-in, which may have dots."""
    if path.startswith(LINES):
        return [*LINES.strip(".").split("."), path.removeprefix(LINES)]
    return path.split(".")


def _in_named_list(path: str) -> tuple[str, str]:
    """Section, and the entry's name where the place is an entry of a named list."""
    section, _, rest = path.partition(".")
    return section, rest if section in NAMED_LISTS else ""
