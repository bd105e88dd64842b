"""Cooldowns: when a use is held back, and for how long still (spec page 4, *Cooldowns*)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from gentlegate.core.kit.commands import Cooldown
from gentlegate.core.moments import seconds
from gentlegate.core.people.identity import LEVEL_OF
from gentlegate.core.records import UseRecord
from gentlegate.core.state import State, Table

_PRUNE_AT = 4096


@dataclass(frozen=True, slots=True)
class Wait:
    """What is left, in microseconds; None until a new stream begins."""

    left: int | None

    @property
    def seconds(self) -> float | int | None:
        return None if self.left is None else seconds(self.left)


@dataclass(frozen=True, slots=True)
class Running:
    """A cooldown that runs: whose it is (None: everybody's), when it is over (None: with a new stream)."""

    command: str
    who: str | None
    identity: str | None
    began: int
    until: int | None


def settle(setting: Cooldown | str, default: Cooldown | str) -> Cooldown:
    """The cooldown that a setting means."""
    if setting == "default":
        setting = default
    return setting if isinstance(setting, Cooldown) else Cooldown()


class Cooldowns:
    """Reads and starts waits; the records live in the state."""

    def __init__(self, state: State) -> None:
        self._uses = state.uses

    def wait(
        self, command: str, identity: str, level: int, cooldown: Cooldown, now: int, stream: int
    ) -> Wait | None:
        """The longer of the two waits left, or None when the use may go on."""
        if level >= LEVEL_OF[cooldown.skip_from]:
            return None
        left: list[int | None] = []
        for key, length in ((command, cooldown.everyone), (f"{command}\t{identity}", cooldown.person)):
            record = self._uses.get(key)
            if record is not None and length is not None:
                left += self._left(record, length, now, stream)
        if not left:
            return None
        return Wait(None if None in left else max(n for n in left if n is not None))

    @staticmethod
    def _left(record: UseRecord, length: Any, now: int, stream: int) -> list[int | None]:
        if length == "stream":
            return [None] if record.stream == stream else []
        return [record.at + length - now] if now < record.at + length else []

    def start(self, command: str, identity: str, name: str, cooldown: Cooldown, now: int, stream: int) -> None:
        """An accepted use at `now`."""
        if cooldown.everyone is not None:
            self._uses.put(command, UseRecord(now, stream, name))
        if cooldown.person:
            self._uses.put(f"{command}\t{identity}", UseRecord(now, stream, name))

    def clear(self, command: str, identity: str | None) -> bool:
        key = command if identity is None else f"{command}\t{identity}"
        there = self._uses.get(key) is not None
        self._uses.drop(key)
        return there

    def running(self, cooldowns: dict[str, Cooldown], now: int, stream: int) -> list[Running]:
        """Every wait that is not over, soonest first; waits for a new stream last."""
        found = []
        for key, record in self._uses.items():
            command, _, identity = key.partition("\t")
            cooldown = cooldowns.get(command)
            length = (cooldown.person if identity else cooldown.everyone) if cooldown else None
            if length is None or not self._left(record, length, now, stream):
                continue
            until = None if length == "stream" else record.at + int(length)
            who = record.name if identity else None
            found.append(Running(command, who, identity or None, record.at, until))
        return sorted(found, key=lambda r: (r.until is None, r.until or 0, r.command))

    def prune(self, cooldowns: dict[str, Cooldown], now: int, stream: int) -> None:
        """Forget the waits that are over, once there are many of them."""
        if len(self._uses) < _PRUNE_AT:
            return
        kept = {
            r.command if r.identity is None else f"{r.command}\t{r.identity}"
            for r in self.running(cooldowns, now, stream)
        }
        _drop_all(self._uses, [key for key, _ in self._uses.items() if key not in kept])


def _drop_all(table: Table[UseRecord], keys: list[str]) -> None:
    for key in keys:
        table.drop(key)
