"""Kits between channels: what a document is made of, what an incoming one would change, and the changes of a choice.

A document is taken apart into *items*, each with its place: an entry of a named list (`commands.kiln`), a built-in, a
filter, or one value or list of another section (`channel.prefix`).
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from gentlegate.core.errors import KitError
from gentlegate.core.kit import edit
from gentlegate.core.kit.load import load_kit
from gentlegate.core.kit.model import Kit
from gentlegate.core.kit.names import heard_names
from gentlegate.core.kit.warnings import warnings_of
from gentlegate.core.text.folding import fold_name

WHOLE = ("ladder", "drawbridge")
"""Sections that are one item each; every other one is taken apart by its keys."""
_COUNTER = re.compile(r"\bcounter\.([\w-]+)")


@dataclass(frozen=True, slots=True)
class Clash:
    """A name that an incoming command would have, and what has it here."""

    name: str
    owner: str


@dataclass(frozen=True, slots=True)
class Item:
    """One item of an incoming kit beside what stands here; `needs` are places of that kit that it mentions."""

    place: str
    state: Literal["new", "same", "differs"]
    ours: Any
    theirs: Any
    needs: tuple[str, ...] = ()
    clashes: tuple[Clash, ...] = ()


@dataclass(frozen=True, slots=True)
class Pick:
    """An item to take over; `names` gives new names for its name and aliases, an empty one leaves an alias out."""

    place: str
    names: Mapping[str, str] = field(default_factory=dict)


def places_of(document: edit.Document) -> list[str]:
    """The place of every item, in the document's order."""
    found: list[str] = []
    for section, value in document.items():
        if section in edit.NAMED_LISTS:
            found += [f"{section}.{entry['name']}" for entry in value]
        elif section in WHOLE:
            found.append(section)
        elif section != "gentlegate":
            found += [f"{section}.{key}" for key in value]
    return found


def export(document: edit.Document, places: Iterable[str] | None = None) -> edit.Document:
    """A kit of these items (all if left out) and of what they mention. KitError where a place is not there."""
    opened = edit.Opened(document)
    wanted = dict.fromkeys(places_of(document) if places is None else places)
    for place in list(wanted):
        if opened.read(place) is None:
            raise KitError(place, "there is nothing at this place to export")
    waiting = list(wanted)
    while waiting:
        mentioned = [place for place in mentions(waiting[0], opened.read(waiting.pop(0))) if place not in wanted]
        wanted.update(dict.fromkeys(mentioned))
        waiting += mentioned
    in_order = {fold_name(place): place for place in places_of(document)}
    chosen = {fold_name(place) for place in wanted}
    made = edit.Opened({"gentlegate": 1})
    for folded, place in in_order.items():
        if folded in chosen:
            made.write(place, opened.read(place))
    return made.document


def mentions(place: str, value: Any) -> list[str]:
    """The places of counters and commands that an item cannot be without."""
    section = place.partition(".")[0]
    if section in ("commands", "cues"):
        return [f"counters.{step['counter']}" for step in value.get("counts", [])]
    if section == "rotas":
        return [f"commands.{n['command']}" for n in value.get("notices", []) if n.get("command")]
    return []


def compare(document: edit.Document, incoming: edit.Document) -> list[Item]:
    """Every item of an incoming kit beside what stands here. KitError where that kit cannot be used."""
    return look_at(document, incoming)[0]


def look_at(document: edit.Document, incoming: edit.Document) -> tuple[list[Item], list[str]]:
    """The items of an incoming kit, and what is odd about it. KitError where it cannot be used."""
    here = load_kit(document)
    there = load_kit(incoming, beside=here)
    return _items(document, incoming, here, there), warnings_of(there, here)


def _items(document: edit.Document, incoming: edit.Document, here: Kit, there: Kit) -> list[Item]:
    ours, theirs = edit.Opened(document), edit.Opened(incoming)
    our_models, their_models = _Models(here), _Models(there)
    names = heard_names(here)
    items = []
    for place in places_of(incoming):
        own, other = ours.read(place), theirs.read(place)
        if own is None:
            state: Literal["new", "same", "differs"] = "new"
        else:
            state = "same" if our_models.at(place) == their_models.at(place) else "differs"
        needed = tuple(p for p in mentions(place, other) if ours.read(p) is None)
        items.append(Item(place, state, own, other, needed, tuple(_clashes(place, other, names))))
    return items


