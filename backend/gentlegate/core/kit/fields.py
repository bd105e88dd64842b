"""Field types that several sections of a kit share."""

from __future__ import annotations

import re
from typing import Annotated, Any, Literal

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, WithJsonSchema
from pydantic_core import PydanticCustomError

from gentlegate.core.moments import HOUR, MINUTE, SECOND, parse_span

LevelName = Literal["everyone", "follower", "regular", "subscriber", "vip", "moderator", "lead", "broadcaster"]
StepName = Literal["nudge", "remove", "timeout", "ban"]
When = Literal["always", "live", "offline"]
PERSON = re.compile(r"[^\s:@]+:@?[^\s:]+")


class Section(BaseModel):
    """A part of a kit: unknown keys are refused, and so are values of the wrong type."""

    model_config = ConfigDict(extra="forbid", strict=True, frozen=True, defer_build=True)


def refuse(text: str) -> PydanticCustomError:
    return PydanticCustomError("gentlegate", "{problem}", {"problem": text})


def _span(value: Any) -> int:
    try:
        return parse_span(value)
    except ValueError as error:
        raise refuse(str(error)) from None


def _span_or_stream(value: Any) -> int | str:
    return "stream" if value == "stream" else _span(value)


def _at_least_a_minute(value: Any) -> int:
    span = _span(value)
    if span < MINUTE:
        raise refuse('a rhythm is at least "1m"')
    return span


def _window(value: Any) -> int:
    span = _span(value)
    if not SECOND <= span <= HOUR:
        raise refuse('a window is from "1s" to "1h"')
    return span


def _whole_seconds(value: Any) -> int:
    return max(1, -(-_span(value) // SECOND))


def _person(value: Any) -> str:
    if not isinstance(value, str) or not PERSON.fullmatch(value.strip()):
        raise refuse('a person is written "platform:id" or "platform:@login"')
    platform, _, who = value.strip().partition(":")
    return f"{platform}:{who.casefold() if who.startswith('@') else who}"


_SPAN_SCHEMA = {
    "anyOf": [{"type": "number", "minimum": 0}, {"type": "string"}],
    "description": 'Seconds, or a string such as "45s", "5m", "1h30m", "2d".',
}
Span = Annotated[int, BeforeValidator(_span), WithJsonSchema(_SPAN_SCHEMA)]
SpanOrStream = Annotated[int | Literal["stream"], BeforeValidator(_span_or_stream), WithJsonSchema(_SPAN_SCHEMA)]
Rhythm = Annotated[int, BeforeValidator(_at_least_a_minute), WithJsonSchema(_SPAN_SCHEMA)]
Window = Annotated[int, BeforeValidator(_window), WithJsonSchema(_SPAN_SCHEMA)]
Seconds = Annotated[int, BeforeValidator(_whole_seconds), WithJsonSchema(_SPAN_SCHEMA)]
PersonString = Annotated[
    str, BeforeValidator(_person), WithJsonSchema({"type": "string", "pattern": PERSON.pattern})
]
Text = Annotated[str, Field(max_length=2000)]
Name = Annotated[str, Field(min_length=1, max_length=60)]


def as_list(value: Any) -> Any:
    """One template or a list of them."""
    return [value] if isinstance(value, str) else value


Templates = Annotated[list[Text], BeforeValidator(as_list), Field(min_length=1, max_length=50)]
