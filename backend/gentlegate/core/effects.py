"""What goes out: one frozen class for each effect (spec page 2). Moments are microseconds, `seconds` seconds."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, ClassVar, Literal

Outcome = Literal["allow", "nudge", "remove", "timeout", "ban"]
Step = Literal["nudge", "remove", "timeout", "ban"]
ExemptBy = Literal["level", "person", "pass", "allowed"]
Why = Literal["level", "person", "cooldown", "offline", "live", "disabled", "arguments", "unsupported", "duplicate"]
CauseKind = Literal["command", "cue", "arrival", "notice", "happening", "filter", "desk"]


@dataclass(frozen=True, slots=True)
class Cause:
    kind: CauseKind
    name: str
    message: str | None = None


@dataclass(frozen=True, slots=True)
class Reason:
    """One filter's finding. `span` is `[start, end)` in code points of the message, `text` that piece of it."""

    filter: str
    measured: float | int | None
    limit: float | int | None
    span: tuple[int, int] | None
    text: str | None
    step: Step | None


@dataclass(frozen=True, slots=True)
class Exempt:
    filter: str
    by: ExemptBy


@dataclass(frozen=True, slots=True)
class Effect:
    """What every effect has."""

    at: int
    effect: ClassVar[str]


@dataclass(frozen=True, slots=True, kw_only=True)
class Verdict(Effect):
    effect: ClassVar[str] = "verdict"
    platform: str
    message: str
    outcome: Outcome
    seconds: int | None
    filter: str | None
    reasons: tuple[Reason, ...]
    exempt: tuple[Exempt, ...]
    strikes: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Remove(Effect):
    effect: ClassVar[str] = "remove"
    platform: str
    message: str
    by: str | None = None
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Restore(Effect):
    """A removed message is put back where the platform can."""

    effect: ClassVar[str] = "restore"
    platform: str
    message: str
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Timeout(Effect):
    """`person` is `platform:id`; `asked` is the length wanted where the platform has no such length.

    `by` is who did it, here and in the other acts, where it was done by hand.
    """

    effect: ClassVar[str] = "timeout"
    platform: str
    person: str
    seconds: int
    asked: int | None = None
    by: str | None = None
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Ban(Effect):
    effect: ClassVar[str] = "ban"
    platform: str
    person: str
    by: str | None = None
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Unban(Effect):
    """Lifts a timeout or a ban."""

    effect: ClassVar[str] = "unban"
    platform: str
    person: str
    by: str | None = None
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Undone(Effect):
    """A verdict was taken back and marked wrong; `kept` says what the platform could not put back."""

    effect: ClassVar[str] = "undone"
    platform: str
    message: str
    by: str
    strikes: int
    kept: tuple[str, ...] = ()
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Say(Effect):
    effect: ClassVar[str] = "say"
    platform: str
    text: str
    reply_to: str | None = None
    private_to: str | None = None
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Refused(Effect):
    """`wait` is in seconds to the millisecond; null where the wait is for a new stream or there is none.

    `says` tells whoever asked at the Desk, where nothing is said aloud.
    """

    effect: ClassVar[str] = "refused"
    platform: str | None
    message: str | None
    command: str | None
    why: Why
    wait: float | int | None = None
    says: str | None = None
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Title(Effect):
    effect: ClassVar[str] = "title"
    platform: str
    title: str
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Category(Effect):
    effect: ClassVar[str] = "category"
    platform: str
    category: str
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Marker(Effect):
    """A note on the stream; `platform` is null where none can keep one and it stands in our own records alone."""

    effect: ClassVar[str] = "marker"
    platform: str | None
    note: str
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Clip(Effect):
    """A clip is asked for, or is made and has its `link`. `ask` pairs the asking with the answer."""

    effect: ClassVar[str] = "clip"
    platform: str
    link: str | None = None
    ask: int | None = None
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Ad(Effect):
    effect: ClassVar[str] = "ad"
    platform: str
    seconds: int
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Raid(Effect):
    """Everybody is sent to another channel, by its log-in."""

    effect: ClassVar[str] = "raid"
    platform: str
    target: str
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Shoutout(Effect):
    """The platform's own shoutout of a channel, by its log-in."""

    effect: ClassVar[str] = "shoutout"
    platform: str
    target: str
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Lookup(Effect):
    """A platform is asked for a category or channel; `ask` pairs it with the answer, where one comes later."""

    effect: ClassVar[str] = "lookup"
    platform: str
    what: Literal["category", "channel"]
    name: str
    ask: int | None = None
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class CounterMoved(Effect):
    """`by` is who did it, as `platform:id`; null where a new stream put it back to its start."""

    effect: ClassVar[str] = "counter"
    name: str
    before: int
    after: int
    by: str | None
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class PassGiven(Effect):
    """Somebody may pass some filters: `until` a moment, or "stream"; a moment that is now where it was ended."""

    effect: ClassVar[str] = "pass"
    person: str
    filters: tuple[str, ...]
    until: int | Literal["stream"]
    by: str
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Marked(Effect):
    """A verdict was put on the second look (`asked`, `missed`), or settled there (`right`, `wrong`)."""

    effect: ClassVar[str] = "mark"
    platform: str
    message: str
    mark: Literal["asked", "missed", "right", "wrong"]
    by: str | None
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Drawbridge(Effect):
    """The drawbridge was offered, raised or lowered; `until` is when it comes down by itself."""

    effect: ClassVar[str] = "drawbridge"
    state: Literal["offered", "raised", "lowered"]
    why: str
    until: int | None
    by: str | None
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class FollowersOnly(Effect):
    """A platform is asked to let only followers talk, or everybody again."""

    effect: ClassVar[str] = "followers_only"
    platform: str
    on: bool
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class SettingChanged(Effect):
    """A setting is now `after`; `path` is where in the kit, list entries by their name.

    `tonight` is true where it puts itself back when the stream ends, false where it was put back just now.
    """

    effect: ClassVar[str] = "setting"
    path: str
    before: Any
    after: Any
    by: str
    tonight: bool | None = None
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Warned(Effect):
    """Something for the ledger that nobody could be told in chat, such as a template that failed."""

    effect: ClassVar[str] = "warning"
    about: str
    problem: str
    cause: Cause | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Overlap(Effect):
    """Another bot (`person`) answers a command of ours; it did so `count` times in this stream."""

    effect: ClassVar[str] = "overlap"
    platform: str
    person: str
    command: str
    count: int
    cause: Cause | None = None


EFFECTS: tuple[type[Effect], ...] = (
    Verdict, Remove, Restore, Timeout, Ban, Unban, Undone, Say, Refused, Title, Category, Marker, Clip,
    Ad, Raid, Shoutout, Lookup, CounterMoved, PassGiven, Marked,
    Drawbridge, FollowersOnly, SettingChanged, Overlap, Warned,
)  # fmt: skip
