"""The Desk's routes for running the stream: category, shoutouts, markers, clips, ads, raids, arrivals."""

from __future__ import annotations

import asyncio
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request, Response

from gentlegate.core.effects import Clip, Refused
from gentlegate.core.errors import ActError
from gentlegate.core.moments import format_moment
from gentlegate.core.stream.categories import meant
from gentlegate.core.team import Account
from gentlegate.formats.effects import effect_object
from gentlegate.formats.tables import write_table
from gentlegate.runtime.gate import Gate
from gentlegate.web.desk.stream_schemas import (
    CategoryFound,
    ForgetArrivals,
    Found,
    Happened,
    MarkerView,
    NameOnPlatform,
    SetCategory,
    StartAd,
    WriteMarker,
)
from gentlegate.web.door.access import needs
from gentlegate.web.problems import ANSWERS

routes = APIRouter(prefix="/api/stream", tags=["stream"], responses=ANSWERS)


def _may(act: str) -> Any:
    return Depends(needs(act))


async def _act(request: Request, account: Account, do: str, **values: Any) -> Happened:
    gate: Gate = request.app.state.gate
    effects = await gate.act_and_hear(account, do, **{k: v for k, v in values.items() if v is not None})
    return Happened(
        effects=[effect_object(effect) for effect in effects],
        says=[effect.says for effect in effects if isinstance(effect, Refused) and effect.says],
        link=next((effect.link for effect in effects if isinstance(effect, Clip) and effect.link), None),
    )


@routes.post("/category", summary="Set the category on every live platform")
async def category(body: SetCategory, request: Request, account: Annotated[Account, _may("category")]) -> Happened:
    return await _act(request, account, "category", category=body.category, platforms=body.platforms)


@routes.get("/categories", summary="What each platform has that is like this name")
async def categories(request: Request, _: Annotated[Account, _may("look")], name: str) -> Found:
    gate: Gate = request.app.state.gate
    names = request.app.state.directories
    parts, found = gate.engine.parts, []
    platforms = parts.platform_names()
    for platform, listed in zip(platforms, await asyncio.gather(*map(names, platforms)), strict=True):
        near = meant(parts, platform, name, listed)
        if listed is None:
            found.append(CategoryFound(platform=platform, any=True, exact=near.entry, nearest=[]))
            continue
        holding = [one for one in listed if name.casefold() in one.casefold()]
        best = list(dict.fromkeys([*([near.entry] if near.entry else []), *holding, *near.nearest]))
        found.append(CategoryFound(platform=platform, any=False, exact=near.entry, nearest=best[:6]))
    pins = [pin.name for pin in parts.kit.channel.categories]
    return Found(pinned=[pin for pin in pins if name.casefold() in pin.casefold()], platforms=found)


@routes.post("/shoutout", summary="Give a channel a shoutout")
async def shoutout(
    body: NameOnPlatform, request: Request, account: Annotated[Account, _may("shoutout")]
) -> Happened:
    return await _act(request, account, "shoutout", name=body.name, platform=body.platform)


@routes.post("/marker", summary="Mark this point of the stream")
async def marker(body: WriteMarker, request: Request, account: Annotated[Account, _may("marker")]) -> Happened:
    return await _act(request, account, "marker", note=body.note)


@routes.post("/clip", summary="Ask a platform for a clip")
async def clip(request: Request, account: Annotated[Account, _may("clip")]) -> Happened:
    return await _act(request, account, "clip")


@routes.post("/ad", summary="Start an ad break")
async def ad(body: StartAd, request: Request, account: Annotated[Account, _may("ad")]) -> Happened:
    return await _act(request, account, "ad", platform=body.platform, seconds=body.seconds)


@routes.post("/raid", summary="Arm a raid; it goes after 30 s")
async def raid(body: NameOnPlatform, request: Request, account: Annotated[Account, _may("raid")]) -> Happened:
    return await _act(request, account, "raid", name=body.name, platform=body.platform)


@routes.delete("/raid", summary="Call the armed raid off")
async def cancel_raid(request: Request, account: Annotated[Account, _may("cancel_raid")]) -> Happened:
    return await _act(request, account, "cancel_raid")


@routes.post("/arrivals/forget", summary="Forget this stream's arrivals, of one person or all")
async def forget(body: ForgetArrivals, request: Request, account: Annotated[Account, _may("arrivals")]) -> Happened:
    return await _act(request, account, "arrivals", person=body.person)


def _markers(request: Request) -> list[MarkerView]:
    gate: Gate = request.app.state.gate
    names = request.app.state.names
    return [
        MarkerView(
            at=record.at,
            stream=record.stream,
            offset=record.offset // 1_000_000,
            by=names.get(record.by, record.by_name),
            note=record.note,
        )
        for _, record in sorted(gate.engine.state.markers.items())
    ]


@routes.get("/markers", summary="Every marker, oldest first")
async def markers(request: Request, _: Annotated[Account, _may("look")]) -> list[MarkerView]:
    return _markers(request)


@routes.get("/markers.csv", summary="The markers as a table")
async def markers_table(request: Request, _: Annotated[Account, _may("look")]) -> Response:
    rows = ((one.stream, format_moment(one.at), _clock(one.offset), one.note, one.by) for one in _markers(request))
    return Response(write_table(("stream", "at", "time", "note", "by"), rows), media_type="text/csv; charset=utf-8")


@routes.get("/chapters.txt", summary="The markers of a stream as chapter lines")
async def chapters(request: Request, _: Annotated[Account, _may("look")], stream: int | None = None) -> Response:
    found = _markers(request)
    wanted = stream if stream is not None else max((one.stream for one in found), default=0)
    mine = [one for one in found if one.stream == wanted]
    if not mine:
        raise ActError("this stream has no markers", "stream")
    lines = [] if mine[0].offset == 0 else ["0:00:00 Begin"]
    lines += [f"{_clock(one.offset)} {one.note or 'Marker'}" for one in mine]
    return Response("\n".join(lines) + "\n", media_type="text/plain; charset=utf-8")


def _clock(seconds: int) -> str:
    return f"{seconds // 3600}:{seconds % 3600 // 60:02}:{seconds % 60:02}"
