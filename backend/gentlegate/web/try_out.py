"""The try-out's route."""

from __future__ import annotations

import asyncio
from typing import Annotated

from fastapi import APIRouter, Depends, Request

from gentlegate.core.errors import ActError
from gentlegate.core.events import LEVELS
from gentlegate.core.team import Account
from gentlegate.core.try_out import Attempt, try_out
from gentlegate.formats.effects import effect_object
from gentlegate.runtime.gate import Gate
from gentlegate.web.access import needs
from gentlegate.web.problems import ANSWERS
from gentlegate.web.rules import with_unsaved
from gentlegate.web.schemas import Tried, TryOut

routes = APIRouter(prefix="/api", tags=["try-out"], responses=ANSWERS)


@routes.post("/try-out", summary="What the gate would do about a message; touches nothing")
async def attempt(body: TryOut, request: Request, _: Annotated[Account, Depends(needs("look"))]) -> Tried:
    gate: Gate = request.app.state.gate
    if body.level not in LEVELS:
        raise ActError(f'there is no level "{body.level}"; there are: {", ".join(LEVELS)}', "level")
    engine = gate.engine
    document = with_unsaved(engine.document, body.filters)
    key = f"{body.platform}:u-{body.login.casefold()}"
    state = engine.state.copy_for([key, engine.parts.directory.identity_of(key)])
    wanted = Attempt(body.text, body.login, body.level, body.platform, body.live, body.action, body.new)
    now = gate.clock.now()
    effects = await asyncio.to_thread(try_out, document, state, engine.declared, wanted, now)
    found = [effect_object(effect) for effect in effects]
    return Tried(verdict=next(one for one in found if one["effect"] == "verdict"), effects=found)
