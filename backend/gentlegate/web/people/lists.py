"""Who is who, and on which list: links between accounts, and the channel's own lists of people."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request

from gentlegate.core.errors import ActError, GateError
from gentlegate.core.kit import edit
from gentlegate.core.people import cards, linking
from gentlegate.core.team import Account
from gentlegate.runtime.gate import Gate
from gentlegate.web.door.access import needs
from gentlegate.web.entries import change_all, only_broadcasters
from gentlegate.web.people.cards import PERSON, Reading, person_string
from gentlegate.web.people.schemas import (
    ChangePeopleList,
    CheckedName,
    CheckNames,
    LinkWith,
    ListedPerson,
    ListName,
    PeopleList,
    Unlink,
)
from gentlegate.web.problems import ANSWERS, Refused

routes = APIRouter(prefix="/api/people", tags=["people"], responses=ANSWERS)
Editing = Annotated[Account, Depends(needs("people"))]


@routes.post("/link", summary="Two accounts are one person's", status_code=204)
async def link(body: LinkWith, request: Request, account: Editing) -> None:
    gate: Gate = request.app.state.gate
    state = gate.engine.state
    one, other = (cards.account_of(state, person_string(each)).key for each in (body.person, body.other))
    if one == other:
        raise ActError("these are the same account", "other")
    await _relink(gate, account, lambda groups: linking.joined(groups, *_as_linked(gate, groups, one, other)))


@routes.post("/unlink", summary="An account is somebody else's after all", status_code=204)
async def unlink(body: Unlink, request: Request, account: Editing) -> None:
    gate: Gate = request.app.state.gate
    key = cards.account_of(gate.engine.state, person_string(body.person)).key
    groups = edit.read(gate.engine.document, "people.linked") or []
    (linked_as,) = _as_linked(gate, groups, key)
    if not any(linked_as in group for group in groups):
        raise ActError("this account is linked with nobody", "person")
    await _relink(gate, account, lambda groups: linking.parted(groups, *_as_linked(gate, groups, key)))


def _as_linked(gate: Gate, groups: list[list[str]], *keys: str) -> list[str]:
    """Accounts as the links write them: by log-in where they stand there so."""
    known = {cards.account_of(gate.engine.state, one).key: one for group in groups for one in group}
    return [known.get(key, key) for key in keys]


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
    found = [(entry, cards.account_of(gate.engine.state, entry)) for entry in _entries(gate, name)]
    may = request.app.state.access.permissions.may(account, "people")
    return PeopleList(
        name=name,
        entries=[
            ListedPerson(
                entry=entry,
                platform=one.platform,
                login=one.login,
                name=one.name,
                known=one.seen is not None,
            )
            for entry, one in found
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
    meant = typed.strip() if ":" in typed else f"{platform}:@{typed.strip().lstrip('@')}"
    if not PERSON.fullmatch(meant):
        return CheckedName(typed=typed, person=None, login="", name="", problem=f'"{typed}" is no log-in')
    seen = cards.account_of(gate.engine.state, meant)
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
    there = {cards.account_of(state, entry).key: entry for entry in _entries(gate, name)}
    mine = [cards.account_of(state, entry).key for entry in body.take]
    changes: dict[str, Any] = {
        "take": [there.get(key, entry) for key, entry in zip(mine, body.take, strict=True)],
        "add": [entry for entry in body.add if cards.account_of(state, entry).key not in there],
    }
    for how, entries in changes.items():
        if entries:
            values: dict[str, Any] = {how: entries}
            await gate.act(account, "setting", path=f"people.{name}", **values)
    return _list(request, name, account)
