"""The try-out's route."""

from __future__ import annotations

import asyncio
from typing import Annotated

from fastapi import APIRouter, Depends, Request

from gentlegate.core.errors import ActError
from gentlegate.core.events import LEVELS, Person
from gentlegate.core.kit import edit
from gentlegate.core.moments import parse_moment
from gentlegate.core.team import Account
from gentlegate.core.text.folding import fold_name
from gentlegate.core.try_out import Attempt, made_up, try_out
from gentlegate.formats.effects import effect_object
from gentlegate.runtime.gate import Gate
from gentlegate.web.desk.schemas import TriedOut, TryOut
from gentlegate.web.door.access import needs
from gentlegate.web.problems import ANSWERS

routes = APIRouter(prefix="/api", tags=["try-out"], responses=ANSWERS)


@routes.post("/try-out", summary="What the gate would do about a message; touches nothing")
async def attempt(body: TryOut, request: Request, _: Annotated[Account, Depends(needs("look"))]) -> TriedOut:
    gate: Gate = request.app.state.gate
    if body.level is not None and body.level not in LEVELS:
        raise ActError(f'there is no level "{body.level}"; there are: {", ".join(LEVELS)}', "level")
    engine, now = gate.engine, _moment(body.at, gate.clock.now())
    document = edit.write_all(engine.document, [(change.path, change.value) for change in body.changes])
    known = await _seen(request, body.platform, body.login)
    if known is None or body.level is not None:
        id, names = known.id if known else f"u-{body.login.casefold()}", (body.login, body.login)
        document, person = made_up(document, body.platform, id, names, body.level or "everyone", now)
    else:
        person = known
    state = engine.state.copy_for([person.key, engine.parts.directory.identity(person)])
    wanted = Attempt(body.text, person, body.live, body.action, body.new)
    level, effects = await asyncio.to_thread(try_out, document, state, engine.declared, wanted, now)
    found = [effect_object(effect) for effect in effects]
    verdict = next(one for one in found if one["effect"] == "verdict")
    return TriedOut(verdict=verdict, effects=found, level=level, known=known is not None)


def _moment(at: str | None, now: int) -> int:
    try:
        return now if at is None else parse_moment(at)
    except ValueError as error:
        raise ActError(f"this is no moment: {error}", "at") from None


async def _seen(request: Request, platform: str, login: str) -> Person | None:
    """The person of this log-in or name, as last seen in chat on the platform."""
    wanted = fold_name(login.removeprefix("@"))
    for line in reversed(await request.app.state.past.lines()):
        person: Person = line.person
        if line.platform == platform and wanted in (fold_name(person.login), fold_name(person.name)):
            return person
    return None
