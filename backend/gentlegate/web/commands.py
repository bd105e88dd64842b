"""The Commands room's routes."""

from __future__ import annotations

import hashlib
from typing import Annotated, Any

import orjson
from fastapi import APIRouter, Depends, Request

from gentlegate.core.commands.replies import parts as split
from gentlegate.core.commands.templates import parse, render
from gentlegate.core.commands.variables import channel_variables
from gentlegate.core.errors import TemplateProblem
from gentlegate.core.kit import edit
from gentlegate.core.team import Account
from gentlegate.core.text.folding import fold_name
from gentlegate.runtime.gate import Gate
from gentlegate.web.access import needs
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.schemas import (
    BuiltInView,
    Commands,
    CommandView,
    Preview,
    PreviewOnPlatform,
    PreviewReply,
    SaveCommand,
)

routes = APIRouter(prefix="/api/commands", tags=["commands"], responses=ANSWERS)
Looking = Annotated[Account, Depends(needs("look"))]
Changing = Annotated[Account, Depends(needs("commands"))]


def revision(command: dict[str, Any]) -> str:
    """A short mark of a command's contents."""
    return hashlib.sha256(orjson.dumps(command, option=orjson.OPT_SORT_KEYS)).hexdigest()[:16]


def view_of(gate: Gate, command: dict[str, Any], section: str = "commands") -> CommandView:
    """A command or cue as the room shows it."""
    key = fold_name(command["name"])
    record = gate.engine.state.commands.get(key if section == "commands" else f"~{key}")
    return CommandView(
        name=command["name"], revision=revision(command), uses=record.uses if record else 0, command=command
    )


@routes.get("", summary="Every command and built-in")
async def every(request: Request, _: Looking) -> Commands:
    gate: Gate = request.app.state.gate
    parts = gate.engine.parts
    built_ins = [
        BuiltInView(
            key=slot.key.removeprefix("/"),
            names=list(slot.names),
            level=slot.needs.level,
            on=slot.on,
            uses=record.uses if (record := gate.engine.state.commands.get(slot.key)) else 0,
        )
        for slot in parts.slots.values()
        if slot.command is None
    ]
    channel = gate.engine.document.get("channel", {})
    return Commands(
        prefix=parts.kit.channel.prefix,
        cooldown=channel.get("cooldown", {"everyone": "5s", "person": "0s"}),
        commands=[view_of(gate, command) for command in gate.engine.document.get("commands", [])],
        built_ins=built_ins,
        cues=[view_of(gate, cue, "cues") for cue in gate.engine.document.get("cues", [])],
    )


def unchanged(gate: Gate, section: str, name: str, read: str | None) -> None:
    """Refused where somebody else has saved, made or removed the entry since it was read."""
    current = edit.read(gate.engine.document, f"{section}.{name}")
    what = "command" if section == "commands" else "cue"
    if current is None and read is not None:
        detail = f'"{name}" was removed meanwhile. Save it as a new {what} to keep it.'
        raise Refused(409, "gone-meanwhile", detail, "name")
    if current is not None and read is None:
        raise Refused(409, "name-in-use", f'"{name}" is a {what} already; choose another name.', "name")
    if current is not None and read != revision(current):
        raise Refused(409, "changed-meanwhile", f"Somebody else has saved this {what} meanwhile.", None, current)


async def save_entry(gate: Gate, account: Account, section: str, name: str, body: SaveCommand) -> CommandView:
    """Make or change a command or cue, if nobody else did since it was read."""
    new_name = str(body.command.get("name", ""))
    unchanged(gate, section, name if body.revision else new_name or name, body.revision)
    place = f"{section}.{name}" if body.revision else f"{section}.{new_name or name}"
    await gate.act(account, "setting", path=place, value=body.command)
    return view_of(gate, body.command, section)


async def remove_entry(gate: Gate, account: Account, section: str, name: str, read: str | None) -> None:
    """Remove a command or cue, if nobody else changed it since it was read."""
    if read is not None:
        unchanged(gate, section, name, read)
    await gate.act(account, "setting", path=f"{section}.{name}", value=None)


@routes.put("/{name}", summary="Make or change a command")
async def save(name: str, body: SaveCommand, request: Request, account: Changing) -> CommandView:
    return await save_entry(request.app.state.gate, account, "commands", name, body)


@routes.delete("/{name}", summary="Remove a command", status_code=204)
async def remove(name: str, request: Request, account: Changing, revision: str | None = None) -> None:
    await remove_entry(request.app.state.gate, account, "commands", name, revision)


@routes.post("/preview", summary="A reply as each platform would show it")
async def preview(body: PreviewReply, request: Request, _: Looking) -> Preview:
    gate: Gate = request.app.state.gate
    parts = gate.engine.parts
    try:
        parse(body.reply)
        shown = []
        for name in parts.platform_names():
            variables = channel_variables(parts, name, gate.clock.now()) | {
                "person": {"name": "Thimblewick", "login": "thimblewick", "level": "everyone", "platform": name, "follows_for": "2 d 4 h"},
                "args": "two mugs",
                "arg": ["two", "mugs"],
                "uses": 12,
                "wait": "8 s",
            }  # fmt: skip
            text = render(body.reply, variables, lambda: parts.chance("preview"))
            shown.append(PreviewOnPlatform(platform=name, parts=split(text, parts.abilities(name).length)))
    except TemplateProblem as error:
        return Preview(problem=error.problem, line=error.line, column=error.column)
    return Preview(shown=shown)
