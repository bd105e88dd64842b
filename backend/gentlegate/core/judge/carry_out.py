"""What follows from a verdict: removals and timeouts first, then what is said about it; and its undo."""

from __future__ import annotations

from gentlegate.core.commands.replies import parts as split
from gentlegate.core.commands.templates import render
from gentlegate.core.commands.variables import channel_variables, person_variables
from gentlegate.core.effects import (
    Ban,
    Cause,
    Effect,
    Refused,
    Remove,
    Restore,
    Say,
    Timeout,
    Unban,
    Undone,
    Warned,
)
from gentlegate.core.errors import ActError, TemplateProblem
from gentlegate.core.events import DeskAct, Message, Person
from gentlegate.core.judge.judge import Judgement
from gentlegate.core.judge.ladder import standing, take_back
from gentlegate.core.moments import SECOND
from gentlegate.core.parts import Parts
from gentlegate.core.state import Act, UseRecord

SAID_ONCE_IN = 10 * SECOND
ACTS_KEPT = 20
SENTENCES = {
    "capitals": "{name}, easy on the capitals, please.",
    "links": "{name}, please ask a moderator before you post a link.",
}


def carry_out(
    parts: Parts, judgement: Judgement, message: Message, identity: str, level: int, now: int
) -> list[Effect]:
    """The effects of a verdict other than `allow`, in the order in which they are to be sent."""
    verdict = judgement.verdict
    cause = Cause("filter", verdict.filter or "", message.id)
    accounts = accounts_of(parts, message.person)
    effects: list[Effect] = []
    if parts.abilities(message.platform).removal:
        effects.append(Remove(at=now, platform=message.platform, message=message.id, cause=cause))
    else:
        effects.append(unsupported(message.platform, message.id, cause, now))
    if verdict.outcome in ("timeout", "ban"):
        for account in accounts:
            effects.append(shut_out(parts, account, verdict.outcome, verdict.seconds, cause, now))
    shut = accounts if verdict.outcome in ("timeout", "ban") else []
    strike_at = now if judgement.struck else None
    remember(parts, identity, Act(message.platform, message.id, verdict.outcome, strike_at, shut))
    return [*effects, *_told(parts, judgement, message, level, cause, now)]


def accounts_of(parts: Parts, person: Person) -> list[str]:
    """The person's accounts as person strings, this one first."""
    mine = parts.directory.names(person)
    others = [account for account in parts.directory.linked(person) or [] if account not in mine]
    return [person.key, *others]


def shut_out(
    parts: Parts, account: str, outcome: str, seconds: int | None, cause: Cause, now: int, by: str | None = None
) -> Effect:
    """A timeout or a ban of one account, in the platform's nearest length."""
    platform = account.partition(":")[0]
    abilities = parts.abilities(platform)
    if not abilities.ban:
        return unsupported(platform, cause.message or "", cause, now)
    if outcome == "ban":
        return Ban(at=now, platform=platform, person=account, by=by, cause=cause)
    wanted = seconds or 0
    given = abilities.timeout(wanted)
    asked = wanted if given != wanted else None
    return Timeout(at=now, platform=platform, person=account, seconds=given, asked=asked, by=by, cause=cause)


def unsupported(platform: str, message: str, cause: Cause, now: int) -> Refused:
    return Refused(at=now, platform=platform, message=message, command=None, why="unsupported", cause=cause)


def remember(parts: Parts, identity: str, act: Act) -> None:
    """Keep what was done, so that it can be taken back."""
    record = parts.state.people.edit(identity)
    record.acts = [*record.acts[-ACTS_KEPT + 1 :], act]


def _told(parts: Parts, judgement: Judgement, message: Message, level: int, cause: Cause, now: int) -> list[Effect]:
    """The filter's sentence: its own whenever it acts, the default with a nudge; once in 10 s per platform."""
    verdict = judgement.verdict
    filter_ = verdict.filter or ""
    template = parts.judge.all[filter_].settings.reply
    if judgement.silent or template == "" or (template is None and verdict.outcome != "nudge"):
        return []
    key = f"{message.platform}\t{filter_}"
    last = parts.state.said.get(key)
    if last is not None and now - last.at < SAID_ONCE_IN:
        return []
    if template is None:
        text = SENTENCES[filter_].format(name=message.person.name)
    else:
        variables = channel_variables(parts, message.platform, now)
        variables["person"] = person_variables(message.person, level, now)
        try:
            text = render(template, variables, lambda: parts.chance("filter", message.platform, message.id))
        except TemplateProblem as error:
            return [Warned(at=now, about=f"filters.{filter_}.reply", problem=str(error), cause=cause)]
    parts.state.said.put(key, UseRecord(now, 0))
    length = parts.abilities(message.platform).length
    return [Say(at=now, platform=message.platform, text=part, cause=cause) for part in split(text, length)]


def undo_verdict(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    """Take a verdict back: lift, restore, give strikes back, mark it wrong. ActError where there is none."""
    platform, message = str(act.values.get("platform", "")), str(act.values.get("message", ""))
    undone = False
    for identity, record in list(parts.state.people.items()):
        for index, done in reversed(list(enumerate(record.acts))):
            if (done.platform, done.message) == (platform, message):
                if not done.undone:
                    return _undo(parts, identity, index, act, now)
                undone = True
    if undone:
        raise ActError("somebody has undone this already", "message")
    raise ActError("there is nothing to undo on this message, or it is too long ago", "message")


def _undo(parts: Parts, identity: str, index: int, act: DeskAct, now: int) -> list[Effect]:
    record = parts.state.people.edit(identity)
    done = record.acts[index]
    done.undone = True
    if done.strike_at is not None:
        take_back(record, done.strike_at)
    cause = Cause("desk", "undo", done.message)
    effects: list[Effect] = []
    kept: list[str] = []
    if parts.abilities(done.platform).restore:
        effects.append(Restore(at=now, platform=done.platform, message=done.message, cause=cause))
    else:
        kept.append("removal")
    for account in done.accounts:
        platform = account.partition(":")[0]
        if parts.abilities(platform).ban:
            effects.append(Unban(at=now, platform=platform, person=account, cause=cause))
    strikes = standing(record, parts.judge.ladder, now)
    undone = Undone(
        at=now,
        platform=done.platform,
        message=done.message,
        by=act.by,
        strikes=strikes,
        kept=tuple(kept),
        cause=cause,
    )
    return [undone, *effects]
