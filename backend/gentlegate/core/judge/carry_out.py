"""What follows from a verdict: removals and timeouts first, then what is said about it; and its undo."""

from __future__ import annotations

from gentlegate.core.commands.replies import aloud
from gentlegate.core.commands.templates import render
from gentlegate.core.commands.variables import channel_variables, person_variables
from gentlegate.core.effects import (
    Ban,
    Cause,
    Effect,
    Refused,
    Remove,
    Timeout,
    Warned,
)
from gentlegate.core.errors import TemplateProblem
from gentlegate.core.events import Message, Person
from gentlegate.core.judge.judge import Judgement
from gentlegate.core.moments import SECOND
from gentlegate.core.parts import Parts
from gentlegate.core.records import Act, UseRecord

SAID_ONCE_IN = 10 * SECOND
ACTS_KEPT = 20
SENTENCES = {
    "capitals": "{name}, easy on the capitals, please.",
    "symbols": "{name}, fewer signs and more words, please.",
    "emotes": "{name}, that is a lot of emotes; a few fewer, please.",
    "length": "{name}, shorter messages, please, so that others can be read too.",
    "repeats": "{name}, once is enough, please.",
    "resends": "{name}, we have read that already; please do not send it again.",
    "pace": "{name}, a little slower, please.",
    "links": "{name}, please ask a moderator before you post a link.",
    "phrases": "{name}, that is not said in this chat, please.",
    "names": "{name}, that name is not welcome in this chat; please change it.",
    "mentions": "{name}, please do not call on so many people at once.",
    "actions": "{name}, please write plain messages without /me here.",
    "false_notice": "{name}, please do not dress a message up as a removal.",
    "copycats": "{name}, please do not copy what others send.",
    "newcomers": "{name}, welcome; please talk a little before you post links or call on people.",
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
    until = now + (verdict.seconds or 0) * SECOND if verdict.outcome == "timeout" else None
    remember(
        parts,
        identity,
        Act(
            message.platform,
            message.id,
            verdict.outcome,
            strike_at,
            shut,
            filter=verdict.filter,
            at=now,
            about=_about(judgement),
            until=until,
            person=message.person.key,
            seconds=verdict.seconds or 0,
        ),
    )
    return [*effects, *_told(parts, judgement, message, level, cause, now)]


def _about(judgement: Judgement) -> str:
    """The deciding finding in a few words: the filter, what was measured or found."""
    reason = next(r for r in judgement.verdict.reasons if r.filter == judgement.verdict.filter)
    name = reason.filter.replace("_", " ")
    if reason.measured is not None:
        return f"{name} ({reason.measured}, limit {reason.limit})"
    return f'{name} ("{reason.text[:60]}")' if reason.text else name


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
    return [*aloud(text, message.platform, parts.abilities(message.platform), cause, now)]
