"""The Desk's routes: acts on messages, counters, the title; and the stream of changes to every screen."""

from __future__ import annotations

import asyncio
import contextlib
import time
from typing import Annotated, Any

import orjson
from fastapi import APIRouter, Depends, Request, WebSocket, WebSocketDisconnect

from gentlegate.core.effects import Refused as RefusedEffect
from gentlegate.core.team import Account
from gentlegate.formats.effects import effect_object
from gentlegate.runtime.gate import Gate
from gentlegate.runtime.hub import Hub, Seat
from gentlegate.web.desk.schemas import (
    ClearCooldown,
    CountStep,
    Done,
    GivePass,
    MoveBridge,
    OnMessage,
    OnPerson,
    PutBack,
    SaySomething,
    SetTitle,
    Settle,
    SettleOverlap,
    TimeOut,
    TimeOutPerson,
)
from gentlegate.web.door.access import Access, hashed, needs
from gentlegate.web.door.cookie import token_of
from gentlegate.web.problems import ANSWERS, Refused

routes = APIRouter(prefix="/api/desk", tags=["desk"], responses=ANSWERS)
socket_routes = APIRouter()
LONGEST_SAID, MOST_EDITED = 4000, 10
MOST_SCREENS, AGAIN_EVERY = 25, 0.2
"""Screens that an account may have open at once, and seconds between two snapshots that a screen asks for."""
TOO_MANY_SCREENS = 4429
AWAY = 600_000_000
"""Whoever had no screen open for this long, in microseconds, has missed something."""


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


@routes.post("/undo", summary="Undo a verdict, or the last act on a person")
async def undo(body: OnPerson, request: Request, account: Annotated[Account, Depends(needs("undo"))]) -> Done:
    about = {"platform": body.platform, "message": body.message, "person": body.person}
    return await _act(request, account, "undo", **about, careful=not body.over)


async def _on_message(request: Request, account: Account, do: str, body: OnMessage, **values: Any) -> Done:
    gate: Gate = request.app.state.gate
    message = gate.screen.message(body.platform, body.message)
    if message is None:
        raise Refused(404, "not-on-the-desk", "This line is no longer on the Desk.", "message")
    about = {"message": message.id, "person": message.person.key, "login": message.person.login}
    return await _act(request, account, do, **about, careful=not body.over, **values)


@routes.post("/remove", summary="Remove a message")
async def remove(body: OnMessage, request: Request, account: Annotated[Account, Depends(needs("remove"))]) -> Done:
    return await _on_message(request, account, "remove", body)


@routes.post("/timeout", summary="Remove a message and time its writer out")
async def time_out(body: TimeOut, request: Request, account: Annotated[Account, Depends(needs("timeout"))]) -> Done:
    return await _on_message(request, account, "timeout", body, seconds=body.seconds)


@routes.post("/ban", summary="Remove a message and ban its writer")
async def ban(body: OnMessage, request: Request, account: Annotated[Account, Depends(needs("ban"))]) -> Done:
    return await _on_message(request, account, "ban", body)


async def _on_person(request: Request, account: Account, do: str, body: OnPerson, **values: Any) -> Done:
    if body.message and body.platform:
        return await _on_message(
            request, account, do, OnMessage(platform=body.platform, message=body.message, over=body.over), **values
        )
    if not body.person:
        raise Refused(422, "whom", "Say which line or which person this is about.", "person")
    return await _act(request, account, do, person=body.person, careful=not body.over, **values)


@routes.post("/people/timeout", summary="Time a person out")
async def time_out_person(
    body: TimeOutPerson, request: Request, account: Annotated[Account, Depends(needs("timeout"))]
) -> Done:
    return await _on_person(request, account, "timeout", body, seconds=body.seconds)


@routes.post("/people/ban", summary="Ban a person")
async def ban_person(body: OnPerson, request: Request, account: Annotated[Account, Depends(needs("ban"))]) -> Done:
    return await _on_person(request, account, "ban", body)


@routes.post("/people/lift", summary="End a person's timeout or ban")
async def lift(body: OnPerson, request: Request, account: Annotated[Account, Depends(needs("lift"))]) -> Done:
    return await _on_person(request, account, "lift", body)


