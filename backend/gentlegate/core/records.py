"""The records that the engine remembers things in; moments and spans in microseconds."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any


@dataclass(slots=True)
class StreamRecord:
    """Where the stream stands; moments in microseconds. `number` counts streams from 1."""

    phase: str = "never"
    number: int = 0
    began: int = 0
    last_off: int = 0
    live: list[str] = field(default_factory=list)


@dataclass(slots=True)
class PlatformRecord:
    """What a platform last said of itself."""

    title: str | None = None
    category: str | None = None
    viewers: int | None = None


@dataclass(slots=True)
class Act:
    """Something the judge did, kept for its undo. `strike_at` is None where no strike was added."""

    platform: str
    message: str
    outcome: str
    strike_at: int | None
    accounts: list[str]
    undone: bool = False
    filter: str | None = None
    at: int = 0
    about: str = ""
    """What was found, in a few words."""
    until: int | None = None
    """When a timeout is over; for a lift, when what it lifted would have been (0: a ban, which has no end)."""
    by: str | None = None
    """Who did it by hand, by the key of their account; None where the judge did."""
    by_name: str = ""
    person: str = ""
    """The account that it was done to."""
    seconds: int = 0
    """A timeout's length."""


@dataclass(slots=True)
class PersonRecord:
    """Strikes as `[moment, how many]`, the last strike added, and the last acts, newest last."""

    strikes: list[list[int]] = field(default_factory=list)
    last_strike: int | None = None
    acts: list[Act] = field(default_factory=list)
    follows: bool = False


@dataclass(slots=True)
class AccountRecord:
    """One account as it was last seen: its names and badges, the stream it was seen in, and when it was first seen.

    `had` are earlier names as `[login, name, until]`, newest last.
    """

    login: str
    name: str
    stream: int
    first: int
    badges: list[str] = field(default_factory=list)
    follows_since: int | None = None
    had: list[list[Any]] = field(default_factory=list)


@dataclass(slots=True)
class PassRecord:
    """What somebody may do for a while: filter → its end (None: with the stream `stream`)."""

    filters: dict[str, int | None]
    stream: int
    by: str
    name: str
    at: int


@dataclass(slots=True)
class LookRecord:
    """A verdict to be looked at again: why (`asked`, `unsure`, `missed`), by whom, and how it was settled."""

    at: int
    why: str
    by: str | None = None
    filter: str | None = None
    settled: str | None = None
    settled_by: str | None = None


@dataclass(slots=True)
class FeedRecord:
    """The hosts of an imported list, and when it was imported."""

    hosts: list[str]
    at: int


@dataclass(slots=True)
class TallyRecord:
    """What one filter did in one stream: lines stopped, lines let through by an exemption, stops undone."""

    stopped: int = 0
    exempt: int = 0
    undone: int = 0


@dataclass(slots=True)
class OverlapRecord:
    """How often another bot answered a command in a stream; when that was said, and who has settled it."""

    stream: int = 0
    count: int = 0
    name: str = ""
    said_at: int | None = None
    settled_by: str | None = None


@dataclass(slots=True)
class TonightRecord:
    """A change that holds for this stream: what is set, added to or taken from the place."""

    number: int
    path: str
    by: str
    at: int
    value: Any = None
    add: list[Any] | None = None
    take: list[Any] | None = None


@dataclass(slots=True)
class BatchRecord:
    """Many changes made in one go, as `[place, before, after]`; `back_by` took them back."""

    number: int
    about: str
    by: str
    at: int
    changes: list[list[Any]] = field(default_factory=list)
    back_by: str | None = None


@dataclass(slots=True)
class BridgeRecord:
    """The drawbridge: since and until when it is up, or since when raising it is offered, and why."""

    up: int | None = None
    until: int | None = None
    by: str | None = None
    offered: int | None = None
    why: str = ""
    platforms: list[str] = field(default_factory=list)


@dataclass(slots=True)
class UseRecord:
    """The last accepted use of a command, by anyone or by one identity."""

    at: int
    stream: int
    name: str = ""


@dataclass(slots=True)
class CommandRecord:
    uses: int = 0
    turn: int = 0
    last_reply: int | None = None


@dataclass(slots=True)
class CounterRecord:
    """`changes` is how many undoable changes stand; the guard is the last step: what, by whom, when."""

    value: int
    changes: int = 0
    step: str | None = None
    by: str | None = None
    by_name: str | None = None
    at: int = 0


@dataclass(slots=True)
class ChangeRecord:
    before: int
    after: int
    by: str
    at: int


@dataclass(slots=True)
class RotaRecord:
    """A rota's clock (`due`, None before the first stream), lines since its last post, and place or round."""

    due: int | None = None
    lines: int = 0
    ready: int | None = None
    last: int | None = None
    place: int = 0
    round: int = 0
    left: list[int] = field(default_factory=list)
    last_notice: int | None = None
    paused: bool = False
    base: dict[str, int] = field(default_factory=dict)
    """Where each platform's count of lines stood at its last post."""


@dataclass(slots=True)
class LinesRecord:
    """Lines from people that were not removed, counted on for ever."""

    count: int = 0


@dataclass(slots=True)
class PostRecord:
    """The last post that holds others back, and whose it was."""

    at: int | None = None
    rota: str | None = None


@dataclass(slots=True)
class AskRecord:
    """Something that platforms are asked: by whom and for what, who has not answered yet, and what was found.

    `then` names what is done with the answers; `values` are its own.
    """

    number: int
    what: str
    names: dict[str, str]
    then: str
    values: dict[str, Any]
    at: int
    open: list[str] = field(default_factory=list)
    found: dict[str, Any] = field(default_factory=dict)


@dataclass(slots=True)
class ShoutoutRecord:
    """The last shoutout of a channel: when, by whom; what was shown."""

    at: int
    by: str
    by_name: str
    name: str = ""
    login: str = ""
    link: str = ""
    category: str = ""


@dataclass(slots=True)
class MarkerRecord:
    """A note at a point of a stream; `offset` in microseconds since it began."""

    at: int
    stream: int
    offset: int
    by: str
    by_name: str
    note: str


@dataclass(slots=True)
class AdRecord:
    """An ad break: when it began and will be over, and who asked for it."""

    began: int
    until: int
    by: str


@dataclass(slots=True)
class RaidRecord:
    """A raid that is about to go."""

    platform: str
    target: str
    name: str
    due: int
    by: str
    by_name: str


@dataclass(slots=True)
class GreetingRecord:
    """The last greetings' moments, and who waits to be greeted together: platform → names."""

    times: list[int] = field(default_factory=list)
    waiting: dict[str, list[str]] = field(default_factory=dict)


@dataclass(slots=True)
class QuoteRecord:
    number: int
    text: str
    by: str
    by_name: str
    said_by: str
    category: str
    at: int
    removed: bool = False


@dataclass(slots=True)
class ShownRecord:
    """Numbers given or shown last, newest last: quotes, the turn of templates, asks."""

    numbers: list[int] = field(default_factory=list)
