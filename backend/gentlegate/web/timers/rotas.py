"""The Timers room's routes: rotas, their forecast, and what was posted."""

from __future__ import annotations

import asyncio
import re
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request, Response

from gentlegate.core.effects import Say
from gentlegate.core.errors import ActError, TemplateProblem
from gentlegate.core.kit import edit
from gentlegate.core.kit.entries import rotas_by_command
from gentlegate.core.kit.load import load_kit, load_notice
from gentlegate.core.kit.model import Kit
from gentlegate.core.moments import MINUTE, format_moment
from gentlegate.core.rotas.forecast import Post, copied, from_now, of_recorded
from gentlegate.core.rotas.pace import Pace
from gentlegate.core.rotas.remarks import remarks
from gentlegate.core.rotas.voice import Voice
from gentlegate.core.team import Account
from gentlegate.core.text.folding import fold_name
from gentlegate.formats.calendar import notices_calendar
from gentlegate.formats.tables import write_table
from gentlegate.runtime.gate import Gate
from gentlegate.runtime.recorded import Recorded
from gentlegate.web.commands import previews
from gentlegate.web.commands.schemas import SaveCommand
from gentlegate.web.door.access import needs
from gentlegate.web.entries import Changing, Looking, history_of, remove_entry, revision, save_entry
from gentlegate.web.problems import ANSWERS
from gentlegate.web.schemas import BatchDone, History
from gentlegate.web.timers.schemas import (
    AskForecast,
    ForecastView,
    GoodCommand,
    NoticeTried,
    PauseRota,
    PostView,
    RemarkView,
    Rotas,
    RotaView,
    RowView,
    SaveRota,
    StreamView,
    TryNotice,
)

routes = APIRouter(prefix="/api/rotas", tags=["rotas"], responses=ANSWERS)
Moving = Annotated[Account, Depends(needs("rota"))]
MADE_UP = 4.0
"""Lines a minute that are reckoned with where no stream was recorded."""
LEAST_MINUTES = 5
_PERSONAL = re.compile(r"\b(person|args?|target|uses|wait)\b")


