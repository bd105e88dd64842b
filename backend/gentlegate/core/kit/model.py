"""The kit: one document with all of a channel's settings, every section optional (spec page 2)."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Any, Literal
from zoneinfo import ZoneInfo

from pydantic import BeforeValidator, Field, field_validator, model_validator

from gentlegate.core.kit.commands import AnyCooldown, BuiltIn, Command, Cooldown, Counter, Cue
from gentlegate.core.kit.fields import Name, PersonString, Rhythm, Section, Span, Text, refuse
from gentlegate.core.kit.filters import Filters, Ladder, Mood
from gentlegate.core.kit.stream import Arrivals, Happenings, Quotes, Shoutouts
from gentlegate.core.moments import MINUTE, SECOND

USUAL_COOLDOWN = {"everyone": "5s", "person": "0s"}


class Channel(Section):
    name: str = ""
    prefix: Annotated[str, Field(min_length=1, max_length=5, pattern=r"^\S+$")] = "!"
    timezone: str = "UTC"
    mood: Mood = "parlour"
    stream_gap: Span = 10 * MINUTE
    cooldown: AnyCooldown = Cooldown.model_validate(USUAL_COOLDOWN)
    spacing: Span = 60 * SECOND
    gatekeeper: list[PersonString] = []
    categories: Annotated[list[PinnedCategory], Field(max_length=500)] = []

    @field_validator("timezone")
    @classmethod
    def _zone(cls, name: str) -> str:
        try:
            ZoneInfo(name)
        except (ValueError, OSError, LookupError):
            raise refuse(f'"{name}" is no IANA time zone such as "Europe/Lisbon"') from None
        return name

    @field_validator("cooldown")
    @classmethod
    def _no_circle(cls, value: Any) -> Any:
        if value == "default":
            raise refuse('this is the default itself; write "none" or {"everyone": …, "person": …}')
        return value


class PinnedCategory(Section):
    """A category as the channel calls it: short words for it, and what each platform calls it."""

    name: Name
    shortcuts: list[Name] = []
    platforms: dict[str, Name] = {}


class People(Section):
    regulars: list[PersonString] = []
    leads: list[PersonString] = []
    ignored: list[PersonString] = []
    linked: list[list[PersonString]] = []

    @field_validator("linked")
    @classmethod
    def _one_group_each(cls, groups: list[list[str]]) -> list[list[str]]:
        seen: set[str] = set()
        for group in groups:
            for person in group:
                if person in seen:
                    raise refuse(f'"{person}" stands in two links')
                seen.add(person)
        return groups


def _day(value: Any) -> Any:
    if isinstance(value, str):
        try:
            return date.fromisoformat(value)
        except ValueError:
            raise refuse(f'"{value}" is not a date such as 2026-03-07') from None
    return value


Day = Annotated[date, BeforeValidator(_day)]


class Notice(Section):
    text: Text | None = None
    command: Name | None = None
    on: bool = True
    platforms: list[str] | None = None
    from_: Annotated[Day | None, Field(alias="from")] = None
    until: Day | None = None
    mode: Literal["say"] = "say"

    @model_validator(mode="after")
    def _one_thing_to_say(self) -> Notice:
        if (self.text is None) == (self.command is None):
            raise refuse("give either text or command")
        if self.from_ and self.until and self.from_ > self.until:
            raise refuse(f"it ends ({self.until}) before it begins ({self.from_}); swap the dates")
        return self


class Rota(Section):
    name: Name
    on: bool = True
    every: Rhythm = 20 * MINUTE
    every_offline: Rhythm | None = None
    chat_lines: Annotated[int, Field(ge=0, le=10_000)] = 5
    first_after: Span | None = None
    order: Literal["in turn", "shuffled"] = "in turn"
    platforms: list[str] | None = None
    alone: bool = False
    offline_lines: Annotated[int, Field(ge=0, le=10_000)] = 0
    notices: Annotated[list[Notice], Field(max_length=200)] = []


class TimeoutRange(Section):
    from_: Annotated[int, Field(alias="from", ge=1)] = 5
    to: Annotated[int, Field(ge=1)] = 1_814_400


def _timeouts(value: Any) -> Any:
    return TimeoutRange.model_validate(value) if isinstance(value, dict) else value


class ChannelEntry(Section):
    login: Name
    name: str | None = None
    link: str | None = None
    category: str | None = None


class Platform(Section):
    private: bool = True
    threads: bool = True
    removal: bool = True
    restore: bool = True
    ban: bool = True
    marker: bool = True
    clip: bool = True
    raid: bool = True
    shoutout: bool = True
    followers_only: bool = True
    offline_chat: bool = True
    length: Annotated[int, Field(ge=20)] | None = None
    title: Annotated[int, Field(ge=1)] | None = None
    timeout: Annotated[TimeoutRange | list[int], BeforeValidator(_timeouts)] = TimeoutRange()
    ads: list[int] = []
    categories: list[str] | None = None
    channels: list[ChannelEntry] = []


class DrawbridgeSection(Section):
    auto: bool = False


class Kit(Section):
    gentlegate: Literal[1] = 1
    channel: Channel = Channel()
    people: People = People()
    filters: Filters = Filters()
    ladder: Ladder = Ladder()
    commands: Annotated[list[Command], Field(max_length=10_000)] = []
    built_ins: dict[str, BuiltIn] = {}
    cues: Annotated[list[Cue], Field(max_length=10_000)] = []
    counters: Annotated[list[Counter], Field(max_length=1_000)] = []
    rotas: Annotated[list[Rota], Field(max_length=1_000)] = []
    arrivals: Arrivals = Arrivals()
    shoutouts: Shoutouts = Shoutouts()
    happenings: Happenings = Happenings()
    quotes: Quotes = Quotes()
    drawbridge: DrawbridgeSection = DrawbridgeSection()
    platforms: dict[str, Platform] = {}
