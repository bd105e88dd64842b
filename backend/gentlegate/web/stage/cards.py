"""Stage cards: pages for the broadcaster's video software, and how they look."""

from __future__ import annotations

import asyncio
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request, WebSocket, WebSocketDisconnect

from gentlegate.core.errors import ActError
from gentlegate.core.stream.shoutouts import LAST
from gentlegate.core.team import Account
from gentlegate.runtime.gate import Gate
from gentlegate.web.door.access import needs
from gentlegate.web.entries import revision
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.stage.schemas import Cards, CardState, CardStyle, CardView, SaveStyle

routes = APIRouter(prefix="/api/stage", tags=["stage"], responses=ANSWERS)
socket_routes = APIRouter()
Looking = Annotated[Account, Depends(needs("look"))]
Styling = Annotated[Account, Depends(needs("stage"))]
EVERY = 0.04
NO_SUCH_KEY = 4401
KEYS_EVERY = 25
"""After how many looks a card's key is looked at again: a renewed one ends what the old one opened."""


def content(gate: Gate, card: str) -> tuple[str, str] | None:
    """Label and value that a card shows; None where there is no such card."""
    parts = gate.engine.parts
    if card == "shoutout":
        record = parts.state.shoutouts.get(LAST)
        return (record.category, record.name) if record else ("", "")
    counter = parts.counters.find(card.removeprefix("counter:")) if card.startswith("counter:") else None
    return (counter.shown, str(parts.counters.value(counter))) if counter else None


async def _view(request: Request, card: str) -> CardView:
    state = request.app.state
    found = content(state.gate, card)
    if found is None:
        raise ActError(f'there is no stage card "{card}"', "card")
    key, style = await state.cards("of", card)
    address = f"{str(request.base_url).rstrip('/')}/stage-card?key={key}"
    look = CardStyle(**style)
    return CardView(
        card=card,
        label=found[0],
        value=found[1],
        address=address,
        style=look,
        revision=revision(look.model_dump()),
    )


@routes.get("", summary="Every stage card, with its address")
async def every(request: Request, _: Styling) -> Cards:
    gate: Gate = request.app.state.gate
    names = [f"counter:{counter.name}" for counter in gate.engine.parts.counters.all.values()]
    return Cards(cards=[await _view(request, card) for card in (*names, "shoutout")])


@routes.put("/{card}/style", summary="Change how a stage card looks")
async def style(card: str, body: SaveStyle, request: Request, account: Styling) -> CardView:
    before = await _view(request, card)
    if body.revision != before.revision:
        detail = "Somebody else has changed this card meanwhile."
        raise Refused(409, "changed-meanwhile", detail, None, before.style.model_dump(), before.revision)
    await request.app.state.cards("set_style", card, body.style.model_dump())
    await _told(request, account, "card", card, before.style.model_dump(), body.style.model_dump())
    return await _view(request, card)


async def _told(request: Request, account: Account, what: str, card: str, before: Any, after: Any) -> None:
    """Keep it in the ledger, and let every screen follow."""
    gate: Gate = request.app.state.gate
    await gate.note(account, what, card, before, after)
    gate.screen.settings_changed()
    gate.hub.changed()


@routes.post("/{card}/key", summary="Give a stage card a new key; the old address shows nothing any more")
async def renew(card: str, request: Request, account: Styling) -> CardView:
    await _view(request, card)
    await request.app.state.cards("renew", card)
    await _told(request, account, "card_key", card, None, None)
    return await _view(request, card)


@socket_routes.websocket("/api/stage-card")
async def live(socket: WebSocket, key: str = "") -> None:
    """What a card shows, told whenever it changes."""
    cards, gate = socket.app.state.cards, socket.app.state.gate
    await socket.accept()  # first, so that the page learns why it is closed
    found = await cards("by_key", key)
    gone = asyncio.create_task(_until_gone(socket))
    told: dict[str, Any] | None = None
    looks = 0
    try:
        while not gone.done():
            if looks and looks % KEYS_EVERY == 0:
                found = await cards("by_key", key)
            shown = content(gate, found[0]) if found else None
            if found is None or shown is None:
                await socket.close(NO_SUCH_KEY)
                return
            now = CardState(label=shown[0], value=shown[1], style=CardStyle(**found[1])).model_dump()
            if now != told:
                await socket.send_json(now)
                told = now
            looks += 1
            await asyncio.sleep(EVERY)
    except (WebSocketDisconnect, RuntimeError):
        pass
    finally:
        gone.cancel()


async def _until_gone(socket: WebSocket) -> None:
    try:
        while True:
            await socket.receive_text()
    except (WebSocketDisconnect, RuntimeError):
        return
