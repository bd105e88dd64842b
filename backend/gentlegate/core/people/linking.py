"""Accounts linked as one person's: the links themselves, and the records that follow them when they change."""

from __future__ import annotations

from collections.abc import Iterable

from gentlegate.core.people.cards import account_of, identity_of
from gentlegate.core.people.identity import Directory
from gentlegate.core.records import Act, PersonRecord
from gentlegate.core.state import State


def joined(groups: Iterable[list[str]], one: str, other: str) -> list[list[str]]:
    """The links with these two and all that they were linked with in one group."""
    kept = [group for group in groups if one not in group and other not in group]
    both = [member for group in groups if one in group or other in group for member in group]
    return [*kept, list(dict.fromkeys([*both, one, other]))]


def parted(groups: Iterable[list[str]], one: str) -> list[list[str]]:
    """The links without this account; a group of one is none."""
    left = [[member for member in group if member != one] for group in groups]
    return [group for group in left if len(group) > 1]


def rehome(state: State, after: Directory) -> None:
    """Let records follow changed links: what is linked now shares one, what was parted takes what was its own."""
    for key, record in list(state.people.items()):
        _share_out(state, key, record, after)
    for key, _ in list(state.people.items()):
        home = _home(state, key, after)
        if home != key:
            _merge(state, key, home)
    for key, given in list(state.passes.items()):
        home = _home(state, key, after)
        if home != key:
            state.passes.drop(key)
            if state.passes.get(home) is None:
                state.passes.put(home, given)


def _home(state: State, key: str, directory: Directory) -> str:
    return identity_of(directory, account_of(state, key))


def _share_out(state: State, key: str, record: PersonRecord, after: Directory) -> None:
    """Acts on platforms that this record's person no longer has go to the accounts that they were done to."""
    homes = {act.message: _home_of_act(state, act, key, after) for act in record.acts}
    gone = [act for act in record.acts if homes[act.message] not in (key, _home(state, key, after))]
    if not gone:
        return
    kept = state.people.edit(key)
    kept.acts = [act for act in kept.acts if act not in gone]
    for act in gone:
        other = state.people.edit(homes[act.message])
        other.acts = sorted([*other.acts, act], key=lambda one: one.at)
        strikes = [strike for strike in kept.strikes if strike[0] == act.strike_at]
        kept.strikes = [strike for strike in kept.strikes if strike not in strikes]
        other.strikes = sorted([*other.strikes, *strikes])


def _home_of_act(state: State, act: Act, key: str, after: Directory) -> str:
    return _home(state, act.person, after) if act.person else key


def _merge(state: State, key: str, home: str) -> None:
    record = state.people.get(key)
    assert record is not None
    shared = state.people.edit(home)
    shared.strikes = sorted([*shared.strikes, *record.strikes])
    shared.acts = sorted([*shared.acts, *record.acts], key=lambda act: act.at)
    shared.follows = shared.follows or record.follows
    lasts = [last for last in (shared.last_strike, record.last_strike) if last is not None]
    shared.last_strike = max(lasts, default=None)
    state.people.drop(key)
