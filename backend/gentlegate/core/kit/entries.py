"""What saving or removing a command changes besides itself: the rotas that have it as a notice."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from gentlegate.core.kit import edit
from gentlegate.core.text.folding import fold_name


def saving(
    document: edit.Document, name: str, command: dict[str, Any], rotas: Iterable[str] | None = None
) -> list[edit.Change]:
    """The changes that save a command in the place of `name`: rotas follow a new name.

    With `rotas` it becomes a notice of these, and of no other.
    """
    wanted = None if rotas is None else {fold_name(rota) for rota in rotas}
    new_name = str(command.get("name", ""))
    changes: list[edit.Change] = [(f"commands.{name}", command)]
    for rota in document.get("rotas", []):
        notices = [_called(notice, name, new_name) for notice in rota.get("notices", [])]
        on_it = any(_posts(notice, new_name) for notice in notices)
        if wanted is not None and on_it != (fold_name(rota["name"]) in wanted):
            notices = _without(notices, new_name) if on_it else [*notices, {"command": new_name}]
        if notices != rota.get("notices", []):
            changes.append((f"rotas.{rota['name']}", rota | {"notices": notices}))
    return changes


def removing(document: edit.Document, names: Iterable[str]) -> list[edit.Change]:
    """The changes that remove commands, and them from every rota."""
    gone = list(names)
    changes: list[edit.Change] = [(f"commands.{name}", None) for name in gone]
    for rota in document.get("rotas", []):
        notices = rota.get("notices", [])
        for name in gone:
            notices = _without(notices, name)
        if notices != rota.get("notices", []):
            changes.append((f"rotas.{rota['name']}", rota | {"notices": notices}))
    return changes


def rotas_by_command(document: edit.Document) -> dict[str, list[str]]:
    """By a command's folded name, the rotas that have it as a notice."""
    found: dict[str, list[str]] = {}
    for rota in document.get("rotas", []):
        posted = (fold_name(notice["command"]) for notice in rota.get("notices", []) if notice.get("command"))
        for name in dict.fromkeys(posted):
            found.setdefault(name, []).append(rota["name"])
    return found


def _posts(notice: dict[str, Any], name: str) -> bool:
    return fold_name(notice.get("command") or "") == fold_name(name)


def _called(notice: dict[str, Any], name: str, new_name: str) -> dict[str, Any]:
    return notice | {"command": new_name} if _posts(notice, name) else notice


def _without(notices: list[dict[str, Any]], name: str) -> list[dict[str, Any]]:
    return [notice for notice in notices if not _posts(notice, name)]