class _Models:
    """Values as the kit's models hold them, so that what is written differently and means the same is the same."""

    def __init__(self, kit: Kit) -> None:
        self._kit = kit
        self._lists = {
            section: {fold_name(entry.name): entry for entry in getattr(kit, section)}
            for section in edit.NAMED_LISTS
        }

    def at(self, place: str) -> Any:
        section, _, name = place.partition(".")
        if section in edit.NAMED_LISTS:
            found: Any = self._lists[section].get(fold_name(name))
        else:
            found = getattr(self._kit, section)
            if name:
                found = found.get(name) if isinstance(found, dict) else getattr(found, name)
        return found.model_dump() if hasattr(found, "model_dump") else found


def _clashes(place: str, value: Any, names: Mapping[str, tuple[str, str]]) -> Iterator[Clash]:
    section, _, own = place.partition(".")
    if section != "commands":
        return
    for name in (value["name"], *value.get("aliases", [])):
        key, owner = names.get(fold_name(name), ("", ""))
        if key and key != f"commands.{fold_name(own)}":
            yield Clash(name, owner)


def changes_of(document: edit.Document, incoming: edit.Document, picks: Iterable[Pick]) -> list[edit.Change]:
    """The changes that take these items over. KitError where a place or a new name cannot be."""
    ours, theirs = edit.Opened(document), edit.Opened(incoming)
    chosen = list(picks)
    renamed = {
        (pick.place.partition(".")[0], fold_name(old)): new
        for pick in chosen
        for old, new in pick.names.items()
        if fold_name(old) == fold_name(pick.place.partition(".")[2])
    }
    changes: dict[str, edit.Change] = {}
    for pick in chosen:
        value = theirs.read(pick.place)
        if value is None:
            raise KitError(pick.place, "the kit has nothing at this place")
        place, value = _renamed(pick, value, renamed)
        if fold_name(place) in changes or (place != pick.place and ours.read(place) is not None):
            raise KitError(place, "this name is in use already; choose another one")
        changes[fold_name(place)] = (place, value)
    return list(changes.values())


def _renamed(pick: Pick, value: Any, renamed: Mapping[tuple[str, str], str]) -> tuple[str, Any]:
    """An item under its new names, and with the new names of what it mentions."""
    section = pick.place.partition(".")[0]
    if section not in edit.NAMED_LISTS:
        return pick.place, value
    names = {fold_name(old): new.strip() for old, new in pick.names.items()}
    value = dict(value)
    value["name"] = names.get(fold_name(value["name"]), value["name"])
    if not value["name"]:
        raise KitError(pick.place, "give it a name")
    if value.get("aliases"):
        aliases = [names.get(fold_name(alias), alias) for alias in value["aliases"]]
        value["aliases"] = [alias for alias in aliases if alias]
    if value.get("counts"):
        value["counts"] = [_mentioning(step, "counter", "counters", renamed) for step in value["counts"]]
    if value.get("notices"):
        value["notices"] = [_in_notice(notice, renamed) for notice in value["notices"]]
    if value.get("reply"):
        value["reply"] = _in_reply(value["reply"], renamed)
    return f"{section}.{value['name']}", value


def _mentioning(entry: Any, key: str, section: str, renamed: Mapping[tuple[str, str], str]) -> Any:
    old = entry.get(key)
    return entry | {key: renamed.get((section, fold_name(old)), old)} if old else entry


def _in_notice(notice: Any, renamed: Mapping[tuple[str, str], str]) -> Any:
    notice = _mentioning(notice, "command", "commands", renamed)
    return notice | {"text": _in_text(notice["text"], renamed)} if notice.get("text") else notice


def _in_reply(reply: Any, renamed: Mapping[tuple[str, str], str]) -> Any:
    return _in_text(reply, renamed) if isinstance(reply, str) else [_in_text(text, renamed) for text in reply]


def _in_text(text: str, renamed: Mapping[tuple[str, str], str]) -> str:
    """A template with its counters under their new names."""
    return _COUNTER.sub(lambda m: f"counter.{renamed.get(('counters', fold_name(m[1])), m[1])}", text)
