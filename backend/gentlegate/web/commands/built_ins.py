"""The built-ins' routes of the Commands room: renamed, re-levelled, re-cooled or switched off, never removed."""

from __future__ import annotations

from fastapi import APIRouter, Request

from gentlegate.core.builtins.catalogue import BUILT_INS
from gentlegate.core.errors import ActError
from gentlegate.core.kit import edit
from gentlegate.core.parts import Slot
from gentlegate.runtime.gate import Gate
from gentlegate.web.commands.schemas import BuiltInView, SaveBuiltIn
from gentlegate.web.entries import Changing, Looking, history_of, revision
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.schemas import History

routes = APIRouter(prefix="/api/built-ins", tags=["built-ins"], responses=ANSWERS)


def view_of_built_in(gate: Gate, slot: Slot) -> BuiltInView:
    """A built-in as the room shows it."""
    key = slot.key.removeprefix("/")
    usual = BUILT_INS[key]
    record = gate.engine.state.commands.get(slot.key)
    setting = edit.read(gate.engine.document, f"built_ins.{key}") or {}
    return BuiltInView(
        key=key,
        names=list(slot.names),
        level=slot.needs.level,
        sets_level=slot.sets_needs.level if slot.sets_needs else None,
        usual_names=list(usual.names),
        usual_level=usual.sets_level or usual.level,
        on=slot.on,
        uses=record.uses if record else 0,
        revision=revision(setting),
        setting=setting,
    )


def _slot(gate: Gate, key: str) -> Slot:
    if key not in BUILT_INS:
        raise ActError(f'there is no built-in "{key}"; there are: {", ".join(BUILT_INS)}', "key")
    return gate.engine.parts.slots[f"/{key}"]


@routes.put("/{key}", summary="Change a built-in")
async def save(key: str, body: SaveBuiltIn, request: Request, account: Changing) -> BuiltInView:
    gate: Gate = request.app.state.gate

    def still() -> None:
        current = view_of_built_in(gate, _slot(gate, key))
        if current.revision != body.revision:
            detail = "Somebody else has saved this built-in meanwhile."
            raise Refused(409, "changed-meanwhile", detail, None, current.setting, current.revision)

    still()
    await gate.act(account, "setting", still=still, path=f"built_ins.{key}", value=body.setting or None)
    return view_of_built_in(gate, _slot(gate, key))


@routes.get("/{key}/history", summary="What became of a built-in's settings, newest first")
async def history(key: str, request: Request, _: Looking) -> History:
    _slot(request.app.state.gate, key)
    return await history_of(request, "built_ins", key)
