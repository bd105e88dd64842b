"""The second look: verdicts to be checked again, and each settled as right or wrong; what the judge missed."""

from __future__ import annotations

from gentlegate.core.effects import Cause, Effect, Marked, Verdict
from gentlegate.core.errors import ActError
from gentlegate.core.events import DeskAct, Removal
from gentlegate.core.parts import Parts
from gentlegate.core.records import LookRecord

KEPT = 300


def _key(platform: str, message: str) -> str:
    return f"{platform}\t{message}"


def note_unsure(parts: Parts, verdict: Verdict, now: int) -> None:
    """Put a verdict on the list that the judge itself is unsure of."""
    _put(parts, verdict.platform, verdict.message, LookRecord(now, "unsure", filter=verdict.filter))


def ask(parts: Parts, act: DeskAct, now: int) -> list[Effect]:
    """Ask for a second look, or settle one as `right` or `wrong`. ActError where that makes no sense."""
    platform, message = str(act.values.get("platform") or ""), str(act.values.get("message") or "")
    if not platform or not message:
        raise ActError("platform and message are missing", "message")
    key = _key(platform, message)
    record = parts.state.looks.get(key)
    cause = Cause("desk", act.do, message)
    if act.do == "look":
        if record is not None and record.settled is None:
            raise ActError("this is on the second look already", "message")
        filter_ = act.values.get("filter")
        _put(parts, platform, message, LookRecord(now, "asked", act.by, str(filter_) if filter_ else None))
        return [Marked(at=now, platform=platform, message=message, mark="asked", by=act.by, cause=cause)]
    mark = act.values.get("mark")
    if mark not in ("right", "wrong"):
        raise ActError('a second look is settled as "right" or "wrong"', "mark")
    if record is None:
        _put(parts, platform, message, LookRecord(now, "asked", act.by))
    record = parts.state.looks.edit(key)
    record.settled, record.settled_by = mark, act.by
    return [Marked(at=now, platform=platform, message=message, mark=mark, by=act.by, cause=cause)]


def settle_quietly(parts: Parts, platform: str, message: str, mark: str, by: str) -> None:
    """What an undo says of a verdict, on the list as well."""
    key = _key(platform, message)
    if parts.state.looks.get(key) is not None:
        record = parts.state.looks.edit(key)
        record.settled, record.settled_by = mark, by


def removed_by_a_person(parts: Parts, event: Removal, now: int) -> list[Effect]:
    """Somebody removed a message on the platform itself: the judge missed it, unless the gate had it out already."""
    for _, record in parts.state.people.items():
        for act in record.acts:
            if (act.platform, act.message) == (event.platform, event.message) and not act.undone:
                return []
    _put(parts, event.platform, event.message, LookRecord(now, "missed", settled="wrong"))
    return [Marked(at=now, platform=event.platform, message=event.message, mark="missed", by=None)]


def _put(parts: Parts, platform: str, message: str, record: LookRecord) -> None:
    looks = parts.state.looks
    looks.put(_key(platform, message), record)
    if len(looks) > KEPT:
        oldest = min(looks.items(), key=lambda item: (item[1].settled is None, item[1].at))
        looks.drop(oldest[0])
