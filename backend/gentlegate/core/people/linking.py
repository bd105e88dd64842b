"""Accounts linked as one person's: the links themselves, and the records that follow them when they change."""

from __future__ import annotations

from collections.abc import Iterable

from gentlegate.core.people.cards import account_of, identity_of
from gentlegate.core.people.identity import Directory
from gentlegate.core.records import Act
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


def rehome(state: State, before: Directory, after: Directory) -> None:
    """Let records follow changed links: what is linked now shares one, what was parted takes what was its own."""
    members = {member for groups in (before.groups, after.groups) for group in groups for member in group}
    concerned = members | {account_of(state, member).key for member in members}
    for key in [key for key, _ in state.people.items() if key in concerned]:
        _share_out(state, key, after)
    for key in [key for key, _ in state.people.items() if key in concerned]:
        home = _home(state, key, after)
        if home != key:
            _merge(state, key, home)
    for key, given in [(key, given) for key, given in state.passes.items() if key in concerned]:
        home = _home(state, key, after)
        if home != key:
            state.passes.drop(key)
            if state.passes.get(home) is None:
                state.passes.put(home, given)


def _home(state: State, key: str, directory: Directory) -> str:
    return identity_of(directory, account_of(state, key))


def _share_out(state: State, key: str, after: Directory) -> None:
    """Acts that were done to accounts which are somebody else's now go to them, with the strikes that they added."""
    record = state.people.get(key)
    stays = (key, _home(state, key, after))
    moves = (
        [(act, home) for act in record.acts if (home := _home_of(state, act, after)) not in (None, *stays)]
        if record
        else []
    )
    if not moves:
        return
    kept = state.people.edit(key)
    for act, home in moves:
        kept.acts = [one for one in kept.acts if one is not act]
        other = state.people.edit(home)
        other.acts = sorted([*other.acts, act], key=lambda one: one.at)
        strikes = [strike for strike in kept.strikes if strike[0] == act.strike_at]
        kept.strikes = [strike for strike in kept.strikes if strike[0] != act.strike_at]
        other.strikes = sorted([*other.strikes, *strikes])


def _home_of(state: State, act: Act, after: Directory) -> str | None:
    """Whose record an act belongs to now; None where it is not known to whom it was done."""
    return _home(state, act.person, after) if act.person else None


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
