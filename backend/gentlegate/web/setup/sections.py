"""Whole sections of the settings: the channel itself, arrivals, shoutouts, happenings, quotes."""

from __future__ import annotations

from typing import Any

from fastapi import APIRouter, Request

from gentlegate.core.errors import ActError
from gentlegate.core.kit import edit
from gentlegate.core.kit.model import USUAL_COOLDOWN
from gentlegate.core.kit.stream import Happenings, Quotes, Shoutouts
from gentlegate.runtime.gate import Gate
from gentlegate.web.entries import (
    Changing,
    Looking,
    change_all,
    revision,
)
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.setup.schemas import SaveSection, SectionView

routes = APIRouter(prefix="/api/sections", tags=["sections"], responses=ANSWERS)
USUAL: dict[str, dict[str, Any]] = {
    "channel": {
        "name": "",
        "prefix": "!",
        "timezone": "UTC",
        "cooldown": USUAL_COOLDOWN,
        "spacing": "60s",
        "stream_gap": "10m",
        "categories": [],
    },
    "arrivals": {"greet": None, "shoutout": [], "skip": []},
    "shoutouts": {"reply": Shoutouts().reply, "plain": Shoutouts().plain, "guard": "5m", "lines": {}},
    "happenings": dict.fromkeys(Happenings.model_fields),
    "quotes": {"reply": Quotes().reply},
}
"""The sections that are set here, with what holds where a channel says nothing."""


def _view(gate: Gate, section: str) -> SectionView:
    if section not in USUAL:
        raise ActError(f'there is no section "{section}" here; there are: {", ".join(USUAL)}', "section")
    own = edit.read(gate.engine.document, section) or {}
    values = {field: own.get(field, usual) for field, usual in USUAL[section].items()}
    return SectionView(values=values, usual=USUAL[section], revision=revision(values))


@routes.get("/{section}", summary="A section of the settings")
async def read(section: str, request: Request, _: Looking) -> SectionView:
    return _view(request.app.state.gate, section)


@routes.put("/{section}", summary="Change values of a section")
async def save(section: str, body: SaveSection, request: Request, account: Changing) -> SectionView:
    gate: Gate = request.app.state.gate
    current = _view(gate, section)

    def still() -> None:
        now = _view(gate, section)
        if body.revision != now.revision:
            detail = "Somebody else has changed these settings meanwhile."
            raise Refused(409, "changed-meanwhile", detail, None, now.values, now.revision)

    still()
    if unknown := set(body.values) - set(current.values):
        raise ActError(f"{min(unknown)} is not set here", min(unknown))
    usual = USUAL[section]
    changes = [
        (f"{section}.{field}", None if value == usual[field] else value) for field, value in body.values.items()
    ]
    await change_all(gate, account, changes, still=still)
    return _view(gate, section)
