"""The quotes' routes of the Stage room."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request, Response

from gentlegate.core.records import QuoteRecord
from gentlegate.core.stream import quotes
from gentlegate.core.team import Account
from gentlegate.formats.tables import read_quotes, write_quotes
from gentlegate.runtime.gate import Gate
from gentlegate.web.door.access import needs
from gentlegate.web.problems import ANSWERS
from gentlegate.web.schemas import BatchDone
from gentlegate.web.stage.schemas import AddQuote, ImportTable, QuoteView

routes = APIRouter(prefix="/api/quotes", tags=["quotes"], responses=ANSWERS)
Looking = Annotated[Account, Depends(needs("look"))]
Quoting = Annotated[Account, Depends(needs("quote"))]


def _view(gate: Gate, quote: QuoteRecord) -> QuoteView:
    return QuoteView(**quotes.variables(gate.engine.parts, quote), removed=quote.removed)


@routes.get("", summary="Every quote, or those with these words")
async def every(request: Request, _: Looking, search: str = "", removed: bool = False) -> list[QuoteView]:
    gate: Gate = request.app.state.gate
    parts = gate.engine.parts
    found = quotes.search(parts, search) if search.strip() else quotes.standing(parts)
    if removed:
        found = [quote for _, quote in sorted(parts.state.quotes.items()) if quote.removed]
    return [_view(gate, quote) for quote in reversed(found)]


@routes.post("", summary="Add a quote")
async def add(body: AddQuote, request: Request, account: Quoting) -> QuoteView:
    gate: Gate = request.app.state.gate
    await gate.act(account, "quote", **body.model_dump(exclude_none=True))
    newest = max((quote for _, quote in gate.engine.state.quotes.items()), key=lambda quote: quote.number)
    return _view(gate, newest)


@routes.delete("/{number}", summary="Remove a quote; it can be put back", status_code=204)
async def remove(number: int, request: Request, account: Quoting) -> None:
    gate: Gate = request.app.state.gate
    await gate.act(account, "quote", number=number)


@routes.post("/{number}/restore", summary="Put a removed quote back", status_code=204)
async def restore(number: int, request: Request, account: Quoting) -> None:
    gate: Gate = request.app.state.gate
    await gate.act(account, "quote", number=number, restore=True)


@routes.get("/table.csv", summary="The quotes as a table")
async def table(request: Request, _: Looking) -> Response:
    parts = request.app.state.gate.engine.parts
    rows: list[dict[str, Any]] = [quotes.variables(parts, quote) for quote in quotes.standing(parts)]
    return Response(write_quotes(rows), media_type="text/csv; charset=utf-8")


@routes.post("/table", summary="Add the quotes of a table that are not here yet")
async def take_table(body: ImportTable, request: Request, account: Quoting) -> BatchDone:
    gate: Gate = request.app.state.gate
    rows = read_quotes(body.text)
    known = {quote.text for quote in quotes.standing(gate.engine.parts)}
    fresh = [row for row in rows if row["text"][: quotes.LONGEST] not in known]
    for row in fresh:
        given: dict[str, Any] = {key: row.get(key) for key in ("said_by", "category") if row.get(key)}
        await gate.act(account, "quote", text=row["text"][: quotes.LONGEST], **given)
    return BatchDone(number=0, changed=len(fresh), left=len(rows) - len(fresh))
