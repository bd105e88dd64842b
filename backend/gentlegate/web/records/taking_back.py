"""Taking single entries of the ledger back: which can be, as long as what they say still stands, and how."""

from __future__ import annotations

from collections.abc import Awaitable, Callable
from dataclasses import dataclass
from typing import Any

from fastapi import Request

from gentlegate.core import tonight
from gentlegate.core.journal import LedgerEntry
from gentlegate.core.kit import edit
from gentlegate.core.kit.taking_back import holds, way_back
from gentlegate.core.records import Act
from gentlegate.core.stream import quotes
from gentlegate.core.team import Account, Permissions
from gentlegate.runtime.gate import Gate
from gentlegate.web.entries import QUOTE, act_of, change_all, is_not_theirs


@dataclass(frozen=True, slots=True)
class Looked:
    """An entry with what is needed to tell whether it stands. `person` is the person string that it is about."""

    request: Request
    entry: LedgerEntry
    person: str | None
    document: edit.Opened

    @property
    def gate(self) -> Gate:
        gate: Gate = self.request.app.state.gate
        return gate

    @property
    def permissions(self) -> Permissions:
        permissions: Permissions = self.request.app.state.access.permissions
        return permissions

    @property
    def about(self) -> str:
        return self.entry.about or ""


Go = Callable[[Looked, Account, Callable[[], None], str], Awaitable[Any]]


@dataclass(frozen=True, slots=True)
class Way:
    """How entries of a kind are taken back: the permission that it needs, whether one stands, and doing it."""

    needs: Callable[[Looked], str]
    stands: Callable[[Looked], bool]
    go: Go


def may_take_back(looked: Looked, account: Account) -> bool:
    """Whether this entry can be taken back now, and by this account."""
    way = WAYS.get(looked.entry.what)
    if way is None or not way.stands(looked):
        return False
    return not is_not_theirs(account, looked.about) and looked.permissions.may(account, way.needs(looked))


def _setting_stands(looked: Looked) -> bool:
    entry = looked.entry
    if entry.about is None or entry.before == entry.after or ".feeds." in entry.about:
        return False
    if quote := QUOTE.fullmatch(entry.about):
        record = looked.gate.engine.state.quotes.get(quotes.key_of(int(quote[1])))
        return record is not None and record.removed == (entry.after is None)
    return holds(looked.document, entry.about, entry.before, entry.after)


async def _set_back(looked: Looked, account: Account, still: Callable[[], None], why: str) -> None:
    entry, gate = looked.entry, looked.gate
    if quote := QUOTE.fullmatch(looked.about):
        restored: dict[str, Any] = {"restore": True} if entry.after is None else {}
        await gate.act(account, "quote", still=still, why=why, number=int(quote[1]), **restored)
        return
    changes = [way_back(looked.about, entry.before, entry.after)]
    await change_all(gate, account, changes, still=still, why=why)


def _tonight_number(looked: Looked) -> int | None:
    made = (looked.about, looked.entry.at)
    found = (one.number for one in tonight.changes(looked.gate.engine.state) if (one.path, one.at) == made)
    return next(found, None)


async def _end_tonight(looked: Looked, account: Account, still: Callable[[], None], why: str) -> None:
    await looked.gate.act(account, "put_back", still=still, why=why, number=_tonight_number(looked))


def _counted_last(looked: Looked) -> bool:
    counters = looked.gate.engine.parts.counters
    counter = counters.find(looked.about)
    last = counters.last_by(counter) if counter else None
    entry = looked.entry
    return last is not None and (last.at, last.before, last.after) == (entry.at, entry.before, entry.after)


async def _uncount(looked: Looked, account: Account, still: Callable[[], None], why: str) -> None:
    await looked.gate.act(account, "count", still=still, why=why, name=looked.about, step="undo")


def _shown(looked: Looked) -> bool:
    """Whether the platform still has the title or category that was set, in the place of another."""
    entry, record = looked.entry, looked.gate.engine.state.platforms.get(looked.about)
    now = getattr(record, entry.what, None)
    return bool(entry.before and entry.before != entry.after and now == entry.after)


async def _show_before(looked: Looked, account: Account, still: Callable[[], None], why: str) -> None:
    what = looked.entry.what
    values = {what: looked.entry.before, "platforms": [looked.about]}
    still()
    await looked.gate.act_and_hear(account, what, why, **values)


def _passes_still(looked: Looked) -> bool:
    record = looked.gate.engine.state.passes.get(_identity(looked))
    return record is not None and record.at == looked.entry.at


async def _end_pass(looked: Looked, account: Account, still: Callable[[], None], why: str) -> None:
    await looked.gate.act(account, "pass", still=still, why=why, person=looked.about, end=True)


def _identity(looked: Looked) -> str:
    return looked.gate.engine.parts.directory.identity_of(looked.person or "")


def _act_on_person(looked: Looked) -> Act | None:
    """The act by hand that an entry tells of, where it is the last that stands on its message or person."""
    entry, record = looked.entry, looked.gate.engine.state.people.get(_identity(looked))
    for done in reversed(record.acts if record else []):
        if done.at == entry.at and done.by == entry.who:
            return None if done.undone else done
        if not done.undone:
            return None
    return None


async def _undo_act(looked: Looked, account: Account, still: Callable[[], None], why: str) -> None:
    done = _act_on_person(looked)
    assert done is not None
    about = {"platform": done.platform, "message": done.message} if done.message else {"person": _identity(looked)}
    await looked.gate.act(account, "undo", still=still, why=why, careful=False, **about)


def _level_stands(looked: Looked) -> bool:
    entry = looked.entry
    return bool(entry.before != entry.after and looked.permissions.level(looked.about) == entry.after)


async def _move_back(looked: Looked, account: Account, still: Callable[[], None], why: str) -> None:
    still()
    await looked.request.app.state.move_permission(looked.about, looked.entry.before)
    await looked.gate.note(account, "permission", looked.about, looked.entry.after, looked.entry.before, why)


def _always(act: str) -> Callable[[Looked], str]:
    return lambda looked: act


_BY_HAND = Way(_always("undo"), lambda looked: _act_on_person(looked) is not None, _undo_act)
WAYS: dict[str, Way] = {
    "setting": Way(lambda looked: act_of(looked.about), _setting_stands, _set_back),
    "tonight": Way(_always("tonight"), lambda looked: _tonight_number(looked) is not None, _end_tonight),
    "count": Way(_always("count"), _counted_last, _uncount),
    "title": Way(_always("title"), _shown, _show_before),
    "category": Way(_always("category"), _shown, _show_before),
    "pass": Way(_always("pass"), _passes_still, _end_pass),
    "remove": _BY_HAND,
    "timeout": _BY_HAND,
    "ban": _BY_HAND,
    "lift": _BY_HAND,
    "permission": Way(_always("team"), _level_stands, _move_back),
}
"""By the kind of entry; what is not here is not taken back from the ledger."""
