"""Setup's page about the channel itself: its name, prefix, zone and usual cooldown."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request

from gentlegate.core.errors import ActError
from gentlegate.core.kit import edit
from gentlegate.core.team import Account
from gentlegate.runtime.gate import Gate
from gentlegate.web.access import needs
from gentlegate.web.entries import revision
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.schemas import ChannelView, SaveChannel

routes = APIRouter(prefix="/api/channel", tags=["channel"], responses=ANSWERS)
FIELDS = ("name", "prefix", "timezone", "cooldown", "spacing", "stream_gap")
USUAL: dict[str, Any] = {
    "name": "",
    "prefix": "!",
    "timezone": "UTC",
    "cooldown": {"everyone": "5s", "person": "0s"},
    "spacing": "60s",
    "stream_gap": "10m",
}


def _view(gate: Gate) -> ChannelView:
    own = edit.read(gate.engine.document, "channel") or {}
    values = {field: own.get(field, USUAL[field]) for field in FIELDS}
    return ChannelView(values=values, revision=revision(values))


@routes.get("", summary="The channel's own settings")
async def read(request: Request, _: Annotated[Account, Depends(needs("look"))]) -> ChannelView:
    return _view(request.app.state.gate)


@routes.put("", summary="Change the channel's own settings")
async def save(
    body: SaveChannel, request: Request, account: Annotated[Account, Depends(needs("commands"))]
) -> ChannelView:
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
    if unknown := set(body.values) - set(FIELDS):
        raise ActError(f"{min(unknown)} is not set here", min(unknown))
    changes = [
        {"path": f"channel.{field}", "value": None if value == USUAL[field] else value}
        for field, value in body.values.items()
    ]
    await gate.act(account, "settings", changes=changes)
    return _view(gate)
