"""The Rules room's routes: the mood, the filters, and trying a line."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request

from gentlegate.core.company import Company
from gentlegate.core.effects import Verdict
from gentlegate.core.engine import Engine
from gentlegate.core.errors import ActError
from gentlegate.core.events import LEVELS, Message, Person, StreamChange
from gentlegate.core.filters import KEYS
from gentlegate.core.identity import Directory
from gentlegate.core.judge.judge import Judge
from gentlegate.core.kit import edit
from gentlegate.core.kit.filters import MOODS, with_mood
from gentlegate.core.kit.load import load_kit
from gentlegate.core.state import State
from gentlegate.core.team import Account
from gentlegate.formats.effects import effect_object
from gentlegate.runtime.gate import Gate
from gentlegate.web.access import needs
from gentlegate.web.problems import ANSWERS
from gentlegate.web.schemas import (
    AskConsequence,
    CaughtLine,
    Consequence,
    FilterView,
    Rules,
    SaveFilter,
    SetMood,
    Tried,
    TryLine,
)

routes = APIRouter(prefix="/api/rules", tags=["rules"], responses=ANSWERS)
Looking = Annotated[Account, Depends(needs("look"))]
Changing = Annotated[Account, Depends(needs("filters"))]
_BADGE = {"broadcaster": "broadcaster", "moderator": "moderator", "vip": "vip", "subscriber": "subscriber"}


def _known(key: str) -> None:
    if key not in KEYS:
        raise ActError(f'there is no filter "{key}"; there are: {", ".join(KEYS)}', "key")


def _rules(gate: Gate) -> Rules:
    parts = gate.engine.parts
    mood = parts.kit.channel.mood
    settled = with_mood(parts.kit.filters, mood)
    stopped = gate.screen.stopped()
    views = []
    for key in KEYS:
        own = edit.read(gate.engine.document, f"filters.{key}") or {}
        views.append(
            FilterView(
                key=key,
                values=getattr(settled, key).model_dump(mode="json"),
                own=[name for name in own if name in MOODS[mood][key] and own[name] != MOODS[mood][key][name]],
                mood=MOODS[mood][key],
                stopped=stopped.get(key, 0),
            )
        )
    return Rules(mood=mood, filters=views)


@routes.get("", summary="The mood and every filter")
async def every(request: Request, _: Looking) -> Rules:
    return _rules(request.app.state.gate)


@routes.put("/mood", summary="Set the mood; single changes stay")
async def set_mood(body: SetMood, request: Request, account: Annotated[Account, Depends(needs("mood"))]) -> Rules:
    gate: Gate = request.app.state.gate
    await gate.act(account, "setting", path="channel.mood", value=body.mood)
    return _rules(gate)


@routes.put("/filters/{key}", summary="Change values of a filter")
async def save(key: str, body: SaveFilter, request: Request, account: Changing) -> Rules:
    _known(key)
    gate: Gate = request.app.state.gate
    section = dict(edit.read(gate.engine.document, f"filters.{key}") or {})
    for name, value in body.values.items():
        section[name] = value
    kept: dict[str, Any] = {name: value for name, value in section.items() if value is not None}
    await gate.act(account, "setting", path=f"filters.{key}", value=kept)
    return _rules(gate)


def _with_unsaved(document: dict[str, Any], filters: dict[str, dict[str, Any]]) -> dict[str, Any]:
    """The settings with unsaved values of filters in their place."""
    for key, values in filters.items():
        _known(key)
        section = {**(edit.read(document, f"filters.{key}") or {}), **values}
        kept = {name: value for name, value in section.items() if value is not None}
        document = edit.write(document, f"filters.{key}", kept)
    return document


@routes.post("/try", summary="What the judge would say of a line; touches nothing")
async def try_line(body: TryLine, request: Request, _: Looking) -> Tried:
    gate: Gate = request.app.state.gate
    document = _with_unsaved(gate.engine.document, body.filters)
    if body.level not in LEVELS:
        raise ActError(f'there is no level "{body.level}"; there are: {", ".join(LEVELS)}', "level")
    now = gate.clock.now()
    badges = frozenset({_BADGE[body.level]} if body.level in _BADGE else ())
    follows = now if body.level == "follower" else None
    person = Person("try-out", "someone", "someone", "Someone", badges, follows_since=follows)
    if body.level in ("regular", "lead"):
        listed = [*document.get("people", {}).get(f"{body.level}s", []), person.key]
        document = edit.write(document, f"people.{body.level}s", listed)
    verdict = _fresh_verdict(document, Message(now, "try-out", "line", person, body.text))
    return Tried(verdict=effect_object(verdict))


def _fresh_verdict(document: dict[str, Any], message: Message) -> Verdict:
    """The verdict on one line by an engine that has seen nothing else."""
    engine = Engine(document, every_verdict=True)
    engine.handle(StreamChange(message.at, message.platform, True))
    effects = engine.handle(message)
    return next(effect for effect in effects if isinstance(effect, Verdict))


@routes.post("/consequence", summary="Which of the lines at the Desk a filter would stop; touches nothing")
async def consequence(body: AskConsequence, request: Request, _: Looking) -> Consequence:
    gate: Gate = request.app.state.gate
    document = _with_unsaved(gate.engine.document, {body.filter: body.values})
    kit = load_kit(document)
    judge = Judge(kit, Directory(kit), State())
    company = Company()
    caught, messages = [], gate.screen.messages()
    for message, level in messages:
        heard = gate.engine.parts.ear.hear(message.text, message.reply_to is not None)
        judgement = judge.judge(
            message,
            message.at,
            identity=message.id,
            level=level,
            live=True,
            body=heard.body if heard else 0,
            company=company,
        )
        reasons = judgement.verdict.reasons if judgement else ()
        hit = any(reason.filter == body.filter and reason.step for reason in reasons)
        if hit:
            caught.append(
                CaughtLine(platform=message.platform, id=message.id, name=message.person.name, text=message.text)
            )
    return Consequence(all=len(messages), caught=caught)
