"""The names that commands, their aliases and built-ins are heard by."""

from __future__ import annotations

from collections.abc import Iterable

from gentlegate.core.builtins.catalogue import BUILT_INS
from gentlegate.core.errors import KitError
from gentlegate.core.kit.model import Kit
from gentlegate.core.text.folding import fold_name
from gentlegate.core.text.spelling import LOOK, OWN


def heard_names(kit: Kit) -> dict[str, tuple[str, str]]:
    """Every folded name of commands, aliases and built-ins: its owner's place and the owner in words.

    KitError for a name that cannot be one, or that two want.
    """
    taken: dict[str, tuple[str, str]] = {}

    def claim(name: str, path: str, place: str, owner: str) -> None:
        key = fold_name(name)
        if not key or any(sign.isspace() for sign in key):
            raise KitError(path, f'"{name}" has a space in it; a command\'s name is one word')
        if key.startswith(fold_name(kit.channel.prefix)):
            raise KitError(path, f'write the name without its prefix: "{key[len(kit.channel.prefix) :]}"')
        if key in taken:
            raise KitError(path, f'"{name}" is already {taken[key][1]}; choose another name')
        taken[key] = (place, owner)

    for key, built_in in BUILT_INS.items():
        setting = kit.built_ins.get(key)
        names = setting.names if setting and setting.names else built_in.names
        for index, name in enumerate(names):
            claim(name, f"built_ins.{key}.names.{index}", f"built_ins.{key}", f"the built-in {key}")
    for index, command in enumerate(kit.commands):
        place = f"commands.{fold_name(command.name)}"
        claim(command.name, f"commands.{index}.name", place, f"the command {command.name}")
    for index, command in enumerate(kit.commands):
        place, owner = f"commands.{fold_name(command.name)}", f"an alias of {command.name}"
        for number, alias in enumerate(command.aliases):
            claim(alias, f"commands.{index}.aliases.{number}", place, owner)
    return taken


def looks_like(name: str, names: Iterable[str]) -> str | None:
    """The one of the names that this one would be mistaken for: written in letters of other scripts, read the same."""
    folded = fold_name(name)
    look, own = folded.translate(LOOK), folded.translate(OWN)
    for other in names:
        if other != folded and other.translate(LOOK) == look and other.translate(OWN) != own:
            return other
    return None
