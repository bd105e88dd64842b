"""What each filter did in each stream: the numbers beside it in the Rules room."""

from __future__ import annotations

from gentlegate.core.effects import Verdict
from gentlegate.core.parts import Parts
from gentlegate.core.records import TallyRecord

KEPT_STREAMS = 20


def _key(parts: Parts, filter_: str) -> str:
    return f"{parts.streams.now.number}\t{filter_}"


def count_verdict(parts: Parts, verdict: Verdict) -> None:
    if verdict.filter is not None:
        parts.state.tally.edit(_key(parts, verdict.filter)).stopped += 1
    for filter_ in {exempt.filter for exempt in verdict.exempt}:
        parts.state.tally.edit(_key(parts, filter_)).exempt += 1


def count_undone(parts: Parts, filter_: str | None) -> None:
    if filter_ is not None:
        parts.state.tally.edit(_key(parts, filter_)).undone += 1


def of_stream(parts: Parts, number: int) -> dict[str, TallyRecord]:
    """What each filter did in the stream of this number."""
    return {
        key.partition("\t")[2]: record
        for key, record in parts.state.tally.items()
        if key.partition("\t")[0] == str(number)
    }


def prune(parts: Parts) -> None:
    """Forget streams long past."""
    oldest = parts.streams.now.number - KEPT_STREAMS
    for key, _ in list(parts.state.tally.items()):
        if int(key.partition("\t")[0]) < oldest:
            parts.state.tally.drop(key)
