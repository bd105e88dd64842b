"""What the routes of commands, cues and built-ins share: views, revisions, saving and removing."""

from __future__ import annotations

import hashlib
import re
from collections.abc import Callable, Iterable, Mapping
from typing import Annotated, Any

import orjson
from fastapi import Depends, Request

from gentlegate.core.effects import Effect
from gentlegate.core.errors import ActError, KitError
from gentlegate.core.kit import edit
from gentlegate.core.kit.entries import removing, rotas_by_command, saving
from gentlegate.core.parts import Parts, lookalike_problem
from gentlegate.core.team import Account, Permissions
from gentlegate.core.text.folding import fold_name
from gentlegate.runtime.gate import Gate
from gentlegate.web.commands.schemas import CommandView, SaveCommand
from gentlegate.web.door.access import needs, not_allowed
from gentlegate.web.problems import Refused
from gentlegate.web.schemas import BatchDone, History, Version

Looking = Annotated[Account, Depends(needs("look"))]
Changing = Annotated[Account, Depends(needs("commands"))]


def revision(command: Any) -> str:
    """A short mark of an entry's contents."""
    return hashlib.sha256(orjson.dumps(command, option=orjson.OPT_SORT_KEYS)).hexdigest()[:16]


BROADCASTERS = ("people.leads", "channel.gatekeeper", "platforms.")
"""Places that only the broadcaster changes."""


QUOTE = re.compile(r"quotes\.(\d+)")
"""The place of a quote."""


def act_of(place: str) -> str:
    """The permission that a change of this place needs."""
    if QUOTE.fullmatch(place):
        return "quote"
    if place.startswith("people"):
        return "people"
    if place == "channel.mood":
        return "mood"
    return "filters" if place.startswith(("filters", "ladder", "drawbridge")) else "commands"


def may_change_all(request: Request, account: Account, places: Iterable[str], field: str) -> None:
    """Refused where the account may not change one of these places."""
    listed = list(places)
    permissions: Permissions = request.app.state.access.permissions
    for act in sorted({act_of(place) for place in listed}):
        if not permissions.may(account, act):
            raise not_allowed(account, permissions, act)
    only_broadcasters(account, listed, field)


def is_not_theirs(account: Account, place: str) -> bool:
    """Whether this place is the broadcaster's alone, and this account another's."""
    return account.level != "broadcaster" and place.startswith(BROADCASTERS)


def only_broadcasters(account: Account, places: Iterable[str], field: str) -> None:
    """Refused where somebody else would change what is the broadcaster's alone."""
    kept = next((place for place in places if is_not_theirs(account, place)), None)
    if kept:
        raise Refused(403, "not-allowed", f"Only the broadcaster may change {kept}; leave it out.", field)


def view_of(
    gate: Gate, command: dict[str, Any], section: str = "commands", rotas: Mapping[str, list[str]] | None = None
) -> CommandView:
    """A command or cue as the room shows it; `rotas` saves looking for those of each of many commands."""
    key = fold_name(command["name"])
    if rotas is None:
        rotas = rotas_by_command(gate.engine.document)
    record = gate.engine.state.commands.get(key if section == "commands" else f"~{key}")
    return CommandView(
        name=command["name"],
        revision=revision(command),
        uses=record.uses if record else 0,
        command=command,
        rotas=rotas.get(key, []) if section == "commands" else [],
    )


def unchanged(gate: Gate, section: str, name: str, read: str | None) -> None:
    """Refused where somebody else has saved, made or removed the entry since it was read."""
    current = edit.read(gate.engine.document, f"{section}.{name}")
    what = section.removesuffix("s")
    if current is None and read is not None:
        detail = f'"{name}" was removed meanwhile. Save it as a new {what} to keep it.'
        raise Refused(409, "gone-meanwhile", detail, "name")
    if current is not None and read is None:
        raise Refused(409, "name-in-use", f'"{name}" is a {what} already; choose another name.', "name")
    if current is not None and read != revision(current):
        detail = f"Somebody else has saved this {what} meanwhile."
        raise Refused(409, "changed-meanwhile", detail, None, current, revision(current))


def name_problem(parts: Parts, name: str, was: str | None) -> str | None:
    """What is wrong with a name or alias that a command would have; `was` is the command's present name."""
    prefix, folded = parts.kit.channel.prefix, fold_name(name)
    if not folded or any(sign.isspace() for sign in folded):
        return "A name is one word, without spaces."
    if folded.startswith(fold_name(prefix)):
        return f"Write the name without {prefix}; people type it before."
    own = fold_name(was) if was else None
    key = parts.ear.names.get(folded)
    if key is not None and key != own:
        return f"{prefix}{name} is {parts.owner_of(name)} already; choose another name."
    return lookalike_problem(parts, name, own)


async def save_entry(gate: Gate, account: Account, section: str, name: str, body: SaveCommand) -> CommandView:
    """Make or change a command or cue, if nobody else did since it was read; rotas follow a command's name."""
    new_name = str(body.command.get("name", ""))
    known = name if body.revision else None

    def still() -> None:
        unchanged(gate, section, known or new_name or name, body.revision)

    still()
    if section == "counters" and known and new_name and fold_name(known) != fold_name(new_name):
        raise ActError("a counter keeps its name; change its label, or make another one", "name")
    if section != "commands":
        path = f"{section}.{known or new_name or name}"
        await gate.act(account, "setting", still=still, path=path, value=body.command)
        return view_of(gate, body.command, section)
    fresh = new_name and (known is None or fold_name(known) != fold_name(new_name))
    if fresh and (problem := name_problem(gate.engine.parts, new_name, known)):
        raise KitError("name", problem)
    changes = saving(gate.engine.document, known or new_name or name, body.command, body.rotas)
    await change_all(gate, account, changes, still=still)
    return view_of(gate, body.command, section)


async def remove_entry(gate: Gate, account: Account, section: str, name: str, read: str | None) -> BatchDone:
    """Remove a command or cue, if nobody else changed it since it was read."""

    def still() -> None:
        if read is not None:
            unchanged(gate, section, name, read)

    still()
    gone = removing(gate.engine.document, [name]) if section == "commands" else [(f"{section}.{name}", None)]
    return await batch(gate, account, gone, f"{name} removed", still)


async def change_all(
    gate: Gate,
    account: Account,
    changes: Iterable[edit.Change],
    about: str | None = None,
    still: Callable[[], None] | None = None,
    why: str | None = None,
) -> list[Effect]:
    """Make many changes at once, all or none; with `about` they can be taken back together.

    `still` raises where somebody else's change has come between. `why` stands in the ledger; else `about` does.
    """
    listed = [{"path": path, "value": value} for path, value in changes]
    together = {"about": about} if about else {}
    return await gate.act(account, "settings", still=still, why=why or about, changes=listed, **together)


async def batch(
    gate: Gate,
    account: Account,
    changes: Iterable[edit.Change],
    about: str,
    still: Callable[[], None] | None = None,
) -> BatchDone:
    """Make many changes at once, in a way that one press takes back."""
    effects = await change_all(gate, account, changes, about, still)
    return BatchDone(number=gate.engine.changes.last_batch if effects else 0, changed=len(effects))


async def history_of(request: Request, section: str, name: str) -> History:
    """The ledger's entries about one entry of the settings."""
    state = request.app.state
    lines = await state.ledger("history", section=section, name=name)
    return History(
        versions=[
            Version(
                at=line.at,
                by=state.names.get(line.who, line.who),
                place=line.place,
                before=line.before,
                after=line.after,
            )
            for line in lines
        ]
    )
