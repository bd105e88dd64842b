"""What a moderator does to a message and its writer by hand; undone the same way as a verdict."""

from __future__ import annotations

from gentlegate.core.effects import Cause, Effect, Remove, Unban
from gentlegate.core.errors import ActError
from gentlegate.core.events import DeskAct, Person
from gentlegate.core.filters import KEYS
from gentlegate.core.judge import passes, two_hands
from gentlegate.core.judge.carry_out import accounts_of, remember, shut_out, unsupported
from gentlegate.core.judge.ladder import SEVERITY
from gentlegate.core.moments import SECOND, parse_span
from gentlegate.core.parts import Parts
from gentlegate.core.records import Act, PersonRecord

LONGEST = 366 * 86400


def act_by_hand(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    """`remove`, `timeout` or `ban`: the message goes, and with the latter two its writer is shut out.

    A timeout or ban may name a person alone.
    """
    person = person_of(parts, act)
    message = str(act.values.get("message") or "")
    if not message and act.do == "remove":
        raise ActError("message is missing", "message")
    seconds = _seconds(act) if act.do == "timeout" else None
    identity = parts.directory.identity(person)
    record = parts.state.people.get(identity)
    two_hands.heed(act, record, (SEVERITY[act.do], seconds or 0), now)
    if message:
        _not_yet(record, person.platform, message, act.do)
    cause = Cause("desk", act.do, message or None)
    effects: list[Effect] = []
    if message and parts.abilities(person.platform).removal:
        effects.append(Remove(at=now, platform=person.platform, message=message, by=act.by, cause=cause))
    elif message:
        effects.append(unsupported(person.platform, message, cause, now))
    accounts = accounts_of(parts, person) if act.do != "remove" else []
    effects += [shut_out(parts, account, act.do, seconds, cause, now, act.by) for account in accounts]
    until = now + seconds * SECOND if seconds else None
    remember(parts, identity, _by_hand(act, person, message, act.do, accounts, now, until, seconds or 0))
    return effects


def _by_hand(
    act: DeskAct,
    person: Person,
    message: str,
    outcome: str,
    accounts: list[str],
    now: int,
    until: int | None,
    seconds: int = 0,
) -> Act:
    """What somebody did, as it is remembered."""
    return Act(
        person.platform,
        message,
        outcome,
        None,
        accounts,
        at=now,
        until=until,
        by=act.by,
        by_name=str(act.values.get("name_of_by", act.by)),
        person=person.key,
        seconds=seconds,
    )


def lift(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    """End a person's timeout or ban early, on every platform of theirs."""
    person = person_of(parts, act)
    identity = parts.directory.identity(person)
    accounts = [a for a in accounts_of(parts, person) if parts.abilities(a.partition(":")[0]).ban]
    cause = Cause("desk", "lift")
    record = parts.state.people.get(identity)
    until = now
    for done in reversed(record.acts if record else []):
        if not done.undone and (done.outcome == "ban" or (done.outcome == "timeout" and (done.until or 0) > now)):
            two_hands.heed_taking_back(act, done, now)
            until = 0 if done.outcome == "ban" else done.until or now
            break
    remember(parts, identity, _by_hand(act, person, "", "lift", accounts, now, until))
    return [Unban(at=now, platform=a.partition(":")[0], person=a, by=act.by, cause=cause) for a in accounts]


def let_pass(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    """Give a pass, or end it (`end` true). Without more it is for links, two minutes long."""
    person = person_of(parts, act)
    identity = parts.directory.identity(person)
    cause = Cause("desk", "pass", str(act.values.get("message") or "") or None)
    if act.values.get("end"):
        ended = passes.end(parts.state, identity, act.by, now, cause)
        if ended is None:
            raise ActError("this pass is over already", "person")
        return [ended]
    filters = act.values.get("filters") or list(passes.DEFAULT_FILTERS)
    if not isinstance(filters, list) or not all(key in KEYS for key in filters):
        raise ActError(f"filters is a list of: {', '.join(KEYS)}", "filters")
    until = pass_end(parts, act.values.get("for"), now)
    return [passes.give(parts.state, identity, person.name, tuple(filters), until, act.by, now, cause)]


def pass_end(parts: Parts, wanted: object, now: int) -> int | None:
    """When a pass ends: after a duration, or with the stream (None). ActError where that is no length."""
    if wanted is None:
        return now + passes.DEFAULT_SPAN
    if wanted == "stream":
        if parts.streams.now.phase not in ("live", "gap"):
            raise ActError("no stream is on; give a length such as 5m", "for")
        return None
    try:
        span = parse_span(wanted)
    except ValueError as error:
        raise ActError(str(error), "for") from None
    if not 0 < span <= passes.LONGEST:
        raise ActError("a pass lasts from a second to a day", "for")
    return now + span


def person_of(parts: Parts, act: DeskAct) -> Person:
    """Whom an act is about, by `person` (`platform:id`) and the names that the gate knows."""
    key = str(act.values.get("person") or "")
    platform, _, id = key.partition(":")
    if not platform or not id:
        raise ActError("person is missing; it is written platform:id", "person")
    known = parts.state.accounts.get(key)
    login = str(act.values.get("login") or (known.login if known else id.removeprefix("@")))
    name = str(act.values.get("name") or (known.name if known else login))
    return Person(platform, id, login, name)


def _seconds(act: DeskAct) -> int:
    seconds = act.values.get("seconds")
    if not isinstance(seconds, int) or isinstance(seconds, bool) or not 1 <= seconds <= LONGEST:
        raise ActError("a timeout takes whole seconds, up to a year", "seconds")
    return seconds


def _not_yet(record: PersonRecord | None, platform: str, message: str, do: str) -> None:
    """A weaker or equal act on what somebody has dealt with already is told so, not repeated."""
    for done in record.acts if record else []:
        same = (done.platform, done.message, done.undone) == (platform, message, False)
        if same and SEVERITY[done.outcome] >= SEVERITY[do]:
            who = done.by_name or "the gate"
            raise ActError(f"{who} has dealt with this line already; look at its margin", "message")
