"""Two moderators at the same line or person: the second one is told what the first did (spec page 7)."""

from __future__ import annotations

from gentlegate.core.errors import JustDone
from gentlegate.core.events import DeskAct
from gentlegate.core.judge.ladder import SEVERITY
from gentlegate.core.moments import SECOND
from gentlegate.core.records import Act, PersonRecord

JUST_NOW = 20 * SECOND
"""As long as what another has just done may not have been noticed yet."""


def heed(act: DeskAct, record: PersonRecord | None, strength: tuple[int, int], now: int) -> None:
    """JustDone where another moderator did something about the same line or person a moment ago.

    `strength` is the act's severity and, for a timeout, its seconds. Acts that do not ask to be careful, such as
    recorded ones, go on.
    """
    if not act.values.get("careful"):
        return
    message = str(act.values.get("message") or "")
    for done in reversed(record.acts if record else []):
        if not just_done_by_another(done, act.by, now):
            continue
        if done.outcome == "remove" and message and done.message != message:
            continue
        raise JustDone(done.by_name, done.outcome, done.at, done.seconds, strength > strength_of(done))


def heed_taking_back(act: DeskAct, done: Act, now: int) -> None:
    """JustDone where what would be taken back is what another moderator did a moment ago."""
    if act.values.get("careful") and just_done_by_another(done, act.by, now):
        raise JustDone(done.by_name, done.outcome, done.at, done.seconds, goes_on=True)


def just_done_by_another(done: Act, by: str, now: int) -> bool:
    return done.by is not None and done.by != by and not done.undone and now - done.at < JUST_NOW


def strength_of(done: Act) -> tuple[int, int]:
    """How severe what was done is; longer timeouts are more so."""
    return SEVERITY.get(done.outcome, 0), done.seconds
