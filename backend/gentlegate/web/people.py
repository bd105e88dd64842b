"""The People room and a person's card: who somebody is, what was done about them, lists, links and notes."""

from __future__ import annotations

import re
import secrets
from collections.abc import Iterable
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request

from gentlegate.core import people
from gentlegate.core.errors import ActError, GateError
from gentlegate.core.journal import LedgerEntry
from gentlegate.core.judge.ladder import standing
from gentlegate.core.kit import edit
from gentlegate.core.records import Act
from gentlegate.core.team import Account
from gentlegate.core.text.folding import fold_name
from gentlegate.runtime.gate import Gate
from gentlegate.web.access import needs
from gentlegate.web.entries import change_all, only_broadcasters
from gentlegate.web.people_schemas import (
    AccountSeen,
    ActView,
    AddNote,
    ChangePeopleList,
    CheckedName,
    CheckNames,
    EarlierName,
    Erased,
    KeepNote,
    LinkWith,
    ListedPerson,
    ListName,
    NoteView,
    PassView,
    PeopleList,
    PeoplePage,
    PersonCard,
    PersonRow,
    SaidPage,
    SaidView,
    StrikeView,
    Unlink,
    WhyLevel,
)
from gentlegate.web.problems import ANSWERS, Refused

routes = APIRouter(prefix="/api/people", tags=["people"], responses=ANSWERS)
Reading = Annotated[Account, Depends(needs("card"))]
Noting = Annotated[Account, Depends(needs("note"))]
Editing = Annotated[Account, Depends(needs("people"))]
Erasing = Annotated[Account, Depends(needs("erase"))]
ROWS, PAGE, ACTS = 100, 50, 50
PERSON = re.compile(r"[a-z0-9_-]+:@?[^\s:]+")


def _row(gate: Gate, written: str, at: int | None = None) -> PersonRow:
    parts = gate.engine.parts
    found = people.card(parts, written, gate.clock.now())
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
        found = _named(gate, wanted)
    elif strikes:
        found = _with_strikes(gate)
    else:
        known = gate.engine.state.accounts
        lately = [(key, at) for key, at in await request.app.state.people("lately", ROWS) if known.get(key)]
        return PeoplePage(people=[_row(gate, key, at) for key, at in lately], count=len(known))
    return PeoplePage(people=[_row(gate, key) for key in found[:ROWS]], count=len(found))


def _named(gate: Gate, wanted: str) -> list[str]:
    """Accounts with this in a name of theirs, earlier ones too; names that begin with it first."""
    found = []
    for key, record in gate.engine.state.accounts.items():
        names = [record.login, record.name, *(name for had in record.had for name in had[:2])]
        places = [place for name in names if (place := fold_name(str(name)).find(wanted)) >= 0]
        if places:
            found.append((min(places), record.login, key))
    return [key for _, _, key in sorted(found)]


def _with_strikes(gate: Gate) -> list[str]:
    now, ladder = gate.clock.now(), gate.engine.parts.kit.ladder
    found = [(standing(record, ladder, now), key) for key, record in gate.engine.state.people.items()]
    return [key for count, key in sorted(found, reverse=True) if count]


def _account(account: people.Account) -> AccountSeen:
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
    found = people.card(gate.engine.parts, _written(person), gate.clock.now())
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


def _written(person: str) -> str:
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
    keys = people.keys_of(gate.engine.parts, _written(person))
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
    person = None if body.person is None else people.account_of(gate.engine.state, _written(body.person)).key
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


@routes.post("/link", summary="Two accounts are one person's", status_code=204)
async def link(body: LinkWith, request: Request, account: Editing) -> None:
    gate: Gate = request.app.state.gate
    state = gate.engine.state
    one, other = (people.account_of(state, _written(written)).key for written in (body.person, body.other))
    if one == other:
        raise ActError("these are the same account", "other")
    await _relink(gate, account, lambda groups: people.joined(groups, *_as_linked(gate, groups, one, other)))


@routes.post("/unlink", summary="An account is somebody else's after all", status_code=204)
async def unlink(body: Unlink, request: Request, account: Editing) -> None:
    gate: Gate = request.app.state.gate
    key = people.account_of(gate.engine.state, _written(body.person)).key
    groups = edit.read(gate.engine.document, "people.linked") or []
    (written,) = _as_linked(gate, groups, key)
    if not any(written in group for group in groups):
        raise ActError("this account is linked with nobody", "person")
    await _relink(gate, account, lambda groups: people.parted(groups, *_as_linked(gate, groups, key)))


def _as_linked(gate: Gate, groups: list[list[str]], *keys: str) -> list[str]:
    """Accounts as the links write them: by log-in where they stand there so."""
    written = {people.account_of(gate.engine.state, one).key: one for group in groups for one in group}
    return [written.get(key, key) for key in keys]


