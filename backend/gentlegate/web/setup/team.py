"""The team's routes: who is in it, invitations, permissions, and one's own sessions."""

from __future__ import annotations

import secrets
import time
from typing import Annotated

from fastapi import APIRouter, Depends, Request, Response

from gentlegate.core.errors import ActError
from gentlegate.core.people import cards
from gentlegate.core.team import MOVABLE, NEEDED, Account, Permissions
from gentlegate.runtime.gate import Gate
from gentlegate.web.door.access import INVITATION_OVER, Access, hashed, needs
from gentlegate.web.door.cookie import keep, token_of
from gentlegate.web.door.passwords import check_new
from gentlegate.web.door.schemas import Me
from gentlegate.web.door.session import from_where, me_of
from gentlegate.web.people.cards import person_string
from gentlegate.web.problems import ANSWERS, Refused
from gentlegate.web.setup.team_schemas import (
    AccountView,
    ChangeAccount,
    ChangePassword,
    InChat,
    Invitation,
    InvitationView,
    Invite,
    Invites,
    Join,
    MovePermission,
    PermissionView,
    Prove,
    SecondCode,
    SecondView,
    SessionView,
    TeamView,
)

routes = APIRouter(prefix="/api", tags=["team"], responses=ANSWERS)
DAY = 86_400_000_000
Looking = Annotated[Account, Depends(needs("look"))]
Inviting = Annotated[Account, Depends(needs("invite"))]
Leading = Annotated[Account, Depends(needs("team"))]
PERMISSION_ORDER = list(NEEDED)


def _now() -> int:
    return time.time_ns() // 1000


@routes.get("/team", summary="Who is in the team, open invitations, and who may do what")
async def team(request: Request, account: Looking) -> TeamView:
    state = request.app.state
    permissions: Permissions = state.access.permissions
    here = state.hub.accounts()
    seconds = await state.accounts("with_second")
    invitations = await state.team("open_invitations", _now()) if permissions.may(account, "invite") else []
    return TeamView(
        accounts=[
            AccountView(
                login=one.login,
                name=one.name,
                level=one.level,
                chat=_in_chat(state.gate, one.person),
                here=one.id in here,
                seconds=one.id in seconds,
            )
            for one in await state.accounts("here")
        ],
        invitations=[
            InvitationView(id=one.id, level=one.level, note=one.note, made=one.made, ends=one.ends, by=one.by)
            for one in invitations
        ],
        permissions=[
            PermissionView(act=act, level=permissions.level(act), usual=NEEDED[act], movable=act in MOVABLE)
            for act in PERMISSION_ORDER
        ],
    )


@routes.post("/team/invitations", summary="Invite somebody by a link that works once")
async def invite(body: Invite, request: Request, account: Inviting) -> Invitation:
    if body.level == "lead" and account.level != "broadcaster":
        raise Refused(403, "not-allowed", "Leads are invited by the broadcaster.", "level")
    key, now = secrets.token_urlsafe(24), _now()
    ends = now + body.days * DAY
    await request.app.state.team("invite", hashed(key), body.level, body.note.strip(), account, now, ends)
    await _told(request, account, "invite", body.note.strip() or None, None, body.level)
    return Invitation(link=f"{str(request.base_url).rstrip('/')}/join?key={key}", ends=ends)


@routes.delete("/team/invitations/{id}", summary="Withdraw an invitation", status_code=204)
async def withdraw(id: int, request: Request, account: Inviting) -> None:
    if not await request.app.state.team("withdraw", id):
        raise Refused(404, "not-found", "This invitation was used or withdrawn already.")
    await _told(request, account, "invite", str(id), "open", None)


@routes.get("/join", summary="What an invitation is to")
async def invited(key: str, request: Request) -> Invites:
    found = await request.app.state.team("invitation", hashed(key), _now())
    if found is None:
        raise Refused(410, "invitation-over", INVITATION_OVER, "key")
    gate: Gate = request.app.state.gate
    return Invites(channel=gate.engine.parts.kit.channel.name, level=found.level, by=found.by)


@routes.post("/join", summary="Make an account by an invitation")
async def join(body: Join, request: Request, response: Response) -> Me:
    access: Access = request.app.state.access
    gate: Gate = request.app.state.gate
    check_new(body.password, body.login, body.name, gate.engine.parts.kit.channel.name)
    given = (body.key, body.login, body.name.strip(), body.password, from_where(request))
    account, token = await access.accept(request.app.state.accept_invitation, *given)
    request.app.state.names[account.key] = account.name
    await _told(request, account, "account", account.login, None, account.level)
    keep(response, request, token)
    return me_of(request, account)


async def _of_login(request: Request, login: str) -> Account:
    for one in await request.app.state.accounts("here"):
        if one.login.casefold() == login.casefold():
            return one  # type: ignore[no-any-return]
    raise ActError(f'nobody here logs in as "{login}"', "login")


def _in_chat(gate: Gate, person: str | None) -> InChat | None:
    if person is None:
        return None
    seen = cards.account_of(gate.engine.state, person)
    return InChat(person=person, platform=seen.platform, login=seen.login)


