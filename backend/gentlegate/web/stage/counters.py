"""The channel's counters: their settings, and their last steps."""

from __future__ import annotations

from fastapi import APIRouter, Request

from gentlegate.runtime.gate import Gate
from gentlegate.web.commands.schemas import CommandView, SaveCommand
from gentlegate.web.entries import Changing, Looking, remove_entry, save_entry, view_of
from gentlegate.web.problems import ANSWERS
from gentlegate.web.schemas import BatchDone
from gentlegate.web.stage.schemas import StepView

routes = APIRouter(prefix="/api/counters", tags=["counters"], responses=ANSWERS)


@routes.get("", summary="Every counter's settings")
async def counters(request: Request, _: Looking) -> list[CommandView]:
    gate: Gate = request.app.state.gate
    return [view_of(gate, counter, "counters") for counter in gate.engine.document.get("counters", [])]


@routes.get("/{name}/steps", summary="The last steps of a counter, newest first")
async def steps(name: str, request: Request, _: Looking) -> list[StepView]:
    names, lines = request.app.state.names, await request.app.state.ledger("acts", what="count", about=name)
    return [
        StepView(at=one.at, by=names.get(one.who, one.who), place=one.place, before=one.before, after=one.after)
        for one in lines
    ]


@routes.put("/{name}", summary="Make or change a counter")
async def save_counter(name: str, body: SaveCommand, request: Request, account: Changing) -> CommandView:
    return await save_entry(request.app.state.gate, account, "counters", name, body)


@routes.delete("/{name}", summary="Remove a counter")
async def remove_counter(name: str, request: Request, account: Changing, revision: str | None = None) -> BatchDone:
    return await remove_entry(request.app.state.gate, account, "counters", name, revision)
