"""All that the engine remembers, as records in tables that know which of them changed.

A record is read with `get` and changed only through `edit`, `put` or `drop`, which mark it; the shell takes the marks
with `take_changes` and stores the records in the same transaction as the effects that came with them.
"""

from __future__ import annotations

import copy
from collections.abc import Iterable, Iterator
from dataclasses import asdict
from typing import Any, Generic, TypeVar

from gentlegate.core.company import Company
from gentlegate.core.listening import Listening
from gentlegate.core.records import (
    AccountRecord,
    Act,
    AdRecord,
    AskRecord,
    BatchRecord,
    BridgeRecord,
    ChangeRecord,
    CommandRecord,
    CounterRecord,
    FeedRecord,
    GreetingRecord,
    LinesRecord,
    LookRecord,
    MarkerRecord,
    OverlapRecord,
    PassRecord,
    PersonRecord,
    PlatformRecord,
    PostRecord,
    QuoteRecord,
    RaidRecord,
    RotaRecord,
    ShoutoutRecord,
    ShownRecord,
    StreamRecord,
    TallyRecord,
    TonightRecord,
    UseRecord,
)
from gentlegate.core.text.folding import fold_name

R = TypeVar("R")


class Table(Generic[R]):
    """Records of one kind by key."""

    def __init__(self, name: str, record: type[R]) -> None:
        self.name = name
        self._record = record
        self._rows: dict[str, R] = {}
        self.get = self._rows.get
        """Read only: a change to what this returns would be lost."""
        self._changed: set[str] = set()

    def __len__(self) -> int:
        return len(self._rows)

    def items(self) -> Iterator[tuple[str, R]]:
        return iter(self._rows.items())

    def edit(self, key: str) -> R:
        """The record to change, made if there is none."""
        self._changed.add(key)
        row = self._rows.get(key)
        if row is None:
            row = self._rows[key] = self._record()
        return row

    def put(self, key: str, row: R) -> R:
        self._changed.add(key)
        self._rows[key] = row
        return row

    def drop(self, key: str) -> None:
        if self._rows.pop(key, None) is not None:
            self._changed.add(key)

    def take(self) -> Iterator[tuple[str, str, dict[str, Any] | None]]:
        for key in sorted(self._changed):
            row = self._rows.get(key)
            yield self.name, key, None if row is None else asdict(row)  # type: ignore[call-overload]
        self._changed.clear()

    def load(self, key: str, values: dict[str, Any]) -> None:
        self._rows[key] = self._record(**values)


class Accounts(Table[AccountRecord]):
    """Accounts, which are also found by their log-ins and shown names."""

    def __init__(self) -> None:
        super().__init__("accounts", AccountRecord)
        self._named: dict[str, set[str]] = {}
        self._shared: set[str] = set()

    def put(self, key: str, row: AccountRecord) -> AccountRecord:
        self._name(key, row)
        return super().put(key, row)

    def load(self, key: str, values: dict[str, Any]) -> None:
        super().load(key, values)
        self._name(key, self._rows[key])

    def drop(self, key: str) -> None:
        if before := self._rows.get(key):
            self._unname(key, before)
        super().drop(key)

    def _name(self, key: str, row: AccountRecord) -> None:
        if before := self._rows.get(key):
            self._unname(key, before)
        for name in (fold_name(row.login), fold_name(row.name)):
            keys = self._named.setdefault(name, set())
            keys.add(key)
            if len(keys) > 1:
                self._shared.add(name)

    def _unname(self, key: str, row: AccountRecord) -> None:
        for name in (fold_name(row.login), fold_name(row.name)):
            keys = self._named.get(name, set())
            keys.discard(key)
            if len(keys) < 2:
                self._shared.discard(name)

    def shared_names(self) -> list[list[str]]:
        """The keys of accounts that have a name in common now, group by group."""
        return [sorted(self._named[name]) for name in sorted(self._shared)]

    def named(self, folded: str) -> Iterator[tuple[str, AccountRecord]]:
        """The accounts that have this name now, in the order of their keys."""
        for key in sorted(self._named.get(folded, ())):
            yield key, self._rows[key]

    def share(self, other: Accounts) -> None:
        """Know all that another table knows; a record is never changed in place."""
        self._rows.update(other._rows)
        self._named.update({name: set(keys) for name, keys in other._named.items()})
        self._shared.update(other._shared)


class State:
    """Every table of the engine."""

    def __init__(self) -> None:
        self.stream = Table("stream", StreamRecord)
        self.platforms = Table("platforms", PlatformRecord)
        self.people = Table("people", PersonRecord)
        self.accounts = Accounts()
        self.passes = Table("passes", PassRecord)
        self.looks = Table("looks", LookRecord)
        self.feeds = Table("feeds", FeedRecord)
        self.tally = Table("tally", TallyRecord)
        self.tonight = Table("tonight", TonightRecord)
        self.overlaps = Table("overlaps", OverlapRecord)
        self.batches = Table("batches", BatchRecord)
        self.bridge = Table("bridge", BridgeRecord)
        self.said = Table("said", UseRecord)
        self.uses = Table("uses", UseRecord)
        self.commands = Table("commands", CommandRecord)
        self.counters = Table("counters", CounterRecord)
        self.changes = Table("changes", ChangeRecord)
        self.rotas = Table("rotas", RotaRecord)
        self.lines = Table("lines", LinesRecord)
        self.post = Table("post", PostRecord)
        self.asks = Table("asks", AskRecord)
        self.shoutouts = Table("shoutouts", ShoutoutRecord)
        self.markers = Table("markers", MarkerRecord)
        self.ads = Table("ads", AdRecord)
        self.raids = Table("raids", RaidRecord)
        self.arrived = Table("arrived", UseRecord)
        self.greetings = Table("greetings", GreetingRecord)
        self.quotes = Table("quotes", QuoteRecord)
        self.shown = Table("shown", ShownRecord)
        self.company = Company()
        self.listening = Listening()
        self._tables: dict[str, Table[Any]] = {
            table.name: table for table in vars(self).values() if isinstance(table, Table)
        }

    def blank(self) -> State:
        """A state that remembers nothing but the imported lists; for looking what settings would do."""
        found = State()
        found.feeds = self.feeds
        return found

    def copy_for(self, people: Iterable[str]) -> State:
        """A copy to try things on, with the records of these people alone (by identity and account)."""
        wanted = set(people)
        found = State()
        found.feeds = self.feeds
        found.accounts.share(self.accounts)
        for name, table in self._tables.items():
            if name in ("accounts", "feeds", "tally", "looks", "batches", "markers"):
                continue
            mine = found._tables[name]
            for key, row in table.items():
                if name not in ("people", "passes") or key in wanted:
                    mine.put(key, copy.deepcopy(row))
        return found

    def take_changes(self) -> list[tuple[str, str, dict[str, Any] | None]]:
        """Every changed record as `(table, key, values)`, None for one that is gone; clears the marks."""
        return [change for table in self._tables.values() for change in table.take()]

    def load(self, rows: list[tuple[str, str, dict[str, Any]]]) -> None:
        """Put stored records back; marks nothing."""
        for table, key, values in rows:
            if table == "people":
                values = {**values, "acts": [Act(**act) for act in values.get("acts", [])]}
            if table in self._tables:
                self._tables[table].load(key, values)