@routes.put("/team/accounts/{login}", summary="Change somebody's level, or who they are in chat", status_code=204)
async def change(login: str, body: ChangeAccount, request: Request, account: Leading) -> None:
    other = await _of_login(request, login)
    level = body.level or other.level
    if other.level != level and other.level == "broadcaster":
        raise ActError("the broadcaster stays the broadcaster", "level")
    person = other.person if body.person is None else body.person or None
    if person and person != other.person:
        person = cards.account_of(request.app.state.gate.engine.state, person_string(person)).key
        await _is_nobody_elses(request, other, person)
    if (level, person) == (other.level, other.person):
        return
    changed = await request.app.state.accounts("change", other, level, person)
    request.app.state.names[changed.key] = changed.name
    request.app.state.hub.dismiss(other.id)
    if level != other.level:
        await _told(request, account, "account", other.login, other.level, level)
    if person != other.person:
        await _told(request, account, "in_chat", other.login, other.person, person)


async def _is_nobody_elses(request: Request, account: Account, person: str) -> None:
    for one in await request.app.state.accounts("here"):
        if one.person == person and one.id != account.id:
            raise ActError(f"{one.name} is this person in chat already", "person")


@routes.delete("/team/accounts/{login}", summary="Let somebody go; their sessions end at once", status_code=204)
async def dismiss(login: str, request: Request, account: Leading) -> None:
    other = await _of_login(request, login)
    if other.level == "broadcaster":
        raise ActError("the broadcaster cannot leave", "login")
    await request.app.state.accounts("leave", other, _now())
    request.app.state.hub.dismiss(other.id)
    await _told(request, account, "account", other.login, other.level, None)


@routes.delete("/team/accounts/{login}/sessions", summary="End every session of somebody", status_code=204)
async def end_sessions(login: str, request: Request, account: Leading) -> None:
    other = await _of_login(request, login)
    await request.app.state.accounts("end_sessions", other)
    request.app.state.hub.dismiss(other.id)
    await _told(request, account, "sessions", other.login, None, None)


@routes.put("/team/permissions/{act}", summary="Move an act between moderator and lead", status_code=204)
async def move(act: str, body: MovePermission, request: Request, account: Leading) -> None:
    if act not in MOVABLE:
        raise ActError(f'"{act}" cannot be moved', "act")
    permissions: Permissions = request.app.state.access.permissions
    was = permissions.level(act)
    await request.app.state.move_permission(act, body.level)
    await _told(request, account, "permission", act, was, body.level)


@routes.post("/second", summary="Begin a second factor for oneself")
async def begin_second(body: Prove, request: Request, account: Looking) -> SecondView:
    access: Access = request.app.state.access
    await access.prove(account, body.password, from_where(request), "password")
    secret, address, picture = access.second.begin(account)
    return SecondView(secret=secret, address=address, picture=picture)


@routes.put("/second", summary="Turn the second factor on with its first code", status_code=204)
async def confirm_second(body: SecondCode, request: Request, account: Looking) -> None:
    await request.app.state.access.second.confirm(account, body.code)
    await _told(request, account, "second", account.login, "off", "on")


@routes.post("/second/off", summary="Turn one's own second factor off with a code", status_code=204)
async def drop_second(body: SecondCode, request: Request, account: Looking) -> None:
    await request.app.state.access.second.check(account, body.code)
    await request.app.state.accounts("set_second", account, None)
    await _told(request, account, "second", account.login, "on", "off")


@routes.delete("/team/accounts/{login}/second", summary="Drop somebody's lost second factor", status_code=204)
async def drop_anothers_second(login: str, request: Request, account: Leading) -> None:
    other = await _of_login(request, login)
    await request.app.state.accounts("set_second", other, None)
    await _told(request, account, "second", other.login, "on", "off")


@routes.put("/password", summary="Change one's own password; other sessions end", status_code=204)
async def change_password(body: ChangePassword, request: Request, account: Looking) -> None:
    check_new(body.new, account.login, account.name, field="new")
    access: Access = request.app.state.access
    await access.prove(account, body.old, from_where(request), "old")
    await access.new_password(account, body.new, request)
    request.app.state.hub.dismiss(account.id, but=hashed(token_of(request)))
    await _told(request, account, "password", account.login, None, None)


@routes.get("/sessions", summary="One's own open sessions")
async def sessions(request: Request, account: Looking) -> list[SessionView]:
    mine = hashed(token_of(request))
    return [
        SessionView(id=one.token[:16], began=one.began, from_where=one.from_where, this=one.token == mine)
        for one in await request.app.state.accounts("sessions", account, _now())
    ]


@routes.delete("/sessions/{id}", summary="End one of one's own sessions", status_code=204)
async def end_session(id: str, request: Request, account: Looking) -> None:
    for one in await request.app.state.accounts("sessions", account, _now()):
        if one.token[:16] == id:
            await request.app.state.accounts("end_session", one.token)
            request.app.state.hub.dismiss(account.id, one.token)
            return
    raise Refused(404, "not-found", "This session has ended already.")


async def _told(
    request: Request, account: Account, what: str, about: str | None, before: str | None, after: str | None
) -> None:
    """Keep it in the ledger."""
    gate: Gate = request.app.state.gate
    await gate.note(account, what, about, before, after)