@routes.get("", summary="Every rota, and what a new notice may be")
async def every(request: Request, _: Looking) -> Rotas:
    gate: Gate = request.app.state.gate
    recorded: Recorded = request.app.state.recorded
    parts, document = gate.engine.parts, gate.engine.document
    ended = [one for one in await recorded.streams() if one.ended is not None]
    views = [
        StreamView(number=one.number, began=one.began, minutes=((one.ended or 0) - one.began) // MINUTE)
        for one in ended
    ]
    return Rotas(
        rotas=[_view(gate, rota) for rota in document.get("rotas", [])],
        spacing=str(document.get("channel", {}).get("spacing", "60s")),
        commands=[command.name for command in parts.kit.commands],
        unposted=_unposted(gate),
        platforms=parts.platform_names(),
        streams=[view for view in reversed(views) if view.minutes >= LEAST_MINUTES],
    )


def _view(gate: Gate, rota: dict[str, Any]) -> RotaView:
    name = str(rota.get("name", ""))
    live = next((one for one in gate.engine.rotas.rotas if fold_name(one.name) == fold_name(name)), None)
    paused = gate.engine.rotas.record(live).paused if live else False
    return RotaView(name=name, rota=rota, revision=revision(rota), paused=paused)


def _unposted(gate: Gate) -> list[GoodCommand]:
    """Commands for everyone whose reply reads well unasked, the most used first."""
    parts = gate.engine.parts
    posted = rotas_by_command(gate.engine.document)
    found = []
    for command in parts.kit.commands:
        alone = (
            command.on and command.needs.level == "everyone" and command.mode != "private" and not command.counts
        )
        if alone and fold_name(command.name) not in posted and not any(map(_PERSONAL.search, command.reply)):
            record = parts.state.commands.get(fold_name(command.name))
            found.append(GoodCommand(name=command.name, reply=command.reply[0], uses=record.uses if record else 0))
    return sorted(found, key=lambda one: -one.uses)


@routes.put("/{name}", summary="Make or change a rota")
async def save(name: str, body: SaveRota, request: Request, account: Changing) -> RotaView:
    gate: Gate = request.app.state.gate
    await save_entry(gate, account, "rotas", name, SaveCommand(command=body.rota, revision=body.revision))
    return _view(gate, edit.read(gate.engine.document, f"rotas.{body.rota.get('name', '')}") or body.rota)


@routes.delete("/{name}", summary="Remove a rota")
async def remove(name: str, request: Request, account: Changing, revision: str | None = None) -> BatchDone:
    return await remove_entry(request.app.state.gate, account, "rotas", name, revision)


@routes.get("/{name}/history", summary="What became of a rota, newest first")
async def history(name: str, request: Request, _: Looking) -> History:
    return await history_of(request, "rotas", name)


@routes.post("/{name}/pause", summary="Pause a rota, or let it go on", status_code=204)
async def pause(name: str, body: PauseRota, request: Request, account: Moving) -> None:
    await request.app.state.gate.act(account, "pause_rota", rota=name, paused=body.paused)


@routes.post("/{name}/next", summary="Post a rota's next notice now", status_code=204)
async def post_next(name: str, request: Request, account: Moving) -> None:
    await request.app.state.gate.act(account, "next_notice", rota=name)


@routes.post("/try", summary="How a notice would read; or say it once for real")
async def try_notice(body: TryNotice, request: Request, account: Moving) -> NoticeTried:
    gate: Gate = request.app.state.gate
    parts, notice = gate.engine.parts, load_notice(body.notice)
    if body.real:
        effects = await gate.act(account, "send_notice", rota=body.rota, notice=body.notice)
        return NoticeTried(said=any(isinstance(effect, Say) for effect in effects), shown=[])
    try:
        command = parts.slots.get(fold_name(notice.command)) if notice.command else None
        template = command.command.reply[0] if command and command.command else Voice(parts).template(notice)
        shown = previews.shown(parts, template, "notice", gate.clock.now())
    except TemplateProblem as error:
        return NoticeTried(said=False, shown=[], problem=str(error))
    return NoticeTried(
        said=False, shown=[one for one in shown if not notice.platforms or one.platform in notice.platforms]
    )


@routes.post("/forecast", summary="What the rotas will post, also with one as it is being changed")
async def forecast(body: AskForecast, request: Request, _: Looking) -> ForecastView:
    gate: Gate = request.app.state.gate
    recorded: Recorded = request.app.state.recorded
    kit = await asyncio.to_thread(_with_draft, gate, body)
    if body.stream is not None:
        return await _over_recorded(gate, recorded, kit, body.stream)
    usual, spread, streams = await recorded.usual()
    pace = usual or Pace.of([MADE_UP])
    if body.pace is not None:
        pace, streams = Pace.of([body.pace]), 0
    parts, now = gate.engine.parts, gate.clock.now()
    names = parts.platform_names()
    shares = {name: spread.get(name, 0.0) for name in names} if spread else {}
    shares = shares if sum(shares.values()) else {name: 1 / len(names) for name in names}
    live = parts.streams.live
    until = now + round(body.hours * 60 * MINUTE)
    abilities = {name: parts.abilities(name) for name in names}
    # The copy is taken here, where nothing moves meanwhile; the rest need not hold the live gate up.
    about = (kit, abilities, copied(gate.engine.state), parts.seed, now, until, pace, shares)
    before = parts.kit if body.rota is not None else None
    posts = await asyncio.to_thread(from_now, *about, before=before)
    offset = now - parts.streams.now.began if live else 0
    return _seen(kit, posts, pace, (now, until), offset, live, streams)


def _with_draft(gate: Gate, body: AskForecast) -> Kit:
    """The settings that hold, with the rota as it is being changed. KitError where it does not hold."""
    if body.rota is None:
        return gate.engine.parts.kit
    opened = edit.Opened(gate.engine.effective)
    opened.write(f"rotas.{body.was or body.rota.get('name', '')}", body.rota)
    return load_kit(opened.document)


async def _over_recorded(gate: Gate, recorded: Recorded, kit: Kit, number: int) -> ForecastView:
    stream = next((one for one in await recorded.streams() if one.number == number), None)
    if stream is None or stream.ended is None:
        raise ActError(f"no stream {number} is recorded", "stream")
    course = await recorded.course(stream)
    parts = gate.engine.parts
    abilities = {name: parts.abilities(name) for name in parts.platform_names()}
    posts = await asyncio.to_thread(of_recorded, kit, abilities, parts.seed, course)
    length = max(stream.ended - stream.began, MINUTE)
    lines = sum(1 for _, event in course if isinstance(event, str))
    pace = Pace.of([lines * MINUTE / length])
    return _seen(kit, posts, pace, (stream.began, stream.ended), 0, False, 0)


def _seen(
    kit: Kit, posts: list[Post], pace: Pace, span: tuple[int, int], offset: int, live: bool, streams: int
) -> ForecastView:
    begin, until = span
    rows: dict[str, list[PostView]] = {rota.name: [] for rota in kit.rotas if rota.on}
    for post in posts:
        rows[post.rota].append(PostView(at=post.at, notice=post.notice, platforms=list(post.platforms)))
    return ForecastView(
        begin=begin,
        until=until,
        live=live,
        pace=round(pace.mean(offset, until - begin), 2),
        usual_of=streams,
        rows=[RowView(rota=name, posts=found) for name, found in rows.items()],
        remarks=[
            RemarkView(what=one.what, rota=one.rota, values=one.values)
            for one in remarks(kit, posts, pace, offset, until - begin)
        ],
    )


@routes.get("/notices.ics", summary="The dated notices as a calendar")
async def calendar(request: Request, _: Looking) -> Response:
    gate: Gate = request.app.state.gate
    text = notices_calendar(gate.engine.parts.kit, gate.clock.now())
    return Response(text, media_type="text/calendar; charset=utf-8")


@routes.get("/posts.csv", summary="What was posted when, newest first")
async def posts_table(request: Request, _: Looking) -> Response:
    rows = ((format_moment(at), *told) for at, *told in await request.app.state.read_posts())
    return Response(
        write_table(("at", "rota", "platform", "text", "status"), rows), media_type="text/csv; charset=utf-8"
    )
