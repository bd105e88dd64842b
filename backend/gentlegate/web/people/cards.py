"""The People room and a person's card: who somebody is, what was done about them, lists, links and notes."""

from __future__ import annotations

import asyncio
import re
import secrets
from collections.abc import Iterable
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request

from gentlegate.core.errors import ActError
from gentlegate.core.journal import LedgerEntry
from gentlegate.core.kit import edit
from gentlegate.core.moments import HOUR
from gentlegate.core.people import cards
from gentlegate.core.records import Act
from gentlegate.core.team import Account
from gentlegate.core.text.folding import fold_name
from gentlegate.runtime.gate import Gate
from gentlegate.web.door.access import needs
from gentlegate.web.people.schemas import (
    AccountSeen,
    ActView,
    AddNote,
    EarlierName,
    Erased,
    KeepNote,
    NoteView,
    Overview,
    PassView,
    PeoplePage,
    PersonCard,
    PersonRow,
    SaidPage,
    SaidView,
    StrikeView,
    WhyLevel,
)
from gentlegate.web.problems import ANSWERS, Refused

routes = APIRouter(prefix="/api/people", tags=["people"], responses=ANSWERS)
Reading = Annotated[Account, Depends(needs("card"))]
Noting = Annotated[Account, Depends(needs("note"))]
Erasing = Annotated[Account, Depends(needs("erase"))]
ROWS, PAGE, ACTS, SHOWN = 100, 50, 50, 8
NOTED_LATELY = 30 * 24 * HOUR
PERSON = re.compile(r"[a-z0-9_-]+:@?[^\s:]+")


def _row(gate: Gate, written: str, at: int | None = None) -> PersonRow:
    parts = gate.engine.parts
    found = cards.card(parts, written, gate.clock.now())
    first = found.accounts[0]
    return PersonRow(
        key=first.key,
        platform=first.platform,
        login=first.login,
        name=first.name,
        level=found.level,
        lists=found.lists,
        strikes=found.standing,
        at=at,
    )


@routes.get("", summary="People: who talked lately, by name, or with strikes")
async def every(request: Request, _: Reading, search: str = "", strikes: bool = False) -> PeoplePage:
    gate: Gate = request.app.state.gate
    wanted = fold_name(search.strip().lstrip("@"))
    if wanted:
        # Many names are gone through beside the live gate; a record is never changed in place.
        found = await asyncio.to_thread(cards.named, list(gate.engine.state.accounts.items()), wanted)
    elif strikes:
        found = cards.with_strikes(gate.engine.parts, gate.clock.now())
    else:
        known = gate.engine.state.accounts
        lately = [(key, at) for key, at in await request.app.state.people("lately", ROWS) if known.get(key)]
        return PeoplePage(people=[_row(gate, key, at) for key, at in lately], count=len(known))
    return PeoplePage(people=[_row(gate, key) for key in found[:ROWS]], count=len(found))


@routes.get("/overview", summary="Strikes that stand, names on several platforms, the newest notes")
async def overview(request: Request, account: Reading) -> Overview:
    gate: Gate = request.app.state.gate
    parts, now = gate.engine.parts, gate.clock.now()
    notes = await request.app.state.people("notes_since", now - NOTED_LATELY, SHOWN)
    return Overview(
        strikes=[_row(gate, key) for key in cards.with_strikes(parts, now)[:SHOWN]],
        alike=[[_account(one) for one in group] for group in cards.suggestions(parts, SHOWN)],
        notes=[note_view(note, account) for note in notes],
        names=names_of(gate, notes),
    )


def names_of(gate: Gate, notes: Iterable[Any]) -> dict[str, str]:
    """The names of those whom notes are about, by their person string."""
    accounts = gate.engine.state.accounts
    return {note.person: known.name for note in notes if note.person and (known := accounts.get(note.person))}


def _account(account: cards.Account) -> AccountSeen:
    seen = account.seen
    return AccountSeen(
        key=account.key,
        platform=account.platform,
        login=account.login,
        name=account.name,
        first=seen.first if seen else None,
        had=[EarlierName(login=login, name=name, until=until) for login, name, until in (seen.had if seen else [])],
    )


@routes.get("/card/{person}", summary="A person: accounts, level and why, strikes, acts, passes, notes")
async def card(person: str, request: Request, account: Reading) -> PersonCard:
    gate: Gate = request.app.state.gate
    found = cards.card(gate.engine.parts, person_string(person), gate.clock.now())
    keys = [one.key for one in found.accounts]
    ask = request.app.state.people
    count, last = await ask("counts", keys)
    if not count and not found.acts and not any(one.seen for one in found.accounts) and not found.lists:
        raise Refused(404, "not-found", f"Nobody is known here as {person}.", "person")
    logged = [line for _, line in await ask("acts", keys, ACTS)]
    return PersonCard(
        identity=found.identity,
        accounts=[_account(one) for one in found.accounts],
        alike=[_account(one) for one in found.alike],
        level=found.level,
        why=[WhyLevel(level=why.level, by=why.by, platform=why.platform) for why in found.why],
        lists=found.lists,
        strikes=[StrikeView(at=s.at, count=s.count, until=s.until, stands=s.stands) for s in found.strikes],
        standing=found.standing,
        acts=_acts(request, found.acts, logged),
        passes=_passes(found.passes),
        notes=[note_view(note, account) for note in await ask("notes", keys)],
        messages=count,
        last=last,
    )


