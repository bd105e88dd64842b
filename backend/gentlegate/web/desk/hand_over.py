"""The hand-over: what somebody missed who comes in mid-stream."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Depends, Request
from pydantic import Field

from gentlegate.core.moments import HOUR
from gentlegate.core.team import Account
from gentlegate.runtime.gate import Gate
from gentlegate.web.door.access import needs
from gentlegate.web.people.cards import names_of, note_view
from gentlegate.web.people.schemas import NoteView
from gentlegate.web.problems import ANSWERS
from gentlegate.web.records.ledger import EntryView, entry_views
from gentlegate.web.schemas import Wire

routes = APIRouter(prefix="/api/hand-over", tags=["hand-over"], responses=ANSWERS)
Reading = Annotated[Account, Depends(needs("card"))]
LONGEST = 24 * HOUR
ENTRIES, NOTES = 40, 20


class Stopped(Wire):
    filter: str
    outcome: str
    count: int


class HandOver(Wire):
    since: int = Field(description="From when on.")
    missed: bool = Field(description="Whether they were away and have not looked yet.")
    stopped: list[Stopped] = Field(description="What the judge stopped, by filter and outcome.")
    entries: list[EntryView] = Field(description="What others did, newest first.")
    more: bool = Field(description="Whether there is more than these entries.")
    notes: list[NoteView] = Field(description="What was noted, for the team or about a person.")
    names: dict[str, str] = Field(description="The names of those whom notes are about, by their person string.")


@routes.get("", summary="What others did, what was stopped and noted since one was here")
async def hand_over(request: Request, account: Reading, whole: bool = False) -> HandOver:
    """Since one was away, or since the stream began; `whole` asks for the stream from its beginning."""
    gate: Gate = request.app.state.gate
    state = request.app.state
    away = await state.accounts("away_from", account.id)
    now = gate.clock.now()
    began = gate.engine.parts.streams.now.began
    since = began if whole or away is None else away
    since = max(since, now - LONGEST)
    found = await state.ledger("since", at=since, but=account.key, most=ENTRIES + 1)
    notes = await state.people("notes_since", since, NOTES)
    return HandOver(
        since=since,
        missed=away is not None,
        stopped=[
            Stopped(filter=filter_ or "", outcome=outcome, count=count)
            for filter_, outcome, count in await state.ledger("stopped_since", at=since)
        ],
        entries=await entry_views(request, account, found[:ENTRIES]),
        more=len(found) > ENTRIES,
        notes=[note_view(note, account) for note in notes],
        names=names_of(gate, notes),
    )


@routes.post("/seen", summary="One has looked at what one missed", status_code=204)
async def seen(request: Request, account: Reading) -> None:
    await request.app.state.accounts("seen_missed", account.id)
