"""Taking back what was done about a message or a person: by the judge or by hand, by anyone on the team."""

from __future__ import annotations

from gentlegate.core.effects import Ban, Cause, Effect, Restore, Timeout, Unban, Undone
from gentlegate.core.errors import ActError
from gentlegate.core.events import DeskAct
from gentlegate.core.judge.ladder import standing, take_back
from gentlegate.core.judge.second_look import settle_quietly
from gentlegate.core.judge.tally import count_undone
from gentlegate.core.judge.two_hands import heed_taking_back
from gentlegate.core.moments import SECOND
from gentlegate.core.parts import Parts
from gentlegate.core.records import Act


def undo(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    """Undo what stands on a message, or the last act on a person. ActError where there is nothing."""
    message = str(act.values.get("message") or "")
    if not message and act.values.get("person"):
        return _undo_on_person(parts, act, now)
    platform, undone = str(act.values.get("platform", "")), False
    for identity, record in list(parts.state.people.items()):
        for index, done in reversed(list(enumerate(record.acts))):
            if (done.platform, done.message) == (platform, message):
                if not done.undone:
                    return _undo(parts, identity, index, act, now)
                undone = True
    if undone:
        raise ActError("somebody has undone this already", "message")
    raise ActError("there is nothing to undo on this message, or it is too long ago", "message")


def _undo_on_person(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    identity = parts.directory.identity_of(str(act.values["person"]))
    record = parts.state.people.get(identity)
    for index, done in reversed(list(enumerate(record.acts if record else []))):
        if not done.undone:
            return _undo(parts, identity, index, act, now)
    raise ActError("there is nothing to undo on this person", "person")


def _undo(parts: Parts, identity: str, index: int, act: DeskAct, now: int) -> list[Effect]:
    known = parts.state.people.get(identity)
    assert known is not None
    heed_taking_back(act, known.acts[index], now)
    record = parts.state.people.edit(identity)
    done = record.acts[index]
    done.undone = True
    if done.strike_at is not None:
        take_back(record, done.strike_at)
    cause = Cause("desk", "undo", done.message or None)
    effects: list[Effect] = []
    kept: list[str] = []
    if done.message and done.outcome != "lift":
        count_undone(parts, done.filter)
        settle_quietly(parts, done.platform, done.message, "wrong", act.by)
        if parts.abilities(done.platform).restore:
            effects.append(Restore(at=now, platform=done.platform, message=done.message, cause=cause))
        else:
            kept.append("removal")
    for account in done.accounts:
        platform = account.partition(":")[0]
        if parts.abilities(platform).ban:
            effects += _shut_again(parts, done, account, cause, now, act.by)
        else:
            kept.append(done.outcome)
    strikes = standing(record, parts.judge.ladder, now)
    undone = Undone(
        at=now,
        platform=done.platform,
        message=done.message,
        by=act.by,
        strikes=strikes,
        kept=tuple(dict.fromkeys(kept)),
        cause=cause,
    )
    return [undone, *effects]


def _shut_again(parts: Parts, done: Act, account: str, cause: Cause, now: int, by: str) -> list[Effect]:
    """A timeout or ban is lifted; what a lift had lifted comes back for the time that was left."""
    platform = account.partition(":")[0]
    if done.outcome != "lift":
        return [Unban(at=now, platform=platform, person=account, cause=cause)]
    if done.until == 0:
        return [Ban(at=now, platform=platform, person=account, by=by, cause=cause)]
    left = -(-((done.until or 0) - now) // SECOND)
    if left <= 0:
        return []
    seconds = parts.abilities(platform).timeout(left)
    return [Timeout(at=now, platform=platform, person=account, seconds=seconds, by=by, cause=cause)]
