"""The Desk's routes: acts on messages, counters, the title; and the stream of changes to every screen."""

from __future__ import annotations

import asyncio
import contextlib
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request, WebSocket, WebSocketDisconnect

from gentlegate.core.effects import Refused as RefusedEffect
from gentlegate.core.team import Account
from gentlegate.formats.effects import effect_object
from gentlegate.runtime.gate import Gate
from gentlegate.runtime.hub import Hub, Seat
from gentlegate.web.access import Access, needs
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.schemas import ClearCooldown, CountStep, Done, OnMessage, SaySomething, SetTitle, TimeOut

routes = APIRouter(prefix="/api/desk", tags=["desk"], responses=ANSWERS)
socket_routes = APIRouter()


async def _act(request: Request, account: Account, do: str, **values: Any) -> Done:
    gate: Gate = request.app.state.gate
    effects = await gate.act(account, do, **{name: value for name, value in values.items() if value is not None})
    if any(isinstance(effect, RefusedEffect) and effect.why == "duplicate" for effect in effects):
        counters = gate.engine.parts.counters
        counter = counters.find(str(values.get("name", "")))
        record = counters.record(counter) if counter else None
        who = record.by_name if record else "Somebody"
        raise Refused(409, "counted-already", f"{who} counted that a moment ago. Nothing was added.", "step")
    return Done(effects=[effect_object(effect) for effect in effects])


@routes.post("/undo", summary="Undo a verdict")
async def undo(body: OnMessage, request: Request, account: Annotated[Account, Depends(needs("undo"))]) -> Done:
    return await _act(request, account, "undo", platform=body.platform, message=body.message)


async def _on_message(request: Request, account: Account, do: str, body: OnMessage, **values: Any) -> Done:
    gate: Gate = request.app.state.gate
    message = gate.screen.message(body.platform, body.message)
    if message is None:
        raise Refused(404, "not-on-the-desk", "This line is no longer on the Desk.", "message")
    person = message.person
    return await _act(request, account, do, message=message.id, person=person.key, login=person.login, **values)


@routes.post("/remove", summary="Remove a message")
async def remove(body: OnMessage, request: Request, account: Annotated[Account, Depends(needs("remove"))]) -> Done:
    return await _on_message(request, account, "remove", body)


@routes.post("/timeout", summary="Remove a message and time its writer out")
async def time_out(body: TimeOut, request: Request, account: Annotated[Account, Depends(needs("timeout"))]) -> Done:
    return await _on_message(request, account, "timeout", body, seconds=body.seconds)


@routes.post("/ban", summary="Remove a message and ban its writer")
async def ban(body: OnMessage, request: Request, account: Annotated[Account, Depends(needs("ban"))]) -> Done:
    return await _on_message(request, account, "ban", body)


@routes.post("/count", summary="Step a counter, or take the last change back")
async def count(body: CountStep, request: Request, account: Annotated[Account, Depends(needs("count"))]) -> Done:
    return await _act(request, account, "count", name=body.name, step=body.step)


@routes.post("/title", summary="Set the title")
async def title(body: SetTitle, request: Request, account: Annotated[Account, Depends(needs("title"))]) -> Done:
    return await _act(request, account, "title", title=body.title, platforms=body.platforms)


@routes.post("/say", summary="Say something as the Gatekeeper")
async def say(body: SaySomething, request: Request, account: Annotated[Account, Depends(needs("say"))]) -> Done:
    return await _act(request, account, "say", text=body.text, platforms=body.platforms)


@routes.post("/clear", summary="Clear a running cooldown")
async def clear(
    body: ClearCooldown, request: Request, account: Annotated[Account, Depends(needs("clear"))]
) -> Done:
    return await _act(request, account, "clear", command=body.command, identity=body.identity)


@socket_routes.websocket("/api/live")
async def live(socket: WebSocket) -> None:
    """A snapshot, then numbered frames. The screen may send `again` to get a new snapshot."""
    access: Access = socket.app.state.access
    hub: Hub = socket.app.state.hub
    account = await access.who(socket)
    if account is None or not account.may("look") or not _same_origin(socket):
        await socket.close(4401)
        return
    await socket.accept()
    seat = hub.sit(account.name)
    listening = asyncio.create_task(_listen(socket, seat))
    try:
        while not listening.done():
            frame = asyncio.ensure_future(hub.next_frame(seat))
            await asyncio.wait({frame, listening}, return_when=asyncio.FIRST_COMPLETED)
            if not frame.done():
                frame.cancel()
                break
            await socket.send_bytes(frame.result())
    except (WebSocketDisconnect, RuntimeError, asyncio.CancelledError):
        pass
    finally:
        listening.cancel()
        hub.leave(seat)


async def _listen(socket: WebSocket, seat: Seat) -> None:
    with contextlib.suppress(WebSocketDisconnect, RuntimeError):
        while True:
            if await socket.receive_text() == "again":
                seat.again()


def _same_origin(socket: WebSocket) -> bool:
    origin = socket.headers.get("origin")
    return origin is None or origin.split("://", 1)[-1] == socket.headers.get("host")