@routes.post("/pass", summary="Let a person pass some filters for a while, or end that")
async def let_pass(body: GivePass, request: Request, account: Annotated[Account, Depends(needs("pass"))]) -> Done:
    values: dict[str, Any] = {"for": body.length, "filters": body.filters, "end": body.end or None}
    return await _on_person(request, account, "pass", body, **values)


@routes.post("/look", summary="Ask for a second look at a verdict")
async def look(
    body: OnMessage, request: Request, account: Annotated[Account, Depends(needs("second_look"))]
) -> Done:
    return await _act(request, account, "look", platform=body.platform, message=body.message)


@routes.post("/settle", summary="Settle a second look as right or wrong")
async def settle(
    body: Settle, request: Request, account: Annotated[Account, Depends(needs("second_look"))]
) -> Done:
    return await _act(request, account, "settle", platform=body.platform, message=body.message, mark=body.mark)


@routes.post("/drawbridge", summary="Raise or lower the drawbridge")
async def drawbridge(
    body: MoveBridge, request: Request, account: Annotated[Account, Depends(needs("drawbridge"))]
) -> Done:
    return await _act(request, account, "drawbridge", up=body.up)


@routes.post("/put-back", summary="End a change for tonight now")
async def put_back(body: PutBack, request: Request, account: Annotated[Account, Depends(needs("tonight"))]) -> Done:
    return await _act(request, account, "put_back", number=body.number)


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


@routes.post("/overlap", summary="Another bot's answering a command has been seen to")
async def overlap(
    body: SettleOverlap, request: Request, account: Annotated[Account, Depends(needs("overlap"))]
) -> Done:
    return await _act(request, account, "overlap", key=body.key, person=body.person)


@socket_routes.websocket("/api/live")
async def live(socket: WebSocket) -> None:
    """A snapshot, then numbered frames. The screen may send `again` to get a new snapshot, or `{"editing": [places]}`."""
    access: Access = socket.app.state.access
    hub: Hub = socket.app.state.hub
    account = await access.who(socket)
    if account is None or not access.permissions.may(account, "look") or not _same_origin(socket):
        await socket.close(4401)
        return
    await socket.accept()
    if hub.screens_of(account.id) >= MOST_SCREENS:
        await socket.close(TOO_MANY_SCREENS)
        return
    await socket.app.state.accounts("came", account.id, time.time_ns() // 1000, AWAY)
    seat = hub.sit(account.name, account.id, hashed(token_of(socket)))
    listening = asyncio.create_task(_listen(socket, hub, seat, access.permissions.may(account, "tonight")))
    gone = asyncio.create_task(seat.dismissed.wait())
    try:
        while not listening.done():
            frame = asyncio.ensure_future(hub.next_frame(seat))
            await asyncio.wait({frame, listening, gone}, return_when=asyncio.FIRST_COMPLETED)
            if gone.done():
                await socket.close(4401)
            if gone.done() or not frame.done():
                frame.cancel()
                break
            await socket.send_bytes(frame.result())
    except (WebSocketDisconnect, RuntimeError, asyncio.CancelledError):
        pass
    finally:
        listening.cancel()
        gone.cancel()
        hub.leave(seat)
        await asyncio.shield(socket.app.state.accounts("still_here", {account.id}, time.time_ns() // 1000))


async def _listen(socket: WebSocket, hub: Hub, seat: Seat, may_edit: bool) -> None:
    with contextlib.suppress(WebSocketDisconnect, RuntimeError):
        while True:
            said = await socket.receive_text()
            if said == "again":
                seat.again()
                await asyncio.sleep(AGAIN_EVERY)
            elif may_edit and (places := _editing(said)) is not None:
                hub.edits(seat, places)


def _editing(said: str) -> tuple[str, ...] | None:
    """The places that a screen says it is changing; None where it says nothing of the kind."""
    if len(said) > LONGEST_SAID:
        return None
    try:
        places = orjson.loads(said)["editing"]
    except (ValueError, KeyError, TypeError):
        return None
    if not isinstance(places, list) or not all(isinstance(place, str) and len(place) <= 120 for place in places):
        return None
    return tuple(places[:MOST_EDITED])


def _same_origin(socket: WebSocket) -> bool:
    origin = socket.headers.get("origin")
    return origin is None or origin.split("://", 1)[-1] == socket.headers.get("host")
