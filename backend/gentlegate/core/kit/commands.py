"""The kit's `commands`, `built_ins` and `counters`."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field, model_validator

from gentlegate.core.kit.fields import (
    LevelName,
    Name,
    PersonString,
    Section,
    Span,
    SpanOrStream,
    Templates,
    Text,
    When,
    refuse,
)
from gentlegate.core.moments import SECOND

BIGGEST = 9_007_199_254_740_991
Whole = Annotated[int, Field(ge=-BIGGEST, le=BIGGEST)]


class Needs(Section):
    level: LevelName = "everyone"
    people: list[PersonString] = []
    never: list[PersonString] = []


class Cooldown(Section):
    everyone: SpanOrStream | None = None
    person: SpanOrStream | None = None
    skip_from: LevelName = "moderator"


CooldownSetting = Cooldown | Literal["default", "none"]


def _cooldown(value: Any) -> Any:
    if isinstance(value, str):
        if value not in ("default", "none"):
            raise refuse('a cooldown is "default", "none", or {"everyone": …, "person": …}')
        return value
    return Cooldown.model_validate(value) if isinstance(value, dict) else value


AnyCooldown = Annotated[CooldownSetting, BeforeValidator(_cooldown)]


class CountStep(Section):
    counter: Name
    by: Whole | None = None
    set: Whole | None = None

    @model_validator(mode="after")
    def _one_of(self) -> CountStep:
        if (self.by is None) == (self.set is None):
            raise refuse("give either by or set")
        return self


class Refusals(Section):
    level: Text | None = None
    cooldown: Text | None = None


class Command(Section):
    name: Name
    aliases: list[Name] = []
    reply: Templates
    choose: Literal["in turn", "shuffled", "first"] = "in turn"
    mode: Literal["say", "reply", "private"] = "say"
    private_only: bool = False
    needs: Needs = Needs()
    cooldown: AnyCooldown = "default"
    when: When = "always"
    platforms: list[str] | None = None
    answer_on: Literal["same", "all"] = "same"
    on: bool = True
    folder: str = ""
    counts: list[CountStep] = []
    refusals: Refusals = Refusals()
    note: Text = ""


class Cue(Section):
    """Like a command, but heard without a prefix."""

    name: Name
    hears: Annotated[
        list[Annotated[str, Field(min_length=1, max_length=1000)]], Field(min_length=1, max_length=1000)
    ]
    match: Literal["words", "exact", "pattern"] = "words"
    where: Literal["text", "login", "name"] = "text"
    reply: Templates
    choose: Literal["in turn", "shuffled", "first"] = "in turn"
    mode: Literal["say", "reply", "private"] = "say"
    needs: Needs = Needs()
    cooldown: AnyCooldown = "default"
    when: When = "always"
    platforms: list[str] | None = None
    answer_on: Literal["same", "all"] = "same"
    on: bool = True
    folder: str = ""
    counts: list[CountStep] = []
    note: Text = ""

    def as_command(self) -> Command:
        """The command that a cue is once it has been heard."""
        own = {"hears", "match", "where"}
        return Command.model_construct(
            **{name: getattr(self, name) for name in type(self).model_fields if name not in own},
            aliases=[],
            private_only=False,
            refusals=Refusals(),
        )


class BuiltIn(Section):
    names: Annotated[list[Name], Field(min_length=1)] | None = None
    needs: Needs | None = None
    cooldown: AnyCooldown = "default"
    on: bool = True


class Counter(Section):
    name: Name
    label: str | None = None
    start: Whole = 0
    keep: Literal["always", "stream"] = "always"
    lowest: Whole | None = 0
    guard: Span = 5 * SECOND
    needs: Needs = Needs(level="moderator")

    @property
    def shown(self) -> str:
        return self.label if self.label is not None else self.name
