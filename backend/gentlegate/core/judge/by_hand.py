"""What a moderator does to a message and its writer by hand; undone the same way as a verdict."""

from __future__ import annotations

from gentlegate.core.effects import Cause, Effect, Remove
from gentlegate.core.errors import ActError
from gentlegate.core.events import DeskAct, Person
from gentlegate.core.judge.carry_out import accounts_of, remember, shut_out, unsupported
from gentlegate.core.judge.ladder import SEVERITY
from gentlegate.core.parts import Parts
from gentlegate.core.state import Act

LONGEST = 366 * 86400


def act_by_hand(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    """`remove`, `timeout` or `ban`: the message goes, and with the latter two its writer is shut out."""
    person = _person(act)
    message = str(act.values.get("message") or "")
    if not message:
        raise ActError("message is missing", "message")
    seconds = _seconds(act) if act.do == "timeout" else None
    identity = parts.directory.identity(person)
    _not_yet(parts, identity, person.platform, message, act.do)
    cause = Cause("desk", act.do, message)
    effects: list[Effect] = []
    if parts.abilities(person.platform).removal:
        effects.append(Remove(at=now, platform=person.platform, message=message, by=act.by, cause=cause))
    else:
        effects.append(unsupported(person.platform, message, cause, now))
    accounts = accounts_of(parts, person) if act.do != "remove" else []
    effects += [shut_out(parts, account, act.do, seconds, cause, now, act.by) for account in accounts]
    remember(parts, identity, Act(person.platform, message, act.do, None, accounts))
    return effects


def _person(act: DeskAct) -> Person:
    platform, _, id = str(act.values.get("person") or "").partition(":")
    if not platform or not id:
        raise ActError("person is missing; it is written platform:id", "person")
    login = str(act.values.get("login") or id.removeprefix("@"))
    return Person(platform, id, login, login)


def _seconds(act: DeskAct) -> int:
    seconds = act.values.get("seconds")
    if not isinstance(seconds, int) or isinstance(seconds, bool) or not 1 <= seconds <= LONGEST:
        raise ActError("a timeout takes whole seconds, up to a year", "seconds")
    return seconds


def _not_yet(parts: Parts, identity: str, platform: str, message: str, do: str) -> None:
    """A weaker or equal act on what somebody has dealt with already is told so, not repeated."""
    record = parts.state.people.get(identity)
    for done in record.acts if record else []:
        same = (done.platform, done.message, done.undone) == (platform, message, False)
        if same and SEVERITY[done.outcome] >= SEVERITY[do]:
            raise ActError("this line is dealt with already; look at its margin", "message")
