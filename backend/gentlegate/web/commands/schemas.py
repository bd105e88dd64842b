"""What goes over the wire about commands, cues and built-ins."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from gentlegate.web.rules.schemas import CaughtLine
from gentlegate.web.schemas import Wire


class CommandView(Wire):
    name: str
    revision: str = Field(description="Changes whenever the command does; give it back when saving.")
    uses: int
    command: dict[str, Any] = Field(description="The command as it stands in the kit.")
    rotas: list[str] = Field([], description="The rotas that have it as a notice.")
    batch: int = Field(0, description="Takes the last save back, where it changed more than this.")


class BuiltInView(Wire):
    key: str
    names: list[str]
    level: str = Field(description="Who may use it now.")
    sets_level: str | None = Field(description="Who may change something with it; null where it changes nothing.")
    usual_names: list[str]
    usual_level: str = Field(description="The level that its needs mean unless the channel says otherwise.")
    on: bool
    uses: int
    revision: str
    setting: dict[str, Any] = Field(description="What the channel has set, as in a kit.")


class SaveBuiltIn(Wire):
    setting: dict[str, Any]
    revision: str


class Commands(Wire):
    prefix: str
    cooldown: Any = Field(description="The channel's default cooldown, as the kit has it.")
    commands: list[CommandView]
    built_ins: list[BuiltInView]
    cues: list[CommandView]
    rotas: list[str] = Field(description="Every rota's name.")
    counters: list[str] = Field(description="Every counter's name.")
    platforms: list[str]


class SaveCommand(Wire):
    command: dict[str, Any] = Field(description="The whole command, as in a kit.")
    revision: str | None = Field(None, description="The revision that was read; null for a new command.")
    rotas: list[str] | None = Field(None, description="The rotas that it is to be on; left out: as it is.")


class PreviewReply(Wire):
    reply: str = Field(max_length=2000)
    name: str = Field("", max_length=200, description="The name that it would have.")
    was: str | None = Field(None, description="The name that it has, where it has one.")
    aliases: list[str] = []
    used: Literal["command", "arrival", "shoutout", "plain", "happening", "quote", "notice"] = Field(
        "command", description="Where the template is used, which is what it may ask for."
    )


class PreviewOnPlatform(Wire):
    platform: str
    parts: list[str] = Field(description="The messages as this platform would show them.")


class Preview(Wire):
    problem: str | None = None
    line: int | None = None
    column: int | None = None
    shown: list[PreviewOnPlatform] = []
    clash: str | None = Field(None, description="What is wrong with the name.")


class CueHeard(Wire):
    all: int = Field(description="How many lines were looked at.")
    count: int
    lines: list[CaughtLine] = Field(description="The newest of those heard.")


class MoveCommands(Wire):
    """What to do with several commands at once: exactly one of these."""

    names: list[str] = Field(min_length=1, max_length=10_000)
    folder: str | None = None
    on: bool | None = None
    cooldown: Any = None
    remove: bool = False
