"""What settings would do, before they are saved: to a line, and to the lines of the last streams. Touches nothing."""

from __future__ import annotations

import asyncio
from typing import Annotated

from fastapi import APIRouter, Depends, Request

from gentlegate.core.effects import Verdict
from gentlegate.core.engine import Engine
from gentlegate.core.errors import ActError
from gentlegate.core.events import LEVELS, Message, StreamChange
from gentlegate.core.kit import edit
from gentlegate.core.moments import MINUTE
from gentlegate.core.state import State
from gentlegate.core.team import Account
from gentlegate.core.try_out import made_up
from gentlegate.core.tuning import LIMITS, Said, lines_found
from gentlegate.formats.effects import effect_object
from gentlegate.runtime.gate import Gate
from gentlegate.web.door.access import needs
from gentlegate.web.problems import ANSWERS
from gentlegate.web.rules.filters import known_filter, with_unsaved
from gentlegate.web.rules.schemas import AskConsequence, AskTuning, CaughtLine, Consequence, Tried, TryLine, Tuning

routes = APIRouter(prefix="/api/rules", tags=["rules"], responses=ANSWERS)
Looking = Annotated[Account, Depends(needs("look"))]
SHOWN, TOP = 60, 400
PLATFORM = "try-out"


@routes.post("/try", summary="What the judge would say of a line")
async def try_line(body: TryLine, request: Request, _: Looking) -> Tried:
    gate: Gate = request.app.state.gate
    if body.level not in LEVELS:
        raise ActError(f'there is no level "{body.level}"; there are: {", ".join(LEVELS)}', "level")
    document = with_unsaved(gate.engine.effective, body.filters)
    now = gate.clock.now()
    document, person = made_up(document, PLATFORM, "someone", ("someone", "Someone"), body.level, now)
    message = Message(now, PLATFORM, "line", person, body.text, action=body.action)
    return Tried(
        verdict=effect_object(
            await asyncio.to_thread(_fresh_verdict, document, gate.engine.state.blank(), message, body.new)
        )
    )


def _fresh_verdict(document: edit.Document, state: State, message: Message, new: bool) -> Verdict:
    """The verdict on one line by an engine that has seen nothing else, but that the writer is no newcomer."""
    engine = Engine(document, state=state, every_verdict=True)
    engine.handle(StreamChange(message.at - MINUTE, message.platform, True))
    if not new:
        engine.handle(Message(message.at - MINUTE, message.platform, "before", message.person, "hello"))
    effects = engine.handle(message)
    return next(effect for effect in effects if isinstance(effect, Verdict))


def _caught(said: Said) -> CaughtLine:
    message = said.message
    return CaughtLine(
        platform=message.platform,
        id=message.id,
        name=message.person.name,
        text=message.text[:400],
        measured=said.measured,
        regular=said.regular,
    )


@routes.post("/consequence", summary="Which lines of the last streams a filter would stop")
async def consequence(body: AskConsequence, request: Request, _: Looking) -> Consequence:
    known_filter(body.filter)
    gate: Gate = request.app.state.gate
    lines = await request.app.state.past.lines()
    document = gate.engine.effective
    found = await asyncio.to_thread(
        lines_found, document, gate.engine.state.blank(), body.filter, body.values, lines
    )
    stopped = [said for said in found if not said.exempt]
    return Consequence(
        all=len(lines),
        stopped=len(stopped),
        exempt=len(found) - len(stopped),
        caught=[_caught(said) for said in reversed(stopped[-SHOWN:])],
    )


@routes.post("/tuning", summary="How the lines of the last streams measure, for one of a filter's limits")
async def tuning(body: AskTuning, request: Request, _: Looking) -> Tuning:
    known_filter(body.filter)
    limits = LIMITS.get(body.filter, {})
    if body.field not in limits:
        raise ActError(f'{body.filter} has no limit "{body.field}"; it has: {", ".join(limits) or "none"}', "field")
    gate: Gate = request.app.state.gate
    lines = await request.app.state.past.lines()
    document = gate.engine.effective
    found = await asyncio.to_thread(
        lines_found, document, gate.engine.state.blank(), body.filter, body.values, lines, body.field
    )
    counted = sorted(
        (said for said in found if not said.exempt and said.measured is not None),
        key=lambda said: -(said.measured or 0),
    )
    return Tuning(
        all=len(lines),
        reached=limits[body.field][1],
        values=[float(said.measured or 0) for said in counted if not said.regular],
        regular_values=[float(said.measured or 0) for said in counted if said.regular],
        top=[_caught(said) for said in counted[:TOP]],
    )
