"""Passes: a short leave for one person to do what some filters would stop (spec page 3, *Passes*)."""

from __future__ import annotations

from gentlegate.core.effects import Cause, PassGiven
from gentlegate.core.records import PassRecord
from gentlegate.core.state import State

DEFAULT_FILTERS = ("links",)
DEFAULT_SPAN = 120_000_000
LONGEST = 86_400_000_000


def covers(state: State, identity: str, filter_: str, now: int) -> bool:
    """Whether a pass lets this person through this filter; it is over at exactly its end."""
    record = state.passes.get(identity) if len(state.passes) else None
    if record is None or filter_ not in record.filters:
        return False
    until = record.filters[filter_]
    if until is not None:
        return now < until
    stream = state.stream.get("stream")
    return stream is not None and stream.number == record.stream and stream.phase != "over"


def give(
    state: State,
    identity: str,
    name: str,
    filters: tuple[str, ...],
    until: int | None,
    by: str,
    now: int,
    cause: Cause,
) -> PassGiven:
    """Let somebody pass; `until` None means until the stream ends. What other filters had been passed stays."""
    before = state.passes.get(identity)
    stream = state.stream.get("stream")
    number = stream.number if stream else 0
    standing = (
        {key: end for key, end in before.filters.items() if covers(state, identity, key, now)} if before else {}
    )
    state.passes.put(identity, PassRecord({**standing, **dict.fromkeys(filters, until)}, number, by, name, now))
    return PassGiven(
        at=now, person=identity, filters=filters, until="stream" if until is None else until, by=by, cause=cause
    )


def end(state: State, identity: str, by: str, now: int, cause: Cause) -> PassGiven | None:
    """End everything that somebody may pass, early. None where nothing stood."""
    record = state.passes.get(identity)
    if record is None:
        return None
    standing = tuple(key for key in record.filters if covers(state, identity, key, now))
    state.passes.drop(identity)
    return PassGiven(at=now, person=identity, filters=standing, until=now, by=by, cause=cause) if standing else None


def prune(state: State, now: int) -> None:
    """Forget passes that are over."""
    for identity, record in list(state.passes.items()):
        if not any(covers(state, identity, key, now) for key in record.filters):
            state.passes.drop(identity)
