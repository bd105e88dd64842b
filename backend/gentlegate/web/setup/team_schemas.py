"""What goes over the wire about accounts, invitations, sessions and permissions."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from gentlegate.web.schemas import DeskLevel, Wire

Invited = Literal["viewer", "moderator", "lead"]


class InChat(Wire):
    """Who somebody of the team is in chat."""

    person: str = Field(description="The person string, such as `brook:u-bram`.")
    platform: str
    login: str


class AccountView(Wire):
    login: str
    name: str
    level: DeskLevel
    chat: InChat | None = Field(description="Who they are in chat, where that is known.")
    here: bool = Field(description="Whether a screen of theirs is open now.")
    seconds: bool = Field(description="Whether a second factor is asked for.")


class InvitationView(Wire):
    id: int
    level: Invited
    note: str
    made: int
    ends: int
    by: str


class PermissionView(Wire):
    act: str
    level: DeskLevel
    usual: DeskLevel
    movable: bool


class TeamView(Wire):
    accounts: list[AccountView]
    invitations: list[InvitationView]
    permissions: list[PermissionView]


class Invite(Wire):
    level: Invited
    note: str = Field("", max_length=100, description="For whom it is.")
    days: int = Field(3, ge=1, le=30)


class Invitation(Wire):
    link: str = Field(description="Shown this once; it can be used once.")
    ends: int


class Invites(Wire):
    """What an invitation is to."""

    channel: str
    level: Invited
    by: str


class Join(Wire):
    key: str = Field(min_length=8, max_length=200)
    login: str = Field(min_length=2, max_length=40, pattern=r"^[A-Za-z0-9_.-]+$")
    name: str = Field(min_length=1, max_length=60)
    password: str = Field(min_length=10, max_length=200)


class ChangeAccount(Wire):
    """What is left out stays as it is."""

    level: Invited | None = None
    person: str | None = Field(
        None, max_length=200, description="Who they are in chat, such as `brook:u-bram`; nobody where it is empty."
    )


class ChangePassword(Wire):
    old: str = Field(min_length=1, max_length=200)
    new: str = Field(min_length=10, max_length=200)


class MovePermission(Wire):
    level: Literal["moderator", "lead"]


class Prove(Wire):
    password: str = Field(min_length=1, max_length=200, description="One's own, asked again.")


class SecondView(Wire):
    """A secret that is shown this once; it is asked for after its first code was given."""

    secret: str
    address: str = Field(description="For authenticators that take an address.")
    picture: str = Field(description="The address as a QR code: a data address of an SVG.")


class SecondCode(Wire):
    code: str = Field(min_length=6, max_length=12)


class SessionView(Wire):
    id: str
    began: int
    from_where: str
    this: bool = Field(description="Whether it is the one that asks.")
