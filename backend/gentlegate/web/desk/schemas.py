"""What goes over the wire about acts at the Desk and the try-out."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from gentlegate.web.rules.schemas import Tried
from gentlegate.web.schemas import Wire


class UnsavedChange(Wire):
    path: str
    value: Any = None


class TryOut(Wire):
    text: str = Field(min_length=1, max_length=2000)
    login: str = Field("thimblewick", min_length=1, max_length=60, pattern=r"^\S+$")
    level: str | None = Field("everyone", description="Null: the level that this person has.")
    platform: str = Field("brook", min_length=1, max_length=60)
    live: bool = True
    action: bool = False
    new: bool = Field(False, description="Whether the writer was never here before.")
    at: str | None = Field(None, description="The moment, RFC 3339; now if left out.")
    changes: list[UnsavedChange] = Field([], description="Unsaved settings to try with.")


class TriedOut(Tried):
    level: str = Field(description="The level that the person has.")
    known: bool = Field(description="Whether this person was seen in chat.")


class Act(Wire):
    """`over` goes on although another moderator has just done something about the same line or person."""

    over: bool = False


class OnMessage(Act):
    platform: str
    message: str


class OnPerson(Act):
    """On a line, or on a person alone: give `message`, or `person` written platform:id."""

    platform: str | None = None
    message: str | None = None
    person: str | None = None


class GivePass(OnPerson):
    length: str | int | None = Field(None, description="Such as 2m, or stream; two minutes if left out.")
    filters: list[str] | None = None
    end: bool = Field(False, description="End the pass instead.")


class Settle(OnMessage):
    mark: Literal["right", "wrong"]


class MoveBridge(Wire):
    up: bool


class PutBack(Wire):
    number: int


class TimeOutPerson(OnPerson):
    seconds: int = Field(ge=1, le=31_622_400)


class TimeOut(OnMessage):
    seconds: int = Field(ge=1, le=31_622_400, description="How long; the platform's nearest longer length is used.")


class CountStep(Wire):
    name: str
    step: str = Field(description="`+n`, `-n`, `=n` or `undo`.")


class SetTitle(Wire):
    title: str = Field(min_length=1, max_length=500)
    platforms: list[str] | None = None


class SaySomething(Wire):
    text: str = Field(min_length=1, max_length=1000)
    platforms: list[str] | None = None


class ClearCooldown(Wire):
    command: str
    identity: str | None = None


class SettleOverlap(Wire):
    key: str = Field(description="The command's key, as the screen was given it.")
    person: str


class Done(Wire):
    effects: list[dict[str, Any]] = Field(description="What came of it.")
