"""What goes over the wire between the screens and the server."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

DeskLevel = Literal["viewer", "moderator", "lead", "broadcaster"]


class Wire(BaseModel):
    model_config = ConfigDict(extra="forbid")


class LogIn(Wire):
    login: str = Field(min_length=1, max_length=60)
    password: str = Field(min_length=1, max_length=200)


class Welcome(Wire):
    key: str = Field(description="The one-time key that the first start printed.")
    login: str = Field(min_length=2, max_length=60, pattern=r"^[\w.-]+$")
    name: str = Field(min_length=1, max_length=60)
    password: str = Field(min_length=10, max_length=200)


class Me(Wire):
    login: str
    name: str
    level: DeskLevel
    may: list[str] = Field(description="The acts that this account may do.")


class CommandView(Wire):
    name: str
    revision: str = Field(description="Changes whenever the command does; give it back when saving.")
    uses: int
    command: dict[str, Any] = Field(description="The command as it stands in the kit.")


class BuiltInView(Wire):
    key: str
    names: list[str]
    level: str
    on: bool
    uses: int


class Commands(Wire):
    prefix: str
    cooldown: Any = Field(description="The channel's default cooldown, as the kit has it.")
    commands: list[CommandView]
    built_ins: list[BuiltInView]


class SaveCommand(Wire):
    command: dict[str, Any] = Field(description="The whole command, as in a kit.")
    revision: str | None = Field(None, description="The revision that was read; null for a new command.")


class PreviewReply(Wire):
    reply: str = Field(max_length=2000)


class PreviewOnPlatform(Wire):
    platform: str
    parts: list[str] = Field(description="The messages as this platform would show them.")


class Preview(Wire):
    problem: str | None = None
    line: int | None = None
    column: int | None = None
    shown: list[PreviewOnPlatform] = []


class FilterView(Wire):
    key: str
    values: dict[str, Any] = Field(description="What holds now.")
    own: list[str] = Field(description="The values that are the channel's own, not the mood's.")
    mood: dict[str, Any] = Field(description="What the mood says.")
    stopped: int = Field(description="How many of the recent lines on the Desk it stopped.")


class Rules(Wire):
    mood: str
    filters: list[FilterView]


class SetMood(Wire):
    mood: Literal["party", "parlour", "library"]


class SaveFilter(Wire):
    values: dict[str, Any] = Field(description="Values to set; null puts one back to the mood's.")


class TryLine(Wire):
    text: str = Field(min_length=1, max_length=2000)
    level: str = "everyone"
    filters: dict[str, dict[str, Any]] = Field({}, description="Unsaved settings to try with.")


class Tried(Wire):
    verdict: dict[str, Any]


class AskConsequence(Wire):
    filter: str
    values: dict[str, Any] = Field({}, description="Unsaved values to look with.")


class CaughtLine(Wire):
    platform: str
    id: str
    name: str
    text: str


class Consequence(Wire):
    all: int = Field(description="How many lines were looked at.")
    caught: list[CaughtLine]


class OnMessage(Wire):
    platform: str
    message: str


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


class Done(Wire):
    effects: list[dict[str, Any]] = Field(description="What came of it.")


class Health(Wire):
    version: str
    live: bool
    screens: int
    platforms: dict[str, str] = Field(description="How each connection stands.")
