"""The cues' routes of the Commands room."""

from __future__ import annotations

import asyncio
from typing import Any

from fastapi import APIRouter, Request

from gentlegate.core.commands.cues import CueEar
from gentlegate.core.events import Message
from gentlegate.core.kit.load import load_kit
from gentlegate.runtime.gate import Gate
from gentlegate.web.commands.schemas import CommandView, CueHeard, SaveCommand
from gentlegate.web.entries import Changing, Looking, history_of, remove_entry, save_entry
from gentlegate.web.problems import ANSWERS
from gentlegate.web.rules.schemas import CaughtLine
from gentlegate.web.schemas import BatchDone, History

routes = APIRouter(prefix="/api/cues", tags=["cues"], responses=ANSWERS)
SHOWN = 12


@routes.put("/{name}", summary="Make or change a cue")
async def save(name: str, body: SaveCommand, request: Request, account: Changing) -> CommandView:
    return await save_entry(request.app.state.gate, account, "cues", name, body)


@routes.delete("/{name}", summary="Remove a cue")
async def remove(name: str, request: Request, account: Changing, revision: str | None = None) -> BatchDone:
    return await remove_entry(request.app.state.gate, account, "cues", name, revision)


@routes.get("/{name}/history", summary="What became of a cue, newest first")
async def history(name: str, request: Request, _: Looking) -> History:
    return await history_of(request, "cues", name)


@routes.post("/heard", summary="Which lines of the last streams a cue would have answered; touches nothing")
async def heard(body: SaveCommand, request: Request, _: Looking) -> CueHeard:
    cue: dict[str, Any] = {"name": "cue", "reply": "-", **body.command}
    (parsed,) = load_kit(
        {"cues": [{k: cue[k] for k in ("name", "reply", "hears", "match", "where") if k in cue}]}
    ).cues
    gate: Gate = request.app.state.gate
    lines = await request.app.state.past.lines()
    known = gate.engine.parts.know

    def listen() -> list[Message]:
        ear = CueEar([parsed])
        return [line for line in lines if ear.hear(line) is not None and not known(line.person).unheard]

    found = await asyncio.to_thread(listen)
    return CueHeard(
        all=len(lines),
        count=len(found),
        lines=[
            CaughtLine(platform=m.platform, id=m.id, name=m.person.name, text=m.text[:400])
            for m in reversed(found[-SHOWN:])
        ],
    )
