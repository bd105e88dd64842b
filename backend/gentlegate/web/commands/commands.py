"""The Commands room's routes."""

from __future__ import annotations

from typing import Any

from fastapi import APIRouter, Request

from gentlegate.core.errors import ActError, TemplateProblem
from gentlegate.core.kit import edit
from gentlegate.core.kit.entries import removing, rotas_by_command
from gentlegate.core.kit.model import USUAL_COOLDOWN
from gentlegate.runtime.gate import Gate
from gentlegate.web.commands import previews
from gentlegate.web.commands.built_ins import view_of_built_in
from gentlegate.web.commands.schemas import Commands, CommandView, MoveCommands, Preview, PreviewReply, SaveCommand
from gentlegate.web.entries import (
    Changing,
    Looking,
    batch,
    history_of,
    name_problem,
    remove_entry,
    save_entry,
    view_of,
)
from gentlegate.web.problems import ANSWERS
from gentlegate.web.schemas import BatchDone, History

routes = APIRouter(prefix="/api/commands", tags=["commands"], responses=ANSWERS)


@routes.get("", summary="Every command, cue and built-in")
async def every(request: Request, _: Looking) -> Commands:
    gate: Gate = request.app.state.gate
    parts, document = gate.engine.parts, gate.engine.document
    rotas = rotas_by_command(document)
    return Commands(
        prefix=parts.kit.channel.prefix,
        cooldown=document.get("channel", {}).get("cooldown", USUAL_COOLDOWN),
        commands=[view_of(gate, command, "commands", rotas) for command in document.get("commands", [])],
        built_ins=[view_of_built_in(gate, slot) for slot in parts.slots.values() if slot.command is None],
        cues=[view_of(gate, cue, "cues", rotas) for cue in document.get("cues", [])],
        rotas=[rota.name for rota in parts.kit.rotas],
        counters=[counter.name for counter in parts.kit.counters],
        platforms=parts.platform_names(),
    )


@routes.put("/{name}", summary="Make or change a command")
async def save(name: str, body: SaveCommand, request: Request, account: Changing) -> CommandView:
    return await save_entry(request.app.state.gate, account, "commands", name, body)


@routes.delete("/{name}", summary="Remove a command, also from its rotas")
async def remove(name: str, request: Request, account: Changing, revision: str | None = None) -> BatchDone:
    return await remove_entry(request.app.state.gate, account, "commands", name, revision)


@routes.get("/{name}/history", summary="What became of a command, newest first")
async def history(name: str, request: Request, _: Looking) -> History:
    return await history_of(request, "commands", name)


@routes.post("/several", summary="Move, switch, cool or remove several commands at once")
async def several(body: MoveCommands, request: Request, account: Changing) -> BatchDone:
    gate: Gate = request.app.state.gate
    asked = body.model_dump(exclude={"names", "remove"}, exclude_none=True)
    if body.remove and not asked:
        changes = removing(gate.engine.document, body.names)
    elif len(asked) == 1 and not body.remove:
        ((key, value),) = asked.items()
        opened = edit.Opened(gate.engine.document)
        changes = [(f"commands.{name}", _with(opened, name, key, value)) for name in body.names]
    else:
        raise ActError("say one thing to do with these commands: folder, on, cooldown or remove", "names")
    return await batch(gate, account, changes, f"{len(body.names)} × {'remove' if body.remove else key}")


def _with(opened: edit.Opened, name: str, key: str, value: Any) -> dict[str, Any]:
    """A command with one value changed; what is usual is left out."""
    command = opened.read(f"commands.{name}")
    if command is None:
        raise ActError(f'"{name}" was removed meanwhile; nothing was changed', "names")
    usual = {"folder": "", "on": True, "cooldown": "default"}[key]
    kept = {k: v for k, v in command.items() if k != key}
    return kept if value == usual else kept | {key: value}


@routes.post("/preview", summary="A reply as each platform would show it, and whether the name is free")
async def preview(body: PreviewReply, request: Request, _: Looking) -> Preview:
    gate: Gate = request.app.state.gate
    parts = gate.engine.parts
    names = [name for name in (body.name.strip(), *body.aliases) if name]
    clash = next((problem for name in names if (problem := name_problem(parts, name, body.was))), None)
    try:
        shown = previews.shown(parts, body.reply, body.used, gate.clock.now()) if body.reply.strip() else []
    except TemplateProblem as error:
        return Preview(problem=error.problem, line=error.line, column=error.column, clash=clash)
    return Preview(shown=shown, clash=clash)
