"""Setup's page about the channel itself: its name, prefix, zone and usual cooldown."""

from __future__ import annotations

from typing import Any

from fastapi import APIRouter, Request

from gentlegate.core.errors import ActError
from gentlegate.core.kit import edit
from gentlegate.core.kit.model import USUAL_COOLDOWN
from gentlegate.runtime.gate import Gate
from gentlegate.web.entries import Changing, Looking, change_all, revision
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.schemas import ChannelView, SaveChannel

routes = APIRouter(prefix="/api/channel", tags=["channel"], responses=ANSWERS)
USUAL: dict[str, Any] = {
    "name": "",
    "prefix": "!",
    "timezone": "UTC",
    "cooldown": USUAL_COOLDOWN,
    "spacing": "60s",
    "stream_gap": "10m",
}


def _view(gate: Gate) -> ChannelView:
    own = edit.read(gate.engine.document, "channel") or {}
    values = {field: own.get(field, usual) for field, usual in USUAL.items()}
    return ChannelView(values=values, revision=revision(values))


@routes.get("", summary="The channel's own settings")
async def read(request: Request, _: Looking) -> ChannelView:
    return _view(request.app.state.gate)


@routes.put("", summary="Change the channel's own settings")
async def save(body: SaveChannel, request: Request, account: Changing) -> ChannelView:
    gate: Gate = request.app.state.gate
    current = _view(gate)
    if body.revision != current.revision:
        raise Refused(
            409,
            "changed-meanwhile",
            "Somebody else has changed the channel's settings meanwhile.",
            None,
            current.values,
        )
    if unknown := set(body.values) - set(USUAL):
        raise ActError(f"{min(unknown)} is not set here", min(unknown))
    changes = [
        (f"channel.{field}", None if value == USUAL[field] else value) for field, value in body.values.items()
    ]
    await change_all(gate, account, changes)
    return _view(gate)
