"""Recorded streams as the rotas see them: when each was on, and the lines that counted."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from gentlegate.core.events import Person, StreamChange
from gentlegate.core.people.identity import Directory
from gentlegate.core.state import State
from gentlegate.core.streams import Streams


@dataclass(frozen=True, slots=True)
class Line:
    """A message that was not removed."""

    at: int
    person: Person


@dataclass(frozen=True, slots=True)
class RecordedStream:
    """`ended` is when the last platform went off, None while it goes on; `changes` are what platforms told of it."""

    number: int
    began: int
    ended: int | None
    changes: tuple[StreamChange, ...]


def streams_of(changes: Iterable[StreamChange], gap: int) -> list[RecordedStream]:
    """The streams that these changes make up, oldest first; `gap` is the channel's `stream_gap` in microseconds."""
    streams = Streams(State(), gap)
    found: list[tuple[int, list[StreamChange]]] = []
    for change in changes:
        due = streams.due()
        if due is not None and due <= change.at:
            streams.end_gap()
        if streams.change(change, change.at):
            found.append((change.at, []))
        if found and streams.now.phase in ("live", "gap"):
            found[-1][1].append(change)
    last = len(found) - 1
    return [
        RecordedStream(
            number=place + 1,
            began=began,
            ended=None if place == last and streams.live else own[-1].at,
            changes=tuple(own),
        )
        for place, (began, own) in enumerate(found)
    ]


def counted(lines: Iterable[Line], directory: Directory) -> list[tuple[int, str]]:
    """Moment and platform of the lines that rotas count: those of people, not of ignored bots or the Gatekeeper."""
    unheard: dict[str, bool] = {}
    found = []
    for line in lines:
        key = line.person.key
        if key not in unheard:
            unheard[key] = directory.unheard(line.person)
        if not unheard[key]:
            found.append((line.at, line.person.platform))
    return found


def course_of(stream: RecordedStream, lines: Iterable[tuple[int, str]]) -> list[tuple[int, str | StreamChange]]:
    """A stream's lines and changes in the order in which they happened."""
    changes: list[tuple[int, str | StreamChange]] = [(change.at, change) for change in stream.changes]
    return sorted([*changes, *lines], key=lambda one: one[0])