async def _relink(gate: Gate, account: Account, change: Any) -> None:
    before = edit.read(gate.engine.document, "people.linked") or []

    def still() -> None:
        if (edit.read(gate.engine.document, "people.linked") or []) != before:
            raise Refused(
                409, "changed-meanwhile", "Somebody else has changed links meanwhile; look again.", "other"
            )

    await change_all(gate, account, [("people.linked", change(before) or None)], still=still)


@routes.get("/lists/{name}", summary="Everybody on a list of the channel's")
async def listed(name: ListName, request: Request, account: Reading) -> PeopleList:
    return _list(request, name, account)


def _list(request: Request, name: ListName, account: Account) -> PeopleList:
    gate: Gate = request.app.state.gate
    found = [(entry, people.account_of(gate.engine.state, entry)) for entry in _entries(gate, name)]
    may = request.app.state.access.permissions.may(account, "people")
    return PeopleList(
        name=name,
        entries=[
            ListedPerson(
                entry=entry,
                platform=account.platform,
                login=account.login,
                name=account.name,
                known=account.seen is not None,
            )
            for entry, account in found
        ],
        may=may and (name != "leads" or account.level == "broadcaster"),
    )


def _entries(gate: Gate, name: ListName) -> list[str]:
    return list(edit.read(gate.engine.document, f"people.{name}") or [])


@routes.post("/check", summary="Whether a platform knows these names")
async def check(body: CheckNames, request: Request, _: Editing) -> list[CheckedName]:
    gate: Gate = request.app.state.gate
    return [await _checked(request, gate, body.platform, name) for name in dict.fromkeys(body.names)]


async def _checked(request: Request, gate: Gate, platform: str, typed: str) -> CheckedName:
    """A name as it is known here, else as the platform knows it."""
    written = typed.strip() if ":" in typed else f"{platform}:@{typed.strip().lstrip('@')}"
    if not PERSON.fullmatch(written):
        return CheckedName(typed=typed, person=None, login="", name="", problem=f'"{typed}" is no log-in')
    seen = people.account_of(gate.engine.state, written)
    if seen.seen:
        return CheckedName(typed=typed, person=seen.key, login=seen.login, name=seen.name, problem=None)
    where = seen.platform.capitalize()
    try:
        found = await request.app.state.look_for_person(seen.platform, seen.login)
    except GateError as error:
        problem = f"{where} cannot be asked now ({error})"
        return CheckedName(typed=typed, person=None, login=seen.login, name=seen.name, problem=problem)
    if found is None:
        problem = f"{where} knows nobody with this log-in"
        return CheckedName(typed=typed, person=None, login=seen.login, name=seen.name, problem=problem)
    key = f"{seen.platform}:{found['id']}"
    return CheckedName(typed=typed, person=key, login=found["login"], name=found["name"], problem=None)


@routes.post("/lists/{name}", summary="Put people on a list, or take them off")
async def change_list(name: ListName, body: ChangePeopleList, request: Request, account: Editing) -> PeopleList:
    gate: Gate = request.app.state.gate
    only_broadcasters(account, [f"people.{name}"], "name")
    for entry in body.add:
        if not PERSON.fullmatch(entry):
            raise ActError(f'"{entry}" is not written platform:id or platform:@login', "add")
    state = gate.engine.state
    there = {people.account_of(state, entry).key: entry for entry in _entries(gate, name)}
    mine = [people.account_of(state, entry).key for entry in body.take]
    changes: dict[str, Any] = {
        "take": [there.get(key, entry) for key, entry in zip(mine, body.take, strict=True)],
        "add": [entry for entry in body.add if people.account_of(state, entry).key not in there],
    }
    for how, entries in changes.items():
        if entries:
            values: dict[str, Any] = {how: entries}
            await gate.act(account, "setting", path=f"people.{name}", **values)
    return _list(request, name, account)


@routes.delete("/card/{person}", summary="Remove what a person said and who they were")
async def erase(person: str, request: Request, account: Erasing) -> Erased:
    gate: Gate = request.app.state.gate
    parts = gate.engine.parts
    found = people.card(parts, _written(person), gate.clock.now())
    keys = [one.key for one in found.accounts]
    names = [name for one in found.accounts for name in (one.login, one.name)]
    voices = list(parts.kit.channel.gatekeeper)
    nobody = f"gone-{secrets.token_hex(4)}"
    await gate.flush()
    count = await request.app.state.people("erase", keys, names, nobody, voices)
    if not count and not any(one.seen for one in found.accounts):
        raise Refused(404, "not-found", f"Nobody is known here as {person}.", "person")
    people.forget(gate.engine.state, keys, found.identity)
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
        if any(people.account_of(state, entry).key in keys for entry in flat):
            found.append(name)
    return found