def person_string(person: str) -> str:
    """The person string itself; ActError where it is none."""
    if not PERSON.fullmatch(person):
        raise ActError("a person is written platform:id or platform:@login", "person")
    return person


def _passes(filters: dict[str, int | None]) -> list[PassView]:
    """The filters of a pass, gathered by when they end."""
    ends: dict[int | None, list[str]] = {}
    for key, end in filters.items():
        ends.setdefault(end, []).append(key)
    return [PassView(filters=keys, until=end) for end, keys in ends.items()]


def _acts(request: Request, judged: Iterable[Act], logged: Iterable[LedgerEntry]) -> list[ActView]:
    """What the judge did, and what people did as the ledger has it, newest first."""
    names = request.app.state.names
    found = [
        ActView(
            at=one.at, what=one.outcome, by=None, about=one.about, seconds=one.seconds or None, undone=one.undone
        )
        for one in judged
        if one.by is None
    ]
    for line in logged:
        seconds = line.after if line.what == "timeout" and isinstance(line.after, int) else None
        by = names.get(line.who, line.who)
        about = ", ".join(line.before) if line.what == "pass" and isinstance(line.before, list) else ""
        found.append(ActView(at=line.at, what=line.what, by=by, about=about, seconds=seconds, undone=False))
    return sorted(found, key=lambda act: -act.at)[:ACTS]


@routes.get("/card/{person}/messages", summary="What a person wrote, newest first")
async def messages(person: str, request: Request, _: Reading, before: int | None = None) -> SaidPage:
    gate: Gate = request.app.state.gate
    keys = cards.keys_of(gate.engine.parts, person_string(person))
    found = await request.app.state.people("messages", keys, before, PAGE + 1)
    names = request.app.state.names
    return SaidPage(
        messages=[
            SaidView(
                number=one.number,
                at=one.at,
                platform=one.platform,
                text=one.text,
                outcome=one.outcome,
                filter=one.filter,
                by=names.get(one.by, one.by),
                undone=one.undone,
            )
            for one in found[:PAGE]
        ],
        more=found[PAGE - 1].number if len(found) > PAGE else None,
    )


def note_view(note: Any, account: Account) -> NoteView:
    return NoteView(
        id=note.id, person=note.person, text=note.text, at=note.at, by=note.by_name, mine=note.by == account.key
    )


@routes.post("/notes", summary="Note something about a person, or for the whole team")
async def add_note(body: AddNote, request: Request, account: Noting) -> NoteView:
    gate: Gate = request.app.state.gate
    person = None if body.person is None else cards.account_of(gate.engine.state, person_string(body.person)).key
    if not body.text.strip():
        raise ActError("the note is empty", "text")
    ask = request.app.state.people
    note = await ask("note", person, body.text.strip(), account.key, account.name, gate.clock.now())
    await gate.note(account, "note", person, None, note.id)
    gate.hub.team_changed()
    return note_view(note, account)


@routes.put("/notes/{id}", summary="Take a note away, or bring it back", status_code=204)
async def keep_note(id: int, body: KeepNote, request: Request, account: Noting) -> None:
    gate: Gate = request.app.state.gate
    ask = request.app.state.people
    note = await ask("note_of", id)
    if note is None:
        raise Refused(404, "not-found", "There is no such note.", "id")
    if note.by != account.key and not request.app.state.access.permissions.may(account, "people"):
        raise Refused(403, "not-allowed", f"This is {note.by_name}'s note; a lead may take it away too.", "id")
    await ask("take_away", id, gate.clock.now() if body.gone else None)
    await gate.note(account, "note", note.person, *((id, None) if body.gone else (None, id)))
    gate.hub.team_changed()


@routes.delete("/card/{person}", summary="Remove what a person said and who they were")
async def erase(person: str, request: Request, account: Erasing) -> Erased:
    gate: Gate = request.app.state.gate
    parts = gate.engine.parts
    found = cards.card(parts, person_string(person), gate.clock.now())
    keys = [one.key for one in found.accounts]
    names = [name for one in found.accounts for name in (one.login, one.name)]
    voices = list(parts.kit.channel.gatekeeper)
    nobody = f"gone-{secrets.token_hex(4)}"
    await gate.flush()
    count = await request.app.state.people("erase", keys, names, nobody, voices)
    if not count and not any(one.seen for one in found.accounts):
        raise Refused(404, "not-found", f"Nobody is known here as {person}.", "person")
    cards.forget(gate.engine.state, keys, found.identity)
    gate.engine.parts.forget_all()
    gate.screen.forget(keys)
    gate.hub.show_anew()
    request.app.state.past.forget()
    await gate.note(account, "erase", f"{found.accounts[0].platform}:{nobody}", None, count)
    return Erased(messages=count, settings=_named_in(gate, keys))


def _named_in(gate: Gate, keys: list[str]) -> list[str]:
    """The lists of people in which the settings name these accounts."""
    section = edit.read(gate.engine.document, "people") or {}
    state = gate.engine.state
    found = []
    for name, entries in section.items():
        flat = [one for entry in entries for one in (entry if isinstance(entry, list) else [entry])]
        if any(cards.account_of(state, entry).key in keys for entry in flat):
            found.append(name)
    return found
