"""Chat-log lines: one JSON object a line, checked by Pydantic, as the core's events."""

from __future__ import annotations

from functools import cache
from typing import Annotated, Any, Literal

import msgspec
import orjson
from pydantic import BaseModel, ConfigDict, Discriminator, Field, TypeAdapter, ValidationError

from gentlegate.core.errors import LogLineError
from gentlegate.core.events import Answer, DeskAct, Event, Happening, Message, Person, Removal, StreamChange, Tick
from gentlegate.core.moments import format_moment, parse_moment

Badge = Literal["broadcaster", "moderator", "vip", "subscriber", "bot"]
Id = Annotated[str, Field(min_length=1, max_length=200)]
_FastId = Annotated[str, msgspec.Meta(min_length=1, max_length=200)]
Moment = Annotated[str, Field(json_schema_extra={"format": "date-time"})]


class _Line(BaseModel):
    model_config = ConfigDict(strict=True, extra="ignore", allow_inf_nan=False, defer_build=True)


class PersonLine(_Line):
    id: Id
    login: Id
    name: str | None = None
    badges: list[str] = []
    follows_since: Moment | None = None
    account_since: Moment | None = None


class MessageLine(_Line):
    kind: Literal["message"]
    at: Moment
    id: Id
    platform: Id
    person: PersonLine
    text: str
    emotes: list[tuple[int, int]] | None = None
    action: bool | None = None
    reply_to: str | None = None


class StreamLine(_Line):
    kind: Literal["stream"]
    at: Moment
    platform: Id
    live: bool
    title: str | None = None
    category: str | None = None
    viewers: Annotated[int, Field(ge=0)] | None = None


class HappeningLine(_Line):
    kind: Literal["happening"]
    at: Moment
    platform: Id
    what: Literal["follow", "subscribe", "gift", "tip", "raid"]
    person: PersonLine
    amount: float | None = None
    text: str | None = None


class RemovalLine(_Line):
    kind: Literal["removal"]
    at: Moment
    platform: Id
    message: Id


class DeskLine(_Line):
    model_config = ConfigDict(strict=True, extra="allow", allow_inf_nan=False, defer_build=True)
    kind: Literal["desk"]
    at: Moment
    by: Id
    do: Id


class AnswerLine(_Line):
    kind: Literal["answer"]
    at: Moment
    ask: int
    platform: Id
    found: Any = None
    problem: str | None = None


class TickLine(_Line):
    kind: Literal["tick"]
    at: Moment


LogLine = Annotated[
    MessageLine | StreamLine | HappeningLine | RemovalLine | AnswerLine | DeskLine | TickLine, Discriminator("kind")
]


@cache
def models() -> TypeAdapter[Any]:
    """The models of all lines, made when first needed: most logs hold hardly anything but messages."""
    return TypeAdapter(LogLine)


class _FastPerson(msgspec.Struct, frozen=True, gc=False):
    id: _FastId
    login: _FastId
    name: str | None = None
    badges: tuple[str, ...] = ()
    follows_since: str | None = None
    account_since: str | None = None


class _FastMessage(msgspec.Struct, tag_field="kind", tag="message", gc=False):
    at: str
    id: _FastId
    platform: _FastId
    person: _FastPerson
    text: str
    emotes: list[tuple[int, int]] | None = None
    action: bool | None = None
    reply_to: str | None = None


_DECODER = msgspec.json.Decoder(_FastMessage)
_KNOWN_PEOPLE = 50_000
_people: dict[tuple[str, _FastPerson], Person] = {}


def read_line(line: bytes | str) -> Event:
    """One line as an event. LogLineError says which field is wrong and why.

    Messages take a shorter way; whatever it does not take is read, or refused with its reasons, by the models.
    """
    try:
        fast = _DECODER.decode(line)
    except (msgspec.MsgspecError, UnicodeError):
        return _read_with_models(line)
    return _message(fast)


def _message(line: _FastMessage) -> Message:
    key = (line.platform, line.person)
    person = _people.get(key)
    if person is None:
        if len(_people) >= _KNOWN_PEOPLE:
            _people.clear()
        person = _people[key] = _person(line.platform, line.person)
    emotes = _spans(line.emotes, line.text) if line.emotes else ()
    return Message(
        _moment(line.at, "at"),
        line.platform,
        line.id,
        person,
        line.text,
        emotes,
        line.action is True,
        line.reply_to,
    )


def _spans(emotes: list[tuple[int, int]], text: str) -> tuple[tuple[int, int], ...]:
    for index, (start, end) in enumerate(emotes):
        if not 0 <= start <= end <= len(text):
            raise LogLineError("the span lies outside the text or runs backwards", f"emotes.{index}")
    return tuple(emotes)


