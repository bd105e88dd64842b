"""Kits and tables: taken out of this gate, and looked at before they are taken in."""

from __future__ import annotations

import asyncio
from typing import Annotated

import orjson
from fastapi import APIRouter, Depends, Request, Response

from gentlegate.core.errors import KitError
from gentlegate.core.kit import edit, exchange
from gentlegate.core.kit.load import load_kit
from gentlegate.core.team import Account
from gentlegate.formats.tables import read_commands, write_commands
from gentlegate.runtime.gate import Gate
from gentlegate.web.door.access import needs
from gentlegate.web.entries import batch, may_change_all
from gentlegate.web.problems import ANSWERS
from gentlegate.web.schemas import BatchDone
from gentlegate.web.setup.kit_schemas import (
    BatchView,
    ClashView,
    ExportKit,
    IncomingKit,
    KitItem,
    KitPreview,
    KitView,
    TakeBack,
    TakeKit,
)

routes = APIRouter(prefix="/api/kits", tags=["kits"], responses=ANSWERS)
Looking = Annotated[Account, Depends(needs("look"))]
Changing = Annotated[Account, Depends(needs("commands", "filters"))]
"""Whoever may change some of what a kit holds; what is taken in is asked place by place."""


@routes.get("", summary="What a kit of this channel would hold, and the kits taken in")
async def contents(request: Request, _: Looking) -> KitView:
    gate: Gate = request.app.state.gate
    return KitView(places=exchange.places_of(gate.engine.document), taken=_batches(gate, request.app.state.names))


def _batches(gate: Gate, names: dict[str, str]) -> list[BatchView]:
    records = sorted((record for _, record in gate.engine.state.batches.items()), key=lambda r: -r.number)
    return [
        BatchView(
            number=record.number,
            about=record.about,
            by=names.get(record.by, record.by),
            at=record.at,
            count=len(record.changes),
            back_by=names.get(record.back_by, record.back_by) if record.back_by else None,
        )
        for record in records
    ]


@routes.post("/export", summary="A kit of all settings, or of some with what they mention")
async def export(body: ExportKit, request: Request, _: Changing) -> Response:
    made = exchange.export(request.app.state.gate.engine.document, body.places)
    return Response(orjson.dumps(made, option=orjson.OPT_INDENT_2), media_type="application/json")


@routes.get("/commands.csv", summary="The commands as a table")
async def table(request: Request, _: Changing) -> Response:
    commands = request.app.state.gate.engine.document.get("commands", [])
    return Response(write_commands(commands), media_type="text/csv; charset=utf-8")


def _read(body: IncomingKit, document: edit.Document) -> edit.Document:
    if body.kind == "csv":
        return read_commands(body.text, document)
    try:
        found = orjson.loads(body.text)
    except orjson.JSONDecodeError as error:
        raise KitError(f"line {error.lineno}, column {error.colno}", f"this is no JSON: {error.msg}") from None
    return found if isinstance(found, dict) else load_kit(found).model_dump()


@routes.post("/preview", summary="What a kit or table would change; touches nothing")
async def preview(body: IncomingKit, request: Request, _: Changing) -> KitPreview:
    document = request.app.state.gate.engine.document

    def look() -> KitPreview:
        items, warnings = exchange.look_at(document, _read(body, document))
        return KitPreview(
            items=[
                KitItem(
                    place=item.place,
                    state=item.state,
                    ours=item.ours,
                    theirs=item.theirs,
                    needs=list(item.needs),
                    clashes=[ClashView(name=clash.name, owner=clash.owner) for clash in item.clashes],
                )
                for item in items
            ],
            warnings=warnings,
        )

    return await asyncio.to_thread(look)


@routes.post("/take", summary="Take items of a kit or table in, all or none")
async def take(body: TakeKit, request: Request, account: Changing) -> BatchDone:
    gate: Gate = request.app.state.gate
    document = gate.engine.document
    may_change_all(request, account, (pick.place for pick in body.picks), "picks")

    def work_out() -> list[edit.Change]:
        incoming = _read(body, document)
        load_kit(incoming, beside=load_kit(document))
        picks = [exchange.Pick(pick.place, pick.names) for pick in body.picks]
        return exchange.changes_of(document, incoming, picks)

    changes = await asyncio.to_thread(work_out)
    return await batch(gate, account, changes, body.name)


@routes.post("/take-back", summary="Take back what came with a kit, or another change of many places")
async def take_back(body: TakeBack, request: Request, account: Looking) -> BatchDone:
    gate: Gate = request.app.state.gate
    record = gate.engine.state.batches.get(str(body.number))
    may_change_all(request, account, (change[0] for change in record.changes) if record else ["commands"], "number")
    why = f"taken back: {record.about}" if record else None
    effects = await gate.act(account, "settings_back", why=why, number=body.number)
    return BatchDone(
        number=body.number, changed=len(effects), left=len(record.changes) - len(effects) if record else 0
    )
