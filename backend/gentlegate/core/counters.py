"""Counters: steps, the same-moment guard, undo (spec page 5, *Counters*)."""

from __future__ import annotations

import re
from dataclasses import dataclass

from gentlegate.core.effects import Cause, CounterMoved, Effect
from gentlegate.core.errors import ActError
from gentlegate.core.kit.commands import BIGGEST, Counter
from gentlegate.core.kit.model import Kit
from gentlegate.core.moments import in_words
from gentlegate.core.records import ChangeRecord, CounterRecord
from gentlegate.core.state import State
from gentlegate.core.text.folding import fold_name

STEP = re.compile(r"([+\-=])(-?\d{1,20})")


@dataclass(frozen=True, slots=True)
class Moved:
    """A counter's value before and after; equal where the step changed nothing."""

    counter: Counter
    before: int
    after: int

    @property
    def words(self) -> str:
        if self.before == self.after:
            return f"{self.counter.shown}: {self.after}, as before"
        return f"{self.counter.shown}: {self.before} → {self.after}"


def moved_effects(moved: Moved, by: str | None, now: int, cause: Cause | None = None) -> list[Effect]:
    """The effect of a move; none where nothing moved."""
    if moved.before == moved.after:
        return []
    name = moved.counter.name
    return [CounterMoved(at=now, name=name, before=moved.before, after=moved.after, by=by, cause=cause)]


@dataclass(frozen=True, slots=True)
class Duplicate:
    """The same step was counted by somebody else just now."""

    counter: Counter
    by: str
    ago: int
    value: int

    @property
    def words(self) -> str:
        return f"{self.by} counted that {in_words(self.ago)} ago. {self.counter.shown}: {self.value}"


class Counters:
    def __init__(self, kit: Kit, state: State) -> None:
        self.all = {fold_name(counter.name): counter for counter in kit.counters}
        self._state = state

    def find(self, name: str) -> Counter | None:
        return self.all.get(fold_name(name.strip()))

    def record(self, counter: Counter) -> CounterRecord | None:
        """Where a counter stands, if it was ever changed; read only."""
        return self._state.counters.get(fold_name(counter.name))

    def value(self, counter: Counter) -> int:
        record = self.record(counter)
        return counter.start if record is None else record.value

    def duplicate(self, counter: Counter, step: str, by: str, now: int) -> Duplicate | None:
        """Whether the guard holds this step back: the last one, by another, less than `guard` ago."""
        record = self.record(counter)
        if record is None or record.step != step or record.by == by or now - record.at >= counter.guard:
            return None
        return Duplicate(counter, record.by_name or str(record.by), now - record.at, record.value)

    def step(self, counter: Counter, step: str, by: str, by_name: str, now: int) -> Moved:
        """Carry out `+n`, `-n` or `=n`. ActError where it is none or leads too far."""
        match = STEP.fullmatch(step)
        if match is None:
            raise ActError(f'"{step}" is no step; write +1, -1 or =10', "step")
        record = self._own_record(counter)
        amount = int(match[2])
        before = record.value
        after = amount if match[1] == "=" else before + (amount if match[1] == "+" else -amount)
        if counter.lowest is not None and after < counter.lowest:
            after = min(counter.lowest, before) if match[1] == "-" else counter.lowest
        if abs(after) > BIGGEST or abs(amount) > BIGGEST:
            raise ActError(f"{counter.shown} takes whole numbers within ±{BIGGEST:,}", "step")
        if after != before:
            self._add(counter, record, ChangeRecord(before, after, by, now))
            record.step, record.by, record.by_name, record.at = step, by, by_name, now
        return Moved(counter, before, after)

    def undo(self, counter: Counter) -> Moved:
        """Take back the last change that has not been undone. ActError where there is none."""
        record = self._own_record(counter)
        change = self._state.changes.get(self._key(counter, record.changes))
        if change is None:
            raise ActError(f"there is nothing to undo on {counter.shown}", "step")
        self._state.changes.drop(self._key(counter, record.changes))
        record.changes -= 1
        record.step = record.by = record.by_name = None
        moved = Moved(counter, record.value, change.before)
        record.value = change.before
        return moved

    def begin_stream(self) -> list[Moved]:
        """Put the counters that are kept for one stream back to their start, with a new history."""
        moved = []
        for counter in self.all.values():
            if counter.keep != "stream":
                continue
            record = self._own_record(counter)
            for number in range(1, record.changes + 1):
                self._state.changes.drop(self._key(counter, number))
            if record.value != counter.start:
                moved.append(Moved(counter, record.value, counter.start))
            self._state.counters.put(fold_name(counter.name), CounterRecord(counter.start))
        return moved

    def last_by(self, counter: Counter) -> ChangeRecord | None:
        record = self.record(counter)
        return self._state.changes.get(self._key(counter, record.changes)) if record else None

    def _own_record(self, counter: Counter) -> CounterRecord:
        key = fold_name(counter.name)
        if self._state.counters.get(key) is None:
            self._state.counters.put(key, CounterRecord(counter.start))
        return self._state.counters.edit(key)

    def _add(self, counter: Counter, record: CounterRecord, change: ChangeRecord) -> None:
        record.value = change.after
        record.changes += 1
        self._state.changes.put(self._key(counter, record.changes), change)

    @staticmethod
    def _key(counter: Counter, number: int) -> str:
        return f"{fold_name(counter.name)}\t{number:09d}"