def _read_with_models(line: bytes | str) -> Event:
    try:
        found = models().validate_json(line)
        return _event(found)
    except ValidationError as error:
        raise _plain(error) from None


def read_object(value: Any) -> Event:
    """The same from a parsed object, as connectors have it."""
    try:
        return read_line(orjson.dumps(value))
    except (TypeError, orjson.JSONEncodeError) as error:
        raise LogLineError(f"not plain JSON ({error})") from None


def _plain(error: ValidationError) -> LogLineError:
    first = error.errors(include_url=False)[0]
    place = [str(part) for part in first["loc"]]
    kinds = {"message", "stream", "happening", "removal", "desk", "tick"}
    if place and place[0] in kinds:
        place = place[1:]
    if first["type"] == "json_invalid":
        return LogLineError(f"not JSON ({first['msg'].removeprefix('Invalid JSON: ')})")
    if first["type"] in ("union_tag_invalid", "union_tag_not_found"):
        return LogLineError(f"unknown or missing kind; one of: {', '.join(sorted(kinds))}", "kind")
    if first["type"] == "missing":
        return LogLineError("this field is missing", ".".join(place))
    return LogLineError(first["msg"][0].lower() + first["msg"][1:], ".".join(place))


def _moment(text: str, field: str) -> int:
    try:
        return parse_moment(text)
    except ValueError as error:
        raise LogLineError(str(error), field) from None


def _person(platform: str, line: PersonLine | _FastPerson) -> Person:
    return Person(
        platform,
        line.id,
        line.login,
        line.name or line.login,
        frozenset(line.badges),
        None if line.follows_since is None else _moment(line.follows_since, "person.follows_since"),
        None if line.account_since is None else _moment(line.account_since, "person.account_since"),
    )


def _event(line: Any) -> Event:
    at = _moment(line.at, "at")
    if isinstance(line, MessageLine):
        emotes = _spans(line.emotes or [], line.text)
        person = _person(line.platform, line.person)
        return Message(at, line.platform, line.id, person, line.text, emotes, bool(line.action), line.reply_to)
    if isinstance(line, StreamLine):
        return StreamChange(at, line.platform, line.live, line.title, line.category, line.viewers)
    if isinstance(line, HappeningLine):
        person = _person(line.platform, line.person)
        return Happening(at, line.platform, line.what, person, line.amount, line.text)
    if isinstance(line, RemovalLine):
        return Removal(at, line.platform, line.message)
    if isinstance(line, AnswerLine):
        return Answer(at, line.ask, line.platform, line.found, line.problem)
    if isinstance(line, DeskLine):
        return DeskAct(at, line.by, line.do, dict(line.model_extra or {}))
    return Tick(at)


def _person_object(person: Person) -> dict[str, Any]:
    found: dict[str, Any] = {
        "id": person.id,
        "login": person.login,
        "name": person.name,
        "badges": sorted(person.badges),
    }
    for field in ("follows_since", "account_since"):
        if (moment := getattr(person, field)) is not None:
            found[field] = format_moment(moment)
    return found


def event_object(event: Event, at: int) -> dict[str, Any]:
    """An event as a log line's object, at the moment at which the engine took it."""
    when = format_moment(at)
    if isinstance(event, Message):
        line: dict[str, Any] = {"kind": "message", "id": event.id, "at": when, "platform": event.platform}
        line |= {"person": _person_object(event.person), "text": event.text}
        if event.emotes:
            line["emotes"] = [list(span) for span in event.emotes]
        if event.action:
            line["action"] = True
        return line | ({"reply_to": event.reply_to} if event.reply_to else {})
    if isinstance(event, StreamChange):
        line = {"kind": "stream", "at": when, "platform": event.platform, "live": event.live}
        line |= {} if event.title is None else {"title": event.title}
        line |= {} if event.category is None else {"category": event.category}
        return line | ({} if event.viewers is None else {"viewers": event.viewers})
    if isinstance(event, Happening):
        line = {"kind": "happening", "at": when, "platform": event.platform, "what": event.what}
        line |= {"person": _person_object(event.person)}
        line |= {} if event.amount is None else {"amount": event.amount}
        return line | ({} if event.text is None else {"text": event.text})
    if isinstance(event, Removal):
        return {"kind": "removal", "at": when, "platform": event.platform, "message": event.message}
    if isinstance(event, Answer):
        line = {"kind": "answer", "at": when, "ask": event.ask, "platform": event.platform, "found": event.found}
        return line | ({} if event.problem is None else {"problem": event.problem})
    if isinstance(event, DeskAct):
        return {"kind": "desk", "at": when, "by": event.by, "do": event.do, **event.values}
    return {"kind": "tick", "at": when}
