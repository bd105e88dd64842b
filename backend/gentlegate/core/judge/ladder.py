"""Strikes and the ladder that they climb."""

from __future__ import annotations

from gentlegate.core.kit.filters import Ladder, LadderStep
from gentlegate.core.records import PersonRecord

SEVERITY = {"allow": 0, "nudge": 1, "remove": 2, "timeout": 3, "ban": 4}


def standing(record: PersonRecord | None, ladder: Ladder, now: int) -> int:
    """How many strikes stand: one exactly `memory` old has expired."""
    if record is None or not record.strikes:
        return 0
    return sum(count for at, count in record.strikes if now - at < ladder.memory)


def step_at(ladder: Ladder, strikes: int) -> LadderStep | None:
    """The highest step reached; between steps the lower one holds."""
    reached = [step for step in ladder.steps if step.strikes <= strikes]
    return reached[-1] if reached else None


def in_grace(record: PersonRecord | None, ladder: Ladder, now: int) -> bool:
    last = record.last_strike if record else None
    return last is not None and now - last < ladder.grace


def add_strikes(record: PersonRecord, ladder: Ladder, count: int, now: int) -> None:
    """Add strikes and forget those that have expired."""
    record.strikes = [strike for strike in record.strikes if now - strike[0] < ladder.memory]
    record.strikes.append([now, count])
    record.last_strike = now


def take_back(record: PersonRecord, at: int) -> None:
    """Take the strikes of one moment back; the grace that began with them ends too."""
    record.strikes = [strike for strike in record.strikes if strike[0] != at]
    if record.last_strike == at:
        record.last_strike = None
